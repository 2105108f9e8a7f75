import { BenchPage, expect, test, WHOLE } from './support';

const shot = (own: BenchPage, name: string) =>
  process.env.HOLVET_SHOTS ? own.page.screenshot({ path: `/tmp/try/${name}.png` }) : Promise.resolve();

test(
  'a month is put on the page and set to another; a group of one’s own joins the ready-mades of every design',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Calendar');
    await page.keyboard.press('Control+k');
    await page.keyboard.type('calendar');
    await page.keyboard.press('Enter');
    const chooser = page.getByRole('dialog', { name: 'Shapes' });
    await expect(chooser.getByRole('radio', { name: 'Ready-mades' })).toHaveAttribute('aria-checked', 'true');
    await page.waitForTimeout(700);
    await shot(own, 'ready-mades');
    await chooser.getByLabel('Search ready-mades').fill('month');
    await chooser.getByRole('button', { name: 'Month', exact: true }).click();
    await expect(own.message()).toContainText('Month lies on the page; what can be set of it is in Details.');
    const dials = own.details().locator('[data-section="Ready-made"]');
    await expect.poll(() => own.names()).toEqual(['Month']);
    await dials.getByLabel('Month', { exact: true }).fill('2');
    await page.keyboard.press('Enter');
    await dials.getByRole('combobox', { name: 'Language' }).selectOption('suomi');
    await expect(dials.getByRole('combobox', { name: 'Language' })).toHaveValue('2');
    // It keeps the size that it was given.
    const width = own.field('Width');
    await width.fill('60');
    await page.keyboard.press('Enter');
    await dials.getByLabel('Year', { exact: true }).fill('2027');
    await page.keyboard.press('Enter');
    await expect(width).toHaveValue(/^(59\.|60)/);
    await shot(own, 'month');
    await own.top.focus();
    await page.keyboard.press('Control+k');
    await page.keyboard.type('keep as a ready-made');
    await page.keyboard.press('Enter');
    await expect(own.message()).toContainText('“Month” is among your ready-mades now');
    await own.saved();

    const other = await BenchPage.make(page, 'A6', 'Other');
    await page.getByRole('button', { name: 'Shape', exact: true }).click();
    await chooser.getByRole('radio', { name: 'Ready-mades' }).click();
    await chooser.getByRole('region', { name: 'Your own' }).getByRole('button', { name: 'Month', exact: true }).click();
    await expect.poll(() => other.names()).toEqual(['Month']);
    await expect(
      other.details().locator('[data-section="Ready-made"]').getByLabel('Year', { exact: true }),
    ).toHaveValue('2027');
    await page.getByRole('button', { name: 'Shape', exact: true }).click();
    await chooser.getByRole('button', { name: 'Throw away Month' }).click();
    await expect(chooser.getByRole('region', { name: 'Your own' })).toHaveCount(0);
    await other.saved();
  },
);
