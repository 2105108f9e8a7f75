import type { Env } from '../../env';
import type { Face } from '../../text/face';
import { glyphsByNumber } from './cff';

/** The calls of harfbuzz-subset.wasm that are used. */
interface SubsetExports {
  readonly memory: WebAssembly.Memory;
  _initialize(): void;
  malloc(n: number): number;
  free(p: number): void;
  hb_blob_create(data: number, length: number, mode: number, user: number, destroy: number): number;
  hb_blob_destroy(b: number): void;
  hb_face_create(blob: number, index: number): number;
  hb_face_destroy(f: number): void;
  hb_subset_input_create_or_fail(): number;
  hb_subset_input_destroy(i: number): void;
  hb_subset_input_set_flags(i: number, flags: number): void;
  hb_subset_input_glyph_set(i: number): number;
  hb_subset_input_pin_all_axes_to_default(i: number, face: number): number;
  hb_subset_input_pin_axis_location(i: number, face: number, tag: number, value: number): number;
  hb_subset_input_set(i: number, which: number): number;
  hb_set_add(set: number, value: number): void;
  hb_subset_or_fail(face: number, input: number): number;
  hb_face_reference_blob(face: number): number;
  hb_blob_get_data(blob: number, length: number): number;
  hb_blob_get_length(blob: number): number;
}

let loading: Promise<SubsetExports> | null = null;

async function subsetter(env: Pick<Env, 'asset'>): Promise<SubsetExports> {
  loading ??= (async () => {
    const bytes = await env.asset('wasm/harfbuzz-subset.wasm');
    const { instance } = await WebAssembly.instantiate(bytes as BufferSource, {});
    const x = instance.exports as unknown as SubsetExports;
    x._initialize();
    return x;
  })();
  return loading;
}

// hb-subset.h: NO_HINTING | RETAIN_GIDS | NOTDEF_OUTLINE | NO_LAYOUT_CLOSURE | DOWNGRADE_CFF2 (PDF knows no CFF2)
const FLAGS = 1 | 2 | 0x40 | 0x200 | 0x4000;
const DROP_TABLE_TAG = 3;
const UNUSED_IN_PDF = ['GSUB', 'GPOS', 'GDEF', 'DSIG', 'name', 'OS/2', 'post', 'STAT', 'gasp', 'cmap', 'kern', 'meta'];

const tagNumber = (tag: string): number => [...tag].reduce((sum, c) => (sum << 8) + c.charCodeAt(0), 0);

/**
 * Only the glyphs that are used, their ids kept, so that shaped ids go straight into the file; of a variable face, as
 * it is at its place on the axes. Throws where the face cannot be cut.
 */
export async function subsetFont(
  env: Pick<Env, 'asset'>,
  { bytes: font, axes, at }: Pick<Face, 'bytes' | 'axes' | 'at'>,
  gids: Iterable<number>,
): Promise<Uint8Array> {
  const x = await subsetter(env);
  const data = x.malloc(font.length);
  new Uint8Array(x.memory.buffer).set(font, data);
  const blob = x.hb_blob_create(data, font.length, 2, 0, 0);
  const face = x.hb_face_create(blob, 0);
  const input = x.hb_subset_input_create_or_fail();
  x.hb_subset_input_set_flags(input, FLAGS);
  const glyphs = x.hb_subset_input_glyph_set(input);
  for (const g of gids) x.hb_set_add(glyphs, g);
  const drop = x.hb_subset_input_set(input, DROP_TABLE_TAG);
  for (const t of UNUSED_IN_PDF) x.hb_set_add(drop, tagNumber(t));
  if (axes.length) {
    x.hb_subset_input_pin_all_axes_to_default(input, face);
    for (const [tag, value] of Object.entries(at))
      x.hb_subset_input_pin_axis_location(input, face, tagNumber(tag), value);
  }
  const result = x.hb_subset_or_fail(face, input);
  let cut: Uint8Array | null = null;
  if (result) {
    const out = x.hb_face_reference_blob(result);
    const from = x.hb_blob_get_data(out, 0);
    cut = new Uint8Array(x.memory.buffer).slice(from, from + x.hb_blob_get_length(out));
    x.hb_blob_destroy(out);
    x.hb_face_destroy(result);
  }
  x.hb_subset_input_destroy(input);
  x.hb_face_destroy(face);
  x.hb_blob_destroy(blob);
  x.free(data);
  if (!cut) throw new Error('a font could not be cut down to the glyphs used');
  if (cut[0] === OTTO) glyphsByNumber(cut);
  return cut;
}
const OTTO = 0x4f;
