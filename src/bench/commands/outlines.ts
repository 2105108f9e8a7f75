import { localBox } from '@/core/derive/box';
import { isText } from '@/core/derive/layout';
import { addOutline, aimedNodes, FURTHER_AIMS, linedNodes, lineAt, paintAt } from '@/core/edit/paint';
import { BLACK, colourPaint, outlineOf } from '@/core/model/defaults';
import { firstLetters } from '@/core/model/textLooks';
import type { Colour, Outline, Paint } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { chosenLetters, freeSelection } from '../session/commandDef';
import type { Session } from '../session/session';

/** Can what is chosen have one more line? */
export const canAddOutline = (s: Session): boolean => {
  const ids = freeSelection(s);
  return (
    linedNodes(s.design, ids).length > 0 && !aimedNodes(s.design, ids, FURTHER_AIMS[FURTHER_AIMS.length - 1]).length
  );
};

/** Lays one more line below those that are there, wide enough to be seen, and points colours at it. */
export function addFurtherOutline(s: Session): void {
  const ids = freeSelection(s);
  const nodes = linedNodes(s.design, ids);
  if (!nodes.length || !canAddOutline(s)) return;
  const line = furtherLine(s, nodes[0]);
  s.commit('One more outline', (d) => addOutline(d, nodes, line));
  const lowest = FURTHER_AIMS.findLast((aim) => aimedNodes(s.design, nodes, aim).length > 0);
  if (lowest) s.aimAt(lowest);
  s.say('The line lies behind. Click a colour for it; its weight, and how far away it runs, are in Details.');
}

/** A line that shows beside those of an object: wider by a step than the widest, in a colour that its neighbour has not. */
function furtherLine(s: Session, id: string): Outline {
  const node = s.design.nodes[id];
  const further = FURTHER_AIMS.flatMap((aim) => lineAt(node, aim) ?? []);
  const top = isText(node) ? firstLetters(s.design, s.design.stories[node.story]).outline : lineAt(node, 'outline');
  const box = localBox(s.design, node, s.engines.fonts);
  const step = isText(node)
    ? firstLetters(s.design, s.design.stories[node.story]).size / 8
    : Math.min(mm(3), Math.max(box.x1 - box.x0, box.y1 - box.y0) / 20);
  const widest = [...further, ...(top ? [top] : [])].map((o) => o.width + 2 * Math.max(0, o.away ?? 0));
  const width = Math.max(0, ...widest) + Math.max(step, 0.1);
  const beside =
    further[further.length - 1]?.paint ?? paintAt(s.design, id, isText(node) ? 'letters' : 'fill', chosenLetters(s));
  return { ...outlineOf(otherPaint(s, beside), width), join: 'round', behind: true };
}

/** The first flat swatch of the tray that is neither the neighbour's nor bare stock. */
function otherPaint(s: Session, beside: Paint | undefined): Paint {
  const used = beside?.kind === 'colour' ? s.palette.css(beside.colour) : null;
  for (const w of s.design.swatches) {
    if (w.kind !== 'colour') continue;
    const colour = { swatch: w.id, tint: 1 };
    if (s.palette.css(colour) !== used && s.palette.mix(colour).some((v) => v > 0)) return colourPaint(colour);
  }
  // Black beside anything but black, and a light grey beside that.
  const dark: Colour = s.palette.screen ? { rgb: [0, 0, 0] } : BLACK;
  const light: Colour = s.palette.screen ? { rgb: [0.75, 0.75, 0.75] } : { cmyk: [0, 0, 0, 0.3] };
  return colourPaint(s.palette.css(dark) === used ? light : dark);
}
