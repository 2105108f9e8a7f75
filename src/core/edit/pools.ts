import { height, width, type Rect } from '../geometry/rect';
import type { Colour, Paint, Pool, PoolsPaint, Stop } from '../model/schema';

const FIRST_REACH = 0.4;

/** First pools in a box: the ends of what was there, and one more of the first colour across from them. */
export function firstPools(box: Rect, stops: readonly Stop[], overprint: boolean): PoolsPaint {
  const [a, b] = [stops[0], stops[stops.length - 1]];
  const pool = (x: number, y: number, s: Stop): Pool => ({
    x,
    y,
    colour: s.colour,
    reach: FIRST_REACH,
    ...(s.opacity !== undefined && { opacity: s.opacity }),
  });
  return {
    kind: 'pools',
    pools: [pool(0.2, 0.25, a), pool(0.8, 0.35, b), pool(0.45, 0.85, stops[Math.floor((stops.length - 1) / 2)])],
    geometry: [width(box) || 1, 0, 0, height(box) || 1, box.x0, box.y0],
    overprint,
  };
}

/** Adds a pool at a place of unit space. Answers its index. */
export function addPool(p: PoolsPaint, x: number, y: number, colour: Colour): { paint: PoolsPaint; index: number } {
  return { paint: { ...p, pools: [...p.pools, { x, y, colour, reach: FIRST_REACH }] }, index: p.pools.length };
}

/** The paint with one pool changed. */
export function changePool(p: PoolsPaint, index: number, change: Partial<Pool>): PoolsPaint {
  return { ...p, pools: p.pools.map((q, i) => (i === index ? tidy({ ...q, ...change }) : q)) };
}

/** Takes a pool out; one must stay. */
export function removePool(p: PoolsPaint, index: number): PoolsPaint {
  return p.pools.length > 1 ? { ...p, pools: p.pools.filter((_, i) => i !== index) } : p;
}

const within = (v: number, lo: number, hi: number): number => Math.min(hi, Math.max(lo, v));

/** Numbers that the document may hold; full opacity is left unsaid. */
function tidy(q: Pool): Pool {
  const { opacity, ...rest } = q;
  return {
    ...rest,
    x: within(q.x, -4, 5),
    y: within(q.y, -4, 5),
    reach: within(q.reach, 0.02, 4),
    ...(opacity !== undefined && opacity < 1 && { opacity: Math.max(0, opacity) }),
  };
}

/** The colours of any paint as stops: what another kind is made of. */
export function stopsOfPools(p: Paint): Stop[] | null {
  if (p.kind !== 'pools') return null;
  const n = p.pools.length;
  return n === 1
    ? null
    : p.pools.map((q, i) => ({
        offset: i / (n - 1),
        colour: q.colour,
        ...(q.opacity !== undefined && { opacity: q.opacity }),
      }));
}
