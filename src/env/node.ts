import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import { deflate } from 'node:zlib';
import type { Env } from '@/core/env';

const deflateAsync = promisify(deflate);

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
    newId: () => randomUUID().replace(/-/g, '').slice(0, 20),
    now: () => new Date().toISOString(),
  };
}
