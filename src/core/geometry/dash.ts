import { contourLength, parameterAt, pointOn, segmentLength, tangentOn } from './measure';
import { LINE, MOVE, type PathData } from './path';
import { contoursOf, partOfSegment, pathOfContours, straight, type Contour, type Segment } from './segments';

/** How a line is cut: lengths drawn and left out in turn, and how far into them each contour begins. */
export interface Dash {
  readonly lengths: readonly number[];
  readonly offset: number;
  /**
   * Made a little longer or shorter, so that corners stand in the middle of the first dash and open ends have it whole.
   */
  readonly fit?: true;
}

/** A dash, in order along its contour. */
export interface DashPiece {
  readonly segments: readonly Segment[];
  /** It is the whole of a closed contour. */
  readonly closed: boolean;
  /** Where it begins, as a length from the start of its contour. */
  readonly from: number;
}

/** So long is a dash of no length. */
const DOT = 1e-6;
/** No line is cut into more pieces than can be drawn. */
const MOST_DASHES = 20_000;
/** A bend sharper than this is a corner, degrees. */
const CORNER = 12;

/**
 * A path cut into dashes (SVG 1.1, 11.4; PDF 32000-1 8.4.3.6). Each contour begins anew; on a closed one that begins
 * and ends within a dash both are one. A dash of no length is a point, which caps make a dot. A pattern without length,
 * or with a negative one, is a whole line.
 */
export function dashPath(path: PathData, dash: Dash): PathData {
  const out: number[] = [];
  let left = MOST_DASHES;
  for (const contour of contoursOf(path)) {
    const pieces = dashContour(contour, dash, left);
    if (!pieces) return path;
    left -= pieces.length;
    for (const v of pathOfDashes(pieces)) out.push(v);
  }
  return out;
}

/** Dashes as a path; those without length keep their direction. */
function pathOfDashes(pieces: readonly DashPiece[]): PathData {
  const out: number[] = [];
  for (const p of pieces) {
    const [s] = p.segments;
    const isDot = p.segments.length === 1 && Math.hypot(s.x3 - s.x0, s.y3 - s.y0) <= 2 * DOT;
    if (isDot) out.push(MOVE, s.x0, s.y0, LINE, s.x3, s.y3);
    else for (const v of pathOfContours([p])) out.push(v);
  }
  return out;
}

/** The dashes of one contour; null where they are too many, or the pattern is none. */
export function dashContour(contour: Contour, { lengths, offset, fit }: Dash, most = MOST_DASHES): DashPiece[] | null {
  const dashes = lengths.length % 2 ? [...lengths, ...lengths] : lengths;
  const whole = dashes.reduce((a, b) => a + b, 0);
  if (!dashes.length || !(whole > 0) || dashes.some((d) => !(d >= 0))) return null;
  return fit ? fitted(contour, dashes, whole, most) : cut(contour, dashes, offset, most);
}

/** From corner to corner, each with a whole number of patterns. */
function fitted(contour: Contour, dashes: readonly number[], whole: number, most: number): DashPiece[] | null {
  const runs = runsOf(contour);
  const out: DashPiece[] = [];
  let from = 0;
  for (const [i, segments] of runs.entries()) {
    const run: Contour = { segments, closed: false };
    const length = contourLength(run);
    const [startsOpen, endsOpen] = [!contour.closed && i === 0, !contour.closed && i === runs.length - 1];
    // Half of the first dash at a corner, all of it at an open end.
    const more = ((startsOpen ? 1 : 0) + (endsOpen ? 1 : 0)) * (dashes[0] / 2);
    const times = Math.max(1, Math.round((length - more) / whole));
    const k = length / (times * whole + more);
    const scaled = dashes.map((d) => d * k);
    const pieces = cut(run, scaled, startsOpen ? 0 : scaled[0] / 2, most - out.length);
    if (!pieces) return null;
    if (endsOpen && dashes[0] === 0 && segments.length) pieces.push(dotAt(segments[segments.length - 1], 1, length));
    const last = out[out.length - 1];
    // Both halves of the dash round the corner are one.
    if (i > 0 && last && pieces.length && dashes[0] > 0) {
      out[out.length - 1] = { ...last, segments: [...last.segments, ...pieces[0].segments] };
      pieces.shift();
    }
    for (const p of pieces) out.push({ ...p, from: p.from + from });
    from += length;
  }
  if (contour.closed && dashes[0] > 0 && out.length > 1) {
    const last = out.pop()!;
    out[0] = { ...out[0], segments: [...last.segments, ...out[0].segments], from: last.from };
  }
  return out;
}

/**
 * Pieces of a contour from corner to corner; a closed one without corners is one run, and one with some begins at a
 * corner.
 */
