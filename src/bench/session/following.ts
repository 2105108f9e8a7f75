import { createStore, type StoreApi } from 'zustand/vanilla';
import type { BenchState } from './state';

/** A frame that is never painted (a hidden tab) is waited for no longer than this. */
const LONGEST_MS = 250;

/** What waits for the frame under way to be painted: a task queued in a frame runs when that frame has been painted. */
const painted: (() => void)[] = [];
let channel: MessageChannel | null = null;

function tellPainted(): void {
  if (!channel) {
    channel = new MessageChannel();
    channel.port1.onmessage = () => painted.splice(0).forEach((run) => run());
  }
  channel.port2.postMessage(null);
}

/** After what has just changed has been painted. */
function afterNextPaint(run: () => void): void {
  if (typeof requestAnimationFrame === 'undefined') {
    setTimeout(run, 0);
    return;
  }
  let done = false;
  const once = () => {
    if (done) return;
    done = true;
    clearTimeout(latest);
    run();
  };
  const latest = setTimeout(once, LONGEST_MS);
  requestAnimationFrame(() => {
    painted.push(once);
    tellPainted();
  });
}

/**
 * Is no more than what a gesture tries out another? Panels show that later, when it is calm: until then there is
 * nothing to draw.
 */
function onlyTried(now: BenchState, before: BenchState): boolean {
  if (!now.preview || !before.preview) return false;
  for (const key in now)
    if (key !== 'preview' && now[key as keyof BenchState] !== before[key as keyof BenchState]) return false;
  return true;
}

/** A state as the panels show it: one paint later, so that the sheet itself answers first. */
export class Following {
  readonly store: StoreApi<BenchState>;
  /** How long the panels took, in ms, when they last showed what a gesture had come to. */
  cost = 0;
  private behind = false;

  constructor(
    private readonly source: StoreApi<BenchState>,
    private readonly later: (run: () => void) => void = afterNextPaint,
  ) {
    this.store = createStore<BenchState>(() => source.getState());
    source.subscribe((now, before) => {
      if (this.behind || onlyTried(now, before)) return;
      this.behind = true;
      this.later(() => this.catchUp());
    });
  }

  /** Set by what shows the store: runs a change and draws what hangs on it before it comes back. */
  draw: (change: () => void) => void = (change) => change();

  /** Shows the state of now, at once. */
  catchUp(): void {
    if (!this.behind) return;
    this.behind = false;
    const [now, before] = [this.source.getState(), this.store.getState()];
    const start = performance.now();
    this.draw(() => this.store.setState(now, true));
    if (now.calm !== before.calm) this.cost = performance.now() - start;
  }
}
