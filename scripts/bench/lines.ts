import { regionsIn } from '../../src/core/derive/regions';
import { tryOut } from '../../src/core/edit/history';
import { setDepth, newDepth } from '../../src/core/edit/depth';
import { makeRegions } from '../../src/core/edit/regions';
import { prepare, type Engines } from '../../src/core/engines';
import { pathContains } from '../../src/core/geometry/contains';
import { newDesign, outlineOf, runOf, setupOf } from '../../src/core/model/defaults';
import type { Design, NodeOf } from '../../src/core/model/schema';
import { DesignBuilder, flat } from '../../src/demo/builder';
import { atFullPace, median, type Measured } from './measure';

const black = flat({ cmyk: [0, 0, 0, 1] });
const making = (engines: Engines) => ({ newId: engines.env.newId, now: engines.env.now });
const start = (engines: Engines, name: string) =>
  new DesignBuilder(newDesign(name, setupOf(800, 600), making(engines)), making(engines));

/** Times of moves, each against its bar in ms. */
function againstBar(times: readonly number[], bar: number): Measured {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number) => sorted[Math.floor(sorted.length * share)] / bar;
  return {
    ours: median(times),
    reference: bar,
    ratio: median(times) / bar,
    low: at(0.25),
    high: at(0.75),
    turns: times.length,
  };
}
/** A node of a path of 2,000 pieces dragged, its line dashed and drawn as by a hand: all of a move but the drawing. */
export async function wobbleBench(engines: Engines): Promise<Measured> {
  const b = start(engines, 'Rope');
  const path: number[] = [0, 20, 300];
  for (let i = 1; i <= 2000; i++) {
    const [x, y] = [20 + i * 0.38, 300 + 120 * Math.sin(i / 40)];
    path.push(2, x - 0.25, y - 0.7, x - 0.12, y + 0.7, x, y);
  }
  const id = b.path('Rope', path, {
    outline: {
      ...outlineOf(black, 3),
      cap: 'round',
      dashes: [12, 8],
      wobble: { strength: 1.2, wave: 18, passes: 1, seed: 4 },
    },
  });
  b.place(0, [id]);
  const design = b.done();
  await prepare(engines, design);
  const k = 1 + 7 * 1000 + 5;
  return againstBar(
    await atFullPace(40, 10, (turn) => {
      const moved = tryOut(design, (d) => {
        const node = d.nodes[id];
        if (node.kind !== 'path') return;
        node.path = path.map((v, i) => (i === k || i === k + 1 ? v + turn : v));
      });
      engines.builder.build(moved, moved.pages[0]);
    }),
    16,
  );
}

/** A word of 12 letters pushed back, its way dragged: all of a move but the drawing. */
export async function depthBench(engines: Engines): Promise<Measured> {
  const b = start(engines, 'Word');
  const id = b.displayText('Word', 40, 300, [
    { align: 'left', leading: 1, runs: [runOf('Lanternlight', 110, black, 'archivo-800')] },
  ]);
  b.place(0, [id]);
  const flatDesign = b.done();
  await prepare(engines, flatDesign);
  const design = tryOut(flatDesign, (d) => setDepth(d, [id], {}, () => newDepth(flatDesign, 100)));
  return againstBar(
    await atFullPace(40, 10, (turn) => {
      const moved = tryOut(design, (d) => setDepth(d, [id], { angle: 40 + turn, length: 30 + turn / 2 }));
      engines.builder.build(moved, moved.pages[0]);
    }),
    16,
  );
}

/** What 40 circles enclose, found anew after one of them has moved; and which of the areas lies below a pointer. */
export async function regionsBench(
  engines: Engines,
): Promise<{ readonly find: Measured; readonly hover: Measured; readonly areas: number }> {
  const b = start(engines, 'Rings');
  let seed = 5;
  const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  const rings = Array.from({ length: 40 }, (_, i) => {
    const size = 60 + random() * 240;
    return b.shape(
      `Ring ${i}`,
      'ellipse',
      { x: random() * 500, y: random() * 360, w: size, h: size },
      { outline: outlineOf(black, 1) },
    );
  });
  b.place(0, rings);
  const plain = b.done();
  await prepare(engines, plain);
  let group = '';
  const design = tryOut(plain, (d) => void (group = makeRegions(d, plain.pages[0], rings, engines.env.newId)!));
  const of = (d: Design) => regionsIn(d, d.nodes[group] as NodeOf<'group'>, engines.fonts);
  const find = await atFullPace(15, 3, (turn) => {
    of(
      tryOut(design, (d) => {
        d.nodes[group] = { ...d.nodes[group], children: [...rings] } as never;
        (d.nodes[rings[0]].transform as number[])[4] += turn + 4;
      }),
    );
  });
  const { faces } = of(design);
  const hover = await atFullPace(200, 20, (turn) => {
    const p = { x: 20 + ((turn * 37) % 700), y: 20 + ((turn * 53) % 500) };
    faces.findIndex((f) => pathContains(f.polygon, 'evenOdd', p));
  });
  return { find: againstBar(find, 1000), hover: againstBar(hover, 8), areas: faces.length };
}
