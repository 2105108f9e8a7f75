import { alignNodes, distributeNodes, guidesRound, type AlignEdge, type AlignTo, type Axis } from '@/core/edit/align';
import { addGuides, lockGuides, removeGuides } from '@/core/edit/guides';
import { sameSize } from '@/core/edit/sameSize';
import { driftedSets } from '@/core/derive/drift';
import { topmost } from '@/core/model/tree';
import { count, free, freeSelection, type CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';
import { setSnapping } from '../session/settings';

const EDGE_WORDS: Readonly<Record<AlignEdge, string>> = {
  left: 'left edges',
  middle: 'middles',
  right: 'right edges',
  top: 'top edges',
  centre: 'centres',
  foot: 'lower edges',
};
const TO_WORDS: Readonly<Record<AlignTo, string>> = {
  selection: 'each other',
  key: 'the one that stays',
  page: 'the page',
  margins: 'the margins',
};

/** With what it can be lined up: one object alone with the page or its margins only. */
export const alignsTo = (s: Session): AlignTo => {
  const n = topmost(s.design, s.page, freeSelection(s)).length;
  const { alignTo } = s.state;
  return n < 2 && alignTo !== 'margins' ? 'page' : alignTo;
};

/** The object that stays while others line up with it: the one named, else the first that was chosen. */
export const keyObject = (s: Session): string | null =>
  s.state.keyObject && s.state.selection.includes(s.state.keyObject)
    ? s.state.keyObject
    : (s.state.selection[0] ?? null);

export function alignSelection(s: Session, edge: AlignEdge): void {
  const ids = freeSelection(s);
  const to = alignsTo(s);
  if (s.commit('Align', (d) => alignNodes(d, s.page, ids, edge, to, keyObject(s), s.engines.fonts)))
    s.say(`Lined up the ${EDGE_WORDS[edge]} of ${count(ids.length, 'object')} with ${TO_WORDS[to]}.`);
  else s.say('They are in line already.');
}

export function distributeSelection(
  s: Session,
  axis: Axis,
  by: 'start' | 'middle' | 'end' | 'gap',
  spacing: number | null = null,
): void {
  const ids = freeSelection(s);
  if (topmost(s.design, s.page, ids).length < (spacing === null ? 3 : 2) && alignsTo(s) !== 'page') {
    s.say('Choose three objects or more to space them evenly, or type a spacing.', 'warn');
    return;
  }
  if (
    s.commit('Space evenly', (d) =>
      distributeNodes(d, s.page, ids, axis, by, s.state.alignTo, spacing, s.engines.fonts),
    )
  )
    s.say(`Spaced ${count(ids.length, 'object')} evenly ${axis === 'x' ? 'across' : 'down'}.`);
  else s.say('They are spaced like that already.');
}

const align = (label: string, edge: AlignEdge, keywords: readonly string[]): CommandDef => ({
  label,
  keywords: ['align', 'line up', ...keywords],
  keys: [],
  applies: free,
  run: (s) => alignSelection(s, edge),
});
const spread = (label: string, axis: Axis, by: 'middle' | 'gap', keywords: readonly string[]): CommandDef => ({
  label,
  keywords: ['distribute', 'even', ...keywords],
  keys: [],
  applies: (s) => freeSelection(s).length > 2,
  run: (s) => distributeSelection(s, axis, by),
});

/** Makes what is chosen as wide and high as one of it: the one named as staying, else the first that was chosen. */
function makeSameSize(s: Session): void {
  const ids = freeSelection(s);
  const like = s.state.keyObject && ids.includes(s.state.keyObject) ? s.state.keyObject : ids[0];
  if (s.commit('Same size', sameSize(s.design, s.page, ids, like, s.engines.fonts)))
    s.say(`Made ${count(ids.length - 1, 'object')} as large as ${s.design.nodes[like].name || 'the first chosen'}.`);
  else s.say('They are of the same size already.');
}

/** The set of nearly equal shapes that the chosen one is odd in. */
const driftedHere = (s: Session) => {
  const [id] = s.state.selection;
  return id ? driftedSets(s.design, s.page).find((set) => set.all.includes(id)) : undefined;
};
function makeSetEqual(s: Session): void {
  const set = driftedHere(s);
  if (!set) return;
  if (s.commit('Same size', sameSize(s.design, s.page, set.all, set.like, s.engines.fonts))) {
    s.select([...set.all]);
    s.say(`Made ${count(set.odd.length, 'object')} as large as the others of the set.`);
  }
}

export const ARRANGE_COMMANDS = {
  'size.same': {
    label: 'Same size',
    keywords: ['equal', 'as large as', 'match size', 'width', 'height'],
    keys: [],
    applies: (s) => topmost(s.design, s.page, freeSelection(s)).length > 1,
    run: makeSameSize,
  },
  'size.sameSet': {
    label: 'Make the set equal',
    keywords: ['drift', 'nearly equal', 'same size'],
    keys: [],
    applies: (s) => driftedHere(s) !== undefined,
    run: makeSetEqual,
  },
  'align.left': align('Line up left edges', 'left', ['x']),
  'align.middle': align('Line up middles across', 'middle', ['centre', 'x', 'horizontal']),
  'align.right': align('Line up right edges', 'right', ['x']),
  'align.top': align('Line up top edges', 'top', ['y']),
  'align.centre': align('Line up middles down', 'centre', ['middle', 'y', 'vertical']),
  'align.foot': align('Line up lower edges', 'foot', ['bottom', 'y']),
  'spread.across': spread('Space middles evenly across', 'x', 'middle', ['horizontal']),
  'spread.down': spread('Space middles evenly down', 'y', 'middle', ['vertical']),
  'spread.gapsAcross': spread('Equal gaps across', 'x', 'gap', ['horizontal', 'spacing']),
  'spread.gapsDown': spread('Equal gaps down', 'y', 'gap', ['vertical', 'spacing']),
  'guides.round': {
    label: 'Guides round the selection',
    keywords: ['guide', 'help line', 'from shape', 'edges'],
    keys: [],
    applies: (s) => s.state.selection.length > 0,
    run: (s) => {
      const guides = guidesRound(s.design, s.page, s.state.selection, s.engines.fonts);
      if (s.commit('Guides round the selection', (d) => addGuides(d, s.page.id, guides)))
        s.say('Put guides along its edges and through its middle.');
    },
  },
  'guides.lock': {
    label: 'Lock or free the guides',
    keywords: ['guide', 'help line', 'fix'],
    keys: [],
    applies: (s) => (s.page.guides?.length ?? 0) > 0,
    run: (s) => {
      const locked = !(s.page.guides ?? []).every((g) => g.locked);
      if (s.commit(locked ? 'Lock the guides' : 'Free the guides', (d) => lockGuides(d, s.page.id, locked)))
        s.say(locked ? 'The guides stay where they are until freed.' : 'The guides can be dragged.');
    },
  },
  'guides.clear': {
    label: 'Remove all guides of this page',
    keywords: ['guide', 'help line', 'delete', 'clear'],
    keys: [],
    applies: (s) => (s.page.guides?.length ?? 0) > 0,
    run: (s) => void s.commit('Remove all guides', (d) => removeGuides(d, s.page.id, () => true)),
  },
  'snap.grid': {
    label: 'Grid on or off',
    keywords: ['grid', 'snap', 'raster', 'squares'],
    keys: [],
    harmless: true,
    run: (s) => toggleSnap(s, 'grid', 'the grid'),
  },
  'snap.nodes': {
    label: 'Snap to nodes on or off',
    keywords: ['points', 'crossings', 'edges'],
    keys: [],
    harmless: true,
    run: (s) => toggleSnap(s, 'nodes', 'nodes and crossings'),
  },
  'snap.spacing': {
    label: 'Snap to equal gaps on or off',
    keywords: ['spacing', 'sizes', 'distances'],
    keys: [],
    harmless: true,
    run: (s) => toggleSnap(s, 'spacing', 'equal gaps and sizes'),
  },
} as const satisfies Record<string, CommandDef>;

function toggleSnap(s: Session, what: 'grid' | 'nodes' | 'spacing', words: string): void {
  const on = !s.state.snapping[what];
  setSnapping(s, { [what]: on });
  s.say(`${on ? 'Snaps' : 'No longer snaps'} to ${words}.`);
}
