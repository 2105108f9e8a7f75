import { BenchPage, expect, test, WHOLE } from './support';

const shot = (page: BenchPage['page'], name: string) =>
  process.env.HOLVET_SHOTS ? page.screenshot({ path: `/tmp/try/${name}.png` }) : Promise.resolve();

test('designs are searched, sorted, renamed where they stand, put into a folder, and several removed and brought back', async ({
  page,
}) => {
  await page.goto('/');
  const names = () => page.locator('main ul > li a > div:last-child > div:first-child').allTextContents();
  await expect.poll(async () => (await names()).length).toBe(9);
  const all = await names();
  await page.getByLabel('Sort').selectOption({ label: 'by name' });
  await expect.poll(names).toEqual(all.toSorted((a, b) => a.localeCompare(b)));
  await page.getByLabel('Search your designs').fill('a4');
  await expect.poll(names).toEqual(['Guild letterhead', 'Workshop certificate']);
  await page.getByLabel('Search your designs').fill('no such design');
  await expect(page.getByText('No design is called that.')).toBeVisible();
  await page.getByLabel('Search your designs').fill('');

  // Renamed: on the shelf, in the design, and a step that is taken back there.
  await page.getByRole('button', { name: 'Rename Supper ticket' }).click();
  await page.getByLabel('Name of the design').fill('Ticket for the loft');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: /Ticket for the loft/ })).toBeVisible();

  for (const name of ['Guild mark', 'Guild letterhead']) await page.getByLabel(`Choose ${name}`).check();
  const chosen = page.getByRole('group', { name: 'Chosen designs' });
  await expect(chosen.getByText('2 designs chosen')).toBeVisible();
  await chosen.getByLabel('Move to').selectOption({ label: 'a new folder' });
  await page.getByLabel('Name of the folder').fill('Guild papers');
  await chosen.getByRole('button', { name: 'Move there' }).click();
  await expect(page.getByText('2 designs are in “Guild papers” now.')).toBeVisible();
  await page.getByLabel('Folder').selectOption({ label: 'Guild papers' });
  await expect.poll(names).toEqual(['Guild letterhead', 'Guild mark']);
  await shot(page, 'shelf-folder');
  await page.reload();
  await expect(page.getByLabel('Sort')).toHaveValue('name');
  await page.getByLabel('Folder').selectOption({ label: 'Guild papers' });
  for (const name of ['Guild mark', 'Guild letterhead']) await page.getByLabel(`Choose ${name}`).check();
  await chosen.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText('Removed 2 designs from the shelf.')).toBeVisible();
  await page.getByRole('button', { name: 'Put it back' }).click();
  await page.getByLabel('Folder').selectOption({ label: 'all' });
  await expect.poll(async () => (await names()).length).toBe(9);

  await page.getByRole('link', { name: /Ticket for the loft/ }).click();
  const own = new BenchPage(page);
  await own.ready();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(own.message()).toContainText('Took back: Rename.');
  await expect(page).toHaveTitle(/Supper ticket/);
});

test('newcomers are shown round in six steps, once; it can be left, and taken again', WHOLE, async ({ page }) => {
  await page.goto('/');
  await expect(page.getByText('New here?')).toBeVisible();
  await shot(page, 'shelf-welcome');
  await page.getByRole('button', { name: 'Take the walk' }).click();
  const own = new BenchPage(page);
  await own.ready();
  for (const [i, title] of ['The sheet', 'The pile', 'Details', 'The ink tray', 'Plates', 'Hand over'].entries()) {
    const card = page.getByRole('dialog', { name: `The walk, step ${i + 1} of 6: ${title}` });
    await expect(card).toBeVisible();
    if (i === 3) await shot(page, 'walk');
    await card.getByRole('button', { name: i < 5 ? 'Next' : 'Done' }).click();
  }
  await expect(own.message()).toContainText('That was the walk.');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('tour');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: /^The walk, step 1/ })).toBeVisible();
  await page
    .getByRole('dialog', { name: /^The walk/ })
    .getByRole('button', { name: 'Leave' })
    .click();
  await expect(page.getByRole('dialog', { name: /^The walk/ })).toHaveCount(0);
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Lantern Walk poster/ })).toBeVisible();
  await expect(page.getByText('New here?')).toHaveCount(0);
});
