import { isLineAim } from '@/core/edit/aims';
import { deleteNodes } from '@/core/edit/remove';
import { leaveStory } from '@/core/edit/thread';
import { isText } from '@/core/derive/layout';
import { asShape, asWindow, canHoldText, emptyStory } from '@/core/edit/window';
import { colourPaint, runOf } from '@/core/model/defaults';
import type { Paint } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { isLocked } from '@/core/model/tree';
import { plainText } from '@/core/text/layout';
import type { Point } from '@/core/geometry/matrix';
import { offsetAt } from '../view/caret';
import { backToBench } from '../session/focus';
import type { Session } from '../session/session';

/** Starts writing in a text, with the caret where it was clicked (or all of it chosen when no place is given). */
export function beginEditing(s: Session, id: string, at: Point | null): void {
  const node = s.design.nodes[id];
  if (!isText(node) || s.state.readOnly) return;
  if (isLocked(s.design, s.page, id)) {
    s.say(`${node.name || 'This text'} is locked. Unlock it in the pile to write in it.`);
    return;
  }
  const end = plainText(s.design.stories[node.story]).length;
  const offset = at ? offsetAt(s, id, at) : end;
  s.select([id], {
    stop: null,
    aim:
      isLineAim(s.state.aim) && s.state.aim !== 'outline' ? s.state.aim : s.state.aim === 'frame' ? 'frame' : 'letters',
    editing: { node: id, anchor: at ? offset : 0, focus: offset },
  });
}

/** Stops writing. A text left empty is taken away: nothing invisible stays behind. */
export function endEditing(s: Session): void {
  const { editing } = s.state;
  if (!editing) return;
  s.set({ editing: null });
  // The hidden field goes; keys belong to the bench top again.
  backToBench();
  const node = s.design.nodes[editing.node];
  if (node?.kind === 'textFrame' && node.window && plainText(s.design.stories[node.story]).trim() === '') {
    // A shape that nothing was written in is a shape again.
    const shape = asShape(node)!;
    s.commit('Leave the shape empty', (d) => {
      d.nodes[node.id] = shape as (typeof d.nodes)[string];
      leaveStory(d, node.story, node.id);
    });
    s.set({ aim: 'fill' });
    return;
  }
  if (node && isText(node) && node.kind === 'displayText' && plainText(s.design.stories[node.story]).trim() === '') {
    s.commit('Remove empty text', (d) => deleteNodes(d, s.page, [editing.node]), { select: [] });
  }
}

/** Starts writing in a closed shape or path: it becomes a frame of that shape. */
export function writeInShape(s: Session, id: string): void {
  const node = s.design.nodes[id];
  if (s.state.readOnly || !node || !canHoldText(node)) return;
  if (isLocked(s.design, s.page, id)) {
    s.say(`${node.name || 'This shape'} is locked. Unlock it in the pile to write in it.`);
    return;
  }
  const story = s.newId();
  const box = s.boxOf([id]);
  const short = Math.min(box.x1 - box.x0, box.y1 - box.y0);
  const size = Math.max(4, Math.min(24, Math.round(short / 12)));
  const run = runOf('', size, textPaint(s, node.fills[node.fills.length - 1]));
  const frame = asWindow(node, story, Math.min(mm(2), short / 20));
  if (
    s.commit('Write in a shape', (d) => {
      d.stories[story] = emptyStory(story, run) as (typeof d.stories)[string];
      d.nodes[id] = frame as (typeof d.nodes)[string];
    })
  )
    beginEditing(s, id, null);
}

/** Darker than this (lightness L*), black letters would be lost. */
const DARK = 55;

/** Text starts black, the ink that is always there and prints sharpest; on a dark ground it is bare paper. */
export function textPaint(s: Session, ground?: Paint): Paint {
  if (ground?.kind === 'colour' && s.palette.labOf(ground.colour)[0] < DARK)
    return colourPaint(s.palette.screen ? { rgb: [1, 1, 1] } : { cmyk: [0, 0, 0, 0] });
  return colourPaint(s.palette.screen ? { rgb: [0, 0, 0] } : { cmyk: [0, 0, 0, 1] });
}
