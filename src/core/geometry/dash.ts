import { parameterAt, pointOn, segmentLength } from './measure';
import { LINE, MOVE, type PathData } from './path';
import { contoursOf, partOfSegment, pathOfContours, type Segment } from './segments';

/** No line is cut into more pieces than can be drawn. */
const MOST_DASHES = 20_000;

/**
 * A path cut into dashes: lengths drawn and left out in turn, beginning `offset` into the pattern (SVG 1.1, 11.4; PDF
 * 32000-1 8.4.3.6). Each contour begins anew. A dash of no length is a point, which caps make a dot. A pattern without
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
      at -= dashes[i];
      i = (i + 1) % dashes.length;
    }
    let left = dashes[i] - at;
    let on = i % 2 === 0;
    let open: Segment[] = [];
    const flush = () => {
      if (open.length) for (const v of pathOfContours([{ segments: open, closed: false }])) out.push(v);
      open = [];
    };
    for (const s of contour.segments) {
      const length = segmentLength(s);
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
          const p = pointOn(s, to);
          out.push(MOVE, p.x, p.y, LINE, p.x, p.y);
        }
      }
      left -= length - done;
      if (on && from < 1) open.push(from === 0 ? s : partOfSegment(s, from, 1));
    }
    flush();
  }
  return out;
}
