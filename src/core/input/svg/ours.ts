import * as z from 'zod/mini';
import type { FillRule, PathData } from '../../geometry/path';
import type { StrokeStyle } from '../../geometry/stroke';
import { effects, type Effect } from '../../model/effects';
import { migratePart } from '../../model/migrations';
import { pictureSchema } from '../../model/pictureSchema';
import { inkSchema, paintSchema, type Ink, type Outline, type Paint, type Picture } from '../../model/schema';
import { readPathData } from './pathData';
import { textOf, XLINK, type Element } from './xml';

/** The namespace in which our drawings say what SVG has no words for: recipes, spot inks, overprint. */
export const OURS = 'urn:holvet:ink';

/** The inks that a drawing of ours brings along. */
export interface InksRead {
  readonly ids: ReadonlyMap<string, string>;
  /** Those that something was painted with. */
  used(): readonly Ink[];
  use(id: string): void;
}

/** The spot inks in the metadata of a drawing of ours, under new ids; none where they cannot be read. */
export function readInks(root: Element, newId: () => string): InksRead {
  const inks: Ink[] = [];
  const ids = new Map<string, string>();
  const used = new Set<string>();
  const holder = root.elements.find((e) => e.name === 'metadata' && e.space === '');
  const list = holder && holder.elements.find((e) => e.space === OURS && e.name === 'inks');
  const parsed = list
    ? z
        .array(inkSchema)
        .check(z.maxLength(27))
        .safeParse(json(textOf(list)))
    : null;
  for (const ink of parsed?.success ? parsed.data : []) {
    const id = newId();
    ids.set(ink.id, id);
    inks.push({ ...ink, id });
  }
  return { ids, use: (id) => void used.add(id), used: () => inks.filter((i) => used.has(i.id)) };
}

function json(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** The files of pictures that a drawing of ours brings along, by their names. */
export function readFiles(
  root: Element,
  byId: ReadonlyMap<string, Element>,
  bytesOf: (address: string) => Uint8Array | null,
): ReadonlyMap<string, Uint8Array> {
  const files = new Map<string, Uint8Array>();
  const holder = root.elements.find((e) => e.name === 'metadata' && e.space === '');
  for (const e of holder ? holder.elements : []) {
    const name = e.space === OURS && e.name === 'file' ? e.attributes.get('name') : undefined;
    if (name === undefined) continue;
    const of = e.attributes.get('of');
    const bytes = bytesOf(of === undefined ? `data:;base64,${textOf(e).trim()}` : (hrefOf(byId.get(of)) ?? ''));
    if (bytes) files.set(name, bytes);
  }
  return files;
}
const hrefOf = (e: Element | undefined): string | undefined =>
  e?.attributes.get('href') ?? e?.attributes.get(`${XLINK} href`);

export interface WholeRead {
  readonly paint: Paint;
  readonly path: PathData;
  readonly rule: FillRule;
  readonly line: StrokeStyle | null;
  readonly picture: Picture | null;
}
const lineSchema = z.object({
  width: z.number().check(z.gte(0)),
  cap: z.enum(['butt', 'round', 'square']),
  join: z.enum(['miter', 'round', 'bevel']),
  miterLimit: z.number().check(z.gte(1)),
  dash: z.optional(
    z.object({ lengths: z.array(z.number().check(z.gte(0))), offset: z.number(), fit: z.optional(z.literal(true)) }),
  ),
});

/** An outline with the line that our own drawing wrote. */
export function outlineFrom({ dash, ...line }: StrokeStyle, paint: Paint): Outline {
  if (!dash) return { ...line, paint };
  return {
    ...line,
    paint,
    dashes: dash.lengths,
    ...(dash.offset && { dashOffset: dash.offset }),
    ...(dash.fit && { dashFit: dash.fit }),
  };
}

/**
 * What a group of ours stands for: a form with a paint that SVG has no words for. Null where that was not kept whole.
 */
export function readWhole(e: Element, inks: InksRead): WholeRead | null {
  const text = e.foreign ? e.attributes.get(`${OURS} whole`) : undefined;
  if (text === undefined) return null;
  const paint = paintFrom(text, inks);
  const { path, whole } = readPathData(e.attributes.get(`${OURS} d`) ?? '');
  const line = lineSchema.safeParse(json(e.attributes.get(`${OURS} line`) ?? 'null'));
  if (!paint || !whole || !path.length) return null;
  const picture =
    paint.kind === 'picture' ? pictureSchema.safeParse(json(e.attributes.get(`${OURS} picture`) ?? 'null')) : null;
  if (picture && !picture.success) return null;
  return {
    paint,
    path,
    rule: e.attributes.get(`${OURS} rule`) === 'evenOdd' ? 'evenOdd' : 'nonZero',
    line: line.success ? line.data : null,
    picture: picture?.data ?? null,
  };
}

/** Is it part of a drawing of ours that says what it is painted with? Then the blend stands for overprint only. */
export const isOurs = (e: Element): boolean =>
  e.foreign && ['fill', 'stroke', 'whole'].some((a) => e.attributes.has(`${OURS} ${a}`));

/** A paint as our own drawing wrote it, where what SVG sees of it has not been changed since. */
export function ownPaint(e: Element, which: 'fill' | 'stroke', seen: string, inks: InksRead): Paint | null {
  if (!e.foreign) return null;
  const text = e.attributes.get(`${OURS} ${which}`);
  const as = e.attributes.get(`${OURS} ${which}-as`);
  if (text === undefined || as === undefined || as.replace(/\s+/g, '') !== seen.replace(/\s+/g, '')) return null;
  return paintFrom(text, inks);
}

/** The effects of a group of ours; null where there are none, or they are broken. */
export function readEffects(e: Element, inks: InksRead): readonly Effect[] | null {
  if (!e.foreign) return null;
  const parsed = effects.safeParse(json(e.attributes.get(`${OURS} effects`) ?? 'null'));
  if (!parsed.success) return null;
  const out = parsed.data.flatMap((x) => {
    const paint = paintFrom(JSON.stringify(x.paint), inks);
    return paint?.kind === 'colour' ? [{ ...x, paint }] : [];
  });
  return out.length ? out : null;
}

/** A paint from its text; null for one that is broken or names an ink that is not there. */
function paintFrom(text: string, inks: InksRead): Paint | null {
  const parsed = paintSchema.safeParse(migratePart(json(text)));
  if (!parsed.success) return null;
  let whole = true;
  const known = JSON.parse(JSON.stringify(parsed.data), (key, value: unknown) => {
    if (key === 'swatch') whole = false;
    if (key !== 'ink' || typeof value !== 'string') return value;
    const id = inks.ids.get(value);
    if (id === undefined) whole = false;
    else inks.use(id);
    return id ?? value;
  }) as Paint;
  return whole ? known : null;
}
