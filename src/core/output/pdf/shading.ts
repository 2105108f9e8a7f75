import type { PDFRef } from '@cantoo/pdf-lib';
import type { Palette } from '../../colour/palette';
import { pointAt, shiftedRamp, type ResolvedRamp } from '../../colour/ramp';
import { invert, multiply, type Matrix } from '../../geometry/matrix';
import { cutMesh } from '../../geometry/mesh';
import { pathBounds, rectPath, transformPath } from '../../geometry/path';
import { grow, type Rect } from '../../geometry/rect';
import type { GradientPaint, PoolsPaint } from '../../model/schema';
import { courseOf } from '../../render/field';
import { poolField, poolLattice } from '../../render/pools';
import type { Leaf } from '../../scene/scene';
import type { ColourSpaces } from './colour';
import { name, type PdfFile, type Value } from './file';

/** The least step between two bounds of a stitching function: hard stops need strictly rising bounds. */
const HARD_STEP = 1e-4;

export interface Shadings {
  readonly colour: Value;
  /** The same in grey, light where the paint hides what lies below; null where it hides it everywhere. */
  readonly opacity: Value | null;
  /** From the shadings' own space to page points. */
  readonly matrix: Matrix;
}

/**
 * A gradient as real shadings: axial and radial ones, or a mesh of triangles; its ramp taken `shift` later. Null:
 * nothing to see.
 */
export async function makeShadings(
  item: Leaf,
  paint: GradientPaint,
  palette: Palette,
  spaces: ColourSpaces,
  file: PdfFile,
  shift = 0,
): Promise<Shadings | null> {
  const whole = palette.rampOf(paint);
  const ramp = shift ? shiftedRamp(whole, shift) : whole;
  const { space, values } = await spaces.inkSpace(ramp.used, paint.overprint);
  const inks = { ColorSpace: space, Function: rampFunction(ramp, (s) => values(s.mix)) };
  const veil = ramp.solid ? null : { ColorSpace: name('DeviceGray'), Function: rampFunction(ramp, (s) => [s.opacity]) };
  const matrix = multiply(item.matrix, paint.geometry);
  const course = courseOf(item, paint);
  if (course || paint.gradient === 'box') {
    const back = invert(matrix);
    if (!course && !back) return null;
    const stroke = item.type === 'fill' ? null : item.stroke;
    const width = stroke?.width ?? 0;
    const uncut = course
      ? course(0.05, Math.min(1, width / 2))
      : boxTriangles(pathBounds(transformPath(rectPath(grow(item.inkBounds, 1)), back!)));
    // Cut where the ramp bends: between its points colours run straight, as they do in a triangle.
    const triangles = cutMesh(uncut, [...new Set(ramp.stops.map((s) => s.offset))]);
    const colour = await triangleShading(file, triangles, space, (t) => values(pointAt(ramp, t).mix));
    const opacity = ramp.solid
      ? null
      : await triangleShading(file, triangles, name('DeviceGray'), (t) => [pointAt(ramp, t).opacity]);
    return { colour, opacity, matrix: course ? [1, 0, 0, 1, 0, 0] : matrix };
  }
  const radial = paint.gradient === 'radial';
  const [fx, fy] = paint.focus ?? [0, 0];
  const shape = {
    ShadingType: radial ? 3 : 2,
    Coords: radial ? [fx, fy, 0, 0, 0, 1] : [0, 0, 1, 0],
    Extend: [true, true],
  };
  return { colour: { ...shape, ...inks }, opacity: veil && { ...shape, ...veil }, matrix };
}

/** Pools as a lattice of colours that is straight within half a level between its lines. */
export async function makePools(
  item: Leaf,
  paint: PoolsPaint,
  palette: Palette,
  spaces: ColourSpaces,
  file: PdfFile,
): Promise<Shadings | null> {
  const matrix = multiply(item.matrix, paint.geometry);
  const back = invert(matrix);
  if (!back) return null;
  const field = poolField(paint, palette);
  const { space, values: of } = await spaces.inkSpace(field.used, paint.overprint);
  const box = pathBounds(transformPath(rectPath(grow(item.inkBounds, 1)), back));
  const { us, vs, values } = poolLattice(field, paint.geometry, box);
  const make = async (ColorSpace: Value, parts: (v: ArrayLike<number>) => number[]): Promise<PDFRef> => {
    const count = parts(values[0]).length;
    const bytes = new MeshBytes(values.length * (8 + 2 * count));
    values.forEach((v, i) => {
      bytes.coordinate(us[i % us.length], box.x0, box.x1);
      bytes.coordinate(vs[Math.floor(i / us.length)], box.y0, box.y1);
      for (const part of parts(v)) bytes.component(part, 0, 1);
    });
    return file.stream(
      {
        ShadingType: 5,
        ColorSpace,
        BitsPerCoordinate: 32,
        BitsPerComponent: 16,
        VerticesPerRow: us.length,
        Decode: [box.x0, box.x1, box.y0, box.y1, ...Array.from({ length: count }, () => [0, 1]).flat()],
      },
      bytes.done,
    );
  };
  return {
    colour: await make(space, of),
    opacity: field.solid ? null : await make(name('DeviceGray'), (v) => [v[field.size - 1]]),
    matrix,
  };
}

