import { PDFRawStream, type PDFObject } from '@cantoo/pdf-lib';
import { apply, IDENTITY, multiply, type Matrix } from '../../geometry/matrix';
import { EMPTY_RECT, grow, isEmpty, overlaps, union, type Rect } from '../../geometry/rect';
import type { Objects } from './objects';
import { meshReach } from './mesh';
import { pictureInks, pictureSpace } from './pictureInks';
import { unused, type Budget, type PageUse } from './use';
import { CMYK, GRAY, RGB, inkedBy, reachOf, spaceOf, type Space } from './spaces';
import { BrokenContent, readContent, type Operand } from './tokens';

interface Colour {
  readonly space: Space;
  readonly values: readonly number[];
  readonly pattern: PDFObject | undefined;
}
const BLACK: Colour = { space: GRAY, values: [0], pattern: undefined };

interface State {
  ctm: Matrix;
  fill: Colour;
  stroke: Colour;
  width: number;
  overprintFill: boolean;
  overprintStroke: boolean;
  font: PDFObject | undefined;
  size: number;
  mode: number;
}

/** Forms and patterns in each other. */
const DEEPEST = 24;
/** What a page of a file is painted with, within `sheet`. Throws BrokenContent where it asks for too much. */
export function paintedOf(o: Objects, page: PDFObject, sheet: Rect, left: Budget): PageUse {
  const use = unused();
  const reader = new ContentReader(o, use, sheet, left);
  const contents = o.look(o.get(page, 'Contents'));
  const streams = contents instanceof PDFRawStream ? [contents] : o.list(contents);
  reader.run(joined(streams.map((s) => o.data(s))), o.get(page, 'Resources'), IDENTITY, 0, false);
  return use;
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  if (parts.length === 1) return parts[0];
  const out = new Uint8Array(parts.reduce((n, p) => n + p.length + 1, 0)).fill(10);
  let at = 0;
  for (const p of parts) {
    out.set(p, at);
    at += p.length + 1;
  }
  return out;
}

class ContentReader {
  /** Forms that are being read: one that draws itself is not read again. */
  private readonly open = new Set<PDFObject>();

  constructor(
    private readonly o: Objects,
    private readonly use: PageUse,
    private readonly sheet: Rect,
    private readonly left: Budget,
  ) {}

