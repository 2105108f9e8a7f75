import { BenchPage, expect, test } from './support';

const shot = (own: BenchPage, name: string) =>
  process.env.HOLVET_SHOTS ? own.page.screenshot({ path: `/tmp/try/${name}.png` }) : Promise.resolve();

const section = (own: BenchPage, name: string) => own.details().locator(`[data-section="${name}"]`);
test('a badge: words above and below on one circle, both upright; dragged round; straight again', async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Badge');
  await own.write(40, 70, 'Lantern Walk');
  await own.unfold('Line');
  const run = page.getByRole('radiogroup', { name: 'How the words run' });
  await run.getByRole('radio', { name: 'On a circle' }).click();
  await expect(own.field('Radius')).toBeVisible();
  await own.field('Radius').fill('30 mm');
  await page.keyboard.press('Enter');

  // Its fellow below: a copy, on the other side, heads on the line.
  await own.top.focus();
  await page.keyboard.press('Control+d');
  await expect(own.pile()).toHaveCount(2);
  await own.details().getByRole('checkbox', { name: 'On the other side' }).check();
  await page
    .getByRole('radiogroup', { name: 'What touches the line' })
    .getByRole('radio', { name: 'Heads on it' })
    .click();
  await expect(own.field('Where on the line the words stand')).toHaveValue('50%');
  await shot(own, 'badge');
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: /^Undo/ }).click();
  await own.pile().first().click();
  await run.getByRole('radio', { name: 'Straight' }).click();
  await expect(own.field('Radius')).toHaveCount(0);
  await own.saved();
});

test('bent words: an arch by its dot, another bend by its name, and they are still text', async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Arch');
  await own.write(30, 80, 'Marrowick');
  await own.unfold('Line');
  await page.getByRole('radiogroup', { name: 'How the words run' }).getByRole('radio', { name: 'Bent' }).click();
  await expect(own.field('Bend: strength')).toHaveValue('30%');
  await own.field('Bend: strength').fill('60');
  await page.keyboard.press('Enter');
  await expect(own.field('Bend: strength')).toHaveValue('60%');
  await own.details().getByRole('combobox', { name: 'Bend' }).selectOption('fan');
  await shot(own, 'bent');
  // Still text: written on.
  await own.top.focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('End');
  await page.keyboard.type(' quays');
  await page.keyboard.press('Escape');
  await expect(
    own
      .pile()
      .filter({ hasText: /Marrowick quays/ })
      .first(),
  ).toBeVisible();
});

test('writing: a word by two presses, a paragraph by three, words copied with their look, undone word by word', async ({
  page,
}) => {
  const own = await BenchPage.make(page, 'A5', 'Writing');
  const row = (text: string | RegExp) => own.pile().filter({ hasText: text }).first();
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await own.click(20, 60);
  await page.keyboard.type('Lantern Walk quays');
  // Undone by words, done again.
  await page.keyboard.press('Control+z');
  await expect(row(/Lantern Walk\s*$/)).toBeVisible();
  await page.keyboard.press('Control+y');
  await expect(row(/Lantern Walk quays/)).toBeVisible();

  // Two presses take a word; in capitals, copied, it keeps its look where it is pasted.
  const p = await own.at(28, 57);
  await page.mouse.click(p.x, p.y, { clickCount: 2 });
  await own.unfold('Lettering');
  await section(own, 'Lettering').getByRole('radio', { name: 'Capitals', exact: true }).click();
  await page.keyboard.press('Control+c');
  await page.keyboard.press('End');
  await page.keyboard.press('Control+v');
  await expect(row(/Lantern Walk quaysLantern/)).toBeVisible();
  await expect(section(own, 'Lettering').getByRole('radio', { name: 'Capitals', exact: true })).toBeChecked();

  // With Shift only the words come: they look as what they are put into.
  for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Control+Shift+v');
  await expect(row(/quayLanternsLantern/)).toBeVisible();
  await expect(section(own, 'Lettering').getByRole('radio', { name: 'As typed', exact: true })).toBeChecked();

  // Three take the paragraph, which typing replaces.
  await page.mouse.click(p.x, p.y, { clickCount: 3 });
  await page.keyboard.type('Dusk');
  await expect(row(/^[^a-z]*Text: Dusk/i)).toBeVisible();
  await shot(own, 'letters');
  await own.saved();
});

