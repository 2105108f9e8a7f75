import * as Comlink from 'comlink';
import type { SwatchesRead } from '@/core/colour/exchange';
import type { Bitmap } from '@/core/render/bitmap';
import { WorkerGone, WorkerHost, WorkerLate } from './host';
import type { LookRequest, PictureApi, ReadDrawing, ReadFaces, ReadPicture } from './pictureApi';

/** No file needs longer; one that does was made to hang whoever opens it. */
export const READ_MS = 30_000;
/** A look at a picture, its opening and the engines included. */
const LOOK_MS = 40_000;

/** Nobody asks for pictures any more: what it opened them with, and they themselves, need not wait. */
export const IDLE_MS = 20_000;

/** The page's side of the picture worker. It starts with the first file; one that hangs is ended and begun anew. */
export class PictureClient {
  private readonly host = new WorkerHost<PictureApi>(
    () => new Worker(new URL('./picture.worker.ts', import.meta.url), { type: 'module' }),
    undefined,
    IDLE_MS,
  );

  /** Opens a file's bytes; they are handed over and can no longer be used here. */
  read(bytes: Uint8Array): Promise<ReadPicture> {
    return this.opened<ReadPicture>((api) => api.read(handed(bytes)) as Promise<ReadPicture>);
  }

  /** Reads an SVG drawing; its bytes are handed over. */
  drawing(bytes: Uint8Array, name: string): Promise<ReadDrawing> {
    return this.opened<ReadDrawing>((api) => api.drawing(handed(bytes), name) as Promise<ReadDrawing>);
  }

  /** Reads a swatch file; its bytes are handed over. */
  async swatches(bytes: Uint8Array): Promise<SwatchesRead> {
    const read = await this.opened((api) => api.swatches(handed(bytes)) as Promise<SwatchesRead>);
    return read.ok || 'line' in read ? read : { ok: false, line: null, message: `${read.message}.` };
  }

  /** Reads a font file; its bytes are handed over. */
  faces(bytes: Uint8Array): Promise<ReadFaces> {
    return this.opened<ReadFaces>((api) => api.faces(handed(bytes)) as Promise<ReadFaces>);
  }

  /** Ends what is being opened: its caller hears that it was stopped. */
  stop(): void {
    this.host.end(new WorkerGone('opening it was stopped'));
  }

  private async opened<T>(
    make: Parameters<typeof this.host.call<T>>[1],
  ): Promise<T | { readonly ok: false; readonly message: string }> {
    try {
      return await this.host.call(READ_MS, make);
    } catch (e) {
      if (e instanceof WorkerLate)
        return { ok: false, message: `it was not open after ${READ_MS / 1000} s: it is damaged, or far too large` };
      return {
        ok: false,
        message: e instanceof Error ? e.message.replace(/^It was/, 'it was').replace(/\.$/, '') : String(e),
      };
    }
  }

  /**
   * How a picture looks; null where its file cannot be had. Asked for once more where the worker was ended for another
   * file's sake; rejects where it cannot be told now.
   */
  async look(request: LookRequest): Promise<Bitmap | null> {
    const ask = () => this.host.call(LOOK_MS, (api) => api.look(request) as Promise<Bitmap | null>);
    try {
      return await ask();
    } catch (e) {
      if (e instanceof WorkerGone) return ask();
      throw e;
    }
  }

  dispose(): void {
    this.host.dispose();
  }
}

const handed = (bytes: Uint8Array): Uint8Array => Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]);
