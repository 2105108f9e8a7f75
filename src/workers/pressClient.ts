import { packed, type Packed } from '@/core/edit/packed';
import * as Comlink from 'comlink';
import type { Patches } from 'mutative';
import type { Colour, Design } from '@/core/model/schema';
import { WorkerGone, WorkerHost } from './host';
import type {
  HandedOver,
  HandOverRequest,
  LoupeRequest,
  PdfRequest,
  PressApi,
  Rendered,
  RenderRequest,
} from './pressApi';

const start = () => new Worker(new URL('./press.worker.ts', import.meta.url), { type: 'module' });

/** What each call may take, in ms: far more than it needs, so that only what hangs is ended. */
export const PRESS_MS = { open: 60_000, render: 90_000, look: 30_000, check: 180_000, thumbnail: 90_000 } as const;

/**
 * The page's side of the press. Views ask for the newest state only: at most one picture is being made and one waits.
 * Files are made by a worker of their own, so that they can be stopped and never hold up the screen. A worker that
 * hangs is ended; the next begins with the whole design, as one does that lost track of its changes.
 */
export class PressClient {
  private busy = false;
  private waiting: {
    request: RenderRequest;
    resolve: (r: Rendered | null) => void;
    reject: (e: unknown) => void;
  } | null = null;
  private design: Design | null = null;
  private readonly host = new WorkerHost<PressApi>(start, (api) => {
    if (this.design) void api.open(this.design).catch(() => {});
    if (this.heldAgainst) void api.against(this.heldAgainst).catch(() => {});
  });
  private heldAgainst: Design | null = null;

  /** Gives the worker a design, whole. */
  open(design: Design): Promise<void> {
    this.design = design;
    return this.host.call(PRESS_MS.open, (api) => api.open(design));
  }

  /** Tells the worker a change; `after` is the design that it leads to. */
  patch(patches: Patches | Packed, after: Design): void {
    this.design = after;
    // Without a worker there is nothing to tell: the next one begins with the whole.
    if (!this.host.alive) return;
    const text = Array.isArray(patches) ? packed(patches) : patches;
    this.host
      .call(PRESS_MS.open, (api) => api.patch(text))
      .catch((e: unknown) => {
        // It lost track: it gets the design as it is by now.
        if (this.design && !(e instanceof WorkerGone)) void this.open(this.design).catch(() => {});
      });
  }

  /** The pixels, or null if a newer request took this one's place. */
  render(request: RenderRequest): Promise<Rendered | null> {
    return new Promise((resolve, reject) => {
      this.waiting?.resolve(null);
      this.waiting = { request, resolve, reject };
      void this.pump();
    });
  }

  private async pump(): Promise<void> {
    if (this.busy || !this.waiting) return;
    this.busy = true;
    const { request, resolve, reject } = this.waiting;
    this.waiting = null;
    try {
      resolve(
        await this.host.call<Rendered | null>(
          PRESS_MS.render,
          (api) => api.render(request) as Promise<Rendered | null>,
        ),
      );
    } catch (e) {
      reject(e);
    } finally {
      this.busy = false;
      void this.pump();
    }
  }

  /** Gives the worker a state that the present one is held against. */
  against(state: Design | null): Promise<void> {
    this.heldAgainst = state;
    return this.host.call(PRESS_MS.open, (api) => api.against(state));
  }

  contents(request: PdfRequest) {
    // All its pages may have to be laid out for it.
    return this.host.call(PRESS_MS.check, (api) => api.contents(request));
  }

  loupe(request: LoupeRequest): Promise<Rendered | null> {
    return this.host.call<Rendered | null>(PRESS_MS.look, (api) => api.loupe(request) as Promise<Rendered | null>);
  }

  inksAt(page: string, x: number, y: number, square = 0) {
    return this.host.call(PRESS_MS.look, (api) => api.inksAt(page, x, y, square));
  }
  totalInk(page: string) {
    return this.host.call(PRESS_MS.check, (api) => api.totalInk(page));
  }
  coverage(page: string) {
    return this.host.call<readonly number[] | null>(
      PRESS_MS.check,
      (api) => api.coverage(page) as Promise<readonly number[] | null>,
    );
  }
  check() {
    return this.host.call(PRESS_MS.check, (api) => api.check());
  }
  sample(...args: Parameters<PressApi['sample']>) {
    return this.host.call<Colour | null>(PRESS_MS.look, (api) => api.sample(...args) as Promise<Colour | null>);
  }
  lift(...args: Parameters<PressApi['lift']>) {
    return this.host.call(PRESS_MS.check, (api) => api.lift(...args));
  }
  contrast(...args: Parameters<PressApi['contrast']>) {
    return this.host.call(PRESS_MS.check, (api) => api.contrast(...args));
  }
  thumbnail(...args: Parameters<PressApi['thumbnail']>) {
    return this.host.call(PRESS_MS.thumbnail, (api) => api.thumbnail(...args));
  }

  dispose(): void {
    this.waiting?.resolve(null);
    this.waiting = null;
    this.host.dispose();
  }
}

export interface HandOverJob {
  readonly result: Promise<HandedOver>;
  /** Ends the work at once; the result then rejects with `stopped`. */
  stop(): void;
}

export class Stopped extends Error {}

/** Makes one file in a worker of its own. */
export function startHandOver(
  design: Design,
  request: HandOverRequest,
  progress: (done: number, total: number, doing: string) => void,
): HandOverJob {
  let stop: () => void = () => {};
  const stopped = new Promise<never>((_, reject) => {
    stop = () => reject(new Stopped('Stopped.'));
  });
  const host = new WorkerHost<PressApi>(start);
  // How far it is comes by a way of its own, and may come after the file itself.
  let over = false;
  const told: typeof progress = (...far) => {
    if (!over) progress(...far);
  };
  // As long as it says how far it is, it may go on; the person can stop it at any time.
  const work = (async (): Promise<HandedOver> => {
    await host.call(PRESS_MS.open, (api) => api.open(design));
    return host.call<HandedOver>(
      HAND_OVER_MS,
      (api) => api.handOver(request, Comlink.proxy(told)) as Promise<HandedOver>,
    );
  })();
  const result = Promise.race([work, stopped]).finally(() => {
    over = true;
    host.dispose();
  });
  work.catch(() => {});
  return { result, stop };
}
const HAND_OVER_MS = 3_600_000;
