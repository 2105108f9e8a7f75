import { CLOSE, CUBIC, LINE, MOVE } from '../geometry/path';
import { grow, type Rect } from '../geometry/rect';
import type { ReadyKit } from './kit';
import { countDial, family } from './types';

/** Half-way between the trim and the margins. */
function edgeOf(k: ReadyKit): Rect {
  const { box, page } = k;
  const half = (a: number, b: number) => (a + b) / 2;
  return { x0: half(box.x0, page.x0), y0: half(box.y0, page.y0), x1: half(box.x1, page.x1), y1: half(box.y1, page.y1) };
}
const boxOf = (r: Rect) => ({ x: r.x0, y: r.y0, w: r.x1 - r.x0, h: r.y1 - r.y0 });

/** A line round the page. */
const line = (k: ReadyKit, name: string, by: number, width: number, colour = k.colours.accent) =>
  k.shape(name, 'rectangle', boxOf(grow(edgeOf(k), -by)), { line: colour, width });
const cornered = (kind: 'round' | 'cut' | 'scoop') => (k: ReadyKit) => [
  k.shape('Edge', 'rectangle', boxOf(edgeOf(k)), {
    line: k.colours.accent,
    width: k.u * 0.7,
    corners: { radius: k.u * 7, kind },
  }),
];
/** The same pieces along all four sides, evenly, from corner to corner. */
function round(k: ReadyKit, each: number, piece: (x: number, y: number) => string): string[] {
  const { x0, y0, x1, y1 } = edgeOf(k);
  const [across, down] = [Math.max(2, Math.round((x1 - x0) / each)), Math.max(2, Math.round((y1 - y0) / each))];
  const [sx, sy] = [(x1 - x0) / across, (y1 - y0) / down];
  return [
    k.row('Head', across, { x: sx, y: 0 }, [piece(x0, y0)]),
    k.row('Right', down, { x: 0, y: sy }, [piece(x1, y0)]),
    k.row('Foot', across, { x: sx, y: 0 }, [piece(x0 + sx, y1)]),
    k.row('Left', down, { x: 0, y: sy }, [piece(x0, y0 + sy)]),
  ];
}

export const EDGES = family('Edges', [
  ['edge-thin', 'Thin line', ['border', 'frame', 'page border'], (k) => [line(k, 'Edge', 0, k.u * 0.35)]],
  [
    'edge-double',
    'Two lines',
    ['border', 'double', 'frame'],
    (k) => [line(k, 'Outer line', 0, k.u * 0.35), line(k, 'Inner line', k.u * 1.4, k.u * 0.35)],
  ],
  [
    'edge-broad',
    'Broad and thin',
    ['border', 'certificate', 'frame'],
    (k) => [line(k, 'Broad line', 0, k.u * 1.3), line(k, 'Thin line', k.u * 1.9, k.u * 0.3, k.colours.dark)],
  ],
  ['edge-round', 'Round corners', ['border', 'rounded', 'frame'], cornered('round')],
  ['edge-cut', 'Cut corners', ['border', 'bevel', 'frame'], cornered('cut')],
  ['edge-scoop', 'Scooped corners', ['border', 'ticket', 'frame'], cornered('scoop')],
  [
    'edge-dots',
    'Dots',
    ['border', 'beads', 'pearls', 'frame'],
    (k) => {
      const r = k.u * 0.7;
      const dot = (x: number, y: number) =>
        k.shape('Dot', 'ellipse', { x: x - r, y: y - r, w: 2 * r, h: 2 * r }, { fill: k.colours.accent });
      return round(k, k.u * 3, dot);
    },
  ],
  [
    'edge-diamonds',
    'Diamonds',
    ['border', 'lozenges', 'frame'],
    (k) => {
      const r = k.u * 1.1;
      const piece = (x: number, y: number) =>
        k.path('Diamond', [MOVE, x, y - r, LINE, x + r, y, LINE, x, y + r, LINE, x - r, y, CLOSE], {
          fill: k.colours.accent,
        });
      return round(k, k.u * 3.4, piece);
    },
  ],
  [
    'edge-band',
    'A band of colour',
    ['border', 'frame', 'mount', 'passe-partout'],
    (k) => [
      k.shape(
        'Band',
        'frame',
        { x: -k.bleed, y: -k.bleed, w: k.page.x1 + 2 * k.bleed, h: k.page.y1 + 2 * k.bleed },
        { fill: k.colours.accent, knobs: { rim: Math.min(0.3, (k.u * 5 + k.bleed) / (k.u * 100 + 2 * k.bleed)) } },
      ),
    ],
  ],
]);

