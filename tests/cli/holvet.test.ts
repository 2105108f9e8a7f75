import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { decode, encode } from 'fast-png';
import { unpackDesign, packDesign } from '@/core/file/archive';
import { tryOut } from '@/core/edit/history';
import { assetName } from '@/core/file/assets';
import { colourPaint, newDesign, setupOf } from '@/core/model/defaults';
import { DesignBuilder } from '@/demo/builder';
import { making } from '../support/sample';
import { demoDesigns } from '@/demo/demos';
import { FULL } from '../support/measured';

const bin = path.resolve(import.meta.dirname, '../../bin/holvet');
let dir: string;
const at = (name: string) => path.join(dir, name);
const holvet = (...args: string[]) => spawnSync('bash', [bin, ...args], { encoding: 'utf8', cwd: dir });
const ok = (...args: string[]) => {
  const r = holvet(...args);
  if (r.status !== 0) throw new Error(r.stderr);
  return r.stdout;
};

beforeAll(() => {
  dir = mkdtempSync(path.join(tmpdir(), 'holvet-cli-'));
  ok('demo', '.');
}, 60_000);
afterAll(() => rmSync(dir, { recursive: true, force: true }));

test('demo writes designs that open, with a thumbnail', () => {
  const opened = unpackDesign(new Uint8Array(readFileSync(at('lantern-walk-poster.holvet'))));
  if (!opened.ok) throw new Error(opened.code);
  expect(opened.design.name).toBe('Lantern Walk poster');
  expect(decode(opened.thumbnail!).height).toBe(320);
});

test('pdf, svg and png', () => {
  ok('pdf', 'lantern-walk-poster.holvet', 'out/poster.pdf');
  expect(readFileSync(at('out/poster.pdf')).subarray(0, 8).toString()).toBe('%PDF-1.6');
  ok('svg', 'guild-letterhead.holvet', 'letter.svg', '--page', '1');
  expect(readFileSync(at('letter.svg'), 'utf8')).toMatch(/^<svg [^>]*viewBox="0 0 595\.276 841\.89"/);
  ok('png', 'guild-letterhead.holvet', 'letter.png', '--dpi', '20');
  const png = decode(readFileSync(at('letter.png')));
  expect([png.width, png.height]).toEqual([165, 234]);
});

test('a picture that came in the file is in the PNG; without it the checks say so', async () => {
  const bytes = encode({ width: 4, height: 4, data: new Uint8Array(48).fill(20), channels: 3, depth: 8 });
  const file = await assetName(bytes, 'png');
  const b = new DesignBuilder(newDesign('Pictured', setupOf(100, 100, { bleed: 0 }), making), making);
  const picture = b.picture({ name: 'Dark', file, width: 4, height: 4, space: 'rgb' });
  b.place(0, [
    b.shape(
      'Frame',
      'rectangle',
      { x: 0, y: 0, w: 100, h: 100 },
      { fill: { kind: 'picture', picture, geometry: [100, 0, 0, 100, 0, 0], overprint: false } },
    ),
  ]);
  writeFileSync(at('pictured.holvet'), packDesign(b.done(), null, new Map([[file, bytes]])));
  writeFileSync(at('without.holvet'), packDesign(b.done(), null));
  ok('png', 'pictured.holvet', 'pictured.png', '--dpi', '36');
  expect(decode(readFileSync(at('pictured.png'))).data[0]).toBeLessThan(90);
  const codes = (name: string) => (JSON.parse(ok('check', name)) as { code: string }[]).map((f) => f.code);
  expect(codes('pictured.holvet')).toEqual(['picture.coarse']);
  expect(codes('without.holvet')).toEqual(['picture.missing', 'picture.coarse']);
});

test('plates: one grey picture an ink, and what they are', () => {
  ok('plates', 'lantern-walk-poster.holvet', 'plates', '--dpi', '20');
  const info = JSON.parse(readFileSync(at('plates/plates.json'), 'utf8')) as {
    size: { width: number; height: number };
    dpi: number;
    inks: string[];
    files: Record<string, string>;
  };
  expect(info).toMatchObject({ size: { width: 335, height: 472 }, dpi: 20 });
  expect(info.inks).toEqual(['Cyan', 'Magenta', 'Yellow', 'Black', 'Ember 66-43', 'Kelp 38-167']);
  for (const ink of info.inks) {
    const file = `${ink}.png`;
    expect(info.files[ink]).toBe(file);
    const p = decode(readFileSync(at(`plates/${file}`)));
    expect([p.width, p.height, p.channels, p.depth]).toEqual([335, 472, 1, 8]);
  }
});

