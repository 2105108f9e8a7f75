import { strFromU8, unzipSync } from 'fflate';
import { BenchPage, expect, test, WHOLE } from './support';

const shot = (own: BenchPage, name: string) =>
  process.env.HOLVET_SHOTS ? own.page.screenshot({ path: `/tmp/try/${name}.png` }) : Promise.resolve();

interface File {
  nodes: Record<
    string,
    {
      name: string;
      kind: string;
      children?: string[];
      regions?: { gap?: number; areas: { paint: { colour: { swatch?: string } } }[] };
    }
  >;
  swatches: { id: string; name: string }[];
}
async function saved(bench: BenchPage): Promise<File> {
  const file = await bench.handOver('Design');
  return JSON.parse(strFromU8(unzipSync(file.bytes)['design.json'])) as File;
}
const colours = (file: File): string[] =>
  (Object.values(file.nodes).find((n) => n.regions)?.regions!.areas ?? [])
    .map((a) => file.swatches.find((s) => s.id === a.paint.colour.swatch)!.name)
    .sort();

test(
  'a line drawing coloured in: areas light up, a click and a drag colour them, lines moved take them along, as shapes',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Coloured in');
    for (const [x, y] of [
      [30, 50],
      [66, 50],
      [48, 82],
    ]) {
      await own.shape('Ellipse', x, y, x + 52, y + 52);
      const fill = await own.unfold('Fill');
      await fill.getByRole('radio', { name: 'None' }).click();
      const line = await own.unfold('Outline');
      await line.getByRole('radio', { name: 'Flat' }).first().click();
      await line.getByLabel('Weight').fill('1');
      await page.keyboard.press('Enter');
    }
    await page.getByLabel('Recipe line').fill('Dusk 100 72 8 20');
    await page.getByLabel('Recipe line').press('Enter');
    await own.top.focus();
    await page.keyboard.press('Escape');
    await page.keyboard.press('r');
    await expect(page.getByRole('button', { name: 'Regions', exact: true })).toHaveAttribute('aria-pressed', 'true');
    await own.card('Dusk').click();
    await expect(own.message()).toContainText('Areas get Dusk now');
    const left = await own.at(40, 70);
    await page.mouse.move(left.x, left.y);
    await shot(own, 'regions-lit');
    await own.click(40, 70);
    await expect(own.message()).toContainText('1 area: Dusk');
    // Black for three more, by a drag through the middle.
    await own.card('Black').click();
    await own.drag(await own.at(74, 62), await own.at(74, 125), { steps: 16 });
    await expect(own.message()).toContainText('areas: Black');
    await shot(own, 'regions');
    const first = await saved(own);
    expect(colours(first).filter((n) => n === 'Dusk')).toHaveLength(1);
    expect(colours(first).filter((n) => n === 'Black').length).toBeGreaterThan(1);
    // Alt clears; undo brings back.
    const before = colours(first).length;
    await page.keyboard.down('Alt');
    await own.click(40, 70);
    await page.keyboard.up('Alt');
    await expect(own.message()).toContainText('Cleared 1 area');
    expect(colours(await saved(own))).toHaveLength(before - 1);
    await page.getByRole('button', { name: /^Undo/ }).click();
    expect(colours(await saved(own))).toHaveLength(before);
    // No area where no lines enclose one.
    await own.click(10, 190);
    await expect(own.message()).toContainText('No lines enclose this place');
    // A ring moved inside the group: its area goes with it.
    await page.getByRole('button', { name: 'Select', exact: true }).click();
    await own.click(31, 76, { clickCount: 2 });
    await own.click(30.2, 76);
    await page.keyboard.press('Shift+ArrowLeft');
    await expect.poll(async () => colours(await saved(own)).includes('Dusk')).toBe(true);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await own.top.focus();
    await page.keyboard.press('Control+a');
    const section = await own.unfold('Regions');
    await expect(section).toContainText('coloured');
    await section.getByRole('button', { name: 'Areas to shapes' }).click();
    await expect(own.message()).toContainText('shapes below the lines');
    const shapes = await saved(own);
    expect(Object.values(shapes.nodes).filter((n) => n.name.startsWith('Area ')).length).toBeGreaterThanOrEqual(before);
    expect(Object.values(shapes.nodes).some((n) => n.regions)).toBe(false);
  },
);

test(
  'Harbour in lines from the picture drawer: placed with its colours, one area coloured anew, undone',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'From the drawer');
    await page.getByRole('button', { name: 'Picture', exact: true }).click();
    await page.getByLabel('Search the picture drawer').fill('lines');
    await page.getByRole('button', { name: 'Harbour in lines' }).click();
    await expect(own.message()).toContainText('Placed Harbour in lines');
    await expect(own.card('Moonlight')).toBeVisible();
    const placed = await saved(own);
    const before = colours(placed);
    expect(before).toContain('Moonlight');
    expect(before.length).toBeGreaterThan(60);
    await shot(own, 'harbour');
    // The moon in the colour of the lamps: the drawing fills an A5 page across, 330 of its units on 148 mm.
    await page.keyboard.press('r');
    await own.card('Lamplight').click();
    const unit = 148 / 330;
    await own.click(170 * unit, 105 - 66 * unit);
    await expect(own.message()).toContainText('1 area: Lamplight');
    const lit = colours(await saved(own));
    expect(lit.filter((n) => n === 'Moonlight')).toHaveLength(0);
    expect(lit).toHaveLength(before.length);
    await page.getByRole('button', { name: /^Undo/ }).click();
    expect(colours(await saved(own))).toEqual(before);
  },
);
