import { cutMesh } from '@/core/geometry/mesh';
import { addEllipse, PathBuilder, type PathData } from '@/core/geometry/path';
import type { Matrix } from '@/core/geometry/matrix';
import { strokeOutline, type StrokeStyle } from '@/core/geometry/stroke';
import { strokeMesh } from '@/core/geometry/strokeMesh';
import { newDesign, outlineOf, setupOf } from '@/core/model/defaults';
import type { Design, GradientPaint, Paint, PoolsPaint, Stop } from '@/core/model/schema';
import { Coverage, type Region } from '@/core/render/coverage';
import { boxT, radialT } from '@/core/render/field';
import { grainTile } from '@/core/render/grain';
import { rasterPlates } from '@/core/render/plates';
import { poolField, poolLattice } from '@/core/render/pools';
import { prepare, type Engines } from '@/core/engines';
import { DesignBuilder } from '@/demo/builder';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

const region: Region = { x: 0, y: 0, scale: 2, width: 400, height: 400 };
const coverage = (paths: readonly PathData[]): Uint8Array => {
  const c = new Coverage(region.width, region.height);
  const out = new Uint8Array(region.width * region.height);
  for (const p of paths) c.add(p, region);
  c.sweep('nonZero', (y, from, to, row) => out.set(row.subarray(from, to), y * region.width + from));
  return out;
};
const zig: PathData = [0, 40, 150, 1, 90, 50, 1, 130, 150, 1, 160, 60];
const square: PathData = [0, 50, 50, 1, 150, 50, 1, 150, 140, 1, 50, 140, 3];
const star: PathData = (() => {
  const out: number[] = [];
  for (let i = 0; i < 10; i++)
    out.push(
      i ? 1 : 0,
      100 + (i % 2 ? 35 : 80) * Math.sin((i * Math.PI) / 5),
      100 - (i % 2 ? 35 : 80) * Math.cos((i * Math.PI) / 5),
    );
  return [...out, 3];
})();
const ellipse: PathData = (() => {
  const b = new PathBuilder();
  addEllipse(b, 100, 100, 70, 50);
  return b.data;
})();
const wave: PathData = [0, 30, 120, 2, 80, 20, 120, 200, 170, 80];
const LINES: [string, PathData][] = [
  ['a zigzag', zig],
  ['a square', square],
  ['a star', star],
  ['an ellipse', ellipse],
  ['a wave', wave],
];
const STYLES: StrokeStyle[] = (['butt', 'round', 'square'] as const).flatMap((cap) =>
  (['miter', 'round', 'bevel'] as const).map((join) => ({ width: 16, cap, join, miterLimit: 10 })),
);

describe('the triangles of a gradient that follows its line', () => {
  // The plain outline is cut by its own form in every output: the triangles must reach all of it.
  test.each(LINES)('cover %s at every join and cap', (_, path) => {
    for (const course of ['along', 'across'] as const)
      for (const style of STYLES) {
        const mesh = strokeMesh(path, style, course, 0.05, 1);
        const triangles: number[] = [];
        for (let i = 0; i < mesh.length; i += 9) {
          const [ax, ay, , bx, by, , cx, cy] = mesh.slice(i, i + 9);
          // All turned the same way, so that overlaps add up.
          const flip = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay) < 0;
          triangles.push(0, ax, ay, 1, flip ? cx : bx, flip ? cy : by, 1, flip ? bx : cx, flip ? by : cy, 3);
        }
        const [line, covered] = [coverage([strokeOutline(path, style, 0.02)]), coverage([triangles])];
        let area = 0;
        let missed = 0;
        line.forEach((v, i) => {
          area += v;
          missed += Math.max(0, v - covered[i]);
        });
        expect([course, style.cap, style.join, missed / area < 1e-3]).toEqual([course, style.cap, style.join, true]);
      }
  });
  test('along: the share of the length; across: 0 at the left edge, 1 at the right, ½ on the line', () => {
    const line: PathData = [0, 0, 0, 1, 30, 0, 1, 30, 10];
    const along = strokeMesh(line, { width: 2, cap: 'butt', join: 'miter', miterLimit: 10 }, 'along', 0.1, 0);
    for (let i = 0; i < along.length; i += 3)
      expect(along[i + 2]).toBeCloseTo(
        Math.min(1, Math.max(0, along[i] < 29 ? along[i] / 40 : (30 + Math.max(0, along[i + 1])) / 40)),
        1,
      );
    const across = strokeMesh(
      [0, 0, 0, 1, 30, 0],
      { width: 2, cap: 'butt', join: 'miter', miterLimit: 10 },
      'across',
      0.1,
      0,
    );
    // Walking right, left is up: y −1.
    for (let i = 0; i < across.length; i += 3) expect(across[i + 2]).toBeCloseTo(0.5 + across[i + 1] / 2, 9);
  });
  test('cut at levels, no triangle lies on both sides of one, and the area stays', () => {
    const mesh = strokeMesh(wave, { width: 20, cap: 'round', join: 'round', miterLimit: 10 }, 'across', 0.1, 0.5);
    const cut = cutMesh(mesh, [0, 0.25, 0.5, 0.9, 1]);
    const area = (m: number[]) => {
      let sum = 0;
      for (let i = 0; i < m.length; i += 9)
        sum += Math.abs((m[i + 3] - m[i]) * (m[i + 7] - m[i + 1]) - (m[i + 6] - m[i]) * (m[i + 4] - m[i + 1]));
      return sum;
    };
    expect(area(cut)).toBeCloseTo(area(mesh), 6);
    for (let i = 0; i < cut.length; i += 9)
      for (const level of [0, 0.25, 0.5, 0.9, 1]) {
        const ts = [cut[i + 2], cut[i + 5], cut[i + 8]];
        expect(Math.min(...ts) >= level - 1e-9 || Math.max(...ts) <= level + 1e-9).toBe(true);
      }
  });
});

