// The words of a text element in pieces: what follows each other in one style, and where each begins anew.
import { contourLength } from '../../geometry/measure';
import { transformPath, type PathData } from '../../geometry/path';
import { contoursOf } from '../../geometry/segments';
import type { Draws, Place } from './context';
import { hrefOf } from './gradients';
import { drawnBy, lineOf } from './shapes';
import type { Style } from './style';
import { localId, readLength, readNumbers, readTransform } from './values';
import { textOf, type Element } from './xml';

/** Words in one style that follow each other, and where they begin anew. */
export interface Piece {
  text: string;
  readonly style: Style;
  readonly element: Element;
  /** Where it begins by itself: a chunk of its own, which `text-anchor` is about. */
  readonly x: number | null;
  readonly y: number | null;
  readonly dx: number;
  readonly dy: number;
  /** Degrees about its beginning. */
  readonly turn: number;
  readonly path: { readonly line: PathData; readonly offset: number } | null;
}

/** No drawing needs more letters; setting more would hold up whoever opens it. */
const MOST_LETTERS = 200_000;

/** What an element says of the places of its letters, and how many of them came by now. */
interface Level {
  readonly x: readonly number[];
  readonly y: readonly number[];
  readonly dx: readonly number[];
  readonly dy: readonly number[];
  readonly rotate: readonly number[];
  letters: number;
}

interface Segment {
  text: string;
  readonly style: Style;
  readonly element: Element;
  readonly levels: readonly Level[];
  readonly path: Piece['path'];
}

/**
 * The pieces of a text. Lists of places count the letters of all that an element holds, spans in it too; a letter goes
 * by the innermost list that reaches it (SVG 1.1, 10.5).
 */
export function collect(drawer: Draws, e: Element, place: Place): Piece[] {
  const { making } = drawer;
  const segments: Segment[] = [];
  const visit = (at: Element, style: Style, path: Piece['path'], outer: readonly Level[], depth: number): void => {
    const m = { ...place.measures, fontSize: Number(style['font-size']) };
    const list = (a: string, along: 'x' | 'y') => {
      const t = at.attributes.get(a)?.trim();
      return t ? t.split(/[\s,]+/).map((v) => readLength(v, m, along) ?? 0) : [];
    };
    const levels = [
      ...outer,
      {
        x: list('x', 'x'),
        y: list('y', 'y'),
        dx: list('dx', 'x'),
        dy: list('dy', 'y'),
        rotate: readNumbers(at.attributes.get('rotate') ?? ''),
        letters: 0,
      },
    ];
    if (style['text-decoration'] !== 'none') making.note('Lines under, over or through words are left out.');
    if (style['writing-mode'].startsWith('tb') || style['writing-mode'].startsWith('vertical'))
      making.note('Words that run downwards run across.');
    for (const child of at.children) {
      if (typeof child === 'string') {
        segments.push({ text: child, style, element: at, levels, path });
        continue;
      }
      if (child.space !== '' || depth > 50) continue;
      const inner = making.styles.of(child, style);
      if (inner.display === 'none' || inner.visibility !== 'visible') continue;
      if (child.name === 'tspan' || child.name === 'a') visit(child, inner, path, levels, depth + 1);
      else if (child.name === 'tref') {
        const target = making.byId.get(localId(hrefOf(child)) ?? '');
        if (target) segments.push({ text: textOf(target), style: inner, element: child, levels, path });
      } else if (child.name === 'textPath') visit(child, inner, pathOf(drawer, child, place), levels, depth + 1);
    }
  };
  visit(e, place.style, null, [], 0);
  collapse(segments);
  return segments.flatMap((s) => piecesOf(s, making));
}

const preserved = (style: Style): boolean => style['xml:space'] === 'preserve';

/** Spaces between words count once, across spans too; those at both ends do not count. */
function collapse(segments: readonly Segment[]): void {
  let spaced = true;
  for (const s of segments) {
    if (preserved(s.style)) {
      s.text = s.text.replace(/[\n\t\r]/g, ' ');
      spaced = false;
      continue;
    }
    s.text = s.text
      .replace(/[\n\r]/g, '')
      .replace(/\t/g, ' ')
      .replace(/ +/g, ' ');
    if (spaced) s.text = s.text.replace(/^ +/, '');
    if (s.text) spaced = s.text.endsWith(' ');
  }
  for (const s of segments.toReversed()) {
    if (preserved(s.style)) return;
    s.text = s.text.replace(/ +$/, '');
    if (s.text) return;
  }
}

function piecesOf(s: Segment, making: Draws['making']): Piece[] {
  const out: Piece[] = [];
  const room = making.lettersLeft(MOST_LETTERS, s.text.length);
  if (room < s.text.length) making.noteOnce(`Words beyond the first ${MOST_LETTERS} letters are left out.`);
  const text = room < s.text.length ? s.text.slice(0, room) : s.text;
  const listed = s.levels.some((l) => l.x.length + l.y.length + l.dx.length + l.dy.length + l.rotate.length > 0);
  for (const letter of listed ? text : text ? [text] : []) {
    const at = s.levels.map((l) => l.letters++);
    // The innermost list that reaches so far.
    const place = (key: 'x' | 'y' | 'dx' | 'dy'): number | null => {
      for (let i = s.levels.length - 1; i >= 0; i--)
        if (at[i] < s.levels[i][key].length) return s.levels[i][key][at[i]];
      return null;
    };
    // The last turn holds for all that follow.
    const turned = s.levels.findLastIndex((l) => l.rotate.length > 0);
    const turn = turned < 0 ? 0 : s.levels[turned].rotate[Math.min(at[turned], s.levels[turned].rotate.length - 1)];
    const piece: Piece = {
      text: letter,
      style: s.style,
      element: s.element,
      x: place('x'),
      y: place('y'),
      dx: place('dx') ?? 0,
      dy: place('dy') ?? 0,
      turn,
      path: s.path,
    };
    const last = out[out.length - 1];
    if (last && piece.x === null && piece.y === null && !piece.dx && !piece.dy && !turn && !last.turn)
      last.text += letter;
    else out.push(piece);
  }
  return out;
}

function pathOf(drawer: Draws, e: Element, place: Place): Piece['path'] {
  const { making } = drawer;
  const target = making.byId.get(localId(hrefOf(e)) ?? '');
  const drawn = target && drawnBy(target, place.measures, place.style);
  if (!target || !drawn) return null;
  const line = transformPath(lineOf(drawn), readTransform(target.attributes.get('transform')) ?? [1, 0, 0, 1, 0, 0]);
  const length = contoursOf(line).reduce((n, c) => n + contourLength(c), 0);
  const text = e.attributes.get('startOffset') ?? '0';
  const offset = text.trim().endsWith('%')
    ? (Number.parseFloat(text) / 100) * length
    : (readLength(text, place.measures, 'x') ?? 0);
  return { line, offset };
}
