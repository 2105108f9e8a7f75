import AxeBuilder from '@axe-core/playwright';
import { decode } from 'fast-png';
import { BenchPage, expect, test, WHOLE } from './support';

const message = (bench: BenchPage) => bench.message();

test(
  'a poster in colours chosen by eye, its headline over its ground: clicks make display text, drags make frames',
  WHOLE,
  async ({ page }) => {
    const bench = await BenchPage.make(page, 'A4', 'Walk poster');
    // A small palette to begin with, by one press.
    await page
      .getByRole('group', { name: 'Small palettes to begin with' })
      .getByRole('button', { name: 'Quay at dusk' })
      .click();
    await expect(bench.card('Quay Night')).toBeVisible();
    await bench.shape('Rectangle', 0, 0, 210, 297);
    await bench.card('Quay Night').click();
    // The headline: a click, although the ground lies below and was just drawn.
    await page.getByRole('button', { name: 'Text', exact: true }).click();
    await bench.click(30, 60);
    await page.keyboard.type('Lantern walk');
    await expect(bench.pile().first()).toHaveAttribute('aria-label', /^Text: Lantern walk, display text/);
    // A card gives the letters their colour, and the keys still belong to them.
    await bench.card('Paper Glow').click();
    await expect(message(bench)).toContainText('Letters of 1 object: Paper Glow.');
    await page.keyboard.press('End');
    await page.keyboard.type('!');
    await expect(bench.pile().first()).toHaveAttribute('aria-label', /^Text: Lantern walk!, display text/);
    // Chosen letters are coloured alone.
    await page.keyboard.press('Home');
    for (let i = 0; i < 7; i++) await page.keyboard.press('Shift+ArrowRight');
    await bench.card('Wick').click();
    await expect(message(bench)).toContainText('Letters, the chosen ones: Wick.');
    // A field of Details, then keys again; Esc leaves the text wholly.
    await bench.field('Size').fill('60');
    await page.keyboard.press('Enter');
    await page.keyboard.press('End');
    await page.keyboard.type('?');
    await expect(bench.pile().first()).toHaveAttribute('aria-label', /^Text: Lantern walk!\?, display text/);
    await page.keyboard.press('Escape');
    await expect(page.locator('#letters')).toHaveCount(0);
    const x = await bench.field('X').inputValue();
    await page.keyboard.press('ArrowRight');
    await expect(bench.field('X')).not.toHaveValue(x);

    // Into the shape only by double-click, and its frame has an outline of its own.
    await bench.shape('Ellipse', 40, 150, 170, 250);
    await page.getByRole('button', { name: 'Text', exact: true }).click();
    await bench.drag(await bench.at(60, 180), await bench.at(150, 220));
    await page.keyboard.type('On top');
    await page.keyboard.press('Escape');
    await expect(bench.pile().first()).toHaveAttribute('aria-label', /^Text: On top, text frame/);
    await page.keyboard.press('Delete');
    await bench.click(100, 160, { clickCount: 2 });
    await page.keyboard.type('Inside');
    await expect(page.getByRole('radiogroup', { name: 'Aim' }).getByRole('radio')).toHaveText([
      'Letters',
      'Letter outline',
      'Frame',
      'Frame outline',
    ]);
    await page.getByRole('radio', { name: 'Frame outline' }).click();
    await bench.card('Wick').click();
    await expect(message(bench)).toContainText('Frame outline of 1 object: Wick.');

    // A colour by eye, from the words of the sentence; and one by its plain name.
    await page.keyboard.press('Escape');
    await bench.click(10, 290);
    await bench.details().getByRole('button', { name: 'Quay Night', exact: true }).click();
    const wheel = page.getByRole('dialog', { name: 'Colour by eye' });
    await expect(wheel.getByRole('heading')).toHaveText('Fill of 1 object');
    expect(
      (await new AxeBuilder({ page }).include('[role=dialog]').analyze()).violations
        .filter((v) => v.impact === 'serious' || v.impact === 'critical')
        .map((v) => v.id),
    ).toEqual([]);
    await wheel.getByLabel('Cyan', { exact: true }).fill('60');
    await page.keyboard.press('Enter');
    await wheel.getByRole('button', { name: 'Put it into the tray' }).click();
    await expect(message(bench)).toContainText('is in the tray, and fill of 1 object.');
    await page.getByLabel('Recipe line').fill('dark green');
    await page.keyboard.press('Enter');
    await expect(message(bench)).toContainText('Added dark green: fill of 1 object.');
  },
);

