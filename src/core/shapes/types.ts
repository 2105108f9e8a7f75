import type { Point } from '../geometry/matrix';
import type { PathSink } from '../geometry/path';

/** One inner measure of a dialled shape. */
export interface ShapeParam {
  readonly id: string;
  readonly label: string;
  /** What stands beside its knob. */
  readonly letter: string;
  readonly unit: 'length' | 'ratio' | 'count' | 'angle';
  readonly min: number;
  readonly max: number;
  readonly initial: number;
}

/** A handle on the canvas that changes one measure (or several that go together). */
export interface Knob<V> {
  readonly param: string;
  /** Measures that follow when the knob is dragged plainly; with Alt only `param` changes. */
  readonly together?: readonly string[];
  /** Where it stands, in the shape's own space. */
  at(v: V, width: number, height: number): Point;
  /** The way it travels, degrees clockwise from right: where its notch points. */
  readonly travels: number;
  /** The measure that puts the knob nearest to a point. */
  value(p: Point, v: V, width: number, height: number): number;
}

export interface ShapeDef<
  P extends readonly ShapeParam[] = readonly ShapeParam[],
  V = Record<P[number]['id'], number>,
> {
  readonly id: string;
  readonly name: string;
  readonly family: 'Basics' | 'Edges' | 'Badges' | 'Pointers' | 'Speech' | 'Nature' | 'Technical' | 'Lines';
  readonly keywords: readonly string[];
  readonly params: P;
  readonly knobs: readonly Knob<V>[];
  /** A line rather than an area: it is drawn with an outline and no fill. */
  readonly open?: boolean;
  /** Height as a share of width that suits it, for pictures and for a click without a drag. Absent: 1. */
  readonly proportion?: number;
  /** Draws into the box 0…width × 0…height. */
  draw(v: V, width: number, height: number, sink: PathSink): void;
  /** The measures in a readable half sentence: “6 sides”. */
  describe(v: V): string;
}

/** Types a row from its own `params`. */
export const shape = <const P extends readonly ShapeParam[]>(d: ShapeDef<P>): ShapeDef<P> => d;

/** A number kept within two others. */
export const clamp = (x: number, min: number, max: number): number => Math.min(max, Math.max(min, x));
