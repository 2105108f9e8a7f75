import { encode } from 'fast-png';
import { sampleTool, sampleWithPictures } from '@/bench/tools/sample';
import { selectTool } from '@/bench/tools/select';
import { cropGrips, cropTool, cropped, panPicture, zoomPicture } from '@/bench/tools/crop';
import { beginCrop, endCrop } from '@/bench/tools/cropping';
import {
  chosenFrame,
  framePicture,
  frameUnder,
  openPicture,
  placeDrawing,
  placePicture,
  receiveFiles,
  relink,
  replacePicture,
} from '@/bench/commands/pictures';
import { isDrawing } from '@/core/input/isDrawing';
import { PictureLooks } from '@/bench/session/pictureLooks';
import type { BenchState } from '@/bench/session/state';
import { runCommand } from '@/bench/commands/commands';
import { copySelection, pasteFrom } from '@/bench/commands/copyPaste';
import { parseClip, type Clip } from '@/core/edit/clip';
import { clipOf } from '../support/clips';
import { effectivePpi, picturesUsed } from '@/core/edit/picture';
import { checkDesign } from '@/core/check/check';
import { gatherPictures } from '@/core/output/gather';
import { multiply } from '@/core/geometry/matrix';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design, NodeOf, PicturePaint, Tone } from '@/core/model/schema';
import type { Bitmap } from '@/core/render/bitmap';
import type { Palette } from '@/core/colour/palette';
import { paletteOf } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { unzipSync } from 'fflate';
import { openBench, type TestBench } from '../support/bench';
import { cmyk, making } from '../support/sample';

const png = (w: number, h: number, shade = 90) =>
  encode({ width: w, height: h, data: new Uint8Array(w * h * 3).fill(shade), channels: 3, depth: 8 });
const file = (name: string, bytes: Uint8Array) => new File([bytes as BlobPart], name);

/** A page with a ground, a star and a text. */
function page(): Design {
  const b = new DesignBuilder(newDesign('Pictures', setupOf(600, 400, { bleed: 0 }), making), making);
  b.place(0, [
    b.shape('Ground', 'rectangle', { x: 0, y: 0, w: 600, h: 400 }, { fill: flat(cmyk(20, 0, 0, 0)) }),
    b.shape('Star', 'star', { x: 50, y: 50, w: 200, h: 200 }, { fill: flat(cmyk(0, 60, 60, 0)) }),
    b.displayText('Words', 320, 300, [
      {
        align: 'left',
        leading: 1,
        runs: [
          { text: 'Quay', face: 'archivo-800', size: 80, tracking: 0, fill: flat(cmyk(0, 0, 0, 100)), outline: null },
        ],
      },
    ]),
  ]);
  return b.done();
}
const named = (b: TestBench, name: string) => Object.values(b.session.design.nodes).find((n) => n.name === name)!;
const paintOf = (b: TestBench, name: string) => (named(b, name) as NodeOf<'shape'>).fills[0] as PicturePaint;

