import { isDraft } from 'mutative';
import { IDENTITY, multiply, type Matrix } from '../geometry/matrix';
import type { Design, DesignNode, Guide, NodeOf, Page, Paint, Pattern } from './schema';

export type NodeId = string;

/** Nodes that hold others: groups, combinations and repeats. */
export type Holder = Extract<DesignNode, { children: readonly NodeId[] }>;
/** Does the node hold others? */
export const isHolder = (node: DesignNode): node is Holder => 'children' in node;
/** A combination whose operands are not seen themselves: it has their paint. A division's are. */
export const hidesOperands = (node: DesignNode): node is NodeOf<'combination'> =>
  node.kind === 'combination' && node.op !== 'divide';

/** What a node holds, back to front; nothing where it holds nothing. */
export function childrenOf(node: DesignNode): readonly NodeId[] {
  return 'children' in node ? node.children : [];
}

interface Sheets<P> {
  readonly pages: readonly P[];
  readonly masters?: readonly P[];
}
/** All that objects lie on: the pages, and the masters behind them. */
export const sheetsOf = <P>({ pages, masters }: Sheets<P>): readonly P[] => (masters ? [...pages, ...masters] : pages);

/** The page, or the master, of that id; undefined for none. Of a draft, its draft. */
export function pageById<P extends { readonly id: string }>(d: Sheets<P>, id: string): P | undefined {
  return d.pages.find((p) => p.id === id) ?? d.masters?.find((p) => p.id === id);
}

/** Is it the id of a master? */
export const isMaster = (d: Pick<Design, 'masters'>, id: string): boolean =>
  d.masters?.some((m) => m.id === id) ?? false;

type Bound = Pick<Design, 'pages' | 'masters' | 'setup'>;

/**
 * The masters that a page stands on, the furthest first; on the left of a fold those that their masters have for it.
 * What leads in a ring or nowhere ends there.
 */
export function mastersOf(d: Bound, page: Page): readonly Page[] {
  if (page.master === undefined || !d.masters) return NONE;
  const line: Page[] = [];
  const left = isLeft(d, page);
  for (let at: string | undefined = page.master; at !== undefined;) {
    const named: Page | undefined = d.masters.find((m) => m.id === at);
    const twin: Page | undefined = left ? d.masters.find((m) => m.id === named?.onLeft) : undefined;
    const master: Page | undefined = twin ?? named;
    if (!master || master === page || line.includes(master)) break;
    line.unshift(master);
    at = master.master;
  }
  return line;
}
const NONE: readonly Page[] = [];

/** Does a page lie on the left of a fold, or is it a master for those that do? */
const isLeft = (d: Bound, page: Page): boolean =>
  spreadOf(d, page)?.side === 'left' || (d.masters?.some((m) => m.onLeft === page.id) ?? false);

/** The pages that stand on a master, on others that do included. */
export const followersOf = (d: Bound, master: string): readonly Page[] =>
  d.pages.filter((p) => mastersOf(d, p).some((m) => m.id === master));

/** All masters that a master can lead to: what it stands on, what it has for the left, and on from there. */
export function reachedBy(d: Pick<Design, 'masters'>, id: string, out: Set<string> = new Set()): ReadonlySet<string> {
  const master = d.masters?.find((m) => m.id === id);
  for (const next of [master?.master, master?.onLeft])
    if (next !== undefined && !out.has(next)) reachedBy(d, next, out.add(next));
  return out;
}

/** The guides that are seen on a page: those of its masters, which are moved there, and its own. */
export const guidesOn = (d: Bound, page: Page): readonly { readonly guide: Guide; readonly own: boolean }[] => [
  ...mastersOf(d, page).flatMap((m) => (m.guides ?? []).map((guide) => ({ guide, own: false }))),
  ...(page.guides ?? []).map((guide) => ({ guide, own: true })),
];

/** What lies below everything on a page, and whose it is. */
export interface Ground {
  readonly paint: Paint;
  readonly pattern: Pattern | null;
  readonly of: Page;
}

/** The ground of a page: its own, or that of the nearest master that has one. */
export function groundOf(d: Bound, page: Page): Ground | null {
  const of = [...mastersOf(d, page), page].findLast((p) => p.ground !== undefined);
  return of ? { paint: of.ground!, pattern: of.pattern ?? null, of } : null;
}

