import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Locator } from '@playwright/test';
import { BenchPage, contents, expect, test, WHOLE } from './support';

const line = (bench: BenchPage): Locator => bench.page.getByLabel('Recipe line');
const slip = (bench: BenchPage, name: string | RegExp): Locator => bench.page.getByRole('dialog', { name });

/** The colour of the sheet at a place in millimetres, as it is drawn. */
async function pixel(bench: BenchPage, x: number, y: number): Promise<number[]> {
  const p = await bench.at(x, y);
  return bench.page.getByTestId('art').evaluate((el, at) => {
    const canvas = el as HTMLCanvasElement;
    const r = canvas.getBoundingClientRect();
    const k = canvas.width / r.width;
    return [
      ...canvas
        .getContext('2d')!
        .getImageData(Math.round((at.x - r.left) * k), Math.round((at.y - r.top) * k), 1, 1)
        .data.slice(0, 3),
    ];
  }, p);
}
const differ = (a: number[], b: number[]): number => Math.max(...a.map((v, i) => Math.abs(v - b[i])));

test('colours before the drawing: eight typed recipes, one pasted list, three spot inks', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Colours first');
  const typed = [
    'Quay Night 100 86 38 44',
    'Low Tide 82 46 22 6',
    'Paper Glow 2 8 34 0',
    'Wick 0 36 92 0',
    'Rope 28 34 52 10',
    'Slate Wet 58 44 40 24',
    '100 72 8 20',
    'Web blue #0b3a5e',
  ];
  await line(bench).click();
  for (const recipe of typed) {
    await page.keyboard.type(recipe);
    await page.keyboard.press('Enter');
  }
  for (const name of [
    'Quay Night',
    'Low Tide',
    'Paper Glow',
    'Wick',
    'Rope',
    'Slate Wet',
    'C100 M72 Y8 K20',
    'Web blue',
  ])
    await expect(bench.card(name)).toBeVisible();

  // A client's list, pasted whole; a slip of the pen in it is said with its line, the rest is taken.
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text', 'Ash 0 0 0 40\nPlum 40 91 1 44\nSand 12\nMoss device-cmyk(0.42 0.12 0.96 0.41)');
    document
      .getElementById('recipe-line')!
      .dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  for (const name of ['Ash', 'Plum', 'Moss']) await expect(bench.card(name)).toBeVisible();
  await expect(page.locator('#recipe-problem')).toContainText('Line 3');
  await line(bench).press('Escape');
  await line(bench).fill('Plum 50%');
  await line(bench).press('Enter');
  await expect(bench.card('Plum 50 %')).toBeVisible();

  await page.getByRole('button', { name: 'Spot library' }).click();
  const find = page.getByRole('combobox', { name: 'Find a spot ink' });
  for (const start of ['emb', '38-16', 'lemon']) {
    await find.fill(start);
    await find.press('Enter');
  }
  await find.fill('rosehip');
  await expect(page.getByRole('option', { name: /Rosehip 46-24.*ΔE00 0\.6/ })).toBeVisible();
  await page.keyboard.press('Escape');
  for (const name of ['Ember 66-43', 'Kelp 38-167', 'Lemon Rind 92-98']) await expect(bench.card(name)).toBeVisible();
  await bench.saved();
  await page.reload();
  await bench.ready();
  await expect(bench.card('Lemon Rind 92-98')).toBeVisible();
});

