import { randomIds, type Deflating, type Env } from '@/core/env';

function deflating(): Deflating {
  const { writable, readable } = new CompressionStream('deflate');
  const writer = writable.getWriter();
  const all = new Response(readable).arrayBuffer();
  return {
    add: (piece) => writer.write(piece as BufferSource),
    async end() {
      await writer.close();
      return new Uint8Array(await all);
    },
  };
}

/** The core's outside in the page and its workers. */
export const browserEnv: Env = {
  async asset(file) {
    const response = await fetch(new URL(`/${file}`, globalThis.location.origin)).catch(() => null);
    if (!response?.ok)
      throw new Error(
        `The shipped file ${file} could not be loaded. Check that the application is still being served, then try again.`,
      );
    return new Uint8Array(await response.arrayBuffer());
  },
  get lcmsGlue() {
    return `${globalThis.location.origin}/wasm/lcms.js`;
  },
  async deflate(data) {
    const stream = new Response(data as BodyInit).body!.pipeThrough(new CompressionStream('deflate'));
    return new Uint8Array(await new Response(stream).arrayBuffer());
  },
  deflating,
  newId: randomIds((bytes) => void crypto.getRandomValues(bytes)),
  now: () => new Date().toISOString(),
};
