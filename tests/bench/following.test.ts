import { createStore } from 'zustand/vanilla';
import { Following } from '@/bench/session/following';
import type { BenchState } from '@/bench/session/state';

function set(up: { tasks?: (() => void)[] } = {}) {
  const tasks = (up.tasks ??= []);
  const source = createStore(() => ({ tool: 'select', selection: ['a'] }) as unknown as BenchState);
  const following = new Following(source, (run) => void tasks.push(run));
  return { source, following, tasks };
}

test('panels show a change one paint later, several changes at once', () => {
  const { source, following, tasks } = set();
  let drawn = 0;
  following.store.subscribe(() => drawn++);
  source.setState({ selection: ['b'] });
  source.setState({ tool: 'nodes' });
  expect(following.store.getState().selection).toEqual(['a']);
  expect(tasks).toHaveLength(1);
  tasks.shift()!();
  expect(following.store.getState()).toBe(source.getState());
  expect(drawn).toBe(1);
  source.setState({ tool: 'select' });
  expect(tasks).toHaveLength(1);
});

test('they catch up at once where they are asked to, and do nothing when the paint comes', () => {
  const { source, following, tasks } = set();
  const draws: string[] = [];
  following.draw = (change) => {
    draws.push('begun');
    change();
    draws.push('done');
  };
  source.setState({ selection: [] });
  following.catchUp();
  expect(following.store.getState().selection).toEqual([]);
  tasks.shift()!();
  following.catchUp();
  expect(draws).toEqual(['begun', 'done']);
});

test('what showing a gesture cost is remembered, what else was shown is not', () => {
  const { source, following } = set();
  const wait = (ms: number) => {
    const until = performance.now() + ms;
    while (performance.now() < until);
  };
  following.draw = (change) => {
    change();
    wait(4);
  };
  source.setState({ calm: {} as BenchState['calm'] });
  following.catchUp();
  const { cost } = following;
  expect(cost).toBeGreaterThanOrEqual(4);
  source.setState({ tool: 'nodes' });
  following.catchUp();
  expect(following.cost).toBe(cost);
});

test('what a gesture tries out is drawn by panels when it is calm, begun or over, and not from move to move', () => {
  const { source, following, tasks } = set();
  const tried = (n: number) => ({ name: `try ${n}` }) as unknown as NonNullable<BenchState['preview']>;
  const paint = () => tasks.splice(0).forEach((run) => run());
  source.setState({ preview: tried(1) });
  expect(tasks).toHaveLength(1);
  paint();
  source.setState({ preview: tried(2) });
  source.setState({ preview: tried(3) });
  expect(tasks).toHaveLength(0);
  source.setState({ calm: source.getState().preview });
  paint();
  expect(following.store.getState()).toBe(source.getState());
  // Something else with it, and its end, are told at once.
  source.setState({ preview: tried(4), selection: ['b'] });
  paint();
  expect(following.store.getState().selection).toEqual(['b']);
  source.setState({ preview: null, calm: null });
  paint();
  expect(following.store.getState()).toBe(source.getState());
});
