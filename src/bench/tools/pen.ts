import type { DesignDraft, Recipe } from '@/core/edit/history';
import { addNodeAt, breakAt, writeContours } from '@/core/edit/nodes';
import { deleteNodes } from '@/core/edit/remove';
import { apply, invert, type Point } from '@/core/geometry/matrix';
import { throughPoints } from '@/core/geometry/fit';
import {
  flatOf,
  isEnd,
  nodesOfPieces,
  pieceAfter,
  reversedContour,
  type NodeContour,
  type PathNode,
} from '@/core/geometry/nodes';
import { CUBIC, LINE, MOVE, transformPath, type PathData } from '@/core/geometry/path';
import { NO_PAINT } from '@/core/model/defaults';
import type { DesignNode, Paint } from '@/core/model/schema';
import { formatLength } from '@/core/units/length';
import type { Session } from '../session/session';
import { contoursFor, openPaths, pieceAt, spotsOf, type OpenPath } from './nodeSpots';
import { turnedTo } from './nodes';
import { drawingPaint, paintedAs } from './shape';
import { snapPoint, targetsFor } from './snapping';
import { clearSnap } from './ending';
import { putNode } from './placing';
import { NEAR_PX, far, type Gesture, type PointerAt, type Tool, type ToolContext } from './tool';

const SPOT_PX = 8;

/** Lines by clicks: straight and curved, through points, or a polygon; goes on with open lines, cuts and adds nodes. */
export const penTool: Tool = {
  press(at, c) {
    const { session: s } = c;
    if (s.state.readOnly) return null;
    const active = activeLine(s);
    if (active) {
      const { nodes } = active.contour;
      const [first, last] = active.ends;
      if (nodes.length > 1 && nearScreen(s, active.path, first, at)) return closing(c, at, active);
      if (nearScreen(s, active.path, last, at)) return lastNode(c, at, active);
      return adding(c, at, active);
    }
    const end = spotsOf(s).nodes.find(
      (n) => n.end && Math.abs(n.at.x - at.screen.x) <= SPOT_PX && Math.abs(n.at.y - at.screen.y) <= SPOT_PX,
    );
    if (end) {
      goOnFrom(s, end.object, end.flat);
      return null;
    }
    const piece = pieceAt(openPaths(s), at.page, NEAR_PX / s.state.camera.scale);
    if (piece) {
      const { path } = piece;
      const made = addNodeAt(path.contours, piece.contour, piece.index, piece.t);
      if (at.alt) {
        if (
          s.commit('Cut the line', (d) =>
            writeContours(d, s.page, path.id, breakAt(made.contours, new Set([made.flat]))),
          )
        )
          s.say('Cut: the line has two ends there, lying on each other.');
      } else if (s.commit('Add a node', (d) => writeContours(d, s.page, path.id, made.contours)))
        s.say('Added a node; the shape is as it was. With Alt the pen cuts the line.');
      return null;
    }
    return beginning(c, at);
  },

  double(_at, c) {
    finishPen(c.session);
  },

  hover(at, c) {
    const active = activeLine(c.session);
    c.extras.rubber = null;
    if (!active) return;
    const { session: s } = c;
    if (active.contour.nodes.length > 1 && nearScreen(s, active.path, active.ends[0], at)) {
      c.readout('closes the line');
      return;
    }
    c.readout(null);
    const to = held(c, at, active);
    clearSnap(c);
    const back = invert(active.path.matrix);
    if (!back) return;
    const next = appended(
      active,
      { ...apply(back, to.point), before: null, after: null, kind: 'corner' },
      s.state.penMode,
    );
    c.extras.rubber = lastPieces(next, s.state.penMode, active.path);
  },

  cursor: () => 'crosshair',
};

/** The line that the pen goes on with, its last node at the end of the list. */
interface Active {
  readonly path: OpenPath;
  readonly index: number;
  readonly contour: NodeContour;
  readonly ends: readonly [PathNode, PathNode];
}

