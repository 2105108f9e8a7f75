import { table } from '../../model/own';
import type { Matrix } from '../../geometry/matrix';
import { multiply, rotation, scaling, translation } from '../../geometry/matrix';
import { NAMED_COLOURS } from './namedColours';
import type { Colour } from '../../model/schema';

const NUMBER = '[+-]?(?:\\d+\\.?\\d*|\\.\\d+)(?:[eE][+-]?\\d+)?';
const LENGTH = new RegExp(`^\\s*(${NUMBER})\\s*(px|pt|pc|mm|cm|in|em|ex|rem|q|%)?\\s*$`, 'i');

/** Pixels a unit, at the 96 to the inch of CSS. */
const PIXELS = table<number>({ px: 1, pt: 96 / 72, pc: 16, mm: 96 / 25.4, cm: 96 / 2.54, in: 96, q: 96 / 101.6 });

/** What relative lengths are measured by. */
export interface Measures {
  readonly width: number;
  readonly height: number;
  readonly fontSize: number;
}

/**
 * A length in user units; percentages of the viewport's width, height or (for `r`) its mean diagonal. Null: not a
 * length.
 */
export function readLength(text: string | undefined, m: Measures, along: 'x' | 'y' | 'r'): number | null {
  const found = text === undefined ? null : LENGTH.exec(text);
  if (!found) return null;
  const v = Number(found[1]);
  if (!Number.isFinite(v)) return null;
  const unit = (found[2] ?? 'px').toLowerCase();
  if (unit === '%')
    return (
      (v / 100) * (along === 'x' ? m.width : along === 'y' ? m.height : Math.hypot(m.width, m.height) / Math.SQRT2)
    );
  if (unit === 'em' || unit === 'rem') return v * m.fontSize;
  if (unit === 'ex') return v * m.fontSize * 0.5;
  return v * PIXELS[unit];
}

/** A share 0…1, as a number or in percent; null where it is neither. */
export function readShare(text: string | undefined): number | null {
  const t = text?.trim();
  if (!t) return null;
  const v = t.endsWith('%') ? Number(t.slice(0, -1)) / 100 : Number(t);
  return Number.isFinite(v) ? Math.min(1, Math.max(0, v)) : null;
}

/** All numbers of a text. */
export const readNumbers = (text: string): number[] => (text.match(new RegExp(NUMBER, 'g')) ?? []).map(Number);

/** A list of transforms (SVG 1.1, 7.6). A list with a mistake in it is no transform: null. */
export function readTransform(text: string | undefined): Matrix | null {
  if (text === undefined || text.trim() === '' || text.trim() === 'none') return [1, 0, 0, 1, 0, 0];
  let m: Matrix = [1, 0, 0, 1, 0, 0];
  let rest = text.trim();
  while (rest) {
    const call = /^([A-Za-z]+)\s*\(([^()]*)\)[\s,]*/.exec(rest);
    if (!call) return null;
    const n = readNumbers(call[2]);
    const next = transformOf(call[1], n);
    if (!next || !next.every((v) => Number.isFinite(v) && Math.abs(v) < 1e9)) return null;
    m = multiply(m, next);
    rest = rest.slice(call[0].length);
  }
  return m;
}

function transformOf(name: string, n: readonly number[]): Matrix | null {
  const rad = (v: number) => (v * Math.PI) / 180;
  switch (name) {
    case 'matrix':
      return n.length === 6 ? [n[0], n[1], n[2], n[3], n[4], n[5]] : null;
    case 'translate':
    case 'translateX':
    case 'translateY':
      return n.length === 1 || (name === 'translate' && n.length === 2)
        ? name === 'translateY'
          ? translation(0, n[0])
          : translation(n[0], n[1] ?? 0)
        : null;
    case 'scale':
      return n.length === 1 || n.length === 2 ? scaling(n[0], n[1] ?? n[0]) : null;
    case 'rotate':
      return n.length === 1 || n.length === 3 ? rotation(n[0], { x: n[1] ?? 0, y: n[2] ?? 0 }) : null;
    case 'skewX':
      return n.length === 1 ? [1, 0, Math.tan(rad(n[0])), 1, 0, 0] : null;
    case 'skewY':
      return n.length === 1 ? [1, Math.tan(rad(n[0])), 0, 1, 0, 0] : null;
    default:
      return null;
  }
}

