declare module 'culori' {
  /** Only what is used. */
  export interface Colour {
    mode: string;
    l?: number;
    a?: number;
    b?: number;
  }
  export interface Rgb {
    mode: 'rgb';
    r: number;
    g: number;
    b: number;
  }
  export function parse(text: string): Colour | undefined;
  export function converter(mode: 'rgb'): (colour: object) => Rgb | undefined;
  export function interpolate(
    colours: readonly object[],
    mode: 'rgb' | 'oklab' | 'oklch',
    overrides?: { h?: { fixup: unknown } },
  ): (t: number) => object;
  export const fixupHueShorter: unknown;
  export function converter(
    mode: 'hsv' | 'oklab' | 'oklch' | 'lch' | 'lab' | 'lab65',
  ): (
    colour: object,
  ) => { mode: string; l: number; a: number; b: number; c: number; h?: number; s: number; v: number } | undefined;
  export function filterDeficiencyProt(severity: number): (colour: object) => Rgb;
  export function filterDeficiencyDeuter(severity: number): (colour: object) => Rgb;
  export function filterDeficiencyTrit(severity: number): (colour: object) => Rgb;
}
declare module 'bezier-js' {
  export class Bezier {
    constructor(...coordinates: number[]);
    get(t: number): { x: number; y: number };
    bbox(): { x: { min: number; max: number }; y: { min: number; max: number } };
    length(): number;
    derivative(t: number): { x: number; y: number };
    project(p: { x: number; y: number }): { x: number; y: number; t?: number; d?: number };
    split(from: number, to: number): Bezier;
    split(at: number): { left: Bezier; right: Bezier };
    readonly points: readonly { x: number; y: number }[];
  }
}
