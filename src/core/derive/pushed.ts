import { isDraft } from 'mutative';
import { scannable, spansAt, type Scannable } from '../geometry/boolean/scanline';
import { invert, meanScale, multiply, translation, type Matrix } from '../geometry/matrix';
import { pathBounds, rectPath, transformPath, type FillRule, type PathData } from '../geometry/path';
import { grow, overlaps, rect, type Rect } from '../geometry/rect';
import { copyMatrices } from '../model/copies';
import type { Design, DesignNode, NodeOf } from '../model/schema';
import { ancestry, lookOf, pageMatrix, pageOf, parentMatrix, type NodeId } from '../model/tree';
import { outlinePath } from '../shapes/outline';
import type { Edges } from '../text/column';
import { framePath, insetsOf } from './frame';

type Frame = NodeOf<'textFrame'>;

/** What pushes the words of a frame away, in the space in which they are laid out. */
export interface Obstacle {
  readonly area: Scannable;
  readonly bounds: Rect;
  /** How far words stay off it. */
  readonly distance: number;
}

const NONE: readonly Obstacle[] = [];
const pushers = new WeakMap<object, readonly NodeId[]>();

/** Does an object push words away? */
export const pushes = (n: DesignNode): boolean => n.pushesWords !== undefined && !n.hidden;

/** Objects of a design that push words away. */
export function pushersOf({ nodes }: Pick<Design, 'nodes'>): readonly NodeId[] {
  const find = (): NodeId[] => {
    const ids: NodeId[] = [];
    for (const id in nodes) if (pushes(nodes[id])) ids.push(id);
    return ids;
  };
  if (isDraft(nodes)) return find();
  // What a gesture shows: a few nodes laid over all others.
  const below: unknown = Object.getPrototypeOf(nodes);
  if (below && below !== Object.prototype) {
    const rest = pushersOf({ nodes: below as Design['nodes'] }).filter((id) => !Object.hasOwn(nodes, id));
    return [...rest, ...Object.keys(nodes).filter((id) => pushes(nodes[id]))];
  }
  // Where they lie is nothing to it: what is only moved need not be looked through again.
  const look = lookOf(nodes);
  let found = pushers.get(look);
  if (!found) pushers.set(look, (found = find()));
  return found;
}

interface Known {
  readonly deps: readonly unknown[];
  readonly obstacles: readonly Obstacle[];
}
const known = new WeakMap<Frame, Known>();

/** Something without parts that pushes, and the map from its space to the page. */
interface Shape {
  readonly node: DesignNode;
  readonly at: Matrix;
  readonly by: number;
  /** Of words: their lines, and what they were read from. */
  readonly words: Words | null;
}
/** Lines of words as boxes, in the space of their node; the same list for the same layout. */
export type Words = readonly Rect[];

/**
 * What pushes the words of a frame away: the same list for as long as it lies where it lay. `words` tells the lines of
 * display texts.
 */
export function obstaclesOf(
  d: Design,
  frame: Frame,
  words: (node: NodeOf<'displayText'>) => Words,
): readonly Obstacle[] {
  const ids = pushersOf(d);
  const page = ids.length ? pageOf(d, frame.id) : undefined;
  if (!page) return NONE;
  const own = new Set(ancestry(d, page, frame.id));
  // What lies in something hidden is not there.
  const near = ids.filter(
    (id) => !own.has(id) && pageOf(d, id) === page && ancestry(d, page, id).every((x) => !d.nodes[x].hidden),
  );
  if (!near.length) return NONE;
  const place = pageMatrix(d, page, frame.id);
  const shapes: Shape[] = [];
  for (const id of near) gather(d, id, parentMatrix(d, page, id), d.nodes[id].pushesWords!, words, shapes);
  const deps = [
    ...place,
    frame.width,
    frame.height,
    frame.inset,
    ...shapes.flatMap((s) => [s.node, s.words, ...s.at, s.by]),
  ];
  const old = known.get(frame);
  if (old && old.deps.length === deps.length && old.deps.every((v, i) => v === deps[i])) return old.obstacles;
  const made = placed(frame, place, shapes);
  known.set(frame, { deps, obstacles: made });
  return made;
}

