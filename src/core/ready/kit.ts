import { IDENTITY, multiply, rotation, translation, type Matrix } from '../geometry/matrix';
import type { PathData } from '../geometry/path';
import type { Rect } from '../geometry/rect';
import { rolesOf, type Roles } from '../edit/roles';
import { colourPaint, NO_PAINT, outlineOf } from '../model/defaults';
import { baseOf } from '../model/textLooks';
import type {
  Along,
  Arrangement,
  Colour,
  Corner,
  Design,
  DesignNode,
  Letters,
  Paint,
  Paragraph,
  ParagraphSet,
  Story,
} from '../model/schema';

/** Letters under this size are small (common practice), points. */
const SMALL = 8;

/** What a ready-made is drawn with: the page, colours by what they can be, the design's looks of text. */

interface Box {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}
interface Painted {
  readonly fill?: Colour;
  readonly line?: Colour;
  /** Of the line, points. */
  readonly width?: number;
  readonly knobs?: Readonly<Record<string, number>>;
  readonly corners?: Corner;
}
interface Worded {
  readonly as?: 'title' | 'body';
  readonly size: number;
  readonly colour: Colour;
  readonly align?: ParagraphSet['align'];
  readonly tracking?: number;
  readonly leading?: number;
  readonly capitals?: boolean;
}

export class ReadyKit {
  readonly nodes: DesignNode[] = [];
  readonly stories: Story[] = [];
  readonly colours: Roles;
  /** Of small letters: black ink alone, where the design has it. */
  private readonly fine: Colour;
  /** The trim, and what of it lies between the margins. */
  readonly page: Rect;
  readonly box: Rect;
  readonly bleed: number;
  /** A hundredth of the page's shorter side. */
  readonly u: number;
  private readonly looks: Readonly<Record<'title' | 'body', Partial<Paragraph>>>;
  private readonly letters: Readonly<Record<'title' | 'body', Partial<Letters>>>;

  constructor(
    d: Design,
    lab: (c: Colour) => readonly [number, number, number],
    private readonly newId: () => string,
  ) {
    const { width, height, margins, bleed } = d.setup;
    this.page = { x0: 0, y0: 0, x1: width, y1: height };
    this.bleed = bleed;
    this.u = Math.min(width, height) / 100;
    // A page without margins has some all the same: nothing stands on the cut.
    const least = 5 * this.u;
    this.box = {
      x0: Math.max(least, margins.left),
      y0: Math.max(least, margins.top),
      x1: width - Math.max(least, margins.right),
      y1: height - Math.max(least, margins.bottom),
    };
    this.colours = rolesOf(d, lab);
    const black = d.swatches.find(
      (w) => w.kind === 'colour' && 'cmyk' in w.colour && w.colour.cmyk.join() === '0,0,0,1',
    );
    this.fine = black ? { swatch: black.id, tint: 1 } : this.colours.dark;
    const { title, body } = textRoles(d);
    this.looks = { title: title ? { look: title } : {}, body: body ? { look: body } : {} };
    this.letters = {
      title: title ? {} : { face: 'bitter-700' },
      body: body ? {} : { face: 'archivo-400' },
    };
  }

  get middle(): { readonly x: number; readonly y: number } {
    return { x: (this.box.x0 + this.box.x1) / 2, y: (this.box.y0 + this.box.y1) / 2 };
  }
  get wide(): number {
    return this.box.x1 - this.box.x0;
  }
  get high(): number {
    return this.box.y1 - this.box.y0;
  }

  private put(node: Omit<DesignNode, 'id' | 'hidden' | 'locked'>): string {
    const id = this.newId();
    this.nodes.push({ ...node, id, hidden: false, locked: false } as DesignNode);
    return id;
  }

  shape(
    name: string,
    shape: string,
    at: Box,
    { fill, line, width = this.u * 0.4, knobs = {}, corners }: Painted,
  ): string {
    return this.put({
      name,
      kind: 'shape',
      shape,
      transform: translation(at.x, at.y),
      width: at.w,
      height: at.h,
      knobs,
      ...(corners && { corners: { all: corners } }),
      fills: [fill ? colourPaint(fill) : NO_PAINT],
      outlines: line ? [outlineOf(colourPaint(line), width)] : [],
    } as Omit<DesignNode, 'id' | 'hidden' | 'locked'>);
  }