describe('placing', () => {
  test('a file becomes a frame of its own: its size, its middle where it was let go, undone in one step', async () => {
    const b = await openBench(page());
    await receiveFiles(b.session, [file('boats.png', png(300, 150))], { x: 400, y: 100 }, null);
    expect(named(b, 'boats')).toMatchObject({ kind: 'shape', width: 72, height: 36, transform: [1, 0, 0, 1, 364, 82] });
    expect(b.session.state.message!.text).toMatch(/Placed boats/);
    expect(b.session.design.pictures).toHaveLength(1);
    b.session.undo();
    expect(b.session.design.pictures ?? []).toHaveLength(0);
  });

  test('let go on a star it fills the star; on a ground it is placed; on what holds one it takes its place', async () => {
    const b = await openBench(page());
    const star = named(b, 'Star').id;
    expect(frameUnder(b.session, { x: 150, y: 160 })).toBe(star);
    expect(frameUnder(b.session, { x: 500, y: 50 })).toBeNull();
    await receiveFiles(b.session, [file('boats.png', png(300, 150))], { x: 150, y: 160 }, { id: star, aim: 'fill' });
    expect(paintOf(b, 'Star').geometry).toEqual([400, 0, 0, 200, -100, 0]);
    await receiveFiles(b.session, [file('gulls.png', png(150, 300))], { x: 150, y: 160 }, { id: star, aim: 'fill' });
    expect(b.session.design.pictures!.map((p) => p.name)).toEqual(['boats.png', 'gulls.png']);
    expect(paintOf(b, 'Star').geometry).toEqual([400, 0, 0, 800, -100, -300]);
  });

  test('the same file is kept once, and several files lie aside of each other', async () => {
    const b = await openBench(page());
    await receiveFiles(
      b.session,
      [file('a.png', png(40, 40)), file('a.png', png(40, 40)), file('b.png', png(40, 20))],
      null,
      null,
    );
    expect(b.session.design.pictures!.map((p) => p.name)).toEqual(['a.png', 'b.png']);
    expect(b.session.state.selection).toHaveLength(3);
    expect(new Set(b.session.state.selection.map((id) => b.session.design.nodes[id].transform[4])).size).toBe(3);
  });

  test('what cannot be opened is said, with its name, and changes nothing', async () => {
    const b = await openBench(page());
    const before = b.session.design;
    await receiveFiles(b.session, [file('letter.docx', new TextEncoder().encode('words, words, words'))], null, null);
    expect(b.session.state.message!.text).toBe(
      'letter.docx cannot be placed: it is no picture of a kind that is read: PNG, JPEG, WebP, GIF, TIFF or SVG.',
    );
    expect(b.session.design).toBe(before);
  });

  test('storage that is full is said, and nothing is half placed', async () => {
    const b = await openBench(page());
    b.store.addAsset = async () => {
      throw Object.assign(new Error('full'), { name: 'QuotaExceededError' });
    };
    expect(await openPicture(b.session, 'boats.png', png(4, 4))).toBeNull();
    expect(b.session.state.message!.text).toMatch(/boats\.png could not be kept: The browser’s storage is full/);
  });

  test('letters take a picture too', async () => {
    const b = await openBench(page());
    b.session.select([named(b, 'Words').id]);
    const frame = chosenFrame(b.session)!;
    expect(frame.aim).toBe('letters');
    framePicture(b.session, (await openPicture(b.session, 'boats.png', png(300, 150)))!, frame.id, frame.aim);
    const story = Object.values(b.session.design.stories)[0];
    expect(story.paragraphs[0].runs[0].fill).toMatchObject({ kind: 'picture' });
    expect(beginCrop(b.session, frame.id)).toBe(true);
  });

  test('a drawing comes in as objects, the page large at most, and tells what it lost', async () => {
    const b = await openBench(page());
    const text =
      '<svg xmlns="http://www.w3.org/2000/svg" width="2000" height="1000"><rect width="2000" height="1000"/><circle r="90" cx="90" cy="90" fill="red"/><script/></svg>';
    expect(isDrawing('x', new TextEncoder().encode(text))).toBe(true);
    const id = await placeDrawing(b.session, 'boats.svg', new TextEncoder().encode(text), null);
    const box = b.session.boxOf([id!]);
    expect([box.x1 - box.x0, box.y1 - box.y0].map(Math.round)).toEqual([600, 300]);
    expect(b.session.state.report).toEqual({ title: 'boats.svg', notes: ['Scripts are left out.'] });
    expect(
      await placeDrawing(
        b.session,
        'empty.svg',
        new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"/>'),
        null,
      ),
    ).toBeNull();
    expect(b.session.state.message!.text).toMatch(/nothing to see in empty.svg/);
    expect(await placeDrawing(b.session, 'no.svg', new TextEncoder().encode('words'), null)).toBeNull();
  });
});