/**
 * The parts of what pushes. Of what is cut away from something, that something pushes whole: words do not run into
 * holes.
 */
function gather(
  d: Design,
  id: NodeId,
  parent: Matrix,
  by: number,
  words: (node: NodeOf<'displayText'>) => Words,
  out: Shape[],
): void {
  const node = d.nodes[id];
  if (node.hidden) return;
  const at = multiply(parent, node.transform);
  const all = (ids: readonly NodeId[], m: Matrix) => ids.forEach((child) => gather(d, child, m, by, words, out));
  switch (node.kind) {
    case 'unknown':
      return;
    case 'group': {
      // What cuts the group by its outline is as far as it is seen.
      const cut = node.children.filter((c) => d.nodes[c].maskMode === 'outline');
      return all(cut.length ? cut : node.children.filter((c) => !d.nodes[c].maskMode), at);
    }
    case 'repeat':
      for (const copy of copyMatrices(node.arrangement)) all(node.children, multiply(at, copy));
      return;
    case 'combination': {
      const { op, children, reversed } = node;
      const one =
        op === 'subtract'
          ? [reversed ? children[children.length - 1] : children[0]]
          : op === 'intersect'
            ? children.slice(0, 1)
            : children;
      return all(one, at);
    }
    case 'displayText':
      out.push({ node, at, by, words: words(node) });
      return;
    default:
      out.push({ node, at, by, words: null });
  }
}

/** The outline of a part, in its own space. */
function outlineOf({ node, words }: Shape): { readonly path: PathData; readonly rule: FillRule } {
  if (node.kind === 'textFrame') return framePath(node);
  if (node.kind === 'shape' || node.kind === 'path') return outlinePath(node);
  return { path: (words ?? []).flatMap((box) => [...rectPath(box)]), rule: 'nonZero' };
}

function placed(frame: Frame, place: Matrix, shapes: readonly Shape[]): readonly Obstacle[] {
  const back = invert(place);
  if (!back) return NONE;
  const { left, top } = insetsOf(frame);
  const toLayout = multiply(translation(-left, -top), back);
  const sheet = rect(-left, -top, frame.width, frame.height);
  const scale = meanScale(place) || 1;
  const found = shapes.flatMap((shape): Obstacle[] => {
    const { path: own, rule } = outlineOf(shape);
    const path = transformPath(own, multiply(toLayout, shape.at));
    const bounds = pathBounds(path);
    const distance = shape.by / scale;
    if (!path.length || !overlaps(grow(bounds, distance), sheet)) return [];
    return [{ area: scannable({ path, rule }), bounds, distance }];
  });
  return found.length ? found : NONE;
}

/** How many level lines a line of letters is tried on. */
const TRIES = 7;

/**
 * The stretches between two edges that nothing reaches into, over the height of a line, left to right; words run on
 * both sides of what pushes them.
 */
export function freeOf(obstacles: readonly Obstacle[], top: number, bottom: number, edges: Edges): readonly Edges[] {
  const taken: [number, number][] = [];
  for (const { area, bounds, distance } of obstacles) {
    const [from, to] = [Math.max(top - distance, bounds.y0), Math.min(bottom + distance, bounds.y1)];
    if (from > to) continue;
    for (let i = 0; i < TRIES; i++) {
      // Not on its very ends, where a level line only touches it. Between its own parts, no words.
      const spans = spansAt(area, from + ((to - from) * (i + 0.5)) / TRIES);
      if (spans.length) taken.push([spans[0] - distance, spans[spans.length - 1] + distance]);
    }
  }
  taken.sort((a, b) => a[0] - b[0]);
  const free: Edges[] = [];
  let at = edges.x0;
  for (const [a, b] of [...taken, [edges.x1, edges.x1] as const]) {
    const to = Math.min(a, edges.x1);
    if (to > at) free.push({ x0: at, x1: to });
    at = Math.max(at, b);
  }
  return free;
}
