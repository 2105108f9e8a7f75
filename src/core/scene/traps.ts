import type { Mix } from '../colour/mixing';
import type { Palette } from '../colour/palette';
import { combineFast } from '../geometry/boolean/combine';
import { boundsOf, NOTHING, type Region } from '../geometry/boolean/region';
import { pathContains } from '../geometry/contains';
import { contourArea, contoursOf, pathOfContours } from '../geometry/segments';
import { flatten, PathBuilder, type PathData } from '../geometry/path';
import { grow, intersect, isEmpty, overlaps, union, type Rect } from '../geometry/rect';
import { strokeOutline, type StrokeStyle } from '../geometry/stroke';
import type { Cmyk, Colour, Paint } from '../model/schema';
import { inksIn, overprints } from './overprints';
import { PlacedPath } from './placedPath';
import { bleedRect, isOwn, type Group, type Leaf, type Scene } from './scene';
import { walk, type Within } from './walk';

/** Two inks are told apart, and one is worth laying over the other, from this much on. */
const WORTH = 0.05;
/** Lines become areas with straight pieces that stay this near (points). */
const TOLERANCE = 0.04;
/** More things than this on a page are not looked at: the answer would not come in time. */
const MOST = 4000;

/** What lies where two flat colours meet, and what could not be looked at. */
export interface Traps {
  readonly parts: readonly Leaf[];
  /** Some of the page was left as it is: too much lies on it, or an edge could not be computed. */
  readonly partly: boolean;
}
const NONE: Traps = { parts: [], partly: false };

/** An area that knocks out what lies below it; of one flat mix of inks, or of what is not trapped (null). */
interface Ground {
  readonly leaf: Leaf;
  readonly within: Within;
  readonly bounds: Rect;
  readonly mix: Mix | null;
}

/** By palette: two states of a design that are held against each other share pages that did not change. */
const made = new WeakMap<Palette, WeakMap<Group, Traps>>();

/**
 * The overlaps of a page (traps): where two flat colours meet that share no ink to hide a gap, the lighter one is laid
 * over the darker by the palette's width, as areas that overprint. Lighter is what has the lower
 * neutral density, D = −log₁₀ Y (visual density, ISO 5-4; formula from memory). Gradients, pictures, and what is faded,
 * blended or masked are left as they are, and so is what prints in an opaque ink. Booleans must have been loaded.
 */
export function trapsOf(scene: Scene, palette: Palette): Traps {
  if (palette.screen || palette.trap <= 0) return NONE;
  let known = made.get(palette);
  if (!known) made.set(palette, (known = new WeakMap()));
  let traps = known.get(scene.root);
  if (!traps) known.set(scene.root, (traps = makeTraps(scene, palette)));
  return traps;
}

function makeTraps(scene: Scene, palette: Palette): Traps {
  const all = groundsOf(scene, palette);
  if (all.length > MOST) return { parts: [], partly: true };
  const parts: Leaf[] = [];
  let partly = false;
  for (const [i, lower] of all.entries()) {
    if (!lower.mix) continue;
    for (let j = i + 1; j < all.length; j++) {
      const upper = all[j];
      if (!upper.mix || !overlaps(grow(lower.bounds, 0.01), upper.bounds) || !parting(lower.mix, upper.mix)) continue;
      const light = density(lower.mix, palette) <= density(upper.mix, palette) ? lower : upper;
      const dark = light === lower ? upper : lower;
      const laid = contact(lower, upper, light, all, i, palette.trap);
      if (laid) for (const region of laid) parts.push(...areasOf(light, dark.mix!, region, palette));
      else partly = true;
    }
  }
  return { parts, partly };
}

/**
 * Where the lighter of two is laid over the darker: along the upper one's edge as far as the lower one lies there, both
 * sides of it (over the lighter one it changes nothing), without what lies over either. Two that only touch side by
 * side meet at the lighter one's edge. It is told piece by piece of the upper one: letters of a line have nothing to do
 * with each other. Null where it could not be told.
 */
