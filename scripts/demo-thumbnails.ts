// Writes public/thumbnails: the demo designs as the shelf shows them, drawn by the press, so that a new shelf has its pictures at once.
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { thumbnail } from '../src/core/output/png';
import { openWorkshop, prepare } from '../src/core/workshop';
import { demoDesigns } from '../src/demo/demos';
import { nodeEnv } from '../src/env/node';

const folder = path.resolve('public/thumbnails');
mkdirSync(folder, { recursive: true });
const shop = await openWorkshop(nodeEnv(path.resolve('public')));
for (const { file, design } of demoDesigns()) {
  const palette = await prepare(shop, design);
  writeFileSync(path.join(folder, `${file}.png`), thumbnail(shop.builder.build(design, design.pages[0]), palette));
}
