import { execFileSync } from 'node:child_process';
import { axe } from './axe';
import { BenchPage, expect, test, WHOLE } from './support';

const shot = (own: BenchPage, name: string) =>
  process.env.HOLVET_SHOTS ? own.page.screenshot({ path: `/tmp/try/${name}.png` }) : Promise.resolve();

test('a print PDF: what will be in it, what is in it, and what the press says', async ({ page }) => {
  const bench = await BenchPage.demo(page, /Supper ticket/);
  await page.getByRole('button', { name: 'Hand over' }).click();
  const slip = page.getByRole('dialog', { name: 'Hand over' });
  const before = slip.getByLabel('What will be in it');
  await expect(before).toContainText('150 × 65 mm');
  await expect(before).toContainText('Ember 66-43');
  await shot(bench, 'handover before');
  const download = page.waitForEvent('download');
  await slip.getByRole('button', { name: 'Make PDF' }).click();
  await download;
  const after = slip.getByLabel('What is in it');
  await expect(after).toContainText('PDF/X-4', { timeout: 20_000 });
  await expect(after).toContainText('all in the file');
  await shot(bench, 'handover after');
  await slip.getByRole('button', { name: 'Send to the press' }).click();
  const answer = page.getByRole('region', { name: 'The press’s answer' });
  await expect(answer).toContainText('The press takes it', { timeout: 30_000 });
  await expect(answer.getByAltText('Proof of page 1')).toBeVisible();
  await shot(bench, 'press answer');
});

test(
  'a digital press refuses spot inks, shows what it means, and takes the file once they are handed over otherwise',
  WHOLE,
  async ({ page }) => {
    const bench = await BenchPage.demo(page, /Supper ticket/);
    // A hairline beside it, which no press holds.
    await bench.shape('Ellipse', 120, 40, 140, 55);
    await (await bench.unfold('Fill')).getByRole('radio', { name: 'None' }).click();
    const line = await bench.unfold('Outline');
    await line.getByRole('radio', { name: 'Flat' }).first().click();
    await line.getByLabel('Weight').fill('0.05 pt');
    await page.keyboard.press('Enter');
    await bench.saved();
    const slip = page.getByRole('dialog', { name: 'Hand over' });
    const answer = page.getByRole('region', { name: 'The press’s answer' });
    const send = async () => {
      const waiting = page.waitForEvent('download');
      await slip.getByRole('button', { name: 'Make PDF' }).click();
      await waiting;
      await slip.getByLabel('Try it on a press').selectOption('digital');
      await slip.getByRole('button', { name: 'Send to the press' }).click();
    };
    await page.getByRole('button', { name: 'Hand over' }).click();
    await send();
    await expect(answer).toContainText('The press refuses it: 2 reasons', { timeout: 30_000 });
    await expect(answer).toContainText('Ember 66-43 is a spot ink');
    await answer.getByRole('button', { name: 'Show it' }).click();
    await axe(page, 'the press’s answer', 'light', '[aria-label="The press’s answer"]');
    await shot(bench, 'press refuses');
    await answer.getByRole('button', { name: 'Close the press’s answer' }).click();
    await bench.top.focus();
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+z');
    await bench.saved();
    await page.getByRole('button', { name: 'Hand over' }).click();
    await slip.getByText('How it is made').click();
    await slip.getByRole('radio', { name: 'No spots' }).click();
    await expect(slip.getByLabel('What will be in it')).not.toContainText('Ember');
    await shot(bench, 'hand over options');
    await send();
    await expect(answer).toContainText('The press takes it', { timeout: 30_000 });
  },
);

test(
  'an office PDF is read aloud in order, with what is said of a picture; options are kept under a name',
  WHOLE,
  async ({ page }) => {
    const bench = await BenchPage.poster(page);
    await page.getByPlaceholder('Search').first().fill('Ripples');
    await page.getByRole('option', { name: /^Ripples/ }).click();
    const said = page.getByLabel('Said to those who cannot see it');
    await bench.unfold('Finish');
    await said.fill('Water by night');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Hand over' }).click();
    const slip = page.getByRole('dialog', { name: 'Hand over' });
    await slip.getByLabel('Made for').selectOption('Office');
    await slip.getByText('How it is made').click();
    await slip.getByLabel('Author').fill('Ebba Kell');
    await page.keyboard.press('Enter');
    await slip.getByRole('radio', { name: '150 ppi' }).click();
    await slip.getByPlaceholder('Our printer').fill('For the office');
    await slip.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(slip.getByLabel('Made for').getByRole('option', { name: 'For the office' })).toBeAttached();
    const waiting = page.waitForEvent('download');
    await slip.getByRole('button', { name: 'Make PDF' }).click();
    const file = await (await waiting).path();
    const told = execFileSync('pdfinfo', [file!], { encoding: 'utf8' });
    expect(told).toMatch(/Tagged:\s+yes/);
    expect(told).toMatch(/Author:\s+Ebba Kell/);
    expect(told).toMatch(/PDF version:\s+1\.7/);
    expect(execFileSync('pdfinfo', ['-struct', file!], { encoding: 'utf8' })).toMatch(/Figure/);
    await page.reload();
    await bench.ready();
    await page.getByRole('button', { name: 'Hand over' }).click();
    await slip.getByLabel('Made for').selectOption('For the office');
  },
);

test('the job ticket, from where the file is made', WHOLE, async ({ page }) => {
  const bench = await BenchPage.demo(page, /Supper ticket/);
  await page.getByRole('button', { name: 'Hand over' }).click();
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: /Make the job ticket/ }).click();
  const file = await waiting;
  expect(file.suggestedFilename()).toBe('Supper ticket, job ticket.pdf');
  const words = execFileSync('pdftotext', [(await file.path())!, '-'], { encoding: 'utf8' });
  expect(words).toContain('Ember 66-43');
  await expect(bench.message()).toContainText('in your downloads');
});
