import { loaded } from '../geometry/engines';
import { scannable, spansAt } from '../geometry/boolean/scanline';
import { multiply, type Matrix } from '../geometry/matrix';
import { pathBounds, transformPath, type PathData } from '../geometry/path';
import type { Rect } from '../geometry/rect';
import type { Face, Faces } from '../geometry/regions/faces';
import { contoursOf, pathOfContours, type Contour } from '../geometry/segments';
import { copyMatrices } from '../model/copies';
import type { Design, NodeOf, Paint } from '../model/schema';
import type { NodeId } from '../model/tree';
import { outlinePath } from '../shapes/outline';
import type { FontBook } from '../text/fonts';
import { areaOf, dependencies } from './area';

/** Edges of areas stray no further from their lines than this, in the group's own unit. */
const TOLERANCE = 0.02;
/** Lines on which two areas are held against each other. */
const LINES = 24;
/** So much of an area must be covered by a coloured one to take its paint, or so much of that must lie in it. */
const ENOUGH = 0.5;
/** Areas of less than this share of the largest coloured one are what lines leave where they hardly cross. */
const DUST = 2e-3;

/**
 * How wide a line in the paint of a coloured area lies along its edge, so that no paper shows where two meet; points.
 */
export const TRAP = 0.25;
/** Has it one? What shows through, or overprints, would be laid twice. */
export const isTrapped = (p: Paint): p is Extract<Paint, { kind: 'colour' }> => p.kind === 'colour' && !p.overprint;

/** What the lines of a group enclose, and which of its paints each area has. */
export interface RegionsNow extends Faces {
  /** For each face the number of the coloured area that it takes its paint from; −1 for none. */
  readonly from: readonly number[];
  /** Coloured areas that no face takes its paint from. */
  readonly lost: readonly number[];
}

const faces = new WeakMap<object, { readonly deps: readonly unknown[]; readonly gap: number; readonly made: Faces }>();
const now = new WeakMap<Faces, WeakMap<object, RegionsNow>>();

/** The areas of a group; those of the last look where nothing in it has changed. */
export function regionsIn(d: Design, node: NodeOf<'group'>, fonts: FontBook): RegionsNow {
  const deps = node.children.flatMap((c) => dependencies(d, c, fonts));
  const gap = node.regions?.gap ?? 0;
  // By the list of what it holds, which stays the same when only its paints change.
  let known = faces.get(node.children);
  if (!known || known.gap !== gap || known.deps.length !== deps.length || !known.deps.every((x, i) => x === deps[i])) {
    known = {
      deps,
      gap,
      made: loaded().facesOf(
        node.children.flatMap((c) => linesOf(d, c, fonts)),
        TOLERANCE,
        gap,
      ),
    };
    faces.set(node.children, known);
  }
  const areas = node.regions?.areas ?? NONE;
  let of = now.get(known.made);
  if (!of) now.set(known.made, (of = new WeakMap()));
  let made = of.get(areas);
  if (!made) of.set(areas, (made = { ...known.made, ...assigned(known.made.faces, areas) }));
  return made;
}
const NONE: readonly { readonly paint: Paint; readonly path: PathData }[] = [];

/**
 * The lines of an object in the space that holds it: edges of shapes, whatever they are painted with. Words enclose
 * nothing.
 */
function linesOf(d: Design, id: NodeId, fonts: FontBook): Contour[] {
  const node = d.nodes[id];
  if (node.hidden) return [];
  const put = (path: PathData, m: Matrix) => contoursOf(transformPath(path, m));
  if (node.kind === 'shape' || node.kind === 'path') return put(outlinePath(node).path, node.transform);
  if (node.kind === 'combination') return put(areaOf(d, id, fonts).region.path, node.transform);
  const copies = node.kind === 'repeat' ? copyMatrices(node.arrangement) : node.kind === 'group' ? [null] : [];
  if (!('children' in node)) return [];
  return copies.flatMap((copy) => {
    const m = copy ? multiply(node.transform, copy) : node.transform;
    return node.children.flatMap((c) =>
      linesOf(d, c, fonts).map((line) => {
        const [moved] = contoursOf(transformPath(pathOfContours([line]), m));
        return moved;
      }),
    );
  });
}