function contact(
  lower: Ground,
  upper: Ground,
  light: Ground,
  all: readonly Ground[],
  at: number,
  trap: number,
): Region[] | null {
  const [below, above] = [areaOf(lower), areaOf(upper)];
  if (!below || !above) return null;
  const made: Region[] = [];
  const lay = (edge: Region, within: Region): boolean => {
    const band: Region = { path: strokeOutline(fewer(edge.path), bandOf(trap), TOLERANCE), rule: 'nonZero' };
    let laid = cutTo(band, within);
    let cuts = 0;
    for (let k = at + 1; laid?.path.length && k < all.length; k++) {
      const other = all[k];
      if (other === upper || !overlaps(other.bounds, boundsOf(laid))) continue;
      const cut = ++cuts > MOST_CUTS ? null : areaOf(other);
      laid = cut && cutOut(laid, cut);
    }
    if (laid?.path.length) made.push(laid);
    return laid !== null;
  };
  const apart: Region[] = [];
  for (const piece of piecesOf(above)) {
    const box = grow(boundsOf(piece), trap);
    const side = sideOf(below, box);
    if (side === 'out') continue;
    if (light === lower && side === 'crosses') {
      const shared = combineFast(below, piece, 'intersect');
      if (!shared) return null;
      if (sizeOf(shared) < TOUCHING) {
        apart.push(piece);
        continue;
      }
    }
    if (!lay(piece, below)) return null;
  }
  for (const piece of apart)
    for (const own of piecesOf(below))
      if (overlaps(grow(boundsOf(own), trap), boundsOf(piece)) && !lay(own, piece)) return null;
  return made;
}

/** A path of straight lines that keep near: an edge that was grown has thousands, and each costs. */
function fewer(path: PathData): PathData {
  const out = new PathBuilder();
  for (const { points, closed } of flatten(path, TOLERANCE / 2)) {
    const n = points.length / 2;
    out.moveTo(points[0], points[1]);
    for (let from = 0, to = 2; from < n - 1; to++) {
      if (to < n && to - from < LONGEST && isNear(points, from, to)) continue;
      from = to - 1;
      out.lineTo(points[2 * from], points[2 * from + 1]);
    }
    if (closed) out.close();
  }
  return out.data;
}
/** So many points are taken together at most. */
const LONGEST = 64;

/** Do all points between two lie near the line that joins them? */
function isNear(points: readonly number[], from: number, to: number): boolean {
  const [x, y] = [points[2 * from], points[2 * from + 1]];
  const [dx, dy] = [points[2 * to] - x, points[2 * to + 1] - y];
  const length = Math.hypot(dx, dy);
  for (let i = from + 1; i < to; i++) {
    const [px, py] = [points[2 * i] - x, points[2 * i + 1] - y];
    const along = length ? (px * dx + py * dy) / length : 0;
    if (along < 0 || along > length || Math.abs(px * dy - py * dx) > TOLERANCE * length) return false;
  }
  return true;
}

/** Does a box lie in an area, out of it, or does an edge run through it? */
function sideOf(area: Region, box: Rect): 'in' | 'out' | 'crosses' {
  for (const { bounds } of segmentsOf(area)) if (overlaps(bounds, box)) return 'crosses';
  return pathContains(area.path, area.rule, { x: box.x0, y: box.y0 }) ? 'in' : 'out';
}
const cutTo = (what: Region, area: Region): Region | null => {
  const side = sideOf(area, boundsOf(what));
  return side === 'in' ? what : side === 'out' ? NOTHING : combineFast(what, area, 'intersect');
};
const cutOut = (what: Region, area: Region): Region | null => {
  const side = sideOf(area, boundsOf(what));
  return side === 'out' ? what : side === 'in' ? NOTHING : combineFast(what, area, 'subtract');
};

const segments = new WeakMap<Region, readonly { readonly bounds: Rect }[]>();
function segmentsOf(r: Region): readonly { readonly bounds: Rect }[] {
  let known = segments.get(r);
  if (!known) {
    known = contoursOf(r.path).flatMap((c) => {
      const [first, last] = [c.segments[0], c.segments[c.segments.length - 1]];
      const all = c.segments.map((q) => ({ bounds: boxOf([q.x0, q.x1, q.x2, q.x3], [q.y0, q.y1, q.y2, q.y3]) }));
      // Fills see open contours closed.
      return [...all, { bounds: boxOf([last.x3, first.x0], [last.y3, first.y0]) }];
    });
    segments.set(r, known);
  }
  return known;
}
const boxOf = (x: readonly number[], y: readonly number[]): Rect => ({
  x0: Math.min(...x),
  y0: Math.min(...y),
  x1: Math.max(...x),
  y1: Math.max(...y),
});

const pieces = new WeakMap<Region, readonly Region[]>();
/** An area in parts whose boxes lie apart: each letter of a line, with its holes. */
function piecesOf(r: Region): readonly Region[] {
  const known = pieces.get(r);
  if (known) return known;
  const groups: { box: Rect; contours: ReturnType<typeof contoursOf>[number][] }[] = [];
  for (const contour of contoursOf(r.path)) {
    let own = { box: boundsOf({ path: pathOfContours([contour]), rule: r.rule }), contours: [contour] };
    for (let i = groups.length - 1; i >= 0; i--) {
      if (!overlaps(grow(groups[i].box, 0.01), own.box)) continue;
      const [met] = groups.splice(i, 1);
      own = { box: union(met.box, own.box), contours: [...met.contours, ...own.contours] };
      // What is larger now may meet more.
      i = groups.length;
    }
    groups.push(own);
  }
  const made = groups.map(({ contours }) => ({ path: pathOfContours(contours), rule: r.rule }));
  pieces.set(r, made);
  return made;
}

