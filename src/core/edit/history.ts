import { apply, create, current, isDraft, original, type Draft, type Patches } from 'mutative';
import type { Design, DesignNode, Story } from '../model/schema';
import { sameTree, type NodeId } from '../model/tree';
import type { Packed } from './packed';

export type DesignDraft = Draft<Design>;
/** Changes a draft of the design in place; the design itself never changes. */
export type Recipe = (draft: DesignDraft) => void;

/**
 * The design a draft was made from. Looking through a draft wraps every node that is looked at; where a recipe asks
 * only how things lay before it began, this is the thing to ask.
 */
export function before(d: DesignDraft): Design {
  return (isDraft(d) ? original(d) : d) as Design;
}

/** A part of a draft as it is by now, in plain objects; what is none is itself. */
export const plain = <T>(x: T): T => (isDraft(x) ? (current(x as object) as T) : x);

/** One step that can be taken back: what changed, both ways, and what it was. */
export interface HistoryEntry {
  readonly label: string;
  readonly patches: Patches;
  readonly inverse: Patches;
  /** Both as store and workers take them, where the step was made so. */
  readonly packed?: { readonly patches: Packed; readonly inverse: Packed };
}

/** Applies a recipe; null when it changed nothing. */
export function record(
  design: Design,
  label: string,
  recipe: Recipe,
): { readonly design: Design; readonly entry: HistoryEntry } | null {
  const [next, patches, inverse] = create(design, recipe, { enablePatches: true });
  return patches.length ? { design: next as Design, entry: { label, patches, inverse } } : null;
}

/** A recipe's result for showing only: no patches are kept. */
export function tryOut(design: Design, recipe: Recipe): Design {
  return create(design, recipe) as Design;
}

/**
 * The same for a recipe that changes nothing but the given nodes and their stories, as moving and sizing do: copies of
 * those are laid over the rest by the prototype chain, so that ten thousand others cost nothing. For showing only: the
 * result is looked up by id and never listed, stored or sent.
 */
export function tryOutOn(design: Design, ids: readonly NodeId[], recipe: Recipe): Design {
  const nodes = Object.create(design.nodes) as Record<string, DesignNode>;
  const stories = Object.create(design.stories) as Record<string, Story>;
  for (const id of ids) {
    const node = design.nodes[id];
    // A path's numbers are only ever replaced as a whole: a long one need not be copied to be looked at.
    nodes[id] =
      node.kind === 'path' ? { ...structuredClone({ ...node, path: [] }), path: node.path } : structuredClone(node);
    if ('story' in node) stories[node.story] = structuredClone(design.stories[node.story]);
  }
  const shown = { ...design, nodes, stories };
  sameTree(nodes, design);
  recipe(shown as DesignDraft);
  return shown;
}

/** The design after a step. Throws where the step does not fit it. */
export function redoEntry(design: Design, entry: HistoryEntry): Design {
  return apply(design, entry.patches) as Design;
}
/** The design before a step. Throws where the step does not fit it. */
export function undoEntry(design: Design, entry: HistoryEntry): Design {
  return apply(design, entry.inverse) as Design;
}
