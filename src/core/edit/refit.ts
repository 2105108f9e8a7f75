import { boxIn, localBox } from '../derive/box';
import { IDENTITY, multiply, scaling, translation, type Matrix } from '../geometry/matrix';
import { centre, grow, isEmpty, overlaps, unionAll, type Rect } from '../geometry/rect';
import { resized } from '../model/defaults';
import type { Design, Page, Paint, Setup } from '../model/schema';
import { mastersOf, type NodeId } from '../model/tree';
import type { FontBook } from '../text/fonts';
import { mm } from '../units/length';
import { tryOut, type DesignDraft } from './history';
import { deletePages } from './pages';
import { mapPaints, scaleNodes, scalingAbout } from './place';

/** A format to fit a page to, points. */
export interface RefitTo extends Pick<Setup, 'width' | 'height'> {
  readonly name: string;
}
export interface RefitMaking {
  newId(): string;
  now(): string;
}

/** What comes so near to an edge of the page (a share of its side) belongs to it. */
const AT_EDGE = 0.15;
/** What has so much the same room on both sides (a share of the side) stands in the middle. */
const EVEN = 0.06;
/** What reaches so near to two facing edges covers all between them. */
const COVERS = mm(0.5);

/**
 * One page of a design in another format, as a design of its own. What covers the page covers the new one, with its bleed; a
 * line across it goes across; all else becomes smaller or larger as a whole by the smaller ratio of the sides, what touches
 * each other together, and stands at the edges or in the middle as it stood. Nothing that lay inside the trim leaves it.
 */
export function refit(d: Design, pageId: string, to: RefitTo, fonts: FontBook, make: RefitMaking): Design {
  const now = make.now();
  const alone = tryOut(d, (x) => {
    deletePages(
      x,
      d.pages.filter((p) => p.id !== pageId).map((p) => p.id),
    );
  });
  const setup = resized(alone.setup, to.width, to.height);
  const begun: Design = { ...alone, id: make.newId(), name: `${d.name}, ${to.name}`, created: now, modified: now };
  const [page] = begun.pages;
  return tryOut(begun, (x) => {
    for (const sheet of [...mastersOf(begun, page), page]) fitSheet(x, begun, sheet, setup, fonts);
    Object.assign(x.setup, structuredClone(setup));
    delete x.setup.facing;
  });
}

/** What belongs together on a sheet: what covers it, and clusters of what touches. */
interface Cluster {
  readonly ids: readonly NodeId[];
  readonly box: Rect;
  /** Those of it that go from one side of the page to the other. */
  readonly across: readonly NodeId[];
  readonly upright: readonly NodeId[];
}

function fitSheet(x: DesignDraft, d: Design, sheet: Page, to: Setup, fonts: FontBook): void {
  const { width, height } = d.setup;
  const k = Math.min(to.width / width, to.height / height);
  const boxes = new Map(sheet.children.map((id) => [id, boxIn(d, id, IDENTITY, fonts)]));
  const plain = (id: NodeId) => d.nodes[id].kind === 'shape' || d.nodes[id].kind === 'path';
  const spans = (a: number, b: number, side: number) => a <= COVERS && b >= side - COVERS;
  const wide = (id: NodeId) => spans(boxes.get(id)!.x0, boxes.get(id)!.x1, width);
  const high = (id: NodeId) => spans(boxes.get(id)!.y0, boxes.get(id)!.y1, height);
  const covers = sheet.children.filter((id) => plain(id) && wide(id) && high(id));
  for (const id of covers) stretchOver(x, sheet, id, boxes.get(id)!, d.setup, to, fonts);
  const rest = sheet.children.filter((id) => !covers.includes(id));
  for (const cluster of clustersOf(rest, boxes)) {
    const across = cluster.ids.filter((id) => plain(id) && wide(id));
    const upright = cluster.ids.filter((id) => plain(id) && high(id));
    place(x, sheet, { ...cluster, across, upright }, d.setup, to, k, boxes);
  }
  const draft = sheetOf(x, sheet.id);
  if (draft.guides)
    draft.guides = draft.guides.map((g) => ({
      ...g,
      at: g.at * (g.axis === 'x' ? to.width / width : to.height / height),
    }));
  if (draft.pattern) draft.pattern.size = Math.min(4000, Math.max(2, draft.pattern.size * k));
}

const sheetOf = (x: DesignDraft, id: string): DesignDraft['pages'][number] =>
  [...x.pages, ...(x.masters ?? [])].find((p) => p.id === id)!;

