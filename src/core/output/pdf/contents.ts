import type { Palette } from '../../colour/palette';
import { effectivePpi } from '../../edit/picture';
import type { Design, Page } from '../../model/schema';
import { spreadOf } from '../../model/tree';
import type { SceneBuilder } from '../../scene/build';
import { usedChannels } from '../../scene/used';
import { walk } from '../../scene/walk';
import type { PdfOptions } from './options';

/** What will be in a PDF, before it is made; sizes in points. */
export interface PdfContents {
  readonly sheets: number;
  /** Sizes of the pages as they are cut, each once. */
  readonly sizes: readonly (readonly [width: number, height: number])[];
  readonly bleed: number;
  readonly plates: readonly string[];
  readonly faces: readonly string[];
  readonly pictures: number;
  /** The fewest pixels an inch of a picture. */
  readonly ppi: number | null;
}

/** Counts what the scenes of some pages hold, as options let it out. `palette`: the inks that it is made with. */
export function contentsOf(
  design: Design,
  pages: readonly Page[],
  builder: SceneBuilder,
  palette: Palette,
  options: PdfOptions,
): PdfContents {
  const [plates, faces, pictures] = [new Set<number>(), new Set<string>(), new Map<string, number>()];
  const sizes = new Map<string, readonly [number, number]>();
  let bleed = 0;
  for (const page of pages) {
    const scene = builder.build(design, page);
    sizes.set(`${scene.width.toFixed(2)} ${scene.height.toFixed(2)}`, [scene.width, scene.height]);
    bleed = Math.max(bleed, scene.bleed);
    for (const i of usedChannels(scene, palette)) plates.add(i);
    walk(scene.root, (leaf) => {
      const words = leaf.type === 'glyphs' ? leaf : leaf.words;
      if (words) faces.add(words.face.names.family || words.face.psName);
      if (leaf.paint.kind !== 'picture') return;
      const found = palette.picture(leaf.paint.picture);
      const ppi = effectivePpi(found, leaf.paint, leaf.matrix);
      pictures.set(leaf.paint.picture, Math.min(pictures.get(leaf.paint.picture) ?? Infinity, ppi));
    });
  }
  const one = options.spots === 'one';
  const ink = palette.inks.find((i) => i.id === options.ink)?.name ?? 'Black';
  const fewest = pictures.size ? Math.min(...pictures.values()) : null;
  const pairs = options.spreads ? pages.filter((p) => pairedAfter(design, pages, p)).length : 0;
  return {
    sheets: pages.length - pairs,
    sizes: [...sizes.values()],
    bleed: options.bleed === false ? 0 : bleed,
    plates: one ? [ink] : [...plates].sort((a, b) => a - b).map((i) => palette.channels[i]),
    faces: options.outlines ? [] : [...faces].sort(),
    pictures: pictures.size,
    ppi: fewest !== null && options.ppi ? Math.min(fewest, options.ppi) : fewest,
  };
}

/** Does a page lie on a sheet with the one that faces it, to its left? */
function pairedAfter(design: Design, pages: readonly Page[], page: Page): boolean {
  const spread = spreadOf(design, page);
  return spread?.side === 'right' && spread.other !== null && pages.includes(spread.other);
}
