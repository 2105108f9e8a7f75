import { parseHex } from '@/core/colour/spaces';
import { multiply, rotation, translation, type Matrix } from '@/core/geometry/matrix';
import { NO_PAINT, colourPaint, type Making } from '@/core/model/defaults';
import type {
  Along,
  Arrangement,
  Colour,
  Corner,
  Design,
  DesignNode,
  Letters,
  NodeOf,
  Outline,
  Page,
  Paint,
  Paragraph,
  ParagraphSet,
  Picture,
  Stop,
  Swatch,
  TextLook,
} from '@/core/model/schema';

/** Sets a design together piece by piece; for the demo and for tests. */
export class DesignBuilder {
  readonly nodes: Record<string, DesignNode> = {};
  readonly stories: Record<string, Design['stories'][string]> = {};
  readonly swatches: Swatch[];
  readonly inks: Design['inks'][number][];
  private pages: Page[];

  constructor(
    private readonly base: Design,
    private readonly make: Making,
  ) {
    this.swatches = [...base.swatches];
    this.inks = [...base.inks];
    this.pages = [...base.pages];
  }

  readonly pictures: Picture[] = [];
  /** Makes a picture known to the design; answers its id. */
  picture(facts: Omit<Picture, 'id'>): string {
    const id = this.id();
    this.pictures.push({ ...facts, id });
    return id;
  }

  private id(): string {
    return this.make.newId();
  }

  /** The group of the tray that the swatches made from now on lie in. */
  private trayGroup: string | undefined;
  swatchGroup(name: string | undefined): void {
    this.trayGroup = name;
  }
  private get inGroup(): { group?: string } {
    return this.trayGroup ? { group: this.trayGroup } : {};
  }

  recipe(name: string, c: number, m: number, y: number, k: number): Colour {
    const id = this.id();
    this.swatches.push({
      id,
      name,
      kind: 'colour',
      colour: { cmyk: [c / 100, m / 100, y / 100, k / 100] },
      ...this.inGroup,
    });
    return { swatch: id, tint: 1 };
  }

  /** A screen colour by its hex. */
  light(name: string, hex: string): Colour {
    const id = this.id();
    this.swatches.push({ id, name, kind: 'colour', colour: { rgb: parseHex(hex)! }, ...this.inGroup });
    return { swatch: id, tint: 1 };
  }

  spot(ink: Omit<Design['inks'][number], 'id'>): Colour {
    const inkId = this.id();
    const id = this.id();
    this.inks.push({ ...ink, id: inkId });
    this.swatches.push({ id, name: ink.name, kind: 'colour', colour: { ink: inkId, tint: 1 }, ...this.inGroup });
    return { swatch: id, tint: 1 };
  }

  ramp(name: string, stops: Stop[]): string {
    const id = this.id();
    this.swatches.push({ id, name, kind: 'ramp', stops, ...this.inGroup });
    return id;
  }

  shape(
    name: string,
    shape: string,
    at: { x: number; y: number; w: number; h: number; turn?: number; about?: { x: number; y: number } },
    paint: { fill?: Paint; outline?: Outline; knobs?: Record<string, number> },
  ): string {
    const id = this.id();
    const place = translation(at.x, at.y);
    const transform: Matrix = at.turn
      ? multiply(rotation(at.turn, at.about ?? { x: at.x + at.w / 2, y: at.y + at.h / 2 }), place)
      : place;
    this.nodes[id] = {
      id,
      name,
      kind: 'shape',
      shape,
      transform,
      hidden: false,
      locked: false,
      width: at.w,
      height: at.h,
      knobs: paint.knobs ?? {},
      fills: [paint.fill ?? NO_PAINT],
      outlines: paint.outline ? [paint.outline] : [],
    };
    return id;
  }

  path(name: string, path: number[], paint: { fill?: Paint; outline?: Outline }): string {
    const id = this.id();
    this.nodes[id] = {
      id,
      name,
      kind: 'path',
      transform: [1, 0, 0, 1, 0, 0],
      hidden: false,
      locked: false,
      path,
      fillRule: 'nonZero',
      fills: [paint.fill ?? NO_PAINT],
      outlines: paint.outline ? [paint.outline] : [],
    };
    return id;
  }

  displayText(name: string, x: number, y: number, paragraphs: Paragraph[]): string {
    const id = this.id();
    const story = this.id();
    this.stories[story] = { id: story, paragraphs };
    this.nodes[id] = {
      id,
      name,
      kind: 'displayText',
      transform: translation(x, y),
      hidden: false,
      locked: false,
      story,
      stretch: 1,
    };
    return id;
  }

