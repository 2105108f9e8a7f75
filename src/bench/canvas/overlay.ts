import { multiply } from '@/core/geometry/matrix';
import { setupOn } from '@/core/model/setupOn';
import { baselines, columnEdges } from '@/core/geometry/pageLines';
import { areaOf } from '@/core/derive/area';
import { ancestry, guidesOn, isHolder, pageMatrix } from '@/core/model/tree';
import type { Session } from '../session/session';
import { afterPaint } from '../session/afterPaint';
import type { OverlayExtras } from '../view/extras';
import { tracePath, twoLines, type Ink } from '../view/ink';
import { toScreen } from '../view/camera';
import { facingOf } from '../view/facing';
import { screenMatrix } from '../view/frame';

/** Lines of a baseline grid that would lie closer than this (CSS pixels) are not drawn. */
const DENSEST_LINES = 4;

export const toolOverlays = afterPaint(() => import('./toolOverlays'));

/** Guides, selection, knobs and beads: everything on the bench top that is not art. */
export function drawOverlay(canvas: HTMLCanvasElement, s: Session, extras: OverlayExtras): void {
  const ctx = canvas.getContext('2d')!;
  const k = canvas.width / Math.max(1, canvas.clientWidth);
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.clearRect(0, 0, canvas.width, canvas.height);
  ctx.setTransform(k, 0, 0, k, 0, 0);
  const style = getComputedStyle(canvas);
  const ink: Ink = {
    accent: style.getPropertyValue('--accent'),
    halo: style.getPropertyValue('--halo'),
    text: style.getPropertyValue('--text'),
  };
  const { view } = s.state;
  if (s.state.throughPage) toolOverlays.now?.drawThrough(ctx, s);
  if (view !== 'clean') drawSheetLines(ctx, s, ink, view === 'work');
  if (s.state.compare !== 'off') toolOverlays.now?.drawReference(ctx, canvas, s);
  if (s.state.pressAnswer) toolOverlays.now?.drawPressRemarks(ctx, s, ink);
  if (view !== 'work') return;
  if (s.state.crop) {
    toolOverlays.now?.drawCrop(ctx, canvas, s, ink);
    return;
  }
  toolOverlays.now?.drawPins(ctx, s);
  drawGuides(ctx, canvas, s, ink);
  drawOperands(ctx, s, ink);
  drawSnapLines(ctx, canvas, s, extras, ink);
  if (s.state.editing) toolOverlays.now?.drawTextEditing(ctx, s, extras, ink);
  else if (!extras.bare) {
    if (s.state.tool === 'nodes' || s.state.tool === 'pen' || s.state.tool === 'freehand')
      toolOverlays.now?.drawNodes(ctx, s, ink);
    // Where nodes are shown, a frame would lie over them.
    const onNodes =
      ['nodes', 'pen', 'freehand'].includes(s.state.tool) && (toolOverlays.now?.openPaths(s).length ?? 0) > 0;
    if (!onNodes) toolOverlays.now?.drawSelection(ctx, s, ink);
    if (!onNodes) toolOverlays.now?.drawThread(ctx, s, ink);
    toolOverlays.now?.drawRubber(ctx, s, extras, ink);
    if (s.state.tool === 'gradient') toolOverlays.now?.drawGradient(ctx, s, ink);
  }
  drawPointedAt(ctx, s, ink);
  if (extras.marquee) {
    const a = toScreen(s.state.camera, { x: extras.marquee.x0, y: extras.marquee.y0 });
    const b = toScreen(s.state.camera, { x: extras.marquee.x1, y: extras.marquee.y1 });
    ctx.setLineDash([4, 3]);
    twoLines(ctx, ink, () => {
      ctx.beginPath();
      ctx.rect(Math.round(a.x) + 0.5, Math.round(a.y) + 0.5, b.x - a.x, b.y - a.y);
    });
    ctx.setLineDash([]);
  }
}

