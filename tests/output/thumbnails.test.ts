import { readFileSync } from 'node:fs';
import path from 'node:path';
import { thumbnail } from '@/core/output/png';
import { prepare } from '@/core/engines';
import { regionsIn } from '@/core/derive/regions';
import { verifyDesign } from '@/core/model/verify';
import { demoDesigns } from '@/demo/demos';
import { findDrawer } from '@/demo/drawer';
import { publicFolder, testEngines } from '../support/engines';
import { FULL, fullTest } from '../support/measured';

test('the pictures that ship with the demo are what the press draws of it (else: npm run thumbnails)', async () => {
  const engines = await testEngines();
  for (const { file, design } of demoDesigns().filter((_, i) => FULL || i % 5 === 1)) {
    const palette = await prepare(engines, design);
    const drawn = thumbnail(engines.builder.build(design, design.pages[0]), palette);
    expect(Buffer.compare(readFileSync(path.join(publicFolder, 'thumbnails', `${file}.png`)), drawn)).toBe(0);
  }
});

fullTest(
  'the drawing of lines in the drawer: every area has its one paint, none is left over; what the drawer shows is what is placed',
  async () => {
    const engines = await testEngines();
    const rows = findDrawer('').filter((row) => row.drawn);
    expect(rows.map((row) => row.title)).toEqual(['Harbour in lines']);
    let n = 0;
    const make = { newId: () => `t${n++}`, now: () => '2026-11-02T10:00:00.000Z' };
    const design = (await rows[0].drawn!())(make, engines.fonts);
    expect(verifyDesign(design).ok).toBe(true);
    const group = Object.values(design.nodes).find((x) => x.kind === 'group')!;
    if (group.kind !== 'group') throw new Error('It is a group of lines.');
    const { from, lost } = regionsIn(design, group, engines.fonts);
    expect(from).not.toContain(-1);
    expect(new Set(from).size).toBe(group.regions!.areas.length);
    expect(lost).toEqual([]);
    const palette = await prepare(engines, design);
    const drawn = thumbnail(engines.builder.build(design, design.pages[0]), palette);
    expect(Buffer.compare(readFileSync(path.join(publicFolder, 'pictures', rows[0].file)), drawn)).toBe(0);
  },
);
