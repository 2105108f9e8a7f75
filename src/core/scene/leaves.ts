import { firstLetters } from '../model/textLooks';
import type { Area } from '../derive/area';
import { layDepth } from '../derive/depth';
import { isTrapped, TRAP, type RegionsNow } from '../derive/regions';
import { isText, layoutOf } from '../derive/layout';
import { contoursOf } from '../derive/contours';
import { framePath } from '../derive/frame';
import { multiply, type Matrix } from '../geometry/matrix';
import { type FillRule, type PathData } from '../geometry/path';
import { taperedLine } from '../geometry/taper';
import type { Design, DesignNode, NodeOf, Outline, Paint } from '../model/schema';
import { outlinePath } from '../shapes/outline';
import type { FontBook } from '../text/fonts';
import { PlacedPath } from './placedPath';
import type { Leaf } from './scene';
import { leafOf, paintLines } from './strokes';
import { allLetters, paintWords } from './words';

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
  if ('depth' in node && node.depth) paintDepth(out, design, node, matrix, area, fonts);
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
      return { leaves: out, ...paintWords(out, design, node, matrix, fonts) };
    }
    case 'displayText':
      return { leaves: out, ...paintWords(out, design, node, matrix, fonts) };
  }
  return { leaves: out, missing: [], overset: 0 };
}

/** The sides of what is pushed back. */
function paintDepth(
  out: Leaf[],
  design: Design,
  node: Exclude<DrawnNode, { kind: 'textFrame' }>,
  matrix: Matrix,
  area: Area | undefined,
  fonts: FontBook,
): void {
  const region =
    node.kind === 'shape' || node.kind === 'path'
      ? outlinePath(node)
      : node.kind === 'displayText'
        ? { path: allLetters(design, node, layoutOf(design, node, fonts), fonts), rule: 'nonZero' as const }
        : area!.region;
  if (!node.depth || !region.path.length) return;
  for (const laid of layDepth(region, matrix, matrix, node.depth)) out.push(leafOf(node.id, laid, matrix));
}

/** In points of the page. */
const TRAP_LINE = { width: TRAP, cap: 'butt', join: 'round', miterLimit: 4 } as const;

/** The coloured areas of a group's lines; `matrix` maps its own space to the page. */
export function regionLeaves(node: NodeOf<'group'>, { faces, from }: RegionsNow, matrix: Matrix): Leaf[] {
  const areas = node.regions?.areas ?? [];
  // Below all of them their edges in their paints: where two meet, no paper shows between.
  const trapped = faces.flatMap(({ path }, i) => {
    const paint = areas[from[i]]?.paint;
    return paint && isTrapped(paint)
      ? [leafOf(node.id, { path, toPage: matrix, paint, rule: 'nonZero', stroke: TRAP_LINE }, matrix)]
      : [];
  });
  const filled = faces.flatMap(({ path }, i) => {
    const paint = areas[from[i]]?.paint;
    return paint && paint.kind !== 'none'
      ? [leafOf(node.id, { path, toPage: matrix, paint, rule: 'evenOdd' }, matrix)]
      : [];
  });
  return [...trapped, ...filled];
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
  const lined = { node: node.id, placed, rule, matrix };
  paintLines(out, lined, node.outlines, true);
  for (const paint of node.fills)
    if (paint.kind !== 'none')
      out.push({ type: 'fill', node: node.id, inkBounds: box, paintBounds: box, paint, matrix, placed, rule });
  paintLines(out, lined, node.outlines, false);
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
    const run = firstLetters(design, design.stories[node.story]);
    return { fills: [run.fill], outlines: run.outline ? [run.outline] : [], space: node.transform };
  }
  if ('fills' in node) return { fills: node.fills, outlines: node.outlines, space: node.transform };
  // Of a group or a repeat, what lies at its front.
  const inner = paintsOf(design, node.children[node.children.length - 1]);
  return { ...inner, space: multiply(node.transform, inner.space) };
}
