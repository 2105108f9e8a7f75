import { axe } from './axe';
import { BenchPage, expect, test, WHOLE } from './support';

for (const scheme of ['light', 'dark'] as const) {
  test(`axe on every screen and slip, ${scheme}`, scheme === 'dark' ? WHOLE : {}, async ({ page }) => {
    test.setTimeout(300_000);
    await page.emulateMedia({ colorScheme: scheme });
    await page.goto('/');
    await expect(page.getByRole('link', { name: /Lantern Walk poster/ })).toBeVisible();
    await axe(page, 'shelf', scheme);
    await page.getByRole('button', { name: 'New design' }).click();
    await axe(page, 'new design', scheme, '[role=dialog]');
    await page.keyboard.press('Escape');

    const bench = await BenchPage.poster(page);
    await axe(page, 'bench, nothing chosen', scheme);
    for (const name of [/^Format/, /^Pages/, /^Inks/, /^Total ink/, /^Checks/, /^Hand over/]) {
      await page.getByRole('button', { name }).click();
      await expect(page.getByRole('dialog')).toBeVisible();
      await axe(page, String(name), scheme, '[role=dialog]');
      await page.keyboard.press('Escape');
      await expect(page.getByRole('dialog')).toBeHidden();
    }
    await page.getByRole('button', { name: 'Choose a ground' }).click();
    await axe(page, 'grounds', scheme, '[role=dialog]');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /^Format/ }).click();
    await page.getByRole('button', { name: 'This page in other formats' }).click();
    await axe(page, 'other formats', scheme, '[role=dialog]');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog', { name: 'This page in other formats' })).toBeHidden();
    await page.keyboard.press('Escape');
    await bench.details().getByRole('button', { name: 'Make a master of it' }).click();
    await axe(page, 'what masters have', scheme, '[aria-label=Pile]');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByRole('button', { name: 'Shape', exact: true }).click();
    await axe(page, 'shapes', scheme, '[role=dialog]');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Spot library' }).click();
    await axe(page, 'spot library', scheme, '[role=dialog]');
    await page.keyboard.press('Escape');
    for (const name of ['Wick', 'Ember 66-43', 'Night']) {
      await bench.edit(name);
      await axe(page, `recipe of ${name}`, scheme, '[role=dialog]');
      await page.keyboard.press('Escape');
      await expect(page.getByRole('dialog')).toBeHidden();
    }
    for (const name of ['Lift a palette', /colours in use/, 'Tidy, files']) {
      await page.getByRole('button', { name }).click();
      if (name === 'Lift a palette')
        await expect(page.getByRole('button', { name: 'Add as a group' })).toBeVisible({ timeout: 30_000 });
      await axe(page, String(name), scheme, '[role=dialog]');
      await page.keyboard.press('Escape');
      await expect(page.getByRole('dialog')).toBeHidden();
    }
    await page.getByRole('button', { name: 'Sample', exact: true }).click();
    await axe(page, 'sample tool', scheme);
    await page.getByRole('option', { name: /^Moon/ }).click();
    await axe(page, 'bench, a gradient chosen', scheme, '[data-region=details]');
    await page.getByRole('option', { name: /^Headline/ }).click();
    await axe(page, 'bench, a text chosen', scheme, '[data-region=details]');
    await bench.field('Face').click();
    await expect(page.getByRole('dialog', { name: 'Faces' })).toBeVisible();
    await axe(page, 'faces', scheme, '[role=dialog]');
    await page.keyboard.press('Escape');
    for (const [name, sections] of [
      [/^Headline/, ['Text looks', 'Line', 'Lettering', 'Paragraph']],
      [/^Date line/, ['Frame of words', 'Paragraph']],
    ] as const) {
      await page.getByRole('option', { name }).click();
      for (const section of sections)
        await bench
          .details()
          .getByRole('button', { name: `${section}, fold or open`, exact: true })
          .click();
      await axe(page, `words of ${name} in full`, scheme, '[data-region=details]');
    }
    await bench.top.focus();
    await page.keyboard.press('Control+a');
    await expect(page.getByRole('button', { name: 'Match ends' }).first()).toBeVisible();
    await axe(page, 'bench, all chosen', scheme, '[data-region=details]');
    await page.getByRole('radio', { name: 'Plates' }).click();
    await axe(page, 'plates', scheme);
    await page.getByRole('button', { name: 'Look closer' }).click();
    await page.getByRole('radio', { name: 'Two plates' }).click();
    await page.getByRole('checkbox', { name: 'Loupe' }).check();
    await axe(page, 'plates looked at closer', scheme, '[role=dialog]');
    await page.keyboard.press('Escape');
    await axe(page, 'loupe', scheme, '[data-loupe]');
    await page.getByRole('button', { name: 'Put the loupe away' }).click();
    await page.getByRole('button', { name: 'Earlier' }).click();
    await axe(page, 'earlier states', scheme, '[role=dialog]');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Hand over' }).click();
    await page.getByText('How it is made').click();
    await axe(page, 'how a PDF is made', scheme, '[role=dialog]');
    await page.keyboard.press('Escape');
    await bench.top.focus();
    await page.keyboard.press('Control+k');
    await page.keyboard.type('signature');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog', { name: 'Draw a signature' })).toBeVisible();
    await axe(page, 'signature', scheme, '[role=dialog]');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Control+k');
    await expect(page.getByRole('dialog', { name: 'Find a command' })).toBeVisible();
    await axe(page, 'finder', scheme, '[role=dialog]');
    await page.keyboard.press('Escape');
    await bench.top.focus();
    await page.keyboard.press('?');
    await axe(page, 'keys', scheme, '[role=dialog]');
  });
}