/** The ids of a node and everything below it, parents first. */
export function withDescendants(d: Design, id: NodeId): NodeId[] {
  const out: NodeId[] = [];
  const visit = (x: NodeId) => {
    out.push(x);
    childrenOf(d.nodes[x]).forEach(visit);
  };
  visit(id);
  return out;
}

/** Who holds whom: of every node its holder, null for what lies on a page itself; and the page of each of those. */
interface TreeIndex {
  readonly pages: Design['pages'];
  readonly masters: Design['masters'];
  readonly holder: ReadonlyMap<NodeId, NodeId | null>;
  readonly page: ReadonlyMap<NodeId, string>;
  /** All that hold something. */
  readonly holders: ReadonlySet<NodeId>;
  /** By page: what can hold something and lies on the page itself, from back to front. */
  readonly topHolders: ReadonlyMap<string, readonly NodeId[]>;
}
const indices = new WeakMap<Design['nodes'], TreeIndex>();

/**
 * The index of a design's tree, made once for the same nodes and pages. A draft changes in place: its index is not
 * kept.
 */
function indexOf(d: Design): TreeIndex {
  const drafted = isDraft(d) || isDraft(d.nodes) || isDraft(d.pages);
  const known = drafted ? undefined : indices.get(d.nodes);
  if (known && known.pages === d.pages && known.masters === d.masters) return known;
  const holder = new Map<NodeId, NodeId | null>();
  const page = new Map<NodeId, string>();
  const open: NodeId[] = [];
  const take = (ids: readonly NodeId[], by: NodeId | null) => {
    for (const id of ids) {
      holder.set(id, by);
      open.push(id);
    }
  };
  const topHolders = new Map<string, readonly NodeId[]>();
  for (const p of sheetsOf(d)) {
    for (const id of p.children) page.set(id, p.id);
    topHolders.set(
      p.id,
      p.children.filter((id) => d.nodes[id] && isHolder(d.nodes[id])),
    );
    take(p.children, null);
  }
  const holders = new Set<NodeId>();
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    const held = childrenOf(d.nodes[id]);
    if (held.length) holders.add(id);
    take(held, id);
  }
  const index = { pages: d.pages, masters: d.masters, holder, page, holders, topHolders };
  if (!drafted) indices.set(d.nodes, index);
  return index;
}

/** Says that `nodes` hang together as `like` do (what is only moved or coloured): its index serves both. */
export function sameTree(nodes: Design['nodes'], like: Design): void {
  indices.set(nodes, indexOf(like));
}

/**
 * Says that `nodes` are those of `like`, nothing but some transforms being others: what does not ask where things lie
 * holds for both.
 */
export function placedAnew(nodes: Design['nodes'], like: Design): void {
  sameTree(nodes, like);
  looks.set(nodes, lookOf(like.nodes));
}
const looks = new WeakMap<Design['nodes'], object>();
/**
 * The same for all nodes that `placedAnew` put beside each other; by this such things are remembered. Not to be asked
 * of a draft.
 */
export function lookOf(nodes: Design['nodes']): object {
  let look = looks.get(nodes);
  if (!look) looks.set(nodes, (look = {}));
  return look;
}

/** The id of what holds a node; null where it lies on a page itself. */
export const holderOf = (d: Design, id: NodeId): NodeId | null | undefined => indexOf(d).holder.get(id);

/** The ids of all groups, combinations and repeats that hold something. */
export const holdersOf = (d: Design): ReadonlySet<NodeId> => indexOf(d).holders;

/**
 * The groups, layers, combinations and repeats of a page that lie on it by themselves, empty ones too; from back to
 * front.
 */
export const topHoldersOf = (d: Design, page: Page): readonly NodeId[] => indexOf(d).topHolders.get(page.id) ?? [];

/** Whether a node lies on a page itself; many are answered by the index. */
const liesOnTop = (d: Design, page: Page, id: NodeId): boolean =>
  page.children.length >= FEW && indexOf(d).holder.get(id) === null;
/** Most questions are about a few top-level nodes; those are answered without an index. */
const FEW = 50;

/**
 * The objects that ids stand for, those that are gone left out; made once for the same list: many panels ask for the
 * same thousands.
 */
