/** Something whose script comes after the first paint. */
export interface Later<T> {
  /** Null until it is there. */
  readonly now: T | null;
  /** Asks for it; once more, if it could not be had before. */
  get(): Promise<T>;
}

const waiting: Later<unknown>[] = [];
let show = () => {};
/** The bench has been painted once. */
export const firstPaint = new Promise<void>((resolve) => {
  show = resolve;
});

/**
 * A script that is not needed to see the sheet and to choose on it. All such are fetched together when the bench has
 * been painted.
 */
export function afterPaint<T>(load: () => Promise<T>): Later<T> {
  let asked: Promise<T> | null = null;
  const later = {
    now: null as T | null,
    get: () =>
      (asked ??= load().then(
        (made) => (later.now = made),
        (e: unknown) => {
          asked = null;
          throw e;
        },
      )),
  };
  waiting.push(later);
  return later;
}

let whole = () => {};
/** All that waited is there, or could not be had now. */
export const allFetched = new Promise<void>((resolve) => {
  whole = resolve;
});

/** To be called after the first paint. */
export async function fetchLater(): Promise<void> {
  show();
  await Promise.allSettled(waiting.splice(0).map((later) => later.get()));
  whole();
}