test('check, info and schema print JSON', () => {
  expect(JSON.parse(ok('check', 'lantern-walk-poster.holvet'))).toEqual([]);
  expect(JSON.parse(ok('info', 'lantern-walk-poster.holvet'))).toMatchObject({
    format: 'A2',
    pages: 1,
    inks: ['Cyan', 'Magenta', 'Yellow', 'Black', 'Ember 66-43', 'Kelp 38-167'],
    fonts: ['bitter-500', 'bitter-700', 'archivo-600'],
  });
  expect(JSON.parse(ok('schema'))).toHaveProperty('properties.nodes');
});

test('check finds art without bleed, too much ink, a missing face and overset text', () => {
  const poster = demoDesigns()[0].design;
  const bad = tryOut(poster, (d) => {
    const of = (name: string) => Object.values(d.nodes).find((n) => n.name === name)!;
    const sky = of('Night sky');
    if (sky.kind === 'shape') {
      Object.assign(sky, { width: d.setup.width, height: d.setup.height });
      sky.transform = [1, 0, 0, 1, 0, 0];
    }
    const moon = of('Moon');
    if (moon.kind === 'shape') moon.fills = [colourPaint({ cmyk: [1, 1, 1, 1] }) as (typeof moon.fills)[number]];
    const date = of('Date line');
    if (date.kind === 'textFrame') {
      date.height = 40;
      d.stories[date.story].paragraphs[0].runs[0].size = 60;
    }
    const headline = of('Headline');
    if (headline.kind === 'displayText') d.stories[headline.story].paragraphs[0].runs[0].face = 'harbour-sans';
  });
  writeFileSync(at('bad.holvet'), packDesign(bad, null));
  const found = JSON.parse(ok('check', 'bad.holvet')) as {
    code: string;
    severity: string;
    page: number;
    message: string;
    facts: Record<string, unknown>;
  }[];
  expect(found.map((f) => f.code).sort()).toEqual([
    'black.mixed',
    'bleed.missing',
    'ink.tooMuch',
    'text.missingFace',
    'text.overset',
  ]);
  expect(found.find((f) => f.code === 'bleed.missing')!.message).toBe(
    'Night sky stops short of the bleed at the top and the right and the bottom and the left.',
  );
  expect(found.find((f) => f.code === 'ink.tooMuch')!.facts.total).toBeCloseTo(4, 1);
  expect(found.find((f) => f.code === 'text.missingFace')!.message).toContain('harbour sans');
});

describe('one sentence on stderr and exit 2', () => {
  test.each([
    [['pdf', 'nowhere.holvet', 'x.pdf'], 'There is no file nowhere.holvet.'],
    [['frobnicate'], '“frobnicate” is not a command. “holvet --help” lists them.'],
    [['png', 'lantern-walk-poster.holvet', 'x.png'], 'Say the resolution, for example --dpi 300.'],
    [['png', 'lantern-walk-poster.holvet', 'x.png', '--dpi', 'many'], '--dpi many is not between 1 and 2400.'],
    [
      ['png', 'lantern-walk-poster.holvet', 'x.png', '--dpi', '2400'],
      'At 2400 dpi this page has 2282 million pixels; the most is 300 million. Choose fewer dpi.',
    ],
    [['svg', 'lantern-walk-poster.holvet', 'x.svg', '--page', '3'], 'There is no page 3: the design has one page.'],
    [['pdf', 'lantern-walk-poster.holvet', 'x.pdf', '--pages', '2-9'], 'There is no page 2: the design has one page.'],
    [['pdf', 'lantern-walk-poster.holvet'], 'Say the file to write. “holvet --help” shows how.'],
    [
      ['info', 'broken.holvet'],
      'broken.holvet is cut off: its end is missing. Ask for it again or use an earlier copy.',
    ],
    [['info', 'text.holvet'], 'text.holvet is not a Holvet design.'],
  ])('%j', (args, sentence) => {
    if (!existsSync(at('broken.holvet'))) {
      writeFileSync(at('broken.holvet'), readFileSync(at('lantern-walk-poster.holvet')).subarray(0, 9000));
      writeFileSync(at('text.holvet'), 'hello');
    }
    const r = holvet(...args);
    expect([r.status, r.stderr.trim(), r.stdout]).toEqual([2, sentence, '']);
  });
});

