import { apply, invert, multiply, type Matrix } from '../../geometry/matrix';
import { corners, rectMatrix, type Rect } from '../../geometry/rect';
import type { GradientPaint, Paint, Stop } from '../../model/schema';
import type { Styles } from './style';
import { localId, readColour, readLength, readShare, readTransform, type Measures, type Shade } from './values';
import { XLINK, type Element } from './xml';

/** A paint and how far it covers as a whole. */
export interface Covering {
  readonly paint: Paint;
  readonly alpha: number;
}
const NONE: Covering = { paint: { kind: 'none' }, alpha: 1 };
/** No ramp has more stops (the document's own limit). */
const MOST_STOPS = 64;

/** The address that an element points at, as SVG 2 or 1.1 writes it. */
export const hrefOf = (e: Element): string | undefined => e.attributes.get('href') ?? e.attributes.get(`${XLINK} href`);

/** A gradient element and those it takes after, the nearest first. */
function line(e: Element, byId: ReadonlyMap<string, Element>): Element[] {
  const out: Element[] = [];
  for (
    let at: Element | undefined = e;
    at && !out.includes(at) && out.length < 50;
    at = byId.get(localId(hrefOf(at)) ?? '')
  ) {
    if (at.name !== 'linearGradient' && at.name !== 'radialGradient') break;
    out.push(at);
  }
  return out;
}

/** What a gradient says of itself, whatever it paints. */
interface Said {
  readonly withStops: Element | undefined;
  /** In shares of the box of what it paints, or in user units? */
  readonly onBox: boolean;
  readonly transform: Matrix | null;
  readonly spread: string | undefined;
  /** Start and end of a linear one; middle, radius and focus of a radial one. */
  readonly numbers: readonly number[];
}
const saying = new WeakMap<Element, { readonly measures: Measures; readonly said: Said }>();
/** What a gradient says, looked for once where lengths mean the same: it can be used by thousands. */
function saidBy(e: Element, byId: ReadonlyMap<string, Element>, m: Measures): Said {
  const known = saying.get(e);
  if (known?.measures === m) return known.said;
  const chain = line(e, byId);
  /** An attribute, from the nearest that has it; `kind`: of that kind of gradient. */
  const attribute = (name: string, kind = '') =>
    chain.find((c) => (!kind || c.name === kind) && c.attributes.has(name))?.attributes.get(name);
  const onBox = (attribute('gradientUnits') ?? 'objectBoundingBox') !== 'userSpaceOnUse';
  const measures: Measures = onBox ? { ...m, width: 1, height: 1 } : m;
  const length = (name: string, along: 'x' | 'y' | 'r', otherwise: string) => {
    const text = attribute(name, e.name) ?? otherwise;
    if (onBox && along === 'r' && text.trim().endsWith('%')) return Number.parseFloat(text) / 100;
    return readLength(text, measures, along) ?? readLength(otherwise, measures, along)!;
  };
  let numbers: readonly number[];
  if (e.name === 'linearGradient')
    numbers = [length('x1', 'x', '0%'), length('y1', 'y', '0%'), length('x2', 'x', '100%'), length('y2', 'y', '0%')];
  else {
    const [cx, cy, r] = [length('cx', 'x', '50%'), length('cy', 'y', '50%'), length('r', 'r', '50%')];
    const fx = attribute('fx', 'radialGradient') === undefined ? cx : length('fx', 'x', '50%');
    const fy = attribute('fy', 'radialGradient') === undefined ? cy : length('fy', 'y', '50%');
    numbers = [cx, cy, r, fx, fy];
  }
  const said: Said = {
    withStops: chain.find((c) => c.elements.some((s) => s.name === 'stop')),
    onBox,
    transform: readTransform(attribute('gradientTransform')),
    spread: attribute('spreadMethod'),
    numbers,
  };
  saying.set(e, { measures: m, said });
  return said;
}

/**
 * A gradient as a paint of something with this box (SVG 1.1, 13.2). A spread that repeats is written out as more stops
 * over what the box needs; `notes` hears where that is not all.
 */
