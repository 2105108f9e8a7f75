import { textFaults } from './textFaults';
import type * as z from 'zod/mini';
import { multiply, type Matrix } from '../geometry/matrix';
import { isWholePath } from '../geometry/path';
import { copiesIn } from './copies';
import { own } from './own';
import { coloursOf, eachPaintIn, eachPaintInLook, eachPaintOf } from './paints';
import { wholeCheck } from './quickCheck';
import { FAR, designSchema, MOST_COPIES, type Colour, type Design, type DesignNode, type Paint } from './schema';
import { keepUnknown } from './unknown';
import { holderOf, isHolder, isMaster, pageMatrix, pageOf, reachedBy, sameTree, sheetsOf } from './tree';

/** What is wrong, and where: `path` leads to it from the design, `where` is the same in writing. */
export interface Fault {
  readonly where: string;
  readonly what: string;
  readonly path: readonly (string | number)[];
}
export type Verified = { readonly ok: true; readonly design: Design } | ({ readonly ok: false } & Fault);

/** Groups in groups; deeper ones are a slip of a program, and no painter could walk them. */
export const MOST_DEPTH = 200;
/** Through all its groups, nothing is made larger than so many times, or smaller than nothing. */
const MOST_SCALE = FAR * FAR;

const isDesign = wholeCheck(designSchema);
/** What is sound is as it was; what is not is asked for what is wrong. */
const read = (value: unknown): z.core.util.SafeParseResult<Design> =>
  isDesign(value) ? { success: true, data: value as Design } : designSchema.safeParse(value);

/**
 * The door of the model: shape first (Zod), then what a schema cannot say (references, one parent each, whole paths).
 */
export function verifyDesign(value: unknown): Verified {
  const parsed = read(keepUnknown(value));
  if (!parsed.success) return { ok: false, ...shapeFault(parsed.error.issues[0]) };
  const [fault] = findFaults(parsed.data, null, 1);
  return fault ? { ok: false, ...fault } : { ok: true, design: parsed.data };
}

/** Every fault of shape (the first of each part), else every fault of sense; empty for a sound design. */
export function allFaults(value: unknown): Fault[] {
  const parsed = read(keepUnknown(value));
  return parsed.success ? findFaults(parsed.data, null, Infinity) : parsed.error.issues.map(shapeFault);
}

/**
 * The same door for a change: `before` has passed it, so only what differs from it (by identity) is looked at. Answers
 * what `verifyDesign(after)` would refuse; null where it would not. `placed`: all nodes that differ, where it is known
 * that nothing but their transforms and the date does.
 */
export function verifyChange(before: Design, after: Design, placed: readonly string[] | null = null): Fault | null {
  if (placed?.every((id) => !isHolder(after.nodes[id]) && soundPlace(after.nodes[id]) && withinScale(after, id)))
    return null;
  const changed = changedKeys(before.nodes, after.nodes);
  const anew = changed.filter((id) => !onlyPlacedAnew(own(before.nodes, id), after.nodes[id]));
  const parsed = read(thinned(before, after, anew));
  if (!parsed.success) return shapeFault(parsed.error.issues[0]);
  return findFaults(after, { design: before, changed, anew }, 1)[0] ?? null;
}

/** A design whose unchanged parts are left out or stand empty, so that its schema is asked about what is new alone. */
function thinned(before: Design, after: Design, anew: readonly string[]): unknown {
  const same = <K extends keyof Design>(key: K) => after[key] === before[key];
  const pages = after.pages.map((p, i) => (p === before.pages[i] ? { ...p, children: [], guides: undefined } : p));
  return {
    ...after,
    pages,
    ...(same('masters') && { masters: undefined }),
    ...(same('swatches') ? { swatches: [] } : { swatches: after.swatches.filter((s, i) => s !== before.swatches[i]) }),
    ...(same('inks') && { inks: [] }),
    ...(same('pictures') ? { pictures: undefined } : {}),
    ...(same('textLooks') ? { textLooks: undefined } : {}),
    ...(same('faces') ? { faces: undefined } : {}),
    nodes: Object.fromEntries(anew.map((id) => [id, thinNode(own(before.nodes, id), after.nodes[id])])),
    stories: Object.fromEntries(changedKeys(before.stories, after.stories).map((id) => [id, after.stories[id]])),
  };
}

