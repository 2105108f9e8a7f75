import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import type { Matrix } from '@/core/geometry/matrix';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import type { Colour, Design, GradientPaint, Outline, Paint, Pool, Stop } from '@/core/model/schema';
import { DesignBuilder, flat } from '@/demo/builder';
import { cmyk, making } from './sample';

export const GRADIENT_KINDS = ['linear', 'radial', 'box', 'pools', 'along', 'across', 'letters'] as const;
export type GradientKindUnderTest = (typeof GRADIENT_KINDS)[number];

type Extra = Partial<Pick<GradientPaint, 'focus' | 'strokeMapping' | 'thereAndBack' | 'eachLetter'>>;

/**
 * A page of one kind of gradient: as fill, as the outline over the whole shape and as letters (or, for gradients that
 * follow a line, open and closed lines of every join and cap), each in process, spot and spot-to-process inks, solid
 * and fading, over a ground of cyan.
 */
export function gradientPage(kind: GradientKindUnderTest): Design {
  // Large: what two programs make of an edge is then a small part of it.
  const scale = kind === 'along' || kind === 'across' || kind === 'letters' ? 3 : 2;
  const b = new DesignBuilder(
    newDesign(`Page of ${kind}`, setupOf(640 * scale, 620 * scale, { bleed: 9 }), making),
    making,
  );
  const ember = b.spot(SPOT_LIBRARY[0]);
  const inks: [string, Colour, Colour][] = [
    ['process', cmyk(90, 20, 0, 10), cmyk(0, 70, 80, 0)],
    ['spot', { ...(ember as { swatch: string; tint: number }), tint: 0.1 }, ember],
    ['spot to process', ember, cmyk(70, 0, 60, 20)],
  ];
  const art: string[] = [
    b.shape(
      'Ground',
      'rectangle',
      { x: -9 / scale, y: -9 / scale, w: 640 + 18 / scale, h: 330 },
      { fill: flat(cmyk(40, 0, 0, 0)) },
    ),
  ];
  inks.forEach(([name, from, to], i) =>
    [1, 0.1].forEach((end, j) => {
      const x = 16 + i * 206;
      const y = 14 + j * 310;
      const last = { colour: to, ...(end < 1 && { opacity: end }) };
      // Across a line the ends are held a little: Ghostscript paints every pixel that a shading touches, we by its
      // share.
      const held = kind === 'across' ? 0.12 : 0;
      const stops: Stop[] = [
        ...(held ? [{ offset: 0, colour: from }] : []),
        { offset: held, colour: from, midpoint: 0.4 },
        { offset: 1 - held, ...last },
        ...(held ? [{ offset: 1, ...last }] : []),
      ];
      const paint = (geometry: Matrix, extra: Extra = {}): Paint => ({
        kind: 'gradient',
        gradient: kind === 'radial' || kind === 'box' ? kind : 'linear',
        ramp: { stops },
        geometry,
        overprint: false,
        ...extra,
      });
      const pools = (w: number, h: number): Paint => {
        const pool = (px: number, py: number, colour: Colour, reach: number, opacity?: number): Pool => ({
          x: px,
          y: py,
          colour,
          reach,
          ...(opacity !== undefined && { opacity }),
        });
        return {
          kind: 'pools',
          pools: [
            pool(0.2, 0.25, from, 0.5),
            pool(0.8, 0.3, to, 0.4, end < 1 ? end : undefined),
            pool(0.5, 0.85, cmyk(0, 0, 60, 0), 0.3),
          ],
          geometry: [w, 0, 0, h, 0, 0],
          overprint: false,
        };
      };
      const made = (w: number, h: number): Paint => {
        if (kind === 'pools') return pools(w, h);
        if (kind === 'radial')
          return paint([w * 0.5, h * 0.12, -w * 0.1, h * 0.45, w / 2, h / 2], { focus: [0.4, -0.3] });
        if (kind === 'box') return paint([w * 0.45, h * 0.05, -w * 0.04, h * 0.4, w / 2, h / 2]);
        return paint([w * 0.8, h * 0.3, -h * 0.3, w * 0.8, w * 0.1, h * 0.2]);
      };
      if (kind === 'along' || kind === 'across')
        art.push(
          ...lines(
            b,
            name,
            x,
            y,
            paint([1, 0, 0, 1, 0, 0], { strokeMapping: kind }),
            paint([1, 0, 0, 1, 0, 0], { strokeMapping: kind, ...(kind === 'along' && { thereAndBack: true }) }),
          ),
        );
      else if (kind === 'letters') {
        art.push(
          b.displayText(`${name} as one`, x, y + 90, [
            { align: 'left', leading: 1, runs: [runOf('Glow', 84, paint([170, 0, 0, 80, 0, -60]), 'archivo-800')] },
          ]),
          b.displayText(`${name} by letters`, x, y + 190, [
            {
              align: 'left',
              leading: 1,
              runs: [runOf('Glow', 84, paint([0, 1, -1, 0, 0, 0], { eachLetter: true }), 'alfa-slab-400')],
            },
          ]),
          b.displayText(`${name} outline`, x, y + 280, [
            {
              align: 'left',
              leading: 1,
              runs: [
                {
                  ...runOf('Quay', 84, { kind: 'none' }, 'archivo-800'),
                  outline: outlineOf(paint([1, 0, 0, 1, 0, 0], { eachLetter: true }), 5),
                },
              ],
            },
          ]),
        );
      } else {
        art.push(
          b.shape(`${name} fill`, 'ellipse', { x, y, w: 90, h: 130 }, { fill: made(90, 130) }),
          b.shape(
            `${name} turned`,
            'star',
            { x: x + 100, y: y + 8, w: 90, h: 110, turn: 20 },
            { fill: made(90, 110), knobs: { points: 6, depth: 0.3 } },
          ),
          b.shape(
            `${name} outline`,
            'rectangle',
            { x: x + 8, y: y + 152, w: 78, h: 60 },
            { outline: outlineOf(made(78, 60), 14) },
          ),
          b.displayText(`${name} letters`, x, y + 288, [
            {
              align: 'left',
              leading: 1,
              runs: [runOf('Quay', 70, kind === 'pools' ? pools(170, 60) : made(170, -60), 'archivo-800')],
            },
          ]),
          b.path(`${name} wave`, [0, x + 100, y + 200, 2, x + 130, y + 120, x + 160, y + 270, x + 190, y + 180], {
            outline: {
              ...outlineOf(
                kind === 'pools' ? moved(pools(100, 100), x + 95, y + 140) : moved(made(100, 100), x + 95, y + 140),
                12,
              ),
              cap: 'round',
            },
          }),
        );
      }
    }),
  );
  b.place(0, [b.group('All', art, [scale, 0, 0, scale, 0, 0])]);
  return b.done();
}

