import { readFileSync } from 'node:fs';
import { BenchPage, expect, test } from './support';

const kept = JSON.parse(readFileSync('tests/data/version-2/kept.json', 'utf8')) as {
  row: { name: string };
  steps: object[];
};

test('a design as earlier releases kept it, snapshot and all in one row, opens with its steps and goes on', async ({
  page,
}) => {
  // An address without the program, so that the store is made as those releases made it.
  await page.goto('/manifest.webmanifest');
  await page.evaluate(async ({ row, steps }) => {
    await new Promise<void>((resolve, reject) => {
      const open = indexedDB.open('holvet', 50);
      open.onerror = () => reject(open.error!);
      open.onupgradeneeded = () => {
        const make = (name: string, keyPath: string | string[], ...indices: string[]) => {
          const store = open.result.createObjectStore(name, { keyPath });
          for (const i of indices) store.createIndex(i, i);
          return store;
        };
        make('designs', 'id', 'modified').put(row);
        const journal = make('journal', ['designId', 'seq'], 'designId');
        for (const s of steps) journal.put(s);
        make('settings', 'key');
        make('assets', 'name');
        make('libraries', 'id', 'added');
        make('aside', 'id', 'designId');
        make('faces', 'id', 'added');
        make('states', 'id', 'designId');
      };
      open.onsuccess = () => {
        open.result.close();
        resolve();
      };
    });
  }, kept);
  const bench = await BenchPage.demo(page, new RegExp(kept.row.name));
  const before = await bench.names();
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('message')).toContainText('Took back');
  await page.keyboard.press('Control+y');
  await bench.shape('Ellipse', 30, 90, 90, 130);
  await expect(page.getByTestId('save-state')).toHaveText('Saved');
  await page.reload();
  await bench.ready();
  await expect.poll(() => bench.names()).toEqual(['Ellipse', ...before]);
});
