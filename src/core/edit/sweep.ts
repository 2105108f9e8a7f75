import type { RampSource } from '../colour/ramp';
import { multiply } from '../geometry/matrix';
import { centre, unionAll, type Rect } from '../geometry/rect';
import type { Design, GradientPaint, Page, PoolsPaint, Ramp } from '../model/schema';
import { pageMatrix, parentMatrix, type NodeId } from '../model/tree';
import type { FontBook } from '../text/fonts';
import { boxIn, localBox } from '../derive/box';
import { firstGradient, geometryBetween, geometryOnPage, matchedStops } from './gradient';
import { before, type DesignDraft } from './history';
import { aimedNodes, paintAt, type Aim } from './aims';
import { rampOf, setPaint } from './paint';
import { setRamp } from './swatches';

/** Writes a ramp where it is kept: in its swatch, where all users follow, or in the gradients of the aimed parts. */
export function writeRamp(
  d: DesignDraft,
  ids: readonly NodeId[],
  aim: Aim,
  kept: Ramp,
  { stops, mixing }: RampSource,
): void {
  if ('swatch' in kept) setRamp(d, kept.swatch, { stops, mixing });
  else
    setPaint(d, ids, aim, (old) =>
      old.kind === 'gradient' ? { ...old, ramp: { stops, ...(mixing && { mixing }) } } : old,
    );
}

type Placed = GradientPaint | PoolsPaint;
const isPlaced = (p: ReturnType<typeof paintAt>): p is Placed => p?.kind === 'gradient' || p?.kind === 'pools';

/** Gives the aimed parts one gradient whose geometry is meant on the page, so that it runs through all of them. */
export function paintOnPage(d: DesignDraft, page: Page, ids: readonly NodeId[], aim: Aim, paint: Placed): void {
  const design = before(d);
  setPaint(d, ids, aim, (old, id) => {
    const geometry = geometryOnPage(paint.geometry, pageMatrix(design, page, id));
    return geometry
      ? { ...plain(paint), geometry, overprint: old.kind === 'none' ? paint.overprint : old.overprint }
      : old;
  });
}

/** A gradient that lies over the whole shape; what only makes sense on one line or in one letter is left behind. */
function plain(paint: Placed): Placed {
  if (paint.kind === 'pools') return paint;
  const { strokeMapping: _line, thereAndBack: _back, eachLetter: _each, ...rest } = paint;
  return rest;
}

/** The first of some objects that has a gradient. */
function leading(
  design: Design,
  nodes: readonly NodeId[],
  aim: Aim,
): { readonly lead: NodeId; readonly paint: Placed } | null {
  for (const lead of nodes) {
    const paint = paintAt(design, lead, aim);
    if (isPlaced(paint)) return { lead, paint };
  }
  return null;
}

/**
 * The gradient of the first object, stretched over the box of all of them, as one sweep. Answers whether there was one.
 */
export function sweepOver(d: DesignDraft, page: Page, ids: readonly NodeId[], aim: Aim, fonts: FontBook): boolean {
  const design = before(d);
  const nodes = aimedNodes(design, ids, aim);
  const first = leading(design, nodes, aim);
  if (!first) return false;
  const { lead, paint } = first;
  const box = (id: NodeId): Rect => boxIn(design, id, parentMatrix(design, page, id), fonts);
  const all = unionAll(nodes.map(box));
  const onPage = multiply(pageMatrix(design, page, lead), paint.geometry);
  const from = paint.kind === 'gradient' && paint.eachLetter ? all : box(lead);
  paintOnPage(d, page, ids, aim, { ...paint, geometry: geometryBetween(onPage, from, all) });
  return true;
}

/** One sweep over several objects becomes another kind of gradient, and stays one over the box of all of them. */
export function sweepBecomes(
  d: DesignDraft,
  page: Page,
  ids: readonly NodeId[],
  aim: Aim,
  kind: GradientPaint['gradient'],
  fonts: FontBook,
): void {
  const design = before(d);
  const nodes = aimedNodes(design, ids, aim);
  const first = leading(design, nodes, aim);
  if (first?.paint.kind !== 'gradient' || first.paint.gradient === kind) return;
  const { focus: _focus, ...rest } = first.paint;
  const all = unionAll(nodes.map((id) => boxIn(design, id, parentMatrix(design, page, id), fonts)));
  paintOnPage(d, page, ids, aim, { ...rest, gradient: kind, geometry: firstGradient(kind, all, [], false).geometry });
}

