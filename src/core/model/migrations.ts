import type { Patches } from 'mutative';
import { FORMAT } from './schema';

/** The version that FORMAT names. */
export const CURRENT_VERSION = Number(FORMAT.split('/')[1]);

/** A name of ours that another version calls otherwise: whose it is, and where a step changes it alone. */
interface Renaming {
  readonly was: string;
  readonly is: string;
  readonly of: (thing: Readonly<Record<string, unknown>>) => boolean;
  readonly at: (path: readonly (string | number)[]) => boolean;
}

const ofNode = (path: readonly (string | number)[]): boolean => path.length === 3 && path[0] === 'nodes';

/** Each row: what a version calls otherwise than the one before it. Version 1 is the first. */
const RENAMED: Readonly<Record<number, readonly Renaming[]>> = {
  2: [
    { was: 'cuts', is: 'maskMode', of: (o) => Array.isArray(o.transform), at: ofNode },
    { was: 'turned', is: 'reversed', of: (o) => o.kind === 'combination', at: ofNode },
    {
      was: 'line',
      is: 'strokeMapping',
      of: (o) => o.kind === 'gradient',
      at: (path) => /^(fill|paint|\d+)$/.test(String(path.at(-2))),
    },
  ],
};

/** The renamings between a version and ours, first to last; `newer` if it is beyond ours. */
function since(version: number): readonly Renaming[] | 'newer' {
  if (version > CURRENT_VERSION) return 'newer';
  const rows: Renaming[] = [];
  for (let v = version + 1; v <= CURRENT_VERSION; v++) rows.push(...(RENAMED[v] ?? []));
  return rows;
}

/** Nothing of a design lies deeper: what does is no design, and is left to the verifier to refuse. */
const MOST_DEPTH = 100;

/** JSON with its names in ours; what needs no change is the same object. */
function renamed(value: unknown, rows: readonly Renaming[], depth = 0): unknown {
  if (typeof value !== 'object' || value === null || !rows.length || depth > MOST_DEPTH) return value;
  if (Array.isArray(value)) {
    // The numbers of a path, by the hundred thousand.
    if (typeof value[0] === 'number') return value;
    const made = value.map((v) => renamed(v, rows, depth + 1));
    return made.some((v, i) => v !== value[i]) ? made : value;
  }
  const thing = value as Record<string, unknown>;
  const names = new Map(rows.flatMap((r) => (r.was in thing && r.of(thing) ? [[r.was, r.is]] : [])));
  let changed = names.size > 0;
  const entries = Object.entries(thing).map(([key, v]) => {
    const made = renamed(v, rows, depth + 1);
    changed ||= made !== v;
    return [names.get(key) ?? key, made] as const;
  });
  return changed ? Object.fromEntries(entries) : value;
}

/** What a `format` says: the version of a file of the given kind; null if it is none. */
export function versionOf(format: unknown, kind: 'holvet' | 'holvet-clip'): number | null {
  const [name, version, ...rest] = typeof format === 'string' ? format.split('/') : [];
  return name === kind && !rest.length && /^[1-9]\d{0,5}$/.test(version ?? '') ? Number(version) : null;
}

/** A design, or a clip of one, as its version wrote it (JSON, sound or not), in our words. */
export function migrate(design: unknown, version: number): unknown {
  const rows = since(version);
  if (rows === 'newer') return 'newer';
  const made = renamed(design, rows);
  if (typeof made !== 'object' || made === null || !('format' in made) || version === CURRENT_VERSION) return made;
  return { ...made, format: String(made.format).replace(/\d+$/, String(CURRENT_VERSION)) };
}

/** Patches of a step that a version kept, in our words. Throws on what is no list of patches. */
export function migratePatches(patches: Patches, version: number): Patches {
  const rows = since(version);
  if (rows === 'newer') throw new Error('The step was made by a newer version.');
  return patches.map((p): Patches[number] => {
    const path = p.path as (string | number)[];
    const row = rows.find((r) => path.at(-1) === r.was && r.at(path));
    return {
      ...p,
      ...(row && { path: [...path.slice(0, -1), row.is] }),
      ...('value' in p && { value: renamed(p.value, rows) }),
    };
  });
}

/** A part of a design that says no version (what our drawings carry), in our words. */
export const migratePart = (value: unknown): unknown => renamed(value, since(1) as readonly Renaming[]);
