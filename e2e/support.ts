import { expect, test as base, type Download, type Locator, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';

/** Every page of a test is watched: a breach of the security policy or a fault on the page fails the test. */
export const test = base.extend<{ watched: string[] }>({
  watched: [
    async ({ page }, use) => {
      const found: string[] = [];
      await page.exposeBinding('__breach', (_, what: string) => void found.push(`policy: ${what}`));
      await page.addInitScript(() => {
        document.addEventListener('securitypolicyviolation', (e) => {
          void (window as unknown as { __breach(w: string): void }).__breach(
            `${e.effectiveDirective} ${e.blockedURI} ${e.sourceFile}`,
          );
        });
      });
      page.on('pageerror', (e) => found.push(`page: ${e.message}`));
      await use(found);
      expect(found).toEqual([]);
    },
    { auto: true },
  ],
});
export { expect };

export interface Spot {
  x: number;
  y: number;
}

/**
 * A story that is told under `bin/test --full` alone: others like it are always told, and unit tests hold what it
 * relies on.
 */
export const WHOLE = { tag: '@whole' };

/** What is read once it no longer changes: the same four times, a quarter of a second apart. */
export async function still(read: () => Promise<string>): Promise<string> {
  const last: string[] = [];
  await expect
    .poll(
      async () => {
        last.push(await read());
        return last.slice(-4).every((one) => one === last.at(-1)) && last.length >= 4;
      },
      { intervals: [250] },
    )
    .toBe(true);
  return last.at(-1)!;
}

/**
 * Holds back what the engines ask for (fonts, profiles) until it is let go: the work that needs it goes on for as long.
 */
export async function heldBack(page: Page, what: string): Promise<() => Promise<void>> {
  let free = () => {};
  const freed = new Promise<void>((resolve) => (free = resolve));
  await page.route(what, async (route) => {
    await freed;
    await route.continue().catch(() => {}); // who asked may be gone
  });
  return async () => {
    free();
    await page.unroute(what);
  };
}

/** The bench of an open design, in the terms a person thinks in: millimetres on the page. */
export class BenchPage {
  readonly top: Locator;
  constructor(readonly page: Page) {
    this.top = page.locator('#bench-top');
  }

  /** Makes a design through the sheet on the shelf. */
  static async make(page: Page, format: string, name = 'Test design'): Promise<BenchPage> {
    await page.goto('/');
    await page.getByRole('button', { name: 'New design' }).click();
    const sheet = page.getByRole('dialog');
    await sheet.getByLabel('Name').fill(name);
    await sheet.getByLabel('Format').selectOption(format);
    await sheet.getByRole('button', { name: 'Make it' }).click();
    const bench = new BenchPage(page);
    await bench.ready();
    return bench;
  }

  static poster = (page: Page): Promise<BenchPage> => BenchPage.demo(page, /Lantern Walk poster/);
  /** A design of the shelf, by its name. */
  static async demo(page: Page, name: RegExp): Promise<BenchPage> {
    await page.goto('/');
    await page.getByRole('link', { name }).click();
    const bench = new BenchPage(page);
    await bench.ready();
    return bench;
  }

  async ready(): Promise<void> {
    await expect(this.page.getByTestId('save-state')).toBeVisible({ timeout: 30_000 });
    await expect(this.top).toBeVisible();
    // The pile comes after the first paint.
    await expect(this.page.getByRole('button', { name: 'Add a layer' })).toBeAttached();
    await this.page.waitForTimeout(250);
  }

  /** Where a place on the page is on the screen, by the rulers' own arithmetic: the page is fitted whole. */
  async at(x: number, y: number): Promise<Spot> {
    const box = (await this.top.boundingBox())!;
    const { width, height, bleed } = await this.size();
    const scale = Math.min((box.width - 56) / (width + 2 * bleed), (box.height - 56) / (height + 2 * bleed));
    return { x: box.x + box.width / 2 + (x - width / 2) * scale, y: box.y + box.height / 2 + (y - height / 2) * scale };
  }

  private known: { width: number; height: number; bleed: number } | null = null;
  private async size(): Promise<{ width: number; height: number; bleed: number }> {
    return (this.known ??= await this.readSize());
  }
  private async readSize(): Promise<{ width: number; height: number; bleed: number }> {
    const mm = (text: string) => Number(/([\d.]+)/.exec(text)![1]);
    const format = (await this.page.getByRole('button', { name: /^Format/ }).textContent())!;
    const bleed = (await this.page.getByRole('button', { name: /^Bleed/ }).textContent())!;
    const [, w, h] = /([\d.]+) × ([\d.]+)/.exec(format)!;
    return { width: Number(w), height: Number(h), bleed: bleed.includes('none') ? 0 : mm(bleed) };
  }

  async drag(
    from: Spot,
    to: Spot,
    options: { keys?: string[]; steps?: number; release?: boolean } = {},
  ): Promise<void> {
    const { mouse, keyboard } = this.page;
    await mouse.move(from.x, from.y);
    for (const k of options.keys ?? []) await keyboard.down(k);
    await mouse.down();
    const steps = options.steps ?? 6;
    for (let i = 1; i <= steps; i++)
      await mouse.move(from.x + ((to.x - from.x) * i) / steps, from.y + ((to.y - from.y) * i) / steps);
    if (options.release !== false) await mouse.up();
    for (const k of options.keys ?? []) await keyboard.up(k);
  }

  async shape(name: string, x0: number, y0: number, x1: number, y1: number): Promise<void> {
    await this.page.getByRole('button', { name: 'Shape', exact: true }).click();
    await this.page.getByRole('dialog', { name: 'Shapes' }).getByRole('button', { name, exact: true }).first().click();
    await this.drag(await this.at(x0, y0), await this.at(x1, y1));
    await expect(this.message()).toContainText(new RegExp(`Drew an? ${name.toLowerCase()}`));
  }

  async click(
    x: number,
    y: number,
    options: { modifiers?: ('Shift' | 'Alt')[]; clickCount?: number } = {},
  ): Promise<void> {
    const p = await this.at(x, y);
    for (const m of options.modifiers ?? []) await this.page.keyboard.down(m);
    await this.page.mouse.click(p.x, p.y, { clickCount: options.clickCount ?? 1 });
    for (const m of options.modifiers ?? []) await this.page.keyboard.up(m);
  }

  message(): Locator {
    return this.page.getByTestId('message');
  }
  pile(): Locator {
    return this.page.getByRole('listbox', { name: /Objects on page/ }).getByRole('option');
  }
  details(): Locator {
    return this.page.getByRole('complementary', { name: 'Details' });
  }
  field(name: string): Locator {
    return this.details().getByLabel(name, { exact: true });
  }
  card(name: string): Locator {
    return this.page.getByRole('group', { name: 'Swatches' }).getByRole('button', { name: new RegExp(`^${name}`) });
  }
  /** Opens a swatch's recipe by its pencil, which shows when the pointer is on the card. */
  async edit(name: string): Promise<Locator> {
    const pencil = this.page.getByRole('button', { name: `Edit ${name}`, exact: true });
    await pencil.locator('..').hover();
    await expect(pencil).toHaveCSS('opacity', '1');
    await pencil.click();
    const slip = this.page.getByRole('dialog');
    await expect(slip).toBeVisible();
    return slip;
  }
  /** Writes a display text at a place of the page; it is left chosen. */
  async write(x: number, y: number, text: string): Promise<void> {
    await this.page.getByRole('button', { name: 'Text', exact: true }).click();
    await this.click(x, y);
    await this.page.keyboard.type(text);
    await this.page.keyboard.press('Escape');
  }
  /** A section of Details, opened. */
  async unfold(name: string): Promise<Locator> {
    const section = this.details().locator(`[data-section="${name}"]`);
    const button = section.getByRole('button', { name: /fold or open/ });
    // What is folded is remembered by kind of selection: a choice that arrives between the look and the click turns the
    // click round.
    await expect(async () => {
      if ((await button.getAttribute('aria-expanded')) === 'false') await button.click();
      await expect(button).toHaveAttribute('aria-expanded', 'true', { timeout: 1000 });
    }).toPass();
    return section;
  }
  names(): Promise<string[]> {
    return this.pile().evaluateAll((rows) => rows.map((r) => r.getAttribute('aria-label')!.split(', ')[0]));
  }
  async saved(): Promise<void> {
    await expect(this.page.getByTestId('save-state')).toHaveText('Saved');
  }
  async handOver(
    kind: 'PDF' | 'SVG' | 'PNG' | 'Design',
    before?: (slip: Locator) => Promise<void>,
  ): Promise<{ name: string; bytes: Uint8Array }> {
    await this.page.getByRole('button', { name: 'Hand over' }).click();
    const slip = this.page.getByRole('dialog', { name: 'Hand over' });
    await slip.getByRole('radio', { name: kind === 'PNG' ? 'Picture' : kind, exact: true }).click();
    await before?.(slip);
    const waiting = this.page.waitForEvent('download');
    await slip.getByRole('button', { name: `Make ${kind}` }).click();
    const file = await waiting;
    await expect(slip.getByText('is in your downloads')).toBeVisible();
    await this.page.keyboard.press('Escape');
    return { name: file.suggestedFilename(), bytes: await contents(file) };
  }
}

export async function contents(file: Download): Promise<Uint8Array> {
  return new Uint8Array(readFileSync((await file.path())!));
}

/** Lets files go over a place of the bench top, as a file manager would. */
export async function drop(page: Page, spot: Spot, name: string, bytes: Buffer): Promise<void> {
  const dataTransfer = await page.evaluateHandle(
    ([n, data]) => {
      const transfer = new DataTransfer();
      transfer.items.add(new File([Uint8Array.from(atob(data), (c) => c.charCodeAt(0))], n));
      return transfer;
    },
    [name, bytes.toString('base64')] as const,
  );
  const at = { dataTransfer, clientX: spot.x, clientY: spot.y };
  await page.dispatchEvent('#bench-top', 'dragover', at);
  await page.dispatchEvent('#bench-top', 'drop', at);
}
