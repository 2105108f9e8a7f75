import { jest } from '@jest/globals';
import { calm } from '@/env/calm';

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

/** Whether it has resolved by now. */
function watch(what: Promise<void>): () => boolean {
  let done = false;
  void what.then(() => (done = true));
  return () => done;
}

test('a pause is counted from the last thing that was done; a pointer that only passes is nothing done', async () => {
  const done = watch(calm(700, 8000));
  await jest.advanceTimersByTimeAsync(600);
  window.dispatchEvent(new KeyboardEvent('keydown', { key: 'a' }));
  await jest.advanceTimersByTimeAsync(600);
  expect(done()).toBe(false);
  window.dispatchEvent(new MouseEvent('pointermove', { buttons: 0 }));
  await jest.advanceTimersByTimeAsync(150);
  expect(done()).toBe(true);
});

test('a drag is something done, and however busy the person is, the longest wait ends', async () => {
  const done = watch(calm(700, 3000));
  for (let ms = 0; ms < 2900; ms += 100) {
    window.dispatchEvent(new MouseEvent('pointermove', { buttons: 1 }));
    await jest.advanceTimersByTimeAsync(100);
  }
  expect(done()).toBe(false);
  await jest.advanceTimersByTimeAsync(200);
  expect(done()).toBe(true);
});

test('given up, it ends at once and leaves no timer behind', async () => {
  const stop = new AbortController();
  const done = watch(calm(700, 8000, stop.signal));
  await jest.advanceTimersByTimeAsync(10);
  stop.abort();
  await jest.advanceTimersByTimeAsync(0);
  expect(done()).toBe(true);
  expect(jest.getTimerCount()).toBe(0);
});
