import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { decode, encode } from 'fast-png';
import { BenchPage, drop, expect, test, type Spot, WHOLE } from './support';
import { random } from '../tests/support/random';

const drawer = (file: string) => readFileSync(`public/pictures/${file}`);

async function seenAt(page: Page, spot: Spot): Promise<number[]> {
  const shot = decode(
    await page.screenshot({ clip: { x: Math.round(spot.x), y: Math.round(spot.y), width: 2, height: 2 } }),
  );
  return [shot.data[0], shot.data[1], shot.data[2]];
}
const details = (page: Page) => page.getByRole('complementary', { name: 'Details' });
const ppi = async (page: Page) =>
  Number(/(\d+) ppi/.exec((await page.getByTestId('effective-ppi').textContent())!)![1]);

/** A star in the middle of the page. */
async function star(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByLabel('Search shapes').fill('star');
  await page.getByRole('button', { name: 'Star', exact: true }).click();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option', { name: /^Star/ })).toBeVisible();
}

test('a photo on the page and in a star: cropped, moved, faded; its resolution falls as it grows; replaced it keeps its crop', async ({
  page,
}) => {
  const bench = await BenchPage.make(page, 'A4', 'Photos');
  await drop(page, await bench.at(60, 60), 'Harbour.jpg', drawer('harbour-dusk.jpg'));
  await expect(page.getByRole('option', { name: /^Harbour/ })).toBeVisible();
  await expect.poll(() => ppi(page)).toBe(300);
  await star(page);
  await page.keyboard.press('Escape');
  const middle = await bench.at(105, 148.5);
  await drop(page, middle, 'Lantern.jpg', drawer('lantern-glow.jpg'));
  await expect(page.getByText('is the frame of Lantern.jpg')).toBeVisible();
  await expect(page.getByRole('option', { name: /^Lantern/ })).toHaveCount(0);

  // Inside the star: moved by a drag, zoomed by the wheel, ended by Enter.
  await page.mouse.dblclick(middle.x, middle.y);
  await expect(details(page).getByRole('button', { name: 'Done' })).toBeVisible();
  const coarse = await ppi(page);
  await page.mouse.move(middle.x, middle.y);
  await page.mouse.down();
  await page.mouse.move(middle.x + 14, middle.y + 9, { steps: 4 });
  await page.mouse.up();
  await page.mouse.wheel(0, -600);
  await expect.poll(() => ppi(page)).toBeLessThan(coarse * 0.8);
  await page.keyboard.press('Enter');
  await expect(details(page).getByRole('button', { name: 'Crop' })).toBeVisible();

  // Faded: the same spot is lighter, on screen and after a reload.
  let before = await seenAt(page, middle);
  // What rests is looked at: twice the same, a while apart.
  await expect
    .poll(async () => {
      const last = String(before);
      await page.waitForTimeout(900);
      before = await seenAt(page, middle);
      return String(before) === last;
    })
    .toBe(true);
  await details(page).getByRole('button', { name: 'Tone, inks, surround' }).click();
  await details(page).getByLabel('Fade in percent').fill('60');
  await details(page).getByLabel('Fade in percent').press('Enter');
  await expect
    .poll(async () => (await seenAt(page, middle)).reduce((a, b) => a + b))
    .toBeGreaterThan(before.reduce((a, b) => a + b) + 60);
  const geometry = await ppi(page);
  await details(page).getByLabel('Replace the picture').setInputFiles('public/pictures/paper-moon.png');
  await expect(page.getByText('paper-moon.png lies where the old picture lay.')).toBeVisible();
  // Other pixels in the same place.
  await expect.poll(async () => Math.abs((await ppi(page)) / geometry - 1000 / 1400)).toBeLessThan(0.03);
  await expect(details(page).getByLabel('Fade in percent')).toHaveValue('60%');

  await page.getByRole('option', { name: /^Harbour/ }).click();
  await details(page).getByLabel('Width').fill('400mm');
  await details(page).getByLabel('Width').press('Enter');
  await expect.poll(() => ppi(page)).toBeLessThan(130);
  await expect(page.getByRole('button', { name: /^Checks/ })).toContainText('to look at', { timeout: 20_000 });
  await page.getByRole('button', { name: /^Checks/ }).click();
  await expect(page.getByText(/Harbour has \d+ pixels an inch/)).toBeVisible();
  await page.keyboard.press('Escape');
  await bench.saved();
  await page.reload();
  await bench.ready();
  await expect(page.getByRole('option', { name: /^Harbour/ })).toBeVisible();
  await page.getByRole('option', { name: /^Star/ }).click();
  await expect(details(page).getByText('paper-moon.png').first()).toBeVisible();
});

