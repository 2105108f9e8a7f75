import * as Comlink from 'comlink';

/** What a started worker runs, for the next `new Worker`. */
let api: object = {};
export const workers: FakeWorker[] = [];
export const serve = (next: object): void => void (api = next);

/** Ports that were opened for callbacks: with a real worker they would go when it goes. */
const channels: MessageChannel[] = [];
class TrackedChannel extends MessageChannel {
  constructor() {
    super();
    channels.push(this);
  }
}

/** A worker in this very thread: the same messages, by a channel. */
export class FakeWorker extends EventTarget {
  private readonly channel = new MessageChannel();
  ended = false;
  constructor() {
    super();
    workers.push(this);
    Comlink.expose(api, this.channel.port2 as unknown as Comlink.Endpoint);
    this.channel.port1.onmessage = (e) =>
      this.dispatchEvent(Object.assign(new Event('message'), { data: (e as MessageEvent).data as unknown }));
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
  beforeAll(() => void Object.assign(globalThis, { Worker: FakeWorker, MessageChannel: TrackedChannel }));
  afterEach(() => {
    workers.splice(0).forEach((w) => w.terminate());
    for (const c of channels.splice(0)) {
      c.port1.close();
      c.port2.close();
    }
  });
}
