import type { Recipe } from '@/core/edit/history';
import { addNodeAt, dragPiece, moveHandle, shiftNodes, writeContours } from '@/core/edit/nodes';
import { canBePlain } from '@/core/edit/plain';
import { apply, applyVector, invert, type Matrix, type Point } from '@/core/geometry/matrix';
import { fromPoints, holds } from '@/core/geometry/rect';
import { formatLength, formatNumber } from '@/core/units/length';
import { toPage } from '../view/camera';
import { plainSelection } from './plain';
import type { Session } from '../session/session';
import type { ChosenNode } from '../session/state';
import type { NodeContour } from '@/core/geometry/nodes';
import {
  chosenOf,
  flatOf,
  isChosen,
  noteContours,
  openPaths,
  pieceAt,
  spotsOf,
  type HandleSpot,
  type NodeSpot,
  type PieceSpot,
} from './nodeSpots';
import { choose, pick } from './pick';
import { shown } from './shown';
import { snapAngle, snapPoint, targetsFor } from './snapping';
import { clearSnap } from './ending';
import { NEAR_PX, far, type Gesture, type PointerAt, type Tool, type ToolContext } from './tool';

const SPOT_PX = 7;
const near = (a: Point, b: Point, by: number) => Math.abs(a.x - b.x) <= by && Math.abs(a.y - b.y) <= by;

/** Nodes, handles and pieces of the chosen paths. */
export const nodesTool: Tool = {
  press(at, c) {
    const { session: s } = c;
    if (s.state.readOnly) return null;
    const { nodes, handles } = spotsOf(s);
    // The nearest wins; of a handle that lies on its node the node.
    const node = nearest(nodes, at.screen);
    const handle = nearest(handles, at.screen);
    if (handle && (!node || distance(handle.at, at.screen) < distance(node.at, at.screen) - 1))
      return dragHandle(c, at, handle);
    if (node) return dragNodes(c, at, node);
    const piece = pieceAt(openPaths(s), at.page, NEAR_PX / s.state.camera.scale);
    if (piece) return bendPiece(c, at, piece);
    const found = pick(s, at);
    if (found && !s.state.selection.includes(found.id)) {
      choose(s, at.shift ? [...s.state.selection, found.id] : [found.id]);
      s.set({ nodes: [] });
      offerPlain(s, found.id);
      return null;
    }
    return marqueeNodes(c, at, found === null);
  },

  double(at, c) {
    const { session: s } = c;
    const piece = pieceAt(openPaths(s), at.page, NEAR_PX / s.state.camera.scale);
    const { nodes } = spotsOf(s);
    if (!piece || nearest(nodes, at.screen)) return;
    const { path } = piece;
    const made = addNodeAt(path.contours, piece.contour, piece.index, piece.t);
    if (s.commit('Add a node', (d) => writeContours(d, s.page, path.id, made.contours))) {
      s.set({ nodes: [{ object: path.id, flat: made.flat }] });
      s.say('Added a node; the shape is as it was.');
    }
  },

  cursor(at, c) {
    const { session: s } = c;
    const { nodes, handles } = spotsOf(s);
    if (nearest(nodes, at.screen) || nearest(handles, at.screen)) return 'move';
    return pieceAt(openPaths(s), at.page, NEAR_PX / s.state.camera.scale) ? 'pointer' : 'default';
  },
};

const distance = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);
function nearest<T extends { readonly at: Point }>(spots: readonly T[], at: Point): T | null {
  let best: T | null = null;
  for (const spot of spots)
    if (near(spot.at, at, SPOT_PX) && (!best || distance(spot.at, at) < distance(best.at, at))) best = spot;
  return best;
}

/** A dialled shape or a combination has no nodes of its own: says so, with the way to get some. */
function offerPlain(s: Session, id: string): void {
  const node = s.design.nodes[id];
  if (node.kind === 'path') s.say('Drag nodes, handles or the line itself. Double-click the line to add a node.');
  else if (canBePlain(node))
    s.say(`${node.name || 'This'} is adjustable as it is. To edit its nodes, make it plain`, 'plain', {
      label: 'Make plain',
      run: () => plainSelection(s),
    });
  else s.say('This has no nodes. Choose a path, or a shape and make it plain.');
}

