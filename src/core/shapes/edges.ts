import { arcTo, number, percent, polyline, ratio, slide } from './draw';
import { shape } from './types';

const tails = ratio('tails', 'Tails', 'tail', 0.18, 0.05, 0.4);
const cleft = ratio('cleft', 'Cleft', 'cut', 0.45, 0, 0.9);
const dropBy = ratio('drop', 'Drop', 'drop', 0.24, 0.05, 0.5);
/** A ribbon with its ends folded behind, each with a swallowtail. */
export const ribbon = shape({
  id: 'ribbon',
  name: 'Ribbon',
  family: 'Edges',
  keywords: ['banner', 'title', 'scroll', 'award'],
  proportion: 0.32,
  params: [tails, cleft, dropBy],
  knobs: [
    slide(tails, [0.05, 0], [0.4, 0]),
    slide(dropBy, [0.5, 0.95], [0.5, 0.5]),
    slide(cleft, [0, 0.62], [0.2, 0.62]),
  ],
  draw(v, w, h, s) {
    const [t, d] = [v.tails, v.drop];
    const fold = t * 0.5;
    const c = v.cleft * t * 0.75;
    polyline(s, w, h, [
      [t, 0],
      [1 - t, 0],
      [1 - t, 1 - d],
      [t, 1 - d],
    ]);
    for (const side of [0, 1]) {
      const X = (x: number) => (side ? 1 - x : x);
      const tail: [number, number][] = [
        [X(0), d],
        [X(t), d],
        [X(t), 1 - d],
        [X(t + fold), 1 - d],
        [X(t + fold), 1],
        [X(0), 1],
        [X(c), (d + 1) / 2],
      ];
      // The fold lies behind the band, so the tail only shows beside and below it.
      polyline(s, w, h, side ? tail : tail.reverse());
    }
  },
  describe: (v) => `tails ${percent(v.tails)}`,
});

const swing = ratio('swing', 'Swing', 'swing', 0.5, 0.05, 1);
/** A strip that waves once, as a flag or a title in the wind. */
export const banner = shape({
  id: 'banner',
  name: 'Waving banner',
  family: 'Edges',
  keywords: ['flag', 'wave', 'strip', 'title'],
  proportion: 0.4,
  params: [swing],
  knobs: [slide(swing, [0.25, 0.5], [0.25, 0])],
  draw(v, w, h, s) {
    // Cubics with handles at ±d reach 0.2887 d above and below their ends.
    const d = (h * 0.5 * v.swing) / (2 * 0.2887);
    const rise = d * 0.2887;
    s.moveTo(0, rise);
    s.curveTo(w / 3, rise - d, (2 * w) / 3, rise + d, w, rise);
    s.lineTo(w, h - rise);
    s.curveTo((2 * w) / 3, h - rise + d, w / 3, h - rise - d, 0, h - rise);
    s.close();
  },
  describe: (v) => `swings ${percent(v.swing)}`,
});

const lobes = number('lobes', 'Lobes', 8, 1, 80);
const lobeDepth = ratio('depth', 'Depth', 'depth', 0.4, 0.05, 0.95);
/** A strip with lobes along its foot: awnings, doilies, page edges. */
export const scallops = shape({
  id: 'scallops',
  name: 'Scalloped edge',
  family: 'Edges',
  keywords: ['awning', 'lace', 'border', 'curtain'],
  proportion: 0.22,
  params: [lobes, lobeDepth],
  knobs: [slide(lobes, [0.5, 1], [1, 1], 30), slide(lobeDepth, [0, 0.95], [0, 0.05])],
  draw(v, w, h, s) {
    const n = Math.round(v.lobes);
    const y = h * (1 - v.depth);
    const r = w / n / 2;
    s.moveTo(0, 0);
    s.lineTo(w, 0);
    s.lineTo(w, y);
    for (let i = n - 1; i >= 0; i--) arcTo(s, (2 * i + 1) * r, y, r, h - y, 0, 180);
    s.close();
  },
  describe: (v) => `${Math.round(v.lobes)} lobes`,
});