test('a box of 60 × 40 mm in the middle of the page, by keyboard alone, in under 60 keys', async ({ page }) => {
  await BenchPage.make(page, 'A5', 'By keys');
  let keys = 0;
  const press = async (...list: string[]) => {
    for (const k of list) {
      await page.keyboard.press(k);
      keys++;
    }
  };
  const type = async (text: string) => {
    await page.keyboard.type(text);
    keys += text.length;
  };
  await page.locator('#bench-top').focus();
  await press('h', 'Enter');
  await expect(page.getByTestId('message')).toContainText('Put a rectangle in the middle of the page.');
  // Fields are found by their everyday words.
  await press('Control+k');
  await type('width');
  await press('Enter');
  await expect(page.locator(':focus')).toHaveAttribute('aria-label', 'Width');
  await type('60');
  await press('Tab');
  await type('40');
  await press('Enter', 'Control+k');
  await type('middles across');
  await press('Enter', 'Control+k');
  await type('middles down');
  await press('Enter');
  const details = page.getByRole('complementary', { name: 'Details' });
  await expect(details.getByLabel('Width', { exact: true })).toHaveValue('60 mm');
  await expect(details.getByLabel('Height', { exact: true })).toHaveValue('40 mm');
  await expect(details.getByLabel('X', { exact: true })).toHaveValue('44 mm');
  await expect(details.getByLabel('Y', { exact: true })).toHaveValue('85 mm');
  expect(keys).toBeLessThan(60);
});

test('a logo with a transparent ground; what was asked of the finder opens', WHOLE, async ({ page }) => {
  const bench = await BenchPage.make(page, 'A6', 'Mark');
  await bench.shape('Barrel', 25, 30, 80, 100);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('no background');
  await page.keyboard.press('Enter');
  const slip = page.getByRole('dialog', { name: 'Hand over' });
  await expect(slip.getByLabel('Transparent ground')).toBeChecked();
  await slip.getByLabel('Resolution').fill('72');
  const waiting = page.waitForEvent('download');
  await slip.getByRole('button', { name: 'Make PNG' }).click();
  const png = decode(
    new Uint8Array(await (await import('node:fs/promises')).readFile((await (await waiting).path())!)),
  );
  expect([
    png.channels,
    png.data[3],
    png.data[4 * (Math.floor(png.height * 0.44) * png.width + Math.floor(png.width / 2)) + 3],
  ]).toEqual([4, 0, 255]);
  // From a field too.
  await page.keyboard.press('Escape');
  await bench.field('X').focus();
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog', { name: 'Find a command' })).toBeVisible();
  await page.keyboard.type('mail merge');
  await page.keyboard.press('Enter');
  await expect(message(bench)).toContainText('Filling in a list of names is not here yet.');
});

