import { randomFillSync } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import { createDeflate, deflate } from 'node:zlib';
import { buffer } from 'node:stream/consumers';
import { randomIds, type Deflating, type Env } from '@/core/env';

const deflateAsync = promisify(deflate);

function deflating(): Deflating {
  // Few large pieces: each is a turn of the loop.
  const stream = createDeflate({ chunkSize: 1 << 17 });
  const all = buffer(stream);
  return {
    add: (piece) =>
      new Promise((resolve) => {
        stream.write(piece);
        // A turn of the loop, so that the thread that compresses is given the piece.
        setImmediate(resolve);
      }),
    async end() {
      stream.end();
      return new Uint8Array(await all);
    },
  };
}

/** The core's outside in Node: shipped files are read from the project's public folder. */
export function nodeEnv(publicFolder: string): Env {
  return {
    async asset(file) {
      try {
        return new Uint8Array(await readFile(path.join(publicFolder, file)));
      } catch {
        throw new Error(`The shipped file ${file} is missing. Run bin/start or “npm run prepare:public” once.`);
      }
    },
    lcmsGlue: 'lcms-wasm',
    deflate: async (data) => new Uint8Array(await deflateAsync(data)),
    deflating,
    newId: randomIds((bytes) => void randomFillSync(bytes)),
    now: () => new Date().toISOString(),
  };
}
