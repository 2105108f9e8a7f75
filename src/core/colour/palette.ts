import type { Colour, Design, GradientPaint, Ink, Stop } from '../model/schema';
import type { ColourEngine, Profile } from './icc';
import { Press, type SpotTable } from './press';
import { clip01, hexOf, labToSrgb, type Triple } from './spaces';

export const PROCESS = ['Cyan', 'Magenta', 'Yellow', 'Black'] as const;

/** Amounts 0…1, one a channel: C M Y K and then the design's spot inks in order; or R G B for a screen design. */
export type Mix = readonly number[];

/** What the colours of all designs need: the engine, the profiles and one baked press a profile. */
export class ColourRoom {
  private readonly presses = new Map<string, { press: Press; rgbToCmyk: (v: Float32Array) => Float32Array; labToCmyk: (v: Float32Array) => Float32Array; bytes: Uint8Array }>();
  private srgb: Profile | null = null;
  constructor(
    private readonly engine: ColourEngine,
    private readonly asset: (path: string) => Promise<Uint8Array>,
  ) {}

  /** Opens and bakes an output profile once. Rejects with a sentence if it is missing or not CMYK. */
  async prepare(file: string): Promise<void> {
    if (this.presses.has(file)) return;
    const bytes = await this.asset(`icc/${file}`);
    const profile = this.engine.open(bytes);
    if (profile.space !== 'cmyk') throw new Error(`${file} is not a profile for printing inks (CMYK).`);
    this.srgb ??= this.engine.open(await this.asset('icc/srgb.icc'));
    this.presses.set(file, {
      press: Press.bake(this.engine, profile),
      rgbToCmyk: this.engine.transform(this.srgb, profile, true),
      labToCmyk: this.engine.transform(this.engine.lab(), profile, false),
      bytes,
    });
  }

  get(file: string) {
    const found = this.presses.get(file);
    if (!found) throw new Error(`profile ${file} was not prepared`);
    return found;
  }
}

/** A gradient's ramp as the painters use it: offsets with a mix each, and the channels that any stop inks. */
export interface ResolvedRamp {
  readonly stops: readonly { readonly offset: number; readonly mix: Mix }[];
  readonly used: readonly boolean[];
}

/**
 * Turns the colours of one design into channels and looks. Made anew when swatches, inks or profile change; paints keep
 * references, so whatever they refer to follows.
 */
export class Palette {
  /** Channel names: the plates of a print design, or the lights of a screen design. */
  readonly channels: readonly string[];
  readonly screen: boolean;
  readonly press: Press;
  readonly spotTables: readonly SpotTable[];
  readonly profileBytes: Uint8Array;
  private readonly swatches: Map<string, Design['swatches'][number]>;
  private readonly inkIndex: Map<string, number>;
  private readonly inks: readonly Ink[];
  private readonly room: ReturnType<ColourRoom['get']>;
  private readonly mixes = new WeakMap<object, Mix>();
  private readonly ramps = new WeakMap<object, ResolvedRamp>();
  private readonly looks = new Map<string, Triple>();

  constructor(design: Pick<Design, 'swatches' | 'inks' | 'profile' | 'setup'>, room: ColourRoom) {
    this.room = room.get(design.profile.file);
    this.press = this.room.press;
    this.profileBytes = this.room.bytes;
    this.screen = design.setup.medium === 'screen';
    this.inks = design.inks;
    this.swatches = new Map(design.swatches.map((s) => [s.id, s]));
    this.inkIndex = new Map(design.inks.map((ink, i) => [ink.id, 4 + i]));
    this.channels = this.screen ? ['Red', 'Green', 'Blue'] : [...PROCESS, ...design.inks.map((i) => i.name)];
    this.spotTables = design.inks.map((ink) => this.press.spotTable(ink.lab));
  }

  /** The channels of a colour. An unknown reference throws: the model's door lets none in. */
  mix(colour: Colour): Mix {
    const known = this.mixes.get(colour);
    if (known) return known;
    const mix = this.screen ? this.lights(colour) : this.inkMix(colour);
    this.mixes.set(colour, mix);
    return mix;
  }

