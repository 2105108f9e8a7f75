import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { BenchPage, expect, test, WHOLE } from './support';

// Jobs of a first hour, as someone would do them who knows no word of the trade; with what it takes to do them: presses
// of the pointer and of keys, each letter of what is written counted; what is put into a field counts as its Enter.

/** Counts what a hand does, as the page itself sees it. */
async function counting(page: Page): Promise<() => Promise<number>> {
  await page.addInitScript(() => {
    const w = window as unknown as { __hand: number };
    w.__hand = Number(sessionStorage.getItem('hand') ?? 0);
    const one = () => sessionStorage.setItem('hand', String(++w.__hand));
    addEventListener('pointerdown', one, { capture: true });
    addEventListener(
      'keydown',
      (e) => e instanceof KeyboardEvent && !['Shift', 'Control', 'Alt'].includes(e.key) && one(),
      { capture: true },
    );
  });
  return () => page.evaluate(() => (window as unknown as { __hand: number }).__hand);
}
/** Says how many presses a job took; more than `most` is worse than it was. */
async function took(what: string, presses: number, most: number): Promise<void> {
  test.info().annotations.push({ type: 'presses', description: `${what}: ${presses}` });
  expect(presses).toBeLessThanOrEqual(most);
}
const find = async (page: Page, words: string): Promise<void> => {
  await page.keyboard.press('Control+k');
  await page.keyboard.type(words);
  await page.keyboard.press('Enter');
};

test('a card, front and back, in two colours chosen by their names', WHOLE, async ({ page }) => {
  const hand = await counting(page);
  const bench = await BenchPage.make(page, 'Card', 'Guild card');
  const line = page.getByLabel('Recipe line');
  await line.fill('dark blue');
  await page.keyboard.press('Enter');
  await bench.shape('Rectangle', -3, -3, 58, 88);
  await bench.card('dark blue').click();
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await bench.click(10, 30);
  await page.keyboard.type('Ebba Kell');
  await line.fill('gold');
  await page.keyboard.press('Enter');
  await expect(bench.message()).toContainText('Added gold: letters of 1 object.');
  await page.keyboard.press('Escape');
  // The back: another page, the same ground the other way round.
  await bench.top.focus();
  await find(page, 'back side');
  await expect(page.getByRole('button', { name: /^Pages/ })).toContainText('2 of 2');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await bench.drag(await bench.at(8, 20), await bench.at(47, 60));
  await page.keyboard.type('Lantern maker, Marrowick quay');
  await page.keyboard.press('Escape');
  await bench.saved();
  // Colours by their names are colours of light: Checks says so, and gives both their inks at once.
  const checks = page.getByRole('button', { name: /^Checks/ });
  await expect(checks).toContainText('2 to look at', { timeout: 20_000 });
  await checks.click();
  await page.getByRole('button', { name: 'Give it a recipe of inks: all 2' }).click();
  await page.keyboard.press('Escape');
  await expect(checks).toContainText('nothing found', { timeout: 20_000 });
  await took('card', await hand(), 75);
});

test('twelve petals round a middle, and a picture that shows in a circle only', WHOLE, async ({ page }) => {
  const hand = await counting(page);
  const bench = await BenchPage.make(page, 'A5', 'Petals');
  await bench.shape('Ellipse', 64, 25, 84, 75);
  await find(page, 'petals');
  await expect(bench.message()).toContainText('copies in a ring');
  await bench.field('Count').fill('12');
  await page.keyboard.press('Enter');
  await expect(bench.message()).not.toContainText('more than');
  await page.keyboard.press('Escape');
  await bench.shape('Ellipse', 50, 120, 98, 168);
  const chooser = page.waitForEvent('filechooser');
  await bench.details().getByRole('radiogroup', { name: 'Fill kind' }).getByRole('radio', { name: 'Picture' }).click();
  await page.getByRole('button', { name: 'Choose files' }).click();
  await (
    await chooser
  ).setFiles({ name: 'Lantern.jpg', mimeType: 'image/jpeg', buffer: readFileSync('public/pictures/lantern-glow.jpg') });
  await expect(bench.message()).toContainText('Lantern.jpg');
  await expect(bench.details().getByRole('button', { name: 'Crop' })).toBeVisible();
  await bench.saved();
  await took('petals and picture', await hand(), 24);
});

test('a certificate: an edge, a seal, words in the middle', WHOLE, async ({ page }) => {
  const hand = await counting(page);
  const bench = await BenchPage.make(page, 'A4', 'Walker of the year');
  await page.getByRole('group', { name: 'Small palettes to begin with' }).getByRole('button').first().click();
  await bench.shape('Scalloped edge', 10, 10, 200, 287);
  await bench.shape('Seal', 80, 210, 130, 260);
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await bench.drag(await bench.at(30, 60), await bench.at(180, 110));
  await page.keyboard.type('Walker of the year');
  await bench.details().getByRole('radiogroup', { name: 'Alignment' }).getByRole('radio', { name: 'Middle' }).click();
  await bench.field('Size').fill('40');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await find(page, 'middles across');
  await expect.poll(() => bench.names()).toHaveLength(3);
  await bench.saved();
  await took('certificate', await hand(), 55);
});

test('recolouring: one card changed, everything of that colour follows', WHOLE, async ({ page }) => {
  const hand = await counting(page);
  const bench = await BenchPage.poster(page);
  const slip = await bench.edit('Wick');
  const before = await bench.card('Wick, ').getAttribute('aria-label');
  await slip.getByLabel('Cyan', { exact: true }).fill('20');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(bench.card('Wick, ')).not.toHaveAttribute('aria-label', before!);
  await bench.saved();
  await took('recolouring', await hand(), 7);
});

test('rescue: the tab is closed in mid-work, and all is there when it is opened again', async ({ page, context }) => {
  const bench = await BenchPage.make(page, 'A5', 'Lost and found');
  await bench.shape('Star', 40, 40, 100, 100);
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await bench.click(30, 140);
  await page.keyboard.type('Half a sent');
  await bench.saved();
  await page.close();
  const again = await context.newPage();
  const hand = await counting(again);
  await again.goto('/');
  await again.getByRole('link', { name: /Lost and found/ }).click();
  const back = new BenchPage(again);
  await back.ready();
  await expect.poll(() => back.names()).toEqual(['Text: Half a sent', 'Star']);
  await took('rescue', await hand(), 1);
});