const moved = (p: Paint, x: number, y: number): Paint => {
  if (p.kind !== 'gradient' && p.kind !== 'pools') return p;
  const [a, b, c, d, e, f] = p.geometry;
  return { ...p, geometry: [a, b, c, d, e + x, f + y] };
};

/** Open and closed lines with every join and cap, and curves. */
function lines(b: DesignBuilder, name: string, x: number, y: number, open: Paint, ring: Paint): string[] {
  const zig = (dx: number, dy: number): number[] => [
    0,
    x + dx,
    y + dy + 50,
    1,
    x + dx + 22,
    y + dy,
    1,
    x + dx + 44,
    y + dy + 50,
  ];
  const line = (paint: Paint, cap: Outline['cap'], join: Outline['join'], width = 18): { outline: Outline } => ({
    outline: { ...outlineOf(paint, width), cap, join },
  });
  return [
    b.path(`${name} flat, pointed`, zig(10, 14), line(open, 'butt', 'miter')),
    b.path(`${name} round`, zig(74, 14), line(open, 'round', 'round')),
    b.path(`${name} long, cut`, zig(138, 14), line(open, 'square', 'bevel')),
    b.shape(`${name} ring`, 'ellipse', { x: x + 10, y: y + 90, w: 74, h: 64 }, line(ring, 'butt', 'miter', 22)),
    b.shape(
      `${name} star`,
      'star',
      { x: x + 106, y: y + 86, w: 76, h: 74 },
      { ...line(ring, 'butt', 'round', 18), knobs: { points: 5, depth: 0.5 } },
    ),
    b.shape(
      `${name} cut corners`,
      'polygon',
      { x: x + 12, y: y + 180, w: 70, h: 64 },
      { ...line(ring, 'butt', 'bevel', 20), knobs: { sides: 5 } },
    ),
    b.shape(
      `${name} pointed corners`,
      'rectangle',
      { x: x + 108, y: y + 184, w: 70, h: 56 },
      line(ring, 'butt', 'miter', 20),
    ),
    b.path(
      `${name} wave`,
      [0, x + 10, y + 276, 2, x + 60, y + 226, x + 110, y + 320, x + 180, y + 268],
      line(open, 'round', 'miter', 20),
    ),
  ];
}
