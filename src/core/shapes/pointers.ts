import { addEllipse } from '../geometry/path';
import { arcTo, percent, polyline, ratio, slide } from './draw';
import { clamp, shape } from './types';

export const chevron = shape({
  id: 'chevron',
  name: 'Chevron',
  family: 'Pointers',
  keywords: ['arrow', 'angle', 'pointer'],
  proportion: 0.72,
  params: [{ id: 'depth', label: 'Depth', letter: 'depth', unit: 'ratio', min: 0.02, max: 0.98, initial: 0.4 }],
  knobs: [
    {
      param: 'depth',
      travels: 0,
      at: (v, w) => ({ x: w * (1 - v.depth), y: 0 }),
      value: (p, _v, w) => clamp(1 - p.x / w, 0.02, 0.98),
    },
  ],
  draw(v, w, h, s) {
    const d = v.depth * w;
    s.moveTo(0, 0);
    s.lineTo(w - d, 0);
    s.lineTo(w, h / 2);
    s.lineTo(w - d, h);
    s.lineTo(0, h);
    s.lineTo(d, h / 2);
    s.close();
  },
  describe: (v) => `${Math.round(v.depth * 100)} % deep`,
});

export const arrow = shape({
  id: 'arrow',
  name: 'Arrow',
  family: 'Pointers',
  keywords: ['pointer', 'direction'],
  proportion: 0.72,
  params: [
    { id: 'head', label: 'Head', letter: 'head', unit: 'ratio', min: 0.05, max: 1, initial: 0.4 },
    { id: 'shaft', label: 'Shaft', letter: 'shaft', unit: 'ratio', min: 0.02, max: 1, initial: 0.45 },
  ],
  knobs: [
    {
      param: 'head',
      travels: 0,
      at: (v, w) => ({ x: w * (1 - v.head), y: 0 }),
      value: (p, _v, w) => clamp(1 - p.x / w, 0.05, 1),
    },
    {
      param: 'shaft',
      travels: 90,
      at: (v, _w, h) => ({ x: 0, y: (h / 2) * (1 - v.shaft) }),
      value: (p, _v, _w, h) => clamp(1 - (2 * p.y) / h, 0.02, 1),
    },
  ],
  draw(v, w, h, s) {
    const x = w * (1 - v.head);
    const y0 = (h / 2) * (1 - v.shaft);
    const y1 = h - y0;
    s.moveTo(0, y0);
    s.lineTo(x, y0);
    s.lineTo(x, 0);
    s.lineTo(w, h / 2);
    s.lineTo(x, h);
    s.lineTo(x, y1);
    s.lineTo(0, y1);
    s.close();
  },
  describe: (v) => `head ${Math.round(v.head * 100)} %, shaft ${Math.round(v.shaft * 100)} %`,
});

const heads = ratio('head', 'Heads', 'head', 0.26, 0.05, 0.5);
const thin = ratio('shaft', 'Shaft', 'shaft', 0.4, 0.02, 1);
export const doubleArrow = shape({
  id: 'doubleArrow',
  name: 'Two-way arrow',
  family: 'Pointers',
  keywords: ['both ways', 'double arrow', 'resize'],
  proportion: 0.55,
  params: [heads, thin],
  knobs: [slide(heads, [0.95, 0], [0.5, 0]), slide(thin, [0.5, 0.49], [0.5, 0])],
  draw(v, w, h, s) {
    const [a, b] = [(1 - v.shaft) / 2, (1 + v.shaft) / 2];
    polyline(s, w, h, [
      [0, 0.5],
      [v.head, 0],
      [v.head, a],
      [1 - v.head, a],
      [1 - v.head, 0],
      [1, 0.5],
      [1 - v.head, 1],
      [1 - v.head, b],
      [v.head, b],
      [v.head, 1],
    ]);
  },
  describe: (v) => `heads ${percent(v.head)}, shaft ${percent(v.shaft)}`,
});