  private inkMix(colour: Colour): Mix {
    const spots = this.inks.map(() => 0);
    if ('cmyk' in colour) return [...colour.cmyk, ...spots];
    if ('gray' in colour) return [0, 0, 0, 1 - colour.gray, ...spots];
    if ('ink' in colour) {
      const index = this.inkIndex.get(colour.ink);
      if (index === undefined) throw new Error(`unknown ink: ${colour.ink}`);
      spots[index - 4] = colour.tint;
      return [0, 0, 0, 0, ...spots];
    }
    if ('rgb' in colour) return [...this.separate(this.room.rgbToCmyk, colour.rgb), ...spots];
    if ('lab' in colour) return [...this.separate(this.room.labToCmyk, colour.lab), ...spots];
    return this.inkMix(this.swatchColour(colour.swatch)).map((v) => v * colour.tint);
  }

  private separate(map: (v: Float32Array) => Float32Array, values: readonly number[]): number[] {
    return [...map(Float32Array.from(values))].map((v) => clip01(v / 100));
  }

  private lights(colour: Colour): Mix {
    if ('rgb' in colour) return colour.rgb;
    if ('gray' in colour) return [colour.gray, colour.gray, colour.gray];
    if ('lab' in colour) return labToSrgb(colour.lab).map(clip01);
    if ('cmyk' in colour) return this.press.look(colour.cmyk, []);
    if ('ink' in colour) {
      const index = this.inkIndex.get(colour.ink);
      if (index === undefined) throw new Error(`unknown ink: ${colour.ink}`);
      return this.press.look([0, 0, 0, 0], [{ table: this.spotTables[index - 4], tint: colour.tint }]);
    }
    return this.lights(this.swatchColour(colour.swatch)).map((v) => 1 - colour.tint * (1 - v));
  }

  private swatchColour(id: string): Colour {
    const swatch = this.swatches.get(id);
    if (swatch?.kind !== 'colour') throw new Error(`unknown swatch: ${id}`);
    return swatch.colour;
  }

  rampStops(ramp: GradientPaint['ramp']): readonly Stop[] {
    if ('stops' in ramp) return ramp.stops;
    const swatch = this.swatches.get(ramp.swatch);
    if (swatch?.kind !== 'ramp') throw new Error(`unknown gradient swatch: ${ramp.swatch}`);
    return swatch.stops;
  }

  ramp(ramp: GradientPaint['ramp']): ResolvedRamp {
    const source = this.rampStops(ramp);
    const known = this.ramps.get(source);
    if (known) return known;
    const stops = [...source].sort((a, b) => a.offset - b.offset).map((s) => ({ offset: s.offset, mix: this.mix(s.colour) }));
    const used = this.channels.map((_, i) => stops.some((s) => s.mix[i] > 0));
    const resolved = { stops, used };
    this.ramps.set(source, resolved);
    return resolved;
  }

  /** sRGB 0…1 of a mix as it looks on the paper (or on the screen). */
  lookOfMix(mix: Mix): Triple {
    if (this.screen) return [mix[0], mix[1], mix[2]];
    const key = mix.join();
    const known = this.looks.get(key);
    if (known) return known;
    const spots = this.spotTables.map((table, i) => ({ table, tint: mix[4 + i] })).filter((s) => s.tint > 0);
    const look = this.press.look(mix.slice(0, 4), spots);
    if (this.looks.size > 20_000) this.looks.clear();
    this.looks.set(key, look);
    return look;
  }

  css(colour: Colour): string {
    return hexOf(this.lookOfMix(this.mix(colour)));
  }

  /** Lab, relative to the paper, of a colour as it prints. */
  labOf(colour: Colour): Triple {
    const mix = this.inkMix(colour);
    const spots = this.spotTables.map((table, i) => ({ table, tint: mix[4 + i] })).filter((s) => s.tint > 0);
    return this.press.lab(mix.slice(0, 4), spots);
  }
}

/** The mix at `t` of a ramp: straight between stops, flat outside. */
export function mixAt(ramp: ResolvedRamp, t: number): Mix {
  const { stops } = ramp;
  if (t <= stops[0].offset) return stops[0].mix;
  for (let i = 1; i < stops.length; i++) {
    if (t < stops[i].offset) {
      const [a, b] = [stops[i - 1], stops[i]];
      const f = (t - a.offset) / (b.offset - a.offset);
      return a.mix.map((v, j) => v + f * (b.mix[j] - v));
    }
  }
  return stops[stops.length - 1].mix;
}
