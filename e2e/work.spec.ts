import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { decode } from 'fast-png';
import { writeFileSync } from 'node:fs';
import { BenchPage, expect, test, WHOLE } from './support';

test.describe('arranging', () => {
  test('choose, move with snapping, copy by Alt, marquee, resize, turn, order, delete', async ({ page }) => {
    const bench = await BenchPage.make(page, 'A5', 'Arranging');
    await bench.shape('Rectangle', 20, 20, 50, 40);
    await bench.shape('Ellipse', 80, 120, 110, 150);

    // Moved near the middle of the page it snaps there, and says so at the pointer.
    await bench.drag(await bench.at(35, 30), await bench.at(73.4, 80), { release: false });
    await expect(bench.top.getByText('at page centre')).toBeVisible();
    await page.mouse.up();
    await expect(bench.field('X')).toHaveValue('59 mm');
    // With Ctrl held nothing snaps.
    await bench.drag(await bench.at(74, 80), await bench.at(74.6, 90), { keys: ['Control'] });
    await expect(bench.field('X')).not.toHaveValue('59 mm');
    await page.keyboard.press('Control+z');
    await expect(bench.field('X')).toHaveValue('59 mm');

    // Alt copies; Escape drops a drag halfway.
    await bench.drag(await bench.at(74, 80), await bench.at(40, 170), { keys: ['Alt'] });
    await expect(bench.pile()).toHaveCount(3);
    await bench.drag(await bench.at(40, 170), await bench.at(100, 60), { release: false });
    await page.keyboard.press('Escape');
    await page.mouse.up();
    await expect(bench.field('Y')).toHaveValue('160 mm');

    // A marquee over all, then Shift-click takes one out.
    await page.keyboard.press('Escape');
    await bench.drag(await bench.at(5, 5), await bench.at(140, 205));
    await expect(bench.details().getByText('3 objects')).toBeVisible();
    await bench.click(95, 135, { modifiers: ['Shift'] });
    await expect(bench.details().getByText('2 objects')).toBeVisible();

    // Typed measures with arithmetic and other units.
    await bench.click(95, 135);
    await bench.field('Width').fill('10mm*3 + 1cm');
    await page.keyboard.press('Enter');
    await expect(bench.field('Width')).toHaveValue('40 mm');
    await bench.field('Turn').fill('30');
    await page.keyboard.press('Enter');
    await expect(bench.field('Turn')).toHaveValue('30°');
    await bench.field('Width').fill('nonsense');
    await page.keyboard.press('Enter');
    await expect(bench.details().getByText('“nonsense” is not a number.')).toBeVisible();
    await page.keyboard.press('Escape');

    // Order and names in the pile.
    await bench.top.focus();
    await page.keyboard.press('Control+Shift+ArrowDown');
    await expect.poll(() => bench.names()).toEqual(['Rectangle', 'Rectangle', 'Ellipse']);
    await bench.pile().nth(2).dblclick();
    await page.getByLabel('New name').fill('Sun');
    await page.keyboard.press('Enter');
    await expect.poll(() => bench.names()).toEqual(['Rectangle', 'Rectangle', 'Sun']);

    // Hidden, it cannot be hit; locked, it stays.
    await bench.pile().nth(2).click();
    await page.keyboard.press('Control+Shift+h');
    await bench.click(140, 5);
    await bench.click(95, 135);
    await expect(bench.details().getByText('Choose one to see what it is')).toBeVisible();
    await bench.pile().nth(0).click();
    await page.keyboard.press('Control+Shift+l');
    await expect(bench.details().getByText('Locked. Unlock it in the pile')).toBeVisible();
    await bench.top.focus();
    await page.keyboard.press('Delete');
    await expect(bench.pile()).toHaveCount(3);
    await page.keyboard.press('Control+Shift+l');
    await page.keyboard.press('Delete');
    await expect(bench.pile()).toHaveCount(2);
  });

  test('resize by a corner tick: freely, in proportion, from the centre', WHOLE, async ({ page }) => {
    const bench = await BenchPage.make(page, 'A5', 'Sizes');
    await bench.shape('Rectangle', 50, 60, 90, 90);
    const corner = await bench.at(90, 90);
    const tick = { x: corner.x + 5, y: corner.y + 5 };
    const to = await bench.at(100, 120);
    await bench.drag(tick, { x: to.x + 5, y: to.y + 5 }, { keys: ['Control'] });
    await expect
      .poll(async () => [
        Math.round(parseFloat(await bench.field('Width').inputValue())),
        Math.round(parseFloat(await bench.field('Height').inputValue())),
      ])
      .toEqual([50, 60]);
    await page.keyboard.press('Control+z');
    await bench.drag(tick, { x: to.x + 5, y: tick.y }, { keys: ['Control', 'Shift'] });
    await expect
      .poll(async () =>
        Math.round(
          (parseFloat(await bench.field('Width').inputValue()) / parseFloat(await bench.field('Height').inputValue())) *
            100,
        ),
      )
      .toBe(133);
    await page.keyboard.press('Control+z');
    await bench.drag(tick, { x: to.x + 5, y: tick.y }, { keys: ['Control', 'Alt'] });
    await expect.poll(async () => Math.round(parseFloat(await bench.field('X').inputValue()))).toBe(40);
  });

  test('between designs: copy here, paste there, swatches come along', WHOLE, async ({ page }) => {
    const bench = await BenchPage.poster(page);
    await page.getByRole('option', { name: /^Lanterns/ }).click();
    await bench.top.focus();
    await page.keyboard.press('Control+c');
    await expect(bench.message()).toContainText('Copied 1 object.');
    const other = await BenchPage.make(page, 'A4', 'Elsewhere');
    await page.keyboard.press('Control+v');
    await expect(other.message()).toContainText('Pasted 1 object.');
    await expect.poll(() => other.names()).toEqual(['Lanterns']);
    await expect(other.card('Ember 66-43')).toBeVisible();
  });

  test('pages: add, duplicate, order, delete, go to', WHOLE, async ({ page }) => {
    const bench = await BenchPage.make(page, 'Card', 'Two sides');
    await bench.shape('Heart', 10, 10, 40, 40);
    await page.getByRole('button', { name: /^Pages/ }).click();
    const slip = page.getByRole('dialog', { name: 'Pages' });
    await slip.getByRole('button', { name: 'Duplicate' }).click();
    await slip.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(page.getByRole('button', { name: /^Pages/ })).toContainText('3 of 3');
    await slip.getByRole('button', { name: 'Earlier' }).click();
    for (const name of ['Page 1, 1 object', 'Page 2, 0 objects', 'Page 3, 1 object'])
      await expect(slip.getByRole('button', { name, exact: true })).toBeVisible();
    await slip.getByRole('button', { name: 'Delete' }).click();
    await expect(page.getByRole('button', { name: /^Pages/ })).toContainText('of 2');
    await page.keyboard.press('Escape');
    await bench.top.focus();
    await page.keyboard.press('PageUp');
    await expect(page.getByRole('button', { name: /^Pages/ })).toContainText('1 of 2');
    const svg = await bench.handOver('SVG', (s) => s.getByLabel(/^Pages/).fill('2'));
    expect(Buffer.from(svg.bytes).toString()).toContain('<path');
  });
});

