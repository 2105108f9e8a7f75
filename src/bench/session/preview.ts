import { tryOut, tryOutOn, type Recipe } from '@/core/edit/history';
import type { Design } from '@/core/model/schema';
import { withDescendants } from '@/core/model/tree';

/**
 * Panels wait at least this long while something moves, and take no more than a sixtieth of the time; but they do come.
 */
const CALM = { least: 100, most: 400, share: 1 / 60 };

/** What a recipe would do, shown and not kept. The sheet follows at once, the panels at their leisure. */
export class Preview {
  /** The nodes that the shown preview changes, where it changes nothing else. */
  focus: readonly string[] | null = null;
  private calming: ReturnType<typeof setTimeout> | null = null;

  /** `calm` shows the panels what is shown by then; `cost` is how long they took to be drawn the last time, in ms. */
  constructor(
    private readonly calm: () => void,
    private readonly cost: () => number,
  ) {}

  /**
   * The design as a recipe would make it. A recipe that changes only some nodes says which: showing it then costs what
   * those cost, however many lie beside them.
   */
  of(design: Design, recipe: Recipe, only?: readonly string[]): Design {
    this.focus = only ? only.flatMap((id) => withDescendants(design, id)) : null;
    this.calming ??= setTimeout(
      () => {
        this.calming = null;
        this.calm();
      },
      Math.min(CALM.most, Math.max(CALM.least, this.cost() / CALM.share)),
    );
    return this.focus ? tryOutOn(design, this.focus, recipe) : tryOut(design, recipe);
  }

  dispose(): void {
    if (this.calming) clearTimeout(this.calming);
  }
}
