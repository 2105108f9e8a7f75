import type { Packed } from '@/core/edit/packed';
import type { Purpose } from '@/core/colour/lift';
import type { Finding } from '@/core/check/types';
import type { Colour, Design } from '@/core/model/schema';
import type { Contrast } from '@/core/render/contrast';
import type { Region } from '@/core/render/coverage';
import type { LiftedColour } from '@/core/render/lifted';

/** What the press worker answers. Requests name their page; the worker holds a copy of the design, kept up by patches. */
export interface RenderRequest {
  readonly page: string;
  readonly region: Region;
  /** Inks on the press; null for all. */
  readonly shown: readonly string[] | null;
  /** With layers that are for proof only. */
  readonly proof: boolean;
}
export interface Rendered {
  readonly width: number;
  readonly height: number;
  readonly pixels: Uint8ClampedArray<ArrayBuffer>;
  /** A picture of the design could not be had just now: it is missing in this. */
  readonly lacking: boolean;
}
export type HandOverRequest =
  | { readonly kind: 'pdf'; readonly pages: readonly number[]; readonly marks: boolean; readonly keepRgb: boolean }
  | {
      readonly kind: 'svg';
      readonly page: number;
      /** Pictures and blends as light, not as they print. */ readonly asCame?: boolean;
    }
  | {
      readonly kind: 'png';
      readonly page: number;
      readonly dpi: number;
      readonly transparent?: boolean;
      readonly asCame?: boolean;
    }
  | { readonly kind: 'holvet' };
export type HandedOver =
  | { readonly ok: true; readonly bytes: Uint8Array; readonly notes: readonly string[] }
  | { readonly ok: false; readonly message: string };

export interface PressApi {
  open(design: Design): Promise<void>;
  patch(patches: Packed): Promise<void>;
  render(request: RenderRequest): Promise<Rendered | null>;
  /** Ink amounts 0…1 at a page point of the last rendered plates of that page, one a channel; null outside them. */
  inksAt(page: string, x: number, y: number): Promise<readonly number[] | null>;
  /** The most ink anywhere on a page, 1 = 100 %. */
  totalInk(page: string): Promise<{ total: number; x: number; y: number } | null>;
  check(): Promise<Finding[]>;
  /** The colour at a place of a page as it looks, pictures and all. */
  sample(page: string, x: number, y: number): Promise<Colour | null>;
  /** A palette out of a page, or out of some of its objects. */
  lift(
    page: string,
    nodes: readonly string[] | null,
    options: { readonly count: number; readonly purpose: Purpose },
  ): Promise<LiftedColour[]>;
  /** How objects stand out against what lies under them. */
  contrast(page: string, nodes: readonly string[]): Promise<Contrast | null>;
  /** A picture of a page, or of the first one, its longer side so many pixels. */
  thumbnail(largest: number, page?: string): Promise<Uint8Array>;
  handOver(
    request: HandOverRequest,
    progress: (done: number, total: number, doing: string) => void,
  ): Promise<HandedOver>;
}