  /** A straight rule as an area, so that it scales with its group. */
  rule(name: string, x: number, y: number, w: number, thick: number, colour: Colour): string {
    return this.shape(name, 'rectangle', { x, y: y - thick / 2, w, h: thick }, { fill: colour });
  }

  path(name: string, path: PathData, { fill, line, width = this.u * 0.4 }: Painted): string {
    return this.put({
      name,
      kind: 'path',
      transform: [...IDENTITY] as unknown as Matrix,
      path: [...path],
      fillRule: 'nonZero',
      fills: [fill ? colourPaint(fill) : NO_PAINT],
      outlines: line ? [{ ...outlineOf(colourPaint(line), width), cap: 'round', join: 'round' }] : [],
    } as Omit<DesignNode, 'id' | 'hidden' | 'locked'>);
  }

  private paragraphs(lines: readonly string[], w: Worded): Paragraph[] {
    const { as = 'body', size, colour, align = 'left', tracking, leading, capitals } = w;
    // Small letters are printed in one ink: where plates stray, they would have coloured edges.
    const fill: Paint = colourPaint(size < SMALL && colour !== this.colours.light ? this.fine : colour);
    return lines.map((text) => ({
      ...this.looks[as],
      align,
      leading: leading ?? 1.2,
      runs: [
        {
          ...this.letters[as],
          size,
          fill,
          ...(tracking !== undefined && { tracking }),
          ...(capitals && { case: 'capitals' as const }),
          text,
        },
      ],
    }));
  }

  /** Words from a place, their first baseline at `y`. */
  text(name: string, x: number, y: number, words: string | readonly string[], how: Worded, along?: Along): string {
    const story = this.newId();
    const lines = typeof words === 'string' ? [words] : words;
    this.stories.push({ id: story, paragraphs: this.paragraphs(lines, how) });
    return this.put({
      name,
      kind: 'displayText',
      transform: translation(x, y),
      story,
      stretch: 1,
      ...(along && { along }),
    } as Omit<DesignNode, 'id' | 'hidden' | 'locked'>);
  }

  group(name: string, children: readonly string[], transform: Matrix = IDENTITY): string {
    return this.put({ name, kind: 'group', transform, children: [...children] } as Omit<
      DesignNode,
      'id' | 'hidden' | 'locked'
    >);
  }

  /** Turned about a place, degrees. */
  turned(name: string, children: readonly string[], degrees: number, about: { x: number; y: number }): string {
    return this.group(name, children, rotation(degrees, about));
  }

  repeat(name: string, arrangement: Arrangement, children: readonly string[]): string {
    return this.put({
      name,
      kind: 'repeat',
      transform: IDENTITY,
      arrangement,
      children: [...children],
    } as Omit<DesignNode, 'id' | 'hidden' | 'locked'>);
  }

  /** So many copies in a row. */
  row(name: string, count: number, step: { x: number; y: number }, children: readonly string[]): string {
    return this.repeat(
      name,
      { kind: 'row', count: Math.max(1, Math.round(count)), step, about: { x: 0, y: 0 } },
      children,
    );
  }

  /** The same piece in all four corners of a box: drawn with its corner at 0, 0, towards right and down. */
  corners(box: Rect, piece: () => readonly string[]): string[] {
    const at: readonly Matrix[] = [
      [1, 0, 0, 1, box.x0, box.y0],
      [-1, 0, 0, 1, box.x1, box.y0],
      [-1, 0, 0, -1, box.x1, box.y1],
      [1, 0, 0, -1, box.x0, box.y1],
    ];
    return at.map((m, i) => this.group(`Corner ${i + 1}`, piece(), multiply(m, IDENTITY)));
  }
}

/** The paragraph looks of a design that are its largest and its body's: the smallest that is still read with ease. */
function textRoles(d: Pick<Design, 'textLooks'>): { readonly title?: string; readonly body?: string } {
  const looks = (d.textLooks ?? []).flatMap((l) =>
    l.kind === 'paragraph' ? [{ id: l.id, size: baseOf(d.textLooks, l.id).letters.size }] : [],
  );
  if (!looks.length) return {};
  const bySize = looks.toSorted((a, b) => a.size - b.size);
  const title = bySize.at(-1)!;
  const body = bySize.find((l) => l.size >= EASY) ?? bySize[0];
  return { title: title.id, ...(body !== title && { body: body.id }) };
}
/** Points (common practice). */
const EASY = 8;
