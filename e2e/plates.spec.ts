import type { Page } from '@playwright/test';
import { BenchPage, expect, test, WHOLE } from './support';

// How plates are looked at closer: paper, what is out of reach, overlaps, two plates, what has changed, ink over a
// square, the loupe.

/** How many pixels of the sheet are pointed out in red. */
const red = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('#bench-top canvas')!;
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    let n = 0;
    for (let i = 0; i < data.length; i += 4) if (data[i] > 190 && data[i + 1] < 70 && data[i + 2] < 70) n++;
    return n;
  });

test('plates are looked at closer, one way after the other', WHOLE, async ({ page }) => {
  const bench = await BenchPage.demo(page, /Supper ticket/);
  await page.getByRole('radio', { name: 'Plates' }).click();
  const closer = page.getByRole('group', { name: 'Inks on this page' }).getByRole('button', { name: 'Look closer' });
  const slip = page.getByRole('dialog', { name: 'Look closer at the plates' });
  await closer.click();
  for (const look of ['On the paper’s own white', 'Two plates', 'Out of reach', 'What has changed', 'Overlaps']) {
    await slip.getByRole('radio', { name: look }).click();
    await expect(slip.getByRole('radio', { name: look })).toBeChecked();
    if (process.env.HOLVET_SHOTS) {
      await page.waitForTimeout(1200);
      await page.screenshot({ path: `/tmp/try/plates ${look}.png` });
    }
  }
  await page.keyboard.press('Escape');
  // No inks overlap, and they do when it is asked for; back with one step.
  await expect.poll(() => red(page)).toBe(0);
  await page.getByRole('button', { name: /^Inks/ }).click();
  await page.getByLabel(/Inks that meet overlap by/).fill('0.3');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect.poll(() => red(page), { timeout: 20_000 }).toBeGreaterThan(100);
  // What has changed since then: the same places.
  await closer.click();
  await slip.getByRole('radio', { name: 'What has changed' }).click();
  await expect(slip.getByText('Before the first step')).toBeAttached();
  await slip.getByRole('radio', { name: '3 mm' }).click();
  await slip.getByRole('checkbox', { name: 'Loupe' }).check();
  await page.keyboard.press('Escape');
  await expect.poll(() => red(page), { timeout: 20_000 }).toBeGreaterThan(100);
  await bench.top.focus();
  await page.keyboard.press('Control+z');
  await expect.poll(() => red(page), { timeout: 20_000 }).toBe(0);
});

test('under a spread the ways to look at plates stand in a row, all in sight', WHOLE, async ({ page }) => {
  const bench = await BenchPage.demo(page, /Walk programme/);
  await page.keyboard.press('PageDown');
  await page.getByRole('radio', { name: 'Plates' }).click();
  const bar = page.getByRole('group', { name: 'Inks on this page' });
  const inSight = async () => {
    const room = (await bench.top.boundingBox())!;
    const places = await Promise.all(
      (await bar.getByRole('button').or(bar.getByRole('radio')).all()).map((b) => b.boundingBox()),
    );
    return places.map(
      (b) => b!.x >= room.x && b!.x + b!.width <= room.x + room.width && b!.y + b!.height <= room.y + room.height,
    );
  };
  // Four inks, three looks, and what is rarer.
  await expect.poll(inSight).toEqual(Array(8).fill(true));
  await page.keyboard.press('PageDown');
  await expect.poll(inSight).toEqual(Array(8).fill(true));
  // What is said of a choice lies below them.
  await page.keyboard.press('PageUp');
  await page.getByRole('radio', { name: 'Work' }).click();
  await page.getByRole('option', { name: /^Harbour water/ }).click();
  const sized = page.getByText('Sized with it');
  await expect(sized).toBeVisible();
  await expect(async () => {
    const strip = (await bar.boundingBox())!;
    expect(strip.y + strip.height).toBeLessThanOrEqual((await sized.locator('..').boundingBox())!.y);
  }).toPass();
});

test('the loupe shows dots, and what a plate that lies aside does', WHOLE, async ({ page }) => {
  const bench = await BenchPage.demo(page, /Supper ticket/);
  await page.getByRole('radio', { name: 'Plates' }).click();
  await page.getByRole('button', { name: 'Look closer' }).click();
  await page.getByRole('checkbox', { name: 'Loupe' }).check();
  await page.keyboard.press('Escape');
  const loupe = page.getByRole('region', { name: 'Loupe' });
  const glass = loupe.getByRole('img');
  const seen = () => glass.evaluate((c: HTMLCanvasElement) => c.toDataURL());
  const spot = await bench.at(85, 45);
  await page.mouse.move(spot.x, spot.y);
  await expect(glass).toHaveAttribute('data-shows', /page/, { timeout: 10_000 });
  let before = '';
  await expect
    .poll(async () => {
      const last = before;
      before = await seen();
      return last === before;
    })
    .toBe(true);
  await loupe.getByLabel('Cyan across').fill('0.3');
  await page.keyboard.press('Enter');
  await expect.poll(seen).not.toBe(before);
  await loupe.getByRole('button', { name: 'Put the loupe away' }).click();
  await expect(loupe).toBeHidden();
});
