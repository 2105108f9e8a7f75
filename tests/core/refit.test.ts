import { boxIn } from '@/core/derive/box';
import { fitSheets, refit } from '@/core/edit/refit';
import { record, tryOut, undoEntry } from '@/core/edit/history';
import { masterFromPage, setGround } from '@/core/edit/masters';
import { addPage } from '@/core/edit/pages';
import { IDENTITY } from '@/core/geometry/matrix';
import { isEmpty } from '@/core/geometry/rect';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import type { Design, NodeOf, PicturePaint } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { plainText } from '@/core/text/layout';
import { mm } from '@/core/units/length';
import { demoDesigns } from '@/demo/demos';
import { DesignBuilder, flat } from '@/demo/builder';
import { prepare, type Engines } from '@/core/engines';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const FORMATS = [
  { name: 'A5', width: mm(148), height: mm(210) },
  { name: 'A3 across', width: mm(420), height: mm(297) },
  { name: 'Card', width: mm(85), height: mm(55) },
  { name: 'Square', width: mm(200), height: mm(200) },
  { name: 'Strip', width: mm(100), height: mm(400) },
  { name: 'Round label', width: mm(80), height: mm(80), round: true },
];
let n = 0;
const make = { newId: () => `r${n++}`, now: () => '2026-11-29T12:00:00.000Z' };
const at = (d: Design, id: string) => boxIn(d, id, IDENTITY, engines.fonts);

test.each(FORMATS)(
  'every demo design fits $name: what was inside stays inside, texts stay texts and say all they said',
  async (to) => {
    for (const { design } of demoDesigns()) {
      await prepare(engines, design);
      const page = design.pages[0];
      const made = refit(design, page.id, to, engines.fonts, make);
      expect([design.name, verifyDesign(made)]).toMatchObject([design.name, { ok: true }]);
      expect(made.pages).toHaveLength(1);
      expect(made.pages[0].children).toEqual(page.children);
      expect([made.setup.width, made.setup.height, made.setup.round]).toEqual([to.width, to.height, to.round ?? false]);
      const { width: w, height: h } = design.setup;
      for (const id of page.children) {
        const [was, is] = [at(design, id), at(made, id)];
        if (isEmpty(was)) continue;
        const inside = was.x0 >= 0 && was.y0 >= 0 && was.x1 <= w && was.y1 <= h;
        const off = Math.max(-is.x0, -is.y0, is.x1 - to.width, is.y1 - to.height);
        expect([design.name, design.nodes[id].name, !inside || off < 0.01]).toEqual([
          design.name,
          design.nodes[id].name,
          true,
        ]);
        // On a round sheet inside is inside the circle, but for what goes from side to side.
        const side = was.x1 - was.x0 > w - 3 || was.y1 - was.y0 > h - 3;
        if (inside && !side && to.round && !design.setup.round) {
          const r = to.width / 2;
          const far = Math.max(...[is.x0, is.x1].flatMap((x) => [is.y0, is.y1].map((y) => Math.hypot(x - r, y - r))));
          expect([design.name, design.nodes[id].name, far <= r + 0.01]).toEqual([
            design.name,
            design.nodes[id].name,
            true,
          ]);
        }
        // What covers the page with its bleed still does.
        if (was.x0 < -1 && was.y0 < -1 && was.x1 > w + 1 && was.y1 > h + 1 && design.nodes[id].kind === 'shape')
          expect([is.x0 < -1, is.y0 < -1, is.x1 > to.width + 1, is.y1 > to.height + 1]).toEqual([
            true,
            true,
            true,
            true,
          ]);
      }
      const said = (d: Design, of: Design) => Object.keys(of.stories).map((s) => plainText(d.stories[s]));
      expect(said(made, made)).toEqual(said(design, made));
      await prepare(engines, made);
      const left = (d: Design) =>
        engines.builder.build(d, d.pages[0]).root.findings.overset.reduce((sum, o) => sum + o.characters, 0);
      expect([design.name, left(made)]).toEqual([design.name, left(design)]);
    }
  },
  300_000,
);