/** A piece in each corner of the edge. */
const four = (piece: (k: ReadyKit, s: number) => string[]) => (k: ReadyKit) =>
  k.corners(edgeOf(k), () => piece(k, k.u * 12));

export const CORNERS = family('Corners', [
  [
    'corner-angle',
    'Angles',
    ['brackets', 'crop'],
    four((k, s) => [
      k.shape('Across', 'rectangle', { x: 0, y: 0, w: s, h: s * 0.08 }, { fill: k.colours.accent }),
      k.shape('Down', 'rectangle', { x: 0, y: 0, w: s * 0.08, h: s }, { fill: k.colours.accent }),
    ]),
  ],
  [
    'corner-double',
    'Double angles',
    ['brackets', 'art deco'],
    four((k, s) => [
      k.path('Outer', [MOVE, 0, s, LINE, 0, 0, LINE, s, 0], { line: k.colours.accent, width: s * 0.05 }),
      k.path('Inner', [MOVE, s * 0.16, s * 0.72, LINE, s * 0.16, s * 0.16, LINE, s * 0.72, s * 0.16], {
        line: k.colours.accent,
        width: s * 0.05,
      }),
    ]),
  ],
  [
    'corner-quarter',
    'Quarter rounds',
    ['fans', 'sun', 'circle'],
    four((k, s) => {
      // A quarter of a circle as one cubic, to 0.03 % of its radius.
      const [r, c] = [s * 0.8, s * 0.8 * 0.5523];
      return [k.path('Quarter', [MOVE, 0, 0, LINE, r, 0, CUBIC, r, c, c, r, 0, r, CLOSE], { fill: k.colours.accent })];
    }),
  ],
  [
    'corner-triangle',
    'Triangles',
    ['photo corners'],
    four((k, s) => [
      k.path('Triangle', [MOVE, 0, 0, LINE, s * 0.9, 0, LINE, 0, s * 0.9, CLOSE], { fill: k.colours.accent }),
    ]),
  ],
  [
    'corner-dots',
    'Three dots',
    ['pearls', 'beads'],
    four((k, s) => {
      const dot = (x: number, y: number, r: number) =>
        k.shape('Dot', 'ellipse', { x: x - r, y: y - r, w: 2 * r, h: 2 * r }, { fill: k.colours.accent });
      return [dot(s * 0.2, s * 0.2, s * 0.12), dot(s * 0.55, s * 0.2, s * 0.07), dot(s * 0.2, s * 0.55, s * 0.07)];
    }),
  ],
  [
    'corner-steps',
    'Steps',
    ['pixels', 'blocks', 'squares'],
    four((k, s) =>
      [
        [0, 0, 0.34],
        [0.34, 0, 0.2],
        [0, 0.34, 0.2],
      ].map(([x, y, w]) =>
        k.shape('Block', 'rectangle', { x: x * s, y: y * s, w: w * s, h: w * s }, { fill: k.colours.accent }),
      ),
    ),
  ],
]);

