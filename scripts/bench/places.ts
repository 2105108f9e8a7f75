// The running application for the bench: its server, a browser, pages with a design open.
import { chromium, type Browser, type BrowserContext, type Page } from '@playwright/test';
import { CHROMIUM } from '../../e2e/browser';
import { spawn } from 'node:child_process';

const PORT = 3188;
export const BASE = `http://127.0.0.1:${PORT}`;

const OPTIONS = {
  executablePath: CHROMIUM,
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
};
/**
 * What is kept for work without a network is fetched once, whenever the person rests: it is no part of what is
 * measured.
 */
export const NO_KEEPING = { serviceWorkers: 'block' } as const;

export const launch = (): Promise<Browser> => chromium.launch(OPTIONS);
/** With a profile of its own, as a person's browser has: what is stored lies on the disk. */
export const launchAt = (profile: string): Promise<BrowserContext> =>
  chromium.launchPersistentContext(profile, { ...OPTIONS, ...NO_KEEPING });

/** Serves what is built; answers how to stop. */
export async function serve(): Promise<() => void> {
  const server = spawn(
    process.execPath,
    ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(PORT)],
    { stdio: 'ignore' },
  );
  for (let i = 0; i < 80; i++) {
    if (await fetch(BASE).then(Boolean, () => false)) return () => server.kill();
    await new Promise((r) => setTimeout(r, 250));
  }
  server.kill();
  throw new Error('the application does not answer: build it first');
}

export interface Opened {
  readonly page: Page;
  /** The script it has run so far, in ms: the browser's own count. */
  script(): Promise<number>;
}

export async function counted(page: Page): Promise<Opened> {
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Performance.enable');
  const script = async () =>
    (await cdp.send('Performance.getMetrics')).metrics.find((m) => m.name === 'ScriptDuration')!.value * 1000;
  return { page, script };
}

/** A page with a design open and at rest. */
export async function opened(browser: Browser | BrowserContext, file: string): Promise<Opened> {
  const page = await ('newContext' in browser ? browser.newPage(NO_KEEPING) : browser.newPage());
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(BASE);
  await page.getByLabel('Open a design file').setInputFiles(file);
  await page.getByTestId('save-state').waitFor({ timeout: 60_000 });
  await page.waitForTimeout(5000); // the press, checks and thumbnail are done
  return counted(page);
}

/** A page behind another has less of the machine; in front again it first draws what it did not draw there. */
export async function toFront({ page }: Opened): Promise<void> {
  await page.bringToFront();
  await page.waitForTimeout(700);
}

export const frames = (page: Page, n = 2): Promise<void> =>
  page.evaluate(
    (n) =>
      new Promise<void>((done) => {
        const next = (left: number) => (left ? requestAnimationFrame(() => next(left - 1)) : done());
        next(n);
      }),
    n,
  );

/** Script a step of something done again and again. */
export async function scriptOf(o: Opened, steps: number, step: (i: number) => Promise<void>): Promise<number> {
  const before = await o.script();
  for (let i = 0; i < steps; i++) await step(i);
  return Math.max(0.01, ((await o.script()) - before) / steps);
}
