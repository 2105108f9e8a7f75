import { strFromU8, unzipSync } from 'fflate';
import type { Page } from '@playwright/test';
import { BenchPage, expect, test, WHOLE } from './support';

interface Shown {
  name: string;
  fills: {
    kind: string;
    ramp?: { stops?: { offset: number; opacity?: number; colour: unknown }[]; swatch?: string };
    geometry?: number[];
    eachLetter?: boolean;
  }[];
  outlines: { paint: { kind: string; strokeMapping?: string; thereAndBack?: boolean } }[];
  transform: number[];
  story?: string;
}
interface File {
  nodes: Record<string, Shown>;
  stories: Record<string, { paragraphs: { runs: { fill: Shown['fills'][number] }[] }[] }>;
  swatches: { id: string; name: string; kind: string; stops?: { offset: number }[] }[];
}

/** The design as it is saved. */
async function saved(bench: BenchPage): Promise<File> {
  const file = await bench.handOver('Design');
  return JSON.parse(strFromU8(unzipSync(file.bytes)['design.json'])) as File;
}
const kind = (page: Page, part: string, word: string) =>
  page
    .getByRole('radiogroup', { name: `${part} kind` })
    .getByRole('radio', { name: word, exact: true })
    .click();
const beads = (bench: BenchPage) => bench.details().getByRole('slider', { name: /^Stop/ });
const recipes = async (page: Page, ...lines: string[]) => {
  await page.getByLabel('Recipe line').fill(lines.join('\n'));
  for (const l of lines) {
    await page.getByLabel('Recipe line').fill(l);
    await page.getByLabel('Recipe line').press('Enter');
  }
};
const tool = (page: Page) => page.getByRole('button', { name: 'Gradient', exact: true }).click();

test('a two-tone pennant with a firm edge, and ways of mixing side by side', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Pennant');
  await recipes(page, 'Flag red 0 96 88 4', 'Harbour blue 96 52 0 6');
  await bench.shape('Polygon', 30, 40, 120, 110);
  await bench.field('Sides').fill('3');
  await page.keyboard.press('Enter');
  await kind(page, 'Fill', 'Linear');
  await tool(page);
  await bench.drag(await bench.at(50, 60), await bench.at(100, 95));
  await beads(bench).first().click();
  await bench.card('Flag red').click();
  await beads(bench).nth(1).click();
  await bench.card('Harbour blue').click();
  // Four ways, of which one is said to be the cleanest.
  const ways = bench.details().getByRole('radiogroup', { name: 'Mixed in' });
  await expect(ways.getByRole('radio')).toHaveCount(4);
  await expect(ways.getByText('cleanest')).toHaveCount(1);
  await ways.getByRole('radio', { name: /^OKLab/ }).click();
  await expect(ways.getByRole('radio', { name: /^OKLab/ })).toBeChecked();
  // Soft to firm by keys: pairs of equal stops come, and End is a hard edge.
  const firm = bench.details().getByRole('slider', { name: 'Firmness of the middle' });
  await firm.focus();
  await page.keyboard.press('End');
  await expect(firm).toHaveAttribute('aria-valuetext', 'a hard edge');
  await expect(beads(bench)).toHaveCount(4);
  await expect(beads(bench).nth(1)).toHaveAttribute('aria-valuetext', '50 %');
  await expect(beads(bench).nth(2)).toHaveAttribute('aria-valuetext', '50 %');
  await page.keyboard.press('Home');
  await expect(beads(bench)).toHaveCount(2);
});