test('edges and middles are kept; a line across goes across; a picture that fills the page is not distorted', async () => {
  const b = new DesignBuilder(newDesign('Sheet', setupOf(400, 600, { bleed: 9 }), making), making);
  const box = (name: string, x: number, y: number, w: number, h: number) =>
    b.shape(name, 'rectangle', { x, y, w, h }, { fill: flat(cmyk(0, 50, 0, 0)) });
  const cover = box('Cover', -9, -9, 418, 618);
  const corner = box('Corner', 20, 20, 60, 40);
  const foot = box('Foot', 320, 540, 60, 40);
  const middle = box('Middle', 150, 280, 100, 40);
  const rope = box('Rope', -9, 200, 418, 6);
  const lamp = box('Lamp', 100, 203, 20, 40);
  const words = b.displayText('Words', 130, 100, [{ runs: [runOf('Lantern Walk', 24)] }]);
  b.place(0, [cover, corner, foot, middle, rope, lamp, words]);
  const d = tryOut(b.done(), (x) => {
    const paint: PicturePaint = {
      kind: 'picture',
      picture: 'boats',
      geometry: [418, 0, 0, 618, 0, 0],
      overprint: false,
    };
    x.pictures = [{ id: 'boats', name: 'Boats', file: 'boats.png', width: 418, height: 618, space: 'rgb' } as never];
    (x.nodes[cover] as { fills: unknown[] }).fills = [paint];
  });
  await prepare(
    engines,
    tryOut(d, (x) => void delete x.pictures),
  );
  const made = refit(d, d.pages[0].id, { name: 'Wide', width: 800, height: 300 }, engines.fonts, make);
  // The smaller ratio: a half.
  expect(at(made, corner)).toMatchObject({ x0: 10, y0: 10, x1: 40, y1: 30 });
  expect(at(made, foot)).toMatchObject({ x0: 760, y0: 270, x1: 790, y1: 290 });
  const m = at(made, middle);
  expect([(m.x0 + m.x1) / 2, (m.y0 + m.y1) / 2, m.x1 - m.x0]).toEqual([400, 150, 50]);
  const line = at(made, rope);
  expect(line.x0).toBeCloseTo(-9, 6);
  expect(line.x1).toBeCloseTo(809, 6);
  expect(line.y1 - line.y0).toBeCloseTo(3, 6);
  // What hangs from it hangs from it still.
  expect(at(made, lamp).y0).toBeCloseTo(line.y0 + 1.5, 6);
  expect(at(made, cover)).toMatchObject({ x0: -9, y0: -9 });
  const { geometry } = (made.nodes[cover] as NodeOf<'shape'>).fills[0] as PicturePaint;
  expect(geometry[3] / geometry[0]).toBeCloseTo(618 / 418, 6);
  expect(geometry[0]).toBeGreaterThanOrEqual(818 - 1e-6);
});

