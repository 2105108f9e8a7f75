import { storeEnv } from '@/store/storeEnv';

/** Faces for the interface itself: fetched when a sample of them comes into sight. */

const loading = new Map<string, Promise<boolean>>();

/** A face that ships by its id, or one that a person brought by its file. */
export interface Shown {
  readonly id: string;
  readonly file?: string;
}

/** The name by which the page's styles know a face. */
export const cssFace = (id: string): string => `face-${id}`;

/** Loads a face for samples; answers whether it is there. */
export function showFace({ id, file }: Shown): Promise<boolean> {
  let job = loading.get(id);
  if (!job) {
    const load = async () => {
      const from = file ? ((await storeEnv.asset(`faces/${file}`)) as BufferSource) : `url(/fonts/${id}.ttf)`;
      document.fonts.add(await new FontFace(cssFace(id), from).load());
      return true;
    };
    job = load().catch(() => {
      // Tried again when it comes into sight once more.
      loading.delete(id);
      return false;
    });
    loading.set(id, job);
  }
  return job;
}