export interface Shade {
  readonly colour: Colour;
  readonly alpha: number;
}

/** A colour (CSS Color 4 as far as SVG uses it, device colours included); null for what is none. */
export function readColour(
  text: string | undefined,
  current: Shade = { colour: { rgb: [0, 0, 0] }, alpha: 1 },
): Shade | null {
  const t = text?.trim().toLowerCase();
  if (!t) return null;
  if (t === 'currentcolor') return current;
  let shade = colours.get(t);
  if (shade === undefined) {
    if (colours.size > 5000) colours.clear();
    colours.set(t, (shade = parseColour(t)));
  }
  return shade;
}
/** Colours read before: a drawing has few. */
const colours = new Map<string, Shade | null>();

function parseColour(t: string): Shade | null {
  if (t === 'transparent') return { colour: { rgb: [0, 0, 0] }, alpha: 0 };
  const device = /device-cmyk\(([^)]*)\)/.exec(t);
  if (device) {
    const n = parts(device[1]).map((v) => readShare(v));
    if (n.length >= 4 && n.slice(0, 4).every((v) => v !== null))
      return { colour: { cmyk: [n[0]!, n[1]!, n[2]!, n[3]!] }, alpha: n[4] ?? 1 };
  }
  const first = t.split(/\s+(?=icc-color|device-)/)[0].trim();
  const hex = /^#([0-9a-f]{3,8})$/.exec(first);
  if (hex) {
    const h = hex[1].length < 5 ? [...hex[1]].map((c) => c + c).join('') : hex[1];
    if (h.length !== 6 && h.length !== 8) return null;
    const v = [0, 2, 4, 6].map((i) => Number.parseInt(h.slice(i, i + 2) || 'ff', 16) / 255);
    return { colour: { rgb: [v[0], v[1], v[2]] }, alpha: v[3] };
  }
  const named: number | undefined = NAMED_COLOURS[first];
  if (named !== undefined)
    return { colour: { rgb: [(named >> 16) / 255, ((named >> 8) & 255) / 255, (named & 255) / 255] }, alpha: 1 };
  const call = /^(rgba?|hsla?)\(([^)]*)\)$/.exec(first);
  if (!call) return null;
  const p = parts(call[2]);
  if (p.length < 3) return null;
  const alpha = readShare(p[3]) ?? 1;
  if (call[1].startsWith('rgb')) {
    const v = p.slice(0, 3).map((x) => (x.endsWith('%') ? Number(x.slice(0, -1)) / 100 : Number(x) / 255));
    if (!v.every(Number.isFinite)) return null;
    const [r, g, b] = v.map((x) => Math.min(1, Math.max(0, x)));
    return { colour: { rgb: [r, g, b] }, alpha };
  }
  const [h, s, l] = [Number.parseFloat(p[0]), readShare(p[1]), readShare(p[2])];
  if (!Number.isFinite(h) || s === null || l === null) return null;
  const channel = (n: number) => {
    const k = (((n + h / 30) % 12) + 12) % 12;
    return l - s * Math.min(l, 1 - l) * Math.max(-1, Math.min(k - 3, 9 - k, 1));
  };
  return { colour: { rgb: [channel(0), channel(8), channel(4)] }, alpha };
}

const parts = (text: string): string[] => text.split(/[\s,/]+/).filter(Boolean);

/** The id that a reference inside this file names; null for none and for anything outside. */
export function localId(text: string | undefined): string | null {
  const m = /^\s*(?:url\(\s*)?["']?#([^"')\s]+)["']?\s*\)?/.exec(text ?? '');
  return m ? m[1] : null;
}

/**
 * A paint's text: the id of what it points at, null for none here; and the colour by itself or that stands in, trimmed.
 */
export interface Address {
  readonly id: string | null;
  readonly plain: string;
}
/** Read once a text: a drawing says the same of very many objects. */
export function addressOf(text: string): Address {
  let known = addresses.get(text);
  if (!known) {
    if (addresses.size > 5000) addresses.clear();
    // An address may be followed by what stands in for it.
    const url = /^\s*url\([^)]*\)\s*(.*)$/s.exec(text);
    known = { id: /^\s*url\(/.test(text) ? localId(text) : null, plain: (url?.[1] ?? text).trim() };
    addresses.set(text, known);
  }
  return known;
}
const addresses = new Map<string, Address>();
