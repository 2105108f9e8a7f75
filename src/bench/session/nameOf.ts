import { OP_NAMES } from '@/core/model/defaults';
import { wordsOf } from '@/core/derive/fields';
import { isText } from '@/core/derive/layout';
import type { Design, DesignNode } from '@/core/model/schema';

/** The signs of set theory; a division is a cut. */
const SIGNS = { union: '∪', subtract: '∖', intersect: '∩', exclude: '△', divide: '÷' } as const;

export const KIND: Record<DesignNode['kind'], string> = {
  group: 'Group',
  combination: 'Combination',
  repeat: 'Repeat',
  shape: 'Shape',
  path: 'Path',
  displayText: 'Display text',
  textFrame: 'Text frame',
  unknown: 'Unknown object',
};

/** A text that was never named goes by its first words. */
export function nameOf(design: Design, node: DesignNode): string {
  if (isText(node) && (node.name === 'Display text' || node.name === 'Text frame' || !node.name)) {
    const words = wordsOf(design, node).replace(/\s+/g, ' ').trim();
    if (words) return `Text: ${words.length > 40 ? `${words.slice(0, 38)} …` : words}`;
  }
  // A combination that was never named goes by what is combined.
  if (
    node.kind === 'combination' &&
    (!node.name || Object.values(OP_NAMES).includes(node.name as never)) &&
    node.children.length
  ) {
    const [first, ...rest] = node.children.map(
      (c) => design.nodes[c]?.name || (design.nodes[c] ? KIND[design.nodes[c].kind] : ''),
    );
    return rest.length === 1
      ? `${first} ${SIGNS[node.op]} ${rest[0]}`
      : rest.length
        ? `${first} ${SIGNS[node.op]} ${rest.length} more`
        : first;
  }
  return node.name || KIND[node.kind];
}
