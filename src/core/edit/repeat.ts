import type { Point } from '../geometry/matrix';
import { centre, isEmpty, unionAll, type Rect } from '../geometry/rect';
import { copiesIn } from '../model/copies';
import { MOST_COPIES, type Arrangement, type Page } from '../model/schema';
import { ancestry, topmost, withDescendants, type NodeId } from '../model/tree';
import type { Design } from '../model/schema';
import { mm } from '../units/length';
import type { FontBook } from '../text/fonts';
import { boxIn } from '../derive/box';
import type { DesignDraft } from './history';
import { wrapNodes } from './pile';

export type ArrangementKind = Arrangement['kind'];

/** Copies stand this far apart until someone says otherwise. */
const GAP = mm(5);

/**
 * A first arrangement for a thing of a size: three in a row, three by two, or eight round `pivot` (absent: the middle
 * of its lower edge, as petals stand round their tips).
 */
export function firstArrangement(kind: ArrangementKind, box: Rect, pivot: Point | null): Arrangement {
  const about = centre(box);
  const [w, h] = [box.x1 - box.x0 + GAP, box.y1 - box.y0 + GAP];
  if (kind === 'row') return { kind, count: 3, step: { x: w, y: 0 }, about };
  if (kind === 'grid') return { kind, columns: 3, rows: 2, across: { x: w, y: 0 }, down: { x: 0, y: h }, about };
  return { kind, count: 8, step: 45, centre: pivot ?? { x: about.x, y: box.y1 }, about };
}

/** The same copies laid out in another way, as far as both ways know the same measures. */
export function arrangedAs(a: Arrangement, kind: ArrangementKind, box: Rect): Arrangement {
  if (a.kind === kind) return a;
  const fresh = firstArrangement(kind, box, a.kind === 'ring' ? a.centre : null);
  const kept = {
    ...(a.turn !== undefined && { turn: a.turn }),
    ...(a.scale !== undefined && { scale: a.scale }),
    about: a.about,
  };
  const count = Math.min(copiesIn(a), MOST_COPIES);
  if (fresh.kind === 'grid')
    return { ...fresh, ...kept, columns: Math.min(count, 3), rows: Math.max(1, Math.ceil(count / 3)) };
  if (fresh.kind === 'ring') return { ...fresh, ...kept, count, step: 360 / count };
  return { ...fresh, ...kept, count };
}

/** Whether so many copies of these things may be drawn: repeats of repeats multiply. */
export function tooManyCopies(d: Design, page: Page, ids: readonly NodeId[], copies: number): boolean {
  const factor = (id: NodeId): number => {
    const node = d.nodes[id];
    return node.kind === 'repeat' ? copiesIn(node.arrangement) : 1;
  };
  const inside = Math.max(
    1,
    ...ids.flatMap((id) =>
      withDescendants(d, id).map((x) =>
        ancestry(d, page, x)
          .slice(ancestry(d, page, id).length - 1)
          .reduce((n, y) => n * factor(y), 1),
      ),
    ),
  );
  const outside = ids.length
    ? ancestry(d, page, ids[0])
        .slice(0, -1)
        .reduce((n, x) => n * factor(x), 1)
    : 1;
  return inside * outside * copies > MOST_COPIES;
}

/**
 * Makes a repeat of things; its measures are those of the space they lie in. Answers its id, or null for nothing to
 * repeat.
 */
export function repeatNodes(
  d: DesignDraft,
  page: Page,
  ids: readonly NodeId[],
  kind: ArrangementKind,
  pivot: Point | null,
  newId: () => string,
  fonts: FontBook,
): NodeId | null {
  const made = wrapNodes(d, page, topmost(d as Design, page, ids), newId, (id, children) => ({
    id,
    name: ARRANGEMENT_NAMES[kind],
    kind: 'repeat',
    transform: [1, 0, 0, 1, 0, 0],
    hidden: false,
    locked: false,
    children,
    arrangement: { kind: 'row', count: 1, step: { x: 0, y: 0 }, about: { x: 0, y: 0 } },
  }));
  if (!made) return null;
  const node = d.nodes[made];
  if (node.kind !== 'repeat') return null;
  const box = unionAll(node.children.map((c) => boxIn(d as Design, c, [1, 0, 0, 1, 0, 0], fonts)));
  if (!isEmpty(box)) node.arrangement = firstArrangement(kind, box, pivot) as typeof node.arrangement;
  return made;
}

const ARRANGEMENT_NAMES: Readonly<Record<ArrangementKind, string>> = { row: 'Row', grid: 'Grid', ring: 'Ring' };

/** Changes how copies lie; a name that only said the kind follows. */
export function setArrangement(d: DesignDraft, id: NodeId, arrangement: Arrangement): void {
  const node = d.nodes[id];
  if (node.kind !== 'repeat') return;
  if (node.arrangement.kind !== arrangement.kind && node.name === ARRANGEMENT_NAMES[node.arrangement.kind])
    node.name = ARRANGEMENT_NAMES[arrangement.kind];
  node.arrangement = arrangement as typeof node.arrangement;
}

/** The step that spreads copies evenly round the whole circle: 360° by their number (common practice). */
export const evenStep = (count: number): number => 360 / Math.max(1, count);
