import { decode } from 'fast-png';
import { strFromU8, unzipSync } from 'fflate';
import type { Outline } from '../src/core/model/schema';
import { BenchPage, expect, test, WHOLE } from './support';

const shot = (own: BenchPage, name: string) =>
  process.env.HOLVET_SHOTS ? own.page.screenshot({ path: `/tmp/try/${name}.png` }) : Promise.resolve();

test(
  'a tear line of pills and dots with a second colour: chosen, typed, undone, kept after a reload',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Tear line');
    await own.shape('Rectangle', 20, 40, 128, 90);
    const line = await own.unfold('Outline');
    await line.getByRole('radio', { name: 'Flat' }).click();
    await own.field('Weight').fill('2');
    await page.keyboard.press('Enter');
    await line.getByRole('radio', { name: 'Inside' }).click();
    await expect(line.getByLabel(/^Dash and gap/)).toHaveCount(0);
    await line.getByRole('combobox', { name: 'Line' }).selectOption({ label: 'pills and dots' });
    const lengths = line.getByLabel(/^Dash and gap/);
    await expect(lengths).toHaveValue('6 6 0 6');
    await line.getByRole('combobox', { name: 'Between' }).selectOption({ label: 'Bare stock' });
    await lengths.fill('5 x');
    await page.keyboard.press('Enter');
    await expect(line.getByRole('alert')).toHaveText('Type lengths with a blank between: dash, gap, dash, gap.');
    await lengths.fill('4 4 0 4');
    await page.keyboard.press('Enter');
    await expect(line.getByRole('alert')).toHaveCount(0);
    await expect(line.getByRole('combobox', { name: 'Line' })).toHaveValue('own');
    await shot(own, 'dashes');
    await own.saved();
    const pdf = await own.handOver('PDF');
    expect(pdf.bytes.length).toBeGreaterThan(5000);
    await page.reload();
    await own.ready();
    await own.click(70, 60);
    const again = await own.unfold('Outline');
    await expect(again.getByRole('radio', { name: 'Inside' })).toBeChecked();
    await expect(again.getByLabel(/^Dash and gap/)).toHaveValue('4 4 0 4');
    await again.getByRole('combobox', { name: 'Line' }).selectOption({ label: 'whole' });
    await expect(again.getByLabel(/^Dash and gap/)).toHaveCount(0);
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(again.getByLabel(/^Dash and gap/)).toHaveValue('4 4 0 4');
  },
);

/** The design as it is saved. */
async function saved(bench: BenchPage): Promise<{
  nodes: Record<string, { name: string; kind: string; outlines?: Outline[]; fills?: unknown[]; path?: number[] }>;
  pages: { children: string[] }[];
  inks: { name: string; overprints?: boolean }[];
}> {
  const file = await bench.handOver('Design');
  return JSON.parse(strFromU8(unzipSync(file.bytes)['design.json'])) as Awaited<ReturnType<typeof saved>>;
}

