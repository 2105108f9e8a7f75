import { jest } from '@jest/globals';
import { IDLE_MS, PictureClient, READ_MS } from '@/workers/pictureClient';
import type { LookRequest, PictureApi } from '@/workers/pictureApi';
import { serve, useFakeWorkers, workers } from '../support/fakeWorker';

useFakeWorkers();
const request = (file: string): LookRequest => ({
  file,
  tone: undefined,
  pixels: 10,
  coarse: false,
  colours: { swatches: [], inks: [], profile: {}, setup: {} } as never,
});
const bitmap = (width: number) => ({ width, height: 1, data: new Uint8ClampedArray(4 * width) });
const facts = { width: 1, height: 1, space: 'rgb' as const, alpha: false };

test('starts with the first picture, and one worker does them all', async () => {
  serve({
    read: async (bytes) => ({ ok: true, facts, ending: 'png', bytes }),
    look: async () => bitmap(3),
  } satisfies Partial<PictureApi>);
  const client = new PictureClient();
  expect(workers).toHaveLength(0);
  const read = await client.read(Uint8Array.of(1, 2, 3));
  expect(read.ok && [...read.bytes]).toEqual([1, 2, 3]);
  expect((await client.look(request('a.png')))!.width).toBe(3);
  expect(workers).toHaveLength(1);
  client.dispose();
  expect(workers[0].ended).toBe(true);
});

test('a file that hangs is given up with a sentence; looks that waited behind it come from the next worker', async () => {
  jest.useFakeTimers({ doNotFake: ['queueMicrotask', 'nextTick', 'setImmediate'] });
  try {
    serve({ read: () => new Promise(() => {}), look: () => new Promise(() => {}) } satisfies Partial<PictureApi>);
    const client = new PictureClient();
    const reading = client.read(Uint8Array.of(1));
    const looking = client.look(request('b.png'));
    serve({ look: async () => bitmap(7) } satisfies Partial<PictureApi>);
    jest.advanceTimersByTime(READ_MS + 1);
    await expect(reading).resolves.toEqual({ ok: false, message: expect.stringMatching(/was not open after 30 s/) });
    expect((await looking)!.width).toBe(7);
    expect(workers.map((w) => w.ended)).toEqual([true, false]);
    client.dispose();
  } finally {
    jest.useRealTimers();
  }
});

test('a worker that nobody has called for a while is ended, never one that is asked; the next call begins another', async () => {
  jest.useFakeTimers({ doNotFake: ['queueMicrotask', 'nextTick', 'setImmediate'] });
  try {
    let answer: (() => void) | null = null;
    serve({
      look: async ({ file }) => {
        if (file === 'slow.png') await new Promise<void>((r) => (answer = r));
        return bitmap(3);
      },
    } satisfies Partial<PictureApi>);
    const client = new PictureClient();
    await client.look(request('a.png'));
    jest.advanceTimersByTime(IDLE_MS - 1);
    const slow = client.look(request('slow.png'));
    jest.advanceTimersByTime(IDLE_MS + 1);
    expect(workers[0].ended).toBe(false);
    while (!answer) await new Promise((r) => setImmediate(r));
    (answer as () => void)();
    expect((await slow)!.width).toBe(3);
    jest.advanceTimersByTime(IDLE_MS + 1);
    expect(workers[0].ended).toBe(true);
    expect((await client.look(request('a.png')))!.width).toBe(3);
    expect(workers).toHaveLength(2);
    client.dispose();
  } finally {
    jest.useRealTimers();
  }
});

test('a worker that fails is said where a file is opened, and is begun anew for the next', async () => {
  serve({ read: () => new Promise(() => {}) } satisfies Partial<PictureApi>);
  const client = new PictureClient();
  const reading = client.read(Uint8Array.of(1));
  workers[0].dispatchEvent(Object.assign(new Event('error'), { message: 'no memory' }));
  expect(await reading).toEqual({ ok: false, message: 'no memory' });
  serve({
    drawing: async () => ({ ok: false, message: 'it is no drawing' }),
    look: async () => null,
  } satisfies Partial<PictureApi>);
  expect(await client.drawing(Uint8Array.of(2), 'x')).toEqual({ ok: false, message: 'it is no drawing' });
  expect(await client.look(request('gone.png'))).toBeNull();
  expect(workers.map((w) => w.ended)).toEqual([true, false]);
  client.dispose();
});

test('a look that fails says so, and may be asked for again; after the end nothing is begun', async () => {
  let n = 0;
  serve({ look: async () => (n++ ? bitmap(5) : Promise.reject(new Error('broken'))) } satisfies Partial<PictureApi>);
  const client = new PictureClient();
  await expect(client.look(request('c.png'))).rejects.toThrow('broken');
  expect((await client.look(request('c.png')))!.width).toBe(5);
  client.dispose();
  const before = workers.length;
  await expect(client.look(request('c.png'))).rejects.toThrow();
  expect(workers).toHaveLength(before);
});

test('stopped by the person: what was being opened says so, and the next file opens', async () => {
  serve({ drawing: () => new Promise(() => {}) } satisfies Partial<PictureApi>);
  const client = new PictureClient();
  const reading = client.drawing(Uint8Array.of(1), 'x');
  client.stop();
  expect(await reading).toEqual({ ok: false, message: 'opening it was stopped' });
  serve({ swatches: async () => ({ ok: true, swatches: [], ramps: [], notes: [] }) } satisfies Partial<PictureApi>);
  expect(await client.swatches(Uint8Array.of(2))).toMatchObject({ ok: true });
  client.dispose();
});