const platesOf = async (design: Design, r: Region = region) =>
  rasterPlates(engines.builder.build(design, design.pages[0]), await prepare(engines, design), r)!;
const page = (draw: (b: DesignBuilder) => string[]): Design => {
  const b = new DesignBuilder(newDesign('Fields', setupOf(200, 200, { bleed: 0 }), making), making);
  b.place(0, draw(b));
  return b.done();
};
const stops: Stop[] = [
  { offset: 0, colour: cmyk(100, 0, 0, 0) },
  { offset: 1, colour: cmyk(0, 0, 100, 0) },
];
const course = (strokeMapping: 'along' | 'across', thereAndBack = false): Paint => ({
  kind: 'gradient',
  gradient: 'linear',
  ramp: { stops },
  geometry: [1, 0, 0, 1, 0, 0],
  overprint: false,
  strokeMapping,
  ...(thereAndBack && { thereAndBack: true }),
});

describe('rings', () => {
  test.each([
    ['edge to edge', course('across')],
    ['following the line, there and back', course('along', true)],
  ])('%s: no seam where the line closes', async (_, paint) => {
    const { data } = await platesOf(
      page((b) => [b.shape('Ring', 'ellipse', { x: 40, y: 40, w: 120, h: 120 }, { outline: outlineOf(paint, 20) })]),
    );
    // Round the middle of the line, a pixel at a time; the path begins and ends at the right.
    const round: number[] = [];
    for (let k = 0; k < 720; k++) {
      const a = (k / 720) * 2 * Math.PI;
      round.push(data[0][Math.floor((100 + 60 * Math.sin(a)) * 2) * 400 + Math.floor((100 + 60 * Math.cos(a)) * 2)]);
    }
    round.forEach((v, k) =>
      expect(Math.abs(v - round[(k + 1) % 720])).toBeLessThanOrEqual(
        paint.kind === 'gradient' && paint.strokeMapping === 'across' ? 6 : 2,
      ),
    );
    // Straight across the seam, from above it to below it.
    const column = Array.from({ length: 9 }, (_, i) => data[0][(196 + i) * 400 + 330]);
    column.slice(1).forEach((v, i) => expect(Math.abs(v - column[i])).toBeLessThanOrEqual(2));
  });
  test('a gradient outline inks the same pixels as a plain one', async () => {
    const plain: Stop[] = [
      { offset: 0, colour: cmyk(0, 0, 0, 100) },
      { offset: 1, colour: cmyk(0, 0, 0, 100) },
    ];
    for (const join of ['miter', 'round', 'bevel'] as const) {
      const make = (paint: Paint) =>
        page((b) => [
          b.shape('Star', 'star', { x: 40, y: 40, w: 120, h: 120 }, { outline: { ...outlineOf(paint, 14), join } }),
        ]);
      const flat = await platesOf(make({ kind: 'colour', colour: cmyk(0, 0, 0, 100), overprint: false }));
      const swept = await platesOf(make({ ...(course('across') as GradientPaint), ramp: { stops: plain } }));
      let [area, off] = [0, 0];
      flat.data[3].forEach((v, i) => {
        area += v;
        off += Math.abs(v - swept.data[3][i]);
      });
      expect(off / area).toBeLessThanOrEqual(1e-3);
    }
  });
});

