import { geometryFrom, gradientLine, insertStop, moveStop, removeStop, stopsFrom } from '@/core/edit/gradient';
import type { Recipe } from '@/core/edit/history';
import { aimedNodes, paintAt, setPaint, stopsOf } from '@/core/edit/paint';
import { distanceToSegment } from '@/core/geometry/contains';
import { apply, invert, multiply, type Point } from '@/core/geometry/matrix';
import { BLACK } from '@/core/model/defaults';
import type { GradientPaint } from '@/core/model/schema';
import { pageMatrix } from '@/core/model/tree';
import { formatLength, formatNumber } from '@/core/units/length';
import { screenMatrix } from '../canvas/frame';
import type { Session } from '../session/session';
import { aimedGradient, withStops, type GradientTarget } from './gradientTarget';
import { choose, pick } from './select';
import { far, type Gesture, type PointerAt, type Tool, type ToolContext } from './tool';

const BEAD_PX = 10;
/** A bead pulled this far off its line is taken out. */
const PULL_OUT_PX = 34;

export const gradientTool: Tool = {
  press(start, c) {
    const { session: s } = c;
    const target = aimedGradient(s);
    if (target) {
      const bead = beadAt(s, target, start.screen);
      if (bead.kind === 'stop') return dragBead(c, target, bead.index);
      if (bead.kind === 'end') return dragEnd(c, target, bead.end);
      if (bead.kind === 'line') {
        const made = insertStop(stopsOf(s.design, target.paint), bead.t);
        s.commit('Add a stop', withStops(s.state.aim, target.node, target.paint, made.stops));
        s.set({ stop: made.index });
        s.say('Added a stop. Click a colour for it, or drag it along the line.');
        const fresh = aimedGradient(s);
        return fresh ? dragBead(c, fresh, made.index) : null;
      }
    }
    const found = pick(s, start);
    if (!aimedNodes(s.design, s.state.selection, s.state.aim).length || (found && !s.state.selection.includes(found.id) && !target)) {
      if (!found) return null;
      choose(s, [found.id]);
    }
    return drawLine(c, start);
  },
  cursor(at, c) {
    const target = aimedGradient(c.session);
    if (!target) return 'crosshair';
    const bead = beadAt(c.session, target, at.screen);
    return bead.kind === 'none' ? 'crosshair' : bead.kind === 'line' ? 'copy' : 'pointer';
  },
};

type Bead = { kind: 'stop'; index: number } | { kind: 'end'; end: 'from' | 'to' } | { kind: 'line'; t: number } | { kind: 'none' };

function screenLine(s: Session, target: GradientTarget): { a: Point; b: Point } {
  const m = multiply(screenMatrix(s.state.camera), target.matrix);
  const { from, to } = gradientLine(target.paint);
  return { a: apply(m, from), b: apply(m, to) };
}

const along = (a: Point, b: Point, p: Point): number => {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  return ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy || 1);
};

function beadAt(s: Session, target: GradientTarget, p: Point): Bead {
  const { a, b } = screenLine(s, target);
  const stops = stopsOf(s.design, target.paint);
  let best: Bead = { kind: 'none' };
  let least = BEAD_PX;
  stops.forEach((stop, index) => {
    const d = Math.hypot(a.x + (b.x - a.x) * stop.offset - p.x, a.y + (b.y - a.y) * stop.offset - p.y);
    // The inner half of a bead is the stop itself; round the very ends the line's own ends are taken.
    if (d < least) {
      least = d;
      best = { kind: 'stop', index };
    }
  });
  const ends = [['from', a], ['to', b]] as const;
  for (const [end, q] of ends) {
    const d = Math.hypot(q.x - p.x, q.y - p.y);
    if (d < 17 && (best.kind === 'none' || (least > 7 && d > 7))) return { kind: 'end', end };
  }
  if (best.kind !== 'none') return best;
  const t = along(a, b, p);
  return t > 0 && t < 1 && distanceToSegment(p, a.x, a.y, b.x, b.y) < 7 ? { kind: 'line', t } : { kind: 'none' };
}

