import { combineAll, combineTwo, combineUnchecked } from '../geometry/boolean/combine';
import { divide, type DividedPiece } from '../geometry/boolean/divide';
import { NOTHING, type BooleanOp, type Region } from '../geometry/boolean/region';
import { multiply, translation, type Matrix } from '../geometry/matrix';
import { transformPath } from '../geometry/path';
import { copyMatrices } from '../model/copies';
import type { Design, DesignNode, NodeKind, NodeOf } from '../model/schema';
import { childrenOf, type NodeId } from '../model/tree';
import { outlinePath } from '../shapes/outline';
import type { FontBook } from '../text/fonts';
import { bentRun } from '../text/bent';
import { rulesPath, runPath } from '../text/outlines';
import { isText, layoutMatrix, layoutOf, type TextNode } from './layout';

/** The plain area of a node in its own space: what a combination works on. */
export interface Area {
  readonly region: Region;
  /** Of a division: its pieces, each with the child that it takes its paint from. */
  readonly pieces?: readonly { readonly region: Region; readonly owner: NodeId }[];
  /** A step of it could not be computed rightly: it is the best there is, for showing. */
  readonly unsure: boolean;
}

interface Known {
  readonly deps: readonly unknown[];
  readonly area: Area;
  /** Children in the node's own space, as they went into the result. */
  readonly parts: readonly Region[];
  /** Combined children that rest while others move, by the numbers of those that move. */
  readonly resting: Map<string, Region | null>;
  /** What was last shown while something moved: the sheet and the frame round it ask for the same. */
  moving?: { readonly deps: readonly unknown[]; readonly area: Area };
}
const same = (a: readonly unknown[], b: readonly unknown[]) => a.length === b.length && a.every((x, i) => x === b[i]);

const known = new WeakMap<DesignNode, Known>();

/** Everything a node's area is made from: nodes never change in place, so the same list means the same area. */
export function dependencies(d: Design, id: NodeId, fonts: FontBook, out: unknown[] = []): unknown[] {
  const node = d.nodes[id];
  out.push(node);
  if (isText(node)) out.push(layoutOf(d, node, fonts));
  for (const child of childrenOf(node)) dependencies(d, child, fonts, out);
  return out;
}

/**
 * The area of a node. `moving`: something is being dragged; then what rests is combined once and what moves is laid on
 * it without a check.
 */
export function areaOf(d: Design, id: NodeId, fonts: FontBook, moving = false): Area {
  const node = d.nodes[id];
  const deps = dependencies(d, id, fonts);
  const old = known.get(node);
  if (old && same(old.deps, deps)) return old.area;
  if (moving && old?.moving && same(old.moving.deps, deps)) return old.moving.area;
  if (!('children' in node)) {
    const area = { region: (LEAVES[node.kind] as RegionOf<DesignNode>)(d, node, fonts), unsure: false };
    known.set(node, { deps, area, parts: [], resting: new Map() });
    return area;
  }
  const children = node.children.filter((c) => !d.nodes[c].hidden);
  let unsure = false;
  const parts = children.map((c) => {
    const area = areaOf(d, c, fonts, moving);
    unsure ||= area.unsure;
    return placed(area.region, d.nodes[c]);
  });
  if (moving && old && node.kind === 'combination' && node.op !== 'divide' && old.parts.length === parts.length) {
    const area = { region: movingResult(node, old, parts), unsure };
    old.moving = { deps, area };
    return area;
  }
  const area = (HOLDERS[node.kind] as AreaOf<DesignNode>)(node, { d, children, parts, unsure });
  known.set(node, { deps, area, parts, resting: new Map() });
  return area;
}

const placements = new WeakMap<DesignNode, { region: Region; placed: Region }>();
/** A child's area in its parent's space. */
function placed(region: Region, child: DesignNode): Region {
  const old = placements.get(child);
  if (old?.region === region) return old.placed;
  const made = { path: transformPath(region.path, child.transform), rule: region.rule };
  placements.set(child, { region, placed: made });
  return made;
}

type HolderKind = 'group' | 'combination' | 'repeat' | 'unknown';
type LeafKind = Exclude<NodeKind, HolderKind>;
type RegionOf<N> = (d: Design, node: N, fonts: FontBook) => Region;
const letters: RegionOf<TextNode> = (d, node, fonts) => ({
  path: lettersPath(d, node, fonts),
  rule: 'nonZero',
});