describe('pools', () => {
  const geometry: Matrix = [160, 0, 20, 120, 20, 30];
  const pools: PoolsPaint = {
    kind: 'pools',
    overprint: false,
    geometry,
    pools: [
      { x: 0.2, y: 0.3, colour: cmyk(90, 0, 0, 10), reach: 0.5 },
      { x: 0.7, y: 0.25, colour: cmyk(0, 80, 20, 0), reach: 0.2 },
      { x: 0.55, y: 0.8, colour: cmyk(0, 10, 90, 0), reach: 0.3, opacity: 0.5 },
      { x: 0.1, y: 0.9, colour: cmyk(30, 30, 30, 30), reach: 0.15 },
    ],
  };
  test('are exact at their points, on the plates and on the crossings of the mesh', async () => {
    const design = page((b) => [b.shape('Field', 'rectangle', { x: 0, y: 0, w: 200, h: 200 }, { fill: pools })]);
    const palette = await prepare(engines, design);
    const scale = 16;
    const field = poolField(pools, palette);
    const lattice = poolLattice(field, geometry, { x0: -0.2, y0: -0.3, x1: 1.2, y1: 1.4 });
    for (const p of pools.pools) {
      const x = geometry[0] * p.x + geometry[2] * p.y + geometry[4];
      const y = geometry[1] * p.x + geometry[3] * p.y + geometry[5];
      const { data } = await platesOf(design, { x: x - 0.5 / scale, y: y - 0.5 / scale, scale, width: 1, height: 1 });
      palette
        .mix(p.colour)
        .forEach((v, i) => expect(Math.abs(data[i][0] / 255 - v * (p.opacity ?? 1))).toBeLessThanOrEqual(1 / 255));
      const [u, v] = [lattice.us.indexOf(p.x), lattice.vs.indexOf(p.y)];
      expect(u >= 0 && v >= 0).toBe(true);
      [...palette.mix(p.colour), p.opacity ?? 1].forEach((want, i) =>
        expect(lattice.values[v * lattice.us.length + u][i]).toBeCloseTo(want, 9),
      );
    }
  });
  test('between the mesh’s lines the field is straight within two levels', async () => {
    const palette = await prepare(
      engines,
      page(() => []),
    );
    const field = poolField(pools, palette);
    const { us, vs, values } = poolLattice(field, geometry, { x0: -0.2, y0: -0.3, x1: 1.2, y1: 1.4 });
    const out = new Float64Array(field.size);
    let worst = 0;
    for (let j = 0; j + 1 < vs.length; j++)
      for (let i = 0; i + 1 < us.length; i++) {
        const [u, v] = [(us[i] + us[i + 1]) / 2, (vs[j] + vs[j + 1]) / 2];
        field.at(geometry[0] * u + geometry[2] * v + geometry[4], geometry[1] * u + geometry[3] * v + geometry[5], out);
        const at = (a: number, b: number) => values[(j + b) * us.length + i + a];
        for (let k = 0; k < field.size; k++)
          worst = Math.max(
            worst,
            Math.abs(out[k] - (at(0, 0)[k] + at(1, 1)[k]) / 2),
            Math.abs(out[k] - (at(1, 0)[k] + at(0, 1)[k]) / 2),
          );
      }
    expect(worst * 255).toBeLessThan(2);
  });
});

describe('unit spaces', () => {
  // SVG 1.1 §13.2.3: the focus is where the ramp begins, the circle where it ends.
  test('radial: 0 at the focus, 1 on the circle, even along every ray', () => {
    for (const focus of [undefined, [0.5, 0], [-0.3, 0.6]] as ([number, number] | undefined)[]) {
      const t = radialT(focus);
      const [fx, fy] = focus ?? [0, 0];
      expect(t(fx, fy)).toBeCloseTo(0, 9);
      for (let k = 0; k < 12; k++) {
        const [x, y] = [Math.cos((k * Math.PI) / 6), Math.sin((k * Math.PI) / 6)];
        expect(t(x, y)).toBeCloseTo(1, 9);
        expect(t(fx + (x - fx) * 0.4, fy + (y - fy) * 0.4)).toBeCloseTo(0.4, 9);
      }
    }
  });
  test('box: 1 on all four sides', () =>
    expect([boxT(1, 0.3), boxT(-0.2, -1), boxT(0.5, 0.25), boxT(0, 0)]).toEqual([1, 1, 0.5, 0]));
  test('grain: exactly half of the squares are set, and always the same', () => {
    const tile = grainTile();
    expect(tile.reduce((a, b) => a + b, 0)).toBe(tile.length / 2);
    expect(grainTile()).toBe(tile);
  });
});
