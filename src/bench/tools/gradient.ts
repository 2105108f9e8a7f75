import {
  geometryFrom,
  gradientLine,
  hasMiddle,
  insertStop,
  moveStop,
  removeStop,
  setMidpoint,
  stopsFrom,
} from '@/core/edit/gradient';
import type { Recipe } from '@/core/edit/history';
import { aimedNodes, paintAt } from '@/core/edit/aims';
import { setPaint, stopsOf } from '@/core/edit/paint';
import { paintOnPage } from '@/core/edit/sweep';
import { apply, invert, multiply, type Matrix, type Point } from '@/core/geometry/matrix';
import { BLACK } from '@/core/model/defaults';
import type { GradientPaint } from '@/core/model/schema';
import { pageMatrix } from '@/core/model/tree';
import { formatLength, formatNumber } from '@/core/units/length';
import { screenMatrix } from '../view/frame';
import { openStop } from '../session/stopSlip';
import type { Session } from '../session/session';
import { beadPlaces } from './beads';
import {
  aimedGradient,
  aimedPools,
  focusPoint,
  midpointAt,
  nearestOnTrack,
  onTrack,
  trackOf,
  withGeometry,
  withStops,
  type GradientTarget,
} from './gradientTarget';
import { doublePool, poolCursor, pressPool } from './pools';
import { choose, pick } from './pick';
import { shown } from './shown';
import { far, type Gesture, type PointerAt, type Tool, type ToolContext } from './tool';

const BEAD_PX = 10;
/** A bead pulled this far off its line is taken out. */
const PULL_OUT_PX = 34;
const LINE_PX = 7;

export const gradientTool: Tool = {
  press(start, c) {
    const { session: s } = c;
    const pools = aimedPools(s);
    if (pools) {
      const gesture = pressPool(start, c, pools);
      if (gesture) return gesture;
    }
    const target = aimedGradient(s);
    if (target) {
      const bead = beadAt(s, target, start.screen);
      if (bead.kind === 'stop') return dragBead(c, start, target, bead.index);
      if (bead.kind === 'mid') return dragMidpoint(c, start, target, bead.index);
      if (bead.kind === 'end') return dragEnd(c, target, bead.end);
      if (bead.kind === 'side') return dragSide(c, target);
      if (bead.kind === 'focus') return dragFocus(c, target);
      if (bead.kind === 'line') return addOrDraw(c, start, target, bead.t);
    }
    const found = pick(s, start);
    if (
      !aimedNodes(s.design, s.state.selection, s.state.aim).length ||
      (found && !s.state.selection.includes(found.id) && !target && !pools)
    ) {
      if (!found) return null;
      choose(s, [found.id]);
    }
    return drawLine(c, start);
  },
  double(at, c) {
    const { session: s } = c;
    const pools = aimedPools(s);
    if (pools) return doublePool(at, c, pools);
    const target = aimedGradient(s);
    const bead = target && beadAt(s, target, at.screen);
    if (bead?.kind === 'stop') openStop(s, bead.index, at.screen);
  },
  cursor(at, c) {
    const pools = aimedPools(c.session);
    if (pools) return poolCursor(c.session, pools, at.screen);
    const target = aimedGradient(c.session);
    if (!target) return 'crosshair';
    const bead = beadAt(c.session, target, at.screen);
    return bead.kind === 'none'
      ? 'crosshair'
      : bead.kind === 'line'
        ? 'copy'
        : bead.kind === 'mid'
          ? 'ew-resize'
          : 'pointer';
  },
};

type Bead =
  | { kind: 'stop' | 'mid'; index: number }
  | { kind: 'end'; end: 'from' | 'to' }
  | { kind: 'side' }
  | { kind: 'focus' }
  | { kind: 'line'; t: number }
  | { kind: 'none' };

/** Where the handle for the other half axis of a radial or box gradient lies on the screen. */
export function sidePoint(s: Session, target: GradientTarget): Point | null {
  if (target.paint.gradient === 'linear' || target.paint.strokeMapping) return null;
  return apply(multiply(screenMatrix(s.state.camera), target.matrix), apply(target.paint.geometry, { x: 0, y: 1 }));
}

