import { boxIn } from '../../derive/box';
import { IDENTITY, type Matrix } from '../../geometry/matrix';
import { unionAll, type Rect } from '../../geometry/rect';
import type { FillRule, PathData } from '../../geometry/path';
import type { Design, DesignNode, NodeOf, Outline, Paint, Picture, Story } from '../../model/schema';
import type { FontBook } from '../../text/fonts';
import type { Style, Styles } from './style';
import type { Measures, Shade } from './values';
import { readColour } from './values';
import { SvgProblem, type Element } from './xml';

/** Nothing drawn has more objects; and no more come of copies of copies, which a small file can ask for without end. */
const MOST_NODES = 60_000;
const MOST_COPIED = 20_000;
const MOST_VISITS = 250_000;
const MOST_COPIED_VISITS = 60_000;

/** What stands around an element while it is read. */
export interface Place {
  readonly style: Style;
  readonly measures: Measures;
  /** From the element's user space to the drawing's pixels. */
  readonly ctm: Matrix;
  readonly depth: number;
  /** How often what is made here will be seen: patterns in patterns multiply. Absent: once. */
  readonly copies?: number;
}

/** A picture inside the file, opened. */
export interface Held {
  readonly picture: Omit<Picture, 'id'>;
  readonly bytes: Uint8Array;
}

/** What is made of a drawing, as it grows. */
export class Making {
  readonly nodes: Record<string, DesignNode> = {};
  readonly stories: Record<string, Story> = {};
  readonly pictures: Picture[] = [];
  readonly files = new Map<string, Uint8Array>();
  readonly notes = new Map<string, number>();
  private count = 0;
  private copied = 0;
  private copying = 0;

  constructor(
    readonly fonts: FontBook,
    readonly newId: () => string,
    readonly styles: Styles,
    readonly byId: ReadonlyMap<string, Element>,
  ) {}

  note = (text: string): void => void this.notes.set(text, (this.notes.get(text) ?? 0) + 1);

  private letters = 0;
  /** Takes so many letters of those that may be set; answers how many are left for them. */
  lettersLeft(most: number, wanted: number): number {
    const left = Math.max(0, most - this.letters);
    this.letters += wanted;
    return Math.min(left, wanted);
  }

  private visited = 0;
  private visitedCopies = 0;
  /**
   * Counts an element that is looked at, whether anything comes of it or not: empty parts can be doubled without end.
   */
  visit(): void {
    if (++this.visited > MOST_VISITS) throw new SvgProblem(`it has more than ${MOST_VISITS} parts`);
    if (this.copying && ++this.visitedCopies > MOST_COPIED_VISITS)
      throw new SvgProblem(`it repeats parts of itself more than ${MOST_COPIED_VISITS} times`);
  }

  noteOnce(text: string): void {
    if (!this.notes.has(text)) this.note(text);
  }

  /** Adds a node and answers its id. */
  add<N extends DesignNode>(node: Omit<N, 'id' | 'hidden' | 'locked'>): string {
    if (this.copying && ++this.copied > MOST_COPIED)
      throw new SvgProblem(`its copies and patterns come to more than ${MOST_COPIED} objects`);
    if (++this.count > MOST_NODES) throw new SvgProblem(`it has more than ${MOST_NODES} objects`);
    const id = this.newId();
    // The object is the caller's own, made for this.
    const made = node as { id?: string; hidden?: boolean; locked?: boolean };
    made.id = id;
    made.hidden = false;
    made.locked = false;
    this.nodes[id] = made as unknown as DesignNode;
    return id;
  }

  group(
    name: string,
    transform: Matrix,
    children: readonly string[],
    whole: Partial<Pick<DesignNode, 'opacity' | 'blend'>> = {},
  ): string {
    return this.add<Extract<DesignNode, { kind: 'group' }>>({ name, kind: 'group', transform, children, ...whole });
  }

  /** A box that cuts the group it is put into. */
  cutBox(r: Rect): string {
    return this.add<NodeOf<'shape'>>({
      name: 'Cut',
      kind: 'shape',
      shape: 'rectangle',
      knobs: {},
      transform: [1, 0, 0, 1, r.x0, r.y0],
      width: Math.max(0, r.x1 - r.x0),
      height: Math.max(0, r.y1 - r.y0),
      fills: [],
      outlines: [],
      maskMode: 'outline',
    });
  }

  /** What is made meanwhile is a copy: something used, a marker, the inside of a pattern, a clip or a mask. */
  asCopy<T>(make: () => T): T {
    this.copying++;
    try {
      return make();
    } finally {
      this.copying--;
    }
  }

  /** Changes a node that was just made. */
  change(id: string, change: Partial<DesignNode>): void {
    this.nodes[id] = { ...this.nodes[id], ...change } as DesignNode;
  }

  /** The box of nodes in the space they lie in, lines not counted. */
  boxOf(ids: readonly string[]): Rect {
    const design = { nodes: this.nodes, stories: this.stories } as unknown as Design;
    return unionAll(ids.map((id) => boxIn(design, id, IDENTITY, this.fonts)));
  }

  /** The design's picture of a held one; each file once. */
  pictureOf({ picture, bytes }: Held): string {
    const known = this.pictures.find((p) => p.file === picture.file && p.name === picture.name);
    if (known) return known.id;
    const id = this.newId();
    this.pictures.push({ ...picture, id });
    this.files.set(picture.file, bytes);
    return id;
  }
}

/** What draws elements, as its helpers see it. */
export interface Draws {
  readonly making: Making;
  /** Ids that are being used just now: what uses itself is drawn once. */
  readonly using: string[];
  /** The objects of all child elements. */
  children(e: Element, place: Place): string[];
  /** Objects with what holds for them together. */
  whole(
    e: Element,
    style: Style,
    ids: readonly string[],
    transform: Matrix,
    name: string,
    place: Place,
    grouped?: boolean,
  ): string[];
  pathNode(
    name: string,
    path: PathData,
    fillRule: FillRule,
    fills: readonly Paint[],
    outlines: readonly Outline[],
  ): string;
  /** What a fill or stroke property comes to; null for nothing to see. */
  paint(
    text: string,
    share: string,
    box: Rect | (() => Rect),
    place: Place,
    e: Element | null,
    which: 'fill' | 'stroke',
  ): Painted | null;
}
export type Painted =
  { readonly paint: Paint; readonly alpha: number } | { readonly pattern: Element; readonly alpha: number };

/** What `currentColor` means where a style holds. */
export function currentColour({ color }: Style): Shade {
  // Mostly one for a whole drawing: what is worked out of it is known by its identity.
  if (last?.color !== color) last = { color, shade: readColour(color) ?? { colour: { rgb: [0, 0, 0] }, alpha: 1 } };
  return last.shade;
}
let last: { readonly color: string; readonly shade: Shade } | null = null;

/** An element's name for people: its title, its id or label, or what it is. */
export function nameOf(e: Element, otherwise: string): string {
  const title = e.children.find((c): c is Element => typeof c !== 'string' && c.name === 'title' && c.space === '');
  const text = title
    ? title.children
        .filter((c): c is string => typeof c === 'string')
        .join('')
        .trim()
        .replace(/\s+/g, ' ')
    : '';
  return (text || e.attributes.get('aria-label') || e.attributes.get('id') || otherwise).slice(0, 120);
}
