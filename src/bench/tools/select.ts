import { copyNodes, pasteClip } from '@/core/edit/clip';
import type { Recipe } from '@/core/edit/history';
import { isText } from '@/core/edit/box';
import { moveNodes, scaleNodes, scalingAbout, turnNodes } from '@/core/edit/place';
import { apply, invert, multiply, type Point } from '@/core/geometry/matrix';
import { centre, fromPoints, type Rect } from '@/core/geometry/rect';
import { ancestry, isLocked } from '@/core/model/tree';
import { hitAll, nodesIn, type Hit } from '@/core/scene/hit';
import { shapeById, valuesOf } from '@/core/shapes/catalogue';
import { formatLength, formatNumber } from '@/core/units/length';
import { gripAt, type Frame, type PlacedGrip } from '../canvas/frame';
import { count, freeSelection } from '../session/commands';
import type { Session } from '../session/session';
import { clearSnap, snapLinesFor, snapMoving, snapPoint } from './snapping';
import { beginEditing } from './editing';
import { NEAR_PX, far, type Gesture, type PointerAt, type Tool, type ToolContext } from './tool';

/** What a click on a hit means: the object itself inside an entered group, else the whole group on the page. */
export function selectable(s: Session, hit: Hit): string | null {
  const { design, page } = s;
  if (isLocked(design, page, hit.node)) return null;
  const line = ancestry(design, page, hit.node);
  const entered = s.state.entered ? line.indexOf(s.state.entered) : -1;
  return line[entered + 1] ?? line[0] ?? null;
}

export function pick(s: Session, at: PointerAt): { id: string; hit: Hit } | null {
  for (const hit of hitAll(s.scene(), at.page, NEAR_PX / s.state.camera.scale)) {
    const id = selectable(s, hit);
    if (id) return { id, hit };
  }
  return null;
}

/** Aims at what the selection can take: letters for a text, else what was aimed at, if it fits. */
export function aimFor(s: Session, ids: readonly string[]): void {
  const nodes = ids.map((id) => s.design.nodes[id]).filter(Boolean);
  const allText = nodes.length > 0 && nodes.every(isText);
  const textAim = s.state.aim !== 'fill' && s.state.aim !== 'outline';
  if (allText && !textAim) s.set({ aim: s.state.aim === 'outline' ? 'letterOutline' : 'letters' });
  if (!allText && textAim) s.set({ aim: s.state.aim === 'letterOutline' ? 'outline' : 'fill' });
}

export function choose(s: Session, selection: readonly string[]): void {
  s.set({ selection, stop: null });
  aimFor(s, selection);
}

export const selectTool: Tool = {
  press(at, c) {
    const { session: s } = c;
    const grip = gripAt(s, at.screen);
    if (grip && freeSelection(s).length) {
      if (grip.placed.grip.kind === 'size') return resize(c, at, grip.frame, grip.placed);
      if (grip.placed.grip.kind === 'turn') return turn(c, at, grip.frame);
      return turnKnob(c, at, grip.frame, grip.placed.grip.index);
    }
    const found = pick(s, at);
    if (!found) {
      if (s.state.entered && !at.shift) s.set({ entered: null });
      return marquee(c, at);
    }
    const { selection } = s.state;
    const was = selection.includes(found.id);
    if (at.shift) {
      // With Shift a press takes one more; let go without a drag it takes out one that was chosen before.
      if (!was) choose(s, [...selection, found.id]);
      return move(c, at, was ? () => choose(s, selection.filter((id) => id !== found.id)) : undefined);
    }
    if (!was) choose(s, [found.id]);
    return move(c, at, was && selection.length > 1 ? () => choose(s, [found.id]) : undefined);
  },

  double(at, c) {
    const { session: s } = c;
    const found = pick(s, at);
    if (!found) return;
    const node = s.design.nodes[found.id];
    if (node.kind === 'group') {
      s.set({ entered: found.id });
      const inside = pick(s, at);
      choose(s, inside ? [inside.id] : []);
      s.say(`Inside ${node.name || 'the group'}. Press Esc to come out.`);
    } else if (isText(node)) beginEditing(s, found.id, at.page);
  },

  cursor(at, c) {
    const grip = gripAt(c.session, at.screen);
    if (grip) {
      const g = grip.placed.grip;
      if (g.kind === 'turn') return 'grab';
      if (g.kind === 'knob') return 'pointer';
      const a = ((Math.atan2(grip.placed.ux.y * g.hx + grip.placed.uy.y * g.hy, grip.placed.ux.x * g.hx + grip.placed.uy.x * g.hy) * 180) / Math.PI + 360) % 180;
      return a < 22.5 || a >= 157.5 ? 'ew-resize' : a < 67.5 ? 'nwse-resize' : a < 112.5 ? 'ns-resize' : 'nesw-resize';
    }
    return pick(c.session, at) ? 'move' : 'default';
  },
};

/** Ids that come out the same each time a recipe is tried. */
function steadyIds(newId: () => string): () => () => string {
  const made: string[] = [];
  return () => {
    let i = 0;
    return () => (made[i] ??= newId()) && made[i++];
  };
}

