import type { SwatchesRead } from '@/core/colour/exchange';
import type { Clip } from '@/core/edit/clip';
import type { ReadFace } from '@/core/input/font/read';
import type { Design, Picture, Tone } from '@/core/model/schema';
import type { Bitmap } from '@/core/render/bitmap';

/** What the picture worker answers: opening files, and how pictures look with their tone. */
export type ReadPicture =
  | {
      readonly ok: true;
      readonly facts: Pick<Picture, 'width' | 'height' | 'space' | 'ppi' | 'alpha'>;
      readonly ending: string;
      /** The file to keep: the one that came, or what was made of it. */ readonly bytes: Uint8Array;
    }
  | { readonly ok: false; readonly message: string };

export interface LookRequest {
  readonly file: string;
  readonly tone: Tone | undefined;
  readonly pixels: number;
  /** At once, within a few levels of what is printed: for looks that the next move of a slider takes away again. */
  readonly coarse: boolean;
  /** What its colours depend on. */
  readonly colours: Pick<Design, 'swatches' | 'inks' | 'profile' | 'setup'>;
}

export type ReadDrawing =
  | {
      readonly ok: true;
      readonly clip: Clip;
      readonly width: number;
      readonly height: number;
      readonly notes: readonly string[];
      readonly files: ReadonlyMap<string, Uint8Array>;
    }
  | { readonly ok: false; readonly message: string };

export type ReadFaces =
  { readonly ok: true; readonly faces: readonly ReadFace[] } | { readonly ok: false; readonly message: string };

export interface PictureApi {
  /** An SVG drawing as objects, with new ids. */
  drawing(bytes: Uint8Array, name: string): Promise<ReadDrawing>;
  read(bytes: Uint8Array): Promise<ReadPicture>;
  swatches(bytes: Uint8Array): Promise<SwatchesRead>;
  /** The faces of a font file. */
  faces(bytes: Uint8Array): Promise<ReadFaces>;
  /** Null where the file cannot be had. */
  look(request: LookRequest): Promise<Bitmap | null>;
}
