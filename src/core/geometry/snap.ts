import type { Rect } from './rect';

/** A line that things snap to: where, and what to call it. */
export interface SnapLine {
  readonly at: number;
  readonly label: string;
}
export interface SnapLines {
  readonly x: readonly SnapLine[];
  readonly y: readonly SnapLine[];
}

export interface Snapped {
  readonly dx: number;
  readonly dy: number;
  readonly x: SnapLine | null;
  readonly y: SnapLine | null;
}

/** The shift that brings one of `values` onto the nearest line within `tolerance`; none is 0 with no line. */
export function snapValues(values: readonly number[], lines: readonly SnapLine[], tolerance: number): { shift: number; line: SnapLine | null } {
  let best: { shift: number; line: SnapLine | null } = { shift: 0, line: null };
  let least = tolerance;
  for (const v of values)
    for (const line of lines) {
      const shift = line.at - v;
      if (Math.abs(shift) <= least && (Math.abs(shift) < least || !best.line)) {
        least = Math.abs(shift);
        best = { shift, line };
      }
    }
  return best;
}

/** Edges and middle of a moving box against the lines. */
export function snapBox(box: Rect, lines: SnapLines, tolerance: number): Snapped {
  const x = snapValues([box.x0, (box.x0 + box.x1) / 2, box.x1], lines.x, tolerance);
  const y = snapValues([box.y0, (box.y0 + box.y1) / 2, box.y1], lines.y, tolerance);
  return { dx: x.shift, dy: y.shift, x: x.line, y: y.line };
}

/** The page's own lines: trim, middle, margins and columns. */
export function pageSnapLines(page: {
  readonly width: number;
  readonly height: number;
  readonly margins: { readonly top: number; readonly right: number; readonly bottom: number; readonly left: number };
  readonly columns: { readonly count: number; readonly gutter: number };
  readonly bleed: number;
}): SnapLines {
  const { width: w, height: h, margins: m, bleed } = page;
  const x: SnapLine[] = [
    { at: w / 2, label: 'page centre' },
    { at: 0, label: 'trim' },
    { at: w, label: 'trim' },
    { at: m.left, label: 'margin' },
    { at: w - m.right, label: 'margin' },
  ];
  const y: SnapLine[] = [
    { at: h / 2, label: 'page centre' },
    { at: 0, label: 'trim' },
    { at: h, label: 'trim' },
    { at: m.top, label: 'margin' },
    { at: h - m.bottom, label: 'margin' },
  ];
  if (bleed > 0) {
    x.push({ at: -bleed, label: 'bleed' }, { at: w + bleed, label: 'bleed' });
    y.push({ at: -bleed, label: 'bleed' }, { at: h + bleed, label: 'bleed' });
  }
  for (const [a, b] of columnEdges(page)) x.push({ at: a, label: 'column' }, { at: b, label: 'column' });
  return { x, y };
}

/** Left and right of each column; none for a single one, which is the margins. */
export function columnEdges(page: { readonly width: number; readonly margins: { readonly left: number; readonly right: number }; readonly columns: { readonly count: number; readonly gutter: number } }): [number, number][] {
  const { count, gutter } = page.columns;
  if (count < 2) return [];
  const inner = page.width - page.margins.left - page.margins.right;
  const each = (inner - gutter * (count - 1)) / count;
  if (!(each > 0)) return [];
  return Array.from({ length: count }, (_, i) => {
    const a = page.margins.left + i * (each + gutter);
    return [a, a + each];
  });
}

/** Edges and middle of other objects. */
export function objectSnapLines(boxes: readonly Rect[]): SnapLines {
  const x: SnapLine[] = [];
  const y: SnapLine[] = [];
  for (const b of boxes) {
    x.push({ at: b.x0, label: 'edge' }, { at: (b.x0 + b.x1) / 2, label: 'middle' }, { at: b.x1, label: 'edge' });
    y.push({ at: b.y0, label: 'edge' }, { at: (b.y0 + b.y1) / 2, label: 'middle' }, { at: b.y1, label: 'edge' });
  }
  return { x, y };
}
