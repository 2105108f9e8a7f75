import { copyNodes, pasteClip } from '@/core/edit/clip';
import { cornerHandle, radiusAt, setCorners, treatedCorners } from '@/core/edit/corners';
import type { Recipe } from '@/core/edit/history';
import { dialOf, setKnobs } from '@/core/edit/window';
import { moveNodes, scaleNodes, scalingAbout, turnNodes } from '@/core/edit/place';
import { apply, invert, multiply, rotation, translation, type Matrix, type Point } from '@/core/geometry/matrix';
import { centre } from '@/core/geometry/rect';
import type { DesignNode } from '@/core/model/schema';
import { shapeById, valuesOf } from '@/core/shapes/catalogue';
import { formatLength, formatNumber } from '@/core/units/length';
import type { Frame, Grip, PlacedGrip } from '../view/frame';
import { count, freeSelection } from '../session/commandDef';
import type { SnapLines } from '@/core/geometry/snap';
import { choose } from './pick';
import { besideSelection } from './placing';
import { sheetName } from '../session/naming';
import { facingOf } from '../view/facing';
import { movedOnSpread } from './acrossFold';
import { shown } from './shown';
import { ownNodes, snapMoving, snapPoint, targetsFor, type SnapTargets } from './snapping';
import { far, type Gesture, type PointerAt, type ToolContext } from './tool';
import { clearSnap, drop } from './ending';

/** Gestures on a selection: moving, sizing, turning, knobs and the pivot. */

/** Ids that come out the same each time a recipe is tried. */
function steadyIds(newId: () => string): () => () => string {
  const made: string[] = [];
  return () => {
    let i = 0;
    return () => (made[i] ??= newId()) && made[i++];
  };
}

export function move(c: ToolContext, start: PointerAt, onClick?: () => void): Gesture {
  const { session: s } = c;
  const ids = freeSelection(s);
  const box = s.boxOf(ids);
  const lines = targetsFor(c, ids);
  // A copy leaves its original where it is, to line up with.
  let beside: SnapTargets | null = null;
  const nodes = ownNodes(s, ids);
  const clip = copyNodes(s.state.design, s.page, ids);
  const again = steadyIds(s.newId);
  const into = besideSelection(s);
  let moved = false;
  let now: { recipe: Recipe; copy: boolean; ids: () => readonly string[] } | null = null;
  let shift: Point = { x: 0, y: 0 };
  const at = (p: PointerAt) => {
    let dx = p.page.x - start.page.x;
    let dy = p.page.y - start.page.y;
    if (p.shift) {
      if (Math.abs(dx) > Math.abs(dy)) dy = 0;
      else dx = 0;
    }
    const copy = p.alt && clip !== null;
    if (copy) beside ??= targetsFor(c, []);
    const snap = snapMoving(
      c,
      { x0: box.x0 + dx, y0: box.y0 + dy, x1: box.x1 + dx, y1: box.y1 + dy },
      copy ? beside! : lines,
      p,
      nodes.map((n) => ({ x: n.x + dx, y: n.y + dy })),
    );
    if (!(p.shift && dx === 0)) dx += snap.dx;
    if (!(p.shift && dy === 0)) dy += snap.dy;
    shift = { x: dx, y: dy };
    let made: readonly string[] = [];
    const recipe: Recipe = copy
      ? (d) => {
          made = pasteClip(d, s.page.id, clip, again(), translation(dx, dy), into);
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
      const { recipe: placed, copy, ids: result } = now!;
      const { recipe, across } = copy ? { recipe: placed, across: [] } : movedOnSpread(s, ids, placed);
      const other = facingOf(s)?.page;
      if (s.commit(copy ? 'Duplicate' : 'Move', recipe))
        s.noteAgain({ kind: 'keep', map: translation(shift.x, shift.y), copy });
      if (copy) choose(s, result());
      s.say(copy ? `Duplicated ${count(ids.length, 'object')}.` : `Moved ${count(ids.length, 'object')}.`);
      if (!other || !across.length) return;
      s.goToPage(other.id);
      choose(s, across);
      s.say(`Moved ${count(across.length, 'object')} to ${sheetName(s.design, other)}.`);
    },
    cancel: () => drop(c),
  };
}

