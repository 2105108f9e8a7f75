import { deltaE00 } from '@/core/colour/compare';
import { localBox } from '@/core/derive/box';
import { isText } from '@/core/derive/layout';
import { FURTHER_AIMS, lineAt, paintAt } from '@/core/edit/aims';
import { grow, isEmpty } from '@/core/geometry/rect';
import { BLACK, colourPaint, outlineOf } from '@/core/model/defaults';
import type { Colour, Outline } from '@/core/model/schema';
import { firstLetters } from '@/core/model/textLooks';
import { sampleLook } from '@/core/render/sample';
import { mm } from '@/core/units/length';
import { chosenLetters } from '../session/commandDef';
import type { Session } from '../session/session';

/**
 * A line that shows beside those of an object: wider by a step than the widest, in a colour that neither they nor the
 * ground have.
 */
export function furtherLine(s: Session, id: string): Outline {
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
  const near = [...(beside?.kind === 'colour' ? [beside.colour] : []), ...groundBy(s, id)];
  return { ...outlineOf(colourPaint(furthest(s, near)), width), join: 'round', behind: true };
}

/** How the page looks just beside an object. */
function groundBy(s: Session, id: string): Colour[] {
  const box = s.boxOf([id]);
  if (isEmpty(box)) return [];
  const { x0, y0, x1, y1 } = grow(box, 1);
  const [x, y] = [(x0 + x1) / 2, (y0 + y1) / 2];
  const scene = s.scene();
  return [
    { x, y: y0 },
    { x, y: y1 },
    { x: x0, y },
    { x: x1, y },
  ].map((p) => sampleLook(scene, s.palette, p));
}

/** Of the flat swatches and black, the one that is told best from all of some colours. */
function furthest(s: Session, near: readonly Colour[]): Colour {
  const labs = near.map((c) => s.palette.labOf(c));
  const away = (c: Colour): number => {
    const lab = s.palette.labOf(c);
    return Math.min(...labs.map((other) => deltaE00(lab, other)));
  };
  const all: Colour[] = s.design.swatches.flatMap((w) => (w.kind === 'colour' ? [{ swatch: w.id, tint: 1 }] : []));
  all.push(
    s.palette.screen ? { rgb: [0, 0, 0] } : BLACK,
    s.palette.screen ? { rgb: [0.6, 0.6, 0.6] } : { cmyk: [0, 0, 0, 0.4] },
  );
  return labs.length ? all.reduce((best, c) => (away(c) > away(best) + 1 ? c : best)) : all[0];
}
