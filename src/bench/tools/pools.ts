import { addPool, changePool, removePool } from '@/core/edit/pools';
import type { Recipe } from '@/core/edit/history';
import { setPaint } from '@/core/edit/paint';
import { apply, determinant, invert, meanScale, multiply, type Point } from '@/core/geometry/matrix';
import type { Pool, PoolsPaint } from '@/core/model/schema';
import { hitAll } from '@/core/scene/hit';
import { formatNumber } from '@/core/units/length';
import { screenMatrix } from '../view/frame';
import { openStop } from '../session/stopSlip';
import type { Session } from '../session/session';
import { aimedPools, type PoolsTarget } from './gradientTarget';
import { shown } from './shown';
import type { Gesture, PointerAt, ToolContext } from './tool';

const BEAD_PX = 11;
const RING_PX = 6;
/** A pool pulled this far out of the object's frame is taken out. */
const PULL_OUT_PX = 40;

export interface PlacedPool {
  readonly at: Point;
  /** Its reach on the screen. */
  readonly radius: number;
  readonly pool: Pool;
}

/** Pools on the screen, each with the ring of its reach. */
export function placedPools(s: Session, target: PoolsTarget): PlacedPool[] {
  const { geometry, pools } = target.paint;
  const m = multiply(screenMatrix(s.state.camera), target.matrix);
  const unit = Math.sqrt(Math.abs(determinant(geometry))) * meanScale(m);
  const toScreen = multiply(m, geometry);
  return pools.map((pool) => ({ at: apply(toScreen, pool), radius: pool.reach * unit * RING_SHARE, pool }));
}
/** The ring is drawn at a part of the reach, so that it stays near its pool. */
const RING_SHARE = 0.5;

export function poolAt(s: Session, target: PoolsTarget, p: Point): { kind: 'pool' | 'ring'; index: number } | null {
  const placed = placedPools(s, target);
  const away = (q: Point) => Math.hypot(q.x - p.x, q.y - p.y);
  const index = placed.reduce(
    (best, x, i) => (away(x.at) < BEAD_PX && (best < 0 || away(x.at) < away(placed[best].at)) ? i : best),
    -1,
  );
  if (index >= 0) return { kind: 'pool', index };
  const { stop } = s.state;
  const chosen = stop === null ? undefined : placed[stop];
  return chosen && stop !== null && Math.abs(away(chosen.at) - chosen.radius) < RING_PX
    ? { kind: 'ring', index: stop }
    : null;
}

export const withPools = (target: PoolsTarget, change: (p: PoolsPaint) => PoolsPaint): Recipe => {
  const { aim, nodes } = target;
  return (d) => setPaint(d, nodes, aim, (old) => (old.kind === 'pools' ? change(old) : old));
};

/**
 * A press on a pool, on the chosen one's ring, or on the object itself, where it adds a pool. Null: meant for something
 * else.
 */
export function pressPool(start: PointerAt, c: ToolContext, target: PoolsTarget): Gesture | null {
  const { session: s } = c;
  const found = poolAt(s, target, start.screen);
  if (found?.kind === 'ring') return dragRing(c, target, found.index);
  if (found) return dragPool(c, target, found.index);
  const mine = new Set(target.nodes);
  if (!hitAll(s.scene(), start.page, 0).some((h) => mine.has(h.node))) return null;
  const back = invert(multiply(target.matrix, target.paint.geometry));
  if (!back || target.paint.pools.length >= 32) return null;
  const at = apply(back, start.page);
  const { stop } = s.state;
  const near = target.paint.pools[stop ?? 0] ?? target.paint.pools[0];
  const index = target.paint.pools.length;
  s.commit(
    'Add a pool',
    withPools(target, (p) => addPool(p, at.x, at.y, near.colour).paint),
  );
  s.set({ stop: index });
  s.say('Added a pool. Click a colour for it, drag it, or drag its ring for its reach.');
  const fresh = aimedPools(s);
  return fresh ? dragPool(c, fresh, index) : null;
}

export function doublePool(at: PointerAt, c: ToolContext, target: PoolsTarget): void {
  const found = poolAt(c.session, target, at.screen);
  if (found?.kind === 'pool') openStop(c.session, found.index, at.screen);
}

export function poolCursor(s: Session, target: PoolsTarget, p: Point): string {
  const found = poolAt(s, target, p);
  return found ? (found.kind === 'ring' ? 'nwse-resize' : 'pointer') : 'copy';
}

function dragPool(c: ToolContext, target: PoolsTarget, index: number): Gesture {
  const { session: s } = c;
  s.set({ stop: index });
  const back = invert(multiply(target.matrix, target.paint.geometry));
  const box = s.boxOf(target.nodes);
  let out = false;
  return shown(
    c,
    () => (out ? 'Take out a pool' : 'Move a pool'),
    (p) => {
      const slack = PULL_OUT_PX / s.state.camera.scale;
      out =
        target.paint.pools.length > 1 &&
        (p.page.x < box.x0 - slack ||
          p.page.x > box.x1 + slack ||
          p.page.y < box.y0 - slack ||
          p.page.y > box.y1 + slack);
      const q = back ? apply(back, p.page) : target.paint.pools[index];
      return {
        recipe: withPools(target, (paint) =>
          out ? removePool(paint, index) : changePool(paint, index, { x: q.x, y: q.y }),
        ),
        says: out ? 'let go to take it out' : `${formatNumber(q.x * 100, 0)} %, ${formatNumber(q.y * 100, 0)} %`,
      };
    },
    () => {
      if (!out) return;
      s.set({ stop: null });
      s.say('Took the pool out.');
    },
    target.nodes,
  );
}

function dragRing(c: ToolContext, target: PoolsTarget, index: number): Gesture {
  const { session: s } = c;
  const placed = placedPools(s, target)[index];
  return shown(
    c,
    () => 'Reach of a pool',
    (p) => {
      const reach =
        (placed.pool.reach * Math.hypot(p.screen.x - placed.at.x, p.screen.y - placed.at.y)) /
        Math.max(placed.radius, 1e-6);
      return {
        recipe: withPools(target, (paint) => changePool(paint, index, { reach })),
        says: `reach ${formatNumber(Math.min(4, Math.max(0.02, reach)) * 100, 0)} %`,
      };
    },
    undefined,
    target.nodes,
  );
}
