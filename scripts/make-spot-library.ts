// Writes src/core/colour/spotLibrary.ts: the invented library "Marrowick Tins". An ink's number is its lightness and
// hue. Lab comes from a grid over hue and lightness; the stand-in recipe from the coated profile, rounded to whole
// percents.
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { ColourEngine } from '../src/core/colour/icc';
import { nodeEnv } from '../src/env/node';

const root = path.resolve(process.cwd());
const env = nodeEnv(path.join(root, 'public'));

/** Written in the plan by hand, with their stand-ins. */
const FIXED: [string, [number, number, number], [number, number, number, number]][] = [
  ['Ember', [66, 62, 58], [0, 68, 88, 0]],
  ['Kelp', [38, -34, 8], [88, 28, 72, 18]],
  ['Pewter', [62, -1, -3], [18, 12, 12, 40]],
  ['Taper', [90, -2, 46], [4, 6, 56, 0]],
];

/** Name, lightness, hue, chroma. */
const GRID: [string, number, number, number][] = [
  ['Rosehip', 46, 24, 68],
  ['Coral Rope', 68, 32, 58],
  ['Brick Quay', 42, 38, 48],
  ['Flare', 60, 40, 92],
  ['Salmon Net', 78, 44, 34],
  ['Rust Chain', 40, 50, 44],
  ['Lantern Oil', 72, 62, 82],
  ['Fox', 54, 58, 62],
  ['Apricot', 82, 68, 46],
  ['Tallow', 92, 84, 22],
  ['Beeswax', 80, 76, 64],
  ['Brass', 62, 78, 46],
  ['Gorse', 86, 88, 92],
  ['Straw', 88, 90, 50],
  ['Ochre Sail', 68, 82, 60],
  ['Primrose', 94, 100, 40],
  ['Lemon Rind', 92, 98, 96],
  ['Moss', 50, 112, 44],
  ['Samphire', 70, 118, 58],
  ['Lichen', 80, 122, 30],
  ['Reed', 58, 128, 38],
  ['Ivy', 34, 136, 32],
  ['Fern', 52, 140, 56],
  ['Mint Rope', 84, 150, 28],
  ['Bottle', 36, 156, 40],
  ['Jade Float', 60, 162, 48],
  ['Sea Glass', 78, 172, 30],
  ['Harbour', 44, 184, 34],
  ['Shoal', 66, 192, 36],
  ['Verdigris', 56, 200, 30],
  ['Lagoon', 54, 214, 42],
  ['Spray', 84, 218, 18],
  ['Petrol', 32, 224, 26],
  ['Heron', 64, 236, 24],
  ['Tide', 50, 242, 44],
  ['Skylark', 74, 248, 30],
  ['Mussel', 28, 264, 30],
  ['Slate Blue', 44, 268, 34],
  ['Deep Sound', 26, 284, 58],
  ['Cornflower', 54, 282, 52],
  ['Night Watch', 20, 292, 36],
  ['Iris', 42, 300, 58],
  ['Heather', 64, 310, 32],
  ['Plum Skin', 28, 318, 40],
  ['Foxglove', 54, 328, 58],
  ['Damson', 30, 336, 36],
  ['Sea Pink', 74, 346, 38],
  ['Mallow', 50, 350, 64],
  ['Beetroot', 34, 2, 48],
  ['Thrift', 64, 6, 56],
  ['Shell', 88, 22, 14],
  ['Poppy', 52, 30, 82],
  ['Chalk Dust', 92, 96, 4],
  ['Oyster', 78, 92, 8],
  ['Gull', 70, 260, 5],
  ['Graphite', 36, 270, 4],
  ['Tar', 14, 40, 3],
  ['Peat', 26, 66, 14],
  ['Driftwood', 60, 72, 16],
];

const engine = await ColourEngine.load(env);
const toCmyk = engine.transform(engine.lab(), engine.open(await env.asset('icc/coated-tr006.icc')), false);
const rows = FIXED.map(([word, lab, alternate]) => ({ word, lab, alternate: alternate.map((v) => v / 100) }));
for (const [word, l, hue, chroma] of GRID) {
  const lab = [
    l,
    Math.round(chroma * Math.cos((hue * Math.PI) / 180)),
    Math.round(chroma * Math.sin((hue * Math.PI) / 180)),
  ] as [number, number, number];
  const alternate = [...toCmyk(Float32Array.from(lab))].map((v) => Math.round(v) / 100);
  rows.push({ word, lab, alternate });
}
const named = rows.map((r) => {
  const hue = Math.round(((Math.atan2(r.lab[2], r.lab[1]) * 180) / Math.PI + 360) % 360);
  return { name: `${r.word} ${r.lab[0]}-${hue}`, lab: r.lab, alternate: r.alternate };
});
const lines = named.map(
  (r) =>
    `  { name: '${r.name}', lab: [${r.lab.join(', ')}], alternate: [${r.alternate.map((v) => Number(v.toFixed(2))).join(', ')}] },`,
);
writeFileSync(
  path.join(root, 'src/core/colour/spotLibrary.ts'),
  `import type { Ink } from '../model/schema';

/** “Marrowick Tins”, an invented library: the number is lightness and hue. Made by scripts/make-spot-library.ts. */
export const SPOT_LIBRARY: readonly Omit<Ink, 'id'>[] = [
${lines.join('\n')}
];

/** Inks whose words or number begin with what is typed: all of them for an empty search. */
export function findSpots(query: string): readonly Omit<Ink, 'id'>[] {
  const wanted = query.trim().toLowerCase().split(/\\s+/).filter(Boolean);
  return SPOT_LIBRARY.filter((ink) => {
    const words = ink.name.toLowerCase().split(/[\\s-]+/);
    return wanted.every((w) => words.some((x) => x.startsWith(w)) || ink.name.toLowerCase().split(' ').some((x) => x.startsWith(w)));
  });
}
`,
);
console.log(`${named.length} inks`);
