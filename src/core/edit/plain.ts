import { firstLetters } from '../model/textLooks';
import { looksOf } from './textPlace';
import { piecesOf } from '../geometry/boolean/pieces';
import { multiply, type Matrix } from '../geometry/matrix';
import { copyMatrices } from '../model/copies';
import { finishOf } from '../model/finish';
import type { Design, DesignNode, NodeKind, NodeOf, Page, Paint } from '../model/schema';
import { childrenOf, pageOf, topmost, type NodeId } from '../model/tree';
import { outlinePath } from '../shapes/outline';
import type { FontBook } from '../text/fonts';
import { areaOf } from '../derive/area';
import { lettersAsShapes } from './letterShapes';
import { withFrames } from './carryText';
import { before, plain, type DesignDraft } from './history';
import { isText } from '../derive/layout';
import { placedPaint } from './place';
import { replaceNode } from './pile';

/** Replaces what is adjustable by plain paths and groups that look the same. Answers the ids that stand for it now. */
export function makePlain(
  d: DesignDraft,
  page: Page,
  ids: readonly NodeId[],
  newId: () => string,
  fonts: FontBook,
): NodeId[] {
  const was = before(d);
  const copyStory = (story: string): string => {
    const id = newId();
    d.stories[id] = { ...withFrames(was.stories[story], () => null), id } as DesignDraft['stories'][string];
    return id;
  };
  return topmost(was, page, withThreads(was, page, ids)).map((id) => {
    const node = was.nodes[id];
    if (!canBePlain(node) || (node.kind === 'textFrame' && runsElsewhere(was, page, node))) return id;
    const plain = PLAIN[node.kind] as Plain<DesignNode>;
    const made = plain(node, baseOf(node), { d: was, fonts, newId, copyStory });
    replaceNode(d, page, id, [made[0]]);
    for (const n of made) d.nodes[n.id] = n as DesignDraft['nodes'][string];
    return id;
  });
}

/** With a frame all that its words run through: what is left would begin with them again. */
function withThreads(d: Design, page: Page, ids: readonly NodeId[]): NodeId[] {
  const all = ids.flatMap((id) => {
    const node = d.nodes[id];
    const frames = node?.kind === 'textFrame' ? d.stories[node.story].frames : undefined;
    return frames && !runsElsewhere(d, page, node as NodeOf<'textFrame'>) ? [id, ...frames] : [id];
  });
  return [...new Set(all)];
}
/** Do its words run on to another page? */
const runsElsewhere = (d: Design, page: Page, node: NodeOf<'textFrame'>): boolean =>
  (d.stories[node.story].frames ?? []).some((id) => pageOf(d, id)?.id !== page.id);

interface Making {
  readonly d: Design;
  readonly fonts: FontBook;
  readonly newId: () => string;
  readonly copyStory: (id: string) => string;
}
/** What stands for a node, itself first, then all it holds; it keeps its id, name, place and finish. */
type Plain<N> = (node: N, base: Base, m: Making) => DesignNode[];
type Base = Pick<
  DesignNode,
  'id' | 'name' | 'transform' | 'hidden' | 'locked' | 'opacity' | 'blend' | 'effects' | 'pushesWords' | 'maskMode'
>;
const baseOf = (n: DesignNode): Base => {
  const { id, name, transform, hidden, locked } = n;
  return { id, name, transform, hidden, locked, ...finishOf(n) };
};

const outlined: Plain<NodeOf<'shape'> | NodeOf<'path'>> = (node, base) => {
  const { path, rule } = outlinePath(node);
  return [{ ...base, kind: 'path', path, fillRule: rule, ...deepAs(node), fills: node.fills, outlines: node.outlines }];
};

/** A shape stays pushed back. */
const deepAs = ({ depth }: Pick<NodeOf<'path'>, 'depth'>): Pick<NodeOf<'path'>, 'depth'> => (depth ? { depth } : {});

