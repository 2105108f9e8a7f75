import { boxIn, localBox } from '../derive/box';
import { isText } from '../derive/layout';
import { IDENTITY, multiply, scaling, translation, type Matrix } from '../geometry/matrix';
import { centre, grow, intersect, isEmpty, overlaps, transformRect, unionAll, type Rect } from '../geometry/rect';
import { resized } from '../model/defaults';
import type { Design, Format, Page, Paint, Setup } from '../model/schema';
import { setupOn } from '../model/setupOn';
import { mastersOf, pageById, sheetsOf, withDescendants, type NodeId } from '../model/tree';
import type { FontBook } from '../text/fonts';
import { mm } from '../units/length';
import { tryOut, type DesignDraft } from './history';
import { changeSetup, deletePages } from './pages';
import { setFormat } from './sheetSetup';
import { mapPaints, scaleNodes, scalingAbout } from './place';

/** A format to fit a page to, points; not round unless it says so. */
export interface RefitTo extends Pick<Setup, 'width' | 'height'> {
  readonly name: string;
  readonly round?: boolean;
}
export interface RefitMaking {
  newId(): string;
  now(): string;
}

/** What comes so near to an edge of the page (a share of its side) belongs to it. */
const AT_EDGE = 0.15;
/** What has so much the same room on both sides (a share of the side) stands in the middle. */
const EVEN = 0.06;
/**
 * What is so many times as long as it is wide may be drawn out along it; other drawings no further one way than the
 * other than that.
 */
const BAND = 2;
const CROOKED = 1.3;
/** What reaches so near to two facing edges covers all between them. */
const COVERS = mm(0.5);

/**
 * One page of a design in another format, as a design of its own. What covers the page covers the new one, with its
 * bleed; a line across it goes across; all else becomes smaller or larger as a whole by the smaller ratio of the sides,
 * what touches each other together, and stands at the edges or in the middle as it stood. Nothing that lay inside the
 * trim leaves it; on a round format all of it stands within the square inside.
 */
export function refit(d: Design, pageId: string, to: RefitTo, fonts: FontBook, make: RefitMaking): Design {
  const now = make.now();
  const alone = tryOut(d, (x) => {
    deletePages(
      x,
      d.pages.filter((p) => p.id !== pageId).map((p) => p.id),
    );
  });
  const from = setupOn(alone, alone.pages[0]);
  const setup = { ...resized(from, to.width, to.height), round: to.round ?? false };
  const begun: Design = { ...alone, id: make.newId(), name: `${d.name}, ${to.name}`, created: now, modified: now };
  const [page] = begun.pages;
  return tryOut(begun, (x) => {
    for (const sheet of [...mastersOf(begun, page), page]) fitSheet(x, begun, sheet, from, setup, fonts);
    changeSetup(x, setup);
    delete x.setup.facing;
    delete x.pages[0].format;
  });
}

/**
 * All sheets of a design that have its format, masters too, fitted from the set-up that `was` has to another one: a
 * change of the design itself.
 */
export function fitSheets(x: DesignDraft, was: Design, to: Setup, fonts: FontBook): void {
  for (const sheet of sheetsOf(was)) if (!sheet.format) fitSheet(x, was, sheet, was.setup, to, fonts);
  changeSetup(x, to);
}

/**
 * What lies on one page, fitted from the format that it has in `was` to another one, points; its masters stay as they
 * are.
 */
export function fitPageTo(x: DesignDraft, was: Design, pageId: string, to: Format, fonts: FontBook): void {
  const page = pageById(was, pageId);
  if (!page) throw new Error(`unknown page: ${pageId}`);
  const from = setupOn(was, page);
  fitSheet(x, was, page, from, { ...from, ...to }, fonts);
  setFormat(x, pageId, to);
}

/** What touches on a sheet, and is taken to its place together. */
interface Cluster {
  readonly ids: readonly NodeId[];
  readonly box: Rect;
  /** Something in it goes from one side of the page to the other. */
  readonly across: boolean;
  readonly upright: boolean;
}