/** Guides from edge to edge of the bench top, and the grid where it is on and not too dense. */
function drawGuides(ctx: CanvasRenderingContext2D, canvas: HTMLCanvasElement, s: Session, ink: Ink): void {
  const { camera: c, snapping } = s.state;
  const { width, height } = s.setup;
  if (snapping.grid && snapping.step * c.scale >= 6) {
    ctx.fillStyle = ink.accent;
    ctx.globalAlpha = 0.45;
    const x0 = Math.max(0, Math.ceil(-c.x / c.scale / snapping.step));
    const y0 = Math.max(0, Math.ceil(-c.y / c.scale / snapping.step));
    const x1 = Math.min(
      Math.floor(width / snapping.step),
      Math.floor((canvas.clientWidth - c.x) / c.scale / snapping.step),
    );
    const y1 = Math.min(
      Math.floor(height / snapping.step),
      Math.floor((canvas.clientHeight - c.y) / c.scale / snapping.step),
    );
    for (let i = x0; i <= x1; i++)
      for (let j = y0; j <= y1; j++)
        ctx.fillRect(i * snapping.step * c.scale + c.x - 0.5, j * snapping.step * c.scale + c.y - 0.5, 1, 1);
    ctx.globalAlpha = 1;
  }
  for (const { guide: g, own } of guidesOn(s.design, s.page)) {
    const at = Math.round(g.at * c.scale + (g.axis === 'x' ? c.x : c.y)) + 0.5;
    // Those of a master are as fixed here as locked ones.
    ctx.setLineDash(g.locked || !own ? [2, 4] : [7, 3]);
    twoLines(
      ctx,
      ink,
      () => {
        ctx.beginPath();
        ctx.moveTo(g.axis === 'x' ? at : 0, g.axis === 'x' ? 0 : at);
        ctx.lineTo(g.axis === 'x' ? at : canvas.clientWidth, g.axis === 'x' ? canvas.clientHeight : at);
      },
      0.75,
    );
  }
  ctx.setLineDash([]);
}

/** Round the object that a row of the pile here points at. */
function drawPointedAt(ctx: CanvasRenderingContext2D, s: Session, ink: Ink): void {
  const id = s.state.pointedAt;
  if (!id || !s.design.nodes[id]) return;
  const m = multiply(screenMatrix(s.state.camera), pageMatrix(s.design, s.page, id));
  twoLines(ctx, ink, () => tracePath(ctx, areaOf(s.design, id, s.engines.fonts, true).region.path, m), 2);
}

/** What an entered combination is made of, as dashed lines: it is not seen itself. */
function drawOperands(ctx: CanvasRenderingContext2D, s: Session, ink: Ink): void {
  const line = s.state.entered ? ancestry(s.design, s.page, s.state.entered) : [];
  if (!line.some((id) => s.design.nodes[id].kind === 'combination')) return;
  const node = s.design.nodes[s.state.entered!];
  if (!isHolder(node)) return;
  ctx.setLineDash([3, 3]);
  for (const id of node.children) {
    if (s.design.nodes[id].hidden) continue;
    const m = multiply(screenMatrix(s.state.camera), pageMatrix(s.design, s.page, id));
    const { path } = areaOf(s.design, id, s.engines.fonts, true).region;
    twoLines(ctx, ink, () => tracePath(ctx, path, m), 1);
  }
  ctx.setLineDash([]);
}

