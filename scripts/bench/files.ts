// Writes the crowded designs that the browser part opens.
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { packDesign } from '../../src/core/file/archive';
import { tryOut } from '../../src/core/edit/history';
import { duplicatePage } from '../../src/core/edit/pages';
import { openEngines } from '../../src/core/engines';
import { nodeEnv } from '../../src/env/node';
import { demoDesigns } from '../../src/demo/demos';
import { crowd, withBeads, withPaths } from './crowd';
import { pictureDesign } from './pictures';

for (const n of [100, 1000, 10_000, 20_000])
  writeFileSync(path.join(process.argv[2], `crowd-${n}.holvet`), packDesign(crowd(n), null));
writeFileSync(path.join(process.argv[2], 'beads.holvet'), packDesign(withBeads(crowd(100)), null));
writeFileSync(path.join(process.argv[2], 'poster.holvet'), packDesign(demoDesigns()[0].design, null));
writeFileSync(path.join(process.argv[2], 'paths.holvet'), packDesign(withPaths(crowd(40)), null));
// The programme over and over: as many pages as a book has.
const booklet = demoDesigns().find((d) => d.file === 'walk-programme')!.design;
let made = 0;
const newId = () => `bench-${made++}`;
for (const n of [20, 200]) {
  let book = booklet;
  while (book.pages.length < n) {
    const { id } = book.pages[book.pages.length - booklet.pages.length + 2];
    book = tryOut(book, (d) => void duplicatePage(d, id, newId));
  }
  writeFileSync(path.join(process.argv[2], `pages-${n}.holvet`), packDesign(book, null));
}
const engines = await openEngines(nodeEnv(path.join(process.cwd(), 'public')));
writeFileSync(path.join(process.argv[2], 'pictures.holvet'), await pictureDesign(engines, 100));
