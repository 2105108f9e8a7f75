import '../zodSetup';
import * as z from 'zod/mini';
import { name } from './primitives';

/** The id of a face that a person brought, from the name of its file: same bytes, same id. */
export const ownFaceId = (file: string): string => `own-${file.slice('sha256-'.length, 'sha256-'.length + 32)}`;
/** Is it the id of a face that a person brought? */
export const isOwnFace = (id: string): boolean => /^own-[0-9a-f]{32}$/.test(id);

const FACE_KINDS = ['sans', 'condensed', 'serif', 'slab', 'display', 'script', 'blackletter', 'mono'] as const;

const share = z.number().check(z.gte(-10), z.lte(10));
const axisValue = z.number().check(z.gte(-100_000), z.lte(100_000));

/**
 * A face of the design's own: its file by the name made from its content, and what is known without it, so that another
 * can stand in and the lines stay where they are.
 */
export const faceSchema = z.readonly(
  z
    .strictObject({
      id: z.string().check(z.regex(/^own-[0-9a-f]{32}$/)),
      file: z.string().check(z.regex(/^sha256-[0-9a-f]{64}\.(ttf|otf)$/)),
      family: name.check(z.minLength(1)),
      /** As people say it: Regular, Bold Italic. */
      style: name,
      weight: z.number().check(z.gte(1), z.lte(1000)),
      italic: z.boolean(),
      kind: z.enum(FACE_KINDS),
      /**
       * Shares of the size: above and below the line, heights of capitals and small letters, and the mean width of the
       * small letters.
       */
      ascender: share,
      descender: share,
      capHeight: share,
      xHeight: share,
      width: share,
      /** Of a variable face. Absent: none. */
      axes: z.optional(
        z.readonly(
          z
            .array(
              z.readonly(
                z.strictObject({
                  tag: z.string().check(z.regex(/^[ -~]{4}$/)),
                  name,
                  min: axisValue,
                  default: axisValue,
                  max: axisValue,
                }),
              ),
            )
            .check(z.maxLength(64)),
        ),
      ),
      /**
       * What its maker allows beside printing (OS/2 fsType): `outlines`, not to be put into files; `whole`, only uncut.
       * Absent: anything.
       */
      embedding: z.optional(z.enum(['outlines', 'whole'])),
    })
    .check(z.refine((f) => f.id === ownFaceId(f.file), { message: 'its id is not that of its file' })),
);

export type OwnFace = z.infer<typeof faceSchema>;
export type FaceKind = (typeof FACE_KINDS)[number];
