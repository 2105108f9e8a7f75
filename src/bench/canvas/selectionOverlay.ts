import { apply, multiply, type Point } from '@/core/geometry/matrix';
import { chosenAreas } from '@/core/text/caret';
import type { Session } from '../session/session';
import { caretLine, shownIn } from '../view/caret';
import type { OverlayExtras } from '../view/extras';
import { tracePath, twoLines, type Ink } from '../view/ink';
import { toScreen } from '../view/camera';
import { frameCorners, placedGrips, screenMatrix, selectionFrame, textFrameOf } from '../view/frame';

/** What the next click would add, and the ring of a brush. */
export function drawRubber(ctx: CanvasRenderingContext2D, s: Session, extras: OverlayExtras, ink: Ink): void {
  if (extras.lit) {
    ctx.beginPath();
    tracePath(ctx, extras.lit, screenMatrix(s.state.camera));
    ctx.globalAlpha = 0.22;
    ctx.fillStyle = ink.accent;
    ctx.fill('evenodd');
    ctx.globalAlpha = 1;
    twoLines(ctx, ink, () => tracePath(ctx, extras.lit!, screenMatrix(s.state.camera)), 1.5);
  }
  if (extras.bridges.length) {
    ctx.setLineDash([3, 3]);
    twoLines(
      ctx,
      ink,
      () => {
        ctx.beginPath();
        for (const [a, b] of extras.bridges) {
          const [p, q] = [toScreen(s.state.camera, a), toScreen(s.state.camera, b)];
          ctx.moveTo(p.x, p.y);
          ctx.lineTo(q.x, q.y);
        }
      },
      1.5,
    );
    ctx.setLineDash([]);
  }
  if (extras.rubber) {
    ctx.setLineDash([5, 3]);
    twoLines(ctx, ink, () => tracePath(ctx, extras.rubber!, screenMatrix(s.state.camera)), 1);
    ctx.setLineDash([]);
  }
  if (extras.brush) {
    const p = toScreen(s.state.camera, extras.brush.at);
    twoLines(
      ctx,
      ink,
      () => {
        ctx.beginPath();
        ctx.arc(p.x, p.y, extras.brush!.radius, 0, 2 * Math.PI);
      },
      1,
    );
  }
}

export function drawSelection(ctx: CanvasRenderingContext2D, s: Session, ink: Ink): void {
  const f = selectionFrame(s);
  if (!f) return;
  const corners = frameCorners(f, s.state.camera);
  twoLines(ctx, ink, () => {
    ctx.beginPath();
    corners.forEach((p, i) => (i ? ctx.lineTo(p.x, p.y) : ctx.moveTo(p.x, p.y)));
    ctx.closePath();
  });
  if (s.state.tool !== 'select') return;
  for (const g of placedGrips(s, f)) {
    const { at, ux, uy } = g;
    const along = (p: Point, dx: number, dy: number): Point => ({
      x: p.x + ux.x * dx + uy.x * dy,
      y: p.y + ux.y * dx + uy.y * dy,
    });
    const line = (a: Point, b: Point) => {
      ctx.moveTo(a.x, a.y);
      ctx.lineTo(b.x, b.y);
    };
    if (g.grip.kind === 'size') {
      const { hx, hy } = g.grip;
      twoLines(
        ctx,
        ink,
        () => {
          ctx.beginPath();
          // Like cut marks: two ticks at a corner that do not meet it, one at a side.
          if (hx !== 0) line(along(at, hx * -2.5, hy * -6), along(at, hx * 7, hy * -6));
          if (hy !== 0) line(along(at, hx * -6, hy * -2.5), along(at, hx * -6, hy * 7));
          if (hx === 0 || hy === 0) {
            ctx.beginPath();
            line(along(at, hx * -5, hy * -5), along(at, hx * 5, hy * 5));
          }
        },
        1.75,
      );
    } else if (g.grip.kind === 'turn') {
      const start = Math.atan2(-uy.y, -uy.x);
      twoLines(
        ctx,
        ink,
        () => {
          ctx.beginPath();
          ctx.arc(at.x - (ux.x - uy.x) * 6, at.y - (ux.y - uy.y) * 6, 9, start, start + Math.PI / 2);
        },
        1.75,
      );
    } else if (g.grip.kind === 'shadow' || g.grip.kind === 'depth') {
      drawShadowRing(ctx, g.notch!, at, ink);
    } else if (g.grip.kind === 'pivot') {
      drawPivot(ctx, at, s.state.pivot !== null, ink);
    } else {
      drawKnob(ctx, at, g.notch!, g.letter ?? '', ink);
    }
  }
}

