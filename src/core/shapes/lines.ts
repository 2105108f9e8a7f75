import { arcTo, angle, number, onEllipse, percent, ratio, round, slide } from './draw';
import { shape } from './types';

const turns = ratio('turns', 'Turns', 'n', 3, 0.5, 20);
const start = ratio('start', 'Middle', 'o', 0, 0, 0.9);
/** From the middle outwards, evenly; eight curves a turn, each with the direction of the spiral at both ends. */
export const spiral = shape({
  id: 'spiral',
  name: 'Spiral',
  family: 'Lines',
  keywords: ['coil', 'snail', 'swirl', 'curl'],
  open: true,
  params: [turns, start],
  knobs: [slide(turns, [0.5, 1], [1, 1], 10), slide(start, [0.5, 0.5], [0.95, 0.5])],
  draw(v, w, h, s) {
    const total = v.turns * 2 * Math.PI;
    const n = Math.max(4, Math.ceil(v.turns * 8));
    const grow = (1 - v.start) / total;
    const at = (t: number) => {
      const r = v.start + grow * t;
      return {
        x: r * Math.cos(t),
        y: r * Math.sin(t),
        dx: grow * Math.cos(t) - r * Math.sin(t),
        dy: grow * Math.sin(t) + r * Math.cos(t),
      };
    };
    const X = (x: number) => w / 2 + (w / 2) * x;
    const Y = (y: number) => h / 2 + (h / 2) * y;
    let p = at(0);
    s.moveTo(X(p.x), Y(p.y));
    const third = total / n / 3;
    for (let i = 1; i <= n; i++) {
      const q = at((total * i) / n);
      s.curveTo(
        X(p.x + p.dx * third),
        Y(p.y + p.dy * third),
        X(q.x - q.dx * third),
        Y(q.y - q.dy * third),
        X(q.x),
        Y(q.y),
      );
      p = q;
    }
  },
  describe: (v) => `${Math.round(v.turns * 10) / 10} turns`,
});

const zigs = number('zigs', 'Peaks', 6, 1, 60);
export const zigzag = shape({
  id: 'zigzag',
  name: 'Zigzag',
  family: 'Lines',
  keywords: ['saw', 'teeth', 'pinking'],
  open: true,
  proportion: 0.25,
  params: [zigs],
  knobs: [slide(zigs, [0.5, 1], [1, 1], 24)],
  draw(v, w, h, s) {
    const n = 2 * Math.round(v.zigs);
    for (let i = 0; i <= n; i++) {
      const [x, y] = [(w * i) / n, i % 2 ? 0 : h];
      if (i) s.lineTo(x, y);
      else s.moveTo(x, y);
    }
  },
  describe: (v) => `${Math.round(v.zigs)} peaks`,
});

const waves = number('waves', 'Waves', 3, 1, 40);
/** Half waves as cubics with level ends: within 1 % of a sine. */
export const ripple = shape({
  id: 'ripple',
  name: 'Ripple',
  family: 'Lines',
  keywords: ['wave', 'water', 'sine', 'wavy line'],
  open: true,
  proportion: 0.25,
  params: [waves],
  knobs: [slide(waves, [0.5, 1], [1, 1], 16)],
  draw(v, w, h, s) {
    const n = 2 * Math.round(v.waves);
    const step = w / n;
    s.moveTo(0, 0);
    for (let i = 0; i < n; i++) {
      const [a, b] = i % 2 ? [h, 0] : [0, h];
      s.curveTo(step * (i + 0.3642), a, step * (i + 0.6358), b, step * (i + 1), b);
    }
  },
  describe: (v) => `${Math.round(v.waves)} waves`,
});

const from = angle('from', 'From', 'from', 180, -180, 180);
const sweep = angle('sweep', 'Length', 'to', 180, 1, 359);
export const arcLine = shape({
  id: 'arcLine',
  name: 'Arc line',
  family: 'Lines',
  keywords: ['bow', 'curve', 'part of a circle'],
  open: true,
  params: [from, sweep],
  knobs: [round(from), round(sweep, 1, (v) => v.from)],
  draw(v, w, h, s) {
    s.moveTo(...onEllipse(w / 2, h / 2, w / 2, h / 2, v.from));
    arcTo(s, w / 2, h / 2, w / 2, h / 2, v.from, v.from + v.sweep);
  },
  describe: (v) => `${Math.round(v.sweep)}° long`,
});

const nose = ratio('nose', 'Nose', 'nose', 0.5, 0.15, 0.85);
export const brace = shape({
  id: 'brace',
  name: 'Brace',
  family: 'Lines',
  keywords: ['curly bracket', 'accolade', 'parenthesis'],
  open: true,
  proportion: 3,
  params: [nose],
  knobs: [slide(nose, [0, 0.15], [0, 0.85])],
  draw(v, w, h, s) {
    const y = v.nose * h;
    const r = Math.min(h * 0.12, y, h - y);
    s.moveTo(w, 0);
    s.curveTo(w / 2, 0, w / 2, r * 0.4, w / 2, r);
    s.lineTo(w / 2, y - r);
    s.curveTo(w / 2, y - r * 0.3, w * 0.3, y, 0, y);
    s.curveTo(w * 0.3, y, w / 2, y + r * 0.3, w / 2, y + r);
    s.lineTo(w / 2, h - r);
    s.curveTo(w / 2, h - r * 0.4, w / 2, h, w, h);
  },
  describe: (v) => `nose at ${percent(v.nose)}`,
});
