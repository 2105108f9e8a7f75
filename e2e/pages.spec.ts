import { BenchPage, expect, test, WHOLE } from './support';

const shot = (own: BenchPage, name: string) =>
  process.env.HOLVET_SHOTS ? own.page.screenshot({ path: `/tmp/try/${name}.png` }) : Promise.resolve();

/** The colour of the sheet at a place in millimetres, as the screen shows it. */
async function seenAt(own: BenchPage, x: number, y: number): Promise<string> {
  const p = await own.at(x, y);
  return own.page
    .screenshot({ clip: { x: Math.round(p.x), y: Math.round(p.y), width: 1, height: 1 } })
    .then((b) => b.toString('base64'));
}

test(
  'the ground of one page is changed and no other’s; that of a master is changed for all its pages by its name',
  WHOLE,
  async ({ page }) => {
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
  },
);

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
  // It is marked, and said whose it is, with what can be done.
  await expect(own.message()).toContainText('Rectangle is of the master Ordinary.');
  await page.getByRole('button', { name: 'Take over here', exact: true }).first().click();
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

test(
  'pages by their pictures: several chosen, dragged to another place, given a master, deleted and brought back',
  WHOLE,
  async ({ page }) => {
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
    await expect.poll(order).toEqual(names);
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
  },
);

