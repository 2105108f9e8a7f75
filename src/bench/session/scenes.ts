import { boxIn } from '@/core/derive/box';
import { EMPTY_RECT, isEmpty, transformRect, union, type Rect } from '@/core/geometry/rect';
import type { Matrix } from '@/core/geometry/matrix';
import type { Design, Page } from '@/core/model/schema';
import { pageById, parentMatrix } from '@/core/model/tree';
import type { Scene } from '@/core/scene/scene';
import type { Engines } from '@/core/engines';

interface Made {
  readonly design: Design;
  readonly page: string;
  readonly epoch: number;
  readonly scene: Scene;
}
interface Boxed {
  readonly design: Design;
  readonly page: Page;
  readonly epoch: number;
  readonly box: Rect;
}

/** The scenes of the open page, what is shown and what is kept, and the boxes of what lies on it; each made once. */
export class Scenes {
  private shown: Made | null = null;
  private resting: Made | null = null;
  /** Many panels ask for the box of the same list. */
  private readonly boxes = new WeakMap<readonly string[], Boxed>();

  constructor(private readonly engines: Pick<Engines, 'builder' | 'fonts'>) {}

  /**
   * The scene of what is shown: `kept`, or a preview of it that changes only the nodes of `focus`, where that is said.
   */
  of(design: Design, kept: Design, page: string, focus: readonly string[] | null): Scene {
    const known = this.known(this.shown, design, page);
    if (known) return known;
    if (design === kept) return this.atRest(kept, page);
    // Paints are references: other swatches and inks change how a scene looks, not what is in it.
    const sameThings =
      design.nodes === kept.nodes &&
      design.stories === kept.stories &&
      design.pages === kept.pages &&
      design.masters === kept.masters &&
      design.setup === kept.setup;
    if (sameThings) return this.atRest(kept, page);
    const on = pageById(design, page) ?? design.pages[0];
    const patched = focus && this.engines.builder.patch(this.atRest(kept, page), design, on, focus);
    const scene = patched ?? this.engines.builder.build(design, on);
    this.shown = { design, page, epoch: this.engines.fonts.epoch, scene };
    return scene;
  }

  /** The scene of what is kept, whatever a gesture shows. */
  atRest(design: Design, page: string): Scene {
    const known = this.known(this.resting, design, page);
    if (known) return known;
    const scene = this.engines.builder.build(design, pageById(design, page) ?? design.pages[0]);
    this.resting = { design, page, epoch: this.engines.fonts.epoch, scene };
    return scene;
  }

  private known(m: Made | null, design: Design, page: string): Scene | null {
    return m && m.design === design && m.page === page && m.epoch === this.engines.fonts.epoch ? m.scene : null;
  }

  /** The upright box of nodes on a page, lines not counted; empty for none. */
  boxOf(design: Design, page: Page, ids: readonly string[]): Rect {
    const { epoch } = this.engines.fonts;
    const m = this.boxes.get(ids);
    if (m && m.design === design && m.page === page && m.epoch === epoch) return m.box;
    let box = EMPTY_RECT;
    for (const id of ids) {
      if (!design.nodes[id]) continue;
      const r = boxIn(design, id, parentMatrix(design, page, id), this.engines.fonts);
      if (!isEmpty(r)) box = union(box, r);
    }
    this.boxes.set(ids, { design, page, epoch, box });
    return box;
  }

  /** All of `ids` were shifted alike, and so is the box round them: a look at each is spared. */
  shifted(ids: readonly string[], from: Design, to: Design, page: Page, by: Matrix): void {
    const was = this.boxes.get(ids);
    if (was && was.design === from && was.page === page)
      this.boxes.set(ids, { ...was, design: to, box: transformRect(by, was.box) });
  }
}
