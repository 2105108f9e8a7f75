import type { ExchangeColour, ExchangeRamp } from '../../colour/exchange';
import { hexOf, type Triple } from '../../colour/spaces';
import { EXTENSION } from '../../input/swatches/tokens';
import type { WrittenSwatch } from './cgats';

export interface WrittenRamp extends ExchangeRamp {
  /** The look of each stop on a screen. */
  readonly looks: readonly Triple[];
}

type Json = Record<string, unknown>;

/**
 * Design tokens as JSON. Screen colours are sRGB tokens, all others Lab with the look as hex; recipes, spot inks and
 * names that a token cannot bear stand in $extensions.
 */
export function writeTokens(swatches: readonly WrittenSwatch[], ramps: readonly WrittenRamp[]): string {
  const root = empty();
  const place = (name: string, group: string | undefined): { home: Json; key: string } => {
    let home = root;
    if (group) {
      const key = keyOf(group);
      const there = root[key];
      // A token of that name is in the way: the group gets another.
      home =
        there && '$value' in (there as Json)
          ? ((root[`${key}-group`] ??= empty()) as Json)
          : ((root[key] ??= empty()) as Json);
    }
    const base = keyOf(name);
    let key = base;
    for (let n = 2; key in home; n++) key = `${base}-${n}`;
    return { home, key };
  };
  for (const s of swatches) {
    const { home, key } = place(s.name, s.group);
    home[key] = {
      $type: 'color',
      $value:
        'rgb' in s.colour
          ? { colorSpace: 'srgb', components: s.colour.rgb, hex: hexOf(s.rgb) }
          : { colorSpace: 'lab', components: 'lab' in s.colour ? s.colour.lab : s.lab, hex: hexOf(s.rgb) },
      $extensions: {
        [EXTENSION]: { name: s.name, ...(s.group && { group: s.group }), colour: s.colour satisfies ExchangeColour },
      },
    };
  }
  for (const r of ramps) {
    const { home, key } = place(r.name, r.group);
    home[key] = {
      $type: 'gradient',
      $value: r.stops.map((stop, i) => ({
        color: {
          colorSpace: 'srgb',
          components: r.looks[i],
          ...(stop.opacity !== undefined && { alpha: stop.opacity }),
          hex: hexOf(r.looks[i]),
        },
        position: stop.offset,
      })),
      $extensions: {
        [EXTENSION]: {
          name: r.name,
          ...(r.group && { group: r.group }),
          colours: r.stops.map((x) => x.colour),
          ...(r.stops.some((x) => x.midpoint !== undefined) && { midpoints: r.stops.map((x) => x.midpoint ?? 0.5) }),
          ...(r.mixing && { mixing: r.mixing }),
        },
      },
    };
  }
  return `${JSON.stringify(root, null, 2)}\n`;
}

/** Without a prototype: any word may be a key. */
const empty = (): Json => Object.create(null) as Json;

/** A token's key: no dots, braces or leading $. */
const keyOf = (name: string): string => name.replace(/[.{}]/g, '-').replace(/^\$+/, '') || 'colour';
