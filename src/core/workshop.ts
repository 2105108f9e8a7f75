import { ColourEngine } from './colour/icc';
import { ColourRoom, Palette } from './colour/palette';
import type { Env } from './env';
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
  const engine = await ColourEngine.load(env);
  const fonts = new FontBook(env);
  return { env, fonts, room: new ColourRoom(engine, (p) => env.asset(p)), builder: new SceneBuilder(fonts) };
}

/** Faces that a design's texts ask for. */
export function facesOf(design: Design): Set<string> {
  const faces = new Set<string>();
  for (const story of Object.values(design.stories)) for (const p of story.paragraphs) for (const r of p.runs) faces.add(r.face);
  return faces;
}

/** Loads what a design needs; its faces that cannot be had are substituted and reported by the scene. */
export async function prepare(shop: Workshop, design: Design): Promise<Palette> {
  await Promise.all([shop.fonts.load(facesOf(design)), shop.room.prepare(design.profile.file)]);
  return new Palette(design, shop.room);
}
