import { BenchPage, expect, test } from './support';

/** How dark the bench top's picture is at a place of the page, 0…255: 255 is bare stock. */
async function lightAt(bench: BenchPage, x: number, y: number): Promise<number> {
  const p = await bench.at(x, y);
  return bench.page.evaluate(
    ({ px, py }) => {
      const art = document.querySelector<HTMLCanvasElement>('#bench-top canvas')!;
      const box = art.getBoundingClientRect();
      const k = art.width / box.width;
      const [r, g, b] = art
        .getContext('2d')!
        .getImageData(Math.round((px - box.left) * k), Math.round((py - box.top) * k), 1, 1).data;
      return Math.round((r + g + b) / 3);
    },
    { px: p.x, py: p.y },
  );
}

test('a shadow is given, dragged, coloured with a spot ink, undone; the plates show it', async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Shadows');
  await own.shape('Rectangle', 40, 60, 100, 120);
  const light = () => lightAt(own, 104, 124);
  await expect.poll(light).toBeGreaterThan(240);

  // Given in Details, under Finish: it falls to the lower right.
  await own.details().getByRole('checkbox', { name: 'Shadow', exact: true }).check();
  await expect.poll(() => lightAt(own, 101, 121)).toBeLessThan(235);
  await expect(own.field('Shadow to the right')).toHaveValue(/^2\.4 mm$/);
  await expect(page.getByRole('radiogroup', { name: 'Aim' }).getByRole('radio', { name: 'Shadow' })).toHaveAttribute(
    'aria-checked',
    'true',
  );

  // Its ring stands in the middle of the object, as far on as the shadow falls.
  await own.drag(await own.at(72.4, 92.4), await own.at(80, 100));
  await expect(own.field('Shadow to the right')).toHaveValue(/^(9\.9|10)/);
  await expect.poll(light).toBeLessThan(190);
  await expect(own.field('X')).toHaveValue('40 mm');

  // A spot ink from the library, given by its card.
  await page.getByRole('button', { name: 'Spot library' }).click();
  await page.getByRole('combobox', { name: 'Find a spot ink' }).fill('emb');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await own.card('Ember 66-43').click();
  await expect(own.message()).toContainText('Shadow of 1 object: Ember 66-43');

  // On the plates Ember is seen alone: the shadow and nothing of the rectangle.
  await page.getByRole('radio', { name: 'Plates' }).click();
  await page.getByRole('group', { name: 'Inks on this page' }).getByRole('button', { name: 'Ember 66-43' }).click();
  const p = await own.at(104, 124);
  await expect(async () => {
    await page.mouse.move(p.x - 3, p.y);
    await page.mouse.move(p.x, p.y);
    await expect(own.top.getByText(/^Ember 66-43 (4\d|50) %\s/)).toBeVisible({ timeout: 1000 });
  }).toPass({ timeout: 20_000 });
  await page.getByRole('radio', { name: 'Work' }).click();

  // Undone step by step: the colour, the ink in the tray, the place, the shadow.
  await own.top.focus();
  await page.keyboard.press('Control+z');
  await expect(own.details().getByRole('group', { name: 'Shadow' }).getByRole('button')).toContainText('K100');
  await page.keyboard.press('Control+z');
  await expect(own.card('Ember 66-43')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(own.field('Shadow to the right')).toHaveValue(/^2\.4/);
  await page.keyboard.press('Control+z');
  await expect(own.details().getByRole('checkbox', { name: 'Shadow', exact: true })).not.toBeChecked();
  await expect.poll(light).toBeGreaterThan(240);
  await own.saved();
});
