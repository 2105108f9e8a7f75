import type { Region } from './coverage';
import { RAMP_STEPS } from './field';
import { GRAIN_CELL, GRAIN_SIZE, grainTile } from './grain';

// One row of one plate at a time: where a cover of 0…255 says how much of what was there gives way.

/** Takes each pixel of a row a little further on along the ramp, or a little back, square by square of the grain. */
export function grainOver(
  { x: ox, y: oy, scale, width }: Region,
  grain: number,
): (y: number, from: number, to: number, index: Uint16Array) => void {
  const tile = grainTile();
  const by = Math.round((grain / 2) * RAMP_STEPS);
  const cell = (v: number) => ((Math.floor(v / GRAIN_CELL) % GRAIN_SIZE) + GRAIN_SIZE) % GRAIN_SIZE;
  const columns = Int32Array.from({ length: width }, (_, x) => cell(ox + (x + 0.5) / scale));
  return (y, from, to, index) => {
    const row = cell(oy + (y + 0.5) / scale) * GRAIN_SIZE;
    grainRow(index, from, to, tile.subarray(row, row + GRAIN_SIZE), columns, by);
  };
}

function grainRow(
  index: Uint16Array,
  from: number,
  to: number,
  row: Uint8Array,
  columns: Int32Array,
  by: number,
): void {
  for (let x = from; x < to; x++) {
    const t = index[x] + (row[columns[x]] ? by : -by);
    index[x] = t < 0 ? 0 : t > RAMP_STEPS ? RAMP_STEPS : t;
  }
}

/** Values of a table over a row. */
export function tableRow(
  plate: Uint8Array,
  base: number,
  from: number,
  to: number,
  cover: Uint8Array,
  table: Uint8Array,
  index: Uint16Array,
): void {
  for (let x = from; x < to;) {
    const c = cover[x];
    if (c === 255) {
      do plate[base + x] = table[index[x]];
      while (++x < to && cover[x] === 255);
      continue;
    }
    if (c !== 0) {
      const old = plate[base + x];
      plate[base + x] = old + ((table[index[x]] - old) * c) / 255 + 0.5;
    }
    x++;
  }
}

/** One value into one row of one plate: whole runs at once, edges by their coverage. */
export function flatRow(plate: Uint8Array, base: number, from: number, to: number, cover: Uint8Array, v: number): void {
  for (let x = from; x < to;) {
    const c = cover[x];
    if (c === 255) {
      let end = x + 1;
      while (end < to && cover[end] === 255) end++;
      plate.fill(v, base + x, base + end);
      x = end;
      continue;
    }
    if (c !== 0) {
      const old = plate[base + x];
      plate[base + x] = old + ((v - old) * c) / 255 + 0.5;
    }
    x++;
  }
}

/** A row of values into one row of one plate; `first` is the place of the first value in the row. */
export function valueRow(
  plate: Uint8Array,
  base: number,
  from: number,
  to: number,
  cover: Uint8Array,
  values: Uint8Array,
  first = 0,
): void {
  for (let x = from; x < to; x++) {
    const c = cover[x];
    if (c === 255) plate[base + x] = values[x - first];
    else if (c !== 0) {
      const old = plate[base + x];
      plate[base + x] = old + ((values[x - first] - old) * c) / 255 + 0.5;
    }
  }
}
