import { isText, layoutOf, threadOf } from '@/core/derive/layout';
import { boxIn } from '@/core/derive/box';
import { tryOut, type Recipe } from '@/core/edit/history';
import { fitFrames, matchLength, setShrink } from '@/core/edit/fit';
import { moveNodes } from '@/core/edit/place';
import { pageMatrix, parentMatrix } from '@/core/model/tree';
import { canRunOn, cutThread, runOn } from '@/core/edit/thread';
import { canCarryWords, putOnCircle, putOnOutline, setBend, straighten } from '@/core/edit/display';
import { freeSelection, type CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';

const displayTexts = (s: Session): string[] =>
  freeSelection(s).filter((id) => s.design.nodes[id]?.kind === 'displayText');

/** A display text and an outline for it, where just these two are chosen. */
function wordsAndOutline(s: Session): { readonly text: string; readonly outline: string } | null {
  const ids = freeSelection(s);
  if (ids.length !== 2) return null;
  const text = ids.find((id) => s.design.nodes[id].kind === 'displayText');
  const outline = ids.find((id) => canCarryWords(s.design.nodes[id]));
  return text && outline ? { text, outline } : null;
}

/** Letters are not shrunk below this without asking: what most people can read (common practice). */
const LEAST_SIZE = 6;

const framesIn = (s: Session): string[] => freeSelection(s).filter((id) => s.design.nodes[id]?.kind === 'textFrame');
const boxes = (s: Session): string[] =>
  framesIn(s).filter((id) => {
    const n = s.design.nodes[id];
    return n.kind === 'textFrame' && !n.window;
  });

/** A display text and one other object, where just these two are chosen. */
function wordsAndObject(s: Session): { readonly text: string; readonly other: string } | null {
  const ids = freeSelection(s);
  if (ids.length !== 2) return null;
  const texts = displayTexts(s);
  if (texts.length !== 1) return null;
  return { text: texts[0], other: ids.find((id) => id !== texts[0])! };
}

/** Makes display texts so long on the page (points); `left`: they begin there then. */
export function makeAsLong(
  s: Session,
  length: number,
  by: 'size' | 'tracking',
  left: number | null,
  ids: readonly string[] = displayTexts(s),
): void {
  const { fonts } = s.engines;
  let whole = true;
  const size: Recipe = (d) => {
    for (const id of ids) {
      const scale = Math.hypot(...(pageMatrix(s.design, s.page, id).slice(0, 2) as [number, number])) || 1;
      whole = matchLength(d, id, length / scale, by, fonts) && whole;
    }
  };
  // Where they then lie is known only when they are so long.
  const tried = tryOut(s.design, size);
  const at = ids.map((id) => boxIn(tried, id, parentMatrix(tried, s.page, id), fonts).x0);
  s.commit('Match length', (d) => {
    size(d);
    if (left !== null) ids.forEach((id, i) => moveNodes(d, s.page, [id], left - at[i], 0));
  });
  if (!whole)
    s.say('The letters could not be made as large, or set as wide, as that; they are as near as they go.', 'warn');
}

/** Two chosen frames of which the words of one can run on into the other: from the upper, or the left, or the one with words. */
function twoFrames(s: Session): readonly [string, string] | null {
  const ids = freeSelection(s);
  if (ids.length !== 2 || !canRunOn(s.design, ids[0], ids[1])) return null;
  const [a, b] = ids.map((id) => ({ id, box: s.boxOf([id]), overset: oversetOf(s, id) }));
  const first =
    a.overset !== b.overset ? a.overset : a.box.y1 <= b.box.y0 || (b.box.y1 > a.box.y0 && a.box.x0 <= b.box.x0);
  return first ? [a.id, b.id] : [b.id, a.id];
}

function oversetOf(s: Session, id: string): boolean {
  const node = s.design.nodes[id];
  return isText(node) && layoutOf(s.design, node, s.engines.fonts).overset > 0;
}

const threaded = (s: Session): string[] =>
  freeSelection(s).filter((id) => {
    const node = s.design.nodes[id];
    return node?.kind === 'textFrame' && threadOf(s.design, node) !== null;
  });

/** Puts words on a circle of their own. */
function onCircle(s: Session): void {
  const ids = displayTexts(s);
  const { fonts } = s.engines;
  s.commit('Put on a circle', (d) => {
    straighten(d, ids, fonts);
    for (const id of ids) putOnCircle(d, id, fonts);
  });
  s.say('Drag the dot on the words to move them round; the radius is in Details, under Line.');
}

export const WORD_COMMANDS = {
  'text.onCircle': {
    label: 'Put words on a circle',
    keywords: ['round', 'badge', 'seal', 'curve', 'text on a path', 'ring'],
    keys: [],
    applies: (s) => displayTexts(s).length > 0,
    run: onCircle,
  },
  'text.onOutline': {
    label: 'Put words on the outline',
    keywords: ['text on a path', 'along', 'curve', 'follow', 'round'],
    keys: [],
    applies: (s) => wordsAndOutline(s) !== null,
    run: (s) => {
      const both = wordsAndOutline(s)!;
      s.commit('Put words on the outline', (d) => putOnOutline(d, s.page, both.text, both.outline));
      s.select([both.text]);
      s.say(
        'The words follow a copy of the outline; the shape stays as it is. Drag the dot on the words to move them along.',
      );
    },
  },
  'text.bend': {
    label: 'Bend words',
    keywords: ['arch', 'dip', 'wave', 'climb', 'barrel', 'waist', 'fan', 'warp', 'curve', 'distort'],
    keys: [],
    applies: (s) => displayTexts(s).length > 0,
    run: (s) => {
      s.commit('Bend', (d) => setBend(d, displayTexts(s), {}));
      s.say('Drag the dot over the words to bend them more or less; other bends are in Details, under Line.');
    },
  },
  'text.straighten': {
    label: 'Straighten words',
    keywords: ['off the circle', 'off the path', 'unbend', 'remove bend'],
    keys: [],
    applies: (s) =>
      displayTexts(s).some((id) => {
        const n = s.design.nodes[id];
        return n.kind === 'displayText' && (n.along !== undefined || n.bend !== undefined);
      }),
    run: (s) => void s.commit('Straighten', (d) => straighten(d, displayTexts(s), s.engines.fonts)),
  },
  'text.runOn': {
    label: 'Run words on into the next frame',
    keywords: ['thread', 'link frames', 'flow', 'chain', 'continue', 'overset'],
    keys: [],
    applies: (s) => twoFrames(s) !== null,
    run: (s) => {
      const [from, into] = twoFrames(s)!;
      s.commit('Run words on', (d) => runOn(d, from, into));
      s.say('What does not fit in the first frame goes on in the second; a dotted line shows the way.');
    },
  },
  'text.fitFrame': {
    label: 'Fit the frame to its words',
    keywords: ['grow frame', 'overset', 'height', 'auto size', 'shrink frame'],
    keys: [],
    applies: (s) => boxes(s).length > 0,
    run: (s) => void s.commit('Fit the frame to its words', (d) => fitFrames(d, boxes(s), s.engines.fonts)),
  },
  'text.fitWords': {
    label: 'Shrink words to fit their frame',
    keywords: ['overset', 'smaller', 'auto fit', 'fit text'],
    keys: [],
    applies: (s) => framesIn(s).length > 0,
    run: (s) => {
      s.commit('Shrink words to fit', (d) => setShrink(d, framesIn(s), LEAST_SIZE));
      s.say(
        `Words become smaller until they fit, but no letter smaller than ${LEAST_SIZE} pt; see Details, Frame of words.`,
      );
    },
  },
  'text.matchMargins': {
    label: 'Make words as long as the page between its margins',
    keywords: ['match length', 'full width', 'fit headline', 'stretch to margins', 'as wide as'],
    keys: [],
    applies: (s) => displayTexts(s).length > 0,
    run: (s) => {
      const { width, margins } = s.design.setup;
      makeAsLong(s, width - margins.left - margins.right, 'size', margins.left);
    },
  },
  'text.matchObject': {
    label: 'Make words as long as the other object',
    keywords: ['match length', 'same width', 'as wide as', 'fit headline'],
    keys: [],
    applies: (s) => wordsAndObject(s) !== null,
    run: (s) => {
      const both = wordsAndObject(s)!;
      const box = s.boxOf([both.other]);
      makeAsLong(s, box.x1 - box.x0, 'size', box.x0, [both.text]);
    },
  },
  'text.cutThread': {
    label: 'Take the frame out of its thread',
    keywords: ['unthread', 'unlink', 'break thread', 'separate'],
    keys: [],
    applies: (s) => threaded(s).length > 0,
    run: (s) => {
      s.commit('Take out of the thread', (d) => threaded(s).forEach((id) => cutThread(d, id, s.newId)));
      s.say('The words run through the other frames; this one stands empty.');
    },
  },
} as const satisfies Record<string, CommandDef>;
