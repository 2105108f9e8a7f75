// Takes the current pictures of the main views into docs/screenshots: node scripts/screenshots.mjs [http://127.0.0.1:PORT]
import { chromium } from '@playwright/test';

const base = process.argv[2] ?? 'http://127.0.0.1:3000';
const browser = await chromium.launch({ executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium', headless: true, args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] });

async function session(options = {}) {
  const context = await browser.newContext({ viewport: { width: 1280, height: options.height ?? 800 }, colorScheme: options.dark ? 'dark' : 'light' });
  const page = await context.newPage();
  await page.goto(base);
  await page.getByRole('img', { name: /Lantern Walk poster/ }).waitFor({ timeout: 30_000 });
  const shot = (name) => page.screenshot({ path: `docs/screenshots/${name}.png` });
  const poster = async () => {
    await page.getByRole('link', { name: /Lantern Walk poster/ }).click();
    await page.getByTestId('save-state').waitFor();
    await page.getByRole('button', { name: /^Checks/ }).filter({ hasText: 'nothing found' }).waitFor();
    await page.waitForTimeout(2500);
  };
  return { page, shot, poster, close: () => context.close() };
}

const a = await session();
await a.shot('shelf');
await a.page.getByRole('button', { name: 'New design' }).click();
await a.page.waitForTimeout(300);
await a.shot('new-design');
await a.page.keyboard.press('Escape');
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
await a.page.getByRole('button', { name: 'Hand over' }).click();
await a.page.waitForTimeout(400);
await a.shot('hand-over');
await a.page.keyboard.press('Escape');
await a.page.getByRole('radio', { name: 'Plates' }).click();
await a.page.getByRole('group', { name: 'Inks on this page' }).getByRole('button', { name: 'Ember 66-43' }).click();
await a.page.waitForTimeout(1200);
await a.page.mouse.move(644, 470);
await a.page.waitForTimeout(400);
await a.page.mouse.move(646, 470);
await a.page.waitForTimeout(400);
await a.shot('plates');
await a.close();

const d = await session();
await d.poster();
const choose = (name) => d.page.getByRole('option', { name }).click();
await choose(/^Headline/);
await d.page.getByRole('button', { name: /^Wick,/ }).click();
await d.page.getByRole('button', { name: /^Rope,/ }).click();
await d.page.getByRole('button', { name: /^Paper Glow,/ }).click();
await d.page.getByLabel('Recipe line').fill('Dusk 100 72 8 20');
await d.page.waitForTimeout(1500);
await d.shot('ink-tray');
await d.page.getByLabel('Recipe line').fill('Neon #0a4dff');
await d.page.keyboard.press('Enter');
await d.page.getByRole('button', { name: 'Edit Neon', exact: true }).click({ force: true });
await d.page.getByRole('radio', { name: 'HSB' }).click();
await d.page.waitForTimeout(500);
await d.shot('recipe-slip');
await d.page.keyboard.press('Escape');
await d.page.getByRole('button', { name: 'Spot library' }).click();
await d.page.getByRole('combobox', { name: 'Find a spot ink' }).fill('s');
await d.page.waitForTimeout(500);
await d.shot('spot-library');
await d.page.keyboard.press('Escape');
await d.page.goto(base);
await d.page.getByRole('link', { name: /Supper ticket/ }).click();
await d.page.getByTestId('save-state').waitFor();
await d.page.waitForTimeout(2500);
await d.page.getByRole('button', { name: 'Lift a palette' }).click();
await d.page.getByRole('button', { name: 'Apply Wick' }).waitFor({ timeout: 30_000 });
await d.page.getByRole('button', { name: 'Keep for every design' }).click();
await d.page.waitForTimeout(800);
await d.shot('lifted-palette');
await d.page.keyboard.press('Escape');
await d.page.getByRole('option', { name: /^Title/ }).click();
await d.page.getByRole('button', { name: 'Sample', exact: true }).click();
const top = await d.page.locator('#bench-top').boundingBox();
await d.page.mouse.move(top.x + top.width * 0.61, top.y + top.height * 0.5);
await d.page.mouse.move(top.x + top.width * 0.612, top.y + top.height * 0.5);
await d.page.waitForTimeout(1500);
await d.shot('sample');
await d.page.getByRole('button', { name: /^Inks/ }).click();
await d.page.waitForTimeout(500);
await d.shot('inks');
await d.close();

const b = await session({ dark: true });
await b.poster();
await b.page.getByRole('option', { name: /^Headline/ }).click();
await b.page.waitForTimeout(500);
await b.shot('bench-dark');
await b.close();

const c = await session({ height: 650 });
await c.poster();
await c.shot('bench-low');
await c.close();
await browser.close();
