import * as z from 'zod/mini';
import { colourSchema, coordinate, unit01 } from './primitives';

/** Ink (or light) of one colour. */
export const colourPaintSchema = z.readonly(
  z.strictObject({ kind: z.literal('colour'), colour: colourSchema, overprint: z.boolean() }),
);

/** No effect reaches further than half a metre. */
const MOST_BLUR = 1440;

/**
 * What an object throws on what lies below it. Lengths are the object's own and grow with it; `dx` and `dy` are
 * directions of the page, to the right and down, however the object is turned: light comes from one side.
 */
const shadowSchema = z.readonly(
  z.strictObject({
    kind: z.literal('shadow'),
    paint: colourPaintSchema,
    opacity: unit01,
    dx: coordinate,
    dy: coordinate,
    /** Over which width its edge fades; twice the standard deviation of the Gaussian that blurs it. */
    blur: z.number().check(z.gte(0), z.lte(MOST_BLUR)),
  }),
);

/** One row a kind of effect. */
const effectSchema = z.discriminatedUnion('kind', [shadowSchema]);
export const effects = z.readonly(z.array(effectSchema).check(z.maxLength(8)));

export type Effect = z.infer<typeof effectSchema>;
export type EffectKind = Effect['kind'];
export type EffectOf<K extends EffectKind> = Extract<Effect, { kind: K }>;
export type Shadow = EffectOf<'shadow'>;

const SCALED: { readonly [K in EffectKind]: (e: EffectOf<K>, by: number) => EffectOf<K> } = {
  shadow: (e, by) => ({ ...e, dx: e.dx * by, dy: e.dy * by, blur: e.blur * by }),
};
/** The same with its lengths so many times as long. */
export const scaledEffect = (e: Effect, by: number): Effect => SCALED[e.kind](e, by);
