import { lettersPath } from '../derive/area';
import { layoutMatrix, layoutOf, type TextNode } from '../derive/layout';
import { multiply, translation, type Matrix } from '../geometry/matrix';
import { pathBounds, type PathData } from '../geometry/path';
import { grow } from '../geometry/rect';
import { wobblePath } from '../geometry/wobble';
import type { Design, Outline, Paint } from '../model/schema';
import { bentRun, bentTurn } from '../text/bent';
import type { FontBook } from '../text/fonts';
import type { Layout, Line, PlacedRun } from '../text/layout';
import { glyphPath, rulesPath, runPath } from '../text/outlines';
import { PlacedPath } from './placedPath';
import type { Leaf, Words } from './scene';
import { betweenDashes, strokeStyle } from '../derive/lines';
import { paintLines, reach } from './strokes';

type Painted = Exclude<Paint, { kind: 'none' }>;

/** The leaves of a text: of each run its lines under and through it, its letters, their outline. */
export function paintWords(
  out: Leaf[],
  design: Design,
  node: TextNode,
  matrix: Matrix,
  fonts: FontBook,
): Pick<Layout, 'missing' | 'overset'> {
  const layout = layoutOf(design, node, fonts);
  const whole = multiply(matrix, layoutMatrix(node));
  const { letterOutlines } = node;
  // Round all letters at once: the line of one lies over no other.
  const lined = letterOutlines && {
    node: node.id,
    placed: new PlacedPath(allLetters(design, node, layout, fonts), matrix),
    rule: 'nonZero' as const,
    matrix,
  };
  if (lined) paintLines(out, lined, letterOutlines, true);
  for (const line of layout.lines)
    for (const run of line.runs) {
      if (!run.glyphs.length) continue;
      const place: Place = { node: node.id, layout, line, run, whole, matrix };
      for (const leaf of layout.warp ? leavesOf(place) : leavesKept(place)) out.push(leaf);
    }
  if (lined) paintLines(out, lined, letterOutlines, false);
  return { missing: layout.missing, overset: layout.overset };
}

const letters = new WeakMap<Layout, { readonly place: string; readonly path: PathData }>();
/** The letters of a text in its own space; the same list for the same layout. */
export function allLetters(design: Design, node: TextNode, layout: Layout, fonts: FontBook): PathData {
  const place = layoutMatrix(node).join();
  let known = letters.get(layout);
  if (known?.place !== place) letters.set(layout, (known = { place, path: lettersPath(design, node, fonts) }));
  return known.path;
}

/** A run and where it stands: `whole` takes the text's lines to the page, `matrix` its own space. */
interface Place {
  readonly node: string;
  readonly layout: Layout;
  readonly line: Line;
  readonly run: PlacedRun;
  readonly whole: Matrix;
  readonly matrix: Matrix;
}
interface Kept extends Pick<Place, 'node' | 'whole' | 'matrix'>, Pick<Line, 'x' | 'baseline'> {
  readonly leaves: readonly Leaf[];
}

/** The leaves of a run where it stood last: those of lines that did not change are the same ones after a key. */
const kept = new WeakMap<PlacedRun, Kept>();
function leavesKept(place: Place): readonly Leaf[] {
  const { node, run, whole, matrix, line } = place;
  const { x, baseline } = line;
  const old = kept.get(run);
  if (
    old &&
    old.node === node &&
    old.x === x &&
    old.baseline === baseline &&
    sameMatrix(old.whole, whole) &&
    sameMatrix(old.matrix, matrix)
  )
    return old.leaves;
  const leaves = leavesOf(place);
  kept.set(run, { node, whole, matrix, x, baseline, leaves });
  return leaves;
}
const sameMatrix = (a: Matrix, b: Matrix): boolean => a === b || a.every((v, i) => v === b[i]);

