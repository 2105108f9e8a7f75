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
  await expect(own.details().getByText(/Master Ordinary, on 2 pages \(1, 2\)/)).toBeVisible();
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

test('pages by their pictures: several chosen, dragged to another place, given a master, deleted and brought back', async ({
  page,
}) => {
  const own = await BenchPage.make(page, 'A5', 'Strip');
  await own.shape('Star', 20, 20, 120, 120);
  await page.keyboard.press('Escape');
  const names = ['One', 'Two', 'Three', 'Four'];
  for (const [i, name] of names.entries()) {
    if (i) {
      await own.top.focus();
      await page.keyboard.press('Control+Enter');
    }
    // The field of the page before must have gone.
    await expect(own.details().getByText(new RegExp(`Page ${i + 1} of ${i + 1}`))).toBeVisible();
    await expect(own.field('Name')).toHaveValue('');
    await own.field('Name').fill(name);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('region', { name: 'Pile' }).getByRole('heading', { name })).toBeVisible();
  }
  await page.getByRole('button', { name: /^Pages/ }).click();
  const slip = page.getByRole('dialog', { name: 'Pages' });
  const list = slip.getByRole('list', { name: 'Pages' });
  const order = () =>
    list.getByRole('button').evaluateAll((all) => all.map((b) => b.getAttribute('aria-label')!.split(',')[0]));
  expect(await order()).toEqual(names);
  const tile = (name: string) => list.getByRole('button', { name: new RegExp(`^${name},`) });
  const middle = async (name: string) => {
    const b = (await tile(name).boundingBox())!;
    return { x: b.x + b.width / 2, y: b.y + b.height / 2 };
  };
  await own.drag(await middle('Four'), await middle('One'));
  await expect.poll(order).toEqual(['Four', 'One', 'Two', 'Three']);
  await tile('Four').click();
  await tile('One').click({ modifiers: ['Control'] });
  await expect(tile('One')).toHaveAttribute('aria-pressed', 'true');
  await slip.getByRole('button', { name: 'Later' }).click();
  await expect.poll(order).toEqual(['Two', 'Four', 'One', 'Three']);
  await slip.getByRole('button', { name: 'Add an empty one' }).click();
  await tile('Two').click();
  await tile('One').click({ modifiers: ['Shift'] });
  await slip.getByRole('combobox', { name: 'Master of 3 pages' }).selectOption({ label: 'Ordinary' });
  await expect(slip.getByText('on 3 pages')).toBeVisible();
  await page.waitForTimeout(1500);
  await shot(own, 'strip');
  await slip.getByRole('button', { name: 'Delete' }).click();
  await expect.poll(order).toEqual(['Three']);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('button', { name: /^Pages/ })).toContainText('of 4');
  await own.saved();
});

test('a ground of one’s own colours is chosen by its picture; its pattern is made larger', async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Pattern');
  const ground = own.details().locator('[data-section="Ground"]');
  await ground.getByRole('button', { name: 'Choose a ground' }).click();
  const set = page.getByRole('dialog', { name: 'Grounds' });
  await expect(set.getByRole('button')).toHaveCount(30);
  await page.waitForTimeout(800);
  await shot(own, 'grounds');
  await set.getByRole('button', { name: 'Round dots' }).click();
  await expect(ground.getByRole('combobox', { name: 'Pattern' })).toHaveValue('dots');
  await ground.getByRole('textbox', { name: 'Step of the pattern' }).fill('20 mm');
  await page.keyboard.press('Enter');
  await shot(own, 'pattern');
  await ground.getByRole('combobox', { name: 'Pattern' }).selectOption('waves');
  await ground.getByRole('button', { name: /^Colour 1 of the pattern/ }).click();
  await page.keyboard.press('Escape');
  await page
    .getByRole('region', { name: 'Ink tray' })
    .getByRole('button', { name: /^Black/ })
    .first()
    .click();
  await expect(ground.getByRole('button', { name: 'Colour 1 of the pattern: Black' })).toBeVisible();
  await own.saved();
  await page.reload();
  await own.ready();
  await expect(ground.getByRole('combobox', { name: 'Pattern' })).toHaveValue('waves');
});

test('one page becomes a card and a poster: shown first, then designs of their own', async ({ page }) => {
  const own = await BenchPage.poster(page);
  await page.getByRole('button', { name: /^Format/ }).click();
  await page
    .getByRole('dialog', { name: 'Format' })
    .getByRole('button', { name: 'This page in other formats' })
    .click();
  const sheet = page.getByRole('dialog', { name: 'This page in other formats' });
  await sheet.getByRole('checkbox', { name: 'Card' }).check();
  await sheet.getByRole('checkbox', { name: 'A3' }).check();
  const shown = sheet.getByRole('list', { name: 'As it would be' }).getByRole('listitem');
  await expect(shown).toHaveCount(3);
  await expect(sheet.getByText('looking …')).toHaveCount(0);
  await shot(own, 'refit');
  await sheet.getByRole('radio', { name: 'Across' }).click();
  await expect(shown.first()).toContainText('210 mm × 148 mm');
  await sheet.getByRole('button', { name: 'Make 3 designs' }).click();
  await expect(own.message()).toContainText('3 designs are on the shelf.');
  await page.goto('/');
  await page.getByRole('link', { name: /Lantern Walk poster, Card/ }).click();
  await own.ready();
  await expect(page.getByRole('button', { name: /^Format/ })).toContainText('85 × 55');
  await shot(own, 'refitted-card');
});
