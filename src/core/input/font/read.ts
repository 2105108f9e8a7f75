import { assetName } from '../../file/assets';
import { ownFaceId, type FaceKind, type OwnFace } from '../../model/faceSchema';
import { openFace, type Face } from '../../text/face';
import { faultOf } from '../../text/faultOf';
import { meanWidth } from '../../text/measures';
import { FontProblem } from './problem';
import { readSfnt, viewOf } from './sfnt';
import { unpackFonts } from './unpack';
import type { FontEnv } from './woff2';

/** A face of a font file: what a design keeps of it, and its own file. */
export interface ReadFace {
  readonly facts: OwnFace;
  readonly bytes: Uint8Array;
}

/** Without these nobody can set words (OpenType 1.9, required tables); letters are drawn by one of the last three. */
const NEEDED = ['cmap', 'head', 'hhea', 'hmtx', 'maxp'];
const OUTLINES = ['glyf', 'CFF ', 'CFF2'];

/**
 * The faces of a font file, each tried out: its letters are shaped and drawn. Throws a FontProblem whose text follows
 * the file’s name.
 */
export async function readFaces(file: Uint8Array, env: FontEnv): Promise<ReadFace[]> {
  const fonts = await unpackFonts(file, env);
  const faces: ReadFace[] = [];
  for (const bytes of fonts) faces.push(await readOne(bytes));
  return faces;
}

async function readOne(bytes: Uint8Array): Promise<ReadFace> {
  const { flavour, tables } = readSfnt(bytes);
  const byTag = new Map(tables.map((t) => [t.tag, t.bytes]));
  const lacking = NEEDED.find((tag) => !byTag.has(tag));
  if (lacking) throw new FontProblem(`it is damaged: its table ${lacking} is missing`);
  if (!OUTLINES.some((tag) => byTag.has(tag)))
    throw new FontProblem('its letters are pictures, not outlines, and cannot be printed in inks');
  // HarfBuzz would put up with any measure of the em; other programs do not.
  const head = viewOf(byTag.get('head')!);
  const upem = head.byteLength >= 54 ? head.getUint16(18) : 0;
  if (upem < 16 || upem > 16_384) throw new FontProblem('it is damaged: its measure of the em is out of range');
  const name = await assetName(bytes, flavour === 0x4f54544f ? 'otf' : 'ttf');
  let face!: Face;
  let why: string | null;
  try {
    face = await openFace(ownFaceId(name), bytes);
    why = faultOf(face);
  } catch {
    why = 'it is damaged: its letters cannot be drawn';
  }
  if (why !== null) throw new FontProblem(why);
  return { facts: factsOf(face, name, byTag), bytes };
}

function factsOf(face: Face, file: string, tables: ReadonlyMap<string, Uint8Array>): OwnFace {
  const os2 = tables.get('OS/2');
  const v = os2 && os2.length >= 68 ? viewOf(os2) : null;
  const weight = Math.min(1000, Math.max(1, v?.getUint16(4) || 400));
  const italic = v ? (v.getUint16(62) & 1) === 1 : /italic|oblique/i.test(face.names.style);
  const k = 1 / face.upem;
  const axes = face.axes.slice(0, 64).map((a) => ({ ...a, name: a.name.slice(0, 200) }));
  const embedding = v ? embeddingOf(v.getUint16(8)) : undefined;
  return {
    id: ownFaceId(file),
    file,
    family: shown(face.names.family) || 'A face without a name',
    style: shown(face.names.style) || 'Regular',
    weight,
    italic,
    kind: kindOf(v, tables.get('post')),
    ascender: bounded(face.ascender * k),
    descender: bounded(face.descender * k),
    capHeight: bounded(face.capHeight),
    xHeight: bounded(face.xHeight),
    width: bounded(meanWidth(face)),
    ...(axes.length && { axes }),
    ...(embedding && { embedding }),
  };
}

const shown = (name: string): string =>
  name
    .replace(/[\u0000-\u001f\u007f]/g, ' ')
    .trim()
    .slice(0, 200);
const bounded = (n: number): number =>
  Number.isFinite(n) ? Math.round(Math.min(10, Math.max(-10, n)) * 1e4) / 1e4 : 0;

/**
 * What OS/2 fsType allows (OpenType 1.9): bits 1 restricted, 2 preview and print, 3 editable, 8 no subsetting, 9
 * bitmaps only.
 */
function embeddingOf(fsType: number): OwnFace['embedding'] {
  // The most that any bit allows holds.
  const restricted = (fsType & 0x0002) !== 0 && (fsType & 0x000c) === 0;
  if (restricted || (fsType & 0x0200) !== 0) return 'outlines';
  return (fsType & 0x0100) !== 0 ? 'whole' : undefined;
}

/** By its PANOSE figures (OS/2) and whether all its letters are as wide. */
function kindOf(os2: DataView | null, post: Uint8Array | undefined): FaceKind {
  if (post && post.length >= 16 && viewOf(post).getUint32(12) !== 0) return 'mono';
  if (!os2) return 'sans';
  const [family, serif, width] = [os2.getUint8(32), os2.getUint8(33), os2.getUint16(6)];
  if (family === 3) return 'script';
  if (family === 4) return 'display';
  if (family === 2 && serif >= 2 && serif <= 10) return serif >= 6 && serif <= 8 ? 'slab' : 'serif';
  return width >= 1 && width <= 4 ? 'condensed' : 'sans';
}
