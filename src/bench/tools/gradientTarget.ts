import type { Recipe } from '@/core/edit/history';
import { aimedNodes, paintAt, setPaint, type Aim } from '@/core/edit/paint';
import { setRampStops } from '@/core/edit/swatches';
import type { Matrix } from '@/core/geometry/matrix';
import type { GradientPaint, Stop } from '@/core/model/schema';
import { pageMatrix } from '@/core/model/tree';
import type { Session } from '../session/session';

export interface GradientTarget {
  readonly node: string;
  readonly paint: GradientPaint;
  /** Own space of the object to the page. */
  readonly matrix: Matrix;
}

/** The gradient that the aim points at, where one object (or one inside a group) is chosen. */
export function aimedGradient(s: Session): GradientTarget | null {
  const { design, page } = s;
  const nodes = aimedNodes(design, s.state.selection, s.state.aim);
  if (nodes.length !== 1) return null;
  const paint = paintAt(design, nodes[0], s.state.aim);
  return paint?.kind === 'gradient' ? { node: nodes[0], paint, matrix: pageMatrix(design, page, nodes[0]) } : null;
}

/** Writes a gradient's stops where they are kept: in its swatch, where all users follow, or in the paint itself. */
export function withStops(aim: Aim, node: string, paint: GradientPaint, stops: readonly Stop[]): Recipe {
  if ('swatch' in paint.ramp) {
    const { swatch } = paint.ramp;
    return (d) => setRampStops(d, swatch, stops);
  }
  return (d) => setPaint(d, [node], aim, (old) => (old.kind === 'gradient' ? { ...old, ramp: { stops } } : old));
}
