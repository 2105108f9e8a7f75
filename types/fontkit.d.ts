declare module 'fontkit' {
  /** Only what the tests use. */
  export interface Font {
    readonly postscriptName: string;
    readonly ascent: number;
    readonly xHeight: number;
    readonly unitsPerEm: number;
    readonly numGlyphs: number;
    layout(text: string): {
      readonly glyphs: { id: number }[];
      readonly positions: { xAdvance: number }[];
      readonly advanceWidth: number;
    };
  }
  export function create(bytes: Uint8Array): Font;
}
