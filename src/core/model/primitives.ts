import '../zodSetup';
import * as z from 'zod/mini';
import { askedQuickly } from './quickCheck';

/** No page is larger than 5 m and nothing lies further than 20 m from its page: beyond that a number is a slip. */
export const MAX_PAGE = (5000 * 72) / 25.4;
export const FAR = MAX_PAGE * 4;

/** A name by which parts of a design refer to each other. What every object answers to (`constructor` …) is no name. */
export const id = z.string().check(
  z.minLength(1),
  z.maxLength(64),
  z.regex(/^[A-Za-z0-9_-]+$/),
  z.refine((v) => !(v in Object.prototype), { message: 'this word cannot be a name here' }),
);
export const name = z.string().check(z.maxLength(200));
export const coordinate = z.number().check(z.gte(-FAR), z.lte(FAR));
export const measure = z.number().check(z.gte(0), z.lte(FAR));
export const unit01 = z.number().check(z.gte(0), z.lte(1));
export const matrix = coordinates(
  z.readonly(z.tuple([coordinate, coordinate, coordinate, coordinate, coordinate, coordinate])),
  6,
  6,
);
const MOST_NUMBERS = 2_000_000;
/** A path's numbers: commands and coordinates. */
export const pathNumbers = coordinates(
  z.readonly(z.array(coordinate).check(z.maxLength(MOST_NUMBERS))),
  0,
  MOST_NUMBERS,
);

/**
 * The same as `slow`, a list of coordinates: one loop sees that it is sound, and only what is not is asked for what is
 * wrong. A drawing has millions of them, and a check of each by itself takes ten times as long as reading them.
 */
function coordinates<T extends z.ZodMiniType<readonly number[]>>(
  slow: T,
  least: number,
  most: number,
): z.ZodMiniType<z.infer<T>> {
  const sound = (v: unknown): boolean => {
    if (!Array.isArray(v) || v.length < least || v.length > most) return false;
    for (let i = 0; i < v.length; i++) {
      const n: unknown = v[i];
      if (typeof n !== 'number' || !(n >= -FAR && n <= FAR)) return false;
    }
    return true;
  };
  const quick = z.unknown().check(
    z.superRefine((v, ctx) => {
      if (sound(v)) return;
      for (const issue of slow.safeParse(v).error?.issues ?? [])
        ctx.addIssue({ ...issue } as Parameters<typeof ctx.addIssue>[0]);
    }),
  );
  // The schema that is handed out tells the list as it is; zod's own teller of it stays out of the pages.
  const each = { type: 'number', minimum: -FAR, maximum: FAR } as const;
  const shape =
    least === most
      ? {
          readOnly: true,
          type: 'array',
          prefixItems: Array.from({ length: most }, () => each),
          items: false,
          minItems: most,
          maxItems: most,
        }
      : { readOnly: true, maxItems: most, type: 'array', items: each };
  return askedQuickly(quick.register(z.globalRegistry, shape) as unknown as z.ZodMiniType<z.infer<T>>, sound);
}

export const cmykSchema = z.readonly(z.tuple([unit01, unit01, unit01, unit01]));
const rgb = z.readonly(z.tuple([unit01, unit01, unit01]));
export const lab = z.readonly(
  z.tuple([
    z.number().check(z.gte(0), z.lte(100)),
    z.number().check(z.gte(-128), z.lte(128)),
    z.number().check(z.gte(-128), z.lte(128)),
  ]),
);

/** A colour that stands for itself; nothing is converted on the way in. */
const ownColour = [
  z.readonly(z.strictObject({ ink: id, tint: unit01 })),
  z.readonly(z.strictObject({ cmyk: cmykSchema })),
  z.readonly(z.strictObject({ rgb })),
  z.readonly(z.strictObject({ lab })),
  z.readonly(z.strictObject({ gray: unit01 })),
] as const;
export const ownColourSchema = z.union(ownColour);
export const colourSchema = z.union([z.readonly(z.strictObject({ swatch: id, tint: unit01 })), ...ownColour]);