/** Where a radial gradient's focus lies on the screen. */
export function focusOnScreen(s: Session, target: GradientTarget): Point | null {
  if (target.paint.gradient !== 'radial' || target.paint.strokeMapping) return null;
  return apply(multiply(screenMatrix(s.state.camera), target.matrix), focusPoint(target.paint));
}

/** What of a gradient lies at a place of the bench top. */
export function beadAt(s: Session, target: GradientTarget, p: Point): Bead {
  const track = trackOf(s, target);
  const stops = stopsOf(s.design, target.paint);
  const away = (q: Point) => Math.hypot(q.x - p.x, q.y - p.y);
  let best: Bead = { kind: 'none' };
  let least = BEAD_PX;
  beadPlaces(track, stops).forEach((place, index) => {
    const d = away(place);
    if (d < least) {
      least = d;
      best = { kind: 'stop', index };
    }
  });
  if (track.ends) {
    // The inner part of a bead is the stop itself; round the very ends the line's own ends are taken.
    const [a, b] = [track.points[0], track.points[track.points.length - 1]];
    const side = sidePoint(s, target);
    const focus = focusOnScreen(s, target);
    if (focus && away(focus) < 17 && (best.kind === 'none' || (least > 7 && away(focus) > 7))) return { kind: 'focus' };
    for (const [end, q] of [
      ['from', a],
      ['to', b],
    ] as const)
      if (!(end === 'from' && focus) && away(q) < 17 && (best.kind === 'none' || (least > 7 && away(q) > 7)))
        return { kind: 'end', end };
    if (best.kind === 'none' && side && away(side) < BEAD_PX) return { kind: 'side' };
  }
  if (best.kind !== 'none') return best;
  for (let i = 0; i + 1 < stops.length; i++)
    if (hasMiddle(stops, i) && away(onTrack(track, midpointAt(stops, i))) < 7) return { kind: 'mid', index: i };
  const near = nearestOnTrack(track, p);
  return near.t > 0 && near.t < 1 && near.away < LINE_PX ? { kind: 'line', t: near.t } : { kind: 'none' };
}

/** A bead slides along the line; pulled away from it, it is taken out. */
function dragBead(c: ToolContext, start: PointerAt, target: GradientTarget, index: number): Gesture {
  const { session: s } = c;
  const stops = stopsOf(s.state.design, target.paint);
  const track = trackOf(s, target);
  s.set({ stop: index });
  // It may stand beside its place, and is seldom taken in its very middle: it moves as far as the pointer does.
  const beside = nearestOnTrack(track, start.screen).t - stops[index].offset;
  let out = false;
  return shown(
    c,
    () => (out ? 'Take out a stop' : 'Move a stop'),
    (p) => {
      const near = nearestOnTrack(track, p.screen);
      out = stops.length > 2 && near.away > PULL_OUT_PX;
      const next = out ? removeStop(stops, index) : moveStop(stops, index, near.t - beside);
      return {
        recipe: withStops(s, target, next),
        says: out ? 'let go to take it out' : `${formatNumber((next[index]?.offset ?? 0) * 100, 1)} %`,
      };
    },
    () => {
      if (!out) return;
      s.set({ stop: null });
      s.say('Took the stop out.');
    },
    ownRamp(target),
  );
}

/** The objects that a change of the ramp reaches, where it lies in them; a shared one reaches further. */
const ownRamp = (target: GradientTarget): readonly string[] | undefined =>
  'stops' in target.paint.ramp ? target.nodes : undefined;

