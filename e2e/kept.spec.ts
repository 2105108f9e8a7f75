import { BenchPage, expect, heldBack, test, WHOLE } from './support';

// Nothing that said saved is lost, whatever happens meanwhile. (Killed browsers: kill.spec.ts; full and refused
// storage, two tabs: screens.spec.ts; a reload in a drag: work.spec.ts.)

test(
  'a reload while a file is being made: the design is as it was, nothing is left behind, and the file can be made',
  WHOLE,
  async ({ page }) => {
    const bench = await BenchPage.demo(page, /Walk programme/);
    await bench.shape('Ellipse', 20, 20, 60, 60);
    await bench.saved();
    await page.getByRole('button', { name: 'Hand over' }).click();
    const slip = page.getByRole('dialog', { name: 'Hand over' });
    const letGo = await heldBack(page, '**/fonts/*.ttf');
    await slip.getByRole('button', { name: 'Make PDF' }).click();
    await expect(slip.getByRole('button', { name: 'Stop' })).toBeVisible();
    await letGo();
    await page.reload();
    await bench.ready();
    await expect.poll(() => bench.names()).toContain('Ellipse');
    // No worker, no cache and no half file stays.
    expect(await page.evaluate(() => caches.keys())).toEqual([]);
    const pdf = await bench.handOver('PDF');
    expect(Buffer.from(pdf.bytes.slice(-8)).toString()).toContain('%%EOF');
  },
);

test('a file that is stopped on its way leaves nothing: no download, and the next one is whole', async ({ page }) => {
  const bench = await BenchPage.demo(page, /Walk programme/);
  let downloads = 0;
  page.on('download', () => downloads++);
  await page.getByRole('button', { name: 'Hand over' }).click();
  const slip = page.getByRole('dialog', { name: 'Hand over' });
  const letGo = await heldBack(page, '**/fonts/*.ttf');
  await slip.getByRole('button', { name: 'Make PDF' }).click();
  await slip.getByRole('button', { name: 'Stop' }).click();
  await letGo();
  await expect(slip.getByText('Stopped. No file was made.')).toBeVisible();
  await expect.poll(() => page.workers().length).toBeLessThanOrEqual(2);
  expect(downloads).toBe(0);
  await page.keyboard.press('Escape');
  expect((await bench.handOver('PDF')).bytes.length).toBeGreaterThan(100_000);
});

test(
  'the clock set back a year, and forward again: each step is kept, in the order in which they were made',
  WHOLE,
  async ({ page }) => {
    const bench = await BenchPage.make(page, 'A5', 'Old clock');
    await bench.shape('Ellipse', 20, 20, 60, 60);
    await bench.saved();
    for (const [shape, year] of [
      ['Rectangle', '2019'],
      ['Star', '2031'],
    ] as const) {
      await page.clock.setFixedTime(new Date(`${year}-03-01T12:00:00Z`));
      await bench.shape(shape, 70, 20 + Number(year) - 2010, 110, 60);
      await bench.saved();
      await page.reload();
      await bench.ready();
      await expect.poll(() => bench.names()).toContain(shape);
    }
    await expect.poll(() => bench.names()).toEqual(['Star', 'Rectangle', 'Ellipse']);
    await bench.top.focus();
    await page.keyboard.press('Control+z');
    await expect.poll(() => bench.names()).toEqual(['Rectangle', 'Ellipse']);
    await page.keyboard.press('Control+z');
    await expect.poll(() => bench.names()).toEqual(['Ellipse']);
  },
);
