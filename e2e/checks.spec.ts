import { readFileSync } from 'node:fs';
import { decode } from 'fast-png';
import { BenchPage, expect, test, WHOLE } from './support';

const shot = (own: BenchPage, name: string) =>
  process.env.HOLVET_SHOTS ? own.page.screenshot({ path: `/tmp/try/${name}.png` }) : Promise.resolve();
const checks = (own: BenchPage) => own.page.getByRole('button', { name: /^Checks/ });

test('from a ticket with three faults to a file for print: found, shown, put right, with what the screen says alone', async ({
  page,
}) => {
  const own = await BenchPage.demo(page, /Supper ticket/);
  await expect(checks(own)).toContainText('nothing found', { timeout: 30_000 });
  // Three faults: a bar that ends at the trim, a line as thin as a hair, words at the very edge.
  await own.shape('Rectangle', 0, 62, 40, 66);
  await own.shape('Ellipse', 70, 8, 90, 16);
  await (await own.unfold('Fill')).getByRole('radio', { name: 'None' }).click();
  const line = await own.unfold('Outline');
  await line.getByRole('radio', { name: 'Flat' }).first().click();
  await line.getByLabel('Weight').fill('0.1 pt');
  await page.keyboard.press('Enter');
  await own.top.focus();
  await page.keyboard.press('Escape');
  await page.keyboard.press('t');
  await own.click(60, 5);
  await page.keyboard.type('Hall');
  await page.keyboard.press('Escape');
  await checks(own).click();
  const slip = page.getByRole('dialog', { name: 'Checks' });
  await expect(checks(own)).toContainText('3 to look at', { timeout: 30_000 });
  await expect(slip).toContainText('stops short of the bleed at the bottom and the left');
  await expect(slip).toContainText('has a line of 0.1 pt');
  await expect(slip).toContainText('The text “Hall” lies 1.7 mm from the top');
  await shot(own, 'checks');
  for (const word of ['Draw it out to the bleed', 'Move it in', 'Make it heavier']) {
    await slip.getByRole('button', { name: word, exact: true }).click();
    await expect(own.message()).toContainText(`${word}: done`);
    await expect(slip.getByRole('button', { name: word, exact: true })).toHaveCount(0, { timeout: 30_000 });
  }
  await expect(slip).toContainText('Nothing found');
  await page.keyboard.press('Escape');
  await expect(checks(own)).toContainText('nothing found');
  const file = await own.handOver('PDF');
  expect(Buffer.from(file.bytes.slice(0, 5)).toString()).toBe('%PDF-');
});

test(
  'all alike in one step; what is meant so is left so, with its reason; other limits, kept and given on',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Held against');
    for (const x of [20, 60, 100]) {
      await own.shape('Ellipse', x, 40, x + 25, 65);
      await (await own.unfold('Fill')).getByRole('radio', { name: 'None' }).click();
      const line = await own.unfold('Outline');
      await line.getByRole('radio', { name: 'Flat' }).first().click();
      await line.getByLabel('Weight').fill('0.1 pt');
      await page.keyboard.press('Enter');
    }
    await expect(checks(own)).toContainText('3 to look at', { timeout: 30_000 });
    await checks(own).click();
    const slip = page.getByRole('dialog', { name: 'Checks' });
    // One of them is meant so.
    await slip.getByRole('button', { name: 'It is meant so' }).first().click();
    await slip.getByLabel('Why it is meant so').fill('A hair on purpose');
    await slip.getByRole('button', { name: 'Leave it so' }).click();
    await expect(checks(own)).toContainText('2 to look at', { timeout: 30_000 });
    await slip.getByRole('button', { name: 'Make it heavier: all 2' }).click();
    await expect(slip).toContainText('Nothing found', { timeout: 30_000 });
    await slip.getByRole('button', { name: '1 finding meant to be so' }).click();
    await expect(slip).toContainText('“A hair on purpose”');
    // Newsprint asks for more; its thinnest line is changed, kept, saved as a file and opened again.
    await slip.getByRole('combobox', { name: 'Held against' }).selectOption({ label: 'Newsprint' });
    await expect(slip).toContainText('A line under 0.5 pt', { timeout: 30_000 });
    await expect(slip).toContainText('colours are made for coated paper');
    await slip.getByRole('button', { name: 'See and change the limits' }).click();
    await slip.getByLabel('Thinnest line', { exact: true }).fill('0.2');
    await page.keyboard.press('Enter');
    await expect(slip).not.toContainText('A line under', { timeout: 30_000 });
    await shot(own, 'limits');
    const waiting = page.waitForEvent('download');
    await slip.getByRole('button', { name: 'Save as a file' }).click();
    const saved = await waiting;
    expect(saved.suggestedFilename()).toBe('Newsprint, own.limits.json');
    const text = readFileSync(await saved.path(), 'utf8');
    expect(JSON.parse(text)).toMatchObject({ format: 'holvet-limits/1', name: 'Newsprint, own', line: 0.2 });
    await slip.getByLabel('Open limits').setInputFiles({
      name: 'ours.json',
      mimeType: 'application/json',
      buffer: Buffer.from(text.replace('Newsprint, own', 'Harbour press').replace('"line": 0.2', '"line": 0.3')),
    });
    await expect(slip.getByRole('combobox', { name: 'Held against' })).toHaveValue('Harbour press');
    await expect(slip).toContainText('A line under 0.3 pt', { timeout: 30_000 });
    await slip.getByLabel('Open limits').setInputFiles({
      name: 'broken.json',
      mimeType: 'application/json',
      buffer: Buffer.from(text.replace('"line": 0.2', '"line": "thin"')),
    });
    await expect(own.message()).toContainText('broken.json holds no limits: “line” is not as it should be');
  },
);

test('plates: as films, total ink, and how much ink a page needs, by page and in all', WHOLE, async ({ page }) => {
  const own = await BenchPage.demo(page, /Supper ticket/);
  await page
    .getByRole('button', { name: 'Plates', exact: true })
    .or(page.getByRole('radio', { name: 'Plates' }))
    .first()
    .click();
  const pixel = async (x: number, y: number): Promise<number[]> => {
    const at = await own.at(x, y);
    const shot = await page.screenshot({ clip: { x: at.x, y: at.y, width: 2, height: 2 } });
    return [...decode(shot).data.slice(0, 3)];
  };
  const ground = [60, 60] as const;
  const looks = page.getByRole('radiogroup', { name: 'Plates shown' });
  await looks.getByRole('radio', { name: 'As films' }).click();
  await page.getByRole('group', { name: 'Inks on this page' }).getByRole('button', { name: 'Y', exact: true }).click();
  // 34 % yellow: a film that lets two thirds of the light through, and has no colour.
  await expect
    .poll(async () => {
      const [r, g, b] = await pixel(...ground);
      return Math.abs(r - 168) < 8 && r === g && g === b;
    })
    .toBe(true);
  await looks.getByRole('radio', { name: 'Total ink' }).click();
  await expect.poll(async () => (await pixel(...ground))[2] > (await pixel(...ground))[0]).toBe(true);
  await page.getByRole('button', { name: /^Inks/ }).first().click();
  const slip = page.getByRole('dialog', { name: 'Inks' });
  const amounts = slip.getByRole('region', { name: 'How much ink' });
  await expect(amounts.getByText(/^Yellow covers \d+ %$/)).toBeAttached({ timeout: 30_000 });
  await expect(amounts).toContainText('g of ink a square metre');
  await expect(amounts.locator('svg').first()).toBeVisible();
});