/** So small an area (points²) in common is only the roundness of edges that meet. */
const TOUCHING = 0.5;
/** More things than this over one edge are not cut out of its trap: it is left undone. */
const MOST_CUTS = 200;
const sizeOf = (r: Region): number => Math.abs(contoursOf(r.path).reduce((sum, c) => sum + contourArea(c.segments), 0));

/** What knocks out, back to front, as far as it lies on the sheet. */
function groundsOf(scene: Scene, palette: Palette): Ground[] {
  const sheet = bleedRect(scene);
  const all: Ground[] = [];
  walk(scene.root, (leaf, within) => {
    let bounds = intersect(leaf.inkBounds, sheet);
    for (let w = within; w; w = w.outer) bounds = intersect(bounds, w.group.inkBounds);
    if (isEmpty(bounds) || overprints(leaf, palette)) return;
    all.push({ leaf, within, bounds, mix: flatMix(leaf, within, palette) });
  });
  return all;
}

/** The inks of what is one flat colour with nothing done to it, none of them opaque; null of all else. */
function flatMix(leaf: Leaf, within: Within, palette: Palette): Mix | null {
  if (leaf.paint.kind !== 'colour') return null;
  for (let w = within; w; w = w.outer) if (isOwn(w.group)) return null;
  const mix = palette.mix(leaf.paint.colour);
  return palette.inks.some((ink, i) => ink.opaque && mix[4 + i] > 0) ? null : mix;
}

/** Does each have an ink that the other lacks? Only then paper could show between them. */
const parting = (a: Mix, b: Mix): boolean =>
  inksIn(a) > 0 && inksIn(b) > 0 && a.some((v, i) => v - b[i] >= WORTH) && a.some((v, i) => b[i] - v >= WORTH);

/** How dark a mix prints: −log₁₀ of its luminance. */
function density(mix: Mix, palette: Palette): number {
  const [L] = palette.labOfMix(mix);
  const f = (L + 16) / 116;
  const y = f > 6 / 29 ? f ** 3 : (108 / 841) * (f - 4 / 29);
  return -Math.log10(Math.max(1e-4, y));
}

/** The area of a ground, cut as its groups cut it; null where that cannot be told. */
const areas = new WeakMap<Ground, Region | null>();
function areaOf(g: Ground): Region | null {
  const known = areas.get(g);
  if (known !== undefined) return known;
  const { leaf } = g;
  const stroke = leaf.type === 'fill' ? null : leaf.stroke;
  let region: Region | null = stroke
    ? { path: strokeOutline(leaf.placed.path, stroke, TOLERANCE), rule: 'nonZero' }
    : { path: leaf.placed.path, rule: leaf.type === 'fill' ? leaf.rule : 'nonZero' };
  for (let w = g.within; w && region; w = w.outer)
    for (const clip of w.group.clips) {
      region = combineFast(region, clip, 'intersect');
      if (!region) break;
    }
  areas.set(g, region);
  return region;
}

const bandOf = (trap: number): StrokeStyle => ({ width: 2 * trap, cap: 'butt', join: 'round', miterLimit: 4 });

/** An overlap in the inks that the lighter one has more of: those of process together, each spot by itself. */
function areasOf(light: Ground, dark: Mix, { path, rule }: Region, palette: Palette): Leaf[] {
  if (!path.length) return [];
  const more = light.mix!.map((v, i) => (v - dark[i] >= WORTH ? v : 0));
  const colours: Colour[] = [];
  if (more.slice(0, 4).some((v) => v > 0)) {
    const [c, m, y, k] = more;
    colours.push({ cmyk: [c, m, y, k] satisfies Cmyk });
  }
  palette.inks.forEach((ink, i) => {
    if (more[4 + i] > 0) colours.push({ ink: ink.id, tint: more[4 + i] });
  });
  const placed = PlacedPath.onPage(path);
  const { node } = light.leaf;
  return colours.map((colour) => ({
    type: 'fill',
    node,
    fixed: true,
    rule,
    inkBounds: placed.bounds,
    paintBounds: placed.bounds,
    paint: { kind: 'colour', colour, overprint: true } satisfies Paint,
    matrix: placed.toPage,
    placed,
  }));
}
