import { addEllipse } from '../geometry/path';
import { arcTo, number, onEllipse, percent, ratio, slide } from './draw';
import { clamp, shape } from './types';

export const heart = shape({
  id: 'heart',
  name: 'Heart',
  family: 'Nature',
  keywords: ['love', 'valentine'],
  params: [{ id: 'dip', label: 'Dip', letter: 'dip', unit: 'ratio', min: 0.02, max: 0.6, initial: 0.22 }],
  knobs: [
    {
      param: 'dip',
      travels: 90,
      at: (v, w, h) => ({ x: w / 2, y: v.dip * h }),
      value: (p, _v, _w, h) => clamp(p.y / h, 0.02, 0.6),
    },
  ],
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

const phase = ratio('phase', 'Phase', 'phase', 0.45, 0.05, 0.95);
/** Two arcs that share their ends: the outer a half circle, the inner flatter. */
export const crescent = shape({
  id: 'crescent',
  name: 'Crescent',
  family: 'Nature',
  keywords: ['moon', 'sickle', 'night'],
  proportion: 1.6,
  params: [phase],
  knobs: [slide(phase, [0.95, 0.5], [0.05, 0.5])],
  draw(v, w, h, s) {
    s.moveTo(w, 0);
    arcTo(s, w, h / 2, w, h / 2, -90, -270);
    arcTo(s, w, h / 2, w * (1 - v.phase), h / 2, 90, 270);
    s.close();
  },
  describe: (v) => `${percent(v.phase)} full`,
});

const neck = ratio('neck', 'Neck', 'neck', 0.5, 0.1, 0.9);
export const drop = shape({
  id: 'drop',
  name: 'Drop',
  family: 'Nature',
  keywords: ['water', 'rain', 'tear', 'oil'],
  proportion: 1.5,
  params: [neck],
  knobs: [slide(neck, [0.5, 0.1], [0.5, 0.9])],
  draw(v, w, h, s) {
    // The belly is an ellipse below; the neck runs straight down before it widens, the longer the further down.
    const belly = Math.min(h * 0.62, w);
    const y = h - belly / 2;
    s.moveTo(w / 2, 0);
    s.curveTo(w / 2 + w * 0.12 * (1 - v.neck), v.neck * y, w, y - belly * 0.32, w, y);
    arcTo(s, w / 2, y, w / 2, belly / 2, 0, 180);
    s.curveTo(0, y - belly * 0.32, w / 2 - w * 0.12 * (1 - v.neck), v.neck * y, w / 2, 0);
    s.close();
  },
  describe: (v) => `neck ${percent(v.neck)}`,
});

const belly = ratio('belly', 'Belly', 'b', 0.5, 0.1, 0.9);
export const leaf = shape({
  id: 'leaf',
  name: 'Leaf',
  family: 'Nature',
  keywords: ['petal', 'almond', 'plant', 'eye'],
  proportion: 0.5,
  params: [belly],
  knobs: [slide(belly, [0.1, 0], [0.9, 0])],
  draw(v, w, h, s) {
    const k = (4 / 3) * (h / 2);
    const [x0, x1] = [w * (v.belly - 0.5 + 0.22), w * (v.belly + 0.5 - 0.22)];
    const inside = (x: number) => clamp(x, 0, w);
    s.moveTo(0, h / 2);
    s.curveTo(inside(x0), h / 2 - k, inside(x1), h / 2 - k, w, h / 2);
    s.curveTo(inside(x1), h / 2 + k, inside(x0), h / 2 + k, 0, h / 2);
    s.close();
  },
  describe: (v) => `belly at ${percent(v.belly)}`,
});

const petals = number('petals', 'Petals', 6, 3, 40);
const cleft = ratio('cleft', 'Cleft', 'depth', 0.5, 0.05, 0.95);
export const flower = shape({
  id: 'flower',
  name: 'Flower',
  family: 'Nature',
  keywords: ['blossom', 'petals', 'daisy', 'rosette'],
  params: [petals, cleft],
  knobs: [slide(cleft, [0.5, 0.025], [0.5, 0.475]), slide(petals, [0.5, 1], [1, 1], 24)],
  draw(v, w, h, s) {
    const n = Math.round(v.petals);
    const inner = 1 - v.cleft;
    const at = (share: number, a: number) => onEllipse(w / 2, h / 2, (w / 2) * share, (h / 2) * share, a);
    for (let i = 0; i < n; i++) {
      const a = (360 * i) / n - 90 - 180 / n;
      const b = a + 360 / n;
      // A petal widens towards its top, and more so when there are few.
      const spread = Math.min(50, 110 / n);
      if (i === 0) s.moveTo(...at(inner, a));
      s.curveTo(...at(1.1, a + 180 / n - spread), ...at(1.1, b - 180 / n + spread), ...at(inner, b));
    }
    s.close();
  },
  describe: (v) => `${Math.round(v.petals)} petals, ${percent(v.cleft)} deep`,
});

const puff = ratio('puff', 'Puff', 'puff', 0.5, 0.3, 0.62);
/** Puffs on a flat foot: five arcs, the middle one highest. */
export const cloud = shape({
  id: 'cloud',
  name: 'Cloud',
  family: 'Nature',
  keywords: ['weather', 'sky', 'smoke'],
  proportion: 0.6,
  params: [puff],
  knobs: [slide(puff, [0.3, 0], [0.62, 0])],
  draw(v, w, h, s) {
    const x = v.puff * w;
    const r = h * 0.27;
    s.moveTo(r, h);
    arcTo(s, r, h - r, r, r, 90, 250);
    const left = onEllipse(r, h - r, r, r, 250);
    s.curveTo(left[0], h * 0.12, x - w * 0.1, -h * 0.04, x, 0);
    s.curveTo(x + w * 0.14, -h * 0.02, x + w * 0.22, h * 0.16, x + w * 0.2 + (w - x) * 0.05, h * 0.28);
    s.curveTo(w * 0.9, h * 0.2, w, h * 0.42, w - r * 0.6, h * 0.52);
    s.curveTo(w * 1.01, h * 0.6, w, h, w - r, h);
    s.close();
  },
  describe: (v) => `highest at ${percent(v.puff)}`,
});

const lick = ratio('lick', 'Lick', 'lick', 0.62, 0.28, 0.8);
export const flame = shape({
  id: 'flame',
  name: 'Flame',
  family: 'Nature',
  keywords: ['fire', 'candle', 'lantern', 'wick', 'light'],
  proportion: 1.6,
  params: [lick],
  knobs: [slide(lick, [0.28, 0], [0.8, 0])],
  draw(v, w, h, s) {
    const x = v.lick * w;
    s.moveTo(x, 0);
    s.curveTo(x - w * 0.02, h * 0.24, w, h * 0.38, w, h * 0.68);
    s.curveTo(w, h * 0.88, w * 0.78, h, w / 2, h);
    s.curveTo(w * 0.22, h, 0, h * 0.88, 0, h * 0.68);
    s.curveTo(0, h * 0.46, x - w * 0.22, h * 0.3, x, 0);
    s.close();
  },
  describe: (v) => `leans to ${percent(v.lick)}`,
});

const tail = ratio('tail', 'Tail', 'tail', 0.25, 0.08, 0.5);
export const fish = shape({
  id: 'fish',
  name: 'Fish',
  family: 'Nature',
  keywords: ['sea', 'harbour', 'swim'],
  proportion: 0.5,
  params: [tail],
  knobs: [slide(tail, [0.92, 0.5], [0.5, 0.5])],
  draw(v, w, h, s) {
    const x = w * (1 - v.tail);
    s.moveTo(0, h / 2);
    s.curveTo(w * 0.18, -h * 0.16, x - w * 0.12, -h * 0.1, x, h * 0.4);
    s.lineTo(w, 0);
    s.curveTo(w - w * v.tail * 0.3, h * 0.35, w - w * v.tail * 0.3, h * 0.65, w, h);
    s.lineTo(x, h * 0.6);
    s.curveTo(x - w * 0.12, h * 1.1, w * 0.18, h * 1.16, 0, h / 2);
    s.close();
    addEllipse(s, w * 0.15, h * 0.42, h * 0.05, h * 0.05, true);
  },
  describe: (v) => `tail ${percent(v.tail)}`,
});
