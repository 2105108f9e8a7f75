import { addEllipse, KAPPA, PathBuilder, rectPath, type PathData } from '../../geometry/path';
import { rect } from '../../geometry/rect';
import { readPathData } from './pathData';
import type { Style } from './style';
import { readLength, readNumbers, type Measures } from './values';
import type { Element } from './xml';

/** What an element draws, in its own space; null for nothing. */
export type Drawn =
  | { readonly kind: 'path'; readonly path: PathData; readonly whole: boolean }
  /** A box with even corners, or an ellipse: a dialled shape of ours. */
  | {
      readonly kind: 'box' | 'ellipse';
      readonly x: number;
      readonly y: number;
      readonly width: number;
      readonly height: number;
      readonly radius: number;
    };

export const SHAPES: ReadonlySet<string> = new Set([
  'path',
  'rect',
  'circle',
  'ellipse',
  'line',
  'polyline',
  'polygon',
]);

/** What a shape element draws (SVG 1.1, chapter 9); null where it draws nothing. */
export function drawnBy(e: Element, m: Measures, _style: Style): Drawn | null {
  const length = (name: string, along: 'x' | 'y' | 'r') => readLength(e.attributes.get(name), m, along);
  const at = (name: string, along: 'x' | 'y' | 'r') => length(name, along) ?? 0;
  switch (e.name) {
    case 'path': {
      const { path, whole } = readPathData(e.attributes.get('d') ?? '');
      return path.length ? { kind: 'path', path, whole } : null;
    }
    case 'rect': {
      const [x, y, width, height] = [at('x', 'x'), at('y', 'y'), at('width', 'x'), at('height', 'y')];
      if (!(width > 0) || !(height > 0)) return null;
      const given = [length('rx', 'x'), length('ry', 'y')].map((v) => (v !== null && v >= 0 ? v : null));
      const rx = Math.min(given[0] ?? given[1] ?? 0, width / 2);
      const ry = Math.min(given[1] ?? given[0] ?? 0, height / 2);
      if (Math.abs(rx - ry) < 1e-9) return { kind: 'box', x, y, width, height, radius: rx };
      return { kind: 'path', path: unevenCorners(x, y, width, height, rx, ry), whole: true };
    }
    case 'circle': {
      const r = at('r', 'r');
      return r > 0
        ? { kind: 'ellipse', x: at('cx', 'x') - r, y: at('cy', 'y') - r, width: 2 * r, height: 2 * r, radius: 0 }
        : null;
    }
    case 'ellipse': {
      const [rx, ry] = [at('rx', 'x'), at('ry', 'y')];
      return rx > 0 && ry > 0
        ? { kind: 'ellipse', x: at('cx', 'x') - rx, y: at('cy', 'y') - ry, width: 2 * rx, height: 2 * ry, radius: 0 }
        : null;
    }
    case 'line':
      return { kind: 'path', path: [0, at('x1', 'x'), at('y1', 'y'), 1, at('x2', 'x'), at('y2', 'y')], whole: true };
    case 'polyline':
    case 'polygon': {
      const text = e.attributes.get('points') ?? '';
      const n = readNumbers(text);
      const pairs = Math.floor(n.length / 2);
      if (pairs < 1) return null;
      const out = new PathBuilder();
      for (let i = 0; i < pairs; i++) {
        if (i) out.lineTo(n[2 * i], n[2 * i + 1]);
        else out.moveTo(n[0], n[1]);
      }
      if (e.name === 'polygon') out.close();
      return { kind: 'path', path: out.data, whole: n.length % 2 === 0 };
    }
    default:
      return null;
  }
}

/** The line of what is drawn. */
export function lineOf(d: Drawn): PathData {
  if (d.kind === 'path') return d.path;
  if (d.kind === 'ellipse') {
    const out = new PathBuilder();
    addEllipse(out, d.x + d.width / 2, d.y + d.height / 2, d.width / 2, d.height / 2);
    return out.data;
  }
  return d.radius > 0
    ? unevenCorners(d.x, d.y, d.width, d.height, d.radius, d.radius)
    : rectPath(rect(d.x, d.y, d.width, d.height));
}

function unevenCorners(x: number, y: number, w: number, h: number, rx: number, ry: number): PathData {
  const out = new PathBuilder();
  const [kx, ky] = [rx * (1 - KAPPA), ry * (1 - KAPPA)];
  out.moveTo(x + rx, y);
  out.lineTo(x + w - rx, y);
  out.curveTo(x + w - kx, y, x + w, y + ky, x + w, y + ry);
  out.lineTo(x + w, y + h - ry);
  out.curveTo(x + w, y + h - ky, x + w - kx, y + h, x + w - rx, y + h);
  out.lineTo(x + rx, y + h);
  out.curveTo(x + kx, y + h, x, y + h - ky, x, y + h - ry);
  out.lineTo(x, y + ry);
  out.curveTo(x, y + ky, x + kx, y, x + rx, y);
  out.close();
  return out.data;
}