/** A midpoint slides between its stops; a click where it lies adds a stop, as on the rest of the line. */
function dragMidpoint(c: ToolContext, start: PointerAt, target: GradientTarget, index: number): Gesture {
  const { session: s } = c;
  const stops = stopsOf(s.state.design, target.paint);
  const track = trackOf(s, target);
  const [a, b] = [stops[index], stops[index + 1]];
  const move = (p: PointerAt) => {
    const next = setMidpoint(stops, index, (nearestOnTrack(track, p.screen).t - a.offset) / (b.offset - a.offset));
    return {
      recipe: withStops(s, target, next),
      says: `half way at ${formatNumber((next[index].midpoint ?? 0.5) * 100, 0)} %`,
    };
  };
  const drag = shown(c, () => 'Move a midpoint', move, undefined, ownRamp(target));
  return {
    ...drag,
    release(p) {
      drag.release(p);
      if (!far(p, start)) addStop(s, target, midpointAt(stops, index));
    },
  };
}

function addStop(s: Session, target: GradientTarget, t: number): void {
  const made = insertStop(stopsOf(s.design, target.paint), t);
  s.commit('Add a stop', withStops(s, target, made.stops));
  s.set({ stop: made.index });
  s.say('Added a stop. Click a colour for it, or drag it along the line.');
}

/** The other half axis: how far a radial or box gradient is squashed. */
function dragSide(c: ToolContext, target: GradientTarget): Gesture {
  const { session: s } = c;
  const [a, b, , , e, f] = target.paint.geometry;
  const length = Math.hypot(a, b) || 1;
  const back = invert(target.matrix);
  return shown(
    c,
    () => 'Squash the gradient',
    (p) => {
      const q = back ? apply(back, p.page) : { x: e, y: f };
      // Across the line, whichever side the pointer is on.
      const reach = Math.max(length * 0.02, Math.abs((q.x - e) * -b + (q.y - f) * a) / length);
      const k = p.shift ? 1 : reach / length;
      return {
        recipe: withGeometry(s, target, [a, b, -b * k, a * k, e, f]),
        says: `squash ${formatNumber(k * 100, 0)} %`,
      };
    },
    undefined,
    target.nodes,
  );
}

const FARTHEST_FOCUS = 0.95;

function dragFocus(c: ToolContext, target: GradientTarget): Gesture {
  const { session: s } = c;
  const { aim } = s.state;
  const back = invert(multiply(target.matrix, target.paint.geometry));
  return shown(
    c,
    () => 'Move the focus',
    (p) => {
      const q = back ? apply(back, p.page) : { x: 0, y: 0 };
      const d = Math.hypot(q.x, q.y);
      const k = d > FARTHEST_FOCUS ? FARTHEST_FOCUS / d : 1;
      const focus: [number, number] | null = d < 0.06 ? null : [q.x * k, q.y * k];
      const recipe: Recipe = (draft) =>
        setPaint(draft, target.nodes, aim, (old) => {
          if (old.kind !== 'gradient') return old;
          const { focus: _old, ...rest } = old;
          return focus ? { ...rest, focus } : rest;
        });
      return {
        recipe,
        says: focus ? `focus ${formatNumber(Math.min(d, FARTHEST_FOCUS) * 100, 0)} % out` : 'focus in the middle',
      };
    },
    undefined,
    target.nodes,
  );
}

function dragEnd(c: ToolContext, target: GradientTarget, end: 'from' | 'to'): Gesture {
  const line = gradientLine(target.paint);
  const { session: s } = c;
  return lineGesture(
    c,
    target.matrix,
    target.paint,
    (p) => (end === 'from' ? { from: p, to: line.to } : { from: line.from, to: p }),
    'Move the gradient',
    target.nodes,
    (geometry) => withGeometry(s, target, geometry),
  );
}

/** A click on the line adds a stop there; a drag draws the gradient anew, and leaves no stray stop behind. */
function addOrDraw(c: ToolContext, start: PointerAt, target: GradientTarget, t: number): Gesture | null {
  const { session: s } = c;
  const drawing = drawLine(c, start);
  return {
    move: (p) => drawing?.move(p),
    release(p) {
      if (far(p, start)) {
        drawing?.release(p);
        return;
      }
      drawing?.cancel();
      addStop(s, target, t);
    },
    cancel: () => drawing?.cancel(),
  };
}

