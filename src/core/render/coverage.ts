import { CLOSE, CUBIC, LINE, MOVE, cubicAt, cubicSteps, type FillRule, type PathData } from '../geometry/path';

/** Maps page points to pixels: px = (pt − origin)·scale. */
export interface Region {
  /** Page point at the top left of the first pixel. */
  readonly x: number;
  readonly y: number;
  /** Pixels a point. */
  readonly scale: number;
  readonly width: number;
  readonly height: number;
}

/** Curves are flattened within this many pixels. */
const FLATNESS = 0.04;

/**
 * Receives one row: coverage 0…255 for the pixels from..to. It is 255 all through fullFrom..fullTo, which may be
 * nothing.
 */
export type RowSink = (
  y: number,
  from: number,
  to: number,
  coverage: Uint8Array,
  fullFrom: number,
  fullTo: number,
) => void;

/**
 * Exact-area antialiasing: every edge adds its signed area to the pixels it crosses, a running sum along each row gives
 * the winding, and the fill rule turns it into coverage. The same arithmetic runs everywhere, so plates are the same
 * bytes in the page, in a worker and in the shell.
 */
export class Coverage {
  private readonly cells: Float32Array;
  private readonly rowFrom: Int32Array;
  private readonly rowTo: Int32Array;
  private readonly row: Uint8Array;
  private readonly stride: number;
  private top = Infinity;
  private bottom = -1;

  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {
    this.stride = width + 3;
    this.cells = new Float32Array(this.stride * height);
    this.rowFrom = new Int32Array(height).fill(width + 2);
    this.rowTo = new Int32Array(height).fill(-1);
    this.row = new Uint8Array(width + 1);
  }

  /** Adds a path given in page points. Open contours are closed, as fills are. */
  add(path: PathData, region: Region): void {
    const { x: ox, y: oy, scale } = region;
    let sx = 0;
    let sy = 0;
    let px = 0;
    let py = 0;
    for (let i = 0; i < path.length;) {
      switch (path[i]) {
        case MOVE:
          if (px !== sx || py !== sy) this.edge(px, py, sx, sy);
          sx = px = (path[i + 1] - ox) * scale;
          sy = py = (path[i + 2] - oy) * scale;
          i += 3;
          break;
        case LINE: {
          const x = (path[i + 1] - ox) * scale;
          const y = (path[i + 2] - oy) * scale;
          this.edge(px, py, x, y);
          px = x;
          py = y;
          i += 3;
          break;
        }
        case CUBIC: {
          const x1 = (path[i + 1] - ox) * scale;
          const y1 = (path[i + 2] - oy) * scale;
          const x2 = (path[i + 3] - ox) * scale;
          const y2 = (path[i + 4] - oy) * scale;
          const x = (path[i + 5] - ox) * scale;
          const y = (path[i + 6] - oy) * scale;
          const n = cubicSteps(px, py, x1, y1, x2, y2, x, y, FLATNESS);
          let ax = px;
          let ay = py;
          for (let k = 1; k <= n; k++) {
            const bx = k === n ? x : cubicAt(px, x1, x2, x, k / n);
            const by = k === n ? y : cubicAt(py, y1, y2, y, k / n);
            this.edge(ax, ay, bx, by);
            ax = bx;
            ay = by;
          }
          px = x;
          py = y;
          i += 7;
          break;
        }
        case CLOSE:
          if (px !== sx || py !== sy) this.edge(px, py, sx, sy);
          px = sx;
          py = sy;
          i += 1;
          break;
        default:
          throw new Error(`unknown path opcode: ${path[i]} at ${i}`);
      }
    }
    if (px !== sx || py !== sy) this.edge(px, py, sx, sy);
  }