/** A bead slides along the line; pulled away from it, it is taken out. */
function dragBead(c: ToolContext, target: GradientTarget, index: number): Gesture {
  const { session: s } = c;
  const stops = stopsOf(s.state.design, target.paint);
  const { a, b } = screenLine(s, target);
  s.set({ stop: index });
  let recipe: Recipe | null = null;
  let out = false;
  let moved = false;
  const at = (p: PointerAt) => {
    out = stops.length > 2 && distanceToSegment(p.screen, a.x, a.y, b.x, b.y) > PULL_OUT_PX;
    const next = out ? removeStop(stops, index) : moveStop(stops, index, along(a, b, p.screen));
    recipe = withStops(s.state.aim, target.node, target.paint, next);
    c.readout(out ? 'let go to take it out' : `${formatNumber((next[index]?.offset ?? 0) * 100, 1)} %`);
  };
  let first: PointerAt | null = null;
  return {
    move(p) {
      first ??= p;
      if (!moved && !far(p, first)) return;
      moved = true;
      at(p);
      s.preview(recipe);
    },
    release(p) {
      if (moved) {
        at(p);
        s.commit(out ? 'Take out a stop' : 'Move a stop', recipe!);
        if (out) {
          s.set({ stop: null });
          s.say('Took the stop out.');
        }
      }
      c.readout(null);
    },
    cancel() {
      s.preview(null);
      c.readout(null);
    },
  };
}

function dragEnd(c: ToolContext, target: GradientTarget, end: 'from' | 'to'): Gesture {
  const line = gradientLine(target.paint);
  return lineGesture(c, target.node, (p) => (end === 'from' ? { from: p, to: line.to } : { from: line.from, to: p }), 'Move the gradient');
}

/** Press is the start, release is the end; both may lie outside the object. */
function drawLine(c: ToolContext, start: PointerAt): Gesture | null {
  const { session: s } = c;
  const nodes = aimedNodes(s.design, s.state.selection, s.state.aim);
  if (!nodes.length) return null;
  const back = invert(pageMatrix(s.design, s.page, nodes[0]));
  if (!back) return null;
  const from = apply(back, start.page);
  const gesture = lineGesture(c, nodes[0], (p) => ({ from, to: p }), 'Draw a gradient');
  return { ...gesture, move: (p) => far(p, start) && gesture.move(p), release: (p) => (far(p, start) ? gesture.release(p) : gesture.cancel()) };
}

/** One end follows the pointer; Shift holds the line to multiples of 45°. */
function lineGesture(c: ToolContext, node: string, ends: (p: Point) => { from: Point; to: Point }, label: string): Gesture {
  const { session: s } = c;
  const { aim, design } = s.state;
  const toPage = pageMatrix(design, s.page, node);
  const back = invert(toPage)!;
  const old = paintAt(design, node, aim) ?? { kind: 'none' as const };
  const fallback = s.palette.screen ? { rgb: [0, 0, 0] as const } : BLACK;
  const base: GradientPaint = old.kind === 'gradient' ? old : { kind: 'gradient', gradient: 'linear', ramp: { stops: stopsFrom(old, fallback) }, geometry: [1, 0, 0, 1, 0, 0], overprint: old.kind === 'colour' && old.overprint };
  const length = Math.hypot(base.geometry[0], base.geometry[1]);
  const squash = old.kind === 'gradient' && length ? Math.hypot(base.geometry[2], base.geometry[3]) / length : 1;
  let recipe: Recipe = () => {};
  const at = (p: PointerAt) => {
    const line = ends(apply(back, p.page));
    let to = line.to;
    if (p.shift) {
      const [dx, dy] = [to.x - line.from.x, to.y - line.from.y];
      const angle = (Math.round(Math.atan2(dy, dx) / (Math.PI / 4)) * Math.PI) / 4;
      const len = Math.hypot(dx, dy);
      to = { x: line.from.x + len * Math.cos(angle), y: line.from.y + len * Math.sin(angle) };
    }
    const geometry = geometryFrom(base.gradient, line.from, to, squash);
    recipe = (d) => setPaint(d, [node], aim, () => ({ ...base, geometry }));
    const [a, b] = [apply(toPage, line.from), apply(toPage, to)];
    const angle = ((Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI + 360) % 360;
    c.readout(`${formatNumber(angle, 1)}° · ${formatLength(Math.hypot(b.x - a.x, b.y - a.y), design.setup.unit)}`);
  };
  const done = () => c.readout(null);
  return {
    move(p) {
      at(p);
      s.preview(recipe);
    },
    release(p) {
      at(p);
      s.commit(label, recipe);
      s.say('Drag the beads along the line; click the line to add one, pull one away to take it out.');
      done();
    },
    cancel() {
      s.preview(null);
      done();
    },
  };
}