  /** `masking`: what is drawn only lets through. */
  run(
    bytes: Uint8Array,
    resources: PDFObject | undefined,
    ctm: Matrix,
    depth: number,
    masking: boolean,
    from?: State,
  ): void {
    if (depth > DEEPEST) throw new BrokenContent(`forms in forms more than ${DEEPEST} deep`);
    let s: State = from
      ? { ...from, ctm }
      : {
          ctm,
          fill: BLACK,
          stroke: BLACK,
          width: 1,
          overprintFill: false,
          overprintStroke: false,
          font: undefined,
          size: 0,
          mode: 0,
        };
    const stack: State[] = [];
    let path = EMPTY_RECT;
    let at: Matrix = IDENTITY;
    let line: Matrix = IDENTITY;
    const { o, use } = this;
    const resource = (kind: string, key: string | undefined) =>
      key === undefined ? undefined : o.get(o.get(resources, kind), key);
    const named = (n: string) => resource('ColorSpace', n);
    const num = (x: Operand | undefined): number => (typeof x === 'number' ? x : 0);
    const nameOf = (x: Operand | undefined): string | undefined =>
      typeof x === 'object' && 'name' in x ? x.name : undefined;
    const grown = (x: number, y: number) => {
      const p = apply(s.ctm, { x, y });
      path = union(path, { x0: p.x, y0: p.y, x1: p.x, y1: p.y });
    };
    const colour = (args: readonly Operand[], now: Colour): Colour => {
      const last = nameOf(args[args.length - 1]);
      const values = args.filter((a): a is number => typeof a === 'number');
      const pattern = last === undefined ? undefined : resource('Pattern', last);
      if (last !== undefined && !pattern) use.faults.add(`the pattern ${last} is not in the file`);
      return { space: now.space, values, pattern };
    };
    const paint = (fill: boolean, stroke: boolean) => {
      if (!isEmpty(path) || path.x0 <= path.x1) {
        if (fill) this.paint(s, s.fill, s.overprintFill, path, depth, masking);
        if (stroke) {
          const width = s.width * scaleOf(s.ctm);
          const box = grow(path, width / 2);
          this.paint(s, s.stroke, s.overprintStroke, box, depth, masking);
          // Marks for the printer, in every plate, are no art.
          const mark = s.stroke.space.inks[0] === 'All';
          if (!mark && !masking && overlaps(box, this.sheet) && (!use.thinnest || width < use.thinnest.width))
            use.thinnest = { width, box };
        }
      }
      path = EMPTY_RECT;
    };
    const words = (shown: Operand | undefined) => {
      const m = multiply(s.ctm, at);
      const size = Math.abs(s.size) * scaleOf(m);
      const pieces = Array.isArray(shown) ? (shown as readonly Operand[]) : [shown];
      let letters = 0;
      for (const p of pieces) if (typeof p === 'object' && 'text' in p) letters += p.text.length / 2;
      if (!letters) return;
      if (!s.font) use.faults.add('words are set in a font that is not in the file');
      else use.fonts.add(s.font);
      const origin = apply(m, { x: 0, y: 0 });
      const box = grow({ x0: origin.x, y0: origin.y, x1: origin.x, y1: origin.y }, size * Math.max(1, letters));
      if (s.mode === 3 || s.mode === 7 || masking) return;
      if (s.mode % 4 !== 1) this.paint(s, s.fill, s.overprintFill, box, depth, masking);
      if (s.mode % 4 === 1 || s.mode % 4 === 2) this.paint(s, s.stroke, s.overprintStroke, box, depth, masking);
      const small = grow({ x0: origin.x, y0: origin.y, x1: origin.x, y1: origin.y }, size);
      if (overlaps(small, this.sheet) && size > 0 && (!use.smallest || size < use.smallest.size))
        use.smallest = { size, box: small };
    };
    readContent(bytes, (op, args) => {
      if (--this.left.operators < 0) throw new BrokenContent('more drawing than a press takes');
      switch (op) {
        case 'q':
          stack.push({ ...s });
          if (stack.length > 512) throw new BrokenContent('states kept more than 512 deep');
          break;
        case 'Q': {
          const back = stack.pop();
          if (back) s = back;
          else use.faults.add('a state is taken back that was not kept (Q without q)');
          break;
        }
        case 'cm':
          s.ctm = multiply(s.ctm, matrixOf(args));
          break;
        case 'w':
          s.width = num(args[0]);
          break;
        case 'm':
        case 'l':
          grown(num(args[0]), num(args[1]));
          break;
        case 'c':
        case 'v':
        case 'y':
          for (let i = 0; i + 1 < args.length; i += 2) grown(num(args[i]), num(args[i + 1]));
          break;
        case 're': {
          const [x, y, w, h] = args.map(num);
          for (const [px, py] of [
            [x, y],
            [x + w, y],
            [x, y + h],
            [x + w, y + h],
          ])
            grown(px, py);
          break;
        }
        case 'f':
        case 'F':
        case 'f*':
          paint(true, false);
          break;
        case 'S':
        case 's':
          paint(false, true);
          break;
        case 'B':
        case 'B*':
        case 'b':
        case 'b*':
          paint(true, true);
          break;
        case 'n':
          path = EMPTY_RECT;
          break;
        case 'g':
          s.fill = { space: GRAY, values: args.map(num), pattern: undefined };
          break;
        case 'G':
          s.stroke = { space: GRAY, values: args.map(num), pattern: undefined };
          break;
        case 'rg':
          s.fill = { space: RGB, values: args.map(num), pattern: undefined };
          break;
        case 'RG':
          s.stroke = { space: RGB, values: args.map(num), pattern: undefined };
          break;
        case 'k':
          s.fill = { space: CMYK, values: args.map(num), pattern: undefined };
          break;
        case 'K':
          s.stroke = { space: CMYK, values: args.map(num), pattern: undefined };
          break;
        case 'cs':
        case 'CS': {
          const word = nameOf(args[0]) ?? '';
          const space = this.named(word, named);
          const first = { space, values: Array.from({ length: space.components }, () => 1), pattern: undefined };
          if (op === 'cs') s.fill = first;
          else s.stroke = first;
          break;
        }
        case 'sc':
        case 'scn':
          s.fill = colour(args, s.fill);
          break;
        case 'SC':
        case 'SCN':
          s.stroke = colour(args, s.stroke);
          break;
        case 'gs':
          this.graphics(s, resource('ExtGState', nameOf(args[0])), nameOf(args[0]), depth);
          break;
        case 'sh': {
          const shading = resource('Shading', nameOf(args[0]));
          if (!shading) use.faults.add(`the shading ${nameOf(args[0])} is not in the file`);
          else if (!masking) this.shading(shading, named);
          break;
        }
        case 'BT':
          at = line = IDENTITY;
          break;
        case 'Tf':
          s.font = resource('Font', nameOf(args[0]));
          s.size = num(args[1]);
          break;
        case 'Tr':
          s.mode = num(args[0]);
          break;
        case 'Tm':
          at = line = matrixOf(args);
          break;
        case 'Td':
        case 'TD':
          at = line = multiply(line, [1, 0, 0, 1, num(args[0]), num(args[1])]);
          break;
        case 'Tj':
        case 'TJ':
        case "'":
          words(args[0]);
          break;
        case '"':
          words(args[2]);
          break;
        case 'Do':
          this.object(s, resource('XObject', nameOf(args[0])), nameOf(args[0]), resources, depth, masking);
          break;
        case 'BI':
          this.inline(s, args[0]);
          break;
        default:
          if (!KNOWN.has(op)) use.faults.add(`the operator ${op.slice(0, 20)} is none`);
      }
    });
    if (stack.length) use.faults.add('a state is kept and not taken back (q without Q)');
  }

