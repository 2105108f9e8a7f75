import { isText, layoutOf, threadOf } from '@/core/derive/layout';
import { freeSelection } from '../session/commandDef';
import type { Session } from '../session/session';

/** What of a selection commands for words are about. */

/** The display texts among what is chosen and free. */
export const displayTexts = (s: Session): string[] =>
  freeSelection(s).filter((id) => s.design.nodes[id]?.kind === 'displayText');

/** A display text and an outline for it, where just these two are chosen. */
export function wordsAndOutline(s: Session): { readonly text: string; readonly outline: string } | null {
  const ids = freeSelection(s);
  if (ids.length !== 2) return null;
  const text = ids.find((id) => s.design.nodes[id].kind === 'displayText');
  const outline = ids.find((id) => ['shape', 'path'].includes(s.design.nodes[id].kind));
  return text && outline ? { text, outline } : null;
}

/** All texts among them. */
export const textsIn = (s: Session): string[] => freeSelection(s).filter((id) => isText(s.design.nodes[id]));

/** Those of the frames among them whose lines stand on a baseline grid. */
export const onGridIn = (s: Session): string[] =>
  freeSelection(s).filter((id) => {
    const n = s.design.nodes[id];
    return n?.kind === 'textFrame' && n.baseline !== undefined;
  });

/** The text frames among them. */
export const framesIn = (s: Session): string[] =>
  freeSelection(s).filter((id) => s.design.nodes[id]?.kind === 'textFrame');
/** Those of the frames that are boxes. */
export const boxes = (s: Session): string[] =>
  framesIn(s).filter((id) => {
    const n = s.design.nodes[id];
    return n.kind === 'textFrame' && !n.window;
  });

/** A display text and one other object, where just these two are chosen. */
export function wordsAndObject(s: Session): { readonly text: string; readonly other: string } | null {
  const ids = freeSelection(s);
  if (ids.length !== 2) return null;
  const texts = displayTexts(s);
  if (texts.length !== 1) return null;
  return { text: texts[0], other: ids.find((id) => id !== texts[0])! };
}

/**
 * Two chosen frames of which the words of one can run on into the other: from the upper, or the left, or the one with
 * words.
 */
export function twoFrames(s: Session): readonly [string, string] | null {
  const ids = freeSelection(s);
  const stories = ids.map((id) => {
    const n = s.design.nodes[id];
    return n?.kind === 'textFrame' ? n.story : null;
  });
  if (ids.length !== 2 || stories.includes(null) || stories[0] === stories[1]) return null;
  const [a, b] = ids.map((id) => ({ id, box: s.boxOf([id]), overset: oversetOf(s, id) }));
  const first =
    a.overset !== b.overset ? a.overset : a.box.y1 <= b.box.y0 || (b.box.y1 > a.box.y0 && a.box.x0 <= b.box.x0);
  return first ? [a.id, b.id] : [b.id, a.id];
}

function oversetOf(s: Session, id: string): boolean {
  const node = s.design.nodes[id];
  return isText(node) && layoutOf(s.design, node, s.engines.fonts).overset > 0;
}

/** Those of the frames whose words run through others. */
export const threaded = (s: Session): string[] =>
  freeSelection(s).filter((id) => {
    const node = s.design.nodes[id];
    return node?.kind === 'textFrame' && threadOf(s.design, node) !== null;
  });
