import { BenchPage, expect, test, WHOLE } from './support';

const shot = (own: BenchPage, name: string) =>
  process.env.HOLVET_SHOTS ? own.page.screenshot({ path: `/tmp/try/${name}.png` }) : Promise.resolve();

test(
  'a card is begun with a starter and filled in; kept as a starter of one’s own, it is begun with again',
  WHOLE,
  async ({ page }) => {
    await page.goto('/');
    await page.getByRole('button', { name: 'New design' }).click();
    const sheet = page.getByRole('dialog', { name: 'New design' });
    // Plain pages are what is chosen until something else is.
    await expect(sheet.getByRole('radio', { name: 'Plain page, any size' })).toHaveAttribute('aria-checked', 'true');
    await sheet.getByRole('radio', { name: /^Card,/ }).click();
    await expect(sheet.getByText('It asks for: Headline, Who, Where, When and how, Dark, Light, Flame.')).toBeVisible();
    await sheet.getByLabel('Name').fill('Bread stall');
    await sheet.getByRole('button', { name: 'Make it' }).click();
    const own = new BenchPage(page);
    await own.ready();
    const form = own.details().locator('[data-section="Fill in"]');
    await form.getByLabel('Headline', { exact: true }).fill('Seed bread\nevery day');
    await form.getByLabel('Who', { exact: true }).click();
    await expect(page.getByRole('button', { name: /^Undo/ })).toBeEnabled();
    await form.getByLabel('Another colour for Dark').fill('#5a1f3c');
    await page.keyboard.press('Enter');
    await expect(form.getByLabel('Another colour for Dark')).toHaveValue('');
    await form.getByLabel('Another colour for Light').fill('no such colour');
    await page.keyboard.press('Enter');
    await expect(form.getByRole('alert')).toBeVisible();
    await form.getByLabel('Another colour for Light').fill('');
    await shot(own, 'fill-in');
    await own.saved();

    // As a starter: what it asks for is ticked already, one question is called otherwise, one left out.
    const format = await (async () => {
      await page.getByRole('button', { name: /^Format/ }).click();
      return page.getByRole('dialog');
    })();
    await format.getByRole('button', { name: 'Keep as a starter' }).click();
    const keep = page.getByRole('dialog', { name: 'Keep as a starter' });
    await keep.getByLabel('Name', { exact: true }).fill('Our cards');
    await keep.getByLabel('Ask for Flame').uncheck();
    await keep.getByLabel('What Headline is called in the form').fill('What we sell');
    await shot(own, 'keep-starter');
    await keep.getByRole('button', { name: 'Keep it' }).click();
    await expect(own.message()).toContainText('“Our cards” is a starter now');

    await page.goto('/');
    await expect(page.getByRole('link', { name: /Bread stall/ })).toBeVisible();
    await expect(page.getByRole('link', { name: /Our cards/ })).toHaveCount(0);
    await page.getByRole('button', { name: 'New design' }).click();
    // What was used last comes first, then one’s own.
    await expect(sheet.getByRole('radio').nth(1)).toHaveAccessibleName('Card, Stall card');
    await expect(sheet.getByRole('radio').nth(2)).toHaveAccessibleName('Your starter, Our cards');
    await sheet.getByRole('radio', { name: 'Your starter, Our cards' }).click();
    await expect(sheet.getByText(/It asks for: What we sell, Who,.*Light\.$/)).toBeVisible();
    await sheet.getByRole('button', { name: 'Make it' }).click();
    await own.ready();
    await expect(form.getByLabel('What we sell', { exact: true })).toHaveValue('Seed bread\nevery day');
    await form.getByLabel('What we sell', { exact: true }).fill('Plum tart');
    await own.top.focus();
    await expect.poll(() => page.getByRole('button', { name: /^Undo/ }).isEnabled()).toBe(true);
    await own.saved();
    // Removed from the sheet, it is gone; the card begun with it stays.
    await page.goto('/');
    await page.getByRole('button', { name: 'New design' }).click();
    await sheet.getByRole('radio', { name: 'Your starter, Our cards' }).click();
    await sheet.getByRole('button', { name: 'Remove it' }).click();
    await expect(sheet.getByRole('radio', { name: 'Your starter, Our cards' })).toHaveCount(0);
    await sheet.getByRole('button', { name: 'Put it back' }).click();
    await expect(sheet.getByRole('radio', { name: 'Your starter, Our cards' })).toHaveCount(1);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('link', { name: /Our cards/ })).toBeVisible();
  },
);
