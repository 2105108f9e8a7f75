import AxeBuilder from '@axe-core/playwright';
import { readFileSync } from 'node:fs';
import { BenchPage, expect, test } from './support';

test('a damaged object is left out, the rest opens; what was left out waits on the shelf as a file until it is thrown away', async ({
  page,
}) => {
  const bench = await BenchPage.make(page, 'A5', 'Torn sheet');
  await bench.shape('Rectangle', 20, 20, 80, 60);
  await bench.shape('Ellipse', 30, 90, 90, 130);
  await expect(page.getByTestId('save-state')).toHaveText('Saved');
  const url = page.url();
  await page.goto('/');
  await expect(page.getByText('Left out when opened')).toHaveCount(0);
  // As a failing disk would leave it: a size that is no number, in the snapshot's first step.
  await page.evaluate(async () => {
    const db = await new Promise<IDBDatabase>((resolve) => {
      const open = indexedDB.open('holvet');
      open.onsuccess = () => resolve(open.result);
    });
    await new Promise<void>((resolve) => {
      const steps = db.transaction('journal', 'readwrite');
      const cursor = steps.objectStore('journal').openCursor();
      cursor.onsuccess = () => {
        const at = cursor.result;
        if (!at) return;
        const row = at.value as { patches: string };
        at.update({ ...row, patches: row.patches.replace(/"shape":"rectangle"/g, '"shape":7') });
        at.continue();
      };
      steps.oncomplete = () => resolve();
    });
    db.close();
  });
  await page.goto(url);
  await bench.ready();
  await expect(page.getByTestId('message')).toContainText(/left out|could not be read/i);
  await expect.poll(() => bench.names()).toEqual(['Ellipse']);
  await expect(page.getByTestId('save-state')).toHaveText('Saved');

  await page.goto('/');
  const folded = page.getByText('Left out when opened (1)');
  await folded.click();
  const list = page.getByRole('list', { name: 'Left out when opened' });
  await expect(list).toContainText('Torn sheet');
  expect(
    (await new AxeBuilder({ page }).include('main').analyze()).violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map((v) => v.id),
  ).toEqual([]);
  const coming = page.waitForEvent('download');
  await list.getByRole('button', { name: 'Save the file' }).click();
  const whole = JSON.parse(readFileSync(await (await coming).path(), 'utf8')) as { steps: unknown[] };
  expect(JSON.stringify(whole.steps)).toContain('"shape":7');
  await list.getByRole('button', { name: 'Throw away' }).click();
  await expect(page.getByText('Left out when opened')).toHaveCount(0);
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(folded).toBeVisible();
});
