import { gunzipSync } from 'fflate';
import { SaxesParser } from 'saxes';

/** An element with its attributes; names without a prefix where they are SVG's own. */
export interface Element {
  readonly name: string;
  /** Namespace; empty for SVG's own. */
  readonly space: string;
  /** Own attributes by name; those of other namespaces as `space name`. */
  readonly attributes: ReadonlyMap<string, string>;
  readonly children: (Element | string)[];
  readonly parent: Element | null;
  /** Which child element of its parent it is, from 0. */
  readonly index: number;
}

export interface Parsed {
  readonly root: Element | null;
  /** Where and why reading stopped; null where the file was whole. */
  readonly problem: string | null;
}

const SVG = 'http://www.w3.org/2000/svg';
export const XLINK = 'http://www.w3.org/1999/xlink';
const XML = 'http://www.w3.org/XML/1998/namespace';

const MAX_BYTES = 64 * 1024 * 1024;
const MAX_DEPTH = 400;
const MAX_ELEMENTS = 200_000;
/** What entities may come to together: a small file must not become a large one. */
const MAX_ENTITIES = 4_000_000;

export class SvgProblem extends Error {}

/** The text of a file: packed or not, in the encoding that it names. */
export function svgText(bytes: Uint8Array): string {
  let raw = bytes;
  if (raw[0] === 0x1f && raw[1] === 0x8b) {
    // The last four bytes say how long it is unpacked (RFC 1952).
    const size = raw.length > 4 ? new DataView(raw.buffer, raw.byteOffset + raw.length - 4, 4).getUint32(0, true) : 0;
    if (size > MAX_BYTES) throw new SvgProblem('it is too large once it is unpacked');
    try {
      raw = gunzipSync(raw);
    } catch {
      throw new SvgProblem('it is damaged: it cannot be unpacked');
    }
  }
  if (raw.length > MAX_BYTES) throw new SvgProblem(`it is too large (${Math.round(raw.length / 1048576)} MB; the most is ${MAX_BYTES / 1048576} MB)`);
  const head = raw.subarray(0, 200);
  if (head[0] === 0xfe && head[1] === 0xff) return new TextDecoder('utf-16be').decode(raw);
  if (head[0] === 0xff && head[1] === 0xfe) return new TextDecoder('utf-16le').decode(raw);
  const named = /^<\?xml[^>]*encoding=["']([A-Za-z0-9._-]+)["']/.exec(String.fromCharCode(...head).replace(/^\u00ef\u00bb\u00bf/, ''));
  try {
    return new TextDecoder(named?.[1] ?? 'utf-8').decode(raw);
  } catch {
    return new TextDecoder().decode(raw);
  }
}

/** The element tree of a text, as far as it is well formed: what comes before an error is kept (SVG 1.1, appendix F.2). */
export function parseXml(text: string): Parsed {
  let root: Element | null = null;
  let problem: string | null = null;
  let at: Element | null = null;
  let depth = 0;
  /** Elements so far in each that is open, by depth. */
  const counts: number[] = [0, 0];
  let elements = 0;
  let entities = 0;
  const parser = new SaxesParser({ xmlns: true, position: true });
  class Stop extends Error {}
  const stop = (why: string): never => {
    problem = why;
    throw new Stop();
  };
  parser.on('error', (e) => stop(`line ${parser.line}: ${e.message.replace(/^\d+:\d+: /, '')}`));
  parser.on('doctype', (type) => {
    for (const [name, value] of readEntities(type)) (parser as unknown as { ENTITIES: Record<string, string> }).ENTITIES[name] = value;
  });
  parser.on('opentag', (tag) => {
    if (++depth > MAX_DEPTH) stop(`line ${parser.line}: elements lie more than ${MAX_DEPTH} deep`);
    if (++elements > MAX_ELEMENTS) throw new SvgProblem(`it has more than ${MAX_ELEMENTS} elements`);
    const attributes = new Map<string, string>();
    for (const a of Object.values(tag.attributes)) {
      entities += a.value.length;
      const own = a.uri === '' || a.uri === SVG || a.uri === XML;
      attributes.set(own ? a.local : `${a.uri} ${a.local}`, a.value);
    }
    if (entities > MAX_BYTES * 2) stop('its attributes come to more than can be read');
    const el: Element = { name: tag.local, space: tag.uri === SVG ? '' : tag.uri, attributes, children: [], parent: at, index: counts[depth] };
    counts[depth]++;
    counts[depth + 1] = 0;
    if (at) at.children.push(el);
    else root ??= el;
    at = el;
  });
  parser.on('closetag', () => {
    depth--;
    at = at?.parent ?? null;
  });
  const text2 = (t: string) => {
    if (!at || !t) return;
    entities += t.length;
    if (entities > MAX_BYTES * 2) stop('its text comes to more than can be read');
    at.children.push(t);
  };
  parser.on('text', text2);
  parser.on('cdata', text2);
  try {
    parser.write(expanded(text)).close();
  } catch (e) {
    if (!(e instanceof Stop)) throw e;
  }
  return { root, problem };
}

/** Entities that hold elements are written out before reading: the parser takes them as words. */
function expanded(text: string): string {
  const doctype = /<!DOCTYPE[^[>]*\[([\s\S]*?)\]\s*>/.exec(text);
  if (!doctype) return text;
  const entities = readEntities(doctype[1]);
  const marked = [...entities].filter(([, value]) => value.includes('<'));
  if (!marked.length) return text;
  const end = doctype.index + doctype[0].length;
  let total = 0;
  const known = new Map(marked);
  const body = text.slice(end).replace(/&([A-Za-z_][\w.-]*);/g, (whole, name: string) => {
    const value = known.get(name);
    if (value === undefined) return whole;
    total += value.length;
    return total > MAX_ENTITIES ? '' : value;
  });
  return text.slice(0, end) + body;
}

/** Entities of the internal subset; those that name files are left out: nothing is fetched. */
function readEntities(doctype: string): Map<string, string> {
  const found = new Map<string, string>();
  let total = 0;
  for (const [, name, , double, single] of doctype.matchAll(/<!ENTITY\s+([A-Za-z_][\w.-]*)\s+("([^"]*)"|'([^']*)')\s*>/g)) {
    const raw = double ?? single ?? '';
    // Entities in entities; one that is not known yet stays as it is written.
    const value = raw.replace(/&([A-Za-z_][\w.-]*);/g, (whole, inner: string) => found.get(inner) ?? whole);
    total += value.length;
    if (total > MAX_ENTITIES) break;
    if (!found.has(name)) found.set(name, value);
  }
  return found;
}

export const elementsOf = (e: Element): Element[] => e.children.filter((c): c is Element => typeof c !== 'string');
export const textOf = (e: Element): string => e.children.map((c) => (typeof c === 'string' ? c : textOf(c))).join('');
