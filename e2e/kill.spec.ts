import { chromium, expect, test, type BrowserContext, type Page } from '@playwright/test';
import { CHROMIUM } from './browser';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { random } from '../tests/support/random';

const KILLS = process.env.HOLVET_FULL ? 60 : 4;
const TYPING = process.env.HOLVET_FULL ? 20 : 2;

/** The browser of a profile folder, and the way to end it as a crash does. */
async function start(
  folder: string,
  baseURL: string,
): Promise<{ context: BrowserContext; page: Page; kill(): Promise<void> }> {
  const context = await chromium.launchPersistentContext(folder, {
    executablePath: CHROMIUM,
    headless: true,
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
    baseURL,
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
  const page = context.pages()[0] ?? (await context.newPage());
  return {
    context,
    page,
    async kill() {
      // All processes of this profile at once, without a word.
      const pids = execFileSync('pgrep', ['-f', folder], { encoding: 'utf8' })
        .trim()
        .split('\n')
        .map(Number)
        .filter((pid) => pid !== process.pid);
      for (const pid of pids) {
        try {
          process.kill(pid, 'SIGKILL');
        } catch {
          // It went with another one.
        }
      }
      await context.close().catch(() => {});
    },
  };
}

/**
 * What the store holds after a restart: how many steps are in force of all that were ever done, and the words of the
 * text where they are asked for.
 */
async function kept(page: Page, asked: boolean): Promise<{ words: string; steps: number }> {
  await expect(page.getByTestId('save-state')).toHaveText('Saved', { timeout: 30_000 });
  await expect(page.getByRole('region', { name: 'Pile' })).toBeVisible();
  const steps = await page.evaluate(async () => {
    const db = await new Promise<IDBDatabase>((resolve, reject) => {
      const open = indexedDB.open('holvet');
      open.onsuccess = () => resolve(open.result);
      open.onerror = () => reject(open.error);
    });
    const row = await new Promise<{ cursor: number }>((resolve) => {
      const ask = db.transaction('designs').objectStore('designs').get(location.pathname.split('/').pop()!);
      ask.onsuccess = () => resolve(ask.result as { cursor: number });
    });
    db.close();
    return row.cursor;
  });
  if (!asked) return { words: '', steps };
  await write(page);
  const words = await page.locator('#letters').inputValue();
  await page.keyboard.press('Escape');
  return { words, steps };
}

/** Goes into the text; all of it is chosen then. */
async function write(page: Page): Promise<void> {
  await page.getByRole('option', { name: /^Text:/ }).dblclick();
  await expect(page.locator('#letters')).toBeFocused();
}

test(`killed ${KILLS} times, ${TYPING} of them while typing: what said saved is there, and the design opens`, async ({
  baseURL,
}) => {
  test.setTimeout(KILLS * 30_000);
  const folder = mkdtempSync(path.join(tmpdir(), 'holvet-kill-'));
  const next = random(7);
  try {
    let { page, kill } = await start(folder, baseURL!);
    await page.goto('/');
    await page.getByRole('button', { name: 'New design' }).click();
    const sheet = page.getByRole('dialog');
    await sheet.getByLabel('Name').fill('Kept through kills');
    await sheet.getByLabel('Format').selectOption('A5');
    await sheet.getByRole('button', { name: 'Make it' }).click();
    await expect(page.getByTestId('save-state')).toBeVisible({ timeout: 30_000 });
    const address = new URL(page.url()).pathname;
    // The steps in force after the last restart, and what is done since and said to be saved; a kill may keep more,
    // never less.
    let before = 0;
    let done = 0;
    let typed = '';
    for (let n = 0; n < KILLS; n++) {
      await page.locator('#bench-top').focus();
      if (n < TYPING) {
        // A word, letter by letter; the browser dies at some letter.
        if (!typed) {
          await page.keyboard.press('t');
          const box = (await page.locator('#bench-top').boundingBox())!;
          await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
        } else {
          await write(page);
          await page.keyboard.press('End');
        }
        const word = ['lantern', 'harbour', 'marrow', 'ember'][n % 4];
        for (const letter of word) await page.keyboard.type(letter);
        await expect(page.getByTestId('save-state')).toHaveText('Saved');
        typed += word;
        // And one more letter, which may or may not be kept.
        await page.keyboard.type('x');
      } else {
        const kind = Math.floor(next() * 3);
        if (kind === 0) {
          await page.keyboard.press('h');
          await page.keyboard.press('Enter');
        } else if (kind === 1) {
          await page.keyboard.press('Control+a');
          for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
        } else await page.keyboard.press('Control+z');
        done = kind === 2 ? -1 : 1;
        await expect(page.getByTestId('save-state')).toHaveText('Saved');
        if (next() < 0.5) await page.keyboard.press('ArrowLeft');
      }
      await page.waitForTimeout(next() * 60);
      await kill();
      ({ page, kill } = await start(folder, baseURL!));
      await page.goto(address);
      const now = await kept(page, n < TYPING);
      if (n < TYPING) {
        // Not one letter that was said to be saved is gone.
        expect([n, now.words.startsWith(typed)]).toEqual([n, true]);
        typed = now.words;
      } else expect([n, now.steps >= before + done]).toEqual([n, true]);
      before = now.steps;
      await expect(page.getByText('This design cannot be read')).toHaveCount(0);
    }
    await kill();
  } finally {
    // What was killed may still be writing there: then the system clears its folder of temporary files.
    try {
      rmSync(folder, { recursive: true, force: true, maxRetries: 50, retryDelay: 100 });
    } catch (e) {
      if ((e as NodeJS.ErrnoException).code !== 'ENOTEMPTY') throw e;
    }
  }
});
