import { PictureSource, PixelRoom, type Pixels } from './source';

/**
 * Bytes of open pixels that are kept, over all pictures: one of twenty megapixels whole, or many as they are seen on a
 * screen.
 */
const ROOM = 64 * 1024 * 1024;

/** The pictures of a place (page, worker, shell), opened once and then used plainly. */
export class PictureBook {
  private readonly sources = new Map<string, PictureSource>();
  private readonly problems = new Map<string, string>();
  private readonly opening = new Map<string, Promise<void>>();
  /** Rises whenever a picture comes or goes. */
  epoch = 0;

  private readonly room = new PixelRoom(ROOM);

  /** `open` answers a picture's pixels and what opens them again, or rejects with a sentence. */
  constructor(private readonly open: (file: string) => Promise<{ readonly pixels: Pixels; again(): Pixels }>) {}

  /**
   * Opens what is not open yet and lets go of all others. A picture that cannot be had is remembered with its reason,
   * and tried again the next time.
   */
  async load(files: ReadonlySet<string>): Promise<void> {
    for (const file of [...this.sources.keys()]) if (!files.has(file)) this.forget(file);
    // Two at a time: the pixels of all together may be more than there is room for.
    const waiting = [...files].filter((file) => !this.sources.has(file));
    const lane = async () => {
      for (let file = waiting.shift(); file !== undefined; file = waiting.shift()) await this.opened(file);
    };
    await Promise.all([lane(), lane()]);
  }

  private opened(file: string): Promise<void> {
    let job = this.opening.get(file);
    if (!job) {
      job = this.open(file)
        .then(({ pixels, again }) => {
          this.sources.set(file, new PictureSource(pixels, again, this.room));
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
    this.sources.get(file)?.close();
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