/** What holds nothing, by kind; a kind that holds others has its row in HOLDERS. */
const LEAVES: { readonly [K in LeafKind]: RegionOf<NodeOf<K>> } = {
  shape: (_, node) => outlinePath(node),
  path: (_, node) => outlinePath(node),
  displayText: letters,
  textFrame: letters,
};

/** The outlines of a text's letters in the node's own space. */
export function lettersPath(d: Design, node: TextNode, fonts: FontBook): number[] {
  const out: number[] = [];
  const toOwn = layoutMatrix(node);
  const layout = layoutOf(d, node, fonts);
  for (const line of layout.lines) {
    const m = layout.warp ? toOwn : multiply(toOwn, translation(line.x, line.baseline));
    for (const run of line.runs)
      for (const path of [runPath(run), rulesPath(run)])
        if (path.length)
          for (const v of transformPath(layout.warp ? bentRun(layout, line, path) : path, m)) out.push(v);
  }
  return out;
}

interface Held {
  readonly d: Design;
  /** What is not hidden, and its areas in the holder's space. */
  readonly children: readonly NodeId[];
  readonly parts: readonly Region[];
  /** Is something among them that could not be computed rightly? */
  readonly unsure: boolean;
}
type AreaOf<N> = (node: N, held: Held) => Area;

/** What holders come to, by kind. */
const HOLDERS: { readonly [K in HolderKind]: AreaOf<NodeOf<K>> } = {
  unknown: (_, { unsure }) => ({ region: NOTHING, unsure }),
  repeat(node, { parts, unsure }) {
    const one = combineAll(parts, 'union');
    const copies = copyMatrices(node.arrangement).map((m) => mappedRegion(one.region, m));
    const all = combineAll(copies, 'union');
    return { region: all.region, unsure: unsure || !one.ok || !all.ok };
  },
  group(_, { d, children, parts, unsure }) {
    // What cuts is not part of the area, but takes from it.
    const masks = (i: number) => d.nodes[children[i]].maskMode !== undefined;
    const seen = parts.filter((_, i) => !masks(i));
    const all = combineAll(seen, 'union');
    const cut = combineAll([all.region, ...parts.filter((_, i) => masks(i))], 'intersect');
    return { region: cut.region, unsure: unsure || !all.ok || !cut.ok };
  },
  combination(node, { children, parts, unsure }) {
    const all = combineAll(
      node.op === 'divide' ? parts : inOrder(node, parts),
      node.op === 'divide' ? 'union' : node.op,
    );
    if (node.op !== 'divide') return { region: all.region, unsure: unsure || !all.ok };
    const divided: DividedPiece[] | null = divide(parts);
    const pieces = (divided ?? parts.map((region, owner) => ({ region, owner }))).map((p) => ({
      region: p.region,
      owner: children[p.owner],
    }));
    return { region: all.region, pieces, unsure: unsure || !divided || !all.ok };
  },
};

/** Operands in the order of the operation: subtract takes the rest from the first. */
const inOrder = <T>(node: NodeOf<'combination'>, parts: readonly T[]): readonly T[] =>
  node.op === 'subtract' && node.reversed ? [...parts].reverse() : parts;

function movingResult(node: NodeOf<'combination'>, old: Known, now: readonly Region[]): Region {
  const op = node.op as BooleanOp;
  const parts = inOrder(node, now);
  const before = inOrder(node, old.parts);
  const moving = parts.flatMap((p, i) => (p === before[i] ? [] : [i]));
  if (!moving.length) return old.area.region;
  const key = moving.join();
  // Of a subtraction whose first operand moves, the rest that is taken from it is combined beforehand.
  const firstMoves = op === 'subtract' && moving[0] === 0;
  if (!old.resting.has(key)) {
    const rest = parts.filter((_, i) => !moving.includes(i));
    old.resting.set(key, rest.length ? combineAll(rest, firstMoves ? 'union' : op).region : null);
  }
  const rest = old.resting.get(key) ?? null;
  const step = (a: Region, b: Region, how: BooleanOp) => combineUnchecked(a, b, how) ?? combineTwo(a, b, how).region;
  const movers = moving.map((i) => parts[i]);
  if (firstMoves)
    return [...(rest ? [rest] : []), ...movers.slice(1)].reduce((left, r) => step(left, r, 'subtract'), movers[0]);
  return rest
    ? movers.reduce((left, r) => step(left, r, op), rest)
    : movers.slice(1).reduce((left, r) => step(left, r, op), movers[0] ?? NOTHING);
}

/** A region in the space `m` maps its own to. */
const mappedRegion = (r: Region, m: Matrix): Region => ({ path: transformPath(r.path, m), rule: r.rule });
