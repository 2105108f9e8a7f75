// Writes public/thumbnails: the demo designs as the shelf shows them, drawn by the press, so that a new shelf has its pictures at once.
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { thumbnail } from '../src/core/output/png';
import { openEngines, prepare } from '../src/core/engines';
import { demoDesigns } from '../src/demo/demos';
import { nodeEnv } from '../src/env/node';

const folder = path.resolve('public/thumbnails');
mkdirSync(folder, { recursive: true });
const engines = await openEngines(nodeEnv(path.resolve('public')));
for (const { file, design } of demoDesigns()) {
  const palette = await prepare(engines, design);
  writeFileSync(path.join(folder, `${file}.png`), thumbnail(engines.builder.build(design, design.pages[0]), palette));
}
