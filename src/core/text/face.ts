import type { Face as HbFace, Font as HbFont } from 'harfbuzzjs';
import { PathBuilder, type PathData } from '../geometry/path';

export type HarfBuzz = typeof import('harfbuzzjs');

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

/** A face from the bytes of a font file. Rejects where they are none; HarfBuzz is fetched at the first. */
export async function openFace(id: string, bytes: Uint8Array): Promise<Face> {
  return new Face(await import('harfbuzzjs'), id, bytes);
}

/** A face ready to shape and draw. Outlines and measures are in font units, outlines y down. */
export class Face {
  readonly upem: number;
  readonly ascender: number;
  readonly descender: number;
  /** As PostScript and PDF call it. */
  readonly psName: string;
  /** Tags of the OpenType features it has for letters and their places. */
  readonly features: ReadonlySet<string>;
  private readonly font: HbFont;
  private readonly face: HbFace;
  private readonly outlines = new Map<number, PathData>();
  private readonly shaped = new Map<string, readonly ShapedGlyph[]>();
  private readonly covered: ReadonlySet<number>;
  private readonly instances = new Map<string, Face>();
  /** What its maker does not allow of putting it into files, and who then stands there for its words. */
  embedding: 'whole' | { readonly outlines: Face } | null = null;

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
    this.psName = (face.getName(6, 'en') || id).replace(/[^A-Za-z0-9-]/g, '').slice(0, 63) || 'Face';
    this.features =
      whole?.features ?? new Set([...face.getTableFeatureTags('GSUB'), ...face.getTableFeatureTags('GPOS')]);
  }

  /** What it calls itself: the names for people (16, 17) before those that four styles have to share (1, 2). */
  get names(): { readonly family: string; readonly style: string } {
    const called = (...ids: number[]) => ids.map((n) => this.face.getName(n, 'en')).find(Boolean) ?? '';
    return { family: called(16, 1), style: called(17, 2) };
  }

  /** Code points that it has a letter for. */
  codes(): Iterable<number> {
    return this.covered;
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
      made.embedding = this.embedding;
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