test('a headline is made as long as the page between its margins', async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Headline');
  await own.write(30, 60, 'Lantern Walk');
  await own.unfold('Line');
  await own.details().getByRole('button', { name: 'As long as between the margins' }).click();
  await expect(own.field('Length')).toHaveValue('128 mm');
  await expect(own.field('X')).toHaveValue('10 mm');
  await shot(own, 'headline');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(own.field('Length')).not.toHaveValue('128 mm');
});

test('two columns run on into a second frame; what is left over is told and mended', async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Thread');
  const frame = async (x0: number, y0: number, x1: number, y1: number, text: string) => {
    await page.getByRole('button', { name: 'Text', exact: true }).click();
    await own.drag(await own.at(x0, y0), await own.at(x1, y1));
    // Letter by letter is for the other stories: these are many.
    await page.keyboard.insertText(text);
    await page.keyboard.press('Escape');
  };
  const words =
    'Home-made paper lanterns walk the quays of Marrowick each November, past boats and stalls and the weigh house. ';
  await frame(15, 20, 70, 55, words.repeat(4));
  await own.unfold('Frame of words');
  await own.field('Columns').fill('2');
  await page.keyboard.press('Enter');
  await expect(own.details().getByText(/characters do not fit/)).toBeVisible();
  // Checks mends it on the spot; that is one step, and is taken back.
  await page.getByRole('button', { name: /^Checks/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Fit the frame to its words' }).click();
  await expect(page.getByRole('dialog').getByText(/Nothing found/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(own.details().getByText(/characters do not fit/)).toHaveCount(0);
  await own.top.focus();
  await page.keyboard.press('Control+z');
  await expect(own.details().getByText(/characters do not fit/)).toBeVisible();
  await frame(80, 20, 135, 90, '');
  await own.pile().first().click();
  await own
    .pile()
    .nth(1)
    .click({ modifiers: ['Shift'] });
  await own.details().getByRole('button', { name: 'Run words on into the next frame' }).click();
  await expect(own.message()).toContainText('goes on in the second');
  await own.pile().nth(1).click();
  await shot(own, 'thread');
  await expect(own.details().getByText(/characters do not fit/)).toHaveCount(0);
  // Written on at its end, the caret stands in the second frame.
  await own.top.focus();
  await page.keyboard.press('Enter');
  await page.keyboard.type('And home.');
  await page.keyboard.press('Escape');
  await own.saved();
  await page.reload();
  await own.ready();
  await expect(own.pile()).toHaveCount(2);
});

test('a look is made of one text, followed by others on three pages, changed once for all', async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Looks');
  await own.write(20, 40, 'First');
  await own.field('Size').fill('33 pt');
  await page.keyboard.press('Enter');
  await own.unfold('Text looks');
  await own.details().getByRole('button', { name: 'Make a look of this' }).click();
  await page.getByRole('textbox', { name: 'Name of the look' }).fill('Heading');
  await page.keyboard.press('Enter');
  const look = own.details().getByRole('option', { name: /Heading/ });
  await expect(look).toHaveAttribute('aria-selected', 'true');

  for (const name of ['Second', 'Third']) {
    await own.top.focus();
    await page.keyboard.press('Control+Enter');
    await own.write(20, 40, name);
    await own.unfold('Text looks');
    await own
      .details()
      .getByRole('option', { name: /Heading/ })
      .click();
    await expect(own.field('Size')).toHaveValue('33 pt');
  }
  // Changed here: it says something of its own, until the look takes it over.
  await own.field('Size').fill('21 pt');
  await page.keyboard.press('Enter');
  await own.details().getByRole('button', { name: 'Change the look' }).click();
  await expect(own.message()).toContainText('all that follow it');
  await shot(own, 'looks');
  for (let i = 0; i < 2; i++) {
    await own.top.focus();
    await page.keyboard.press('PageUp');
    await own.pile().first().click();
    await expect(own.field('Size')).toHaveValue('21 pt');
  }
  await own.saved();
});

test('a face is chosen by its own letters, searched by name, and stands first from then on', async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Faces');
  await own.write(20, 60, 'Marrowick');
  await own.field('Face').click();
  const slip = page.getByRole('dialog', { name: 'Faces' });
  const list = slip.getByRole('grid', { name: 'Faces' });
  await expect(list.getByRole('row').first()).toBeVisible();
  await expect(slip.getByText('Marrowick').first()).toBeVisible();
  await shot(own, 'faces');
  await slip.getByRole('combobox', { name: 'Find a face' }).fill('playfair');
  await expect(list.getByRole('row')).toHaveCount(1);
  await list.getByRole('row').getByRole('button', { name: 'Bold Italic' }).click();
  await expect(own.field('Face')).toHaveText(/Playfair Display Bold Italic/);
  await own.field('Face').click();
  await expect(list.getByRole('row').first()).toHaveAccessibleName('Playfair Display');
  await page.keyboard.press('Escape');
  await own.saved();
});

test('words are found on all pages, gone to, and changed everywhere in one step', async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Find');
  await own.write(20, 60, 'Lantern Walk');
  await own.write(20, 90, 'A lantern each');
  await own.top.focus();
  await page.keyboard.press('Control+f');
  const slip = page.getByRole('dialog', { name: 'Find and change words' });
  await slip.getByLabel('Find').fill('lantern');
  await expect(slip.getByRole('status')).toHaveText('2 places in 2 texts');
  await slip.getByLabel('Capitals as written').check();
  await expect(slip.getByRole('status')).toHaveText('1 place in 1 text');
  await slip.getByLabel('Capitals as written').uncheck();
  await shot(own, 'find');
  await slip.getByLabel('Change to').fill('torch');
  await slip.getByRole('button', { name: 'Change all' }).click();
  await expect(slip.getByRole('status')).toHaveText('Nowhere in this design.');
  await slip.getByLabel('Find').fill('torch');
  // Gone to, the words stand chosen, and what is typed takes their place.
  await slip
    .getByRole('list')
    .getByRole('button', { name: /A torch each/ })
    .click();
  await expect(slip).toBeHidden();
  await page.keyboard.type('candle');
  await page.keyboard.press('Escape');
  await own.saved();
  await expect(own.pile().first()).toHaveAccessibleName(/A candle each/);
  await own.top.focus();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(own.pile().first()).toHaveAccessibleName(/A lantern each/);
});

