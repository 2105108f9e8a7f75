import { addEllipse, KAPPA } from '../geometry/path';
import { arcTo, number, onEllipse, percent, polyline, ratio, slide } from './draw';
import { shape } from './types';

const tipX = ratio('tip', 'Tip', 'tip', 0.2, 0, 1);
const length = ratio('length', 'Tail', 'tail', 0.25, 0.05, 0.6);

export const speechBox = shape({
  id: 'speechBox',
  name: 'Speech box',
  family: 'Speech',
  keywords: ['callout', 'balloon', 'comment', 'say'],
  proportion: 0.75,
  params: [tipX, length],
  knobs: [slide(tipX, [0, 1], [1, 1]), slide(length, [1, 0.95], [1, 0.4])],
  draw(v, w, h, s) {
    const y = h * (1 - v.length);
    const r = Math.min(w, y) * 0.12;
    const k = r * (1 - KAPPA);
    // The tail leaves the foot near its tip, and never out of a corner.
    const root = r + (w - 2 * r) * (0.1 + 0.65 * v.tip);
    const wide = (w - 2 * r) * 0.16;
    s.moveTo(r, 0);
    s.lineTo(w - r, 0);
    s.curveTo(w - k, 0, w, k, w, r);
    s.lineTo(w, y - r);
    s.curveTo(w, y - k, w - k, y, w - r, y);
    s.lineTo(root + wide, y);
    s.lineTo(v.tip * w, h);
    s.lineTo(root, y);
    s.lineTo(r, y);
    s.curveTo(k, y, 0, y - k, 0, y - r);
    s.lineTo(0, r);
    s.curveTo(0, k, k, 0, r, 0);
    s.close();
  },
  describe: (v) => `tail ${percent(v.length)}`,
});

export const speechOval = shape({
  id: 'speechOval',
  name: 'Speech oval',
  family: 'Speech',
  keywords: ['callout', 'balloon', 'bubble', 'say'],
  proportion: 0.8,
  params: [tipX, length],
  knobs: [slide(tipX, [0, 1], [1, 1]), slide(length, [1, 0.95], [1, 0.4])],
  draw(v, w, h, s) {
    const [rx, ry] = [w / 2, (h * (1 - v.length)) / 2];
    const at = 130 - 80 * v.tip;
    s.moveTo(...onEllipse(rx, ry, rx, ry, at + 11));
    arcTo(s, rx, ry, rx, ry, at + 11, at - 11 + 360);
    s.lineTo(v.tip * w, h);
    s.close();
  },
  describe: (v) => `tail ${percent(v.length)}`,
});

const bumps = number('bumps', 'Bumps', 10, 5, 30);
export const thought = shape({
  id: 'thought',
  name: 'Thought bubble',
  family: 'Speech',
  keywords: ['dream', 'idea', 'callout', 'cloud'],
  proportion: 0.85,
  params: [bumps, tipX],
  knobs: [slide(bumps, [0.5, 0], [1, 0], 24), slide(tipX, [0, 1], [1, 1])],
  draw(v, w, h, s) {
    const n = Math.round(v.bumps);
    const [cx, cy, rx, ry] = [w / 2, h * 0.36, w / 2, h * 0.36];
    const notch = 0.86;
    for (let i = 0; i < n; i++) {
      const [a, b] = [(360 * i) / n, (360 * (i + 1)) / n];
      if (i === 0) s.moveTo(...onEllipse(cx, cy, rx * notch, ry * notch, a));
      s.curveTo(
        ...onEllipse(cx, cy, rx * 1.08, ry * 1.08, a + 50 / n),
        ...onEllipse(cx, cy, rx * 1.08, ry * 1.08, b - 50 / n),
        ...onEllipse(cx, cy, rx * notch, ry * notch, b),
      );
    }
    s.close();
    // Two bubbles towards the thinker.
    const [x, y] = [v.tip * w, h];
    const r = Math.min(w, h) * 0.07;
    const large: [number, number] = [x + (cx - x) * 0.3, h * 0.82];
    addEllipse(s, large[0], large[1], r, r);
    addEllipse(s, Math.min(w - r * 0.6, Math.max(r * 0.6, x)), y - r * 0.6, r * 0.6, r * 0.6);
  },
  describe: (v) => `${Math.round(v.bumps)} bumps`,
});

const spikes = number('spikes', 'Spikes', 12, 5, 40);
const sharp = ratio('depth', 'Depth', 'depth', 0.35, 0.05, 0.8);
/** Uneven spikes, the same for the same numbers. */
export const shout = shape({
  id: 'shout',
  name: 'Shout',
  family: 'Speech',
  keywords: ['bang', 'burst', 'explosion', 'sale', 'callout'],
  proportion: 0.75,
  params: [spikes, sharp],
  knobs: [slide(sharp, [0.5, 0.025], [0.5, 0.4]), slide(spikes, [0.5, 1], [1, 1], 30)],
  draw(v, w, h, s) {
    const n = Math.round(v.spikes);
    polyline(
      s,
      1,
      1,
      Array.from({ length: 2 * n }, (_, i): [number, number] => {
        const uneven =
          i % 2 ? 1 - v.depth * (0.75 + 0.25 * Math.cos(i * 2.4)) : 1 - 0.12 * (1 + Math.sin(i * 1.7)) * v.depth;
        // The box is filled whatever the spikes do.
        const far = i % Math.max(2, Math.round(n / 2)) === 0 ? 1 : uneven;
        return onEllipse(w / 2, h / 2, (w / 2) * far, (h / 2) * far, (360 * i) / (2 * n) - 90);
      }),
    );
  },
  describe: (v) => `${Math.round(v.spikes)} spikes`,
});
