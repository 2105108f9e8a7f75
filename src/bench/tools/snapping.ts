import { objectSnapLines, pageSnapLines, snapBox, snapValues, type SnapLines } from '@/core/geometry/snap';
import { isEmpty, overlaps, type Rect } from '@/core/geometry/rect';
import { isHolder } from '@/core/model/tree';
import type { Point } from '@/core/geometry/matrix';
import type { PointerAt, ToolContext } from './tool';
import { SNAP_PX } from './tool';

/** More neighbours than this would only be a thicket of lines. */
const MOST_NEIGHBOURS = 300;

/** The lines a gesture can snap to: the page's own and those of objects that stay. Made once, when the gesture begins. */
export function snapLinesFor(c: ToolContext, moving: readonly string[]): SnapLines {
  const { session: s } = c;
  const { design, page } = s;
  const own = pageSnapLines(design.setup);
  const still = new Set(moving);
  const sheet: Rect = { x0: -design.setup.bleed, y0: -design.setup.bleed, x1: design.setup.width + design.setup.bleed, y1: design.setup.height + design.setup.bleed };
  const boxes: Rect[] = [];
  const entered = s.state.entered && design.nodes[s.state.entered];
  const ids = entered && isHolder(entered) ? entered.children : page.children;
  for (const id of ids) {
    if (boxes.length >= MOST_NEIGHBOURS) break;
    if (still.has(id) || design.nodes[id].hidden) continue;
    const box = s.boxOf([id]);
    if (!isEmpty(box) && overlaps(box, sheet)) boxes.push(box);
  }
  const others = objectSnapLines(boxes);
  return { x: [...own.x, ...others.x], y: [...own.y, ...others.y] };
}

export interface SnapResult {
  readonly dx: number;
  readonly dy: number;
  readonly said: string;
}

/** Snaps a moving box, shows the lines, and says what it snapped to. Ctrl or Cmd suspends it. */
export function snapMoving(c: ToolContext, box: Rect, lines: SnapLines, at: PointerAt): SnapResult {
  if (at.mod) {
    clearSnap(c);
    return { dx: 0, dy: 0, said: '' };
  }
  const snapped = snapBox(box, lines, SNAP_PX / c.session.state.camera.scale);
  c.extras.snapX = snapped.x?.at ?? null;
  c.extras.snapY = snapped.y?.at ?? null;
  return { dx: snapped.dx, dy: snapped.dy, said: said(snapped.x?.label, snapped.y?.label) };
}

export function snapPoint(c: ToolContext, p: Point, lines: SnapLines, at: PointerAt): { point: Point; said: string } {
  if (at.mod) {
    clearSnap(c);
    return { point: p, said: '' };
  }
  const reach = SNAP_PX / c.session.state.camera.scale;
  const x = snapValues([p.x], lines.x, reach);
  const y = snapValues([p.y], lines.y, reach);
  c.extras.snapX = x.line?.at ?? null;
  c.extras.snapY = y.line?.at ?? null;
  return { point: { x: p.x + x.shift, y: p.y + y.shift }, said: said(x.line?.label, y.line?.label) };
}

export function clearSnap(c: ToolContext): void {
  c.extras.snapX = null;
  c.extras.snapY = null;
}

function said(x?: string, y?: string): string {
  const words = [...new Set([x, y].filter(Boolean))];
  return words.length ? ` · at ${words.join(' and ')}` : '';
}