const rips = number('rips', 'Rips', 18, 3, 120);
const ripDepth = ratio('depth', 'Depth', 'depth', 0.35, 0.05, 0.9);
/** A strip torn along its foot: uneven, and the same for the same numbers. */
export const torn = shape({
  id: 'torn',
  name: 'Torn edge',
  family: 'Edges',
  keywords: ['paper', 'ripped', 'deckle', 'rough'],
  proportion: 0.3,
  params: [rips, ripDepth],
  knobs: [slide(rips, [0.5, 1], [1, 1], 60), slide(ripDepth, [0, 0.95], [0, 0.1])],
  draw(v, w, h, s) {
    const n = Math.round(v.rips);
    const points: [number, number][] = [
      [0, 0],
      [1, 0],
    ];
    for (let i = 2 * n; i >= 0; i--) {
      const deep = i % 2 ? 1 - 0.25 * (1 + Math.sin(i * 5.3)) : 0.35 * (1 + Math.cos(i * 3.1)) * 0.5;
      const shift = i === 0 || i === 2 * n ? 0 : 0.3 * Math.sin(i * 2.3);
      points.push([(i + shift) / (2 * n), 1 - v.depth + v.depth * (i === 1 ? 1 : deep)]);
    }
    polyline(s, w, h, points);
  },
  describe: (v) => `${Math.round(v.rips)} rips`,
});

const holes = number('holes', 'Holes', 9, 2, 60);
const holeSize = ratio('size', 'Hole size', 'o', 0.55, 0.1, 0.95);
/** A stamp: half holes along all four sides. */
export const stamp = shape({
  id: 'stamp',
  name: 'Stamp',
  family: 'Edges',
  keywords: ['postage', 'perforated', 'mail'],
  proportion: 0.78,
  params: [holes, holeSize],
  knobs: [slide(holes, [0.5, 1], [1, 1], 30), slide(holeSize, [0.5, 0], [0.7, 0])],
  draw(v, w, h, s) {
    const n = Math.round(v.holes);
    const pitch = w / n;
    const r = (pitch / 2) * v.size;
    const down = Math.max(2, Math.round(h / pitch));
    const step = h / down;
    s.moveTo(0, 0);
    for (let i = 0; i < n; i++) {
      const x = (i + 0.5) * pitch;
      s.lineTo(x - r, 0);
      arcTo(s, x, 0, r, r, 180, 0);
    }
    s.lineTo(w, 0);
    for (let i = 0; i < down; i++) {
      const y = (i + 0.5) * step;
      s.lineTo(w, y - r);
      arcTo(s, w, y, r, r, -90, -270);
    }
    s.lineTo(w, h);
    for (let i = n - 1; i >= 0; i--) {
      const x = (i + 0.5) * pitch;
      s.lineTo(x + r, h);
      arcTo(s, x, h, r, r, 0, -180);
    }
    s.lineTo(0, h);
    for (let i = down - 1; i >= 0; i--) {
      const y = (i + 0.5) * step;
      s.lineTo(0, y + r);
      arcTo(s, 0, y, r, r, 90, -90);
    }
    s.close();
  },
  describe: (v) => `${Math.round(v.holes)} holes across`,
});

const flags = number('flags', 'Flags', 5, 1, 40);
const sag = ratio('sag', 'Sag', 'sag', 0.3, 0, 0.8);
/** A row of pennants on a cord that sags. */
export const bunting = shape({
  id: 'bunting',
  name: 'Bunting',
  family: 'Edges',
  keywords: ['flags', 'garland', 'party', 'pennants'],
  proportion: 0.35,
  params: [flags, sag],
  knobs: [slide(flags, [0.5, 1], [1, 1], 16), slide(sag, [0, 0], [0, 0.8])],
  draw(v, w, h, s) {
    const n = Math.round(v.flags);
    const low = v.sag * h * 0.5;
    const cord = (x: number) => 4 * low * (x / w) * (1 - x / w);
    const cloth = h - low;
    for (let i = 0; i < n; i++) {
      const [a, b] = [(w * (i + 0.06)) / n, (w * (i + 0.94)) / n];
      s.moveTo(a, cord(a));
      s.lineTo(b, cord(b));
      s.lineTo((a + b) / 2, cord((a + b) / 2) + cloth);
      s.close();
    }
    // The cord itself, a thin band.
    const t = h * 0.03;
    s.moveTo(0, 0);
    s.curveTo(w / 3, (4 / 3) * low, (2 * w) / 3, (4 / 3) * low, w, 0);
    s.lineTo(w, t);
    s.curveTo((2 * w) / 3, (4 / 3) * low + t, w / 3, (4 / 3) * low + t, 0, t);
    s.close();
  },
  describe: (v) => `${Math.round(v.flags)} flags`,
});
