import { multiply, rotation, scaling, translation, type Point } from '../../geometry/matrix';
import { CLOSE, CUBIC, MOVE, COORDS, type PathData } from '../../geometry/path';
import { contains, rect } from '../../geometry/rect';
import type { Draws, Place } from './context';
import type { Drawn } from './shapes';
import { withStyle } from './style';
import { localId, readLength } from './values';
import { readViewBox, viewMatrix } from './view';
import type { Element } from './xml';

interface Vertex extends Point {
  /** Degrees in which a marker that follows the line is turned. */
  readonly angle: number;
}

const WITH_MARKERS: ReadonlySet<string> = new Set(['path', 'line', 'polyline', 'polygon']);
/** A line has no more markers than can be drawn. */
const MOST = 2000;

/** The markers of a line as objects (SVG 1.1, 11.6). */
export function markersOf(drawer: Draws, e: Element, drawn: Drawn, place: Place): string[] {
  const { style } = place;
  if (style['marker-start'] === 'none' && style['marker-mid'] === 'none' && style['marker-end'] === 'none') return [];
  const ids = (['marker-start', 'marker-mid', 'marker-end'] as const).map((p) =>
    localId(style[p] === 'none' ? undefined : style[p]),
  );
  if (drawn.kind !== 'path' || !WITH_MARKERS.has(e.name) || !ids.some(Boolean)) return [];
  const vertices = verticesOf(drawn.path);
  if (vertices.length > MOST) {
    drawer.making.note('A line has more markers than can be drawn; they are left out.');
    return [];
  }
  return vertices.flatMap((v, i) => {
    const first = i === 0;
    const last = i === vertices.length - 1;
    // A line of one point has its start and its end there.
    const here = [first ? ids[0] : null, !first && !last ? ids[1] : null, last ? ids[2] : null];
    return here.flatMap((id, k) => (id ? marker(drawer, id, v, place, k === 0) : []));
  });
}

function marker(drawer: Draws, id: string, at: Vertex, place: Place, start: boolean): string[] {
  const { making } = drawer;
  const e = making.byId.get(id);
  if (e?.name !== 'marker' || place.depth > 150) return [];
  const m = place.measures;
  const w = readLength(e.attributes.get('markerWidth') ?? '3', m, 'x') ?? 3;
  const h = readLength(e.attributes.get('markerHeight') ?? '3', m, 'y') ?? 3;
  if (!(w > 0) || !(h > 0)) return [];
  const weight =
    e.attributes.get('markerUnits') === 'userSpaceOnUse' ? 1 : (readLength(place.style['stroke-width'], m, 'r') ?? 1);
  const orient = e.attributes.get('orient') ?? '0';
  const angle =
    orient === 'auto'
      ? at.angle
      : orient === 'auto-start-reverse'
        ? at.angle + (start ? 180 : 0)
        : Number.parseFloat(orient) || 0;
  const view = readViewBox(e.attributes.get('viewBox'));
  const inner = view
    ? viewMatrix(view, rect(0, 0, w, h), e.attributes.get('preserveAspectRatio')).matrix
    : scaling(1, 1);
  const [rx, ry] = [
    readLength(e.attributes.get('refX') ?? '0', m, 'x') ?? 0,
    readLength(e.attributes.get('refY') ?? '0', m, 'y') ?? 0,
  ];
  const ref = { x: inner[0] * rx + inner[2] * ry + inner[4], y: inner[1] * rx + inner[3] * ry + inner[5] };
  const style = making.styles.inPlace(e);
  const toLine = multiply(
    translation(at.x, at.y),
    multiply(rotation(angle), multiply(scaling(weight, weight), translation(-ref.x, -ref.y))),
  );
  const ids = making.asCopy(() =>
    drawer.children(e, {
      style: withStyle(style, { 'marker-start': 'none', 'marker-mid': 'none', 'marker-end': 'none' }),
      measures: { ...m, width: view?.width ?? w, height: view?.height ?? h },
      ctm: multiply(place.ctm, multiply(toLine, inner)),
      depth: place.depth + 5,
      ...(place.copies && { copies: place.copies }),
    }),
  );
  if (!ids.length) return [];
  const content = making.group('Inside', inner, ids);
  const over =
    style.overflow !== 'visible' && style.overflow !== 'auto' && !contains(rect(0, 0, w, h), making.boxOf([content]));
  return drawer.whole(
    e,
    style,
    over ? [content, drawer.making.cutBox(rect(0, 0, w, h))] : [content],
    toLine,
    'Marker',
    place,
    true,
  );
}

/** The points of a path with the way the line runs through them: half way between how it comes and how it goes on. */
export function verticesOf(path: PathData): Vertex[] {
  interface Knot extends Point {
    in: Point | null;
    out: Point | null;
  }
  const knots: Knot[] = [];
  let begin = 0;
  const toward = (from: Point, to: Point): Point | null =>
    from.x === to.x && from.y === to.y ? null : { x: to.x - from.x, y: to.y - from.y };
  for (let i = 0; i < path.length; i += 1 + COORDS[path[i]]) {
    const last = knots[knots.length - 1];
    if (path[i] === MOVE) {
      begin = knots.length;
      knots.push({ x: path[i + 1], y: path[i + 2], in: null, out: null });
    } else if (path[i] === CLOSE) {
      const first = knots[begin];
      const way = toward(last, first);
      if (way) last.out = way;
      const closing: Knot = { x: first.x, y: first.y, in: way ?? last.in, out: first.out };
      first.in = closing.in;
      knots.push(closing);
    } else {
      const n = COORDS[path[i]];
      const end = { x: path[i + n - 1], y: path[i + n] };
      const c1 = path[i] === CUBIC ? { x: path[i + 1], y: path[i + 2] } : end;
      const c2 = path[i] === CUBIC ? { x: path[i + 3], y: path[i + 4] } : last;
      last.out = toward(last, c1) ?? toward(last, c2) ?? toward(last, end) ?? last.out;
      knots.push({ ...end, in: toward(c2, end) ?? toward(c1, end) ?? toward(last, end) ?? last.in, out: null });
    }
  }
  return knots.map((k) => {
    const [a, b] = [k.in ?? k.out, k.out ?? k.in];
    if (!a || !b) return { x: k.x, y: k.y, angle: 0 };
    const [p, q] = [Math.atan2(a.y, a.x), Math.atan2(b.y, b.x)];
    // The bisector on the side of the lesser turn.
    const turn = ((q - p + 3 * Math.PI) % (2 * Math.PI)) - Math.PI;
    return { x: k.x, y: k.y, angle: ((p + turn / 2) * 180) / Math.PI };
  });
}
