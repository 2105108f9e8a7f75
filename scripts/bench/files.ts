// Writes the crowded designs that the browser part opens.
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { packDesign } from '../../src/core/file/archive';
import { demoDesigns } from '../../src/demo/demos';
import { crowd, withBeads, withPaths } from './crowd';

for (const n of [100, 1000, 10_000, 20_000])
  writeFileSync(path.join(process.argv[2], `crowd-${n}.holvet`), packDesign(crowd(n), null));
writeFileSync(path.join(process.argv[2], 'beads.holvet'), packDesign(withBeads(crowd(100)), null));
writeFileSync(path.join(process.argv[2], 'poster.holvet'), packDesign(demoDesigns()[0].design, null));
writeFileSync(path.join(process.argv[2], 'paths.holvet'), packDesign(withPaths(crowd(40)), null));
