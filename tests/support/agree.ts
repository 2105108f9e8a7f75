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
  if (a.width !== b.width || a.height !== b.height) throw new Error(`sizes differ: ${a.width}×${a.height} and ${b.width}×${b.height}`);
  const { width: w, height: h } = a;
  const n = w * h;
  const [A, B] = [a.data, b.data];
  const [aLo, aHi, bLo, bHi] = [spread(A, w, h, 1, false), spread(A, w, h, 1, true), spread(B, w, h, 1, false), spread(B, w, h, 1, true)];
  const inked = new Uint8Array(n);
  for (let i = 0; i < n; i++) if (A[i] < 250 || B[i] < 250) inked[i] = 1;
  const near = spread(inked, w, h, 2, true);
  const ok = new Uint8Array(n);
  let count = 0;
  let good = 0;
  let inkA = 0;
  let inkB = 0;
  for (let i = 0; i < n; i++) {
    inkA += 255 - A[i];
    inkB += 255 - B[i];
    const agrees = A[i] >= bLo[i] - tolerance && A[i] <= bHi[i] + tolerance && B[i] >= aLo[i] - tolerance && B[i] <= aHi[i] + tolerance;
    if (agrees) ok[i] = 1;
    if (near[i]) {
      count++;
      if (agrees) good++;
    }
  }
  return { inked: count, share: count ? good / count : 1, worstBlock: blockWithout(ok, w, h), inkA, inkB };
}

/** The least or greatest value within `by` pixels, along rows and then along columns. */
function spread(data: Uint8Array, w: number, h: number, by: number, most: boolean): Uint8Array {
  const pass = (source: Uint8Array, step: number, length: number, lines: number, lineStep: number) => {
    const out = new Uint8Array(source.length);
    for (let line = 0; line < lines; line++)
      for (let i = 0; i < length; i++) {
        const at = line * lineStep + i * step;
        let v = source[at];
        for (let d = 1; d <= by; d++) {
          if (i >= d) {
            const q = source[at - d * step];
            if (most ? q > v : q < v) v = q;
          }
          if (i + d < length) {
            const q = source[at + d * step];
            if (most ? q > v : q < v) v = q;
          }
        }
        out[at] = v;
      }
    return out;
  };
  return pass(pass(data, 1, w, h, w), w, h, w, 1);
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