test('an empty shelf says what to do, and a removed design can be put back', async ({ page }) => {
  await page.goto('/');
  for (const name of [
    'Walk programme',
    'Stall card',
    'Workshop certificate',
    'Route markers',
    'Guild letterhead',
    'Supper ticket',
    'Guild mark',
    'Lantern stickers',
    'Lantern Walk poster',
  ]) {
    await page.getByRole('button', { name: `Remove ${name}` }).click();
    await expect(page.getByText(`Removed “${name}” from the shelf.`)).toBeVisible();
  }
  await expect(page.getByText('The shelf is empty.')).toBeVisible();
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(page.getByRole('link', { name: /Lantern Walk poster/ })).toBeVisible();
  await page.getByRole('button', { name: 'Remove Lantern Walk poster' }).click();
  // Gone once it is said: a reload before that would find it still there.
  await expect(page.getByText('Removed “Lantern Walk poster” from the shelf.')).toBeVisible();
  await expect(page.getByText('The shelf is empty.')).toBeVisible();
  await page.reload();
  await expect(page.getByText('The shelf is empty.')).toBeVisible();
  await page.getByRole('button', { name: 'Bring the demo back' }).click();
  await expect(page.getByRole('img', { name: 'Lantern Walk poster, first page' })).toBeVisible({ timeout: 30_000 });
});

test('addresses that lead nowhere', async ({ page }) => {
  await page.goto('/bench/no-such-design');
  await expect(page.getByText('This design is not on the shelf')).toBeVisible();
  await page.getByRole('link', { name: 'Go to the shelf' }).click();
  await expect(page.getByRole('heading', { name: 'Your designs' })).toBeVisible();
  await page.goto('/nowhere/at/all');
  await expect(page.getByText('There is nothing at this address')).toBeVisible();
});

test('storage refused: said on the shelf and on the bench', async ({ page }) => {
  await page.addInitScript(() => {
    Object.defineProperty(window, 'indexedDB', {
      value: {
        open: () => {
          throw new DOMException('refused', 'SecurityError');
        },
      },
      configurable: true,
    });
  });
  await page.goto('/');
  await expect(page.getByText('This browser does not let Holvet keep files here')).toBeVisible();
  await page.goto('/bench/lantern-walk-poster');
  await expect(page.getByText('Nothing can be kept here')).toBeVisible();
});

test('an engine or a font that does not load: said, tried again, nothing lost', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Lantern Walk poster/ })).toBeVisible();
  await page.route('**/icc/coated-tr006.icc', (r) => r.abort());
  await page.goto('/bench/lantern-walk-poster');
  await expect(page.getByText('A part of the press did not load')).toBeVisible({ timeout: 30_000 });
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save a copy' }).click();
  expect((await waiting).suggestedFilename()).toBe('Lantern Walk poster.holvet');
  await page.unroute('**/icc/coated-tr006.icc');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByTestId('save-state')).toBeVisible({ timeout: 30_000 });

  // A face that cannot be had: another stands in, and Checks says so.
  await page.route('**/fonts/bitter-500.ttf', (r) => r.abort());
  await page.goto('/bench/lantern-walk-poster');
  await expect(page.getByRole('button', { name: /^Checks/ })).toContainText('1 to look at', { timeout: 30_000 });
  await page.getByRole('button', { name: /^Checks/ }).click();
  await expect(
    page.getByText('Headline asks for the face Bitter Medium, which is not here; another stands in.'),
  ).toBeVisible();
});

test('a full disk: not saved is said, and a copy can be saved', async ({ page }) => {
  const bench = await BenchPage.poster(page);
  await page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
  });
  await page.getByRole('option', { name: /^Moon/ }).click();
  await bench.top.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByTestId('save-state')).toContainText('Not saved yet: 1 step since');
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download it now' }).click();
  expect((await waiting).suggestedFilename()).toBe('Lantern Walk poster.holvet');
});

test('when the bench stumbles, the design can still be saved', WHOLE, async ({ page, watched }) => {
  await BenchPage.poster(page);
  await expect(page.getByRole('button', { name: /^Checks/ })).toContainText('nothing found');
  await page.waitForTimeout(1500); // total ink, checks and the thumbnail are done: only the interface works now
  // A fault in drawing a part of the interface: its number formatting fails from here on.
  // Fault and click in one go: the pointer on its way alone could already meet the fault.
  await page.getByRole('option', { name: /^Moon/ }).evaluate((row: HTMLElement) => {
    Number.prototype.toFixed = function () {
      throw new Error('a fault on purpose');
    };
    row.click();
  });
  await expect(page.getByText('The bench stumbled')).toBeVisible();
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save a copy' }).click();
  expect((await waiting).suggestedFilename()).toBe('Lantern Walk poster.holvet');
  await page.getByRole('button', { name: 'Set up again' }).click();
  await expect(page.getByTestId('save-state')).toBeVisible({ timeout: 30_000 });
  watched.length = 0; // the fault was ours
});

test('two tabs: the second looks only, and can take over', async ({ page, context }) => {
  const bench = await BenchPage.poster(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByText('This design is open in another tab.')).toBeVisible({ timeout: 30_000 });
  await other.getByRole('option', { name: /^Moon/ }).click();
  await other.locator('#bench-top').focus();
  await other.keyboard.press('ArrowLeft');
  await expect(other.getByTestId('message')).toContainText('here it can only be looked at');
  await page.getByRole('option', { name: /^Moon/ }).click();
  await bench.top.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await bench.saved();
  await other.getByRole('button', { name: 'Work here instead' }).click();
  await expect(other.getByRole('button', { name: /^Undo: Nudge left by 10 mm/ })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText('This design is open in another tab.')).toBeVisible();
});
