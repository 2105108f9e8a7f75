import { areaOf, dependencies, type Area } from '../edit/area';
import { framePath } from '../edit/window';
import { isText, layoutMatrix, layoutOf, type TextNode } from '../edit/layout';
import { contoursOf } from '../edit/nodes';
import { taperedLine } from '../geometry/taper';
import { meanScale, multiply, type Matrix } from '../geometry/matrix';
import { pathBounds, transformPath, type FillRule, type PathData } from '../geometry/path';
import { grow, intersect, isEmpty } from '../geometry/rect';
import type { StrokeStyle } from '../geometry/stroke';
import { copyMatrices } from '../model/copies';
import type { Design, DesignNode, NodeOf, Outline, Page, Paint, Story } from '../model/schema';
import { ancestry, pageMatrix } from '../model/tree';
import { outlinePath } from '../shapes/outline';
import type { FontBook } from '../text/fonts';
import type { PlacedRun } from '../text/layout';
import { addFound, findInArea, layerOf, needsLayer, nothingFound, type Found, type KnownLayer } from './layer';
import type { GlyphsItem, Item, Layer, Scene } from './scene';

interface Entry {
  readonly parent: Matrix;
  readonly layer: Layer | undefined;
  readonly area: Area | undefined;
  readonly story: Story | undefined;
  readonly epoch: number;
  readonly items: readonly Item[];
  readonly missing: readonly string[];
  readonly overset: number;
}

/** What is drawn as itself: a group or a repeat is drawn by what it holds. */
type DrawnNode = Exclude<DesignNode, { kind: 'group' | 'repeat' | 'unknown' }>;

/**
 * Makes scenes. Geometry is remembered by node, place, story and the faces at hand: nodes never change in place, so an
 * edit costs what it touched. Paints are not looked into here.
 */
export class SceneBuilder {
  private readonly entries = memory<Entry>();
  private readonly matrices = memory<readonly Matrix[]>();

  constructor(private readonly fonts: FontBook) {}

  build(design: Design, page: Page): Scene {
    const items: Item[] = [];
    const all = nothingFound();
    const visit = (id: string, parent: Matrix, outer: Layer | undefined, into: Item[], found: Found) => {
      const node = design.nodes[id];
      if (node.hidden || node.kind === 'unknown') return;
      const known = needsLayer(design, node) ? this.layer(design, node, parent, outer, (child, matrix, foundThere) => {
        const mask: Item[] = [];
        visit(child, matrix, undefined, mask, foundThere);
        return mask;
      }) : null;
      if (known) addFound(found, known.found);
      const layer = known ? known.layer : outer;
      if (node.kind === 'group' || node.kind === 'repeat') {
        for (const matrix of this.holderMatrices(node, parent)) for (const child of node.children) if (node.kind !== 'group' || !design.nodes[child].cuts) visit(child, matrix, layer, into, found);
        return;
      }
      const entry = this.entry(design, node, parent, layer);
      for (const item of entry.items) into.push(item);
      for (const face of entry.missing) found.missing.add(face);
      if (entry.overset) found.overset.set(id, entry.overset);
      if (entry.area?.unsure) found.unsure.add(id);
      if (node.kind === 'combination') for (const child of node.children) findInArea(design, child, this.fonts, found);
    };
    for (const id of page.children) visit(id, PAGE, undefined, items, all);
    const { width, height, bleed, round } = design.setup;
    return { width, height, bleed, round, items, missingFaces: [...all.missing], overset: [...all.overset].map(([node, characters]) => ({ node, characters })), unsure: [...all.unsure] };
  }

  /**
   * The scene of a design in which only `changed` nodes differ from the one that `base` was built from, by putting their
   * items in place: for showing what moves. Null where that is not enough (an object came or went, a text flows anew, it
   * is repeated): then build it whole.
   */
  patch(base: Scene, design: Design, page: Page, changed: readonly string[]): Scene | null {
    const ranges = this.rangesOf(base);
    const items = base.items.slice();
    const drawn = new Set<string>();
    for (const id of changed) {
      const line = ancestry(design, page, id).map((x) => design.nodes[x]);
      if (line.some((n) => n.kind === 'repeat')) return null;
      // What cuts is looked through by others.
      if (line.some((n) => n.cuts || (n.kind === 'group' && n.children.some((c) => design.nodes[c].cuts)))) return null;
      const node = line.find((n) => n.kind === 'combination') ?? design.nodes[id];
      if (node.kind === 'group' || node.kind === 'repeat' || node.kind === 'unknown' || drawn.has(node.id)) continue;
      drawn.add(node.id);
      const range = ranges.get(node.id);
      if (!range || 'story' in node || node.hidden) return null;
      const area = node.kind === 'combination' ? areaOf(design, node.id, this.fonts, true) : undefined;
      const fresh = layered(this.make(design, node, pageMatrix(design, page, node.id), area).items, base.items[range.start].layer);
      if (fresh.length !== range.count) return null;
      for (let i = 0; i < fresh.length; i++) items[range.start + i] = fresh[i];
    }
    return { ...base, items };
  }

  private readonly ranges = new WeakMap<Scene, Map<string, { start: number; count: number }>>();
  /** Where each node's items stand in a scene; those of what is not repeated always stand together. */
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

  /** Where the children of a group, or the copies of a repeat, lie on the page. */
  private holderMatrices(node: NodeOf<'group'> | NodeOf<'repeat'>, parent: Matrix): readonly Matrix[] {
    return remembered(this.matrices, node, parent, () => true, () => {
      const own = multiply(parent, node.transform);
      return node.kind === 'group' ? [own] : copyMatrices(node.arrangement).map((m) => multiply(own, m));
    });
  }

