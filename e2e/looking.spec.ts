import { BenchPage, expect, still, test, WHOLE } from './support';

test(
  'the screen is measured against a card: real size is true from then on, after a reload too',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.poster(page);
    const zoom = page.getByLabel('Zoom in percent of real size');
    await page.getByRole('button', { name: 'Real size' }).click();
    await expect(zoom).toHaveValue('100 %');
    await page.getByRole('button', { name: 'Measure it' }).click();
    const sheet = page.getByRole('dialog', { name: 'Measure this screen' });
    // 85.6 × 53.98 mm (ISO/IEC 7810 ID-1) at 96 pixels an inch.
    const card = async () => (await sheet.getByTestId('card').boundingBox())!;
    expect((await card()).width).toBeCloseTo((85.6 * 96) / 25.4, 0);
    expect((await card()).height).toBeCloseTo((53.98 * 96) / 25.4, 0);
    await sheet.getByRole('slider', { name: 'Size of the outline' }).focus();
    for (let i = 0; i < 20; i++) await page.keyboard.press('ArrowRight');
    await expect.poll(async () => Math.round((await card()).width)).toBe(Math.round((1.1 * 85.6 * 96) / 25.4));
    await sheet.getByRole('button', { name: 'It is as large' }).click();
    await expect(own.message()).toContainText('Measured');
    await page.reload();
    await own.ready();
    await page.getByRole('button', { name: 'Real size' }).click();
    await expect(zoom).toHaveValue('100 %');
    await expect(page.getByRole('button', { name: 'Measure it' })).toHaveCount(0);
  },
);

test(
  'clean view is turned by the arrow keys, spread by spread; the other side of a card shines through',
  WHOLE,
  async ({ page }) => {
    await page.goto('/');
    await page.getByRole('link', { name: /Walk programme/ }).click();
    const own = new BenchPage(page);
    await own.ready();
    const at = page.getByRole('button', { name: /^Pages/ });
    await own.top.focus();
    await page.keyboard.press('2');
    await page.keyboard.press('ArrowRight');
    await expect(at).toContainText('2 of 12');
    await page.keyboard.press('ArrowRight');
    await expect(at).toContainText('4 of 12');
    await page.keyboard.press('ArrowRight');
    await expect(at).toContainText('6 of 12');
    await page.keyboard.press('ArrowLeft');
    await expect(at).toContainText('5 of 12');
    await page.keyboard.press('ArrowLeft');
    await expect(at).toContainText('3 of 12');

    await page.goto('/');
    await page.getByRole('link', { name: /Stall card/ }).click();
    await own.ready();
    const pixel = async () => {
      const p = await own.at(16, 23);
      const clip = { x: Math.round(p.x), y: Math.round(p.y), width: 2, height: 2 };
      return (await page.screenshot({ clip })).toString('base64');
    };
    const before = await still(pixel);
    await own.top.focus();
    await page.keyboard.press('Control+k');
    await page.keyboard.type('back of the card');
    await page.keyboard.press('Enter');
    await expect(own.message()).toContainText('The other side shines through, mirrored');
    await expect.poll(pixel).not.toBe(before);
    if (process.env.HOLVET_SHOTS) await page.screenshot({ path: '/tmp/try/through.png' });
    await page.keyboard.press('Control+k');
    await page.keyboard.type('back of the card');
    await page.keyboard.press('Enter');
    await expect.poll(pixel).toBe(before);
  },
);
