import { pageMatrix, type NodeId } from '../model/tree';
import type { Design, NodeOf, Page } from '../model/schema';

/** Shapes that look as if they were meant to be equal, and are not quite. */
export interface DriftedSet {
  /** The one whose size most of them have: what the others are held against. */
  readonly like: NodeId;
  readonly all: readonly NodeId[];
  readonly odd: readonly { readonly id: NodeId; readonly wider: number; readonly higher: number }[];
}

/** Fewer alike are no set. */
const LEAST = 3;
/** More alike are a pattern: each is held against each. */
const LARGEST = 500;
/** Sizes that differ by less are equal; by more than the share they are meant to differ. Points of the page. */
const EQUAL = 0.03;
const SHARE = 0.04;
const MOST = 6;

interface Sized {
  readonly id: NodeId;
  readonly w: number;
  readonly h: number;
}

/**
 * The sets of a page: of one form and one paint, held by the same thing, at least three, nearly as wide and as high.
 */
export function driftedSets(d: Design, page: Page): DriftedSet[] {
  const out: DriftedSet[] = [];
  const visit = (ids: readonly NodeId[]) => {
    const kinds = new Map<string, Sized[]>();
    for (const id of ids) {
      const node = d.nodes[id];
      if (!node || node.hidden) continue;
      if (node.kind === 'group') visit(node.children);
      if (node.kind !== 'shape') continue;
      const key = `${node.shape} ${JSON.stringify(node.fills.map((f) => (f.kind === 'colour' ? f : f.kind)))} ${node.outlines.length}`;
      const alike = kinds.get(key);
      if (alike) alike.push(sized(d, page, node));
      else kinds.set(key, [sized(d, page, node)]);
    }
    for (const alike of kinds.values()) {
      const set = alike.length >= LEAST && alike.length <= LARGEST ? setOf(alike) : null;
      if (set) out.push(set);
    }
  };
  visit(page.children);
  return out;
}

function sized(d: Design, page: Page, node: NodeOf<'shape'>): Sized {
  const [a, b, c, e] = pageMatrix(d, page, node.id);
  return { id: node.id, w: node.width * Math.hypot(a, b), h: node.height * Math.hypot(c, e) };
}

const differs = (x: number, y: number): boolean => Math.abs(x - y) > EQUAL;
const isNear = (x: number, y: number): boolean => Math.abs(x - y) <= Math.min(MOST, SHARE * Math.max(x, y));

/** Those that are near the commonest size among shapes that look alike. */
function setOf(alike: readonly Sized[]): DriftedSet | null {
  const twins = (s: Sized) => alike.filter((o) => !differs(o.w, s.w) && !differs(o.h, s.h)).length;
  const like = alike.reduce((best, s) => (twins(s) > twins(best) ? s : best));
  const near = alike.filter((s) => isNear(s.w, like.w) && isNear(s.h, like.h));
  const odd = near.filter((s) => differs(s.w, like.w) || differs(s.h, like.h));
  if (near.length < LEAST || !odd.length) return null;
  return {
    like: like.id,
    all: near.map((s) => s.id),
    odd: odd.map(({ id, w, h }) => ({ id, wider: w - like.w, higher: h - like.h })),
  };
}
