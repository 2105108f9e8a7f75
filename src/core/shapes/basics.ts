import { KAPPA, addEllipse, rectPath, draw, type PathSink } from '../geometry/path';
import { angle, arcTo, onEllipse, percent, polyline, ratio, round, slide } from './draw';
import { clamp, shape } from './types';

const CORNERS = ['topLeft', 'topRight', 'bottomRight', 'bottomLeft'] as const;
const cornerParam = <I extends (typeof CORNERS)[number]>(id: I, label: string) =>
  ({ id, label, letter: 'r', unit: 'length', min: 0, max: 100_000, initial: 0 }) as const;

/** Radii never overlap: all shrink by the same factor (CSS Backgrounds 3 §5.5). */
function fittedRadii(r: readonly number[], w: number, h: number): number[] {
  const f = Math.min(
    1,
    ...[w / (r[0] + r[1]), h / (r[1] + r[2]), w / (r[2] + r[3]), h / (r[3] + r[0])].filter(Number.isFinite),
  );
  return r.map((x) => x * f);
}

export const rectangle = shape({
  id: 'rectangle',
  name: 'Rectangle',
  family: 'Basics',
  keywords: ['square', 'box', 'rounded'],
  proportion: 0.72,
  params: [
    cornerParam('topLeft', 'Top left'),
    cornerParam('topRight', 'Top right'),
    cornerParam('bottomRight', 'Bottom right'),
    cornerParam('bottomLeft', 'Bottom left'),
  ],
  knobs: CORNERS.map((param, i) => ({
    param,
    together: CORNERS,
    travels: [45, 135, 225, 315][i],
    at: (v, w, h) => {
      const r = Math.min(v[param], w / 2, h / 2);
      return { x: i === 0 || i === 3 ? r : w - r, y: i < 2 ? r : h - r };
    },
    value: (p, _v, w, h) => {
      const dx = i === 0 || i === 3 ? p.x : w - p.x;
      const dy = i < 2 ? p.y : h - p.y;
      return clamp((dx + dy) / 2, 0, Math.min(w, h) / 2);
    },
  })),
  draw(v, w, h, s) {
    const [a, b, c, d] = fittedRadii([v.topLeft, v.topRight, v.bottomRight, v.bottomLeft], w, h);
    const k = 1 - KAPPA;
    s.moveTo(a, 0);
    s.lineTo(w - b, 0);
    if (b > 0) s.curveTo(w - b * k, 0, w, b * k, w, b);
    s.lineTo(w, h - c);
    if (c > 0) s.curveTo(w, h - c * k, w - c * k, h, w - c, h);
    s.lineTo(d, h);
    if (d > 0) s.curveTo(d * k, h, 0, h - d * k, 0, h - d);
    s.lineTo(0, a);
    if (a > 0) s.curveTo(0, a * k, a * k, 0, a, 0);
    s.close();
  },
  describe: (v) => (CORNERS.some((c) => v[c] > 0) ? 'rounded corners' : 'square corners'),
});

export const ellipse = shape({
  id: 'ellipse',
  name: 'Ellipse',
  family: 'Basics',
  keywords: ['circle', 'oval', 'disc', 'round'],
  params: [],
  knobs: [],
  draw: (_v, w, h, s) => addEllipse(s, w / 2, h / 2, w / 2, h / 2),
  describe: () => '',
});

/** Corners of a regular polygon in the box, the first at the top. */
export function spokes(n: number, w: number, h: number, radius: (i: number) => number, s: PathSink): void {
  for (let i = 0; i < n; i++) {
    const a = (2 * Math.PI * i) / n - Math.PI / 2;
    const x = (w / 2) * (1 + radius(i) * Math.cos(a));
    const y = (h / 2) * (1 + radius(i) * Math.sin(a));
    if (i === 0) s.moveTo(x, y);
    else s.lineTo(x, y);
  }
  s.close();
}

export const polygon = shape({
  id: 'polygon',
  name: 'Polygon',
  family: 'Basics',
  keywords: ['triangle', 'pentagon', 'hexagon', 'sides'],
  params: [{ id: 'sides', label: 'Sides', letter: 'n', unit: 'count', min: 3, max: 100, initial: 6 }],
  knobs: [
    {
      param: 'sides',
      travels: 0,
      // Along the right half of the lower edge: further right is more sides.
      at: (v, w, h) => ({ x: w * (0.5 + 0.5 * ((v.sides - 3) / 17)), y: h }),
      value: (p, _v, w) => Math.round(clamp(3 + ((p.x / w - 0.5) / 0.5) * 17, 3, 100)),
    },
  ],
  draw: (v, w, h, s) => spokes(Math.round(v.sides), w, h, () => 1, s),
  describe: (v) => `${Math.round(v.sides)} sides`,
});

