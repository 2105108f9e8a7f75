import type { Env } from '@/core/env';
import { isOwnAsset } from '@/core/file/assets';
import { browserEnv } from '@/env/browser';
import { designStore } from './open';

/** What only workers have, and so is in no list of a page's types. */
interface WorkerReads {
  readonly FileReaderSync?: new () => { readAsArrayBuffer(blob: Blob): ArrayBuffer };
}

/**
 * The core's outside with what the person brought: own profiles come from this browser's store, the rest is shipped.
 */
export const storeEnv: Env = {
  async asset(file) {
    const name = file.split('/').pop()!;
    if (!isOwnAsset(name)) return browserEnv.asset(file);
    const bytes = await designStore().asset(name);
    if (!bytes) throw new Error(`The file ${name} is not in this browser.`);
    return bytes;
  },
  async assetAgain(file) {
    const name = file.split('/').pop()!;
    const held = isOwnAsset(name) ? await designStore().assetBlob(name) : null;
    // Only a worker reads at once what the browser has on its disk.
    const { FileReaderSync } = globalThis as WorkerReads;
    if (!held || !FileReaderSync) return { bytes: await storeEnv.asset(file) };
    const again = () => new Uint8Array(new FileReaderSync().readAsArrayBuffer(held));
    return { bytes: again(), again };
  },
  get lcmsGlue() {
    return browserEnv.lcmsGlue;
  },
  deflate: (data) => browserEnv.deflate(data),
  deflating: () => browserEnv.deflating(),
  newId: () => browserEnv.newId(),
  now: () => browserEnv.now(),
};
