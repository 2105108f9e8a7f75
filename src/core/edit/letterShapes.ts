import { lettersPath } from '../derive/area';
import { framePath } from '../derive/frame';
import { layoutMatrix, layoutOf, type TextNode } from '../derive/layout';
import { IDENTITY, multiply, translation, type Matrix } from '../geometry/matrix';
import { pathBounds, transformPath, type PathData } from '../geometry/path';
import type { Design, DesignNode, NodeOf, Paint } from '../model/schema';
import { bentRun } from '../text/bent';
import type { FontBook } from '../text/fonts';
import type { PlacedRun } from '../text/line';
import { glyphPath, rulesPath } from '../text/outlines';

type Own = Omit<NodeOf<'group'>, 'kind' | 'children'>;

/**
 * A text as shapes that look the same, `own` being what stays of it: a group of its words, each a group of its letters; of
 * a frame its own shape below them. The group first, then all it holds.
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
          put({ ...blank(g.text || 'Letter'), kind: 'path', path, fillRule: 'nonZero', ...paintsOf(run, path) }),
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
            fills: [run.run.fill],
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
function paintsOf({ run }: PlacedRun, path: PathData): Pick<NodeOf<'path'>, 'fills' | 'outlines'> {
  const { x0, y0, x1, y1 } = pathBounds(path);
  const each = (paint: Paint): Paint => {
    if (paint.kind !== 'gradient' || !paint.eachLetter) return paint;
    const { eachLetter: _, ...whole } = paint;
    return { ...whole, geometry: multiply([x1 - x0, 0, 0, y1 - y0, x0, y0], paint.geometry) };
  };
  return {
    fills: run.fill.kind === 'none' ? [] : [each(run.fill)],
    outlines: run.outline ? [{ ...run.outline, paint: each(run.outline.paint) }] : [],
  };
}
