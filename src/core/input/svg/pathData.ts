import { CLOSE, CUBIC, LINE, MOVE, type PathData, type PathSink } from '../../geometry/path';

/** Reads path data (SVG 1.1, 8.3.9) up to the first thing that is not path data; what came before is drawn. */
export function readPathData(text: string): { readonly path: PathData; readonly whole: boolean } {
  const out = new Strip();
  const scan = new Scanner(text);
  let x = 0;
  let y = 0;
  let sx = 0;
  let sy = 0;
  // The last control point, mirrored by the shorthands that follow a curve of their kind.
  let cx = 0;
  let cy = 0;
  let last = 0;
  let begun = false;
  let command = 0;
  for (;;) {
    scan.space();
    if (scan.done) return { path: out.path(), whole: true };
    const letter = scan.command();
    if (letter) command = letter;
    else if (!command || (command & UPPER) === Z) return { path: out.path(), whole: false };
    // Further points of a move are lines.
    else if ((command & UPPER) === M) command += L - M;
    if (out.length === 0 && (command & UPPER) !== M) return { path: [], whole: false };
    const relative = command > Z;
    const ox = relative ? x : 0;
    const oy = relative ? y : 0;
    const kind = command & UPPER;
    const n = scan.numbers(ARGUMENTS[kind], kind === A);
    if (!n) return { path: out.path(), whole: false };
    // After a close a command that draws goes on from where the contour began.
    if (!begun && kind !== M && kind !== Z) {
      out.moveTo(x, y);
      begun = true;
    }
    // Where it ends: the last two numbers, of all but these.
    const at = ARGUMENTS[kind] - 2;
    let ex = x;
    let ey = y;
    if (kind === H) ex = ox + n[0];
    else if (kind === V) ey = oy + n[0];
    else if (kind !== Z) {
      ex = ox + n[at];
      ey = oy + n[at + 1];
    }
    switch (kind) {
      case M:
        sx = ex;
        sy = ey;
        out.moveTo(ex, ey);
        begun = true;
        break;
      case L:
      case H:
      case V:
        out.lineTo(ex, ey);
        break;
      case C:
        cx = ox + n[2];
        cy = oy + n[3];
        out.curve(n, ox, oy);
        break;
      case S: {
        const mirrored = last === C || last === S;
        const fx = mirrored ? 2 * x - cx : x;
        const fy = mirrored ? 2 * y - cy : y;
        cx = ox + n[0];
        cy = oy + n[1];
        out.curveTo(fx, fy, cx, cy, ex, ey);
        break;
      }
      case Q:
      case T: {
        const mirrored = last === Q || last === T;
        cx = kind === Q ? ox + n[0] : mirrored ? 2 * x - cx : x;
        cy = kind === Q ? oy + n[1] : mirrored ? 2 * y - cy : y;
        out.curveTo(
          x + (2 / 3) * (cx - x),
          y + (2 / 3) * (cy - y),
          ex + (2 / 3) * (cx - ex),
          ey + (2 / 3) * (cy - ey),
          ex,
          ey,
        );
        break;
      }
      case A:
        arc(out, x, y, n[0], n[1], n[2], n[3] !== 0, n[4] !== 0, ex, ey);
        break;
      case Z:
        out.close();
        ex = sx;
        ey = sy;
        begun = false;
        break;
    }
    x = ex;
    y = ey;
    last = kind;
    // Of what is no number neither is true.
    if (!(Math.abs(x) <= 1e9 && Math.abs(y) <= 1e9)) return { path: [], whole: false };
  }
}

/** Kept from path to path, so that a list does not grow step by step: longest so far. */
const strip: number[] = [];
const MOST_KEPT = 1 << 18;
/** Collects what is drawn at the head of the kept list, and cuts it off at its length. */
class Strip implements PathSink {
  length = 0;
  moveTo(x: number, y: number): void {
    this.point(MOVE, x, y);
  }
  lineTo(x: number, y: number): void {
    this.point(LINE, x, y);
  }
  private point(op: number, x: number, y: number): void {
    const n = this.length;
    strip[n] = op;
    strip[n + 1] = x;
    strip[n + 2] = y;
    this.length = n + 3;
  }
  curveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    const n = this.length;
    strip[n] = CUBIC;
    strip[n + 1] = x1;
    strip[n + 2] = y1;
    strip[n + 3] = x2;
    strip[n + 4] = y2;
    strip[n + 5] = x;
    strip[n + 6] = y;
    this.length = n + 7;
  }
  /** Six numbers from a place: most of a drawing are of these. */
  curve(n: Readonly<Float64Array>, ox: number, oy: number): void {
    const at = this.length;
    strip[at] = CUBIC;
    for (let k = 0; k < 6; k += 2) {
      strip[at + 1 + k] = ox + n[k];
      strip[at + 2 + k] = oy + n[k + 1];
    }
    this.length = at + 7;
  }
  close(): void {
    strip[this.length++] = CLOSE;
  }
  path(): PathData {
    const path = strip.slice(0, this.length);
    if (strip.length > MOST_KEPT) strip.length = 0;
    return path;
  }
}

