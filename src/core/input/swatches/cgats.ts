import {
  fromPercent,
  refuse,
  type ExchangeColour,
  type ExchangeSwatch,
  type SwatchesRead,
} from '../../colour/exchange';
import type { Triple } from '../../colour/spaces';
import type { Cmyk } from '../../model/schema';

interface Token {
  readonly text: string;
  readonly quoted: boolean;
  readonly line: number;
}

/** Words and quoted strings with their lines; `#` begins a comment; a doubled quote stands for itself. */
function tokens(text: string): Token[] {
  const out: Token[] = [];
  text.split(/\r\n|\r|\n/).forEach((line, i) => {
    const pattern = /\s*(?:"((?:[^"]|"")*)"|'([^']*)'|(#).*|([^\s"]+))/gy;
    for (let m; (m = pattern.exec(line));) {
      if (m[3]) break;
      out.push({ text: m[1]?.replace(/""/g, '"') ?? m[2] ?? m[4], quoted: m[4] === undefined, line: i + 1 });
    }
  });
  return out;
}

/** A CGATS text table (ISO 28178): recipes, Lab or RGB with their names. */
export function readCgats(text: string): SwatchesRead {
  const all = tokens(text);
  const format = all.findIndex((t) => t.text === 'BEGIN_DATA_FORMAT' && !t.quoted);
  const formatEnd = all.findIndex((t) => t.text === 'END_DATA_FORMAT' && !t.quoted);
  const data = all.findIndex((t) => t.text === 'BEGIN_DATA' && !t.quoted);
  const dataEnd = all.findIndex((t, i) => i > data && t.text === 'END_DATA' && !t.quoted);
  if (format < 0 || formatEnd < format)
    return refuse(all[0]?.line ?? 1, 'there is no BEGIN_DATA_FORMAT … END_DATA_FORMAT that names the columns.');
  if (data < 0) return refuse(all[formatEnd].line, 'there is no BEGIN_DATA after the columns.');
  if (dataEnd < 0) return refuse(all[all.length - 1].line, 'END_DATA is missing: the file is cut off.');
  const columns = all.slice(format + 1, formatEnd).map((t) => t.text.toUpperCase());
  const cells = all.slice(data + 1, dataEnd);
  if (!columns.length) return refuse(all[format].line, 'no columns are named.');
  const at = (name: string) => columns.indexOf(name);
  const find = (...names: string[]) => names.map(at).find((i) => i >= 0) ?? -1;
  const set = (...names: string[]) => {
    const places = names.map(at);
    return places.every((p) => p >= 0) ? places : null;
  };
  const cmykAt = set('CMYK_C', 'CMYK_M', 'CMYK_Y', 'CMYK_K');
  const labAt = set('LAB_L', 'LAB_A', 'LAB_B');
  const rgbAt = set('RGB_R', 'RGB_G', 'RGB_B');
  if (!cmykAt && !labAt && !rgbAt) return refuse(all[format].line, 'the columns hold neither CMYK, Lab nor RGB.');
  const nameAt = find('SAMPLE_NAME', 'SAMPLE_ID', 'SAMPLE_LOC');
  const inkAt = set('HOLVET_INK', 'HOLVET_TINT', 'INK_L', 'INK_A', 'INK_B', 'INK_C', 'INK_M', 'INK_Y', 'INK_K');
  const [kindAt, groupAt, greyAt] = [at('HOLVET_KIND'), at('HOLVET_GROUP'), at('HOLVET_GREY')];

  const swatches: ExchangeSwatch[] = [];
  for (let start = 0; start < cells.length; start += columns.length) {
    const row = cells.slice(start, start + columns.length);
    const { line } = row[0];
    if (row.length < columns.length) return refuse(line, `${row.length} of ${columns.length} values are there.`);
    const broken = row.find((t) => t.line !== line);
    if (broken && kindAt >= 0) return refuse(line, `the row has not ${columns.length} values.`);
    let wrong: SwatchesRead | null = null;
    const number = (i: number, lo: number, hi: number, read: (t: string) => number = Number): number => {
      const v = read(row[i].text.replace(',', '.'));
      if (row[i].text === '' || !Number.isFinite(v))
        wrong ??= refuse(row[i].line, `“${row[i].text}” under ${columns[i]} is not a number.`);
      else if (v < lo - 1e-6 || v > hi + 1e-6)
        wrong ??= refuse(
          row[i].line,
          `${row[i].text} under ${columns[i]} is not between ${lo} and ${read === fromPercent ? hi * 100 : hi}.`,
        );
      return Math.min(hi, Math.max(lo, v));
    };
    const percent = (i: number) => number(i, 0, 1, fromPercent);
    const cmykOf = (places: number[]): Cmyk => [
      percent(places[0]),
      percent(places[1]),
      percent(places[2]),
      percent(places[3]),
    ];
    const labOf = (places: number[]): Triple => [
      number(places[0], 0, 100),
      number(places[1], -128, 128),
      number(places[2], -128, 128),
    ];
    const cmyk = cmykAt && cmykOf(cmykAt);
    const lab = labAt && labOf(labAt);
    const rgb: Triple | null = rgbAt && [
      number(rgbAt[0], 0, 255) / 255,
      number(rgbAt[1], 0, 255) / 255,
      number(rgbAt[2], 0, 255) / 255,
    ];
    const kind = kindAt < 0 ? '' : row[kindAt].text;
    let colour: ExchangeColour;
    if (kind === 'spot' && inkAt) {
      colour = {
        spot: { name: row[inkAt[0]].text, lab: labOf(inkAt.slice(2, 5)), alternate: cmykOf(inkAt.slice(5)) },
        tint: percent(inkAt[1]),
      };
    } else if (kind === 'grey' && greyAt >= 0) colour = { gray: percent(greyAt) };
    else if (kind === 'rgb' && rgb) colour = { rgb };
    else if (kind === 'lab' && lab) colour = { lab };
    else colour = cmyk ? { cmyk } : lab ? { lab } : { rgb: rgb! };
    if (wrong) return wrong;
    const group = groupAt < 0 ? '' : row[groupAt].text;
    const name = nameAt < 0 ? String(swatches.length + 1) : row[nameAt].text;
    swatches.push({ name, ...(group && { group }), colour, ...(lab && { lab }), ...(cmyk && { cmyk }) });
  }
  return { ok: true, swatches, ramps: [], notes: [] };
}
