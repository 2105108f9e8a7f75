import { gunzipSync } from 'fflate';
import { SaxesParser } from 'saxes';

/** An element with its attributes; names without a prefix where they are SVG's own. */
export interface Element {
  readonly name: string;
  /** Namespace; empty for SVG's own. */
  readonly space: string;
  /** Own attributes by name; those of other namespaces as `space name`. */
  readonly attributes: ReadonlyMap<string, string>;
  /** The names of its attributes, in their order: looked through for each element. */
  readonly names: readonly string[];
  /** Has it attributes of other namespaces? */
  readonly foreign: boolean;
  readonly children: (Element | string)[];
  /** Its children that are elements. */
  readonly elements: Element[];
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
  if (raw.length > MAX_BYTES)
    throw new SvgProblem(
      `it is too large (${Math.round(raw.length / 1048576)} MB; the most is ${MAX_BYTES / 1048576} MB)`,
    );
  const head = raw.subarray(0, 200);
  if (head[0] === 0xfe && head[1] === 0xff) return new TextDecoder('utf-16be').decode(raw);
  if (head[0] === 0xff && head[1] === 0xfe) return new TextDecoder('utf-16le').decode(raw);
  const named = /^<\?xml[^>]*encoding=["']([A-Za-z0-9._-]+)["']/.exec(
    String.fromCharCode(...head).replace(/^\u00ef\u00bb\u00bf/, ''),
  );
  try {
    return new TextDecoder(named?.[1] ?? 'utf-8').decode(raw);
  } catch {
    return new TextDecoder().decode(raw);
  }
}

/**
 * The element tree of a text, as far as it is well formed: what comes before an error is kept (SVG 1.1, appendix F.2).
 */
export function parseXml(text: string): Parsed {
  let root: Element | null = null;
  let problem: string | null = null;
  let at: Element | null = null;
  let depth = 0;
  /** Elements so far in each that is open, by depth. */
  const counts: number[] = [0, 0];
  let elements = 0;
  let entities = 0;
  /** What is read cannot be more than what is there and what entities may add. */
  const most = text.length + MAX_ENTITIES;
  const aside = laidAside(expanded(text));
  const parser = new SaxesParser({ xmlns: true, position: true });
  class Stop extends Error {}
  const stop = (why: string): never => {
    problem = why;
    throw new Stop();
  };
  parser.on('error', (e) => stop(`line ${parser.line}: ${e.message.replace(/^\d+:\d+: /, '')}`));
  // The parser's own entities, and those of the file; without a prototype, any word may be one.
  const known = parser as unknown as { ENTITIES: Record<string, string> };
  const own = Object.create(null) as Record<string, string>;
  for (const name in known.ENTITIES) own[name] = known.ENTITIES[name];
  known.ENTITIES = own;
  parser.on('doctype', (type) => {
    for (const [name, value] of readEntities(aside.back(type))) known.ENTITIES[name] = value;
  });
  parser.on('opentag', (tag) => {
    if (++depth > MAX_DEPTH) stop(`line ${parser.line}: elements lie more than ${MAX_DEPTH} deep`);
    if (++elements > MAX_ELEMENTS) throw new SvgProblem(`it has more than ${MAX_ELEMENTS} elements`);
    const attributes = new Map<string, string>();
    const names: string[] = [];
    let foreign = false;
    for (const name in tag.attributes) {
      const a = tag.attributes[name];
      const value = aside.back(a.value);
      entities += value.length;
      const own = a.uri === '' || a.uri === SVG || a.uri === XML;
      if (!own) foreign = true;
      const known = own ? a.local : `${a.uri} ${a.local}`;
      if (!attributes.has(known)) names.push(known);
      attributes.set(known, value);
    }
    if (entities > most)
      throw new SvgProblem(`its entities come to more than ${MAX_ENTITIES / 1e6} million characters`);
    const el: Element = {
      name: tag.local,
      space: tag.uri === SVG ? '' : tag.uri,
      attributes,
      names,
      foreign,
      children: [],
      elements: [],
      parent: at,
      index: counts[depth],
    };
    counts[depth]++;
    counts[depth + 1] = 0;
    if (at) {
      at.children.push(el);
      at.elements.push(el);
    } else root ??= el;
    at = el;
  });
  parser.on('closetag', () => {
    depth--;
    at = at?.parent ?? null;
  });
  const text2 = (short: string) => {
    if (!at || !short) return;
    const t = aside.back(short);
    entities += t.length;
    if (entities > most)
      throw new SvgProblem(`its entities come to more than ${MAX_ENTITIES / 1e6} million characters`);
    at.children.push(t);
  };
  parser.on('text', text2);
  parser.on('cdata', text2);
  try {
    parser.write(aside.text).close();
  } catch (e) {
    if (!(e instanceof Stop)) throw e;
  }
  return { root, problem };
}

