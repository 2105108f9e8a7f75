/** The colours of what lies over the sheet. */
export interface Ink {
  accent: string;
  halo: string;
  text: string;
}

/** The selection's two lines: a halo below, the accent above. */
export function twoLines(ctx: CanvasRenderingContext2D, ink: Ink, path: () => void, width = 1.25): void {
  path();
  ctx.strokeStyle = ink.halo;
  ctx.lineWidth = width + 2.5;
  ctx.stroke();
  ctx.strokeStyle = ink.accent;
  ctx.lineWidth = width;
  ctx.stroke();
}
