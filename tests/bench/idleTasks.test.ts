import { IdleTasks } from '@/bench/session/idleTasks';
import type { BenchState } from '@/bench/session/state';
import { demoDesigns } from '@/demo/demos';

/** Idle tasks whose pauses end when the test says so, and what they did. */
function watched() {
  const did: string[] = [];
  const waiting: (() => void)[] = [];
  let state = { design: demoDesigns()[0].design, page: 'p', readOnly: false } as BenchState;
  const idle = new IdleTasks(
    {
      totalInk: async () => (did.push('ink'), null),
      check: async () => (did.push('check'), []),
      thumbnail: async () => (did.push('thumbnail'), new Uint8Array()),
    },
    { setThumbnail: async () => void did.push('kept') },
    () => state,
    (told) => did.push(`told ${Object.keys(told).join()}`),
    () => new Promise((resolve) => waiting.push(resolve)),
  );
  return {
    idle,
    did,
    /** The person rests: all that waits goes on, as far as it comes. */
    rest: async () => {
      waiting.splice(0).forEach((go) => go());
      await new Promise((r) => setTimeout(r, 0));
    },
    change: (part: Partial<BenchState>) => (state = { ...state, ...part }),
  };
}
const TOLD = 'told findings,waived,checked,notChecked';

test('ink, checks and the thumbnail follow each other, each after a pause of its own', async () => {
  const w = watched();
  w.idle.later();
  expect(w.did).toEqual([]);
  await w.rest();
  expect(w.did).toEqual(['ink', 'told totalInk']);
  await w.rest();
  expect(w.did.slice(2)).toEqual(['check', TOLD]);
  await w.rest();
  expect(w.did.slice(4)).toEqual(['thumbnail', 'kept']);
});

test('asked for again they begin anew, and what was under way is given up: nothing is told of an older state', async () => {
  const w = watched();
  w.idle.later();
  await w.rest();
  w.change({ design: { ...demoDesigns()[0].design } });
  w.idle.later();
  await w.rest();
  expect(w.did).toEqual(['ink', 'told totalInk', 'ink', 'told totalInk']);
  await w.rest();
  expect(w.did.slice(4)).toEqual(['check', TOLD]);
});

test('stopped they do nothing more; who only looks keeps no thumbnail', async () => {
  const w = watched();
  w.change({ readOnly: true });
  w.idle.later();
  for (let i = 0; i < 4; i++) await w.rest();
  expect(w.did).toEqual(['ink', 'told totalInk', 'check', TOLD]);
  w.idle.later();
  w.idle.stop();
  await w.rest();
  expect(w.did).toHaveLength(4);
});
