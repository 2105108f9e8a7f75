import * as Comlink from 'comlink';

/** The worker took longer than its call may, and was ended. */
export class WorkerLate extends Error {}
/** The worker was ended for another call's sake, or by the person: the call may be made again. */
export class WorkerGone extends Error {}

/**
 * One worker at a time and the calls to it. Every call ends: with its answer, its error, or when its time is up; then
 * the worker is ended, whoever else waited hears of it, and the next call begins a new one.
 */
export class WorkerHost<Api> {
  private worker: Worker | null = null;
  private api: Comlink.Remote<Api> | null = null;
  private gone: Promise<never> | null = null;
  private fail: (why: Error) => void = () => {};
  private disposed = false;

  private idle: ReturnType<typeof setTimeout> | undefined;

  /**
   * `began` is told of each worker before its first call. A worker that remembers nothing may be ended when nobody has
   * called it for `idleMs`: so all that it took of the machine is given back.
   */
  constructor(
    private readonly start: () => Worker,
    private readonly began: (api: Comlink.Remote<Api>) => void = () => {},
    private readonly idleMs: number | null = null,
  ) {}

  get alive(): boolean {
    return this.worker !== null;
  }

  /** The calls under way, oldest first: what starts the clock of each. A worker does one thing at a time. */
  private readonly clocks = new Set<() => void>();

  /**
   * Makes a call that may take so many ms; what it waits for those before it does not count. Rejects with WorkerLate,
   * WorkerGone, or what the call itself threw.
   */
  async call<T>(ms: number, make: (api: Comlink.Remote<Api>) => Promise<T>): Promise<T> {
    if (this.disposed) throw new WorkerGone('It was ended.');
    clearTimeout(this.idle);
    const api = this.begin();
    const { worker, gone } = this;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let clock = () => {};
    const late = new Promise<never>((_, reject) => {
      clock = () => {
        timer = setTimeout(() => {
          // First this call's own end: ending the worker ends all others.
          reject(new WorkerLate(`It took longer than ${Math.round(ms / 1000)} s.`));
          if (this.worker === worker)
            this.end(new WorkerGone('It was begun anew because of another file. Try it again.'));
        }, ms);
      };
    });
    this.clocks.add(clock);
    if (this.clocks.size === 1) clock();
    try {
      return await Promise.race([make(api), late, gone!]);
    } finally {
      clearTimeout(timer);
      const oldest = this.clocks.values().next().value === clock;
      this.clocks.delete(clock);
      if (oldest) this.clocks.values().next().value?.();
      if (this.idleMs !== null && !this.clocks.size) this.idle = setTimeout(() => this.end(), this.idleMs);
    }
  }

  /** Ends the worker; whoever waits for it hears why. The next call begins another. */
  end(why: Error = new WorkerGone('It was stopped.')): void {
    clearTimeout(this.idle);
    const { fail } = this;
    this.worker?.terminate();
    this.worker = null;
    this.api = null;
    fail(why);
  }

  dispose(): void {
    this.disposed = true;
    this.end();
  }

  private begin(): Comlink.Remote<Api> {
    if (this.api) return this.api;
    const worker = this.start();
    this.worker = worker;
    this.gone = new Promise((_, reject) => {
      this.fail = reject;
      worker.addEventListener('error', (e) => {
        reject(new Error(e.message || 'A worker could not start.'));
        if (this.worker === worker) this.end();
      });
    });
    this.gone.catch(() => {});
    this.api = Comlink.wrap<Api>(worker);
    this.began(this.api);
    return this.api;
  }
}