/** Scales whole or by halves so that the grip follows the pointer; the other side (with Alt the middle) stays. */
export function resize(c: ToolContext, start: PointerAt, frame: Frame, placed: PlacedGrip): Gesture | null {
  const { session: s } = c;
  const { grip } = placed;
  const back = invert(frame.matrix);
  if (!back || grip.kind !== 'size') return null;
  const ids = freeSelection(s);
  const { box } = frame;
  const mid = centre(box);
  const handle: Point = {
    x: grip.hx < 0 ? box.x0 : grip.hx > 0 ? box.x1 : mid.x,
    y: grip.hy < 0 ? box.y0 : grip.hy > 0 ? box.y1 : mid.y,
  };
  const other: Point = { x: 2 * mid.x - handle.x, y: 2 * mid.y - handle.y };
  const handlePage = apply(frame.matrix, handle);
  const offset = { x: handlePage.x - start.page.x, y: handlePage.y - start.page.y };
  const upright = Math.abs(frame.matrix[1]) < 1e-9 && Math.abs(frame.matrix[2]) < 1e-9;
  const lines = targetsFor(c, ids);
  const node = frame.single ? s.design.nodes[frame.single] : null;
  const text = node?.kind === 'displayText';
  const pictured = ids.length > 0 && ids.every((id) => isPicture(s.design.nodes[id]));
  let moved = false;
  let recipe: Recipe = () => {};
  let last: Matrix = [1, 0, 0, 1, 0, 0];
  const at = (p: PointerAt) => {
    let target: Point = { x: p.page.x + offset.x, y: p.page.y + offset.y };
    let said = '';
    if (upright) {
      const anchorAt = apply(frame.matrix, p.alt ? mid : other);
      const snapped = snapPoint(
        c,
        target,
        lines,
        p,
        s.state.snapping.spacing ? sameSizes(lines, anchorAt, p.alt ? 0.5 : 1, grip) : {},
      );
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
    // A picture's corner keeps its proportions unless Shift is held; its side stretches it.
    const corner = grip.hx !== 0 && grip.hy !== 0;
    if (corner ? text || p.shift !== pictured : p.shift) {
      const k =
        grip.hx && grip.hy ? (Math.abs(sx) > Math.abs(sy) ? Math.abs(sx) : Math.abs(sy)) : Math.abs(grip.hx ? sx : sy);
      sx = k * (Math.sign(sx) || 1);
      sy = k * (Math.sign(sy) || 1);
    }
    const least = 1e-3;
    if (Math.abs(sx) < least) sx = least;
    if (Math.abs(sy) < least) sy = least;
    const map = multiply(frame.matrix, multiply(scalingAbout(sx, sy, anchor), back));
    last = map;
    recipe = (d) => scaleNodes(d, s.page, ids, map, s.state.growing);
    const { unit } = s.design.setup;
    const scale = Math.hypot(frame.matrix[0], frame.matrix[1]);
    c.readout(
      `${formatLength(Math.abs(sx) * (box.x1 - box.x0) * scale, unit)} × ${formatLength(Math.abs(sy) * (box.y1 - box.y0) * scale, unit)}${said}`,
    );
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
        if (s.commit('Resize', recipe)) s.noteAgain({ kind: 'size', map: last, copy: false });
        s.say(`Resized ${count(ids.length, 'object')}.`);
      }
      drop(c);
    },
    cancel: () => drop(c),
  };
}

/** A frame that shows a picture once. */
const isPicture = (node: DesignNode): boolean =>
  node.kind === 'shape' && node.fills.some((p) => p.kind === 'picture' && !p.tile);

/** Lines at which a side would be as long as a neighbour's. */
function sameSizes(
  targets: SnapTargets,
  anchor: Point,
  share: number,
  grip: { readonly hx: number; readonly hy: number },
): SnapLines {
  const lines = (from: number, way: number, sizes: readonly number[], label: string) =>
    way
      ? [...new Set(sizes.map((v) => Math.round(v * 1e6) / 1e6))]
          .filter((v) => v > 0)
          .map((v) => ({ at: from + way * v * share, label }))
      : [];
  return {
    x: lines(
      anchor.x,
      grip.hx,
      targets.boxes.map((b) => b.x1 - b.x0),
      'same width',
    ),
    y: lines(
      anchor.y,
      grip.hy,
      targets.boxes.map((b) => b.y1 - b.y0),
      'same height',
    ),
  };
}

/** Turns about the pivot, or the middle; with Alt a copy. */
export function turn(c: ToolContext, start: PointerAt, frame: Frame): Gesture {
  const { session: s } = c;
  const ids = freeSelection(s);
  const pivot = s.state.pivot ?? apply(frame.matrix, centre(frame.box));
  const clip = copyNodes(s.state.design, s.page, ids);
  const again = steadyIds(s.newId);
  const into = besideSelection(s);
  const angle = (p: Point) => (Math.atan2(p.y - pivot.y, p.x - pivot.x) * 180) / Math.PI;
  const from = angle(start.page);
  let recipe: Recipe = () => {};
  let by = 0;
  let copy = false;
  let made: string[] = [];
  const at = (p: PointerAt) => {
    by = angle(p.page) - from;
    if (p.shift) by = Math.round(by / 15) * 15;
    else if (!p.mod) {
      const near = Math.round(by / 45) * 45;
      if (Math.abs(by - near) < 1.5) by = near;
    }
    by = ((((by + 180) % 360) + 360) % 360) - 180;
    copy = p.alt && clip !== null;
    recipe = copy
      ? (d) => {
          made = pasteClip(d, s.page.id, clip!, again(), rotation(by, pivot), into);
        }
      : (d) => turnNodes(d, s.page, ids, by, pivot);
    c.readout(`${copy ? 'copy ' : ''}${formatNumber(by, 1)}°${s.state.pivot ? ' about the pivot' : ''}`);
  };
  return {
    move(p) {
      at(p);
      s.preview(recipe, copy ? undefined : ids);
    },
    release(p) {
      at(p);
      const { pivot: kept } = s.state;
      if (s.commit(copy ? 'Turn a copy' : 'Turn', recipe))
        s.noteAgain({ kind: 'keep', map: rotation(by, pivot), copy });
      if (copy) {
        choose(s, made);
        s.set({ pivot: kept });
      }
      s.say(
        `Turned ${copy ? 'a copy of ' : ''}${count(ids.length, 'object')} by ${formatNumber(by, 1)}°. A does it again.`,
      );
      drop(c);
    },
    cancel: () => drop(c),
  };
}

