import { plainSelection } from '../tools/plain';
import { areaOf } from '@/core/derive/area';
import {
  closeByBridge,
  closeByMoving,
  combineNodes,
  openGaps,
  setCombination,
  type CombineOp,
  type OpenGap,
} from '@/core/edit/combine';
import { OP_NAMES } from '@/core/model/defaults';
import { tryOut } from '@/core/edit/history';
import { canBePlain } from '@/core/edit/plain';
import { topmost } from '@/core/model/tree';
import { formatLength } from '@/core/units/length';
import { count, freeSelection, type CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';
import type { MessageAction } from '../session/state';

/** What was done, in a word that fits “… 3 objects”. */
const DONE: Readonly<Record<CombineOp, string>> = {
  union: 'United',
  subtract: 'Subtracted: what stays of',
  intersect: 'Kept what is shared by',
  exclude: 'Kept what is not shared by',
  divide: 'Divided',
};

/** Closer than this (points) is no gap that anyone could see, but no joint either. */
const TOUCHING = 0.01;

const enough = (s: Session): boolean => topmost(s.design, s.page, freeSelection(s)).length > 1;

/** Combines the chosen objects. Where no engine can do it rightly it says so, and nothing changes. */
export function combineSelection(s: Session, op: CombineOp, reversed = false): void {
  const ids = topmost(s.design, s.page, freeSelection(s));
  const { fonts } = s.engines;
  let made: string | null = null;
  const id = s.newId();
  const recipe = (d: Parameters<typeof combineNodes>[0]) => {
    made = combineNodes(d, s.page, ids, op, reversed, () => id, fonts);
  };
  const tried = tryOut(s.state.design, recipe);
  const area = areaOf(tried, id, fonts);
  if (area.unsure) {
    s.say(
      'These shapes could not be combined rightly, so nothing was changed. Move one of them by a hair and try again.',
      'warn',
    );
    return;
  }
  if (!area.region.path.length) {
    s.say(
      op === 'intersect'
        ? 'These shapes share no area, so nothing would be left. Nothing was changed.'
        : 'Nothing would be left. Nothing was changed.',
      'warn',
    );
    return;
  }
  if (!s.commit(OP_NAMES[op], recipe, { select: [id] }) || !made) return;
  sayGaps(s, id, `${DONE[op]} ${count(ids.length, 'object')}`);
}

/** Says what came of a combination, and where a union stays apart what can be done about it. */
function sayGaps(s: Session, id: string, done: string): void {
  const gaps = openGaps(s.design, id, s.engines.fonts);
  if (!gaps.length) {
    s.say(`${done}. Each can still be changed: double-click it.`);
    return;
  }
  s.say(`${done}; ${gapWords(s, gaps)}`, 'warn', gapRepairs(s, id, gaps));
}

export function gapWords(s: Session, gaps: readonly OpenGap[]): string {
  if (gaps[0].distance < TOUCHING)
    return gaps.length === 1 ? 'they only touch' : `they only touch or stay apart in ${gaps.length} places`;
  const far = formatLength(gaps[0].distance, s.design.setup.unit, 2);
  return gaps.length === 1
    ? `they are still ${far} apart`
    : `they are still apart in ${gaps.length} places, the nearest ${far}`;
}

export function gapRepairs(s: Session, id: string, gaps: readonly OpenGap[]): MessageAction[] {
  const repairs: MessageAction[] = [];
  if (gaps.some((g) => g.moves.length)) repairs.push({ label: 'Move together', run: () => closeGaps(s, id, 'move') });
  return [...repairs, { label: 'Bridge', run: () => closeGaps(s, id, 'bridge') }];
}

/** Closes every gap of a union, one after the other: moving a piece changes the gaps that are left. */
function closeGaps(s: Session, id: string, how: 'move' | 'bridge'): void {
  const { fonts } = s.engines;
  let closed = 0;
  let design = s.state.design;
  const steps: ((d: Parameters<typeof closeByMoving>[0]) => void)[] = [];
  for (let i = 0; i < 40; i++) {
    const gap = openGaps(design, id, fonts).find((g) => how === 'bridge' || g.moves.length);
    if (!gap) break;
    const bar = s.newId();
    const step = (d: Parameters<typeof closeByMoving>[0]) =>
      how === 'move' ? closeByMoving(d, gap) : closeByBridge(d, id, gap, () => bar);
    steps.push(step);
    design = tryOut(design, step);
    closed++;
  }
  if (!steps.length) return;
  s.commit(closed === 1 ? 'Close the gap' : 'Close the gaps', (d) => steps.forEach((step) => step(d)), {
    select: [id],
  });
  s.say(`Closed ${count(closed, 'gap')} by ${how === 'move' ? 'moving' : 'a bridge'}.`);
}

export function changeCombination(
  s: Session,
  ids: readonly string[],
  change: { op?: CombineOp; reversed?: boolean },
): void {
  const recipe = (d: Parameters<typeof setCombination>[0]) => ids.forEach((id) => setCombination(d, id, change));
  const tried = tryOut(s.state.design, recipe);
  if (ids.some((id) => areaOf(tried, id, s.engines.fonts).unsure)) {
    s.say(
      'These shapes could not be combined rightly that way, so nothing was changed. Move one of them by a hair and try again.',
      'warn',
    );
    return;
  }
  if (s.commit(change.op ? OP_NAMES[change.op] : 'Turn the order round', recipe) && ids.length === 1)
    sayGaps(
      s,
      ids[0],
      change.op
        ? `${OP_NAMES[change.op]} of ${count(s.design.nodes[ids[0]].kind === 'combination' ? (s.design.nodes[ids[0]] as { children: readonly string[] }).children.length : 0, 'object')}`
        : 'Turned the order round',
    );
}

const combine = (
  label: string,
  op: CombineOp,
  keywords: readonly string[],
  keys: readonly string[] = [],
  reversed = false,
): CommandDef => ({ label, keywords, keys, applies: enough, run: (s) => combineSelection(s, op, reversed) });

export const COMBINE_COMMANDS = {
  'combine.union': combine(
    'Union',
    'union',
    ['unite', 'join', 'merge', 'weld', 'add', 'one shape', 'combine'],
    ['Mod+Shift+U'],
  ),
  'combine.subtract': combine('Subtract front from back', 'subtract', [
    'hole',
    'cut out',
    'minus',
    'punch',
    'difference',
    'combine',
  ]),
  'combine.subtractBack': combine(
    'Subtract back from front',
    'subtract',
    ['hole', 'cut out', 'minus', 'reverse', 'difference', 'combine'],
    [],
    true,
  ),
  'combine.intersect': combine('Intersect', 'intersect', ['overlap', 'common', 'shared', 'crop', 'combine']),
  'combine.exclude': combine('Exclude', 'exclude', ['xor', 'overlap out', 'not shared', 'combine']),
  'combine.divide': combine('Divide', 'divide', ['split', 'pieces', 'cut along', 'combine']),
  'object.plain': {
    label: 'Make plain',
    keywords: ['to path', 'to shapes', 'letters', 'convert', 'expand', 'flatten', 'to outlines', 'fix'],
    keys: [],
    applies: (s) => freeSelection(s).some((id) => canBePlain(s.design.nodes[id])),
    run: plainSelection,
  },
} as const satisfies Record<string, CommandDef>;