describe('in its frame', () => {
  const placed = async () => {
    const b = await openBench(page());
    const id = placePicture(b.session, (await openPicture(b.session, 'boats.png', png(600, 300)))!, { x: 300, y: 200 });
    return { b, id };
  };
  test('a corner keeps proportions unless Shift is held, a side stretches', async () => {
    for (const [shift, ratio] of [
      [false, 2],
      [true, 1.2],
    ] as const) {
      const { b, id } = await placed();
      b.drag(selectTool, [378.5, 242], [438.5, 322], { shift, mod: true });
      const n = b.session.design.nodes[id] as NodeOf<'shape'>;
      expect(n.width).toBeGreaterThan(150);
      expect(Math.abs(n.width / n.height - ratio) < 0.4).toBe(true);
      if (!shift) expect(n.width / n.height).toBeCloseTo(2, 6);
    }
    const { b, id } = await placed();
    b.drag(selectTool, [380, 200], [440, 200], { mod: true });
    const n = b.session.design.nodes[id] as NodeOf<'shape'>;
    expect(n.height).toBe(72);
    expect(n.width).toBeGreaterThan(190);
    expect((n.fills[0] as PicturePaint).geometry[0]).toBeCloseTo(n.width, 9);
  });

  test('a double click crops: dragged inside, sized by a dot, the frame by a bracket; one step each', async () => {
    const { b, id } = await placed();
    const s = b.session;
    selectTool.double!(b.at(300, 200), b.context);
    expect(s.state.crop).toEqual({ node: id, aim: 'fill' });
    const steps = s.state.cursor;
    b.drag(cropTool, [300, 200], [320, 190]);
    expect(cropped(s)!.paint.geometry.slice(4)).toEqual([20, -10]);
    expect(s.design.nodes[id]).toMatchObject({ width: 144, height: 72 });
    const dot = cropGrips(s, cropped(s)!).find((g) => g.kind === 'dot' && g.u === 1 && g.v === 1)!;
    const { camera } = s.state;
    const at = (p: { x: number; y: number }): [number, number] => [
      (p.x - camera.x) / camera.scale,
      (p.y - camera.y) / camera.scale,
    ];
    const from = at(dot.at);
    b.drag(cropTool, from, [from[0] + 144, from[1] + 72]);
    expect(cropped(s)!.paint.geometry.map((v) => Math.round(v))).toEqual([288, 0, 0, 144, 20, -10]);
    const bracket = cropGrips(s, cropped(s)!).find((g) => g.kind === 'bracket' && g.hx === -1 && g.hy === 0)!;
    const left = at(bracket.at);
    const onPage = multiply(s.design.nodes[id].transform, cropped(s)!.paint.geometry);
    b.drag(cropTool, left, [left[0] + 30, left[1]]);
    expect(Math.round((s.design.nodes[id] as NodeOf<'shape'>).width)).toBe(114);
    expect(multiply(s.design.nodes[id].transform, cropped(s)!.paint.geometry).map((v) => Math.round(v * 1e6))).toEqual(
      onPage.map((v) => Math.round(v * 1e6)),
    );
    expect(s.state.cursor).toBe(steps + 3);
    // A press beside picture and frame ends it.
    b.click(cropTool, 20, 20);
    expect(s.state.crop).toBeNull();
  });

  test('arrow keys and the wheel work inside, steps of the wheel are one', async () => {
    const { b, id } = await placed();
    const s = b.session;
    beginCrop(s, id);
    panPicture(s, 3, 0);
    expect(cropped(s)!.paint.geometry[4]).toBe(3);
    runCommand(s, 'nudge.left');
    expect(cropped(s)!.paint.geometry[4]).toBeLessThan(1);
    const before = s.state.cursor;
    for (let i = 0; i < 4; i++) zoomPicture(s, 1.1, { x: 300, y: 200 });
    expect(s.state.cursor).toBe(before + 1);
    expect(cropped(s)!.paint.geometry[0]).toBeCloseTo(144 * 1.1 ** 4, 6);
    endCrop(s);
    expect(s.state.crop).toBeNull();
  });

  test('replaced, it keeps crop and tone; relinked, all that show it follow', async () => {
    const { b, id } = await placed();
    const s = b.session;
    s.commit(
      'Tone',
      (d) =>
        void ((d.nodes[id] as { fills: unknown[] }).fills[0] = {
          ...paintOf(b, 'boats'),
          tone: { fade: 0.3 },
          geometry: [200, 0, 0, 100, -20, -9],
        }),
    );
    await replacePicture(s, [id], 'fill', file('gulls.png', png(200, 100)));
    expect(paintOf(b, 'boats')).toMatchObject({ tone: { fade: 0.3 }, geometry: [200, 0, 0, 100, -20, -9] });
    const now = paintOf(b, 'boats').picture;
    await relink(s, now, file('gulls at dusk.png', png(300, 100)));
    expect(s.design.pictures!.find((p) => p.id === now)).toMatchObject({ name: 'gulls at dusk.png', width: 300 });
    expect(s.state.message!.text).toMatch(/its proportions differ/);
  });

  test('effective resolution falls as it grows, and the checks say so', async () => {
    const { b, id } = await placed();
    const s = b.session;
    const found = () =>
      checkDesign(s.design, b.engines.builder, paletteOf(s.design, b.engines))
        .filter((f) => f.node === id)
        .map((f) => f.code);
    expect(found()).toEqual(['picture.missing']); // the page's engines holds no pixels
    s.commit('Grow', (d) => {
      const n = d.nodes[id] as { width: number; fills: unknown[] };
      n.width *= 1.5;
      n.fills[0] = { ...paintOf(b, 'boats'), geometry: [216, 0, 0, 108, 0, 0] };
    });
    expect(Math.round(effectivePpi(s.design.pictures![0], paintOf(b, 'boats'), s.design.nodes[id].transform))).toBe(
      200,
    );
    expect(found()).toContain('picture.soft');
    s.commit(
      'Grow',
      (d) =>
        void ((d.nodes[id] as { fills: unknown[] }).fills[0] = {
          ...paintOf(b, 'boats'),
          geometry: [720, 0, 0, 360, 0, 0],
        }),
    );
    expect(found()).toContain('picture.coarse');
  });

  /** Pastes into a design of a browser that has the files of the other. */
  const pasteHere = async (to: TestBench, from: TestBench, clip: Clip) => {
    for (const p of clip.pictures ?? []) {
      const bytes = await from.store.asset(p.file);
      if (bytes) await to.store.addAsset(p.file, bytes);
    }
    const done = waitFor(to, (s) => s.message !== null);
    pasteFrom(to.session, { ok: true, clip });
    await done;
  };
  const waitFor = (b: TestBench, when: (s: BenchState) => boolean) =>
    new Promise<void>((resolve) => {
      const off = b.session.store.subscribe((s) => when(s) && (off(), resolve()));
    });

  test('a picture that is not in this browser does not come along without a word', async () => {
    const { b, id } = await placed();
    b.session.select([id]);
    const clip = clipOf(JSON.parse(copySelection(b.session)!) as Clip);
    const other = await openBench(page());
    const said = waitFor(other, (s) => s.message !== null);
    pasteFrom(other.session, { ok: true, clip });
    await said;
    expect(other.session.state.message?.text).toMatch(
      /^What was copied cannot be pasted: its picture boats\.png is not in this browser/,
    );
    expect(Object.keys(other.session.design.nodes)).toHaveLength(Object.keys(page().nodes).length);
  });

  test('copied to another design it takes its picture along', async () => {
    const { b, id } = await placed();
    b.session.select([id]);
    const clip = clipOf(JSON.parse(copySelection(b.session)!) as Clip);
    const other = await openBench(page());
    await pasteHere(other, b, clip);
    expect(other.session.design.pictures).toMatchObject([{ name: 'boats.png', width: 600 }]);
    expect([...picturesUsed(other.session.design).values()]).toEqual([1]);
    expect(parseClip(JSON.stringify({ ...clip, pictures: [] }))).toMatchObject({
      ok: false,
      why: expect.stringMatching(/the picture .+ is missing/),
    });
  });

  test('gathered, every file stands under the name people know', async () => {
    const bytes = new Map([
      ['a.png', png(2, 2)],
      ['b.png', png(3, 3)],
    ]);
    const row = (id: string, f: string, name: string) => ({
      id,
      name,
      file: f,
      width: 2,
      height: 2,
      space: 'rgb' as const,
    });
    const { zip, missing } = await gatherPictures(
      [row('1', 'a.png', 'Boats.jpeg'), row('2', 'b.png', 'boats'), row('3', 'c.png', 'Lost')],
      async (f) => bytes.get(f) ?? Promise.reject(new Error('no')),
    );
    expect(Object.keys(unzipSync(zip))).toEqual(['Boats.png', 'boats 2.png']);
    expect(missing).toEqual(['Lost']);
  });
});

