import { boxIn } from '@/core/derive/box';
import { putOnCircle, putOnOutline, setBend, straighten as straightened } from '@/core/edit/display';
import { fitFrames, matchHeight, matchLength, setShrink } from '@/core/edit/fit';
import { offGrid, ontoGrid } from '@/core/edit/ontoGrid';
import { tryOut, type Recipe } from '@/core/edit/history';
import { moveNodes } from '@/core/edit/place';
import { cutThread as cut, runOn as runWordsOn } from '@/core/edit/thread';
import { pageMatrix, parentMatrix } from '@/core/model/tree';
import { count } from '../session/commandDef';
import type { Session } from '../session/session';
import {
  boxes,
  displayTexts,
  framesIn,
  onGridIn,
  textsIn,
  threaded,
  twoFrames,
  wordsAndObject,
  wordsAndOutline,
} from './wordsChosen';

/** What commands for words do; fetched when the bench has been painted. */

/** Letters are not shrunk below this without asking: what most people can read (common practice). */
const LEAST_SIZE = 6;

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

/** Makes the capitals (or the x) of display texts so high on the page, points. */
export function makeAsHigh(s: Session, height: number, of: 'capitals' | 'small'): void {
  s.commit('Match height', (d) => {
    for (const id of displayTexts(s)) {
      const m = pageMatrix(s.design, s.page, id);
      matchHeight(d, id, height / (Math.hypot(m[2], m[3]) || 1), of, s.engines.fonts);
    }
  });
}

/** Puts words on a circle of their own. */
export function onCircle(s: Session): void {
  const ids = displayTexts(s);
  const { fonts } = s.engines;
  s.commit('Put on a circle', (d) => {
    straightened(d, ids, fonts);
    for (const id of ids) putOnCircle(d, id, fonts);
  });
  s.say('Drag the dot on the words to move them round; the radius is in Details, under Line.');
}

/** See the command of that name. */
export const onOutline = (s: Session): void => {
  const both = wordsAndOutline(s)!;
  s.commit('Put words on the outline', (d) => putOnOutline(d, s.page, both.text, both.outline));
  s.select([both.text]);
  s.say(
    'The words follow a copy of the outline; the shape stays as it is. Drag the dot on the words to move them along.',
  );
};

/** See the command of that name. */
export const bend = (s: Session): void => {
  s.commit('Bend', (d) => setBend(d, displayTexts(s), {}));
  s.say('Drag the dot over the words to bend them more or less; other bends are in Details, under Line.');
};

/** See the command of that name. */
export const straighten = (s: Session): void =>
  void s.commit('Straighten', (d) => straightened(d, displayTexts(s), s.engines.fonts));

/** See the command of that name. */
export const runOn = (s: Session): void => {
  const [from, into] = twoFrames(s)!;
  s.commit('Run words on', (d) => runWordsOn(d, from, into));
  s.say('What does not fit in the first frame goes on in the second; a dotted line shows the way.');
};

/** See the command of that name. */
export const fitFrame = (s: Session): void =>
  void s.commit('Fit the frame to its words', (d) => fitFrames(d, boxes(s), s.engines.fonts));

/** See the command of that name. */
export function setOnGrid(s: Session): void {
  const ids = textsIn(s);
  let off: readonly string[] = [];
  s.commit('Set on the baseline grid', (d) => void (off = ontoGrid(d, s.page.id, ids, s.engines.fonts)));
  const says = `${count(ids.length - off.length, 'text')} on the baseline grid: lines and paragraphs are whole steps apart.`;
  const why = `${count(off.length, 'text is', 'texts are')} not on it, being turned.`;
  if (off.length) s.say(ids.length > off.length ? `${says} ${why}` : why, 'warn');
  else s.say(says);
}

/** See the command of that name. */
export const takeOffGrid = (s: Session): void =>
  void s.commit('Take off the baseline grid', (d) => offGrid(d, onGridIn(s)));

/** See the command of that name. */
export const fitWords = (s: Session): void => {
  s.commit('Shrink words to fit', (d) => setShrink(d, framesIn(s), LEAST_SIZE));
  s.say(
    `Words become smaller until they fit, but no letter smaller than ${LEAST_SIZE} pt; see Details, Frame of words.`,
  );
};

/** See the command of that name. */
export const matchMargins = (s: Session): void => {
  const { width, margins } = s.setup;
  makeAsLong(s, width - margins.left - margins.right, 'size', margins.left);
};

/** See the command of that name. */
export const matchObject = (s: Session): void => {
  const both = wordsAndObject(s)!;
  const box = s.boxOf([both.other]);
  makeAsLong(s, box.x1 - box.x0, 'size', box.x0, [both.text]);
};

/** See the command of that name. */
export const cutThread = (s: Session): void => {
  s.commit('Take out of the thread', (d) => threaded(s).forEach((id) => cut(d, id, s.newId)));
  s.say('The words run through the other frames; this one stands empty.');
};