test(
  'an arrow diagram: ends, a width by knobs on the canvas, a hand’s wobble, and the line as a shape',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Way to the quay');
    await own.shape('Arc line', 24, 30, 124, 110);
    let line = await own.unfold('Outline');
    await own.field('Weight').fill('12');
    await page.keyboard.press('Enter');
    const more = line.getByRole('button', { name: 'Ends, width, by hand' });
    await more.click();
    await line.getByRole('combobox', { name: 'End', exact: true }).selectOption({ label: 'arrow' });
    await line.getByRole('combobox', { name: 'Start', exact: true }).selectOption({ label: 'dot' });
    await own.field('Size of its end').fill('1.2');
    await page.keyboard.press('Enter');
    await line.getByRole('combobox', { name: 'Width along it' }).selectOption({ label: 'thin at both ends' });
    await shot(own, 'arrow');
    // The knot at the top of the arc, dragged towards the line: thinner there.
    const box = await own.at(74, 30);
    const scale = (await own.at(75, 30)).x - box.x;
    await own.drag({ x: box.x, y: box.y - 6 * scale }, { x: box.x, y: box.y - 3 * scale });
    await expect(line.getByRole('combobox', { name: 'Width along it' })).toHaveValue('own');
    await line.getByRole('checkbox', { name: 'Drawn by hand' }).check();
    await expect(own.field('How far the line strays')).toHaveValue('0.5 mm');
    await line.getByRole('button', { name: 'Otherwise' }).click();
    await shot(own, 'wobble');
    const kept = (Object.values((await saved(own)).nodes)[0].outlines ?? [])[0];
    expect(kept).toMatchObject({ end: { kind: 'arrow', size: 1.2 }, start: { kind: 'dot' }, wobble: { seed: 2 } });
    expect(kept.profile).toHaveLength(3);
    expect(kept.profile![1].share).toBeGreaterThan(0.3);
    expect(kept.profile![1].share).toBeLessThan(0.7);
    await line.getByRole('button', { name: 'Line to shape' }).click();
    await expect(own.message()).toContainText('Made 1 line a shape');
    const shape = Object.values((await saved(own)).nodes)[0];
    expect(shape).toMatchObject({ kind: 'path', outlines: [] });
    await page.getByRole('button', { name: /^Undo/ }).click();
    line = await own.unfold('Outline');
    await expect(line.getByRole('combobox', { name: 'End', exact: true })).toHaveValue('arrow');
  },
);

test(
  'a ring border of three dashed lines, fitted, put in another order; outlines that are sized with it',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Ring border');
    await own.shape('Ellipse', 34, 60, 114, 140);
    const flat = async (name: string, weight: string, kind: string) => {
      const line = await own.unfold(name);
      await line.getByRole('radio', { name: 'Flat' }).click();
      await line.getByLabel('Weight').fill(weight);
      await page.keyboard.press('Enter');
      await line.getByRole('combobox', { name: 'Line', exact: true }).selectOption({ label: kind });
      await line.getByRole('checkbox', { name: 'Fit to corners and ends' }).check();
      return line;
    };
    const top = await flat('Outline', '2', 'dots');
    await top
      .getByRole('button', { name: /outline/i })
      .last()
      .click();
    const second = await flat('Second outline', '6', 'dashes');
    await second.getByLabel('Away from the edge').fill('5');
    await page.keyboard.press('Enter');
    await second.getByRole('button', { name: 'One more outline' }).click();
    const third = await flat('Third outline', '1.5', 'pills and dots');
    await third.getByLabel('Away from the edge').fill('11');
    await page.keyboard.press('Enter');
    await shot(own, 'ring');
    const before = Object.values((await saved(own)).nodes)[0].outlines!;
    expect(before.map((o) => [o.dashes?.length, o.dashFit])).toEqual([
      [4, true],
      [2, true],
      [2, true],
    ]);
    await third.getByRole('button', { name: 'Ends, width, by hand' }).click();
    await third.getByRole('button', { name: 'Further up' }).click();
    const after = Object.values((await saved(own)).nodes)[0].outlines!;
    expect(after.map((o) => o.dashes?.length)).toEqual([2, 4, 2]);
    // A bead of the strip by the keyboard.
    const strip = own.details().getByRole('slider', { name: 'Dash 1' }).first();
    await strip.press('ArrowRight');
    // Sized with it: half as wide, half as heavy.
    await page.getByRole('group', { name: 'Grows when sized' }).getByRole('button', { name: 'Outlines' }).click();
    const place = await own.unfold('Place');
    await place.getByRole('button', { name: 'Keep proportions' }).click();
    await own.field('Width').fill('40');
    await page.keyboard.press('Enter');
    const sized = Object.values((await saved(own)).nodes)[0].outlines!;
    expect(sized.map((o) => Math.round((o.width / after[sized.indexOf(o)].width) * 1000) / 1000)).toEqual([
      0.5, 0.5, 0.5,
    ]);
    expect(sized[1].away! / after[1].away!).toBeCloseTo(0.5, 6);
  },
);

