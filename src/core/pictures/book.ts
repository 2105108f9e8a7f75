import { PictureSource, type Pixels } from './source';

/** The pictures of a place (page, worker, shell), opened once and then used plainly. */
export class PictureBook {
  private readonly sources = new Map<string, PictureSource>();
  private readonly problems = new Map<string, string>();
  private readonly opening = new Map<string, Promise<void>>();
  /** Rises whenever a picture comes or goes. */
  epoch = 0;

  /** `open` answers a picture's pixels or rejects with a sentence. */
  constructor(private readonly open: (file: string) => Promise<Pixels>) {}

  /** Opens what is not open yet and lets go of all others. A picture that cannot be had is remembered with its reason, and tried again the next time. */
  async load(files: ReadonlySet<string>): Promise<void> {
    for (const file of [...this.sources.keys()]) if (!files.has(file)) this.forget(file);
    await Promise.all([...files].map((file) => (this.sources.has(file) ? undefined : this.opened(file))));
  }

  private opened(file: string): Promise<void> {
    let job = this.opening.get(file);
    if (!job) {
      job = this.open(file)
        .then((pixels) => {
          this.sources.set(file, new PictureSource(pixels));
          this.problems.delete(file);
          this.epoch++;
        })
        .catch((e: unknown) => {
          const reason = e instanceof Error ? e.message : String(e);
          if (this.problems.get(file) !== reason) this.epoch++;
          this.problems.set(file, reason);
        })
        .finally(() => this.opening.delete(file));
      this.opening.set(file, job);
    }
    return job;
  }

  private forget(file: string): void {
    this.sources.delete(file);
    this.epoch++;
  }

  get(file: string): PictureSource | null {
    return this.sources.get(file) ?? null;
  }

  /** Why a picture is not there. */
  problem(file: string): string | null {
    return this.problems.get(file) ?? null;
  }
}