function move(c: ToolContext, start: PointerAt, onClick?: () => void): Gesture {
  const { session: s } = c;
  const ids = freeSelection(s);
  const box = s.boxOf(ids);
  const lines = snapLinesFor(c, ids);
  const clip = copyNodes(s.state.design, s.page, ids);
  const again = steadyIds(s.newId);
  let moved = false;
  let now: { recipe: Recipe; copy: boolean; ids: () => string[] } | null = null;
  const at = (p: PointerAt) => {
    let dx = p.page.x - start.page.x;
    let dy = p.page.y - start.page.y;
    if (p.shift) {
      if (Math.abs(dx) > Math.abs(dy)) dy = 0;
      else dx = 0;
    }
    const snap = snapMoving(c, { x0: box.x0 + dx, y0: box.y0 + dy, x1: box.x1 + dx, y1: box.y1 + dy }, lines, p);
    if (!(p.shift && dx === 0)) dx += snap.dx;
    if (!(p.shift && dy === 0)) dy += snap.dy;
    const copy = p.alt && clip !== null;
    let made: string[] = [];
    const recipe: Recipe = copy
      ? (d) => {
          made = pasteClip(d, s.page.id, clip, again(), dx, dy);
        }
      : (d) => moveNodes(d, s.page, ids, dx, dy);
    now = { recipe, copy, ids: () => (copy ? made : ids) };
    const { unit } = s.design.setup;
    c.readout(`${copy ? 'copy ' : ''}${formatLength(dx, unit)}, ${formatLength(dy, unit)}${snap.said}`);
  };
  return {
    move(p) {
      if (!moved && !far(p, start)) return;
      if (!ids.length) return;
      moved = true;
      at(p);
      s.preview(now!.recipe, now!.copy ? undefined : ids);
    },
    release(p) {
      clearSnap(c);
      c.readout(null);
      if (!moved) {
        onClick?.();
        return;
      }
      at(p);
      clearSnap(c);
      c.readout(null);
      const { recipe, copy, ids: result } = now!;
      s.commit(copy ? 'Duplicate' : 'Move', recipe);
      if (copy) choose(s, result());
      s.say(copy ? `Duplicated ${count(ids.length, 'object')}.` : `Moved ${count(ids.length, 'object')}.`);
    },
    cancel: () => drop(c),
  };
}

function drop(c: ToolContext): void {
  c.session.preview(null);
  clearSnap(c);
  c.extras.marquee = null;
  c.readout(null);
}

function marquee(c: ToolContext, start: PointerAt): Gesture {
  const { session: s } = c;
  const before = start.shift ? s.state.selection : [];
  const boxOf = (p: PointerAt): Rect => fromPoints([start.page, p.page]);
  const inside = (p: PointerAt) => {
    const found = nodesIn(s.scene(), boxOf(p), p.alt).flatMap((node) => selectable(s, { node, part: 'fill' }) ?? []);
    return [...new Set([...before, ...found])];
  };
  return {
    move(p) {
      if (!far(p, start)) return;
      c.extras.marquee = boxOf(p);
      choose(s, inside(p));
      c.readout(`${count(s.state.selection.length, 'object')}${p.alt ? ' inside' : ''}`);
      c.refresh();
    },
    release(p) {
      choose(s, far(p, start) ? inside(p) : before);
      drop(c);
      c.refresh();
    },
    cancel: () => drop(c),
  };
}