function activeLine(s: Session): Active | null {
  const { pen } = s.state;
  const node = pen && s.state.design.nodes[pen.object];
  if (!pen || node?.kind !== 'path') return null;
  const path = openPaths(s).find((p) => p.id === pen.object);
  const raw = contoursFor(node)[pen.contour];
  if (!path || !raw || raw.closed || !raw.nodes.length) return null;
  const run = pen.end === 'first' ? reversedContour(raw) : raw;
  const end = run.nodes[run.nodes.length - 1];
  const { handle } = pen;
  const pulled = handle && handle.of.x === end.x && handle.of.y === end.y;
  const contour = pulled ? { ...run, nodes: [...run.nodes.slice(0, -1), { ...end, after: handle.at }] } : run;
  return {
    path: { ...path, contours: contoursFor(node) },
    index: pen.contour,
    contour,
    ends: [contour.nodes[0], contour.nodes[contour.nodes.length - 1]],
  };
}

function nearScreen(s: Session, path: OpenPath, n: Point, at: PointerAt): boolean {
  const { camera } = s.state;
  const p = apply(path.matrix, n);
  return (
    Math.abs(p.x * camera.scale + camera.x - at.screen.x) <= SPOT_PX &&
    Math.abs(p.y * camera.scale + camera.y - at.screen.y) <= SPOT_PX
  );
}

/** Where the pen is, snapped; with Shift in steps of 15° from the last node. */
function held(c: ToolContext, at: PointerAt, active: Active | null): { point: Point; said: string } {
  const targets = targetsFor(c, active ? [active.path.id] : []);
  if (active && at.shift) {
    const from = apply(active.path.matrix, active.ends[1]);
    const turned = turnedTo(from, at.page, at);
    return { point: turned.point, said: ` · ${Math.round(turned.angle)}°` };
  }
  return snapPoint(c, at.page, targets, at);
}

/** The line with a node more. Through points, all its handles are found anew. */
function appended(active: Active, node: PathNode, mode: Session['state']['penMode']): NodeContour {
  const nodes = [...active.contour.nodes, node];
  return mode === 'through' ? through(nodes, false) : { closed: false, nodes };
}

function through(nodes: readonly PathNode[], closed: boolean): NodeContour {
  if (nodes.length < 2) return { closed: false, nodes };
  const made = nodesOfPieces(throughPoints(nodes, closed), closed);
  return made.nodes.length === nodes.length
    ? { closed, nodes: made.nodes.map((n) => ({ ...n, kind: n.before && n.after ? 'smooth' : n.kind })) }
    : { closed, nodes };
}

/** The part of a line that a next node would change, on the page. */
function lastPieces(c: NodeContour, mode: Session['state']['penMode'], path: OpenPath): PathData {
  const out: number[] = [];
  for (let i = Math.max(0, c.nodes.length - (mode === 'through' ? 3 : 2)); i < c.nodes.length - 1; i++) {
    const s = pieceAfter(c, i)!;
    if (!out.length) out.push(MOVE, s.x0, s.y0);
    if (s.straight) out.push(LINE, s.x3, s.y3);
    else out.push(CUBIC, s.x1, s.y1, s.x2, s.y2, s.x3, s.y3);
  }
  return transformPath(out, path.matrix);
}

const withContour = (active: Active, contour: NodeContour): NodeContour[] =>
  active.path.contours.map((c, i) => (i === active.index ? contour : c));

