import { formatSchema, type Design, type Page, type Paint, type Pattern } from '../model/schema';
import { IDENTITY } from '../geometry/matrix';
import { setupOn } from '../model/setupOn';
import { groundOf, mastersOf, pageById } from '../model/tree';
import { copyNodes, parseClip, pasteClip, type Clip } from './clip';
import { tryOut, type DesignDraft } from './history';
import { addPage } from './pages';

/** Pages on their way to another design: as they look, what their masters have on them their own. */

const PAGES_FORMAT = 'holvet-pages/1';
interface CopiedPage {
  readonly name: string;
  /** Bottom to top: its ground as an object (where it has one), what its masters have, its own. */
  readonly clips: readonly Clip[];
  readonly ground: boolean;
  readonly pattern: Omit<Pattern, 'paints'> | null;
  /** Its size. Absent (in what was copied long ago): that of where it is put. */
  readonly size?: NonNullable<Page['format']>;
}
export interface CopiedPages {
  readonly format: typeof PAGES_FORMAT;
  readonly pages: readonly CopiedPage[];
}

const CARRIER = 'ground-carrier';

/** Copies pages in the order in which they stand. */
export const copyPages = (d: Design, ids: readonly string[]): CopiedPages => ({
  format: PAGES_FORMAT,
  pages: d.pages.filter((p) => ids.includes(p.id)).map((p) => copied(d, p)),
});

function copied(d: Design, page: Page): CopiedPage {
  const ground = groundOf(d, page);
  const { width, height, round } = setupOn(d, page);
  const size = { width, height, round };
  const taken = new Set(Object.keys(page.takenOver ?? {}));
  const sheets = [...mastersOf(d, page), page];
  const clips = sheets.flatMap(
    (s) =>
      copyNodes(
        d,
        s,
        s.children.filter((id) => s === page || !taken.has(id)),
      ) ?? [],
  );
  if (!ground) return { name: page.name, clips, ground: false, pattern: null, size };
  // An object carries the paints of the ground, so that swatches, inks and pictures come along as with any other.
  const carrying = tryOut(d, (x) => {
    x.nodes[CARRIER] = {
      id: CARRIER,
      name: '',
      kind: 'shape',
      shape: 'rectangle',
      transform: [...IDENTITY] as [number, number, number, number, number, number],
      hidden: false,
      locked: false,
      width: 1,
      height: 1,
      knobs: {},
      fills: [ground.paint, ...(ground.pattern?.paints ?? [])] as never[],
      outlines: [],
    };
    pageById(x, page.id)!.children = [CARRIER];
  });
  const carrier = copyNodes(carrying, pageById(carrying, page.id)!, [CARRIER]);
  const { paints: _, ...pattern } = ground.pattern ?? { paints: [] };
  return {
    name: page.name,
    clips: carrier ? [carrier, ...clips] : clips,
    ground: carrier !== null,
    pattern: ground.pattern ? (pattern as Omit<Pattern, 'paints'>) : null,
    size,
  };
}

/** Reads what was copied; null for what is no such thing. */
export function readPages(text: string): CopiedPages | null {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return null;
  }
  const { format, pages } = (value ?? {}) as Partial<CopiedPages>;
  if (format !== PAGES_FORMAT || !Array.isArray(pages) || pages.length > 2000) return null;
  const sound = pages.every(
    (p: CopiedPage) =>
      typeof p?.name === 'string' &&
      (p.size === undefined || formatSchema.safeParse(p.size).success) &&
      Array.isArray(p.clips) &&
      p.clips.every((c) => parseClip(JSON.stringify(c)).ok),
  );
  return sound ? (value as CopiedPages) : null;
}

const sameSize = (a: NonNullable<Page['format']>, b: NonNullable<Page['format']>): boolean =>
  Math.abs(a.width - b.width) < 0.01 && Math.abs(a.height - b.height) < 0.01 && a.round === b.round;

/** Puts copied pages behind another, on no master. Answers their ids. */
export function pastePages(d: DesignDraft, after: string, { pages }: CopiedPages, newId: () => string): string[] {
  const made: string[] = [];
  for (const copy of pages) {
    const id = addPage(d, made.at(-1) ?? after, newId);
    made.push(id);
    const page = pageById(d, id)!;
    page.name = copy.name;
    delete page.master;
    delete page.format;
    if (copy.size && !sameSize(copy.size, d.setup)) page.format = { ...copy.size };
    copy.clips.forEach((clip, i) => {
      const roots = pasteClip(d, id, clip, newId, IDENTITY);
      if (i > 0 || !copy.ground) return;
      const carrier = d.nodes[roots[0]];
      page.children = page.children.filter((c) => c !== roots[0]);
      delete d.nodes[roots[0]];
      if (carrier?.kind !== 'shape') return;
      const [ground, ...paints] = carrier.fills as Paint[];
      page.ground = ground as NonNullable<typeof page.ground>;
      if (copy.pattern && paints.length) page.pattern = { ...copy.pattern, paints } as NonNullable<typeof page.pattern>;
    });
  }
  return made;
}