function runsOf({ segments, closed }: Contour): Segment[][] {
  const n = segments.length;
  const turns = (i: number): boolean => isCorner(segments[(i + n - 1) % n], segments[i]);
  const runs: Segment[][] = [];
  for (let i = 0; i < n; i++) {
    if (i === 0 || turns(i)) runs.push([]);
    runs[runs.length - 1].push(segments[i]);
  }
  // Where it begins is no corner: the last run goes on there.
  if (closed && runs.length > 1 && !turns(0)) runs[0] = [...runs.pop()!, ...runs[0]];
  return runs;
}

const LEAST_COSINE = Math.cos((CORNER * Math.PI) / 180);
/** Does a line turn sharply from one piece to the next? */
export function isCorner(a: Segment, b: Segment): boolean {
  const [s, t] = [tangentOn(a, 1), tangentOn(b, 0)];
  return s.x * t.x + s.y * t.y < LEAST_COSINE;
}

function cut(contour: Contour, dashes: readonly number[], offset: number, most: number): DashPiece[] | null {
  const whole = dashes.reduce((a, b) => a + b, 0);
  const out: DashPiece[] = [];
  let at = ((offset % whole) + whole) % whole;
  let i = 0;
  while (at >= dashes[i]) {
    // One of no length that lies on the very beginning.
    if (at === 0 && i % 2 === 0 && contour.segments.length) out.push(dotAt(contour.segments[0], 0, 0));
    at -= dashes[i];
    i = (i + 1) % dashes.length;
  }
  let left = dashes[i] - at;
  let on = i % 2 === 0;
  let open: Segment[] = [];
  let openFrom = 0;
  let run = 0;
  let count = 0;
  // Where a closed contour begins within a dash, that dash is the end of its last one.
  let first: Segment[] | null = null;
  let begins = on && contour.closed;
  const flush = () => {
    if (begins) first = open;
    else if (open.length) out.push({ segments: withoutSlivers(open), closed: false, from: openFrom });
    begins = false;
    open = [];
  };
  for (const s of contour.segments) {
    const length = segmentLength(s);
    // Back where it is already: it has no direction for a corner.
    if (length < DOT) continue;
    let from = 0;
    let done = 0;
    while (length - done > left) {
      if (++count > 2 * most) return null;
      done += left;
      const to = parameterAt(s, done, length);
      if (on) {
        if (to > from) open.push(partOfSegment(s, from, to));
        flush();
      }
      from = to;
      i = (i + 1) % dashes.length;
      on = !on;
      left = dashes[i];
      openFrom = run + done;
      if (on && left === 0) out.push(dotAt(s, to, run + done));
    }
    left -= length - done;
    if (on && from < 1) open.push(from === 0 ? s : partOfSegment(s, from, 1));
    run += length;
  }
  if (begins && open.length) {
    // It never ends: the whole contour.
    out.push({ segments: open, closed: true, from: 0 });
    return out;
  }
  if (first) {
    if (!open.length) openFrom = run;
    open = [...open, ...(first as Segment[])];
  }
  flush();
  return out;
}

/** Less than this of a piece, points of the page: written down it has no direction, and presses draw a spur there. */
const SLIVER = 0.1;
const isSliver = (s: Segment): boolean =>
  Math.hypot(s.x3 - s.x0, s.y3 - s.y0) < SLIVER && Math.hypot(s.x1 - s.x0, s.y1 - s.y0) < SLIVER;

/** A dash that does not begin or end with a sliver of a piece: the next piece takes its place too. */
function withoutSlivers(segments: readonly Segment[]): readonly Segment[] {
  const out = [...segments];
  while (out.length > 1 && isSliver(out[0])) {
    const { x0, y0 } = out.shift()!;
    const [s] = out;
    out[0] = s.straight ? straight(x0, y0, s.x3, s.y3) : { ...s, x0, y0, x1: s.x1 + x0 - s.x0, y1: s.y1 + y0 - s.y0 };
  }
  while (out.length > 1 && isSliver(out[out.length - 1])) {
    const { x3, y3 } = out.pop()!;
    const s = out[out.length - 1];
    out[out.length - 1] = s.straight
      ? straight(s.x0, s.y0, x3, y3)
      : { ...s, x3, y3, x2: s.x2 + x3 - s.x3, y2: s.y2 + y3 - s.y3 };
  }
  return out;
}

/** A dash of no length. A point knows no direction, in which a square cap stands: it gets one. */
function dotAt(s: Segment, at: number, from: number): DashPiece {
  const p = pointOn(s, at);
  const t = tangentOn(s, at);
  const long = DOT / (Math.hypot(t.x, t.y) || 1);
  const [x3, y3] = [p.x + t.x * long, p.y + t.y * long];
  const dot = { x0: p.x, y0: p.y, x1: p.x, y1: p.y, x2: x3, y2: y3, x3, y3, straight: true };
  return { segments: [dot], closed: false, from };
}
