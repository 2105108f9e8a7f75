// Takes the current pictures of the main views into docs/screenshots: node scripts/screenshots.mjs
// [http://127.0.0.1:PORT]
import { existsSync } from 'node:fs';
import { chromium } from '@playwright/test';

const base = process.argv[2] ?? 'http://127.0.0.1:3000';
const browser = await chromium.launch({
  executablePath:
    process.env.CHROMIUM_PATH ?? ['/usr/bin/chromium', '/usr/bin/chromium-headless-shell'].find((f) => existsSync(f)),
  headless: true,
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});

async function session(options = {}) {
  const context = await browser.newContext({
    viewport: { width: 1280, height: options.height ?? 800 },
    colorScheme: options.dark ? 'dark' : 'light',
  });
  const page = await context.newPage();
  await page.goto(base);
  await page.getByRole('img', { name: /Lantern Walk poster/ }).waitFor({ timeout: 30_000 });
  const shot = (name) => page.screenshot({ path: `docs/screenshots/${name}.png` });
  const poster = async () => {
    await page.getByRole('link', { name: /Lantern Walk poster/ }).click();
    await page.getByTestId('save-state').waitFor();
    await page
      .getByRole('button', { name: /^Checks/ })
      .filter({ hasText: 'nothing found' })
      .waitFor();
    await page.waitForTimeout(2500);
  };
  return { page, shot, poster, close: () => context.close() };
}

const a = await session();
for (const name of [
  'Guild letterhead',
  'Supper ticket',
  'Guild mark',
  'Lantern stickers',
  'Route markers',
  'Workshop certificate',
])
  await a.page.getByRole('img', { name: new RegExp(`^${name}`) }).waitFor({ timeout: 30_000 });
await a.shot('shelf');
await a.poster();
await a.page.getByRole('option', { name: /^Lanterns/ }).click();
await a.page.locator('#bench-top').focus();
await a.page.mouse.dblclick(646, 440);
await a.page.mouse.dblclick(646, 440);
await a.page.waitForTimeout(800);
await a.shot('bench');
await a.page.getByRole('button', { name: 'Gradient', exact: true }).click();
await a.page.waitForTimeout(400);
await a.shot('gradient');
await a.page.getByRole('radio', { name: 'Plates' }).click();
await a.page.getByRole('radio', { name: 'Total ink' }).click();
await a.page.getByRole('button', { name: /^Inks/ }).first().click();
await a.page.getByText('g of ink a square metre').waitFor();
await a.page.waitForTimeout(2500);
await a.shot('plates');
await a.close();

const d = await session();
await d.poster();
const choose = (name) => d.page.getByRole('option', { name }).click();
await choose(/^Headline/);
await d.page.waitForTimeout(800);
await d.page.getByRole('button', { name: /^Wick,/ }).click();
await d.page.getByRole('button', { name: /^Rope,/ }).click();
await d.page.getByRole('button', { name: /^Paper Glow,/ }).click();
await d.page.getByLabel('Recipe line').fill('Dusk 100 72 8 20');
await d.page.waitForTimeout(1500);
await d.page.getByLabel('Recipe line').fill('Neon #0a4dff');
await d.page.keyboard.press('Enter');
await d.page.getByRole('button', { name: 'Edit Neon', exact: true }).click({ force: true });
await d.page.getByRole('radio', { name: 'HSB' }).click();
await d.page.waitForTimeout(500);
await d.close();

// Lines: the tear line of the ticket, in pills and dots with a second colour.
const t = await session();
await t.page.getByRole('link', { name: /Supper ticket/ }).click();
await t.page.getByTestId('save-state').waitFor();
await t.page.waitForTimeout(2000);
await t.page.getByRole('option', { name: /^Tear line/ }).click();
await t.page.waitForTimeout(1500);
await t.shot('outline');
await t.close();

// Depth: the headline of the poster pushed back.
const q = await session();
await q.poster();
await q.page.getByRole('option', { name: /^Headline/ }).click();
const deep = q.page.locator('[data-section="Depth"]');
await deep.getByRole('button', { name: /fold or open/ }).click();
await deep.getByRole('checkbox', { name: 'Pushed back' }).check();
await deep.getByRole('combobox', { name: 'Sides' }).selectOption({ label: 'Ember 66-43' });
await deep.getByLabel('Which way it is pushed').fill('70');
await q.page.keyboard.press('Enter');
await deep.getByLabel('How deep').fill('14');
await q.page.keyboard.press('Enter');
await deep.evaluate((e) => e.scrollIntoView({ block: 'start' }));
await q.page.waitForTimeout(2500);
await q.shot('depth');
await q.close();