const apex = ratio('apex', 'Tip', 'tip', 0.5, 0, 1);
export const triangle = shape({
  id: 'triangle',
  name: 'Triangle',
  family: 'Basics',
  keywords: ['right-angled', 'pyramid', 'tent'],
  params: [apex],
  knobs: [slide(apex, [0, 0], [1, 0])],
  draw: (v, w, h, s) =>
    polyline(s, w, h, [
      [v.apex, 0],
      [1, 1],
      [0, 1],
    ]),
  describe: (v) => `tip at ${percent(v.apex)}`,
});

const inset = ratio('inset', 'Inset', 'in', 0.2, 0, 0.5);
export const trapezium = shape({
  id: 'trapezium',
  name: 'Trapezium',
  family: 'Basics',
  keywords: ['trapezoid', 'lampshade', 'plinth'],
  proportion: 0.72,
  params: [inset],
  knobs: [slide(inset, [0, 0], [0.5, 0])],
  draw: (v, w, h, s) =>
    polyline(s, w, h, [
      [v.inset, 0],
      [1 - v.inset, 0],
      [1, 1],
      [0, 1],
    ]),
  describe: (v) => `${percent(v.inset)} in at the top`,
});

const slant = ratio('slant', 'Slant', 'slant', 0.25, 0, 0.9);
export const parallelogram = shape({
  id: 'parallelogram',
  name: 'Parallelogram',
  family: 'Basics',
  keywords: ['slanted', 'leaning', 'rhomboid'],
  proportion: 0.62,
  params: [slant],
  knobs: [slide(slant, [0, 0], [0.9, 0])],
  draw: (v, w, h, s) =>
    polyline(s, w, h, [
      [v.slant, 0],
      [1, 0],
      [1 - v.slant, 1],
      [0, 1],
    ]),
  describe: (v) => `slanted by ${percent(v.slant)}`,
});

const waist = ratio('waist', 'Waist', 'waist', 0.5, 0.05, 0.95);
export const kite = shape({
  id: 'kite',
  name: 'Kite',
  family: 'Basics',
  keywords: ['diamond', 'rhombus', 'lozenge'],
  params: [waist],
  knobs: [slide(waist, [1, 0.05], [1, 0.95])],
  draw: (v, w, h, s) =>
    polyline(s, w, h, [
      [0.5, 0],
      [1, v.waist],
      [0.5, 1],
      [0, v.waist],
    ]),
  describe: (v) => `widest at ${percent(v.waist)}`,
});

const bulge = ratio('bulge', 'Bulge', 'bulge', 0.6, 0, 1);
/** Between a box and an ellipse, and on to a pillow: quarter curves with longer handles. */
export const cushion = shape({
  id: 'cushion',
  name: 'Cushion',
  family: 'Basics',
  keywords: ['pillow', 'soft box', 'rounded square'],
  params: [bulge],
  knobs: [slide(bulge, [0.28, 0.28], [0.02, 0.02])],
  draw(v, w, h, s) {
    const k = KAPPA + (1 - KAPPA) * v.bulge;
    const [x, y] = [(w / 2) * k, (h / 2) * k];
    s.moveTo(w, h / 2);
    s.curveTo(w, h / 2 + y, w / 2 + x, h, w / 2, h);
    s.curveTo(w / 2 - x, h, 0, h / 2 + y, 0, h / 2);
    s.curveTo(0, h / 2 - y, w / 2 - x, 0, w / 2, 0);
    s.curveTo(w / 2 + x, 0, w, h / 2 - y, w, h / 2);
    s.close();
  },
  describe: (v) => `${percent(v.bulge)} square`,
});

const ends = ratio('ends', 'Ends', 'ends', 0.5, 0.02, 0.5);
export const capsule = shape({
  id: 'capsule',
  name: 'Capsule',
  family: 'Basics',
  keywords: ['pill', 'lozenge', 'stadium', 'button'],
  proportion: 0.45,
  params: [ends],
  knobs: [slide(ends, [0.02, 0.5], [0.5, 0.5])],
  draw(v, w, h, s) {
    // At ½ the ends are half circles; less makes them flatter.
    const r = Math.min(v.ends * 2 * (h / 2), w / 2);
    s.moveTo(r, 0);
    s.lineTo(w - r, 0);
    arcTo(s, w - r, h / 2, r, h / 2, -90, 90);
    s.lineTo(r, h);
    arcTo(s, r, h / 2, r, h / 2, 90, 270);
    s.close();
  },
  describe: (v) => (v.ends > 0.495 ? 'round ends' : 'flat ends'),
});

const from = angle('from', 'From', 'from', 0, -180, 180);
const sweep = angle('sweep', 'Width', 'to', 270, 1, 360);
export const wedge = shape({
  id: 'wedge',
  name: 'Wedge',
  family: 'Basics',
  keywords: ['pie', 'slice', 'sector', 'cake', 'fan'],
  params: [from, sweep],
  knobs: [round(from), round(sweep, 1, (v) => v.from)],
  draw(v, w, h, s) {
    const [x, y] = onEllipse(w / 2, h / 2, w / 2, h / 2, v.from);
    if (v.sweep >= 359.99) s.moveTo(x, y);
    else {
      s.moveTo(w / 2, h / 2);
      s.lineTo(x, y);
    }
    arcTo(s, w / 2, h / 2, w / 2, h / 2, v.from, v.from + v.sweep);
    s.close();
  },
  describe: (v) => `${Math.round(v.sweep)}° wide`,
});

