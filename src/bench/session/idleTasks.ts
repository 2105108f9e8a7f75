import type { PressClient } from '@/workers/pressClient';
import type { DesignStore } from '@/store/designs';
import type { BenchState } from './state';

const PAUSE_MS = 700;
const THUMBNAIL_PX = 320;

/** What follows a pause: total ink, checks, the thumbnail. */
export class IdleTasks {
  private waiting: ReturnType<typeof setTimeout> | null = null;

  constructor(
    private readonly press: Pick<PressClient, 'totalInk' | 'check' | 'thumbnail'>,
    private readonly designs: Pick<DesignStore, 'setThumbnail'>,
    private readonly state: () => BenchState,
    private readonly tell: (
      change: Pick<Partial<BenchState>, 'totalInk' | 'findings' | 'waived' | 'checked' | 'notChecked'>,
    ) => void,
  ) {}

  /** Does them once nothing has happened for a while. */
  later(): void {
    this.stop();
    this.waiting = setTimeout(() => void this.now(), PAUSE_MS);
  }

  stop(): void {
    if (this.waiting) clearTimeout(this.waiting);
  }

  private async now(): Promise<void> {
    const { design, page, readOnly } = this.state();
    const old = () => this.state().design !== design;
    try {
      const totalInk = await this.press.totalInk(page);
      if (old()) return;
      this.tell({ totalInk });
      const all = await this.press.check();
      if (old()) return;
      const meant = (f: (typeof all)[number]) => f.waived !== undefined;
      this.tell({
        findings: all.filter((f) => !meant(f)),
        waived: all.filter(meant),
        checked: design,
        notChecked: null,
      });
      if (!readOnly) await this.designs.setThumbnail(design.id, await this.press.thumbnail(THUMBNAIL_PX));
    } catch (e) {
      // The drawing goes on without the press; but nothing is said to be sound that was not looked at.
      if (!old())
        this.tell({ totalInk: null, findings: [], waived: [], notChecked: e instanceof Error ? e.message : String(e) });
    }
  }
}
