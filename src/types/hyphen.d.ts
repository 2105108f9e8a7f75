/** What is used of the package's untyped interface (its README). */
declare module 'hyphen' {
  export interface HyphenatorOptions {
    readonly async?: boolean;
    readonly hyphenChar?: string;
    readonly minWordLength?: number;
    readonly exceptions?: readonly string[];
  }
  export default function createHyphenator(patterns: unknown, options?: HyphenatorOptions): (text: string) => string;
}
declare module 'hyphen/patterns/*' {
  const patterns: unknown;
  export default patterns;
}
