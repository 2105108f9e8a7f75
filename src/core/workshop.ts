import { ColourEngine } from './colour/icc';
import { ColourRoom, Palette } from './colour/palette';
import type { Env } from './env';
import { loadBooleans } from './geometry/boolean/combine';
import type { Design } from './model/schema';
import { SceneBuilder } from './scene/build';
import { FontBook } from './text/fonts';

/** The engines of one place (page, worker, shell), loaded once and then called plainly. */
export interface Workshop {
  readonly env: Env;
  readonly fonts: FontBook;
  readonly room: ColourRoom;
  readonly builder: SceneBuilder;
}

export async function openWorkshop(env: Env): Promise<Workshop> {
  const [engine] = await Promise.all([ColourEngine.load(env), loadBooleans(env)]);
  const fonts = new FontBook(env);
  return { env, fonts, room: new ColourRoom(engine, (p) => env.asset(p)), builder: new SceneBuilder(fonts) };
}

/** Faces that a design's texts ask for. */
export function facesOf(design: Design): Set<string> {
  const faces = new Set<string>();
  for (const story of Object.values(design.stories)) for (const p of story.paragraphs) for (const r of p.runs) faces.add(r.face);
  return faces;
}

/** Loads the faces and the profile of a design; faces that cannot be had are substituted and reported by the scene. */
export async function equip(shop: Workshop, design: Design): Promise<void> {
  await Promise.all([shop.fonts.load(facesOf(design)), shop.room.prepare(design.profile.file)]);
}

export async function prepare(shop: Workshop, design: Design): Promise<Palette> {
  await equip(shop, design);
  return new Palette(design, shop.room);
}

/** The design as it goes to a press: a screen design becomes one of inks, its colours separated by the profile. */
export function asPrint(design: Design): Design {
  return design.setup.medium === 'print' ? design : { ...design, setup: { ...design.setup, medium: 'print' } };
}

interface MadePalette {
  readonly swatches: unknown;
  readonly inks: unknown;
  readonly profile: unknown;
  readonly medium: unknown;
  readonly palette: Palette;
}

/** Keeps a palette for as long as nothing that it was made from changes; three of them, for what is kept, what is tried out, and what panels show of it. */
export class PaletteKeeper {
  private made: readonly MadePalette[] = [];
  constructor(private readonly shop: Workshop) {}

  /** The design must have been equipped. */
  get(d: Design): Palette {
    const known = this.made.find((m) => m.swatches === d.swatches && m.inks === d.inks && m.profile === d.profile && m.medium === d.setup.medium);
    if (known) {
      if (known !== this.made[0]) this.made = [known, ...this.made.filter((m) => m !== known)];
      return known.palette;
    }
    const palette = new Palette(d, this.shop.room);
    this.made = [{ swatches: d.swatches, inks: d.inks, profile: d.profile, medium: d.setup.medium, palette }, ...this.made.slice(0, 2)];
    return palette;
  }
}
