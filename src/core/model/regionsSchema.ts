import '../zodSetup';
import * as z from 'zod/mini';
import { isWholePath } from '../geometry/path';
import { paintSchema } from './paintSchema';
import { measure, pathNumbers } from './primitives';

/** No drawing has more coloured areas than this. */
const MOST_AREAS = 5000;

/**
 * What a group's lines enclose, coloured: an area as it was when it got its paint, in the group's own space, filled
 * even-odd. The areas of now keep the paint of the one that covers most of them.
 */
export const regionsSchema = z.readonly(
  z.strictObject({
    /** Ends of lines no further than this from another count as joined. Absent: nothing is. */
    gap: z.optional(measure),
    areas: z.readonly(
      z
        .array(
          z.readonly(
            z.strictObject({
              paint: paintSchema,
              path: pathNumbers.check(z.refine((p) => Array.isArray(p) && isWholePath(p))),
            }),
          ),
        )
        .check(z.maxLength(MOST_AREAS)),
    ),
  }),
);
export type Regions = z.infer<typeof regionsSchema>;
