import { multiply, scaling, translation, type Matrix } from '../../geometry/matrix';
import type { Rect } from '../../geometry/rect';
import { readNumbers } from './values';

export interface ViewBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A viewBox (SVG 1.1, 7.7); null for one that cannot be used. */
export function readViewBox(text: string | undefined): ViewBox | null {
  const n = text === undefined ? [] : readNumbers(text);
  return n.length === 4 && n[2] > 0 && n[3] > 0 && n.every((v) => Math.abs(v) < 1e9)
    ? { x: n[0], y: n[1], width: n[2], height: n[3] }
    : null;
}

/** From a view box to the viewport it is shown in (SVG 1.1, 7.8). `slice`: some of it may lie outside. */
export function viewMatrix(
  box: ViewBox,
  port: Rect,
  aspect: string | undefined,
): { readonly matrix: Matrix; readonly slice: boolean } {
  const [w, h] = [port.x1 - port.x0, port.y1 - port.y0];
  const words = (aspect ?? 'xMidYMid meet')
    .trim()
    .split(/\s+/)
    .filter((x) => x !== 'defer');
  let [sx, sy] = [w / box.width, h / box.height];
  const slice = words[1] === 'slice';
  if (words[0] !== 'none') sx = sy = slice ? Math.max(sx, sy) : Math.min(sx, sy);
  const share = (word: string) => (word === 'Min' ? 0 : word === 'Max' ? 1 : 0.5);
  const m = /^x(Min|Mid|Max)Y(Min|Mid|Max)$/.exec(words[0] ?? '');
  const free =
    words[0] === 'none'
      ? [0, 0]
      : [(w - box.width * sx) * share(m?.[1] ?? 'Mid'), (h - box.height * sy) * share(m?.[2] ?? 'Mid')];
  return {
    matrix: multiply(
      translation(port.x0 + free[0], port.y0 + free[1]),
      multiply(scaling(sx, sy), translation(-box.x, -box.y)),
    ),
    slice,
  };
}
