import { newDesign, setupOf, type Making } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat, tint } from './builder';
import { guildLantern } from './lantern';

const A4 = { w: mm(210), h: mm(297) };
/** Three across and seven down, as sheets of cut labels often are (common practice). */
const LABEL = { w: mm(63.5), h: mm(38.1), left: mm(7.25), top: mm(15.15), across: mm(66), down: mm(38.1) };

/** A sheet of labels, each the same: whose lantern it is. */
export function labelSheet(make: Making): Design {
  const base = newDesign(
    'Lantern labels',
    setupOf(A4.w, A4.h, {
      bleed: 0,
      margins: { top: LABEL.top, right: LABEL.left, bottom: LABEL.top, left: LABEL.left },
      columns: { count: 3, gutter: LABEL.across - LABEL.w },
    }),
    make,
  );
  const b = new DesignBuilder({ ...base, id: 'lantern-labels', swatches: [base.swatches[0]] }, make);
  b.swatchGroup('Labels');
  const quayNight = b.recipe('Quay Night', 100, 86, 38, 44);
  const lowTide = b.recipe('Low Tide', 82, 46, 22, 6);
  const paperGlow = b.recipe('Paper Glow', 2, 8, 34, 0);
  const wick = b.recipe('Wick', 0, 36, 92, 0);
  const { left: x, top: y } = LABEL;
  const words = (name: string, at: number, text: string, face: string, size: number) =>
    b.displayText(name, x + mm(25), y + mm(at), [{ runs: [{ text, face, size, fill: flat(quayNight) }] }]);
  const label = b.group('Label', [
    b.corners(
      b.shape(
        'Paper',
        'rectangle',
        { x: x + mm(1.5), y: y + mm(1.5), w: LABEL.w - mm(3), h: LABEL.h - mm(3) },
        { fill: flat(tint(paperGlow, 0.6)) },
      ),
      { radius: mm(3), kind: 'round' },
    ),
    guildLantern(b, x + mm(13), y + mm(6), mm(26), lowTide, wick),
    words('Heading', 13, 'This lantern is', 'archivo-400', 9),
    words('Name', 20.5, 'Tessaly Orrin’s', 'bitter-700', 14.5),
    words('Where', 29, 'Net Loft, table 4', 'archivo-600', 9),
  ]);
  b.place(0, [
    b.repeat(
      'Labels',
      {
        kind: 'grid',
        columns: 3,
        rows: 7,
        across: { x: LABEL.across, y: 0 },
        down: { x: 0, y: LABEL.down },
        about: { x: x + LABEL.w / 2, y: y + LABEL.h / 2 },
      },
      [label],
    ),
  ]);
  return b.done();
}
