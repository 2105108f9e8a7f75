import { deltaE00 } from '../colour/compare';
import { srgbToLab, type Triple } from '../colour/spaces';
import type { Tone } from '../model/pictureSchema';
import { PictureSource, SAMPLES, type Pixels } from '../pictures/source';

/** Differences are worked out for colours of six bits a channel: finer than any tolerance. */
const BITS = 6;

/**
 * The picture without its surround: the colour of its edge (the most frequent one there), and all that looks like it
 * within `tolerance` ΔE00 and is joined to the edge. Up to `soft` more it fades in; what the surround had mixed into
 * those pixels is taken out of them, so that no pale seam is left.
 */
export function withoutSurround(p: Pixels, { tolerance, soft }: NonNullable<Tone['surround']>): Pixels {
  const { width, height } = p;
  const lab = labReader(p);
  const edge = edgePixel(p, lab);
  const ground = lab.of(lab.key(edge));
  const data = soft > 0 ? p.data.slice() : p.data;
  const n = SAMPLES[p.space];
  const differences = new Map<number, number>();
  const difference = (i: number): number => {
    const key = lab.key(i);
    let d = differences.get(key);
    if (d === undefined) differences.set(key, (d = deltaE00(ground, lab.of(key))));
    return d;
  };
  const alpha = p.alpha ? p.alpha.slice() : new Uint8Array(width * height).fill(255);
  const seen = new Uint8Array(width * height);
  const queue = new Int32Array(width * height);
  let end = 0;
  const visit = (i: number): void => {
    if (seen[i]) return;
    seen[i] = 1;
    const d = p.alpha && p.alpha[i] === 0 ? 0 : difference(i);
    if (d > tolerance + soft) return;
    // What is half there is the seam: it is not flooded through.
    if (d <= tolerance) {
      alpha[i] = 0;
      queue[end++] = i;
      return;
    }
    const there = Math.max(MIN_THERE, (d - tolerance) / soft);
    alpha[i] = Math.min(alpha[i], there * 255 + 0.5);
    for (let k = 0; k < n; k++) {
      const away = p.data[edge * n + k];
      data[i * n + k] = Math.min(255, Math.max(0, away + (p.data[i * n + k] - away) / there + 0.5));
    }
  };
  for (let x = 0; x < width; x++) {
    visit(x);
    visit((height - 1) * width + x);
  }
  for (let y = 0; y < height; y++) {
    visit(y * width);
    visit(y * width + width - 1);
  }
  for (let at = 0; at < end; at++) {
    const i = queue[at];
    const x = i % width;
    if (x > 0) visit(i - 1);
    if (x < width - 1) visit(i + 1);
    if (i >= width) visit(i - width);
    if (i < width * (height - 1)) visit(i + width);
  }
  return { ...p, data, alpha };
}

/** Under this share a pixel's own colour cannot be told from rounding. */
const MIN_THERE = 0.1;

interface LabReader {
  /** The pixel's colour, rounded, as one number. */
  key(i: number): number;
  of(key: number): Triple;
}

/** Colours as they would look by plain arithmetic: differences within one picture need no profile. */
function labReader(p: Pixels): LabReader {
  const n = SAMPLES[p.space];
  const shift = 8 - BITS;
  const rgb = (i: number): [number, number, number] => {
    const at = i * n;
    const d = p.data;
    if (n === 1) return [d[at], d[at], d[at]];
    if (n === 3) return [d[at], d[at + 1], d[at + 2]];
    const k = 255 - d[at + 3];
    return [((255 - d[at]) * k) / 255, ((255 - d[at + 1]) * k) / 255, ((255 - d[at + 2]) * k) / 255];
  };
  return {
    key(i) {
      const [r, g, b] = rgb(i);
      return ((r >> shift) << (2 * BITS)) | ((g >> shift) << BITS) | (b >> shift);
    },
    of(key) {
      const mask = 2 ** BITS - 1;
      return srgbToLab([(key >> (2 * BITS)) / mask, ((key >> BITS) & mask) / mask, (key & mask) / mask]);
    },
  };
}

/** A pixel of the colour that is most frequent along the edge. */
function edgePixel(p: Pixels, lab: LabReader): number {
  const counts = new Map<number, { at: number; count: number }>();
  const count = (i: number) => {
    if (p.alpha && p.alpha[i] <= 127) return;
    const known = counts.get(lab.key(i));
    if (known) known.count++;
    else counts.set(lab.key(i), { at: i, count: 1 });
  };
  for (let x = 0; x < p.width; x++) {
    count(x);
    count((p.height - 1) * p.width + x);
  }
  for (let y = 1; y < p.height - 1; y++) {
    count(y * p.width);
    count(y * p.width + p.width - 1);
  }
  let best = { at: 0, count: 0 };
  for (const c of counts.values()) if (c.count > best.count) best = c;
  return best.at;
}

const made = new WeakMap<PictureSource, Map<string, PictureSource>>();
/** Variants of one picture that are kept: a slider leaves many behind. */
const MOST_KEPT = 3;

/** The picture as its tone has it cut out; made once for each setting. */
export function cutSource(source: PictureSource, tone: Tone | undefined): PictureSource {
  const surround = tone?.surround;
  if (!surround) return source;
  let variants = made.get(source);
  if (!variants) made.set(source, (variants = new Map()));
  const key = `${surround.tolerance} ${surround.soft}`;
  let cut = variants.get(key);
  if (!cut) {
    if (variants.size >= MOST_KEPT) {
      const [[oldest, gone]] = variants;
      variants.delete(oldest);
      gone.close();
    }
    variants.set(key, (cut = source.derived((full) => withoutSurround(full, surround))));
  }
  return cut;
}
