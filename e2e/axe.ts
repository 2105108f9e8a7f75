import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** axe finds nothing serious. In the dark scheme only what a scheme can change is looked at again. */
export async function axe(page: Page, where: string, scheme: 'light' | 'dark', within?: string): Promise<void> {
  // No page here has frames: the way that looks into them would take twice as long.
  // Nor is anything asked of what passes, or of style sheets fetched once more.
  const builder = new AxeBuilder({ page }).setLegacyMode().options({
    resultTypes: ['violations'],
    preload: false,
    ...(scheme === 'dark' && { runOnly: { type: 'rule', values: ['color-contrast'] } }),
  });
  // What lies round a slip has been looked at without it.
  if (within) builder.include(within);
  const { violations } = await builder.analyze();
  expect(await spilt(page), where).toEqual([]);
  const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
  expect(
    serious.map(
      (v) =>
        `${where}: ${v.id} — ${v.nodes
          .map((n) => n.target.join(' '))
          .slice(0, 3)
          .join(', ')}`,
    ),
  ).toEqual([]);
}

/**
 * Words that do not fit their button, lines cut off without telling the whole at rest of the pointer, and what must be
 * scrolled sideways.
 */
const spilt = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const seen = [
      ...document.querySelectorAll<HTMLElement>('button, a, p, h2, h3, label, [role=status], [role=option], span'),
    ].filter((el) => el.checkVisibility({ opacityProperty: true, visibilityProperty: true }) && el.clientWidth > 0);
    const aside = [...document.querySelectorAll<HTMLElement>('[data-region=details], [role=dialog]')].filter(
      (el) => el.scrollWidth > el.clientWidth + 1,
    );
    return aside
      .map((el) => `wider than its place: ${el.getAttribute('aria-label') ?? el.textContent?.slice(0, 40)}`)
      .concat(
        seen.flatMap((el) => {
          if (el.scrollWidth <= el.clientWidth + 1) return [];
          const { overflowX, textOverflow } = getComputedStyle(el);
          const whole = el.closest('[title]') !== null || el.closest('[aria-hidden=true]') !== null;
          const cut = textOverflow === 'ellipsis' && !whole;
          const spills = el.matches('button, a') && overflowX === 'visible' && !el.querySelector('.truncate');
          return cut || spills ? [`${cut ? 'cut' : 'spilt'}: ${el.textContent?.slice(0, 60)}`] : [];
        }),
      );
  });