/** Commands by the codes of their letters; that of a small letter differs by one bit. */
const [M, L, H, V, C, S, Q, T, A, Z] = Array.from('MLHVCSQTAZ', (letter) => letter.charCodeAt(0));
const UPPER = 0xdf;
/** By the code of a letter: how many numbers its command takes; -1 for what is no command. */
const ARGUMENTS = new Int8Array(256).fill(-1);
for (const [letter, count] of [
  [M, 2],
  [L, 2],
  [H, 1],
  [V, 1],
  [C, 6],
  [S, 4],
  [Q, 4],
  [T, 2],
  [A, 7],
  [Z, 0],
])
  ARGUMENTS[letter] = ARGUMENTS[letter | 32] = count;

const POWERS = Float64Array.from({ length: 16 }, (_, n) => 10 ** n);

/** By the code of a character: whether a number can begin with it. */
const BEGIN_NUMBER = Uint8Array.from({ length: 256 }, (_, code) =>
  '0123456789.+-'.includes(String.fromCharCode(code)) ? 1 : 0,
);
const COMMA = 44;

const ENCODER = new TextEncoder();
let room = new Uint8Array(4096);

/**
 * Reads along a text. Its bytes are looked at, not its characters, which are slow to come by in what a parser cut out
 * of a file; up to the first mistake, and no further is read, a byte is a character.
 */
class Scanner {
  private at = 0;
  private readonly bytes: Uint8Array;
  private readonly end: number;
  /** The numbers last read; they are used at once. */
  private readonly taken = new Float64Array(7);
  constructor(private readonly text: string) {
    if (room.length <= 3 * text.length) room = new Uint8Array(6 * text.length + 1);
    this.bytes = room;
    this.end = ENCODER.encodeInto(text, room).written;
    room[this.end] = 0;
  }
  get done(): boolean {
    return this.at >= this.end;
  }
  space(): void {
    for (let c = this.bytes[this.at]; c === 32 || (c >= 9 && c <= 13 && c !== 11); c = this.bytes[this.at]) this.at++;
  }
  /** The code of a command's letter; 0 where there is none. */
  command(): number {
    const code = this.bytes[this.at];
    if (ARGUMENTS[code] < 0) return 0;
    this.at++;
    return code;
  }
  /** One number; NaN where there is none. Digits are counted up, not cut out as text: paths are most of a drawing. */
  private number(): number {
    const { bytes } = this;
    const start = this.at;
    let i = start;
    let c = bytes[i];
    const minus = c === 45;
    if (minus || c === 43) c = bytes[++i];
    let digits = -i;
    let value = 0;
    for (; c >= 48 && c <= 57; c = bytes[++i]) value = value * 10 + c - 48;
    digits += i;
    let after = 0;
    if (c === 46) {
      const from = ++i;
      for (c = bytes[i]; c >= 48 && c <= 57; c = bytes[++i]) value = value * 10 + c - 48;
      after = i - from;
      digits += after;
    }
    if (!digits) return NaN;
    let plain = digits <= 15;
    if (c === 101 || c === 69) {
      let k = i + 1;
      if (bytes[k] === 43 || bytes[k] === 45) k++;
      const from = k;
      while (bytes[k] >= 48 && bytes[k] <= 57) k++;
      if (k > from) {
        i = k;
        plain = false;
      }
    }
    this.at = i;
    // Whole numbers and powers of ten up to there are exact, and so their quotient is rounded but once.
    if (!plain) return Number(this.text.slice(start, i));
    const v = after ? value / POWERS[after] : value;
    return minus ? -v : v;
  }

