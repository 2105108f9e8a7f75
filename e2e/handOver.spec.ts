import { readFile } from 'node:fs/promises';
import { decode } from 'fast-png';
import { unzipSync } from 'fflate';
import { BenchPage, expect, test, WHOLE } from './support';

const NAMES = ['Start', 'Quay', 'Fog', 'Lantern', 'Supper', 'Back'];

test(
  'six buttons, each under its own name in one go: in two sizes, clear around; as JPEG, WebP and SVG',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A6', 'Buttons');
    for (const [i, name] of NAMES.entries()) {
      const [x, y] = [10 + (i % 2) * 45, 15 + Math.floor(i / 2) * 40];
      await own.shape('Ellipse', x, y, x + 36, y + 25);
      await page.getByRole('listbox', { name: /Objects on page/ }).focus();
      await page.keyboard.press('F2');
      await page.keyboard.type(name);
      await page.keyboard.press('Enter');
      await own.top.focus();
    }
    await expect.poll(() => own.names()).toEqual([...NAMES].reverse());
    await page.keyboard.press('Control+a');
    await page.getByRole('button', { name: 'Hand over' }).click();
    const slip = page.getByRole('dialog', { name: 'Hand over' });
    await slip.getByRole('radio', { name: 'Picture', exact: true }).click();
    await slip.getByRole('radio', { name: 'Each of 6' }).click();
    await expect(slip.getByLabel('Transparent ground')).toBeChecked();
    await slip.getByLabel('Resolution').fill('72');
    await slip.getByLabel('Resolution').press('Enter');
    await slip.getByRole('checkbox', { name: '2×' }).check();
    if (process.env.HOLVET_SHOTS) await page.screenshot({ path: '/tmp/try/six.png' });
    const made = async (button: string) => {
      const waiting = page.waitForEvent('download');
      await slip.getByRole('button', { name: button }).click();
      const file = await waiting;
      return { name: file.suggestedFilename(), bytes: new Uint8Array(await readFile((await file.path())!)) };
    };
    const zip = await made('Make PNG files');
    expect(zip.name).toBe('Buttons.zip');
    const files = unzipSync(zip.bytes);
    expect(Object.keys(files).sort()).toEqual(NAMES.flatMap((n) => [`${n}.png`, `${n}@2x.png`]).sort());
    const [one, two] = [decode(files['Fog.png']), decode(files['Fog@2x.png'])];
    expect([one.width, one.height, one.channels]).toEqual([102, 71, 4]);
    expect(Math.abs(two.width - 2 * one.width)).toBeLessThanOrEqual(1);
    expect(one.data[3]).toBe(0);
    expect(one.data[4 * (35 * one.width + 51) + 3]).toBe(255);
    // The browser's own encoders.
    await slip.getByRole('checkbox', { name: '2×' }).uncheck();
    await slip.getByRole('radio', { name: 'JPEG' }).click();
    const jpegs = unzipSync((await made('Make JPEG files')).bytes);
    expect([...jpegs['Quay.jpg'].slice(0, 3)]).toEqual([0xff, 0xd8, 0xff]);
    await slip.getByRole('radio', { name: 'Chosen', exact: true }).click();
    await slip.getByRole('radio', { name: 'WebP' }).click();
    const webp = await made('Make WebP');
    expect(webp.name).toBe('Buttons.webp');
    expect(Buffer.from(webp.bytes.slice(8, 12)).toString()).toBe('WEBP');
    await slip.getByRole('radio', { name: 'SVG', exact: true }).click();
    await slip.getByRole('radio', { name: 'Each of 6' }).click();
    const svgs = unzipSync((await made('Make SVG files')).bytes);
    expect(Object.keys(svgs).sort()).toEqual(NAMES.map((n) => `${n}.svg`).sort());
    expect(Buffer.from(svgs['Back.svg']).toString()).toContain('<title>Back</title>');
    // The same once more, by one key.
    await page.keyboard.press('Escape');
    await own.top.focus();
    const again = page.waitForEvent('download');
    await page.keyboard.press('Control+Shift+E');
    expect((await again).suggestedFilename()).toBe('Buttons.zip');
    await expect(own.message()).toContainText('Buttons.zip is in your downloads');
  },
);

test('what is chosen goes to the system’s clipboard, as a picture and as SVG', WHOLE, async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const own = await BenchPage.make(page, 'A6', 'Mark');
  await own.shape('Star', 30, 30, 70, 70);
  const run = async (name: string) => {
    await page.keyboard.press('Control+k');
    await page.keyboard.type(name);
    await page.keyboard.press('Enter');
  };
  await own.top.focus();
  await run('Copy as a picture');
  await expect(own.message()).toContainText('Copied as a picture', { timeout: 30_000 });
  const size = await page.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    const picture = await createImageBitmap(await item.getType('image/png'));
    return [picture.width, picture.height];
  });
  // 40 mm at 192 dots an inch, less what a star leaves of its box.
  expect(size[0]).toBeGreaterThan(280);
  expect(size[0]).toBeLessThan(305);
  await own.top.focus();
  await run('Copy as SVG');
  await expect(own.message()).toContainText('Copied as SVG', { timeout: 30_000 });
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain(
    '<svg xmlns="http://www.w3.org/2000/svg"',
  );
});

test('a picture of a width, the plates one by one, and an SVG as small as can be', WHOLE, async ({ page }) => {
  await BenchPage.demo(page, /Supper ticket/);
  await page.getByRole('button', { name: 'Hand over' }).click();
  const slip = page.getByRole('dialog', { name: 'Hand over' });
  const made = async (button: string) => {
    const waiting = page.waitForEvent('download');
    await slip.getByRole('button', { name: button }).click();
    const file = await waiting;
    await expect(slip.getByText('in your downloads')).toBeVisible();
    return { name: file.suggestedFilename(), bytes: new Uint8Array(await readFile((await file.path())!)) };
  };
  await slip.getByRole('radio', { name: 'Picture', exact: true }).click();
  await slip.getByRole('radio', { name: 'By width' }).click();
  await slip.getByLabel('Width in pixels').fill('777');
  await slip.getByLabel('Width in pixels').press('Enter');
  expect(decode((await made('Make PNG')).bytes).width).toBe(777);
  await slip.getByRole('radio', { name: 'Plates' }).click();
  await slip.getByLabel('Resolution').fill('100');
  await slip.getByLabel('Resolution').press('Enter');
  const zip = await made('Make Plates');
  expect(zip.name).toBe('Supper ticket, plates.zip');
  const plates = unzipSync(zip.bytes);
  const inks = ['Cyan', 'Magenta', 'Yellow', 'Black', 'Ember 66-43'];
  expect(Object.keys(plates).sort()).toEqual(inks.map((ink) => `Supper ticket ${ink}.png`).sort());
  const plate = decode(plates['Supper ticket Ember 66-43.png']);
  // With the bleed: 156 × 71 mm at 100 dpi.
  expect([plate.width, plate.height, plate.channels]).toEqual([614, 280, 1]);
  await slip.getByRole('radio', { name: 'SVG', exact: true }).click();
  const whole = await made('Make SVG');
  await slip.getByLabel('As small as can be').check();
  const small = await made('Make SVG');
  expect(small.bytes.length).toBeLessThan(whole.bytes.length * 0.9);
});
