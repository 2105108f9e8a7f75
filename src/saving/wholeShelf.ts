import '@/core/zodSetup';
import * as z from 'zod/mini';
import { Zip, ZipPassThrough, ZipDeflate, unzipSync } from 'fflate';
import type { DesignRow, StateRow } from '@/store/database';
import { designStore } from '@/store/open';
import { packWhole } from '@/store/pack';
import { fileName } from '@/core/output/fileName';

/**
 * What a file of a whole shelf says of itself: in which folder each of its designs was, and its states that were kept
 * under a name.
 */
const LIST = 'shelf.json';
const FORMAT = 'holvet-shelf/1';

/** A state under a name, as it was kept: nothing of it has been verified. */
export type ShelfState = Omit<StateRow, 'id' | 'designId'>;

/** No file of a shelf holds more, unpacked. */
const MOST_BYTES = 2 * 1024 * 1024 * 1024;

/** A file of the whole shelf, and what it lacks. */
export interface WholeShelf {
  readonly file: Blob;
  readonly designs: number;
  /** Designs that cannot be read, and what others lack, in words. */
  readonly lacking: readonly string[];
}

/**
 * All designs of a shelf as one archive of `.holvet` files, each whole. They are packed one after the other, and never
 * all held at once but in the browser's own blobs.
 */
export async function packShelf(
  rows: readonly DesignRow[],
  folders: Readonly<Record<string, string>>,
  progress: (done: number, total: number, doing: string) => void,
  stop: AbortSignal,
): Promise<WholeShelf> {
  const parts: Blob[] = [];
  const zip = new Zip((error, chunk) => {
    if (error) throw error;
    parts.push(new Blob([chunk as BlobPart]));
  });
  const taken = new Set<string>();
  const list: Record<string, string> = {};
  const kept: Record<string, readonly ShelfState[]> = {};
  const lacking: string[] = [];
  let designs = 0;
  for (const [i, row] of rows.entries()) {
    stop.throwIfAborted();
    progress(i, rows.length, row.name);
    const loaded = await designStore().load(row.id);
    if (!loaded.ok) {
      lacking.push(`“${row.name}” cannot be read`);
      continue;
    }
    const packed = await packWhole(loaded.value.design, row.thumbnail);
    if (packed.lacking.length) lacking.push(`“${row.name}” lacks ${packed.lacking.join(', ')}`);
    const name = free(loaded.value.design.name, taken);
    if (folders[row.id]) list[name] = folders[row.id];
    const states = (await designStore().stateRows(row.id)).map(({ id: _, designId: __, ...s }) => s);
    if (states.length) kept[name] = states;
    const entry = new ZipPassThrough(name);
    zip.add(entry);
    entry.push(packed.bytes, true);
    designs++;
  }
  const about = new ZipDeflate(LIST);
  zip.add(about);
  about.push(new TextEncoder().encode(JSON.stringify({ format: FORMAT, folders: list, states: kept }, null, 1)), true);
  zip.end();
  return { file: new Blob(parts, { type: 'application/zip' }), designs, lacking };
}

function free(wanted: string, taken: Set<string>): string {
  for (let n = 1; ; n++) {
    const name = fileName(n > 1 ? `${wanted} ${n}` : wanted, 'holvet');
    if (taken.has(name.toLowerCase())) continue;
    taken.add(name.toLowerCase());
    return name;
  }
}

/** A design of a shelf's file, still packed. */
export interface ShelfDesign {
  readonly name: string;
  readonly bytes: Uint8Array;
  readonly folder: string;
  readonly states: readonly ShelfState[];
}

/**
 * The designs in a file of a whole shelf; null for a file that is none, or that would unpack to more than there is room
 * for.
 */
export function unpackShelf(bytes: Uint8Array): readonly ShelfDesign[] | null {
  let files: Record<string, Uint8Array>;
  let size = 0;
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (name !== LIST && !(/\.holvet$/i.test(name) && !name.includes('/'))) return false;
        size += originalSize;
        return size <= MOST_BYTES;
      },
    });
  } catch {
    return null;
  }
  const names = Object.keys(files).filter((n) => n !== LIST);
  if (size > MOST_BYTES || !names.length) return null;
  const about = aboutShelf(files[LIST]);
  return names.map((name) => ({
    name,
    bytes: files[name],
    folder: (Object.hasOwn(about.folders, name) && about.folders[name]) || '',
    states: (Object.hasOwn(about.states, name) && about.states[name]) || [],
  }));
}

const aboutSchema = z.object({
  format: z.literal(FORMAT),
  folders: z.record(z.string(), z.string().check(z.maxLength(200))),
  states: z._default(
    z.record(
      z.string(),
      z.array(
        z.object({
          name: z.string().check(z.minLength(1), z.maxLength(80)),
          when: z.string().check(z.maxLength(40)),
          version: z.number(),
          design: z.string(),
        }),
      ),
    ),
    {},
  ),
});

/** Designs without their folders and states are better than none. */
function aboutShelf(text: Uint8Array | undefined): Pick<z.infer<typeof aboutSchema>, 'folders' | 'states'> {
  const none = { folders: {}, states: {} };
  if (!text) return none;
  try {
    const read = aboutSchema.safeParse(JSON.parse(new TextDecoder().decode(text)));
    return read.success ? read.data : none;
  } catch {
    return none;
  }
}