test('a ground of one’s own colours is chosen by its picture; its pattern is made larger', WHOLE, async ({ page }) => {
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

test('one page becomes a card and a poster: shown first, then designs of their own', WHOLE, async ({ page }) => {
  const own = await BenchPage.poster(page);
  await page.getByRole('button', { name: /^Format/ }).click();
  await page
    .getByRole('dialog', { name: 'Format' })
    .getByRole('button', { name: 'This page in other formats' })
    .click();
  const sheet = page.getByRole('dialog', { name: 'This page in other formats' });
  await sheet.getByRole('checkbox', { name: 'Round label 80' }).uncheck();
  await sheet.getByRole('checkbox', { name: 'A5' }).check();
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

/** Opens a slip by the beginning of its name. */
async function slip(own: BenchPage, name: RegExp) {
  await own.page.getByRole('button', { name }).click();
  return own.page.getByRole('dialog');
}

test('a booklet without a lone cover: two pages beside each other, worked on as one', WHOLE, async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Booklet');
  const format = await slip(own, /^Format/);
  await format.getByRole('combobox', { name: 'Pages' }).selectOption({ label: 'facing, the first on the left' });
  await page.keyboard.press('Escape');
  await own.top.focus();
  await page.keyboard.press('Control+Enter');
  await page.keyboard.press('PageUp');
  const heading = page.getByRole('region', { name: 'Pile' }).getByRole('heading');
  await expect(heading).toHaveText('Page 1');
  // The spread is fitted: 2 × 148 mm across, 3 mm of bleed round it.
  const box = (await own.top.boundingBox())!;
  const scale = Math.min((box.width - 56) / 302, (box.height - 56) / 216);
  const at = (x: number, y: number) => ({
    x: box.x + box.width / 2 + (x - 148) * scale,
    y: box.y + box.height / 2 + (y - 105) * scale,
  });
  const seen = async (x: number, y: number) => {
    const p = at(x, y);
    return (await page.screenshot({ clip: { x: Math.round(p.x), y: Math.round(p.y), width: 1, height: 1 } })).toString(
      'base64',
    );
  };
  const draw = async (x0: number, y0: number, x1: number, y1: number) => {
    await page.getByRole('button', { name: 'Shape', exact: true }).click();
    await page
      .getByRole('dialog', { name: 'Shapes' })
      .getByRole('button', { name: 'Rectangle', exact: true })
      .first()
      .click();
    await own.drag(at(x0, y0), at(x1, y1), { keys: ['Control'] });
    await expect(own.message()).toContainText('Drew a rectangle');
  };
  const paper = await seen(250, 180);
  // Over the fold: seen on both pages, of the left one.
  await draw(118, 20, 178, 60);
  await expect.poll(() => seen(170, 30)).not.toBe(paper);
  await shot(own, 'spread');
  // A press on the other page takes the work there; the spread stays.
  const { mouse } = page;
  await mouse.click(at(250, 180).x, at(250, 180).y);
  await expect(heading).toHaveText('Page 2');
  await expect(page.getByRole('button', { name: /^Pages/ })).toContainText('2 of 2');
  await expect.poll(() => seen(130, 30)).not.toBe(paper);
  await expect(own.details().getByText(/0 objects on it/)).toBeVisible();
  // What is drawn there and dragged over the fold goes to the first page.
  await draw(200, 100, 240, 140);
  await page.keyboard.press('Escape');
  await own.drag(at(220, 120), at(60, 120), { keys: ['Control'] });
  await expect(own.message()).toContainText('Moved 1 object to Page 1');
  await expect(heading).toHaveText('Page 1');
  await expect.poll(() => seen(60, 120)).not.toBe(paper);
  await expect.poll(() => seen(220, 120)).toBe(paper);
  await expect.poll(() => own.names()).toHaveLength(2);
  await expect(own.field('X')).toHaveValue(/^40( mm)?/);
  // One step takes it back to where it was.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(() => seen(220, 120)).not.toBe(paper);
  await own.saved();
});

test(
  'pages are numbered in one step; a master is given by dragging it, and shows which pages follow',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Numbers');
    await own.top.focus();
    for (let i = 0; i < 2; i++) await page.keyboard.press('Control+Enter');
    await page.keyboard.press('Control+k');
    await page.keyboard.type('page numbers');
    await page.keyboard.press('Enter');
    await expect(own.message()).toContainText('A page number lies on the master Ordinary now, at the foot of 3 pages.');
    const pages = await slip(own, /^Pages/);
    await pages.getByRole('button', { name: 'Add an empty one' }).click();
    const tile = (n: number) =>
      pages.getByRole('list', { name: 'Pages' }).getByRole('button', { name: new RegExp(`^Page ${n},`) });
    const centre = async (it: ReturnType<typeof tile>) => {
      const b = (await it.boundingBox())!;
      return { x: b.x + b.width / 2, y: b.y + b.height / 2 };
    };
    await own.drag(await centre(pages.getByRole('button', { name: /^Cover/ })), await centre(tile(1)), { steps: 12 });
    await expect(own.message()).toContainText('Cover lies below 1 page now.');
    await expect(tile(1)).toHaveAccessibleName(/on Cover, stands on the open master/);
    await pages.getByRole('button', { name: /^Ordinary/ }).click();
    await expect(tile(3)).toHaveAccessibleName(/stands on the open master/);
    await expect(tile(1)).not.toHaveAccessibleName(/stands on the open master/);
    await shot(own, 'followers');
    // On the page, words can say its number too.
    await tile(2).click();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Text', exact: true }).click();
    await own.click(40, 60);
    await page.keyboard.type('Page ');
    await own.details().getByRole('combobox', { name: 'Put in' }).selectOption({ label: 'Page number' });
    await shot(own, 'putin');
    await page.keyboard.type(' of ');
    await own.details().getByRole('combobox', { name: 'Put in' }).selectOption({ label: 'Number of pages' });
    await page.keyboard.press('Escape');
    await expect.poll(() => own.names()).toEqual(['Text: Page 2 of 3']);
    await own.saved();
  },
);

test(
  'a picture of the drawer on the ground: over the page, faded, in tiles, on this page alone',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Picture ground');
    await page.keyboard.press('Control+Enter');
    const ground = own.details().locator('[data-section="Ground"]');
    const bare = await seenAt(own, 70, 100);
    await ground.getByRole('radio', { name: 'Picture' }).click();
    const chooser = page.getByRole('dialog', { name: 'Pictures' });
    await expect(chooser.getByLabel('On the ground of the page')).toBeChecked();
    await chooser.getByRole('button', { name: /^Harbour at dusk/ }).click();
    await expect(own.message()).toContainText('Harbour at dusk lies on the ground of this page, to the bleed.');
    await expect.poll(() => seenAt(own, 70, 100)).not.toBe(bare);
    await ground.getByRole('slider', { name: 'Fade of the ground' }).focus();
    await page.keyboard.press('End');
    await expect.poll(() => seenAt(own, 70, 100)).toBe(bare);
    await page.keyboard.press('Home');
    await expect.poll(() => seenAt(own, 70, 100)).not.toBe(bare);
    await ground.getByRole('radio', { name: 'Tiles' }).click();
    const tile = ground.getByLabel('Width of a tile of the ground');
    await tile.fill('40');
    await page.keyboard.press('Enter');
    await expect(tile).toHaveValue(/^40/);
    await page.waitForTimeout(600);
    await shot(own, 'ground-picture');
    await own.top.focus();
    await page.keyboard.press('PageUp');
    await expect.poll(() => seenAt(own, 70, 100)).toBe(bare);
    await own.saved();
  },
);

test(
  'a layer of notes on two pages: for proof only on both at once, seen while one works and in no clean view',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Proofs');
    const bare = await seenAt(own, 70, 60);
    await own.shape('Rectangle', 20, 20, 120, 100);
    await page.keyboard.press('Control+k');
    await page.keyboard.type('put into a layer');
    await page.keyboard.press('Enter');
    const layer = own.details().locator('[data-section="Layer"]');
    await own.pile().first().click();
    await expect(layer).toBeVisible();
    await page.keyboard.press('Escape');
    await own.top.focus();
    await page.keyboard.press('Control+k');
    await page.keyboard.type('duplicate this page');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: /^Pages/ })).toContainText('2 of 2');
    await own.pile().first().click();
    await expect(layer.getByLabel(/^On all 2 pages/)).toBeChecked();
    await layer.getByLabel('For proof only').check();
    await expect(own.pile().first()).toHaveAccessibleName(/for proof only/);
    await expect.poll(() => seenAt(own, 70, 60)).not.toBe(bare);
    await own.top.focus();
    await page.keyboard.press('2');
    await expect.poll(() => seenAt(own, 70, 60)).toBe(bare);
    await page.keyboard.press('PageUp');
    await expect(page.getByRole('button', { name: /^Pages/ })).toContainText('1 of 2');
    await expect.poll(() => seenAt(own, 70, 60)).toBe(bare);
    await page.keyboard.press('1');
    await expect.poll(() => seenAt(own, 70, 60)).not.toBe(bare);
    await own.saved();
  },
);

test('pages of one design are pasted into another, as they look', WHOLE, async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: /Walk programme/ }).click();
  const own = new BenchPage(page);
  await own.ready();
  const pages = await slip(own, /^Pages/);
  await pages.getByRole('button', { name: /^Cover,/ }).click();
  await pages.getByRole('button', { name: /^Page 4,/ }).click({ modifiers: ['Control'] });
  await pages.getByRole('button', { name: 'Copy', exact: true }).click();
  await expect(own.message()).toContainText('Copied 2 pages.');
  const other = await BenchPage.make(page, 'A5', 'Leaflet');
  await slip(other, /^Pages/);
  await pages.getByRole('button', { name: 'Paste', exact: true }).click();
  await expect(other.message()).toContainText('Pasted 2 pages, as they looked');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /^Pages/ })).toContainText('2 of 3');
  await expect.poll(async () => (await other.names()).slice(0, 2)).toEqual(['Day', 'Headline']);
  await other.saved();
});
