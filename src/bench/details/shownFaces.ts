/** Faces for the interface itself: fetched when a sample of them comes into sight. */

const loading = new Map<string, Promise<boolean>>();

/** The name by which the page's styles know a face. */
export const cssFace = (id: string): string => `face-${id}`;

/** Loads a face for samples; answers whether it is there. */
export function showFace(id: string): Promise<boolean> {
  let job = loading.get(id);
  if (!job) {
    const face = new FontFace(cssFace(id), `url(/fonts/${id}.ttf)`);
    job = face.load().then(
      () => {
        document.fonts.add(face);
        return true;
      },
      () => {
        // Tried again when it comes into sight once more.
        loading.delete(id);
        return false;
      },
    );
    loading.set(id, job);
  }
  return job;
}
