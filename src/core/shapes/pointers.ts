import { clamp, shape } from './types';

export const chevron = shape({
  id: 'chevron',
  name: 'Chevron',
  family: 'Pointers',
  keywords: ['arrow', 'angle', 'pointer'],
  params: [{ id: 'depth', label: 'Depth', letter: 'depth', unit: 'ratio', min: 0.02, max: 0.98, initial: 0.4 }],
  knobs: [{ param: 'depth', travels: 0, at: (v, w) => ({ x: w * (1 - v.depth), y: 0 }), value: (p, _v, w) => clamp(1 - p.x / w, 0.02, 0.98) }],
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
  params: [
    { id: 'head', label: 'Head', letter: 'head', unit: 'ratio', min: 0.05, max: 1, initial: 0.4 },
    { id: 'shaft', label: 'Shaft', letter: 'shaft', unit: 'ratio', min: 0.02, max: 1, initial: 0.45 },
  ],
  knobs: [
    { param: 'head', travels: 0, at: (v, w) => ({ x: w * (1 - v.head), y: 0 }), value: (p, _v, w) => clamp(1 - p.x / w, 0.05, 1) },
    { param: 'shaft', travels: 90, at: (v, _w, h) => ({ x: 0, y: (h / 2) * (1 - v.shaft) }), value: (p, _v, _w, h) => clamp(1 - (2 * p.y) / h, 0.02, 1) },
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
