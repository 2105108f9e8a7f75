import type { Font as HbFont } from 'harfbuzzjs';
import type { Env } from '../env';
import { PathBuilder, type PathData } from '../geometry/path';
import { DEFAULT_FACE } from '../model/defaults';
import { FACES } from './faces';

type HarfBuzz = typeof import('harfbuzzjs');

/** One glyph as shaped. Font units; `cluster` is the UTF-16 offset of the text it stands for. */
export interface ShapedGlyph {
  readonly gid: number;
  readonly cluster: number;
  readonly advance: number;
  readonly dx: number;
  readonly dy: number;
}

/** A face ready to shape and draw. Outlines and measures are in font units, outlines y down. */
export class Face {
  readonly upem: number;
  readonly ascender: number;
  readonly descender: number;
  readonly psName: string;
  readonly familyName: string;
  private readonly font: HbFont;
  private readonly outlines = new Map<number, PathData>();
  private readonly shaped = new Map<string, readonly ShapedGlyph[]>();

  constructor(
    private readonly hb: HarfBuzz,
    readonly id: string,
    readonly bytes: Uint8Array,
  ) {
    const face = new hb.Face(new hb.Blob(bytes));
    this.upem = face.upem;
    if (!(this.upem > 0) || face.collectUnicodes().length === 0)
      throw new Error(`${id} is not a font that can be used`);
    this.font = new hb.Font(face);
    const extents = this.font.hExtents();
    this.ascender = extents.ascender;
    this.descender = extents.descender;
    this.psName = (face.getName(6, 'en') || id).replace(/[^A-Za-z0-9-]/g, '');
    this.familyName = face.getName(1, 'en') || id;
  }

  /** Kerning, ligatures and marks by HarfBuzz. Long texts are not remembered. */
  shape(text: string): readonly ShapedGlyph[] {
    const known = this.shaped.get(text);
    if (known) return known;
    const buffer = new this.hb.Buffer();
    buffer.addText(text);
    buffer.guessSegmentProperties();
    this.hb.shape(this.font, buffer);
    const glyphs = buffer.getGlyphInfosAndPositions().map((g) => ({
      gid: g.codepoint,
      cluster: g.cluster,
      advance: g.xAdvance ?? 0,
      dx: g.xOffset ?? 0,
      dy: g.yOffset ?? 0,
    }));
    if (text.length <= 200) {
      if (this.shaped.size > 2000) this.shaped.clear();
      this.shaped.set(text, glyphs);
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

  constructor(private readonly env: Env) {}

  get(id: string): Face | undefined {
    return this.faces.get(id);
  }

  /** Loads what is not there yet, and always the substitute. Never rejects: failures are kept by id. */
  async load(ids: Iterable<string>): Promise<void> {
    await Promise.all([...new Set([DEFAULT_FACE, ...ids])].map((id) => this.loadOne(id)));
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
      if (!FACES.some((f) => f.id === id)) throw new Error(`The face ${id} is not in this design and does not ship.`);
      // Fetched at the first face, not at import: the engine starts by loading its wasm, which a server page cannot.
      const [hb, bytes] = await Promise.all([import('harfbuzzjs'), this.env.asset(`fonts/${id}.ttf`)]);
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
