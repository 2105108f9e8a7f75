import { readFileSync, writeFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { BenchPage, drop, expect, test, WHOLE } from './support';

const file = (name: string) => readFileSync(`node_modules/source-code-pro/${name}`);
const BOLD = 'WOFF2/OTF/SourceCodePro-Bold.otf.woff2';
const VARIABLE = 'VF/SourceCodeVF-Upright.ttf';

test(
  'a face of one’s own: dropped, used, saved in the file, opened where nobody has it; then gone, said, and replaced everywhere',
  WHOLE,
  async ({ page, browser }, info) => {
    const own = await BenchPage.make(page, 'A5', 'Own face');
    await own.write(20, 60, 'Marrowick quays');
    await own.write(20, 90, 'At dusk');
    await drop(page, await own.at(100, 150), 'notes.ttf', Buffer.from('true but no font at all'));
    await expect(own.message()).toContainText('notes.ttf cannot be used: it is cut off or damaged');
    await drop(page, await own.at(100, 150), 'Source.woff2', file(BOLD));
    await expect(own.message()).toContainText('Added Source Code Pro Bold.');
    await page.getByRole('button', { name: 'Use it for the chosen text' }).click();
    await expect(own.field('Face')).toHaveText(/Source Code Pro Bold/);
    // The other text by the list, where it stands with what is the person's own.
    await own.pile().nth(1).click();
    await own.field('Face').click();
    const slip = page.getByRole('dialog', { name: 'Faces' });
    const row = slip.getByRole('grid', { name: 'Faces' }).getByRole('row', { name: 'Source Code Pro' });
    await expect(row).toContainText('yours');
    await row.getByRole('button', { name: 'Source Code Pro, choose' }).click();
    await own.saved();
    const saved = await own.handOver('Design');
    const asset = Object.keys(unzipSync(saved.bytes)).find((n) => n.startsWith('assets/'));
    expect(asset).toMatch(/^assets\/sha256-[0-9a-f]{64}\.otf$/);

    // Another browser, which has never seen the face.
    const path = info.outputPath('own.holvet');
    writeFileSync(path, saved.bytes);
    const elsewhere = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const other = new BenchPage(await elsewhere.newPage());
    await other.page.goto('/');
    await other.page.getByLabel('Open a design file').setInputFiles(path);
    await other.ready();
    await other.pile().first().click();
    await expect(other.field('Face')).toHaveText('Source Code Pro Bold▾');
    await expect(other.page.getByRole('button', { name: /^Checks/ })).not.toContainText('face');

    // The file of the face is lost: another stands in, and the words can have another everywhere.
    await other.page.evaluate(async () => {
      const db = await new Promise<IDBDatabase>((resolve) => {
        const open = indexedDB.open('holvet');
        open.onsuccess = () => resolve(open.result);
      });
      await new Promise<void>((resolve) => {
        const rows = db.transaction('assets', 'readwrite');
        rows.objectStore('assets').clear();
        rows.oncomplete = () => resolve();
      });
      db.close();
    });
    await other.page.reload();
    await other.ready();
    await other.pile().first().click();
    await expect(other.field('Face')).toHaveText('Source Code Pro Bold (missing)▾');
    await other.field('Face').click();
    const again = other.page.getByRole('dialog', { name: 'Faces' });
    await expect(again.getByText('Source Code Pro Bold is not here')).toBeVisible();
    await expect(again.getByLabel(/Change it everywhere/)).toBeChecked();
    // The file itself brings it back.
    await again
      .getByLabel('Font file')
      .setInputFiles({ name: 'Source.woff2', mimeType: 'font/woff2', buffer: file(BOLD) });
    await expect(other.message()).toContainText('the words that missed it have it again');
    await expect(again.getByText('is not here')).toHaveCount(0);
    await again.getByRole('combobox', { name: 'Find a face' }).fill('playfair');
    // Of a family that is there now nothing need change everywhere, but it may.
    await again.getByLabel(/Change it everywhere/).check();
    await again.getByRole('combobox', { name: 'Find a face' }).press('Enter');
    await expect(other.message()).toContainText('stands everywhere in the place of Source Code Pro Bold');
    await other.pile().nth(1).click();
    await expect(other.field('Face')).toHaveText(/Playfair Display/);
    await elsewhere.close();
  },
);

test('a variable face: its weight is drawn by a slider, undone in one step', WHOLE, async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Weights');
  await own.write(20, 60, 'Marrowick');
  await own.field('Face').click();
  const slip = page.getByRole('dialog', { name: 'Faces' });
  await slip
    .getByLabel('Font file')
    .setInputFiles({ name: 'Variable.ttf', mimeType: 'font/ttf', buffer: file(VARIABLE) });
  const row = slip.getByRole('grid', { name: 'Faces' }).getByRole('row').first();
  await expect(row).toContainText('yours');
  await row.getByRole('button', { name: /, choose/ }).click();
  const slider = own.details().getByRole('slider', { name: 'Weight' });
  await slider.focus();
  await page.keyboard.press('End');
  await expect(slider).toHaveAttribute('aria-valuenow', '900');
  await own.saved();
  await page.reload();
  await own.ready();
  await own.pile().first().click();
  await expect(slider).toHaveAttribute('aria-valuenow', '900');
});
