import { withDescendants } from '../../model/tree';
import { shapeById } from '../../shapes/catalogue';
import type { Found, Rule } from '../types';

/** Objects of a kind, and dialled shapes, that a later version made. */
export const unknownRule: Rule<'object.unknown'> = {
  code: 'object.unknown',
  severity: 'stop',
  *find({ design, page }): Iterable<Found<'object.unknown'>> {
    for (const id of page.children.flatMap((c) => withDescendants(design, c))) {
      const node = design.nodes[id];
      const shape =
        node.kind === 'shape'
          ? node.shape
          : node.kind === 'textFrame' && node.window && 'shape' in node.window
            ? node.window.shape
            : null;
      if (node.kind === 'unknown') yield { node: id, facts: { kind: String(node.was.kind) } };
      else if (shape !== null && !shapeById(shape)) yield { node: id, facts: { kind: shape } };
    }
  },
  say: ({ kind }, name) => ({
    message: `${name} is of a kind that this version does not know (“${kind.slice(0, 40)}”); it is not drawn.`,
    why: 'It is kept as it came and goes into the file again. Update Holvet to see and print it.',
  }),
};