function rampFunction(ramp: ResolvedRamp, values: (s: ResolvedRamp['stops'][number]) => number[]): Value {
  const stops = ramp.stops.map((s) => ({ t: s.offset, c: values(s) }));
  if (stops[0].t > 0) stops.unshift({ ...stops[0], t: 0 });
  if (stops[stops.length - 1].t < 1) stops.push({ ...stops[stops.length - 1], t: 1 });
  for (let i = 1; i < stops.length - 1; i++) if (stops[i].t <= stops[i - 1].t) stops[i].t = stops[i - 1].t + HARD_STEP;
  // Stops crowded at the very end are pushed back the same way.
  for (let i = stops.length - 2; i > 0; i--) if (stops[i].t >= stops[i + 1].t) stops[i].t = stops[i + 1].t - HARD_STEP;
  const piece = (a: { c: number[] }, b: { c: number[] }): Value => ({
    FunctionType: 2,
    Domain: [0, 1],
    N: 1,
    C0: a.c,
    C1: b.c,
  });
  if (stops.length === 2) return piece(stops[0], stops[1]);
  return {
    FunctionType: 3,
    Domain: [0, 1],
    Functions: stops.slice(1).map((b, i) => piece(stops[i], b)),
    Bounds: stops.slice(1, -1).map((s) => s.t),
    Encode: stops.slice(1).flatMap(() => [0, 1]),
  };
}

/** The box kind over a part of unit space: a pyramid of four sides, and beyond its foot four that go on. */
function boxTriangles(box: Rect): number[] {
  const far = Math.max(1, -box.x0, box.x1, -box.y0, box.y1);
  const out: number[] = [];
  const corners = [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ] as const;
  corners.forEach(([x, y], i) => {
    const [p, q] = corners[(i + 1) % 4];
    out.push(0, 0, 0, x, y, 1, p, q, 1);
    if (far > 1) out.push(x, y, 1, p, q, 1, p * far, q * far, 1, x, y, 1, p * far, q * far, 1, x * far, y * far, 1);
  });
  return out;
}

/**
 * A free-form triangle mesh (PDF 32000-1 8.7.4.5.5) whose corners carry colours. At a hard edge of the ramp a triangle
 * takes the colours of its own side: `values` is asked a hair's breadth inside it.
 */
function triangleShading(
  file: PdfFile,
  mesh: readonly number[],
  space: Value,
  values: (t: number) => number[],
): Promise<PDFRef> {
  const lo = [Infinity, Infinity];
  const hi = [-Infinity, -Infinity];
  for (let i = 0; i < mesh.length; i += 3)
    for (const k of [0, 1] as const) {
      lo[k] = Math.min(lo[k], mesh[i + k]);
      hi[k] = Math.max(hi[k], mesh[i + k]);
    }
  for (const k of [0, 1]) if (!(hi[k] > lo[k])) [lo[k], hi[k]] = Number.isFinite(lo[k]) ? [lo[k], lo[k] + 1] : [0, 1];
  const parts = values(0).length;
  const bytes = new MeshBytes((mesh.length / 3) * (9 + 2 * parts));
  for (let i = 0; i < mesh.length; i += 9) {
    const middle = (mesh[i + 2] + mesh[i + 5] + mesh[i + 8]) / 3;
    for (let k = i; k < i + 9; k += 3) {
      bytes.flag(0);
      bytes.coordinate(mesh[k], lo[0], hi[0]);
      bytes.coordinate(mesh[k + 1], lo[1], hi[1]);
      const t = mesh[k + 2] + (middle - mesh[k + 2]) * 1e-6;
      for (const v of values(Math.min(1, Math.max(0, t)))) bytes.component(v, 0, 1);
    }
  }
  return file.stream(
    {
      ShadingType: 4,
      ColorSpace: space,
      BitsPerCoordinate: 32,
      BitsPerComponent: 16,
      BitsPerFlag: 8,
      Decode: [lo[0], hi[0], lo[1], hi[1], ...Array.from({ length: parts }, () => [0, 1]).flat()],
    },
    bytes.done,
  );
}

class MeshBytes {
  readonly done: Uint8Array;
  private readonly view: DataView;
  private at = 0;
  constructor(size: number) {
    this.done = new Uint8Array(size);
    this.view = new DataView(this.done.buffer);
  }
  flag(v: number): void {
    this.view.setUint8(this.at++, v);
  }
  coordinate(v: number, lo: number, hi: number): void {
    this.view.setUint32(this.at, Math.round(share(v, lo, hi) * 0xffffffff));
    this.at += 4;
  }
  component(v: number, lo: number, hi: number): void {
    this.view.setUint16(this.at, Math.round(share(v, lo, hi) * 0xffff));
    this.at += 2;
  }
}
const share = (v: number, lo: number, hi: number): number => Math.min(1, Math.max(0, (v - lo) / (hi - lo)));
