import type { PDFRef } from '@cantoo/pdf-lib';
import type { Mix } from '../../colour/mixing';
import { PROCESS, type Palette } from '../../colour/palette';
import type { Paint } from '../../model/schema';
import { name, pdfNumber, type PdfFile, type Value } from './file';

/** A colour space, and what of a mix goes into it. */
export interface InkSpace {
  readonly space: Value;
  values(mix: ArrayLike<number>): number[];
  /** The channels that those are, in their order; null: a grey, the lightness of black. */
  readonly channels: readonly number[] | null;
}
const of = (channels: readonly number[]): Omit<InkSpace, 'space'> => ({
  values: (mix) => channels.map((c) => mix[c]),
  channels,
});

/**
 * Colour spaces of one file: DeviceCMYK for process, Separation for a spot alone, DeviceN for gradients that mix them.
 */
export class ColourSpaces {
  private readonly separations = new Map<number, PDFRef>();
  private readonly deviceN = new Map<string, Promise<PDFRef>>();
  readonly all: PDFRef;
  readonly resources: Record<string, Value> = {};

  constructor(
    private readonly file: PdfFile,
    private readonly palette: Palette,
    /** The sRGB profile when screen colours are kept as they are; null when they are separated. */
    private readonly srgb: Uint8Array | null = null,
  ) {
    this.all = file.add([name('Separation'), name('All'), name('DeviceCMYK'), tintFunction([1, 1, 1, 1])]);
    this.resources.All = this.all;
  }

  private separation(channel: number): PDFRef {
    let ref = this.separations.get(channel);
    if (!ref) {
      const ink = this.palette.inks[channel - 4];
      ref = this.file.add([name('Separation'), name(ink.name), name('DeviceCMYK'), tintFunction(ink.alternate)]);
      this.separations.set(channel, ref);
      this.resources[`S${channel}`] = ref;
    }
    return ref;
  }

  /** Do some colours stay RGB? */
  get keepsRgb(): boolean {
    return this.srgb !== null;
  }

  /** The numbers of a flat colour that stays RGB, its tagged space made known; null for what is separated. */
  async keptRgb(paint: Extract<Paint, { kind: 'colour' }>): Promise<readonly [number, number, number] | null> {
    // Overprint and part strengths are matters of ink: such colours are separated like all others.
    if (!this.srgb || paint.overprint) return null;
    const { colour, tint } = this.palette.own(paint.colour);
    if (tint !== 1 || !('rgb' in colour)) return null;
    this.resources.Screen ??= await this.taggedRgb(null);
    return colour.rgb;
  }

  private readonly tagged = new Map<Uint8Array, Promise<PDFRef>>();
  /** The space of RGB by a profile (sRGB where none is given). Only where screen colours are kept. */
  taggedRgb(icc: Uint8Array | null): Promise<PDFRef> {
    const profile = icc ?? this.srgb!;
    let space = this.tagged.get(profile);
    if (!space) {
      space = this.file
        .stream({ N: 3, Alternate: name('DeviceRGB') }, profile)
        .then((ref) => this.file.add([name('ICCBased'), ref]));
      this.tagged.set(profile, space);
    }
    return space;
  }

  /** The spot channel a flat colour uses; null for process colours. */
  spotOf(mix: Mix): number | null {
    for (let i = 4; i < mix.length; i++) if (mix[i] > 0) return i;
    return null;
  }

  /** Makes sure the space of a spot is in the resources, and gives its name there. */
  spotName(channel: number): string {
    this.separation(channel);
    return `S${channel}`;
  }

  /** Of a mask of light: colours are greys, black turned round. */
  readonly grey: boolean = false;
  /** The same file's spaces for what is drawn in grey alone. */
  inGrey(): ColourSpaces {
    return Object.assign(Object.create(this) as ColourSpaces, { grey: true });
  }

  /**
   * The space of a gradient and the values it carries of a mix. An overprinting gradient lists only inks that it uses:
   * those it lists are painted even where they are 0, those it leaves out stay as they are.
   */
  async inkSpace(used: readonly boolean[], overprint: boolean): Promise<InkSpace> {
    if (this.grey) return { space: name('DeviceGray'), values: (mix) => [1 - mix[3]], channels: null };
    const spots = used.flatMap((u, i) => (u && i >= 4 ? [i] : []));
    const process = [0, 1, 2, 3].filter((i) => used[i]);
    if (spots.length === 0 && (!overprint || process.length === 4 || process.length === 0))
      return { space: name('DeviceCMYK'), ...of([0, 1, 2, 3]) };
    if (process.length === 0 && spots.length === 1) return { space: this.separation(spots[0]), ...of(spots) };
    const channels = [...process, ...spots];
    const key = channels.join();
    let ref = this.deviceN.get(key);
    if (!ref) {
      ref = this.makeDeviceN(channels);
      this.deviceN.set(key, ref);
    }
    return { space: await ref, ...of(channels) };
  }

  private async makeDeviceN(channels: number[]): Promise<PDFRef> {
    const spots = channels.filter((c) => c >= 4);
    const tint = await this.file.stream(
      { FunctionType: 4, Domain: channels.flatMap(() => [0, 1]), Range: [0, 1, 0, 1, 0, 1, 0, 1] },
      tintProgram(
        channels.map((c) => (c < 4 ? PROCESS.map((_, i) => (i === c ? 1 : 0)) : this.palette.inks[c - 4].alternate)),
      ),
    );
    const attributes: Record<string, Value> = {};
    const opaque = spots.filter((c) => this.palette.inks[c - 4].opaque);
    // How far an ink hides what lies below it: ISO 32000-1, table 75.
    if (opaque.length)
      attributes.MixingHints = { Solidities: Object.fromEntries(opaque.map((c) => [this.palette.channels[c], 1])) };
    if (spots.length)
      attributes.Colorants = Object.fromEntries(spots.map((c) => [this.palette.channels[c], this.separation(c)]));
    return this.file.add([
      name('DeviceN'),
      channels.map((c) => name(this.palette.channels[c])),
      name('DeviceCMYK'),
      tint,
      attributes,
    ]);
  }
}

function tintFunction(solid: readonly number[]): Value {
  return { FunctionType: 2, Domain: [0, 1], N: 1, C0: [0, 0, 0, 0], C1: solid };
}

/** PostScript that adds each ink's stand-in at its tint, no more than full: only devices without the plates use it. */
function tintProgram(alternates: readonly (readonly number[])[]): string {
  const n = alternates.length;
  const sums = [0, 1, 2, 3].map((p) => {
    // `p` results already lie on top of the inks.
    const terms = alternates.map(
      (a, i) => `${n - 1 - i + p + (i ? 1 : 0)} index ${pdfNumber(a[p], 4).asNumber()} mul${i ? ' add' : ''}`,
    );
    return `${terms.join(' ')} dup 1 gt {pop 1} if`;
  });
  return `{${sums.join(' ')} ${n + 4} 4 roll ${'pop '.repeat(n)}}`;
}
