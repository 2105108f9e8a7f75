import { KAPPA, addEllipse, type PathSink } from '../geometry/path';
import { clamp, shape } from './types';

const percent = (x: number) => `${Math.round(x * 100)} %`;

const CORNERS = ['topLeft', 'topRight', 'bottomRight', 'bottomLeft'] as const;
const cornerParam = <I extends (typeof CORNERS)[number]>(id: I, label: string) => ({ id, label, letter: 'r', unit: 'length', min: 0, max: 100_000, initial: 0 }) as const;

/** Radii never overlap: all shrink by the same factor (CSS Backgrounds 3 §5.5). */
function fittedRadii(r: readonly number[], w: number, h: number): number[] {
  const f = Math.min(1, ...[w / (r[0] + r[1]), h / (r[1] + r[2]), w / (r[2] + r[3]), h / (r[3] + r[0])].filter(Number.isFinite));
  return r.map((x) => x * f);
}

export const rectangle = shape({
  id: 'rectangle',
  name: 'Rectangle',
  family: 'Basics',
  keywords: ['square', 'box', 'rounded'],
  params: [cornerParam('topLeft', 'Top left'), cornerParam('topRight', 'Top right'), cornerParam('bottomRight', 'Bottom right'), cornerParam('bottomLeft', 'Bottom left')],
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
function spokes(n: number, w: number, h: number, radius: (i: number) => number, s: PathSink): void {
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

export const star = shape({
  id: 'star',
  name: 'Star',
  family: 'Badges',
  keywords: ['sun', 'rays', 'points', 'burst'],
  params: [
    { id: 'points', label: 'Points', letter: 'n', unit: 'count', min: 3, max: 100, initial: 5 },
    { id: 'depth', label: 'Depth', letter: 'depth', unit: 'ratio', min: 0.01, max: 0.98, initial: 0.55 },
  ],
  knobs: [
    {
      param: 'depth',
      travels: 90,
      // On the notch to the right of the top point.
      at: (v, w, h) => {
        const a = Math.PI / v.points - Math.PI / 2;
        return { x: (w / 2) * (1 + (1 - v.depth) * Math.cos(a)), y: (h / 2) * (1 + (1 - v.depth) * Math.sin(a)) };
      },
      value: (p, _v, w, h) => clamp(1 - Math.hypot((2 * p.x) / w - 1, (2 * p.y) / h - 1), 0.01, 0.98),
    },
    {
      param: 'points',
      travels: 0,
      at: (v, w, h) => ({ x: w * (0.5 + 0.5 * ((v.points - 3) / 29)), y: h }),
      value: (p, _v, w) => Math.round(clamp(3 + ((p.x / w - 0.5) / 0.5) * 29, 3, 100)),
    },
  ],
  draw: (v, w, h, s) => spokes(2 * Math.round(v.points), w, h, (i) => (i % 2 ? 1 - v.depth : 1), s),
  describe: (v) => `${Math.round(v.points)} points, ${percent(v.depth)} deep`,
});

export const ring = shape({
  id: 'ring',
  name: 'Ring',
  family: 'Badges',
  keywords: ['circle', 'hoop', 'washer', 'donut'],
  params: [{ id: 'thickness', label: 'Thickness', letter: 't', unit: 'ratio', min: 0.01, max: 0.99, initial: 0.3 }],
  knobs: [
    {
      param: 'thickness',
      travels: 180,
      at: (v, w, h) => ({ x: w - (v.thickness * w) / 2, y: h / 2 }),
      value: (p, _v, w) => clamp((2 * (w - p.x)) / w, 0.01, 0.99),
    },
  ],
  draw(v, w, h, s) {
    addEllipse(s, w / 2, h / 2, w / 2, h / 2);
    addEllipse(s, w / 2, h / 2, (w / 2) * (1 - v.thickness), (h / 2) * (1 - v.thickness), true);
  },
  describe: (v) => `${percent(v.thickness)} thick`,
});

export const heart = shape({
  id: 'heart',
  name: 'Heart',
  family: 'Nature',
  keywords: ['love', 'valentine'],
  params: [{ id: 'dip', label: 'Dip', letter: 'dip', unit: 'ratio', min: 0.02, max: 0.6, initial: 0.22 }],
  knobs: [{ param: 'dip', travels: 90, at: (v, w, h) => ({ x: w / 2, y: v.dip * h }), value: (p, _v, _w, h) => clamp(p.y / h, 0.02, 0.6) }],
  draw(v, w, h, s) {
    const dip = v.dip * h;
    s.moveTo(w / 2, dip);
    s.curveTo(w * 0.58, dip * 0.25, w * 0.68, 0, w * 0.77, 0);
    s.curveTo(w * 0.9, 0, w, h * 0.13, w, h * 0.31);
    s.curveTo(w, h * 0.6, w * 0.68, h * 0.8, w / 2, h);
    s.curveTo(w * 0.32, h * 0.8, 0, h * 0.6, 0, h * 0.31);
    s.curveTo(0, h * 0.13, w * 0.1, 0, w * 0.23, 0);
    s.curveTo(w * 0.32, 0, w * 0.42, dip * 0.25, w / 2, dip);
    s.close();
  },
  describe: (v) => `dip ${percent(v.dip)}`,
});
