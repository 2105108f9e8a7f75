import { readFileSync } from 'node:fs';
import path from 'node:path';
import { thumbnail } from '@/core/output/png';
import { prepare } from '@/core/workshop';
import { demoDesigns } from '@/demo/demos';
import { publicFolder, testShop } from '../support/shop';

test('the pictures that ship with the demo are what the press draws of it (else: npm run thumbnails)', async () => {
  const shop = await testShop();
  for (const { file, design } of demoDesigns()) {
    const palette = await prepare(shop, design);
    const drawn = thumbnail(shop.builder.build(design, design.pages[0]), palette);
    expect(Buffer.compare(readFileSync(path.join(publicFolder, 'thumbnails', `${file}.png`)), drawn)).toBe(0);
  }
});