/** A press that, let go, does what it showed; dragged, it draws handles out of its node where the mode has handles. */
function pressing(
  c: ToolContext,
  start: PointerAt,
  label: string,
  at: Point,
  own: (v: Point) => Point,
  recipeFor: (handle: Point | null) => Recipe,
  after: (handle: Point | null) => void,
  only?: readonly string[],
): Gesture {
  const { session: s } = c;
  c.extras.rubber = null;
  let handle: Point | null = null;
  const follow = (p: PointerAt) => {
    if (s.state.penMode !== 'handles' || !far(p, start)) return;
    const to = turnedTo(at, p.page, p.shift ? p : { ...p, mod: true });
    handle = own(to.point);
    c.readout(`handle ${formatLength(to.length, s.design.setup.unit)} at ${Math.round(to.angle)}°`);
  };
  s.preview(recipeFor(null), only);
  return {
    move(p) {
      follow(p);
      s.preview(recipeFor(handle), only);
    },
    release(p) {
      follow(p);
      clearSnap(c);
      c.readout(null);
      if (s.commit(label, recipeFor(handle))) after(handle);
      else s.preview(null);
    },
    cancel() {
      clearSnap(c);
      c.readout(null);
      s.preview(null);
    },
  };
}

const mirrored = (n: Point, h: Point): Point => ({ x: 2 * n.x - h.x, y: 2 * n.y - h.y });
const drawnNode = (p: Point, handle: Point | null): PathNode => ({
  ...p,
  before: handle && mirrored(p, handle),
  after: handle,
  kind: handle ? 'symmetric' : 'corner',
});

function beginning(c: ToolContext, start: PointerAt): Gesture {
  const { session: s } = c;
  const { point } = held(c, start, null);
  const id = s.newId();
  const node: DesignNode = {
    id,
    name: 'Path',
    kind: 'path',
    transform: [1, 0, 0, 1, 0, 0],
    hidden: false,
    locked: false,
    path: [MOVE, point.x, point.y],
    fillRule: 'nonZero',
    ...paintedAs(drawingPaint(s), true),
  };
  return pressing(
    c,
    start,
    'Begin a line',
    point,
    (p) => p,
    () => (d) => putNode(d, s, node),
    (handle) => {
      const placed = s.design.nodes[id];
      // In a group it lies in the group's own space, and so does its handle.
      const first = placed.kind === 'path' ? { x: placed.path[1], y: placed.path[2] } : point;
      s.select([id], {
        nodes: [],
        pen: { object: id, contour: 0, end: 'last', fresh: true, handle: handle && { of: first, at: handle } },
        aim: 'outline',
      });
      s.say(PEN_SAYS[s.state.penMode]);
    },
  );
}

const PEN_SAYS = {
  handles: 'Click for a straight piece, press and drag for a curve. Click the first node to close, Enter to end.',
  through: 'Click where the curve shall run through. Click the first node to close, Enter to end.',
  polygon: 'Click the corners. Enter or a double-click closes it.',
} as const;

function adding(c: ToolContext, start: PointerAt, active: Active): Gesture | null {
  const { session: s } = c;
  const back = invert(active.path.matrix);
  if (!back) return null;
  const { point } = held(c, start, active);
  const own = apply(back, point);
  const recipe =
    (handle: Point | null): Recipe =>
    (d) =>
      writeContours(
        d,
        s.page,
        active.path.id,
        withContour(active, appended(active, drawnNode(own, handle), s.state.penMode)),
      );
  return pressing(
    c,
    start,
    'Add to the line',
    point,
    (p) => apply(back, p),
    recipe,
    (handle) => s.set({ pen: { ...s.state.pen!, end: 'last', handle: handle && { of: own, at: handle } } }),
    [active.path.id],
  );
}

function closing(c: ToolContext, start: PointerAt, active: Active): Gesture | null {
  const { session: s } = c;
  const back = invert(active.path.matrix);
  if (!back) return null;
  const [first] = active.ends;
  const { nodes } = active.contour;
  const fresh = s.state.pen?.fresh ?? false;
  const recipe =
    (handle: Point | null): Recipe =>
    (d) => {
      const closedNodes = handle
        ? [
            { ...first, before: mirrored(first, handle), after: first.after, kind: 'corner' as const },
            ...nodes.slice(1),
          ]
        : nodes;
      const contour = s.state.penMode === 'through' ? through(closedNodes, true) : { closed: true, nodes: closedNodes };
      writeContours(d, s.page, active.path.id, withContour(active, contour));
      if (fresh) fillClosed(d, active.path.id);
    };
  return pressing(
    c,
    start,
    'Close the line',
    apply(active.path.matrix, first),
    (p) => apply(back, p),
    recipe,
    () => {
      s.set({ pen: null, nodes: [], ...(fresh && { aim: 'fill' }) });
      s.say(fresh ? 'Closed, and filled with the colour of its line.' : 'Closed the line.');
    },
    [active.path.id],
  );
}

