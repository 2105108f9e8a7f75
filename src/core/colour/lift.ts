import { contrastRatio, luminance, oklabToSrgb, srgbToOklab } from './models';
import { clip01, type Triple } from './spaces';
import { mapTuple } from '../units/tuple';

/** What a lifted palette is chosen for. */
export const PURPOSES = [
  { id: 'asSeen', name: 'As seen', says: 'the colours that make the picture, small accents among them' },
  { id: 'farApart', name: 'Far apart', says: 'colours that are easily told from each other' },
  { id: 'lowInk', name: 'Low ink', says: 'colours that need little ink' },
  { id: 'groundAndText', name: 'Ground and text', says: 'a ground first, then colours that can be read on it' },
  { id: 'closeKin', name: 'Close kin', says: 'colours of one family of hues' },
] as const;
export type Purpose = (typeof PURPOSES)[number]['id'];
/** Is it the name of a purpose? */
export const isPurpose = (text: string): text is Purpose => PURPOSES.some((p) => p.id === text);

export interface LiftOptions {
  /** 3…8. */
  readonly count: number;
  readonly purpose: Purpose;
  /** Sum of inks of an sRGB colour, 1 = 100 %. Without it the darkness of the light is taken. */
  readonly inkOf?: (rgb: Triple) => number;
}
export interface Lifted {
  /** sRGB 0…1. */
  readonly rgb: Triple;
  /** Share of the picture that lies nearest to this colour, 0…1. */
  readonly share: number;
}

interface Bin {
  readonly lab: Triple;
  readonly rgb: Triple;
  readonly count: number;
  weight: number;
}

const ROUNDS = 24;
/** Clusters from which the choosing purposes pick. */
const CANDIDATES = 24;
/** A cluster smaller than this is noise, not an accent. */
const LEAST_SHARE = 0.001;
/** WCAG 2.2, 1.4.3: text of ordinary size. */
const READABLE = 4.5;

/**
 * Lifts three to eight colours from RGBA pixels. Colours are counted in cells of 5 bits, weighed by the square root of
 * their count, so that a small strong accent is heard, and gathered in OKLab: seeds far apart, then k-means. The same
 * pixels give the same palette. Fewer colours than asked for only where the picture has fewer.
 */
export function liftPalette(pixels: Uint8ClampedArray | Uint8Array, options: LiftOptions): Lifted[] {
  if (!(options.count >= 3 && options.count <= 8))
    throw new Error(`a palette has 3 to 8 colours, not ${options.count}`);
  const bins = countBins(pixels);
  if (!bins.length) return [];
  const chosen = choose(bins, options);
  return shares(bins, chosen);
}

function choose(bins: Bin[], { count, purpose, inkOf = darkness }: LiftOptions): Triple[] {
  switch (purpose) {
    case 'asSeen':
      return heard(gather(bins, count), bins).map((b) => b.rgb);
    case 'closeKin': {
      const hue = mainHue(bins);
      for (const b of bins) b.weight *= kinship(b.lab, hue);
      const kin = bins.filter((b) => b.weight > 1e-6);
      return heard(gather(kin.length ? kin : bins, count), bins).map((b) => b.rgb);
    }
    case 'farApart':
      return pick(candidates(bins), count, () => 1);
    case 'lowInk': {
      const all = candidates(bins);
      const ink = new Map(all.map((b) => [b, inkOf(b.rgb)]));
      const least = [...all].sort((a, b) => ink.get(a)! - ink.get(b)!);
      // The lighter half is chosen from, and there little ink counts for more than being far apart.
      return pick(least.slice(0, Math.max(count, Math.ceil(all.length / 2))), count, (b) =>
        Math.exp(-1.5 * ink.get(b)!),
      );
    }
    case 'groundAndText':
      return groundAndText(candidates(bins), count);
    default:
      return purpose satisfies never;
  }
}

/** The largest clusters of the picture, noise left out. */
const candidates = (bins: Bin[]): Bin[] => heard(gather(bins, CANDIDATES), bins);

