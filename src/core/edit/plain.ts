import { piecesOf } from '../geometry/boolean/pieces';
import { multiply, type Matrix } from '../geometry/matrix';
import { copyMatrices } from '../model/copies';
import type { Design, DesignNode, NodeOf, Page, Paint } from '../model/schema';
import { childrenOf, topmost, type NodeId } from '../model/tree';
import { outlinePath } from '../shapes/outline';
import type { FontBook } from '../text/fonts';
import { areaOf, lettersPath } from '../derive/area';
import { before, type DesignDraft } from './history';
import { isText } from '../derive/layout';
import { placedPaint, replaceNode } from './place';

/** May this be made plain? Shapes, treated corners, combinations and repeats can; so can a text's letters. */
export const canBePlain = (n: DesignNode): boolean =>
  n.kind === 'shape' ||
  n.kind === 'combination' ||
  n.kind === 'repeat' ||
  n.kind === 'displayText' ||
  (n.kind === 'path' && n.corners !== undefined);

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
    d.stories[id] = { ...was.stories[story], id } as DesignDraft['stories'][string];
    return id;
  };
  return topmost(was, page, ids).map((id) => {
    const node = was.nodes[id];
    if (!canBePlain(node)) return id;
    const made = plainNodes(was, node, newId, fonts, copyStory);
    replaceNode(d, page, id, [made[0]]);
    for (const n of made) d.nodes[n.id] = n as DesignDraft['nodes'][string];
    return id;
  });
}

/** What stands for a node, itself first, then all it holds; it keeps its id, name and place. */
function plainNodes(
  d: Design,
  node: DesignNode,
  newId: () => string,
  fonts: FontBook,
  copyStory: (id: string) => string,
): DesignNode[] {
  const { id, name, transform, hidden, locked } = node;
  const base = { id, name, transform, hidden, locked };
  if (node.kind === 'shape' || node.kind === 'path') {
    const { path, rule } = outlinePath(node);
    return [{ ...base, kind: 'path', path, fillRule: rule, fills: node.fills, outlines: node.outlines }];
  }
  if (isText(node)) {
    const run = d.stories[node.story].paragraphs[0].runs[0];
    return [
      {
        ...base,
        kind: 'path',
        path: lettersPath(d, node, fonts),
        fillRule: 'nonZero',
        fills: [run.fill],
        outlines: run.outline ? [run.outline] : [],
      },
    ];
  }
  if (node.kind === 'combination') return plainCombination(d, node, base, newId, fonts);
  if (node.kind === 'repeat') {
    const copies = copyMatrices(node.arrangement).map((m, i) =>
      plainCopy(d, node.children, m, `${name} ${i + 1}`, newId, copyStory),
    );
    return [{ ...base, kind: 'group', children: copies.map((c) => c[0].id) }, ...copies.flat()];
  }
  return [node];
}

function plainCombination(
  d: Design,
  node: NodeOf<'combination'>,
  base: Pick<DesignNode, 'id' | 'name' | 'transform' | 'hidden' | 'locked'>,
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
    const run = d.stories[node.story].paragraphs[0].runs[0];
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
