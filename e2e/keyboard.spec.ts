import { readdirSync, readFileSync } from 'node:fs';
import { contents, expect, test, WHOLE } from './support';

/** No pointer at all: new design → shape → move → colour → hand over. */
test('a job by keyboard alone', WHOLE, async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Lantern Walk poster/ })).toBeVisible();
  const tabTo = async (name: RegExp, most = 60) => {
    for (let i = 0; i < most; i++) {
      await page.keyboard.press('Tab');
      const label = await page.evaluate(() => {
        const el = document.activeElement as HTMLElement | null;
        return el
          ? (el.getAttribute('aria-label') ?? (el as HTMLInputElement).labels?.[0]?.textContent ?? el.textContent ?? '')
          : '';
      });
      if (name.test(label.trim())) return;
    }
    throw new Error(`Tab never reached ${name}`);
  };

  await tabTo(/^New design$/);
  await page.keyboard.press('Enter');
  await tabTo(/^Name$/);
  await page.keyboard.type('By keys');
  await tabTo(/^Make it$/);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('save-state')).toBeVisible({ timeout: 30_000 });

  // Shape by its letter, put in the middle by Enter, moved by arrows.
  await page.keyboard.press('h');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('message')).toContainText('Put a rectangle in the middle of the page.');
  const x = page.getByRole('complementary', { name: 'Details' }).getByLabel('X', { exact: true });
  await expect(x).toHaveValue('85 mm');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Alt+ArrowRight');
  await expect(x).toHaveValue('96.1 mm');

  // A colour of one's own, and onto the fill.
  // One key to the tray, however much stands in between.
  await expect(page.getByRole('region', { name: 'Ink tray' })).toBeVisible();
  await page.keyboard.press('c');
  await tabTo(/^Recipe line$/);
  await page.keyboard.type('Wick 0 36 92 0');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('message')).toContainText('Added Wick: fill of 1 object.');

  // Words.
  await page.keyboard.press('Escape');
  await page.evaluate(() => document.getElementById('bench-top')!.focus());
  await page.keyboard.press('t');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Dusk');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('option', { name: /^Text: Dusk, display text/ })).toBeVisible();

  // A command by its everyday word.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('behind');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('message')).toContainText('Send to back');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');

  // And out of the house.
  for (let i = 0; i < 40; i++) {
    await page.keyboard.press('Shift+Tab');
    if ((await page.locator(':focus').textContent()) === 'Hand over') break;
  }
  await page.keyboard.press('Enter');
  await tabTo(/^Make PDF$/);
  const waiting = page.waitForEvent('download');
  await page.keyboard.press('Enter');
  const file = await waiting;
  expect(file.suggestedFilename()).toBe('By keys.pdf');
  expect(
    Buffer.from(await contents(file))
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
});

test('the pile by keyboard: names, choosing, folding, renaming', WHOLE, async ({ page }) => {
  await page.goto('/bench/lantern-walk-poster');
  await page.goto('/');
  await page.getByRole('link', { name: /Lantern Walk poster/ }).click();
  const list = page.getByRole('listbox', { name: 'Objects on page 1, front to back' });
  await expect(list).toBeVisible({ timeout: 30_000 });
  await list.focus();
  await page.keyboard.press('ArrowDown');
  await expect(list.getByRole('option', { selected: true })).toHaveAttribute('aria-label', 'Date line, text frame');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(list.getByRole('option', { selected: true })).toHaveAttribute('aria-label', 'Lanterns, group');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowDown');
  await expect(list.getByRole('option', { selected: true })).toHaveAttribute('aria-label', 'Lantern, middle, group');
  // Left goes to the group that holds it, once more folds it, and it stays folded.
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('option', { name: 'Lantern, middle, group' })).toHaveCount(0);
  await expect(list.getByRole('option', { selected: true })).toHaveAttribute('aria-label', 'Lanterns, group');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('F2');
  await page.keyboard.type('The large one');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option', { name: 'The large one, group' })).toBeVisible();
  await page.keyboard.press('End');
  await expect(list.getByRole('option', { selected: true })).toHaveAttribute('aria-label', 'Night sky, shape, locked');
});

test('a key to a place that is still on its way is answered when it is there', async ({ page }) => {
  let letIn = () => {};
  const held = new Promise<void>((done) => (letIn = done));
  const chunks = '.next/static/chunks';
  const file = readdirSync(chunks).find(
    (f) => f.endsWith('.js') && readFileSync(`${chunks}/${f}`).includes('"Ink tray"'),
  );
  await page.route(`**/${file}`, async (route) => {
    await held;
    await route.continue();
  });
  await page.goto('/');
  await page.getByRole('button', { name: 'New design' }).click();
  await page.getByRole('button', { name: 'Make it' }).click();
  await page.locator('#bench-top').focus();
  const tray = page.getByRole('region', { name: 'Ink tray' });
  await expect(tray).toHaveCount(0);
  await page.keyboard.press('c');
  letIn();
  await expect(tray.getByRole('button', { name: 'New colour', exact: true })).toBeFocused({ timeout: 15_000 });
});
