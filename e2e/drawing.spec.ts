import AxeBuilder from '@axe-core/playwright';
import { strFromU8, unzipSync } from 'fflate';
import { BenchPage, expect, test, WHOLE } from './support';

interface File {
  nodes: Record<
    string,
    {
      name: string;
      kind: string;
      op?: string;
      children?: string[];
      path?: number[];
      fills?: { kind: string; colour?: unknown }[];
      window?: unknown;
      arrangement?: { count?: number };
    }
  >;
  pages: { children: string[]; guides?: unknown[] }[];
  swatches: { id: string; name: string }[];
}
/** The design as it is saved. */
async function saved(bench: BenchPage): Promise<File> {
  const file = await bench.handOver('Design');
  return JSON.parse(strFromU8(unzipSync(file.bytes)['design.json'])) as File;
}
const recipe = async (bench: BenchPage, line: string) => {
  // What is made goes to what is chosen: here it is for later.
  await bench.top.focus();
  await bench.page.keyboard.press('Escape');
  await bench.page.getByLabel('Recipe line').fill(line);
  await bench.page.getByLabel('Recipe line').press('Enter');
};
const button = (bench: BenchPage, name: string) => bench.details().getByRole('button', { name, exact: true });
const focus = (bench: BenchPage) => bench.top.focus();

test('a lantern mark: panes cut out of a barrel, still adjustable, the same on the plate, after a reload, and plain', async ({
  page,
}) => {
  const bench = await BenchPage.make(page, 'A6', 'Lantern mark');
  await bench.shape('Barrel', 25, 30, 80, 100);
  await bench.shape('Rectangle', 33, 42, 41, 88);
  await button(bench, 'Row').click();
  await expect(bench.message()).toContainText('3 copies in a row');
  await bench.field('Step to the right').fill('15.5');
  await page.keyboard.press('Enter');
  await focus(bench);
  await page.keyboard.press('Control+a');
  await button(bench, 'Subtract').click();
  await expect(bench.message()).toContainText('Subtracted');
  expect((await bench.names()).map((n) => /^Barrel ∖ ./.test(n))).toEqual([true]);
  // Inside, the panes are three copies of one: made narrower, all are.
  await bench.click(28, 65, { clickCount: 2 });
  await expect(page.getByRole('navigation', { name: 'Inside' })).toContainText('Barrel ∖');
  await bench.click(37, 80);
  await expect(bench.field('Count')).toHaveValue('3');
  await bench.field('Count').fill('2');
  await page.keyboard.press('Enter');
  await page.getByRole('navigation', { name: 'Inside' }).getByRole('button', { name: 'Page' }).click();
  await bench.saved();
  await page.reload();
  await bench.ready();
  await bench.click(28, 65);
  await expect(bench.details()).toContainText('Subtraction of 2 objects');
  const kept = await saved(bench);
  const top = kept.nodes[kept.pages[0].children[0]];
  expect(top).toMatchObject({ kind: 'combination', op: 'subtract' });
  expect(Object.values(kept.nodes).find((n) => n.kind === 'repeat')!.arrangement!.count).toBe(2);
  // On the black plate: ink on the barrel's wall, none in the pane that is left, ink again where the third pane was.
  await page.getByRole('radio', { name: 'Plates' }).click();
  const readout = bench.top.locator('> [role=status]');
  const inkAt = async (x: number, y: number) => {
    const p = await bench.at(x, y);
    await page.mouse.move(p.x, p.y);
    await page.mouse.move(p.x + 1, p.y);
    await page.waitForTimeout(500);
    return (await readout.textContent()) ?? '';
  };
  await expect.poll(() => inkAt(28, 65)).toContain('Black 100 %');
  await expect.poll(() => inkAt(37, 80)).toMatch(/^(?!.*Black)(.*\D)?0 % in all/);
  await expect.poll(() => inkAt(68, 65)).toContain('Black 100 %');
  await page.getByRole('radio', { name: 'Work' }).click();
  await button(bench, 'Make plain').click();
  const plain = await saved(bench);
  expect(Object.values(plain.nodes).map((n) => n.kind)).toEqual(['path']);
  // The barrel and two panes.
  expect(
    Object.values(plain.nodes)[0].path!.filter((v, i, all) => v === 0 && (i === 0 || all[i - 1] === 3)),
  ).toHaveLength(3);
});