/** Chooses a node (with Shift one more or one less), and drags all that are chosen. */
function dragNodes(c: ToolContext, start: PointerAt, spot: NodeSpot): Gesture {
  const { session: s } = c;
  const was = isChosen(s, spot.object, spot.flat);
  const me: ChosenNode = { object: spot.object, flat: spot.flat };
  if (start.shift) {
    if (!was) s.set({ nodes: [...s.state.nodes, me] });
  } else if (!was) s.set({ nodes: [me] });
  const paths = openPaths(s).filter((p) => chosenOf(s, p.id).size > 0);
  const chosen = new Map(paths.map((p) => [p.id, chosenOf(s, p.id)]));
  const backs = new Map(paths.map((p) => [p.id, invert(p.matrix) as Matrix]));
  const targets = targetsFor(
    c,
    paths.map((p) => p.id),
  );
  // Nodes that rest are places to snap to as well.
  const resting = paths.flatMap((p) =>
    p.contours.flatMap((k, ci) =>
      k.nodes.flatMap((n, i) =>
        chosen.get(p.id)!.has(flatOf(p.contours, ci, i)) ? [] : [{ ...apply(p.matrix, n), label: 'node' }],
      ),
    ),
  );
  const places = { ...targets, places: resting.length < 2000 ? [...targets.places, ...resting] : targets.places };
  const from = toPage(s.state.camera, spot.at);
  const offset = { x: from.x - start.page.x, y: from.y - start.page.y };
  let moved = false;
  let recipe: Recipe = () => {};
  let now: readonly (readonly NodeContour[])[] = [];
  const at = (p: PointerAt) => {
    let to = { x: p.page.x + offset.x, y: p.page.y + offset.y };
    if (p.shift)
      to = Math.abs(to.x - from.x) > Math.abs(to.y - from.y) ? { x: to.x, y: from.y } : { x: from.x, y: to.y };
    const snapped = snapPoint(c, to, places, p);
    const [dx, dy] = [snapped.point.x - from.x, snapped.point.y - from.y];
    now = paths.map((p) => {
      const v = applyVector(backs.get(p.id)!, { x: dx, y: dy });
      return shiftNodes(p.contours, chosen.get(p.id)!, v.x, v.y);
    });
    recipe = (d) => paths.forEach((p, i) => writeContours(d, s.page, p.id, now[i]));
    const { unit } = s.design.setup;
    c.readout(`${formatLength(dx, unit)}, ${formatLength(dy, unit)}${snapped.said}`);
  };
  const ids = paths.map((p) => p.id);
  return {
    move(p) {
      if (!moved && !far(p, start)) return;
      moved = true;
      at(p);
      s.preview(recipe, ids);
      paths.forEach((path, i) => noteContours(s.design.nodes[path.id], now[i]));
    },
    release(p) {
      if (moved) {
        at(p);
        const n = s.state.nodes.length;
        s.commit(n === 1 ? 'Move a node' : 'Move nodes', recipe);
        s.say(`Moved ${n === 1 ? 'a node' : `${n} nodes`}.`);
      } else if (start.shift && was)
        s.set({ nodes: s.state.nodes.filter((n) => n.object !== spot.object || n.flat !== spot.flat) });
      else if (!start.shift) s.set({ nodes: [me] });
      end(c);
    },
    cancel: () => drop(c),
  };
}

