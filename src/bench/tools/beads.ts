import type { Stop } from '@/core/model/schema';
import type { Point } from '@/core/geometry/matrix';
import { onTrack, type Track } from './gradientTarget';

/** Beads nearer than this (CSS pixels) hide one another. */
const NEAR = 11;
const STEP = 12;

/**
 * How far each bead stands beside its place, in pixels, on a line so long, so that those of a firm edge can each be
 * taken.
 */
export function beadsApart(offsets: readonly number[], length: number): number[] {
  const out: number[] = [];
  for (let from = 0; from < offsets.length;) {
    let to = from + 1;
    while (to < offsets.length && (offsets[to] - offsets[to - 1]) * length < NEAR) to++;
    for (let i = from; i < to; i++) out.push((i - (from + to - 1) / 2) * STEP);
    from = to;
  }
  return out;
}

/** Where the beads of a ramp stand on the sheet; past its ends where there is no room. */
export function beadPlaces(track: Track, stops: readonly Stop[]): Point[] {
  const apart = beadsApart(
    stops.map((s) => s.offset),
    track.length,
  );
  return stops.map(({ offset }, i) => {
    const p = onTrack(track, offset);
    if (!apart[i] || !track.length) return p;
    const d = Math.min(0.5, 1 / track.length);
    const [a, b] = [onTrack(track, Math.min(offset, 1 - d)), onTrack(track, Math.min(offset, 1 - d) + d)];
    const long = Math.hypot(b.x - a.x, b.y - a.y) || 1;
    return { x: p.x + ((b.x - a.x) / long) * apart[i], y: p.y + ((b.y - a.y) / long) * apart[i] };
  });
}