test('what reaches over an edge reaches over it by the bleed again, groups as well; words in them are not stretched', async () => {
  const b = new DesignBuilder(newDesign('Sheet', setupOf(400, 600, { bleed: 9 }), making), making);
  const water = b.group('Water', [
    b.shape('Deep', 'rectangle', { x: -9, y: 520, w: 418, h: 89 }, { fill: flat(cmyk(50, 0, 0, 0)) }),
    b.shape('Glow', 'ellipse', { x: 150, y: 540, w: 80, h: 30 }, { fill: flat(cmyk(0, 50, 0, 0)) }),
  ]);
  const flag = b.shape('Flag', 'rectangle', { x: 340, y: 60, w: 69, h: 40 }, { fill: flat(cmyk(0, 0, 50, 0)) });
  const glow = b.shape('Glow', 'ellipse', { x: 60, y: -9, w: 80, h: 80 }, { fill: flat(cmyk(0, 0, 50, 0)) });
  b.place(0, [water, flag, glow]);
  const d = b.done();
  const made = refit(d, d.pages[0].id, { name: 'Card', width: 160, height: 90 }, engines.fonts, make);
  const [sea, banner] = [at(made, water), at(made, flag)];
  expect([sea.x0, sea.x1, sea.y1].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([-9, 169, 99]);
  expect(banner.x1).toBeCloseTo(169, 6);
  expect(banner.y0).toBeCloseTo(60 * 0.15, 6);
  const round = at(made, glow);
  expect(round.x1 - round.x0).toBeCloseTo(round.y1 - round.y0, 6);
});

test('a drawing that hangs over two edges keeps its shape, a band is drawn out', () => {
  const b = new DesignBuilder(newDesign('Card', setupOf(240, 150, { bleed: 9 }), making), making);
  const piece = (x: number, y: number, w: number, h: number) =>
    b.shape('Piece', 'ellipse', { x, y, w, h }, { fill: flat(cmyk(0, 50, 0, 0)) });
  const lantern = b.group('Lantern', [piece(130, -12, 100, 90), piece(140, 60, 80, 105)]);
  b.place(0, [lantern]);
  const d = b.done();
  const made = refit(d, d.pages[0].id, { name: 'Label', width: 227, height: 227, round: true }, engines.fonts, make);
  const [was, is] = [at(d, lantern), at(made, lantern)];
  expect((is.x1 - is.x0) / (is.y1 - is.y0)).toBeCloseTo((was.x1 - was.x0) / (was.y1 - was.y0), 6);
});

test('masters, grounds and guides come along; the other pages do not', async () => {
  const b = new DesignBuilder(newDesign('Sheet', setupOf(400, 600, { bleed: 9 }), making), making);
  b.place(0, [b.shape('Band', 'rectangle', { x: 0, y: 0, w: 400, h: 40 }, { fill: flat(cmyk(0, 50, 0, 0)) })]);
  const d = tryOut(b.done(), (x) => {
    x.pages[0].guides = [{ axis: 'x', at: 100 }];
    masterFromPage(x, x.pages[0].id, { id: 'm', name: 'Ordinary' });
    setGround(x, 'm', flat(cmyk(10, 0, 0, 0)));
    addPage(x, x.pages[0].id, make.newId);
  });
  const made = refit(d, d.pages[1].id, { name: 'Half', width: 200, height: 300 }, engines.fonts, make);
  expect(verifyDesign(made)).toMatchObject({ ok: true });
  expect(made.pages).toHaveLength(1);
  expect(made.masters![0].guides).toEqual([{ axis: 'x', at: 50 }]);
  const [band] = made.masters![0].children;
  expect(at(made, band)).toMatchObject({ x0: 0, y0: 0, x1: 200, y1: 20 });
  expect(made.id).not.toBe(d.id);
  expect(made.name).toBe('Sheet, Half');
});

test('a booklet in another format, all its pages and masters in one step: nothing leaves the trim, numbers stay at the edge', async () => {
  const { design } = demoDesigns().find((d) => d.file === 'walk-programme')!;
  await prepare(engines, design);
  const to = { ...design.setup, width: mm(105), height: mm(148) };
  const step = record(design, 'Fit', (x) => fitSheets(x, design, to, engines.fonts))!;
  const made = step.design;
  expect(verifyDesign(made)).toMatchObject({ ok: true });
  expect(undoEntry(made, step.entry)).toEqual(design);
  expect(made.setup).toEqual(to);
  const { width: w, height: h } = design.setup;
  for (const sheet of [...design.pages, ...design.masters!])
    for (const id of sheet.children) {
      const [was, is] = [at(design, id), at(made, id)];
      if (isEmpty(was) || was.x0 < 0 || was.y0 < 0 || was.x1 > w || was.y1 > h) continue;
      const off = Math.max(-is.x0, -is.y0, is.x1 - to.width, is.y1 - to.height);
      expect([design.nodes[id].name, off < 0.01]).toEqual([design.nodes[id].name, true]);
    }
  const ordinary = made.masters!.find((m) => m.name === 'Ordinary')!;
  const number = ordinary.children.find((id) => made.nodes[id].name === 'Page number')!;
  // As far from the outer edge, for its size, as it was.
  expect((to.width - at(made, number).x1) / to.width).toBeCloseTo((w - at(design, number).x1) / w, 1);
});
