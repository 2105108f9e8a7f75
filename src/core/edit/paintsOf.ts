import { eachPaintOf } from '../model/paints';
import type { DesignNode, Outline, Paint, Story } from '../model/schema';
import type { NodeId } from '../model/tree';
import { plain, type DesignDraft } from './history';
import { looksOf } from './textPlace';
import { changeRuns } from './text';

/**
 * Puts other paints in the place of those of one object, its words and its lines: `map` answers the same paint for what
 * stays.
 */
export function mapPaintsOf(d: DesignDraft, id: NodeId, map: (p: Paint) => Paint): void {
  const node = d.nodes[id];
  eachPaintOf(node as DesignNode, (p, put) => {
    const old = plain(p) as Paint;
    const next = map(old);
    if (next !== old) put(next);
  });
  mapWordPaints(d, id, map);
}

/** The same of its words alone. */
export function mapWordPaints(d: DesignDraft, id: NodeId, map: (p: Paint) => Paint): void {
  const node = d.nodes[id];
  if (!('story' in node)) return;
  const story = plain(d.stories[node.story]) as Story;
  const changed = changeRuns(looksOf(d), story, 0, 0, (r, set) => {
    const fill = map(set.fill);
    const line = set.outline && map(set.outline.paint);
    if (fill === set.fill && line === set.outline?.paint) return r;
    return {
      ...r,
      ...(fill !== set.fill && { fill }),
      ...(set.outline && line && line !== set.outline.paint && { outline: { ...set.outline, paint: line } }),
    };
  });
  d.stories[node.story] = changed as DesignDraft['stories'][string];
}

/**
 * Puts other lines in the place of those of one object and of its letters; `map` answers the same line for what stays.
 */
export function mapLinesOf(d: DesignDraft, id: NodeId, map: (line: Outline) => Outline): void {
  const node = d.nodes[id];
  for (const key of ['outlines', 'letterOutlines'] as const) {
    const lines = (node as Partial<Record<typeof key, Outline[]>>)[key];
    lines?.forEach((line, i) => {
      const old = plain(line) as Outline;
      const next = map(old);
      if (next !== old) lines[i] = next;
    });
  }
  if (!('story' in node)) return;
  const story = plain(d.stories[node.story]) as Story;
  d.stories[node.story] = changeRuns(looksOf(d), story, 0, 0, (r, set) => {
    const next = set.outline && map(set.outline);
    return next && next !== set.outline ? { ...r, outline: next } : r;
  }) as DesignDraft['stories'][string];
}
