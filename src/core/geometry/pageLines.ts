/** Lines that a page has of itself: where its columns lie, and its lines of text. */

/** Where the lines of a baseline grid lie on a page, from its head to its foot. */
export function baselines(page: {
  readonly height: number;
  readonly baseline?: { readonly start: number; readonly step: number } | undefined;
}): number[] {
  if (!page.baseline) return [];
  const { start, step } = page.baseline;
  const count = Math.floor((page.height - start) / step + 1e-9);
  return Array.from({ length: Math.max(0, count + 1) }, (_, i) => start + i * step);
}

/** Left and right of each column; none for a single one, which is the margins. */
export function columnEdges(page: {
  readonly width: number;
  readonly margins: { readonly left: number; readonly right: number };
  readonly columns: { readonly count: number; readonly gutter: number };
}): [number, number][] {
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
