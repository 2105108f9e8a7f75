/** What is used of the package's untyped interface (its README). */
declare module 'bidi-js' {
  export interface EmbeddingLevels {
    readonly levels: Uint8Array;
    readonly paragraphs: readonly { readonly start: number; readonly end: number; readonly level: number }[];
  }
  export interface Bidi {
    getEmbeddingLevels(text: string, baseDirection?: 'ltr' | 'rtl' | 'auto'): EmbeddingLevels;
    getReorderedIndices(text: string, levels: EmbeddingLevels, start?: number, end?: number): number[];
    getMirroredCharacter(char: string): string | null;
  }
  export default function bidiFactory(): Bidi;
}
