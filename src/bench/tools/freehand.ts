import type { Recipe } from '@/core/edit/history';
import { writeContours } from '@/core/edit/nodes';
import { brushed } from '@/core/edit/smoothing';
import { apply, invert, meanScale, type Point } from '@/core/geometry/matrix';
import { lineThrough } from '@/core/edit/handLine';
import { pathOfNodes } from '@/core/geometry/nodes';
import { LINE, MOVE } from '@/core/geometry/path';
import { mm } from '@/core/units/length';
import type { DesignNode } from '@/core/model/schema';
import { count } from '../session/commandDef';
import { openPaths } from './nodeSpots';
import { drawingPaint, paintedAs } from './shape';
import { putNode } from './placing';
import { far, type Gesture, type PointerAt, type Tool, type ToolContext } from './tool';

/** A line that comes back to where it began, this near (pixels), is closed. */
const CLOSE_PX = 10;
/** The full width of a line that follows the pressure of a pen. */
const PRESSED_WIDTH = mm(1.4);
/** A brush works again after it has gone this share of its radius. */
const BRUSH_STEP = 0.15;

/** Draws as the hand goes, or smooths what it goes over. */
export const freehandTool: Tool = {
  press: (at, c) =>
    c.session.state.readOnly ? null : c.session.state.freehand.mode === 'smooth' ? smooth(c, at) : drawLine(c, at),
  hover(at, c) {
    const { freehand } = c.session.state;
    c.extras.brush = freehand.mode === 'smooth' ? { at: at.page, radius: freehand.radius } : null;
  },
  cursor: (_at, c) => (c.session.state.freehand.mode === 'smooth' ? 'none' : 'crosshair'),
};

function drawLine(c: ToolContext, start: PointerAt): Gesture {
  const { session: s } = c;
  const points: { x: number; y: number; pressure: number | undefined }[] = [];
  const put = (p: PointerAt) => points.push({ ...p.page, pressure: p.pressure });
  put(start);
  const end = () => {
    c.extras.rubber = null;
    c.readout(null);
  };
  return {
    move(p) {
      put(p);
      c.extras.rubber = points.flatMap((q, i) => [i ? LINE : MOVE, q.x, q.y]);
      c.refresh();
    },
    release(p) {
      put(p);
      end();
      if (!far(p, start) && points.length < 4) {
        s.say('Press and draw: the line follows the hand and is made of as few nodes as keep near to it.');
        return;
      }
      const { scale } = s.state.camera;
      const made = lineThrough(points, s.state.freehand.tolerance / scale, CLOSE_PX / scale);
      const pressed = made.nodes.some((n) => n.width !== undefined);
      const id = s.newId();
      const { path, kinds } = pathOfNodes([made]);
      const paint = paintedAs(drawingPaint(s), true);
      const node: DesignNode = {
        id,
        name: pressed ? 'Pen stroke' : 'Drawn line',
        kind: 'path',
        transform: [1, 0, 0, 1, 0, 0],
        hidden: false,
        locked: false,
        path,
        kinds,
        fillRule: 'nonZero',
        fills: paint.fills,
        outlines: paint.outlines.map((o) => ({
          ...o,
          cap: 'round' as const,
          join: 'round' as const,
          ...(pressed && { width: PRESSED_WIDTH }),
        })),
        ...(pressed && { widths: made.nodes.map((n) => n.width ?? 1) }),
      };
      if (s.commit('Draw a line', (d) => putNode(d, s, node), { select: [id] })) {
        s.set({ aim: 'outline' });
        s.say(
          `Drew a line of ${count(made.nodes.length, 'node')} from ${points.length} places of the hand${pressed ? '; its width follows the pressure' : ''}.`,
        );
      }
    },
    cancel: end,
  };
}

function smooth(c: ToolContext, start: PointerAt): Gesture | null {
  const { session: s } = c;
  const paths = openPaths(s);
  if (!paths.length) {
    s.say('Choose the path to smooth first, then brush over it.');
    return null;
  }
  const now = new Map(paths.map((p) => [p.id, p.contours]));
  let last: Point | null = null;
  let touched = 0;
  const radius = s.state.freehand.radius / s.state.camera.scale;
  const brush = (p: PointerAt) => {
    c.extras.brush = { at: p.page, radius: s.state.freehand.radius };
    if (last && Math.hypot(p.page.x - last.x, p.page.y - last.y) < radius * BRUSH_STEP) return;
    last = p.page;
    for (const path of paths) {
      const back = invert(path.matrix);
      if (!back) continue;
      const made = brushed(now.get(path.id)!, apply(back, p.page), radius / meanScale(path.matrix));
      now.set(path.id, made.contours);
      touched += made.touched;
    }
  };
  const recipe: Recipe = (d) => {
    for (const path of paths) writeContours(d, s.page, path.id, now.get(path.id)!);
  };
  brush(start);
  const ids = paths.map((p) => p.id);
  return {
    move(p) {
      brush(p);
      if (touched) s.preview(recipe, ids);
      c.refresh();
    },
    release() {
      if (touched && s.commit('Smooth', recipe)) s.say('Smoothed what the brush went over. Brush again for more.');
      else s.preview(null);
    },
    cancel: () => s.preview(null),
  };
}