const arcFrom = angle('from', 'From', 'from', 180, -180, 180);
const arcSweep = angle('sweep', 'Length', 'to', 180, 1, 359);
const band = ratio('band', 'Band', 't', 0.3, 0.01, 0.99);
export const arcBand = shape({
  id: 'arcBand',
  name: 'Arc',
  family: 'Basics',
  keywords: ['rainbow', 'bow', 'part of a ring', 'gauge'],
  params: [arcFrom, arcSweep, band],
  knobs: [round(arcFrom), round(arcSweep, 1, (v) => v.from), slide(band, [0.5, 0.005], [0.5, 0.495])],
  draw(v, w, h, s) {
    const k = 1 - v.band;
    s.moveTo(...onEllipse(w / 2, h / 2, w / 2, h / 2, v.from));
    arcTo(s, w / 2, h / 2, w / 2, h / 2, v.from, v.from + v.sweep);
    s.lineTo(...onEllipse(w / 2, h / 2, (w / 2) * k, (h / 2) * k, v.from + v.sweep));
    arcTo(s, w / 2, h / 2, (w / 2) * k, (h / 2) * k, v.from + v.sweep, v.from);
    s.close();
  },
  describe: (v) => `${Math.round(v.sweep)}°, ${percent(v.band)} thick`,
});

const cut = ratio('cut', 'Cut', 'cut', 0.5, 0.05, 0.95);
/** A disc cut straight across. */
export const segmentOfDisc = shape({
  id: 'discSegment',
  name: 'Cut disc',
  family: 'Basics',
  keywords: ['half circle', 'semicircle', 'dome', 'bowl', 'segment'],
  params: [cut],
  knobs: [slide(cut, [0.5, 0.05], [0.5, 0.95])],
  draw(v, w, h, s) {
    const a = (Math.asin(2 * v.cut - 1) * 180) / Math.PI;
    s.moveTo(...onEllipse(w / 2, h / 2, w / 2, h / 2, 180 - a));
    arcTo(s, w / 2, h / 2, w / 2, h / 2, 180 - a, 360 + a);
    s.close();
  },
  describe: (v) => `cut at ${percent(v.cut)}`,
});

const arm = ratio('arm', 'Arm', 'arm', 0.34, 0.02, 0.98);
export const cross = shape({
  id: 'cross',
  name: 'Cross',
  family: 'Basics',
  keywords: ['plus', 'add', 'medical'],
  params: [arm],
  knobs: [slide(arm, [0.49, 0], [0.01, 0])],
  draw(v, w, h, s) {
    const [a, b] = [(1 - v.arm) / 2, (1 + v.arm) / 2];
    polyline(s, w, h, [
      [a, 0],
      [b, 0],
      [b, a],
      [1, a],
      [1, b],
      [b, b],
      [b, 1],
      [a, 1],
      [a, b],
      [0, b],
      [0, a],
      [a, a],
    ]);
  },
  describe: (v) => `arms ${percent(v.arm)} wide`,
});

const across = ratio('across', 'Upright', 'x', 0.35, 0.02, 0.98);
const down = ratio('down', 'Foot', 'y', 0.35, 0.02, 0.98);
export const elbow = shape({
  id: 'elbow',
  name: 'Elbow',
  family: 'Basics',
  keywords: ['corner', 'L', 'angle', 'bracket'],
  params: [across, down],
  knobs: [slide(across, [0.02, 0], [0.98, 0]), slide(down, [1, 0.98], [1, 0.02])],
  draw: (v, w, h, s) =>
    polyline(s, w, h, [
      [0, 0],
      [v.across, 0],
      [v.across, 1 - v.down],
      [1, 1 - v.down],
      [1, 1],
      [0, 1],
    ]),
  describe: (v) => `upright ${percent(v.across)}, foot ${percent(v.down)}`,
});

const rim = ratio('rim', 'Rim', 't', 0.12, 0.01, 0.49);
export const frame = shape({
  id: 'frame',
  name: 'Frame',
  family: 'Basics',
  keywords: ['border', 'box with a hole', 'mount', 'passe-partout'],
  proportion: 0.72,
  params: [rim],
  knobs: [slide(rim, [0.01, 0.5], [0.49, 0.5])],
  draw(v, w, h, s) {
    // The same width on all sides.
    const t = v.rim * Math.min(w, h);
    draw(rectPath({ x0: 0, y0: 0, x1: w, y1: h }), s);
    s.moveTo(t, t);
    s.lineTo(t, h - t);
    s.lineTo(w - t, h - t);
    s.lineTo(w - t, t);
    s.close();
  },
  describe: (v) => `rim ${percent(v.rim)}`,
});
