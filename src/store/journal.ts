import type { HistoryEntry } from '@/core/edit/history';
import type { Design } from '@/core/model/schema';
import type { AsideRow } from './database';
import { GapError, type DesignStore } from './designs';
import type { WholeDesign } from './replay';

/** Whether all that was done is kept; if not, why, since when, and how many steps wait. */
export type Keeping =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'waiting'; readonly why: string; readonly since: number; readonly steps: number };

type Step =
  | { readonly kind: 'whole'; readonly aside: AsideRow }
  | { readonly kind: 'step'; readonly design: Design; readonly entry: HistoryEntry; readonly seq: number }
  | { readonly kind: 'cursor'; readonly design: Design; readonly cursor: number };

/** Times between tries, in ms; the last one again and again. */
const PAUSES = [400, 1000, 2500, 5000, 10_000];
/** A store that says nothing for so long is asked again: every write may be done twice. */
const ANSWER_MS = 20_000;

/** Why something could not be kept, in words that go on after a colon. */
function whyNotKept(e: unknown): string {
  const { name, message, inner } = Object(e) as { name?: string; message?: string; inner?: { name?: string } };
  if (name === 'QuotaExceededError' || inner?.name === 'QuotaExceededError') return 'the browser’s storage is full';
  if (name === 'DatabaseClosedError' || name === 'InvalidStateError') return 'the browser closed its storage';
  return message || String(e);
}

/**
 * The steps of one open design on their way to the store: in order, one at a time, each tried again until it is kept.
 * Nothing is said to be saved before all of them are.
 */
export class Journal {
  private readonly waiting: Step[] = [];
  private running: Promise<void> | null = null;
  private pause: ReturnType<typeof setTimeout> | null = null;
  private failures = 0;
  private since = 0;
  private why: string | null = null;
  private stopped = false;

  /** `whole`: all of the design as it is now, for a store that lacks what came before. */
  constructor(
    private readonly store: Pick<DesignStore, 'append' | 'moveCursor' | 'keepWhole' | 'keepAside'>,
    private readonly whole: () => WholeDesign,
    private readonly told: (k: Keeping) => void,
    private readonly now: () => number = Date.now,
  ) {}

  /** A step as number `seq`; it takes the place of what had that number and of all after it. */
  step(design: Design, entry: HistoryEntry, seq: number): void {
    const last = this.waiting.at(-1);
    // What waits and has not been begun is simply replaced.
    if (last?.kind === 'step' && last.seq === seq && (this.waiting.length > 1 || !this.running)) this.waiting.pop();
    this.add({ kind: 'step', design, entry, seq });
  }

  /** After undo and redo: the steps before this number are in force. */
  cursor(design: Design, cursor: number): void {
    const last = this.waiting.at(-1);
    if (last?.kind === 'cursor' && (this.waiting.length > 1 || !this.running)) this.waiting.pop();
    this.add({ kind: 'cursor', design, cursor });
  }

  /** What was opened is not what lies in the store: that is put aside first, then this takes its place. */
  rewrite(aside: AsideRow): void {
    this.add({ kind: 'whole', aside });
  }

  /** How many steps are not kept yet. */
  get open(): number {
    return this.waiting.length;
  }

  /** Resolves when all that was done so far is kept, or could not be at the last try. */
  async settled(): Promise<void> {
    while (this.running) await this.running;
  }

  /** Tries at once what waits. */
  retry(): void {
    if (this.pause) clearTimeout(this.pause);
    this.pause = null;
    if (!this.running && this.waiting.length && !this.stopped) {
      this.running = this.run().finally(() => {
        this.running = null;
        this.tell();
      });
    }
  }

  /** Writes no more: another tab has the design now. What waits stays said. */
  stop(why: string): void {
    this.stopped = true;
    if (this.pause) clearTimeout(this.pause);
    if (!this.waiting.length) return;
    this.why = why;
    this.tell();
  }

  dispose(): void {
    this.stopped = true;
    if (this.pause) clearTimeout(this.pause);
  }

  private add(step: Step): void {
    if (!this.waiting.length) this.since = this.now();
    this.waiting.push(step);
    this.retry();
    this.tell();
  }

  private tell(): void {
    if (!this.waiting.length) this.told({ kind: 'saved' });
    else if (this.why === null) this.told({ kind: 'saving' });
    else this.told({ kind: 'waiting', why: this.why, since: this.since, steps: this.waiting.length });
  }

  private async run(): Promise<void> {
    while (this.waiting.length && !this.stopped) {
      const step = this.waiting[0];
      try {
        await inTime(this.write(step));
      } catch (e) {
        this.why = whyNotKept(e);
        this.pause = setTimeout(() => this.retry(), PAUSES[Math.min(this.failures++, PAUSES.length - 1)]);
        return;
      }
      // What was written as a whole took all that waited with it.
      if (this.waiting[0] === step) this.waiting.shift();
      this.failures = 0;
      if (!this.waiting.length) this.why = null;
      else if (this.why !== null) this.tell();
    }
  }

  private async write(step: Step): Promise<void> {
    if (step.kind === 'whole') {
      await this.store.keepAside(step.aside);
      await this.writeWhole();
      return;
    }
    try {
      if (step.kind === 'step') await this.store.append(step.design, step.entry, step.seq);
      else await this.store.moveCursor(step.design, step.cursor);
    } catch (e) {
      if (!(e instanceof GapError)) throw e;
      await this.writeWhole();
    }
  }

  /** All of it at once: what waits by now is in it. */
  private async writeWhole(): Promise<void> {
    const count = this.waiting.length;
    await this.store.keepWhole(this.whole());
    this.waiting.splice(0, count);
  }
}

async function inTime(job: Promise<void>): Promise<void> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error('the browser’s storage does not answer')), ANSWER_MS);
  });
  try {
    await Promise.race([job, late]);
  } finally {
    clearTimeout(timer);
  }
}
