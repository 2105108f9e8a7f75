import { dashContour, type DashPiece } from '../geometry/dash';
import { END_MARKS, withEnds, type LineEnd } from '../geometry/lineEnds';
import { invert, multiply, type Matrix } from '../geometry/matrix';
import { contourLength } from '../geometry/measure';
import { pathBounds, transformPath, type PathData } from '../geometry/path';
import { pathOfContours, type Contour } from '../geometry/segments';
import { strokeOutline, type StrokeStyle } from '../geometry/stroke';
import { taperedArea, taperPieces, type TaperPiece } from '../geometry/taper';
import { wobblePath } from '../geometry/wobble';
import type { GradientPaint, LineMark, Outline } from '../model/schema';

/** Is a line more than a band of one width along its path? */
export const isFormed = (o: Outline): boolean =>
  o.start !== undefined || o.end !== undefined || o.profile !== undefined || o.wobble !== undefined;

/**
 * What a line comes to: a band along `line`, or an `area`, and its ends where they cannot be one with it. In points of
 * the page, seen from where it is put.
 */
export interface LineForm {
  readonly line: PathData;
  readonly area: PathData;
  readonly ends: readonly { readonly path: PathData; readonly at: 'start' | 'end' }[];
}

const forms = new WeakMap<PathData, { readonly key: string; readonly form: LineForm }[]>();
/** So many lines of one path, and two sizes of each while it is dragged, are remembered. */
const MOST_KEPT = 12;
/** A line that became an area strays no further from the true one than this, in points. */
const FINE = 0.01;

/**
 * The line of an outline that strays, changes its width or has something at its ends. With `apart` (its paint follows
 * it) its ends stand beside it; else line and ends are one area, so that inks which show through are laid once.
 */
export function formOf(own: PathData, toPage: Matrix, o: Outline, stroke: StrokeStyle, apart: boolean): LineForm {
  const [a, b, c, d] = toPage;
  const { wobble, profile, start, end } = o;
  const key = JSON.stringify([a, b, c, d, stroke, wobble, profile, start, end, apart]);
  let known = forms.get(own);
  if (!known) forms.set(own, (known = []));
  let made = known.find((k) => k.key === key);
  if (!made) {
    made = { key, form: make(own, [a, b, c, d, 0, 0], o, stroke, apart) };
    known.push(made);
    if (known.length > MOST_KEPT) known.shift();
  }
  return made.form;
}

function make(own: PathData, toPage: Matrix, o: Outline, stroke: StrokeStyle, apart: boolean): LineForm {
  const path = transformPath(o.wobble ? wobblePath(own, o.wobble) : own, toPage);
  if (!o.start && !o.end && !o.profile) return { line: path, area: [], ends: [] };
  const { line, marks } = withEnds(path, stroke.width, endOf(o.start), endOf(o.end));
  const drawn = pathOfContours(line);
  if (apart) return { line: drawn, area: [], ends: marks };
  const band = o.profile ? tapered(line, o.profile, stroke) : strokeOutline(drawn, stroke, FINE);
  return { line: [], area: [...band, ...marks.flatMap((m) => m.path)], ends: [] };
}

const endOf = (mark: LineMark | undefined): LineEnd | null =>
  mark
    ? { mark: mark.kind === 'own' ? { path: mark.path, inset: OWN_INSET } : END_MARKS[mark.kind], size: mark.size }
    : null;
/** A shape of one's own is three weights long: the line ends within it. */
const OWN_INSET = 1.5;

function tapered(line: readonly Contour[], profile: NonNullable<Outline['profile']>, stroke: StrokeStyle): PathData {
  const pieces: TaperPiece[][] = line.flatMap((c) => {
    const whole = contourLength(c);
    const dashes: readonly DashPiece[] = (stroke.dash && dashContour(c, stroke.dash)) || [
      { segments: c.segments, closed: c.closed, from: 0 },
    ];
    return dashes.map((d) => taperPieces(d.segments, profile, d.from, whole));
  });
  // As many straight-sided parts as keep its sides smooth.
  return taperedArea(pieces, stroke.width, ({ segment: s, from, to }) =>
    s.straight
      ? 1
      : Math.min(
          14,
          Math.max(
            2,
            Math.ceil((Math.hypot(s.x3 - s.x0, s.y3 - s.y0) * 3) / Math.max(stroke.width * Math.max(from, to), 0.5)),
          ),
        ),
  );
}

/**
 * The colour that a gradient has where the line begins or ends, for what stands there: it runs by far before it, or
 * after.
 */
export function endPaint(
  p: GradientPaint,
  path: PathData,
  matrix: Matrix,
  toPage: Matrix,
  at: 'start' | 'end',
): GradientPaint {
  const { strokeMapping: _, thereAndBack, ...rest } = p;
  const { x0, y0, x1, y1 } = pathBounds(path);
  const size = Math.max(x1 - x0, y1 - y0, 1);
  const [x, y] = [x0 + toPage[4], (y0 + y1) / 2 + toPage[5]];
  const wholeFirst = at === 'start' || thereAndBack;
  // Unit space on the page: from 0 to 1 just left of the mark, or just right of it.
  const unit: Matrix = wholeFirst ? [size, 0, 0, size, x + 2 * size, y] : [size, 0, 0, size, x - 2 * size, y];
  const back = invert(matrix);
  return { ...rest, gradient: 'linear', geometry: back ? multiply(back, unit) : p.geometry };
}