test('a swatch changes and all that uses it follows: the sheet, the cards, the pile', async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Follow');
  await line(bench).fill('Tide 82 46 22 6');
  await line(bench).press('Enter');
  for (const [x, y] of [
    [20, 20],
    [80, 20],
  ]) {
    await bench.shape('Rectangle', x, y, x + 40, y + 40);
    await bench.card('Tide').click();
  }
  await expect.poll(async () => (await pixel(bench, 40, 40))[2]).toBeGreaterThan(120);
  const before = await pixel(bench, 40, 40);
  const thumb = () =>
    bench
      .pile()
      .first()
      .locator('canvas')
      .evaluate((c) => (c as HTMLCanvasElement).toDataURL());
  const picture = await thumb();

  await bench.edit('Tide');
  const recipe = slip(bench, 'Recipe of Tide');
  await expect(recipe.getByText('Used in 2 places')).toBeVisible();
  // Tab goes from number to number.
  await recipe.getByLabel('Cyan', { exact: true }).fill('0');
  await page.keyboard.press('Tab');
  await page.keyboard.type('90');
  await page.keyboard.press('Tab');
  await page.keyboard.type('80');
  await page.keyboard.press('Enter');
  await expect.poll(async () => differ(await pixel(bench, 40, 40), before)).toBeGreaterThan(80);
  await expect.poll(async () => differ(await pixel(bench, 40, 40), await pixel(bench, 100, 40))).toBeLessThanOrEqual(1);
  await expect.poll(thumb).not.toBe(picture);

  // A slider: the sheet follows while it moves, Escape brings it back, letting go keeps it.
  const red = await pixel(bench, 40, 40);
  const track = (await recipe.getByRole('slider', { name: 'Cyan, slider' }).boundingBox())!;
  await page.mouse.move(track.x + 6, track.y + 8);
  await page.mouse.down();
  await page.mouse.move(track.x + track.width * 0.9, track.y + 8, { steps: 5 });
  await expect.poll(async () => differ(await pixel(bench, 40, 40), red)).toBeGreaterThan(60);
  await page.mouse.up();
  await expect(recipe.getByLabel('Cyan', { exact: true })).toHaveValue(/^(8|9)\d/);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo: Change swatch' }).click();
  await expect.poll(async () => differ(await pixel(bench, 40, 40), red)).toBeLessThanOrEqual(1);
  // The plates say what the recipe says.
  await page.getByRole('radio', { name: 'Plates' }).click();
  const p = await bench.at(40, 40);
  await expect(async () => {
    await page.mouse.move(p.x - 2, p.y);
    await page.mouse.move(p.x, p.y);
    await expect(bench.top.getByText(/^Magenta 90 %\s+Yellow 80 %\s+Black 6 %\s+176 % in all$/)).toBeVisible({
      timeout: 1000,
    });
  }).toPass({ timeout: 20_000 });
});

test('a screen colour that no ink reaches says so, and gives way to the printable one', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Reach');
  await line(bench).fill('Neon #00ff20');
  await line(bench).press('Enter');
  await expect(bench.card('Neon, .*prints duller')).toBeVisible();
  await bench.edit('Neon');
  const recipe = slip(bench, 'Recipe of Neon');
  await expect(recipe.getByRole('group', { name: 'How it prints' })).toContainText(/This screen colour prints duller/);
  await recipe.getByRole('button', { name: 'Use the printable one' }).click();
  await expect(recipe.getByText('Kept as a recipe')).toBeVisible();
  await recipe.getByRole('radio', { name: 'LCh' }).click();
  await expect(recipe.getByLabel('Hue angle', { exact: true })).toBeVisible();
  // The wheel turns a recipe, and it stays one.
  await recipe.getByRole('slider', { name: 'Colour wheel' }).press('ArrowRight');
  await expect(recipe.getByText('Kept as a recipe')).toBeVisible();
  // From process to a tin of its own, and back.
  await recipe.getByRole('radio', { name: 'Spot' }).click();
  await expect(recipe.getByText(/It prints from its own tin/)).toBeVisible();
  await recipe.getByRole('radio', { name: 'Process' }).click();
  await expect(recipe.getByText('Kept as a recipe')).toBeVisible();
});

test('sampled from a gradient: as it looks, and exactly', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Sample');
  await line(bench).fill('Tide 82 46 22 6');
  await line(bench).press('Enter');
  await bench.shape('Rectangle', 10, 10, 90, 60);
  await bench.card('Tide').click();
  await bench.details().getByRole('radiogroup', { name: 'Fill kind' }).getByRole('radio', { name: 'Linear' }).click();
  await bench.shape('Ellipse', 20, 100, 60, 140);
  await page.keyboard.press('m');
  await bench.click(50, 35);
  await expect(bench.message()).toContainText(/^Fill of 1 object: C4\d M2\d Y1\d K\d\./);
  await expect(page.getByRole('group', { name: 'Recent colours' }).getByRole('button')).not.toHaveCount(0);
  await bench.details().getByRole('radio', { name: 'Exact paint' }).click();
  await bench.click(15, 35);
  await expect(bench.message()).toContainText('Fill of 1 object: Tide.');
  await bench.details().getByRole('radio', { name: 'As it looks' }).click();
  await bench.details().getByRole('radio', { name: 'A new swatch' }).click();
  await bench.click(80, 35);
  await expect(bench.message()).toContainText('into the tray');
  await expect(bench.card('C\\d+ M\\d+ Y\\d+').last()).toBeVisible();
});

