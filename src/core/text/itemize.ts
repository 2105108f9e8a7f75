import { DEFAULT_FACE } from '../model/defaults';
import type { SetParagraph, SetRun, SetStory } from '../model/textLooks';
import { levelsOf } from './bidi';
import type { Face, Shaping } from './face';
import type { FontBook, InFace } from './fonts';
import { graphemes } from './graphemes';
import { isPlainLatin, mayRunLeft, scriptOf } from './scripts';

/** A stretch that is shaped in one go: of one run, face, size, script and direction. Lengths in points. */
export interface Item {
  readonly run: SetRun;
  readonly face: Face;
  /** Of the letters as they are drawn. */
  readonly size: number;
  /** How far they stand above the line. */
  readonly rise: number;
  /** Offsets in the paragraph's text. */
  readonly start: number;
  readonly end: number;
  /** What is shaped; as typed but for its case. */
  readonly text: string;
  /** Where in the paragraph each unit of that stands; null: one by one from the start. */
  readonly offsets: readonly number[] | null;
  /** Bidirectional level (UAX 9): odd runs from right to left. */
  readonly level: number;
  readonly shaping: Shaping | null;
}

export interface Itemized {
  readonly items: readonly Item[];
  /** Faces that were asked for and are not at hand. */
  readonly missing: readonly string[];
  /** The level of the paragraph: 1 where it runs from right to left. */
  readonly level: number;
}

/** Small capitals that a face has not are made of capitals of this share of the size (common practice: 0.7 to 0.8). */
const SMALL_CAPITAL = 0.78;

/**
 * Faces that stand in where the face asked for has not a letter, in this order, and the letters for which they are had.
 */
const STAND_INS: readonly { readonly face: string; readonly of: RegExp }[] = [
  { face: DEFAULT_FACE, of: /^/ },
  { face: 'frank-ruhl-500', of: /\p{Script=Hebrew}/u },
  { face: 'noto-arabic-500', of: /\p{Script=Arabic}/u },
];

/** The faces that a text may need beside its own. */
export const standInsFor = (text: string): string[] =>
  mayRunLeft(text) ? STAND_INS.filter((s) => s.of.test(text)).map((s) => s.face) : [];

/** May any of a story run from right to left? Then `loadBidi` is to be asked for. */
export const runsLeft = (story: SetStory): boolean =>
  story.paragraphs.some((p) => p.direction === 'rtl' || p.runs.some((r) => mayRunLeft(r.text)));

/** Splits a paragraph into items, in the order in which it is read. */
export function itemize(p: SetParagraph, fonts: FontBook): Itemized {
  const text = p.runs.map((r) => r.text).join('');
  const missing = new Set<string>();
  const levels = p.direction !== 'rtl' && !mayRunLeft(text) ? null : levelsOf(text, p.direction);
  const level = levels?.paragraphs[0]?.level ?? (p.direction === 'rtl' ? 1 : 0);
  const items: Item[] = [];
  let at = 0;
  for (const run of p.runs) {
    const own = fonts.instance(run.face, run.axes);
    if (!own) missing.add(run.face);
    const set = own ? { face: own, share: 1 } : fonts.standIn(run.face);
    if (set && run.text) split(items, run, set, at, levels?.levels ?? null, fonts);
    at += run.text.length;
  }
  return { items, missing: [...missing], level };
}

/** The parts of one run. */
function split(out: Item[], run: SetRun, set: InFace, start: number, levels: Uint8Array | null, fonts: FontBook): void {
  const { text } = run;
  const { face } = set;
  if (!levels && isPlainLatin(text) && face.coversAll(text)) {
    put(out, run, set, start, text, 0, null);
    return;
  }
  // A letter and its marks stay together: what the first of them is, all are.
  interface Part {
    from: number;
    text: string;
    face: Face;
    level: number;
    script: string | null;
  }
  const parts: Part[] = [];
  for (const { segment, index } of graphemes(text)) {
    const level = levels ? levels[start + index] : 0;
    const script = scriptOf(String.fromCodePoint(segment.codePointAt(0)!));
    const last = parts[parts.length - 1];
    const tab = segment === '\t';
    const by = tab ? face : (standIn(segment, face, last?.face, fonts) ?? face);
    if (
      last &&
      !tab &&
      last.text !== '\t' &&
      last.face === by &&
      last.level === level &&
      (script === null || last.script === null || last.script === script)
    ) {
      last.text += segment;
      last.script ??= script;
    } else parts.push({ from: index, text: segment, face: by, level, script });
  }
  for (const p of parts) {
    const share = p.face === face ? set.share : 1;
    put(out, run, { face: p.face, share }, start + p.from, p.text, p.level, p.script);
  }
}

