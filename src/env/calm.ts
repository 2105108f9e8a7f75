// When the person last did something on this page: what can wait does not take the machine from what they do.

let last = -Infinity;
const note = () => void (last = performance.now());

if (typeof window !== 'undefined') {
  const looking = { capture: true, passive: true } as const;
  for (const kind of ['keydown', 'pointerdown', 'pointerup', 'wheel', 'input', 'drop'])
    window.addEventListener(kind, note, looking);
  window.addEventListener('pointermove', (e) => e.buttons && note(), looking);
}

/** Resolves after so long, or once it is given up. */
const elapsed = (ms: number, signal?: AbortSignal): Promise<void> =>
  new Promise((resolve) => {
    const timer = setTimeout(resolve, ms);
    signal?.addEventListener('abort', () => (clearTimeout(timer), resolve()), { once: true });
  });

/**
 * Resolves once nothing has been done for `pauseMs`, counted from now at the earliest; but after `mostMs` at the
 * latest, however busy the person is. Given up, it resolves at once.
 */
export async function calm(pauseMs: number, mostMs: number, signal?: AbortSignal): Promise<void> {
  const begun = performance.now();
  for (let until = begun + pauseMs; !signal?.aborted; until = Math.min(last + pauseMs, begun + mostMs)) {
    const rest = until - performance.now();
    if (rest <= 0) return;
    await elapsed(rest, signal);
  }
}
