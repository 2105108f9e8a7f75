import type { Cmyk, Colour, Design, GradientPaint, Ink, OwnColour, Ramp } from '../model/schema';
import { SMALL_BLACK } from '../model/platesSchema';
import type { Picture, PictureSpace } from '../model/pictureSchema';
import type { PictureBook } from '../pictures/book';
import type { PictureSource } from '../pictures/source';
import type { ColourTable } from './inkTable';
import { mapTuple } from '../units/tuple';
import { deltaE00 } from './compare';
import type { Press, SpotInk } from './press';
import type { ColourRoom, OpenedProfile } from './room';
import type { Mix } from './mixing';
import { resolveRamp, thereAndBack, type RampSource, type ResolvedRamp } from './ramp';
import { clip01, hexOf, labToSrgb, srgbToLab, type Triple } from './spaces';

export const PROCESS = ['Cyan', 'Magenta', 'Yellow', 'Black'] as const;

/**
 * Turns the colours of one design into channels and looks. Made anew when swatches, inks or profile change; paints keep
 * references, so whatever they refer to follows.
 */
export class Palette {
  /** Channel names: the plates of a print design, or the lights of a screen design. */
  readonly channels: readonly string[];
  readonly screen: boolean;
  /** What looks depend on besides mixes: the same in two palettes that show every mix alike. */
  readonly id: string;
  readonly press: Press;
  /** All spot inks of the design, those printed from their stand-in too. */
  readonly allInks: readonly Ink[];
  /** The spot inks with a plate of their own, in the order in which they print; channel 4 is the first. */
  readonly inks: readonly Ink[];
  readonly spotInks: readonly SpotInk[];
  readonly profileBytes: Uint8Array;
  /** How far inks that abut are laid over each other, points; 0: not at all. */
  readonly trap: number;
  /** Letters of black alone that are smaller overprint, points. */
  readonly smallBlack: number;
  /** The design's own profile is missing; a shipped one stands in for it. */
  readonly substituted: boolean;
  private readonly pictures: Map<string, Picture>;
  private readonly profileFile: string;
  private readonly swatches: Map<string, Design['swatches'][number]>;
  private readonly inkIndex: Map<string, number>;
  /** Inks that are printed from their stand-in recipe. */
  private readonly standIns: Map<string, Ink>;
  private readonly room: OpenedProfile;
  private readonly mixes = new WeakMap<object, Mix>();
  private readonly ramps = new WeakMap<object, ResolvedRamp>();
  private readonly looks = new Map<string, Triple>();