test(
  'the guild mark freed of its white ground; tiles at a tenth of their size; two inks on real plates',
  WHOLE,
  async ({ page }) => {
    const bench = await BenchPage.poster(page);
    await page.getByRole('button', { name: 'Picture', exact: true }).click();
    await page.getByLabel('Search the picture drawer').fill('guild');
    await page.getByRole('button', { name: /Guild mark on white/ }).click();
    await expect(page.getByRole('option', { name: /^Guild mark on white/ })).toBeVisible();
    const corner = await bench.at(210 - 44, 300);
    await expect.poll(async () => (await seenAt(page, corner))[2]).toBeGreaterThan(200);
    await details(page).getByRole('button', { name: 'Tone, inks, surround' }).click();
    await details(page).getByLabel('Take out the surround').check();
    await expect.poll(async () => (await seenAt(page, corner))[0]).toBeLessThan(120);
    // What is shut in stays: the flame's pane is white.
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect.poll(async () => (await seenAt(page, corner))[2]).toBeGreaterThan(200);

    await details(page).getByRole('radio', { name: 'One ink' }).click();
    await expect(
      page.getByRole('group', { name: 'Inks on this page' }).getByRole('button', { name: 'Ember 66-43' }),
    ).toBeVisible();
    await details(page).getByRole('radio', { name: 'Two inks' }).click();
    await expect(details(page).getByRole('group', { name: 'Curve of ink 2' })).toBeVisible();
    const bead = details(page).getByRole('slider', { name: 'Curve of ink 1, bead 2' });
    await bead.focus();
    await bead.press('ArrowDown');
    await expect(bead).toHaveAttribute('aria-valuenow', '98');

    await page.getByRole('option', { name: /^Moon/ }).click();
    await page.getByRole('button', { name: 'Picture', exact: true }).click();
    await expect(page.getByLabel('Into Moon')).toBeChecked();
    await page.getByRole('button', { name: /^Net/ }).click();
    await details(page).getByRole('radio', { name: 'Tiles' }).click();
    await details(page).getByLabel('Tile size').fill('10');
    await details(page).getByLabel('Tile size').press('Enter');
    // 240 pixels at 300 ppi are 20.32 mm: a tenth of that.
    await expect(details(page).getByLabel('Tile width')).toHaveValue('2.03 mm');
    await details(page).getByLabel('Tile turn').fill('45');
    await details(page).getByLabel('Tile turn').press('Enter');
    await details(page).getByRole('radio', { name: 'Mirrored' }).click();
    await expect(details(page).getByLabel('Tile turn')).toHaveValue('45°');
  },
);

