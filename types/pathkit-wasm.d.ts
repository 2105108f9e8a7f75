declare module 'pathkit-wasm' {
  export interface PathKitPath {
    setFillType(type: unknown): void;
    toCmds(): number[][];
    delete(): void;
  }
  /** Only what is used of the engine. */
  export interface PathKit {
    readonly HEAPF32: Float32Array;
    readonly PathOp: Readonly<Record<'UNION' | 'DIFFERENCE' | 'INTERSECT' | 'XOR', unknown>>;
    readonly FillType: Readonly<Record<'EVENODD' | 'WINDING', unknown>>;
    _malloc(bytes: number): number;
    _free(at: number): void;
    _FromCmds(at: number, words: number): PathKitPath;
    MakeFromOp(a: PathKitPath, b: PathKitPath, op: unknown): PathKitPath | null;
  }
  export default function init(options: { wasmBinary: Uint8Array }): Promise<PathKit>;
}
