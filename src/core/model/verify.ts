import { COORDS } from '../geometry/path';
import { copiesIn } from './copies';
import { isHolder } from './tree';
import { designSchema, MOST_COPIES, type Colour, type Design, type Paint } from './schema';

export type Verified = { readonly ok: true; readonly design: Design } | { readonly ok: false; readonly where: string; readonly what: string };

/** The door of the model: shape first (Zod), then what a schema cannot say (references, one parent each, whole paths). */
export function verifyDesign(value: unknown): Verified {
  const parsed = designSchema.safeParse(value);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return { ok: false, where: issue.path.join('.') || 'the design', what: issue.message };
  }
  const fault = findFault(parsed.data);
  return fault ? { ok: false, ...fault } : { ok: true, design: parsed.data };
}

interface Fault {
  where: string;
  what: string;
}

function findFault(d: Design): Fault | null {
  const swatches = new Map(d.swatches.map((s) => [s.id, s]));
  const inks = new Set(d.inks.map((i) => i.id));
  const pictures = new Set(d.pictures?.map((p) => p.id));
  const twice = firstRepeated([...d.swatches.map((s) => s.id), ...d.inks.map((i) => i.id), ...d.pages.map((p) => p.id), ...(d.pictures ?? []).map((p) => p.id)]);
  if (twice) return { where: 'swatches, inks, pictures and pages', what: `the id ${twice} is used twice` };
  const inkName = firstRepeated(d.inks.map((i) => i.name.toLowerCase()));
  if (inkName) return { where: 'inks', what: `two inks are called ${inkName}` };

  const colourFault = (c: Colour, where: string): Fault | null => {
    if ('swatch' in c && swatches.get(c.swatch)?.kind !== 'colour') return { where, what: `the swatch ${c.swatch} is missing` };
    if ('ink' in c && !inks.has(c.ink)) return { where, what: `the ink ${c.ink} is missing` };
    return null;
  };
  const paintFault = (p: Paint, where: string): Fault | null => {
    if (p.kind === 'colour') return colourFault(p.colour, where);
    if (p.kind === 'pools') return firstFault(p.pools, (x) => colourFault(x.colour, where));
    if (p.kind === 'picture') return pictures.has(p.picture) ? firstFault(p.tone?.inks ?? [], (x) => colourFault(x.colour, where)) : { where, what: `the picture ${p.picture} is missing` };
    if (p.kind !== 'gradient') return null;
    if ('swatch' in p.ramp) return swatches.get(p.ramp.swatch)?.kind === 'ramp' ? null : { where, what: `the gradient swatch ${p.ramp.swatch} is missing` };
    return firstFault(p.ramp.stops, (s) => colourFault(s.colour, where));
  };

  for (const s of d.swatches) {
    const fault = s.kind === 'ramp' ? firstFault(s.stops, (x) => colourFault(x.colour, `swatches.${s.id}`)) : colourFault(s.colour, `swatches.${s.id}`);
    if (fault) return fault;
  }

  const parents = new Map<string, string>();
  const adopt = (ids: readonly string[], parent: string): Fault | null =>
    firstFault(ids, (child) => {
      if (!d.nodes[child]) return { where: parent, what: `the object ${child} is missing` };
      if (parents.has(child)) return { where: parent, what: `the object ${child} lies in two places` };
      parents.set(child, parent);
      return null;
    });
  for (const page of d.pages) {
    const fault = adopt(page.children, `pages.${page.id}`);
    if (fault) return fault;
  }
  for (const [key, node] of Object.entries(d.nodes)) {
    const where = `nodes.${key}`;
    if (node.id !== key) return { where, what: `its id is ${node.id}` };
    if (isHolder(node)) {
      const fault = adopt(node.children, where);
      if (fault) return fault;
    }
    if ('story' in node && !d.stories[node.story]) return { where, what: `the story ${node.story} is missing` };
    if (node.kind === 'textFrame' && node.window && 'path' in node.window && !isWholePath(node.window.path)) return { where, what: 'its window is broken' };
    if (node.kind === 'path' && !isWholePath(node.path)) return { where, what: 'its path is broken' };
    if ('fills' in node) {
      const fault = firstFault(node.fills, (p) => paintFault(p, where)) ?? firstFault(node.outlines, (o) => paintFault(o.paint, where));
      if (fault) return fault;
    }
  }
  for (const key of Object.keys(d.nodes)) {
    // Every object must hang from a page; a ring of groups would hang from none.
    let at: string | undefined = key;
    let copies = 1;
    for (let depth = 0; at !== undefined && d.nodes[at]; depth++) {
      const node = d.nodes[at];
      if (node.kind === 'repeat') copies *= copiesIn(node.arrangement);
      // Repeats of repeats multiply: a small file must not ask for a million shapes.
      if (copies > MOST_COPIES) return { where: `nodes.${key}`, what: `it would be drawn ${copies} times; ${MOST_COPIES} are the most` };
      if (depth > 200) return { where: `nodes.${key}`, what: 'groups lie too deep or in a ring' };
      at = parents.get(at)?.replace(/^(nodes|pages)\./, '');
    }
    if (at === undefined) return { where: `nodes.${key}`, what: 'it lies on no page' };
  }
  for (const [key, story] of Object.entries(d.stories)) {
    if (story.id !== key) return { where: `stories.${key}`, what: `its id is ${story.id}` };
    for (const p of story.paragraphs)
      for (const run of p.runs) {
        const fault = paintFault(run.fill, `stories.${key}`) ?? (run.outline ? paintFault(run.outline.paint, `stories.${key}`) : null);
        if (fault) return fault;
      }
  }
  return null;
}

function firstFault<T>(list: readonly T[], find: (item: T) => Fault | null): Fault | null {
  for (const item of list) {
    const fault = find(item);
    if (fault) return fault;
  }
  return null;
}

function firstRepeated(list: readonly string[]): string | undefined {
  return new Set(list).size === list.length ? undefined : list.find((x, i) => list.indexOf(x) !== i);
}

function isWholePath(path: readonly number[]): boolean {
  let i = 0;
  while (i < path.length) {
    const coords = COORDS[path[i] as 0 | 1 | 2 | 3];
    if (coords === undefined || (i === 0 && path[0] !== 0)) return false;
    i += 1 + coords;
  }
  return i === path.length;
}
