import type { ChosenLetters } from '@/core/edit/aims';
import type { Page } from '@/core/model/schema';
import { isLocked, lookOf } from '@/core/model/tree';
import type { Session } from './session';

/** One action of the bench: menu, key, finder, button and tests all use its row. */
export interface CommandDef {
  readonly label: string;
  /** Everyday words and trade words that find it. */
  readonly keywords: readonly string[];
  /** `Mod` is Ctrl, or Cmd on a Mac. */
  readonly keys: readonly string[];
  /** May it run now? Absent: always. */
  readonly applies?: (s: Session) => boolean;
  readonly run: (s: Session) => void;
  /** Works while only looking. */
  readonly harmless?: boolean;
}

export const count = (n: number, one: string, many = `${one}s`): string => (n === 1 ? `1 ${one}` : `${n} ${many}`);

/** “a star”, “an ellipse”, “an L”: by how it is said. */
export const withArticle = (name: string): string =>
  `${/^([aeio]|hour|[lsxhfmnr]\b)/i.test(name) ? 'an' : 'a'} ${name}`;

/** The chosen objects that may be changed. */
export function freeSelection(s: Session): readonly string[] {
  const { design, page } = s;
  const { selection } = s.state;
  const look = lookOf(design.nodes);
  if (known?.selection !== selection || known.look !== look || known.page !== page) {
    const free = selection.filter((id) => design.nodes[id] && !isLocked(design, page, id));
    // The same list where it says the same: what is remembered for it serves again.
    known = { selection, look, page, free: free.length === selection.length ? selection : free };
  }
  return known.free;
}
let known: {
  readonly selection: readonly string[];
  readonly look: object;
  readonly page: Page;
  readonly free: readonly string[];
} | null = null;

/** The letters that are chosen in the text being written in; null where none are, or only a caret stands there. */
export function chosenLetters(s: Session): ChosenLetters | null {
  const e = s.state.editing;
  return e && e.anchor !== e.focus
    ? { node: e.node, from: Math.min(e.anchor, e.focus), to: Math.max(e.anchor, e.focus) }
    : null;
}

export const chosen = (s: Session): boolean => s.state.selection.length > 0;
export const free = (s: Session): boolean => freeSelection(s).length > 0;
