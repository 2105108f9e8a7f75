import { areaOf } from '../derive/area';
import { inkedArea } from '../derive/inked';
import { isText } from '../derive/layout';
import { combineAll } from '../geometry/boolean/combine';
import { piecesOf } from '../geometry/boolean/pieces';
import type { Region } from '../geometry/boolean/region';
import { IDENTITY, invert, multiply, type Matrix } from '../geometry/matrix';
import { offsetCurves } from '../geometry/offsetCurves';
import { transformPath } from '../geometry/path';
import { contoursOf, pathOfContours } from '../geometry/segments';
import type { LineJoin } from '../geometry/stroke';
import { colourPaint, NO_PAINT, outlineOf } from '../model/defaults';
import { firstLetters } from '../model/textLooks';
import type { Colour, Design, DesignNode, Ink, NodeOf, Page } from '../model/schema';
import { pageMatrix, parentMatrix, topmost, type NodeId } from '../model/tree';
import { mm } from '../units/length';
import type { FontBook } from '../text/fonts';
import { before, type DesignDraft } from './history';
import { putBeside, replaceNode } from './pile';
import { addSpot } from './swatches';

/** How far an edge is moved: points of the page, outwards; below nothing, inwards. */
export interface EdgeShift {
  readonly by: number;
  readonly join: LineJoin;
}
/** Pointed corners reach so many times as far as the edge is moved, at most; sharper ones are cut. */
const MITER = 4;
/** A moved edge strays no further from the true one than this, in points. */
const FINE = 0.005;

const shifted = (r: Region, { by, join }: EdgeShift): Region | null => {
  const made = offsetCurves(r, by, { join, miterLimit: MITER }, FINE);
  return made.ok ? made.region : null;
};

/** Can an edge of it be moved? */
export const hasEdge = (n: DesignNode): boolean =>
  n.kind === 'shape' || n.kind === 'path' || n.kind === 'combination' || n.kind === 'displayText' || n.kind === 'group';

/**
 * Copies of objects with their edges moved, `steps` of them, each as far from the one before, painted as the object is;
 * in front of it, behind it (the widest lowest), or instead of it (then one step). Answers the new ids, and how many
 * could not be made: nothing was left of them, or no engine could do it rightly.
 */
export function offsetNodes(
  d: DesignDraft,
  page: Page,
  ids: readonly NodeId[],
  shift: EdgeShift & { readonly steps: number; readonly place: 'inFront' | 'behind' | 'instead' },
  newId: () => string,
  fonts: FontBook,
): { readonly ids: readonly NodeId[]; readonly failed: number } {
  const was = before(d);
  const out: NodeId[] = [];
  let failed = 0;
  for (const id of topmost(was, page, ids)) {
    const node = was.nodes[id];
    if (!hasEdge(node)) continue;
    const [a, b, c, e] = pageMatrix(was, page, id);
    const toPage: Matrix = [a, b, c, e, 0, 0];
    const back = invert(toPage);
    if (!back) continue;
    const own = areaOf(was, id, fonts).region;
    const area = { path: transformPath(own.path, toPage), rule: own.rule };
    const steps = shift.place === 'instead' ? 1 : shift.steps;
    for (let k = 1; k <= steps; k++) {
      const region = shifted(area, { ...shift, by: shift.by * k });
      if (!region?.path.length) {
        failed++;
        continue;
      }
      const made: DesignNode = {
        id: newId(),
        name: `${node.name || 'Shape'}, edge moved`,
        kind: 'path',
        transform: node.transform,
        hidden: false,
        locked: false,
        path: transformPath(region.path, back),
        fillRule: region.rule,
        ...paintsOf(was, node),
      };
      out.push(made.id);
      if (shift.place === 'instead') replaceNode(d, page, id, [made]);
      // Behind, each next one goes below the last; in front, over it.
      else putBeside(d, page, k === 1 ? id : out[out.length - 2], made, shift.place);
    }
  }
  return { ids: out, failed };
}

