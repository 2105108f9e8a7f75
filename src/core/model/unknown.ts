import { own } from './own';
import { nodeSchema } from './schema';

const KINDS: ReadonlySet<string> = new Set(nodeSchema.def.options.map((o) => o.def.innerType.shape.kind.def.values[0]));
const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);

/**
 * A design in which objects of a kind that this version does not know are kept whole under `was`, so that they pass
 * through unharmed and undrawn; the same value where there is none.
 */
export function keepUnknown(value: unknown): unknown {
  if (!isRecord(value) || !isRecord(value.nodes)) return value;
  let nodes: Record<string, unknown> | null = null;
  for (const id in value.nodes) {
    const node = value.nodes[id];
    if (!isRecord(node) || typeof node.kind !== 'string' || KINDS.has(node.kind)) continue;
    nodes ??= { ...value.nodes };
    const numbers =
      Array.isArray(node.transform) &&
      node.transform.length === 6 &&
      node.transform.every((v) => typeof v === 'number');
    nodes[id] = {
      id,
      name: typeof node.name === 'string' ? node.name.slice(0, 200) : '',
      transform: numbers ? node.transform : [1, 0, 0, 1, 0, 0],
      hidden: node.hidden === true,
      locked: node.locked === true,
      kind: 'unknown',
      children: Array.isArray(node.children)
        ? node.children.filter(
            (c) => typeof c === 'string' && own(value.nodes as Record<string, unknown>, c) !== undefined,
          )
        : [],
      was: node,
    };
  }
  return nodes ? { ...value, nodes } : value;
}

/** Such an object as it goes into a file again: as it came, but for what was done to it here. */
export function asItWas(node: {
  readonly was: Readonly<Record<string, unknown>>;
  readonly name: string;
  readonly transform: readonly number[];
  readonly hidden: boolean;
  readonly locked: boolean;
  readonly children: readonly string[];
}): Record<string, unknown> {
  const { was, name, transform, hidden, locked, children } = node;
  const kept: Record<string, unknown> = { ...was };
  for (const [key, value] of Object.entries({ name, transform, hidden, locked, children }))
    if (key in was) kept[key] = value;
  return kept;
}
