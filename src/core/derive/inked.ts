import { combineAll, simplified } from '../geometry/boolean/combine';
import { NOTHING, type Region } from '../geometry/boolean/region';
import { IDENTITY, invert, multiply, type Matrix } from '../geometry/matrix';
import { transformPath } from '../geometry/path';
import { strokeCurves } from '../geometry/strokeCurves';
import { taperedLine } from '../geometry/taper';
import { copyMatrices } from '../model/copies';
import type { Design, DesignNode, Outline } from '../model/schema';
import { runsIn } from '../model/textLooks';
import type { NodeId } from '../model/tree';
import { outlinePath } from '../shapes/outline';
import type { FontBook } from '../text/fonts';
import { areaOf } from './area';
import { contoursOf } from './contours';
import { layDepth } from './depth';
import { framePath } from './frame';
import { isText } from './layout';
import { layLine, type LaidLine } from './lines';

/** A line that became an area strays no further from the true one than this, in points. */
const FINE = 0.005;

/** What a laid line covers, without a contour that crosses another; null where no engine could do it rightly. */
export function bandOf({ path, toPage, stroke, rule }: LaidLine): Region | null {
  const placed = toPage === IDENTITY ? path : transformPath(path, toPage);
  const made = simplified(
    stroke ? { path: strokeCurves(placed, stroke, FINE), rule: 'nonZero' } : { path: placed, rule },
  );
  return made.ok || made.share < MAY_DIFFER ? made.region : null;
}
const MAY_DIFFER = 1e-3;

/**
 * All that is seen of an object in its own space: where it is filled, its lines, its letters; effects left out.
 * `unsure`: some of it could not be computed rightly.
 */
export function inkedArea(
  d: Design,
  id: NodeId,
  fonts: FontBook,
  /** From the object's space to the page: the way it is pushed back is the page's. */
  toPage: Matrix = IDENTITY,
): { readonly region: Region; readonly unsure: boolean } {
  const node = d.nodes[id];
  let unsure = false;
  const parts: Region[] = [];
  const take = (r: Region | null) => {
    if (r) parts.push(r);
    else unsure = true;
  };
  if (node.kind === 'group' || node.kind === 'repeat') {
    const held = node.children.filter((c) => !d.nodes[c].hidden);
    const areaIn = (c: NodeId): Region => {
      const made = inkedArea(d, c, fonts, multiply(toPage, d.nodes[c].transform));
      unsure ||= made.unsure;
      return { path: transformPath(made.region.path, d.nodes[c].transform), rule: made.region.rule };
    };
    const coloured =
      node.kind === 'group' && node.regions?.areas.length
        ? node.regions.areas.map(({ path }): Region => ({ path, rule: 'evenOdd' }))
        : [];
    const seen = combineAll([...coloured, ...held.filter((c) => !d.nodes[c].maskMode).map(areaIn)], 'union');
    const masks = held.filter((c) => d.nodes[c].maskMode).map((c) => areaIn(c));
    const cut = masks.length ? combineAll([seen.region, ...masks], 'intersect') : seen;
    unsure ||= !seen.ok || !cut.ok;
    if (node.kind === 'group') return { region: cut.region, unsure };
    for (const m of copyMatrices(node.arrangement))
      parts.push({ path: transformPath(cut.region.path, m), rule: cut.region.rule });
  } else {
    const lines = linesOf(d, node);
    const edge = edgeOf(d, node, fonts);
    const back = invert(toPage);
    if ('depth' in node && node.depth && back) {
      const face = isText(node) ? areaOf(d, id, fonts).region : edge;
      for (const laid of face ? layDepth(face, toPage, toPage, node.depth) : []) {
        const band = bandOf(laid);
        take(band && { path: transformPath(band.path, back), rule: band.rule });
      }
    }
    if (isText(node)) {
      const letters = areaOf(d, id, fonts).region;
      parts.push(letters);
      for (const o of lines) for (const laid of laidOn(letters, o)) take(bandOf(laid));
    }
    if (edge && 'fills' in node) {
      if (node.fills.some((p) => p.kind !== 'none')) parts.push(edge);
      if (node.kind === 'path' && node.widths) {
        const width = Math.max(0, ...node.outlines.map((o) => (o.paint.kind === 'none' ? 0 : o.width)));
        const made = simplified({ path: taperedLine(contoursOf(node), width), rule: 'nonZero' });
        take(made.ok ? made.region : null);
      } else for (const o of node.outlines) for (const laid of laidOn(edge, o)) take(bandOf(laid));
    }
  }
  const all = combineAll(parts, 'union');
  return { region: all.region, unsure: unsure || !all.ok };
}

const laidOn = ({ path, rule }: Region, o: Outline): LaidLine[] =>
  layLine({ path, toPage: IDENTITY, rule, matrix: IDENTITY }, o);

/** The lines of all letters of a text. */
function linesOf(d: Design, node: DesignNode): readonly Outline[] {
  if (!isText(node)) return [];
  const own = runsIn(d, d.stories[node.story]).flatMap((r) => (r.outline ? [r.outline] : []));
  const widest = own.reduce<Outline | null>((w, o) => (w && w.width >= o.width ? w : o), null);
  return [...(node.letterOutlines ?? []), ...(widest ? [widest] : [])];
}

/** What the fills and outlines of an object go by; null for what has none. */
function edgeOf(d: Design, node: DesignNode, fonts: FontBook): Region | null {
  if (node.kind === 'shape' || node.kind === 'path') return outlinePath(node);
  if (node.kind === 'textFrame') return framePath(node);
  if (node.kind === 'combination') return areaOf(d, node.id, fonts).region;
  return node.kind === 'displayText' ? null : NOTHING;
}
