import { centre, height, isEmpty, unionAll, width, type Rect } from '../geometry/rect';
import type { Design, Page } from '../model/schema';
import { setupOn } from '../model/setupOn';
import { parentMatrix, topmost, type NodeId } from '../model/tree';
import type { FontBook } from '../text/fonts';
import { boxIn } from '../derive/box';
import { before, type DesignDraft } from './history';
import { moveNodes } from './place';

export type AlignEdge = 'left' | 'middle' | 'right' | 'top' | 'centre' | 'foot';
/** What things line up with: each other, one of them that stays, the page, or its margins. */
export type AlignTo = 'selection' | 'key' | 'page' | 'margins';
export type Axis = 'x' | 'y';

const ends = (b: Rect, axis: Axis): readonly [number, number] => (axis === 'x' ? [b.x0, b.x1] : [b.y0, b.y1]);
const axisOf = (edge: AlignEdge): Axis => (edge === 'left' || edge === 'middle' || edge === 'right' ? 'x' : 'y');

function boxes(d: Design, page: Page, ids: readonly NodeId[], fonts: FontBook): Map<NodeId, Rect> {
  return new Map(
    topmost(d, page, ids)
      .map((id) => [id, boxIn(d, id, parentMatrix(d, page, id), fonts)] as const)
      .filter(([, b]) => !isEmpty(b)),
  );
}

/** The box that things line up with; of a key object its own. */
function target(d: Design, page: Page, to: AlignTo, all: ReadonlyMap<NodeId, Rect>, key: NodeId | null): Rect {
  const { width: w, height: h, margins: m } = setupOn(d, page);
  if (to === 'page') return { x0: 0, y0: 0, x1: w, y1: h };
  if (to === 'margins') return { x0: m.left, y0: m.top, x1: w - m.right, y1: h - m.bottom };
  return (to === 'key' && key !== null && all.get(key)) || unionAll(all.values());
}

/** Lines things up by an edge or the middle. */
export function alignNodes(
  d: DesignDraft,
  page: Page,
  ids: readonly NodeId[],
  edge: AlignEdge,
  to: AlignTo,
  key: NodeId | null,
  fonts: FontBook,
): void {
  const was = before(d);
  const all = boxes(was, page, ids, fonts);
  const [lo, hi] = ends(target(was, page, to, all, key), axisOf(edge));
  for (const [id, box] of all) {
    if (to === 'key' && id === key) continue;
    const [a, b] = ends(box, axisOf(edge));
    const by =
      edge === 'left' || edge === 'top' ? lo - a : edge === 'right' || edge === 'foot' ? hi - b : (lo + hi - a - b) / 2;
    if (by) moveNodes(d, page, [id], axisOf(edge) === 'x' ? by : 0, axisOf(edge) === 'y' ? by : 0);
  }
}

/**
 * Spaces things evenly: their edges, their middles, or the gaps between them. `spacing`: that far apart, the first
 * staying.
 */
export function distributeNodes(
  d: DesignDraft,
  page: Page,
  ids: readonly NodeId[],
  axis: Axis,
  by: 'start' | 'middle' | 'end' | 'gap',
  to: AlignTo,
  spacing: number | null,
  fonts: FontBook,
): void {
  const was = before(d);
  const all = boxes(was, page, ids, fonts);
  const list = [...all].map(([id, box]) => ({
    id,
    box,
    size: axis === 'x' ? width(box) : height(box),
    ends: ends(box, axis),
  }));
  if (list.length < 2) return;
  const place = (e: (typeof list)[number]): number =>
    by === 'start' || by === 'gap' ? e.ends[0] : by === 'end' ? e.ends[1] : (e.ends[0] + e.ends[1]) / 2;
  list.sort((a, b) => (by === 'gap' ? a.ends[0] + a.ends[1] - b.ends[0] - b.ends[1] : place(a) - place(b)));
  const [lo, hi] = ends(target(was, page, to === 'key' ? 'selection' : to, all, null), axis);
  const n = list.length;
  const whole = to === 'page' || to === 'margins';
  let at: number[];
  if (by === 'gap') {
    const sizes = list.reduce((sum, e) => sum + e.size, 0);
    const first = whole ? lo : list[0].ends[0];
    const last = whole ? hi : list[n - 1].ends[1];
    const gap = spacing ?? (last - first - sizes) / (n - 1);
    let x = first;
    at = list.map((e) => {
      const here = x;
      x += e.size + gap;
      return here;
    });
  } else {
    const reach = (e: (typeof list)[number]) => (by === 'start' ? 0 : by === 'end' ? e.size : e.size / 2);
    const first = whole ? lo + reach(list[0]) : place(list[0]);
    const last = whole ? hi - (list[n - 1].size - reach(list[n - 1])) : place(list[n - 1]);
    at = list.map((_, i) => (spacing === null ? first + ((last - first) * i) / (n - 1) : first + spacing * i));
  }
  list.forEach((e, i) => {
    const shift = at[i] - place(e);
    if (shift) moveNodes(d, page, [e.id], axis === 'x' ? shift : 0, axis === 'y' ? shift : 0);
  });
}

/** The guides along the edges and the middle of things. */
export function guidesRound(
  d: Design,
  page: Page,
  ids: readonly NodeId[],
  fonts: FontBook,
): { axis: Axis; at: number }[] {
  const box = unionAll(boxes(d, page, ids, fonts).values());
  if (isEmpty(box)) return [];
  const mid = centre(box);
  return [
    ...[box.x0, mid.x, box.x1].map((at) => ({ axis: 'x' as const, at })),
    ...[box.y0, mid.y, box.y1].map((at) => ({ axis: 'y' as const, at })),
  ];
}