/** Puts the pivot, what turns and flips go about, anywhere; it snaps like everything else. */
export function dragPivot(c: ToolContext, start: PointerAt, at: Point): Gesture {
  const { session: s } = c;
  const lines = targetsFor(c, []);
  const offset = { x: at.x - start.screen.x, y: at.y - start.screen.y };
  const before = s.state.pivot;
  const place = (p: PointerAt): Point => {
    const { camera } = s.state;
    const to = { x: p.page.x + offset.x / camera.scale, y: p.page.y + offset.y / camera.scale };
    const snapped = snapPoint(c, to, lines, p);
    const { unit } = s.design.setup;
    c.readout(`pivot ${formatLength(snapped.point.x, unit)}, ${formatLength(snapped.point.y, unit)}${snapped.said}`);
    return snapped.point;
  };
  return {
    move(p) {
      if (!far(p, start)) return;
      s.set({ pivot: place(p) });
      c.refresh();
    },
    release(p) {
      if (far(p, start)) {
        s.set({ pivot: place(p) });
        s.say('Turns, flips and rings now go about the pivot. Double-click it to put it back.');
      }
      drop(c);
    },
    cancel() {
      s.set({ pivot: before });
      drop(c);
    },
  };
}

/** A knob follows the pointer along its measure; with Alt only its own corner, where several go together. */
export function turnKnob(
  c: ToolContext,
  start: PointerAt,
  frame: Frame,
  grip: Extract<Grip, { kind: 'knob' | 'corner' }>,
): Gesture | null {
  const { session: s } = c;
  if (grip.kind === 'corner') return roundCorner(c, start, frame, grip.node);
  const id = frame.single;
  const node = id ? dialOf(s.design.nodes[id]) : null;
  const def = node ? shapeById(node.shape) : undefined;
  const back = invert(frame.matrix);
  if (!id || !node || !def || !back) return null;
  const knob = def.knobs[grip.index];
  const param = def.params.find((p) => p.id === knob.param)!;
  const first = valuesOf(def, node.knobs);
  // The knob may be shown beside its place, and is never taken quite in its middle: it moves by what the pointer moves.
  const stands = apply(frame.matrix, knob.at(first, node.width, node.height));
  const offset = { x: stands.x - start.page.x, y: stands.y - start.page.y };
  return shown(
    c,
    () => param.label,
    (p) => {
      const value = knob.value(
        apply(back, { x: p.page.x + offset.x, y: p.page.y + offset.y }),
        first,
        node.width,
        node.height,
      );
      const affected = knob.together && !p.alt ? knob.together : [knob.param];
      const text =
        param.unit === 'length'
          ? formatLength(value, s.design.setup.unit)
          : param.unit === 'angle'
            ? `${formatNumber(value, 0)}°`
            : param.unit === 'ratio'
              ? `${formatNumber(value * 100, 0)} %`
              : formatNumber(value, 0);
      return {
        recipe: (d) => setKnobs(d.nodes[id], affected, value),
        says: `${param.label.toLowerCase()} ${text}${knob.together ? (p.alt ? ' · this corner' : ' · all corners') : ''}`,
      };
    },
    undefined,
    [id],
  );
}

/** A corner's handle gives all corners its radius; with Alt its own alone. */
function roundCorner(c: ToolContext, start: PointerAt, frame: Frame, which: number): Gesture | null {
  const { session: s } = c;
  const id = frame.single;
  const node = id ? s.design.nodes[id] : null;
  const back = invert(frame.matrix);
  if (!id || !node || (node.kind !== 'shape' && node.kind !== 'path') || !back) return null;
  const corner = treatedCorners(node).find((k) => k.node === which);
  if (!corner) return null;
  const stands = apply(frame.matrix, cornerHandle(corner));
  const offset = { x: stands.x - start.page.x, y: stands.y - start.page.y };
  return shown(
    c,
    () => 'Corners',
    (p) => {
      const radius = radiusAt(corner, apply(back, { x: p.page.x + offset.x, y: p.page.y + offset.y }));
      return {
        recipe: (d) => setCorners(d, [id], p.alt ? which : 'all', { radius }),
        says: `corner ${formatLength(radius, s.design.setup.unit)}${p.alt ? ' · this corner' : ' · all corners'}`,
      };
    },
    undefined,
    [id],
  );
}
