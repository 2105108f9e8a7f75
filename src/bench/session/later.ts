/** What was done is shown first; small pictures of it follow. */
const LATER_MS = 120;

/** Runs a little later; what it answers takes that back, as an effect's own end does. */
export function later(run: () => void): () => void {
  const waiting = setTimeout(run, LATER_MS);
  return () => clearTimeout(waiting);
}
