import { rectPath } from '../geometry/path';
import { rectMatrix, type Rect } from '../geometry/rect';
import type { Design, Page, Pattern } from '../model/schema';
import { setupOn } from '../model/setupOn';
import { groundOf, type Ground } from '../model/tree';
import { patternPaths } from '../shapes/groundPatterns';
import { PlacedPath } from './placedPath';
import { bleedRect, makeGroup, NO_FINDINGS, type Fill, type Group, type Part } from './scene';

interface Made {
  readonly ground: Pick<Ground, 'paint' | 'pattern'>;
  readonly parts: readonly Part[];
}
const known = new WeakMap<Page, Map<string, Made>>();

/** The ground of a page as it is laid on it, always to the bleed; the same parts for the same ground and format. */
export function groundParts(design: Design, page: Page): readonly Part[] {
  const ground = groundOf(design, page);
  if (!ground) return NONE;
  const { of, paint, pattern } = ground;
  // Also where the page ends at a fold: what is beyond is cut.
  const { width, height, bleed } = setupOn(design, page);
  const box = bleedRect({ width, height, bleed });
  const key = `${box.x0} ${box.x1} ${box.y1}`;
  const byFormat = known.get(of) ?? new Map<string, Made>();
  const old = byFormat.get(key);
  if (old && old.ground.paint === paint && old.ground.pattern === pattern) return old.parts;
  const parts: Part[] = [];
  if (paint.kind !== 'none') parts.push(fill(of.id, paint, box, rectPath(box)));
  if (pattern) parts.push(marks(of.id, pattern, box));
  known.set(of, byFormat.set(key, { ground: { paint, pattern }, parts }));
  return parts;
}
const NONE: readonly Part[] = [];

function fill(node: string, paint: Fill['paint'], box: Rect, path: readonly number[]): Fill {
  const placed = PlacedPath.onPage(path);
  return {
    type: 'fill',
    node,
    inkBounds: placed.bounds,
    paintBounds: placed.bounds,
    paint,
    matrix: rectMatrix(box),
    placed,
    rule: 'nonZero',
    fixed: true,
  };
}

/** The marks of a pattern, cut at the bleed. */
function marks(node: string, pattern: Pattern, box: Rect): Group {
  const paths = patternPaths(pattern, box);
  return makeGroup({
    node,
    content: paths.flatMap((path, i) => (path.length ? [fill(node, pattern.paints[i], box, path)] : [])),
    opacity: 1,
    blend: null,
    clips: [{ path: rectPath(box), rule: 'nonZero' }],
    masks: [],
    effects: [],
    findings: NO_FINDINGS,
    fixed: true,
  });
}