/** Takes what covers a page to where it covers the new one; pictures in it stay undistorted and fill it. */
function stretchOver(
  x: DesignDraft,
  sheet: Page,
  id: NodeId,
  box: Rect,
  from: Setup,
  to: Setup,
  fonts: FontBook,
): void {
  // As far beyond the trim as it was, on each side.
  const target: Rect = {
    x0: box.x0,
    y0: box.y0,
    x1: to.width + (box.x1 - from.width),
    y1: to.height + (box.y1 - from.height),
  };
  const [sx, sy] = [(target.x1 - target.x0) / (box.x1 - box.x0), (target.y1 - target.y0) / (box.y1 - box.y0)];
  const map: Matrix = [sx, 0, 0, sy, target.x0 - box.x0 * sx, target.y0 - box.y0 * sy];
  scaleNodes(x, sheet, [id], map);
  const fill = Math.max(sx, sy);
  const about = centre(localBox(x as Design, (x as Design).nodes[id], fonts));
  const even = scalingAbout(fill / sx, fill / sy, about);
  mapPaints(x.nodes[id], (p: Paint) => (p.kind === 'picture' ? { ...p, geometry: multiply(even, p.geometry) } : p));
}

/** Objects whose boxes touch, directly or by others; those without extent by themselves. */
function clustersOf(
  ids: readonly NodeId[],
  boxes: ReadonlyMap<NodeId, Rect>,
): { readonly ids: readonly NodeId[]; readonly box: Rect }[] {
  const clusters: { ids: NodeId[]; box: Rect }[] = [];
  for (const id of ids) {
    const box = boxes.get(id)!;
    const near = isEmpty(box) ? [] : clusters.filter((c) => !isEmpty(c.box) && overlaps(grow(c.box, COVERS), box));
    const joined = { ids: [...near.flatMap((c) => c.ids), id], box: unionAll([...near.map((c) => c.box), box]) };
    for (const c of near) clusters.splice(clusters.indexOf(c), 1);
    clusters.push(joined);
  }
  return clusters;
}

/** Takes a cluster to its size and place, and what goes across it from side to side again. */
function place(
  x: DesignDraft,
  sheet: Page,
  { ids, box, across, upright }: Cluster,
  from: Setup,
  to: Setup,
  k: number,
  boxes: ReadonlyMap<NodeId, Rect>,
): void {
  if (isEmpty(box)) return;
  const dx = placed(box.x0, box.x1, from.width, to.width, k, across.length > 0);
  const dy = placed(box.y0, box.y1, from.height, to.height, k, upright.length > 0);
  const map = multiply(translation(dx, dy), scaling(k, k));
  for (const id of ids) x.nodes[id].transform = [...multiply(map, x.nodes[id].transform as Matrix)];
  for (const id of across) {
    const { x0, x1 } = boxes.get(id)!;
    const [now0, now1] = [x0 * k + dx, x1 * k + dx];
    // As far beyond the trim as it was.
    const [to0, to1] = [x0, to.width + (x1 - from.width)];
    const by = (to1 - to0) / (now1 - now0);
    scaleNodes(x, sheet, [id], [by, 0, 0, 1, to0 - now0 * by, 0]);
  }
  for (const id of upright) {
    const { y0, y1 } = boxes.get(id)!;
    const [now0, now1] = [y0 * k + dy, y1 * k + dy];
    const [to0, to1] = [y0, to.height + (y1 - from.height)];
    const by = (to1 - to0) / (now1 - now0);
    scaleNodes(x, sheet, [id], [1, 0, 0, by, 0, to0 - now0 * by]);
  }
}

/** How far a stretch a…b of a side is moved once it is `k` times as long: it keeps to the edge or the middle that it kept to. */
function placed(a: number, b: number, side: number, to: number, k: number, through: boolean): number {
  const [before, after] = [a, side - b];
  const size = (b - a) * k;
  let start: number;
  if (through || Math.abs(before - after) < EVEN * side) start = (to - size) / 2;
  else if (before < AT_EDGE * side && before < after) start = before * k;
  else if (after < AT_EDGE * side) start = to - after * k - size;
  else start = (((a + b) / 2) * to) / side - size / 2;
  // What lay inside stays inside.
  if (before >= 0 && after >= 0) start = Math.min(Math.max(0, start), to - size);
  return start - a * k;
}
