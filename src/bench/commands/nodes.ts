import type { DesignDraft } from '@/core/edit/history';
import {
  addBetween,
  alignedPlaces,
  breakAt,
  joinEnds,
  piecesBetween,
  placeNodes,
  removeNodes,
  reverseContours,
  setKind,
  setPieces,
  shiftNodes,
  takeIn,
  writeContours,
  type JoinHow,
  type NodeAlign,
  type NodeSpread,
  type PlacedNode,
} from '@/core/edit/nodes';
import { contoursOf } from '@/core/derive/contours';
import { nodeCount, simplified } from '@/core/edit/smoothing';
import { tryOut } from '@/core/edit/history';
import { applyVector, apply, invert, meanScale } from '@/core/geometry/matrix';
import { flatOf, isEnd, type NodeContour, type NodeForm } from '@/core/geometry/nodes';
import { pageMatrix } from '@/core/model/tree';
import { formatLength, mm } from '@/core/units/length';
import { chosenOf, openPaths } from '../tools/nodeSpots';
import { count, type CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';
import type { ChosenNode } from '../session/state';

/** Nodes are being worked on: the tool is out and some are chosen. */
export const onNodes = (s: Session): boolean => s.state.tool === 'nodes' && s.state.nodes.length > 0;
const onPaths = (s: Session): boolean => openPaths(s).length > 0;

/** Changes the chosen nodes of every open path; what is chosen then may be told. */
function changeNodes(
  s: Session,
  label: string,
  change: (
    contours: readonly NodeContour[],
    nodes: Set<number>,
  ) => { contours: readonly NodeContour[]; chosen?: Set<number> },
): boolean {
  const paths = openPaths(s).filter((p) => chosenOf(s, p.id).size > 0);
  const made = paths.map((p) => ({ id: p.id, ...change(p.contours, chosenOf(s, p.id)) }));
  const done = s.commit(label, (d) => {
    for (const m of made) writeContours(d, s.page, m.id, m.contours);
  });
  if (done) {
    const nodes = made.flatMap((m): ChosenNode[] =>
      [...(m.chosen ?? chosenOf(s, m.id))].map((flat) => ({ object: m.id, flat })),
    );
    s.set({ nodes: nodes.filter((n) => s.design.nodes[n.object]) });
  }
  return done;
}

export function nudgeNodes(s: Session, label: string, dx: number, dy: number): void {
  const paths = openPaths(s);
  s.commit(label, (d) => {
    for (const p of paths) {
      const chosen = chosenOf(s, p.id);
      const back = invert(p.matrix);
      if (!chosen.size || !back) continue;
      const v = applyVector(back, { x: dx, y: dy });
      writeContours(d, s.page, p.id, shiftNodes(p.contours, chosen, v.x, v.y));
    }
  });
}

export function deleteChosenNodes(s: Session): void {
  const n = s.state.nodes.length;
  if (
    changeNodes(s, n === 1 ? 'Delete a node' : 'Delete nodes', (contours, nodes) => ({
      contours: removeNodes(contours, nodes),
      chosen: new Set(),
    }))
  )
    s.say(`Deleted ${count(n, 'node')}; the line stays as near to its shape as fewer nodes can.`);
}

export function kindOfNodes(s: Session, kind: NodeForm): void {
  changeNodes(s, `Nodes: ${kind}`, (contours, nodes) => ({ contours: setKind(contours, nodes, kind) }));
}

export function piecesOfNodes(s: Session, shape: 'line' | 'curve'): void {
  const any = openPaths(s).some((p) => piecesBetween(p.contours, chosenOf(s, p.id)).length > 0);
  if (!any) {
    s.say('Choose two nodes next to each other, or one, to change the line between.', 'warn');
    return;
  }
  changeNodes(s, shape === 'line' ? 'To a line' : 'To a curve', (contours, nodes) => ({
    contours: setPieces(contours, nodes, shape),
  }));
}

export function addNodes(s: Session): void {
  let added = 0;
  changeNodes(s, 'Add nodes', (contours, nodes) => {
    const made = addBetween(contours, nodes);
    added += nodeCount(made.contours) - nodeCount(contours);
    return { contours: made.contours, chosen: made.chosen };
  });
  if (added) s.say(`Added ${count(added, 'node')} in the middle; the shape is as it was.`);
}

export function breakNodes(s: Session): void {
  if (
    changeNodes(s, 'Break the line', (contours, nodes) => ({ contours: breakAt(contours, nodes), chosen: new Set() }))
  )
    s.say('Broke the line there: two ends lie on each other.');
  else s.say('These are ends already; nothing to break.', 'warn');
}

/** The two chosen ends, of one path or of two. */
export function chosenEnds(s: Session): ChosenNode[] {
  return openPaths(s).flatMap((p) => {
    const chosen = chosenOf(s, p.id);
    return p.contours.flatMap((c, ci) =>
      c.nodes.flatMap((_, i) =>
        isEnd(c, i) && chosen.has(flatOf(p.contours, ci, i)) ? [{ object: p.id, flat: flatOf(p.contours, ci, i) }] : [],
      ),
    );
  });
}

export function joinNodes(s: Session, how: JoinHow): void {
  const ends = chosenEnds(s);
  if (ends.length !== 2) {
    s.say(
      ends.length
        ? 'Choose two ends to join: this is ' + count(ends.length, 'end') + '.'
        : 'Choose the two ends of lines to join them.',
      'warn',
    );
    return;
  }
  const [a, b] = ends;
  const before = contoursOf(s.state.design.nodes[a.object] as Parameters<typeof contoursOf>[0]);
  const shift = nodeCount(before);
  const nodes = new Set([a.flat, a.object === b.object ? b.flat : b.flat + shift]);
  const recipe = (d: DesignDraft) => {
    if (a.object !== b.object) takeIn(d, s.page, a.object, b.object);
  };
  // Both paths in one first, as it would be; then the join in what came of that.
  const joinedDesign = a.object === b.object ? s.state.design : tryOut(s.state.design, recipe);
  const joined = joinEnds(contoursOf(joinedDesign.nodes[a.object] as Parameters<typeof contoursOf>[0]), nodes, how);
  if (!joined) return;
  const gap = joined.gap * meanScale(pageMatrix(s.design, s.page, a.object));
  const done = s.commit(
    'Join',
    (d) => {
      recipe(d);
      writeContours(d, s.page, a.object, joined.contours);
    },
    { select: [a.object] },
  );
  if (!done) return;
  s.set({ nodes: [] });
  const { unit } = s.design.setup;
  s.say(
    gap < 0.01
      ? 'Joined: the ends lay on each other.'
      : how === 'meet'
        ? `Joined: the ends were ${formatLength(gap, unit, 2)} apart and met in the middle.`
        : `Joined by a line of ${formatLength(gap, unit, 2)}.`,
  );
}

export function reverseNodes(s: Session): void {
  const paths = openPaths(s);
  if (
    s.commit('Reverse', (d) =>
      paths.forEach((p) => writeContours(d, s.page, p.id, reverseContours(p.contours, chosenOf(s, p.id)))),
    )
  ) {
    s.set({ nodes: [] });
    s.say('Reversed: the line runs the other way now.');
  }
}

function placed(s: Session): PlacedNode[] {
  return openPaths(s).flatMap((p) => {
    const chosen = chosenOf(s, p.id);
    return p.contours.flatMap((c, ci) =>
      c.nodes.flatMap((n, i) =>
        chosen.has(flatOf(p.contours, ci, i))
          ? [{ object: p.id, flat: flatOf(p.contours, ci, i), at: apply(p.matrix, n) }]
          : [],
      ),
    );
  });
}

export function alignNodes(s: Session, how: NodeAlign | NodeSpread): void {
  const nodes = placed(s);
  const few = how === 'across' || how === 'down' ? 3 : 2;
  if (nodes.length < few) {
    s.say(`Choose ${few === 2 ? 'two' : 'three'} nodes or more.`, 'warn');
    return;
  }
  s.commit(few === 2 ? 'Align nodes' : 'Distribute nodes', (d) =>
    placeNodes(d, s.page, nodes, alignedPlaces(nodes, how)),
  );
}

/** What simplifying by a tolerance (millimetres on the page) would leave: nodes before and after. */
export function simplifyPaths(
  s: Session,
  tolerance: number,
): { before: number; after: number; recipe: (d: DesignDraft) => void } {
  const paths = openPaths(s);
  const made = paths.map((p) => ({ id: p.id, contours: simplified(p.contours, mm(tolerance) / meanScale(p.matrix)) }));
  return {
    before: paths.reduce((n, p) => n + nodeCount(p.contours), 0),
    after: made.reduce((n, m) => n + nodeCount(m.contours), 0),
    recipe: (d) => made.forEach((m) => writeContours(d, s.page, m.id, m.contours)),
  };
}

function stepNode(s: Session, by: 1 | -1): void {
  const paths = openPaths(s);
  if (!paths.length) return;
  const all = paths.flatMap((p) =>
    Array.from({ length: nodeCount(p.contours) }, (_, flat) => ({ object: p.id, flat })),
  );
  const last = s.state.nodes[s.state.nodes.length - 1];
  const i = last ? all.findIndex((n) => n.object === last.object && n.flat === last.flat) : by > 0 ? -1 : 0;
  s.set({ nodes: [all[(i + by + all.length) % all.length]] });
}

export const allNodes = (s: Session): ChosenNode[] =>
  openPaths(s).flatMap((p) => Array.from({ length: nodeCount(p.contours) }, (_, flat) => ({ object: p.id, flat })));

const node = (
  label: string,
  keywords: readonly string[],
  run: (s: Session) => void,
  keys: readonly string[] = [],
): CommandDef => ({ label, keywords: ['node', 'point', ...keywords], keys, applies: onNodes, run });

export const NODE_COMMANDS = {
  'nodes.corner': node('Nodes to corners', ['sharp', 'cusp'], (s) => kindOfNodes(s, 'corner')),
  'nodes.smooth': node('Smooth nodes', ['round', 'tangent'], (s) => kindOfNodes(s, 'smooth')),
  'nodes.symmetric': node('Symmetric nodes', ['mirror handles', 'even'], (s) => kindOfNodes(s, 'symmetric')),
  'nodes.line': node('Line between nodes', ['straight', 'straighten'], (s) => piecesOfNodes(s, 'line')),
  'nodes.curve': node('Curve between nodes', ['bend'], (s) => piecesOfNodes(s, 'curve')),
  'nodes.add': node('Add nodes in the middle', ['insert', 'more'], addNodes),
  'nodes.break': node('Break at nodes', ['cut', 'open', 'split', 'scissors'], breakNodes),
  'nodes.join': node('Join ends', ['close', 'connect', 'weld'], (s) => joinNodes(s, 'meet')),
  'nodes.joinLine': node('Join ends by a line', ['close', 'connect', 'bridge'], (s) => joinNodes(s, 'line')),
  'nodes.reverse': {
    label: 'Reverse the line',
    keywords: ['node', 'direction', 'other way'],
    keys: [],
    applies: (s) => s.state.tool === 'nodes' && onPaths(s),
    run: reverseNodes,
  },
  'nodes.next': {
    label: 'Next node',
    keywords: ['node', 'point'],
    keys: [']'],
    applies: (s) => s.state.tool === 'nodes' && onPaths(s),
    harmless: true,
    run: (s) => stepNode(s, 1),
  },
  'nodes.previous': {
    label: 'Node before',
    keywords: ['node', 'point', 'previous'],
    keys: ['['],
    applies: (s) => s.state.tool === 'nodes' && onPaths(s),
    harmless: true,
    run: (s) => stepNode(s, -1),
  },
} as const satisfies Record<string, CommandDef>;
