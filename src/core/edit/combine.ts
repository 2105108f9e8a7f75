import { firstLetters } from '../model/textLooks';
import { looksOf } from './textPlace';
import { combineAll } from '../geometry/boolean/combine';
import { gapsBetween, piecesOf, type Gap } from '../geometry/boolean/pieces';
import { invert, multiply, translation, type Matrix, type Point } from '../geometry/matrix';
import { CLOSE, LINE, MOVE, pathBounds, transformPath, type PathData } from '../geometry/path';
import { centre, rectMatrix } from '../geometry/rect';
import { colourPaint, BLACK, OP_NAMES } from '../model/defaults';
import type { Design, DesignNode, NodeOf, Outline, Page, Paint } from '../model/schema';
import { pageMatrix, parentMatrix, topmost, type NodeId } from '../model/tree';
import { mm } from '../units/length';
import type { FontBook } from '../text/fonts';
import { areaOf } from '../derive/area';
import { localBox } from '../derive/box';
import { plain, type DesignDraft } from './history';
import { isText } from '../derive/layout';
import { placedPaint } from './place';
import { wrapNodes } from './pile';

export type CombineOp = NodeOf<'combination'>['op'];
type Combination = NodeOf<'combination'>;

/**
 * What a combination of objects would be, back to front, with the paint of the one that stays: of a subtraction the one
 * that is taken from, else the front one. `unsure`: no engine could do it rightly; then it is not to be kept.
 */
export function combineNodes(
  d: DesignDraft,
  page: Page,
  ids: readonly NodeId[],
  op: CombineOp,
  reversed: boolean,
  newId: () => string,
  fonts: FontBook,
): NodeId | null {
  const was = d as Design;
  const members = topmost(was, page, ids);
  if (!members.length) return null;
  const lead = op === 'subtract' && !reversed ? members[0] : members[members.length - 1];
  const front = members[members.length - 1];
  const back = invert(parentMatrix(was, page, front)) ?? ([1, 0, 0, 1, 0, 0] as Matrix);
  const { fills, outlines } = paintsFor(was, lead, multiply(back, pageMatrix(was, page, lead)), fonts);
  return wrapNodes(d, page, members, newId, (id, children) => ({
    id,
    name: OP_NAMES[op],
    kind: 'combination',
    op,
    ...(op === 'subtract' && reversed && { reversed }),
    transform: [1, 0, 0, 1, 0, 0],
    hidden: false,
    locked: false,
    children,
    fills,
    outlines,
  }));
}

/** The paints of an object for one that takes its place, seen through a map to the other's space. */
function paintsFor(
  d: Design,
  id: NodeId,
  map: Matrix,
  fonts: FontBook,
): { fills: readonly Paint[]; outlines: readonly Outline[] } {
  const node = d.nodes[id];
  if (isText(node)) {
    const run = firstLetters(looksOf(d), plain(d.stories[node.story]));
    const box = localBox(d, node, fonts);
    // What each letter had to itself lies over all of them.
    const whole = (p: Paint): Paint => {
      if (p.kind !== 'gradient' || !p.eachLetter) return placedPaint(p, map);
      const { eachLetter: _, ...rest } = p;
      return placedPaint({ ...rest, geometry: multiply(rectMatrix(box), p.geometry) }, map);
    };
    return {
      fills: [whole(run.fill)],
      outlines: [...(node.letterOutlines ?? []), ...(run.outline ? [run.outline] : [])].map((o) => ({
        ...o,
        paint: whole(o.paint),
      })),
    };
  }
  if ('fills' in node)
    return {
      fills: node.fills.map((p) => placedPaint(p, map)),
      outlines: node.outlines.map((o) => ({ ...o, paint: placedPaint(o.paint, map) })),
    };
  const front = node.children[node.children.length - 1];
  return front
    ? paintsFor(d, front, multiply(map, d.nodes[front].transform), fonts)
    : { fills: [colourPaint(BLACK)], outlines: [] };
}

/** Changes how a combination is made; a name that only said the kind follows. */
export function setCombination(d: DesignDraft, id: NodeId, change: { op?: CombineOp; reversed?: boolean }): void {
  const node = d.nodes[id];
  if (node.kind !== 'combination') return;
  if (change.op && change.op !== node.op) {
    if (Object.values(OP_NAMES).includes(node.name)) node.name = OP_NAMES[change.op];
    node.op = change.op;
  }
  if (change.reversed !== undefined) {
    if (change.reversed) node.reversed = true;
    else delete node.reversed;
  }
}

/** A place where a union stays apart, in the combination's own space. */
export interface OpenGap extends Gap {
  /** Operands that would be moved to close it; none where both sides belong to one. */
  readonly moves: readonly NodeId[];
  /** Their way, overlap included. */
  readonly dx: number;
  readonly dy: number;
  /** The way across, as a unit vector. */
  readonly way: Point;
  /** How wide a bridge would be. */
  readonly bridge: number;
}

/** Pieces further apart than this, or than this share of the whole, are meant to be apart. */
const NEAR = mm(2);
const NEAR_SHARE = 0.03;
/** Pieces are laid over each other by this much, so that they are one: touching curves share a point, no area. */
const OVERLAP = mm(0.1);
/** More pieces than this are a pattern. */
const MANY = 40;

