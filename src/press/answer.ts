import type { Rect } from '@/core/geometry/rect';
import type { PdfFacts } from '@/core/input/pdf/facts';

/** The kinds of press that the stand-in can be. */
export const PRESS_KINDS = ['coated', 'digital', 'screen'] as const;
export type PressKind = (typeof PRESS_KINDS)[number];

/**
 * Something that the press says of a file: why it is refused, or what is to be known. `box` in points from the trim's
 * top left.
 */
export interface Remark {
  readonly code: string;
  readonly refuses: boolean;
  readonly message: string;
  /** From 1. */
  readonly page?: number;
  readonly box?: Rect;
}

/** A page as the press read it; lengths in points. */
export interface ReadPage {
  readonly width: number;
  readonly height: number;
  /** The least of the four sides. */
  readonly bleed: number;
  readonly inks: readonly string[];
  readonly pictures: number;
  /** The fewest pixels an inch of a picture. */
  readonly ppi: number | null;
  /** The proof as PNG, base64; null where none was made. */
  readonly proof: string | null;
}
/** What the press answers to a file. */
export interface PressAnswer {
  readonly kind: PressKind;
  readonly taken: boolean;
  readonly remarks: readonly Remark[];
  readonly standard: string | null;
  readonly version: string;
  readonly intent: string | null;
  readonly inks: readonly string[];
  readonly fonts: readonly { readonly name: string; readonly embedded: boolean }[];
  readonly pages: readonly ReadPage[];
}

/** What a worker of the press tells while it reads, and at the end. */
export type Told =
  | { readonly step: string; readonly done: number; readonly total: number }
  | { readonly answer: PressAnswer }
  | { readonly refused: string };

const MM = 72 / 25.4;
const mm = (points: number): string => `${(points / MM).toFixed(1).replace(/\.0$/, '')} mm`;

/**
 * What a kind of press asks for; lengths in points. The values are what such printers usually ask (common practice).
 */
export interface Demands {
  readonly name: string;
  /** In one sentence, for those who choose. */
  readonly said: string;
  readonly x4: boolean;
  readonly bleed: number;
  /** The largest sheet, the longer side first. */
  readonly sheet: readonly [number, number];
  readonly mostInks: number;
  readonly spots: boolean;
  readonly rgb: boolean;
  readonly ppi: number;
  readonly line: number;
  readonly letters: number;
}
export const PRESSES: Readonly<Record<PressKind, Demands>> = {
  coated: {
    name: 'Sheetfed, coated',
    said: 'Offset on coated sheets: PDF/X-4, 3 mm bleed, up to six plates.',
    x4: true,
    bleed: 3 * MM,
    sheet: [1020 * MM, 720 * MM],
    mostInks: 6,
    spots: true,
    rgb: false,
    ppi: 150,
    line: 0.2,
    letters: 4,
  },
  digital: {
    name: 'Digital',
    said: 'Short runs from four toners: no spot inks, 2 mm bleed, sheets up to 488 × 330 mm.',
    x4: false,
    bleed: 2 * MM,
    sheet: [488 * MM, 330 * MM],
    mostInks: 4,
    spots: false,
    rgb: true,
    ppi: 120,
    line: 0.25,
    letters: 4,
  },
  screen: {
    name: 'Screen, one ink',
    said: 'One ink through a mesh: a single plate, lines from 0.5 pt, letters from 8 pt.',
    x4: false,
    bleed: 0,
    sheet: [700 * MM, 500 * MM],
    mostInks: 1,
    spots: true,
    rgb: false,
    ppi: 120,
    line: 0.5,
    letters: 8,
  },
};

/** Rounding of numbers in files. */
const HAIR = 0.05;

