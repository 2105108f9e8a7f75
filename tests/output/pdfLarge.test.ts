import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { openPicture } from '@/core/input/picture/read';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import type { Design, Page } from '@/core/model/schema';
import { PictureSource, PixelRoom } from '@/core/pictures/source';
import { QUIET } from '@/core/output/job';
import { sendPdf, writePdf } from '@/core/output/pdf/write';
import { prepare } from '@/core/engines';
import type { Scene } from '@/core/scene/scene';
import { DesignBuilder, flat } from '@/demo/builder';
import { checkX4 } from '../support/checkX4';
import { testEngines } from '../support/engines';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { pdfOf, platesOf } from '../support/press';
import { tool, unpacked, words } from '../support/qpdf';
import { drawnBy, pictureOf, shopWith } from '../support/pictures';
import { cmyk, making } from '../support/sample';

/** The same JPEG with remarks (COM, ITU T.81 B.2.4.5) that make it large, and a file of its own. */
function padded(jpeg: Uint8Array, n: number, bytes: number): Uint8Array {
  const segments: Uint8Array[] = [];
  for (let left = bytes; left > 0; left -= 65_000) {
    const remark = new Uint8Array(65_004).fill(n);
    remark.set([0xff, 0xfe, 65_002 >> 8, 65_002 & 255]);
    segments.push(remark);
  }
  return Uint8Array.from(Buffer.concat([jpeg.subarray(0, 2), ...segments, jpeg.subarray(2)]));
}

test('pictures go out one by one: none is asked for before the one before it has left, and the file is the same', async () => {
  const files = new Map<string, Uint8Array>();
  const shop = await shopWith(files);
  const b = new DesignBuilder(newDesign('Album', setupOf(120, 80, { bleed: 0 }), making), making);
  const jpeg = drawnBy('jpeg');
  for (let i = 0; i < 5; i++) {
    const picture = b.picture(await pictureOf(padded(jpeg, i + 1, 1_300_000), 'jpg', files, `Boats ${i}`));
    b.place(i, [
      b.shape(
        `Boats ${i}`,
        'rectangle',
        { x: 0, y: 0, w: 120, h: 80 },
        { fill: { kind: 'picture', picture, geometry: [120, 0, 0, 80, 0, 0], overprint: false } },
      ),
    ]);
  }
  const design = b.done();
  const palette = await prepare(shop, design);
  const options = { marks: true, keepRgb: true };
  const told: string[] = [];
  const pieces: Uint8Array[] = [];
  let held = 0;
  const env = {
    ...shop.env,
    asset: async (file: string) => {
      if (file.startsWith('pictures/')) told.push('asked');
      return shop.env.asset(file);
    },
  };
  await sendPdf(
    (piece) => {
      if (piece.length > 1_000_000) told.push('left');
      held = Math.max(held, piece.length);
      pieces.push(piece.slice());
    },
    design,
    design.pages,
    shop.builder,
    palette,
    env,
    options,
    QUIET,
  );
  expect(told).toEqual(Array.from({ length: 5 }, () => ['asked', 'left']).flat());
  // No piece holds two pictures.
  expect(held).toBeLessThan(2 * 1_300_000);
  const whole = await writePdf(design, design.pages, shop.builder, palette, shop.env, options, QUIET);
  expect(Buffer.concat(pieces).equals(Buffer.from(whole))).toBe(true);
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'holvet-large-')), 'album.pdf');
  writeFileSync(file, whole);
  const { status, stdout } = spawnSync('qpdf', ['--check', file], { encoding: 'utf8' });
  expect([status, /WARNING/.test(stdout)]).toEqual([0, false]);
});

test('a picture whose pixels were let go of is opened from bytes that are read once more', async () => {
  const bytes = drawnBy('jpeg', { dpi: 300 });
  const shop = await shopWith(new Map());
  let reads = 0;
  const { pixels, again } = await openPicture(bytes, shop.env, () => {
    reads++;
    return bytes;
  });
  // Room for nothing: what is large is let go of when the next comes.
  const room = new PixelRoom(1);
  const one = new PictureSource(pixels, again, room);
  const first = one.full.data.slice();
  expect(reads).toBe(0);
  new PictureSource((await openPicture(bytes, shop.env)).pixels, () => pixels, room);
  expect(Buffer.from(one.full.data).equals(Buffer.from(first))).toBe(true);
  expect(reads).toBe(1);
});