test('a sunburst of 24 rays: turned about a tip, copied, and again by one key', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Sunburst');
  await bench.shape('Triangle', 71, 40, 77, 100);
  const box = { x: 74, y: 105 };
  // The pivot waits beside the frame: it is dragged below the ray.
  const corner = await bench.at(77, 40);
  await bench.drag({ x: corner.x + 40, y: corner.y - 40 }, await bench.at(box.x, box.y), { keys: ['Control'] });
  await expect(bench.message()).toContainText('about the pivot');
  const turn = { x: corner.x + 20, y: corner.y - 20 };
  const pivot = await bench.at(box.x, box.y);
  const a = Math.PI / 12;
  const [dx, dy] = [turn.x - pivot.x, turn.y - pivot.y];
  await bench.drag(
    turn,
    { x: pivot.x + dx * Math.cos(a) - dy * Math.sin(a), y: pivot.y + dx * Math.sin(a) + dy * Math.cos(a) },
    { keys: ['Alt', 'Shift'] },
  );
  await expect(bench.message()).toContainText('Turned a copy of 1 object by 15°');
  await focus(bench);
  for (let i = 0; i < 22; i++) await page.keyboard.press('a');
  await expect(bench.pile()).toHaveCount(24);
  // The same as a ring that stays adjustable.
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await bench.shape('Triangle', 71, 40, 77, 100);
  await button(bench, 'Ring').click();
  await bench.field('Count').fill('24');
  await page.keyboard.press('Enter');
  await expect(bench.field('Step')).toHaveValue('15°');
  await expect(bench.details()).toContainText('24 copies in a ring');
});

test(
  'two shapes that do not touch: united, the gap is told and closed by moving, or by a bridge',
  WHOLE,
  async ({ page }) => {
    const bench = await BenchPage.make(page, 'A6', 'Gap');
    await bench.shape('Ellipse', 15, 40, 50, 75);
    await bench.shape('Ellipse', 60, 40, 95, 75);
    await bench.field('X').fill('50.6');
    await page.keyboard.press('Enter');
    await focus(bench);
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Control+Shift+u');
    await expect(bench.message()).toContainText('they are still 0.6 mm apart');
    await expect(bench.details().getByRole('note')).toContainText('Not one piece');
    await bench.message().getByRole('button', { name: 'Move together' }).click();
    await expect(bench.message()).toHaveText('Closed 1 gap by moving.');
    await expect(bench.details().getByRole('note')).toHaveCount(0);
    await page.keyboard.press('Control+z');
    await expect(bench.details().getByRole('note')).toBeVisible();
    await button(bench, 'Bridge').click();
    await expect(bench.message()).toHaveText('Closed 1 gap by a bridge.');
  },
);