// Regions: the line drawing of the drawer, one area about to be coloured anew.
const r = await session();
await r.page.getByRole('button', { name: 'New design' }).click();
await r.page.getByRole('dialog').getByLabel('Name').fill('Harbour in lines');
await r.page.getByRole('dialog').getByLabel('Format').selectOption('A5');
await r.page.getByRole('dialog').getByRole('button', { name: 'Make it' }).click();
await r.page.getByTestId('save-state').waitFor();
await r.page.waitForTimeout(1500);
await r.page.getByRole('button', { name: 'Picture', exact: true }).click();
await r.page.getByRole('button', { name: 'Harbour in lines' }).click();
await r.page.waitForTimeout(1500);
await r.page.keyboard.press('r');
await r.page.getByRole('button', { name: /^Lamplight,/ }).click();
const top = await r.page.locator('#bench-top').boundingBox();
await r.page.mouse.move(top.x + top.width / 2 + 6, top.y + top.height / 2 - 75);
await r.page.waitForTimeout(1500);
await r.shot('regions');
await r.close();

// Checks: three faults in the ticket, each with what puts it right.
const c = await session();
await c.page.getByRole('link', { name: /Supper ticket/ }).click();
await c.page.getByTestId('save-state').waitFor();
await c.page.waitForTimeout(2500);
await c.page.getByRole('option', { name: /^When/ }).click();
await c.page.getByRole('complementary', { name: 'Details' }).getByLabel('X', { exact: true }).fill('1.5');
await c.page.keyboard.press('Enter');
await c.page.getByRole('option', { name: /^Price/ }).click();
await c.page.getByRole('complementary', { name: 'Details' }).getByLabel('Size', { exact: true }).fill('4.5');
await c.page.keyboard.press('Enter');
await c.page.getByRole('button', { name: /^Checks/ }).click();
await c.page.getByRole('button', { name: 'Move it in' }).waitFor();
await c.page.waitForTimeout(1500);
await c.shot('checks');
await c.close();

// Handed over: what will be in the file and how it is made; then a press that refuses it, and shows where.
const g = await session();
await g.page.getByRole('link', { name: /Supper ticket/ }).click();
await g.page.getByTestId('save-state').waitFor();
await g.page.waitForTimeout(2500);
await g.page.getByRole('button', { name: 'Hand over' }).click();
await g.page.getByText('How it is made').click();
await g.page.getByLabel('What will be in it').waitFor();
await g.page.waitForTimeout(800);
await g.shot('hand-over');
await g.page.keyboard.press('Escape');
await g.page.getByRole('option', { name: /^Price/ }).click();
await g.page.getByRole('complementary', { name: 'Details' }).getByLabel('Size', { exact: true }).fill('3.2');
await g.page.keyboard.press('Enter');
await g.page.getByRole('button', { name: 'Hand over' }).click();
const sheet = g.page.getByRole('dialog', { name: 'Hand over' });
await sheet.getByRole('button', { name: 'Make PDF' }).click();
await sheet.getByLabel('Try it on a press').selectOption('digital');
await sheet.getByRole('button', { name: 'Send to the press' }).click();
const said = g.page.getByRole('region', { name: 'The press’s answer' });
await said.getByAltText('Proof of page 1').waitFor({ timeout: 30_000 });
await said.getByRole('button', { name: 'Show it' }).first().click();
await g.page.waitForTimeout(1500);
await g.shot('press-answer');
await g.close();

const o = await session();
await o.page.getByRole('link', { name: /Lantern Walk poster/ }).click();
await o.page.getByTestId('save-state').waitFor();
await o.page.waitForTimeout(2500);
await o.page.getByRole('button', { name: /^Format/ }).click();
await o.page.getByRole('button', { name: 'This page in other formats' }).click();
for (const name of ['A3', 'Card', 'US letter']) await o.page.getByRole('checkbox', { name }).check();
await o.page.waitForTimeout(2500);
await o.shot('other-formats');
await o.close();

const h = await session();
await h.page.getByRole('link', { name: /Guild mark/ }).click();
await h.page.getByTestId('save-state').waitFor();
await h.page.waitForTimeout(2500);
await h.page.getByRole('button', { name: 'Shape', exact: true }).click();
await h.page.getByRole('dialog', { name: 'Shapes' }).getByRole('button', { name: 'Barrel', exact: true }).hover();
await h.page.waitForTimeout(500);
await h.shot('shape-chooser');
await h.page.keyboard.press('Escape');
const host = await h.page.locator('#bench-top').boundingBox();
await h.page.goto(base);
await h.page.getByRole('button', { name: 'New design' }).click();
await h.page.getByRole('dialog').getByLabel('Name').fill('Route marker');
await h.page.getByRole('dialog').getByLabel('Format').selectOption('A6');
await h.page.getByRole('dialog').getByRole('button', { name: 'Make it' }).click();
await h.page.getByTestId('save-state').waitFor();
await h.page.getByLabel('Recipe line').fill('Low Tide 82 46 22 6');
await h.page.getByLabel('Recipe line').press('Enter');
const a6 = (x, y) => {
  const k = Math.min((host.width - 56) / 111, (host.height - 56) / 154);
  return [host.x + host.width / 2 + (x - 52.5) * k, host.y + host.height / 2 + (y - 74) * k];
};
for (const [name, x0, y0, x1, y1] of [
  ['Drop', 30, 20, 70, 70],
  ['Barrel', 30, 70.9, 70, 115],
  ['Capsule', 25, 115.6, 75, 125],
]) {
  await h.page.getByRole('button', { name: 'Shape', exact: true }).click();
  await h.page.getByRole('dialog', { name: 'Shapes' }).getByRole('button', { name, exact: true }).first().click();
  await h.page.keyboard.down('Control');
  await h.page.mouse.move(...a6(x0, y0));
  await h.page.mouse.down();
  await h.page.mouse.move(...a6(x1, y1), { steps: 4 });
  await h.page.mouse.up();
  await h.page.keyboard.up('Control');
}
await h.page.locator('#bench-top').focus();
await h.page.keyboard.press('Control+a');
await h.page.getByRole('button', { name: /^Low Tide,/ }).click();
await h.page
  .getByRole('complementary', { name: 'Details' })
  .getByRole('button', { name: 'Union', exact: true })
  .click();
