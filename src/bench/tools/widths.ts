import { setOutlineStyle } from '@/core/edit/paint';
import { apply, invert } from '@/core/geometry/matrix';
import { formatLength } from '@/core/units/length';
import type { Frame } from '../view/frame';
import { knottedLine, placeOnWay } from '../view/lineKnobs';
import { shown } from './shown';
import type { Gesture, PointerAt, ToolContext } from './tool';

/** Drags a knot of a line across it, which changes its width there, and along it; both ends stay ends. */
export function dragWidth(c: ToolContext, start: PointerAt, frame: Frame, knot: number): Gesture | null {
  const { session: s } = c;
  const found = knottedLine(s, frame);
  const back = invert(frame.matrix);
  if (!found || !back) return null;
  const { id, aim, line } = found;
  const { profile, width, paint } = line;
  const [before, after] = [profile[knot - 1]?.at ?? 0, profile[knot + 1]?.at ?? 1];
  const isEnd = knot === 0 || knot === profile.length - 1;
  // The knob may stand further off than the edge of the line: it moves by what the pointer moves.
  const first = placeOnWay(found, apply(back, start.page)).away;
  return shown(
    c,
    () => 'Width of the line',
    (p: PointerAt) => {
      const { at, away } = placeOnWay(found, apply(back, p.page));
      const share =
        Math.round(Math.min(1, Math.max(0, profile[knot].share + (2 * (away - first)) / width)) * 1000) / 1000;
      const moved = isEnd ? profile[knot].at : Math.min(after, Math.max(before, at));
      const next = profile.map((k, i) => (i === knot ? { at: moved, share } : k));
      return {
        recipe: (d) => setOutlineStyle(d, [id], aim, { profile: next }, paint),
        says: `${formatLength(share * width, s.design.setup.unit, 2)} wide at ${Math.round(moved * 100)} %`,
      };
    },
    undefined,
    [id],
  );
}
