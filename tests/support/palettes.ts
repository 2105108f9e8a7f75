import type { Palette } from '@/core/colour/palette';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { newDesign, setupOf } from '@/core/model/defaults';
import { prepare, type Engines } from '@/core/engines';
import { DesignBuilder } from '@/demo/builder';
import { making } from './sample';

/** The palettes of one empty design, printed with a spot ink and seen on a screen, and that ink's id. */
export async function palettes(
  engines: Engines,
): Promise<{ readonly print: Palette; readonly screen: Palette; readonly ember: string }> {
  const b = new DesignBuilder(newDesign('Palettes', setupOf(200, 200), making), making);
  b.spot(SPOT_LIBRARY[0]);
  const d = b.done();
  return {
    print: await prepare(engines, d),
    screen: await prepare(engines, { ...d, setup: { ...d.setup, medium: 'screen' } }),
    ember: d.inks[0].id,
  };
}
