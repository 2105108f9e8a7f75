import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Aim } from '@/core/edit/aims';
import { record, redoEntry, undoEntry, type HistoryEntry, type Recipe } from '@/core/edit/history';
import { recordMoved } from '@/core/edit/moved';
import type { Palette } from '@/core/colour/palette';
import { type Rect } from '@/core/geometry/rect';
import { printedOf } from '@/core/model/printed';
import { faultText } from '@/core/model/faultText';
import type { Design, Page, Setup } from '@/core/model/schema';
import { verifyChange } from '@/core/model/verify';
import { setupOn } from '@/core/model/setupOn';
import { pageById } from '@/core/model/tree';
import { isTranslation, type Matrix, type Point } from '@/core/geometry/matrix';
import type { Scene } from '@/core/scene/scene';
import { dividedIn, facesOf, PaletteKeeper, runsBothWays, type Engines } from '@/core/engines';
import { KEPT_STEPS, type DesignStore, type LoadedDesign } from '@/store/designs';
import type { WholeDesign } from '@/store/replay';
import { Journal } from '@/store/journal';
import type { PictureClient } from '@/workers/pictureClient';
import type { PressClient } from '@/workers/pressClient';
import { Following } from './following';
import { freshState } from './freshState';
import { IdleTasks } from './idleTasks';
import { afterPaint } from './afterPaint';
import { Preview } from './preview';
import { aimAt, enter, goOn, isolate, leave, select, showPage, type Guarded } from './reducers';
import { Scenes } from './scenes';
import { PictureLooks } from './pictureLooks';
import { roughPicture } from './roughPicture';
import { shownDesign, type Again, type BenchState, type Message, type MessageAction } from './state';

/** What makes coloured areas follow their lines. */
const byLines = afterPaint(() => import('@/core/edit/regions'));

export interface CommitOptions {
  readonly select?: readonly string[];
  /**
   * Steps with the same key that follow each other at once become one. Their recipe must say the whole new state, not a
   * change on top of the last step.
   */
  readonly merge?: string;
}

const MERGE_WITHIN_MS = 1000;
/** The open design: the only writer. Runs recipes, keeps history, saves, and tells the press worker. */
export class Session {
  readonly store: StoreApi<BenchState>;
  /** The same for the panels, one paint later. */
  readonly following: Following;
  readonly palettes: PaletteKeeper;
  /** How pictures look, for drawing that cannot wait. */
  readonly pictures: PictureLooks;
  private readonly scenes: Scenes;
  private readonly trial = new Preview(
    () => this.set({ calm: this.state.preview }),
    () => this.following.cost,
  );
  private readonly idle: IdleTasks;
  /** The way of the steps into the store. */
  readonly journal: Journal;
  /** Number of the first of the entries among all steps that were ever done. */
  private base: number;
  private lastMerge: { key: string; at: number } | null = null;

