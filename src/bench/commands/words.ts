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
} as const satisfies Record<string, CommandDef>;
