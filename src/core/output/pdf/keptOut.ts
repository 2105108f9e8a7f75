import type { Leaf, Words } from '../../scene/scene';

const made = new WeakMap<Leaf, Leaf>();

/**
 * Letters of a face that may not be put into files become outlines; the words they stand for stay with them, in the
 * letters of a face that may. Any other leaf is itself.
 */
export function withoutKeptOut(leaf: Leaf): Leaf {
  const words = leaf.type === 'glyphs' ? leaf : leaf.words;
  if (!words?.face.embedding || words.face.embedding === 'whole') return leaf;
  let other = made.get(leaf);
  if (!other) made.set(leaf, (other = outlined(leaf, spokenBy(words, words.face.embedding.outlines))));
  return other;
}

const bare = new WeakMap<Leaf, Leaf>();

/** Letters as outlines that say nothing any more: a file that needs no face. */
export function asOutlines(leaf: Leaf): Leaf {
  if (leaf.type !== 'glyphs' && !leaf.words) return leaf;
  let other = bare.get(leaf);
  if (!other) {
    const shape = leaf.type === 'glyphs' ? outlined(leaf, leaf) : leaf;
    bare.set(leaf, (other = { ...shape, words: undefined } as Leaf));
  }
  return other;
}

function outlined(leaf: Leaf, words: Words): Leaf {
  if (leaf.type !== 'glyphs') return { ...leaf, words };
  const { node, inkBounds, paintBounds, paint, matrix, placed, stroke } = leaf;
  const base = { node, inkBounds, paintBounds, paint, matrix, placed, words };
  return stroke ? { ...base, type: 'stroke', stroke } : { ...base, type: 'fill', rule: 'nonZero' };
}

/**
 * The same words at the same places by the glyphs of another face; each turned by nothing, so that they are told as
 * one.
 */
function spokenBy(words: Words, face: Words['face']): Words {
  const glyphs = words.glyphs.flatMap((g) =>
    g.text ? [{ ...g, gid: face.shape(g.text)[0]?.gid ?? 0, turn: g.turn ?? ([1, 0, 0, 1] as const) }] : [],
  );
  return { ...words, face, glyphs };
}
