/**
 * A map between colours as a lattice of nodes, looked up between them: what a profile says, fast enough for pictures.
 * Inputs are bytes; results are 0…255, not rounded.
 */
export interface ColourTable {
  readonly inputs: 3 | 4;
  readonly outputs: number;
  /** Nodes a side. */
  readonly grid: number;
  /** Results of every node: the third input varies fastest, then the second, then the first; a fourth slowest. */
  readonly nodes: Float32Array;
}

/** Makes a table: `map` takes packed inputs 0…1 and gives packed results 0…1. */
export function bakeTable(
  inputs: 3 | 4,
  outputs: number,
  grid: number,
  map: (values: Float32Array) => Float32Array,
): ColourTable {
  const count = grid ** inputs;
  const values = new Float32Array(count * inputs);
  for (let i = 0; i < count; i++) {
    let rest = i;
    for (const k of [2, 1, 0, 3].slice(0, inputs)) {
      values[i * inputs + k] = (rest % grid) / (grid - 1);
      rest = Math.floor(rest / grid);
    }
  }
  return { inputs, outputs, grid, nodes: map(values).map((v) => Math.min(255, Math.max(0, v * 255))) };
}

/** Looks colours up one at a time: `out` gets the results for the bytes at `from` in `src`. */
export function tableReader(table: ColourTable): (src: Uint8Array, from: number, out: Float32Array) => void {
  const { grid, nodes, outputs } = table;
  const step = (grid - 1) / 255;
  const last = grid - 2;
  const s2 = outputs;
  const s1 = grid * s2;
  const s0 = grid * s1;
  /** Tetrahedral interpolation in the cube at `base`, at x, y, z within it. */
  const cube = (base: number, x: number, y: number, z: number, out: Float32Array): void => {
    // The way from the cube's first corner to its last along its edges, the longest part first.
    let [a, b] = [0, 0];
    let [p, q, r] = [x, y, z];
    if (x >= y) {
      if (y >= z) [a, b] = [s0, s0 + s1];
      else if (x >= z) [a, b, p, q, r] = [s0, s0 + s2, x, z, y];
      else [a, b, p, q, r] = [s2, s2 + s0, z, x, y];
    } else if (x >= z) [a, b, p, q, r] = [s1, s1 + s0, y, x, z];
    else if (y >= z) [a, b, p, q, r] = [s1, s1 + s2, y, z, x];
    else [a, b, p, q, r] = [s2, s2 + s1, z, y, x];
    const end = base + s0 + s1 + s2;
    for (let i = 0; i < outputs; i++)
      out[i] =
        (1 - p) * nodes[base + i] + (p - q) * nodes[base + a + i] + (q - r) * nodes[base + b + i] + r * nodes[end + i];
  };
  if (table.inputs === 3)
    return (src, from, out) => {
      const [u, v, w] = [src[from] * step, src[from + 1] * step, src[from + 2] * step];
      const [i, j, k] = [Math.min(last, u | 0), Math.min(last, v | 0), Math.min(last, w | 0)];
      cube(i * s0 + j * s1 + k * s2, u - i, v - j, w - k, out);
    };
  const sk = grid ** 3 * outputs;
  const other = new Float32Array(outputs);
  // Two cubes, and straight between them.
  return (src, from, out) => {
    const [u, v, w, t] = [src[from] * step, src[from + 1] * step, src[from + 2] * step, src[from + 3] * step];
    const [i, j, k, l] = [Math.min(last, u | 0), Math.min(last, v | 0), Math.min(last, w | 0), Math.min(last, t | 0)];
    const base = l * sk + i * s0 + j * s1 + k * s2;
    cube(base, u - i, v - j, w - k, out);
    const f = t - l;
    if (f === 0) return;
    cube(base + sk, u - i, v - j, w - k, other);
    for (let n = 0; n < outputs; n++) out[n] += f * (other[n] - out[n]);
  };
}