describe('sampled', () => {
  test('a picture’s colour comes from the press, as it looks; other paints from the page itself', async () => {
    const b = await openBench(page());
    placePicture(b.session, (await openPicture(b.session, 'boats.png', png(600, 300)))!, { x: 480, y: 100 });
    const asked: number[][] = [];
    (b.session.press as unknown as { sample: unknown }).sample = async (_: string, x: number, y: number) => {
      asked.push([x, y]);
      return { cmyk: [0.1, 0.2, 0.3, 0] };
    };
    expect(await sampleWithPictures(b.session, b.at(480, 100))).toMatchObject({
      colour: { cmyk: [0.1, 0.2, 0.3, 0] },
      from: 'a picture, as it looks',
    });
    expect((await sampleWithPictures(b.session, b.at(20, 380)))!.from).toBe('as it looks');
    b.session.set({ sample: { take: 'exact', give: 'aim' } });
    expect((await sampleWithPictures(b.session, b.at(480, 100)))!.colour).toEqual({ cmyk: [0.1, 0.2, 0.3, 0] });
    expect(asked).toEqual([
      [480, 100],
      [480, 100],
    ]);
    b.session.set({ sample: { take: 'look', give: 'swatch' } });
    b.click(sampleTool, 480, 100);
    await new Promise((r) => setTimeout(r));
    expect(b.session.design.swatches.at(-1)).toMatchObject({ kind: 'colour', colour: { cmyk: [0.1, 0.2, 0.3, 0] } });
  });
});

