import { decode } from 'fast-png';
import { BenchPage, expect, test, WHOLE } from './support';

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

test('bent words: an arch by its dot, another bend by its name, and they are still text', WHOLE, async ({ page }) => {
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

test('a headline is made as long as the page between its margins', WHOLE, async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Headline');
  await own.write(30, 60, 'Lantern Walk');
  await own.unfold('Line');
  await own.details().getByRole('button', { name: 'As long as between the margins' }).click();
  await expect(own.field('Length')).toHaveValue('128 mm');
  await expect(own.field('X')).toHaveValue('10 mm');
  await shot(own, 'headline');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(own.field('Length')).not.toHaveValue('128 mm');
  await own.field('Height of the capitals').fill('12 mm');
  await page.keyboard.press('Enter');
  await expect(own.field('Height of the capitals')).toHaveValue('12 mm');
  await own.details().getByRole('radio', { name: 'The x' }).click();
  await expect(own.field('Height of the x')).not.toHaveValue('12 mm');
});

test('two columns run on into a second frame; what is left over is told and mended', WHOLE, async ({ page }) => {
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

test('a look is made of one text, followed by others on three pages, changed once for all', WHOLE, async ({ page }) => {
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
    if (name === 'Second') {
      await own.unfold('Text looks');
      await look.click();
    } else {
      // By its key, while the words are being written.
      await own.top.focus();
      await page.keyboard.press('Enter');
      await page.keyboard.press('Control+Alt+1');
      await expect(own.message()).toContainText('Look: Heading');
      await page.keyboard.press('Escape');
    }
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

test(
  'a face is chosen by its own letters, searched by name, and stands first from then on',
  WHOLE,
  async ({ page }) => {
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
  },
);

test('words are found on all pages, gone to, and changed everywhere in one step', WHOLE, async ({ page }) => {
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

test('a shape laid on a text pushes its words away, and they follow it', WHOLE, async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Pushed');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await own.drag(await own.at(20, 20), await own.at(120, 62));
  await page.keyboard.insertText('Home-made paper lanterns walk the quays of Marrowick each November. '.repeat(4));
  await page.keyboard.press('Escape');
  await expect(own.details().getByText(/characters do not fit/)).toHaveCount(0);
  await own.shape('Ellipse', 28, 22, 112, 60);
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

test('an accented line and one from right to left are typed as they are read', WHOLE, async ({ page }) => {
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

test(
  'lines round letters: one more behind them, in a colour of its own, further away, and gone again',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Halo');
    await own.write(30, 80, 'Marrowick');
    await own.unfold('Letter outline');
    await section(own, 'Letter outline').getByRole('button', { name: 'An outline behind' }).click();
    const second = section(own, 'Second outline');
    await expect(second.getByText('aimed at')).toBeVisible();
    await second.getByRole('textbox', { name: 'Away from the edge' }).fill('2 mm');
    await page.keyboard.press('Enter');
    await expect(second.getByRole('textbox', { name: 'Away from the edge' })).toHaveValue(/^2/);
    await second.getByRole('radio', { name: 'Linear' }).click();
    await expect(second.getByRole('radio', { name: 'Linear' })).toHaveAttribute('aria-checked', 'true');
    await second.getByRole('button', { name: 'One more outline' }).click();
    await expect(section(own, 'Third outline')).toBeVisible();
    await shot(own, 'halo');
    await section(own, 'Third outline').getByRole('button', { name: 'Remove' }).click();
    await expect(section(own, 'Third outline')).toHaveCount(0);
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(section(own, 'Third outline')).toBeVisible();
    await own.saved();
  },
);

test('bent words are tilted by their dots, to the side and up', WHOLE, async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Tilt');
  await own.write(30, 80, 'Marrowick');
  const mm = async (name: string) => Number((await own.field(name).inputValue()).replace(/[^\d.]/g, ''));
  const [x, y, w, h] = [await mm('X'), await mm('Y'), await mm('Width'), await mm('Height')];
  await own.unfold('Line');
  await page.getByRole('radiogroup', { name: 'How the words run' }).getByRole('radio', { name: 'Bent' }).click();
  await own.drag(await own.at(x + w / 2, y + h * 1.35), await own.at(x + w / 2 + w / 4, y + h * 1.35));
  await expect(own.field('Bend: tilt across')).toHaveValue('50%');
  await own.drag(await own.at(x + w + h * 0.35, y + h * 0.5), await own.at(x + w + h * 0.35, y + h * 0.1));
  await expect(own.field('Bend: tilt up')).toHaveValue('40%');
  await shot(own, 'tilted');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(own.field('Bend: tilt up')).toHaveValue('0%');
});

test('letters that are composed show in the text before they are settled, and are one step', async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Composed');
  await own.write(30, 60, 'Quay ');
  await own.top.focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('End');
  const input = await page.context().newCDPSession(page);
  const said = (text: RegExp) => own.pile().filter({ hasText: text });
  for (const text of ['n', 'ni', 'にほ'])
    await input.send('Input.imeSetComposition', { text, selectionStart: text.length, selectionEnd: text.length });
  await expect(said(/Quay にほ/).first()).toBeVisible();
  await input.send('Input.insertText', { text: '日本' });
  await expect(said(/Quay 日本/).first()).toBeVisible();
  await expect(said(/にほ/)).toHaveCount(0);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(said(/日本/)).toHaveCount(0);
  await expect(said(/Quay/).first()).toBeVisible();
});

test('the field that the browser marks misspelt words in lies over the words on the page', WHOLE, async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Spelling');
  await own.write(30, 60, 'Lantern');
  await own.top.focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('End');
  await page.keyboard.type(' wlak');
  await page.keyboard.press('Enter');
  await page.keyboard.type('quay');
  const field = page.locator('#letters');
  await expect(field).toHaveCSS('color', 'rgba(0, 0, 0, 0)');
  await expect(field).toHaveAttribute('spellcheck', 'true');
  await expect.poll(async () => (await field.boundingBox())!.height).toBeGreaterThan(20);
  await page.waitForTimeout(300);
  // Where letters are dark, on the page and in the field by itself.
  const around = (await field.boundingBox())!;
  const clip = { x: around.x - 20, y: around.y - 20, width: around.width + 40, height: around.height + 40 };
  const dark = async () => {
    const { width, height, data, channels } = decode(await page.screenshot({ clip, caret: 'hide' }));
    const box = { x0: Infinity, y0: Infinity, x1: 0, y1: 0 };
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++)
        if (data[(y * width + x) * channels + 1] < 90) {
          box.x0 = Math.min(box.x0, x);
          box.y0 = Math.min(box.y0, y);
          box.x1 = Math.max(box.x1, x);
          box.y1 = Math.max(box.y1, y);
        }
    return box;
  };
  const shown = await dark();
  await page.addStyleTag({
    content: '#letters { color: black !important; background: white !important; caret-color: white !important }',
  });
  const laid = await dark();
  await shot(own, 'spelling');
  for (const side of ['x0', 'x1', 'y0', 'y1'] as const) expect(Math.abs(laid[side] - shown[side])).toBeLessThan(4);
});

test('what is set of letters, paragraphs and their frame is there after a reload', WHOLE, async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Settings');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await own.drag(await own.at(20, 20), await own.at(120, 120));
  await page.keyboard.insertText('Office hours of the quay: soup, lanterns and music. '.repeat(6));
  await page.keyboard.press('Escape');
  const details = own.details();
  for (const name of ['Lettering', 'Paragraph', 'Frame of words']) await own.unfold(name);
  const chosen: readonly (readonly [string, string])[] = [
    ['Case', 'Small capitals'],
    ['Height of letters', 'Raised'],
    ['Leading is', 'In points'],
    ['List', 'Numbers'],
    ['Where words stand in the height', 'Middle'],
    ['Alignment', 'Full'],
  ];
  const radio = ([group, name]: readonly [string, string]) =>
    details.getByRole('radiogroup', { name: group }).getByRole('radio', { name });
  for (const row of chosen) await radio(row).click();
  const switches = ['Underlined', 'Struck through', 'Hyphens', 'Even edges', 'Drop capital'];
  for (const name of switches) await details.getByRole('checkbox', { name }).check();
  await details.getByRole('checkbox', { name: 'Ligatures' }).uncheck();
  await details.getByRole('combobox', { name: 'Language' }).selectOption('fi');
  const fields: readonly (readonly [string, string])[] = [
    ['Baseline shift', '3 pt'],
    ['Tracking', '40'],
    ['Columns', '2'],
    ['Inset: left', '4 mm'],
    ['Lines beside the drop capital', '3'],
    ['Lines kept together at the head and foot of a column', '2'],
  ];
  for (const [name, value] of fields) {
    await own.field(name).fill(value);
    await page.keyboard.press('Enter');
  }
  await own.saved();
  await page.reload();
  await own.ready();
  await own.pile().first().click();
  for (const name of ['Lettering', 'Paragraph', 'Frame of words']) await own.unfold(name);
  for (const row of chosen) await expect(radio(row)).toHaveAttribute('aria-checked', 'true');
  for (const name of switches) await expect(details.getByRole('checkbox', { name })).toBeChecked();
  await expect(details.getByRole('checkbox', { name: 'Ligatures' })).not.toBeChecked();
  await expect(details.getByRole('combobox', { name: 'Language' })).toHaveValue('fi');
  for (const [name, value] of fields)
    await expect(own.field(name)).toHaveValue(new RegExp(`^${value.replace(/ .*/, '')}\\b`));
  await shot(own, 'settings');
});
