import { parameterAt, pointOn, segmentLength, tangentOn } from './measure';
import { LINE, MOVE, type PathData } from './path';
import { contoursOf, partOfSegment, pathOfContours, type Segment } from './segments';

/** So long is a dash of no length. */
const DOT = 1e-6;
/** No line is cut into more pieces than can be drawn. */
const MOST_DASHES = 20_000;

/**
 * A path cut into dashes: lengths drawn and left out in turn, beginning `offset` into the pattern (SVG 1.1, 11.4; PDF
 * 32000-1 8.4.3.6). Each contour begins anew; on a closed one that begins and ends within a dash both are one. A dash of no length is a point, which caps make a dot. A pattern without
 * length, or with a negative one, is a whole line.
 */
export function dashPath(path: PathData, pattern: readonly number[], offset = 0): PathData {
  const dashes = pattern.length % 2 ? [...pattern, ...pattern] : pattern;
  const whole = dashes.reduce((a, b) => a + b, 0);
  if (!dashes.length || !(whole > 0) || dashes.some((d) => !(d >= 0))) return path;
  const out: number[] = [];
  let count = 0;
  for (const contour of contoursOf(path)) {
    let at = ((offset % whole) + whole) % whole;
    let i = 0;
    while (at >= dashes[i]) {
      // One of no length that lies on the very beginning.
      if (at === 0 && i % 2 === 0 && contour.segments.length) dot(out, contour.segments[0], 0);
      at -= dashes[i];
      i = (i + 1) % dashes.length;
    }
    let left = dashes[i] - at;
    let on = i % 2 === 0;
    let open: Segment[] = [];
    // Where a closed contour begins within a dash, that dash is the end of its last one.
    let first: Segment[] | null = null;
    let begins = on && contour.closed;
    const flush = () => {
      if (begins) first = open;
      else if (open.length) for (const v of pathOfContours([{ segments: open, closed: false }])) out.push(v);
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
        if (++count > MOST_DASHES) return path;
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
        if (on && left === 0) {
          dot(out, s, to);
        }
      }
      left -= length - done;
      if (on && from < 1) open.push(from === 0 ? s : partOfSegment(s, from, 1));
    }
    if (begins && open.length) {
      // It never ends: the whole contour.
      for (const v of pathOfContours([{ segments: open, closed: true }])) out.push(v);
      continue;
    }
    if (first) open = [...open, ...(first as Segment[])];
    flush();
  }
  return out;
}

/** A dash of no length. A point knows no direction, in which a square cap stands: it gets one. */
function dot(out: number[], s: Segment, at: number): void {
  const p = pointOn(s, at);
  const t = tangentOn(s, at);
  const long = DOT / (Math.hypot(t.x, t.y) || 1);
  out.push(MOVE, p.x, p.y, LINE, p.x + t.x * long, p.y + t.y * long);
}