const meets = (a: Rect, b: Rect): boolean => a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1;

/** Which coloured area each face takes its paint from: the one that covers most of it. */
function assigned(
  all: readonly Face[],
  areas: readonly { readonly path: PathData; readonly paint: Paint }[],
): Pick<RegionsNow, 'from' | 'lost'> {
  const known = areas.map(({ path }) => {
    const box = pathBounds(path);
    return { box, path, lines: null as ReturnType<typeof scannable> | null, whole: 0 };
  });
  const used = new Set<number>();
  const from = all.map((face) => {
    // The very same area, as after a change of colour.
    const same = areas.findIndex((a) => a.path === face.path);
    if (same >= 0) {
      used.add(same);
      return same;
    }
    const box = pathBounds(face.polygon);
    const own = scannable({ path: face.polygon, rule: 'evenOdd' });
    let [best, share] = [-1, 0];
    known.forEach((k, i) => {
      if (!meets(k.box, box)) return;
      k.lines ??= scannable({ path: k.path, rule: 'evenOdd' });
      const { both, a, b } = overlap(own, k.lines, box, k.box);
      if (!(both > 0)) return;
      const covers = both / Math.max(a, 1e-12);
      const lies = both / Math.max(b, 1e-12);
      if ((covers >= ENOUGH || lies >= ENOUGH) && covers > share) [best, share] = [i, covers];
    });
    if (best >= 0) used.add(best);
    return best;
  });
  const sizeOf = (k: number): number => {
    const own = scannable({ path: known[k].path, rule: 'evenOdd' });
    return overlap(own, own, known[k].box, known[k].box).a;
  };
  const largest = (): number => Math.max(...areas.map((_, k) => sizeOf(k)));
  // One that became part of another of its own paint is kept.
  const isKept = (k: number): boolean => {
    const { path, box } = known[k];
    const own = scannable({ path, rule: 'evenOdd' });
    const paint = JSON.stringify(areas[k].paint);
    if (sizeOf(k) < DUST * largest()) return true;
    return all.some((face, i) => {
      const faceBox = pathBounds(face.polygon);
      if (from[i] < 0 || !meets(faceBox, box) || JSON.stringify(areas[from[i]].paint) !== paint) return false;
      const { both, b } = overlap(scannable({ path: face.polygon, rule: 'evenOdd' }), own, faceBox, box);
      return both / b >= ENOUGH;
    });
  };
  return { from, lost: areas.flatMap((_, i) => (used.has(i) || isKept(i) ? [] : [i])) };
}

/** The areas of two regions and of what they share, measured on even lines over both. */
function overlap(
  p: ReturnType<typeof scannable>,
  q: ReturnType<typeof scannable>,
  boxP: Rect,
  boxQ: Rect,
): { readonly both: number; readonly a: number; readonly b: number } {
  const [y0, y1] = [Math.min(boxP.y0, boxQ.y0), Math.max(boxP.y1, boxQ.y1)];
  let [both, a, b] = [0, 0, 0];
  const length = (spans: readonly number[]) => {
    let sum = 0;
    for (let i = 0; i + 1 < spans.length; i += 2) sum += spans[i + 1] - spans[i];
    return sum;
  };
  for (let k = 0; k < LINES; k++) {
    const y = y0 + ((k + 0.5 + 1e-7) * (y1 - y0)) / LINES;
    const [sp, sq] = [spansAt(p, y), spansAt(q, y)];
    a += length(sp);
    b += length(sq);
    for (let i = 0; i + 1 < sp.length; i += 2)
      for (let j = 0; j + 1 < sq.length; j += 2)
        both += Math.max(0, Math.min(sp[i + 1], sq[j + 1]) - Math.max(sp[i], sq[j]));
  }
  const step = (y1 - y0) / LINES;
  return { both: both * step, a: a * step, b: b * step };
}
