import { copyNodes, pasteClip } from '@/core/edit/clip';
import type { DesignDraft } from '@/core/edit/history';
import { scaleIn, scaleNodes, scalingAbout, transformNodes } from '@/core/edit/place';
import { repeatNodes, tooManyCopies, type ArrangementKind } from '@/core/edit/repeat';
import { apply, IDENTITY, invert, multiply, type Matrix } from '@/core/geometry/matrix';
import { centre, isEmpty } from '@/core/geometry/rect';
import { parentMatrix, topmost } from '@/core/model/tree';
import { copiesIn } from '@/core/model/copies';
import { besideSelection } from '../tools/placing';
import { count, free, freeSelection, type CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';
import type { Again } from '../session/state';

/** Takes the objects through a map of the page. */
export const through = (
  d: DesignDraft,
  s: Session,
  ids: readonly string[],
  again: Pick<Again, 'kind' | 'map'>,
): void =>
  again.kind === 'size'
    ? scaleNodes(d, s.page, ids, again.map, s.state.growing)
    : transformNodes(d, s.page, ids, again.map);

/** Copies the selection, takes the copies through a map of the page, and chooses them. Answers their ids. */
export function copyThrough(s: Session, map: Matrix, label: string, kind: Again['kind'] = 'keep'): string[] {
  const clip = copyNodes(s.design, s.page, s.state.selection);
  if (!clip) return [];
  const into = besideSelection(s);
  let ids: string[] = [];
  const recipe = (d: DesignDraft) => {
    ids = pasteClip(d, s.page.id, clip, s.newId, kind === 'size' ? IDENTITY : map, into);
    if (kind === 'size')
      scaleIn(d, ids, into ? multiply(into.back, multiply(map, invert(into.back)!)) : map, s.state.growing);
  };
  if (!s.commit(label, recipe)) return [];
  // The pivot stays: petals go on round the same middle.
  s.select(ids, { stop: null, pivot: s.state.pivot });
  s.noteAgain({ kind, map, copy: true });
  return ids;
}

function doAgain(s: Session): void {
  const { again } = s;
  const ids = freeSelection(s);
  if (!again || !ids.length) return;
  if (again.copy) {
    const made = copyThrough(s, again.map, 'Copy again', again.kind);
    if (made.length) s.say(`Copied ${count(made.length, 'object')} again, by the same step.`);
  } else if (s.commit('Again', (d) => through(d, s, ids, again))) s.say('Did the last move, turn or sizing again.');
}

function flip(s: Session, sx: 1 | -1, sy: 1 | -1, label: string): void {
  const ids = freeSelection(s);
  const box = s.boxOf(ids);
  if (isEmpty(box)) return;
  const map = scalingAbout(sx, sy, s.state.pivot ?? centre(box));
  if (!s.commitMoved(label, ids, map)) return;
  s.noteAgain({ kind: 'keep', map, copy: false });
  s.say(
    `Flipped ${count(ids.length, 'object')} ${sx < 0 ? 'left to right' : 'top to bottom'}${s.state.pivot ? ', about the pivot' : ''}.`,
  );
}

export function repeatSelection(s: Session, kind: ArrangementKind): void {
  const ids = topmost(s.design, s.page, freeSelection(s));
  if (tooManyCopies(s.design, s.page, ids, 8)) {
    s.say('That would be more than 2,000 copies. Make one of the repeats plain first, or lower its count.', 'warn');
    return;
  }
  let made: string | null = null;
  const { pivot } = s.state;
  s.commit('Step and repeat', (d) => {
    const back = ids.length ? invert(parentMatrix(s.state.design, s.page, ids[ids.length - 1])) : null;
    made = repeatNodes(d, s.page, ids, kind, pivot && back ? apply(back, pivot) : null, s.newId, s.engines.fonts);
  });
  if (!made) return;
  const node = s.design.nodes[made];
  s.select([made]);
  if (node?.kind === 'repeat')
    s.say(
      `${count(copiesIn(node.arrangement), 'copy', 'copies')} in a ${kind}. Count, step and turn are in Details; double-click to change the thing itself.`,
    );
}

const repeat = (label: string, kind: ArrangementKind, keywords: readonly string[]): CommandDef => ({
  label,
  keywords: ['copies', 'pattern', 'duplicate', 'array', ...keywords],
  keys: [],
  applies: free,
  run: (s) => repeatSelection(s, kind),
});

export const COPY_COMMANDS = {
  'edit.again': {
    label: 'Again',
    keywords: ['repeat last', 'same move', 'same turn', 'copy again', 'once more'],
    keys: ['A'],
    applies: (s) => s.again !== null && free(s),
    run: doAgain,
  },
  'object.flipAcross': {
    label: 'Flip left to right',
    keywords: ['mirror', 'reflect', 'horizontal'],
    keys: [],
    applies: free,
    run: (s) => flip(s, -1, 1, 'Flip left to right'),
  },
  'object.flipDown': {
    label: 'Flip top to bottom',
    keywords: ['mirror', 'reflect', 'vertical', 'upside down'],
    keys: [],
    applies: free,
    run: (s) => flip(s, 1, -1, 'Flip top to bottom'),
  },
  'repeat.row': repeat('Repeat in a row', 'row', ['step and repeat', 'line']),
  'repeat.grid': repeat('Repeat in a grid', 'grid', ['step and repeat', 'tile', 'rows and columns']),
  'repeat.ring': repeat('Repeat in a ring', 'ring', [
    'step and repeat',
    'circle',
    'sunburst',
    'rays',
    'petals',
    'round',
  ]),
} as const satisfies Record<string, CommandDef>;
