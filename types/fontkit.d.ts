declare module 'fontkit' {
  /** Only what the tests use. */
  export interface Font {
    layout(text: string): { glyphs: { id: number }[]; positions: { xAdvance: number }[] };
  }
  export function create(bytes: Uint8Array): Font;
}
