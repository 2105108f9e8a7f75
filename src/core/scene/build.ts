import { layoutMatrix, layoutOf, type TextNode } from '../edit/box';
import { meanScale, multiply, type Matrix } from '../geometry/matrix';
import { pathBounds, rectPath, transformPath, type FillRule, type PathData } from '../geometry/path';
import { grow, rect } from '../geometry/rect';
import type { StrokeStyle } from '../geometry/stroke';
import type { Design, DesignNode, Outline, Page, Paint, Story } from '../model/schema';
import { pageMatrix } from '../model/tree';
import { shapePath } from '../shapes/catalogue';
import type { FontBook } from '../text/fonts';
import type { PlacedRun } from '../text/layout';
import type { GlyphsItem, Item, Scene } from './scene';

interface Entry {
  readonly parent: Matrix;
  readonly story: Story | undefined;
  readonly epoch: number;
  readonly items: readonly Item[];
  readonly missing: readonly string[];
  readonly overset: number;
}

/**
 * Makes scenes. Geometry is remembered by node, story and the faces at hand: nodes never change in place, so an edit
 * costs what it touched. Paints are not looked into here.
 */
export class SceneBuilder {
  private readonly entries = new WeakMap<DesignNode, Entry>();
  private readonly groups = new WeakMap<DesignNode, { parent: Matrix; matrix: Matrix }>();

  constructor(private readonly fonts: FontBook) {}

  build(design: Design, page: Page): Scene {
    const items: Item[] = [];
    const missing = new Set<string>();
    const overset: { node: string; characters: number }[] = [];
    const visit = (id: string, parent: Matrix) => {
      const node = design.nodes[id];
      if (node.hidden) return;
      if (node.kind === 'group') {
        const matrix = this.groupMatrix(node, parent);
        for (const child of node.children) visit(child, matrix);
        return;
      }
      const entry = this.entry(design, node, parent);
      for (const item of entry.items) items.push(item);
      for (const face of entry.missing) missing.add(face);
      if (entry.overset) overset.push({ node: id, characters: entry.overset });
    };
    for (const id of page.children) visit(id, PAGE);
    const { width, height, bleed, round } = design.setup;
    return { width, height, bleed, round, items, missingFaces: [...missing], overset };
  }

  /**
   * The scene of a design in which only `changed` nodes differ from the one that `base` was built from, by putting their
   * items in place. Null where that is not enough (an object came or went, a text flows anew): then build it whole.
   */
  patch(base: Scene, design: Design, page: Page, changed: readonly string[]): Scene | null {
    const ranges = this.rangesOf(base);
    const items = base.items.slice();
    for (const id of changed) {
      const node = design.nodes[id];
      if (node.kind === 'group') continue;
      const range = ranges.get(id);
      if (!range || 'story' in node || node.hidden) return null;
      const fresh = this.make(design, node, pageMatrix(design, page, id)).items;
      if (fresh.length !== range.count) return null;
      for (let i = 0; i < fresh.length; i++) items[range.start + i] = fresh[i];
    }
    return { ...base, items };
  }

  private readonly ranges = new WeakMap<Scene, Map<string, { start: number; count: number }>>();
  /** Where each node's items stand in a scene; they always stand together. */
  private rangesOf(scene: Scene): Map<string, { start: number; count: number }> {
    let ranges = this.ranges.get(scene);
    if (ranges) return ranges;
    ranges = new Map();
    for (const [i, item] of scene.items.entries()) {
      const known = ranges.get(item.node);
      if (known) known.count++;
      else ranges.set(item.node, { start: i, count: 1 });
    }
    this.ranges.set(scene, ranges);
    return ranges;
  }

  private groupMatrix(node: DesignNode, parent: Matrix): Matrix {
    const known = this.groups.get(node);
    if (known && known.parent === parent) return known.matrix;
    const matrix = multiply(parent, node.transform);
    this.groups.set(node, { parent, matrix });
    return matrix;
  }

  private entry(design: Design, node: Exclude<DesignNode, { kind: 'group' }>, parent: Matrix): Entry {
    const story = 'story' in node ? design.stories[node.story] : undefined;
    const epoch = story ? this.fonts.epoch : 0;
    const known = this.entries.get(node);
    if (known && known.parent === parent && known.story === story && known.epoch === epoch) return known;
    const entry = { parent, story, epoch, ...this.make(design, node, multiply(parent, node.transform)) };
    this.entries.set(node, entry);
    return entry;
  }