function leavesOf({ node, layout, line, run, whole, matrix }: Place): readonly Leaf[] {
  const out: Leaf[] = [];
  // What is bent is placed by its bend; else by its line.
  const toPage = layout.warp ? whole : multiply(whole, translation(line.x, line.baseline));
  const set: Set = { node, layout, line, run, toPage, matrix };
  const { fill, outline } = set.run.run;
  if (fill.kind !== 'none') {
    putRules(out, set, fill);
    putLetters(out, set, fill, null);
  }
  for (const line of outline ? [betweenDashes(outline), outline] : [])
    if (line && line.paint.kind !== 'none')
      putLetters(
        out,
        { ...set, cut: outline?.dashes !== undefined || outline?.wobble !== undefined },
        line.paint,
        line,
      );
  return out;
}

interface Set {
  readonly node: string;
  readonly layout: Layout;
  readonly line: Line;
  readonly run: PlacedRun;
  /** From the space of the letters' outlines to the page, and from the text's own. */
  readonly toPage: Matrix;
  readonly matrix: Matrix;
  /** Its line is dashed or strays: presses draw the lines of text whole, so it goes round the letters as paths. */
  readonly cut?: boolean;
}

/** Lines under and through letters, in their paint. */
function putRules(out: Leaf[], set: Set, paint: Painted): void {
  const path = rulesPath(set.run);
  if (!path.length) return;
  const placed = new PlacedPath(bentOf(set, path), set.toPage);
  const { node, matrix } = set;
  const box = placed.bounds;
  out.push({
    type: 'fill',
    node,
    inkBounds: box,
    paintBounds: box,
    paint,
    matrix,
    placed,
    rule: 'nonZero',
    line: true,
  });
}

const bentOf = ({ layout, line }: Set, path: PathData): PathData => (layout.warp ? bentRun(layout, line, path) : path);

/**
 * The letters of a run as one leaf; or one each, with the unit square laid over its box, where its paint asks for that.
 */
function putLetters(out: Leaf[], set: Set, paint: Painted, outline: Outline | null): void {
  const { run, toPage, matrix } = set;
  if (paint.kind !== 'gradient' || !paint.eachLetter) {
    put(out, set, { paint, matrix, outline, path: bentOf(set, runPath(run)), glyphs: run.glyphs, text: run.text });
    return;
  }
  // Letters that stand each its own way are read as one word: the first says all of it.
  const turned = set.layout.warp !== undefined || run.glyphs.some((g) => g.turn);
  let whole = run.text;
  for (const g of run.glyphs) {
    const path = bentOf(set, glyphPath(run, g));
    const { x0, y0, x1, y1 } = pathBounds(path);
    if (!(x1 > x0 && y1 > y0)) continue;
    const box = multiply(toPage, [x1 - x0, 0, 0, y1 - y0, x0, y0]);
    put(out, set, { paint, matrix: box, outline, path, glyphs: [g], text: turned ? whole : g.text });
    whole = '';
  }
}

interface Put extends Pick<Words, 'glyphs' | 'text'> {
  readonly paint: Painted;
  readonly matrix: Matrix;
  readonly outline: Outline | null;
  readonly path: PathData;
}

function put(out: Leaf[], { node, layout, line, run, toPage, cut }: Set, p: Put): void {
  const { paint, matrix, outline, path, glyphs, text } = p;
  const { face, size } = run;
  const stroke = outline && strokeStyle(outline, toPage);
  const placed = new PlacedPath(outline?.wobble ? wobblePath(path, outline.wobble) : path, toPage);
  const bounds = stroke ? grow(placed.bounds, reach(stroke)) : placed.bounds;
  const base = { node, inkBounds: bounds, paintBounds: bounds, paint, matrix, placed };
  if (!layout.warp && !cut) {
    out.push({ ...base, type: 'glyphs', face, size, text, layout: toPage, glyphs, stroke });
    return;
  }
  const said = (): Words => ({
    face,
    size,
    text,
    layout: toPage,
    glyphs: layout.warp ? glyphs.map((g) => bentTurn(layout, line, g)) : glyphs,
  });
  // Said once: by the fill where there is one.
  if (!stroke) out.push({ ...base, type: 'fill', rule: 'nonZero', words: said() });
  else out.push({ ...base, type: 'stroke', stroke, ...(run.run.fill.kind === 'none' && { words: said() }) });
}
