declare module 'pdfjs-dist/image_decoders/pdf.image_decoders.min.mjs' {
  /** Only what is used of the decoder. */
  export function setVerbosityLevel(level: number): void;
  export const VerbosityLevel: { ERRORS: number };
  export class JpegImage {
    parse(data: Uint8Array): void;
    readonly width: number;
    readonly height: number;
    readonly numComponents: number;
    getData(size: { width: number; height: number; isSourcePDF: boolean }): Uint8ClampedArray | Uint8Array;
  }
}