/** Clusters that are more than noise; all of them where none is. */
function heard(clusters: Bin[], bins: readonly Bin[]): Bin[] {
  const total = bins.reduce((n, b) => n + b.count, 0);
  const real = clusters.filter((b) => b.count >= LEAST_SHARE * total);
  return real.length ? real : clusters;
}

/** Greedy: the weightiest first, then always the one farthest from those chosen, times its worth. */
function pick(from: readonly Bin[], count: number, worth: (b: Bin) => number): Triple[] {
  const chosen: Bin[] = [];
  const far = from.map(() => Infinity);
  while (chosen.length < Math.min(count, from.length)) {
    let best = -1;
    let most = 0;
    from.forEach((b, i) => {
      const score = chosen.length ? far[i] * worth(b) : Math.sqrt(b.count) * worth(b);
      if (far[i] > 0 && (best < 0 || score > most)) [best, most] = [i, score];
    });
    if (best < 0) break;
    chosen.push(from[best]);
    from.forEach((b, i) => (far[i] = Math.min(far[i], distance2(b.lab, from[best].lab))));
  }
  return chosen.map((b) => b.rgb);
}

function groundAndText(from: readonly Bin[], count: number): Triple[] {
  // A ground lets something be read on it: it is light or dark, and there is much of it.
  const suits = (b: Bin) => {
    const y = luminance(b.rgb);
    return b.count * Math.max(contrastRatio(y, 0), contrastRatio(y, 1)) ** 2;
  };
  const ground = [...from].sort((a, b) => suits(b) - suits(a))[0];
  const y = luminance(ground.rgb);
  const reads = (b: Bin, least: number) => contrastRatio(luminance(b.rgb), y) >= least;
  const others = from.filter((b) => b !== ground);
  const text = pick(
    others.filter((b) => reads(b, READABLE)),
    count - 1,
    (b) => contrastRatio(luminance(b.rgb), y),
  );
  const out = [ground.rgb, ...text];
  // What the picture has not in a readable form is made darker or lighter until it reads.
  for (const b of [...others].sort((a, c) => Math.hypot(c.lab[1], c.lab[2]) - Math.hypot(a.lab[1], a.lab[2]))) {
    if (out.length >= count) break;
    if (!reads(b, READABLE)) out.push(untilReadable(b.lab, y));
  }
  return out;
}

function untilReadable([l, a, b]: Triple, ground: number): Triple {
  const step = contrastRatio(ground, 0) > contrastRatio(ground, 1) ? -0.01 : 0.01;
  for (let at = l; ; at += step) {
    const share = step < 0 ? at / l : (1 - at) / (1 - l || 1);
    const rgb = mapTuple(oklabToSrgb([at, a * share, b * share]), clip01);
    if (at <= 0 || at >= 1 || contrastRatio(luminance(rgb), ground) >= READABLE)
      return mapTuple(rgb, (v) => Math.round(v * 255) / 255);
  }
}

/** k-means in OKLab from seeds far apart. A cluster is stood for by its own bin nearest to the middle. */
function gather(bins: readonly Bin[], wanted: number): Bin[] {
  const k = Math.min(wanted, bins.length);
  const centres: Triple[] = [];
  const near = new Float64Array(bins.length).fill(Infinity);
  while (centres.length < k) {
    let best = -1;
    let most = 0;
    bins.forEach((b, i) => {
      const score = centres.length ? near[i] * b.weight : b.weight;
      if (best < 0 || score > most) [best, most] = [i, score];
    });
    if (most === 0) break;
    const seed = bins[best].lab;
    centres.push(seed);
    bins.forEach((b, i) => (near[i] = Math.min(near[i], distance2(b.lab, seed))));
  }
  const home = new Int32Array(bins.length);
  for (let round = 0; round < ROUNDS; round++) {
    const sums = centres.map(() => [0, 0, 0, 0]);
    let moved = round === 0;
    bins.forEach((b, i) => {
      const c = nearest(b.lab, centres);
      if (c !== home[i]) moved = true;
      home[i] = c;
      const s = sums[c];
      s[0] += b.weight;
      for (let j = 0; j < 3; j++) s[j + 1] += b.weight * b.lab[j];
    });
    if (!moved) break;
    sums.forEach((s, c) => {
      if (s[0] > 0) centres[c] = [s[1] / s[0], s[2] / s[0], s[3] / s[0]];
    });
  }
  const out: Bin[] = [];
  centres.forEach((centre, c) => {
    let best: Bin | null = null;
    let count = 0;
    bins.forEach((b, i) => {
      if (home[i] !== c) return;
      count += b.count;
      if (!best || standing(b, centre) > standing(best, centre)) best = b;
    });
    if (best) out.push({ ...(best as Bin), count });
  });
  return out.sort((a, b) => b.count - a.count);
}

