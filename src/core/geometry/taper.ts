import type { Point } from './matrix';
import { parameterAt, pointOn, segmentLength } from './measure';
import { pieceAfter, type NodeContour } from './nodes';
import { PathBuilder, addEllipse, type PathData } from './path';
import { partOfSegment, type Segment } from './segments';

/** A piece of a line, and its width at both ends as shares of the full one. */
export interface TaperPiece {
  readonly segment: Segment;
  readonly from: number;
  readonly to: number;
}

/** Pieces of a line of changing width that are drawn as one straight-sided part each. */
const PARTS = 14;

/**
 * The area of lines whose width changes from node to node, round at their ends: discs along them and the straight-sided
 * parts between, all running the same way, to be filled non-zero. `width` is the full width at a share of 1; `parts` is
 * how many straight-sided parts stand for a piece.
 */
export function taperedArea(
  lines: readonly (readonly TaperPiece[])[],
  width: number,
  parts: (piece: TaperPiece) => number,
): PathData {
  const out = new PathBuilder();
  for (const line of lines) {
    let last: { p: Point; r: number } | null = null;
    const put = (p: Point, r: number) => {
      if (r > 0) addEllipse(out, p.x, p.y, r, r);
      if (last) part(out, last.p, last.r, p, r);
      last = { p, r };
    };
    for (const [i, piece] of line.entries()) {
      const n = parts(piece);
      const { segment, from, to } = piece;
      for (let k = i === 0 ? 0 : 1; k <= n; k++) {
        const t = n ? k / n : 0;
        put(pointOn(segment, t), ((from + (to - from) * t) * width) / 2);
      }
    }
  }
  return out.data;
}

/** The area of a line with a width at every node, from a pen's pressure. */
export function taperedLine(contours: readonly NodeContour[], width: number): PathData {
  const lines: TaperPiece[][] = [];
  for (const c of contours) {
    const line: TaperPiece[] = [];
    c.nodes.forEach((n, i) => {
      const segment = pieceAfter(c, i);
      if (segment) line.push({ segment, from: share(n), to: share(c.nodes[(i + 1) % c.nodes.length]) });
      else if (c.nodes.length === 1) line.push({ segment: pointPiece(n), from: share(n), to: share(n) });
    });
    lines.push(line);
  }
  return taperedArea(lines, width, ({ segment: s }) => (s.x0 === s.x3 && s.y0 === s.y3 && s.straight ? 0 : PARTS));
}

const share = (n: { readonly width?: number }): number => n.width ?? 1;
const pointPiece = ({ x, y }: Point): Segment => ({
  x0: x,
  y0: y,
  x1: x,
  y1: y,
  x2: x,
  y2: y,
  x3: x,
  y3: y,
  straight: true,
});

/** How wide a line is along its way: places 0…1 in order, and shares of its full width there. */
export type Profile = readonly { readonly at: number; readonly share: number }[];

/** The share of its width that a line has at a place of its way; before the first knot and after the last as there. */
export function shareAt(profile: Profile, at: number): number {
  const next = profile.findIndex((k) => k.at > at);
  if (next === 0) return profile[0].share;
  if (next < 0) return profile[profile.length - 1].share;
  const [a, b] = [profile[next - 1], profile[next]];
  return a.share + ((b.share - a.share) * (at - a.at)) / (b.at - a.at);
}

/** A line, begun `from` into a way of length `whole`, in pieces that end where its width turns to change otherwise. */
export function taperPieces(segments: readonly Segment[], profile: Profile, from: number, whole: number): TaperPiece[] {
  const out: TaperPiece[] = [];
  let at = from;
  for (const s of segments) {
    const length = segmentLength(s);
    if (!(length > 0)) continue;
    // A dash round the seam of a closed line goes on from its beginning.
    const start = at >= whole - 1e-9 ? at - whole : at;
    const knots = profile.map((k) => k.at * whole - start).filter((l) => l > 1e-9 * whole && l < length - 1e-9 * whole);
    let [t0, l0] = [0, 0];
    for (const l of [...knots, length]) {
      const t1 = l === length ? 1 : parameterAt(s, l, length);
      if (t1 > t0)
        out.push({
          segment: t0 === 0 && t1 === 1 ? s : partOfSegment(s, t0, t1),
          // Just inside: two knots in one place are a step.
          from: shareAt(profile, (start + l0 + 1e-9 * length) / whole),
          to: shareAt(profile, (start + l - 1e-9 * length) / whole),
        });
      [t0, l0] = [t1, l];
    }
    at += length;
  }
  return out;
}

function part(out: PathBuilder, p: Point, r: number, q: Point, s: number): void {
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  const n = Math.hypot(dx, dy);
  if (n < 1e-9) return;
  const [nx, ny] = [-dy / n, dx / n];
  out.moveTo(p.x - nx * r, p.y - ny * r);
  out.lineTo(q.x - nx * s, q.y - ny * s);
  out.lineTo(q.x + nx * s, q.y + ny * s);
  out.lineTo(p.x + nx * r, p.y + ny * r);
  out.close();
}