describe('as a whole', () => {
  test('the front object cuts the others; ungrouped, nothing cuts any more', async () => {
    const b = await openBench(page());
    const s = b.session;
    s.select([named(b, 'Ground').id, named(b, 'Star').id]);
    runCommand(s, 'object.cutByFront');
    expect(named(b, 'Star').maskMode).toBe('outline');
    const { x0, x1 } = s.scene().root.content[0].inkBounds;
    expect([x0 > 40, x1 < 260]).toEqual([true, true]);
    // Outside the star nothing is left to take hold of.
    expect(frameUnder(s, { x: 52, y: 52 })).toBeNull();
    runCommand(s, 'object.ungroup');
    expect(named(b, 'Star').maskMode).toBeUndefined();
  });
});

describe('looks that come later', () => {
  test('of very many pictures each is asked for once, two at a time, and all are kept', async () => {
    const many = 60;
    const design = { pictures: Array(many).fill(null), swatches: [], inks: [], profile: {}, setup: {} };
    const palette = {
      id: 'palette',
      picture: (id: string) => ({ file: `${id}.jpg`, width: 4000, height: 3000 }),
    } as unknown as Palette;
    const busy = { looks: 0, rough: 0 };
    let [most, asked, pixels] = [0, [] as string[], 0];
    const during = async <T>(what: keyof typeof busy, answer: T): Promise<T> => {
      most = Math.max(most, ++busy[what]);
      await new Promise((r) => setTimeout(r, 1));
      busy[what]--;
      return answer;
    };
    const looks = new PictureLooks(
      (r) => {
        asked.push(r.file);
        pixels += r.pixels;
        const side = Math.ceil(Math.sqrt(r.pixels));
        return during('looks', { width: side, height: side, data: new Uint8ClampedArray(4) as Bitmap['data'] });
      },
      () => design as unknown as Design,
      () => {},
      (file, size, n) => during('rough', { image: file as never, width: Math.min(size.width, n), height: 1 }),
      (x) => `look ${x.width}` as never,
    );
    const draw = () =>
      Array.from({ length: many }, (_, i) => looks.get({ kind: 'picture', picture: `p${i}` } as PicturePaint, palette));
    // Drawn again and again meanwhile, as a bench is that hears of each look.
    for (let round = 0; round < 500 && draw().some((x) => !String(x?.image).startsWith('look')); round++)
      await new Promise((r) => setTimeout(r, 2));
    draw();
    await new Promise((r) => setTimeout(r, 20));
    expect(asked.toSorted()).toEqual(Array.from({ length: many }, (_, i) => `p${i}.jpg`).toSorted());
    expect(most).toBe(2);
    // A few screens full, all together.
    expect(pixels).toBeLessThan(5e6);
    asked = [];
    expect(draw().every((x) => String(x?.image).startsWith('look'))).toBe(true);
    expect(asked).toEqual([]);
  });

  test('the newest wish of a picture is asked for, coarse first and in full at rest; the last look stands in, each is asked once', async () => {
    const b = await openBench(page());
    const asked: string[] = [];
    let give: (b: Bitmap) => void = () => {};
    let come = 0;
    const looks = new PictureLooks(
      (r) => {
        asked.push(`${r.coarse ? 'coarse ' : ''}${JSON.stringify(r.tone ?? null)}`);
        return new Promise((resolve) => (give = resolve));
      },
      () => b.session.design,
      () => void come++,
      async () => null,
      (x) => x.width as never,
      20,
    );
    const id = placePicture(b.session, (await openPicture(b.session, 'boats.png', png(4, 4)))!, null);
    const paint = (b.session.design.nodes[id] as NodeOf<'shape'>).fills[0] as PicturePaint;
    const { palette } = b.session;
    const seen = (tone?: Tone) => looks.get(tone ? { ...paint, tone } : paint, palette)?.image ?? null;
    const given = async (width: number) => {
      give({ width, height: 1, data: new Uint8ClampedArray(4) as Bitmap['data'] });
      await new Promise((r) => setTimeout(r));
    };
    const asking = async (count: number) => {
      while (asked.length < count) await new Promise((r) => setTimeout(r, 5));
    };
    expect(seen()).toBeNull();
    for (const fade of [0.1, 0.2, 0.3]) seen({ fade });
    expect(asked).toEqual(['null']);
    await given(1);
    // From here on it is seen: the next tones come coarse.
    expect([asked, come, seen()]).toEqual([['null', 'coarse {"fade":0.3}'], 1, 1]);
    expect(seen({ fade: 0.3 })).toBe(1);
    await given(3);
    expect(seen({ fade: 0.3 })).toBe(3);
    // A newer wish ends the rest at once …
    expect(seen({ fade: 0.4 })).toBe(3);
    await new Promise((r) => setTimeout(r));
    expect(asked.slice(2)).toEqual(['coarse {"fade":0.4}']);
    await given(4);
    // … and where none comes, the last is worked out in full.
    await asking(4);
    expect(asked.slice(3)).toEqual(['{"fade":0.4}']);
    expect(seen({ fade: 0.4 })).toBe(4);
    await given(5);
    expect(seen({ fade: 0.4 })).toBe(5);
    // Back at a tone that was only seen coarse: it is shown meanwhile, and not made coarse again.
    expect(seen({ fade: 0.3 })).toBe(3);
    await asking(5);
    expect(asked.slice(4)).toEqual(['{"fade":0.3}']);
    await given(6);
    expect([seen({ fade: 0.3 }), asked.length]).toEqual([6, 5]);
    looks.forget(b.session.design.pictures![0].file);
    expect(seen()).toBeNull();
  });

  test('what was placed is seen at once, as the browser opens it, until its true look comes; not where tones change it', async () => {
    const b = await openBench(page());
    let give: (b: Bitmap) => void = () => {};
    let come = 0;
    const looks = new PictureLooks(
      () => new Promise((resolve) => (give = resolve)),
      () => b.session.design,
      () => void come++,
      async (file) => ({ image: `rough ${file.length > 0}` as never, width: 4, height: 4 }),
      () => 'true' as never,
      20,
    );
    const id = placePicture(b.session, (await openPicture(b.session, 'boats.png', png(4, 4)))!, null);
    const paint = (b.session.design.nodes[id] as NodeOf<'shape'>).fills[0] as PicturePaint;
    const seen = (p: PicturePaint) => looks.get(p, b.session.palette)?.image ?? null;
    expect(seen(paint)).toBeNull();
    await new Promise((r) => setTimeout(r));
    expect([come, seen(paint), seen({ ...paint, tone: { fade: 0.5 } })]).toEqual([1, 'rough true', null]);
    give({ width: 1, height: 1, data: new Uint8ClampedArray(4) as Bitmap['data'] });
    await new Promise((r) => setTimeout(r));
    expect([come, seen(paint)]).toEqual([2, 'true']);
    looks.dispose();
  });
  test('two objects with tones of their own on one picture: both end in full, and then it is quiet', async () => {
    const b = await openBench(page());
    const asked: string[] = [];
    const paints: PicturePaint[] = [];
    const draw = () => paints.map((p) => looks.get(p, b.session.palette)?.image);
    const looks: PictureLooks = new PictureLooks(
      async (r) => {
        asked.push(`${r.coarse ? 'coarse' : 'full'} ${r.tone?.fade ?? 0}`);
        return {
          width: r.coarse ? 1 : Math.round((r.tone?.fade ?? 0) * 100),
          height: 1,
          data: new Uint8ClampedArray(4) as Bitmap['data'],
        };
      },
      () => b.session.design,
      () => void draw(),
      async () => null,
      (x) => x.width as never,
      10,
    );
    const id = placePicture(b.session, (await openPicture(b.session, 'boats.png', png(4, 4)))!, null);
    const paint = (b.session.design.nodes[id] as NodeOf<'shape'>).fills[0] as PicturePaint;
    paints.push({ ...paint, tone: { fade: 0.2 } }, { ...paint, tone: { fade: 0.7 } });
    draw();
    for (let i = 0; i < 40 && JSON.stringify(draw()) !== '[20,70]'; i++) await new Promise((r) => setTimeout(r, 10));
    expect(draw()).toEqual([20, 70]);
    const count = asked.length;
    await new Promise((r) => setTimeout(r, 60));
    draw();
    expect(asked).toHaveLength(count);
    expect(asked.filter((a) => a === 'full 0.2').length + asked.filter((a) => a === 'full 0.7').length).toBe(2);
  });
});