test(
  'a fade to nothing over the sky, from a bead’s own recipe; a card let go on the ramp and on a bead',
  WHOLE,
  async ({ page }) => {
    const bench = await BenchPage.make(page, 'A5', 'Fade');
    await recipes(page, 'Sky 90 60 10 20', 'Glow 0 20 80 0');
    await bench.shape('Rectangle', 0, 0, 148, 120);
    await bench.card('Sky').click();
    await bench.shape('Ellipse', 40, 30, 110, 90);
    await bench.card('Glow').click();
    await kind(page, 'Fill', 'Linear');
    await tool(page);
    await bench.drag(await bench.at(50, 45), await bench.at(100, 75));
    // Double-clicked, a bead shows its recipe; its opacity is typed there.
    const end = await bench.at(100, 75);
    await page.mouse.dblclick(end.x, end.y);
    const slip = page.getByRole('dialog', { name: 'Recipe of the stop' });
    await expect(slip.getByRole('heading')).toContainText('Stop 2 of 2');
    await slip.getByLabel('Opacity of the stop here').fill('0');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
    // A card between the beads is a new stop, a card on a bead recolours it.
    const card = (await bench.card('Sky').boundingBox())!;
    await bench.drag({ x: card.x + 20, y: card.y + 20 }, await bench.at(62.5, 52.5));
    await expect(bench.message()).toContainText('Sky is on the ramp, as a new stop.');
    await expect(beads(bench)).toHaveCount(3);
    await bench.drag({ x: card.x + 20, y: card.y + 20 }, await bench.at(50, 45));
    await expect(bench.message()).toContainText('Sky is on the stop.');
    // The stray stop is pulled off the line on the object.
    await bench.drag(await bench.at(62.5, 52.5), await bench.at(50, 100));
    await expect(bench.message()).toContainText('Took the stop out.');
    await expect(beads(bench)).toHaveCount(2);
    const file = await saved(bench);
    const ellipse = Object.values(file.nodes).find((n) => n.name === 'Ellipse')!;
    expect(ellipse.fills[0].ramp!.stops!.map((s) => s.opacity)).toEqual([undefined, 0]);
    // The PDF keeps it as a shading under a soft mask, without a picture.
    const pdf = await bench.handOver('PDF');
    expect(pdf.bytes.length).toBeGreaterThan(1000);
  },
);

test('a gradient that follows a thick ring, and one from its edge to its edge', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Ring');
  await bench.shape('Ellipse', 30, 50, 110, 130);
  await kind(page, 'Fill', 'None');
  await kind(page, 'Outline', 'Linear');
  await bench.field('Weight').fill('14');
  await page.keyboard.press('Enter');
  await bench.details().getByLabel('Lies').selectOption('along');
  await expect(bench.details().getByLabel('There and back')).toBeChecked();
  await expect(bench.details().getByText('following the line', { exact: false }).first()).toBeVisible();
  await bench.details().getByLabel('Lies').selectOption('across');
  const file = await saved(bench);
  expect(Object.values(file.nodes)[0].outlines[0].paint).toMatchObject({ kind: 'gradient', strokeMapping: 'across' });
});

test('one sweep over five shapes, then each by itself; ends of two matched', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Sweep');
  for (let i = 0; i < 5; i++) await bench.shape('Rectangle', 12 + i * 26, 60, 32 + i * 26, 100);
  await page.getByRole('button', { name: 'Select', exact: true }).click();
  await bench.drag(await bench.at(5, 50), await bench.at(144, 110));
  await tool(page);
  await bench.drag(await bench.at(8, 80), await bench.at(140, 80));
  const several = bench.details().getByRole('group', { name: 'Gradients of several objects' });
  await expect(several).toContainText('One gradient runs through 5 objects.');
  const lines = (f: File) =>
    Object.values(f.nodes).map((n) =>
      [n.fills[0].geometry![4] + n.transform[4], n.fills[0].geometry![0]].map((v) => Math.round(v)).join(),
    );
  expect(new Set(lines(await saved(bench))).size).toBe(1);
  await several.getByRole('button', { name: 'Each by itself' }).click();
  await expect(several).toContainText('each with a paint of its own');
  expect(new Set(lines(await saved(bench))).size).toBe(5);
  await several.getByRole('button', { name: 'One sweep' }).click();
  await expect(several).toContainText('One gradient runs through 5 objects.');
  await several.getByRole('button', { name: 'Each by itself' }).click();
  // Two neighbours made to meet.
  await page.getByRole('button', { name: 'Select', exact: true }).click();
  await bench.click(20, 80);
  await bench.click(48, 80, { modifiers: ['Shift'] });
  await bench.details().getByRole('button', { name: 'Match ends' }).click();
  await expect(bench.message()).toContainText('1 gradient now begins where the one before ends.');
  const [left, right] = Object.values((await saved(bench)).nodes).sort((a, b) => a.transform[4] - b.transform[4]);
  expect(right.fills[0].ramp!.stops![0].colour).toEqual(left.fills[0].ramp!.stops!.at(-1)!.colour);
});

