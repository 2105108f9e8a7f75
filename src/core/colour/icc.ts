import type { LcmsModule } from 'lcms-wasm';
import type { Env } from '../env';

// Pixel formats of the engine: float flag << 22 | space << 16 | channels << 3 | bytes.
const FLOAT = (space: number, channels: number) => (1 << 22) | (space << 16) | (channels << 3) | 4;
const SPACES = { gray: FLOAT(3, 1), rgb: FLOAT(4, 3), cmyk: FLOAT(6, 4), lab: FLOAT(10, 3) } as const;
const CHANNELS = { gray: 1, rgb: 3, cmyk: 4, lab: 3 } as const;
const SIGNATURES: Readonly<Record<number, IccSpace>> = {
  0x434d594b: 'cmyk',
  0x52474220: 'rgb',
  0x4c616220: 'lab',
  0x47524159: 'gray',
};
export type IccSpace = keyof typeof SPACES;

const RELATIVE = 1;
const NO_CACHE = 0x40;
const NO_OPTIMIZE = 0x100;
const BLACK_POINT = 0x2000;

/** Colour-managed maps between profiles, all in float. Inks are 0…100, RGB and grey 0…1, Lab as it is. */
export class ColourEngine {
  private constructor(private readonly lcms: LcmsModule) {}

  static async load(env: Env): Promise<ColourEngine> {
    const glue = (await import(
      /* webpackIgnore: true */ /* turbopackIgnore: true */ env.lcmsGlue
    )) as typeof import('lcms-wasm');
    const inPackage = env.lcmsGlue === 'lcms-wasm';
    const wasmUrl = env.lcmsGlue.replace(/lcms\.js$/, 'lcms.wasm');
    return new ColourEngine(await glue.instantiate(inPackage ? {} : { locateFile: () => wasmUrl }));
  }

  /** Opens a profile, or throws a sentence that says why it is refused. */
  open(bytes: Uint8Array): Profile {
    const { lcms } = this;
    const ptr = lcms._malloc(bytes.length);
    lcms.HEAPU8.set(bytes, ptr);
    const handle = lcms._cmsOpenProfileFromMem(ptr, bytes.length);
    lcms._free(ptr); // the engine keeps its own copy
    if (!handle) throw new Error('This file is not an ICC profile.');
    const space = lcms._cmsGetColorSpace(handle) >>> 0;
    return { handle, space: SIGNATURES[space] ?? 'other' };
  }

  lab(): Profile {
    return { handle: this.lcms._cmsCreateLab4Profile(0), space: 'lab' };
  }

  /**
   * Relative colorimetric by the engine's unoptimised float path; `blackPoint` adds black-point compensation. The map
   * takes and gives packed floats.
   */
  transform(from: Profile, to: Profile, blackPoint: boolean): (values: Float32Array) => Float32Array {
    if (from.space === 'other' || to.space === 'other')
      throw new Error('This profile is neither CMYK, RGB, grey nor Lab.');
    const { lcms } = this;
    const flags = NO_CACHE | NO_OPTIMIZE | (blackPoint ? BLACK_POINT : 0);
    const t = lcms._cmsCreateTransform(from.handle, SPACES[from.space], to.handle, SPACES[to.space], RELATIVE, flags);
    if (!t) throw new Error('These profiles cannot be joined.');
    const [ci, co] = [CHANNELS[from.space], CHANNELS[to.space]];
    return (values) => {
      const pixels = values.length / ci;
      if (!Number.isInteger(pixels)) throw new Error(`${values.length} values do not make whole colours of ${ci}`);
      const input = lcms._malloc(values.byteLength);
      const output = lcms._malloc(pixels * co * 4);
      lcms.HEAPF32.set(values, input >> 2);
      lcms._cmsDoTransform(t, input, output, pixels);
      const result = lcms.HEAPF32.slice(output >> 2, (output >> 2) + pixels * co);
      lcms._free(input);
      lcms._free(output);
      return result;
    };
  }
}

export interface Profile {
  readonly handle: number;
  readonly space: IccSpace | 'other';
}
