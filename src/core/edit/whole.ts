import type { Blend } from '../model/schema';
import type { NodeId } from '../model/tree';
import type { DesignDraft } from './history';

/** Opacity, blend and cut of objects as a whole. What is plain is left out of the document. */
export function setWhole(
  d: DesignDraft,
  ids: readonly NodeId[],
  change: {
    readonly opacity?: number;
    readonly blend?: Blend | null;
    readonly maskMode?: 'outline' | 'opacity' | 'light' | null;
    /** How far words stay off it; null: they run over it. */
    readonly pushesWords?: number | null;
    /** What is said of it to those who cannot see it; empty: nothing. */
    readonly alt?: string;
  },
): void {
  for (const id of ids) {
    const node = d.nodes[id];
    if (change.opacity !== undefined) {
      const opacity = Math.min(1, Math.max(0, change.opacity));
      if (opacity < 1) node.opacity = opacity;
      else delete node.opacity;
    }
    if (change.blend !== undefined) {
      if (change.blend) node.blend = change.blend;
      else delete node.blend;
    }
    if (change.pushesWords !== undefined) {
      if (change.pushesWords === null) delete node.pushesWords;
      else node.pushesWords = Math.max(0, change.pushesWords);
    }
    if (change.alt !== undefined) {
      if (change.alt) node.alt = change.alt;
      else delete node.alt;
    }
    if (change.maskMode !== undefined) {
      if (change.maskMode) node.maskMode = change.maskMode;
      else delete node.maskMode;
    }
  }
}
