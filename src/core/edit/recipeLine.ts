import { parseHex } from '../colour/spaces';
import type { Cmyk, Design, OwnColour } from '../model/schema';
import { tinted } from './paint';

export interface Recipe {
  readonly name: string;
  readonly colour: OwnColour;
}
export type RecipeRead = { readonly ok: true; readonly recipe: Recipe } | { readonly ok: false; readonly line: number; readonly message: string };

/**
 * Reads what is typed or pasted into the recipe line, one colour a line (or between semicolons):
 * `Dusk 100 72 8 20` (C M Y K in percent), `Harbour #0b3a5e`, `#0b3a5e`, `Ember 50%` (part strength of a swatch).
 * A colour without a name is named from its numbers.
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
    return { ok: true, recipe: { name: hex[1].replace(/[,:]$/, '').trim() || hex[2].toLowerCase(), colour: { rgb: [rgb[0], rgb[1], rgb[2]] } } };
  }
  // Four numbers parted by nothing but commas, as tables have them: there a comma is no decimal point.
  const table = /^(?:(.*?)[\s:]+)?(\d+(?:\.\d+)?%?(?:,\d+(?:\.\d+)?%?){3})$/.exec(line);
  if (table) return readOne(`${table[1] ?? ''} ${table[2].replace(/,/g, ' ')}`.trim(), number, design);
  const numbers = /^(?:(.*?)[\s,:]+)?((?:[CMYK]?\d+(?:[.,]\d+)?\s*%?[\s,/]+){3}[CMYK]?\d+(?:[.,]\d+)?\s*%?)$/i.exec(line);
  if (numbers) {
    const values = [...numbers[2].matchAll(/\d+(?:[.,]\d+)?(?=\s*(?:%|[\s,/CMYK]|$))/gi)].map((m) => Number(m[0].replace(',', '.')));
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
    const swatch = colours.find((s) => s.name.toLowerCase() === wanted) ?? colours.find((s) => s.name.toLowerCase().startsWith(wanted));
    if (!swatch || swatch.kind !== 'colour') return refuse(`There is no swatch called “${part[1]}” to take a part of.`);
    return { ok: true, recipe: { name: `${swatch.name} ${Math.round(by * 100)} %`, colour: tinted(swatch.colour, by) } };
  }
  return refuse('Write a name and four ink percentages, such as Dusk 100 72 8 20, or a screen colour such as #0b3a5e.');
}

/** A name from the numbers: `C100 M72 Y8 K20`, inks at 0 left out. */
export function recipeName(cmyk: Cmyk): string {
  const parts = ['C', 'M', 'Y', 'K'].flatMap((ink, i) => (cmyk[i] > 0 ? [`${ink}${Math.round(cmyk[i] * 100)}`] : []));
  return parts.join(' ') || 'Bare stock';
}