test.describe('colour', () => {
  test('aim: a card on the edge is the outline; letters and frame are told apart', WHOLE, async ({ page }) => {
    const bench = await BenchPage.make(page, 'A5', 'Aims');
    await page.getByLabel('Recipe line').fill('Wick 0 36 92 0');
    await page.keyboard.press('Enter');
    await bench.shape('Ellipse', 20, 20, 100, 100);
    const card = (await bench.card('Wick').boundingBox())!;
    const from = { x: card.x + 40, y: card.y + 50 };
    await bench.drag(from, await bench.at(60, 60), { release: false });
    await expect(page.getByText('Wick on the fill')).toBeVisible();
    await page.mouse.up();
    await expect(bench.message()).toContainText('Fill: Wick.');
    await bench.drag(from, await bench.at(100, 60), { release: false });
    await expect(page.getByText('Wick on the outline')).toBeVisible();
    await page.mouse.up();
    await expect(
      bench.details().getByRole('radiogroup', { name: 'Outline kind' }).getByRole('radio', { name: 'Flat' }),
    ).toHaveAttribute('aria-checked', 'true');
    // A frame with words: their letters, or the box beside them.
    await page.getByRole('button', { name: 'Text', exact: true }).click();
    await bench.drag(await bench.at(20, 130), await bench.at(130, 180));
    await page.keyboard.type('Paper lanterns');
    await page.keyboard.press('Escape');
    await bench.drag(from, await bench.at(24, 133), { release: false });
    await expect(page.getByText('Wick on the letters')).toBeVisible();
    const corner = await bench.at(125, 175);
    await page.mouse.move(corner.x, corner.y);
    await page.keyboard.press('Escape');
    await page.mouse.up();
    await page.getByRole('radio', { name: 'Frame', exact: true }).click();
    await bench.card('Wick').click();
    await expect(bench.message()).toContainText('Frame of 1 object: Wick.');
    await page.getByRole('radio', { name: 'Letters', exact: true }).click();
    await bench.card('Bare stock').click();
    await expect(bench.message()).toContainText('Letters of 1 object: Bare stock.');
  });

  test('a gradient on the object: drawn, stops added, recoloured with a spot ink, moved, pulled out, reversed, turned', async ({
    page,
  }) => {
    const bench = await BenchPage.make(page, 'A5', 'Gradients');
    await page.getByRole('button', { name: 'Spot library' }).click();
    await page.getByRole('combobox', { name: 'Find a spot ink' }).fill('kelp');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
    await bench.shape('Rectangle', 20, 20, 128, 120);
    await page.getByRole('button', { name: 'Gradient', exact: true }).click();
    await bench.drag(await bench.at(30, 70), await bench.at(110, 70));
    const beads = bench.details().getByRole('slider', { name: /^Stop/ });
    await expect(beads).toHaveCount(2);
    await bench.click(70, 70);
    await expect(beads).toHaveCount(3);
    await bench.card('Kelp').click();
    await expect(bench.message()).toContainText('Stop 2 of 3: Kelp 38-167.');
    await bench.drag(await bench.at(70, 70), await bench.at(90, 70));
    await expect(beads.nth(1)).toHaveAttribute('aria-valuetext', '75 %');
    await bench.drag(await bench.at(90, 70), await bench.at(90, 110));
    await expect(beads).toHaveCount(2);
    await page.keyboard.press('Control+z');
    await expect(beads).toHaveCount(3);
    await bench.details().getByRole('button', { name: 'Reverse' }).click();
    await expect(beads.nth(1)).toHaveAttribute('aria-valuetext', '25 %');
    await bench.field('Angle').fill('90');
    await page.keyboard.press('Enter');
    await expect(bench.field('Angle')).toHaveValue('90°');
    // The angle is what is seen, on a flipped shape too.
    await bench.field('Angle').fill('30');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Control+k');
    await page.keyboard.type('mirror');
    await page.keyboard.press('Enter');
    await expect(bench.message()).toContainText('Flipped 1 object left to right');
    await expect(bench.field('Angle')).toHaveValue('150°');
    await bench.field('Angle').fill('90');
    await page.keyboard.press('Enter');
    await expect(bench.field('Angle')).toHaveValue('90°');
    await bench.details().getByRole('radiogroup', { name: 'Fill kind' }).getByRole('radio', { name: 'Radial' }).click();
    await expect(beads).toHaveCount(3);
    await bench.details().getByLabel('Overprint').check();
    await expect(bench.details().getByText('Prints over what lies below.')).toBeVisible();
  });
});

