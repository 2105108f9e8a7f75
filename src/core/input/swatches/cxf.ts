import { SaxesParser } from 'saxes';
import {
  fromPercent,
  refuse,
  type ExchangeColour,
  type ExchangeSwatch,
  type SwatchesRead,
} from '../../colour/exchange';
import { labFromSpectrum, type Spectrum } from '../../colour/spectrum';
import type { Triple } from '../../colour/spaces';
import type { Cmyk } from '../../model/schema';

interface Reading {
  name: string;
  readonly line: number;
  readonly tags: Record<string, string>;
  /** Numbers by element: `ColorCIELab/L` and so on. */
  readonly values: Map<string, number>;
  spectrum: Spectrum | null;
  maxRange: number;
}

const COLOURS = new Set(['ColorCIELab', 'ColorCMYK', 'ColorRGB', 'ColorSRGB', 'ReflectanceSpectrum', 'ColorCIEXYZ']);

/**
 * CxF3 (ISO 17972): objects with Lab, CMYK, RGB or a reflectance spectrum. Nothing is fetched; entities stay
 * unexpanded.
 */
export function readCxf(text: string): SwatchesRead {
  const parser = new SaxesParser();
  const stack: string[] = [];
  const readings: Reading[] = [];
  let at: Reading | null = null;
  let words = '';
  let start: { wavelength: number; step: number } | null = null;
  let problem: SwatchesRead | null = null;
  let root = '';
  const fail = (message: string) => {
    problem ??= refuse(parser.line, message);
  };
  parser.on('error', (e) => fail(`${e.message.replace(/^\d+:\d+: /, '').replace(/\.$/, '')}.`));
  parser.on('opentag', (tag) => {
    const name = local(tag.name);
    root ||= name;
    stack.push(name);
    words = '';
    const attribute = (key: string) => Object.entries(tag.attributes).find(([k]) => local(k) === key)?.[1];
    if (name === 'Object' && stack[stack.length - 2] === 'ObjectCollection')
      at = {
        name: attribute('Name') ?? '',
        line: parser.line,
        tags: {},
        values: new Map(),
        spectrum: null,
        maxRange: 255,
      };
    if (!at) return;
    if (name === 'Tag') at.tags[attribute('Name') ?? ''] = attribute('Value') ?? '';
    if (name === 'ColorRGB' || name === 'ColorSRGB') at.maxRange = Number(attribute('MaxRange') ?? 255);
    if (name === 'ReflectanceSpectrum')
      start = { wavelength: Number(attribute('StartWL') ?? 380), step: Number(attribute('Increment') ?? 10) };
  });
  parser.on('text', (t) => {
    words += t;
  });
  parser.on('closetag', () => {
    const name = stack.pop()!;
    const parent = stack[stack.length - 1];
    if (at && name === 'ReflectanceSpectrum' && start) {
      const values = words.trim().split(/\s+/).map(Number);
      if (values.some((v) => !Number.isFinite(v))) fail('the spectrum holds something that is not a number.');
      else at.spectrum = { start: start.wavelength, step: start.step, values };
    } else if (at && COLOURS.has(parent)) {
      const v = parent === 'ColorCMYK' ? fromPercent(words) : Number(words.trim());
      if (words.trim() === '' || !Number.isFinite(v)) fail(`“${words.trim()}” in ${name} is not a number.`);
      at.values.set(`${parent}/${name}`, v);
    } else if (at && name === 'Object') {
      readings.push(at);
      at = null;
    }
    words = '';
  });
  try {
    parser.write(text).close();
  } catch (e) {
    fail(e instanceof Error ? e.message : String(e));
  }
  if (problem) return problem;
  if (root !== 'CxF') return refuse(1, 'this is not CxF: its outermost element has another name.');
  const swatches: ExchangeSwatch[] = [];
  const notes: string[] = [];
  for (const r of readings) {
    const swatch = swatchOf(r);
    if (typeof swatch === 'string') return refuse(r.line, swatch);
    if (swatch) swatches.push(swatch);
    else notes.push(`“${r.name}” has no colour that can be read.`);
  }
  return { ok: true, swatches, ramps: [], notes };
}

const local = (name: string): string => name.slice(name.indexOf(':') + 1);

function swatchOf(r: Reading): ExchangeSwatch | string | null {
  let wrong: string | null = null;
  const set = (element: string, names: readonly string[], scale: number, lo: number, hi: number): number[] | null => {
    const values = names.map((n) => r.values.get(`${element}/${n}`));
    if (values.some((v) => v === undefined)) return null;
    return values.map((v) => {
      const x = v! / scale;
      if (x < lo - 1e-9 || x > hi + 1e-9)
        wrong ??= `${v} in ${element} of “${r.name}” is not between ${lo * scale} and ${hi * scale}.`;
      return Math.min(hi, Math.max(lo, x));
    });
  };
  const labNumbers = set('ColorCIELab', ['L', 'A', 'B'], 1, -128, 128);
  const lab = labNumbers
    ? ([Math.max(0, Math.min(100, labNumbers[0])), labNumbers[1], labNumbers[2]] as Triple)
    : r.spectrum
      ? labFromSpectrum(r.spectrum)
      : null;
  const cmyk = set('ColorCMYK', ['Cyan', 'Magenta', 'Yellow', 'Black'], 1, 0, 1) as unknown as Cmyk | null;
  const rgb = (set('ColorRGB', ['R', 'G', 'B'], r.maxRange, 0, 1) ??
    set('ColorSRGB', ['R', 'G', 'B'], r.maxRange, 0, 1)) as unknown as Triple | null;
  if (wrong) return wrong;
  const tag = (name: string) => r.tags[`holvet:${name}`];
  const numbers = (text: string | undefined) => (text ?? '').split(' ').map(Number);
  let colour: ExchangeColour | null = null;
  const kind = tag('kind');
  if (kind === 'spot') {
    const [l, a, b, c, m, y, k] = numbers(tag('ink'));
    const tint = Number(tag('tint') ?? 1);
    if ([l, a, b, c, m, y, k, tint].some((v) => !Number.isFinite(v)))
      return `the ink of “${r.name}” is not seven numbers.`;
    if ([c, m, y, k, tint].some((v) => v < 0 || v > 1) || l < 0 || l > 100 || Math.abs(a) > 128 || Math.abs(b) > 128)
      return `the ink of “${r.name}” has a number out of range.`;
    colour = { spot: { name: tag('inkName') ?? r.name, lab: [l, a, b], alternate: [c, m, y, k] }, tint };
  } else if (kind === 'grey') {
    const gray = Number(tag('grey'));
    if (!(gray >= 0 && gray <= 1)) return `the grey of “${r.name}” is not between 0 and 1.`;
    colour = { gray };
  } else if (kind === 'rgb' && rgb) colour = { rgb };
  else if (kind === 'lab' && lab) colour = { lab };
  else colour = cmyk ? { cmyk } : lab ? { lab } : rgb ? { rgb } : null;
  if (!colour) return null;
  return {
    name: r.name,
    ...(tag('group') && { group: tag('group') }),
    colour,
    ...(lab && { lab }),
    ...(cmyk && { cmyk }),
  };
}
