import type { Env } from '../../env';
import { FontProblem } from './problem';
import { viewOf } from './sfnt';

/** What the outside gives to unpack a WOFF2 file: the brotli decoder. */
export type FontEnv = Pick<Env, 'asset'>;

/**
 * WOFF 2.0 (W3C). Its one packed stream is unpacked first by a decoder that is told where to stop: the reader of the
 * format would run for ever on a broken one.
 */
export async function fromWoff2(bytes: Uint8Array, env: FontEnv, most: number): Promise<Uint8Array> {
  await checkStream(packedStream(bytes), env, most);
  // Of those that read this format it is the one that makes no code of its own, which the security policy forbids.
  const { woff2Decode } = await import('woff-lib/woff2/decode');
  return woff2Decode(bytes);
}

/**
 * The packed stream of a file: behind the header of 48 bytes and the table directory, whose rows are of many lengths.
 */
function packedStream(bytes: Uint8Array): Uint8Array {
  const v = viewOf(bytes);
  const tables = v.getUint16(12);
  let at = 48;
  for (let i = 0; i < tables; i++) {
    const flags = v.getUint8(at++);
    const tag = flags & 0x3f;
    const version = flags >> 6;
    if (tag === 0x3f) at += 4;
    at = afterNumber(v, at);
    // The length once transformed: of glyf (10) and loca (11) unless their version is 3, of others where it is not 0.
    if (tag === 10 || tag === 11 ? version !== 3 : version !== 0) at = afterNumber(v, at);
  }
  const length = v.getUint32(20);
  if (v.getUint32(4) === 0x74746366 || at + length > bytes.length) throw new FontProblem('it is cut off or damaged');
  return bytes.subarray(at, at + length);
}

/** Where a number of one to five bytes ends (UIntBase128). */
function afterNumber(v: DataView, at: number): number {
  for (let i = 0; i < 5; i++) if ((v.getUint8(at + i) & 0x80) === 0) return at + i + 1;
  throw new FontProblem('it is damaged');
}

let loading: Promise<typeof import('brotli-dec-wasm/web')> | null = null;
const decoder = (env: FontEnv) =>
  (loading ??= (async () => {
    const [brotli, module] = await Promise.all([
      import('brotli-dec-wasm/web'),
      env.asset('wasm/brotli_dec_wasm_bg.wasm'),
    ]);
    brotli.initSync({ module: module as BufferSource });
    return brotli;
  })().catch((e: unknown) => {
    loading = null;
    throw e;
  }));

/** Unpacks a stream to its end and lets it go; throws where it is broken, or longer than may be. */
async function checkStream(packed: Uint8Array, env: FontEnv, most: number): Promise<void> {
  const { DecompressStream, BrotliStreamResultCode: code } = await decoder(env);
  const stream = new DecompressStream();
  let [at, total] = [0, 0];
  for (;;) {
    const step = stream.decompress(packed.subarray(at), 4 * 1024 * 1024);
    at += step.input_offset;
    total += step.buf.length;
    if (total > most)
      throw new FontProblem(`it is too large (more than ${Math.round(most / 1048576)} MB once unpacked)`);
    if (step.code === code.ResultSuccess) return;
    if (step.code === code.NeedsMoreInput) throw new FontProblem('it is cut off');
  }
}