const barb = ratio('barb', 'Barb', 'barb', 0.35, 0.05, 0.9);
/** An arrow’s head alone, hollow behind. */
export const arrowhead = shape({
  id: 'arrowhead',
  name: 'Arrowhead',
  family: 'Pointers',
  keywords: ['cursor', 'compass needle', 'direction', 'play'],
  params: [barb],
  knobs: [slide(barb, [0.05, 0.5], [0.9, 0.5])],
  draw: (v, w, h, s) =>
    polyline(s, w, h, [
      [0, 0],
      [1, 0.5],
      [0, 1],
      [v.barb, 0.5],
    ]),
  describe: (v) => `${percent(v.barb)} hollow`,
});

const bow = ratio('bow', 'Thickness', 't', 0.3, 0.06, 0.6);
const bentHead = ratio('head', 'Head', 'head', 0.35, 0.1, 0.8);
/** Up, round a corner, and to the right. */
export const bentArrow = shape({
  id: 'bentArrow',
  name: 'Bent arrow',
  family: 'Pointers',
  keywords: ['turn', 'round the corner', 'right'],
  params: [bow, bentHead],
  knobs: [slide(bow, [0.06, 1], [0.6, 1]), slide(bentHead, [0.9, 0], [0.2, 0])],
  draw(v, w, h, s) {
    const t = v.bow * w;
    const head = v.head * w;
    // The head is twice as high as the shaft, the shaft as thick as the upright is wide, as far as there is room.
    const wing = Math.min(t * 0.6, h * 0.2);
    const y0 = wing;
    const y1 = Math.min(y0 + t, h * 0.7);
    s.moveTo(0, h);
    s.lineTo(0, y1);
    s.curveTo(0, y0 + (y1 - y0) * 0.45, t * 0.45, y0, t, y0);
    s.lineTo(w - head, y0);
    s.lineTo(w - head, 0);
    s.lineTo(w, (y0 + y1) / 2);
    s.lineTo(w - head, y1 + wing);
    s.lineTo(w - head, y1);
    s.lineTo(t, y1);
    s.lineTo(t, h);
    s.close();
  },
  describe: (v) => `${percent(v.bow)} thick`,
});

const swallow = ratio('notch', 'Notch', 'notch', 0.25, 0, 0.8);
export const pennant = shape({
  id: 'pennant',
  name: 'Pennant',
  family: 'Pointers',
  keywords: ['flag', 'bunting', 'swallowtail', 'bookmark'],
  proportion: 0.6,
  params: [swallow],
  knobs: [slide(swallow, [1, 0.5], [0.2, 0.5])],
  draw: (v, w, h, s) =>
    polyline(s, w, h, [
      [0, 0],
      [1, 0],
      [1 - v.notch, 0.5],
      [1, 1],
      [0, 1],
    ]),
  describe: (v) => `notch ${percent(v.notch)}`,
});

const eyelet = ratio('hole', 'Hole', 'o', 0.38, 0, 0.85);
/** A head that runs to a point below: the mark of a place. */
export const pin = shape({
  id: 'pin',
  name: 'Place pin',
  family: 'Pointers',
  keywords: ['map', 'location', 'here', 'marker'],
  proportion: 1.4,
  params: [eyelet],
  knobs: [slide(eyelet, [0.5, 0.36], [0.92, 0.36])],
  draw(v, w, h, s) {
    const r = Math.min(w / 2, h * 0.36);
    const [cx, cy] = [w / 2, r];
    const k = w / 2 / r;
    s.moveTo(w / 2, h);
    s.curveTo(w * 0.42, h * 0.78, 0, cy + r * 0.95, 0, cy);
    arcTo(s, cx, cy, r * k, r, 180, 360);
    s.curveTo(w, cy + r * 0.95, w * 0.58, h * 0.78, w / 2, h);
    s.close();
    const o = v.hole * r;
    if (o > 0) addEllipse(s, cx, cy, o * k, o, true);
  },
  describe: (v) => (v.hole > 0 ? `hole ${percent(v.hole)}` : 'no hole'),
});
