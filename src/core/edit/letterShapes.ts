import { lettersPath } from '../derive/area';
import { framePath } from '../derive/frame';
import { layoutMatrix, layoutOf, type TextNode } from '../derive/layout';
import { IDENTITY, meanScale, multiply, translation, type Matrix } from '../geometry/matrix';
import { pathBounds, transformPath, type PathData } from '../geometry/path';
import { SMALL_BLACK } from '../model/platesSchema';
import type { Colour, Design, DesignNode, NodeOf, Paint } from '../model/schema';
import { bentRun } from '../text/bent';
import type { FontBook } from '../text/fonts';
import type { PlacedRun } from '../text/line';
import { glyphPath, rulesPath } from '../text/outlines';

type Own = Omit<NodeOf<'group'>, 'kind' | 'children'>;

/**
 * A text as shapes that look the same, `own` being what stays of it: a group of its words, each a group of its letters;
 * of a frame its own shape below them. The group first, then all it holds.
 */
export function lettersAsShapes(
  d: Design,
  node: TextNode,
  own: Own,
  newId: () => string,
  fonts: FontBook,
): DesignNode[] {
  const made: DesignNode[] = [];
  const top: string[] = [];
  const put = (n: DesignNode): string => {
    made.push(n);
    return n.id;
  };
  const blank = (name: string) => ({ id: newId(), name, transform: IDENTITY as Matrix, hidden: false, locked: false });
  if (node.kind === 'textFrame' && (node.fills.some((p) => p.kind !== 'none') || node.outlines.length)) {
    const { path, rule } = framePath(node);
    const { fills, outlines } = node;
    top.push(put({ ...blank('Frame'), kind: 'path', path, fillRule: rule, fills, outlines }));
  }
  // Lines round all letters lie below or over them all.
  const lines = (behind: boolean) => {
    const outlines = (node.letterOutlines ?? []).filter((o) => (o.behind ?? false) === behind);
    if (!outlines.length) return;
    const path = lettersPath(d, node, fonts);
    top.push(put({ ...blank('Outlines'), kind: 'path', path, fillRule: 'nonZero', fills: [], outlines }));
  };
  lines(true);
  let letters: string[] = [];
  let said = '';
  const endWord = () => {
    if (letters.length) top.push(put({ ...blank(said), kind: 'group', children: letters }));
    letters = [];
    said = '';
  };
  const layout = layoutOf(d, node, fonts);
  const scale = meanScale(node.transform) * meanScale(layoutMatrix(node));
  const least = d.plates?.smallBlack ?? SMALL_BLACK;
  // Small black letters print over what is below them; as shapes they are told to.
  const over = (paint: Paint, size: number): Paint =>
    paint.kind === 'colour' && !paint.overprint && size * scale < least && isBlackRecipe(d, paint.colour)
      ? { ...paint, overprint: true }
      : paint;
  const toOwn = layoutMatrix(node);
  for (const line of layout.lines) {
    const place = layout.warp ? toOwn : multiply(toOwn, translation(line.x, line.baseline));
    const placed = (path: PathData) => transformPath(layout.warp ? bentRun(layout, line, path) : path, place);
    for (const run of line.runs) {
      const rules = rulesPath(run);
      for (const g of run.glyphs) {
        if (/^\s+$/u.test(g.text)) endWord();
        const path = placed(glyphPath(run, g));
        if (!path.length) continue;
        letters.push(
          put({ ...blank(g.text || 'Letter'), kind: 'path', path, fillRule: 'nonZero', ...paintsOf(run, path, over) }),
        );
        said += g.text;
      }
      if (rules.length && run.run.fill.kind !== 'none')
        letters.push(
          put({
            ...blank('Line'),
            kind: 'path',
            path: placed(rules),
            fillRule: 'nonZero',
            fills: [over(run.run.fill, run.size)],
            outlines: [],
          }),
        );
    }
    endWord();
  }
  lines(false);
  return [{ ...own, kind: 'group', children: top }, ...made];
}

/** What a letter is painted with by itself: a gradient laid over each letter lies over this one. */
function paintsOf(
  { run, size }: PlacedRun,
  path: PathData,
  over: (paint: Paint, size: number) => Paint,
): Pick<NodeOf<'path'>, 'fills' | 'outlines'> {
  const { x0, y0, x1, y1 } = pathBounds(path);
  const each = (paint: Paint): Paint => {
    if (paint.kind !== 'gradient' || !paint.eachLetter) return paint;
    const { eachLetter: _, ...whole } = paint;
    return { ...whole, geometry: multiply([x1 - x0, 0, 0, y1 - y0, x0, y0], paint.geometry) };
  };
  return {
    fills: run.fill.kind === 'none' ? [] : [over(each(run.fill), size)],
    outlines: run.outline ? [{ ...run.outline, paint: over(each(run.outline.paint), size) }] : [],
  };
}

/** Is a colour black ink alone, by its recipe? Colours of light become several inks. */
function isBlackRecipe(d: Pick<Design, 'swatches'>, colour: Colour): boolean {
  if ('swatch' in colour) {
    const swatch = d.swatches.find((s) => s.id === colour.swatch);
    return swatch?.kind === 'colour' && colour.tint >= 0.95 && isBlackRecipe(d, swatch.colour);
  }
  if ('gray' in colour) return colour.gray <= 0.05;
  if (!('cmyk' in colour)) return false;
  const [c, m, y, k] = colour.cmyk;
  return k >= 0.95 && c < 0.02 && m < 0.02 && y < 0.02;
}
