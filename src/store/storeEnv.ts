import type { Env } from '@/core/env';
import { isOwnAsset } from '@/core/file/assets';
import { browserEnv } from '@/env/browser';
import { designStore } from './open';

/** The core's outside with what the person brought: own profiles come from this browser's store, the rest is shipped. */
export const storeEnv: Env = {
  async asset(file) {
    const name = file.split('/').pop()!;
    if (!isOwnAsset(name)) return browserEnv.asset(file);
    const bytes = await designStore().asset(name);
    if (!bytes) throw new Error(`The file ${name} is not in this browser.`);
    return bytes;
  },
  get lcmsGlue() {
    return browserEnv.lcmsGlue;
  },
  deflate: (data) => browserEnv.deflate(data),
  deflating: () => browserEnv.deflating(),
  newId: () => browserEnv.newId(),
  now: () => browserEnv.now(),
};
