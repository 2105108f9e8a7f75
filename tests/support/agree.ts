/**
 * “Plates agree”: the rule of docs on outside checks. A pixel agrees if it lies within `tolerance` of the range that the
 * other plate spans in the 3×3 around it, both ways (edges are smoothed differently by different programs).
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
  if (a.width !== b.width || a.height !== b.height) throw new Error(`sizes differ: ${a.width}×${a.height} and ${b.width}×${b.height}`);
  const { width: w, height: h } = a;
  const ok = new Uint8Array(w * h);
  const inked = new Uint8Array(w * h);
  for (let i = 0; i < w * h; i++) if (a.data[i] < 250 || b.data[i] < 250) inked[i] = 1;
  const near = grow(inked, w, h, 2);
  const within = (p: Grey, q: Grey, x: number, y: number) => {
    let lo = 255;
    let hi = 0;
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++) {
        const [xx, yy] = [x + dx, y + dy];
        if (xx < 0 || yy < 0 || xx >= w || yy >= h) continue;
        const v = q.data[yy * w + xx];
        if (v < lo) lo = v;
        if (v > hi) hi = v;
      }
    const v = p.data[y * w + x];
    return v >= lo - tolerance && v <= hi + tolerance;
  };
  let count = 0;
  let good = 0;
  let inkA = 0;
  let inkB = 0;
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      inkA += 255 - a.data[i];
      inkB += 255 - b.data[i];
      ok[i] = within(a, b, x, y) && within(b, a, x, y) ? 1 : 0;
      if (!near[i]) continue;
      count++;
      good += ok[i];
    }
  let worstBlock: Agreement['worstBlock'] = null;
  for (let y = 0; y + 4 <= h && !worstBlock; y++)
    for (let x = 0; x + 4 <= w; x++) {
      if (ok[y * w + x]) continue;
      let any = false;
      for (let k = 0; k < 16 && !any; k++) any = ok[(y + (k >> 2)) * w + x + (k & 3)] === 1;
      if (!any) {
        worstBlock = { x, y };
        break;
      }
    }
  return { inked: count, share: count ? good / count : 1, worstBlock, inkA, inkB };
}

function grow(mask: Uint8Array, w: number, h: number, by: number): Uint8Array {
  const out = new Uint8Array(mask.length);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      if (!mask[y * w + x]) continue;
      for (let yy = Math.max(0, y - by); yy <= Math.min(h - 1, y + by); yy++) for (let xx = Math.max(0, x - by); xx <= Math.min(w - 1, x + by); xx++) out[yy * w + xx] = 1;
    }
  return out;
}
