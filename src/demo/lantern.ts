import type { Colour } from '@/core/model/schema';
import { flat, type DesignBuilder } from './builder';

/**
 * The guild's lantern, `size` high from ring to foot with its middle at `cx`: a barrel with three panes cut out, under
 * a cap with a ring; a flame behind the middle pane where it has a colour of its own.
 */
export function guildLantern(
  b: DesignBuilder,
  cx: number,
  top: number,
  size: number,
  ink: Colour,
  flame: Colour | null,
): string {
  const u = size / 100;
  const at = (x: number, y: number, w: number, h: number) => ({ x: cx + x * u, y: top + y * u, w: w * u, h: h * u });
  const paint = { fill: flat(ink) };
  const barrel = b.corners(b.shape('Barrel', 'barrel', at(-29, 29, 58, 60), { ...paint, knobs: { belly: 0.28 } }), {
    radius: 3 * u,
    kind: 'round',
  });
  const pane = b.corners(
    b.shape('Pane', 'rectangle', at(-20.5, 36, 11, 46), {
      ...paint,
      knobs: { topLeft: 5 * u, topRight: 5 * u, bottomRight: 2 * u, bottomLeft: 2 * u },
    }),
    { radius: 0, kind: 'round' },
  );
  const panes = b.repeat(
    'Panes',
    { kind: 'row', count: 3, step: { x: 15 * u, y: 0 }, about: { x: cx - 15 * u, y: top + 59 * u } },
    [pane],
  );
  const body = b.combination('Body', 'subtract', [barrel, panes], paint);
  const mark = b.combination(
    'Lantern',
    'union',
    [
      b.shape('Ring', 'ring', at(-8, 0, 16, 16), { ...paint, knobs: { thickness: 0.34 } }),
      b.shape('Cap', 'trapezium', at(-19, 14, 38, 13), { ...paint, knobs: { inset: 0.28 } }),
      b.shape('Brim', 'capsule', at(-24, 25, 48, 6), { ...paint, knobs: { ends: 0.5 } }),
      body,
      b.shape('Foot', 'capsule', at(-22, 87, 44, 7), { ...paint, knobs: { ends: 0.5 } }),
      b.shape('Base', 'trapezium', at(-15, 92, 30, 8), { ...paint, knobs: { inset: 0.16 } }),
    ],
    paint,
  );
  if (!flame) return mark;
  return b.group('Lantern and flame', [b.shape('Flame', 'flame', at(-4.4, 52, 8.8, 24), { fill: flat(flame) }), mark]);
}
