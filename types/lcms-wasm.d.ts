declare module 'lcms-wasm' {
  /** The raw calls of the engine that are used; its own wrapper mis-sizes double formats. */
  export interface LcmsModule {
    readonly HEAPU8: Uint8Array;
    readonly HEAPF32: Float32Array;
    _malloc(bytes: number): number;
    _free(ptr: number): void;
    _cmsOpenProfileFromMem(ptr: number, bytes: number): number;
    _cmsCloseProfile(profile: number): number;
    _cmsGetColorSpace(profile: number): number;
    _cmsCreateLab4Profile(whitePoint: number): number;
    _cmsCreateTransform(
      input: number,
      inputFormat: number,
      output: number,
      outputFormat: number,
      intent: number,
      flags: number,
    ): number;
    _cmsDoTransform(transform: number, input: number, output: number, pixels: number): void;
    _cmsDeleteTransform(transform: number): void;
  }
  export function instantiate(options?: { locateFile?: (file: string) => string }): Promise<LcmsModule>;
  export default instantiate;
}
