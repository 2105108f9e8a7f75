import { BenchPage, expect, test } from './support';

const shot = (own: BenchPage, name: string) =>
  process.env.HOLVET_SHOTS ? own.page.screenshot({ path: `/tmp/try/${name}.png` }) : Promise.resolve();

/** The colour of the sheet at a place in millimetres, as the screen shows it. */
async function seenAt(own: BenchPage, x: number, y: number): Promise<string> {
  const p = await own.at(x, y);
  return own.page
    .screenshot({ clip: { x: Math.round(p.x), y: Math.round(p.y), width: 1, height: 1 } })
    .then((b) => b.toString('base64'));
}

test('the ground of one page is changed and no other’s; that of a master is changed for all its pages by its name', async ({
  page,
}) => {
  const own = await BenchPage.make(page, 'A5', 'Grounds');
  const ground = own.details().locator('[data-section="Ground"]');
  const aim = page.getByRole('radiogroup', { name: 'Aim' });
  await page.keyboard.press('Control+Enter');
  const bare = await seenAt(own, 20, 180);
  // The second page, by the aim and a card.
  await aim.getByRole('radio', { name: 'Ground' }).click();
  await page
    .getByRole('region', { name: 'Ink tray' })
    .getByRole('button', { name: /^Black/ })
    .first()
    .click();
  await expect(own.message()).toContainText('Ground of this page only: Black');
  await expect.poll(() => seenAt(own, 20, 180)).not.toBe(bare);
  await own.top.focus();
  await page.keyboard.press('PageUp');
  await expect.poll(() => seenAt(own, 20, 180)).toBe(bare);

  // The first becomes a master's; a third page stands on it.
  await own.shape('Rectangle', 20, 20, 120, 40);
  await page.keyboard.press('Escape');
  await own.details().getByRole('button', { name: 'Make a master of it' }).click();
  await own.top.focus();
  await page.keyboard.press('Control+Enter');
  await expect(own.details().getByRole('combobox', { name: 'Master' })).toHaveValue(/./);
  await ground.getByRole('combobox', { name: 'Of' }).selectOption({ label: 'every page of Ordinary' });
  await ground.getByRole('radio', { name: 'Linear' }).click();
  await shot(own, 'ground');
  await expect.poll(() => seenAt(own, 20, 180)).not.toBe(bare);
  await ground.getByRole('combobox', { name: 'Of' }).selectOption({ label: 'this page only' });
  await expect(ground.getByText(/as on Ordinary/)).toBeVisible();
  await ground.getByRole('radio', { name: 'None' }).click();
  await expect.poll(() => seenAt(own, 20, 180)).toBe(bare);
  await own.top.focus();
  await page.keyboard.press('PageUp');
  await expect.poll(() => seenAt(own, 20, 180)).not.toBe(bare);
  await own.saved();
});

test('what a master has lies on its pages: taken over on one, moved there alone, given back; the master is edited for all', async ({
  page,
}) => {
  const own = await BenchPage.make(page, 'A5', 'Masters');
  await own.shape('Rectangle', 20, 20, 120, 40);
  await own.write(30, 100, 'Walk programme');
  await page.keyboard.press('Escape');
  await own.details().getByRole('button', { name: 'Make a master of it' }).click();
  const masters = page.getByRole('group', { name: 'From masters' });
  await expect(masters.getByText('Rectangle')).toBeVisible();
  await expect(own.pile()).toHaveCount(0);
  await own.top.focus();
  await page.keyboard.press('Control+Enter');
  // Nothing of the master is chosen by a click.
  await own.click(70, 30);
  await expect(own.details().getByText(/0 objects on it/)).toBeVisible();
  await masters.getByRole('button', { name: 'Take Rectangle over here' }).click();
  await expect(own.pile()).toHaveCount(1);
  await own.field('Y').fill('150 mm');
  await page.keyboard.press('Enter');
  await shot(own, 'taken-over');
  await masters.getByRole('button', { name: 'Give Rectangle back' }).click();
  await expect(own.pile()).toHaveCount(0);

  await masters.getByRole('button', { name: 'Edit it' }).click();
  await expect(own.details().getByText(/Master Ordinary, on 2 pages/)).toBeVisible();
  const onMaster = page.getByRole('listbox', { name: /^Objects on master Ordinary/ }).getByRole('option');
  await expect(onMaster).toHaveCount(2);
  await onMaster.first().click();
  await page.keyboard.press('Delete');
  await page.getByRole('button', { name: 'Master Ordinary' }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Page 2/ })
    .click();
  await page.keyboard.press('Escape');
  await expect(masters.getByText('Rectangle')).toBeVisible();
  await expect(masters.getByText(/Walk programme/)).toHaveCount(0);
  await own.saved();
  await page.reload();
  await own.ready();
  await expect(masters.getByText('Rectangle')).toBeVisible();
});
