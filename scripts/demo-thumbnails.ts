// Writes public/thumbnails: the demo designs and the starters as the shelf shows them, drawn by the press, so that a
// new shelf has its pictures at once; and the drawings of the picture drawer that are no files.
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { thumbnail } from '../src/core/output/png';
import { openEngines, prepare } from '../src/core/engines';
import { demoDesigns } from '../src/demo/demos';
import { findDrawer } from '../src/demo/drawer';
import { STARTERS, starterDesign } from '../src/demo/starters';
import { nodeEnv } from '../src/env/node';

const folder = path.resolve('public/thumbnails');
mkdirSync(folder, { recursive: true });
const engines = await openEngines(nodeEnv(path.resolve('public')));
let n = 0;
const making = { newId: () => `t${n++}`, now: () => '2026-11-02T10:00:00.000Z' };
const demos = demoDesigns();
// Starters that are no demo design too.
const others = STARTERS.filter((s) => !demos.some((d) => d.file === s.file));
const all = [...demos, ...others.map((s) => ({ file: s.file, design: starterDesign(s, making) }))];
for (const { file, design } of all) {
  const palette = await prepare(engines, design);
  writeFileSync(path.join(folder, `${file}.png`), thumbnail(engines.builder.build(design, design.pages[0]), palette));
}
for (const { file, drawn } of findDrawer('')) {
  if (!drawn) continue;
  const design = (await drawn())(making, engines.fonts);
  const palette = await prepare(engines, design);
  writeFileSync(
    path.resolve('public/pictures', file),
    thumbnail(engines.builder.build(design, design.pages[0]), palette),
  );
}
