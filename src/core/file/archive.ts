import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import { migrate, versionOf } from '../model/migrations';
import type { Design } from '../model/schema';
import { serializeDesign } from '../model/serialize';
import { verifyDesign } from '../model/verify';
import { isOwnAsset, type Assets } from './assets';

/** Why a file is refused, as facts; the words are in `refusalText`. */
export type Refusal =
  | { readonly code: 'notOurs' }
  | { readonly code: 'truncated' }
  | { readonly code: 'tooLarge'; readonly bytes: number; readonly limit: number }
  | { readonly code: 'newer'; readonly version: string }
  | { readonly code: 'broken'; readonly where: string; readonly what: string };

export type Opened =
  | { readonly ok: true; readonly design: Design; readonly thumbnail: Uint8Array | null; readonly assets: Assets }
  | ({ readonly ok: false } & Refusal);

const MAX_FILE = 1024 * 1024 * 1024;
const MAX_JSON = 256 * 1024 * 1024;

/** A refusal in words; `file` is what it is called to the person. */
export function refusalText(r: Refusal, file = 'This file'): string {
  switch (r.code) {
    case 'notOurs':
      return `${file} is not a Holvet design.`;
    case 'truncated':
      return `${file} is cut off: its end is missing. Ask for it again or use an earlier copy.`;
    case 'tooLarge':
      return `${file} is too large (${Math.round(r.bytes / 1048576)} MB; the most is ${Math.round(r.limit / 1048576)} MB).`;
    case 'newer':
      return `${file} was made by a newer version (${r.version}). Update Holvet to open it.`;
    case 'broken':
      return `${file} is damaged at ${r.where}: ${r.what}.`;
    default:
      return r satisfies never;
  }
}

/** A `.holvet` file: a zip of design.json, thumbnail.png and assets/ if there are any. Same design, same bytes. */
export function packDesign(design: Design, thumbnail: Uint8Array | null, assets: Assets = new Map()): Uint8Array {
  const files: Zippable = { 'design.json': [strToU8(serializeDesign(design)), { level: 6 }] };
  if (thumbnail) files['thumbnail.png'] = [thumbnail, { level: 0 }];
  for (const name of [...assets.keys()].sort()) files[`assets/${name}`] = [assets.get(name)!, { level: 6 }];
  // A fixed date: the zip format has no other place where two runs could differ.
  return zipSync(files, { mtime: new Date(1980, 0, 1) });
}

/**
 * Reads a `.holvet` file of any version up to ours: its design, verified, its small picture and what belongs to it.
 * Never throws.
 */
export function unpackDesign(bytes: Uint8Array): Opened {
  const opened = openArchive(bytes);
  if (!opened.ok) return opened;
  const read = readDesign(opened.value);
  return read.ok ? { ok: true, design: read.design, thumbnail: opened.thumbnail, assets: opened.assets } : read;
}

/** What lies in the zip: what its design.json says, whatever that may be, and what came with it. */
export type Archive =
  | { readonly ok: true; readonly value: unknown; readonly thumbnail: Uint8Array | null; readonly assets: Assets }
  | ({ readonly ok: false } & Refusal);

/** Opens the zip of a `.holvet` file and reads nothing into it. Never throws. */
export function openArchive(bytes: Uint8Array): Archive {
  if (bytes.length > MAX_FILE) return { ok: false, code: 'tooLarge', bytes: bytes.length, limit: MAX_FILE };
  if (bytes.length < 4 || bytes[0] !== 0x50 || bytes[1] !== 0x4b || bytes[2] !== 3 || bytes[3] !== 4)
    return { ok: false, code: 'notOurs' };
  let files: Record<string, Uint8Array>;
  let refused: Refusal | null = null;
  try {
    files = unzipSync(bytes, {
      filter: (f) => {
        const asset = f.name.startsWith('assets/') && isOwnAsset(f.name.slice(7));
        if (f.name !== 'design.json' && f.name !== 'thumbnail.png' && !asset) return false;
        if (f.originalSize > MAX_JSON) refused = { code: 'tooLarge', bytes: f.originalSize, limit: MAX_JSON };
        return !refused;
      },
    });
  } catch {
    return { ok: false, code: 'truncated' };
  }
  if (refused) return { ok: false, ...(refused as Refusal) };
  const json = files['design.json'];
  if (!json) return { ok: false, code: 'notOurs' };
  let value: unknown;
  try {
    value = JSON.parse(strFromU8(json));
  } catch {
    return { ok: false, code: 'broken', where: 'design.json', what: 'it is not JSON' };
  }
  const assets = new Map(
    Object.entries(files).flatMap(([name, content]) =>
      name.startsWith('assets/') ? [[name.slice(7), content] as const] : [],
    ),
  );
  return { ok: true, value, thumbnail: files['thumbnail.png'] ?? null, assets };
}

/** From parsed JSON to a design: version first, then migrations, then every rule of the model. */
function readDesign(
  value: unknown,
): { readonly ok: true; readonly design: Design } | ({ readonly ok: false } & Refusal) {
  const now = inOurVersion(value);
  if (!now.ok) return now;
  const verified = verifyDesign(now.value);
  return verified.ok ? verified : { ok: false, code: 'broken', where: verified.where, what: verified.what };
}

/** What design.json says, in the words of this version; the model has not seen it yet. */
export function inOurVersion(
  value: unknown,
): { readonly ok: true; readonly value: unknown } | ({ readonly ok: false } & Refusal) {
  const version =
    typeof value === 'object' && value !== null && 'format' in value ? versionOf(value.format, 'holvet') : null;
  if (version === null) return { ok: false, code: 'notOurs' };
  const migrated = migrate(value, version);
  if (migrated === 'newer') return { ok: false, code: 'newer', version: String(version) };
  return { ok: true, value: migrated };
}
