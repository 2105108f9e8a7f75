import { NO_PAINT } from './defaults';
import { own } from './own';
import { designSchema, pageSchema, type Design, type Paint } from './schema';
import { allFaults, STRAY, verifyDesign, type Fault } from './verify';

export interface Salvaged {
  readonly design: Design;
  /** What had to be left out or set back, in the order it was found. */
  readonly leftOut: readonly Fault[];
}

type Loose = Record<string, unknown>;
const isRecord = (v: unknown): v is Loose => typeof v === 'object' && v !== null && !Array.isArray(v);

/** Rounds of mending: each takes all faults that are seen at once, the next those that they hid. */
const MOST_ROUNDS = 64;

/**
 * The most of a damaged design that can be opened: what is at fault is left out (an object, a story, a swatch) or set
 * back (`fallback`: a sound design whose set-up stands in). Null where nothing in it is a design.
 */
export function salvageDesign(value: unknown, fallback: Design): Salvaged | null {
  if (!isRecord(value)) return null;
  const d = structuredClone(value) as Loose;
  const leftOut: Fault[] = [];
  for (const key of Object.keys(fallback)) if (!(key in d)) d[key] = structuredClone(fallback[key as keyof Design]);
  for (const key of ['nodes', 'stories']) if (!isRecord(d[key])) d[key] = {};
  if (!Array.isArray(d.pages) || !d.pages.length)
    d.pages = structuredClone(fallback.pages).map((p) => ({ ...p, children: [] }));
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const faults = allFaults(d);
    if (!faults.length) {
      const sound = verifyDesign(d);
      return sound.ok ? { design: sound.design, leftOut } : null;
    }
    for (const fault of faults) if (mend(d, fault, fallback)) leftOut.push(fault);
    prune(d);
  }
  return null;
}

/** Lists whose parts may go one by one. */
const LISTS: ReadonlySet<string> = new Set(['swatches', 'inks', 'pictures', 'faces', 'textLooks']);

/** Does away with one fault; answers whether there was something to do. */
function mend(d: Loose, { path, what }: Fault, fallback: Design): boolean {
  // A stray is hung up again by `prune`.
  if (what === STRAY) return false;
  const [kind, key] = path;
  const list = d[String(kind)];
  if ((kind === 'nodes' || kind === 'stories') && typeof key === 'string' && isRecord(list)) {
    const thing = own(list, key);
    if (thing === undefined) return false;
    const [part, at] = path.slice(2);
    const paints =
      isRecord(thing) && (part === 'fills' || part === 'outlines' || part === 'letterOutlines') ? thing[part] : null;
    // Of a paint at fault, the paint goes and the object stays.
    if (Array.isArray(paints) && typeof at === 'number') paints[at] = null;
    else delete list[key];
    return true;
  }
  if (LISTS.has(String(kind)) && Array.isArray(list) && typeof key === 'number') {
    list[key] = null;
    return true;
  }
  const sheets = kind === 'pages' || kind === 'masters';
  if (sheets && Array.isArray(list) && typeof key === 'number' && isRecord(list[key])) {
    const page = list[key];
    const part = path[2];
    if ((part === 'ground' || part === 'pattern' || part === 'master') && part in page) {
      delete page[part];
      return true;
    }
    const sound = pageSchema.safeParse({ ...page, children: [] });
    if (!sound.success)
      list[key] = {
        id: `${kind === 'pages' ? 'page' : 'master'}-${key}-again`,
        name: '',
        children: Array.isArray(page.children) ? page.children.filter((c) => typeof c === 'string') : [],
      };
    else
      page.children = Array.isArray(page.children)
        ? page.children.filter((c) => typeof c === 'string' && isRecord(d.nodes) && Object.hasOwn(d.nodes, c))
        : [];
    return true;
  }
  const again = fallback[kind as keyof Design];
  if (again !== undefined) {
    d[String(kind)] = structuredClone(again);
    return true;
  }
  if (typeof kind === 'string' && kind in d) {
    delete d[kind];
    return true;
  }
  // Something the schema does not know at the top, or an id used twice: the lists lose their doubles in `prune`.
  return kind === 'swatches, inks, pictures and pages' || kind === 'inks';
}

/**
 * Takes out what the mending made pointless: empty places of lists, doubles, children that are gone, strays, colours of
 * swatches that went.
 */