test(
  'a pile of six rings: the third is picked and changed, by the list and by holding the button',
  WHOLE,
  async ({ page }) => {
    const bench = await BenchPage.make(page, 'A6', 'Rings');
    for (let i = 0; i < 6; i++) {
      await bench.shape('Ring', 20 + i * 2, 40 + i * 2, 70 + i * 2, 90 + i * 2);
      await page.keyboard.press('F2');
      await bench.pile().first().dblclick();
      await page.getByLabel('New name').fill(`Ring ${i + 1}`);
      await page.keyboard.press('Enter');
    }
    await recipe(bench, 'Wick 0 36 92 0');
    await focus(bench);
    await page.keyboard.press('Escape');
    // A place that all six rings cover.
    const p = await bench.at(65, 55);
    await page.mouse.move(p.x, p.y);
    await focus(bench);
    await page.keyboard.press('q');
    const list = page.getByRole('listbox', { name: 'Objects under the pointer' });
    const rows = await list.getByRole('option').allTextContents();
    expect(rows).toEqual(['Ring 6', 'Ring 5', 'Ring 4', 'Ring 3', 'Ring 2', 'Ring 1']);
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await expect(bench.message()).toContainText(`Selected ${rows[2]}`);
    await bench.card('Wick').click();
    const now = await saved(bench);
    const wick = now.swatches.find((w) => w.name === 'Wick')!.id;
    expect(
      Object.values(now.nodes)
        .filter((n) => JSON.stringify(n.fills).includes(wick))
        .map((n) => n.name),
    ).toEqual(['Ring 4']);
    // Held still, the button lists them too.
    await page.mouse.move(p.x, p.y);
    await page.mouse.down();
    await expect(list).toBeVisible();
    await page.mouse.up();
    await page.keyboard.press('Escape');
    await expect(list).toHaveCount(0);
  },
);

test('nodes: drawn by the pen, smoothed, joined with the gap told, lined up, simplified', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Nodes');
  // A line straight down has no width to tell.
  await page.getByRole('button', { name: 'Pen', exact: true }).click();
  for (const y of [20, 90]) await bench.click(120, y);
  await page.keyboard.press('Enter');
  await expect(bench.details()).toContainText('Path, 70 mm high');
  await page.keyboard.press('Delete');
  await page.getByRole('button', { name: 'Pen', exact: true }).click();
  for (const [x, y] of [
    [30, 60],
    [60, 30],
    [90, 70],
  ])
    await bench.click(x, y);
  await page.keyboard.press('Enter');
  await expect(bench.message()).toContainText('3 nodes');
  await page.keyboard.press('n');
  await bench.click(60, 30);
  await expect(bench.details()).toContainText('1 of 3 nodes chosen');
  await bench.details().getByRole('radio', { name: 'Smooth', exact: true }).click();
  await expect(bench.details().getByRole('radio', { name: 'Smooth', exact: true })).toBeChecked();
  // Both ends joined by a line.
  await bench.click(30, 60);
  await bench.click(90, 70, { modifiers: ['Shift'] });
  await bench.details().getByRole('group', { name: 'Align nodes' }).getByRole('button', { name: 'Top' }).click();
  await button(bench, 'Join by a line').click();
  await expect(bench.message()).toHaveText('Joined by a line of 60 mm.');
  await focus(bench);
  await page.keyboard.press('Control+a');
  await expect(bench.details()).toContainText('3 of 3 nodes chosen');
  await button(bench, 'Add').click();
  await expect(bench.message()).toContainText('Added 3 nodes');
  await bench.field('Simplify within').fill('0.5');
  await page.keyboard.press('Enter');
  await bench
    .details()
    .getByRole('button', { name: /^Simplify 6 → \d$/ })
    .click();
  await expect(bench.message()).toContainText('6 nodes before');
  // By hand, with the count.
  await page.keyboard.press('f');
  await bench.drag(await bench.at(20, 120), await bench.at(110, 150), { steps: 20 });
  await expect(bench.message()).toContainText(/Drew a line of \d+ nodes from \d+ places/);
  const kept = await saved(bench);
  expect(Object.values(kept.nodes).map((n) => n.kind)).toEqual(['path', 'path']);
});

