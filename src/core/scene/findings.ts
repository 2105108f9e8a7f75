import { areaOf } from '../derive/area';
import { isText, layoutOf } from '../derive/layout';
import type { Design } from '../model/schema';
import { childrenOf, type NodeId } from '../model/tree';
import type { FontBook } from '../text/fonts';
import { NO_FINDINGS, type Findings } from './scene';

/** Findings as they are gathered. */
export interface Found {
  readonly missing: Set<string>;
  readonly overset: Map<NodeId, number>;
  readonly unsure: Set<NodeId>;
}
/** An empty collection of findings. */
export const nothingFound = (): Found => ({ missing: new Set(), overset: new Map(), unsure: new Set() });

/** Adds findings to a collection. */
export function addFindings(to: Found, from: Findings): void {
  for (const x of from.missingFaces) to.missing.add(x);
  for (const { node, characters } of from.overset) to.overset.set(node, characters);
  for (const x of from.unsure) to.unsure.add(x);
}

/** A collection as findings. */
export function findingsOf({ missing, overset, unsure }: Found): Findings {
  if (!missing.size && !overset.size && !unsure.size) return NO_FINDINGS;
  return {
    missingFaces: [...missing],
    overset: [...overset].map(([node, characters]) => ({ node, characters })),
    unsure: [...unsure],
  };
}

/** Do two findings say the same? */
export function sameFindings(a: Findings, b: Findings): boolean {
  if (a === b) return true;
  const same = <T>(x: readonly T[], y: readonly T[], alike: (p: T, q: T) => boolean) =>
    x.length === y.length && x.every((v, i) => alike(v, y[i]));
  const equal = (p: string, q: string) => p === q;
  return (
    same(a.missingFaces, b.missingFaces, equal) &&
    same(a.unsure, b.unsure, equal) &&
    same(a.overset, b.overset, (p, q) => p.node === q.node && p.characters === q.characters)
  );
}

/** What is to be said of words that are seen as areas only: operands of combinations, what cuts by its outline. */
export function findInArea(d: Design, id: NodeId, fonts: FontBook, found: Found): void {
  const node = d.nodes[id];
  if (node.hidden) return;
  if (isText(node)) {
    const { missing, overset } = layoutOf(d, node, fonts);
    for (const face of missing) found.missing.add(face);
    if (overset) found.overset.set(id, overset);
  }
  if (node.kind === 'combination' && areaOf(d, id, fonts).unsure) found.unsure.add(id);
  for (const child of childrenOf(node)) findInArea(d, child, fonts, found);
}