/** Drags a handle: Alt breaks it free of the other, Shift and nearness hold it to steps of 15°. */
function dragHandle(c: ToolContext, start: PointerAt, spot: HandleSpot): Gesture {
  const { session: s } = c;
  const path = openPaths(s).find((p) => p.id === spot.object)!;
  const back = invert(path.matrix)!;
  const from = toPage(s.state.camera, spot.from);
  const offset = {
    x: toPage(s.state.camera, spot.at).x - start.page.x,
    y: toPage(s.state.camera, spot.at).y - start.page.y,
  };
  return shown(
    c,
    () => 'Move a handle',
    (p) => {
      const to = turnedTo(from, { x: p.page.x + offset.x, y: p.page.y + offset.y }, p);
      const next = moveHandle(path.contours, spot.flat, spot.side, apply(back, to.point), p.alt);
      return {
        recipe: (d) => writeContours(d, s.page, path.id, next),
        says: `handle ${formatLength(to.length, s.design.setup.unit)} at ${formatNumber(to.angle, 1)}°${p.alt ? ' · by itself' : ''}`,
      };
    },
    undefined,
    [path.id],
  );
}

/** A place seen from another, its direction held to steps of 15° where it is near one. */
export function turnedTo(from: Point, to: Point, p: PointerAt): { point: Point; length: number; angle: number } {
  const length = distance(from, to);
  const raw = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;
  const angle = snapAngle(raw, p.shift ? 15 : 45, p);
  const rad = (angle * Math.PI) / 180;
  return {
    point: angle === raw ? to : { x: from.x + length * Math.cos(rad), y: from.y + length * Math.sin(rad) },
    length,
    angle,
  };
}

/** Bends the line where it is taken; a click alone chooses the nodes at both its ends. */
function bendPiece(c: ToolContext, start: PointerAt, spot: PieceSpot): Gesture {
  const { session: s } = c;
  const { path } = spot;
  const back = invert(path.matrix)!;
  let moved = false;
  let recipe: Recipe = () => {};
  const at = (p: PointerAt) => {
    const v = applyVector(back, { x: p.page.x - start.page.x, y: p.page.y - start.page.y });
    const next = dragPiece(path.contours, spot.contour, spot.index, spot.t, v.x, v.y);
    recipe = (d) => writeContours(d, s.page, path.id, next);
    const { unit } = s.design.setup;
    c.readout(`bent by ${formatLength(p.page.x - start.page.x, unit)}, ${formatLength(p.page.y - start.page.y, unit)}`);
  };
  return {
    move(p) {
      if (!moved && !far(p, start)) return;
      moved = true;
      at(p);
      s.preview(recipe, [path.id]);
    },
    release(p) {
      if (moved) {
        at(p);
        s.commit('Bend the line', recipe);
      } else {
        const count = path.contours[spot.contour].nodes.length;
        const both = [spot.index, (spot.index + 1) % count].map((i) => ({
          object: path.id,
          flat: flatOf(path.contours, spot.contour, i),
        }));
        s.set({
          nodes: start.shift ? [...s.state.nodes, ...both.filter((b) => !isChosen(s, b.object, b.flat))] : both,
        });
      }
      end(c);
    },
    cancel: () => drop(c),
  };
}

function marqueeNodes(c: ToolContext, start: PointerAt, onNothing: boolean): Gesture {
  const { session: s } = c;
  const before = start.shift ? s.state.nodes : [];
  const inside = (p: PointerAt): ChosenNode[] => {
    const box = fromPoints([start.screen, p.screen]);
    const found = spotsOf(s)
      .nodes.filter((n) => holds(box, n.at))
      .map(({ object, flat }) => ({ object, flat }));
    return [...before, ...found.filter((f) => !before.some((b) => b.object === f.object && b.flat === f.flat))];
  };
  return {
    move(p) {
      if (!far(p, start)) return;
      c.extras.marquee = fromPoints([start.page, p.page]);
      s.set({ nodes: inside(p) });
      c.readout(`${s.state.nodes.length} nodes`);
      c.refresh();
    },
    release(p) {
      if (far(p, start)) s.set({ nodes: inside(p) });
      else if (onNothing && !start.shift) {
        // A click on nothing: first the nodes are let go, then the path.
        if (s.state.nodes.length) s.set({ nodes: [] });
        else choose(s, []);
      }
      end(c);
      c.refresh();
    },
    cancel: () => drop(c),
  };
}

function end(c: ToolContext): void {
  clearSnap(c);
  c.extras.marquee = null;
  c.readout(null);
}
function drop(c: ToolContext): void {
  c.session.preview(null);
  end(c);
}
