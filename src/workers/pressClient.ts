import * as Comlink from 'comlink';
import type { Patches } from 'mutative';
import type { Colour, Design } from '@/core/model/schema';
import type { HandedOver, HandOverRequest, PressApi, Rendered, RenderRequest } from './pressApi';

const start = () => new Worker(new URL('./press.worker.ts', import.meta.url), { type: 'module' });

/** One worker and its calls; a fault of the worker itself rejects what is under way. */
class PressWorker {
  private readonly worker = start();
  readonly api = Comlink.wrap<PressApi>(this.worker);
  private readonly failed: Promise<never>;
  constructor() {
    this.failed = new Promise((_, reject) => {
      this.worker.addEventListener('error', (e) => reject(new Error(e.message || 'The press worker could not start.')));
    });
    this.failed.catch(() => {});
  }
  run<T>(call: Promise<T>): Promise<T> {
    return Promise.race([call, this.failed]);
  }
  stop(): void {
    this.worker.terminate();
  }
}

/**
 * The page's side of the press. Views ask for the newest state only: at most one picture is being made and one waits.
 * Files are made by a worker of their own, so that they can be stopped and never hold up the screen.
 */
export class PressClient {
  private readonly view = new PressWorker();
  private busy = false;
  private waiting: { request: RenderRequest; resolve: (r: Rendered | null) => void } | null = null;

  open(design: Design): Promise<void> {
    return this.view.run(this.view.api.open(design));
  }
  patch(patches: Patches): void {
    void this.view.api.patch(patches);
  }

  /** The pixels, or null if a newer request took this one's place. */
  render(request: RenderRequest): Promise<Rendered | null> {
    return new Promise((resolve, reject) => {
      this.waiting?.resolve(null);
      this.waiting = { request, resolve };
      void this.pump(reject);
    });
  }

  private async pump(reject: (e: unknown) => void): Promise<void> {
    if (this.busy || !this.waiting) return;
    this.busy = true;
    const { request, resolve } = this.waiting;
    this.waiting = null;
    try {
      resolve(await this.view.run(this.view.api.render(request)));
    } catch (e) {
      reject(e);
    } finally {
      this.busy = false;
      void this.pump(reject);
    }
  }

  inksAt(page: string, x: number, y: number) {
    return this.view.run(this.view.api.inksAt(page, x, y));
  }
  totalInk(page: string) {
    return this.view.run(this.view.api.totalInk(page));
  }
  check() {
    return this.view.run(this.view.api.check());
  }
  sample(...args: Parameters<PressApi['sample']>) {
    return this.view.run<Colour | null>(this.view.api.sample(...args) as Promise<Colour | null>);
  }
  lift(...args: Parameters<PressApi['lift']>) {
    return this.view.run(this.view.api.lift(...args));
  }
  contrast(...args: Parameters<PressApi['contrast']>) {
    return this.view.run(this.view.api.contrast(...args));
  }
  thumbnail(largest: number) {
    return this.view.run(this.view.api.thumbnail(largest));
  }

  dispose(): void {
    this.view.stop();
  }
}

export interface HandOverJob {
  readonly result: Promise<HandedOver>;
  /** Ends the work at once; the result then rejects with `stopped`. */
  stop(): void;
}

export class Stopped extends Error {}

/** Makes one file in a worker of its own. */
export function startHandOver(design: Design, request: HandOverRequest, progress: (done: number, total: number, doing: string) => void): HandOverJob {
  const worker = new PressWorker();
  let stop: () => void = () => {};
  const stopped = new Promise<never>((_, reject) => {
    stop = () => reject(new Stopped('Stopped.'));
  });
  const work = (async () => {
    await worker.api.open(design);
    return worker.api.handOver(request, Comlink.proxy(progress));
  })();
  const result = Promise.race([worker.run(work), stopped]).finally(() => worker.stop());
  return { result, stop };
}
