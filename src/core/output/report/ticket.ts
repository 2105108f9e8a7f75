import type { Finding } from '../../check/types';
import { PROFILES, newDesign, runOf, setupOf, type Making } from '../../model/defaults';
import type { Colour, Design, DesignNode, Page, Paint, Story } from '../../model/schema';
import { SOLID_GRAMS } from '../../render/pageInk';
import { formatNumber, fromPoints } from '../../units/length';

/** What a job ticket tells beside the design itself. */
export interface TicketFacts {
  /** Plates in the order of printing: name, colour, and how much of the pages each covers, 0…1. */
  readonly inks: readonly { readonly name: string; readonly colour: Colour; readonly coverage: number }[];
  readonly findings: readonly Finding[];
  readonly faces: readonly string[];
  readonly pictures: readonly { readonly name: string; readonly ppi: number }[];
  /** Why the checks could not be made; then nothing is said to be in order. */
  readonly notChecked: string | null;
}
/** Where the first page is shown; points from the ticket's top left. */
export interface Window {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

const [A4_W, A4_H] = [595.28, 841.89];
const LEFT = 40;
const MIDDLE = 322;
const TOP = 132;
const [REGULAR, BOLD, HEAVY] = ['archivo-400', 'archivo-700', 'archivo-800'];
/** More of a list is counted, not named. */
const MOST = { findings: 12, waived: 8, faces: 10, pictures: 10, inks: 12 } as const;

/** Lines of a column: headings, and what stands below them. */
type Line = readonly [text: string, kind: 'head' | 'plain' | 'faint'];

/**
 * The job ticket of a design as a page of its own: what it is, its inks with their colours, how much they cover, what
 * the checks say and what is meant so, faces and pictures. `window` is left free for the first page, in its
 * proportions.
 */
export function ticketOf(
  design: Design,
  facts: TicketFacts,
  make: Making,
): { readonly design: Design; readonly window: Window } {
  const base = newDesign(`${design.name}, job ticket`, setupOf(A4_W, A4_H, { bleed: 0 }), make);
  const nodes: Record<string, DesignNode> = {};
  const stories: Record<string, Story> = {};
  const children: string[] = [];
  const still = { hidden: false, locked: false } as const;
  const black: Paint = { kind: 'colour', colour: { cmyk: [0, 0, 0, 1] }, overprint: false };
  const faint: Paint = { kind: 'colour', colour: { cmyk: [0, 0, 0, 0.62] }, overprint: false };
  const box = (x: number, y: number, w: number, h: number, colour: Colour | null, edge = false) => {
    const id = make.newId();
    nodes[id] = {
      ...still,
      id,
      name: '',
      kind: 'shape',
      shape: 'rectangle',
      transform: [1, 0, 0, 1, x, y],
      width: w,
      height: h,
      knobs: {},
      fills: [colour ? { kind: 'colour', colour, overprint: false } : { kind: 'none' }],
      outlines: edge ? [{ paint: faint, width: 0.5, cap: 'butt', join: 'miter', miterLimit: 10 }] : [],
    };
    children.push(id);
  };
  const words = (text: string, x: number, y: number, size: number, face: string, paint: Paint = black) => {
    const [id, story] = [make.newId(), make.newId()];
    stories[story] = {
      id: story,
      paragraphs: [{ align: 'left', leading: 1.2, runs: [runOf(text, size, paint, face)] }],
    };
    nodes[id] = { ...still, id, name: '', kind: 'displayText', transform: [1, 0, 0, 1, x, y], story, stretch: 1 };
    children.push(id);
  };
  const column = (lines: readonly Line[], x: number, y: number, w: number, h: number) => {
    const [id, story] = [make.newId(), make.newId()];
    stories[story] = {
      id: story,
      paragraphs: lines.map(([text, kind], i) => ({
        align: 'left',
        leading: 1.25,
        ...(kind === 'head' && i > 0 && { spaceBefore: 10 }),
        ...(kind !== 'head' && { spaceBefore: 2.5 }),
        runs: [
          runOf(text, kind === 'head' ? 10.5 : 9, kind === 'faint' ? faint : black, kind === 'head' ? BOLD : REGULAR),
        ],
      })),
    };
    nodes[id] = {
      ...still,
      id,
      name: '',
      kind: 'textFrame',
      transform: [1, 0, 0, 1, x, y],
      story,
      width: w,
      height: h,
      inset: 0,
      fills: [{ kind: 'none' }],
      outlines: [],
    };
    children.push(id);
  };

  const unit = design.setup.unit === 'px' ? 'mm' : design.setup.unit;
  const long = (v: number) => formatNumber(fromPoints(v, unit), 1);
  words('Job ticket', LEFT, 58, 10, BOLD, faint);
  words(shortened(design.name, 34), LEFT, 88, 26, HEAVY);
  words(
    [design.version, `as of ${design.modified.slice(0, 16).replace('T', ', ')}`].filter(Boolean).join(' · '),
    LEFT,
    106,
    9,
    REGULAR,
    faint,
  );
  box(LEFT, 116, A4_W - 2 * LEFT, 1, { cmyk: [0, 0, 0, 1] });

  const { width, height, bleed } = design.setup;
  const scale = Math.min(258 / width, 230 / height);
  const window: Window = { x: LEFT, y: TOP, w: width * scale, h: height * scale };
  box(window.x, window.y, window.w, window.h, null, true);
  const paper = PROFILES.find((p) => p.file === design.profile.file);
  const about: Line[] = [
    ['Format', 'head'],
    [`${long(width)} × ${long(height)} ${unit}, ${bleed ? `${long(bleed)} ${unit} bleed` : 'no bleed'}`, 'plain'],
    [`${many(design.pages.length, 'page')}${design.setup.facing ? ', facing' : ''}`, 'plain'],
    [
      `Paper: ${paper ? `${paper.name.toLowerCase()}, ${paper.source}` : (design.profile.name ?? 'own profile')}`,
      'plain',
    ],
    [`At most ${Math.round(design.profile.totalInkLimit * 100)} % of ink`, 'plain'],
    ...(design.plates?.trap
      ? [[`Inks that meet overlap by ${formatNumber(fromPoints(design.plates.trap, 'mm'), 2)} mm`, 'plain'] as const]
      : []),
  ];
  const under = window.y + window.h + 14;
  column(about, LEFT, under, 258, 110);
  let y = under + 30 + 14 * about.length;
  words('Inks', LEFT, y, 10.5, BOLD);
  y += 8;
  for (const ink of facts.inks.slice(0, MOST.inks)) {
    box(LEFT, y, 26, 14, ink.colour, true);
    words(shortened(ink.name, 24), LEFT + 34, y + 10.5, 9, REGULAR);
    words(
      `${formatNumber(ink.coverage * 100, ink.coverage < 0.1 ? 1 : 0)} % · ${grams(ink.coverage * SOLID_GRAMS)} g/m²`,
      LEFT + 160,
      y + 10.5,
      9,
      REGULAR,
      faint,
    );
    y += 19;
  }
  if (!facts.inks.length) words('None: nothing is printed.', LEFT, y + 10.5, 9, REGULAR);

  column(toldOf(facts), MIDDLE, TOP, A4_W - LEFT - MIDDLE, A4_H - TOP - LEFT);
  const page: Page = { ...base.pages[0], children };
  return {
    design: {
      ...base,
      profile: design.profile,
      inks: design.inks,
      nodes,
      stories,
      pages: [page],
      modified: design.modified,
    },
    window,
  };
}

/** The right column. */
function toldOf({ findings, faces, pictures, notChecked }: TicketFacts): Line[] {
  const open = findings.filter((f) => f.waived === undefined);
  const meant = findings.filter((f) => f.waived !== undefined);
  const listed = <T>(all: readonly T[], most: number, line: (x: T) => readonly Line[]): Line[] => [
    ...all.slice(0, most).flatMap(line),
    ...(all.length > most ? [[`and ${all.length - most} more`, 'faint'] as const] : []),
  ];
  return [
    ['Checks', 'head'],
    ...(notChecked !== null
      ? ([[`They could not be made: ${notChecked}`, 'plain']] as const)
      : open.length
        ? listed(open, MOST.findings, (f) => [[`Page ${f.page}: ${f.message}`, 'plain']])
        : ([['Nothing found.', 'plain']] as const)),
    ...(meant.length
      ? [
          ['Meant to be so', 'head'] as const,
          ...listed(meant, MOST.waived, (f) => [
            [`Page ${f.page}: ${f.message}`, 'plain'],
            [`“${f.waived}”`, 'faint'],
          ]),
        ]
      : []),
    ['Faces', 'head'],
    ...(faces.length ? listed(faces, MOST.faces, (f) => [[f, 'plain']]) : ([['None.', 'plain']] as const)),
    ['Pictures', 'head'],
    ...(pictures.length
      ? listed(pictures, MOST.pictures, (p) => [[`${shortened(p.name, 40)}, ${Math.round(p.ppi)} ppi`, 'plain']])
      : ([['None.', 'plain']] as const)),
  ];
}

const grams = (v: number): string => (v < 0.01 ? 'under 0.01' : formatNumber(v, 2));
const many = (n: number, word: string): string => `${n} ${word}${n === 1 ? '' : 's'}`;
const shortened = (text: string, most: number): string =>
  text.length > most ? `${text.slice(0, most - 1).trimEnd()}…` : text;
