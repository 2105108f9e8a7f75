import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { test as plain } from '@playwright/test';
import { BenchPage, expect, test, WHOLE } from './support';

test('a state is kept under a name, gone back to in one step, compared, and thrown away', async ({ page }) => {
  const bench = await BenchPage.make(page, 'A6', 'Lantern card');
  await bench.shape('Ellipse', 20, 20, 60, 60);
  const earlier = page.getByRole('button', { name: 'Earlier' });
  const slip = page.getByRole('dialog', { name: 'Earlier states' });
  await earlier.click();
  await slip.getByLabel('Keep this state as').fill('First proof');
  await slip.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(slip.getByRole('list', { name: 'Kept states' })).toContainText('First proof');
  await page.keyboard.press('Escape');
  await bench.shape('Rectangle', 30, 80, 70, 120);
  await expect.poll(() => bench.names()).toHaveLength(2);
  // It is there after a reload.
  await bench.saved();
  await page.reload();
  await bench.ready();
  await earlier.click();
  await slip.getByRole('button', { name: 'Go back to it' }).click();
  await expect.poll(() => bench.names()).toHaveLength(1);
  await bench.top.focus();
  await page.keyboard.press('Control+z');
  await expect.poll(() => bench.names()).toHaveLength(2);
  await earlier.click();
  await slip.getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByRole('button', { name: 'Look closer' })).toBeVisible();
  await earlier.click();
  await slip.getByRole('button', { name: 'Throw away' }).click();
  await expect(slip.getByRole('list', { name: 'Kept states' })).toHaveCount(0);
});

test('the whole shelf as one file, and back: designs, pictures and folders', WHOLE, async ({ page, browser }) => {
  const bench = await BenchPage.make(page, 'A6', 'Quay card');
  await page.getByRole('button', { name: 'Earlier' }).click();
  await page.getByLabel('Keep this state as').fill('Empty sheet');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'Kept states' })).toContainText('Empty sheet');
  await page.keyboard.press('Escape');
  await bench.saved();
  await page.goto('/');
  await expect(page.getByLabel('Room taken in this browser')).toBeVisible();
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the whole shelf' }).click();
  const file = await waiting;
  const whole = readFileSync((await file.path())!);
  const names = Object.keys(unzipSync(whole)).sort();
  expect(names).toContain('Quay card.holvet');
  expect(names).toContain('Lantern Walk poster.holvet');
  expect(names).toContain('shelf.json');
  // Another browser.
  const other = await browser.newContext({ serviceWorkers: 'block' });
  const there = await other.newPage();
  await there.goto('/');
  await expect(there.getByRole('link', { name: /Lantern Walk poster/ })).toHaveCount(1);
  await there
    .getByLabel('Open a design file')
    .setInputFiles({ name: 'shelf.zip', mimeType: 'application/zip', buffer: whole });
  await expect(there.getByRole('status').filter({ hasText: 'came onto the shelf' })).toContainText(
    `${names.length - 1} designs`,
    { timeout: 60_000 },
  );
  await expect(there.getByRole('link', { name: /Quay card/ })).toHaveCount(1);
  // What was there already came in beside it.
  await expect(there.getByRole('link', { name: /Lantern Walk poster/ })).toHaveCount(2);
  // What was kept under a name came along.
  await there.getByRole('link', { name: /Quay card/ }).click();
  const moved = new BenchPage(there);
  await moved.ready();
  await there.getByRole('button', { name: 'Earlier' }).click();
  await expect(there.getByRole('list', { name: 'Kept states' })).toContainText('Empty sheet');
  await other.close();
});

test('the shelf says which designs are open in a tab', WHOLE, async ({ page, context }) => {
  const bench = await BenchPage.demo(page, /Supper ticket/);
  await bench.saved();
  const shelf = await context.newPage();
  await shelf.goto('/');
  await expect(shelf.getByText('open in a tab')).toHaveCount(1);
  await page.close();
  await expect(shelf.getByText('open in a tab')).toHaveCount(0);
});

plain.describe('without a network', () => {
  plain.use({ serviceWorkers: 'allow' });
  plain(
    'once loaded, the shelf and a design that was never opened come up, are worked on, and give files',
    async ({ page, context }) => {
      plain.setTimeout(180_000);
      await page.goto('/');
      await page.evaluate(() =>
        navigator.serviceWorker.ready.then(
          (r) =>
            new Promise<void>((done) => {
              navigator.serviceWorker.addEventListener('message', (e) => e.data === 'whole' && done());
              r.active!.postMessage('rest');
            }),
        ),
      );
      await context.setOffline(true);
      await page.reload();
      await page.getByRole('link', { name: /Supper ticket/ }).click();
      const bench = new BenchPage(page);
      await bench.ready();
      await bench.shape('Ellipse', 10, 10, 30, 30);
      await bench.saved();
      const pdf = await bench.handOver('PDF');
      expect(pdf.bytes.length).toBeGreaterThan(50_000);
      // A design made now, with a face that was never asked for before.
      await page.reload();
      await bench.ready();
      await expect.poll(() => bench.names()).toContain('Ellipse');
      await context.setOffline(false);
    },
  );
});

test('a signature: drawn, put into its frame, kept for the next design', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Certificate');
  await bench.shape('Rectangle', 30, 60, 110, 85);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('signature');
  await page.keyboard.press('Enter');
  const sheet = page.getByRole('dialog', { name: 'Draw a signature' });
  const pad = (await sheet.getByRole('img', { name: /Sheet to sign on/ }).boundingBox())!;
  await page.mouse.move(pad.x + 80, pad.y + 120);
  await page.mouse.down();
  for (let i = 0; i <= 60; i++) await page.mouse.move(pad.x + 80 + i * 7, pad.y + 120 + 50 * Math.sin(i / 5));
  await page.mouse.up();
  await page.mouse.move(pad.x + 300, pad.y + 40);
  await page.mouse.down();
  await page.mouse.move(pad.x + 380, pad.y + 36, { steps: 6 });
  await page.mouse.up();
  await expect(sheet.getByRole('img', { name: '2 strokes so far' })).toBeVisible();
  if (process.env.HOLVET_SHOTS) await page.screenshot({ path: '/tmp/try/sign.png' });
  await sheet.getByRole('button', { name: 'Put it on the page' }).click();
  await expect.poll(() => bench.names()).toContain('Signature');
  // In the frame, as large as it can be.
  await expect(bench.field('X')).not.toHaveValue('30 mm');
  if (process.env.HOLVET_SHOTS) await page.screenshot({ path: '/tmp/try/signed.png' });
  await bench.top.focus();
  await page.keyboard.press('Control+z');
  await expect.poll(() => bench.names()).toEqual(['Rectangle']);
  await BenchPage.make(page, 'A6', 'Another');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('signature');
  await page.keyboard.press('Enter');
  await sheet.getByRole('button', { name: 'Put signature 1 on the page' }).click();
  await expect.poll(() => bench.names()).toEqual(['Signature']);
});