export function gradientPaint(
  e: Element,
  byId: ReadonlyMap<string, Element>,
  styles: Styles,
  box: Rect,
  m: Measures,
  current: Shade,
  notes: (n: string) => void,
): Covering {
  const { withStops, onBox, transform, spread, numbers } = saidBy(e, byId, m);
  const stops = withStops ? readStops(withStops, styles, current) : [];
  if (!stops.length) return NONE;
  if (stops.length === 1)
    return { paint: { kind: 'colour', colour: stops[0].colour, overprint: false }, alpha: stops[0].opacity ?? 1 };
  if (onBox && (!(box.x1 > box.x0) || !(box.y1 > box.y0))) return NONE;
  if (!transform) return NONE;
  const outer = onBox ? multiply(rectMatrix(box), transform) : transform;
  const last = (): Covering => ({
    paint: { kind: 'colour', colour: stops[stops.length - 1].colour, overprint: false },
    alpha: stops[stops.length - 1].opacity ?? 1,
  });
  if (e.name === 'linearGradient') {
    const [x1, y1, x2, y2] = numbers;
    if (x1 === x2 && y1 === y2) return last();
    const geometry = multiply(outer, [x2 - x1, y2 - y1, y1 - y2, x2 - x1, x1, y1]);
    const back = invert(geometry);
    if (!back) return last();
    if (spread !== 'reflect' && spread !== 'repeat') return { paint: linear(stops, geometry), alpha: 1 };
    const at = corners(box).map((p) => apply(back, p).x);
    const wide = repeated(
      stops,
      Math.floor(Math.min(0, ...at)),
      Math.ceil(Math.max(1, ...at)),
      spread === 'reflect',
      notes,
    );
    return {
      paint: linear(wide.stops, multiply(geometry, [wide.to - wide.from, 0, 0, 1, wide.from, 0])),
      alpha: 1,
    };
  }
  const [cx, cy, r, fx, fy] = numbers;
  if (!(r > 0)) return last();
  const focus = insideCircle((fx - cx) / r, (fy - cy) / r);
  const geometry = multiply(outer, [r, 0, 0, r, cx, cy]);
  const paint = (ramp: GradientPaint['ramp'], g: Matrix): Covering => ({
    paint: {
      kind: 'gradient',
      gradient: 'radial',
      ramp,
      geometry: g,
      overprint: false,
      ...((focus[0] || focus[1]) && { focus }),
    },
    alpha: 1,
  });
  const back = invert(geometry);
  if (!back) return last();
  if (spread !== 'reflect' && spread !== 'repeat') return paint({ stops, mixing: 'srgb' }, geometry);
  // Circles run from the focus: the nth is n times as large, about a middle n times as far from it.
  const reach = Math.max(1, ...corners(box).map((p) => ringOf(apply(back, p), focus)));
  const wide = repeated(stops, 0, Math.ceil(reach), spread === 'reflect', notes);
  const n = wide.to;
  return paint(
    { stops: wide.stops, mixing: 'srgb' },
    multiply(geometry, [n, 0, 0, n, focus[0] * (1 - n), focus[1] * (1 - n)]),
  );
}

const linear = (stops: readonly Stop[], geometry: Matrix): GradientPaint => ({
  kind: 'gradient',
  gradient: 'linear',
  ramp: { stops, mixing: 'srgb' },
  geometry,
  overprint: false,
});

/** Which circle of a radial gradient, counted in its own radius, a place of the unit space lies on. */
function ringOf(p: { x: number; y: number }, [fx, fy]: readonly [number, number]): number {
  const [dx, dy] = [p.x - fx, p.y - fy];
  // |p − f − t(c − f)| = t with the middle c at 0: a quadratic in t.
  const a = 1 - fx * fx - fy * fy;
  const b = dx * fx + dy * fy;
  const c = dx * dx + dy * dy;
  return (-b + Math.sqrt(b * b + a * c)) / a;
}

/** A focus on or outside the circle moves inside (SVG 1.1, 13.2.3). */
function insideCircle(x: number, y: number): [number, number] {
  const d = Math.hypot(x, y);
  return d > 0.98 ? [(x / d) * 0.98 * (1 - 1e-9), (y / d) * 0.98 * (1 - 1e-9)] : [x, y];
}

/** The ramp from period `from` to `to`, there and back where it reflects. */
function repeated(
  stops: readonly Stop[],
  from: number,
  to: number,
  reflect: boolean,
  notes: (n: string) => void,
): { readonly stops: Stop[]; readonly from: number; readonly to: number } {
  // The ends of each period stand at its borders.
  const whole = [
    ...(stops[0].offset > 0 ? [{ ...stops[0], offset: 0 }] : []),
    ...stops,
    ...(stops[stops.length - 1].offset < 1 ? [{ ...stops[stops.length - 1], offset: 1 }] : []),
  ];
  const most = Math.max(1, Math.floor(MOST_STOPS / whole.length));
  let [a, b] = [from, to];
  if (b - a > most) {
    notes('A gradient repeats more often than can be kept; it stops repeating further out.');
    const mid = Math.round((a + b - most) / 2);
    a = Math.max(a, Math.min(0, mid));
    b = a + most;
  }
  const out: Stop[] = [];
  for (let k = a; k < b; k++) {
    const turned = reflect && ((k % 2) + 2) % 2 === 1;
    for (const s of turned ? [...whole].reverse() : whole)
      out.push({ ...s, offset: Math.min(1, Math.max(0, (k - a + (turned ? 1 - s.offset : s.offset)) / (b - a))) });
  }
  return { stops: out, from: a, to: b };
}

/** Stops are worked out once for each gradient and colour it inherits: a gradient can be used by thousands. */
function readStops(e: Element, styles: Styles, current: Shade): readonly Stop[] {
  let known = read.get(styles);
  if (!known) read.set(styles, (known = new Map()));
  const before = known.get(e);
  if (before?.current === current) return before.stops;
  const stops = stopsOf(e, styles, current);
  known.set(e, { current, stops });
  return stops;
}
const read = new WeakMap<Styles, Map<Element, { readonly current: Shade; readonly stops: readonly Stop[] }>>();

function stopsOf(e: Element, styles: Styles, current: Shade): Stop[] {
  let least = 0;
  const out: Stop[] = [];
  for (const s of e.elements) {
    if (s.name !== 'stop' || out.length >= MOST_STOPS) continue;
    const style = styles.inPlace(s);
    const shade = readColour(style['stop-color'], readColour(style.color, current) ?? current) ?? {
      colour: { rgb: [0, 0, 0] },
      alpha: 1,
    };
    least = Math.max(least, readShare(s.attributes.get('offset')) ?? 0);
    const opacity = (readShare(style['stop-opacity']) ?? 1) * shade.alpha;
    out.push({ offset: least, colour: shade.colour, ...(opacity < 1 && { opacity }) });
  }
  return out;
}