function paintsOf(d: Design, node: DesignNode): Pick<NodeOf<'path'>, 'fills' | 'outlines'> {
  if (isText(node)) {
    const { fill } = firstLetters(d, d.stories[node.story]);
    // What each letter had to itself does not lie over all of them.
    const whole = fill.kind === 'gradient' && fill.eachLetter ? NO_PAINT : fill;
    return { fills: [whole], outlines: [] };
  }
  if ('fills' in node) return { fills: node.fills, outlines: node.outlines };
  return { fills: [colourPaint({ cmyk: [0, 0, 0, 0.3] })], outlines: [] };
}

/** What an edge all round is for. */
export type EdgeUse = 'backing' | 'cutLine' | 'underlay';
/**
 * The spot inks that a cutter's line and a white below all else are drawn in; they print over everything and hide
 * nothing. Stand-ins: common practice.
 */
export const EDGE_INKS: Readonly<Record<Exclude<EdgeUse, 'backing'>, Omit<Ink, 'id'>>> = {
  cutLine: { name: 'Cut line', lab: [48, 74, -3], alternate: [0, 1, 0, 0], overprints: true },
  underlay: { name: 'White underlay', lab: [100, 0, 0], alternate: [0, 0, 0, 0], overprints: true },
};
const CUT_WEIGHT = mm(0.25);

/**
 * All that is seen of objects together, grown, on the page; null where nothing is left or no engine could do it
 * rightly.
 */
function allRound(
  d: Design,
  page: Page,
  ids: readonly NodeId[],
  shift: EdgeShift & { readonly fillHoles: boolean },
  fonts: FontBook,
): Region | null {
  const parts = topmost(d, page, ids).map((id) => {
    const toPage = pageMatrix(d, page, id);
    const { region } = inkedArea(d, id, fonts, toPage);
    return { path: transformPath(region.path, toPage), rule: region.rule };
  });
  const all = combineAll(parts, 'union');
  const grown = all.ok ? shifted(all.region, shift) : null;
  if (!grown?.path.length) return null;
  if (!shift.fillHoles) return grown;
  // Of each piece its outer edge, which stands first.
  const outer = piecesOf(grown).flatMap((p) => pathOfContours(contoursOf(p.path).slice(0, 1)));
  return { path: outer, rule: 'nonZero' };
}

/**
 * An edge all round objects: as a backing behind them in a colour, as a line to cut along in front of them, or as white
 * to be printed below them (in front too, where it overprints: behind, the art would cut it out). Answers its id, or
 * null.
 */
export function addAllRound(
  d: DesignDraft,
  page: Page,
  ids: readonly NodeId[],
  shift: EdgeShift & { readonly fillHoles: boolean; readonly use: EdgeUse; readonly colour: Colour },
  newId: () => string,
  fonts: FontBook,
): NodeId | null {
  const was = before(d);
  const top = topmost(was, page, ids);
  const region = allRound(was, page, ids, shift, fonts);
  if (!region || !top.length) return null;
  // Light hides what lies behind it: there white goes below.
  const below = shift.use === 'backing' || (shift.use === 'underlay' && was.setup.medium === 'screen');
  const ref = below ? top[0] : top[top.length - 1];
  const back = invert(parentMatrix(was, page, ref)) ?? IDENTITY;
  const screen = was.setup.medium === 'screen';
  const ink = (use: Exclude<EdgeUse, 'backing'>): Colour =>
    screen
      ? { rgb: use === 'cutLine' ? [0.9, 0, 0.5] : [1, 1, 1] }
      : { swatch: addSpot(d, EDGE_INKS[use], newId), tint: 1 };
  const paints = {
    backing: () => ({ fills: [colourPaint(shift.colour)], outlines: [] }),
    cutLine: () => ({ fills: [], outlines: [outlineOf(colourPaint(ink('cutLine'), !screen), CUT_WEIGHT)] }),
    underlay: () => ({ fills: [colourPaint(ink('underlay'), !screen)], outlines: [] }),
  }[shift.use]();
  const node: DesignNode = {
    id: newId(),
    name: { backing: 'Backing', cutLine: 'Cut line', underlay: 'White underlay' }[shift.use],
    kind: 'path',
    transform: IDENTITY,
    hidden: false,
    locked: false,
    path: transformPath(region.path, multiply(back, IDENTITY)),
    fillRule: region.rule,
    ...paints,
  };
  putBeside(d, page, ref, node, below ? 'behind' : 'inFront');
  return node.id;
}
