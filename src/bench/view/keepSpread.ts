import type { Rect } from '@/core/geometry/rect';
import { setupOn } from '@/core/model/setupOn';
import { pageById, spreadOf } from '@/core/model/tree';
import { bleedRect } from '@/core/scene/scene';
import { BENCH_TOP } from '../session/focus';
import type { Session } from '../session/session';
import type { BenchState, Camera } from '../session/state';
import { toScreen } from './camera';
import { fitPage, wholeSpread } from './inSight';

/** Where a page begins on its spread: behind the fold, or not. */
function startOn({ design }: BenchState, page: string): number {
  const on = design.pages.find((p) => p.id === page);
  const spread = on && spreadOf(design, on);
  return spread?.side === 'right' ? setupOn(design, spread.other ?? on!).width : 0;
}

/**
 * After going to another page: a spread stays where it is on the bench, and the work goes from one side to the other.
 * Where all of the last page was in sight, all of the next spread is.
 */
export function keepSpread(s: Session, before: BenchState): void {
  const { state } = s;
  if (state.page === before.page || !state.design.setup.facing) return;
  const by = startOn(state, state.page) - startOn(before, before.page);
  if (by) s.set({ camera: { ...state.camera, x: state.camera.x + by * state.camera.scale } });
  const el = document.getElementById(BENCH_TOP);
  if (!el) return;
  const inSight = (camera: Camera, r: Rect): boolean => {
    const [a, b] = [toScreen(camera, { x: r.x0, y: r.y0 }), toScreen(camera, { x: r.x1, y: r.y1 })];
    return a.x >= -1 && a.y >= -1 && b.x <= el.clientWidth + 1 && b.y <= el.clientHeight + 1;
  };
  const whole = inSight(
    before.camera,
    bleedRect(setupOn(before.design, pageById(before.design, before.page) ?? before.design.pages[0])),
  );
  if (whole && !inSight(s.state.camera, wholeSpread(s))) fitPage(s);
}
