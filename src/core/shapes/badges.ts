import { addEllipse } from '../geometry/path';
import { spokes } from './basics';
import { arcTo, number, onEllipse, percent, ratio, slide } from './draw';
import { clamp, shape } from './types';

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

const rays = number('rays', 'Rays', 16, 3, 100);
const disc = ratio('disc', 'Disc', 'disc', 0.5, 0.05, 0.95);
const breadth = ratio('breadth', 'Breadth', 'b', 0.5, 0.05, 1);
/** A disc with rays that stand free of it. */
export const sun = shape({
  id: 'sun',
  name: 'Sun',
  family: 'Badges',
  keywords: ['rays', 'light', 'shine', 'day'],
  params: [rays, disc, breadth],
  knobs: [
    slide(disc, [0.525, 0.5], [0.975, 0.5]),
    slide(rays, [0.5, 1], [1, 1], 40),
    slide(breadth, [0.5, 0], [0.85, 0]),
  ],
  draw(v, w, h, s) {
    const n = Math.round(v.rays);
    const r = v.disc * 0.82;
    addEllipse(s, w / 2, h / 2, (w / 2) * r, (h / 2) * r);
    const half = (180 / n) * v.breadth;
    for (let i = 0; i < n; i++) {
      const a = (360 * i) / n - 90;
      s.moveTo(...onEllipse(w / 2, h / 2, (w / 2) * v.disc, (h / 2) * v.disc, a - half));
      s.lineTo(...onEllipse(w / 2, h / 2, w / 2, h / 2, a));
      s.lineTo(...onEllipse(w / 2, h / 2, (w / 2) * v.disc, (h / 2) * v.disc, a + half));
      s.close();
    }
  },
  describe: (v) => `${Math.round(v.rays)} rays, disc ${percent(v.disc)}`,
});

const scallops = number('scallops', 'Scallops', 16, 3, 100);
const swell = ratio('swell', 'Swell', 'swell', 0.5, 0.05, 1);
/** A disc with a scalloped edge, as under wax and on caps. */
export const seal = shape({
  id: 'seal',
  name: 'Seal',
  family: 'Badges',
  keywords: ['stamp', 'wax', 'scalloped', 'rosette', 'cookie', 'certificate'],
  params: [scallops, swell],
  knobs: [slide(swell, [0.5, 0], [0.5, 0.2]), slide(scallops, [0.5, 1], [1, 1], 48)],
  draw(v, w, h, s) {
    const n = Math.round(v.scallops);
    // The notches lie further in the more it swells, never further than half circles would put them.
    const notch = 1 - v.swell * Math.min(0.4, 3 / n);
    for (let i = 0; i < n; i++) {
      const a = (360 * i) / n - 90;
      const b = a + 360 / n;
      const p = onEllipse(w / 2, h / 2, (w / 2) * notch, (h / 2) * notch, a);
      const q = onEllipse(w / 2, h / 2, (w / 2) * notch, (h / 2) * notch, b);
      // The handles reach so far that the middle of the scallop lies on the box.
      const far = (1 + (1 - notch) / 3) / Math.cos(((180 / n) * Math.PI) / 180 / 3);
      if (i === 0) s.moveTo(...p);
      s.curveTo(
        ...onEllipse(w / 2, h / 2, (w / 2) * far, (h / 2) * far, a + 30 / n),
        ...onEllipse(w / 2, h / 2, (w / 2) * far, (h / 2) * far, b - 30 / n),
        ...q,
      );
    }
    s.close();
  },
  describe: (v) => `${Math.round(v.scallops)} scallops`,
});

const shoulder = ratio('shoulder', 'Shoulder', 'sh', 0.12, 0, 0.4);
const waistline = ratio('waist', 'Waist', 'waist', 0.5, 0.2, 0.85);
export const shield = shape({
  id: 'shield',
  name: 'Shield',
  family: 'Badges',
  keywords: ['crest', 'arms', 'guard', 'emblem'],
  params: [shoulder, waistline],
  knobs: [slide(shoulder, [0.5, 0], [0.5, 0.4]), slide(waistline, [1, 0.2], [1, 0.85])],
  draw(v, w, h, s) {
    const [a, b] = [v.shoulder * h, v.waist * h];
    s.moveTo(0, 0);
    s.curveTo(w * 0.2, 0, w * 0.4, a * 0.4, w / 2, a);
    s.curveTo(w * 0.6, a * 0.4, w * 0.8, 0, w, 0);
    s.lineTo(w, b);
    s.curveTo(w, b + (h - b) * 0.45, w * 0.75, h - (h - b) * 0.18, w / 2, h);
    s.curveTo(w * 0.25, h - (h - b) * 0.18, 0, b + (h - b) * 0.45, 0, b);
    s.close();
  },
  describe: (v) => `straight to ${percent(v.waist)}`,
});

const bite = ratio('bite', 'Bite', 'bite', 0.18, 0.02, 0.48);
const where = ratio('where', 'Place', 'x', 0.72, 0.1, 0.9);
/** An admission ticket: a bite at top and foot where the stub begins. */
export const ticket = shape({
  id: 'ticket',
  name: 'Ticket',
  family: 'Badges',
  keywords: ['coupon', 'stub', 'voucher', 'admission'],
  proportion: 0.5,
  params: [bite, where],
  knobs: [slide(bite, [0.5, 0.02], [0.5, 0.48]), slide(where, [0.1, 1], [0.9, 1])],
  draw(v, w, h, s) {
    const r = Math.min(v.bite * h, w * Math.min(v.where, 1 - v.where) - 1e-6);
    const x = v.where * w;
    s.moveTo(0, 0);
    s.lineTo(x - r, 0);
    arcTo(s, x, 0, r, r, 180, 0);
    s.lineTo(w, 0);
    s.lineTo(w, h);
    s.lineTo(x + r, h);
    arcTo(s, x, h, r, r, 0, -180);
    s.lineTo(0, h);
    s.close();
  },
  describe: (v) => `bite ${percent(v.bite)} at ${percent(v.where)}`,
});

const point = ratio('point', 'Point', 'p', 0.28, 0.05, 0.7);
const hole = ratio('hole', 'Hole', 'o', 0.16, 0, 0.45);
export const tag = shape({
  id: 'tag',
  name: 'Tag',
  family: 'Badges',
  keywords: ['label', 'price', 'luggage', 'gift'],
  proportion: 0.5,
  params: [point, hole],
  knobs: [slide(point, [0.05, 0], [0.7, 0]), slide(hole, [0.35, 0.5], [0.35, 0.95])],
  draw(v, w, h, s) {
    const x = v.point * w;
    s.moveTo(x, 0);
    s.lineTo(w, 0);
    s.lineTo(w, h);
    s.lineTo(x, h);
    s.lineTo(0, h * 0.68);
    s.lineTo(0, h * 0.32);
    s.close();
    const r = Math.min((v.hole * h) / 2, x * 0.45);
    if (r > 0) addEllipse(s, x * 0.62, h / 2, r, r, true);
  },
  describe: (v) => (v.hole > 0 ? `hole ${percent(v.hole)}` : 'no hole'),
});