test('a shape laid on a text pushes its words away, and they follow it', async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Pushed');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await own.drag(await own.at(20, 20), await own.at(120, 62));
  await page.keyboard.insertText('Home-made paper lanterns walk the quays of Marrowick each November. '.repeat(4));
  await page.keyboard.press('Escape');
  await expect(own.details().getByText(/characters do not fit/)).toHaveCount(0);
  await own.shape('Ellipse', 50, 22, 90, 60);
  await own.unfold('Finish');
  await own.details().getByLabel('Pushes words away').check();
  await own.field('How far words stay off').fill('3 mm');
  await page.keyboard.press('Enter');
  await shot(own, 'pushed');
  // Beside it there is room for less; away from it for all.
  await own.pile().nth(1).click();
  await expect(own.details().getByText(/characters do not fit/)).toBeVisible();
  await expect(own.pile().nth(1)).toHaveAccessibleName(/words do not fit/);
  await own.drag(await own.at(70, 41), await own.at(70, 150));
  await own.pile().nth(1).click();
  await expect(own.details().getByText(/characters do not fit/)).toHaveCount(0);
  await own.saved();
});

test('an accented line and one from right to left are typed as they are read', async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Ways');
  await own.write(20, 60, 'Übermäßig crème');
  await own.write(20, 90, 'שלום קיי');
  await expect(own.pile().first()).toHaveAccessibleName(/שלום קיי/);
  // Home is where the line begins, on the right: what is typed there is read first.
  await own.pile().first().click();
  await own.top.focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Home');
  await page.keyboard.type('א');
  // A letter and the mark typed onto it go by one key.
  await page.keyboard.press('End');
  await page.keyboard.insertText(' e\u0301');
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Escape');
  await expect(own.pile().first()).toHaveAccessibleName(/אשלום קיי,/);
  await own.saved();
  await page.reload();
  await own.ready();
  await expect(own.pile().nth(1)).toHaveAccessibleName(/Übermäßig crème/);
  await expect(own.pile().first()).toHaveAccessibleName(/אשלום קיי,/);
});
