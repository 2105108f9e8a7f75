import { UNITS, type Unit } from './length';

/** A named page size, upright, in its own unit. */
export interface Format {
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly unit: Unit;
  readonly family: 'ISO A' | 'ISO B' | 'ISO C' | 'US' | 'Cards and labels' | 'Screen';
  readonly shape?: 'round';
}

/**
 * ISO 216: halve the longer side and round down to whole millimetres. A0 841 × 1189, B0 1000 × 1414; C0 of ISO 269 917
 * × 1297.
 */
function isoSeries(letter: 'A' | 'B' | 'C', width0: number, height0: number): Format[] {
  const out: Format[] = [];
  let [w, h] = [width0, height0];
  for (let n = 0; n <= 10; n++) {
    out.push({ name: `${letter}${n}`, width: w, height: h, unit: 'mm', family: `ISO ${letter}` });
    [w, h] = [Math.floor(h / 2), w];
  }
  return out;
}

export const FORMATS: readonly Format[] = [
  ...isoSeries('A', 841, 1189),
  ...isoSeries('B', 1000, 1414),
  ...isoSeries('C', 917, 1297),
  // ANSI/ASME Y14.1 sizes A and B; legal is common practice.
  { name: 'US letter', width: 8.5, height: 11, unit: 'in', family: 'US' },
  { name: 'US legal', width: 8.5, height: 14, unit: 'in', family: 'US' },
  { name: 'US tabloid', width: 11, height: 17, unit: 'in', family: 'US' },
  // 85 × 55 mm is common practice; ISO/IEC 7810 ID-1 is 85.60 × 53.98 mm.
  { name: 'Card', width: 55, height: 85, unit: 'mm', family: 'Cards and labels' },
  { name: 'Card ID-1', width: 53.98, height: 85.6, unit: 'mm', family: 'Cards and labels' },
  { name: 'Round label 50', width: 50, height: 50, unit: 'mm', family: 'Cards and labels', shape: 'round' },
  { name: 'Round label 80', width: 80, height: 80, unit: 'mm', family: 'Cards and labels', shape: 'round' },
  { name: 'Screen wide', width: 1080, height: 1920, unit: 'px', family: 'Screen' },
  { name: 'Screen square', width: 1080, height: 1080, unit: 'px', family: 'Screen' },
  { name: 'Web button', width: 240, height: 240, unit: 'px', family: 'Screen' },
];

/** Half a hundredth of a millimetre: sizes closer than this are the same format. */
const SAME = 0.005 * UNITS.mm;

/** The format with these trim measures (points), upright or landscape; undefined for a size of one's own. */
export function formatOf(width: number, height: number, round = false): Format | undefined {
  const near = (a: number, b: number) => Math.abs(a - b) < SAME;
  return FORMATS.find((f) => {
    const w = f.width * UNITS[f.unit];
    const h = f.height * UNITS[f.unit];
    return (
      (f.shape === 'round') === round && ((near(w, width) && near(h, height)) || (near(w, height) && near(h, width)))
    );
  });
}