  private readonly spaces = new Map<PDFObject, Space>();
  private named(word: string, named: (n: string) => PDFObject | undefined): Space {
    const found = named(word);
    if (!found) {
      const device = { DeviceGray: GRAY, DeviceRGB: RGB, DeviceCMYK: CMYK }[word];
      if (device) return device;
      if (word !== 'Pattern') this.use.faults.add(`the colour space ${word} is not in the file`);
      return { kind: 'pattern', components: 0, inks: [], tagged: false };
    }
    let space = this.spaces.get(found);
    if (!space) this.spaces.set(found, (space = spaceOf(this.o, found, named)));
    return space;
  }

  private paint(s: State, c: Colour, overprint: boolean, box: Rect, depth: number, masking: boolean): void {
    const { use } = this;
    if (masking || !overlaps(box, this.sheet)) return;
    if (overprint) use.overprints = true;
    if (c.pattern) return this.pattern(s, c.pattern, depth);
    this.light(c.space, box);
    const inks = inkedBy(c.space, c.values);
    for (const ink of inks) use.inks.add(ink);
    const free = c.space.inks.length > 0 && !inks.length && !(c.space.inks[0] === 'All');
    if (overprint && free && c.space.kind !== 'gray') use.whiteOverprint ??= box;
  }

  private light(space: Space, box: Rect): void {
    const of = space.base ?? space;
    if (of.kind !== 'rgb') return;
    if (of.tagged) this.use.taggedRgb = true;
    else this.use.untaggedRgb ??= box;
  }

  private pattern(s: State, pattern: PDFObject, depth: number): void {
    const { o } = this;
    if (o.number(o.get(pattern, 'PatternType')) === 2) return this.shading(o.get(pattern, 'Shading'), () => undefined);
    if (this.open.has(pattern)) return;
    this.open.add(pattern);
    // Where its tiles lie is not asked: they lie where it is painted.
    const everywhere = new ContentReader(o, this.use, INFINITE, this.left);
    everywhere.run(o.data(pattern), o.get(pattern, 'Resources'), s.ctm, depth + 1, false, s);
    this.open.delete(pattern);
  }

  private shading(shading: PDFObject | undefined, named: (n: string) => PDFObject | undefined): void {
    const { o, use } = this;
    const space = spaceOf(o, o.get(shading, 'ColorSpace'), named);
    this.light(space, this.sheet);
    if (!space.inks.length) return;
    const fn = o.get(shading, 'Function');
    const reach = fn ? reachOf(o, fn, space.components) : meshReach(o, shading, space.components);
    // What cannot be told is taken to print.
    space.inks.forEach((ink, i) => {
      const inks = space.kind === 'gray' ? true : !reach || reach[i] > 0.002;
      if (inks && ink !== 'None') use.inks.add(ink);
    });
  }

  private graphics(s: State, state: PDFObject | undefined, word: string | undefined, depth: number): void {
    const { o, use } = this;
    if (!state) {
      use.faults.add(`the graphics state ${word} is not in the file`);
      return;
    }
    const truth = (key: string) => {
      const v = o.get(state, key);
      return v === undefined ? undefined : String(v) === 'true';
    };
    s.overprintStroke = truth('OP') ?? s.overprintStroke;
    s.overprintFill = truth('op') ?? truth('OP') ?? s.overprintFill;
    s.width = o.number(o.get(state, 'LW')) ?? s.width;
    const alpha = [o.number(o.get(state, 'ca')) ?? 1, o.number(o.get(state, 'CA')) ?? 1];
    const blend = o.name(o.get(state, 'BM'));
    const mask = o.get(state, 'SMask');
    const masked = mask !== undefined && o.name(mask) !== 'None';
    if (alpha.some((a) => a < 1) || (blend && blend !== 'Normal') || masked) use.transparent = true;
    if (masked) this.form(s, o.get(mask, 'G'), undefined, depth, true);
  }

