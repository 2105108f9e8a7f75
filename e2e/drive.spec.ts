import { separate } from '../tests/support/ghostscript';
import { BenchPage, expect, test } from './support';

/**
 * The whole way of a job: empty page, drawing, colour, words, group, history, reload, plates, and ink in the file
 * itself.
 */
test('from a new A3 design to the plates of its PDF', async ({ page }) => {
  const bench = await BenchPage.make(page, 'A3', 'Quay notice');
  await expect(page.getByText('Type your colours into the recipe line below')).toBeVisible();

  // A spot ink found by typing, and a recipe typed into the line.
  await page.getByRole('button', { name: 'Spot library' }).click();
  await page.getByRole('combobox', { name: 'Find a spot ink' }).fill('emb');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(bench.card('Ember 66-43')).toBeVisible();
  await page.getByLabel('Recipe line').fill('Dusk 100 72 8 20');
  await page.keyboard.press('Enter');
  await expect(bench.card('Dusk')).toBeVisible();

  // A star; its depth by the knob on the canvas.
  await bench.shape('Star', 100, 100, 180, 180);
  await expect(bench.field('Depth')).toHaveValue('55%');
  const notch = {
    x: 140 + 40 * 0.45 * Math.cos(Math.PI / 5 - Math.PI / 2),
    y: 140 + 40 * 0.45 * Math.sin(Math.PI / 5 - Math.PI / 2),
  };
  const inner = {
    x: 140 + 40 * 0.7 * Math.cos(Math.PI / 5 - Math.PI / 2),
    y: 140 + 40 * 0.7 * Math.sin(Math.PI / 5 - Math.PI / 2),
  };
  await bench.drag(await bench.at(notch.x, notch.y), await bench.at(inner.x, inner.y));
  await expect.poll(async () => parseFloat(await bench.field('Depth').inputValue())).toBeLessThan(35);

  // The tin dragged onto its inside: the pointer says fill.
  const tin = (await bench.card('Ember 66-43').boundingBox())!;
  await bench.drag({ x: tin.x + 30, y: tin.y + 50 }, await bench.at(140, 140), { release: false });
  await expect(page.getByText('Ember 66-43 on the fill')).toBeVisible();
  await page.mouse.up();
  await expect(bench.message()).toContainText('Fill: Ember 66-43.');

  // A rectangle with a gradient drawn across it, from Dusk.
  await bench.shape('Rectangle', 40, 220, 240, 340);
  await bench.card('Dusk').click();
  await expect(bench.message()).toContainText('Fill of 1 object: Dusk.');
  await page.getByRole('button', { name: 'Gradient', exact: true }).click();
  await bench.drag(await bench.at(60, 280), await bench.at(220, 280));
  await expect(
    bench.details().getByRole('radiogroup', { name: 'Fill kind' }).getByRole('radio', { name: 'Linear' }),
  ).toHaveAttribute('aria-checked', 'true');
  await expect(bench.field('Angle')).toHaveValue('0°');

  // A headline, typed on the page.
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await bench.click(40, 60);
  await page.keyboard.type('Lantern Walk');
  await page.keyboard.press('Escape');
  await expect.poll(() => bench.names()).toEqual(['Text: Lantern Walk', 'Rectangle', 'Star']);

  // Group the star and the rectangle; take it back; do it again.
  await page.getByRole('button', { name: 'Select', exact: true }).click();
  await bench.click(140, 140);
  await bench.click(140, 330, { modifiers: ['Shift'] });
  await page.keyboard.press('Control+g');
  await expect.poll(() => bench.names()).toEqual(['Text: Lantern Walk', 'Group']);
  await page.keyboard.press('Control+z');
  await expect.poll(() => bench.names()).toEqual(['Text: Lantern Walk', 'Rectangle', 'Star']);
  await page.keyboard.press('Control+Shift+z');
  await expect.poll(() => bench.names()).toEqual(['Text: Lantern Walk', 'Group']);

  // A reload comes back to the same state, history included.
  await bench.saved();
  await page.reload();
  await bench.ready();
  await expect.poll(() => bench.names()).toEqual(['Text: Lantern Walk', 'Group']);
  await expect(page.getByRole('button', { name: /^Undo: Group/ })).toBeEnabled();

  // Plates: Ember alone.
  await page.getByRole('radio', { name: 'Plates' }).click();
  await page.getByRole('group', { name: 'Inks on this page' }).getByRole('button', { name: 'Ember 66-43' }).click();
  const p = await bench.at(140, 140);
  await expect(async () => {
    await page.mouse.move(p.x - 3, p.y);
    await page.mouse.move(p.x, p.y);
    await expect(bench.top.getByText(/^Ember 66-43 100 %\s+100 % in all$/)).toBeVisible({ timeout: 1000 });
  }).toPass({ timeout: 20_000 });

  // The file, and the ink in it by another program's plates.
  const pdf = await bench.handOver('PDF');
  expect(pdf.name).toBe('Quay notice.pdf');
  const dpi = 50;
  const [plates] = separate(pdf.bytes, dpi);
  const ink = (name: string, x: number, y: number) => {
    const plate = plates.get(name)!;
    const px = (v: number) => Math.floor(((v + 3) / 25.4) * dpi);
    return Math.round(100 - plate.data[px(y) * plate.width + px(x)] / 2.55);
  };
  expect(ink('Ember 66-43', 140, 140)).toBe(100);
  expect(ink('Cyan', 140, 140)).toBe(0);
  expect(ink('Ember 66-43', 140, 280)).toBe(0);
  // From 100 72 8 20 at x = 60 to 15 % of it at x = 220: in the middle 57.5 % of each.
  expect(Math.abs(ink('Cyan', 140, 300) - 57.5)).toBeLessThanOrEqual(1.5);
  expect(Math.abs(ink('Magenta', 140, 300) - 41.4)).toBeLessThanOrEqual(1.5);
  expect(ink('Cyan', 45, 300)).toBe(100);
  expect([...plates.keys()].sort()).toEqual(['Black', 'Cyan', 'Ember 66-43', 'Magenta', 'Yellow']);
});