/**
 * Whether a node differs by nothing but its place, and that is sound: the most frequent change of very many at once.
 */
function onlyPlacedAnew(before: DesignNode | undefined, after: DesignNode): boolean {
  if (before === undefined) return false;
  const [old, now] = [before, after] as unknown as readonly Record<string, unknown>[];
  for (const key in now) if (key !== 'transform' && now[key] !== old[key]) return false;
  for (const key in old) if (!(key in now)) return false;
  return soundPlace(after);
}
/** As the schema of a matrix has it; asked of twenty thousand, that takes its time. */
const soundPlace = ({ transform }: DesignNode): boolean =>
  transform.length === 6 && transform.every((v) => typeof v === 'number' && Math.abs(v) <= FAR);

/** Long lists of a node that did not change need not be read again. */
function thinNode(before: DesignNode | undefined, after: DesignNode): unknown {
  if (before?.kind !== after.kind) return after;
  const old = before as unknown as Record<string, unknown>;
  return Object.fromEntries(
    Object.entries(after).map(([key, value]) => [key, LISTS.has(key) && value === old[key] ? [] : value]),
  );
}
const LISTS = new Set(['path', 'children', 'widths', 'fills', 'outlines', 'letterOutlines']);

function changedKeys<T>(before: Readonly<Record<string, T>>, after: Readonly<Record<string, T>>): string[] {
  if (before === after) return [];
  return Object.keys(after).filter((k) => after[k] !== before[k]);
}

function shapeFault(issue: z.core.$ZodIssue): Fault {
  const inner = deepest(issue, []);
  return { where: inner.path.join('.') || 'the design', what: inner.what, path: inner.path };
}

/** Where several shapes are possible, the one that was meant says best what is wrong. */
function deepest(
  issue: z.core.$ZodIssue,
  above: readonly (string | number)[],
): { what: string; path: (string | number)[] } {
  const path = [...above, ...issue.path.map((p) => (typeof p === 'symbol' ? String(p) : p))];
  if (issue.code === 'invalid_union') {
    const meant = issue.errors.filter(
      (branch) =>
        branch.length > 0 &&
        !branch.some((i) => i.path.length <= 1 && (i.code === 'invalid_value' || i.code === 'unrecognized_keys')),
    );
    const branch = (meant.length ? meant : issue.errors).toSorted((a, b) => a.length - b.length)[0];
    if (branch?.length) return deepest(branch[0], path);
  }
  return { what: issueText(issue), path };
}

const numeral = (n: number | bigint) => String(Math.round(Number(n) * 1000) / 1000);

function issueText(issue: z.core.$ZodIssue): string {
  if (issue.code === 'too_big')
    return issue.origin === 'number' || issue.origin === 'int'
      ? `it is more than ${numeral(issue.maximum)}`
      : `it has more than ${numeral(issue.maximum)} ${issue.origin === 'string' ? 'characters' : 'parts'}`;
  if (issue.code === 'too_small')
    return issue.origin === 'number' || issue.origin === 'int'
      ? `it is less than ${numeral(issue.minimum)}`
      : `it has fewer than ${numeral(issue.minimum)} ${issue.origin === 'string' ? 'characters' : 'parts'}`;
  if (issue.code === 'invalid_type')
    return `it is not ${issue.expected === 'number' ? 'a number' : `of the kind ${issue.expected}`}`;
  if (issue.code === 'invalid_value') return `it is none of: ${issue.values.slice(0, 8).map(String).join(', ')}`;
  if (issue.code === 'unrecognized_keys') return `it has what no one knows here: ${issue.keys.slice(0, 3).join(', ')}`;
  if (issue.code === 'invalid_format') return 'it is not written as it should be';
  // What a rule of our own says of itself; the library, small as it is here, says no more than that it is wrong.
  return issue.code === 'custom' ? issue.message : 'it is not as it should be';
}