/** What a press says of a file by what was read in it; page by page, then of the whole. */
export function remarksOn(facts: PdfFacts, kind: PressKind): Remark[] {
  const asks = PRESSES[kind];
  const out: Remark[] = [];
  const refuse = (code: string, message: string, page?: number, box?: Rect) =>
    out.push({ code, refuses: true, message, ...(page && { page }), ...(box && { box }) });
  const note = (code: string, message: string, page?: number, box?: Rect) =>
    out.push({ code, refuses: false, message, ...(page && { page }), ...(box && { box }) });

  if (asks.x4) {
    if (facts.standard !== 'PDF/X-4')
      refuse('standard', `It is not PDF/X-4${facts.standard ? ` but ${facts.standard}` : ''}: make it as a print PDF.`);
    if (!facts.intent)
      refuse('intent', 'It does not say for which paper it was made: no output intent with a profile.');
    else if (facts.intent.space !== 'CMYK')
      refuse(
        'intent.space',
        `Its output profile is ${facts.intent.space ? `for ${facts.intent.space}` : 'missing'}, not for printing inks.`,
      );
  }
  for (const act of facts.acts) refuse('acts', `It has ${act}: a press takes pages and nothing else.`);
  for (const f of facts.fonts)
    if (!f.embedded) refuse('font', `The face ${f.name} is not in the file: its words would be set in another.`);

  const inks = new Set<string>();
  const first = facts.pages[0];
  facts.pages.forEach((page, i) => {
    const n = i + 1;
    const { media, trim, bleed } = page;
    for (const ink of page.inks) inks.add(ink);
    for (const fault of page.faults) refuse('content', `Page ${n} is damaged: ${fault}.`, n);
    if (!media) {
      refuse('media', `Page ${n} has no size.`, n);
      return;
    }
    const from = trim ?? media;
    const place = (box: Rect): Rect => ({
      x0: Math.max(-1e4, box.x0 - from.x0),
      y0: Math.max(-1e4, from.y1 - box.y1),
      x1: Math.min(1e5, box.x1 - from.x0),
      y1: Math.min(1e5, from.y1 - box.y0),
    });
    if (!trim) refuse('trim', `Page ${n} does not say where it is cut: no trim box.`, n);
    else {
      const outer = bleed ?? trim;
      if (!inside(trim, outer) || !inside(outer, media))
        refuse('boxes', `The boxes of page ${n} do not lie in each other: cut within bleed within sheet.`, n);
      const least = leastBleed(trim, outer);
      if (least < asks.bleed - HAIR)
        refuse(
          'bleed',
          `Page ${n} has ${mm(Math.max(0, least))} of bleed; ${mm(asks.bleed)} are needed on all sides.`,
          n,
        );
      const [long, short] = [Math.max(width(trim), height(trim)), Math.min(width(trim), height(trim))];
      if (long > asks.sheet[0] + HAIR || short > asks.sheet[1] + HAIR)
        refuse(
          'sheet',
          `Page ${n} is ${mm(width(trim))} × ${mm(height(trim))}; the largest here is ${mm(asks.sheet[0])} × ${mm(asks.sheet[1])}.`,
          n,
        );
      if (!(width(trim) > 1 && height(trim) > 1)) refuse('trim.empty', `Page ${n} is cut to nothing.`, n);
      if (
        first?.trim &&
        (Math.abs(width(trim) - width(first.trim)) > 1 || Math.abs(height(trim) - height(first.trim)) > 1)
      )
        note('sizes', `Page ${n} is of another size than the first.`, n);
    }
    if (page.untaggedRgb)
      refuse(
        'rgb',
        `Page ${n} has colours of light that say nothing of which light: no press can know what is meant.`,
        n,
        place(page.untaggedRgb),
      );
    else if (page.taggedRgb && !asks.rgb)
      note('rgb.tagged', `Page ${n} has colours of light; they are turned into inks here.`, n);
    for (const p of page.pictures)
      if (p.ppi < asks.ppi)
        refuse(
          'picture',
          `A picture on page ${n} has ${Math.round(p.ppi)} ppi; it needs ${asks.ppi} to be sharp.`,
          n,
          place(p.box),
        );
    if (page.thinnest && page.thinnest.width < asks.line - 0.001)
      refuse(
        'line',
        `A line on page ${n} is ${trimmed(page.thinnest.width)} pt thin; ${asks.line} pt is the thinnest that holds.`,
        n,
        place(page.thinnest.box),
      );
    if (page.smallest && page.smallest.size < asks.letters - 0.01)
      note(
        'letters',
        `Letters on page ${n} are ${trimmed(page.smallest.size)} pt; below ${asks.letters} pt they may fill in.`,
        n,
        place(page.smallest.box),
      );
    if (page.whiteOverprint)
      refuse(
        'white',
        `Something on page ${n} is free of ink and overprints: it would not be seen.`,
        n,
        place(page.whiteOverprint),
      );
    if (!page.inks.length) note('empty', `Page ${n} has no ink.`, n);
  });
  const plates = [...inks];
  const spots = plates.filter((i) => !PROCESS.has(i));
  if (!asks.spots && spots.length)
    refuse(
      'spots',
      `${list(spots)} ${spots.length > 1 ? 'are spot inks' : 'is a spot ink'}: this press has four toners. Hand over with stand-ins.`,
    );
  else if (plates.length > asks.mostInks)
    refuse(
      'plates',
      asks.mostInks === 1
        ? `It needs ${plates.length} plates (${list(plates)}), and this press prints one ink. Hand over in one ink.`
        : `It needs ${plates.length} plates (${list(plates)}); this press has ${asks.mostInks}.`,
    );
  return out;
}

const PROCESS = new Set(['Cyan', 'Magenta', 'Yellow', 'Black']);
const width = (r: Rect): number => r.x1 - r.x0;
const height = (r: Rect): number => r.y1 - r.y0;
const inside = (a: Rect, b: Rect): boolean =>
  a.x0 >= b.x0 - HAIR && a.y0 >= b.y0 - HAIR && a.x1 <= b.x1 + HAIR && a.y1 <= b.y1 + HAIR;
const leastBleed = (trim: Rect, bleed: Rect): number =>
  Math.min(trim.x0 - bleed.x0, trim.y0 - bleed.y0, bleed.x1 - trim.x1, bleed.y1 - trim.y1);
const trimmed = (v: number): string => String(Number(v.toFixed(2)));
const list = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}`;

/** The whole answer, proofs still to come. */
export function answerTo(facts: PdfFacts, kind: PressKind): PressAnswer {
  // What it is refused for stands first, whatever it lies on.
  const remarks = remarksOn(facts, kind).sort((a, b) => Number(b.refuses) - Number(a.refuses));
  const inks = [...new Set(facts.pages.flatMap((p) => p.inks))];
  return {
    kind,
    taken: !remarks.some((r) => r.refuses),
    remarks,
    standard: facts.standard,
    version: facts.version,
    intent: facts.intent?.condition ?? null,
    inks,
    fonts: facts.fonts.map(({ name, embedded }) => ({ name, embedded })),
    pages: facts.pages.map((p) => {
      const box = p.trim ?? p.media ?? { x0: 0, y0: 0, x1: 0, y1: 0 };
      return {
        width: width(box),
        height: height(box),
        bleed: p.trim && p.bleed ? leastBleed(p.trim, p.bleed) : 0,
        inks: p.inks,
        pictures: p.pictures.length,
        ppi: p.pictures.length ? Math.min(...p.pictures.map((x) => x.ppi)) : null,
        proof: null,
      };
    }),
  };
}