await h.page.waitForTimeout(600);
await h.close();

const n = await session();
await n.page.getByRole('link', { name: /Walk programme/ }).click();
await n.page.getByTestId('save-state').waitFor();
await n.page.waitForTimeout(1500);
await n.page.keyboard.press('PageDown');
await n.page.waitForTimeout(2500);
await n.page.getByRole('button', { name: /^Pages/ }).click();
await n.page.waitForTimeout(4000);
await n.shot('pages');
await n.page.keyboard.press('Escape');
await n.page.locator('#bench-top').focus();
await n.page.keyboard.press('PageDown');
await n.page.waitForTimeout(1500);
await n.page.getByRole('button', { name: 'Choose a ground' }).click();
await n.page.waitForTimeout(1500);
await n.shot('grounds');
await n.close();

const p = await session();
await p.poster();
await p.page.getByRole('button', { name: 'Picture', exact: true }).click();
await p.page.waitForTimeout(900);
await p.shot('picture-drawer');
await p.page.getByRole('button', { name: /Harbour at dusk/ }).click();
await p.page.getByRole('button', { name: 'Tone, inks, surround' }).click();
await p.page.getByRole('radio', { name: 'Two inks' }).click();
await p.page.waitForTimeout(800);
await p.page.getByRole('button', { name: 'Crop', exact: true }).click();
await p.page.mouse.move(646, 366);
await p.page.mouse.down();
await p.page.mouse.move(668, 384, { steps: 5 });
await p.page.mouse.up();
await p.page.mouse.wheel(0, -220);
await p.page.getByRole('radiogroup', { name: 'Printed in' }).evaluate((e) => e.scrollIntoView({ block: 'start' }));
await p.page.waitForTimeout(1800);
await p.shot('picture-crop');
await p.page.keyboard.press('Escape');
await p.page.getByRole('button', { name: 'Picture', exact: true }).click();
await p.page.getByLabel('Picture files').setInputFiles({
  name: 'Lantern drawing.svg',
  mimeType: 'image/svg+xml',
  buffer: Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="90mm" height="90mm"><script>1</script><filter id="f"/><g filter="url(#f)"><circle cx="50" cy="50" r="40" fill="#ffe6a8" stroke="#8c2f24" stroke-width="4" stroke-dasharray="6 3"/></g><text x="50" y="55" text-anchor="middle" font-family="Lantern Hand" font-size="14">Marrowick</text><image href="harbour.png" width="10" height="10"/></svg>',
  ),
});
await p.page.getByRole('dialog', { name: /is placed/ }).waitFor();
await p.page.waitForTimeout(900);
await p.close();

const b = await session({ dark: true });
await b.poster();
await b.page.getByRole('option', { name: /^Headline/ }).click();
await b.page.waitForTimeout(500);
await b.shot('bench-dark');
await b.close();

const w = await session();
const details = w.page.getByRole('complementary', { name: 'Details' });
const open = async (name) => {
  const fold = details.getByRole('button', { name: `${name}, fold or open`, exact: true });
  if ((await fold.getAttribute('aria-expanded')) === 'false') await fold.click();
  await details.locator(`[data-section="${name}"]`).evaluate((el) => el.scrollIntoView({ block: 'center' }));
  await w.page.waitForTimeout(700);
};
await w.page.getByRole('link', { name: /Workshop certificate/ }).click();
await w.page.getByTestId('save-state').waitFor();
await w.page.waitForTimeout(2500);
await w.page.getByRole('option', { name: /^Title/ }).click();
await open('Line');
await details.getByRole('radio', { name: 'Bent' }).click();
await w.page.waitForTimeout(800);
await w.shot('bent-words');
await details.getByRole('radio', { name: 'Straight' }).click();
await w.page.getByLabel('Search').fill('');
await w.page.getByRole('option', { name: /^Citation/ }).dblclick();
await w.page.keyboard.press('End');
await w.page.keyboard.press('Shift+Home');
await details.evaluate((el) => el.scrollTo(0, 0));
await w.page.waitForTimeout(900);
await w.shot('text');
await w.close();

await browser.close();
