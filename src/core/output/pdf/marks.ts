import { addEllipse, PathBuilder, type PathData } from '../../geometry/path';
import type { ColourSpaces } from './colour';
import type { ContentStream } from './content';

/** Millimetres to points. */
const MM = 72 / 25.4;
/** Room round the trim for marks, and how long and how far off they are (common practice). */
export const SLUG = 15 * MM;
const LENGTH = 6 * MM;
const AWAY = 1 * MM;
const LINE_WIDTH = 0.25;

export interface MarkedPage {
  readonly width: number;
  readonly height: number;
  readonly bleed: number;
}

/** Lines and targets are in every plate. */
const inAll = (out: ContentStream): ContentStream =>
  out.op('/All CS').nums([1], 'SCN', 4).op('/All cs').nums([1], 'scn', 4).nums([LINE_WIDTH], 'w');

/** Crop marks at the four corners, on every plate, outside the bleed. */
export function drawCropMarks(out: ContentStream, { width: w, height: h, bleed }: MarkedPage): void {
  inAll(out);
  const from = bleed + AWAY;
  const to = from + LENGTH;
  for (const [x, sx] of [
    [0, -1],
    [w, 1],
  ])
    for (const [y, sy] of [
      [0, -1],
      [h, 1],
    ]) {
      out.nums([x, y + sy * from], 'm').nums([x, y + sy * to], 'l');
      out.nums([x + sx * from, y], 'm').nums([x + sx * to, y], 'l');
    }
  out.op('S');
}

/** Registration targets at the four sides, on every plate, outside the bleed. */
export function drawTargets(out: ContentStream, { width: w, height: h, bleed }: MarkedPage): void {
  inAll(out);
  const r = 2 * MM;
  const d = bleed + AWAY + 3.5 * MM;
  for (const [x, y] of [
    [w / 2, -d],
    [w / 2, h + d],
    [-d, h / 2],
    [w + d, h / 2],
  ]) {
    const circle = new PathBuilder();
    addEllipse(circle, x, y, r, r);
    out.path(circle.data);
    out
      .nums([x - r * 1.6, y], 'm')
      .nums([x + r * 1.6, y], 'l')
      .nums([x, y - r * 1.6], 'm')
      .nums([x, y + r * 1.6], 'l')
      .op('S');
    const dot = new PathBuilder();
    addEllipse(dot, x, y, r * 0.4, r * 0.4);
    out.path(dot.data).op('f');
  }
}

/** A line of words below the sheet, in every plate, as shapes: no face is needed to read it. */
export function drawWords(out: ContentStream, { height, bleed }: MarkedPage, words: PathData): void {
  inAll(out)
    .op('q')
    .nums([1, 0, 0, 1, 3 * MM, height + bleed + AWAY + 8.5 * MM], 'cm', 6)
    .path(words)
    .op('f Q');
}
/** The size of those words, points. */
export const WORDS_SIZE = 6;

/**
 * Solids and halves of each ink used, and the two-ink overprints, along the head of the sheet; below it where it is
 * narrow.
 */
export function drawColourBar(
  out: ContentStream,
  page: MarkedPage,
  spots: readonly number[],
  spaces: ColourSpaces,
): void {
  const patch = 4 * MM;
  const y = -(page.bleed + AWAY + patch + 1.5 * MM);
  const process = [
    [1, 0, 0, 0],
    [0, 1, 0, 0],
    [0, 0, 1, 0],
    [0, 0, 0, 1],
    [0.5, 0, 0, 0],
    [0, 0.5, 0, 0],
    [0, 0, 0.5, 0],
    [0, 0, 0, 0.5],
    [1, 1, 0, 0],
    [1, 0, 1, 0],
    [0, 1, 1, 0],
  ];
  const patches: { paint: () => void }[] = [
    ...process.map((c) => ({ paint: () => void out.nums(c, 'k', 4) })),
    ...spots.flatMap((s) =>
      [1, 0.5].map((t) => ({ paint: () => void out.op(`/${spaces.spotName(s)} cs`).nums([t], 'scn', 4) })),
    ),
  ];
  // Between the corner mark and the target in the middle, then past the target; what does not fit is left out.
  const targets = 2 * 2 * 1.6 * MM;
  let x = 3 * MM;
  for (const p of patches) {
    if (x < page.width / 2 + targets && x + patch > page.width / 2 - targets) x = page.width / 2 + targets;
    if (x + patch > page.width - 3 * MM) break;
    p.paint();
    out.nums([x, y, patch, patch], 're').op('f');
    x += patch;
  }
}