function drawSheetLines(ctx: CanvasRenderingContext2D, s: Session, ink: Ink, guides: boolean): void {
  const { setup } = s;
  const c = s.state.camera;
  const { width: w, height: h, bleed, margins: m } = setup;
  const box = (x0: number, y0: number, x1: number, y1: number) => {
    const a = toScreen(c, { x: x0, y: y0 });
    const b = toScreen(c, { x: x1, y: y1 });
    ctx.beginPath();
    if (setup.round)
      ctx.ellipse(
        (a.x + b.x) / 2,
        (a.y + b.y) / 2,
        Math.max(0, (b.x - a.x) / 2),
        Math.max(0, (b.y - a.y) / 2),
        0,
        0,
        2 * Math.PI,
      );
    else ctx.rect(Math.round(a.x) + 0.5, Math.round(a.y) + 0.5, Math.round(b.x - a.x), Math.round(b.y - a.y));
    ctx.stroke();
  };
  ctx.lineWidth = 1;
  const facing = facingOf(s);
  const beside = facing ? setupOn(s.design, facing.page).width : 0;
  if (bleed > 0) {
    ctx.strokeStyle = '#1a1a1a';
    const left = facing && facing.x < 0 ? facing.x : 0;
    const right = facing && facing.x > 0 ? facing.x + beside : w;
    box(left - bleed, -bleed, right + bleed, h + bleed);
  }
  if (facing) {
    // The page beside it: only where it is cut.
    ctx.strokeStyle = '#1a1a1a';
    box(facing.x, 0, facing.x + beside, h);
  }
  // Trim: a dark and a light line, so that it shows on any colour.
  ctx.strokeStyle = '#1a1a1a';
  box(0, 0, w, h);
  ctx.strokeStyle = '#ffffff';
  ctx.setLineDash([5, 5]);
  box(0, 0, w, h);
  if (guides) {
    ctx.setLineDash([1, 4]);
    for (const [colour, shift] of [
      ['#ffffff', 0],
      ['#1a1a1a', 2],
    ] as const) {
      ctx.strokeStyle = colour;
      ctx.lineDashOffset = shift;
      if (m.top + m.right + m.bottom + m.left > 0) box(m.left, m.top, w - m.right, h - m.bottom);
      for (const [a, b] of columnEdges(setup)) box(a, m.top, b, h - m.bottom);
    }
    ctx.lineDashOffset = 0;
    ctx.setLineDash([]);
    if (setup.baseline && setup.baseline.step * c.scale >= DENSEST_LINES) {
      ctx.strokeStyle = ink.accent;
      ctx.globalAlpha = 0.35;
      ctx.beginPath();
      for (const at of baselines(setup)) {
        if (at > h - m.bottom) break;
        const [a, b] = [toScreen(c, { x: m.left, y: at }), toScreen(c, { x: w - m.right, y: at })];
        ctx.moveTo(a.x, Math.round(a.y) + 0.5);
        ctx.lineTo(b.x, Math.round(b.y) + 0.5);
      }
      ctx.stroke();
      ctx.globalAlpha = 1;
    }
  }
  ctx.setLineDash([]);
}

function drawSnapLines(
  ctx: CanvasRenderingContext2D,
  canvas: HTMLCanvasElement,
  s: Session,
  extras: OverlayExtras,
  ink: Ink,
): void {
  const c = s.state.camera;
  ctx.strokeStyle = ink.accent;
  ctx.lineWidth = 1;
  ctx.beginPath();
  if (extras.snapX !== null) {
    const x = Math.round(extras.snapX * c.scale + c.x) + 0.5;
    ctx.moveTo(x, 0);
    ctx.lineTo(x, canvas.clientHeight);
  }
  if (extras.snapY !== null) {
    const y = Math.round(extras.snapY * c.scale + c.y) + 0.5;
    ctx.moveTo(0, y);
    ctx.lineTo(canvas.clientWidth, y);
  }
  ctx.stroke();
  // Equal gaps: a line with a bar at both ends in each.
  for (const g of extras.gaps) {
    const [a, b] = [toScreen(c, { x: g.x0, y: g.y0 }), toScreen(c, { x: g.x1, y: g.y1 })];
    const upright = g.x0 === g.x1;
    twoLines(ctx, ink, () => {
      ctx.beginPath();
      ctx.moveTo(a.x, a.y);
      ctx.lineTo(b.x, b.y);
      for (const p of [a, b]) {
        ctx.moveTo(p.x - (upright ? 5 : 0), p.y - (upright ? 0 : 5));
        ctx.lineTo(p.x + (upright ? 5 : 0), p.y + (upright ? 0 : 5));
      }
    });
  }
  if (extras.snapPoint) {
    const p = toScreen(c, extras.snapPoint);
    twoLines(
      ctx,
      ink,
      () => {
        ctx.beginPath();
        ctx.moveTo(p.x - 6, p.y);
        ctx.lineTo(p.x + 6, p.y);
        ctx.moveTo(p.x, p.y - 6);
        ctx.lineTo(p.x, p.y + 6);
      },
      1.5,
    );
  }
}
