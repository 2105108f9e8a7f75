import { bakeTable, type ColourTable } from '../colour/inkTable';
import type { Palette } from '../colour/palette';
import type { Tone } from '../model/pictureSchema';
import { PictureSource, SAMPLES, type Pixels } from '../pictures/source';
import type { Bitmap } from './bitmap';
import { compositePlates } from './composite';
import { coarseLooks, lookNear, lookTable, lookUp } from './lookTable';
import { pictureWay, type PictureWay } from './pictureInk';
import { cutSource } from './surround';
import { toneLight, toneSteps } from './tone';

/**
 * A picture with its tone as it looks on bare paper, while a slider moves: what `pictureBitmap` gives, within a few
 * levels (tests/core/pictureLook.test.ts says how many). Instead of inking and printing every pixel it looks colours up
 * that were printed once.
 */
export function pictureLook(source: PictureSource, tone: Tone | undefined, palette: Palette, pixels: number): Bitmap {
  const level = cutSource(seenSource(source, pixels), tone).full;
  const { width, height, alpha } = level;
  const way = pictureWay(level, tone, palette);
  const out = new Uint8ClampedArray(width * height * 4);
  const packed = new Uint32Array(out.buffer);
  if (way.by === 'darkness') byDarkness(level, way, palette, packed);
  else bySamples(level, way, tone, palette, packed);
  if (alpha) for (let i = 0; i < alpha.length; i++) out[4 * i + 3] = alpha[i];
  return { width, height, data: out };
}

/** The level that is looked at as a picture of its own, so that its surround is sought in no more than is seen. */
function seenSource(source: PictureSource, pixels: number): PictureSource {
  const level = source.levelWith(pixels);
  let seen = seenSources.get(level);
  if (!seen)
    seenSources.set(
      level,
      (seen = level.width === source.width && level.height === source.height ? source : new PictureSource(level)),
    );
  return seen;
}
const seenSources = new WeakMap<Pixels, PictureSource>();

/** What mixes look like, RGBA: `value` gives the amount 0…255 of channel c in mix i. */
function looks(
  count: number,
  value: (i: number, c: number) => number,
  palette: Palette,
): Uint8ClampedArray<ArrayBuffer> {
  const data = palette.channels.map((_, c) => {
    const plane = new Uint8Array(count);
    for (let i = 0; i < count; i++) plane[i] = value(i, c);
    return plane;
  });
  return compositePlates(
    { region: { x: 0, y: 0, scale: 1, width: count, height: 1 }, channels: palette.channels, data },
    palette,
  );
}

function byDarkness(
  p: Pixels,
  { toned, darkness, channels }: Extract<PictureWay, { readonly by: 'darkness' }>,
  palette: Palette,
  out: Uint32Array,
): void {
  const n = SAMPLES[p.space];
  const seen = new Uint32Array(looks(256, (i, c) => channels[i * palette.channels.length + c], palette).buffer);
  const samples = new Uint8Array(4);
  for (let i = 0; i < out.length; i++) {
    if (toned) toned(p.data, i * n, samples);
    out[i] = seen[toned ? darkness(samples, 0) : darkness(p.data, i * n)];
  }
}

type BySamples = Extract<PictureWay, { readonly by: 'samples' }>;
/** Pixels that are toned and then looked up together: few enough to stay close at hand. */
const CHUNK = 4096;
type LookPixels = (src: Uint8Array, count: number, out: Uint32Array, to: number) => void;

function bySamples(
  { data, space, icc }: Pixels,
  way: BySamples,
  tone: Tone | undefined,
  palette: Palette,
  out: Uint32Array,
): void {
  const n = SAMPLES[space];
  const look = lookFor(way, palette, `${space} ${tone?.fade ?? 0}`, icc);
  const steps = toneSteps(space, tone);
  const toned = new Uint8Array(CHUNK * n);
  const samples = new Uint8Array(4);
  for (let from = 0; from < out.length; from += CHUNK) {
    const count = Math.min(CHUNK, out.length - from);
    const src = data.subarray(from * n, (from + count) * n);
    if (steps && space === 'rgb') toneLight(src, steps, toned);
    else if (way.toned)
      for (let i = 0; i < count * n; i += n) {
        way.toned(src, i, samples);
        for (let k = 0; k < n; k++) toned[i + k] = samples[k];
      }
    look(way.toned ? toned : src, count, out, from);
  }
}

/** The last look, as a slider asks for it again and again. */
let last: {
  readonly palette: Palette;
  readonly key: string;
  readonly icc: Uint8Array | null;
  readonly look: LookPixels;
} | null = null;

function lookFor(way: BySamples, palette: Palette, key: string, icc: Uint8Array | null): LookPixels {
  if (last?.palette !== palette || last.key !== key || last.icc !== icc)
    last = { palette, key, icc, look: newLook(way, palette) };
  return last.look;
}

function newLook({ table, faded }: BySamples, palette: Palette): LookPixels {
  if (!table && palette.screen) return plainLook(faded);
  const known = table ?? INKS;
  const { nodes, outputs } = known;
  const rgba = looks(
    nodes.length / outputs,
    (i, c) => {
      if (c >= outputs) return 0;
      const v = (nodes[i * outputs + c] + 0.5) | 0;
      return faded ? faded[v] : v;
    },
    palette,
  );
  const seen = lookTable(known, rgba);
  if (known.inputs === 4) return (src, count, out, to) => lookUp(seen, src, count, out, to);
  const coarse = coarseLooks(seen);
  return (src, count, out, to) => lookNear(coarse, src, count, out, to);
}

/** Colours of a screen, faded or not. */
function plainLook(faded: Uint8Array | null): LookPixels {
  const keep = faded ?? Uint8Array.from({ length: 256 }, (_, v) => v);
  return (src, count, out, to) => {
    for (let i = 0, at = 0; i < count; i++, at += 3)
      out[to + i] = (255 << 24) | (keep[src[at + 2]] << 16) | (keep[src[at + 1]] << 8) | keep[src[at]];
  };
}

/** Inks as they are: the nodes of a table that changes nothing, as many as the press has. */
const INKS: ColourTable = bakeTable(4, 4, 17, (v) => v);
