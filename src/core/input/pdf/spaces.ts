import { PDFRawStream, type PDFObject } from '@cantoo/pdf-lib';
import type { Objects } from './objects';

/** What colours are given in: how many numbers, and which plates they can ink. */
export interface Space {
  readonly kind: 'gray' | 'rgb' | 'cmyk' | 'separation' | 'deviceN' | 'indexed' | 'lab' | 'pattern' | 'other';
  readonly components: number;
  /** Plates by component; empty for colours of light. */
  readonly inks: readonly string[];
  /** It brings its own profile. */
  readonly tagged: boolean;
  /** Of Indexed: what its numbers stand for. */
  readonly base?: Space;
}

const PROCESS = ['Cyan', 'Magenta', 'Yellow', 'Black'];
export const GRAY: Space = { kind: 'gray', components: 1, inks: ['Black'], tagged: false };
export const RGB: Space = { kind: 'rgb', components: 3, inks: [], tagged: false };
export const CMYK: Space = { kind: 'cmyk', components: 4, inks: PROCESS, tagged: false };
const PATTERN: Space = { kind: 'pattern', components: 0, inks: [], tagged: false };
const OTHER: Space = { kind: 'other', components: 1, inks: [], tagged: false };

/** A colour space of a file (ISO 32000-1 8.6); `named` finds those that are called by a name. */
export function spaceOf(
  o: Objects,
  value: PDFObject | undefined,
  named: (n: string) => PDFObject | undefined,
  depth = 0,
): Space {
  if (depth > 8) return OTHER;
  const word = o.name(value);
  switch (word) {
    case 'DeviceGray':
    case 'G':
    case 'CalGray':
      return GRAY;
    case 'DeviceRGB':
    case 'RGB':
      return RGB;
    case 'DeviceCMYK':
    case 'CMYK':
      return CMYK;
    case 'Pattern':
      return PATTERN;
    case undefined:
      break;
    default: {
      const found = named(word);
      return found ? spaceOf(o, found, named, depth + 1) : OTHER;
    }
  }
  const [kind, second, third] = o.list(value);
  switch (o.name(kind)) {
    case 'ICCBased': {
      const n = o.number(o.get(second, 'N'));
      const of = n === 1 ? GRAY : n === 3 ? RGB : n === 4 ? CMYK : OTHER;
      return { ...of, tagged: true };
    }
    case 'CalRGB':
      return { ...RGB, tagged: true };
    case 'CalGray':
      return { ...GRAY, tagged: true };
    case 'Lab':
      return { kind: 'lab', components: 3, inks: [], tagged: true };
    case 'Separation':
      return { kind: 'separation', components: 1, inks: [o.name(second) ?? ''], tagged: false };
    case 'DeviceN': {
      const inks = o.list(second).map((n) => o.name(n) ?? '');
      return { kind: 'deviceN', components: inks.length, inks, tagged: false };
    }
    case 'Indexed': {
      const base = spaceOf(o, second, named, depth + 1);
      return { ...base, kind: 'indexed', components: 1, base };
    }
    case 'Pattern':
      return third || second ? { ...PATTERN, base: spaceOf(o, second, named, depth + 1) } : PATTERN;
    default:
      return OTHER;
  }
}

/** Plates that a colour inks: those whose numbers are above nothing (of grey, below full light). */
export function inkedBy(space: Space, values: readonly number[]): string[] {
  if (space.kind === 'gray') return (values[0] ?? 0) < 1 ? ['Black'] : [];
  if (space.kind === 'cmyk' || space.kind === 'separation' || space.kind === 'deviceN')
    return space.inks.filter((ink, i) => (values[i] ?? 0) > 0.002 && ink !== 'None' && ink !== 'All');
  return [];
}

/**
 * The largest value that each result of a function takes, tried at 17 places of its domain (ISO 32000-1 7.10); null
 * where it cannot be told.
 */
export function reachOf(o: Objects, fn: PDFObject | undefined, results: number, depth = 0): number[] | null {
  if (depth > 8) return null;
  const several = o.list(fn);
  if (several.length) {
    const each = several.map((f) => reachOf(o, f, 1, depth + 1));
    return each.some((e) => !e) ? null : each.map((e) => e![0]);
  }
  const kind = o.number(o.get(fn, 'FunctionType'));
  if (kind === 2) {
    const c0 = o.numbers(o.get(fn, 'C0'));
    const c1 = o.numbers(o.get(fn, 'C1'));
    return Array.from({ length: results }, (_, i) => Math.max(c0[i] ?? 0, c1[i] ?? 0));
  }
  if (kind === 3) {
    const parts = o.list(o.get(fn, 'Functions')).map((f) => reachOf(o, f, results, depth + 1));
    if (!parts.length || parts.some((p) => !p)) return null;
    return Array.from({ length: results }, (_, i) => Math.max(...parts.map((p) => p![i])));
  }
  if (kind === 0) {
    const stream = o.look(fn);
    if (!(stream instanceof PDFRawStream)) return null;
    const bits = o.number(o.get(fn, 'BitsPerSample'));
    const range = o.numbers(o.get(fn, 'Decode')).length
      ? o.numbers(o.get(fn, 'Decode'))
      : o.numbers(o.get(fn, 'Range'));
    const data = o.data(stream);
    const n = range.length / 2;
    if (bits !== 8 && bits !== 16) return null;
    const step = bits / 8;
    const most = Array.from({ length: n }, () => 0);
    for (let i = 0; i + step <= data.length; i += step) {
      const v = step === 1 ? data[i] / 255 : (data[i] * 256 + data[i + 1]) / 65535;
      const k = (i / step) % n;
      most[k] = Math.max(most[k], range[2 * k] + v * (range[2 * k + 1] - range[2 * k]));
    }
    return most;
  }
  return null;
}