  constructor(
    loaded: LoadedDesign,
    readonly engines: Engines,
    readonly designs: DesignStore,
    readonly press: PressClient,
    readonly pictureWorker: PictureClient,
    readOnly: boolean,
  ) {
    this.palettes = new PaletteKeeper(engines);
    this.scenes = new Scenes(engines);
    this.idle = new IdleTasks(
      press,
      designs,
      () => this.state,
      (change) => this.set(change),
    );
    this.pictures = new PictureLooks(
      (r) => pictureWorker.look(r),
      () => this.design,
      () => this.set({ picturesEpoch: this.state.picturesEpoch + 1 }),
      (file, size, pixels) => roughPicture(engines.env, file, size, pixels),
    );
    this.store = createStore<BenchState>(() => freshState(loaded, readOnly, engines.fonts.epoch));
    this.following = new Following(this.store);
    this.base = loaded.base;
    this.journal = new Journal(
      designs,
      () => this.whole(),
      (save) => this.set({ save }),
    );
    if (loaded.aside && !readOnly) this.journal.rewrite(loaded.aside);
    void press.open(loaded.design).then(
      () => this.idle.later(),
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
  /** Changes what nothing else hangs on; the rest goes by the reducers below. */
  set(change: Omit<Partial<BenchState>, Guarded>): void {
    this.store.setState(change);
  }
  select(ids: readonly string[], also: Omit<Partial<BenchState>, Guarded> = {}): void {
    this.store.setState({ ...select(this.state, ids), ...also });
  }
  /** Goes into what holds other objects. */
  enter(holder: string, selection: readonly string[] = this.state.selection): void {
    this.store.setState(enter(this.state, holder, selection));
  }
  /** Comes out of it, as far as `to`; with nothing said, all the way. */
  leave(to: string | null = null): void {
    this.store.setState(leave(this.state, to));
  }
  isolate(on: boolean): void {
    this.store.setState(isolate(on));
  }
  aimAt(aim: Aim, stop: number | null = null): void {
    this.store.setState(aimAt(aim, stop));
  }
  get design(): Design {
    return shownDesign(this.state);
  }
  /** The same as the view shows it: what is for proof only is seen while one works, and nowhere else. */
  get looked(): Design {
    return this.state.view === 'work' ? this.design : printedOf(this.design);
  }
  get page(): Page {
    const { page } = this.state;
    return pageById(this.design, page) ?? this.design.pages[0];
  }
  /** The set-up of the page at work: its format, margins, columns, baseline grid. */
  get setup(): Setup {
    return setupOn(this.design, this.page);
  }
  get palette(): Palette {
    return this.palettes.get(this.design);
  }

  /**
   * What a gesture shows otherwise than it is kept, where that is no more than some objects; null for anything more.
   */
  get moving(): readonly string[] | null {
    return this.state.preview ? this.trial.focus : null;
  }

  /** The scene of what is shown. */
  scene(): Scene {
    const { looked } = this;
    if (looked !== this.design)
      return this.engines.builder.build(looked, pageById(looked, this.page.id) ?? looked.pages[0]);
    return this.scenes.of(this.design, this.state.design, this.page.id, this.trial.focus);
  }
  /** The scene of what is kept, whatever a gesture shows. */
  restingScene(design: Design): Scene {
    return this.scenes.atRest(design, this.state.page);
  }
  /** The upright box of nodes on the page, lines not counted; empty for none. */
  boxOf(ids: readonly string[]): Rect {
    return this.scenes.boxOf(this.design, this.page, ids);
  }

  /** Where the pointer is over the bench top; null while it is elsewhere. */
  pointer: { readonly page: Point; readonly screen: Point } | null = null;

  newId = (): string => this.engines.env.newId();

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

  /** Shows what a recipe would do (see Preview); null ends the showing. */
  preview(recipe: Recipe | null, only?: readonly string[]): void {
    if (recipe === null) {
      if (this.state.preview) this.set({ preview: null, calm: null });
      return;
    }
    if (this.state.readOnly) return;
    this.set({ preview: this.trial.of(this.state.design, recipe, only) });
  }

  /** Makes a change that can be taken back. Answers whether anything changed. */
  commit(label: string, recipe: Recipe, options: CommitOptions = {}): boolean {
    const { state } = this;
    if (this.onlyLooking()) return false;
    const now = this.engines.env.now();
    let lost = 0;
    const dated: Recipe = (d) => {
      recipe(d);
      lost = byLines.now?.anyRegions(state.design) ? byLines.now.settleRegions(d, state.design, this.engines.fonts) : 0;
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
      this.set({ preview: null, calm: null });
      if (options.select) this.select(options.select);
      return false;
    }
    const taken = this.take(result, options, merging ? base : null);
    if (taken && lost)
      queueMicrotask(() =>
        this.say(
          `${lost === 1 ? 'One coloured area' : `${lost} coloured areas`} could not be kept: no lines enclose it now.`,
          'warn',
        ),
      );
    return taken;
  }

  /**
   * Moves, turns or flips objects by a map of the page, as `commit` with `transformNodes` does, however many they are.
   */
  commitMoved(label: string, ids: readonly string[], map: Matrix): boolean {
    if (this.onlyLooking()) return false;
    const { page } = this;
    const { design } = this.state;
    // Coloured areas follow their lines.
    if (byLines.now?.anyRegions(design)) return this.commit(label, byLines.now.movedBy(page, ids, map));
    const result = recordMoved(design, label, page, ids, map, this.engines.env.now());
    this.set({ preview: null, calm: null });
    if (!result) return false;
    if (isTranslation(map) && result.placed.length === ids.length)
      this.scenes.shifted(ids, design, result.design, page, map);
    return this.take(result, {}, null);
  }

  private onlyLooking(): boolean {
    if (!this.state.readOnly) return false;
    this.set({ preview: null, calm: null });
    this.say('This design is open in another tab; here it can only be looked at.', 'warn');
    return true;
  }

  /**
   * Takes a step in: into history, store and press. `base`: the design before the last step, where this one takes its
   * place.
   */
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
    this.store.setState({
      design: result.design,
      preview: null,
      calm: null,
      entries,
      cursor: entries.length,
      ...goOn(state, result.design, options.select),
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

  /** The design as it was after so many of the steps that are kept. */
  designAt(cursor: number): Design {
    const { entries, cursor: now } = this.state;
    let { design } = this.state;
    for (let i = now; i > cursor; i--) design = undoEntry(design, entries[i - 1]);
    for (let i = now; i < cursor; i++) design = redoEntry(design, entries[i]);
    return design;
  }

  private travel(design: Design, cursor: number, patches: HistoryEntry['patches']): void {
    this.lastMerge = null;
    this.store.setState({ design, preview: null, calm: null, cursor, ...goOn(this.state, design) });
    this.press.patch(patches, design);
    this.journal.cursor(design, this.base + cursor);
    this.afterChange(design);
  }

  private afterChange(design: Design): void {
    const missing = [...facesOf(design)].filter(
      (f) => !this.engines.fonts.get(f) && !this.engines.fonts.failures.has(f),
    );
    if (missing.length) void this.loadFaces(missing);
    void this.loadForWords(design);
    this.idle.later();
  }

  /** What words ask for beside their faces: where they may be divided, which way they run. */
  private async loadForWords(design: Design): Promise<void> {
    const { fonts } = this.engines;
    const before = fonts.epoch;
    const divided = dividedIn(design);
    if (divided.size) await fonts.loadHyphens(divided);
    if (runsBothWays(design)) await fonts.loadDirections();
    if (fonts.epoch !== before) this.set({ fontsEpoch: fonts.epoch });
  }

  async loadFaces(ids: readonly string[]): Promise<void> {
    await this.engines.fonts.load(ids, [...(this.state.design.faces ?? []), ...this.state.ownFaces]);
    this.set({ fontsEpoch: this.engines.fonts.epoch });
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

  /** Looks for faults once more. */
  checkAgain(): void {
    this.set({ notChecked: '' });
    this.idle.later();
  }

  goToPage(page: string): void {
    this.store.setState(showPage(this.state, page));
    this.idle.later();
  }

  dispose(): void {
    this.idle.stop();
    this.trial.dispose();
    this.journal.dispose();
    this.pictures.dispose();
    this.press.dispose();
    this.pictureWorker.dispose();
  }
}
