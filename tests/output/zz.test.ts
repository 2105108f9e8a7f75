import { writeFileSync } from 'node:fs';
import { encode } from 'fast-png';
import { QUIET } from '@/core/output/job';
import { writePdf } from '@/core/output/pdf/write';
import { pagePlates } from '@/core/output/png';
import { prepare } from '@/core/workshop';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { gradientPage } from '../support/gradients';
import { testShop } from '../support/shop';
const DPI = Number(process.env.DPI ?? 100);
test('dbg', async () => {
  const shop = await testShop();
  for (const kind of (process.env.KINDS ?? 'along').split(',')) {
    const design = gradientPage(kind as never);
    const palette = await prepare(shop, design);
    const t0 = performance.now();
    const plates = pagePlates(shop.builder.build(design, design.pages[0]), palette, DPI);
    const t1 = performance.now();
    const ours = new Map(plates.channels.map((ink, i) => [ink, { ...plates.region, data: plates.data[i].map((v) => 255 - v) }]));
    const pdf = await writePdf(design, design.pages, shop.builder, palette, shop.env, { marks: true }, QUIET);
    const t2 = performance.now();
    const theirs = separate(pdf, DPI)[0];
    const t3 = performance.now();
    process.stderr.write(`${kind}: plates ${t1 - t0} pdf ${t2 - t1} gs ${t3 - t2} bytes ${pdf.length}\n${faults(ours, theirs, undefined, kind === 'linear' || kind === 'radial' || kind === 'letters' ? 2 : 3).join('\n')}\n`);
    writeFileSync(`/tmp/dbg/${kind}.pdf`, pdf);
    for (const ink of ours.keys()) {
      const [a, b] = [ours.get(ink)!, theirs.get(ink)!];
      if (!b) continue;
      const data = new Uint8Array(a.width * 2 * a.height);
      for (let y = 0; y < a.height; y++) { data.set(a.data.subarray(y * a.width, (y + 1) * a.width), y * a.width * 2); data.set(b.data.subarray(y * a.width, (y + 1) * a.width), y * a.width * 2 + a.width); }
      writeFileSync(`/tmp/dbg/${kind}-${ink}.png`, encode({ width: a.width * 2, height: a.height, data, channels: 1, depth: 8 }));
    }
  }
}, 300000);
