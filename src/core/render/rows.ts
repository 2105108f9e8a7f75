import type { Region } from './coverage';
import { RAMP_STEPS } from './field';
import { GRAIN_CELL, GRAIN_SIZE, grainTile } from './grain';

// One row of one plate at a time: where a cover of 0…255 says how much of what was there gives way.

/** Grain over a region: which pixels are taken a little further on along the ramp, and which a little back. */
export class GrainOver {
  private readonly tile = grainTile();
  private readonly by: number;
  /** The column of the tile that each pixel of a row lies in. */
  private readonly columns: Int32Array;
  private readonly masks = new Map<number, Uint8Array>();

  constructor(
    private readonly region: Region,
    grain: number,
  ) {
    this.by = Math.round((grain / 2) * RAMP_STEPS);
    const { x: ox, scale, width } = region;
    this.columns = Int32Array.from({ length: width }, (_, x) => cell(ox + (x + 0.5) / scale));
  }

  private rowAt(y: number): number {
    return cell(this.region.y + (y + 0.5) / this.region.scale) * GRAIN_SIZE;
  }

  /** Moves the indexes of a row. */
  move(y: number, from: number, to: number, index: Uint16Array): void {
    const at = this.rowAt(y);
    const row = this.tile.subarray(at, at + GRAIN_SIZE);
    const { columns, by } = this;
    for (let x = from; x < to; x++) index[x] = within(index[x] + (row[columns[x]] ? by : -by));
  }

  /** The two indexes that one becomes. */
  pair(index: number): { readonly on: number; readonly back: number } {
    return { on: within(index + this.by), back: within(index - this.by) };
  }

  /** A row of bytes, 255 where the ramp is taken further on; a whole number of four long. */
  mask(y: number): Uint8Array {
    const at = this.rowAt(y);
    let mask = this.masks.get(at);
    if (!mask) {
      mask = new Uint8Array((this.columns.length + 3) & ~3);
      for (let x = 0; x < this.columns.length; x++) mask[x] = this.tile[at + this.columns[x]] ? 255 : 0;
      this.masks.set(at, mask);
    }
    return mask;
  }
}
const cell = (v: number): number => ((Math.floor(v / GRAIN_CELL) % GRAIN_SIZE) + GRAIN_SIZE) % GRAIN_SIZE;
const within = (t: number): number => (t < 0 ? 0 : t > RAMP_STEPS ? RAMP_STEPS : t);

/**
 * Writes one value where a mask is set and another where it is not, four at a time; both rows are a whole number of
 * four long.
 */
export function chosenRow(out: Uint8Array, mask: Uint8Array, set: number, unset: number): void {
  const words = new Uint32Array(out.buffer, out.byteOffset, out.length >> 2);
  const marks = new Uint32Array(mask.buffer, mask.byteOffset, mask.length >> 2);
  const [base, change] = [unset * 0x01010101, (set ^ unset) * 0x01010101];
  for (let i = 0; i < words.length; i++) words[i] = base ^ (marks[i] & change);
}

/**
 * What a row lets through: the cover of its pixels from..to, and where it is full all through (nowhere, if fullFrom ≥
 * fullTo).
 */
export interface Through {
  readonly from: number;
  readonly to: number;
  readonly cover: Uint8Array;
  readonly fullFrom: number;
  readonly fullTo: number;
}

/** Values of a table over a row. */
export function tableRow(plate: Uint8Array, base: number, row: Through, table: Uint8Array, index: Uint16Array): void {
  const { from, to, cover, fullFrom, fullTo } = row;
  for (let x = from; x < to; x++) {
    if (x === fullFrom && fullTo > x) {
      for (; x < fullTo; x++) plate[base + x] = table[index[x]];
      if (x === to) break;
    }
    const c = cover[x];
    if (c === 255) plate[base + x] = table[index[x]];
    else if (c !== 0) {
      const old = plate[base + x];
      plate[base + x] = old + ((table[index[x]] - old) * c) / 255 + 0.5;
    }
  }
}

/** One value into one row of one plate: whole runs at once, edges by their coverage. */
export function flatRow(plate: Uint8Array, base: number, row: Through, v: number): void {
  const { from, to, cover, fullFrom, fullTo } = row;
  for (let x = from; x < to; x++) {
    if (x === fullFrom && fullTo > x) {
      plate.fill(v, base + x, base + fullTo);
      x = fullTo;
      if (x === to) break;
    }
    const c = cover[x];
    if (c === 255) plate[base + x] = v;
    else if (c !== 0) {
      const old = plate[base + x];
      plate[base + x] = old + ((v - old) * c) / 255 + 0.5;
    }
  }
}

/** A row of values into one row of one plate; `first` is the place of the first value in the row. */
export function valueRow(plate: Uint8Array, base: number, row: Through, values: Uint8Array, first = 0): void {
  const { from, to, cover, fullFrom, fullTo } = row;
  for (let x = from; x < to; x++) {
    if (x === fullFrom && fullTo > x) {
      plate.set(values.subarray(fullFrom - first, fullTo - first), base + x);
      x = fullTo;
      if (x === to) break;
    }
    const c = cover[x];
    if (c === 255) plate[base + x] = values[x - first];
    else if (c !== 0) {
      const old = plate[base + x];
      plate[base + x] = old + ((values[x - first] - old) * c) / 255 + 0.5;
    }
  }
}
