import { isText } from '@/core/edit/layout';
import type { Design, DesignNode } from '@/core/model/schema';
import { plainText } from '@/core/text/layout';

export const KIND: Record<DesignNode['kind'], string> = { group: 'Group', combination: 'Combination', repeat: 'Repeat', shape: 'Shape', path: 'Path', displayText: 'Display text', textFrame: 'Text frame', unknown: 'Unknown object' };

/** A text that was never named goes by its first words. */
export function nameOf(design: Design, node: DesignNode): string {
  if (isText(node) && (node.name === 'Display text' || node.name === 'Text frame' || !node.name)) {
    const words = plainText(design.stories[node.story]).replace(/\s+/g, ' ').trim();
    if (words) return words.length > 40 ? `${words.slice(0, 38)} …` : words;
  }
  return node.name || KIND[node.kind];
}