test('a palette lifted from the page, kept, and used in another design', WHOLE, async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: /Supper ticket/ }).click();
  const ticket = new BenchPage(page);
  await ticket.ready();
  await page.getByRole('button', { name: 'Lift a palette' }).click();
  const lift = slip(ticket, 'Lifted palette');
  await expect(lift.getByRole('button', { name: 'Apply Wick' })).toBeVisible({ timeout: 20_000 });
  await lift.getByLabel('Colours', { exact: true }).fill('6');
  await page.keyboard.press('Enter');
  await expect(lift.getByRole('group', { name: /^Colours/ }).getByRole('button')).toHaveCount(6);
  await expect(lift.getByRole('button', { name: 'Apply Ember 66-43' })).toBeVisible();
  await lift.getByRole('radio', { name: 'Far apart' }).click();
  await lift.getByLabel('Name of the palette').fill('Supper tones');
  await expect(lift.getByRole('button', { name: 'Apply Wick' })).toBeVisible();
  await lift.getByRole('button', { name: 'Keep for every design' }).click();
  await expect(ticket.message()).toContainText('“Supper tones” is kept for every design.');
  await lift.getByRole('button', { name: 'Add as a group', exact: true }).click();
  await expect(page.getByRole('group', { name: 'Group Supper tones' })).toBeVisible();

  const other = await BenchPage.make(page, 'A5', 'Other');
  await other.shape('Rectangle', 20, 20, 60, 60);
  await page.getByRole('button', { name: 'Lift a palette' }).click();
  const kept = slip(other, 'Lifted palette');
  await kept.getByRole('button', { name: 'Apply Wick of Supper tones' }).click();
  await expect(other.message()).toContainText('Fill of 1 object: Wick.');
  await kept.getByRole('button', { name: 'Add Supper tones as a group' }).click();
  await expect(other.card('Wick')).toBeVisible();
  await expect(
    page.getByRole('group', { name: 'Group Supper tones' }).getByRole('button', { name: /^Ember 66-43/ }),
  ).toBeVisible();
});

test('one swatch in the place of another everywhere; merged, sorted, swept', WHOLE, async ({ page }) => {
  const bench = await BenchPage.poster(page);
  await bench.edit('Rope');
  const recipe = slip(bench, 'Recipe of Rope');
  const users = Number(/Used in (\d+)/.exec((await recipe.getByText(/Used in/).textContent())!)![1]);
  await recipe.getByLabel('Replace by').selectOption({ label: 'Wick' });
  await expect(bench.message()).toContainText(`Wick took the place of Rope in ${users} places.`);
  await expect(bench.card('Rope')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo: Replace Rope by Wick' }).click();
  await expect(bench.card('Rope')).toHaveCount(1);
  await page.getByRole('button', { name: 'Tidy, files' }).click();
  const tidy = slip(bench, /Tidy/);
  await tidy.getByRole('button', { name: 'Name', exact: true }).click();
  await expect(
    page
      .getByRole('group', { name: 'Swatches' })
      .getByRole('button', { name: /Apply to the aim/ })
      .first(),
  ).toHaveAccessibleName(/^Bare stock/);
  await tidy.getByRole('button', { name: 'Remove unused' }).click();
  await expect(bench.message()).toContainText(/Removed \d swatch|Every swatch/);
  await tidy.getByRole('button', { name: 'Merge duplicates' }).click();
  await expect(bench.message()).toContainText('No two swatches are equal.');

  // Out as a file and in again: nothing is doubled.
  const waiting = page.waitForEvent('download');
  await tidy.getByRole('button', { name: /^Design tokens/ }).click();
  const file = await waiting;
  expect(file.suggestedFilename()).toBe('Lantern Walk poster colours.json');
  const tokens = JSON.parse(Buffer.from(await contents(file)).toString()) as Record<string, { $type: string }>;
  expect(tokens.Wick.$type).toBe('color');
  await tidy.getByLabel('Open a swatch file').setInputFiles({
    name: 'broken.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{\n"a": {"$type": "color",\n"$value": }\n}'),
  });
  await expect(tidy.getByRole('alert')).toContainText('broken.json, line 3');
  await tidy.getByLabel('Open a swatch file').setInputFiles({
    name: 'more.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from(
      'CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_NAME CMYK_C CMYK_M CMYK_Y CMYK_K\nEND_DATA_FORMAT\nBEGIN_DATA\nDusk 100 72 8 20\nEND_DATA\n',
    ),
  });
  await expect(bench.card('Dusk')).toBeVisible();
});

