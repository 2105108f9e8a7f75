import { paperWhite } from '@/core/colour/paperWhite';
import type { Palette } from '@/core/colour/palette';
import { asScreen, paletteOf, type Engines } from '@/core/engines';
import type { Design, Page } from '@/core/model/schema';
import { compositePlates } from '@/core/render/composite';
import { pageById } from '@/core/model/tree';
import {
  changedInk,
  filmsOf,
  marked,
  onPaper,
  outOfReach,
  platesApart,
  totalInkMap,
  type PlateLook,
} from '@/core/render/plateLooks';
import { rasterPlates, trapCover, type Plates } from '@/core/render/plates';

interface View {
  readonly design: Design;
  readonly engines: Engines;
  readonly palette: Palette;
  readonly page: Page;
  readonly plates: Plates;
  /** Inks on the press; absent: all. */
  readonly on: ReadonlySet<string> | undefined;
  readonly pair: readonly [string, string] | null;
  readonly against: { readonly design: Design; readonly palette: Palette } | null;
}

/** Plates of a print design as one of the looks that Plates has, RGBA. */
export function lookAt(
  look: Exclude<PlateLook, 'ink'>,
  { design, engines, palette, page, plates, on, pair, against }: View,
): Uint8ClampedArray<ArrayBuffer> {
  switch (look) {
    case 'paper': {
      const pixels = compositePlates(plates, palette, on);
      const white = paperWhite(palette.profileBytes);
      if (white) onPaper(pixels, white);
      return pixels;
    }
    case 'black':
      return filmsOf(plates, on);
    case 'total':
      return totalInkMap(plates, design.profile.totalInkLimit, on);
    case 'traps':
      return marked(plates, trapCover(engines.builder.build(design, page), palette, plates.region));
    case 'reach': {
      const light = paletteOf(asScreen(design), engines);
      const meant = rasterPlates(engines.builder.build(design, page), light, plates.region)!;
      return marked(plates, outOfReach(compositePlates(plates, palette), compositePlates(meant, light)));
    }
    case 'apart':
      return pair ? platesApart(plates, pair) : filmsOf(plates, on);
    case 'changed': {
      if (!against) return filmsOf(plates, on);
      const { design: before, palette: inks } = against;
      const then = pageById(before, page.id);
      // A page that was not there was empty.
      const was = then && !inks.screen ? rasterPlates(engines.builder.build(before, then), inks, plates.region) : null;
      return marked(plates, changedInk(plates, was));
    }
    default:
      return look satisfies never;
  }
}
