import { gzipSync } from 'node:zlib';
import { expect, test, type Response } from '@playwright/test';

/** What the engines' own scripts say of themselves: colour, shaping and breaking of text, combining of shapes (two). */
const ENGINE = /_emscripten_|dynCall|hb_blob_create|highStart|PaperScope"/;
/** Thousands of bytes, as gzip packs them. */
const MOST_KB = 350;

test('the bench can be used after 350 kB of script; the engines come when something is already seen', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const seen = new MutationObserver(() => {
      if (!document.querySelector('[role=application]')) return;
      seen.disconnect();
      (window as { usable?: number }).usable = performance.now();
    });
    seen.observe(document, { childList: true, subtree: true });
  });
  await page.goto('/');
  await expect(page.getByText('Lantern Walk poster').first()).toBeVisible();
  const scripts = new Map<string, Response>();
  page.on('response', (r) => {
    if (new URL(r.url()).pathname.endsWith('.js')) scripts.set(r.url(), r);
  });
  const html = await (await page.goto('/bench/lantern-walk-poster'))!.text();
  await expect(
    page.getByRole('region', { name: 'Ink tray' }).getByRole('button', { name: 'New colour' }),
  ).toBeVisible();
  const before = await page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .filter((e) => e.startTime < (window as { usable?: number }).usable!)
      .map((e) => e.name),
  );
  let [ours, engines] = [0, 0];
  for (const [url, r] of scripts) {
    if (!before.includes(url)) continue;
    const body = await r.body();
    const kb = gzipSync(body).length / 1000;
    if (!ENGINE.test(body.toString('latin1'))) ours += kb;
    else {
      engines += kb;
      expect(html).not.toContain(new URL(url).pathname);
    }
  }
  expect(html).toContain('Fetching the design');
  expect(engines).toBeGreaterThan(50);
  expect(ours).toBeGreaterThan(200);
  expect(ours).toBeLessThan(MOST_KB);
});
