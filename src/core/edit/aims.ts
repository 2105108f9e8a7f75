import { isDraft } from 'mutative';
import { isText } from '../derive/layout';
import { firstLetters } from '../model/textLooks';
import type { Design, DesignNode, Outline, Paint } from '../model/schema';
import { childrenOf, hidesOperands, holdersOf, lookOf, type NodeId } from '../model/tree';
import { shadowOf } from './effects';
import { plain } from './history';
import { lettersAt, looksOf } from './textPlace';

/**
 * Where colour goes. Letters are the runs of a text; the frame is the box or shape round it; the ground is the page's,
 * and no object's.
 */
export type Aim = 'fill' | 'letters' | 'frame' | 'shadow' | 'ground' | LineAim;
export type LineAim = 'outline' | 'letterOutline' | 'frameOutline' | FurtherAim;
/** Lines below the one that is `outline` or, of a text, `letterOutline`: the second from the top, and so on. */
export const FURTHER_AIMS = ['outline2', 'outline3', 'outline4', 'outline5'] as const;
export type FurtherAim = (typeof FURTHER_AIMS)[number];
/** Is a line below the topmost aimed at? */
export const isFurtherAim = (aim: Aim): aim is FurtherAim => (FURTHER_AIMS as readonly Aim[]).includes(aim);
/** Is an outline aimed at? */
export const isLineAim = (aim: Aim): aim is LineAim =>
  aim === 'outline' || aim === 'letterOutline' || aim === 'frameOutline' || isFurtherAim(aim);

/** A stretch of letters of one text: what is aimed at letters reaches them alone. */
export interface ChosenLetters {
  readonly node: NodeId;
  readonly from: number;
  readonly to: number;
}

/**
 * The objects below a selection that an aim reaches: groups and repeats stand for what they hold, the operands of a
 * combination for the combination, whose paint is the one that is seen.
 */
export function aimedNodes(d: Design, ids: readonly NodeId[], aim: Aim): readonly NodeId[] {
  if (isDraft(d.nodes) || ids.length < MANY) return painted(d, ids).filter((id) => takes(d, id, aim));
  const look = lookOf(d.nodes);
  let known = aimed.get(ids);
  if (known?.look !== look)
    aimed.set(ids, (known = { look, painted: painted(d, ids), found: new Map(), paints: new Map() }));
  let found = known.found.get(aim);
  if (!found) known.found.set(aim, (found = known.painted.filter((id) => takes(d, id, aim))));
  return found;
}

/** From so many objects on, what they come to is remembered for the same list of them. */
const MANY = 50;
const aimed = new WeakMap<readonly NodeId[], Aimed>();
interface Aimed {
  readonly look: object;
  readonly painted: readonly NodeId[];
  readonly found: Map<Aim, readonly NodeId[]>;
  readonly paints: Map<Aim, readonly (Paint | undefined)[]>;
}

/** The paints an aim shows for what it reaches below a selection, object by object as `aimedNodes` lists them. */
export function aimedPaints(
  d: Design,
  ids: readonly NodeId[],
  aim: Aim,
  letters: ChosenLetters | null = null,
): readonly (Paint | undefined)[] {
  const nodes = aimedNodes(d, ids, aim);
  // Letters have theirs in the stories.
  const known =
    isDraft(d.nodes) || ids.length < MANY || aim === 'letters' || aim === 'letterOutline' ? undefined : aimed.get(ids);
  let paints = known?.paints.get(aim);
  if (!paints) {
    paints = nodes.map((id) => paintAt(d, id, aim, letters));
    known?.paints.set(aim, paints);
  }
  return paints;
}

/** What a selection holds, and the combinations that stand for it. */
function painted(d: Design, ids: readonly NodeId[]): readonly NodeId[] {
  const owners = operandOwners(d);
  const reached = new Set<NodeId>();
  const reach = (id: NodeId) => {
    reached.add(owners.get(id) ?? id);
    childrenOf(d.nodes[id]).forEach(reach);
  };
  for (const id of ids) if (d.nodes[id]) reach(id);
  return [...reached];
}

/** Has an object what an aim points at? */
function takes(d: Design, id: NodeId, aim: Aim): boolean {
  const node = d.nodes[id];
  if (aim === 'shadow') return shadowOf(node) !== undefined;
  if (aim === 'ground' || node.kind === 'group' || node.kind === 'repeat') return false;
  if (isFurtherAim(aim)) return lineAt(node, aim) !== undefined;
  if (node.kind === 'combination') return node.op !== 'divide' && (aim === 'fill' || aim === 'outline');
  if (aim === 'letters' || aim === 'letterOutline') return isText(node);
  if (aim === 'frame' || aim === 'frameOutline') return node.kind === 'textFrame';
  return node.kind === 'shape' || node.kind === 'path';
}

const owners = new WeakMap<object, Map<NodeId, NodeId>>();
/** For everything inside combinations, the outermost combination whose paint covers it. */
function operandOwners(d: Design): Map<NodeId, NodeId> {
  const { nodes } = d;
  // A draft is looked into afresh: it may change between two looks.
  const known = isDraft(nodes) ? undefined : owners.get(lookOf(nodes));
  if (known) return known;
  const made = new Map<NodeId, NodeId>();
  const claim = (id: NodeId, owner: NodeId) => {
    for (const child of childrenOf(nodes[id])) {
      made.set(child, owner);
      claim(child, owner);
    }
  };
  for (const id of holdersOf(d)) if (hidesOperands(nodes[id]) && !made.has(id)) claim(id, id);
  if (!isDraft(nodes)) owners.set(lookOf(nodes), made);
  return made;
}

/** The lines of an object that aims reach, and which of them this one does: bottom to top. */
export function lineIn(
  node: DesignNode,
  aim: LineAim,
): { readonly of: 'outlines' | 'letterOutlines'; readonly at: number } | null {
  const below = isFurtherAim(aim) ? FURTHER_AIMS.indexOf(aim) + 1 : 0;
  // The topmost line of letters is set letter by letter.
  if (isText(node) && below) return { of: 'letterOutlines', at: (node.letterOutlines?.length ?? 0) - below };
  return 'outlines' in node ? { of: 'outlines', at: node.outlines.length - 1 - below } : null;
}

/** The line that an aim reaches, letters' own left out. */
export function lineAt(node: DesignNode, aim: LineAim): Outline | undefined {
  const place = lineIn(node, aim);
  return place ? (node as Partial<Record<typeof place.of, readonly Outline[]>>)[place.of]?.[place.at] : undefined;
}

/** The paint an aim shows for one object. */
export function paintAt(d: Design, id: NodeId, aim: Aim, letters: ChosenLetters | null = null): Paint | undefined {
  const node = d.nodes[id];
  if (node && aim === 'shadow') return shadowOf(node)?.paint;
  if (!node || node.kind === 'group' || node.kind === 'repeat') return undefined;
  if (aim === 'letters' || aim === 'letterOutline') {
    if (!isText(node)) return undefined;
    const story = plain(d.stories[node.story]);
    const run = letters?.node === id ? lettersAt(looksOf(d), story, letters.to) : firstLetters(looksOf(d), story);
    return aim === 'letters' ? run.fill : (run.outline?.paint ?? { kind: 'none' });
  }
  if (isLineAim(aim)) {
    const line = lineAt(node, aim);
    return line || !('fills' in node) || isFurtherAim(aim) ? line?.paint : { kind: 'none' };
  }
  if (!('fills' in node)) return undefined;
  return node.fills[node.fills.length - 1] ?? { kind: 'none' };
}