function prune(d: Loose): void {
  const ids = new Set<string>();
  for (const key of [...LISTS, 'pages', 'masters']) {
    const list = d[key];
    if (!Array.isArray(list)) continue;
    d[key] = list.filter((x) => {
      if (!isRecord(x) || typeof x.id !== 'string') return (key === 'pages' || key === 'masters') && isRecord(x);
      if (ids.has(x.id)) return false;
      ids.add(x.id);
      return true;
    });
  }
  for (const key of Object.keys(d)) if (!Object.hasOwn(designSchema.def.innerType.shape, key)) delete d[key];
  const nodes = d.nodes as Record<string, Loose>;
  const held = new Set<string>();
  const keep = (list: unknown): unknown => {
    if (!Array.isArray(list)) return list;
    return list.filter((c) => typeof c === 'string' && own(nodes, c) !== undefined && !held.has(c) && held.add(c));
  };
  const sheets = [...(d.pages as Loose[]), ...(Array.isArray(d.masters) ? (d.masters as Loose[]) : [])];
  for (const page of sheets) page.children = keep(page.children);
  const open = sheets.flatMap((p) => (Array.isArray(p.children) ? (p.children as string[]) : []));
  const reached = new Set<string>();
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    if (reached.has(id)) continue;
    reached.add(id);
    const node = nodes[id];
    if (!isRecord(node) || !('children' in node)) continue;
    node.children = keep(node.children);
    if (Array.isArray(node.children)) open.push(...(node.children as string[]));
  }
  // What no page leads to any more lies on the first: nothing goes only because what held it went.
  const strays = Object.keys(nodes).filter((id) => !reached.has(id));
  const first = (d.pages as Loose[])[0];
  const inStray = new Set(
    strays.flatMap((id) =>
      isRecord(nodes[id]) && Array.isArray(nodes[id].children) ? (nodes[id].children as string[]) : [],
    ),
  );
  if (first && Array.isArray(first.children))
    (first.children as string[]).push(...strays.filter((id) => !inStray.has(id)));
  for (const id of strays) if (inStray.has(id) && strays.every((s) => inStray.has(s))) delete nodes[id];
  repaint(d);
}

/** Colours whose swatch or ink went become none: the object stays. */
function repaint(d: Loose): void {
  const named = (key: string) => new Map((Array.isArray(d[key]) ? (d[key] as Loose[]) : []).map((s) => [s.id, s.kind]));
  const [swatches, inks, pictures] = [named('swatches'), named('inks'), named('pictures')];
  const lost = (c: unknown): boolean =>
    isRecord(c) && (('swatch' in c && swatches.get(c.swatch) !== 'colour') || ('ink' in c && !inks.has(c.ink)));
  const gone = (p: unknown): boolean => {
    if (!isRecord(p)) return false;
    if (lost(p.colour) || (p.kind === 'picture' && !pictures.has(p.picture))) return true;
    const tone = isRecord(p.tone) && Array.isArray(p.tone.inks) ? p.tone.inks : [];
    const ramp = isRecord(p.ramp) ? p.ramp : null;
    if (ramp && 'swatch' in ramp && swatches.get(ramp.swatch) !== 'ramp') return true;
    const stops = [
      ...tone,
      ...(ramp && Array.isArray(ramp.stops) ? ramp.stops : []),
      ...(Array.isArray(p.pools) ? p.pools : []),
    ];
    return stops.some((s) => isRecord(s) && lost(s.colour));
  };
  const none: Paint = NO_PAINT;
  for (const page of [...(d.pages as Loose[]), ...(Array.isArray(d.masters) ? (d.masters as Loose[]) : [])]) {
    const pattern = isRecord(page.pattern) && Array.isArray(page.pattern.paints) ? page.pattern.paints : [];
    if (pattern.some(gone)) delete page.pattern;
    if (gone(page.ground)) delete page.ground;
  }
  for (const node of Object.values(d.nodes as Record<string, Loose>)) {
    if (Array.isArray(node.fills)) node.fills = node.fills.map((p) => (p === null || gone(p) ? none : p));
    const left = (lines: unknown[]) => {
      for (const o of lines) if (isRecord(o) && gone(o.between)) delete o.between;
      return lines.filter((o) => o !== null && !(isRecord(o) && gone(o.paint)));
    };
    if (isRecord(node.regions) && Array.isArray(node.regions.areas))
      node.regions.areas = node.regions.areas.filter((a) => isRecord(a) && !gone(a.paint));
    if (isRecord(node.depth) && (gone(node.depth.side) || (isRecord(node.depth.edge) && gone(node.depth.edge.paint))))
      delete node.depth;
    if (Array.isArray(node.outlines)) node.outlines = left(node.outlines);
    if (Array.isArray(node.letterOutlines)) {
      node.letterOutlines = left(node.letterOutlines);
      if (!(node.letterOutlines as unknown[]).length) delete node.letterOutlines;
    }
  }
  const looks = new Set((Array.isArray(d.textLooks) ? (d.textLooks as Loose[]) : []).map((l) => l.id));
  const relook = (thing: Loose, key: 'look' | 'basedOn') => {
    if (key in thing && !looks.has(thing[key])) delete thing[key];
  };
  const letters = (r: Loose) => {
    if (gone(r.fill)) r.fill = none;
    if (isRecord(r.outline) && gone(r.outline.between)) delete r.outline.between;
    if (isRecord(r.outline) && gone(r.outline.paint)) r.outline = null;
  };
  for (const look of Array.isArray(d.textLooks) ? (d.textLooks as Loose[]) : []) {
    relook(look, 'basedOn');
    if (isRecord(look.letters)) letters(look.letters);
  }
  for (const story of Object.values(d.stories as Record<string, Loose>))
    for (const p of Array.isArray(story.paragraphs) ? (story.paragraphs as Loose[]) : []) {
      relook(p, 'look');
      for (const r of Array.isArray(p.runs) ? (p.runs as Loose[]) : []) {
        relook(r, 'look');
        letters(r);
      }
    }
}
