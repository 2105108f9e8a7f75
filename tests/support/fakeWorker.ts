import * as Comlink from 'comlink';

/** What a started worker runs, for the next `new Worker`. */
let api: object = {};
export const workers: FakeWorker[] = [];
export const serve = (next: object): void => void (api = next);

/** A worker in this very thread: the same messages, by a channel. */
export class FakeWorker extends EventTarget {
  private readonly channel = new MessageChannel();
  ended = false;
  constructor() {
    super();
    workers.push(this);
    Comlink.expose(api, this.channel.port2 as unknown as Comlink.Endpoint);
    this.channel.port1.onmessage = (e) => this.dispatchEvent(Object.assign(new Event('message'), { data: (e as MessageEvent).data as unknown }));
    this.channel.port1.start();
    this.channel.port2.start();
  }
  postMessage(message: unknown, transfer: Transferable[] = []): void {
    if (!this.ended) this.channel.port1.postMessage(message, transfer as never);
  }
  terminate(): void {
    this.ended = true;
    this.channel.port1.close();
    this.channel.port2.close();
  }
}

/** Puts such workers in the place of real ones, for all tests of a file. */
export function useFakeWorkers(): void {
  beforeAll(() => void Object.assign(globalThis, { Worker: FakeWorker }));
  afterEach(() => workers.splice(0).forEach((w) => w.terminate()));
}