  private form(
    s: State,
    form: PDFObject | undefined,
    outer: PDFObject | undefined,
    depth: number,
    masking: boolean,
  ): void {
    const { o } = this;
    if (!(form instanceof PDFRawStream) || this.open.has(form)) return;
    this.open.add(form);
    const m = o.numbers(o.get(form, 'Matrix'));
    const ctm = m.length === 6 ? multiply(s.ctm, m as unknown as Matrix) : s.ctm;
    this.run(o.data(form), o.get(form, 'Resources') ?? outer, ctm, depth + 1, masking, s);
    this.open.delete(form);
  }

  private object(
    s: State,
    object: PDFObject | undefined,
    word: string | undefined,
    outer: PDFObject | undefined,
    depth: number,
    masking: boolean,
  ): void {
    const { o, use } = this;
    const kind = o.name(o.get(object, 'Subtype'));
    if (kind === 'Form') return this.form(s, object, outer, depth, masking);
    if (kind !== 'Image') {
      use.faults.add(`the picture or form ${word} is not in the file`);
      return;
    }
    const [width, height] = [o.number(o.get(object, 'Width')) ?? 0, o.number(o.get(object, 'Height')) ?? 0];
    const box = unitBox(s.ctm);
    if (o.get(object, 'SMask')) use.transparent = true;
    if (String(o.get(object, 'ImageMask')) === 'true') {
      this.paint(s, s.fill, s.overprintFill, box, depth, masking);
      return;
    }
    const space = pictureSpace(o, object, o.get(outer, 'ColorSpace'));
    if (masking || !overlaps(box, this.sheet)) return;
    const ppi = Math.min((width * 72) / Math.hypot(s.ctm[0], s.ctm[1]), (height * 72) / Math.hypot(s.ctm[2], s.ctm[3]));
    use.pictures.push({ width, height, ppi, colour: (space.base ?? space).kind, tagged: space.tagged, box });
    this.light(space, box);
    for (const ink of pictureInks(o, object, space)) use.inks.add(ink);
  }

  private inline(s: State, image: Operand | undefined): void {
    if (typeof image !== 'object' || !('dict' in image)) return;
    const value = (...keys: string[]) => keys.map((k) => image.dict.get(k)).find((v) => v !== undefined);
    const [w, h] = [value('W', 'Width'), value('H', 'Height')].map((v) => (typeof v === 'number' ? v : 0));
    const box = unitBox(s.ctm);
    if (!overlaps(box, this.sheet)) return;
    const word = value('CS', 'ColorSpace');
    const of = typeof word === 'object' && 'name' in word ? word.name : '';
    const space = of === 'RGB' || of === 'DeviceRGB' ? RGB : of === 'CMYK' || of === 'DeviceCMYK' ? CMYK : GRAY;
    const ppi = Math.min((w * 72) / Math.hypot(s.ctm[0], s.ctm[1]), (h * 72) / Math.hypot(s.ctm[2], s.ctm[3]));
    this.use.pictures.push({ width: w, height: h, ppi, colour: space.kind, tagged: false, box });
    this.light(space, box);
    for (const ink of space.inks) this.use.inks.add(ink);
  }
}

const INFINITE: Rect = { x0: -Infinity, y0: -Infinity, x1: Infinity, y1: Infinity };
/** Operators that say nothing of ink (ISO 32000-1, annex A). */
const KNOWN = new Set('J j M d ri i h W W* ET Tc Tw Tz TL Ts T* d0 d1 MP DP BMC BDC EMC BX EX'.split(' '));

const scaleOf = (m: Matrix): number => Math.sqrt(Math.abs(m[0] * m[3] - m[1] * m[2]));
const matrixOf = (args: readonly Operand[]): Matrix => {
  const [a, b, c, d, e, f] = [0, 1, 2, 3, 4, 5].map((i) => (typeof args[i] === 'number' ? (args[i] as number) : 0));
  return [a, b, c, d, e, f];
};
function unitBox(m: Matrix): Rect {
  let box = EMPTY_RECT;
  for (const [x, y] of [
    [0, 0],
    [1, 0],
    [0, 1],
    [1, 1],
  ]) {
    const p = apply(m, { x, y });
    box = union(box, { x0: p.x, y0: p.y, x1: p.x, y1: p.y });
  }
  return box;
}
