import type { Recipe } from '@/core/edit/history';
import { translation, type Point } from '@/core/geometry/matrix';
import { BLACK, NO_PAINT, colourPaint, outlineOf } from '@/core/model/defaults';
import type { DesignNode, NodeOf, Paint } from '@/core/model/schema';
import { shapeById } from '@/core/shapes/catalogue';
import { formatLength, mm } from '@/core/units/length';
import { withArticle } from '../session/commandDef';
import type { Session } from '../session/session';
import { noteShape } from '../session/settings';
import { targetsFor, snapPoint } from './snapping';
import { clearSnap } from './ending';
import { aimFor } from './pick';
import { putNode } from './placing';
import { far, type PointerAt, type Tool } from './tool';

/** A click without a drag draws at this size. */
const CLICK_SIZE = mm(40);

/** What a new shape is filled with: what was used last, else the first swatch that shows on bare paper. */
export function drawingPaint(s: Session): Paint {
  for (let i = s.page.children.length - 1; i >= 0; i--) {
    const n = s.design.nodes[s.page.children[i]];
    if ('fills' in n && n.kind !== 'textFrame' && !n.locked && n.fills[0]?.kind === 'colour') return n.fills[0];
  }
  const visible = s.design.swatches.find(
    (w) =>
      w.kind === 'colour' &&
      s.palette.mix({ swatch: w.id, tint: 1 }).some((v) => (s.palette.screen ? v < 0.95 : v > 0.05)),
  );
  return visible
    ? colourPaint({ swatch: visible.id, tint: 1 })
    : colourPaint(s.palette.screen ? { rgb: [0, 0, 0] } : { cmyk: [0, 0, 0, 1] });
}

/** Width and height of a shape that nobody gave a size: the larger side is `side`. */
export function clickSize(shape: string, side: number): [number, number] {
  const proportion = shapeById(shape)?.proportion ?? 1;
  return proportion > 1 ? [side / proportion, side] : [side, side * proportion];
}

export function newShape(
  s: Session,
  shape: string,
  x: number,
  y: number,
  width: number,
  height: number,
  id = s.newId(),
): DesignNode {
  const def = shapeById(shape);
  if (!def) throw new Error(`unknown shape: ${shape}`);
  const knobs = Object.fromEntries(def.params.map((p) => [p.id, p.initial]));
  const paint = drawingPaint(s);
  return {
    id,
    name: def.name,
    kind: 'shape',
    shape,
    transform: translation(x, y),
    hidden: false,
    locked: false,
    width,
    height,
    knobs,
    ...paintedAs(paint, def.open ?? false),
  };
}

/** What is a line is drawn with an outline, an area with a fill. */
export function paintedAs(paint: Paint, line: boolean): Pick<NodeOf<'path'>, 'fills' | 'outlines'> {
  return line
    ? { fills: [NO_PAINT], outlines: [outlineOf(paint.kind === 'none' ? colourPaint(BLACK) : paint, LINE_WIDTH)] }
    : { fills: [paint], outlines: [] };
}

/** A new line shows and prints safely at this width. */
const LINE_WIDTH = mm(0.7);

export const shapeTool: Tool = {
  press(start, c) {
    const { session: s } = c;
    if (s.state.readOnly) return null;
    const lines = targetsFor(c, []);
    const from = snapPoint(c, start.page, lines, start).point;
    clearSnap(c);
    const id = s.newId();
    const fill = drawingPaint(s);
    const def = shapeById(s.state.shape)!;
    let recipe: Recipe = () => {};
    const place = (a: Point, w: number, h: number) => {
      const node = {
        ...newShape(s, s.state.shape, a.x, a.y, w, h, id),
        ...paintedAs(fill, def.open ?? false),
      } as DesignNode;
      recipe = (d) => putNode(d, s, node);
    };
    const drag = (p: PointerAt) => {
      const snapped = snapPoint(c, p.page, lines, p);
      let dx = snapped.point.x - from.x;
      let dy = snapped.point.y - from.y;
      if (p.shift) {
        const side = Math.max(Math.abs(dx), Math.abs(dy));
        dx = side * (Math.sign(dx) || 1);
        dy = side * (Math.sign(dy) || 1);
      }
      const a = p.alt
        ? { x: from.x - Math.abs(dx), y: from.y - Math.abs(dy) }
        : { x: Math.min(from.x, from.x + dx), y: Math.min(from.y, from.y + dy) };
      const [w, h] = p.alt ? [2 * Math.abs(dx), 2 * Math.abs(dy)] : [Math.abs(dx), Math.abs(dy)];
      place(a, Math.max(w, 0.1), Math.max(h, 0.1));
      const { unit } = s.design.setup;
      c.readout(`${formatLength(w, unit)} × ${formatLength(h, unit)}${snapped.said}`);
    };
    const end = () => {
      clearSnap(c);
      c.readout(null);
    };
    return {
      move(p) {
        if (!far(p, start)) return;
        drag(p);
        s.preview(recipe);
      },
      release(p) {
        if (far(p, start)) drag(p);
        else {
          const [w, h] = clickSize(s.state.shape, CLICK_SIZE);
          place({ x: from.x - w / 2, y: from.y - h / 2 }, w, h);
        }
        const { name } = def;
        if (s.commit(`Draw ${name.toLowerCase()}`, recipe, { select: [id] })) {
          s.set({ tool: 'select', stop: null, ...(def.open && { aim: 'outline' }) });
          noteShape(s, def.id);
          if (!def.open) s.set({ aim: 'fill' });
          aimFor(s, [id]);
          s.say(
            `Drew ${withArticle(name.toLowerCase())}.${def.knobs.length ? ' Its knobs change its inner measures.' : ''}`,
          );
        }
        end();
      },
      cancel() {
        s.preview(null);
        end();
      },
    };
  },
  cursor: () => 'crosshair',
};
