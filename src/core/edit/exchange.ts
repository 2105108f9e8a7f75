import type { ExchangeColour, ExchangeRamp, ExchangeSwatch } from '../colour/exchange';
import type { Palette } from '../colour/palette';
import { hexOf, type Triple } from '../colour/spaces';
import type { Colour, Design, Ink, OwnColour } from '../model/schema';
import type { DesignDraft } from './history';
import { addSpot, addSwatch } from './swatches';

/** A design's colour, whole in itself. */
export function toExchange(d: Design, c: Colour): ExchangeColour {
  if ('swatch' in c) {
    const swatch = d.swatches.find((s) => s.id === c.swatch);
    if (swatch?.kind !== 'colour') throw new Error(`unknown swatch: ${c.swatch}`);
    return tintedExchange(toExchange(d, swatch.colour), c.tint);
  }
  if (!('ink' in c)) return c;
  const ink = d.inks.find((i) => i.id === c.ink);
  if (!ink) throw new Error(`unknown ink: ${c.ink}`);
  return { spot: { name: ink.name, lab: ink.lab, alternate: ink.alternate }, tint: c.tint };
}

function tintedExchange(c: ExchangeColour, by: number): ExchangeColour {
  if (by === 1) return c;
  if ('spot' in c) return { ...c, tint: c.tint * by };
  if ('cmyk' in c) return { cmyk: [c.cmyk[0] * by, c.cmyk[1] * by, c.cmyk[2] * by, c.cmyk[3] * by] };
  if ('gray' in c) return { gray: 1 - (1 - c.gray) * by };
  if ('rgb' in c) return { rgb: [1 - (1 - c.rgb[0]) * by, 1 - (1 - c.rgb[1]) * by, 1 - (1 - c.rgb[2]) * by] };
  return { lab: [100 - (100 - c.lab[0]) * by, c.lab[1] * by, c.lab[2] * by] };
}

/** A colour from elsewhere in a design's own terms; its spot ink is added if there is none of that name. */
export function fromExchange(d: DesignDraft, c: ExchangeColour, newId: () => string): OwnColour {
  if (!('spot' in c)) return c;
  const known = d.inks.find((i) => i.name.toLowerCase() === c.spot.name.toLowerCase());
  if (known) return { ink: known.id, tint: c.tint };
  const id = newId();
  d.inks.push({ id, name: c.spot.name, lab: [...c.spot.lab], alternate: [...c.spot.alternate] });
  return { ink: id, tint: c.tint };
}

/** Adds swatches from elsewhere, in their groups or in the one given. Answers how many were new. */
export function addExchanged(
  d: DesignDraft,
  swatches: readonly ExchangeSwatch[],
  ramps: readonly ExchangeRamp[],
  newId: () => string,
  group?: string,
): number {
  const first = d.swatches.length;
  const groupOf = (own: string | undefined) => {
    const name = group ?? own;
    return name ? { group: name } : {};
  };
  for (const s of swatches) {
    if ('spot' in s.colour && s.colour.tint === 1 && s.name === s.colour.spot.name) {
      const { spot } = s.colour;
      addSpot(d, { name: spot.name, lab: spot.lab, alternate: spot.alternate }, newId, groupOf(s.group).group);
      continue;
    }
    const colour = fromExchange(d, s.colour, newId);
    const content = JSON.stringify(colour);
    const there = d.swatches.some(
      (x) =>
        x.kind === 'colour' &&
        x.name === s.name &&
        (x.group ?? '') === (groupOf(s.group).group ?? '') &&
        JSON.stringify(x.colour) === content,
    );
    if (!there) addSwatch(d, { id: newId(), name: s.name || 'Colour', kind: 'colour', colour, ...groupOf(s.group) });
  }
  for (const r of ramps)
    addSwatch(d, {
      id: newId(),
      name: r.name || 'Gradient',
      kind: 'ramp',
      stops: r.stops.map((x) => ({ ...x, colour: fromExchange(d, x.colour, newId) })),
      ...(r.mixing && { mixing: r.mixing }),
      ...groupOf(r.group),
    });
  return d.swatches.length - first;
}

/**
 * What files are written from: every colour swatch with its recipe, its Lab and its screen look; the ramps beside them.
 */
export function exchangeOf(d: Design, palette: Palette) {
  const swatches = d.swatches.flatMap((s) => {
    if (s.kind !== 'colour') return [];
    const ref = { swatch: s.id, tint: 1 };
    const rgb: Triple = 'rgb' in s.colour ? s.colour.rgb : palette.lookOfMix(palette.mix(ref));
    return [
      {
        name: s.name,
        ...(s.group && { group: s.group }),
        colour: toExchange(d, s.colour),
        cmyk: palette.processOf(s.colour),
        lab: bounded(palette.wantedLab(s.colour)),
        rgb,
      },
    ];
  });
  const ramps = d.swatches.flatMap((s) =>
    s.kind === 'ramp'
      ? [
          {
            name: s.name,
            ...(s.group && { group: s.group }),
            ...(s.mixing && { mixing: s.mixing }),
            stops: s.stops.map((x) => ({ ...x, colour: toExchange(d, x.colour) })),
            looks: s.stops.map((x) => palette.lookOfMix(palette.mix(x.colour))),
          },
        ]
      : [],
  );
  return { swatches, ramps };
}

/** A colour of a library as a spot ink: its own numbers where it has them, the profile's for what it lacks. */
export function asInk(s: ExchangeSwatch, palette: Palette): Omit<Ink, 'id'> {
  if ('spot' in s.colour)
    return { name: s.colour.spot.name, lab: s.colour.spot.lab, alternate: s.colour.spot.alternate };
  const lab = s.lab ?? palette.wantedLab(s.colour);
  const name = (s.name || hexOf(palette.lookOfMix(palette.mix(s.colour)))).slice(0, 80);
  return { name, lab, alternate: s.cmyk ?? palette.recipeOf({ lab }) };
}

/** Within what a file may say: sums of white end a hair beyond 100. */
const bounded = ([l, a, b]: Triple): Triple => [Math.min(100, Math.max(0, l)), a, b];
