import type { Palette } from '../colour/palette';
import { coloursOf } from '../model/paints';
import type { Colour } from '../model/schema';
import type { NodeId } from '../model/tree';
import type { Scene } from './scene';
import { walkPaints } from './walk';

export interface UsedColour {
  /** The colour at full strength, or at the one strength it is used in. */
  readonly colour: Colour;
  /** Objects that show it, back to front. */
  readonly nodes: readonly NodeId[];
}

/** A mark keeps to about this many colours (common practice). */
export const FEW_COLOURS = 3;

/**
 * The colours that a page shows, tints counted with their ink or swatch, bare stock left out; those of `nodes` alone
 * where they are given. Colours that print the same are one.
 */
export function coloursUsed(scene: Scene, palette: Palette, nodes?: ReadonlySet<NodeId>): UsedColour[] {
  const found = new Map<string, { colour: Colour; nodes: Set<NodeId> }>();
  const note = (colour: Colour, node: NodeId) => {
    const used = printedAs(colour, palette);
    if (!used) return;
    const known = found.get(used.key);
    if (known) known.nodes.add(node);
    else found.set(used.key, { colour: used.full, nodes: new Set([node]) });
  };
  walkPaints(scene.root, (paint, node) => {
    if (nodes && !nodes.has(node)) return;
    for (const colour of paint.kind === 'gradient'
      ? palette.rampSource(paint.ramp).stops.map((s) => s.colour)
      : coloursOf(paint))
      note(colour, node);
  });
  return [...found.values()].map((f) => ({ colour: f.colour, nodes: [...f.nodes] }));
}

interface Printed {
  readonly full: Colour;
  /** What prints the same has the same key. */
  readonly key: string;
}
const printed = new WeakMap<Palette, WeakMap<Colour, Printed | null>>();

/**
 * What a colour counts as; null for bare stock. Remembered: thousands of objects are looked at each time one is chosen.
 */
function printedAs(colour: Colour, palette: Palette): Printed | null {
  let known = printed.get(palette);
  if (!known) printed.set(palette, (known = new WeakMap()));
  let used = known.get(colour);
  if (used !== undefined) return used;
  const full = atFull(colour, palette);
  const mix = palette.mix(full);
  const bare = palette.screen ? mix.every((v) => v === 1) : mix.every((v) => v === 0);
  used = bare ? null : { full, key: mix.map((v) => Math.round(v * 255)).join() };
  known.set(colour, used);
  return used;
}

/** A tint counts as its full colour; a swatch that is itself a tint of an ink counts as that ink. */
function atFull(c: Colour, palette: Palette): Colour {
  if ('ink' in c) return { ink: c.ink, tint: 1 };
  if (!('swatch' in c)) return c;
  const { colour } = palette.own(c);
  return 'ink' in colour && colour.tint < 1 ? { ink: colour.ink, tint: 1 } : { swatch: c.swatch, tint: 1 };
}
