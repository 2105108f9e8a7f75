import { afterPaint } from '../session/afterPaint';
import { isText } from '@/core/derive/layout';
import { fromPoints, type Rect } from '@/core/geometry/rect';
import { ancestry, isHolder } from '@/core/model/tree';
import { gripAt } from '../view/frame';
import { count, freeSelection } from '../session/commandDef';
import type { Session } from '../session/session';
import { canHoldText } from '@/core/edit/window';
import { beginEditing, writeInShape } from './editing';
import { beginCrop } from './cropping';
import { drop } from './ending';
import { guideAt } from './guideAt';
import { choose, enteredLine, pick, pickIn } from './pick';
import { gestureLater } from './toolLater';
import { far, type Gesture, type PointerAt, type Tool, type ToolContext } from './tool';

const words = afterPaint(() => import('./words'));
const transform = afterPaint(() => import('./transform'));
const ofMaster = afterPaint(() => import('./ofMaster'));
const depths = afterPaint(() => import('./depth'));
const widths = afterPaint(() => import('./widths'));
const shadow = afterPaint(() => import('./shadow'));
export const guides = afterPaint(() => import('./guides'));

export const selectTool: Tool = {
  press(at, c) {
    const { session: s } = c;
    const grip = gripAt(s, at.screen);
    if (grip && freeSelection(s).length) {
      if (grip.placed.grip.kind === 'size')
        return gestureLater(transform, (m) => m.resize(c, at, grip.frame, grip.placed), c);
      if (grip.placed.grip.kind === 'turn') return gestureLater(transform, (m) => m.turn(c, at, grip.frame), c);
      if (grip.placed.grip.kind === 'pivot') {
        const { at: pivot } = grip.placed;
        return gestureLater(transform, (m) => m.dragPivot(c, at, pivot), c);
      }
      if (grip.placed.grip.kind === 'shadow') return gestureLater(shadow, (m) => m.dragShadow(c, at, grip.frame), c);
      if (grip.placed.grip.kind === 'words') {
        const { of } = grip.placed.grip;
        return of === 'along'
          ? gestureLater(words, (m) => m.dragAlong(c, grip.frame), c)
          : gestureLater(words, (m) => m.dragBend(c, at, grip.frame, of), c);
      }
      if (grip.placed.grip.kind === 'depth') return gestureLater(depths, (m) => m.dragDepth(c, grip.frame), c);
      if (grip.placed.grip.kind === 'width') {
        const { knot } = grip.placed.grip;
        return gestureLater(widths, (m) => m.dragWidth(c, at, grip.frame, knot), c);
      }
      const knob = grip.placed.grip;
      return gestureLater(transform, (m) => m.turnKnob(c, at, grip.frame, knob), c);
    }
    const guide = guideAt(s, at);
    if (guide && !at.shift && !s.state.readOnly)
      return gestureLater(guides, (m) => m.dragGuide(c, guide.axis, guide.index), c);
    const found = pick(s, at);
    if (!found) {
      const area = marquee(c, at);
      // Let go where it was pressed: what lies there of a master says whose it is.
      return {
        ...area,
        release: (p) => {
          area.release(p);
          if (!far(p, at)) ofMaster.now?.sayWhoseItIs(s, at);
        },
      };
    }
    const line = enteredLine(s);
    // Work goes on where the picked thing lies: beside a group, not in it.
    const outside = line.findIndex((id) => !ancestryOf(s, found.id).includes(id));
    if (outside >= 0 && !at.shift) s.leave(outside ? line[outside - 1] : null);
    const { selection } = s.state;
    const was = selection.includes(found.id);
    if (at.shift) {
      // With Shift a press takes one more; let go without a drag it takes out one that was chosen before.
      if (!was) choose(s, [...selection, found.id]);
      const less = () =>
        choose(
          s,
          selection.filter((id) => id !== found.id),
        );
      return gestureLater(transform, (m) => m.move(c, at, was ? less : undefined), c);
    }
    if (!was) choose(s, [found.id]);
    const alone = was && selection.length > 1 ? () => choose(s, [found.id]) : undefined;
    return gestureLater(transform, (m) => m.move(c, at, alone), c);
  },

  double(at, c) {
    const { session: s } = c;
    const grip = gripAt(s, at.screen);
    if (grip?.placed.grip.kind === 'pivot') {
      s.set({ pivot: null });
      s.say('The pivot is back in the middle.');
      return;
    }
    const found = pick(s, at);
    if (!found) return;
    const node = s.design.nodes[found.id];
    if (isHolder(node)) enterHolder(s, found.id, at);
    else if (!isText(node) && beginCrop(s, found.id)) return;
    else if (isText(node)) beginEditing(s, found.id, at.page);
    else if (canHoldText(node)) writeInShape(s, found.id);
  },

  cursor(at, c) {
    const grip = gripAt(c.session, at.screen);
    if (grip) {
      const g = grip.placed.grip;
      if (g.kind !== 'size' && g.kind !== 'knob' && g.kind !== 'corner' && g.kind !== 'width') return 'grab';
      if (g.kind === 'knob' || g.kind === 'corner' || g.kind === 'width') return 'pointer';
      const a =
        ((Math.atan2(
          grip.placed.ux.y * g.hx + grip.placed.uy.y * g.hy,
          grip.placed.ux.x * g.hx + grip.placed.uy.x * g.hy,
        ) *
          180) /
          Math.PI +
          360) %
        180;
      return a < 22.5 || a >= 157.5 ? 'ew-resize' : a < 67.5 ? 'nwse-resize' : a < 112.5 ? 'ns-resize' : 'nesw-resize';
    }
    const guide = guideAt(c.session, at);
    if (guide) return guide.axis === 'x' ? 'col-resize' : 'row-resize';
    return pick(c.session, at) ? 'move' : 'default';
  },
};

/** Goes into a group, combination or repeat; with a place, what lies there is chosen. */
export function enterHolder(s: Session, id: string, at: PointerAt | null): void {
  const node = s.design.nodes[id];
  if (!isHolder(node)) return;
  s.enter(id, []);
  const inside = at ? pick(s, at) : null;
  const first = inside?.id ?? node.children.findLast((c) => !s.design.nodes[c].hidden && !s.design.nodes[c].locked);
  choose(s, first ? [first] : []);
  const what =
    node.kind === 'combination'
      ? 'What is combined can be moved and changed'
      : node.kind === 'repeat'
        ? 'Every copy follows what is changed'
        : 'Its objects can be moved and changed';
  s.say(`Inside ${node.name || 'the group'}. ${what}; Esc comes out.`);
}

const ancestryOf = (s: Session, id: string): readonly string[] => ancestry(s.design, s.page, id);

function marquee(c: ToolContext, start: PointerAt): Gesture {
  const { session: s } = c;
  const before = start.shift ? s.state.selection : [];
  const boxOf = (p: PointerAt): Rect => fromPoints([start.page, p.page]);
  const inside = (p: PointerAt) => {
    return [...new Set([...before, ...pickIn(s, boxOf(p), p.alt)])];
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
      const dragged = far(p, start);
      // A click on nothing comes out of a group, one step, unless it is isolated.
      if (!dragged && !start.shift && s.state.entered && !s.state.isolated) s.leave(enteredLine(s).at(-2) ?? null);
      choose(s, dragged ? inside(p) : before);
      drop(c);
      c.refresh();
    },
    cancel: () => drop(c),
  };
}