test(
  'a headline’s letters, as one and letter by letter, while its frame stays empty; a ramp kept, given on, edited',
  WHOLE,
  async ({ page }) => {
    const bench = await BenchPage.make(page, 'A5', 'Letters');
    await page.getByRole('button', { name: 'Text', exact: true }).click();
    await bench.drag(await bench.at(15, 30), await bench.at(135, 70));
    await page.keyboard.type('Glow');
    await page.keyboard.press('Escape');
    await bench.field('Size').fill('72');
    await page.keyboard.press('Enter');
    await kind(page, 'Letters', 'Linear');
    await bench
      .details()
      .getByRole('radiogroup', { name: 'Letters', exact: true })
      .getByRole('radio', { name: 'Letter by letter' })
      .click();
    let file = await saved(bench);
    const run = (f: File) => Object.values(f.stories)[0].paragraphs[0].runs[0];
    expect(run(file).fill).toMatchObject({ kind: 'gradient', eachLetter: true });
    expect(Object.values(file.nodes)[0].fills[0].kind).toBe('none');
    // The ramp goes into the tray and from there onto a shape; edited there, both follow.
    await bench.details().getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(bench.message()).toContainText('in the tray');
    await bench.shape('Star', 40, 100, 110, 170);
    await bench.card('Gradient 1').click();
    await bench.edit('Gradient 1');
    const recipe = page.getByRole('dialog', { name: 'Recipe of Gradient 1' });
    await expect(recipe).toContainText('Used in 2 places');
    await recipe.getByRole('slider', { name: 'Firmness of the middle' }).focus();
    await page.keyboard.press('End');
    await page.keyboard.press('Escape');
    file = await saved(bench);
    const swatch = file.swatches.find((s) => s.name === 'Gradient 1')!;
    expect(swatch.stops!.map((s) => s.offset)).toEqual([0, 0.5, 0.5, 1]);
    expect(run(file).fill.ramp).toEqual({ swatch: swatch.id });
    const star = Object.values(file.nodes).find((n) => n.name === 'Star')!;
    expect(star.fills[0].ramp).toEqual({ swatch: swatch.id });
  },
);

test('pools: dragged on the object, added by a click, coloured, typed; a box beside them', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Pools');
  await recipes(page, 'Kelp green 80 20 70 10');
  await bench.shape('Ellipse', 30, 40, 120, 140);
  await kind(page, 'Fill', 'Pools');
  const pools = bench.details().getByRole('radiogroup', { name: 'Pools' }).getByRole('radio');
  await expect(pools).toHaveCount(3);
  await tool(page);
  await bench.click(70, 75);
  await expect(pools).toHaveCount(4);
  await expect(bench.message()).toContainText('Added a pool.');
  await bench.card('Kelp green').click();
  await expect(bench.message()).toContainText('Pool 4 of 4: Kelp green.');
  await bench.drag(await bench.at(70, 75), await bench.at(90, 110));
  await expect(bench.field('Place across')).toHaveValue('67%');
  await bench.field('Reach').fill('80');
  await page.keyboard.press('Enter');
  await expect(bench.field('Reach')).toHaveValue('80%');
  await bench.details().getByRole('button', { name: 'Take this pool out' }).click();
  await expect(pools).toHaveCount(3);
  await kind(page, 'Fill', 'Box');
  await expect(beads(bench)).toHaveCount(3);
  await expect(bench.field('Squash')).toBeVisible();
});

test('steps that would show are said, and grain breaks them up', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A3', 'Bands');
  await recipes(page, 'Deep 80 60 20 30', 'Less deep 70 54 20 24');
  await bench.shape('Rectangle', 10, 10, 280, 400);
  await bench.card('Deep').click();
  await kind(page, 'Fill', 'Linear');
  await beads(bench).nth(1).click();
  await bench.card('Less deep').click();
  const note = bench.details().getByRole('group', { name: 'Steps that show' });
  await expect(note).toContainText('Steps may show');
  await expect(page.getByRole('button', { name: /^Checks/ })).toContainText('1');
  await note.getByRole('button', { name: 'Break them up with grain' }).click();
  await expect(note).toBeHidden();
  await expect(bench.field('Grain')).toBeVisible();
});