export const DIVIDERS = family('Dividers', [
  ...(
    [
      ['rule', 'Rule', (k, x, y, w) => [k.rule('Rule', x, y, w, k.u * 0.3, k.colours.dark)]],
      [
        'double',
        'Double rule',
        (k, x, y, w) => [
          k.rule('Broad rule', x, y, w, k.u * 0.7, k.colours.accent),
          k.rule('Thin rule', x, y + k.u * 1.2, w, k.u * 0.2, k.colours.accent),
        ],
      ],
      [
        'diamond',
        'Rule with a diamond',
        (k, x, y, w) => {
          const [c, r] = [x + w / 2, k.u * 1.3];
          return [
            k.rule('Left rule', x, y, w / 2 - 3 * r, k.u * 0.25, k.colours.accent),
            k.rule('Right rule', c + 3 * r, y, w / 2 - 3 * r, k.u * 0.25, k.colours.accent),
            k.path('Diamond', [MOVE, c, y - r, LINE, c + r, y, LINE, c, y + r, LINE, c - r, y, CLOSE], {
              fill: k.colours.accent,
            }),
          ];
        },
      ],
      [
        'star',
        'Rule with a star',
        (k, x, y, w) => {
          const [c, r] = [x + w / 2, k.u * 2];
          return [
            k.rule('Left rule', x, y, w / 2 - 2 * r, k.u * 0.25, k.colours.dark),
            k.rule('Right rule', c + 2 * r, y, w / 2 - 2 * r, k.u * 0.25, k.colours.dark),
            k.shape('Star', 'star', { x: c - r, y: y - r, w: 2 * r, h: 2 * r }, { fill: k.colours.accent }),
          ];
        },
      ],
      [
        'wave',
        'Wave',
        (k, x, y, w) => [
          k.shape(
            'Wave',
            'ripple',
            { x, y: y - k.u, w, h: 2 * k.u },
            { line: k.colours.accent, width: k.u * 0.5, knobs: { waves: 12 } },
          ),
        ],
      ],
      [
        'zigzag',
        'Zigzag',
        (k, x, y, w) => [
          k.shape(
            'Zigzag',
            'zigzag',
            { x, y: y - k.u, w, h: 2 * k.u },
            { line: k.colours.accent, width: k.u * 0.5, knobs: { zigs: 24 } },
          ),
        ],
      ],
      [
        'tapered',
        'Tapered rule',
        (k, x, y, w) => [
          k.path(
            'Rule',
            [MOVE, x, y, LINE, x + w / 2, y - k.u * 0.45, LINE, x + w, y, LINE, x + w / 2, y + k.u * 0.45, CLOSE],
            {
              fill: k.colours.dark,
            },
          ),
        ],
      ],
    ] as const satisfies readonly (readonly [
      string,
      string,
      (k: ReadyKit, x: number, y: number, w: number) => string[],
    ])[]
  ).map(
    ([id, name, make]) =>
      [
        `divider-${id}`,
        name,
        ['line', 'separator', 'break'],
        (k: ReadyKit) => make(k, k.box.x0 + k.wide * 0.15, k.middle.y, k.wide * 0.7),
      ] as const,
  ),
  [
    'divider-dots',
    'Row of dots',
    ['line', 'separator', 'dotted'],
    (k, v) => {
      const [w, r] = [k.wide * 0.7, k.u * 0.6];
      const dot = k.shape(
        'Dot',
        'ellipse',
        { x: k.box.x0 + k.wide * 0.15 - r, y: k.middle.y - r, w: 2 * r, h: 2 * r },
        { fill: k.colours.accent },
      );
      return [k.row('Dots', v.count, { x: w / Math.max(1, v.count - 1), y: 0 }, [dot])];
    },
    [countDial('Dots', 24, 2, 200)],
  ],
  [
    'divider-leaves',
    'Leaves',
    ['line', 'plant', 'flourish'],
    (k) => {
      const [x, y, s] = [k.middle.x, k.middle.y, k.u * 5];
      const leaf = (name: string, turn: number) =>
        k.turned(
          name,
          [k.shape('Leaf', 'leaf', { x: x + s * 0.1, y: y - s * 0.22, w: s, h: s * 0.44 }, { fill: k.colours.accent })],
          turn,
          { x, y },
        );
      const r = s * 0.09;
      return [
        leaf('Right leaf', 0),
        leaf('Left leaf', 180),
        k.shape('Bud', 'ellipse', { x: x - r, y: y - r, w: 2 * r, h: 2 * r }, { fill: k.colours.dark }),
      ];
    },
  ],
]);
