import { BenchPage, expect, test } from './support';

const shot = (own: BenchPage, name: string) =>
  process.env.HOLVET_SHOTS ? own.page.screenshot({ path: `/tmp/try/${name}.png` }) : Promise.resolve();

test('a tear line of pills and dots with a second colour: chosen, typed, undone, kept after a reload', async ({
  page,
}) => {
  const own = await BenchPage.make(page, 'A5', 'Tear line');
  await own.shape('Rectangle', 20, 40, 128, 90);
  const line = await own.unfold('Outline');
  await line.getByRole('radio', { name: 'Flat' }).click();
  await own.field('Weight').fill('2');
  await page.keyboard.press('Enter');
  await line.getByRole('radio', { name: 'Inside' }).click();
  await expect(line.getByLabel(/^Dash and gap/)).toHaveCount(0);
  await line.getByRole('combobox', { name: 'Line' }).selectOption({ label: 'pills and dots' });
  const lengths = line.getByLabel(/^Dash and gap/);
  await expect(lengths).toHaveValue('6 6 0 6');
  await line.getByRole('combobox', { name: 'Between' }).selectOption({ label: 'Bare stock' });
  await lengths.fill('5 x');
  await page.keyboard.press('Enter');
  await expect(line.getByRole('alert')).toHaveText('Type lengths with a blank between: dash, gap, dash, gap.');
  await lengths.fill('4 4 0 4');
  await page.keyboard.press('Enter');
  await expect(line.getByRole('alert')).toHaveCount(0);
  await expect(line.getByRole('combobox', { name: 'Line' })).toHaveValue('own');
  await shot(own, 'dashes');
  await own.saved();
  const pdf = await own.handOver('Print PDF');
  expect(pdf.bytes.length).toBeGreaterThan(5000);
  await page.reload();
  await own.ready();
  await own.click(70, 60);
  const again = await own.unfold('Outline');
  await expect(again.getByRole('radio', { name: 'Inside' })).toBeChecked();
  await expect(again.getByLabel(/^Dash and gap/)).toHaveValue('4 4 0 4');
  await again.getByRole('combobox', { name: 'Line' }).selectOption({ label: 'whole' });
  await expect(again.getByLabel(/^Dash and gap/)).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(again.getByLabel(/^Dash and gap/)).toHaveValue('4 4 0 4');
});