/** A line from where the object stands to where its shadow falls, with a ring at its end. */
function drawShadowRing(ctx: CanvasRenderingContext2D, from: Point, at: Point, ink: Ink): void {
  twoLines(
    ctx,
    ink,
    () => {
      ctx.beginPath();
      ctx.moveTo(from.x, from.y);
      ctx.lineTo(at.x, at.y);
    },
    1,
  );
  ctx.beginPath();
  ctx.arc(at.x, at.y, 6, 0, 2 * Math.PI);
  ctx.fillStyle = ink.halo;
  ctx.fill();
  ctx.beginPath();
  ctx.arc(at.x, at.y, 6, -Math.PI / 4, (3 * Math.PI) / 4);
  ctx.fillStyle = ink.accent;
  ctx.fill();
  twoLines(
    ctx,
    ink,
    () => {
      ctx.beginPath();
      ctx.arc(at.x, at.y, 6, 0, 2 * Math.PI);
    },
    1.5,
  );
}

/** A ring with a point in it; thin while it waits beside the frame. */
function drawPivot(ctx: CanvasRenderingContext2D, at: Point, set: boolean, ink: Ink): void {
  ctx.globalAlpha = set ? 1 : 0.7;
  twoLines(
    ctx,
    ink,
    () => {
      ctx.beginPath();
      ctx.arc(at.x, at.y, set ? 7 : 5, 0, 2 * Math.PI);
    },
    set ? 1.75 : 1.25,
  );
  ctx.beginPath();
  ctx.arc(at.x, at.y, 1.6, 0, 2 * Math.PI);
  ctx.fillStyle = ink.accent;
  ctx.fill();
  ctx.globalAlpha = 1;
}

/** A small round knob: its notch points the way it travels, its letter stands beside it. */
function drawKnob(ctx: CanvasRenderingContext2D, at: Point, notch: Point, letter: string, ink: Ink): void {
  ctx.beginPath();
  ctx.arc(at.x, at.y, 6, 0, 2 * Math.PI);
  ctx.fillStyle = ink.halo;
  ctx.fill();
  ctx.strokeStyle = ink.accent;
  ctx.lineWidth = 1.75;
  ctx.stroke();
  ctx.beginPath();
  ctx.moveTo(at.x + notch.x * 1.5, at.y + notch.y * 1.5);
  ctx.lineTo(at.x + notch.x * 6, at.y + notch.y * 6);
  ctx.stroke();
  label(ctx, letter, at.x + 9, at.y - 7, ink);
}

function label(ctx: CanvasRenderingContext2D, text: string, x: number, y: number, ink: Ink): void {
  if (!text) return;
  ctx.font = '600 11px Archivo, sans-serif';
  ctx.lineJoin = 'round';
  ctx.strokeStyle = ink.halo;
  ctx.lineWidth = 3;
  ctx.strokeText(text, x, y);
  ctx.fillStyle = ink.accent;
  ctx.fillText(text, x, y);
}

export function drawTextEditing(ctx: CanvasRenderingContext2D, s: Session, extras: OverlayExtras, ink: Ink): void {
  const e = s.state.editing!;
  const t = textFrameOf(s, e.node);
  if (!t) return;
  const f = selectionFrame(s);
  if (f) {
    ctx.setLineDash([3, 3]);
    twoLines(
      ctx,
      ink,
      () => {
        ctx.beginPath();
        frameCorners(f, s.state.camera).forEach((p, i) => (i ? ctx.lineTo(p.x, p.y) : ctx.moveTo(p.x, p.y)));
        ctx.closePath();
      },
      1,
    );
    ctx.setLineDash([]);
  }
  const [lo, hi] = [Math.min(e.anchor, e.focus), Math.max(e.anchor, e.focus)];
  if (hi > lo) {
    ctx.fillStyle = ink.accent;
    ctx.globalAlpha = 0.35;
    for (const { layout, matrix } of shownIn(s, e.node)) {
      const m = multiply(screenMatrix(s.state.camera), matrix);
      for (const line of layout.lines)
        for (const area of chosenAreas(layout, line, lo, hi)) {
          ctx.beginPath();
          area.forEach((p, i) => {
            const q = apply(m, p);
            if (i) ctx.lineTo(q.x, q.y);
            else ctx.moveTo(q.x, q.y);
          });
          ctx.fill();
        }
    }
    ctx.globalAlpha = 1;
  }
  const caret = caretLine(s);
  if (caret && (extras.caretOn || hi > lo))
    twoLines(
      ctx,
      ink,
      () => {
        ctx.beginPath();
        ctx.moveTo(caret[0].x, caret[0].y);
        ctx.lineTo(caret[1].x, caret[1].y);
      },
      1.5,
    );
}