test('words: typed, chosen, restyled, undone, wrapped and flagged', async ({ page }) => {
  const bench = await BenchPage.make(page, 'A5', 'Words');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await bench.drag(await bench.at(20, 20), await bench.at(120, 60));
  await page.keyboard.type('Home-made paper lanterns walk the quays of Marrowick');
  await page.keyboard.press('Enter');
  await page.keyboard.type('each November.');
  await expect(bench.details().getByText('Text frame in')).toBeVisible();
  // The last word chosen by keys, larger and in another face.
  await page.keyboard.press('Shift+Home');
  await bench.field('Size').fill('30');
  await page.keyboard.press('Enter');
  await bench.field('Face').click();
  const faces = page.getByRole('dialog', { name: 'Faces' });
  await faces.getByRole('combobox', { name: 'Find a face' }).fill('playfair');
  await faces.getByRole('row').getByRole('button', { name: 'Bold', exact: true }).click();
  await bench.field('Leading').fill('1.5');
  await page.keyboard.press('Enter');
  await bench.details().getByRole('radio', { name: 'Right' }).click();
  await bench.click(30, 24, { clickCount: 1 });
  await page.keyboard.press('End');
  await page.keyboard.type(' today');
  await page.keyboard.press('Control+z');
  await page.keyboard.type('!');
  await page.keyboard.press('Escape');
  await expect(bench.pile().first()).toHaveAttribute('aria-label', /^Text: Home-made paper lanterns/);
  await bench.field('Height').fill('8');
  await page.keyboard.press('Enter');
  await expect(bench.details().getByText(/characters do not fit/)).toBeVisible();
  await bench.field('Height').fill('60');
  await page.keyboard.press('Enter');
  const file = await bench.handOver('Design');
  const design = JSON.parse(strFromU8(unzipSync(file.bytes)['design.json'])) as {
    stories: Record<
      string,
      { paragraphs: { align: string; leading: number; runs: { text: string; face: string; size: number }[] }[] }
    >;
  };
  const [story] = Object.values(design.stories);
  expect(story.paragraphs.map((p) => p.runs.map((r) => r.text).join(''))).toEqual([
    'Home-made paper lanterns walk the quays of Marrowick!',
    'each November.',
  ]);
  expect(story.paragraphs[1]).toMatchObject({
    align: 'right',
    leading: 1.5,
    runs: [{ face: 'playfair-700', size: 30 }],
  });
  expect(story.paragraphs[0].runs[0].face).toBe('archivo-600');
});