/**
 * The gradient of the first object given to each by itself: what it is to the first one's box, it is to every other's.
 */
export function eachByItself(d: DesignDraft, page: Page, ids: readonly NodeId[], aim: Aim, fonts: FontBook): boolean {
  const design = before(d);
  const nodes = aimedNodes(design, ids, aim);
  const first = leading(design, nodes, aim);
  if (!first) return false;
  const { lead, paint } = first;
  const from = localBox(design, design.nodes[lead], fonts);
  // A sweep reaches past its first object: each object then gets it from its own edge to its own edge.
  const all = unionAll(nodes.map((id) => boxIn(design, id, parentMatrix(design, page, id), fonts)));
  const swept = isSweep(design, page, nodes, aim);
  const geometry = swept
    ? geometryBetween(multiply(pageMatrix(design, page, lead), paint.geometry), all, from)
    : paint.geometry;
  setPaint(d, ids, aim, (old, id) => ({
    ...paint,
    geometry: geometryBetween(geometry, from, localBox(design, design.nodes[id], fonts)),
    overprint: old.kind === 'none' ? paint.overprint : old.overprint,
  }));
  return true;
}

/** Do the aimed parts share one gradient that runs through all of them? */
export function isSweep(design: Design, page: Page, nodes: readonly NodeId[], aim: Aim): boolean {
  if (nodes.length < 2) return false;
  const seen = nodes.map((id) => {
    const p = paintAt(design, id, aim);
    return isPlaced(p) ? { p, m: multiply(pageMatrix(design, page, id), p.geometry) } : null;
  });
  const [first] = seen;
  return (
    first !== null &&
    seen.every((x) => x !== null && sameLook(x.p, first.p) && x.m.every((v, i) => Math.abs(v - first.m[i]) < 1e-3))
  );
}

/** The same gradient but for where it lies. */
function sameLook(a: Placed, b: Placed): boolean {
  const key = (p: Placed) => JSON.stringify({ ...p, geometry: null, overprint: null });
  return key(a) === key(b);
}

/**
 * Each gradient's end becomes the start of the next, in the order the objects lie along the way from the first to the
 * last. A shared swatch is left as it is: the one that takes gets stops of its own. Answers how many were matched.
 */
export function matchEnds(d: DesignDraft, page: Page, ids: readonly NodeId[], aim: Aim, fonts: FontBook): number {
  const design = before(d);
  const nodes = inOrder(
    design,
    page,
    aimedNodes(design, ids, aim).filter((id) => paintAt(design, id, aim)?.kind === 'gradient'),
    fonts,
  );
  const ramp = (id: NodeId) => rampOf(design, paintAt(design, id, aim) as GradientPaint);
  let giving = nodes.length ? ramp(nodes[0]).stops : [];
  for (const id of nodes.slice(1)) {
    const { stops, mixing } = ramp(id);
    giving = matchedStops(giving, stops);
    writeOwn(d, id, aim, { stops: giving, mixing });
  }
  return Math.max(0, nodes.length - 1);
}

/** Gives one part a ramp of its own. */
function writeOwn(d: DesignDraft, id: NodeId, aim: Aim, { stops, mixing }: RampSource): void {
  setPaint(d, [id], aim, (old) =>
    old.kind === 'gradient' ? { ...old, ramp: { stops, ...(mixing && { mixing }) } } : old,
  );
}

/** From left to right, or from top to bottom where the objects lie more below than beside each other. */
function inOrder(design: Design, page: Page, nodes: readonly NodeId[], fonts: FontBook): NodeId[] {
  const places = nodes.map((id) => ({ id, ...centre(boxIn(design, id, parentMatrix(design, page, id), fonts)) }));
  const spread = (of: (p: (typeof places)[number]) => number) =>
    Math.max(...places.map(of)) - Math.min(...places.map(of));
  const across = spread((p) => p.x) >= spread((p) => p.y);
  return places.sort((a, b) => (across ? a.x - b.x : a.y - b.y)).map((p) => p.id);
}
