import { firstLetters } from '../model/textLooks';
import { ALIKE_TOLERANCE } from '../model/defaults';
import { coloursOf } from '../model/paints';
import { deltaE00 } from '../colour/compare';
import type { Palette } from '../colour/palette';
import type { Colour, Design, DesignNode, Outline, Page, Paint } from '../model/schema';
import { childrenOf, isLocked, type NodeId } from '../model/tree';
import { isText } from '../derive/layout';
import { paintAt } from './aims';

/** What must be alike. Several at once: all of them. */
export type AlikeBy = 'fill' | 'outline' | 'weight' | 'kind' | 'opacity' | 'name';

/** The colours a paint shows: one of a flat colour, all of a gradient. */
function shownColours(d: Design, p: Paint | undefined, palette: Palette): readonly Colour[] | null {
  if (!p || p.kind === 'none') return null;
  return p.kind === 'gradient' ? palette.rampSource(p.ramp).stops.map((x) => x.colour) : coloursOf(p);
}

function paintsAlike(
  d: Design,
  a: Paint | undefined,
  b: Paint | undefined,
  palette: Palette,
  tolerance: number,
): boolean {
  const [x, y] = [shownColours(d, a, palette), shownColours(d, b, palette)];
  if (!x || !y) return x === y;
  if (a!.kind !== b!.kind || x.length !== y.length) return false;
  return x.every((c, i) => deltaE00(palette.labOf(c), palette.labOf(y[i])) <= tolerance + 1e-9);
}

/** The letters' paint stands for the fill of a text. */
const fillOf = (d: Design, n: DesignNode): Paint | undefined => paintAt(d, n.id, isText(n) ? 'letters' : 'fill');
const outlineOf = (d: Design, n: DesignNode): Paint | undefined =>
  paintAt(d, n.id, isText(n) ? 'letterOutline' : 'outline');
function lineOf(d: Design, n: DesignNode): Outline | undefined {
  if (isText(n)) return firstLetters(d, d.stories[n.story]).outline ?? undefined;
  const line = 'outlines' in n ? n.outlines[n.outlines.length - 1] : undefined;
  return line && line.paint.kind !== 'none' ? line : undefined;
}

/** The opacities in what a node is painted with; absent ones are full. */
function opacitiesOf(n: DesignNode, palette: Palette): string {
  if (!('fills' in n)) return '1';
  const of = (p: Paint): number =>
    p.kind === 'gradient'
      ? Math.min(...palette.rampSource(p.ramp).stops.map((s) => s.opacity ?? 1))
      : p.kind === 'pools'
        ? Math.min(...p.pools.map((x) => x.opacity ?? 1))
        : 1;
  return [...n.fills, ...n.outlines.map((o) => o.paint)].map((p) => of(p).toFixed(2)).join();
}

const kindOf = (n: DesignNode): string =>
  n.kind === 'shape' ? `shape ${n.shape}` : n.kind === 'combination' ? `combination ${n.op}` : n.kind;

/**
 * Objects of a page that are like any of the given ones in every way asked; these are among them. Locked and hidden
 * ones are left out.
 */
export function alikeNodes(
  d: Design,
  page: Page,
  like: readonly NodeId[],
  by: readonly AlikeBy[],
  palette: Palette,
  tolerance = ALIKE_TOLERANCE,
): NodeId[] {
  const patterns = like.map((id) => d.nodes[id]).filter(Boolean);
  if (!patterns.length || !by.length) return [];
  const alike = (a: DesignNode, b: DesignNode, way: AlikeBy): boolean => {
    switch (way) {
      case 'fill':
        return paintsAlike(d, fillOf(d, a), fillOf(d, b), palette, tolerance);
      case 'outline':
        return paintsAlike(d, outlineOf(d, a), outlineOf(d, b), palette, tolerance);
      case 'weight':
        // A hundredth of a millimetre is no other weight.
        return Math.abs((lineOf(d, a)?.width ?? 0) - (lineOf(d, b)?.width ?? 0)) <= 0.03;
      case 'kind':
        return kindOf(a) === kindOf(b);
      case 'opacity':
        return opacitiesOf(a, palette) === opacitiesOf(b, palette);
      case 'name':
        return a.name.trim().toLowerCase() === b.name.trim().toLowerCase();
    }
  };
  const groups =
    by.includes('kind') || by.includes('name')
      ? patterns.some((p) => p.kind === 'group' || p.kind === 'repeat')
      : false;
  const out: NodeId[] = [];
  const visit = (id: NodeId) => {
    const node = d.nodes[id];
    if (node.hidden || isLocked(d, page, id)) return;
    const holder = node.kind === 'group' || node.kind === 'repeat';
    if (!holder || groups) if (patterns.some((p) => by.every((way) => alike(p, node, way)))) out.push(id);
    // Operands of a combination are not seen: the combination is.
    if (holder || (node.kind === 'combination' && node.op === 'divide')) childrenOf(node).forEach(visit);
  };
  page.children.forEach(visit);
  return out;
}

/** All objects where one works that are not chosen. */
export function inverseOf(d: Design, page: Page, chosen: readonly NodeId[], inside: NodeId | null): NodeId[] {
  const holder = inside ? d.nodes[inside] : null;
  const ids = holder ? childrenOf(holder) : page.children;
  return ids.filter((id) => !chosen.includes(id) && !d.nodes[id].hidden && !isLocked(d, page, id));
}