/** By kind; null for what is plain already, or would lose what it is for. A new kind needs its row. */
const PLAIN: { readonly [K in NodeKind]: Plain<NodeOf<K>> | null } = {
  shape: outlined,
  path: outlined,
  displayText: (node, base, { d, newId, fonts }) => lettersAsShapes(d, node, base, newId, fonts),
  combination: (node, base, { d, newId, fonts }) => plainCombination(d, node, base, newId, fonts),
  repeat(node, base, { d, newId, copyStory }) {
    const copies = copyMatrices(node.arrangement).map((m, i) =>
      plainCopy(d, node.children, m, `${node.name} ${i + 1}`, newId, copyStory),
    );
    return [{ ...base, kind: 'group', children: copies.map((c) => c[0].id) }, ...copies.flat()];
  },
  textFrame: (node, base, { d, newId, fonts }) => lettersAsShapes(d, node, base, newId, fonts),
  group: null,
  unknown: null,
};

/** May this be made plain? Shapes, treated corners, combinations and repeats can; so can texts. */
export const canBePlain = (n: DesignNode): boolean =>
  PLAIN[n.kind] !== null && (n.kind !== 'path' || n.corners !== undefined);

function plainCombination(
  d: Design,
  node: NodeOf<'combination'>,
  base: Base,
  newId: () => string,
  fonts: FontBook,
): DesignNode[] {
  const area = areaOf(d, node.id, fonts);
  if (node.op !== 'divide')
    return [
      {
        ...base,
        kind: 'path',
        path: area.region.path,
        fillRule: area.region.rule,
        ...deepAs(node),
        fills: node.fills,
        outlines: node.outlines,
      },
    ];
  // Every piece by itself, so that each can be coloured and moved.
  const pieces = (area.pieces ?? []).flatMap(({ region, owner }) =>
    piecesOf(region).map(({ path, rule }): DesignNode => {
      const { fills, outlines } = ownPaints(d, owner, d.nodes[owner].transform);
      return {
        id: newId(),
        name: `Piece of ${d.nodes[owner].name || 'shape'}`,
        kind: 'path',
        transform: [1, 0, 0, 1, 0, 0],
        hidden: false,
        locked: false,
        path,
        fillRule: rule,
        fills,
        outlines,
      };
    }),
  );
  return [{ ...base, kind: 'group', children: pieces.map((p) => p.id) }, ...pieces];
}

function ownPaints(d: Design, id: NodeId, map: Matrix): Pick<NodeOf<'path'>, 'fills' | 'outlines'> {
  const node = d.nodes[id];
  const put = (p: Paint) => placedPaint(p, map);
  if (isText(node)) {
    const run = firstLetters(looksOf(d), plain(d.stories[node.story]));
    return { fills: [put(run.fill)], outlines: run.outline ? [{ ...run.outline, paint: put(run.outline.paint) }] : [] };
  }
  if ('fills' in node)
    return { fills: node.fills.map(put), outlines: node.outlines.map((o) => ({ ...o, paint: put(o.paint) })) };
  const front = node.children[node.children.length - 1];
  return ownPaints(d, front, multiply(map, d.nodes[front].transform));
}

/** One copy of a repeat's children: the child itself where there is one, else a group. */
function plainCopy(
  d: Design,
  children: readonly NodeId[],
  m: Matrix,
  name: string,
  newId: () => string,
  copyStory: (id: string) => string,
): DesignNode[] {
  const clone = (id: NodeId, through: Matrix | null): DesignNode[] => {
    const node = d.nodes[id];
    const below = childrenOf(node).map((c) => clone(c, null));
    const copy = {
      ...node,
      id: newId(),
      ...(through && { transform: multiply(through, node.transform) }),
      ...('children' in node && { children: below.map((b) => b[0].id) }),
      ...('story' in node && { story: copyStory(node.story) }),
    } as DesignNode;
    return [copy, ...below.flat()];
  };
  if (children.length === 1) return clone(children[0], m);
  const members = children.map((c) => clone(c, null));
  return [
    {
      id: newId(),
      name,
      kind: 'group',
      transform: m,
      hidden: false,
      locked: false,
      children: members.map((x) => x[0].id),
    },
    ...members.flat(),
  ];
}
