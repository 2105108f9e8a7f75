import { jest } from '@jest/globals';
import { PictureClient, READ_MS } from '@/workers/pictureClient';
import type { LookRequest, PictureApi } from '@/workers/pictureApi';
import { serve, useFakeWorkers, workers } from '../support/fakeWorker';

useFakeWorkers();
const request = (file: string): LookRequest => ({ file, tone: undefined, pixels: 10, coarse: false, colours: { swatches: [], inks: [], profile: {}, setup: {} } as never });
const bitmap = (width: number) => ({ width, height: 1, data: new Uint8ClampedArray(4 * width) });
const facts = { width: 1, height: 1, space: 'rgb' as const, alpha: false };

test('starts with the first picture, and one worker does them all', async () => {
  serve({ read: async (bytes) => ({ ok: true, facts, ending: 'png', bytes }), look: async () => bitmap(3) } satisfies Partial<PictureApi>);
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
    await expect(reading).resolves.toEqual({ ok: false, message: expect.stringMatching(/takes too long to open/) });
    expect((await looking)!.width).toBe(7);
    expect(workers.map((w) => w.ended)).toEqual([true, false]);
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
  serve({ drawing: async () => ({ ok: false, message: 'it is no drawing' }), look: async () => null } satisfies Partial<PictureApi>);
  expect(await client.drawing(Uint8Array.of(2), 'x')).toEqual({ ok: false, message: 'it is no drawing' });
  expect(await client.look(request('gone.png'))).toBeNull();
  expect(workers.map((w) => w.ended)).toEqual([true, false]);
  client.dispose();
});

test('a look that fails twice is none; after the end nothing is begun again', async () => {
  serve({ look: async () => Promise.reject(new Error('broken')) } satisfies Partial<PictureApi>);
  const client = new PictureClient();
  expect(await client.look(request('c.png'))).toBeNull();
  client.dispose();
  const before = workers.length;
  expect(await client.look(request('c.png'))).toBeNull();
  expect(workers).toHaveLength(before);
});
