import { parseHex } from '../colour/spaces';
import { parseCssColour } from '../colour/css';
import { colourOfWords } from '../colour/plainWords';
import type { Cmyk, Design, OwnColour } from '../model/schema';
import { proposedName, recipeName } from './recipeName';
import { tinted } from '../colour/tints';

export interface Recipe {
  readonly name: string;
  readonly colour: OwnColour;
}
export type RecipeRead =
  | { readonly ok: true; readonly recipe: Recipe }
  | { readonly ok: false; readonly line: number; readonly message: string };

/**
 * Reads what is typed or pasted into the recipe line, one colour a line (or between semicolons):
 * `Dusk 100 72 8 20` (C M Y K in percent), `Harbour #0b3a5e`, `#0b3a5e`, `Ember 50%` (part strength of a swatch),
 * `Rope Lab 62 4 18`, and the colours of CSS: `rgb(11 58 94)`, `--dusk: oklch(40% 0.1 250)`, `device-cmyk(…)`, and
 * plain words: `tomato`, `dark green`. A colour without a name is named from its numbers.
 */
export function readRecipes(text: string, design: Pick<Design, 'swatches'>): RecipeRead[] {
  return text
    .split(/[\n;]/)
    .map((line, i) => ({ line: line.trim(), number: i + 1 }))
    .filter((l) => l.line !== '')
    .map(({ line, number }) => readOne(line, number, design));
}

function readOne(line: string, number: number, design: Pick<Design, 'swatches'>): RecipeRead {
  const refuse = (message: string): RecipeRead => ({ ok: false, line: number, message });
  const hex = /^(.*?)\s*(#[0-9a-f]+)$/i.exec(line);
  if (hex) {
    const rgb = parseHex(hex[2]);
    if (!rgb) return refuse(`“${hex[2]}” is not a screen colour. Write three or six digits after #.`);
    return {
      ok: true,
      recipe: { name: plainName(hex[1]) || hex[2].toLowerCase(), colour: { rgb: [rgb[0], rgb[1], rgb[2]] } },
    };
  }
  const css = /^(?:(.*?)[\s:]+)?((?:device-cmyk|rgba?|hsla?|hwb|lab|lch|oklab|oklch|color)\(.*\))$/i.exec(line);
  if (css) {
    const colour = parseCssColour(css[2]);
    if (!colour) return refuse(`“${css[2]}” is not a colour of CSS.`);
    return { ok: true, recipe: { name: plainName(css[1]) || proposedName(colour)!, colour } };
  }
  const lab = /^(.*?)\s*\bLab\s+([+-]?[\d.]+)[\s,]+([+-]?[\d.]+)[\s,]+([+-]?[\d.]+)$/i.exec(line);
  if (lab) {
    const [l, a, b] = lab.slice(2).map(Number);
    if (!(l >= 0 && l <= 100 && Math.abs(a) <= 128 && Math.abs(b) <= 128))
      return refuse('Lab is a lightness from 0 to 100 and two numbers from −128 to 128.');
    const colour: OwnColour = { lab: [l, a, b] };
    return { ok: true, recipe: { name: plainName(lab[1]) || proposedName(colour)!, colour } };
  }
  // Four numbers parted by nothing but commas, as tables have them: there a comma is no decimal point.
  const table = /^(?:(.*?)[\s:]+)?(\d+(?:\.\d+)?%?(?:,\d+(?:\.\d+)?%?){3})$/.exec(line);
  if (table) return readOne(`${table[1] ?? ''} ${table[2].replace(/,/g, ' ')}`.trim(), number, design);
  const numbers = /^(?:(.*?)[\s,:]+)?((?:[CMYK]?\d+(?:[.,]\d+)?\s*%?[\s,/]+){3}[CMYK]?\d+(?:[.,]\d+)?\s*%?)$/i.exec(
    line,
  );
  if (numbers) {
    const values = [...numbers[2].matchAll(/\d+(?:[.,]\d+)?(?=\s*(?:%|[\s,/CMYK]|$))/gi)].map((m) =>
      Number(m[0].replace(',', '.')),
    );
    if (values.length === 4) {
      const over = values.find((v) => v > 100);
      if (over !== undefined) return refuse(`${over} is more than 100 %.`);
      const [c, m, y, k] = values;
      const colour = { cmyk: [c / 100, m / 100, y / 100, k / 100] as Cmyk };
      return { ok: true, recipe: { name: numbers[1]?.trim() || recipeName(colour.cmyk), colour } };
    }
  }
  const part = /^(.+?)\s+(\d+(?:[.,]\d+)?)\s*%$/.exec(line);
  if (part) {
    const wanted = part[1].toLowerCase();
    const by = Number(part[2].replace(',', '.')) / 100;
    if (by > 1) return refuse(`${part[2]} % is more than 100 %.`);
    const colours = design.swatches.filter((s) => s.kind === 'colour');
    const swatch =
      colours.find((s) => s.name.toLowerCase() === wanted) ??
      colours.find((s) => s.name.toLowerCase().startsWith(wanted));
    if (!swatch || swatch.kind !== 'colour') return refuse(`There is no swatch called “${part[1]}” to take a part of.`);
    return {
      ok: true,
      recipe: { name: `${swatch.name} ${Math.round(by * 100)} %`, colour: tinted(swatch.colour, by) },
    };
  }
  const word = colourOfWords(line);
  if (word) return { ok: true, recipe: { name: line.trim(), colour: { rgb: word } } };
  return refuse(
    'Write a colour by its name (pink, dark green), a screen colour such as #0b3a5e, or a name and four ink percentages, such as Dusk 100 72 8 20.',
  );
}

/** A name without the signs that part it from its value, also those of a CSS variable. */
const plainName = (text = ''): string =>
  text
    .replace(/^--/, '')
    .replace(/[,:=]\s*$/, '')
    .trim();
