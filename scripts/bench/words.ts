import { record } from '../../src/core/edit/history';
import { replaceText } from '../../src/core/edit/text';
import { layoutOf } from '../../src/core/derive/layout';
import type { Engines } from '../../src/core/engines';
import { newDesign, runOf, setupOf } from '../../src/core/model/defaults';
import type { Design, NodeOf } from '../../src/core/model/schema';
import { verifyChange } from '../../src/core/model/verify';
import { DesignBuilder } from '../../src/demo/builder';
import { inTurns, measured, type Measured } from './measure';

const FACE = 'archivo-400';
const SENTENCE = 'Home-made paper lanterns walk the quays of Marrowick each November past boats and stalls'.split(' ');

/** A page of one frame with so many words, in paragraphs of about fifty. */
function page(words: number): { readonly design: Design; readonly frame: string } {
  let n = 0;
  const make = { newId: () => `w${n++}`, now: () => '2026-11-02T18:00:00.000Z' };
  const b = new DesignBuilder(newDesign('Words', setupOf(595, 14_000), make), make);
  const paragraphs = Array.from({ length: Math.ceil(words / 50) }, (_, p) => ({
    runs: [
      runOf(
        Array.from({ length: 50 }, (_, i) => SENTENCE[(p * 7 + i) % SENTENCE.length]).join(' '),
        10,
        undefined,
        FACE,
      ),
    ],
  }));
  const frame = b.textFrame('Frame', { x: 20, y: 20, w: 400, h: 13_900 }, paragraphs);
  b.place(0, [frame]);
  return { design: b.done(), frame };
}

/**
 * Laying out 2,000 glyphs never met before, against HarfBuzz shaping the same words alone; and a key in few and in many
 * words.
 */
export async function wordsBench(
  engines: Engines,
): Promise<{ readonly layout: Measured; readonly key: Measured; readonly glyphs: number }> {
  await engines.fonts.load([FACE]);
  const face = engines.fonts.get(FACE)!;
  // Words that nobody has shaped before: each turn has its own.
  let turn = 0;
  const fresh = () => {
    const { design, frame } = page(350);
    const [story] = Object.values(design.stories);
    const own = {
      ...story,
      paragraphs: story.paragraphs.map((p) => ({
        ...p,
        runs: p.runs.map((r) => ({
          ...r,
          text: r.text.replace(/[aou]/g, (c) => (turn % 2 ? c.toUpperCase() : c)) + turn,
        })),
      })),
    };
    return { design: { ...design, stories: { [story.id]: own } }, frame, own };
  };
  let glyphs = 0;
  const [ours, theirs] = await inTurns(
    41,
    4,
    () => {
      turn++;
      const { design, frame } = fresh();
      glyphs = layoutOf(design, design.nodes[frame] as NodeOf<'textFrame'>, engines.fonts).lines.reduce(
        (n, l) => n + l.runs.reduce((m, r) => m + r.glyphs.length, 0),
        0,
      );
    },
    () => {
      turn++;
      for (const p of fresh().own.paragraphs) for (const r of p.runs) face.shape(`${r.text} `);
    },
  );
  const typing = (words: number) => {
    let { design } = page(words);
    const { frame } = page(words);
    const [sheet] = design.pages;
    engines.builder.build(design, sheet);
    return () => {
      const story = design.stories[(design.nodes[frame] as NodeOf<'textFrame'>).story];
      const at = 40;
      const next = record(design, 'Type', (d) => {
        d.stories[story.id] = replaceText(story, at, at, 'x') as (typeof d.stories)[string];
      })!.design;
      if (verifyChange(design, next)) throw new Error('unsound');
      engines.builder.build(next, next.pages[0]);
      design = next;
    };
  };
  const [many, few] = await inTurns(41, 8, typing(5000), typing(500));
  return { layout: measured(ours, theirs), key: measured(many, few), glyphs };
}
