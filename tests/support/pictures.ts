import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { assetName } from '@/core/file/assets';
import { pictureFacts, readPicture } from '@/core/input/picture/read';
import type { Picture } from '@/core/model/schema';
import { openEngines, type Engines } from '@/core/engines';
import { nodeEnv } from '@/env/node';
import { publicFolder } from './engines';

/** A small scene in PostScript, 120 × 80 points: three sweeps of colour, a disc and bars, in CMYK or RGB. */
const SCENE = (space: 'cmyk' | 'rgb') => {
  const colours =
    space === 'cmyk'
      ? ['[0.9 0.5 0 0.1]', '[0 0.3 0.9 0]', '[0 0.8 0.4 0]', '[0 0 0 0.8]']
      : ['[0.1 0.3 0.8]', '[0.95 0.8 0.2]', '[0.9 0.3 0.4]', '[0.15 0.15 0.15]'];
  const name = space === 'cmyk' ? '/DeviceCMYK' : '/DeviceRGB';
  const set = `${name} setcolorspace`;
  return `%!PS
<< /ShadingType 2 /ColorSpace ${name} /Coords [0 0 120 0] /Extend [true true] /Function << /FunctionType 2 /Domain [0 1] /N 1 /C0 ${colours[0]} /C1 ${colours[1]} >> >> shfill
${set} ${colours[2].slice(1, -1)} setcolor 40 40 22 0 360 arc fill
${set} ${colours[3].slice(1, -1)} setcolor 80 10 30 14 rectfill 80 30 30 14 rectfill
showpage
`;
};

const known = new Map<string, Uint8Array>();
/** The scene as a file written by a Ghostscript device (its encoders are not ours), at 72 or more dots an inch. */
export function drawnBy(
  device: string,
  { dpi = 72, options = [] as readonly string[], space = 'rgb' as 'cmyk' | 'rgb' } = {},
): Uint8Array {
  const key = JSON.stringify([device, dpi, options, space]);
  const made = known.get(key);
  if (made) return made;
  const dir = mkdtempSync(path.join(tmpdir(), 'holvet-pic-'));
  try {
    writeFileSync(path.join(dir, 'in.ps'), SCENE(space));
    execFileSync('gs', [
      '-q',
      '-dNOPAUSE',
      '-dBATCH',
      '-dSAFER',
      `-sDEVICE=${device}`,
      '-g' + Math.round((120 * dpi) / 72) + 'x' + Math.round((80 * dpi) / 72),
      `-r${dpi}`,
      ...options,
      `-sOutputFile=${path.join(dir, 'out')}`,
      path.join(dir, 'in.ps'),
    ]);
    const bytes = new Uint8Array(readFileSync(path.join(dir, 'out')));
    known.set(key, bytes);
    return bytes;
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

/** A engines that has files of its own beside the shipped ones, with counted ids and a fixed clock. */
export async function shopWith(files: ReadonlyMap<string, Uint8Array>): Promise<Engines> {
  let n = 0;
  const node = nodeEnv(publicFolder);
  return openEngines({
    ...node,
    newId: () => `t${n++}`,
    now: () => '2026-11-02T18:00:00.000Z',
    async asset(file) {
      return files.get(file.split('/').pop()!) ?? node.asset(file);
    },
  });
}

/** What a design keeps of a file's picture, the file put by under its own name. */
export async function pictureOf(
  bytes: Uint8Array,
  ending: string,
  files: Map<string, Uint8Array>,
  name = `boats.${ending}`,
): Promise<Omit<Picture, 'id'>> {
  const file = await assetName(bytes, ending);
  files.set(file, bytes);
  return { name, file, ...pictureFacts(await readPicture(bytes, nodeEnv(publicFolder))) };
}

/** A JPEG without the profile it brings along (its APP2 segments). */
export function withoutProfile(jpeg: Uint8Array): Uint8Array {
  const out = [jpeg.subarray(0, 2)];
  for (let at = 2; at + 4 <= jpeg.length;) {
    const length = 2 + (jpeg[at + 2] << 8) + jpeg[at + 3];
    if (jpeg[at + 1] === 0xda) {
      out.push(jpeg.subarray(at));
      break;
    }
    if (jpeg[at + 1] !== 0xe2) out.push(jpeg.subarray(at, at + length));
    at += length;
  }
  return Uint8Array.from(Buffer.concat(out));
}
