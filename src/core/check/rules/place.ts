import { union, type Rect } from '../../geometry/rect';
import { formatLength } from '../../units/length';
import { spreadOf, withDescendants } from '../../model/tree';
import { letterSize } from '../../scene/overprints';
import { isMark } from '../marks';
import { seenOn } from '../seen';
import type { Found, FindingFacts, Rule } from '../types';

type Edge = FindingFacts['place.nearly']['edge'];
const EDGES: readonly { readonly edge: Edge; readonly at: (b: Rect) => number }[] = [
  { edge: 'left', at: (b) => b.x0 },
  { edge: 'right', at: (b) => b.x1 },
  { edge: 'top', at: (b) => b.y0 },
  { edge: 'foot', at: (b) => b.y1 },
];
/** Edges that differ by less lie in line; by more they are meant apart (points). */
const EQUAL = 0.03;
const MOST = 1.2;
/** So many others have to lie in line exactly. */
const LEAST = 2;
/** More objects are a pattern. */
const CROWD = 300;

/** What is smaller than this share of the page's sides is a mark: a logo, a stamp, a number's box. */
const SMALL = 0.25;
const SLACK = 0.02;

/** Small things, words apart, nearer to the cut than a knife may stray. */
export const smallNearTrimRule: Rule<'place.nearTrim'> = {
  code: 'place.nearTrim',
  severity: 'look',
  *find({ design, page, scene, palette, limits }): Iterable<Found<'place.nearTrim'>> {
    const { safe } = limits;
    if (palette.screen || !(safe > 0) || scene.round || page.children.length > CROWD) return;
    const { width, height } = scene;
    const holders = new Map<string, string>();
    for (const id of page.children) for (const inside of withDescendants(design, id)) holders.set(inside, id);
    const boxes = new Map<string, { box: Rect; words: boolean }>();
    for (const { leaf, bounds } of seenOn(scene, palette)) {
      const holder = holders.get(leaf.node);
      if (!holder || isMark(leaf, palette)) continue;
      const known = boxes.get(holder);
      const words = letterSize(leaf) !== null || (known?.words ?? false);
      boxes.set(holder, { box: known ? union(known.box, bounds) : bounds, words });
    }
    const fold = spreadOf(design, page);
    for (const [node, { box, words }] of boxes) {
      // Words are told of by a rule of their own.
      if (words || box.x1 - box.x0 > SMALL * width || box.y1 - box.y0 > SMALL * height) continue;
      const offs = { left: box.x0, top: box.y0, right: width - box.x1, foot: height - box.y1 };
      // What reaches across the cut is meant to be cut.
      if (Object.values(offs).some((off) => off < SLACK)) continue;
      if (fold?.other) delete (offs as Partial<typeof offs>)[fold.side === 'left' ? 'right' : 'left'];
      const near = Object.entries(offs).filter(([, off]) => off < safe - SLACK);
      if (!near.length) continue;
      const way = (side: keyof typeof offs) => (offs[side] < safe ? safe - offs[side] : 0);
      const facts = {
        off: Math.min(...near.map(([, off]) => off)),
        safe,
        dx: way('left') - way('right'),
        dy: way('top') - way('foot'),
        sides: near.map(([side]) => side),
        unit: design.setup.unit,
      };
      yield { node, facts };
    }
  },
  say: ({ off, safe, sides, unit }, name) => ({
    message: `${name} lies ${formatLength(off, unit, 1)} from the ${sides.join(' and the ')}.`,
    why: `The knife strays by a little, and so near to the edge it shows. Keep it ${formatLength(safe, unit, 1)} away, or let it run over the edge into the bleed.`,
  }),
};

/** Objects at the top of the page that nearly line up with two or more that do exactly. */
export const nearlyRule: Rule<'place.nearly'> = {
  code: 'place.nearly',
  severity: 'look',
  *find({ design, page, scene, palette }): Iterable<Found<'place.nearly'>> {
    if (page.children.length > CROWD) return;
    const top = new Set(page.children);
    const boxes = new Map<string, Rect>();
    for (const { leaf } of seenOn(scene, palette)) {
      const kind = design.nodes[leaf.node]?.kind;
      // Letters have edges of their own, which are nowhere in line.
      if (!top.has(leaf.node) || kind === 'displayText' || kind === 'textFrame') continue;
      const known = boxes.get(leaf.node);
      boxes.set(leaf.node, known ? union(known, leaf.placed.bounds) : leaf.placed.bounds);
    }
    const told = new Set<string>();
    for (const { edge, at } of EDGES) {
      const all = [...boxes].map(([id, b]) => ({ id, v: at(b) }));
      for (const { id, v } of all) {
        if (told.has(id)) continue;
        const near = all.filter((o) => o.id !== id && Math.abs(o.v - v) <= MOST && Math.abs(o.v - v) > EQUAL);
        const best = near.find((o) => near.filter((p) => Math.abs(p.v - o.v) <= EQUAL).length >= LEAST);
        if (!best || all.some((o) => o.id !== id && Math.abs(o.v - v) <= EQUAL)) continue;
        told.add(id);
        const others = near.filter((p) => Math.abs(p.v - best.v) <= EQUAL).length;
        yield { node: id, facts: { by: best.v - v, edge, others, unit: design.setup.unit } };
      }
    }
  },
  say: ({ by, edge, others, unit }, name) => ({
    message: `The ${edge} edge of ${name} is ${formatLength(Math.abs(by), unit, 2)} out of line with ${others} others.`,
    why: 'Nearly in line looks like a slip. Line it up, or move it clearly away.',
  }),
};