/** Scales whole or by halves so that the grip follows the pointer; the other side (with Alt the middle) stays. */
function resize(c: ToolContext, start: PointerAt, frame: Frame, placed: PlacedGrip): Gesture | null {
  const { session: s } = c;
  const { grip } = placed;
  const back = invert(frame.matrix);
  if (!back || grip.kind !== 'size') return null;
  const ids = freeSelection(s);
  const { box } = frame;
  const mid = centre(box);
  const handle: Point = { x: grip.hx < 0 ? box.x0 : grip.hx > 0 ? box.x1 : mid.x, y: grip.hy < 0 ? box.y0 : grip.hy > 0 ? box.y1 : mid.y };
  const other: Point = { x: 2 * mid.x - handle.x, y: 2 * mid.y - handle.y };
  const handlePage = apply(frame.matrix, handle);
  const offset = { x: handlePage.x - start.page.x, y: handlePage.y - start.page.y };
  const upright = Math.abs(frame.matrix[1]) < 1e-9 && Math.abs(frame.matrix[2]) < 1e-9;
  const lines = snapLinesFor(c, ids);
  const node = frame.single ? s.design.nodes[frame.single] : null;
  const proportional = node?.kind === 'displayText';
  let moved = false;
  let recipe: Recipe = () => {};
  const at = (p: PointerAt) => {
    let target: Point = { x: p.page.x + offset.x, y: p.page.y + offset.y };
    let said = '';
    if (upright) {
      const snapped = snapPoint(c, target, lines, p);
      target = { x: grip.hx ? snapped.point.x : target.x, y: grip.hy ? snapped.point.y : target.y };
      said = snapped.said;
      if (!grip.hx) c.extras.snapX = null;
      if (!grip.hy) c.extras.snapY = null;
    }
    const q = apply(back, target);
    const anchor = p.alt ? mid : other;
    const ratio = (v: number, h: number, a: number) => (Math.abs(h - a) < 1e-9 ? 1 : (v - a) / (h - a));
    let sx = grip.hx ? ratio(q.x, handle.x, anchor.x) : 1;
    let sy = grip.hy ? ratio(q.y, handle.y, anchor.y) : 1;
    if (p.shift || (proportional && grip.hx !== 0 && grip.hy !== 0)) {
      const k = grip.hx && grip.hy ? (Math.abs(sx) > Math.abs(sy) ? Math.abs(sx) : Math.abs(sy)) : Math.abs(grip.hx ? sx : sy);
      sx = k * (Math.sign(sx) || 1);
      sy = k * (Math.sign(sy) || 1);
    }
    const least = 1e-3;
    if (Math.abs(sx) < least) sx = least;
    if (Math.abs(sy) < least) sy = least;
    const map = multiply(frame.matrix, multiply(scalingAbout(sx, sy, anchor), back));
    recipe = (d) => scaleNodes(d, s.page, ids, map);
    const { unit } = s.design.setup;
    const scale = Math.hypot(frame.matrix[0], frame.matrix[1]);
    c.readout(`${formatLength(Math.abs(sx) * (box.x1 - box.x0) * scale, unit)} × ${formatLength(Math.abs(sy) * (box.y1 - box.y0) * scale, unit)}${said}`);
  };
  return {
    move(p) {
      if (!moved && !far(p, start)) return;
      moved = true;
      at(p);
      s.preview(recipe, ids);
    },
    release(p) {
      if (moved) {
        at(p);
        s.commit('Resize', recipe);
        s.say(`Resized ${count(ids.length, 'object')}.`);
      }
      drop(c);
    },
    cancel: () => drop(c),
  };
}

function turn(c: ToolContext, start: PointerAt, frame: Frame): Gesture {
  const { session: s } = c;
  const ids = freeSelection(s);
  const pivot = apply(frame.matrix, centre(frame.box));
  const angle = (p: Point) => (Math.atan2(p.y - pivot.y, p.x - pivot.x) * 180) / Math.PI;
  const from = angle(start.page);
  let recipe: Recipe = () => {};
  let by = 0;
  const at = (p: PointerAt) => {
    by = angle(p.page) - from;
    if (p.shift) by = Math.round(by / 15) * 15;
    else if (!p.mod) {
      const near = Math.round(by / 45) * 45;
      if (Math.abs(by - near) < 1.5) by = near;
    }
    by = ((((by + 180) % 360) + 360) % 360) - 180;
    recipe = (d) => turnNodes(d, s.page, ids, by, pivot);
    c.readout(`${formatNumber(by, 1)}°`);
  };
  return {
    move(p) {
      at(p);
      s.preview(recipe, ids);
    },
    release(p) {
      at(p);
      s.commit('Turn', recipe);
      s.say(`Turned ${count(ids.length, 'object')} by ${formatNumber(by, 1)}°.`);
      drop(c);
    },
    cancel: () => drop(c),
  };
}

/** A knob follows the pointer along its measure; with Alt only its own corner, where several go together. */
function turnKnob(c: ToolContext, start: PointerAt, frame: Frame, index: number): Gesture | null {
  const { session: s } = c;
  const id = frame.single;
  const node = id ? s.design.nodes[id] : null;
  const def = node?.kind === 'shape' ? shapeById(node.shape) : undefined;
  const back = invert(frame.matrix);
  if (!id || node?.kind !== 'shape' || !def || !back) return null;
  const knob = def.knobs[index];
  const param = def.params.find((p) => p.id === knob.param)!;
  let recipe: Recipe = () => {};
  const first = valuesOf(def, node.knobs);
  // The knob may be shown beside its place, and is never taken quite in its middle: it moves by what the pointer moves.
  const stands = apply(frame.matrix, knob.at(first, node.width, node.height));
  const offset = { x: stands.x - start.page.x, y: stands.y - start.page.y };
  const at = (p: PointerAt) => {
    const value = knob.value(apply(back, { x: p.page.x + offset.x, y: p.page.y + offset.y }), first, node.width, node.height);
    const affected = knob.together && !p.alt ? knob.together : [knob.param];
    recipe = (d) => {
      const n = d.nodes[id];
      if (n.kind === 'shape') for (const key of affected) n.knobs[key] = value;
    };
    const text = param.unit === 'length' ? formatLength(value, s.design.setup.unit) : param.unit === 'ratio' ? formatNumber(value, 2) : formatNumber(value, 0);
    c.readout(`${param.label.toLowerCase()} ${text}${knob.together ? (p.alt ? ' · this corner' : ' · all corners') : ''}`);
  };
  return {
    move(p) {
      at(p);
      s.preview(recipe, [id]);
    },
    release(p) {
      at(p);
      s.commit(param.label, recipe);
      drop(c);
    },
    cancel: () => drop(c),
  };
}

