import type { Cmyk, Mixing } from '../model/schema';
import type { Triple } from './spaces';

/** A colour as it travels between designs, libraries and files: whole in itself, spot inks with their own numbers. */
export type ExchangeColour =
  | { readonly cmyk: Cmyk }
  | { readonly rgb: Triple }
  | { readonly lab: Triple }
  | { readonly gray: number }
  | { readonly spot: { readonly name: string; readonly lab: Triple; readonly alternate: Cmyk }; readonly tint: number };

export interface ExchangeSwatch {
  readonly name: string;
  readonly group?: string;
  readonly colour: ExchangeColour;
  /** What a file says the colour looks like or how it is mixed, beside what it is. */
  readonly lab?: Triple;
  readonly cmyk?: Cmyk;
}
export interface ExchangeRamp {
  readonly name: string;
  readonly group?: string;
  readonly stops: readonly ExchangeStop[];
  readonly mixing?: Mixing;
}
export interface ExchangeStop {
  readonly offset: number;
  readonly colour: ExchangeColour;
  readonly opacity?: number;
  readonly midpoint?: number;
}

/** Swatches read from a file, or the first line that could not be read. */
export type SwatchesRead =
  | {
      readonly ok: true;
      readonly swatches: readonly ExchangeSwatch[];
      readonly ramps: readonly ExchangeRamp[];
      /** What the file holds besides, in words. */ readonly notes: readonly string[];
    }
  | { readonly ok: false; readonly line: number | null; readonly message: string };

/** The answer for a file that cannot be read, with the line where. */
export const refuse = (line: number | null, message: string): SwatchesRead => ({ ok: false, line, message });

/** The refusal as a sentence. */
export function refusalOf(r: Extract<SwatchesRead, { ok: false }>, file: string): string {
  return r.line === null ? `${file}: ${r.message}` : `${file}, line ${r.line}: ${r.message}`;
}

/**
 * A number 0…1 as a percentage, by moving the point of its shortest decimal: nothing is rounded, and `fromPercent`
 * gives the same number back.
 */
export const percentText = (value: number): string => movePoint(String(value), 2);

/** The number 0…1 of a percentage as it is written; NaN if it is none. */
export const fromPercent = (text: string): number =>
  /e/i.test(text) ? Number(text) / 100 : text.trim() === '' ? NaN : Number(`${text.trim()}e-2`);

/** A decimal without an exponent, which not every reader knows. */
export const plainDecimal = (value: number): string => movePoint(String(value), 0);

/** A level 0…255 of a light 0…1. Levels of 8 bits are whole; others come back within one part in 10¹⁵. */
export function levelText(value: number): string {
  const x = value * 255;
  const whole = Math.round(x);
  return whole / 255 === value ? String(whole) : plainDecimal(x);
}

function movePoint(text: string, places: number): string {
  const m = /^(-?)(\d+)(?:\.(\d+))?(?:e([+-]\d+))?$/.exec(text);
  if (!m) throw new Error(`not a number to write: ${text}`);
  const [, sign, whole, part = '', exponent = '0'] = m;
  const point = whole.length + places + Number(exponent);
  const digits = whole + part;
  const padded = point <= 0 ? '0'.repeat(1 - point) + digits : digits.padEnd(point, '0');
  const at = Math.max(1, point);
  const front = padded.slice(0, at).replace(/^0+(?=\d)/, '');
  const back = padded.slice(at).replace(/0+$/, '');
  return `${sign}${front}${back ? `.${back}` : ''}`;
}
