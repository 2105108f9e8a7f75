import type { Env } from '../env';
import { DEFAULT_FACE } from '../model/defaults';
import { loadBidi } from './bidi';
import type { OwnFace } from '../model/faceSchema';
import { openFace, type Face } from './face';
import { faceRow } from './faces';
import { faultOf } from './faultOf';
import { Hyphens, type Language } from './hyphens';
import { loadLineBreaks } from './lineBreaks';
import type { StandIn } from './standIns';

/** A face that letters are set in, and its share of the size that is asked for. */
export interface InFace {
  readonly face: Face;
  readonly share: number;
}

/**
 * The faces at hand. Loading is asynchronous and happens first; shaping and drawing are then plain calls. `epoch` grows
 * with each face that arrives, so that whatever was laid out without it can be laid out again.
 */
export class FontBook {
  epoch = 0;
  private readonly faces = new Map<string, Face>();
  private readonly pending = new Map<string, Promise<void>>();
  /** Faces that people brought, as designs tell of them: an id is made from the file, so all tell of the same. */
  private readonly brought = new Map<string, OwnFace>();
  private readonly standIns = new Map<string, StandIn>();
  /** Why a face could not be had, by id. */
  readonly failures = new Map<string, string>();
  /** Where words may be divided: like faces, had before words are laid out. */
  readonly hyphens = new Hyphens();

  constructor(private readonly env: Env) {}

  get(id: string): Face | undefined {
    return this.faces.get(id);
  }

  /** A face where on its axes it is asked for. */
  instance(id: string, axes: Readonly<Record<string, number>>): Face | undefined {
    const face = this.faces.get(id);
    for (const _ in axes) return face?.instance(axes);
    return face;
  }

  /** What is drawn where a face is asked for that is not at hand. */
  standIn(id: string): InFace | null {
    const { face: other, share } = this.standIns.get(id) ?? { face: DEFAULT_FACE, share: 1 };
    const face = this.faces.get(other) ?? this.faces.get(DEFAULT_FACE);
    return face ? { face, share: face.id === other ? share : 1 } : null;
  }

  /**
   * Loads what is not there yet, and always the substitute; `brought` tells of faces that do not ship. Never rejects:
   * failures are kept by id.
   */
  async load(ids: Iterable<string>, brought: Iterable<OwnFace> = []): Promise<void> {
    for (const f of brought) this.brought.set(f.id, f);
    await Promise.all([...new Set([DEFAULT_FACE, ...ids])].map((id) => this.loadOne(id)));
  }

  /** Loads the patterns by which words of languages are divided. */
  async loadHyphens(languages: Iterable<Language>): Promise<void> {
    if (await this.hyphens.load(languages)) this.epoch++;
  }

  /** Loads what tells which words run from right to left. */
  async loadDirections(): Promise<void> {
    if (await loadBidi()) this.epoch++;
  }

  private loadOne(id: string): Promise<void> {
    if (this.faces.has(id) || this.failures.has(id)) return Promise.resolve();
    const running = this.pending.get(id);
    if (running) return running;
    const job = this.fetchFace(id).finally(() => this.pending.delete(id));
    this.pending.set(id, job);
    return job;
  }

  private async fetchFace(id: string): Promise<void> {
    const own = this.brought.get(id);
    try {
      if (!own && !faceRow(id)) throw new Error(`The face ${id} is not in this design and does not ship.`);
      // Fetched at the first face, not at import: the engine starts by loading its wasm, which a server page cannot.
      const [bytes] = await Promise.all([
        this.env.asset(own ? `faces/${own.file}` : `fonts/${id}.ttf`),
        loadLineBreaks(),
      ]);
      const face = await openFace(id, bytes);
      // A file from elsewhere brings its faces past the door at which those that are added are tried out.
      const fault = own ? faultOf(face) : null;
      if (fault) throw new Error(fault);
      if (own?.embedding === 'whole') face.embedding = 'whole';
      else if (own?.embedding === 'outlines') {
        await this.loadOne(DEFAULT_FACE);
        const outlines = this.faces.get(DEFAULT_FACE);
        if (outlines) face.embedding = { outlines };
      }
      this.faces.set(id, face);
      this.epoch++;
    } catch (e) {
      this.failures.set(id, e instanceof Error ? e.message : String(e));
      if (!faceRow(id)) await this.loadStandIn(id, own);
    }
  }

  /** Who stands in for a face that cannot be had; what is compared for that is fetched when it is first needed. */
  private async loadStandIn(id: string, known: OwnFace | undefined): Promise<void> {
    // Where even that cannot be fetched the usual one stands in.
    const row = await import('./standIns').then((m) => m.standInFor(id, known)).catch(() => null);
    if (!row) return;
    this.standIns.set(id, row);
    await this.loadOne(row.face);
    this.epoch++;
  }

  /** Forgets that faces could not be had, so that they are tried again; all where none are named. */
  retry(ids: Iterable<string> = [...this.failures.keys()]): void {
    for (const id of ids) this.failures.delete(id);
  }
}
