import type { Recipe } from '@/core/edit/history';
import { isText } from '@/core/derive/layout';
import { paragraphStretch, wordAt } from '@/core/edit/writing';
import { plainText } from '@/core/text/layout';
import { translation } from '@/core/geometry/matrix';
import { fromPoints } from '@/core/geometry/rect';
import { DEFAULT_FACE, NO_PAINT, runOf } from '@/core/model/defaults';
import { formatLength, mm } from '@/core/units/length';
import { offsetAt } from '../view/caret';
import type { Session } from '../session/session';
import { nameOf } from '../session/nameOf';
import { beginEditing, endEditing, textPaint } from './editing';
import { pick } from './pick';
import { putNode } from './placing';
import { far, type PointerAt, type Tool } from './tool';

const SMALLEST_FRAME = mm(5);

/** A size that suits the page: display text fills about a third of the width. */
function firstSize(s: Session, display: boolean): number {
  const short = Math.min(s.setup.width, s.setup.height);
  return display ? Math.max(12, Math.round(short / 14)) : Math.max(8, Math.min(14, Math.round(short / 40)));
}

export const textTool: Tool = {
  press(start, c) {
    const { session: s } = c;
    const { editing } = s.state;
    const found = pick(s, start);
    const node = found ? s.design.nodes[found.hit.node] : null;
    const over = found && node && isText(node) && found.hit.part !== 'fill' ? node.id : null;
    if (over && editing?.node === over) return choosing(s, over, start);
    endEditing(s);
    if (s.state.readOnly) return null;
    const id = s.newId();
    const story = s.newId();
    const make = (p: PointerAt): Recipe => {
      const box = fromPoints([start.page, p.page]);
      const frame = far(p, start);
      const run = runOf('', firstSize(s, !frame), textPaint(s), DEFAULT_FACE);
      return (d) => {
        d.stories[story] = {
          id: story,
          paragraphs: [{ align: 'left', leading: 1.2, runs: [run] }],
        } as (typeof d.stories)[string];
        const base = {
          id,
          transform: translation(frame ? box.x0 : start.page.x, frame ? box.y0 : start.page.y),
          hidden: false,
          locked: false,
          story,
        } as const;
        if (frame)
          putNode(d, s, {
            ...base,
            name: 'Text frame',
            kind: 'textFrame',
            width: Math.max(SMALLEST_FRAME, box.x1 - box.x0),
            height: Math.max(SMALLEST_FRAME, box.y1 - box.y0),
            inset: 0,
            fills: [NO_PAINT],
            outlines: [],
          });
        else putNode(d, s, { ...base, name: 'Display text', kind: 'displayText', stretch: 1 });
      };
    };
    return {
      move(p) {
        if (!far(p, start)) return;
        c.extras.marquee = fromPoints([start.page, p.page]);
        const { unit } = s.design.setup;
        c.readout(
          `text frame ${formatLength(Math.abs(p.page.x - start.page.x), unit)} × ${formatLength(Math.abs(p.page.y - start.page.y), unit)}`,
        );
        c.refresh();
      },
      release(p) {
        c.extras.marquee = null;
        c.readout(null);
        // A click on words writes in them; a drag makes a frame of its own, whatever lies below.
        if (over && !far(p, start)) {
          beginEditing(s, over, p.page);
          c.refresh();
          return;
        }
        if (s.commit('Place text', make(p), { select: [id] })) {
          s.set({ tool: 'select', aim: 'letters' });
          beginEditing(s, id, null);
        }
        c.refresh();
      },
      cancel() {
        c.extras.marquee = null;
        c.readout(null);
        c.refresh();
      },
    };
  },
  hover(p, c) {
    c.readout(hint(c.session, p));
  },
  cursor: () => 'text',
};

/** What a press would do here, told before it is done. */
function hint(s: Session, p: PointerAt): string {
  const found = pick(s, p);
  const node = found ? s.design.nodes[found.hit.node] : null;
  if (node && isText(node) && found!.hit.part !== 'fill') return `click: write in ${nameOf(s.design, node)}`;
  return 'click: display text · drag: text frame';
}

/** What a press takes at an offset: by the second press a word, by the third a paragraph. */
function taken(
  s: Session,
  id: string,
  offset: number,
  presses: number,
): { readonly from: number; readonly to: number } {
  const node = s.design.nodes[id];
  if (presses < 2 || !node || !isText(node)) return { from: offset, to: offset };
  const story = s.design.stories[node.story];
  return presses === 2 ? wordAt(plainText(story), offset) : paragraphStretch(story, offset);
}

/** Chooses letters by dragging over them; words after a second press, paragraphs after a third. */
export function choosing(s: Session, id: string, start: PointerAt, presses = 1) {
  const first = taken(s, id, offsetAt(s, id, start.page), presses);
  const anchor = start.shift && s.state.editing ? s.state.editing.anchor : null;
  const to = (p: PointerAt) => {
    const now = taken(s, id, offsetAt(s, id, p.page), presses);
    const back = now.from < (anchor ?? first.from);
    s.set({
      editing: { node: id, anchor: anchor ?? (back ? first.to : first.from), focus: back ? now.from : now.to },
    });
  };
  to(start);
  return { move: to, release: to, cancel: () => {} };
}