/** A sound design, and which nodes are others since; `anew`: those of them that were not only placed anew. */
interface Since {
  readonly design: Design;
  readonly changed: readonly string[];
  readonly anew: readonly string[];
}

/**
 * Faults of sense in a design of the right shape, at most so many. With `since`, a sound design that this one came
 * from, what is the same there is not asked again.
 */
function findFaults(d: Design, since: Since | null, most: number): Fault[] {
  const known = since && since.design;
  const faults: Fault[] = [];
  const fault = (path: readonly (string | number)[], what: string) => {
    const [kind, key] = path;
    const listed =
      (kind === 'pages' || kind === 'masters' || kind === 'swatches' || kind === 'textLooks') && typeof key === 'number'
        ? d[kind]![key].id
        : key;
    faults.push({ where: [kind, listed].filter((x) => x !== undefined).join('.'), what, path });
  };
  const full = () => faults.length >= most;

  if (
    !known ||
    d.swatches !== known.swatches ||
    d.inks !== known.inks ||
    d.pages !== known.pages ||
    d.masters !== known.masters ||
    d.pictures !== known.pictures
  ) {
    for (const id of repeated([
      ...d.swatches.map((s) => s.id),
      ...d.inks.map((i) => i.id),
      ...sheetsOf(d).map((p) => p.id),
      ...(d.pictures ?? []).map((p) => p.id),
    ]))
      fault(['swatches, inks, pictures and pages'], `the id ${id} is used twice`);
    for (const name of repeated(d.inks.map((i) => i.name.toLowerCase())))
      fault(['inks'], `two inks are called ${name}`);
  }
  const asked = paintAsker(d);
  // A colour that went may be missed by what did not change itself.
  const paints = known && asked.holdsAllOf(known) ? known : null;
  for (const [i, s] of d.swatches.entries()) {
    if (full()) return faults;
    if (paints && paints.swatches.includes(s)) continue;
    const found = s.kind === 'ramp' ? first(s.stops, (x) => asked.colour(x.colour)) : asked.colour(s.colour);
    if (found) fault(['swatches', i], found);
  }
  const changed = since && since.changed;
  for (const key of paints && since ? since.anew : Object.keys(d.nodes)) {
    if (full()) return faults;
    const node = d.nodes[key];
    const old = known && own(known.nodes, key);
    if (old !== node) {
      if (node.id !== key) fault(['nodes', key], `its id is ${node.id}`);
      if ('story' in node && !own(d.stories, node.story)) fault(['nodes', key], `the story ${node.story} is missing`);
      if (node.kind === 'displayText' && node.along && 'path' in node.along.line && !isWholePath(node.along.line.path))
        fault(['nodes', key], 'the line its words stand on is broken');
      if (node.kind === 'textFrame' && node.window && 'path' in node.window && !isWholePath(node.window.path))
        fault(['nodes', key], 'its window is broken');
      if (node.kind === 'path' && !(old?.kind === 'path' && old.path === node.path) && !isWholePath(node.path))
        fault(['nodes', key], 'its path is broken');
    }
    if (!(paints && own(paints.nodes, key) === node)) {
      const found = firstOf((meet) => eachPaintOf(node, meet), asked.paint);
      if (found) fault(['nodes', key], found);
    }
  }
  for (const [key, story] of Object.entries(d.stories)) {
    if (full()) return faults;
    if (paints && own(paints.stories, key) === story) continue;
    if (story.id !== key) fault(['stories', key], `its id is ${story.id}`);
    const found = firstOf((meet) => eachPaintIn(story, meet), asked.paint);
    if (found) fault(['stories', key], found);
  }
  for (const found of textFaults(d, known)) fault(found.path, found.what);
  for (const [i, look] of (d.textLooks ?? []).entries()) {
    if (paints?.textLooks?.includes(look)) continue;
    const found = firstOf((meet) => eachPaintInLook(look, meet), asked.paint);
    if (found) fault(['textLooks', i], found);
  }
  if (!known || !paints || d.pages !== known.pages || d.masters !== known.masters)
    for (const kind of ['pages', 'masters'] as const)
      for (const [i, page] of (d[kind] ?? []).entries()) {
        if (full()) return faults;
        const bad = page.ground && asked.paint(page.ground);
        if (bad) fault([kind, i, 'ground'], bad);
        const marks = page.pattern && first(page.pattern.paints, asked.paint);
        if (marks) fault([kind, i, 'pattern'], marks);
        for (const key of ['master', 'onLeft'] as const) {
          const other = page[key];
          if (other === undefined) continue;
          if (!isMaster(d, other)) fault([kind, i, key], `the master ${other} is missing`);
          else if (kind === 'masters' && reachedBy(d, page.id).has(page.id))
            fault([kind, i, key], 'it stands on itself');
        }
      }
  // A story that went may be missed by a text that did not change.
  if (known && d.stories !== known.stories && Object.keys(known.stories).some((k) => !own(d.stories, k)))
    for (const [key, node] of Object.entries(d.nodes))
      if ('story' in node && !own(d.stories, node.story)) fault(['nodes', key], `the story ${node.story} is missing`);
  if (full() || (known && changed && sameShape(known, d, changed))) return faults;
  treeFaults(d, fault, full);
  return faults;
}

