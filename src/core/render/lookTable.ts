import type { ColourTable } from '../colour/inkTable';

/**
 * How colours look, as a lattice of nodes that is looked up between them in whole numbers: fast enough for the pixels
 * of a picture while a slider moves. Nodes are RGBA as one number, red its lowest byte, as pixels lie in memory.
 */
export interface LookTable {
  readonly inputs: 3 | 4;
  readonly nodes: Int32Array;
  /** From a cube's first corner to its last, and to the cube of the next fourth input. */
  readonly across: number;
  readonly next: number;
  /** By input and sample: where its cube begins. */
  readonly cells: readonly Int32Array[];
  /**
   * By input and sample: how far along its edge, 0…256, above the edge's stride: so edges are sorted without a branch.
   */
  readonly edges: readonly Int32Array[];
}

/** A table for nodes in the order of a ColourTable; `rgba` is their looks, four bytes each. */
export function lookTable(
  { inputs, grid }: Pick<ColourTable, 'inputs' | 'grid'>,
  rgba: Uint8ClampedArray<ArrayBuffer>,
): LookTable {
  const strides = [grid * grid, grid, 1, grid ** 3];
  const place = Array.from({ length: 256 }, (_, v) => (v * (grid - 1)) / 255);
  const cell = place.map((p) => Math.min(grid - 2, Math.floor(p)));
  return {
    inputs,
    nodes: new Int32Array(rgba.buffer),
    across: strides[0] + strides[1] + strides[2],
    next: strides[3],
    cells: strides.map((stride) => Int32Array.from(cell, (c) => c * stride)),
    edges: strides.map((stride) =>
      Int32Array.from(cell, (c, v) => (Math.round(256 * (place[v] - c)) << 16) | (stride & 0xffff)),
    ),
  };
}

const OPAQUE = 0xff << 24;
/** Red and blue lie 16 bits apart in one number, so that one multiplication weighs both. */
const RED_BLUE = 0xff00ff;

/**
 * The looks of `count` pixels, samples side by side in `src`, into `out` from `to` on; within a level of the exact
 * place.
 */
export function lookUp(
  { inputs, nodes, across, next, cells, edges }: LookTable,
  src: Uint8Array,
  count: number,
  out: Uint32Array,
  to: number,
): void {
  const [cu, cv, cw, ct] = cells;
  const [eu, ev, ew, et] = edges;
  for (let i = 0, at = 0; i < count; i++, at += inputs) {
    const u = src[at];
    const v = src[at + 1];
    const w = src[at + 2];
    let base = cu[u] + cv[v] + cw[w];
    if (inputs === 3) {
      out[to + i] = cube(nodes, base, across, eu[u], ev[v], ew[w]);
      continue;
    }
    const t = src[at + 3];
    base += ct[t];
    const low = cube(nodes, base, across, eu[u], ev[v], ew[w]);
    const part = et[t] >> 16;
    out[to + i] = part === 0 ? low : between(low, cube(nodes, base + next, across, eu[u], ev[v], ew[w]), part);
  }
}

/** Tetrahedral: from a cube's first corner to its last along its edges, the longest part first. */
function cube(nodes: Int32Array, base: number, across: number, x: number, y: number, z: number): number {
  const most = Math.max(x, Math.max(y, z));
  const least = Math.min(x, Math.min(y, z));
  const middle = x + y + z - most - least;
  const p = most >> 16;
  const q = middle >> 16;
  const r = least >> 16;
  const n0 = nodes[base];
  const n1 = nodes[base + (most & 0xffff)];
  const n2 = nodes[base + across - (least & 0xffff)];
  const n3 = nodes[base + across];
  const w0 = 256 - p;
  const w1 = p - q;
  const w2 = q - r;
  const rb =
    (Math.imul(w0, n0 & RED_BLUE) +
      Math.imul(w1, n1 & RED_BLUE) +
      Math.imul(w2, n2 & RED_BLUE) +
      Math.imul(r, n3 & RED_BLUE) +
      0x800080) |
    0;
  const g =
    (Math.imul(w0, (n0 >> 8) & 255) +
      Math.imul(w1, (n1 >> 8) & 255) +
      Math.imul(w2, (n2 >> 8) & 255) +
      Math.imul(r, (n3 >> 8) & 255) +
      0x80) |
    0;
  return OPAQUE | ((rb >>> 8) & RED_BLUE) | (g & 0xff00);
}

/** From one look to another, k 256ths of the way. */
function between(a: number, b: number, k: number): number {
  const rb = (Math.imul(256 - k, a & RED_BLUE) + Math.imul(k, b & RED_BLUE) + 0x800080) | 0;
  const g = ((256 - k) * ((a >> 8) & 255) + k * ((b >> 8) & 255) + 0x80) | 0;
  return OPAQUE | ((rb >>> 8) & RED_BLUE) | (g & 0xff00);
}

/** Sides of a map of six bits a channel. */
const SIDE = 64;
const nearest = (v: number): number => (Math.imul(v, 253) + 512) >> 10;

/**
 * The looks of 64 × 64 × 64 colours, made from a table of three inputs: what a colour lies nearest to stands for it.
 */
export function coarseLooks(table: LookTable): Uint32Array {
  const colours = new Uint8Array(SIDE ** 3 * 3);
  for (let i = 0; i < SIDE ** 3; i++) {
    colours[3 * i] = ((i >> 12) * 255) / 63 + 0.5;
    colours[3 * i + 1] = (((i >> 6) & 63) * 255) / 63 + 0.5;
    colours[3 * i + 2] = ((i & 63) * 255) / 63 + 0.5;
  }
  const out = new Uint32Array(SIDE ** 3);
  lookUp(table, colours, out.length, out, 0);
  return out;
}

/** The nearest of such looks for RGB pixels, as `lookUp` gives the exact ones: within two levels of a sample. */
export function lookNear(looks: Uint32Array, src: Uint8Array, count: number, out: Uint32Array, to: number): void {
  for (let i = 0, at = 0; i < count; i++, at += 3)
    out[to + i] = looks[(nearest(src[at]) << 12) | (nearest(src[at + 1]) << 6) | nearest(src[at + 2])];
}
