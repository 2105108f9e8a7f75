import { readFileSync } from 'node:fs';
import path from 'node:path';
import { thumbnail } from '@/core/output/png';
import { prepare } from '@/core/engines';
import { demoDesigns } from '@/demo/demos';
import { publicFolder, testEngines } from '../support/engines';

test('the pictures that ship with the demo are what the press draws of it (else: npm run thumbnails)', async () => {
  const engines = await testEngines();
  for (const { file, design } of demoDesigns()) {
    const palette = await prepare(engines, design);
    const drawn = thumbnail(engines.builder.build(design, design.pages[0]), palette);
    expect(Buffer.compare(readFileSync(path.join(publicFolder, 'thumbnails', `${file}.png`)), drawn)).toBe(0);
  }
});
