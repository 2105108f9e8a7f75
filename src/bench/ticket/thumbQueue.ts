/**
 * Pictures of pages are made one after the other, and only while nothing is scrolled: a quick look through many pages
 * stays smooth.
 */

type Make = () => Promise<void>;

/** So long nothing may have come into sight or left it, ms. */
const AT_REST = 120;
let waiting: readonly Make[] = [];
let stirred = 0;
let running = false;

/** Tells that what is in sight has changed. */
export function stir(): void {
  stirred = performance.now();
}

/** Makes a picture in its turn; what it answers takes that back, as an effect's own end does. */
export function inTurn(make: Make): () => void {
  waiting = [...waiting, make];
  if (!running) void work();
  return () => {
    waiting = waiting.filter((w) => w !== make);
  };
}

async function work(): Promise<void> {
  running = true;
  while (waiting.length) {
    const rest = AT_REST - (performance.now() - stirred);
    if (rest > 0) {
      await new Promise((done) => setTimeout(done, rest));
      continue;
    }
    const [next] = waiting;
    waiting = waiting.slice(1);
    // A page without its picture is still there, by its number.
    await next().catch(() => {});
  }
  running = false;
}