  private make(design: Design, node: Exclude<DesignNode, { kind: 'group' }>, matrix: Matrix): Pick<Entry, 'items' | 'missing' | 'overset'> {
    const items: Item[] = [];
    switch (node.kind) {
      case 'shape':
        paintPath(items, node, transformPath(shapePath(node.shape, node.knobs, node.width, node.height), matrix), 'nonZero', matrix);
        break;
      case 'path':
        paintPath(items, node, transformPath(node.path, matrix), node.fillRule, matrix);
        break;
      case 'textFrame':
        paintPath(items, node, transformPath(rectPath(rect(0, 0, node.width, node.height)), matrix), 'nonZero', matrix);
        return { items, ...this.makeText(items, design, node, matrix) };
      case 'displayText':
        return { items, ...this.makeText(items, design, node, matrix) };
    }
    return { items, missing: [], overset: 0 };
  }

  private makeText(items: Item[], design: Design, node: TextNode, matrix: Matrix): { missing: readonly string[]; overset: number } {
    const layout = layoutOf(design, node, this.fonts);
    const toPage = multiply(matrix, layoutMatrix(node));
    for (const line of layout.lines)
      for (const run of line.runs) {
        if (!run.glyphs.length) continue;
        const { fill, outline } = run.run;
        if (fill.kind !== 'none') for (const part of lettersOf(run, fill, toPage, matrix)) items.push({ ...glyphsBase(node, run, part, toPage), paint: fill, stroke: null } satisfies GlyphsItem);
        if (outline && outline.paint.kind !== 'none') {
          const stroke = strokeStyle(outline, toPage);
          for (const part of lettersOf(run, outline.paint, toPage, matrix)) {
            const base = glyphsBase(node, run, part, toPage);
            items.push({ ...base, paint: outline.paint, stroke, bounds: grow(base.bounds, reach(stroke)) } satisfies GlyphsItem);
          }
        }
      }
    return { missing: layout.missing, overset: layout.overset };
  }
}

const PAGE: Matrix = [1, 0, 0, 1, 0, 0];

function paintPath(items: Item[], node: { id: string; fills: readonly Paint[]; outlines: readonly Outline[] }, path: PathData, rule: FillRule, matrix: Matrix): void {
  if (!path.length) return;
  const box = pathBounds(path);
  for (const paint of node.fills) if (paint.kind !== 'none') items.push({ type: 'fill', node: node.id, bounds: box, paint, matrix, path, rule });
  for (const outline of node.outlines) {
    if (outline.paint.kind === 'none' || !(outline.width > 0)) continue;
    const stroke = strokeStyle(outline, matrix);
    items.push({ type: 'stroke', node: node.id, bounds: grow(box, reach(stroke)), paint: outline.paint, matrix, path, stroke });
  }
}

function strokeStyle(o: Outline, matrix: Matrix): StrokeStyle {
  return { width: o.width * meanScale(matrix), cap: o.cap, join: o.join, miterLimit: o.miterLimit };
}

/** How far a line can reach from its path. */
export function reach(s: StrokeStyle): number {
  return (s.width / 2) * (s.join === 'miter' ? Math.max(s.miterLimit, Math.SQRT2) : Math.SQRT2);
}

/** Letters that are painted as one, and the space in which their paint's geometry is given. */
interface Letters {
  readonly glyphs: PlacedRun['glyphs'];
  readonly matrix: Matrix;
}

/** All letters of a run together; or each alone, with the unit square laid over its own box, where its paint asks for that. */
function lettersOf(run: PlacedRun, paint: Paint, toPage: Matrix, matrix: Matrix): Letters[] {
  if (paint.kind !== 'gradient' || !paint.eachLetter) return [{ glyphs: run.glyphs, matrix }];
  return run.glyphs.flatMap((g) => {
    const { x0, y0, x1, y1 } = pathBounds(glyphPath(run, [g], [1, 0, 0, 1, 0, 0]));
    return x1 > x0 && y1 > y0 ? [{ glyphs: [g], matrix: multiply(toPage, [x1 - x0, 0, 0, y1 - y0, x0, y0]) }] : [];
  });
}

function glyphsBase(node: { id: string }, run: PlacedRun, { glyphs, matrix }: Letters, toPage: Matrix) {
  const path = glyphPath(run, glyphs, toPage);
  return { type: 'glyphs', node: node.id, face: run.face, size: run.run.size, text: glyphs.map((g) => g.text).join(''), layout: toPage, glyphs, matrix, path, bounds: pathBounds(path) } as const;
}

function glyphPath(run: PlacedRun, glyphs: PlacedRun['glyphs'], toPage: Matrix): PathData {
  const scale = run.run.size / run.face.upem;
  const out: number[] = [];
  for (const g of glyphs) {
    const placed = transformPath(run.face.outline(g.gid), multiply(toPage, [scale, 0, 0, scale, g.x, g.y]));
    for (const v of placed) out.push(v);
  }
  return out;
}
