import { createStore, type StoreApi } from 'zustand/vanilla';
import { boxIn } from '@/core/derive/box';
import { record, redoEntry, tryOut, tryOutOn, undoEntry, type HistoryEntry, type Recipe } from '@/core/edit/history';
import { recordMoved } from '@/core/edit/moved';
import type { Palette } from '@/core/colour/palette';
import { EMPTY_RECT, isEmpty, transformRect, union, type Rect } from '@/core/geometry/rect';
import { faultText } from '@/core/model/faultText';
import type { Design, Page } from '@/core/model/schema';
import { verifyChange } from '@/core/model/verify';
import { pageById, parentMatrix, withDescendants } from '@/core/model/tree';
import { isTranslation, type Matrix, type Point } from '@/core/geometry/matrix';
import type { Scene } from '@/core/scene/scene';
import { facesOf, PaletteKeeper, type Workshop } from '@/core/workshop';
import { KEPT_STEPS, type DesignStore, type LoadedDesign, type WholeDesign } from '@/store/designs';
import { Journal } from '@/store/journal';
import type { PictureClient } from '@/workers/pictureClient';
import type { PressClient } from '@/workers/pressClient';
import { freshState } from './freshState';
import { PictureLooks } from './pictureLooks';
import { roughPicture } from './roughPicture';
import { shownDesign, type Again, type BenchState, type Message, type MessageAction } from './state';

export interface CommitOptions {
  readonly select?: readonly string[];
  /**
   * Steps with the same key that follow each other at once become one. Their recipe must say the whole new state, not a
   * change on top of the last step.
   */
  readonly merge?: string;
}

const MERGE_WITHIN_MS = 1000;
/** Panels wait at least this long while something moves, and take no more than a thirtieth of the time; but they do come. */
const CALM = { least: 80, most: 400, share: 1 / 30 };
/** The open design: the only writer. Runs recipes, keeps history, saves, and tells the press worker. */
export class Session {
  readonly store: StoreApi<BenchState>;
  readonly palettes: PaletteKeeper;
  /** How pictures look, for drawing that cannot wait. */
  readonly pictures: PictureLooks;
  private sceneMemo: { design: Design; page: string; epoch: number; scene: Scene } | null = null;
  private restingMemo: { design: Design; page: string; epoch: number; scene: Scene } | null = null;
  /** The way of the steps into the store. */
  readonly journal: Journal;
  /** Number of the first of the entries among all steps that were ever done. */
  private base: number;
  private lastMerge: { key: string; at: number } | null = null;
  private chores: ReturnType<typeof setTimeout> | null = null;

  constructor(
    loaded: LoadedDesign,
    readonly shop: Workshop,
    readonly designs: DesignStore,
    readonly press: PressClient,
    readonly pictureWorker: PictureClient,
    readOnly: boolean,
  ) {
    this.palettes = new PaletteKeeper(shop);
    this.pictures = new PictureLooks(
      (r) => pictureWorker.look(r),
      () => this.design,
      () => this.set({ picturesEpoch: this.state.picturesEpoch + 1 }),
      (file, size) => roughPicture(shop.env, file, size),
    );
    this.store = createStore<BenchState>(() => freshState(loaded, readOnly, shop.fonts.epoch));
    this.base = loaded.base;
    this.journal = new Journal(
      designs,
      () => this.whole(),
      (save) => this.set({ save }),
    );
    if (loaded.aside && !readOnly) this.journal.rewrite(loaded.aside);
    void press.open(loaded.design).then(
      () => this.scheduleChores(),
      (e: unknown) =>
        this.say(
          `The plates cannot be made: ${e instanceof Error ? e.message : String(e)} Reload the page to try again.`,
          'stop',
        ),
    );
  }

  get state(): BenchState {
    return this.store.getState();
  }
  set(change: Partial<BenchState>): void {
    // A pivot belongs to what was chosen when it was put there.
    const moved =
      change.selection &&
      change.pivot === undefined &&
      this.state.pivot &&
      (change.selection.length !== this.state.selection.length ||
        change.selection.some((id, i) => id !== this.state.selection[i]));
    const other =
      change.selection &&
      !change.nodes &&
      this.state.nodes.length > 0 &&
      change.selection.some((id, i) => id !== this.state.selection[i]);
    const left = change.entered === null && this.state.isolated && change.isolated === undefined;
    this.store.setState(
      moved || left || other
        ? { ...change, ...(moved && { pivot: null }), ...(left && { isolated: false }), ...(other && { nodes: [] }) }
        : change,
    );
  }
  get design(): Design {
    return shownDesign(this.state);
  }
  get page(): Page {
    const { page } = this.state;
    return pageById(this.design, page) ?? this.design.pages[0];
  }
  get palette(): Palette {
    return this.palettes.get(this.design);
  }

