/**
 * “Plates agree”, as the shared page of outside checks defines it: a pixel agrees if it lies within `tolerance` of the
 * range that the other plate spans in the 3×3 around it, both ways (edges are smoothed differently by different
 * programs). Counted over the inked pixels: either plate under 250, grown by 2.
 */
export interface Grey {
  readonly width: number;
  readonly height: number;
  /** 0…255, 255 = no ink. */
  readonly data: Uint8Array;
}

export interface Agreement {
  readonly inked: number;
  /** Share of inked pixels that agree, 0…1; 1 for a plate without ink. */
  readonly share: number;
  /** A 4×4 block in which no pixel agrees. */
  readonly worstBlock: { readonly x: number; readonly y: number } | null;
  readonly inkA: number;
  readonly inkB: number;
}

export function comparePlates(a: Grey, b: Grey, tolerance = 2): Agreement {
  if (a.width !== b.width || a.height !== b.height)
    throw new Error(`sizes differ: ${a.width}×${a.height} and ${b.width}×${b.height}`);
  const { width: w, height: h } = a;
  const n = w * h;
  const [A, B] = [a.data, b.data];
  const inked = new Uint8Array(n);
  const ok = new Uint8Array(n);
  let inkA = 0;
  let inkB = 0;
  for (let i = 0; i < n; i++) {
    const p = A[i];
    const q = B[i];
    inkA += 255 - p;
    inkB += 255 - q;
    if (p < 250 || q < 250) inked[i] = 1;
    // What lies near its counterpart lies in the range round it.
    const d = p - q;
    if ((d <= tolerance && -d <= tolerance) || (inRange(p, B, i, w, h, tolerance) && inRange(q, A, i, w, h, tolerance)))
      ok[i] = 1;
  }
  const near = grown(inked, w, h, 2);
  let count = 0;
  let good = 0;
  for (let i = 0; i < n; i++) {
    count += near[i];
    good += near[i] & ok[i];
  }
  return { inked: count, share: count ? good / count : 1, worstBlock: blockWithout(ok, w, h), inkA, inkB };
}

/** Does a value lie within what the 3×3 round a place spans, or `tolerance` beyond? */
function inRange(v: number, data: Uint8Array, at: number, w: number, h: number, tolerance: number): boolean {
  const x = at % w;
  const y = (at - x) / w;
  let lo = 255;
  let hi = 0;
  for (let j = Math.max(0, y - 1); j <= Math.min(h - 1, y + 1); j++)
    for (let i = Math.max(0, x - 1); i <= Math.min(w - 1, x + 1); i++) {
      const q = data[j * w + i];
      if (q < lo) lo = q;
      if (q > hi) hi = q;
    }
  return v >= lo - tolerance && v <= hi + tolerance;
}

/** Marks all within `by` pixels of a mark, along rows and then across them. */
function grown(marks: Uint8Array, w: number, h: number, by: number): Uint8Array {
  const rows = new Uint8Array(marks.length);
  for (let y = 0; y < h; y++)
    for (let x = 0, base = y * w, done = 0; x < w; x++) {
      if (!marks[base + x]) continue;
      for (let k = x - by > done ? x - by : done; k <= x + by && k < w; k++) rows[base + k] = 1;
      done = x + by + 1;
    }
  const out = rows.slice();
  for (let y = 0; y < h; y++)
    for (let k = Math.max(0, y - by); k <= Math.min(h - 1, y + by); k++)
      for (let x = 0; x < w; x++) out[y * w + x] |= rows[k * w + x];
  return out;
}

function blockWithout(ok: Uint8Array, w: number, h: number): { x: number; y: number } | null {
  for (let y = 0; y + 4 <= h; y++)
    for (let x = 0; x + 4 <= w; x++) {
      if (ok[y * w + x]) continue;
      let any = 0;
      for (let k = 0; k < 16 && !any; k++) any = ok[(y + (k >> 2)) * w + x + (k & 3)];
      if (!any) return { x, y };
    }
  return null;
}