test(
  'a drawing of boats: taken apart, a part recoloured, sent behind; what a drawing loses is told, and nothing leaves the page',
  WHOLE,
  async ({ page }) => {
    const outside: string[] = [];
    page.on('request', (r) => {
      if (!/^(http:\/\/127\.0\.0\.1|data:|blob:)/.test(r.url())) outside.push(r.url());
    });
    const bench = await BenchPage.make(page, 'A4', 'Boats');
    await page.getByRole('button', { name: 'Picture', exact: true }).click();
    await page.getByRole('button', { name: /Three boats/ }).click();
    await expect(page.getByText('Placed Three boats: 11 objects that can be changed.')).toBeVisible();
    await page.keyboard.press('Control+Shift+g');
    await expect(page.getByRole('option', { name: /^near/ })).toBeVisible();
    await page.keyboard.press('Control+Shift+g');
    const recipe = page.getByLabel('Recipe line');
    await recipe.fill('Sail 0 60 90 0');
    await recipe.press('Enter');
    const sail = page.getByRole('option', { name: /^Path/ }).first();
    await sail.click();
    await bench.card('Sail').click();
    await expect(details(page).getByText(/filled/)).toContainText('Sail');
    await page.getByRole('option', { name: /^Rectangle/ }).click();
    await page.keyboard.press('Control+Shift+ArrowUp');
    await expect(bench.pile().first()).toHaveAttribute('aria-label', /^Rectangle/);
    await page.keyboard.press('Control+Shift+ArrowDown');
    await expect(bench.pile().last()).toHaveAttribute('aria-label', /^Rectangle/);

    await page.getByRole('button', { name: 'Picture', exact: true }).click();
    const nasty = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9" onload="alert(1)"><script>fetch('http://marrowick.invalid/')</script><style>@import url(http://marrowick.invalid/a.css)</style><image href="http://marrowick.invalid/x.png" width="5" height="5"/><rect width="5" height="5" fill="#a00"/><text y="8" font-size="3" font-family="Lanterna">Quay</text></svg>`;
    await page
      .getByLabel('Picture files')
      .setInputFiles({ name: 'nasty.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(nasty) });
    const report = page.getByRole('dialog', { name: 'nasty.svg is placed' });
    await expect(report.getByText('Scripts are left out.')).toBeVisible();
    await expect(report.getByText(/not fetched: http:\/\/marrowick\.invalid\/x\.png/)).toBeVisible();
    expect(
      (await new AxeBuilder({ page }).include('[role=dialog]').analyze()).violations
        .filter((v) => v.impact === 'serious' || v.impact === 'critical')
        .map((v) => v.id),
    ).toEqual([]);
    await report.getByRole('button', { name: 'Go on' }).click();

    // SVG out, and in again: the recipe comes back.
    await page.getByRole('option', { name: /^nasty/ }).click();
    await page.keyboard.press('Delete');
    const out = await bench.handOver('SVG');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Picture', exact: true }).click();
    await page
      .getByLabel('Picture files')
      .setInputFiles({ name: 'back.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(out.bytes) });
    await expect(page.getByText(/Placed back.svg: \d+ objects/)).toBeVisible();
    expect(Buffer.from(out.bytes).toString()).toContain('&quot;cmyk&quot;:[0,0.6,0.9,0]');
    await expect(page.getByRole('dialog', { name: /is placed/ })).toBeHidden();
    expect(outside).toEqual([]);
  },
);

test('pictures keep a design whole: as a file and back; barriers are none', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A4', 'Whole');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  expect(
    (await new AxeBuilder({ page }).include('[role=dialog]').analyze()).violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map((v) => v.id),
  ).toEqual([]);
  await page.getByLabel('Picture files').setInputFiles('public/pictures/wet-slate.jpg');
  await expect(page.getByRole('option', { name: /^wet-slate/ })).toBeVisible();
  await details(page).getByRole('button', { name: 'Tone, inks, surround' }).click();
  expect(
    (await new AxeBuilder({ page }).include('aside').analyze()).violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map((v) => v.id),
  ).toEqual([]);
  // A colour off the picture, and a palette out of it.
  await page.keyboard.press('m');
  const spot = await bench.at(105, 148);
  await page.mouse.move(spot.x, spot.y);
  await expect(page.getByText('a picture, as it looks')).toBeVisible();
  await page.keyboard.press('s');
  await page.getByRole('button', { name: 'Lift a palette' }).click();
  await expect(page.getByRole('button', { name: 'Add as a group' })).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Add as a group' }).click();
  await page.keyboard.press('Escape');
  await expect(bench.card('C\\d')).not.toHaveCount(0);
  await bench.saved();
  const file = await bench.handOver('Design');
  await page.evaluate(() =>
    indexedDB
      .databases()
      .then((all) =>
        Promise.all(
          all.map(
            (d) => new Promise((done) => ((indexedDB.deleteDatabase(d.name!).onsuccess = done), setTimeout(done, 500))),
          ),
        ),
      ),
  );
  await page.goto('/');
  await page
    .getByLabel('Open a design file')
    .setInputFiles({ name: 'Whole.holvet', mimeType: 'application/zip', buffer: Buffer.from(file.bytes) });
  await bench.ready();
  await page.waitForTimeout(1500);
  await expect.poll(async () => (await seenAt(page, await bench.at(105, 148)))[0]).toBeLessThan(160);
  await expect(page.getByRole('button', { name: /^Checks/ })).toContainText('nothing found', { timeout: 20_000 });
});

test(
  'a large picture lies in the store as a file: there after a reload, on the plates, in the PDF and in the design’s file',
  WHOLE,
  async ({ page }) => {
    const bench = await BenchPage.make(page, 'A5', 'Large');
    // Nothing of it can be packed away: red and green by chance, and always some blue.
    const [side, next] = [800, random(5)];
    const data = Uint8Array.from({ length: 3 * side * side }, (_, i) => (i % 3 === 2 ? 200 : next() * 256));
    const png = Buffer.from(encode({ width: side, height: side, data, channels: 3, depth: 8 }));
    expect(png.length).toBeGreaterThan(1_000_000);
    await drop(page, await bench.at(74, 105), 'Grain.png', png);
    await expect(page.getByRole('option', { name: /^Grain/ })).toBeVisible();
    await bench.saved();
    const kinds = () =>
      page.evaluate(async () => {
        const db = await new Promise<IDBDatabase>((resolve) => {
          const open = indexedDB.open('holvet');
          open.onsuccess = () => resolve(open.result);
        });
        const rows = await new Promise<{ bytes: unknown }[]>((resolve) => {
          const ask = db.transaction('assets').objectStore('assets').getAll();
          ask.onsuccess = () => resolve(ask.result as { bytes: unknown }[]);
        });
        db.close();
        return rows.map((r) => r.bytes instanceof Blob);
      });
    await expect.poll(kinds).toEqual([true]);
    const shown = async () => {
      const shot = decode(await page.screenshot({ clip: { ...(await bench.at(74, 105)), width: 20, height: 20 } }));
      return new Set(Array.from({ length: 400 }, (_, i) => shot.data[3 * i])).size;
    };
    await page.reload();
    await bench.ready();
    // Bare paper has one value.
    await expect.poll(shown).toBeGreaterThan(8);
    await page.getByRole('radio', { name: 'Plates' }).click();
    await expect.poll(shown).toBeGreaterThan(8);
    await page.getByRole('radio', { name: 'Work' }).click();
    const pdf = await bench.handOver('PDF');
    // Ink by ink, hardly smaller than it is.
    expect(pdf.bytes.length).toBeGreaterThan(1_000_000);
    await page.keyboard.press('Escape');
    const file = await bench.handOver('Design');
    expect(Buffer.from(file.bytes).includes(png.subarray(100_000, 100_200))).toBe(true);
  },
);