/** Where a union stays in pieces that nearly touch, nearest first. */
export function openGaps(d: Design, id: NodeId, fonts: FontBook): OpenGap[] {
  const node = d.nodes[id];
  if (node?.kind !== 'combination' || node.op !== 'union') return [];
  const { region } = areaOf(d, id, fonts);
  const pieces = piecesOf(region);
  if (pieces.length < 2 || pieces.length > MANY) return [];
  const box = pathBounds(region.path);
  const near = Math.max(NEAR, NEAR_SHARE * Math.max(box.x1 - box.x0, box.y1 - box.y0));
  const gaps = gapsBetween(pieces, near);
  if (!gaps.length) return [];
  const homes = operandHomes(d, node, pieces, fonts);
  // Letters of a word, or the parts of a group, are meant to be apart: a gap lies between different operands.
  const between = gaps.filter((g) => ![...homes.values()].some((at) => at.has(g.a) && at.has(g.b)));
  return between.map((g) => {
    const sizes = [g.a, g.b].map((i) => extent(pieces[i].path));
    const small = sizes[0] < sizes[1] ? g.a : g.b;
    const own = [...homes].filter(([, at]) => at.has(small));
    // What lies in another piece as well would tear a gap open there.
    const free = own.length > 0 && own.every(([, at]) => at.size === 1);
    const [from, to] = small === g.a ? [g.from, g.to] : [g.to, g.from];
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    // Where they touch there is no way across: from middle to middle then.
    const mids = [pieces[small], pieces[small === g.a ? g.b : g.a]].map((p) => centre(pathBounds(p.path)));
    const way = unit(
      length > 1e-6 ? { x: to.x - from.x, y: to.y - from.y } : { x: mids[1].x - mids[0].x, y: mids[1].y - mids[0].y },
    );
    return {
      ...g,
      moves: free ? own.map(([o]) => o) : [],
      dx: way.x * (length + OVERLAP),
      dy: way.y * (length + OVERLAP),
      way,
      bridge: Math.max(OVERLAP * 5, Math.min(g.distance * 2, Math.min(...sizes) / 4)),
    };
  });
}

const unit = (p: Point): Point => {
  const n = Math.hypot(p.x, p.y);
  return n > 0 ? { x: p.x / n, y: p.y / n } : { x: 1, y: 0 };
};

const extent = (path: PathData): number => {
  const b = pathBounds(path);
  return Math.min(b.x1 - b.x0, b.y1 - b.y0);
};

/** For every operand the pieces that it lies in. */
function operandHomes(
  d: Design,
  node: Combination,
  pieces: readonly { path: PathData; rule: 'evenOdd' | 'nonZero' }[],
  fonts: FontBook,
): Map<NodeId, Set<number>> {
  const homes = new Map<NodeId, Set<number>>();
  for (const child of node.children) {
    if (d.nodes[child].hidden) continue;
    const { region } = areaOf(d, child, fonts);
    const placed = { path: transformPath(region.path, d.nodes[child].transform), rule: region.rule };
    const at = new Set<number>();
    pieces.forEach((piece, i) => {
      const shared = combineAll([piece, placed], 'intersect');
      if (shared.region.path.length) at.add(i);
    });
    homes.set(child, at);
  }
  return homes;
}

/** Closes a gap by moving the smaller side until both lie a hair over each other. */
export function closeByMoving(d: DesignDraft, gap: OpenGap): void {
  for (const id of gap.moves)
    d.nodes[id].transform = [...multiply(translation(gap.dx, gap.dy), d.nodes[id].transform as Matrix)];
}

/** Closes a gap by a bar across it, one more operand of the combination. */
export function closeByBridge(d: DesignDraft, id: NodeId, gap: OpenGap, newId: () => string): void {
  const node = d.nodes[id];
  if (node.kind !== 'combination') return;
  const bar = newId();
  const [dx, dy] = [gap.to.x - gap.from.x, gap.to.y - gap.from.y];
  const length = Math.hypot(dx, dy);
  const { x: ux, y: uy } = length > 1e-6 ? { x: dx / length, y: dy / length } : gap.way;
  const over = gap.bridge / 2 + OVERLAP;
  const h = gap.bridge / 2;
  const at = (along: number, aside: number): [number, number] => [
    gap.from.x + ux * along - uy * aside,
    gap.from.y + uy * along + ux * aside,
  ];
  const path = [
    MOVE,
    ...at(-over, -h),
    LINE,
    ...at(length + over, -h),
    LINE,
    ...at(length + over, h),
    LINE,
    ...at(-over, h),
    CLOSE,
  ];
  const bridge: DesignNode = {
    id: bar,
    name: 'Bridge',
    kind: 'path',
    transform: [1, 0, 0, 1, 0, 0],
    hidden: false,
    locked: false,
    path,
    fillRule: 'nonZero',
    fills: [colourPaint(BLACK)],
    outlines: [],
  };
  d.nodes[bar] = bridge as DesignDraft['nodes'][string];
  // At the back: the combination takes its paint from what it has, not from its operands.
  node.children.unshift(bar);
}
