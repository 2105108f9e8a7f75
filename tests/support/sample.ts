import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import type { Matrix } from '@/core/geometry/matrix';
import { asWindow } from '@/core/edit/window';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import type { Colour, Design, Paint, Stop } from '@/core/model/schema';
import { DesignBuilder, flat, tint } from '@/demo/builder';

let n = 0;
export const making = { newId: () => `s${(n++).toString(36)}`, now: () => '2026-11-02T18:00:00.000Z' };

export const linear = (stops: Stop[], geometry: Matrix, overprint = false): Paint => ({
  kind: 'gradient',
  gradient: 'linear',
  ramp: { stops },
  geometry,
  overprint,
});
export const radial = (stops: Stop[], geometry: Matrix, overprint = false): Paint => ({
  kind: 'gradient',
  gradient: 'radial',
  ramp: { stops },
  geometry,
  overprint,
});
export const cmyk = (c: number, m: number, y: number, k: number): Colour => ({
  cmyk: [c / 100, m / 100, y / 100, k / 100],
});

/** A page that holds every kind of paint, line and text side by side, over a cyan ground where it matters. */
export function sampleDesign(): Design {
  const b = new DesignBuilder(newDesign('Sample page', setupOf(1206, 882, { bleed: 9 }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const kelp = b.spot(SPOT_LIBRARY[1]);
  const ground = cmyk(60, 0, 0, 0);
  const cell = (i: number, j: number) => ({ x: 12 + i * 64, y: 12 + j * 56, w: 52, h: 44 });
  const inner = (i: number, j: number) => ({ x: 20 + i * 64, y: 18 + j * 56, w: 36, h: 32 });
  const grounds = Array.from({ length: 12 }, (_, k) =>
    b.shape(`Ground ${k}`, 'rectangle', cell(k % 6, Math.floor(k / 6)), { fill: flat(ground) }),
  );
  const pair = (a: Colour, z: Colour): Stop[] => [
    { offset: 0, colour: a },
    { offset: 1, colour: z },
  ];
  const art = [
    b.shape('Process knocks out', 'ellipse', inner(0, 0), { fill: flat(cmyk(0, 80, 20, 0)) }),
    b.shape('Process overprints', 'ellipse', inner(1, 0), { fill: flat(cmyk(0, 80, 20, 0), true) }),
    b.shape('Spot knocks out', 'star', inner(2, 0), { fill: flat(ember) }),
    b.shape('Spot overprints', 'star', inner(3, 0), { fill: flat(ember, true) }),
    b.shape('Black overprints', 'polygon', inner(4, 0), { fill: flat(cmyk(0, 0, 0, 100), true) }),
    b.shape('Screen colour', 'heart', inner(5, 0), { fill: flat({ rgb: [0.8, 0.2, 0.1] }) }),
    b.shape('Linear process', 'rectangle', inner(0, 1), {
      fill: linear(pair(cmyk(0, 100, 0, 0), cmyk(0, 0, 100, 0)), [36, 0, 0, 32, 0, 0]),
    }),
    b.shape('Linear slant', 'rectangle', inner(1, 1), {
      fill: linear(
        [...pair(cmyk(90, 20, 0, 0), cmyk(0, 0, 90, 10)), { offset: 0.4, colour: cmyk(0, 60, 0, 0) }],
        [20, 16, -10, 24, 8, 4],
      ),
    }),
    b.shape('Radial spot', 'ellipse', inner(2, 1), {
      fill: radial(pair(tint(ember, 0.1), ember), [18, 0, 0, 16, 18, 16]),
    }),
    b.shape('Spot to process', 'rectangle', inner(3, 1), {
      fill: linear(pair(ember, cmyk(0, 10, 80, 0)), [36, 0, 0, 32, 0, 0]),
    }),
    b.shape('Gradient overprints', 'rectangle', inner(4, 1), {
      fill: linear(pair(cmyk(0, 90, 0, 0), ember), [36, 0, 0, 32, 0, 0], true),
    }),
    b.shape('Two spots', 'ring', inner(5, 1), {
      fill: radial(pair(kelp, ember), [18, 0, 0, 16, 18, 16]),
      knobs: { thickness: 0.85 },
    }),
    b.shape('Outline pointed', 'star', inner(0, 2), {
      outline: outlineOf(flat(cmyk(0, 100, 100, 0)), 3),
      knobs: { points: 6, depth: 0.4 },
    }),
    b.shape('Outline round', 'chevron', inner(1, 2), {
      outline: { ...outlineOf(flat(kelp), 5), join: 'round', cap: 'round' },
    }),
    b.shape('Outline overprints', 'ellipse', inner(2, 2), {
      fill: flat(ground),
      outline: outlineOf(flat(cmyk(0, 70, 0, 0), true), 4),
    }),
    b.path('Open line', [0, 210, 130, 2, 220, 190, 232, 100, 244, 158], {
      outline: { ...outlineOf(flat(cmyk(0, 0, 0, 100)), 2.5), cap: 'round' },
    }),
    b.shape(
      'Turned',
      'arrow',
      { ...inner(4, 2), turn: 30 },
      { fill: flat(tint(ember, 0.5)), outline: outlineOf(flat(cmyk(100, 50, 0, 20)), 1) },
    ),
    b.shape('Outline cut', 'polygon', inner(5, 2), {
      outline: { ...outlineOf(flat(cmyk(40, 40, 0, 40)), 6), join: 'bevel' },
      knobs: { sides: 3 },
    }),
    b.displayText('Headline', 20, 205, [
      { align: 'left', leading: 1, runs: [runOf('AVATAR office', 34, flat(ember), 'eb-garamond-600')] },
    ]),
    b.displayText('Outlined', 20, 250, [
      {
        align: 'left',
        leading: 1,
        runs: [
          {
            ...runOf(
              'Quay',
              40,
              linear(pair(cmyk(100, 0, 0, 0), cmyk(0, 100, 0, 0)), [80, 0, 0, 40, 0, 0]),
              'alfa-slab-400',
            ),
            outline: outlineOf(flat(cmyk(0, 0, 0, 100)), 0.8),
          },
        ],
      },
    ]),
    b.textFrame('Body', { x: 250, y: 190, w: 130, h: 90 }, [
      {
        align: 'full',
        leading: 1.25,
        runs: [
          runOf('Home-made paper lanterns walk the quays of ', 11, flat(cmyk(0, 0, 0, 100)), 'archivo-400'),
          runOf('Marrowick', 11, flat(kelp), 'archivo-800'),
          runOf(' each November, from dusk until the tide turns.', 11, flat(cmyk(0, 0, 0, 100)), 'archivo-400'),
        ],
      },
    ]),
  ];
  // Three times as large by a group's own matrix: small letters are where two programs smooth edges most differently.
  b.place(0, [
    b.group('All', [...grounds, ...art], [3, 0, 0, 3, 0, 0]),
    b.shape('Into the bleed', 'rectangle', { x: 1170, y: -9, w: 45, h: 160 }, { fill: flat(kelp) }),
  ]);
  return b.done();
}

/**
 * Every way a colour can be printed, each as a fill, an outline and letters, over a cyan ground: process, tints, spot,
 * spot as its stand-in, opaque, overprinting, RGB and Lab converted.
 */
export function coloursDesign(): Design {
  const b = new DesignBuilder(newDesign('Colours page', setupOf(700, 640, { bleed: 9 }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const kelp = b.spot({ ...SPOT_LIBRARY[1], asStandIn: true });
  const chalk = b.spot({ ...SPOT_LIBRARY[56], opaque: true });
  const recipe = b.recipe('Low Tide', 82, 46, 22, 6);
  const rows: [string, Colour, boolean][] = [
    ['Process', recipe, false],
    ['Process tint', tint(recipe, 0.4), false],
    ['Process over', cmyk(0, 70, 20, 0), true],
    ['Spot', ember, false],
    ['Spot tint', tint(ember, 0.5), false],
    ['Spot over', ember, true],
    ['Stand-in', kelp, false],
    ['Stand-in tint', tint(kelp, 0.5), false],
    ['Stand-in over', kelp, true],
    ['Opaque', chalk, false],
    ['Opaque over', chalk, true],
    ['Screen', { rgb: [0.85, 0.3, 0.15] }, false],
    ['Screen over', { rgb: [0.2, 0.5, 0.3] }, true],
    ['Lab', { lab: [55, -20, 35] }, false],
    ['Grey', { gray: 0.4 }, false],
  ];
  const art = rows.flatMap(([name, colour, over], i) => {
    const x = 20 + (i % 3) * 225;
    const y = 16 + Math.floor(i / 3) * 124;
    return [
      b.shape(`${name} ground`, 'rectangle', { x, y, w: 210, h: 56 }, { fill: flat(cmyk(45, 0, 0, 0)) }),
      b.shape(`${name} fill`, 'ellipse', { x: x + 10, y: y + 12, w: 60, h: 80 }, { fill: flat(colour, over) }),
      b.shape(
        `${name} outline`,
        'polygon',
        { x: x + 84, y: y + 14, w: 50, h: 76 },
        { outline: outlineOf(flat(colour, over), 9) },
      ),
      b.displayText(`${name} letters`, x + 142, y + 74, [
        { align: 'left', leading: 1, runs: [runOf('Ag', 50, flat(colour, over), 'archivo-800')] },
      ]),
    ];
  });
  b.place(0, art);
  return b.done();
}

/**
 * What drawing makes: combinations of every kind, copies, treated corners, a line of changing width, words in shapes, a
 * path with a hole.
 */
export function drawnDesign(): Design {
  const b = new DesignBuilder(newDesign('Drawn page', setupOf(1200, 840, { bleed: 9 }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const ink = flat(cmyk(80, 30, 0, 0));
  const warm = flat(cmyk(0, 50, 90, 0));
  const cell = (i: number, j: number) => ({ x: 15 + i * 78, y: 12 + j * 66 });
  const pair = (i: number, j: number) => {
    const { x, y } = cell(i, j);
    return [
      b.shape('Plate', 'rectangle', { x, y, w: 44, h: 40 }, { fill: ink }),
      b.shape('Disc', 'ellipse', { x: x + 22, y: y + 8, w: 36, h: 36 }, { fill: warm }),
    ];
  };
  const combined = (['union', 'subtract', 'intersect', 'exclude', 'divide'] as const).map((op, i) =>
    b.combination(op, op, pair(i, 0), {
      fill:
        i === 1
          ? linear(
              [
                { offset: 0, colour: cmyk(0, 90, 0, 0) },
                { offset: 1, colour: ember },
              ],
              [60, 0, 0, 60, cell(1, 0).x, 12],
            )
          : ink,
      outline: outlineOf(flat(ember), i === 2 ? 2 : 0),
    }),
  );
  const star = (i: number, kind: 'round' | 'cut' | 'scoop') =>
    b.corners(
      b.shape(
        `Star ${kind}`,
        'star',
        { ...cell(i, 1), w: 56, h: 52 },
        { fill: i % 2 ? flat(ember) : ink, outline: outlineOf(flat(cmyk(0, 0, 0, 100)), 4) },
      ),
      { radius: 4, kind },
    );
  const stars = (['round', 'cut', 'scoop'] as const).map((k, i) => star(i, k));
  const at = cell(3, 1);
  const words = b.combination(
    'Cut words',
    'subtract',
    [
      b.shape('Board', 'rectangle', { x: at.x, y: at.y, w: 130, h: 44 }, { fill: ink }),
      b.displayText('Word', at.x + 8, at.y + 34, [
        { align: 'left', leading: 1, runs: [runOf('QUAY', 34, warm, 'alfa-slab-400')] },
      ]),
    ],
    { fill: flat(ember, true) },
  );
  const c = cell(0, 2);
  const ring = b.repeat(
    'Ring',
    { kind: 'ring', count: 12, step: 30, centre: { x: c.x + 30, y: c.y + 30 }, about: { x: c.x + 30, y: c.y + 8 } },
    [b.shape('Petal', 'drop', { x: c.x + 26, y: c.y, w: 8, h: 20 }, { fill: warm })],
  );
  const g = cell(1, 2);
  const grid = b.repeat(
    'Grid',
    {
      kind: 'grid',
      columns: 4,
      rows: 3,
      across: { x: 15, y: 0 },
      down: { x: 4, y: 17 },
      turn: 8,
      about: { x: g.x + 6, y: g.y + 6 },
    },
    [b.shape('Cog', 'gear', { x: g.x, y: g.y, w: 13, h: 13 }, { fill: flat(ember) })],
  );
  const h = cell(2, 2);
  const hole = b.path(
    'Hole',
    [
      0,
      h.x,
      h.y,
      1,
      h.x + 60,
      h.y,
      1,
      h.x + 60,
      h.y + 50,
      1,
      h.x,
      h.y + 50,
      3,
      0,
      h.x + 12,
      h.y + 12,
      1,
      h.x + 44,
      h.y + 12,
      1,
      h.x + 28,
      h.y + 40,
      3,
    ],
    { fill: ink },
  );
  const node = b.nodes[hole];
  if (node.kind === 'path') b.nodes[hole] = { ...node, fillRule: 'evenOdd' };
  const l = cell(3, 2);
  const stroke = b.path(
    'Pen stroke',
    [0, l.x, l.y + 30, 2, l.x + 30, l.y - 20, l.x + 60, l.y + 80, l.x + 120, l.y + 20],
    { outline: { ...outlineOf(flat(cmyk(20, 90, 10, 0)), 12), cap: 'round' } },
  );
  const line = b.nodes[stroke];
  if (line.kind === 'path') b.nodes[stroke] = { ...line, widths: [0.2, 1] };
  const e = cell(0, 3);
  const heart = b.shape('Heart', 'heart', { x: e.x, y: e.y, w: 100, h: 62 }, { fill: flat(cmyk(0, 20, 60, 0)) });
  const shape = b.nodes[heart];
  if (shape.kind === 'shape') {
    b.stories.words = {
      id: 'words',
      paragraphs: [
        {
          align: 'middle',
          leading: 1.1,
          runs: [runOf('Lanterns along the quays of Marrowick each November', 9, flat(cmyk(0, 0, 0, 100)))],
        },
      ],
    };
    b.nodes[heart] = asWindow(shape, 'words', 3);
  }
  b.place(0, [b.group('All', [...combined, ...stars, words, ring, grid, hole, stroke, heart], [3, 0, 0, 3, 0, 0])]);
  return b.done();
}
