import { CLOSE, COORDS, CUBIC, LINE, MOVE, type PathData } from './path';

/** One piece of a contour from point to point: a straight one, or a cubic with its two handles. */
export interface Segment {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
  readonly x3: number;
  readonly y3: number;
  readonly straight: boolean;
}

export interface Contour {
  readonly segments: readonly Segment[];
  readonly closed: boolean;
}

/** A straight piece; its handles stand at the thirds, so that it is a cubic of even speed. */
export function straight(x0: number, y0: number, x3: number, y3: number): Segment {
  return {
    x0,
    y0,
    x1: x0 + (x3 - x0) / 3,
    y1: y0 + (y3 - y0) / 3,
    x2: x0 + (2 * (x3 - x0)) / 3,
    y2: y0 + (2 * (y3 - y0)) / 3,
    x3,
    y3,
    straight: true,
  };
}

/** A path's contours as lists of pieces. The piece that closes a contour is among them where it has a length. */
export function contoursOf(path: PathData): Contour[] {
  const out: Contour[] = [];
  let list: Segment[] = [];
  let [sx, sy, x, y] = [0, 0, 0, 0];
  const finish = (closed: boolean) => {
    if (closed && (x !== sx || y !== sy)) list.push(straight(x, y, sx, sy));
    if (list.length) out.push({ segments: list, closed });
    list = [];
  };
  for (let i = 0; i < path.length; i += 1 + COORDS[path[i]]) {
    switch (path[i]) {
      case MOVE:
        finish(false);
        x = sx = path[i + 1];
        y = sy = path[i + 2];
        break;
      case LINE:
        if (path[i + 1] !== x || path[i + 2] !== y) list.push(straight(x, y, path[i + 1], path[i + 2]));
        x = path[i + 1];
        y = path[i + 2];
        break;
      case CUBIC:
        list.push({
          x0: x,
          y0: y,
          x1: path[i + 1],
          y1: path[i + 2],
          x2: path[i + 3],
          y2: path[i + 4],
          x3: path[i + 5],
          y3: path[i + 6],
          straight: false,
        });
        x = path[i + 5];
        y = path[i + 6];
        break;
      case CLOSE:
        finish(true);
        x = sx;
        y = sy;
        break;
    }
  }
  finish(false);
  return out;
}

/** The other way round: contours as one flat list. */
export function pathOfContours(contours: readonly Contour[]): PathData {
  const out: number[] = [];
  for (const { segments, closed } of contours) {
    if (!segments.length) continue;
    out.push(MOVE, segments[0].x0, segments[0].y0);
    segments.forEach((s, i) => {
      // The closing stroke needs no line of its own.
      if (closed && s.straight && i === segments.length - 1 && i > 0) return;
      if (s.straight) out.push(LINE, s.x3, s.y3);
      else out.push(CUBIC, s.x1, s.y1, s.x2, s.y2, s.x3, s.y3);
    });
    if (closed) out.push(CLOSE);
  }
  return out;
}

/** Pieces of all contours together. */
export const segmentCount = (path: PathData): number => contoursOf(path).reduce((n, c) => n + c.segments.length, 0);

/** The same line with no node in the middle of a straight stretch. */
export function withoutMidpoints(path: PathData): PathData {
  const goesOn = (a: Segment, b: Segment): boolean => {
    if (!a.straight || !b.straight) return false;
    const [ax, ay, bx, by] = [a.x3 - a.x0, a.y3 - a.y0, b.x3 - b.x0, b.y3 - b.y0];
    const both = Math.hypot(ax, ay) * Math.hypot(bx, by);
    return ax * bx + ay * by > 0 && Math.abs(ax * by - ay * bx) <= ALIGNED * both;
  };
  return pathOfContours(
    contoursOf(path).map(({ segments, closed }) => {
      const out: Segment[] = [];
      for (const s of segments) {
        const last = out[out.length - 1];
        if (last && goesOn(last, s)) out[out.length - 1] = straight(last.x0, last.y0, s.x3, s.y3);
        else out.push(s);
      }
      if (closed && out.length > 3 && goesOn(out[out.length - 1], out[0])) {
        const last = out.pop()!;
        out[0] = straight(last.x0, last.y0, out[0].x3, out[0].y3);
      }
      return { segments: out, closed };
    }),
  );
}
/** The sine of an angle that no one sees. */
const ALIGNED = 1e-6;

/** Both halves of a piece at a parameter inside it (de Casteljau). */
export function splitSegment(s: Segment, t: number): [Segment, Segment] {
  const mix = (a: number, b: number) => a + (b - a) * t;
  const [ax, ay, bx, by, cx, cy] = [
    mix(s.x0, s.x1),
    mix(s.y0, s.y1),
    mix(s.x1, s.x2),
    mix(s.y1, s.y2),
    mix(s.x2, s.x3),
    mix(s.y2, s.y3),
  ];
  const [dx, dy, ex, ey] = [mix(ax, bx), mix(ay, by), mix(bx, cx), mix(by, cy)];
  const [mx, my] = [mix(dx, ex), mix(dy, ey)];
  if (s.straight) return [straight(s.x0, s.y0, mx, my), straight(mx, my, s.x3, s.y3)];
  return [
    { x0: s.x0, y0: s.y0, x1: ax, y1: ay, x2: dx, y2: dy, x3: mx, y3: my, straight: false },
    { x0: mx, y0: my, x1: ex, y1: ey, x2: cx, y2: cy, x3: s.x3, y3: s.y3, straight: false },
  ];
}

/** The piece between two parameters. */
export function partOfSegment(s: Segment, from: number, to: number): Segment {
  const tail = from > 0 ? splitSegment(s, from)[1] : s;
  return to < 1 ? splitSegment(tail, (to - from) / (1 - from))[0] : tail;
}

/**
 * Signed area inside a closed contour by Green's theorem, exact for cubics; positive where it runs clockwise as seen.
 */
export function contourArea(segments: readonly Segment[]): number {
  let sum = 0;
  for (const s of segments)
    sum +=
      3 *
      ((s.y3 - s.y0) * (s.x1 + s.x2) -
        (s.x3 - s.x0) * (s.y1 + s.y2) +
        s.y1 * (s.x0 - s.x2) -
        s.x1 * (s.y0 - s.y2) +
        s.y3 * (s.x2 + s.x0 / 3) -
        s.x3 * (s.y2 + s.y0 / 3));
  return sum / 20;
}
