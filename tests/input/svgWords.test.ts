import { Resvg } from '@resvg/resvg-js';
import { readFileSync } from 'node:fs';
import { pasteClip } from '@/core/edit/clip';
import { tryOut } from '@/core/edit/history';
import { unionAll, type Rect } from '@/core/geometry/rect';
import { readSvg } from '@/core/input/svg/read';
import { newDesign, setupOf } from '@/core/model/defaults';
import { making } from '../support/sample';
import { random } from '../support/random';
import { testEngines } from '../support/engines';
import { leavesOf } from '../support/scenes';
import { FULL } from '../support/measured';

const FONT = 'public/fonts/archivo-400.ttf';
const doc = (text: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="600" height="200" font-family="Archivo" font-size="24">${text}</svg>`;

/** The ink's box in pixels, from our scene and from resvg (Mozilla's SVG reader and drawer in Rust). */
async function boxes(text: string): Promise<{ ours: Rect; theirs: Rect }> {
  const engines = await testEngines();
  const { clip } = await readSvg(new TextEncoder().encode(doc(text)), 'words', {
    ...engines.env,
    fonts: engines.fonts,
  });
  let design = newDesign('Words', setupOf(450, 150, { bleed: 0 }), making);
  design = tryOut(design, (d) => void pasteClip(d, d.pages[0].id, clip, engines.env.newId, [1, 0, 0, 1, 0, 0]));
  const found = unionAll(leavesOf(engines.builder.build(design, design.pages[0])).map((i) => i.inkBounds));
  const k = 96 / 72;
  const drawn = new Resvg(doc(text), {
    font: { fontFiles: [FONT], loadSystemFonts: false, defaultFontFamily: 'Archivo' },
  }).getBBox()!;
  return {
    ours: { x0: found.x0 * k, y0: found.y0 * k, x1: found.x1 * k, y1: found.y1 * k },
    theirs: { x0: drawn.x, y0: drawn.y, x1: drawn.x + drawn.width, y1: drawn.y + drawn.height },
  };
}

async function agree(text: string): Promise<void> {
  const { ours, theirs } = await boxes(text);
  const off = (['x0', 'y0', 'x1', 'y1'] as const).map((k) => Math.abs(ours[k] - theirs[k]));
  if (Math.max(...off) > 0.6) throw new Error(`${text}\nours ${JSON.stringify(ours)}\nresvg ${JSON.stringify(theirs)}`);
}

beforeAll(() => readFileSync(FONT));

test.each([
  ['a span first: its place is the text’s', '<text x="20" y="30"><tspan>Alpha</tspan></text>'],
  ['a span with a place of its own', '<text x="20" y="30"><tspan x="120" y="90">Alpha</tspan></text>'],
  ['a list that runs on through spans', '<text x="20 50 80 110 140" y="40">A<tspan>BC</tspan><tspan>D</tspan>E</text>'],
  ['a list in a span over one outside', '<text x="20 50 80 110 140" y="40">A<tspan x="300">BC</tspan>DE</text>'],
  [
    'shifts after each other',
    '<text x="20" y="60">Quay<tspan dy="20">s</tspan><tspan dx="10" dy="-30">and <tspan dx="4 4 4">walks</tspan></tspan></text>',
  ],
  [
    'the middle of all spans',
    '<text x="300" y="60" text-anchor="middle">Quay <tspan fill="red">and</tspan> walk</text>',
  ],
  ['the end of two chunks', '<text x="300" y="60" text-anchor="end">Quay<tspan x="500" y="120">lantern</tspan></text>'],
  ['spaces between spans', '<text x="20" y="60">  Quay  <tspan>  and </tspan>  <tspan>walk </tspan></text>'],
  [
    'words that go on after a middle one',
    '<text x="20" y="60">Marrowick</text><text y="90"><tspan x="40">One</tspan><tspan dy="24">two</tspan></text>',
  ],
  [
    'letters turned, the last turn for all that follow',
    '<text x="60" y="90" rotate="0 30 60">Quays<tspan rotate="-20">ide</tspan></text>',
  ],
  ['letters in a list turned', '<text x="60 100 140" y="90" rotate="45">Qua</text>'],
])('%s', async (_, text) => agree(text));

test('random nested spans lie where resvg lays them', async () => {
  const next = random(11);
  const n = (most: number) => Math.floor(next() * most);
  const list = (most: number, from: number, to: number) =>
    Array.from({ length: 1 + n(most) }, () => from + n(to - from)).join(' ');
  const words = ['Quay', 'lamp', 'Wick', 'tide', 'A', 'glow'];
  const attributes = (chance: number) =>
    [
      next() < chance ? ` x="${list(4, 40, 500)}"` : '',
      next() < chance ? ` y="${list(3, 40, 160)}"` : '',
      next() < chance ? ` dx="${list(3, 0, 12)}"` : '',
      next() < chance ? ` dy="${list(3, -10, 10)}"` : '',
      next() < chance / 2 ? ` rotate="${list(3, -40, 40)}"` : '',
    ].join('');
  const span = (depth: number): string => `<tspan${attributes(0.3)}>${content(depth + 1)}</tspan>`;
  const content = (depth: number): string =>
    Array.from({ length: 1 + n(3) }, () =>
      depth < 3 && next() < 0.5 ? span(depth) : `${words[n(words.length)]}${next() < 0.3 ? ' ' : ''}`,
    ).join('');
  for (let i = 0; i < (FULL ? 120 : 10); i++)
    await agree(`<text x="60" y="100"${attributes(0.25).replace(/ [xy]="[^"]*"/g, '')}>${content(0)}</text>`);
}, 300_000);
