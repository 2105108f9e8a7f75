import { multiply, rotation, scaling, translation, apply, type Matrix, type Point } from '../geometry/matrix';
import type { Arrangement } from './schema';

/** How many copies an arrangement comes to, the first included. */
export function copiesIn(a: Arrangement): number {
  return a.kind === 'grid' ? a.columns * a.rows : a.count;
}

/**
 * The map that takes the repeated thing to each of its copies, the first (itself) included, in the repeat's own space.
 */
export function copyMatrices(a: Arrangement): Matrix[] {
  if (a.kind === 'grid')
    return Array.from({ length: a.columns * a.rows }, (_, n) => {
      const [i, j] = [n % a.columns, Math.floor(n / a.columns)];
      return copyAt(a, i + j, { x: i * a.across.x + j * a.down.x, y: i * a.across.y + j * a.down.y });
    });
  if (a.kind === 'row')
    return Array.from({ length: a.count }, (_, i) => copyAt(a, i, { x: i * a.step.x, y: i * a.step.y }));
  return Array.from({ length: a.count }, (_, i) => {
    const round = rotation(i * a.step, a.centre);
    const own = copyAt(a, i, { x: 0, y: 0 });
    if (!a.upright) return multiply(round, own);
    const to = apply(round, a.about);
    return multiply(translation(to.x - a.about.x, to.y - a.about.y), own);
  });
}

/** The copy's own turn and size about the thing's middle, then its shift. */
function copyAt(a: Arrangement, n: number, shift: Point): Matrix {
  // A hundred copies that each double would leave every page and every number behind.
  const k = Math.min(1e4, Math.max(1e-4, (a.scale ?? 1) ** n));
  const { x, y } = a.about;
  const grown: Matrix =
    k === 1 ? [1, 0, 0, 1, 0, 0] : multiply(translation(x, y), multiply(scaling(k, k), translation(-x, -y)));
  return multiply(translation(shift.x, shift.y), multiply(rotation((a.turn ?? 0) * n, a.about), grown));
}