  private comma(): void {
    this.space();
    if (this.bytes[this.at] !== COMMA) return;
    this.at++;
    this.space();
  }
  /**
   * So many numbers; of an arc the fourth and fifth are single digits. Null where they are not all there. Where they
   * are written plainly, one space or comma apart, they are read in one go; what is not is read step by step.
   */
  numbers(count: number, arc: boolean): Readonly<Float64Array> | null {
    const out = this.taken;
    for (let i = arc ? 0 : this.plainNumbers(count); i < count; i++) {
      if (i) this.comma();
      else this.space();
      if (arc && (i === 3 || i === 4)) {
        const c = this.bytes[this.at] - 48;
        if (c !== 0 && c !== 1) return null;
        this.at++;
        out[i] = c;
        continue;
      }
      const v = this.number();
      // A number written down is never NaN.
      if (v !== v) return null;
      out[i] = v;
    }
    // Another set of numbers may follow after a comma.
    if (count) {
      const back = this.at;
      this.comma();
      if (!BEGIN_NUMBER[this.bytes[this.at]]) this.at = back;
    }
    return out;
  }

  /**
   * As many of the next numbers as are digits with perhaps a sign and a point, no more than fifteen; answers how many.
   */
  private plainNumbers(count: number): number {
    const { bytes, taken } = this;
    let i = this.at;
    for (let n = 0; n < count; n++) {
      let c = bytes[i];
      if (c === 32 || (c === COMMA && n > 0)) c = bytes[++i];
      const minus = c === 45;
      if (minus) c = bytes[++i];
      const from = i;
      let value = 0;
      for (; c >= 48 && c <= 57; c = bytes[++i]) value = value * 10 + (c - 48);
      let digits = i - from;
      if (c === 46) {
        const point = ++i;
        for (c = bytes[i]; c >= 48 && c <= 57; c = bytes[++i]) value = value * 10 + (c - 48);
        const after = i - point;
        digits += after;
        // See `number`.
        if (after && digits <= 15) value /= POWERS[after];
      }
      if (!digits || digits > 15 || c === 101 || c === 69) return n;
      taken[n] = minus ? -value : value;
      this.at = i;
    }
    return count;
  }
}

/** An elliptical arc as cubics (SVG 1.1, appendix F.6). */
function arc(
  out: PathSink,
  x1: number,
  y1: number,
  rx0: number,
  ry0: number,
  angle: number,
  large: boolean,
  sweep: boolean,
  x2: number,
  y2: number,
): void {
  let [rx, ry] = [Math.abs(rx0), Math.abs(ry0)];
  if (x1 === x2 && y1 === y2) return;
  if (!(rx > 0) || !(ry > 0)) {
    out.lineTo(x2, y2);
    return;
  }
  const phi = (angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(phi), Math.sin(phi)];
  const [dx, dy] = [(x1 - x2) / 2, (y1 - y2) / 2];
  const [px, py] = [cos * dx + sin * dy, -sin * dx + cos * dy];
  const grow = (px * px) / (rx * rx) + (py * py) / (ry * ry);
  if (grow > 1) {
    rx *= Math.sqrt(grow);
    ry *= Math.sqrt(grow);
  }
  const num = rx * rx * ry * ry - rx * rx * py * py - ry * ry * px * px;
  const k = (large === sweep ? -1 : 1) * Math.sqrt(Math.max(0, num / (rx * rx * py * py + ry * ry * px * px)));
  const [qx, qy] = [(k * rx * py) / ry, (-k * ry * px) / rx];
  const [mx, my] = [cos * qx - sin * qy + (x1 + x2) / 2, sin * qx + cos * qy + (y1 + y2) / 2];
  const from = Math.atan2((py - qy) / ry, (px - qx) / rx);
  let by = Math.atan2((-py - qy) / ry, (-px - qx) / rx) - from;
  if (sweep && by < 0) by += 2 * Math.PI;
  if (!sweep && by > 0) by -= 2 * Math.PI;
  const pieces = Math.max(1, Math.ceil(Math.abs(by) / (Math.PI / 4) - 1e-9));
  const step = by / pieces;
  const t = (4 / 3) * Math.tan(step / 4);
  const point = (a: number, b: number): [number, number] => [
    cos * rx * a - sin * ry * b + mx,
    sin * rx * a + cos * ry * b + my,
  ];
  for (let i = 0; i < pieces; i++) {
    const a = from + i * step;
    const b = a + step;
    const [c1x, c1y] = point(Math.cos(a) - t * Math.sin(a), Math.sin(a) + t * Math.cos(a));
    const [c2x, c2y] = point(Math.cos(b) + t * Math.sin(b), Math.sin(b) - t * Math.cos(b));
    const [ex, ey] = i === pieces - 1 ? [x2, y2] : point(Math.cos(b), Math.sin(b));
    out.curveTo(c1x, c1y, c2x, c2y, ex, ey);
  }
}