  private readonly layers = memory<KnownLayer>();
  private layer(design: Design, node: DesignNode, parent: Matrix, outer: Layer | undefined, maskOf: (child: string, matrix: Matrix, found: Found) => Item[]): KnownLayer {
    const cuts = node.kind === 'group' ? node.children.filter((c) => design.nodes[c].cuts) : [];
    const deps = cuts.flatMap((c) => dependencies(design, c, this.fonts));
    const holds = (l: KnownLayer) => l.outer === outer && l.deps.length === deps.length && l.deps.every((x, i) => x === deps[i]);
    return remembered(this.layers, node, parent, holds, () => {
      const matrix = node.kind === 'group' ? this.holderMatrices(node, parent)[0] : parent;
      const found = nothingFound();
      for (const c of cuts) if (design.nodes[c].cuts === 'outline') findInArea(design, c, this.fonts, found);
      return { outer, deps, layer: layerOf(design, node, matrix, outer ?? null, this.fonts, (child) => maskOf(child, matrix, found)), found };
    });
  }

  private entry(design: Design, node: DrawnNode, parent: Matrix, layer: Layer | undefined): Entry {
    const story = 'story' in node ? design.stories[node.story] : undefined;
    const area = node.kind === 'combination' ? areaOf(design, node.id, this.fonts) : undefined;
    const epoch = story ? this.fonts.epoch : 0;
    return remembered(this.entries, node, parent, (e) => e.area === area && e.story === story && e.epoch === epoch && e.layer === layer, () => {
      const made = this.make(design, node, multiply(parent, node.transform), area);
      return { parent, layer, area, story, epoch, ...made, items: layered(made.items, layer) };
    });
  }

  private make(design: Design, node: DrawnNode, matrix: Matrix, area: Area | undefined): Pick<Entry, 'items' | 'missing' | 'overset'> {
    const items: Item[] = [];
    switch (node.kind) {
      case 'shape':
      case 'path': {
        const { path, rule } = outlinePath(node);
        const tapered = node.kind === 'path' && node.widths ? node : null;
        paintPath(items, tapered ? { ...node, outlines: [] } : node, transformPath(path, matrix), rule, matrix);
        if (tapered) paintTapered(items, tapered, matrix);
        break;
      }
      case 'combination':
        if (node.op !== 'divide') paintPath(items, node, transformPath(area!.region.path, matrix), area!.region.rule, matrix);
        else for (const piece of area!.pieces ?? []) paintPiece(items, design, node, piece.owner, transformPath(piece.region.path, matrix), piece.region.rule, matrix);
        break;
      case 'textFrame':
        paintPath(items, node, transformPath(framePath(node).path, matrix), framePath(node).rule, matrix);
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

/** The items as drawn into a layer, those that nothing is left of dropped. */
function layered(items: readonly Item[], layer: Layer | undefined): readonly Item[] {
  if (!layer) return items;
  return items.flatMap((item) => {
    const bounds = intersect(item.bounds, layer.bounds);
    return isEmpty(bounds) ? [] : [{ ...item, bounds, layer }];
  });
}

const PAGE: Matrix = [1, 0, 0, 1, 0, 0];

/** By node, and the very matrix of its parent: most nodes have one place, and those of a repeat's parts go with their matrices. */
type Memory<T> = WeakMap<DesignNode, Place<T>>;
interface Place<T> {
  readonly parent: Matrix;
  value: T;
  others: WeakMap<Matrix, T> | null;
}
const memory = <T>(): Memory<T> => new WeakMap();

function remembered<T>(places: Memory<T>, node: DesignNode, parent: Matrix, holds: (known: T) => boolean, make: () => T): T {
  const place = places.get(node);
  const known = place?.parent === parent ? place.value : place?.others?.get(parent);
  if (known !== undefined && holds(known)) return known;
  const made = make();
  if (!place) places.set(node, { parent, value: made, others: null });
  else if (place.parent === parent) place.value = made;
  else (place.others ??= new WeakMap()).set(parent, made);
  return made;
}

/** Outlines whose width follows a pen's pressure are areas of their own. */
function paintTapered(items: Item[], node: NodeOf<'path'>, matrix: Matrix): void {
  const contours = contoursOf(node);
  for (const outline of node.outlines) {
    if (outline.paint.kind === 'none' || !(outline.width > 0)) continue;
    const path = transformPath(taperedLine(contours, outline.width), matrix);
    if (path.length) items.push({ type: 'fill', node: node.id, bounds: pathBounds(path), paint: outline.paint, matrix, path, rule: 'nonZero', line: true });
  }
}

/** A piece of a division, in the paints of the operand it belongs to: a shape's, a combination's, a text's letters. */
function paintPiece(items: Item[], design: Design, node: NodeOf<'combination'>, owner: string, path: PathData, rule: FillRule, matrix: Matrix): void {
  const { fills, outlines, space } = paintsOf(design, owner);
  paintPath(items, { id: node.id, fills, outlines }, path, rule, multiply(matrix, space));
}

/** What a node is painted with, and from which space its paints' geometry is given, seen from outside the node. */
function paintsOf(design: Design, id: string): { fills: readonly Paint[]; outlines: readonly Outline[]; space: Matrix } {
  const node = design.nodes[id];
  if (isText(node)) {
    const run = design.stories[node.story].paragraphs[0].runs[0];
    return { fills: [run.fill], outlines: run.outline ? [run.outline] : [], space: node.transform };
  }
  if ('fills' in node) return { fills: node.fills, outlines: node.outlines, space: node.transform };
  // Of a group or a repeat, what lies at its front.
  const inner = paintsOf(design, node.children[node.children.length - 1]);
  return { ...inner, space: multiply(node.transform, inner.space) };
}

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
