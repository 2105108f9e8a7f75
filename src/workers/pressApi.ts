import type { Packed } from '@/core/edit/packed';
import type { Purpose } from '@/core/colour/lift';
import type { Finding } from '@/core/check/types';
import type { Colour, Design } from '@/core/model/schema';
import type { Contrast } from '@/core/render/contrast';
import type { Region } from '@/core/render/coverage';
import type { Aside } from '@/core/render/halftone';
import type { PdfFacts } from '@/core/input/pdf/facts';
import type { PdfContents } from '@/core/output/pdf/contents';
import type { PdfOptions } from '@/core/output/pdf/options';
import type { PlateLook } from '@/core/render/plateLooks';
import type { LiftedColour } from '@/core/render/lifted';
import type { PictureKind } from './pictureFiles';

/**
 * What the press worker answers. Requests name their page; the worker holds a copy of the design, kept up by patches.
 */
export interface RenderRequest {
  readonly page: string;
  readonly region: Region;
  /** Inks on the press; null for all. */
  readonly shown: readonly string[] | null;
  /** As they print; as films; or how much ink lies where. */
  readonly look: PlateLook;
  /** Two plates that are held against each other, for the look `apart`. */
  readonly pair: readonly [string, string] | null;
  /** With layers that are for proof only. */
  readonly proof: boolean;
}
/** A square with this middle and side (points) as so many pixels. */
export interface LoupeRequest {
  readonly page: string;
  readonly x: number;
  readonly y: number;
  readonly side: number;
  readonly pixels: number;
  readonly aside: Readonly<Record<string, Aside>>;
}
export interface Rendered {
  readonly width: number;
  readonly height: number;
  readonly pixels: Uint8ClampedArray<ArrayBuffer>;
  /** A picture of the design could not be had just now: it is missing in this. */
  readonly lacking: boolean;
}
export interface PdfRequest {
  readonly kind: 'pdf';
  /** From 1. */
  readonly pages: readonly number[];
  readonly options: PdfOptions;
}
export type HandOverRequest =
  | PdfRequest
  | {
      readonly kind: 'svg';
      readonly page: number;
      /** Without what only we read, as short as it can be. */
      readonly smaller?: boolean;
      /** Pictures and blends as light, not as they print. */ readonly asCame?: boolean;
    }
  | {
      readonly kind: 'png';
      readonly page: number;
      readonly dpi: number;
      /** So many pixels wide instead. */
      readonly width?: number;
      readonly transparent?: boolean;
      readonly asCame?: boolean;
      /** The file's own kind. Absent: PNG. */
      readonly as?: PictureKind;
    }
  | {
      /** Objects of a page alone: together, or each by itself, in one archive where there are several files. */
      readonly kind: 'objects';
      readonly page: number;
      readonly ids: readonly string[];
      readonly each: boolean;
      readonly as: PictureKind | 'svg';
      readonly dpi: number;
      /** So many pixels wide instead, each of them. */
      readonly width?: number;
      /** Of SVG, as for a page. */
      readonly smaller?: boolean;
      /** So many times as large; of pictures. */
      readonly scales: readonly number[];
      readonly transparent?: boolean;
      readonly asCame?: boolean;
    }
  /** The plates of a page with its bleed, each a grey PNG, in one archive. */
  | { readonly kind: 'plates'; readonly page: number; readonly dpi: number }
  /** The job ticket: one page that tells what a printer asks. */
  | { readonly kind: 'report' }
  | { readonly kind: 'holvet' };
export type HandedOver =
  | {
      readonly ok: true;
      /** A Blob where it is more than should be held at once. */
      readonly bytes: Uint8Array | Blob;
      readonly notes: readonly string[];
      /** What it is called, where its content says so. */
      readonly name?: string;
      /** Of a PDF: what was read in it once it was written. */
      readonly facts?: PdfFacts;
    }
  | { readonly ok: false; readonly message: string };

export interface PressApi {
  open(design: Design): Promise<void>;
  patch(patches: Packed): Promise<void>;
  render(request: RenderRequest): Promise<Rendered | null>;
  /** A small square of a page as the press lays it: in dots, its plates aside. */
  loupe(request: LoupeRequest): Promise<Rendered | null>;
  /** The state of the design that the look `changed` holds the present one against; null: none. */
  against(state: Design | null): Promise<void>;
  /**
   * Ink amounts 0…1 at a page point of the last rendered plates of that page, one a channel; their mean over a square
   * of that side (points) where there is one; null outside them.
   */
  inksAt(page: string, x: number, y: number, square?: number): Promise<readonly number[] | null>;
  /** The most ink anywhere on a page, 1 = 100 %. */
  totalInk(page: string): Promise<{ total: number; x: number; y: number } | null>;
  /** What will be in a PDF. */
  contents(request: PdfRequest): Promise<PdfContents>;
  /** How much of a page each ink covers, 0…1 in the order of the channels; null where no ink is printed. */
  coverage(page: string): Promise<readonly number[] | null>;
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