/** Press is the start, release is the end; both may lie outside the object. Over several objects it is one sweep. */
function drawLine(c: ToolContext, start: PointerAt): Gesture | null {
  const { session: s } = c;
  const { aim } = s.state;
  const nodes = aimedNodes(s.design, s.state.selection, aim);
  if (!nodes.length) return null;
  const [node] = nodes;
  const old = paintAt(s.design, node, aim) ?? { kind: 'none' as const };
  const fallback = s.palette.screen ? { rgb: [0, 0, 0] as const } : BLACK;
  const base: GradientPaint =
    old.kind === 'gradient'
      ? old
      : {
          kind: 'gradient',
          gradient: 'linear',
          ramp: { stops: stopsFrom(old, fallback) },
          geometry: [1, 0, 0, 1, 0, 0],
          overprint: old.kind === 'colour' && old.overprint,
        };
  const target = aimedGradient(s);
  const one = nodes.length === 1;
  // One object is drawn on in its own space (or its letters'); several on the page.
  const matrix: Matrix = one ? (target?.matrix ?? pageMatrix(s.design, s.page, node)) : [1, 0, 0, 1, 0, 0];
  const back = invert(matrix);
  if (!back) return null;
  const from = apply(back, start.page);
  const { strokeMapping: _line, thereAndBack: _back, ...over } = base;
  const write = (geometry: Matrix): Recipe =>
    one
      ? (d) => setPaint(d, [node], aim, () => ({ ...over, geometry }))
      : (d) => paintOnPage(d, s.page, nodes, aim, { ...over, geometry });
  const gesture = lineGesture(
    c,
    matrix,
    base,
    (p) => ({ from, to: p }),
    one ? 'Draw a gradient' : `Sweep over ${nodes.length} objects`,
    nodes,
    write,
  );
  return {
    ...gesture,
    move: (p) => far(p, start) && gesture.move(p),
    release: (p) => (far(p, start) ? gesture.release(p) : gesture.cancel()),
  };
}

/** One end follows the pointer; Shift holds the line to multiples of 45° as seen on the page. */
function lineGesture(
  c: ToolContext,
  toPage: Matrix,
  base: GradientPaint,
  ends: (p: Point) => { from: Point; to: Point },
  label: string,
  only: readonly string[],
  write: (geometry: Matrix) => Recipe,
): Gesture {
  const { session: s } = c;
  const back = invert(toPage)!;
  const length = Math.hypot(base.geometry[0], base.geometry[1]);
  const squash = length ? Math.hypot(base.geometry[2], base.geometry[3]) / length : 1;
  let recipe: Recipe = () => {};
  const at = (p: PointerAt) => {
    const line = ends(apply(back, p.page));
    let { to } = line;
    const [a, free] = [apply(toPage, line.from), apply(toPage, to)];
    let b = free;
    if (p.shift) {
      const angle = (Math.round(Math.atan2(b.y - a.y, b.x - a.x) / (Math.PI / 4)) * Math.PI) / 4;
      const len = Math.hypot(b.x - a.x, b.y - a.y);
      b = { x: a.x + len * Math.cos(angle), y: a.y + len * Math.sin(angle) };
      to = apply(back, b);
    }
    recipe = write(geometryFrom(base.gradient, line.from, to, squash));
    const angle = ((Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI + 360) % 360;
    c.readout(`${formatNumber(angle, 1)}° · ${formatLength(Math.hypot(b.x - a.x, b.y - a.y), s.design.setup.unit)}`);
  };
  const done = () => c.readout(null);
  return {
    move(p) {
      at(p);
      s.preview(recipe, only);
    },
    release(p) {
      at(p);
      s.commit(label, recipe);
      // The next colour goes to a bead that is seen to be chosen.
      const drawn = aimedGradient(s);
      if (drawn && s.state.stop === null) s.set({ stop: stopsOf(s.design, drawn.paint).length - 1 });
      s.say('Drag beads along the line, click it for one more, pull one off to drop it; double-click: its colour.');
      done();
    },
    cancel() {
      s.preview(null);
      done();
    },
  };
}