function fitSheet(x: DesignDraft, d: Design, sheet: Page, from: Setup, to: Setup, fonts: FontBook): void {
  const { width, height } = from;
  // In a round format all stands within the square that its circle holds.
  const inner = to.round && !from.round ? Math.min(to.width, to.height) * Math.SQRT1_2 : null;
  const into = inner === null ? to : { ...to, width: inner, height: inner };
  const k = Math.min(into.width / width, into.height / height);
  const shift = translation((to.width - into.width) / 2, (to.height - into.height) / 2);
  const boxes = new Map(sheet.children.map((id) => [id, boxIn(d, id, IDENTITY, fonts)]));
  // Words are not stretched one way.
  const plain = (id: NodeId): boolean => withDescendants(d, id).every((n) => !isText(d.nodes[n]));
  const spans = (a: number, b: number, side: number) => a <= COVERS && b >= side - COVERS;
  const wide = (id: NodeId) => spans(boxes.get(id)!.x0, boxes.get(id)!.x1, width);
  const high = (id: NodeId) => spans(boxes.get(id)!.y0, boxes.get(id)!.y1, height);
  const shape = (id: NodeId) => d.nodes[id].kind === 'shape' || d.nodes[id].kind === 'path';
  const straight = (id: NodeId): boolean => {
    const node = d.nodes[id];
    return node.kind === 'shape' && node.shape === 'rectangle';
  };
  const covers = sheet.children.filter((id) => shape(id) && wide(id) && high(id));
  for (const id of covers) stretchOver(x, sheet, id, boxes.get(id)!, from, to, fonts);
  const rest = sheet.children.filter((id) => !covers.includes(id));
  for (const { ids, box } of clustersOf(rest, boxes)) {
    const cluster = {
      ids,
      box,
      across: ids.some((id) => plain(id) && wide(id)),
      upright: ids.some((id) => plain(id) && high(id)),
    };
    const placed = placing(cluster, from, into, k);
    if (!placed) continue;
    const map = multiply(shift, placed);
    for (const id of ids) {
      x.nodes[id].transform = [...multiply(map, x.nodes[id].transform as Matrix)];
      // What is round and only reaches out is better short than crooked.
      if (plain(id) && (straight(id) || wide(id) || high(id)))
        toTheEdges(x, sheet, id, boxes.get(id)!, map, from, to, fonts);
    }
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
  evenPictures(x, id, sx, sy, fonts);
}

/**
 * Pictures in what was stretched are as they were: they fill it by the larger of both scales; tiles keep their size.
 */
function evenPictures(x: DesignDraft, id: NodeId, sx: number, sy: number, fonts: FontBook): void {
  const d = x as Design;
  for (const n of withDescendants(d, id)) {
    const about = centre(localBox(d, d.nodes[n], fonts));
    mapPaints(x.nodes[n], (p: Paint) => {
      if (p.kind !== 'picture') return p;
      const by = p.tile ? 1 : Math.max(sx, sy);
      return { ...p, geometry: multiply(scalingAbout(by / sx, by / sy, about), p.geometry) };
    });
  }
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

/** The map that takes a cluster to its size and place; null where it has no extent. */
function placing({ box: whole, across, upright }: Cluster, from: Setup, to: Setup, k: number): Matrix | null {
  if (isEmpty(whole)) return null;
  const box = onSheet(whole, from);
  const dx = placed(box.x0, box.x1, from.width, to.width, k, across);
  const dy = placed(box.y0, box.y1, from.height, to.height, k, upright);
  return multiply(translation(dx, dy), scaling(k, k));
}

/**
 * What of a box lies on the sheet with its bleed; all of one that lies beside it. What reaches far over a fold does not
 * say where things stand.
 */
function onSheet(box: Rect, { width, height, bleed }: Setup): Rect {
  const cut = intersect(box, grow({ x0: 0, y0: 0, x1: width, y1: height }, bleed));
  return isEmpty(cut) ? box : cut;
}

/**
 * Draws out what reached over an edge, so that it reaches over it by the bleed again; what went from side to side does
 * so.
 */
function toTheEdges(
  x: DesignDraft,
  sheet: Page,
  id: NodeId,
  was: Rect,
  map: Matrix,
  from: Setup,
  to: Setup,
  fonts: FontBook,
): void {
  if (isEmpty(was)) return;
  const now = transformRect(map, was);
  const [sx, ox] = drawnOut(was.x0, was.x1, now.x0, now.x1, from.width, to.width, from.bleed);
  const [sy, oy] = drawnOut(was.y0, was.y1, now.y0, now.y1, from.height, to.height, from.bleed);
  if (sx === 1 && sy === 1 && !ox && !oy) return;
  // A band is drawn out; a drawing is better short, or whole, than crooked.
  const [wide, high] = [was.x1 - was.x0, was.y1 - was.y0];
  const along = sx > sy ? wide / high : high / wide;
  if (x.nodes[id].kind === 'group' && along < BAND && Math.max(sx / sy, sy / sx) > CROOKED) return;
  scaleNodes(x, sheet, [id], [sx, 0, 0, sy, ox, oy]);
  evenPictures(x, id, sx, sy, fonts);
}

/** Scale and shift that draw a stretch out to the edges that it reached. */
function drawnOut(
  a: number,
  b: number,
  now0: number,
  now1: number,
  side: number,
  to: number,
  bleed: number,
): [number, number] {
  const through = a <= COVERS && b >= side - COVERS;
  // As far beyond as it was, but no further than the bleed asks for.
  const least = (beyond: number) => Math.min(beyond, bleed);
  const to0 = through ? -Math.max(-a, 0) : a < 0 && now0 > -least(-a) && now0 <= COVERS ? -least(-a) : now0;
  const to1 = through
    ? to + Math.max(b - side, 0)
    : b > side && now1 < to + least(b - side) && now1 >= to - COVERS
      ? to + least(b - side)
      : now1;
  const by = now1 > now0 ? (to1 - to0) / (now1 - now0) : 1;
  return [by, to0 - now0 * by];
}

/**
 * How far a stretch a…b of a side is moved once it is `k` times as long: it keeps to the edge or the middle that it
 * kept to.
 */
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
