import { addEllipse } from '../geometry/path';
import { spokes } from './basics';
import { arcTo, number, onEllipse, percent, polyline, ratio, slide } from './draw';
import { shape } from './types';

const teeth = number('teeth', 'Teeth', 10, 4, 80);
const depth = ratio('depth', 'Depth', 'depth', 0.2, 0.03, 0.6);
const bore = ratio('hole', 'Hole', 'o', 0.3, 0, 0.9);
export const gear = shape({
  id: 'gear',
  name: 'Gear',
  family: 'Technical',
  keywords: ['cog', 'wheel', 'machine', 'settings'],
  params: [teeth, depth, bore],
  knobs: [
    slide(depth, [0.5, 0.015], [0.5, 0.3]),
    slide(teeth, [0.5, 1], [1, 1], 40),
    slide(bore, [0.5, 0.5], [0.95, 0.5]),
  ],
  draw(v, w, h, s) {
    const n = Math.round(v.teeth);
    const root = 1 - v.depth;
    const at = (share: number, a: number) => onEllipse(w / 2, h / 2, (w / 2) * share, (h / 2) * share, a);
    const step = 360 / n;
    s.moveTo(...at(root, -90 - step * 0.5));
    for (let i = 0; i < n; i++) {
      const a = -90 + i * step;
      // A tooth a little narrower at its top, arcs at root and top.
      arcTo(s, w / 2, h / 2, (w / 2) * root, (h / 2) * root, a - step * 0.5, a - step * 0.28);
      s.lineTo(...at(1, a - step * 0.18));
      arcTo(s, w / 2, h / 2, w / 2, h / 2, a - step * 0.18, a + step * 0.18);
      s.lineTo(...at(root, a + step * 0.28));
      arcTo(s, w / 2, h / 2, (w / 2) * root, (h / 2) * root, a + step * 0.28, a + step * 0.5);
    }
    s.close();
    const o = v.hole * root;
    if (o > 0) addEllipse(s, w / 2, h / 2, (w / 2) * o, (h / 2) * o, true);
  },
  describe: (v) => `${Math.round(v.teeth)} teeth, ${percent(v.depth)} deep`,
});

const sides = number('sides', 'Sides', 6, 3, 24);
export const nut = shape({
  id: 'nut',
  name: 'Nut',
  family: 'Technical',
  keywords: ['hexagon with a hole', 'bolt', 'machine', 'washer'],
  params: [sides, bore],
  knobs: [slide(bore, [0.5, 0.5], [0.95, 0.5]), slide(sides, [0.5, 1], [1, 1], 16)],
  draw(v, w, h, s) {
    const n = Math.round(v.sides);
    spokes(n, w, h, () => 1, s);
    const o = v.hole * Math.cos(Math.PI / n);
    if (o > 0) addEllipse(s, w / 2, h / 2, (w / 2) * o, (h / 2) * o, true);
  },
  describe: (v) => `${Math.round(v.sides)} sides, hole ${percent(v.hole)}`,
});

const kink = ratio('kink', 'Kink', 'kink', 0.5, 0.25, 0.75);
export const flash = shape({
  id: 'flash',
  name: 'Lightning',
  family: 'Technical',
  keywords: ['bolt', 'electric', 'power', 'storm'],
  proportion: 1.5,
  params: [kink],
  knobs: [slide(kink, [0, 0.25], [0, 0.75])],
  draw: (v, w, h, s) =>
    polyline(s, w, h, [
      [0.62, 0],
      [0, v.kink + 0.06],
      [0.46, v.kink + 0.04],
      [0.3, 1],
      [1, v.kink - 0.1],
      [0.54, v.kink - 0.08],
    ]),
  describe: (v) => `kink at ${percent(v.kink)}`,
});

const belly = ratio('belly', 'Belly', 'b', 0.3, 0, 0.9);
/** A barrel: flat head and foot, sides that bulge. */
export const barrel = shape({
  id: 'barrel',
  name: 'Barrel',
  family: 'Technical',
  keywords: ['lantern', 'cask', 'drum', 'keg'],
  proportion: 1.25,
  params: [belly],
  knobs: [slide(belly, [0.03, 0.5], [0.45, 0.5])],
  draw(v, w, h, s) {
    const x = (w / 2) * v.belly;
    // Handles a third beyond the edge: the curve just reaches the box.
    const far = x / 3;
    s.moveTo(x, 0);
    s.lineTo(w - x, 0);
    s.curveTo(w + far, h * 0.28, w + far, h * 0.72, w - x, h);
    s.lineTo(x, h);
    s.curveTo(-far, h * 0.72, -far, h * 0.28, x, 0);
    s.close();
  },
  describe: (v) => `belly ${percent(v.belly)}`,
});

const thick = ratio('thickness', 'Thickness', 't', 0.5, 0.1, 1);
/** What two discs share. */
export const lens = shape({
  id: 'lens',
  name: 'Lens',
  family: 'Technical',
  keywords: ['optics', 'eye', 'almond', 'vesica', 'pointed oval'],
  proportion: 1.7,
  params: [thick],
  knobs: [slide(thick, [0.55, 0.5], [1, 0.5])],
  draw(v, w, h, s) {
    const x = (w / 2) * v.thickness;
    s.moveTo(w / 2, 0);
    s.curveTo(w / 2 + x * (4 / 3), h * 0.28, w / 2 + x * (4 / 3), h * 0.72, w / 2, h);
    s.curveTo(w / 2 - x * (4 / 3), h * 0.72, w / 2 - x * (4 / 3), h * 0.28, w / 2, 0);
    s.close();
  },
  describe: (v) => `${percent(v.thickness)} thick`,
});

const flare = ratio('flare', 'Foot', 'foot', 0.7, 0.2, 1);
export const keyhole = shape({
  id: 'keyhole',
  name: 'Keyhole',
  family: 'Technical',
  keywords: ['lock', 'door', 'secret'],
  proportion: 1.6,
  params: [flare],
  knobs: [slide(flare, [0.6, 1], [1, 1])],
  draw(v, w, h, s) {
    const r = Math.min(w / 2, h * 0.3);
    const k = w / 2 / r;
    const a = onEllipse(w / 2, r, r * k, r, 120);
    s.moveTo((w / 2) * (1 - v.flare), h);
    s.lineTo(...a);
    arcTo(s, w / 2, r, r * k, r, 120, 420);
    s.lineTo((w / 2) * (1 + v.flare), h);
    s.close();
  },
  describe: (v) => `foot ${percent(v.flare)}`,
});