test('a menu at the pointer, earlier states by name, a range in the pile, sections that fold and stay folded', async ({
  page,
}) => {
  const bench = await BenchPage.poster(page);
  const moon = await bench.at(330, 80);
  await page.mouse.click(moon.x, moon.y, { button: 'right' });
  const menu = page.getByRole('menu');
  await expect(menu).toContainText('Moon');
  expect(await menu.getByRole('menuitem').count()).toBeLessThanOrEqual(12);
  await menu.getByRole('menuitem', { name: /^Duplicate/ }).click();
  await expect(message(bench)).toContainText('Duplicated 1 object.');
  // The menu key, for what is chosen.
  await bench.top.focus();
  await page.keyboard.press('Shift+F10');
  await expect(menu).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('ArrowLeft');
  await page.getByRole('button', { name: 'Earlier', exact: true }).click();
  const earlier = page.getByRole('dialog', { name: 'Earlier states' });
  await expect(earlier.getByRole('button')).toHaveText([
    'Keep',
    /Nudge left.*now/,
    'Duplicate',
    'Before the first of these steps',
  ]);
  await earlier.getByRole('button', { name: 'Before the first' }).click();
  await expect(message(bench)).toContainText('as it was before the first step');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('option', { name: /^Moon/ })).toHaveCount(1);
  // Shift takes all between, Ctrl one more.
  await page.getByRole('option', { name: /^Headline/ }).click();
  await page.getByRole('option', { name: /^Rope/ }).click({ modifiers: ['Shift'] });
  await expect(bench.details()).toContainText('3 objects');
  await page.getByRole('option', { name: /^Moon/ }).click({ modifiers: ['Control'] });
  await expect(bench.details()).toContainText('4 objects');
  // A folded section stays folded for its kind, after a reload too.
  await page.getByRole('option', { name: /^Headline/ }).click();
  await bench
    .details()
    .getByRole('button', { name: /^Line up, fold/ })
    .click();
  await expect(bench.details().getByRole('group', { name: 'Line up by' })).toHaveCount(0);
  await page.reload();
  await bench.ready();
  await page.getByRole('option', { name: /^Headline/ }).click();
  await expect(bench.details().getByRole('group', { name: 'Line up by' })).toHaveCount(0);
  await page
    .getByRole('navigation', { name: 'Parts of Details' })
    .getByRole('button', { name: /^Line up/ })
    .click();
  await expect(bench.details().getByRole('group', { name: 'Line up by' })).toBeVisible();
  // What most people came for is in sight at 1280 × 800.
  await page.evaluate(() => document.querySelector('[data-region=details]')!.scrollTo(0, 0));
  for (const name of ['Face', 'Size', 'Width', 'X']) await expect(bench.field(name)).toBeInViewport();
});

test('words: shares are typed in percent, trade words tell what they mean, long messages are read whole', async ({
  page,
}) => {
  const bench = await BenchPage.make(page, 'A5', 'Words');
  for (const [label, says] of [
    [/^Bleed/, /past the cut/],
    [/^Total ink/, /wettest place/],
    [/^Checks/, /go wrong in print/],
  ] as const)
    await expect(page.getByRole('button', { name: label })).toHaveAttribute('title', says);
  await bench.shape('Star', 30, 40, 110, 120);
  await expect(message(bench)).toContainText('Drew a star. Its knobs change its inner measures.');
  // The sentence says 55 % deep; the field takes the same.
  await expect(bench.field('Depth')).toHaveValue('55%');
  await bench.field('Depth').fill('30');
  await page.keyboard.press('Enter');
  await expect(bench.details()).toContainText('30 % deep');
  await expect(bench.details().getByRole('radio', { name: 'Pools' }).first()).toHaveAttribute(
    'title',
    /run into each other/,
  );
  await expect(page.getByRole('radiogroup', { name: 'Aim' }).getByRole('radio', { name: 'Outline' })).toHaveAttribute(
    'title',
    /line round/,
  );
  await bench.shape('Ellipse', 20, 130, 60, 170);
  await expect(message(bench)).toContainText('Drew an ellipse.');
  // A message that does not go on one line stands above the strip, all of it.
  await page.setViewportSize({ width: 1000, height: 700 });
  await page.getByRole('button', { name: 'Gradient', exact: true }).click();
  await bench.details().getByRole('radiogroup', { name: 'Fill kind' }).getByRole('radio', { name: 'Linear' }).click();
  await bench.details().getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(message(bench)).toContainText('colours are in the tray now');
  const seen = await message(bench).evaluate((el) => ({
    cut: el.scrollWidth > el.clientWidth + 1 || el.scrollHeight > el.clientHeight + 1,
    over: el.getBoundingClientRect().height,
    top: document.elementFromPoint(el.getBoundingClientRect().x + 5, el.getBoundingClientRect().y + 4) !== null,
  }));
  expect(seen.cut).toBe(false);
  expect(seen.over).toBeGreaterThan(24);
});