test.describe('keeping', () => {
  test('a reload in the middle of a drag loses nothing and leaves nothing half done', async ({ page }) => {
    const bench = await BenchPage.make(page, 'A5', 'Reload');
    await bench.shape('Star', 40, 40, 80, 80);
    await bench.saved();
    await bench.drag(await bench.at(60, 60), await bench.at(100, 150), { release: false });
    await page.reload();
    await page.mouse.up();
    await bench.ready();
    await bench.pile().first().click();
    await expect(bench.field('X')).toHaveValue('40 mm');
    await expect(page.getByRole('button', { name: 'Undo: Draw star' })).toBeEnabled();
    await page.getByRole('button', { name: 'Undo: Draw star' }).click();
    await expect(page.getByText('Nothing lies on this page yet.')).toBeVisible();
    await bench.saved();
    await page.reload();
    await bench.ready();
    await page.getByRole('button', { name: 'Redo: Draw star' }).click();
    await expect(bench.pile()).toHaveCount(1);
  });

  test('saved as a file and opened again from the shelf; a broken file says why', async ({ page }, info) => {
    const bench = await BenchPage.poster(page);
    const file = await bench.handOver('Design');
    expect(file.name).toBe('Lantern Walk poster.holvet');
    expect(Object.keys(unzipSync(file.bytes)).sort()).toEqual(['design.json', 'thumbnail.png']);
    await page.goto('/');
    const path = info.outputPath('poster.holvet');
    writeFileSync(path, file.bytes);
    await page.getByLabel('Open a design file').setInputFiles(path);
    await bench.ready();
    await expect(page.getByLabel('Design', { exact: true })).toHaveValue('Lantern Walk poster');
    expect(page.url()).not.toContain('lantern-walk-poster');
    await page.goto('/');
    writeFileSync(path, file.bytes.subarray(0, 8000));
    await page.getByLabel('Open a design file').setInputFiles(path);
    await expect(page.getByText('poster.holvet is cut off: its end is missing.')).toBeVisible();
    // A drawing is no design: what to do with it is said.
    const boat = { name: 'boat.svg', mimeType: 'image/svg+xml', buffer: Buffer.from('<svg viewBox="0 0 9 9"/>') };
    await page.getByLabel('Open a design file').setInputFiles(boat);
    await expect(page.getByText('boat.svg goes on a page: open a design, or make a new one')).toBeVisible();
    // One object of it is spoilt: it is named, and the rest can be opened.
    const parts = unzipSync(file.bytes);
    const design = JSON.parse(strFromU8(parts['design.json'])) as {
      nodes: Record<string, { name: string; transform: number[] }>;
    };
    Object.values(design.nodes).find((n) => n.name === 'Moon')!.transform = [1];
    writeFileSync(path, zipSync({ ...parts, 'design.json': strToU8(JSON.stringify(design)) }));
    await page.getByLabel('Open a design file').setInputFiles(path);
    await expect(page.getByText(/poster\.holvet is damaged\. .* To be left out: “Moon”/)).toBeVisible();
    await page.getByRole('button', { name: 'Open the rest' }).click();
    await bench.ready();
    await expect(page.getByRole('option', { name: /^Headline/ }).first()).toBeVisible();
    await expect(page.getByRole('option', { name: /^Moon/ })).toHaveCount(0);
  });
});