/** Whether the changed nodes hang where they hung, and none is placed anew but leaves well within all measure. */
function sameShape(known: Design, d: Design, changed: readonly string[]): boolean {
  if (
    d.pages !== known.pages ||
    d.masters !== known.masters ||
    Object.keys(d.nodes).length !== Object.keys(known.nodes).length
  )
    return false;
  const hangs = changed.every((id) => {
    const [old, node] = [own(known.nodes, id), d.nodes[id]];
    if (!old) return false;
    if (isHolder(node))
      return (
        isHolder(old) &&
        old.children === node.children &&
        old.transform === node.transform &&
        !(node.kind === 'repeat' && (old.kind !== 'repeat' || old.arrangement !== node.arrangement))
      );
    return !isHolder(old) && isWithin(node.transform, FAR);
  });
  if (!hangs) return false;
  sameTree(d.nodes, known);
  return changed.every((id) => isHolder(d.nodes[id]) || withinScale(d, id));
}

/** A leaf's place through all its groups stays within the most that is drawn. */
function withinScale(d: Design, id: string): boolean {
  // On the page itself nothing enlarges it further.
  if (holderOf(d, id) === null) return true;
  const page = pageOf(d, id);
  return page !== undefined && isWithin(pageMatrix(d, page, id), MOST_SCALE);
}
/** Written out: asked of each object of a design. */
const isWithin = ([a, b, c, d, e, f]: Matrix, most: number): boolean =>
  Math.abs(a) <= most &&
  Math.abs(b) <= most &&
  Math.abs(c) <= most &&
  Math.abs(d) <= most &&
  Math.abs(e) <= most &&
  Math.abs(f) <= most;

