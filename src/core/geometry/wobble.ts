import { throughPoints } from './fit';
import type { Point } from './matrix';
import { flatten, type PathData } from './path';
import { isCorner } from './dash';
import { contoursOf, pathOfContours, type Contour, type Segment } from './segments';

/** How a line strays as a hand's does. Lengths in the unit of the path. */
export interface Wobble {
  /** As far as this to every side. */
  readonly strength: number;
  /** From one bulge to the next, about. */
  readonly wave: number;
  /** Drawn so many times over, each time otherwise. */
  readonly passes: number;
  readonly seed: number;
}

/** Points of the line a wave. */
const POINTS = 3;
/** No line has more points than can be drawn. */
const MOST_POINTS = 40_000;

/**
 * A line as a hand would draw it. How far a point strays depends on where it lies and on the seed alone: what is
 * changed in one place stays as it is in all others, and corners stay corners.
 */
export function wobblePath(path: PathData, w: Wobble): PathData {
  if (!(w.strength > 0) || !(w.wave > 0)) return path;
  const contours = contoursOf(path);
  const step = Math.max(w.wave / POINTS, totalChord(contours) / MOST_POINTS);
  const out: Contour[] = [];
  for (let pass = 0; pass < w.passes; pass++)
    for (const c of contours) out.push(strayed(c, { ...w, seed: w.seed + 7919 * pass }, step));
  return pathOfContours(out);
}

const totalChord = (contours: readonly Contour[]): number =>
  contours.reduce((n, c) => n + c.segments.reduce((m, s) => m + Math.hypot(s.x3 - s.x0, s.y3 - s.y0), 0), 0);

function strayed({ segments, closed }: Contour, w: Wobble, step: number): Contour {
  const chains: Segment[][] = [];
  segments.forEach((s, i) => {
    if (i === 0 || isCorner(segments[i - 1], s)) chains.push([]);
    chains[chains.length - 1].push(s);
  });
  const isRing = closed && !isCorner(segments[segments.length - 1], segments[0]);
  if (isRing && chains.length > 1) chains[0] = [...chains.pop()!, ...chains[0]];
  const out: Segment[] = [];
  for (const chain of chains) {
    const ring = isRing && chains.length === 1;
    const points = evenly(chain, step, ring).map((p) => moved(p, w));
    for (const s of throughPoints(points, ring)) out.push(s);
  }
  return { segments: out, closed };
}

/** Points of a chain at even lengths, its ends among them; of a ring without the one that closes it. */
function evenly(chain: readonly Segment[], step: number, ring: boolean): Point[] {
  const [{ points }] = flatten(pathOfContours([{ segments: chain, closed: false }]), step / 50);
  const lengths = [0];
  for (let i = 2; i < points.length; i += 2)
    lengths.push(lengths[i / 2 - 1] + Math.hypot(points[i] - points[i - 2], points[i + 1] - points[i - 1]));
  const whole = lengths[lengths.length - 1];
  const n = Math.max(ring ? 3 : 1, Math.round(whole / step));
  const out: Point[] = [];
  let k = 1;
  for (let i = 0; i <= (ring ? n - 1 : n); i++) {
    const at = (whole * i) / n;
    while (k < lengths.length - 1 && lengths[k] < at) k++;
    const t = lengths[k] > lengths[k - 1] ? (at - lengths[k - 1]) / (lengths[k] - lengths[k - 1]) : 0;
    const j = 2 * k;
    out.push({
      x: points[j - 2] + (points[j] - points[j - 2]) * t,
      y: points[j - 1] + (points[j + 1] - points[j - 1]) * t,
    });
  }
  return out;
}

const moved = ({ x, y }: Point, { strength, wave, seed }: Wobble): Point => ({
  x: x + strength * field(x / wave, y / wave, seed),
  y: y + strength * field(x / wave + 57.3, y / wave + 113.1, seed + 1),
});

/**
 * Noise of the plane, −1…1: values at whole places, and smoothly from one to the next (Perlin’s fade, “Improving
 * Noise”, 2002).
 */
function field(x: number, y: number, seed: number): number {
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [u, v] = [fade(x - i), fade(y - j)];
  const top = value(i, j, seed) + (value(i + 1, j, seed) - value(i, j, seed)) * u;
  const foot = value(i, j + 1, seed) + (value(i + 1, j + 1, seed) - value(i, j + 1, seed)) * u;
  return top + (foot - top) * v;
}
const fade = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10);

/** A number of a whole place, −1…1, by a mixing of its bits (the finisher of MurmurHash3, public domain). */
function value(i: number, j: number, seed: number): number {
  let h = (Math.imul(i, 0x9e3779b1) ^ Math.imul(j, 0x85ebca6b) ^ Math.imul(seed, 0xc2b2ae35)) >>> 0;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) >>> 0) / 0x7fffffff - 1;
}
