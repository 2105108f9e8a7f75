import type { Face as HbFace, Font as HbFont } from 'harfbuzzjs';
import type { Env } from '../env';
import { PathBuilder, type PathData } from '../geometry/path';
import { DEFAULT_FACE } from '../model/defaults';
import { loadBidi } from './bidi';
import { faceRow } from './faces';
import { Hyphens, type Language } from './hyphens';
import { loadLineBreaks } from './lineBreaks';

type HarfBuzz = typeof import('harfbuzzjs');

/** What has no shape of its own: marks of direction, joiners, soft hyphens, breaks. */
const UNSEEN = /[\p{Cf}\p{Cc}\u2028\u2029\ufe00-\ufe0f]/u;

/** What a face says of letters above or below the line, where that can be: some say nothing, or nonsense. */
const raised = (size: number, rise: number, usual: number): RaisedLetters =>
  size > 0.3 && size < 1 && Math.abs(rise) < 1 ? { size, rise } : { size: 0.62, rise: usual };

/** One glyph as shaped. Font units; `cluster` is the UTF-16 offset of the text it stands for. */
export interface ShapedGlyph {
  readonly gid: number;
  readonly cluster: number;
  readonly advance: number;
  readonly dx: number;
  readonly dy: number;
  /** Cut before it, the text would have to be shaped anew: the letters round it lean on each other. */
  readonly bound: boolean;
}

/** What is said of a text before it is shaped. */
export interface Shaping {
  readonly rightToLeft: boolean;
  /** ISO 15924; null: of the first letter that has one. */
  readonly script: string | null;
  /** BCP 47. */
  readonly language: string;
  /** OpenType features, by tag. */
  readonly features: Readonly<Record<string, number>>;
}

/** A line beside letters: where its middle lies above the baseline, and its width; shares of the size. */
export interface LetterLine {
  readonly at: number;
  readonly width: number;
}
/** How letters above or below the line are set: shares of the size, up is positive. */
interface RaisedLetters {
  readonly size: number;
  readonly rise: number;
}

/** An axis of a variable face, in its own units. */
export interface Axis {
  readonly tag: string;
  readonly name: string;
  readonly min: number;
  readonly default: number;
  readonly max: number;
}

/** A face ready to shape and draw. Outlines and measures are in font units, outlines y down. */
export class Face {
  readonly upem: number;
  readonly ascender: number;
  readonly descender: number;
  readonly psName: string;
  readonly familyName: string;
  /** Tags of the OpenType features it has for letters and their places. */
  readonly features: ReadonlySet<string>;
  private readonly font: HbFont;
  private readonly face: HbFace;
  private readonly outlines = new Map<number, PathData>();
  private readonly shaped = new Map<string, readonly ShapedGlyph[]>();
  private readonly covered: ReadonlySet<number>;
  private readonly instances = new Map<string, Face>();

  /** `axes`: an instance of a variable face, by tag. */
  constructor(
    private readonly hb: HarfBuzz,
    readonly id: string,
    readonly bytes: Uint8Array,
    readonly at: Readonly<Record<string, number>> = {},
    whole?: Face,
  ) {
    const face = whole?.face ?? new hb.Face(new hb.Blob(bytes));
    this.face = face;
    this.upem = face.upem;
    this.covered = whole?.covered ?? new Set(face.collectUnicodes());
    if (!(this.upem > 0) || this.covered.size === 0) throw new Error(`${id} is not a font that can be used`);
    this.font = new hb.Font(face);
    if (whole) this.font.setVariations(Object.entries(at).map(([tag, value]) => new hb.Variation(tag, value)));
    const extents = this.font.hExtents();
    this.ascender = extents.ascender;
    this.descender = extents.descender;
    this.psName = (face.getName(6, 'en') || id).replace(/[^A-Za-z0-9-]/g, '');
    this.familyName = face.getName(1, 'en') || id;
    this.features =
      whole?.features ?? new Set([...face.getTableFeatureTags('GSUB'), ...face.getTableFeatureTags('GPOS')]);
  }

  /** Has it all letters of a text? What is not seen (marks of direction, line feeds) needs no letter. */
  coversAll(text: string): boolean {
    for (const char of text) {
      const code = char.codePointAt(0)!;
      if (!this.covered.has(code) && !UNSEEN.test(char)) return false;
    }
    return true;
  }

  /** The same face elsewhere on its axes; values are kept within them. A face without axes is itself. */
  instance(at: Readonly<Record<string, number>>): Face {
    const own = this.axes.flatMap(({ tag, min, max, default: d }): [string, number][] => {
      const value = Math.min(max, Math.max(min, at[tag] ?? d));
      return value === d ? [] : [[tag, value]];
    });
    if (!own.length) return this;
    const key = own.map(([tag, v]) => `${tag}${v}`).join(' ');
    let made = this.instances.get(key);
    if (!made) {
      made = new Face(this.hb, `${this.id} ${key}`, this.bytes, Object.fromEntries(own), this);
      this.instances.set(key, made);
    }
    return made;
  }

  /** The axes of a variable face; none for another. */
  get axes(): readonly Axis[] {
    return (this.knownAxes ??= Object.values(this.face.getAxisInfos()).map((a) => ({
      tag: a.tag,
      name: this.face.getName(a.nameId, 'en') || a.tag,
      min: a.min,
      default: a.default,
      max: a.max,
    })));
  }
  private knownAxes: readonly Axis[] | null = null;