/** What was drawn as a line and closed is an area: it takes its line’s paint as its fill. */
function fillClosed(d: DesignDraft, id: string): void {
  const node = d.nodes[id];
  if (node.kind !== 'path' || !node.outlines.length) return;
  const paint = node.outlines[0].paint as Paint;
  node.fills = [paint.kind === 'none' ? NO_PAINT : paint] as typeof node.fills;
  node.outlines = [];
}

/** On the last node again: a click takes its handle away, a drag draws another out. */
function lastNode(c: ToolContext, start: PointerAt, active: Active): Gesture | null {
  const { session: s } = c;
  const back = invert(active.path.matrix);
  const last = active.ends[1];
  if (!back) return null;
  const at = apply(active.path.matrix, last);
  let handle: Point | null = null;
  const end = () => {
    clearSnap(c);
    c.readout(null);
    c.extras.rubber = null;
  };
  return {
    move(p) {
      if (s.state.penMode !== 'handles' || !far(p, start)) return;
      const to = turnedTo(at, p.page, p.shift ? p : { ...p, mod: true });
      handle = apply(back, to.point);
      c.extras.rubber = [MOVE, at.x, at.y, LINE, to.point.x, to.point.y];
      c.readout(`handle ${formatLength(to.length, s.design.setup.unit)} at ${Math.round(to.angle)}°`);
      c.refresh();
    },
    release() {
      end();
      s.set({ pen: { ...s.state.pen!, handle: handle && { of: { x: last.x, y: last.y }, at: handle } } });
      if (!handle) s.say('The next piece leaves this node straight.');
    },
    cancel: end,
  };
}

/** Takes an open line up at one of its ends. */
function goOnFrom(s: Session, object: string, flat: number): void {
  const path = openPaths(s).find((p) => p.id === object);
  const contour =
    path?.contours.findIndex((k, i) => k.nodes.some((_, j) => flatOf(path.contours, i, j) === flat && isEnd(k, j))) ??
    -1;
  if (!path || contour < 0) return;
  const first = flatOf(path.contours, contour, 0) === flat;
  s.set({ pen: { object, contour, end: first ? 'first' : 'last', fresh: false }, nodes: [] });
  s.say('Going on from this end. Click for the next node; Enter ends the line.');
}

/** Ends the line that is being drawn: a polygon closes, a lone node goes. */
export function finishPen(s: Session): void {
  const { pen, penMode } = s.state;
  const active = activeLine(s);
  s.set({ pen: null });
  if (!pen || !active) return;
  const { contour, path } = active;
  if (contour.nodes.length < 2) {
    s.commit(
      'Drop the begun line',
      (d) =>
        path.contours.length > 1
          ? writeContours(
              d,
              s.page,
              path.id,
              path.contours.filter((_, i) => i !== active.index),
            )
          : deleteNodes(d, s.page, [path.id]),
      { select: [] },
    );
    return;
  }
  if (penMode === 'polygon' && contour.nodes.length > 2) {
    s.commit('Close the polygon', (d) => {
      writeContours(d, s.page, path.id, withContour(active, { closed: true, nodes: contour.nodes }));
      if (pen.fresh) fillClosed(d, path.id);
    });
    if (pen.fresh) s.set({ aim: 'fill' });
    s.say(`A polygon of ${contour.nodes.length} corners.`);
  } else s.say(`The line ends here, with ${contour.nodes.length} nodes. Click one of its ends to go on.`);
}