  scene(): Scene {
    const { design, page } = this;
    const { epoch } = this.shop.fonts;
    const m = this.sceneMemo;
    if (m && m.design === design && m.page === page.id && m.epoch === epoch) return m.scene;
    if (design === this.state.design) return this.restingScene(design);
    const kept = this.state.design;
    // Paints are references: other swatches and inks change how a scene looks, not what is in it.
    if (
      design.nodes === kept.nodes &&
      design.stories === kept.stories &&
      design.pages === kept.pages &&
      design.setup === kept.setup
    )
      return this.restingScene(kept);
    const patched =
      this.focus && this.shop.builder.patch(this.restingScene(this.state.design), design, page, this.focus);
    const scene = patched ?? this.shop.builder.build(design, page);
    this.sceneMemo = { design, page: page.id, epoch, scene };
    return scene;
  }

  /** The scene of what is kept, whatever a gesture shows. */
  restingScene(design: Design): Scene {
    const page = pageById(design, this.state.page) ?? design.pages[0];
    const { epoch } = this.shop.fonts;
    const m = this.restingMemo;
    if (m && m.design === design && m.page === page.id && m.epoch === epoch) return m.scene;
    const scene = this.shop.builder.build(design, page);
    this.restingMemo = { design, page: page.id, epoch, scene };
    return scene;
  }

  /** The upright box of nodes on the page, lines not counted; empty for none. */
  boxOf(ids: readonly string[]): Rect {
    const { design, page } = this;
    const { epoch } = this.shop.fonts;
    const m = this.boxMemo.get(ids);
    if (m && m.design === design && m.page === page && m.epoch === epoch) return m.box;
    let box = EMPTY_RECT;
    for (const id of ids) {
      if (!design.nodes[id]) continue;
      const r = boxIn(design, id, parentMatrix(design, page, id), this.shop.fonts);
      if (!isEmpty(r)) box = union(box, r);
    }
    this.boxMemo.set(ids, { design, page, epoch, box });
    return box;
  }
  /** Many panels ask for the box of the same list. */
  private readonly boxMemo = new WeakMap<
    readonly string[],
    { readonly design: Design; readonly page: Page; readonly epoch: number; readonly box: Rect }
  >();

  /** Where the pointer is over the bench top; null while it is elsewhere. */
  pointer: { readonly page: Point; readonly screen: Point } | null = null;

  newId = (): string => this.shop.env.newId();

  say(text: string, tone: Message['tone'] = 'plain', action?: MessageAction | readonly MessageAction[]): void {
    const actions = action === undefined ? undefined : 'run' in action ? [action] : action;
    this.set({ message: { text, tone, ...(actions ? { actions } : {}) } });
  }

  // ——— changing

  /** The last change of place, for doing it again. */
  again: Again | null = null;
  noteAgain(again: Again): void {
    this.again = again;
  }

  /** The nodes that the shown preview changes, where it changes nothing else. */
  private focus: readonly string[] | null = null;

  /**
   * Shows what a recipe would do; null ends the showing. A recipe that changes only some nodes says which: showing it
   * then costs what those cost, however many lie beside them.
   */
  preview(recipe: Recipe | null, only?: readonly string[]): void {
    if (recipe === null) {
      if (this.state.preview) this.set({ preview: null, calm: null });
      return;
    }
    if (this.state.readOnly) return;
    const { design } = this.state;
    this.focus = only ? only.flatMap((id) => withDescendants(design, id)) : null;
    this.set({ preview: this.focus ? tryOutOn(design, this.focus, recipe) : tryOut(design, recipe) });
    this.calming ??= setTimeout(() => {
      this.calming = null;
      const start = performance.now();
      this.set({ calm: this.state.preview });
      // Panels are drawn in a microtask queued by what is above.
      queueMicrotask(() => {
        this.calmMs = Math.min(CALM.most, Math.max(CALM.least, (performance.now() - start) / CALM.share));
      });
    }, this.calmMs);
  }
  private calming: ReturnType<typeof setTimeout> | null = null;
  private calmMs = CALM.least;

