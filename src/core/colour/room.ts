import { isOwnAsset } from '../file/assets';
import { PROFILES } from '../model/defaults';
import type { PictureSpace } from '../model/pictureSchema';
import type { ColourEngine, Profile } from './icc';
import { bakeTable, type ColourTable } from './inkTable';
import { Press } from './press';

/** Tables for pictures that are kept at once. */
const MOST_TABLES = 16;

/** Numbers alike for alike bytes (FNV-1a). */
function checksum(bytes: Uint8Array): number {
  let h = bytes.length;
  for (const b of bytes) h = Math.imul(h ^ b, 16777619);
  return h >>> 0;
}

/** sRGB of process mixes as they print. */
function looksOf(press: Press, values: Float32Array): Float32Array {
  const out = new Float32Array((values.length / 4) * 3);
  for (let i = 0; i < values.length / 4; i++)
    out.set(press.look([values[4 * i], values[4 * i + 1], values[4 * i + 2], values[4 * i + 3]], []), 3 * i);
  return out;
}

/** Greys of a profile as sRGB; a table's three equal inputs stand for one. */
function grayOf(toRgb: (v: Float32Array) => Float32Array, values: Float32Array): Float32Array {
  const gray = new Float32Array(values.length / 3);
  for (let i = 0; i < gray.length; i++) gray[i] = values[3 * i];
  const rgb = toRgb(gray);
  for (let i = 0; i < gray.length; i++) gray[i] = rgb[3 * i + 1];
  return gray;
}

/** An output profile, opened and baked. */
export interface OpenedProfile {
  readonly press: Press;
  readonly rgbToCmyk: (v: Float32Array) => Float32Array;
  readonly labToCmyk: (v: Float32Array) => Float32Array;
  readonly bytes: Uint8Array;
  readonly profile: Profile;
}

/** What the colours of all designs need: the engine, the profiles and one baked press a profile. */
export class ColourRoom {
  private readonly presses = new Map<string, OpenedProfile>();
  private srgb: Profile | null = null;
  constructor(
    private readonly engine: ColourEngine,
    private readonly asset: (path: string) => Promise<Uint8Array>,
  ) {}

  /** Profiles that could not be had; another stands in for them, so that the design can still be seen and mended. */
  readonly missing = new Set<string>();

  /**
   * Opens and bakes an output profile once. Rejects with a sentence if a shipped one is missing or not CMYK; in place
   * of a person's own that is missing stands the first shipped one, and `missing` says so.
   */
  async prepare(file: string): Promise<void> {
    if (this.presses.has(file) && !this.missing.has(file)) return;
    try {
      await this.bake(file);
      this.missing.delete(file);
    } catch (e) {
      if (!isOwnAsset(file)) throw e;
      await this.prepare(PROFILES[0].file);
      this.presses.set(file, this.get(PROFILES[0].file));
      this.missing.add(file);
    }
  }

  private async bake(file: string): Promise<void> {
    const bytes = await this.asset(`icc/${file}`);
    const profile = this.engine.open(bytes);
    if (profile.space !== 'cmyk') throw new Error(`${file} is not a profile for printing inks (CMYK).`);
    this.srgb ??= this.engine.open(await this.asset('icc/srgb.icc'));
    this.presses.set(file, {
      press: Press.bake(this.engine, profile),
      rgbToCmyk: this.engine.transform(this.srgb, profile, true),
      labToCmyk: this.engine.transform(this.engine.lab(), profile, false),
      bytes,
      profile,
    });
  }

  private readonly tables = new Map<string, ColourTable | null>();

  /**
   * How the colours of pictures become the inks of a profile, or sRGB for a screen; null where the picture's own
   * numbers are the answer. `icc` is the picture's own profile: one of another kind than its colours is not heeded.
   * Grey pictures have tables of equal inputs.
   */
  pictureTable(profile: string, screen: boolean, space: PictureSpace, icc: Uint8Array | null): ColourTable | null {
    const key = `${profile} ${screen} ${space} ${icc ? checksum(icc) : ''}`;
    let table = this.tables.get(key);
    if (table === undefined) {
      if (this.tables.size >= MOST_TABLES) this.tables.clear();
      this.tables.set(key, (table = this.bakePictureTable(this.get(profile), screen, space, icc)));
    }
    return table;
  }

  private bakePictureTable(
    output: OpenedProfile,
    screen: boolean,
    space: PictureSpace,
    icc: Uint8Array | null,
  ): ColourTable | null {
    const own = icc && this.ownProfile(icc, space);
    if (space === 'gray')
      return own ? bakeTable(3, 1, 33, (v) => grayOf(this.engine.transform(own, this.srgb!, false), v)) : null;
    if (space === 'rgb') {
      if (screen) return own ? bakeTable(3, 3, 33, this.engine.transform(own, this.srgb!, true)) : null;
      const map = own ? this.engine.transform(own, output.profile, true) : output.rgbToCmyk;
      return bakeTable(3, 4, 33, (v) => map(v).map((x) => x / 100));
    }
    const hundred = (v: Float32Array) => v.map((x) => x * 100);
    if (!screen) {
      // Inks meant for this very paper, or for none that is named, are kept as they are.
      if (!own || checksum(icc) === checksum(output.bytes)) return null;
      const map = this.engine.transform(own, output.profile, true);
      return bakeTable(4, 4, 17, (v) => map(hundred(v)).map((x) => x / 100));
    }
    const shown = own ? this.engine.transform(own, this.srgb!, true) : null;
    return bakeTable(4, 3, 17, shown ? (v) => shown(hundred(v)) : (v) => looksOf(output.press, v));
  }

  private ownProfile(icc: Uint8Array, space: PictureSpace): Profile | null {
    try {
      const profile = this.engine.open(icc);
      if (profile.space !== space) return null;
      this.engine.transform(profile, this.srgb!, true); // a profile with its tables missing opens, and leads nowhere
      return profile;
    } catch {
      return null; // a broken profile says nothing about the colours
    }
  }

  get(file: string): OpenedProfile {
    const found = this.presses.get(file);
    if (!found) throw new Error(`profile ${file} was not prepared`);
    return found;
  }
}
