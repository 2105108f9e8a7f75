import { afterPaint } from '../session/afterPaint';
import type { CommandDef } from '../session/commandDef';
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

const actions = afterPaint(() => import('./wordActions'));

/** Does it at once where its script is there, else as soon as it is. */
function act(s: Session, which: (a: typeof import('./wordActions')) => (s: Session) => void): void {
  if (actions.now) which(actions.now)(s);
  else void actions.get().then((a) => which(a)(s));
}

export const WORD_COMMANDS = {
  'text.onCircle': {
    label: 'Put words on a circle',
    keywords: ['round', 'badge', 'seal', 'curve', 'text on a path', 'ring'],
    keys: [],
    applies: (s) => displayTexts(s).length > 0,
    run: (s) => act(s, (a) => a.onCircle),
  },
  'text.onOutline': {
    label: 'Put words on the outline',
    keywords: ['text on a path', 'along', 'curve', 'follow', 'round'],
    keys: [],
    applies: (s) => wordsAndOutline(s) !== null,
    run: (s) => act(s, (a) => a.onOutline),
  },
  'text.bend': {
    label: 'Bend words',
    keywords: ['arch', 'dip', 'wave', 'climb', 'barrel', 'waist', 'fan', 'warp', 'curve', 'distort'],
    keys: [],
    applies: (s) => displayTexts(s).length > 0,
    run: (s) => act(s, (a) => a.bend),
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
    run: (s) => act(s, (a) => a.straighten),
  },
  'text.runOn': {
    label: 'Run words on into the next frame',
    keywords: ['thread', 'link frames', 'flow', 'chain', 'continue', 'overset'],
    keys: [],
    applies: (s) => twoFrames(s) !== null,
    run: (s) => act(s, (a) => a.runOn),
  },
  'text.fitFrame': {
    label: 'Fit the frame to its words',
    keywords: ['grow frame', 'overset', 'height', 'auto size', 'shrink frame'],
    keys: [],
    applies: (s) => boxes(s).length > 0,
    run: (s) => act(s, (a) => a.fitFrame),
  },
  'text.fitWords': {
    label: 'Shrink words to fit their frame',
    keywords: ['overset', 'smaller', 'auto fit', 'fit text'],
    keys: [],
    applies: (s) => framesIn(s).length > 0,
    run: (s) => act(s, (a) => a.fitWords),
  },
  'text.ontoGrid': {
    label: 'Set words on the baseline grid',
    keywords: ['align to grid', 'lock to grid', 'lines of text', 'leading', 'register'],
    keys: [],
    applies: (s) => s.setup.baseline !== undefined && textsIn(s).length > 0,
    run: (s) => act(s, (a) => a.setOnGrid),
  },
  'text.offGrid': {
    label: 'Take words off the baseline grid',
    keywords: ['unlock from grid', 'lines of text', 'leading'],
    keys: [],
    applies: (s) => onGridIn(s).length > 0,
    run: (s) => act(s, (a) => a.takeOffGrid),
  },
  'text.matchMargins': {
    label: 'Make words as long as the page between its margins',
    keywords: ['match length', 'full width', 'fit headline', 'stretch to margins', 'as wide as'],
    keys: [],
    applies: (s) => displayTexts(s).length > 0,
    run: (s) => act(s, (a) => a.matchMargins),
  },
  'text.matchObject': {
    label: 'Make words as long as the other object',
    keywords: ['match length', 'same width', 'as wide as', 'fit headline'],
    keys: [],
    applies: (s) => wordsAndObject(s) !== null,
    run: (s) => act(s, (a) => a.matchObject),
  },
  'text.find': {
    label: 'Find and change words',
    keywords: ['search text', 'replace', 'all pages', 'spelling', 'substitute'],
    keys: ['Mod+F'],
    applies: () => true,
    run: (s) => s.set({ findingWords: true }),
  },
  'text.cutThread': {
    label: 'Take the frame out of its thread',
    keywords: ['unthread', 'unlink', 'break thread', 'separate'],
    keys: [],
    applies: (s) => threaded(s).length > 0,
    run: (s) => act(s, (a) => a.cutThread),
  },
} as const satisfies Record<string, CommandDef>;
