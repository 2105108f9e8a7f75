import { contourArea, contoursOf } from '../segments';
import { combineTwo, type Combined } from './combine';
import type { Region } from './region';

/** A piece of a division: its area, and the frontmost of the regions (by number) that cover it. */
export interface DividedPiece {
  readonly region: Region;
  readonly owner: number;
}

/** Area below which a piece is dust of the arithmetic, as a share of the largest. */
const DUST = 1e-7;

/**
 * Cuts overlapping regions, given back to front, along each other: every piece is covered by the same regions
 * throughout. Null where the engine could not be trusted on a step.
 */
export function divide(regions: readonly Region[]): DividedPiece[] | null {
  let pieces: DividedPiece[] = [];
  let all: Region | null = null;
  for (const [owner, region] of regions.entries()) {
    const next: DividedPiece[] = [];
    for (const piece of pieces) {
      const [inside, outside] = [
        combineTwo(piece.region, region, 'intersect'),
        combineTwo(piece.region, region, 'subtract'),
      ];
      if (!inside.ok || !outside.ok) return null;
      next.push({ region: outside.region, owner: piece.owner }, { region: inside.region, owner });
    }
    const [own, union]: Combined[] = all
      ? [combineTwo(region, all, 'subtract'), combineTwo(all, region, 'union')]
      : [
          { ok: true, region },
          { ok: true, region },
        ];
    if (!own.ok || !union.ok) return null;
    next.push({ region: own.region, owner });
    all = union.region;
    pieces = next;
  }
  const size = (r: Region) =>
    Math.abs(contoursOf(r.path).reduce((sum, c) => sum + Math.abs(contourArea(c.segments)), 0));
  const largest = Math.max(0, ...pieces.map((p) => size(p.region)));
  return pieces.filter((p) => size(p.region) > largest * DUST);
}