  private edge(x0: number, y0: number, x1: number, y1: number): void {
    if (y0 === y1 || !Number.isFinite(x0 + y0 + x1 + y1)) return;
    const dir = y0 < y1 ? 1 : -1;
    if (dir < 0) {
      let t = x0;
      x0 = x1;
      x1 = t;
      t = y0;
      y0 = y1;
      y1 = t;
    }
    if (y1 <= 0 || y0 >= this.height) return;
    const slope = (x1 - x0) / (y1 - y0);
    let x = x0;
    if (y0 < 0) {
      x -= y0 * slope;
      y0 = 0;
    }
    const first = Math.floor(y0);
    const last = Math.min(this.height, Math.ceil(y1));
    if (first < this.top) this.top = first;
    if (last - 1 > this.bottom) this.bottom = last - 1;
    const { cells, width } = this;
    for (let y = first; y < last; y++) {
      const dy = Math.min(y + 1, y1) - Math.max(y, y0);
      const next = x + slope * dy;
      let d = dy * dir;
      const base = y * this.stride;
      let a = x < next ? x : next;
      let b = x < next ? next : x;
      // The part left of the region counts from the first pixel on; the part right of it only says how far the row
      // goes.
      if (a < 0) {
        const out = b <= 0 ? 1 : -a / (b - a);
        cells[base] += d * out;
        this.rowFrom[y] = 0;
        d *= 1 - out;
        a = 0;
        if (b < 0) b = 0;
      }
      if (b > width) {
        const out = a >= width ? 1 : (b - width) / (b - a);
        cells[base + width] += d * out;
        if (this.rowTo[y] < width) this.rowTo[y] = width;
        d *= 1 - out;
        b = width;
        if (a > width) a = width;
      }
      const ai = Math.floor(a);
      const bi = Math.ceil(b);
      if (ai < this.rowFrom[y]) this.rowFrom[y] = ai;
      if (bi > this.rowTo[y]) this.rowTo[y] = bi;
      if (bi <= ai + 1) {
        const mid = 0.5 * (a + b) - ai;
        cells[base + ai] += d - d * mid;
        cells[base + ai + 1] += d * mid;
      } else {
        const s = 1 / (b - a);
        const af = a - ai;
        const a0 = 0.5 * s * (1 - af) * (1 - af);
        const bf = b - bi + 1;
        const am = 0.5 * s * bf * bf;
        cells[base + ai] += d * a0;
        if (bi === ai + 2) cells[base + ai + 1] += d * (1 - a0 - am);
        else {
          const a1 = s * (1.5 - af);
          cells[base + ai + 1] += d * (a1 - a0);
          for (let xi = ai + 2; xi < bi - 1; xi++) cells[base + xi] += d * s;
          const a2 = a1 + (bi - ai - 3) * s;
          cells[base + bi - 1] += d * (1 - a2 - am);
        }
        cells[base + bi] += d * am;
      }
      x = next;
    }
  }

  /** Hands out the covered rows and leaves the buffer clean for the next path. */
  sweep(rule: FillRule, sink: RowSink): void {
    const { cells, row, width } = this;
    const evenOdd = rule === 'evenOdd';
    for (let y = this.top; y <= this.bottom; y++) {
      const from = this.rowFrom[y];
      const to = Math.min(width, this.rowTo[y] + 1);
      if (from >= width) {
        this.clearRow(y);
        continue;
      }
      const base = y * this.stride;
      let sum = 0;
      let any = 0;
      let [fullFrom, fullTo] = [from, from];
      for (let x = from; x < to;) {
        sum += cells[base + x];
        let c = sum < 0 ? -sum : sum;
        if (evenOdd) {
          c %= 2;
          if (c > 1) c = 2 - c;
        } else if (c > 1) c = 1;
        const v = (c * 255 + 0.5) | 0;
        any |= v;
        // Between edges nothing changes: one value for the whole run.
        let end = x + 1;
        while (end < to && cells[base + end] === 0) end++;
        if (end - x < 8) for (let i = x; i < end; i++) row[i] = v;
        else row.fill(v, x, end);
        if (v === 255 && end - x > fullTo - fullFrom) {
          fullFrom = x;
          fullTo = end;
        }
        x = end;
      }
      this.clearRow(y);
      if (any) sink(y, from, to, row, fullFrom, fullTo);
    }
    this.top = Infinity;
    this.bottom = -1;
  }

  private clearRow(y: number): void {
    const base = y * this.stride;
    this.cells.fill(0, base + this.rowFrom[y], base + Math.min(this.stride, this.rowTo[y] + 3));
    this.rowFrom[y] = this.width + 2;
    this.rowTo[y] = -1;
  }
}
