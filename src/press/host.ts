import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { PressKind, Told } from './answer';

/** What a file may take: bytes, milliseconds to read and to arrive, and megabytes of memory. */
export const LIMITS = { bytes: 200 * 1024 * 1024, ms: 60_000, megabytes: 1024, arrivalMs: 120_000 } as const;

const MB = 1024 * 1024;
const WATCH_MS = 50;
const TOO_MUCH = 'It takes more memory to read than the press has for a file.';

/** The worker as the build bundles it (scripts/build-press.mjs). */
const bundle = () => pathToFileURL(path.join(/* turbopackIgnore: true */ process.cwd(), 'dist', 'press', 'worker.mjs'));

/**
 * Reads a file in a thread of its own, which is ended if it takes too long or too much; what it tells comes one after
 * the other, the last is an answer or a refusal. Nothing of the file is kept.
 */
export async function* askPress(
  bytes: Uint8Array,
  kind: PressKind,
  stop: AbortSignal,
  limits: { readonly ms: number; readonly megabytes: number } = LIMITS,
): AsyncGenerator<Told> {
  const told: Told[] = [];
  let wake: () => void = () => {};
  let over = false;
  const add = (t: Told) => {
    told.push(t);
    wake();
  };
  const end = (t: Told) => {
    if (over) return;
    over = true;
    add(t);
  };
  const worker = new Worker(bundle(), {
    workerData: { bytes, kind },
    resourceLimits: { maxOldGenerationSizeMb: limits.megabytes },
    stdout: true,
    stderr: true,
  });
  // What is unpacked lies outside of the thread's own heap: the whole process is watched.
  const before = process.memoryUsage().rss;
  const watch = setInterval(() => {
    if (process.memoryUsage().rss - before < limits.megabytes * MB) return;
    end({ refused: TOO_MUCH });
    void worker.terminate();
  }, WATCH_MS);
  const timer = setTimeout(() => {
    end({ refused: `It takes longer than ${limits.ms / 1000} s to read: the press puts it aside.` });
    void worker.terminate();
  }, limits.ms);
  worker.on('message', (t: Told) => ('step' in t ? over || add(t) : end(t)));
  worker.on('error', () => end({ refused: TOO_MUCH }));
  worker.on('exit', () => end({ refused: 'It is damaged: reading it came to a sudden end.' }));
  const stopped = () => end({ refused: 'Stopped.' });
  stop.addEventListener('abort', stopped);
  try {
    for (;;) {
      while (told.length) {
        const next = told.shift()!;
        yield next;
        if (!('step' in next)) return;
      }
      await new Promise<void>((resolve) => (wake = resolve));
    }
  } finally {
    clearTimeout(timer);
    clearInterval(watch);
    stop.removeEventListener('abort', stopped);
    over = true;
    await worker.terminate();
  }
}
