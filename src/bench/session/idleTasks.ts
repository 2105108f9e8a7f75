import { calm } from '@/env/calm';
import type { PressClient } from '@/workers/pressClient';
import type { DesignStore } from '@/store/designs';
import type { BenchState } from './state';

/** So long nothing is done before they begin, and a shorter while before each that follows; but they do come. */
const PAUSE_MS = 700;
const BETWEEN_MS = 150;
const LATEST_MS = 8000;
const THUMBNAIL_PX = 320;

/** What follows a pause: total ink, checks, the thumbnail. While the person goes on working they wait. */
export class IdleTasks {
  /** What was asked for last; what an earlier time began is given up. */
  private asked = new AbortController();

  constructor(
    private readonly press: Pick<PressClient, 'totalInk' | 'check' | 'thumbnail'>,
    private readonly designs: Pick<DesignStore, 'setThumbnail'>,
    private readonly state: () => BenchState,
    private readonly tell: (
      change: Pick<Partial<BenchState>, 'totalInk' | 'findings' | 'waived' | 'checked' | 'notChecked'>,
    ) => void,
    private readonly wait: typeof calm = calm,
  ) {}

  /** Does them once nothing has happened for a while. */
  later(): void {
    this.stop();
    this.asked = new AbortController();
    void this.from(this.asked.signal);
  }

  stop(): void {
    this.asked.abort();
  }

  private async from(given: AbortSignal): Promise<void> {
    await this.wait(PAUSE_MS, LATEST_MS, given);
    if (given.aborted) return;
    const { design, page, readOnly } = this.state();
    const old = () => given.aborted || this.state().design !== design;
    try {
      const totalInk = await this.press.totalInk(page);
      if (old()) return;
      this.tell({ totalInk });
      await this.wait(BETWEEN_MS, LATEST_MS, given);
      if (old()) return;
      const all = await this.press.check();
      if (old()) return;
      const meant = (f: (typeof all)[number]) => f.waived !== undefined;
      this.tell({
        findings: all.filter((f) => !meant(f)),
        waived: all.filter(meant),
        checked: design,
        notChecked: null,
      });
      if (readOnly) return;
      await this.wait(BETWEEN_MS, LATEST_MS, given);
      if (old()) return;
      await this.designs.setThumbnail(design.id, await this.press.thumbnail(THUMBNAIL_PX));
    } catch (e) {
      // The drawing goes on without the press; but nothing is said to be sound that was not looked at.
      if (!old())
        this.tell({ totalInk: null, findings: [], waived: [], notChecked: e instanceof Error ? e.message : String(e) });
    }
  }
}
