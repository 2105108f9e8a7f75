import type { Colour, Depth, Design, DesignNode, Letters, Outline, Page, Paint, Story, TextLook } from './schema';

type PaintOf<K extends Paint['kind']> = Extract<Paint, { kind: K }>;
interface PaintRow<P> {
  /** The colours it is given by itself; those of a gradient swatch are the swatch's. */
  colours(p: P): readonly Colour[];
  /** The same with other colours; itself where none changed. */
  mapped(p: P, map: (c: Colour) => Colour): P;
  /** Is it laid out in its object's space, so that it goes along when that is stretched? */
  readonly placed: boolean;
}

/** What there is to know of a kind of paint without looking at a design. */
const PAINTS: { readonly [K in Paint['kind']]: PaintRow<PaintOf<K>> } = {
  none: { colours: () => [], mapped: (p) => p, placed: false },
  colour: {
    colours: (p) => [p.colour],
    mapped(p, map) {
      const colour = map(p.colour);
      return colour === p.colour ? p : { ...p, colour };
    },
    placed: false,
  },
  gradient: {
    colours: (p) => ('swatch' in p.ramp ? [] : p.ramp.stops.map((s) => s.colour)),
    mapped(p, map) {
      if ('swatch' in p.ramp) return p;
      const stops = mapStops(p.ramp.stops, map);
      return stops === p.ramp.stops ? p : { ...p, ramp: { ...p.ramp, stops } };
    },
    placed: true,
  },
  pools: {
    colours: (p) => p.pools.map((x) => x.colour),
    mapped(p, map) {
      const pools = mapStops(p.pools, map);
      return pools === p.pools ? p : { ...p, pools };
    },
    placed: true,
  },
  picture: {
    colours: (p) => (p.tone?.inks ?? []).map((x) => x.colour),
    mapped(p, map) {
      if (!p.tone?.inks) return p;
      const inks = mapStops(p.tone.inks, map);
      return inks === p.tone.inks ? p : { ...p, tone: { ...p.tone, inks } };
    },
    placed: true,
  },
};

const rowOf = (p: Paint): PaintRow<Paint> => PAINTS[p.kind];
/** All colours that a paint is made of, in the order of its kind. */
export const coloursOf = (p: Paint): readonly Colour[] => rowOf(p).colours(p);
/** A paint with other colours; the same paint where none changed. */
export const mapColours = <P extends Paint>(p: P, map: (c: Colour) => Colour): P => rowOf(p).mapped(p, map) as P;
/** Does the paint lie somewhere on its object (a gradient, pools, a picture)? */
export const isPlaced = (p: Paint): p is Extract<Paint, { readonly geometry: unknown }> => rowOf(p).placed;

/** Stops or pools with other colours; the same list where none changed. */
export function mapStops<T extends { readonly colour: Colour }>(
  stops: readonly T[],
  map: (c: Colour) => Colour,
): readonly T[] {
  const colours = stops.map((s) => map(s.colour));
  return colours.every((c, i) => c === stops[i].colour) ? stops : stops.map((s, i) => ({ ...s, colour: colours[i] }));
}

/** Meets a paint; `put` puts another in its place, where what holds it may be changed. */
type Meet = (paint: Paint, put: (next: Paint) => void) => void;
type Changing<T> = { -readonly [K in keyof T]: T[K] };

/** The one way to the paints of an object: its fills, its outlines, its effects. */
export function eachPaintOf(n: DesignNode, meet: Meet): void {
  if ('fills' in n) {
    n.fills.forEach((p, i) => meet(p, (next) => void ((n.fills as Paint[])[i] = next)));
    for (const o of n.outlines) meetLine(o, meet);
  }
  if ('letterOutlines' in n) for (const o of n.letterOutlines ?? []) meetLine(o, meet);
  for (const e of n.effects ?? []) meetHeld(e, meet);
  if (n.kind === 'group') for (const area of n.regions?.areas ?? []) meetHeld(area, meet);
  if ('depth' in n && n.depth) {
    const { depth } = n;
    meet(depth.side, (next) => void ((depth as Changing<Depth>).side = next));
    if (depth.edge) meetHeld(depth.edge, meet);
  }
}

/** The one way to the paints of a text: of its letters and their outlines. */
export function eachPaintIn(s: Pick<Story, 'paragraphs'>, meet: Meet): void {
  for (const p of s.paragraphs) for (const r of p.runs) meetLetters(r, meet);
}

/** The one way to the paints of a look of texts. */
export const eachPaintInLook = (look: TextLook, meet: Meet): void => meetLetters(look.letters, meet);

function meetLetters(r: Partial<Letters>, meet: Meet): void {
  if (r.fill) meet(r.fill, (next) => void ((r as Changing<typeof r>).fill = next));
  if (r.outline) meetLine(r.outline, meet);
}

function meetLine(line: Outline, meet: Meet): void {
  meetHeld(line, meet);
  const { between } = line;
  if (between) meet(between, (next) => void ((line as Changing<Outline>).between = next as typeof between));
}

function meetHeld(holder: { readonly paint: Paint }, meet: Meet): void {
  meet(holder.paint, (next) => void ((holder as Changing<typeof holder>).paint = next));
}

/** The one way to the ground of a page. */
function eachPaintOn(p: Page, meet: Meet): void {
  if (p.ground) meet(p.ground, (next) => void ((p as Changing<Page>).ground = next));
  p.pattern?.paints.forEach((paint, i) => meet(paint, (next) => void ((p.pattern!.paints as Paint[])[i] = next)));
}

/** What paints lie in. */
type Painted = Pick<Design, 'nodes' | 'stories' | 'textLooks'> & Partial<Pick<Design, 'pages' | 'masters'>>;
/** Calls for every paint of a design, objects first. */
function eachPaint(d: Painted, meet: Meet): void {
  for (const n of Object.values(d.nodes)) eachPaintOf(n, meet);
  for (const s of Object.values(d.stories)) eachPaintIn(s, meet);
  for (const l of d.textLooks ?? []) eachPaintInLook(l, meet);
  for (const p of [...(d.pages ?? []), ...(d.masters ?? [])]) eachPaintOn(p, meet);
}

/** Every paint of a design, objects first. */
export function visitPaints(d: Painted, visit: (p: Paint) => void): void {
  eachPaint(d, visit);
}

/** Replaces paints all over a draft, or over a copy of one's own. */
export function mapPaints(d: Painted, map: (p: Paint) => Paint): void {
  eachPaint(d, (p, put) => {
    const next = map(p);
    if (next !== p) put(next);
  });
}
