import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { designOfClip } from '@/core/edit/clip';
import { readSvg } from '@/core/input/svg/read';
import { SvgProblem } from '@/core/input/svg/xml';
import { verifyDesign } from '@/core/model/verify';
import { testEngines } from '../support/engines';

const svg = (x: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100" height="100">${x}</svg>`;
const doubled = (part: (i: number, inner: string) => string, first: string) =>
  svg(
    `<defs>${first}${Array.from({ length: 30 }, (_, i) => part(i + 1, `<use xlink:href="#u${i}"/><use xlink:href="#u${i}" x="1"/>`)).join('')}</defs><use xlink:href="#u30"/>`,
  );
const box = '<rect width="5" height="5"/>';

/** What a drawing that was made to hang or to break its reader comes to: objects, or a sentence. */
async function outcome(text: string | Uint8Array): Promise<{ objects: number; notes: readonly string[] } | string> {
  const engines = await testEngines();
  try {
    const { clip, notes } = await readSvg(typeof text === 'string' ? new TextEncoder().encode(text) : text, 'hostile', {
      ...engines.env,
      fonts: engines.fonts,
    });
    // Whatever is placed can be opened again.
    expect(verifyDesign(designOfClip(clip)).ok).toBe(true);
    return { objects: Object.keys(clip.nodes).length, notes };
  } catch (e) {
    if (!(e instanceof SvgProblem)) throw e;
    return e.message;
  }
}

describe('drawings made to hang are refused in a sentence, or read in part', () => {
  test.each([
    [
      'empty groups doubled thirty times',
      doubled((i, inner) => `<g id="u${i}">${inner}</g>`, '<g id="u0"/>'),
      /repeats parts of itself more than/,
    ],
    [
      'empty symbols doubled thirty times',
      doubled((i, inner) => `<symbol id="u${i}">${inner}</symbol>`, '<symbol id="u0"/>'),
      /repeats parts of itself more than/,
    ],
    [
      'patterns in patterns',
      svg(
        `<defs>${Array.from({ length: 12 }, (_, i) => `<pattern id="p${i}" width="1" height="1" patternUnits="userSpaceOnUse"><rect width="9" height="9" fill="url(#p${i + 1})"/><rect width="9" height="9" fill="url(#p${i + 1})"/></pattern>`).join('')}</defs><rect width="99" height="99" fill="url(#p0)"/>`,
      ),
      null,
    ],
    ['a doctype begun 200,000 times', '<!DOCTYPE '.repeat(200_000), /damaged/],
    ['an entity begun 100,000 times', `<!DOCTYPE svg [${'<!ENTITY a "'.repeat(100_000)}]>${svg(box)}`, null],
    [
      '20,000 rules that all must be asked',
      svg(
        `<style>${Array.from({ length: 20_000 }, (_, i) => `[a${i}]{fill:red}`).join('')}</style>${box.repeat(5000)}`,
      ),
      /style rules and parts come to too many/,
    ],
    [
      'chains of siblings',
      svg(`<style>rect ~ rect ~ rect ~ circle{fill:red}</style>${box.repeat(3000)}${'<circle r="3"/>'.repeat(3000)}`),
      null,
    ],
    ['more shapes than a page bears', svg(box.repeat(70_000)), /more than 60000 objects/],
  ] as const)('%s', async (_, text, says) => {
    const found = await outcome(text);
    if (says) expect(found).toMatch(says);
    else expect(typeof found === 'string' || found.objects > 0).toBe(true);
  });

  test('two megabytes of words: as many as can be set, and the rest is said', async () => {
    expect(await outcome(svg(`<text y="20">${'lantern '.repeat(250_000)}</text>`))).toMatchObject({
      objects: 2,
      notes: [expect.stringMatching(/^Words beyond the first 200000 letters/)],
    });
  });

  test('a style sheet of 20,000 classes is read: rules are found by what they ask for', async () => {
    expect(
      await outcome(
        svg(
          `<style>${Array.from({ length: 20_000 }, (_, i) => `.c${i}{fill:red}`).join('')}</style>${'<rect class="c9 c8" width="5" height="5"/>'.repeat(2000)}`,
        ),
      ),
    ).toMatchObject({ objects: 2001 });
  });
});

describe('what no page can hold is left out, and said', () => {
  test.each([
    [
      'a line of 100,000 units',
      `<rect width="5" height="5" stroke="red" stroke-width="100000"/>${box}`,
      /outline of “Rectangle” would be wider than 20 m/,
    ],
    [
      'a gradient from afar',
      `<linearGradient id="a" gradientUnits="userSpaceOnUse" x2="100000"><stop stop-color="red"/><stop offset="1"/></linearGradient><rect width="5" height="5" fill="url(#a)"/>`,
      /gradient or picture of “Rectangle”/,
    ],
    [
      'a path of two million numbers',
      `<path d="M0 0${' 1 1'.repeat(1_000_000)}"/>${box}`,
      /“Path”: its line: it has more than 2000000 parts/,
    ],
    [
      'a thing a kilometre wide',
      `<rect width="99999999" height="5"/>${box}`,
      /“Rectangle” would lie or reach further than 20 m/,
    ],
    ['groups 390 deep', `${'<g>'.repeat(390)}${box}${'</g>'.repeat(390)}${box}`, /more than 60 groups deep/],
  ])('%s', async (_, inner, says) => {
    const found = await outcome(svg(inner));
    if (typeof found === 'string') throw new Error(found);
    expect(found.notes.join(' ')).toMatch(says);
    expect(found.objects).toBeGreaterThan(1);
  });
});

test.each(['deep-704', 'deep-group', 'hang-12', 'hang-13', 'tt1', 'tt5'])(
  'the drawing that was a fault once: %s',
  async (name) => {
    const found = await outcome(new Uint8Array(readFileSync(`tests/data/hostile/${name}.svg`)));
    if (name.startsWith('hang')) expect(found).toMatch(/repeats parts of itself/);
    else expect(found).toMatchObject({ objects: expect.any(Number) });
  },
);

test('packed to a hundredth: what it unpacks to counts', async () => {
  const bomb = new Uint8Array(gzipSync(Buffer.from(svg(`<!--${' '.repeat(70 * 1024 * 1024)}-->`))));
  expect(await outcome(bomb)).toMatch(/too large once it is unpacked/);
});
