import * as z from 'zod';
import { inkSchema, paintSchema, type Ink, type Paint } from '../../model/schema';
import { elementsOf, textOf, type Element } from './xml';

/** The namespace in which our drawings say what SVG has no words for: recipes, spot inks, overprint. */
export const OURS = 'urn:holvet:ink';

/** The inks that a drawing of ours brings along. */
export interface InksRead {
  readonly ids: ReadonlyMap<string, string>;
  /** Those that something was painted with. */
  used(): readonly Ink[];
  use(id: string): void;
}

export function readInks(root: Element, newId: () => string): InksRead {
  const inks: Ink[] = [];
  const ids = new Map<string, string>();
  const used = new Set<string>();
  const holder = elementsOf(root).find((e) => e.name === 'metadata' && e.space === '');
  const list = holder && elementsOf(holder).find((e) => e.space === OURS && e.name === 'inks');
  const parsed = list ? z.array(inkSchema).max(27).safeParse(json(textOf(list))) : null;
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

/** A paint as our own drawing wrote it, where what SVG sees of it has not been changed since. */
export function ownPaint(e: Element, which: 'fill' | 'stroke', seen: string, inks: InksRead): Paint | null {
  const text = e.attributes.get(`${OURS} ${which}`);
  const as = e.attributes.get(`${OURS} ${which}-as`);
  if (text === undefined || as === undefined || as.replace(/\s+/g, '') !== seen.replace(/\s+/g, '')) return null;
  return paintFrom(text, inks);
}

/** A paint from its text; null for one that is broken or names an ink that is not there. */
export function paintFrom(text: string, inks: InksRead): Paint | null {
  const parsed = paintSchema.safeParse(json(text));
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
