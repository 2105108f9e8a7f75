import { BenchPage, expect, test, WHOLE } from './support';

const shot = (own: BenchPage, name: string) =>
  process.env.HOLVET_SHOTS ? own.page.screenshot({ path: `/tmp/try/${name}.png` }) : Promise.resolve();

/** Opens the Format slip. */
async function format(own: BenchPage) {
  await own.page.getByRole('button', { name: /^Format/ }).click();
  return own.page.getByRole('dialog', { name: 'Format' });
}
const shown = (own: BenchPage) => own.page.getByRole('button', { name: /^Format/ });

test(
  'one page has a format of its own and no other; what lies on it is fitted; given back, it is as before',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Formats');
    await own.shape('Rectangle', 20, 20, 120, 80);
    await own.top.focus();
    await page.keyboard.press('Control+Enter');
    await own.shape('Ellipse', 20, 20, 60, 60);
    const slip = await format(own);
    // Nothing is guessed: it says whose it is.
    await expect(slip.getByRole('combobox', { name: 'Of' })).toHaveValue('design');
    await slip.getByRole('combobox', { name: 'Of' }).selectOption({ label: 'this page only' });
    await expect(slip.getByRole('combobox', { name: 'Pages' })).toHaveCount(0);
    await slip.getByRole('combobox', { name: 'Format' }).selectOption({ label: 'A6 · 105 × 148 mm' });
    await expect(shown(own)).toContainText('105 × 148');
    await shot(own, 'format-own');
    await page.keyboard.press('Escape');
    await expect(own.message()).toContainText('The sheet has another size now');
    await own.message().getByRole('button', { name: 'Fit it too' }).click();
    await expect(own.message()).toContainText('Fitted');
    // Measured anew: the sheet is smaller now.
    await new BenchPage(page).click(30, 30);
    await expect(own.field('Width')).toHaveValue(/^28\.\d+ mm/);
    await own.top.focus();
    await page.keyboard.press('PageUp');
    await expect(shown(own)).toContainText('148 × 210');
    await page.keyboard.press('PageDown');
    await expect(shown(own)).toContainText('105 × 148');
    await own.saved();
    await page.reload();
    await own.ready();
    await own.top.focus();
    await page.keyboard.press('PageDown');
    await expect(shown(own)).toContainText('105 × 148');
    const pdf = await own.handOver('PDF');
    expect(pdf.bytes.length).toBeGreaterThan(5000);
    const again = await format(own);
    await expect(again.getByRole('combobox', { name: 'Of' })).not.toHaveValue('design');
    await again.getByRole('button', { name: 'As the design has it' }).click();
    await expect(shown(own)).toContainText('148 × 210');
  },
);

test('margins, columns and lines of a master hold on its pages; words stand on the lines', WHOLE, async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Lines');
  await own.details().getByRole('button', { name: 'Make a master of it' }).click();
  const slip = await format(own);
  await slip.getByRole('combobox', { name: 'Of' }).selectOption({ label: 'every page of Ordinary' });
  await expect(slip.getByLabel('Width')).toHaveCount(0);
  await slip.getByLabel('Columns').fill('2');
  await page.keyboard.press('Enter');
  await slip.getByRole('checkbox', { name: 'Baseline grid' }).check();
  await slip.getByLabel('Line to line of the baseline grid').fill('14');
  await page.keyboard.press('Enter');
  await shot(own, 'grid-slip');
  await page.keyboard.press('Escape');
  await own.top.focus();
  // A page behind it has them too.
  await page.keyboard.press('Control+Enter');
  await page.keyboard.press('Escape');
  await own.write(14, 60, 'Bring a light');
  const paragraph = await own.unfold('Paragraph');
  await paragraph.getByRole('button', { name: 'Set words on the baseline grid' }).click();
  await expect(own.message()).toContainText('1 text on the baseline grid');
  await shot(own, 'grid-words');
  await own.saved();
  await page.reload();
  await own.ready();
  const again = await format(own);
  await again.getByRole('combobox', { name: 'Of' }).selectOption({ label: 'every page of Ordinary' });
  await expect(again.getByLabel('Line to line of the baseline grid')).toHaveValue('14 pt');
});

test(
  'the front of a card becomes a poster and a sticker in three clicks, or pages beside it',
  WHOLE,
  async ({ page }) => {
    await page.goto('/');
    await page.getByRole('link', { name: /Stall card/ }).click();
    const own = new BenchPage(page);
    await own.ready();
    const slip = await format(own);
    await slip.getByRole('button', { name: 'This page in other formats' }).click();
    const sheet = page.getByRole('dialog', { name: 'This page in other formats' });
    await expect(sheet.getByRole('list', { name: 'As it would be' }).getByRole('listitem')).toHaveCount(2);
    await expect(sheet.getByText('looking …')).toHaveCount(0);
    await shot(own, 'refit-card');
    await sheet.getByRole('button', { name: 'Make 2 designs' }).click();
    await expect(own.message()).toContainText('2 designs are on the shelf.');
    const more = await format(own);
    await more.getByRole('button', { name: 'This page in other formats' }).click();
    await sheet.getByRole('button', { name: 'Add as 2 pages' }).click();
    await expect(own.message()).toContainText('2 pages of another format behind this one');
    await expect(page.getByRole('button', { name: /^Pages/ })).toContainText('2 of 4');
    await expect(shown(own)).toContainText('A2');
    await shot(own, 'refit-pages');
    await own.saved();
    await page.goto('/');
    await expect(page.getByRole('link', { name: /Stall card, A2/ })).toBeVisible();
    await expect(page.getByRole('link', { name: /Stall card, Round label 80/ })).toBeVisible();
  },
);
