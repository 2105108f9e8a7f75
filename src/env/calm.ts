// When the person last did something on this page: what can wait does not take the machine from what they do.

let last = -Infinity;
const note = () => void (last = performance.now());

if (typeof window !== 'undefined') {
  const looking = { capture: true, passive: true } as const;
  for (const kind of ['keydown', 'pointerdown', 'pointerup', 'wheel', 'input', 'drop'])
    window.addEventListener(kind, note, looking);
  window.addEventListener('pointermove', (e) => e.buttons && note(), looking);
}

/**
 * Resolves once nothing has been done for `pauseMs`, counted from now at the earliest; but after `mostMs` at the latest, however
 * busy the person is.
 */
export async function calm(pauseMs: number, mostMs: number): Promise<void> {
  const begun = performance.now();
  for (let until = begun + pauseMs; ; until = Math.min(last + pauseMs, begun + mostMs)) {
    const rest = until - performance.now();
    if (rest <= 0) return;
    await new Promise((r) => setTimeout(r, rest));
  }
}