describe('many pages', () => {
  const COUNT = 70;
  const walk = (): Design => {
    const b = new DesignBuilder(newDesign('Guide', setupOf(200, 120, { bleed: 0 }), making), making);
    for (let i = 0; i < COUNT; i++)
      b.place(i, [
        b.shape('Ground', 'rectangle', { x: 0, y: 0, w: 200, h: 120 }, { fill: flat(cmyk(i, 20, 40, 0)) }),
        b.group(
          'Marks',
          [0, 1].map((k) =>
            b.shape('Star', 'star', { x: 10 + 60 * k, y: 60, w: 40, h: 40 }, { fill: flat(cmyk(0, 60, 80, 0)) }),
          ),
        ),
        b.textFrame('Words', { x: 10, y: 10, w: 180, h: 40 }, [
          { align: 'left', leading: 1.2, runs: [runOf(`Page ${i + 1} of the walk`, 12, flat(cmyk(0, 0, 0, 100)))] },
        ]),
      ]);
    return b.done();
  };

  test('each is as it would be alone; its words are found', async () => {
    const engines = await testEngines();
    const design = walk();
    const pdf = await pdfOf(engines, design);
    // The first, the first of the second lot, the last.
    const shown = [0, 32, 69];
    const plates = separate(pdf, 300, [`-sPageList=${shown.map((i) => i + 1).join()}`]);
    for (const [k, page] of shown.entries())
      expect(faults(await platesOf(engines, design, 300, page), plates[k])).toEqual([]);
    const found = words(pdf);
    for (let i = 0; i < COUNT; i++) expect(found).toContain(`Page ${i + 1} of the walk`);
  });

  test('tagged and in layers: each page has its own layer, is read aloud in its turn, and prints as it would', async () => {
    const engines = await testEngines();
    const plain = walk();
    const nodes = Object.fromEntries(
      Object.entries(plain.nodes).map(([id, n]) => [
        id,
        n.kind === 'group' ? { ...n, layer: true } : n.name === 'Star' ? { ...n, alt: `A star of ${id}` } : n,
      ]),
    ) as Design['nodes'];
    const design = { ...plain, nodes };
    const pdf = await pdfOf(engines, design, { tagged: true, layers: true });
    expect(await checkX4(pdf)).toEqual([]);
    const said = tool('pdfinfo', pdf, '-struct-text', 'FILE');
    for (let i = 0; i < COUNT; i++) expect(said).toContain(`Page ${i + 1} of the walk`);
    expect(said.match(/^\s*Figure/gm)).toHaveLength(2 * COUNT);
    const text = unpacked(pdf);
    expect(text.match(/\/Type \/OCG\b/g)).toHaveLength(COUNT);
    expect(text.match(/^EMC$/gm)).toHaveLength(text.match(/ (BDC|BMC)$/gm)!.length);
    const parents = [...text.matchAll(/\/StructParents (\d+)/g)].map((m) => Number(m[1]));
    expect([parents.length, new Set(parents).size]).toEqual([COUNT, COUNT]);
    const [theirs] = separate(pdf, 300, ['-sPageList=34']);
    expect(faults(await platesOf(engines, design, 300, 33), theirs)).toEqual([]);
  });

  test('what was worked out for pages that have gone out is let go of', async () => {
    setFlagsFromString('--expose-gc');
    const gc = runInNewContext('gc') as () => void;
    const engines = await testEngines();
    const design = walk();
    const scenes: WeakRef<Scene>[] = [];
    const watched = Object.assign(Object.create(engines.builder) as typeof engines.builder, {
      build(d: Design, page: Page): Scene {
        const scene = engines.builder.build(d, page);
        scenes.push(new WeakRef(scene));
        return scene;
      },
    });
    const palette = await prepare(engines, design);
    let alive = 0;
    const job = {
      step(done: number, total: number) {
        if (done !== total) return;
        gc();
        alive = scenes.filter((s) => s.deref()).length;
      },
    };
    await sendPdf(() => {}, design, design.pages, watched, palette, engines.env, { marks: false }, job);
    expect(scenes.length).toBeGreaterThan(COUNT);
    // Of the last lot, not of all.
    expect(alive).toBeLessThanOrEqual(64);
    expect(alive).toBeLessThan(scenes.length / 2);
  });
});