test('views and files: clean, plates in sets, PNG at its size, a job stopped halfway', async ({ page }) => {
  const bench = await BenchPage.poster(page);
  await page.keyboard.press('2');
  await expect(page.getByRole('radio', { name: 'Clean' })).toHaveAttribute('aria-checked', 'true');
  await page.getByRole('button', { name: /^Inks/ }).click();
  const slip = page.getByRole('dialog', { name: 'Inks' });
  await slip.getByRole('checkbox', { name: /Cyan/ }).uncheck();
  await slip.getByRole('checkbox', { name: /Black/ }).uncheck();
  await expect(page.getByRole('radio', { name: 'Plates' })).toHaveAttribute('aria-checked', 'true');
  await page.keyboard.press('Escape');
  // The sheet as it would look with magenta, yellow and the spots only: no blue left in the sky.
  const sky = await bench.at(60, 60);
  const redBeforeBlue = async () => {
    const shot = decode(await page.screenshot({ clip: { x: sky.x, y: sky.y, width: 2, height: 2 } }));
    return shot.data[0] - shot.data[2];
  };
  await expect.poll(redBeforeBlue).toBeGreaterThan(0);
  // At work all inks are on the sheet again, also when its plates have been made anew.
  await page.keyboard.press('1');
  await expect.poll(redBeforeBlue).toBeLessThan(0);
  await page.waitForTimeout(1500);
  expect(await redBeforeBlue()).toBeLessThan(0);
  await page.getByRole('button', { name: /^Inks/ }).click();
  await expect(slip.getByRole('checkbox', { name: /Cyan/ })).toBeChecked();
  await page.keyboard.press('Escape');
  const png = await bench.handOver('PNG', async (s) => {
    await s.getByLabel('Resolution').fill('50');
    await s.getByLabel('Resolution').press('Enter');
  });
  const picture = decode(png.bytes);
  expect([png.name, picture.width, picture.height]).toEqual(['Lantern Walk poster.png', 827, 1169]);

  await page.getByRole('button', { name: 'Hand over' }).click();
  const hand = page.getByRole('dialog', { name: 'Hand over' });
  await hand.getByRole('radio', { name: 'Picture', exact: true }).click();
  await hand.getByLabel('Resolution').fill('400');
  await hand.getByLabel('Resolution').press('Enter');
  await hand.getByRole('button', { name: 'Make PNG' }).click();
  await hand.getByRole('button', { name: 'Stop' }).click();
  await expect(hand.getByText('Stopped. No file was made.')).toBeVisible();
});

test('zoom to the pointer, pan, fit, distances', async ({ page }) => {
  const bench = await BenchPage.poster(page);
  const zoom = page.getByLabel('Zoom in percent of real size');
  const before = await zoom.inputValue();
  const p = await bench.at(210, 374);
  await page.mouse.move(p.x, p.y);
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -400);
  await page.keyboard.up('Control');
  await expect(zoom).not.toHaveValue(before);
  await page.getByRole('button', { name: 'Real size' }).click();
  await expect(zoom).toHaveValue('100 %');
  await zoom.fill('50');
  await page.keyboard.press('Enter');
  await expect(zoom).toHaveValue('50 %');
  await page.getByRole('button', { name: 'Across the room' }).click();
  await expect(zoom).toHaveValue('15 %');
  await page.getByRole('button', { name: 'Whole page' }).click();
  await expect(zoom).toHaveValue(before);
});