/** A large bin a little off stands better for a cluster than a stray one in its very middle: flat colours are meant. */
const standing = (b: Bin, centre: Triple): number => b.count / (distance2(b.lab, centre) + 0.001);

function nearest(lab: Triple, centres: readonly Triple[]): number {
  let best = 0;
  let least = Infinity;
  for (let c = 0; c < centres.length; c++) {
    const d = distance2(lab, centres[c]);
    if (d < least) [best, least] = [c, d];
  }
  return best;
}

function shares(bins: readonly Bin[], colours: readonly Triple[]): Lifted[] {
  const labs = colours.map(srgbToOklab);
  const counts = colours.map(() => 0);
  let total = 0;
  for (const b of bins) {
    counts[nearest(b.lab, labs)] += b.count;
    total += b.count;
  }
  return colours.map((rgb, i) => ({ rgb, share: counts[i] / total }));
}

function countBins(pixels: Uint8ClampedArray | Uint8Array): Bin[] {
  const counts = new Uint32Array(32768);
  const sums = new Float64Array(32768 * 3);
  for (let i = 0; i < pixels.length; i += 4) {
    if (pixels[i + 3] < 128) continue;
    const key = ((pixels[i] >> 3) << 10) | ((pixels[i + 1] >> 3) << 5) | (pixels[i + 2] >> 3);
    counts[key]++;
    sums[3 * key] += pixels[i];
    sums[3 * key + 1] += pixels[i + 1];
    sums[3 * key + 2] += pixels[i + 2];
  }
  const bins: Bin[] = [];
  for (let key = 0; key < 32768; key++) {
    const count = counts[key];
    if (!count) continue;
    const rgb = mapTuple<Triple>([0, 1, 2], (j) => Math.round(sums[3 * key + j] / count) / 255);
    bins.push({ rgb, lab: srgbToOklab(rgb), count, weight: Math.sqrt(count) });
  }
  return bins;
}

/** The hue, in degrees, that most strong colour gathers round. */
function mainHue(bins: readonly Bin[]): number {
  const ring = new Float64Array(36);
  for (const { lab, weight } of bins) {
    const chroma = Math.hypot(lab[1], lab[2]);
    ring[Math.floor((hueOf(lab) / 360) * 36) % 36] += weight * chroma;
  }
  let best = 0;
  const around = (i: number) => ring[(i + 35) % 36] + 2 * ring[i] + ring[(i + 1) % 36];
  for (let i = 1; i < 36; i++) if (around(i) > around(best)) best = i;
  return best * 10 + 5;
}

/** 1 for the family's own hue, falling to nothing 45° away; greys, which have none, count for little. */
function kinship(lab: Triple, hue: number): number {
  const off = Math.abs(((hueOf(lab) - hue + 540) % 360) - 180);
  const chroma = Math.min(1, Math.hypot(lab[1], lab[2]) / 0.04);
  return off >= 45 ? 0 : chroma * Math.cos((off * 2 * Math.PI) / 180);
}

const hueOf = (lab: Triple): number => ((Math.atan2(lab[2], lab[1]) * 180) / Math.PI + 360) % 360;
const darkness = (rgb: Triple): number => 3 - rgb[0] - rgb[1] - rgb[2];

function distance2(a: Triple, b: Triple): number {
  const x = a[0] - b[0];
  const y = a[1] - b[1];
  const z = a[2] - b[2];
  return x * x + y * y + z * z;
}