test(
  'inks: as a stand-in there is no plate; another paper changes looks and no recipe; a library of one’s own',
  WHOLE,
  async ({ page }) => {
    const bench = await BenchPage.poster(page);
    await page.getByRole('button', { name: /^Inks/ }).click();
    const inks = slip(bench, 'Inks');
    await inks.getByLabel('Kelp 38-167: as its stand-in').check();
    await expect(inks.getByText('no plate')).toBeVisible();
    await expect(
      page.getByRole('group', { name: 'Inks on this page' }).getByRole('button', { name: 'Kelp 38-167' }),
    ).toHaveCount(0);
    await inks.getByLabel('Ember 66-43: opaque').check();
    const card = bench.card('Wick').locator('span[style*="background"]').last();
    const before = await card.getAttribute('style');
    const profile = path.resolve('public/icc/newsprint-tr002.icc');
    await inks.getByLabel('Open an output profile').setInputFiles({
      name: 'notes.icc',
      mimeType: 'application/octet-stream',
      buffer: Buffer.from('no profile at all, but long enough to be read as one. '.repeat(10)),
    });
    await expect(bench.message()).toContainText('notes.icc cannot be the paper: It is not an ICC profile.');
    await inks
      .getByLabel('Open an output profile')
      .setInputFiles({ name: 'harbour-news.icc', mimeType: 'application/octet-stream', buffer: readFileSync(profile) });
    await expect(bench.message()).toContainText('no recipe has changed');
    await expect(card).not.toHaveAttribute('style', before!);
    await expect(bench.card('Wick, C0 M36 Y92 K0')).toBeVisible();
    await page.keyboard.press('Escape');
    await bench.saved();
    // The paper comes back with the design, and travels in its file.
    const saved = await bench.handOver('Design');
    await page.reload();
    await bench.ready();
    await expect(bench.card('Wick').locator('span[style*="background"]').last()).not.toHaveAttribute('style', before!);
    await page.goto('/');
    await page
      .getByLabel('Open a design file')
      .setInputFiles({ name: 'again.holvet', mimeType: 'application/zip', buffer: Buffer.from(saved.bytes) });
    await bench.ready();
    await page.getByRole('button', { name: /^Inks/ }).click();
    await expect(inks.getByLabel('Paper', { exact: true })).toHaveValue(/^sha256-/);
    await page.keyboard.press('Escape');

    await page.getByRole('button', { name: 'Spot library' }).click();
    const library = slip(bench, 'Spot library');
    await library.getByLabel('Open an ink library').setInputFiles({
      name: 'Guild inks.txt',
      mimeType: 'text/plain',
      buffer: Buffer.from(
        'CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_NAME LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n"Net Blue 40" 40 -4 -38\n"Sail Red" 44 58 36\nEND_DATA\n',
      ),
    });
    await expect(library.getByLabel('Library', { exact: true }).locator('option:checked')).toHaveText(/Guild inks/);
    await library.getByRole('combobox', { name: 'Find a spot ink' }).fill('sail');
    await expect(library.getByRole('option', { name: /Sail Red/ })).toBeVisible();
    await library.getByRole('combobox', { name: 'Find a spot ink' }).press('Enter');
    await expect(bench.card('Sail Red')).toBeVisible();
  },
);

test('seen by others, contrast, colours in use, screen colours kept', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Seen');
  await bench.shape('Rectangle', 20, 20, 90, 90);
  await line(bench).fill('Sun 0 10 100 0');
  await line(bench).press('Enter');
  await bench.card('Sun').click();
  await expect(bench.details().getByText(/: 1 against what lies under it/)).toBeVisible();
  await expect(bench.details().getByText(/need 3 : 1/)).toBeVisible();
  await page.getByLabel('Seen by').selectOption('grey');
  await expect(page.getByTestId('art')).toHaveCSS('filter', /vision-grey/);
  await page.getByLabel('Seen by').selectOption('all');
  await expect(page.getByTestId('art')).toHaveCSS('filter', 'none');
  for (const [i, recipe] of ['One 100 0 0 0', 'Two 0 100 0 0', 'Three 0 0 0 60'].entries()) {
    // What is made goes to what is chosen: nothing is.
    await bench.top.focus();
    await page.keyboard.press('Escape');
    await line(bench).fill(recipe);
    await line(bench).press('Enter');
    await bench.shape('Rectangle', 100, 20 + i * 20, 120, 36 + i * 20);
    await bench.card(recipe.split(' ')[0]).click();
  }
  await page.keyboard.press('Escape');
  await bench.click(10, 200);
  await page.getByRole('button', { name: '4 colours in use' }).click();
  const used = slip(bench, 'Colours in use');
  await expect(used).toContainText('This page uses 4 colours.');
  await expect(used.getByText(/A mark keeps to about three colours/)).toBeVisible();
  await used.getByRole('button', { name: /Choose the 1 object with Sun/ }).click();
  await page.keyboard.press('Escape');
  await expect(bench.field('X')).toHaveValue('20 mm');
  await line(bench).fill('Web #3a7bd5');
  await line(bench).press('Enter');
  await bench.card('Web').click();
  const pdf = await bench.handOver('PDF', async (s) => {
    await s.getByText('How it is made').click();
    await s.getByLabel('Keep screen colours RGB').check();
  });
  expect(pdf.bytes.length).toBeGreaterThan(10_000);
});
