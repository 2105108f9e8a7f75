import * as Comlink from 'comlink';
import { PressClient, Stopped, startHandOver } from '@/workers/pressClient';
import type { HandedOver, PressApi, Rendered, RenderRequest } from '@/workers/pressApi';
import { sampleDesign } from '../support/sample';

/** What a started worker runs, for the next `new Worker`. */
let api: Partial<PressApi> = {};
const workers: FakeWorker[] = [];

/** A worker in this very thread: the same messages, by a channel. */
class FakeWorker extends EventTarget {
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
beforeAll(() => void Object.assign(globalThis, { Worker: FakeWorker }));
afterEach(() => workers.splice(0).forEach((w) => w.terminate()));

const request = (scale: number): RenderRequest => ({ page: 'p', region: { x: 0, y: 0, scale, width: 2, height: 1 }, shown: null });
const picture = (r: RenderRequest): Rendered => ({ width: r.region.width, height: r.region.height, pixels: new Uint8ClampedArray([r.region.scale]) });

test('of many wishes only the first and the newest are drawn; those between give way', async () => {
  const drawn: number[] = [];
  let go: (() => void)[] = [];
  api = {
    render: async (r) => {
      drawn.push(r.region.scale);
      await new Promise<void>((done) => go.push(done));
      return picture(r);
    },
  };
  const press = new PressClient();
  const wishes = [1, 2, 3, 4].map((s) => press.render(request(s)));
  const release = async () => {
    for (let i = 0; i < 50 && go.length === 0; i++) await new Promise((r) => setTimeout(r, 5));
    go.forEach((f) => f());
    go = [];
  };
  await release();
  await release();
  const results = await Promise.all(wishes);
  expect(results.map((r) => r && r.pixels[0])).toEqual([1, null, null, 4]);
  expect(drawn).toEqual([1, 4]);
  press.dispose();
});

test('a worker that fails says so to all who wait, instead of leaving them waiting', async () => {
  api = { totalInk: () => new Promise(() => {}) };
  const press = new PressClient();
  const waiting = press.totalInk('p');
  workers[0].dispatchEvent(Object.assign(new Event('error'), { message: 'no memory' }));
  await expect(waiting).rejects.toThrow('no memory');
  press.dispose();
});

test('a fault inside a call reaches the caller as an error, and the next call works', async () => {
  let n = 0;
  api = {
    render: async (r) => {
      if (n++ === 0) throw new Error('unknown swatch: x');
      return picture(r);
    },
  };
  const press = new PressClient();
  await expect(press.render(request(1))).rejects.toThrow('unknown swatch: x');
  expect((await press.render(request(2)))?.pixels[0]).toBe(2);
  press.dispose();
});

describe('handing over', () => {
  test('opens the design, reports progress, gives the file, and ends its worker', async () => {
    const opened: string[] = [];
    api = {
      open: async (d) => void opened.push(d.name),
      handOver: async (_, progress) => {
        progress(1, 2, 'Page 1 of 2');
        await new Promise((r) => setTimeout(r, 20));
        return { ok: true, bytes: Uint8Array.of(1, 2), notes: ['near'] } satisfies HandedOver;
      },
    };
    const steps: string[] = [];
    const job = startHandOver(sampleDesign(), { kind: 'svg', page: 1 }, (a, b, what) => steps.push(`${a}/${b} ${what}`));
    expect(await job.result).toMatchObject({ ok: true, notes: ['near'] });
    expect([opened, steps]).toEqual([['Sample page'], ['1/2 Page 1 of 2']]);
    await new Promise((r) => setTimeout(r, 0));
    expect(workers[0].ended).toBe(true);
  });
  test('stopped, it ends at once and no file comes', async () => {
    api = { open: async () => {}, handOver: () => new Promise(() => {}) };
    const job = startHandOver(sampleDesign(), { kind: 'holvet' }, () => {});
    setTimeout(() => job.stop(), 10);
    await expect(job.result).rejects.toBeInstanceOf(Stopped);
    await new Promise((r) => setTimeout(r, 0));
    expect(workers[0].ended).toBe(true);
  });
});