  /** Makes a change that can be taken back. Answers whether anything changed. */
  commit(label: string, recipe: Recipe, options: CommitOptions = {}): boolean {
    const { state } = this;
    if (this.onlyLooking()) return false;
    const now = this.shop.env.now();
    const dated: Recipe = (d) => {
      recipe(d);
      d.modified = now;
    };
    const merging =
      options.merge !== undefined &&
      this.lastMerge?.key === options.merge &&
      performance.now() - this.lastMerge.at < MERGE_WITHIN_MS &&
      state.cursor === state.entries.length &&
      state.cursor > 0;
    const last = state.entries[state.cursor - 1];
    const base = merging ? undoEntry(state.design, last) : state.design;
    const result = record(base, label, dated);
    if (!result || result.entry.patches.every((p) => p.path.length === 1 && p.path[0] === 'modified')) {
      this.set({ preview: null, calm: null, ...(options.select ? { selection: options.select } : {}) });
      return false;
    }
    return this.take(result, options, merging ? base : null);
  }

  /** Moves, turns or flips objects by a map of the page, as `commit` with `transformNodes` does, however many they are. */
  commitMoved(label: string, ids: readonly string[], map: Matrix): boolean {
    if (this.onlyLooking()) return false;
    const { page } = this;
    const { design } = this.state;
    const result = recordMoved(design, label, page, ids, map, this.shop.env.now());
    this.set({ preview: null, calm: null });
    if (!result) return false;
    const was = this.boxMemo.get(ids);
    // All of them were shifted alike, and so is the box round them: a look at each is spared.
    if (was && was.design === design && was.page === page && isTranslation(map) && result.placed.length === ids.length)
      this.boxMemo.set(ids, { ...was, design: result.design, box: transformRect(map, was.box) });
    return this.take(result, {}, null);
  }

  private onlyLooking(): boolean {
    if (!this.state.readOnly) return false;
    this.set({ preview: null, calm: null });
    this.say('This design is open in another tab; here it can only be looked at.', 'warn');
    return true;
  }

  /** Takes a step in: into history, store and press. `base`: the design before the last step, where this one takes its place. */
  private take(
    result: { readonly design: Design; readonly entry: HistoryEntry; readonly placed?: readonly string[] },
    options: CommitOptions,
    base: Design | null,
  ): boolean {
    const { state } = this;
    const last = state.entries[state.cursor - 1];
    // What the door would refuse when the design is opened again is never let in.
    const fault = verifyChange(state.design, result.design, result.placed);
    if (fault) {
      this.set({ preview: null, calm: null });
      this.say(`${faultText(fault, result.design)} Nothing was changed.`, 'warn');
      return false;
    }
    this.lastMerge = options.merge === undefined ? null : { key: options.merge, at: performance.now() };
    const kept = base ? state.entries.slice(0, state.cursor - 1) : state.entries.slice(0, state.cursor);
    const seq = this.base + kept.length;
    const entries = [...kept, result.entry].slice(-KEPT_STEPS);
    this.base = seq + 1 - entries.length;
    this.set({
      design: result.design,
      preview: null,
      calm: null,
      entries,
      cursor: entries.length,
      ...this.stillThere(result.design, options.select),
    });
    if (base) this.press.patch(last.inverse, base);
    this.press.patch(result.entry.packed?.patches ?? result.entry.patches, result.design);
    this.journal.step(result.design, result.entry, seq);
    this.afterChange(result.design);
    return true;
  }

  undo(): void {
    const { cursor, entries, design, readOnly } = this.state;
    if (cursor === 0 || readOnly) return;
    const entry = entries[cursor - 1];
    this.travel(undoEntry(design, entry), cursor - 1, entry.inverse);
    this.say(`Took back: ${entry.label}.`);
  }

  redo(): void {
    const { cursor, entries, design, readOnly } = this.state;
    if (cursor >= entries.length || readOnly) return;
    const entry = entries[cursor];
    this.travel(redoEntry(design, entry), cursor + 1, entry.patches);
    this.say(`Did again: ${entry.label}.`);
  }