/**
 * The face that has a letter: its own, the one before it, else the first of those that stand in; null where none has
 * it.
 */
function standIn(segment: string, own: Face, before: Face | undefined, fonts: FontBook): Face | null {
  if (own.coversAll(segment)) return own;
  // Signs that many scripts share stay with what they follow.
  if (before && before !== own && before.coversAll(segment)) return before;
  for (const { face: id } of STAND_INS) {
    const face = fonts.get(id);
    if (face?.coversAll(segment)) return face;
  }
  return null;
}

/** One part as items: small capitals that are made have a size of their own. */
function put(
  out: Item[],
  run: SetRun,
  { face, share: whole }: InFace,
  start: number,
  text: string,
  level: number,
  script: string | null,
): void {
  const made = run.case === 'smallCapitals' && !face.features.has('smcp');
  const add = (from: number, part: string, share: number) => {
    const shown = run.case === 'capitals' || share !== 1 ? raised(part, run.language) : { text: part, offsets: null };
    const { size, rise } = placed(run, face);
    out.push({
      run,
      face,
      size: size * share * whole,
      rise,
      start: start + from,
      end: start + from + part.length,
      text: shown.text,
      offsets: shown.offsets && shown.offsets.map((o) => start + from + o),
      level,
      shaping: shapingOf(run, face, level, script),
    });
  };
  if (!made) return add(0, text, 1);
  for (let i = 0; i < text.length;) {
    const lower = isLower(text, i);
    let j = i;
    while (j < text.length && isLower(text, j) === lower) j += text.codePointAt(j)! > 0xffff ? 2 : 1;
    add(i, text.slice(i, j), lower ? SMALL_CAPITAL : 1);
    i = j;
  }
}

function isLower(text: string, at: number): boolean {
  const char = String.fromCodePoint(text.codePointAt(at)!);
  return char.toUpperCase() !== char;
}

/** A text in capitals, and where each unit of it came from: ß becomes two letters. */
function raised(text: string, language: string): { readonly text: string; readonly offsets: readonly number[] | null } {
  const whole = text.toLocaleUpperCase(language);
  if (whole.length === text.length) return { text: whole, offsets: null };
  let out = '';
  const offsets: number[] = [];
  for (const { segment, index } of graphemes(text)) {
    const upper = segment.toLocaleUpperCase(language);
    for (let i = 0; i < upper.length; i++) offsets.push(index);
    out += upper;
  }
  return { text: out, offsets };
}

/** Size and rise of letters that stand higher or lower, by the face's own measures. */
function placed(run: SetRun, face: Face): { readonly size: number; readonly rise: number } {
  if (run.position === 'normal') return { size: run.size, rise: run.baselineShift };
  const { size, rise } = run.position === 'super' ? face.superscript : face.subscript;
  return { size: run.size * size, rise: run.baselineShift + run.size * rise };
}

function shapingOf(run: SetRun, face: Face, level: number, script: string | null): Shaping | null {
  const features: Record<string, number> = {};
  if (!run.kerning) features.kern = 0;
  if (!run.ligatures) Object.assign(features, { liga: 0, clig: 0 });
  if (run.case === 'smallCapitals' && face.features.has('smcp')) features.smcp = 1;
  Object.assign(features, run.features);
  const plain = level % 2 === 0 && (script === null || script === 'Latn') && run.language === 'en';
  if (plain && !Object.keys(features).length) return null;
  return { rightToLeft: level % 2 === 1, script, language: run.language, features };
}
