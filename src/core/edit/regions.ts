import { isTrapped, regionsIn, TRAP } from '../derive/regions';
import { outlineOf } from '../model/defaults';
import type { Matrix } from '../geometry/matrix';
import type { Design, DesignNode, NodeOf, Page, Paint } from '../model/schema';
import { holdersOf, type NodeId } from '../model/tree';
import type { FontBook } from '../text/fonts';
import { before, plain, type DesignDraft } from './history';
import { groupNodes } from './pile';
import { transformNodes } from './place';

type Group = NodeOf<'group'>;
/** Is it a group whose areas can be coloured? */
export const hasRegions = (n: DesignNode | undefined): n is Group => n?.kind === 'group' && n.regions !== undefined;

/** Has any group of the design areas that are coloured? */
export function anyRegions(d: Design): boolean {
  for (const id of holdersOf(d)) if (hasRegions(d.nodes[id])) return true;
  return false;
}

/** Takes objects through a map of the page, as `transformNodes` does: with what follows them. */
export const movedBy =
  (page: Page, ids: readonly NodeId[], map: Matrix) =>
  (d: DesignDraft): void =>
    transformNodes(d, page, ids, map);

/** Gathers objects into a group whose areas can be coloured; one that is such a group already stays. Answers its id. */
export function makeRegions(d: DesignDraft, page: Page, ids: readonly NodeId[], newId: () => string): NodeId | null {
  const [only] = ids;
  const node = ids.length === 1 ? d.nodes[only] : undefined;
  const id = node?.kind === 'group' ? only : groupNodes(d, page, ids, newId, 'Regions');
  const group = id ? d.nodes[id] : undefined;
  if (group?.kind === 'group') group.regions ??= { areas: [] };
  return id;
}

/** The areas of a group with the paints they have now. */
function settled(
  d: Design,
  node: Group,
  fonts: FontBook,
  paintOf: (face: number, paint: Paint | null) => Paint | null,
) {
  const { faces, from } = regionsIn(d, node, fonts);
  const areas = node.regions?.areas ?? [];
  return faces.flatMap((face, i) => {
    const paint = paintOf(i, from[i] >= 0 ? areas[from[i]].paint : null);
    return paint ? [{ paint, path: face.path }] : [];
  });
}

/** Gives areas of a group a paint, or (null) takes it from them. Areas by their number in `regionsIn`. */
export function paintAreas(
  d: DesignDraft,
  id: NodeId,
  which: ReadonlySet<number>,
  paint: Paint | null,
  fonts: FontBook,
): void {
  const node = plain(d.nodes[id]) as DesignNode;
  if (!hasRegions(node)) return;
  const areas = settled(plain(d) as Design, node, fonts, (i, old) => (which.has(i) ? paint : old));
  (d.nodes[id] as { regions?: unknown }).regions = { ...node.regions, areas };
}

/** How far ends of lines may lie apart and still enclose; nothing: they must meet. */
export function setGap(d: DesignDraft, id: NodeId, gap: number): void {
  const group = d.nodes[id];
  if (group.kind !== 'group' || !group.regions) return;
  if (gap > 0) group.regions.gap = gap;
  else delete group.regions.gap;
}

/**
 * After lines have changed: areas are what they are now, each with the paint it kept, so that the next change is held
 * against them. Answers how many coloured areas could not be kept.
 */
export function settleRegions(d: DesignDraft, was: Design, fonts: FontBook): number {
  let lost = 0;
  for (const id of holdersOf(was)) {
    if (!hasRegions(was.nodes[id])) continue;
    const now = d.nodes[id] as DesignNode | undefined;
    if (!now || !hasRegions(now) || !now.regions!.areas.length) continue;
    const design = plain(d) as Design;
    const node = design.nodes[id] as Group;
    const { faces, from, lost: gone } = regionsIn(design, node, fonts);
    // Nothing moved: every area is the very one that was coloured.
    const { areas } = node.regions!;
    const same = faces.every((f, i) => from[i] < 0 || areas[from[i]].path === f.path);
    if (same && !gone.length) continue;
    lost += gone.length;
    (d.nodes[id] as { regions?: unknown }).regions = {
      ...node.regions,
      areas: settled(design, node, fonts, (_, p) => p),
    };
  }
  return lost;
}

/**
 * Makes the coloured areas of a group shapes of their own, below its lines; neighbours share their edges. Answers their
 * ids.
 */
export function regionsToShapes(d: DesignDraft, id: NodeId, newId: () => string, fonts: FontBook): NodeId[] {
  const was = before(d);
  const node = was.nodes[id];
  if (!hasRegions(node)) return [];
  const shapes = settled(was, node, fonts, (_, p) => p).map(({ paint, path }, i): DesignNode => ({
    id: newId(),
    name: `Area ${i + 1}`,
    kind: 'path',
    transform: [1, 0, 0, 1, 0, 0],
    hidden: false,
    locked: false,
    path,
    fillRule: 'evenOdd',
    fills: [paint],
    // Its edge in its own paint, below it: where two meet, no paper shows between.
    outlines: isTrapped(paint) ? [{ ...outlineOf(paint, TRAP), join: 'round', miterLimit: 4, behind: true }] : [],
  }));
  const group = d.nodes[id];
  if (group.kind !== 'group') return [];
  for (const s of shapes) d.nodes[s.id] = s as DesignDraft['nodes'][string];
  group.children.unshift(...shapes.map((s) => s.id));
  delete group.regions;
  return shapes.map((s) => s.id);
}

/** The paint of each area of a group, in the order of `regionsIn`. */
export function paintsOfAreas(d: Design, node: Group, fonts: FontBook): readonly (Paint | null)[] {
  const { from } = regionsIn(d, node, fonts);
  return from.map((k) => (k >= 0 ? node.regions!.areas[k].paint : null));
}
