import { jest } from '@jest/globals';
import { openPicture } from '@/bench/commands/pictures';
import { newDesign, setupOf } from '@/core/model/defaults';
import { making } from '../support/sample';
import { openBench } from '../support/bench';

const seen = async (wait: () => boolean) => {
  for (let i = 0; i < 200 && !wait(); i++) await new Promise((r) => setTimeout(r, 10));
  expect(wait()).toBe(true);
};

test('a file that takes long is said in the strip, and can be stopped there', async () => {
  const { session } = await openBench(newDesign('Pier', setupOf(200, 200), making));
  let stopped: (() => void) | null = null;
  const slow = new Promise<{ ok: false; message: string }>(
    (resolve) => (stopped = () => resolve({ ok: false, message: 'opening it was stopped' })),
  );
  const worker = session.pictureWorker as unknown as Record<string, unknown>;
  const kept = { ...worker };
  Object.assign(worker, { read: () => slow, stop: jest.fn(() => stopped!()) });
  try {
    const opened = openPicture(session, 'Pier.png', new Uint8Array([1]));
    expect(session.state.message?.text ?? '').not.toMatch(/^Opening/);
    await seen(() => session.state.message?.text === 'Opening Pier.png …');
    session.state.message!.actions!.find((a) => a.label === 'Stop')!.run();
    expect(await opened).toBeNull();
    expect(session.state.message).toMatchObject({
      tone: 'warn',
      text: 'Pier.png cannot be placed: opening it was stopped.',
    });
  } finally {
    Object.assign(worker, kept);
    delete worker.stop;
  }
});
