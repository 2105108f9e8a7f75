import type { Design } from './schema';

const known = new WeakMap<Design['nodes'], Design['nodes']>();

/**
 * The design as it is handed over and measured: layers that are for proof only are hidden. The same one where there are
 * none.
 */
export function printedOf(d: Design): Design {
  let nodes = known.get(d.nodes);
  if (!nodes) {
    const proofs = Object.values(d.nodes).filter((n) => n.kind === 'group' && n.proof && !n.hidden);
    nodes = proofs.length
      ? { ...d.nodes, ...Object.fromEntries(proofs.map((n) => [n.id, { ...n, hidden: true }])) }
      : d.nodes;
    known.set(d.nodes, nodes);
  }
  return nodes === d.nodes ? d : { ...d, nodes };
}
