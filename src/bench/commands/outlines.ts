import { inkedArea } from '@/core/derive/inked';
import type { DesignDraft } from '@/core/edit/history';
import { hasOutline, outlinesToShapes } from '@/core/edit/outlineShape';
import { aimedNodes, FURTHER_AIMS, lineAt, type LineAim } from '@/core/edit/aims';
import { addOutline, canMoveLine, linedNodes, setOutlineStyle } from '@/core/edit/paint';
import { markOfArea } from '@/core/geometry/lineEnds';
import { CLOSE, COORDS, MOVE, pathBounds, type PathData } from '@/core/geometry/path';
import { shapeById } from '@/core/shapes/catalogue';
import { afterPaint } from '../session/afterPaint';
import { count, freeSelection, type CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';

const making = afterPaint(() => import('./newOutline'));

/** Can what is chosen have one more line? */
export const canAddOutline = (s: Session): boolean => {
  const ids = freeSelection(s);
  const last = FURTHER_AIMS[FURTHER_AIMS.length - 1];
  return linedNodes(s.design, ids).length > 0 && !aimedNodes(s.design, ids, last).length;
};

/** May the line that colours go to change places with its neighbour? */
export const canMoveOutline = (s: Session, ids: readonly string[], aim: LineAim, by: 1 | -1): boolean =>
  aimedNodes(s.design, ids, aim).some((id) => canMoveLine(s.design.nodes[id], aim, by));

/** Has one of them an outline that can become a shape? */
export const canBeShape = (s: Session): boolean => freeSelection(s).some((id) => hasOutline(s.design.nodes[id]));

/** Is one of them an open line? */
export const haveEnds = (s: Session, ids: readonly string[]): boolean =>
  ids.some((id) => {
    const node = s.design.nodes[id];
    if (node?.kind === 'shape') return shapeById(node.shape)?.open === true;
    return node?.kind === 'path' && hasOpenEnds(node.path);
  });

/** Is any contour of a path open? Asked at every move of a node, so without taking the path apart. */
function hasOpenEnds(path: PathData): boolean {
  let [begun, open] = [false, false];
  for (let i = 0; i < path.length; i += 1 + COORDS[path[i]]) {
    if (path[i] === MOVE || path[i] === CLOSE) {
      open ||= path[i] === MOVE && begun;
      begun = false;
    } else begun = true;
  }
  return open || begun;
}

/** Of two chosen objects the open line and the shape for its end; null where they are none. */
export function ownEndFor(s: Session): { readonly line: string; readonly shape: string } | null {
  const ids = freeSelection(s);
  if (ids.length !== 2) return null;
  const line = ids.find((id) => haveEnds(s, [id]) && linedNodes(s.design, [id]).length > 0);
  const shape = ids.find((id) => id !== line && haveInside(s, [id]));
  return line && shape ? { line, shape } : null;
}

/** Puts a chosen shape at the end of a chosen line; the shape itself stays where it is. */
export function putOwnEnd(s: Session): void {
  const found = ownEndFor(s);
  if (!found) return;
  const { region } = inkedArea(s.design, found.shape, s.engines.fonts);
  if (!region.path.length) return;
  const path = [...markOfArea(region.path, pathBounds(region.path))];
  const line = lineAt(s.design.nodes[found.line], 'outline');
  s.commit('Own shape at the end', (d) =>
    setOutlineStyle(
      d,
      [found.line],
      'outline',
      { end: { kind: 'own', path, size: line?.end?.size ?? 1 } },
      line?.paint ?? { kind: 'none' },
    ),
  );
  s.say('The shape stands at the line’s end, in the line’s colour. Its own object can be deleted.');
}

/** Makes the lines of what is chosen shapes of their own. */
function toShapes(s: Session): void {
  const ids = freeSelection(s);
  let done: ReturnType<typeof outlinesToShapes> | null = null;
  const recipe = (d: DesignDraft) => {
    done = outlinesToShapes(d, s.page, ids, s.newId, s.engines.fonts);
  };
  if (!s.commit('Line to shape', recipe) || !done) return;
  const { ids: now, made, kept } = done as ReturnType<typeof outlinesToShapes>;
  s.select([...now]);
  s.say(
    kept
      ? `Made ${count(made, 'line')} a shape; ${count(kept, 'line')} whose gradient follows it stays a line.`
      : `Made ${count(made, 'line')} a shape. Its edge can now be drawn with Nodes.`,
    kept ? 'warn' : 'plain',
  );
}

export const OUTLINE_COMMANDS = {
  'outline.toShape': {
    label: 'Line to shape',
    keywords: ['outline', 'stroke', 'expand', 'convert', 'path'],
    keys: [],
    applies: canBeShape,
    run: toShapes,
  },
  'outline.ownEnd': {
    label: 'Put the shape at the line’s end',
    keywords: ['arrowhead', 'marker', 'end', 'own arrow'],
    keys: [],
    applies: (s) => ownEndFor(s) !== null,
    run: putOwnEnd,
  },
} as const satisfies Record<string, CommandDef>;

/** Has one of them an edge with an inside? */
export const haveInside = (s: Session, ids: readonly string[]): boolean =>
  ids.some((id) => {
    const node = s.design.nodes[id];
    if (node?.kind === 'shape') return !shapeById(node.shape)?.open;
    return node?.kind === 'path' ? !hasOpenEnds(node.path) : node !== undefined && 'fills' in node;
  });

/** Lays one more line below those that are there, wide enough to be seen, and points colours at it. */
export function addFurtherOutline(s: Session): void {
  if (making.now) add(s, making.now);
  else void making.get().then((m) => add(s, m));
}

function add(s: Session, { furtherLine }: typeof import('./newOutline')): void {
  const nodes = linedNodes(s.design, freeSelection(s));
  if (!canAddOutline(s)) return;
  const line = furtherLine(s, nodes[0]);
  s.commit('One more outline', (d) => addOutline(d, nodes, line));
  const lowest = FURTHER_AIMS.findLast((aim) => aimedNodes(s.design, nodes, aim).length > 0);
  if (lowest) s.aimAt(lowest);
  s.say('The line lies behind. Click a colour for it; its weight, and how far away it runs, are in Details.');
}
