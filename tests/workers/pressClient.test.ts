import { jest } from '@jest/globals';
import { WorkerLate } from '@/workers/host';
import { PressClient, PRESS_MS, Stopped, startHandOver } from '@/workers/pressClient';
import type { HandedOver, PressApi, Rendered, RenderRequest } from '@/workers/pressApi';
import { serve, useFakeWorkers, workers } from '../support/fakeWorker';
import { sampleDesign } from '../support/sample';

useFakeWorkers();

const request = (scale: number): RenderRequest => ({
  page: 'p',
  region: { x: 0, y: 0, scale, width: 2, height: 1 },
  shown: null,
  look: 'ink',
  pair: null,
  proof: true,
});
const picture = (r: RenderRequest): Rendered => ({
  width: r.region.width,
  height: r.region.height,
  pixels: new Uint8ClampedArray([r.region.scale]),
  lacking: false,
});

test('of many wishes only the first and the newest are drawn; those between give way', async () => {
  const drawn: number[] = [];
  let go: (() => void)[] = [];
  serve({
    render: async (r) => {
      drawn.push(r.region.scale);
      await new Promise<void>((done) => go.push(done));
      return picture(r);
    },
  } satisfies Partial<PressApi>);
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
  serve({ totalInk: () => new Promise(() => {}) } satisfies Partial<PressApi>);
  const press = new PressClient();
  const waiting = press.totalInk('p');
  workers[0].dispatchEvent(Object.assign(new Event('error'), { message: 'no memory' }));
  await expect(waiting).rejects.toThrow('no memory');
  press.dispose();
});

test('a fault inside a call reaches the caller as an error, and the next call works', async () => {
  let n = 0;
  serve({
    render: async (r) => {
      if (n++ === 0) throw new Error('unknown swatch: x');
      return picture(r);
    },
  } satisfies Partial<PressApi>);
  const press = new PressClient();
  await expect(press.render(request(1))).rejects.toThrow('unknown swatch: x');
  expect((await press.render(request(2)))?.pixels[0]).toBe(2);
  press.dispose();
});

/** Messages go by a channel: a few turns of the loop. */
const settle = async () => {
  for (let i = 0; i < 20; i++) await new Promise((r) => setImmediate(r));
};

test('a press that hangs is ended in its time, and the next one begins with the design as it is by then', async () => {
  jest.useFakeTimers({ doNotFake: ['queueMicrotask', 'nextTick', 'setImmediate'] });
  try {
    const opened: string[] = [];
    serve({
      open: async (d) => void opened.push(d.name),
      patch: async () => {},
      totalInk: () => new Promise(() => {}),
    } satisfies Partial<PressApi>);
    const press = new PressClient();
    const design = sampleDesign();
    void press.open(design);
    const hung = press.totalInk('p');
    const ended = expect(hung).rejects.toBeInstanceOf(WorkerLate);
    await settle();
    jest.advanceTimersByTime(PRESS_MS.check + 1);
    await ended;
    serve({ open: async (d) => void opened.push(d.name), totalInk: async () => null } satisfies Partial<PressApi>);
    press.patch([], { ...design, name: 'Later still' });
    expect(await press.totalInk('p')).toBeNull();
    expect(opened).toContain('Later still');
    expect(workers.map((w) => w.ended)).toEqual([true, false]);
    press.dispose();
  } finally {
    jest.useRealTimers();
  }
});

test('a press that lost track of the changes is given the whole design', async () => {
  const opened: string[] = [];
  serve({
    open: async (d) => void opened.push(d.name),
    patch: async () => {
      throw new Error('no such path');
    },
    totalInk: async () => null,
  } satisfies Partial<PressApi>);
  const press = new PressClient();
  const design = sampleDesign();
  await press.open(design);
  press.patch([], { ...design, name: 'Later' });
  for (let i = 0; i < 50 && !opened.includes('Later'); i++) await new Promise((r) => setTimeout(r, 5));
  expect(opened.at(-1)).toBe('Later');
  press.dispose();
});

describe('handing over', () => {
  test('opens the design, reports progress, gives the file, and ends its worker', async () => {
    const opened: string[] = [];
    serve({
      open: async (d) => void opened.push(d.name),
      handOver: async (_, progress) => {
        progress(1, 2, 'Page 1 of 2');
        await new Promise((r) => setTimeout(r, 20));
        return { ok: true, bytes: Uint8Array.of(1, 2), notes: ['near'] } satisfies HandedOver;
      },
    } satisfies Partial<PressApi>);
    const steps: string[] = [];
    const job = startHandOver(sampleDesign(), { kind: 'svg', page: 1 }, (a, b, what) =>
      steps.push(`${a}/${b} ${what}`),
    );
    expect(await job.result).toMatchObject({ ok: true, notes: ['near'] });
    expect([opened, steps]).toEqual([['Sample page'], ['1/2 Page 1 of 2']]);
    await new Promise((r) => setTimeout(r, 0));
    expect(workers[0].ended).toBe(true);
  });
  test('how far it was is not told once the file is there: what is over does not begin again', async () => {
    let late: Promise<void> | null = null;
    serve({
      open: async () => {},
      handOver: async (_, progress) => {
        progress(1, 2, 'Page 1 of 2');
        await new Promise((r) => setTimeout(r, 20));
        late = (async () => {
          await new Promise((r) => setTimeout(r, 20));
          progress(2, 2, 'Closing the file');
        })();
        return { ok: true, bytes: Uint8Array.of(1), notes: [] } satisfies HandedOver;
      },
    } satisfies Partial<PressApi>);
    const steps: string[] = [];
    await startHandOver(sampleDesign(), { kind: 'svg', page: 1 }, (_, __, what) => steps.push(what)).result;
    await late;
    await settle();
    expect(steps).toEqual(['Page 1 of 2']);
  });
  test('stopped, it ends at once and no file comes', async () => {
    serve({ open: async () => {}, handOver: () => new Promise(() => {}) } satisfies Partial<PressApi>);
    const job = startHandOver(sampleDesign(), { kind: 'holvet' }, () => {});
    setTimeout(() => job.stop(), 10);
    await expect(job.result).rejects.toBeInstanceOf(Stopped);
    await new Promise((r) => setTimeout(r, 0));
    expect(workers[0].ended).toBe(true);
  });
});