describe('colours from a shell', () => {
  test.each(FULL ? ['txt', 'cxf', 'json'] : ['cxf'])('swatches out as .%s and into another design', (ending) => {
    ok('swatches', 'supper-ticket.holvet', `ticket.${ending}`);
    expect(ok('take', 'guild-letterhead.holvet', `ticket.${ending}`, `both-${ending}.holvet`)).toMatch(
      /^[1-9] added\.$/m,
    );
    const opened = unpackDesign(new Uint8Array(readFileSync(at(`both-${ending}.holvet`))));
    if (!opened.ok) throw new Error(opened.code);
    expect(opened.design.swatches.find((s) => s.name === 'Wick')).toMatchObject({
      kind: 'colour',
      colour: { cmyk: [0, 0.36, 0.92, 0] },
      group: 'Supper',
    });
    // The ink that both have is one ink.
    expect(opened.design.inks.map((i) => i.name).sort()).toEqual(['Ember 66-43', 'Kelp 38-167']);
  });

  test('a gradient that a format cannot hold is said; another ending is refused', () => {
    expect(holvet('swatches', 'lantern-walk-poster.holvet', 'poster.cxf').stderr).toMatch(/5 gradients are left out/);
    expect(holvet('swatches', 'supper-ticket.holvet', 'ticket.pal')).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/\.txt for CGATS/),
    });
    writeFileSync(
      at('broken.txt'),
      'CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_NAME CMYK_C CMYK_M CMYK_Y CMYK_K\nEND_DATA_FORMAT\nBEGIN_DATA\nDusk 1 2 3\nEND_DATA\n',
    );
    expect(holvet('take', 'supper-ticket.holvet', 'broken.txt', 'x.holvet')).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/^broken\.txt, line 6: 4 of 5 values/),
    });
  });

  test('a palette is lifted, the same every time; wishes that make none are refused', () => {
    const lifted = JSON.parse(ok('lift', 'supper-ticket.holvet', '--count', '4', '--for', 'farApart')) as unknown[];
    expect(lifted).toHaveLength(4);
    expect(JSON.parse(ok('lift', 'supper-ticket.holvet', '--count', '4', '--for', 'farApart'))).toEqual(lifted);
    expect(holvet('lift', 'supper-ticket.holvet', '--count', '12').stderr).toMatch(/not a number from 3 to 8/);
    expect(holvet('lift', 'supper-ticket.holvet', '--for', 'luck').stderr).toMatch(/asSeen, farApart/);
  });

  test('a design whose own paper is not inside is refused for print', () => {
    const design = {
      ...demoDesigns().find((x) => x.file === 'supper-ticket')!.design,
      profile: { file: `sha256-${'0'.repeat(64)}.icc`, name: 'Harbour news', totalInkLimit: 2.4 },
    };
    writeFileSync(at('lost.holvet'), packDesign(design, null));
    expect(holvet('pdf', 'lost.holvet', 'lost.pdf')).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/profile “Harbour news” is not inside lost\.holvet/),
    });
    writeFileSync(
      at('damaged.holvet'),
      packDesign(design, null, new Map([[design.profile.file, Uint8Array.of(1, 2, 3)]])),
    );
    expect(holvet('info', 'damaged.holvet').stderr).toMatch(/damaged: what is inside under assets/);
  });
});

test('a drawing and a picture open as designs of their size; what could not be kept is on stdout', () => {
  writeFileSync(
    at('mark.svg'),
    '<svg xmlns="http://www.w3.org/2000/svg" width="96" height="48"><script>1</script><rect width="96" height="48" fill="#a00"/><text x="4" y="30">Quay</text></svg>',
  );
  const said = JSON.parse(ok('open', 'mark.svg', 'mark.holvet')) as {
    objects: number;
    width: string;
    notKept: string[];
  };
  expect(said).toMatchObject({
    objects: 3,
    width: '25.4 mm',
    notKept: expect.arrayContaining(['Scripts are left out.']),
  });
  const info = JSON.parse(ok('info', 'mark.holvet')) as { size: string };
  expect(info.size).toBe('25.4 mm × 12.7 mm');
  ok('png', 'mark.holvet', 'mark.png', '--dpi', '96', '--transparent');
  const png = decode(readFileSync(at('mark.png')));
  expect([png.width, png.height, png.channels, png.data[3]]).toEqual([96, 48, 4, 255]);
  writeFileSync(
    at('tiny.png'),
    encode({ width: 30, height: 20, data: new Uint8Array(30 * 20 * 3).fill(40), channels: 3, depth: 8 }),
  );
  expect(JSON.parse(ok('open', 'tiny.png', 'tiny.holvet'))).toMatchObject({ objects: 1, notKept: [] });
  ok('pdf', 'tiny.holvet', 'tiny.pdf');
  for (const [file, says] of [
    ['gone.svg', /There is no file/],
    ['lantern-walk-poster.holvet', /cannot be opened/],
  ] as const) {
    const r = holvet('open', file, 'x.holvet');
    expect([r.status, says.test(r.stderr)]).toEqual([2, true]);
  }
});
