import { runsIn, setStory } from './model/textLooks';
import type { Language } from './text/hyphens';
import { ColourEngine } from './colour/icc';
import { Palette } from './colour/palette';
import { ColourRoom } from './colour/room';
import type { Env } from './env';
import { loadBooleans } from './geometry/engines';
import type { Design } from './model/schema';
import { SceneBuilder } from './scene/build';
import { PictureBook } from './pictures/book';
import { FontBook } from './text/fonts';
import { runsLeft, standInsFor } from './text/itemize';

/** The engines of one place (page, worker, shell), loaded once and then called plainly. */
export interface Engines {
  readonly env: Env;
  readonly fonts: FontBook;
  readonly room: ColourRoom;
  readonly builder: SceneBuilder;
  /** Null where pictures are not opened: the page is shown them by its workers. */
  readonly pictures: PictureBook | null;
}

/**
 * Loads the engines that every design needs: colour, combining, and the readers of pictures where `pictures` is on.
 * Rejects with a sentence that names the file that is missing.
 */
export async function openEngines(env: Env, { pictures = true } = {}): Promise<Engines> {
  const [engine, , reader] = await Promise.all([
    ColourEngine.load(env),
    loadBooleans(env),
    // A place that opens no pictures need not fetch their readers.
    pictures ? import('./input/picture/read') : null,
  ]);
  const fonts = new FontBook(env);
  return {
    env,
    fonts,
    room: new ColourRoom(engine, (p) => env.asset(p)),
    builder: new SceneBuilder(fonts),
    pictures: reader
      ? new PictureBook(async (file) => {
          const path = `pictures/${file}`;
          const { bytes, again } = env.assetAgain ? await env.assetAgain(path) : { bytes: await env.asset(path) };
          return reader.openPicture(bytes, env, again);
        })
      : null,
  };
}

/** Faces that a design's texts ask for. */
export function facesOf(design: Design): Set<string> {
  const faces = new Set<string>();
  for (const story of Object.values(design.stories))
    for (const r of runsIn(design, story)) {
      faces.add(r.face);
      for (const id of standInsFor(r.text)) faces.add(id);
    }
  return faces;
}

/** Does any text of a design run from right to left? */
export const runsBothWays = (design: Design): boolean =>
  Object.values(design.stories).some((story) => runsLeft(setStory(design, story)));

/** Languages of which words of a design are to be divided. */
export function dividedIn(design: Design): Set<Language> {
  const languages = new Set<Language>();
  for (const story of Object.values(design.stories))
    for (const p of setStory(design, story).paragraphs)
      if (p.hyphenate) for (const r of p.runs) languages.add(r.language);
  return languages;
}

/** Loads the faces and the profile of a design; faces that cannot be had are substituted and reported by the scene. */
export async function equip(engines: Engines, design: Design): Promise<void> {
  await Promise.all([
    engines.fonts.load(facesOf(design), design.faces),
    engines.fonts.loadHyphens(dividedIn(design)),
    runsBothWays(design) ? engines.fonts.loadDirections() : null,
    engines.room.prepare(design.profile.file),
    engines.pictures?.load(new Set(design.pictures?.map((p) => p.file))),
  ]);
}

/** Equips the engines for a design and answers its palette. */
export async function prepare(engines: Engines, design: Design): Promise<Palette> {
  await equip(engines, design);
  return paletteOf(design, engines);
}

/** The palette of an equipped design. */
export const paletteOf = (design: Design, engines: Engines): Palette =>
  new Palette(design, engines.room, engines.pictures);

/** The design as it goes to a press: a screen design becomes one of inks, its colours separated by the profile. */
export function asPrint(design: Design): Design {
  return design.setup.medium === 'print' ? design : { ...design, setup: { ...design.setup, medium: 'print' } };
}

/** The design as light: its colours as they look, its pictures and blends as they came. */
export function asScreen(design: Design): Design {
  return design.setup.medium === 'screen' ? design : { ...design, setup: { ...design.setup, medium: 'screen' } };
}

interface MadePalette {
  readonly swatches: unknown;
  readonly inks: unknown;
  readonly profile: unknown;
  readonly medium: unknown;
  readonly pictures: unknown;
  readonly plates: unknown;
  readonly epoch: number;
  readonly palette: Palette;
}

/**
 * Keeps a palette for as long as nothing that it was made from changes; three of them, for what is kept, what is tried
 * out, and what panels show of it.
 */
export class PaletteKeeper {
  private made: readonly MadePalette[] = [];
  constructor(private readonly engines: Engines) {}

  /** The design must have been equipped. */
  get(d: Design): Palette {
    const epoch = this.engines.pictures?.epoch ?? 0;
    const known = this.made.find(
      (m) =>
        m.swatches === d.swatches &&
        m.inks === d.inks &&
        m.profile === d.profile &&
        m.medium === d.setup.medium &&
        m.pictures === d.pictures &&
        m.plates === d.plates &&
        m.epoch === epoch,
    );
    if (known) {
      if (known !== this.made[0]) this.made = [known, ...this.made.filter((m) => m !== known)];
      return known.palette;
    }
    const palette = paletteOf(d, this.engines);
    this.made = [
      {
        swatches: d.swatches,
        inks: d.inks,
        profile: d.profile,
        medium: d.setup.medium,
        pictures: d.pictures,
        plates: d.plates,
        epoch,
        palette,
      },
      ...this.made.slice(0, 2),
    ];
    return palette;
  }
}