test('a sticker with a white edge all round and a cut line; rings of an offset', WHOLE, async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Sticker');
  await own.shape('Heart', 40, 40, 90, 90);
  await own.card('Bare stock').waitFor();
  await own.shape('Star', 70, 60, 110, 100);
  await own.top.focus();
  await page.keyboard.press('Control+a');
  await expect(own.pile().and(page.locator('[aria-selected="true"]'))).toHaveCount(2);
  let edge = await own.unfold('Edge');
  await edge.getByRole('radio', { name: 'All round them' }).click();
  await edge.getByLabel('How far the edge moves').fill('4');
  await page.keyboard.press('Enter');
  await edge.getByRole('button', { name: 'Make it' }).click();
  await expect(own.message()).toContainText('Laid a backing behind them');
  await own.top.focus();
  await page.keyboard.press('Control+a');
  await expect(own.pile().and(page.locator('[aria-selected="true"]'))).toHaveCount(3);
  edge = await own.unfold('Edge');
  await edge.getByRole('radio', { name: 'All round them' }).click();
  await edge.getByRole('combobox', { name: 'As' }).selectOption({ label: 'a line to cut along' });
  await edge.getByLabel('How far the edge moves').fill('0.5');
  await page.keyboard.press('Enter');
  await shot(own, 'edge');
  await edge.getByRole('button', { name: 'Make it' }).click();
  await expect(own.message()).toContainText('Drew a cut line');
  const file = await saved(own);
  const order = file.pages[0].children.map((id) => file.nodes[id].name);
  expect(order[0]).toBe('Backing');
  expect(order[3]).toBe('Cut line');
  expect(file.inks.map((i) => [i.name, i.overprints])).toEqual([['Cut line', true]]);
  // Steps behind one another, from one shape; what is only shown is dropped.
  await own.click(52, 58);
  edge = await own.unfold('Edge');
  await edge.getByRole('radio', { name: 'Each by itself' }).click();
  await edge.getByLabel('Steps').fill('3');
  await page.keyboard.press('Enter');
  await edge.getByRole('button', { name: 'Drop it' }).click();
  await expect.poll(() => own.names()).toHaveLength(4);
  await edge.getByLabel('How far the edge moves').fill('2');
  await page.keyboard.press('Enter');
  await edge.getByRole('button', { name: 'Make it' }).click();
  await expect(own.message()).toContainText('Made 3 shapes');
  await expect.poll(() => own.names()).toHaveLength(7);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(() => own.names()).toHaveLength(4);
});

test(
  'a picture traced by hand: dimmed and locked, seen alone by a held key, beside and blinking, never printed',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Traced flame');
    await own.shape('Drop', 40, 40, 100, 140);
    await own.top.focus();
    await page.keyboard.press('Control+k');
    await expect(page.getByRole('dialog')).toBeVisible();
    await page.keyboard.type('Trace it');
    await page.keyboard.press('Enter');
    await expect(own.message()).toContainText('dimmed and locked');
    // A press on it chooses nothing: the pen goes over it.
    await own.click(70, 100);
    await expect(own.pile().first()).toHaveAttribute('aria-selected', 'false');
    const section = await own.unfold('Reference');
    await expect(section.getByLabel('Strength of the reference')).toHaveValue('40%');
    const look = async () => {
      const p = await own.at(70, 110);
      const shotOf = await page.screenshot({ clip: { x: p.x - 3, y: p.y - 3, width: 6, height: 6 } });
      return decode(shotOf).data[0];
    };
    const dimmed = await look();
    expect(dimmed).toBeGreaterThan(120);
    await own.top.focus();
    await page.keyboard.down('.');
    await expect.poll(look).toBeLessThan(80);
    await page.keyboard.up('.');
    await expect.poll(look).toBe(dimmed);
    await section.getByRole('button', { name: 'Blink' }).click();
    await expect.poll(look).toBeLessThan(80);
    await expect.poll(look, { intervals: [50] }).toBe(dimmed);
    await section.getByRole('button', { name: 'Stop blinking' }).click();
    await section.getByRole('button', { name: 'Beside' }).click();
    await shot(own, 'beside');
    await section.getByRole('button', { name: 'Not beside' }).click();
    const png = decode((await own.handOver('PNG')).bytes);
    const middle = (Math.floor(png.height / 2) * png.width + Math.floor(png.width / 2)) * png.channels;
    expect(png.data[middle]).toBe(255);
  },
);