  /** Takes steps back, or does them again, until so many are in force. */
  goTo(cursor: number): void {
    const { entries, readOnly } = this.state;
    if (readOnly || cursor < 0 || cursor > entries.length || cursor === this.state.cursor) return;
    while (this.state.cursor > cursor) this.undo();
    while (this.state.cursor < cursor) this.redo();
    this.say(
      cursor
        ? `The design is as it was after: ${entries[cursor - 1].label}.`
        : 'The design is as it was before the first step that is kept.',
    );
  }

  private travel(design: Design, cursor: number, patches: HistoryEntry['patches']): void {
    this.lastMerge = null;
    this.set({ design, preview: null, calm: null, cursor, ...this.stillThere(design) });
    this.press.patch(patches, design);
    this.journal.cursor(design, this.base + cursor);
    this.afterChange(design);
  }

  /** What of page, selection and writing still exists in a design. */
  private stillThere(design: Design, select?: readonly string[]): Partial<BenchState> {
    const { page, selection, editing, entered } = this.state;
    const change: { -readonly [K in keyof BenchState]?: BenchState[K] } = {};
    const { nodes, pen } = this.state;
    if (nodes.some((n) => !design.nodes[n.object])) change.nodes = nodes.filter((n) => design.nodes[n.object]);
    if (pen && !design.nodes[pen.object]) change.pen = null;
    if (!design.pages.some((p) => p.id === page)) change.page = design.pages[0].id;
    const wanted = select ?? selection;
    const alive = wanted.filter((id) => design.nodes[id]);
    if (select || alive.length !== selection.length) change.selection = alive;
    if (editing && !design.nodes[editing.node]) change.editing = null;
    if (entered && !design.nodes[entered]) change.entered = null;
    if (this.state.crop && !design.nodes[this.state.crop.node]) change.crop = null;
    return change;
  }

  private afterChange(design: Design): void {
    const missing = [...facesOf(design)].filter((f) => !this.shop.fonts.get(f) && !this.shop.fonts.failures.has(f));
    if (missing.length) void this.loadFaces(missing);
    this.scheduleChores();
  }

  async loadFaces(ids: readonly string[]): Promise<void> {
    await this.shop.fonts.load(ids);
    this.set({ fontsEpoch: this.shop.fonts.epoch });
  }

  // ——— keeping

  /** The design as it is, with its steps and what it was before them. */
  private whole(): WholeDesign {
    const { design, entries, cursor } = this.state;
    const start = entries.slice(0, cursor).reduceRight((d, e) => undoEntry(d, e), design);
    return { design, start, base: this.base, entries, cursor };
  }

  /** Resolves when all that was done so far is kept, or could not be. */
  settled(): Promise<void> {
    return this.journal.settled();
  }

  /** Another tab works on the design now. */
  becomeReadOnly(): void {
    this.journal.stop('another tab works on this design now');
    this.set({ readOnly: true, preview: null, calm: null, editing: null });
  }

  /** Things that follow a pause: total ink, checks, the thumbnail. */
  private scheduleChores(): void {
    if (this.chores) clearTimeout(this.chores);
    this.chores = setTimeout(() => void this.doChores(), 700);
  }

  private async doChores(): Promise<void> {
    const { design, page, readOnly } = this.state;
    try {
      const totalInk = await this.press.totalInk(page);
      if (this.state.design !== design) return;
      this.set({ totalInk });
      const findings = await this.press.check();
      if (this.state.design !== design) return;
      this.set({ findings, notChecked: null });
      if (!readOnly) await this.designs.setThumbnail(design.id, await this.press.thumbnail(320));
    } catch (e) {
      // The drawing goes on without the press; but nothing is said to be sound that was not looked at.
      if (this.state.design === design)
        this.set({ totalInk: null, findings: [], notChecked: e instanceof Error ? e.message : String(e) });
    }
  }

  /** Looks for faults once more. */
  checkAgain(): void {
    this.set({ notChecked: '' });
    this.scheduleChores();
  }

  goToPage(page: string): void {
    this.set({ page, selection: [], editing: null, entered: null, stop: null });
    this.scheduleChores();
  }

  dispose(): void {
    if (this.chores) clearTimeout(this.chores);
    if (this.calming) clearTimeout(this.calming);
    this.journal.dispose();
    this.pictures.dispose();
    this.press.dispose();
    this.pictureWorker.dispose();
  }
}
