/**
 * Reads a page range such as `1-3, 5`. Pages count from 1; the order is kept, repeats are dropped. Empty means all.
 */
export function parsePages(
  text: string,
  count: number,
): { readonly ok: true; readonly pages: number[] } | { readonly ok: false; readonly message: string } {
  if (text.trim() === '') return { ok: true, pages: Array.from({ length: count }, (_, i) => i + 1) };
  const pages: number[] = [];
  for (const part of text.split(',')) {
    const m = /^\s*(\d+)\s*(?:[-–]\s*(\d+)\s*)?$/.exec(part);
    if (!m) return { ok: false, message: `“${part.trim()}” is not a page or a range. Write it like 1-3, 5.` };
    const from = Number(m[1]);
    const to = m[2] === undefined ? from : Number(m[2]);
    const missing = [from, to].find((n) => n < 1 || n > count);
    if (missing !== undefined)
      return {
        ok: false,
        message: `There is no page ${missing}: the design has ${count === 1 ? 'one page' : `pages 1 to ${count}`}.`,
      };
    const step = from <= to ? 1 : -1;
    for (let n = from; n !== to + step; n += step) if (!pages.includes(n)) pages.push(n);
  }
  return { ok: true, pages };
}