  textFrame(name: string, at: { x: number; y: number; w: number; h: number }, paragraphs: Paragraph[]): string {
    const id = this.id();
    const story = this.id();
    this.stories[story] = { id: story, paragraphs };
    this.nodes[id] = {
      id,
      name,
      kind: 'textFrame',
      transform: translation(at.x, at.y),
      hidden: false,
      locked: false,
      story,
      width: at.w,
      height: at.h,
      inset: 0,
      fills: [NO_PAINT],
      outlines: [],
    };
    return id;
  }

  readonly textLooks: TextLook[] = [];
  /** A look of paragraphs with the letters in them, on another where one is given. */
  look(name: string, paragraph: Partial<ParagraphSet>, letters: Partial<Letters>, basedOn?: string): string {
    const id = this.id();
    this.textLooks.push({ id, name, kind: 'paragraph', ...(basedOn && { basedOn }), paragraph, letters });
    return id;
  }

  /** Puts a display text on a line. */
  along(id: string, along: Along): string {
    this.nodes[id] = { ...(this.nodes[id] as NodeOf<'displayText'>), along };
    return id;
  }

  group(name: string, children: string[], transform: Matrix = [1, 0, 0, 1, 0, 0]): string {
    const id = this.id();
    this.nodes[id] = { id, name, kind: 'group', transform, hidden: false, locked: false, children };
    return id;
  }

  combination(
    name: string,
    op: NodeOf<'combination'>['op'],
    children: string[],
    paint: { fill?: Paint; outline?: Outline },
  ): string {
    const id = this.id();
    this.nodes[id] = {
      id,
      name,
      kind: 'combination',
      op,
      transform: [1, 0, 0, 1, 0, 0],
      hidden: false,
      locked: false,
      children,
      fills: [paint.fill ?? NO_PAINT],
      outlines: paint.outline ? [paint.outline] : [],
    };
    return id;
  }

  repeat(name: string, arrangement: Arrangement, children: string[]): string {
    const id = this.id();
    this.nodes[id] = {
      id,
      name,
      kind: 'repeat',
      arrangement,
      transform: [1, 0, 0, 1, 0, 0],
      hidden: false,
      locked: false,
      children,
    };
    return id;
  }

  /** What is made of all corners of a shape. */
  corners(id: string, all: Corner): string {
    const node = this.nodes[id];
    if (node.kind === 'shape' || node.kind === 'path') this.nodes[id] = { ...node, corners: { all } };
    return id;
  }

  /** Opacity, blend and cut of an object as a whole. */
  together(id: string, whole: Pick<DesignNode, 'opacity' | 'blend' | 'maskMode'>): string {
    this.nodes[id] = { ...this.nodes[id], ...whole };
    return id;
  }

  lock(id: string): string {
    this.nodes[id] = { ...this.nodes[id], locked: true };
    return id;
  }

  /** Puts nodes on a page, back to front; further pages are made as needed. */
  place(pageIndex: number, children: string[], name?: string): void {
    while (this.pages.length <= pageIndex) this.pages.push({ id: this.id(), name: '', children: [] });
    if (name !== undefined) this.pages[pageIndex] = { ...this.pages[pageIndex], name };
    const page = this.pages[pageIndex];
    this.pages[pageIndex] = { ...page, children: [...page.children, ...children] };
  }

  /** A master, back to front; answers its id. */
  master(name: string, children: string[], facts: Partial<Page> = {}): string {
    const id = this.id();
    this.masters.push({ id, name, children, ...facts });
    return id;
  }
  private readonly masters: Page[] = [];

  /** What else is said of a page. */
  pageFacts(pageIndex: number, facts: Partial<Page>): void {
    this.place(pageIndex, []);
    this.pages[pageIndex] = { ...this.pages[pageIndex], ...facts };
  }

  done(): Design {
    return {
      ...this.base,
      ...(this.masters.length && { masters: this.masters }),
      nodes: this.nodes,
      stories: this.stories,
      swatches: this.swatches,
      inks: this.inks,
      pages: this.pages,
      ...(this.pictures.length && { pictures: this.pictures }),
      ...(this.textLooks.length && { textLooks: this.textLooks }),
    };
  }
}

export const tint = (colour: Colour, by: number): Colour =>
  'swatch' in colour || 'ink' in colour ? { ...colour, tint: by } : colour;
export const flat = colourPaint;