  private metric(tag: number): number {
    return this.font.getMetricPositionWithFallback(tag) / this.upem;
  }
  /** Heights of capitals and of small letters, as shares of the size (OS/2). */
  get capHeight(): number {
    return this.metric(this.hb.MetricsTag.CAP_HEIGHT);
  }
  get xHeight(): number {
    return this.metric(this.hb.MetricsTag.X_HEIGHT);
  }
  /** As the face says (post, OS/2). */
  get underline(): LetterLine {
    const { UNDERLINE_OFFSET, UNDERLINE_SIZE } = this.hb.MetricsTag;
    const width = this.metric(UNDERLINE_SIZE);
    return { at: this.metric(UNDERLINE_OFFSET) - width / 2, width };
  }
  get strike(): LetterLine {
    const { STRIKEOUT_OFFSET, STRIKEOUT_SIZE } = this.hb.MetricsTag;
    const width = this.metric(STRIKEOUT_SIZE);
    return { at: this.metric(STRIKEOUT_OFFSET) - width / 2, width };
  }
  get superscript(): RaisedLetters {
    const m = this.hb.MetricsTag;
    return raised(this.metric(m.SUPERSCRIPT_EM_Y_SIZE), this.metric(m.SUPERSCRIPT_EM_Y_OFFSET), 0.35);
  }
  get subscript(): RaisedLetters {
    const m = this.hb.MetricsTag;
    return raised(this.metric(m.SUBSCRIPT_EM_Y_SIZE), -this.metric(m.SUBSCRIPT_EM_Y_OFFSET), -0.15);
  }

  /** Kerning, ligatures and marks by HarfBuzz; `how` is null for plain Latin. Long texts are not remembered. */
  shape(text: string, how: Shaping | null = null): readonly ShapedGlyph[] {
    const key = how ? `${text}\0${JSON.stringify(how)}` : text;
    const known = this.shaped.get(key);
    if (known) return known;
    const { hb } = this;
    const buffer = new hb.Buffer();
    buffer.addText(text);
    if (how) {
      buffer.setDirection(how.rightToLeft ? hb.Direction.RTL : hb.Direction.LTR);
      if (how.script) buffer.setScript(how.script);
      buffer.setLanguage(how.language);
    }
    buffer.guessSegmentProperties();
    hb.shape(this.font, buffer, how ? Object.entries(how.features).map(([tag, v]) => new hb.Feature(tag, v)) : []);
    const glyphs = buffer.getGlyphInfosAndPositions().map((g) => ({
      gid: g.codepoint,
      cluster: g.cluster,
      advance: g.xAdvance ?? 0,
      dx: g.xOffset ?? 0,
      dy: g.yOffset ?? 0,
      bound: (g.flags & hb.GlyphFlag.UNSAFE_TO_BREAK) !== 0,
    }));
    if (text.length <= 200) {
      if (this.shaped.size > 2000) this.shaped.clear();
      this.shaped.set(key, glyphs);
    }
    return glyphs;
  }

  advance(gid: number): number {
    return this.font.glyphHAdvance(gid);
  }

  outline(gid: number): PathData {
    const known = this.outlines.get(gid);
    if (known) return known;
    const out = new PathBuilder();
    let [px, py] = [0, 0];
    for (const { type, values: v } of this.font.glyphToJson(gid)) {
      if (type === 'M') out.moveTo(v[0], -v[1]);
      else if (type === 'L') out.lineTo(v[0], -v[1]);
      else if (type === 'C') out.curveTo(v[0], -v[1], v[2], -v[3], v[4], -v[5]);
      else if (type === 'Q') {
        const [cx, cy, x, y] = [v[0], -v[1], v[2], -v[3]];
        // A quadratic as a cubic: handles at two thirds towards its one control point.
        out.curveTo(
          px + (2 / 3) * (cx - px),
          py + (2 / 3) * (cy - py),
          x + (2 / 3) * (cx - x),
          y + (2 / 3) * (cy - y),
          x,
          y,
        );
      } else if (type === 'Z') out.close();
      if (v.length >= 2) [px, py] = [v[v.length - 2], -v[v.length - 1]];
    }
    this.outlines.set(gid, out.data);
    return out.data;
  }
}

/**
 * The faces at hand. Loading is asynchronous and happens first; shaping and drawing are then plain calls. `epoch` grows
 * with each face that arrives, so that whatever was laid out without it can be laid out again.
 */
export class FontBook {
  epoch = 0;
  private readonly faces = new Map<string, Face>();
  private readonly pending = new Map<string, Promise<void>>();
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

  /** Loads what is not there yet, and always the substitute. Never rejects: failures are kept by id. */
  async load(ids: Iterable<string>): Promise<void> {
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
    try {
      if (!faceRow(id)) throw new Error(`The face ${id} is not in this design and does not ship.`);
      // Fetched at the first face, not at import: the engine starts by loading its wasm, which a server page cannot.
      const [hb, bytes] = await Promise.all([
        import('harfbuzzjs'),
        this.env.asset(`fonts/${id}.ttf`),
        loadLineBreaks(),
      ]);
      this.faces.set(id, new Face(hb, id, bytes));
      this.epoch++;
    } catch (e) {
      this.failures.set(id, e instanceof Error ? e.message : String(e));
    }
  }

  /** Forgets failures so that loading can be tried again. */
  retry(): void {
    this.failures.clear();
  }
}
