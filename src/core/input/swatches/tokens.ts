import {
  refuse,
  type ExchangeColour,
  type ExchangeRamp,
  type ExchangeStop,
  type ExchangeSwatch,
  type SwatchesRead,
} from '../../colour/exchange';
import { parseHex, type Triple } from '../../colour/spaces';
import { parseCssColour } from '../../colour/css';
import { cmykSchema, midpointSchema, mixingSchema } from '../../model/schema';
import {
  findNodeAtLocation,
  parseTree,
  getNodeValue,
  printParseErrorCode,
  type Node,
  type ParseError,
} from 'jsonc-parser';
import * as z from 'zod/mini';

/** The key under which what a token cannot say is kept. */
export const EXTENSION = 'org.holvet';

const unit = z.number().check(z.gte(0), z.lte(1));
const lab = z.tuple([
  z.number().check(z.gte(0), z.lte(100)),
  z.number().check(z.gte(-128), z.lte(128)),
  z.number().check(z.gte(-128), z.lte(128)),
]);
const extensionColour = z.union([
  z.strictObject({ cmyk: cmykSchema }),
  z.strictObject({ rgb: z.tuple([unit, unit, unit]) }),
  z.strictObject({ lab }),
  z.strictObject({ gray: unit }),
  z.strictObject({
    spot: z.strictObject({ name: z.string().check(z.minLength(1), z.maxLength(80)), lab, alternate: cmykSchema }),
    tint: unit,
  }),
]);
const extension = z.object({
  name: z.optional(z.string().check(z.maxLength(200))),
  group: z.optional(z.string().check(z.maxLength(80))),
  colour: z.optional(extensionColour),
  colours: z.optional(z.array(extensionColour).check(z.maxLength(64))),
  midpoints: z.optional(z.array(midpointSchema).check(z.maxLength(64))),
  mixing: mixingSchema,
});

/** Design tokens (JSON of the Design Tokens Community Group): colours and gradients, groups from their nesting. */
export function readTokens(text: string): SwatchesRead {
  const errors: ParseError[] = [];
  const tree = parseTree(text, errors, { disallowComments: true });
  if (errors.length || !tree)
    return refuse(
      lineAt(text, errors[0]?.offset ?? 0),
      `it is not JSON (${printParseErrorCode(errors[0]?.error ?? 4)
        .replace(/([a-z])([A-Z])/g, '$1 $2')
        .toLowerCase()}).`,
    );
  const json: unknown = getNodeValue(tree);
  if (!isRecord(json)) return refuse(1, 'tokens are an object with a name for each.');
  const swatches: ExchangeSwatch[] = [];
  const ramps: ExchangeRamp[] = [];
  const notes: string[] = [];
  let problem: SwatchesRead | null = null;

  const visit = (node: Record<string, unknown>, path: string[], inherited: string | undefined): void => {
    if (problem || path.length > 50) return;
    const type = typeof node.$type === 'string' ? node.$type : inherited;
    if ('$value' in node) {
      const fail = (message: string) => {
        problem ??= refuse(lineOf(text, tree, path), `${path.join('.')}: ${message}`);
      };
      if (type === 'color' || type === 'gradient') token(node, path, type, fail);
      else notes.push(`${path.join('.')} is a ${type ?? 'token without a type'}, not a colour.`);
      return;
    }
    for (const [key, child] of Object.entries(node))
      if (!key.startsWith('$') && isRecord(child)) visit(child, [...path, key], type);
  };
  const token = (
    node: Record<string, unknown>,
    path: string[],
    type: 'color' | 'gradient',
    fail: (m: string) => void,
  ): void => {
    const extensions = isRecord(node.$extensions) ? node.$extensions[EXTENSION] : undefined;
    const read = extension.safeParse(extensions ?? {});
    if (!read.success)
      return fail(
        `${read.error.issues[0].path.join('.')} under ${EXTENSION} is wrong: ${read.error.issues[0].message}.`,
      );
    const own = read.data;
    const name = own.name ?? path[path.length - 1];
    const group = own.group ?? (extensions ? undefined : path.slice(0, -1).join(' ').slice(0, 80) || undefined);
    if (type === 'gradient') {
      if (!Array.isArray(node.$value) || node.$value.length < 2)
        return fail('a gradient is a list of two stops or more.');
      const stops: ExchangeStop[] = [];
      for (const [i, stop] of node.$value.entries()) {
        const colour =
          own.colours?.[i] ??
          (isRecord(stop) ? colourOf(resolve(json, stop.color, 0)) : 'a stop is an object with color and position.');
        if (typeof colour === 'string') return fail(colour);
        const offset = isRecord(stop) ? Number(stop.position) : NaN;
        if (!(offset >= 0 && offset <= 1)) return fail('the position of a stop is not between 0 and 1.');
        const alpha =
          isRecord(stop) && isRecord(stop.color) && typeof stop.color.alpha === 'number' ? stop.color.alpha : 1;
        if (!(alpha >= 0 && alpha <= 1)) return fail('the alpha of a stop is not between 0 and 1.');
        const midpoint = own.midpoints?.[i];
        stops.push({
          offset,
          colour,
          ...(alpha < 1 && { opacity: alpha }),
          ...(midpoint !== undefined && midpoint !== 0.5 && { midpoint }),
        });
      }
      ramps.push({ name, ...(group && { group }), stops, ...(own.mixing && { mixing: own.mixing }) });
      return;
    }
    const value = colourOf(resolve(json, node.$value, 0));
    if (typeof value === 'string') return fail(value);
    swatches.push({
      name,
      ...(group && { group }),
      colour: own.colour ?? value,
      ...('lab' in value && { lab: value.lab }),
      ...(own.colour && 'cmyk' in own.colour && { cmyk: own.colour.cmyk }),
    });
  };
  visit(json, [], undefined);
  return problem ?? { ok: true, swatches, ramps, notes };
}

