import { apply, create, type Draft, type Patches } from 'mutative';
import type { Design } from '../model/schema';

export type DesignDraft = Draft<Design>;
/** Changes a draft of the design in place; the design itself never changes. */
export type Recipe = (draft: DesignDraft) => void;

/** One step that can be taken back: what changed, both ways, and what it was. */
export interface HistoryEntry {
  readonly label: string;
  readonly patches: Patches;
  readonly inverse: Patches;
}

/** Applies a recipe; null when it changed nothing. */
export function record(design: Design, label: string, recipe: Recipe): { readonly design: Design; readonly entry: HistoryEntry } | null {
  const [next, patches, inverse] = create(design, recipe, { enablePatches: true });
  return patches.length ? { design: next as Design, entry: { label, patches, inverse } } : null;
}

/** A recipe's result for showing only: no patches are kept. */
export function tryOut(design: Design, recipe: Recipe): Design {
  return create(design, recipe) as Design;
}

export function redoEntry(design: Design, entry: HistoryEntry): Design {
  return apply(design, entry.patches) as Design;
}
export function undoEntry(design: Design, entry: HistoryEntry): Design {
  return apply(design, entry.inverse) as Design;
}