/** What is no plain letter or sign of one line: what may need more than to be read as it stands. */
const NOT_PLAIN = /[^ !#-%'-;?-~]/;
/** Shorter values are left to the parser. */
const LONG = 64;
/** Marks of what is laid aside; a file that has the character itself, or names it by its number, is read as it is. */
const MARK = '\uE0F5';
const MARK_BY_NUMBER = /#(?:x0*e0f5|0*57589)\b/i;
const MARKED = new RegExp(`${MARK}(\\d+)${MARK}`, 'g');
/** What no XML may hold (XML 1.0, 2.2), and what is of no use in words. */
const CONTROLS = /[\0-\x1F\x7F\uFFFE\uFFFF]/g;
const MARKED_ALONE = new RegExp(`^${MARK}(\\d+)${MARK}$`);

/**
 * Long plain values, path data above all, laid aside: the parser looks at each character of a file, and nine in ten of
 * a drawing's are of these. `back` gives a text with its values put in again; lines of the text stay where they are.
 */
function laidAside(text: string): { readonly text: string; readonly back: (short: string) => string } {
  if (text.includes(MARK) || (text.includes('&#') && MARK_BY_NUMBER.test(text))) return { text, back: (t) => t };
  const values: string[] = [];
  const parts: string[] = [];
  let kept = 0;
  const free = ['=', '<', '&', '\n', '\r', '>'].map((sign) => freeOf(text, sign));
  for (let at = text.indexOf('="'); at >= 0; at = text.indexOf('="', at)) {
    const end = text.indexOf('"', (at += 2));
    if (end < 0) break;
    if (end - at < LONG || !free.every((f) => f(at, end))) continue;
    // Path data is read up to the first sign that is none, whatever that is: of others each sign is looked at.
    // The name of a namespace is compared with others by the parser.
    const before = text.slice(Math.max(0, at - 100), at - 2);
    const value = text.slice(at, end);
    if (/\sd$/.test(before) || !(NOT_PLAIN.test(value) || /xmlns[\w:.-]*$/.test(before))) {
      parts.push(text.slice(kept, at), `${MARK}${values.push(value) - 1}${MARK}`);
      kept = end;
    }
    at = end;
  }
  if (!values.length) return { text, back: (t) => t };
  parts.push(text.slice(kept));
  return {
    text: parts.join(''),
    back(t) {
      const alone = t.startsWith(MARK) && MARKED_ALONE.exec(t);
      if (alone) return values[+alone[1]];
      // Within other words a value was no path: no sign may pass that the parser would have refused.
      return t.includes(MARK) ? t.replace(MARKED, (_, n: string) => values[+n].replace(CONTROLS, '\uFFFD')) : t;
    },
  };
}

/**
 * Asks whether a stretch of a text has none of a sign; stretches come in their order, and the text is gone through
 * once.
 */
function freeOf(text: string, sign: string): (from: number, to: number) => boolean {
  let next = text.indexOf(sign);
  return (from, to) => {
    if (next >= 0 && next < from) next = text.indexOf(sign, from);
    return next < 0 || next >= to;
  };
}

/** Where the document type declaration stands: its internal subset, and where it ends; null for none. */
function doctypeOf(text: string): { readonly subset: string; readonly end: number } | null {
  const start = text.slice(0, PROLOG).indexOf('<!DOCTYPE');
  if (start < 0) return null;
  const open = text.indexOf('[', start);
  const close = text.indexOf('>', start);
  if (open < 0 || (close >= 0 && close < open)) return null;
  const shut = /\]\s*>/g;
  shut.lastIndex = open;
  const found = shut.exec(text.length > open + PROLOG ? text.slice(0, open + PROLOG) : text);
  return found ? { subset: text.slice(open + 1, found.index), end: found.index + found[0].length } : null;
}
/** A declaration stands at the beginning, and is not longer than this. */
const PROLOG = 2_000_000;

/** Entities that hold elements are written out before reading: the parser takes them as words. */
function expanded(text: string): string {
  const doctype = doctypeOf(text);
  if (!doctype) return text;
  const marked = [...readEntities(doctype.subset)].filter(([, value]) => value.includes('<'));
  if (!marked.length) return text;
  let total = 0;
  const known = new Map(marked);
  const body = text.slice(doctype.end).replace(/&([A-Za-z_][\w.-]{0,200});/g, (whole, name: string) => {
    const value = known.get(name);
    if (value === undefined) return whole;
    total += value.length;
    if (total > MAX_ENTITIES)
      throw new SvgProblem(`its entities come to more than ${MAX_ENTITIES / 1e6} million characters`);
    return value;
  });
  return text.slice(0, doctype.end) + body;
}

/** Entities of the internal subset; those that name files are left out: nothing is fetched. */
function readEntities(doctype: string): Map<string, string> {
  const found = new Map<string, string>();
  let total = 0;
  const head = /\s+([A-Za-z_][\w.-]{0,200})\s+(["'])/y;
  for (let at = doctype.indexOf('<!ENTITY'); at >= 0; at = doctype.indexOf('<!ENTITY', at)) {
    head.lastIndex = at += '<!ENTITY'.length;
    const m = head.exec(doctype);
    if (!m) continue;
    const end = doctype.indexOf(m[2], head.lastIndex);
    // No quote closes it: then none closes any that follows with this one.
    if (end < 0) break;
    const raw = doctype.slice(head.lastIndex, end);
    at = end;
    // Entities in entities; one that is not known yet stays as it is written.
    let value = raw;
    if (raw.includes('&')) {
      const grown = raw.split(/(&[A-Za-z_][\w.-]{0,200};)/);
      value = grown.map((part) => (part.startsWith('&') ? (found.get(part.slice(1, -1)) ?? part) : part)).join('');
    }
    total += value.length;
    if (total > MAX_ENTITIES)
      throw new SvgProblem(`its entities come to more than ${MAX_ENTITIES / 1e6} million characters`);
    if (!found.has(m[1])) found.set(m[1], value);
  }
  return found;
}

/** All text in an element. */
export const textOf = (e: Element): string => e.children.map((c) => (typeof c === 'string' ? c : textOf(c))).join('');