/** Follows `{group.name}` to the value it stands for. */
function resolve(root: unknown, value: unknown, depth: number): unknown {
  const m = typeof value === 'string' ? /^\{(.+)\}$/.exec(value) : null;
  if (!m || depth > 20) return value;
  let at: unknown = root;
  for (const key of m[1].split('.')) at = isRecord(at) ? at[key] : undefined;
  return isRecord(at) ? resolve(root, at.$value, depth + 1) : undefined;
}

const SPACES = 'srgb, lab, or another space of CSS Color 4';

/** A token's value as a colour, or what is wrong with it. */
function colourOf(value: unknown): ExchangeColour | string {
  if (typeof value === 'string') {
    const hex = parseHex(value.slice(0, 7));
    if (hex && value.startsWith('#')) return { rgb: hex };
    const css = parseCssColour(value);
    return css ?? `“${value}” is not a colour.`;
  }
  if (!isRecord(value)) return 'it refers to a colour that is not there.';
  const { colorSpace, components } = value;
  if (typeof colorSpace !== 'string' || !Array.isArray(components) || components.length !== 3)
    return `a colour is a colorSpace (${SPACES}) and three components.`;
  const numbers = components.map((c) => (c === 'none' ? 0 : c));
  if (!numbers.every((c) => typeof c === 'number' && Number.isFinite(c))) return 'a component is not a number.';
  const triple = numbers as unknown as Triple;
  if (colorSpace === 'srgb')
    return triple.every((v) => v >= 0 && v <= 1) ? { rgb: triple } : 'an sRGB component is not between 0 and 1.';
  if (colorSpace === 'lab')
    return triple[0] >= 0 && triple[0] <= 100 && Math.abs(triple[1]) <= 128 && Math.abs(triple[2]) <= 128
      ? { lab: triple }
      : 'a Lab component is out of range.';
  const text = ['hsl', 'hwb'].includes(colorSpace)
    ? `${colorSpace}(${triple[0]} ${triple[1]}% ${triple[2]}%)`
    : ['lch', 'oklab', 'oklch'].includes(colorSpace)
      ? `${colorSpace}(${triple.join(' ')})`
      : `color(${colorSpace} ${triple.join(' ')})`;
  return parseCssColour(text) ?? `the colour space ${colorSpace} is not known. Use ${SPACES}.`;
}

const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);

const lineAt = (text: string, offset: number): number => text.slice(0, offset).split('\n').length;

/** The line at which a token begins. */
function lineOf(text: string, tree: Node, path: readonly string[]): number {
  const node = findNodeAtLocation(tree, [...path]);
  return lineAt(text, (node?.parent ?? tree).offset);
}
