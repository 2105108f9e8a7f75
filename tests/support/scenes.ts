import type { Leaf, Part, Scene } from '@/core/scene/scene';
import { walk } from '@/core/scene/walk';

/** All leaves of a scene, back to front; those that only mask others left out. */
export function leavesOf(scene: Scene): Leaf[] {
  const out: Leaf[] = [];
  walk(scene.root, (leaf) => void out.push(leaf));
  return out;
}

/** All that a scene says, its groups, masks and findings among it, as plain data. */
export const toldOf = (scene: Scene): unknown => told(scene.root);
function told(part: Part): unknown {
  if (part.type === 'group')
    return { ...part, content: part.content.map(told), masks: part.masks.map((m) => ({ ...m, root: told(m.root) })) };
  const { placed, ...rest } = part;
  const plain = { ...rest, path: [...placed.path], bounds: placed.bounds };
  if ('words' in plain && plain.words) return { ...plain, words: { ...plain.words, face: plain.words.face.id } };
  return 'face' in plain ? { ...plain, face: plain.face.id } : plain;
}
