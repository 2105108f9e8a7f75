import * as Comlink from 'comlink';
import type { Bitmap } from '@/core/render/bitmap';
import type { LookRequest, PictureApi, ReadDrawing, ReadPicture } from './pictureApi';

/** No file needs longer; one that does was made to hang whoever opens it. */
export const READ_MS = 30_000;

/** The page's side of the picture worker. It starts with the first picture; one that hangs is ended and begun anew. */
export class PictureClient {
  private worker: Worker | null = null;
  private api: Comlink.Remote<PictureApi> | null = null;
  private failed: Promise<never> | null = null;
  private disposed = false;
  private fail: (why: Error) => void = () => {};

  private begin(): Comlink.Remote<PictureApi> {
    if (!this.api) {
      const worker = new Worker(new URL('./picture.worker.ts', import.meta.url), { type: 'module' });
      this.worker = worker;
      this.failed = new Promise((_, reject) => {
        this.fail = reject;
        worker.addEventListener('error', (e) => reject(new Error(e.message || 'The picture worker could not start.')));
      });
      this.failed.catch(() => this.worker === worker && this.end());
      this.api = Comlink.wrap<PictureApi>(worker);
    }
    return this.api;
  }

  /** Who still waits for the worker hears that it is gone. */
  private end(): void {
    const { fail } = this;
    this.worker?.terminate();
    this.worker = null;
    this.api = null;
    fail(new Error('opening it was stopped because of another file. Try it again'));
  }

  /** Opens a file's bytes; they are handed over and can no longer be used here. */
  read(bytes: Uint8Array): Promise<ReadPicture> {
    return this.timed<ReadPicture>(this.begin().read(Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer])) as Promise<ReadPicture>);
  }

  /** Reads an SVG drawing; its bytes are handed over. */
  drawing(bytes: Uint8Array, name: string): Promise<ReadDrawing> {
    return this.timed<ReadDrawing>(this.begin().drawing(Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]), name) as Promise<ReadDrawing>);
  }

  private async timed<T>(job: Promise<T>): Promise<T | { readonly ok: false; readonly message: string }> {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<{ readonly ok: false; readonly message: string }>((resolve) => {
      timer = setTimeout(() => {
        // First this one's answer: ending the worker answers all others.
        resolve({ ok: false, message: 'it takes too long to open: it is damaged, or far too large' });
        this.end();
      }, READ_MS);
    });
    try {
      return await Promise.race([job, late, this.failed!]);
    } catch (e) {
      return { ok: false, message: e instanceof Error ? e.message : String(e) };
    } finally {
      clearTimeout(timer);
    }
  }

  /** A look is asked for once more where the worker was ended for another file's sake. */
  async look(request: LookRequest): Promise<Bitmap | null> {
    for (let tries = 0; tries < 2 && !this.disposed; tries++) {
      try {
        return await Promise.race([this.begin().look(request), this.failed!]);
      } catch {
        // The worker is gone: the next one may do it.
      }
    }
    return null;
  }

  dispose(): void {
    this.disposed = true;
    this.end();
  }
}
