import type { Area } from '../derive/area';
import { isText, layoutMatrix, layoutOf, type TextNode } from '../derive/layout';
import { contoursOf } from '../derive/contours';
import { framePath } from '../derive/frame';
import { IDENTITY, meanScale, multiply, type Matrix } from '../geometry/matrix';
import { pathBounds, transformPath, type FillRule, type PathData } from '../geometry/path';
import { grow } from '../geometry/rect';
import type { StrokeStyle } from '../geometry/stroke';
import { taperedLine } from '../geometry/taper';
import type { Design, DesignNode, NodeOf, Outline, Paint } from '../model/schema';
import { outlinePath } from '../shapes/outline';
import type { FontBook } from '../text/fonts';
import type { PlacedRun } from '../text/layout';
import { PlacedPath } from './placedPath';
import type { Glyphs, Leaf } from './scene';

/** What is drawn as itself: a group or a repeat is drawn by what it holds. */
export type DrawnNode = Exclude<DesignNode, { kind: 'group' | 'repeat' | 'unknown' }>;

/** What a node is drawn as, and what is found in its words. */
export interface Made {
  readonly leaves: readonly Leaf[];
  readonly missing: readonly string[];
  readonly overset: number;
}

/** The leaves of a node whose space `matrix` maps to the page; `area` is a combination's. */
export function leavesOf(
  design: Design,
  node: DrawnNode,
  matrix: Matrix,
  area: Area | undefined,
  fonts: FontBook,
): Made {
  const out: Leaf[] = [];
  switch (node.kind) {
    case 'shape':
    case 'path': {
      const { path, rule } = outlinePath(node);
      const tapered = node.kind === 'path' && node.widths ? node : null;
      paintPath(out, tapered ? { ...node, outlines: [] } : node, path, matrix, rule, matrix);
      if (tapered) paintTapered(out, tapered, matrix);
      break;
    }
    case 'combination':
      if (node.op !== 'divide') paintPath(out, node, area!.region.path, matrix, area!.region.rule, matrix);
      else
        for (const { owner, region } of area!.pieces ?? [])
          paintPiece(out, design, node, owner, region.path, region.rule, matrix);
      break;
    case 'textFrame': {
      const { path, rule } = framePath(node);
      paintPath(out, node, path, matrix, rule, matrix);
      return { leaves: out, ...paintText(out, design, node, matrix, fonts) };
    }
    case 'displayText':
      return { leaves: out, ...paintText(out, design, node, matrix, fonts) };
  }
  return { leaves: out, missing: [], overset: 0 };
}

interface Painted {
  readonly id: string;
  readonly fills: readonly Paint[];
  readonly outlines: readonly Outline[];
}

/** `toPage` places the path; `matrix` maps the space in which the paints' geometry is given. */
function paintPath(out: Leaf[], node: Painted, path: PathData, toPage: Matrix, rule: FillRule, matrix: Matrix): void {
  if (!path.length) return;
  const placed = new PlacedPath(path, toPage);
  const box = placed.bounds;
  for (const paint of node.fills)
    if (paint.kind !== 'none')
      out.push({ type: 'fill', node: node.id, inkBounds: box, paintBounds: box, paint, matrix, placed, rule });
  for (const outline of node.outlines) {
    if (outline.paint.kind === 'none' || !(outline.width > 0)) continue;
    const stroke = strokeStyle(outline, matrix);
    const bounds = grow(box, reach(stroke));
    out.push({
      type: 'stroke',
      node: node.id,
      inkBounds: bounds,
      paintBounds: bounds,
      paint: outline.paint,
      matrix,
      placed,
      stroke,
    });
  }
}

/** Outlines whose width follows a pen's pressure are areas of their own. */
function paintTapered(out: Leaf[], node: NodeOf<'path'>, matrix: Matrix): void {
  const contours = contoursOf(node);
  for (const outline of node.outlines) {
    if (outline.paint.kind === 'none' || !(outline.width > 0)) continue;
    const line = taperedLine(contours, outline.width);
    if (!line.length) continue;
    const placed = new PlacedPath(line, matrix);
    out.push({
      type: 'fill',
      node: node.id,
      inkBounds: placed.bounds,
      paintBounds: placed.bounds,
      paint: outline.paint,
      matrix,
      placed,
      rule: 'nonZero',
      line: true,
    });
  }
}

/** A piece of a division, in the paints of the operand it belongs to: a shape's, a combination's, a text's letters. */
function paintPiece(
  out: Leaf[],
  design: Design,
  node: NodeOf<'combination'>,
  owner: string,
  path: PathData,
  rule: FillRule,
  matrix: Matrix,
): void {
  const { fills, outlines, space } = paintsOf(design, owner);
  paintPath(out, { id: node.id, fills, outlines }, path, matrix, rule, multiply(matrix, space));
}

/** What a node is painted with, and from which space its paints' geometry is given, seen from outside the node. */
function paintsOf(
  design: Design,
  id: string,
): { fills: readonly Paint[]; outlines: readonly Outline[]; space: Matrix } {
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

function strokeStyle(o: Outline, matrix: Matrix): StrokeStyle {
  return { width: o.width * meanScale(matrix), cap: o.cap, join: o.join, miterLimit: o.miterLimit };
}

/** How far a line can reach from its path. */
export function reach(s: StrokeStyle): number {
  return (s.width / 2) * (s.join === 'miter' ? Math.max(s.miterLimit, Math.SQRT2) : Math.SQRT2);
}

function paintText(out: Leaf[], design: Design, node: TextNode, matrix: Matrix, fonts: FontBook): Omit<Made, 'leaves'> {
  const layout = layoutOf(design, node, fonts);
  const toPage = multiply(matrix, layoutMatrix(node));
  for (const line of layout.lines)
    for (const run of line.runs) {
      if (!run.glyphs.length) continue;
      const { fill, outline } = run.run;
      if (fill.kind !== 'none')
        for (const letters of lettersOf(run, fill, toPage, matrix))
          out.push(glyphsOf(node.id, run, letters, toPage, fill, null));
      if (!outline || outline.paint.kind === 'none') continue;
      const stroke = strokeStyle(outline, toPage);
      for (const letters of lettersOf(run, outline.paint, toPage, matrix))
        out.push(glyphsOf(node.id, run, letters, toPage, outline.paint, stroke));
    }
  return { missing: layout.missing, overset: layout.overset };
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
    const { x0, y0, x1, y1 } = pathBounds(glyphPath(run, [g], IDENTITY));
    return x1 > x0 && y1 > y0 ? [{ glyphs: [g], matrix: multiply(toPage, [x1 - x0, 0, 0, y1 - y0, x0, y0]) }] : [];
  });
}

function glyphsOf(
  node: string,
  run: PlacedRun,
  { glyphs, matrix }: Letters,
  layout: Matrix,
  paint: Glyphs['paint'],
  stroke: StrokeStyle | null,
): Glyphs {
  const placed = PlacedPath.onPage(glyphPath(run, glyphs, layout));
  const bounds = stroke ? grow(placed.bounds, reach(stroke)) : placed.bounds;
  const text = glyphs.map((g) => g.text).join('');
  return {
    type: 'glyphs',
    node,
    face: run.face,
    size: run.run.size,
    text,
    layout,
    glyphs,
    matrix,
    placed,
    inkBounds: bounds,
    paintBounds: bounds,
    paint,
    stroke,
  };
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
