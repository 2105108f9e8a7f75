declare module 'culori' {
  /** Only what the tests use. */
  export function converter(mode: string): (colour: { mode: string; r?: number; g?: number; b?: number }) => { l: number; a: number; b: number } | undefined;
}
declare module 'bezier-js' {
  export class Bezier {
    constructor(...coordinates: number[]);
    get(t: number): { x: number; y: number };
    bbox(): { x: { min: number; max: number }; y: { min: number; max: number } };
    length(): number;
  }
}
