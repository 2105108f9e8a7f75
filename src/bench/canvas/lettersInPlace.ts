import type { CSSProperties } from 'react';
import { threadOf } from '@/core/derive/layout';
import { meanScale, multiply } from '@/core/geometry/matrix';
import { firstLetters, setStory, type SetParagraph, type SetRun } from '@/core/model/textLooks';
import { faceIn } from '@/core/text/faces';
import type { Layout } from '@/core/text/layout';
import { cssFace, type Shown } from '../view/shownFaces';
import { screenMatrix, textFrameOf } from '../view/frame';
import type { Session } from '../session/session';

/**
 * The field that takes letters, laid over those on the page: by it the browser's spelling marks stand under their
 * words.
 */
export interface InPlace {
  readonly style: CSSProperties;
  readonly lang: string;
  /** The face that the browser must have for it. */
  readonly face: Shown;
  /** How many lines it must come to, and how high they are then, CSS pixels: else the browser broke them elsewhere. */
  readonly height: number;
}

/** A step of a line that is not the others' by more than this is another step; points. */
const EVEN = 0.01;

/**
 * Where the words that are written in stand, in the browser's own terms; null where it has none for them: words on a
 * line, bent, in several faces or frames, beside what pushes them, with tabs, lists, indents or spaces between
 * paragraphs.
 */
export function lettersInPlace(s: Session): InPlace | null {
  const e = s.state.editing;
  const node = e && s.design.nodes[e.node];
  const shown = e && textFrameOf(s, e.node);
  if (!node || !shown || !('story' in node)) return null;
  const story = s.design.stories[node.story];
  const set = setStory(s.design, story).paragraphs;
  const { layout } = shown;
  const plainPlace =
    node.kind === 'displayText'
      ? !node.along && !node.bend && Math.abs(node.stretch - 1) < 1e-6
      : !node.window && (node.columns?.count ?? 1) === 1 && !node.fit && !threadOf(s.design, node);
  if (!plainPlace || !layout.lines.length || !isPlain(set) || hasGaps(layout)) return null;
  const letters = firstLetters(s.design, story);
  const face = faceIn(s.design, letters.face);
  const own = s.engines.fonts.instance(letters.face, letters.axes);
  if (!face || !own) return null;
  const m = multiply(screenMatrix(s.state.camera), shown.matrix);
  const k = meanScale(m);
  const size = letters.size * k;
  const step = stepOf(layout, set[0], letters) * k;
  const [up, down] = ascents(letters.face, size);
  const [first] = layout.lines;
  const top = first.baseline * k - ((step - up - down) / 2 + up);
  const column = node.kind === 'textFrame' ? widthOf(node) : null;
  const left = column === null ? layout.x0 : 0;
  const width = (column ?? layout.x1 - layout.x0) * k;
  const [a, b, c, d, x, y] = m;
  return {
    lang: letters.language,
    face: { id: letters.face, ...('file' in face && { file: face.file as string }) },
    height: layout.lines.length * step,
    style: {
      left: 0,
      top: 0,
      // What hangs over the end of a line of display text is never broken.
      width: column === null ? width + size : width,
      height: layout.lines.length * step + step / 2,
      transformOrigin: '0 0',
      transform: `matrix(${[a / k, b / k, c / k, d / k, x, y].join()}) translate(${left * k}px, ${top}px)`,
      font: `${size}px/${step}px "${cssFace(letters.face)}"`,
      letterSpacing: `${(letters.tracking / 1000) * size}px`,
      fontKerning: letters.kerning ? 'normal' : 'none',
      fontVariantLigatures: letters.ligatures ? 'normal' : 'none',
      fontVariationSettings: Object.entries(letters.axes)
        .map(([tag, v]) => `"${tag}" ${v}`)
        .join(),
      fontSynthesis: 'none',
      textRendering: 'geometricPrecision',
      textAlign: ({ left: 'left', middle: 'center', right: 'right', full: 'justify' } as const)[set[0].align],
      whiteSpace: column === null ? 'pre' : 'pre-wrap',
    },
  };
}

const widthOf = ({
  width,
  inset,
}: {
  readonly width: number;
  readonly inset: number | { left: number; right: number };
}) => width - (typeof inset === 'number' ? 2 * inset : inset.left + inset.right);

/** Are all letters set alike, in ways that the browser has too? */
function isPlain(paragraphs: readonly SetParagraph[]): boolean {
  const [p] = paragraphs;
  const [r] = p.runs;
  const alike = (q: SetRun): boolean =>
    q.face === r.face &&
    q.size === r.size &&
    q.tracking === r.tracking &&
    q.kerning === r.kerning &&
    q.ligatures === r.ligatures &&
    q.position === 'normal' &&
    q.case === 'typed' &&
    q.baselineShift === 0 &&
    Object.keys(q.features).length === 0 &&
    JSON.stringify(q.axes) === JSON.stringify(r.axes) &&
    !q.text.includes('\t');
  return paragraphs.every(
    (q, i) =>
      q.align === p.align &&
      JSON.stringify(q.leading) === JSON.stringify(p.leading) &&
      q.indentFirst === 0 &&
      q.indentLeft === 0 &&
      q.indentRight === 0 &&
      (i === 0 || (q.spaceBefore === 0 && paragraphs[i - 1].spaceAfter === 0)) &&
      !q.list &&
      !q.dropCapital &&
      !q.hyphenate &&
      !q.opticalMargin &&
      q.runs.every(alike),
  );
}

/** Do lines stand beside each other, or unevenly below each other? */
function hasGaps({ lines }: Layout): boolean {
  const steps = lines.slice(1).map((l, i) => l.baseline - lines[i].baseline);
  return steps.some((by) => by <= EVEN || Math.abs(by - steps[0]) > EVEN);
}

const stepOf = ({ lines }: Layout, { leading }: SetParagraph, { size }: SetRun): number =>
  lines.length > 1
    ? lines[1].baseline - lines[0].baseline
    : typeof leading === 'number'
      ? leading * size
      : leading.points;

let measuring: CanvasRenderingContext2D | null = null;
/** How far the browser takes a face to reach above and below its line, CSS pixels. */
function ascents(face: string, size: number): readonly [number, number] {
  measuring ??= document.createElement('canvas').getContext('2d');
  if (!measuring) return [size * 0.8, size * 0.2];
  measuring.font = `${size}px "${cssFace(face)}"`;
  const { fontBoundingBoxAscent: up, fontBoundingBoxDescent: down } = measuring.measureText('x');
  return [up, down];
}