export function nodesOf(d: Design, ids: readonly NodeId[]): readonly DesignNode[] {
  const known = listed.get(ids);
  if (known?.nodes === d.nodes) return known.list;
  const list: DesignNode[] = [];
  for (const id of ids) if (d.nodes[id]) list.push(d.nodes[id]);
  if (!isDraft(d.nodes)) listed.set(ids, { nodes: d.nodes, list });
  return list;
}
const listed = new WeakMap<
  readonly NodeId[],
  { readonly nodes: Design['nodes']; readonly list: readonly DesignNode[] }
>();

/** Those of ids that are there; the same list where all are. */
export const present = (d: Design, ids: readonly NodeId[]): readonly NodeId[] =>
  nodesOf(d, ids).length === ids.length ? ids : ids.filter((id) => d.nodes[id]);

/** From the top-level node down to `id` itself, on the given page; empty if it is not there. */
export function ancestry(d: Design, page: Page, id: NodeId): NodeId[] {
  if (page.children.length < FEW && page.children.includes(id)) return [id];
  const { holder, page: pages } = indexOf(d);
  const line: NodeId[] = [];
  for (let at: NodeId | null | undefined = id; at !== null; at = holder.get(at)) {
    if (at === undefined) return [];
    line.push(at);
  }
  return pages.get(line[line.length - 1]) === page.id ? line.reverse() : [];
}

/** The page that a node lies on; undefined where none leads to it. */
export function pageOf(d: Design, id: NodeId): Page | undefined {
  const { holder, page } = indexOf(d);
  let top = id;
  for (let at = holder.get(id); at; at = holder.get(at)) top = at;
  const on = page.get(top);
  return on === undefined ? undefined : pageById(d, on);
}

/** The id of the group that holds a node, or null where it lies on the page itself. */
export function parentOf(d: Design, page: Page, id: NodeId): NodeId | null {
  const line = ancestry(d, page, id);
  return line.length > 1 ? line[line.length - 2] : null;
}

/** Maps the space in which a node's transform acts to the page. */
export function parentMatrix(d: Design, page: Page, id: NodeId): Matrix {
  if (liesOnTop(d, page, id)) return IDENTITY;
  return ancestry(d, page, id)
    .slice(0, -1)
    .reduce<Matrix>((m, x) => multiply(m, d.nodes[x].transform), [1, 0, 0, 1, 0, 0]);
}

/** Maps a node's own space to the page. */
export function pageMatrix(d: Design, page: Page, id: NodeId): Matrix {
  return multiply(parentMatrix(d, page, id), d.nodes[id].transform);
}

/** Of a selection, those that no other selected node contains, in pile order from back to front. */
export function topmost(d: Design, page: Page, ids: readonly NodeId[]): NodeId[] {
  if (ids.length === 1) return ancestry(d, page, ids[0]).length ? [...ids] : [];
  const wanted = new Set(ids);
  if (!wanted.size) return [];
  // Most selections lie on the page itself; those are answered without a look at any node.
  const top = page.children.filter((id) => wanted.has(id));
  if (top.length === wanted.size) return top;
  const out: NodeId[] = [];
  const visit = (x: NodeId) => {
    if (wanted.has(x)) out.push(x);
    else childrenOf(d.nodes[x]).forEach(visit);
  };
  page.children.forEach(visit);
  return out;
}

/** Is a node locked, itself or by what holds it? */
export function isLocked(d: Design, page: Page, id: NodeId): boolean {
  if (liesOnTop(d, page, id)) return indexOf(d).page.get(id) === page.id && d.nodes[id].locked;
  return ancestry(d, page, id).some((x) => d.nodes[x].locked);
}

/**
 * On which side of a fold a page lies, and the page that faces it there; null for one that faces none. Pages of unlike
 * height, and round ones, stand alone.
 */
export function spreadOf(
  d: Pick<Design, 'pages' | 'setup'>,
  page: Page,
): { readonly side: 'left' | 'right'; readonly other: Page | null } | null {
  const { facing } = d.setup;
  const i = d.pages.indexOf(page);
  if (!facing || i < 0) return null;
  const left = (i % 2 === 0) === (facing === 'left');
  const other = d.pages[left ? i + 1 : i - 1];
  return { side: left ? 'left' : 'right', other: other && canFace(d.setup, page, other) ? other : null };
}

function canFace(setup: Design['setup'], a: Page, b: Page): boolean {
  const [one, two] = [a.format ?? setup, b.format ?? setup];
  return Math.abs(one.height - two.height) < 0.01 && !one.round && !two.round;
}
