import type { Design, DesignNode, Page, Paint } from '../model/schema';
import type { NodeId } from '../model/tree';

/** An object that is drawn for itself, and what lies in the same pile. */
export interface Drawn {
  readonly node: DesignNode;
  readonly siblings: readonly NodeId[];
  /** The group or repeat that holds it; null: the page. */
  readonly holder: DesignNode | null;
}

/** All objects of a page that are not hidden and no parts of a combination, back to front. */
export function* drawnOn(design: Design, page: Page): Iterable<Drawn> {
  function* visit(siblings: readonly NodeId[], holder: DesignNode | null): Iterable<Drawn> {
    for (const id of siblings) {
      const node = design.nodes[id];
      if (!node || node.hidden) continue;
      yield { node, siblings, holder };
      if (node.kind === 'group' || node.kind === 'repeat') yield* visit(node.children, node);
    }
  }
  yield* visit(page.children, null);
}

const seen = (list: readonly Paint[]): boolean => list.some((p) => p.kind !== 'none');

/** Has an object a fill, a line, an effect or sides, so that something of it can be seen? Words are asked for apart. */
export const hasPaint = (n: DesignNode): boolean =>
  ('fills' in n && (seen(n.fills) || seen(n.outlines.filter((o) => o.width > 0).map((o) => o.paint)))) ||
  ('depth' in n && n.depth !== undefined);
