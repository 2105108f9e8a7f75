/** How long work reports. It is stopped from outside: whoever works elsewhere ends its worker. */
export interface Job {
  step(done: number, total: number, doing: string): void;
}
export const QUIET: Job = { step: () => {} };