/** Whether what paints name is there. */
function paintAsker(d: Design) {
  const swatches = new Map(d.swatches.map((s) => [s.id, s.kind]));
  const inks = new Set(d.inks.map((i) => i.id));
  const pictures = new Set(d.pictures?.map((p) => p.id));
  const colour = (c: Colour): string | null => {
    if ('swatch' in c && swatches.get(c.swatch) !== 'colour') return `the swatch ${c.swatch} is missing`;
    if ('ink' in c && !inks.has(c.ink)) return `the ink ${c.ink} is missing`;
    return null;
  };
  const paint = (p: Paint): string | null => {
    if (p.kind === 'picture' && !pictures.has(p.picture)) return `the picture ${p.picture} is missing`;
    if (p.kind === 'gradient' && 'swatch' in p.ramp && swatches.get(p.ramp.swatch) !== 'ramp')
      return `the gradient swatch ${p.ramp.swatch} is missing`;
    return first(coloursOf(p), colour);
  };
  const holdsAllOf = (k: Design): boolean =>
    (k.swatches === d.swatches || k.swatches.every((s) => swatches.get(s.id) === s.kind)) &&
    (k.inks === d.inks || k.inks.every((i) => inks.has(i.id))) &&
    (k.pictures === d.pictures || (k.pictures ?? []).every((p) => pictures.has(p.id)));
  return { colour, paint, holdsAllOf };
}

export const STRAY = 'it lies on no page';

/** Every object hangs from one page, by one parent, not too deep, not too often and not out of all measure. */
function treeFaults(
  d: Design,
  fault: (path: readonly (string | number)[], what: string) => void,
  full: () => boolean,
): void {
  const seen = new Set<string>();
  interface Step {
    readonly ids: readonly string[];
    readonly holder: readonly (string | number)[];
    readonly depth: number;
    readonly copies: number;
    readonly matrix: Matrix;
  }
  const open: Step[] = sheetsOf(d).map((p, i) => ({
    ids: p.children,
    holder: i < d.pages.length ? ['pages', i] : ['masters', i - d.pages.length],
    depth: 0,
    copies: 1,
    matrix: [1, 0, 0, 1, 0, 0],
  }));
  for (let step = open.pop(); step && !full(); step = open.pop()) {
    const { ids, holder, depth, copies, matrix } = step;
    if (depth > MOST_DEPTH) {
      fault(holder, `groups lie more than ${MOST_DEPTH} deep`);
      continue;
    }
    for (const id of ids) {
      const node = own(d.nodes, id);
      if (!node) {
        fault(holder, `the object ${id} is missing`);
        continue;
      }
      if (seen.has(id)) {
        fault(holder, `the object ${id} lies in two places`);
        continue;
      }
      seen.add(id);
      const m = multiply(matrix, node.transform);
      if (!isWithin(m, MOST_SCALE)) {
        fault(['nodes', id, 'transform'], 'it is larger than anything that can be drawn');
        continue;
      }
      if (!isHolder(node)) continue;
      // Repeats of repeats multiply: a small file must not ask for a million shapes.
      const times = node.kind === 'repeat' ? copies * copiesIn(node.arrangement) : copies;
      if (times > MOST_COPIES) fault(['nodes', id], `it would be drawn ${times} times; ${MOST_COPIES} are the most`);
      else if (node.children.length)
        open.push({ ids: node.children, holder: ['nodes', id], depth: depth + 1, copies: times, matrix: m });
    }
  }
  if (full()) return;
  // What no page leads to: a stray object, or a ring of groups.
  for (const id of Object.keys(d.nodes)) {
    if (!seen.has(id)) fault(['nodes', id], STRAY);
    if (full()) return;
  }
}

/** What is wrong with the first paint of which something is. */
function firstOf(each: (meet: (p: Paint) => void) => void, find: (p: Paint) => string | null): string | null {
  let found: string | null = null;
  each((p) => (found ??= find(p)));
  return found;
}

function first<T>(list: readonly T[], find: (item: T) => string | null): string | null {
  for (const item of list) {
    const found = find(item);
    if (found) return found;
  }
  return null;
}

function repeated(list: readonly string[]): Set<string> {
  const seen = new Set<string>();
  const twice = new Set<string>();
  for (const x of list) (seen.has(x) ? twice : seen).add(x);
  return twice;
}