test('everything of one colour selected by tolerance and recoloured', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Alike');
  const cells: [string, string][] = [
    ['Glow 0 40 90 0', 'Star'],
    ['Nearly 0 42 88 0', 'Heart'],
    ['Night 100 80 20 40', 'Ellipse'],
  ];
  for (const [i, [line, shape]] of cells.entries()) {
    await recipe(bench, line);
    await bench.shape(shape, 20 + i * 40, 40, 50 + i * 40, 70);
    await bench.card(line.split(' ')[0]).click();
  }
  await bench.click(35, 55);
  const alike = bench.details().getByRole('button', { name: 'Fill', exact: true });
  await bench.field('Colours alike within ΔE').fill('0.2');
  await page.keyboard.press('Enter');
  await alike.click();
  await expect(bench.message()).toContainText('Selected 1 object alike by fill');
  await bench.field('Colours alike within ΔE').fill('4');
  await page.keyboard.press('Enter');
  await alike.click();
  await expect(bench.message()).toContainText('Selected 2 objects alike by fill, within ΔE 4');
  await bench.card('Night').click();
  await expect(bench.message()).toContainText('Fill of 2 objects: Night');
  await focus(bench);
  await page.keyboard.press('Control+Shift+a');
  await expect(bench.message()).toContainText('Selected the other 1 object');
});

test('snapping at a quarter and at eight times the size: the same reach on the screen', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Snapping');
  await bench.shape('Rectangle', 30, 30, 60, 60);
  await bench.shape('Rectangle', 80, 100, 110, 130);
  const zoom = page.getByLabel('Zoom in percent of real size');
  for (const percent of ['25', '800']) {
    await bench.field('X').fill('80');
    await page.keyboard.press('Enter');
    await zoom.fill(percent);
    await zoom.press('Enter');
    // The left edge of the second, wherever it is now: the middle of the bench top is the middle of the page.
    const host = (await bench.top.boundingBox())!;
    const k = (Number(percent) / 100) * (96 / 25.4);
    const screen = (x: number, y: number) => ({
      x: host.x + host.width / 2 + (x - 74) * k,
      y: host.y + host.height / 2 + (y - 105) * k,
    });
    const from = percent === '25' ? screen(95, 115) : screen(82, 110);
    // To five pixels beside the right edge of the first.
    const shift = (60 - 80) * k + 5;
    await bench.drag(from, { x: from.x + shift, y: from.y }, { steps: 4 });
    await expect(bench.field('X')).toHaveValue('60 mm');
  }
  await expect(bench.message()).toContainText('Moved 1 object.');
});

test('words in a heart; guides out of the ruler; the chooser and Details have no barrier', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Heart');
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  const chooser = page.getByRole('dialog', { name: 'Shapes' });
  await chooser.getByLabel('Search shapes').fill('love');
  await expect(chooser.getByRole('button')).toHaveCount(1);
  const axe = async () =>
    expect(
      (await new AxeBuilder({ page }).include('aside[aria-label=Details]').analyze()).violations
        .filter((v) => v.impact === 'serious' || v.impact === 'critical')
        .map((v) => `${v.id}: ${v.nodes[0].html}`),
    ).toEqual([]);
  await page.keyboard.press('Enter');
  await bench.drag(await bench.at(30, 30), await bench.at(118, 110));
  await focus(bench);
  await page.keyboard.press('Enter');
  await page.keyboard.type('Lanterns along the quays of Marrowick');
  await page.keyboard.press('Escape');
  const kept = await saved(bench);
  expect(Object.values(kept.nodes)[0]).toMatchObject({ kind: 'textFrame', window: { shape: 'heart' } });
  await axe();
  const host = (await bench.top.boundingBox())!;
  const to = await bench.at(74, 150);
  await bench.drag({ x: host.x - 10, y: to.y }, to, { keys: ['Control'] });
  await focus(bench);
  await page.keyboard.press('Escape');
  await expect(bench.field('Guide 1, upright')).toHaveValue('74 mm');
  await bench.field('Guide 1, upright').fill('100mm');
  await page.keyboard.press('Enter');
  await bench.details().getByLabel('Lock').check();
  await expect(bench.field('Guide 1, upright')).toBeDisabled();
  await axe();
  expect((await saved(bench)).pages[0].guides).toEqual([
    { axis: 'x', at: expect.closeTo((100 * 72) / 25.4, 6), locked: true },
  ]);
});