  constructor(
    design: Pick<Design, 'swatches' | 'inks' | 'profile' | 'setup' | 'pictures' | 'plates'>,
    private readonly colours: ColourRoom,
    private readonly book: PictureBook | null = null,
  ) {
    this.room = colours.get(design.profile.file);
    this.pictures = new Map((design.pictures ?? []).map((p) => [p.id, p]));
    this.profileFile = design.profile.file;
    this.trap = design.plates?.trap ?? 0;
    this.smallBlack = design.plates?.smallBlack ?? SMALL_BLACK;
    this.press = this.room.press;
    this.profileBytes = this.room.bytes;
    this.substituted = colours.missing.has(design.profile.file);
    this.screen = design.setup.medium === 'screen';
    this.allInks = design.inks;
    this.inks = design.inks.filter((ink) => !ink.asStandIn);
    this.standIns = new Map(design.inks.flatMap((ink) => (ink.asStandIn ? [[ink.id, ink]] : [])));
    this.swatches = new Map(design.swatches.map((s) => [s.id, s]));
    this.inkIndex = new Map(this.inks.map((ink, i) => [ink.id, 4 + i]));
    this.id = JSON.stringify([
      design.profile.file,
      this.screen,
      this.substituted,
      this.inks.map((i) => [i.lab, i.opaque]),
      this.trap,
      this.smallBlack,
    ]);
    this.channels = this.screen ? ['Red', 'Green', 'Blue'] : [...PROCESS, ...this.inks.map((i) => i.name)];
    this.spotInks = this.inks.map((ink) => ({ table: this.press.spotTable(ink.lab), opaque: ink.opaque === true }));
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
      const ink = this.standIns.get(colour.ink);
      if (ink) return [...ink.alternate.map((v) => v * colour.tint), ...spots];
      spots[this.channelOf(colour.ink) - 4] = colour.tint;
      return [0, 0, 0, 0, ...spots];
    }
    if ('rgb' in colour) return [...this.separate(this.room.rgbToCmyk, colour.rgb), ...spots];
    if ('lab' in colour) return [...this.separate(this.room.labToCmyk, colour.lab), ...spots];
    return this.inkMix(this.swatchColour(colour.swatch)).map((v) => v * colour.tint);
  }

  private inkOf(id: string): Ink {
    return this.standIns.get(id) ?? this.inks[this.channelOf(id) - 4];
  }

  private channelOf(ink: string): number {
    const index = this.inkIndex.get(ink);
    if (index === undefined) throw new Error(`unknown ink: ${ink}`);
    return index;
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
      const ink = this.standIns.get(colour.ink);
      if (ink)
        return this.press.look(
          ink.alternate.map((v) => v * colour.tint),
          [],
        );
      return this.press.look([0, 0, 0, 0], [{ ...this.spotInks[this.channelOf(colour.ink) - 4], tint: colour.tint }]);
    }
    return this.lights(this.swatchColour(colour.swatch)).map((v) => 1 - colour.tint * (1 - v));
  }

  private swatchColour(id: string): Colour {
    const swatch = this.swatches.get(id);
    if (swatch?.kind !== 'colour') throw new Error(`unknown swatch: ${id}`);
    return swatch.colour;
  }

  rampSource(ramp: Ramp): RampSource {
    if ('stops' in ramp) return ramp;
    const swatch = this.swatches.get(ramp.swatch);
    if (swatch?.kind !== 'ramp') throw new Error(`unknown gradient swatch: ${ramp.swatch}`);
    return swatch;
  }

  ramp(ramp: Ramp): ResolvedRamp {
    const source = this.rampSource(ramp);
    let known = this.ramps.get(source);
    if (!known) this.ramps.set(source, (known = resolveRamp(source, this)));
    return known;
  }

  /** The ramp of a paint as it is laid: there and back where it is asked for. */
  rampOf(paint: Pick<GradientPaint, 'ramp' | 'strokeMapping' | 'thereAndBack'>): ResolvedRamp {
    const ramp = this.ramp(paint.ramp);
    return paint.strokeMapping === 'along' && paint.thereAndBack ? thereAndBack(ramp) : ramp;
  }

  /** What the design knows of a picture. An unknown reference throws: the model's door lets none in. */
  picture(id: string): Picture {
    const known = this.pictures.get(id);
    if (!known) throw new Error(`unknown picture: ${id}`);
    return known;
  }

  /** A picture's pixels; null where its file is not at hand. */
  pictureSource(id: string): PictureSource | null {
    return this.book?.get(this.picture(id).file) ?? null;
  }

  /** From a picture's colours to this palette's channels; null: its numbers are kept. See ColourRoom. */
  pictureTable(space: PictureSpace, icc: Uint8Array | null): ColourTable | null {
    return this.colours.pictureTable(this.profileFile, this.screen, space, icc);
  }

  /** sRGB 0…1 of a mix as it looks on the paper (or on the screen). */
  lookOfMix(mix: Mix): Triple {
    if (this.screen) return [mix[0], mix[1], mix[2]];
    const key = mix.join();
    const known = this.looks.get(key);
    if (known) return known;
    const look = this.press.look(mix.slice(0, 4), this.spotsOf(mix));
    if (this.looks.size > 20_000) this.looks.clear();
    this.looks.set(key, look);
    return look;
  }

  css(colour: Colour): string {
    return hexOf(this.lookOfMix(this.mix(colour)));
  }

  /** Lab, relative to the paper, of a colour as it prints. */
  labOf(colour: Colour): Triple {
    return this.labOfMix(this.inkMix(colour));
  }

  /** Lab, relative to the paper, of a mix of inks. */
  labOfMix(mix: Mix): Triple {
    return this.press.lab(mix.slice(0, 4), this.spotsOf(mix));
  }

  private spotsOf(mix: Mix) {
    return this.spotInks.map((ink, i) => ({ ...ink, tint: mix[4 + i] })).filter((s) => s.tint > 0);
  }

  // ——— between recipes and looks

  /** The colour of a swatch, or the colour itself: never a reference. Part strengths of a swatch are kept apart. */
  own(colour: Colour): { readonly colour: OwnColour; readonly tint: number } {
    return 'swatch' in colour
      ? { colour: this.swatchColour(colour.swatch) as OwnColour, tint: colour.tint }
      : { colour, tint: 1 };
  }

  /** Process inks 0…1 of an RGB colour (black-point compensated) or of a Lab colour, by the profile. */
  cmykOf(colour: { readonly rgb: Triple } | { readonly lab: Triple }): Cmyk {
    const [c, m, y, k] =
      'rgb' in colour ? this.separate(this.room.rgbToCmyk, colour.rgb) : this.separate(this.room.labToCmyk, colour.lab);
    return [c, m, y, k];
  }

  /** The same in whole percents, as a recipe is written. */
  recipeOf(colour: { readonly rgb: Triple } | { readonly lab: Triple }): Cmyk {
    return mapTuple(this.cmykOf(colour), (v) => Math.round(v * 100) / 100);
  }

  /** The process recipe of a colour: its own, its ink's stand-in, or what the profile makes of it. */
  processOf(colour: OwnColour): Cmyk {
    if ('cmyk' in colour) return colour.cmyk;
    if ('gray' in colour) return [0, 0, 0, 1 - colour.gray];
    if ('ink' in colour) {
      return mapTuple(this.inkOf(colour.ink).alternate, (v) => v * colour.tint);
    }
    return this.cmykOf(colour);
  }

  /** What a colour is meant to look like, whatever can be printed: Lab D50. Inks are meant as they print. */
  wantedLab(colour: OwnColour): Triple {
    if ('rgb' in colour) return srgbToLab(colour.rgb);
    if ('lab' in colour) return colour.lab;
    if ('ink' in colour && colour.tint === 1) return this.inkOf(colour.ink).lab;
    return this.labOf(colour);
  }

  /**
   * How a screen or Lab colour comes out; null for colours made of ink. `prints`: how far it prints from what it is
   * meant to be (ΔE00). `beyond`: even the nearest ink is too far, the colour is out of reach.
   */
  reach(colour: OwnColour): { readonly prints: number; readonly beyond: boolean } | null {
    if (!('rgb' in colour) && !('lab' in colour)) return null;
    const wanted = this.wantedLab(colour);
    const nearest = deltaE00(wanted, this.labOf({ cmyk: this.cmykOf({ lab: wanted }) }));
    return { prints: 'lab' in colour ? nearest : deltaE00(wanted, this.labOf(colour)), beyond: nearest > OUT_OF_REACH };
  }

  /** How far an ink's stand-in recipe looks from the ink itself on this paper (ΔE00). */
  standInDistance(ink: Pick<Ink, 'lab' | 'alternate'>): number {
    return deltaE00(this.press.solid(ink.lab).lab, this.press.lab(ink.alternate, []));
  }

  /** sRGB 0…1 of a solid ink that need not be in the design. */
  lookOfInk(ink: Pick<Ink, 'lab'>): Triple {
    return this.press.solid(ink.lab).rgb;
  }

  /**
   * The colour that a mix is, in the design's own terms: process inks as a recipe in whole percents, one spot ink alone
   * as a tint of it, several together as the recipe nearest to their look; RGB for a screen.
   */
  colourOfMix(mix: Mix): OwnColour {
    if (this.screen) return { rgb: [mix[0], mix[1], mix[2]] };
    const spots = this.inks.flatMap((ink, i) =>
      mix[4 + i] > 0 ? [{ ink: ink.id, tint: Math.round(mix[4 + i] * 100) / 100 }] : [],
    );
    const process = mix.slice(0, 4);
    if (!spots.length)
      return { cmyk: mapTuple([process[0], process[1], process[2], process[3]], (v) => Math.round(v * 100) / 100) };
    if (spots.length === 1 && process.every((v) => v === 0)) return spots[0];
    return { cmyk: this.recipeOf({ lab: this.labOfMix(mix) }) };
  }

  /** The sum of inks of a colour, 1 = 100 %. */
  totalInk(colour: Colour): number {
    return this.inkMix(colour).reduce((a, b) => a + b, 0);
  }

  /** Does this paint hide what lies below even when it overprints? Only an opaque ink at full strength does. */
  hides(mix: Mix): boolean {
    return this.spotInks.some((ink, i) => ink.opaque && mix[4 + i] >= 1);
  }
}

/**
 * Beyond this a colour counts as out of reach: the difference that a trained eye sees side by side (common practice).
 */
const OUT_OF_REACH = 2;
