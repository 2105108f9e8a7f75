/** How long work reports and how it is stopped. */
export interface Job {
  /** Throws `Cancelled` when the person has had enough. */
  step(done: number, total: number, doing: string): void;
}
export class Cancelled extends Error {
  constructor() {
    super('Stopped.');
  }
}
export const QUIET: Job = { step: () => {} };
