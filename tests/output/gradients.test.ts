import type { Design } from '@/core/model/schema';
import { QUIET } from '@/core/output/job';
import { writePdf } from '@/core/output/pdf/write';
import { pagePlates } from '@/core/output/png';
import { prepare, type Workshop } from '@/core/workshop';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { GRADIENT_KINDS, gradientPage } from '../support/gradients';
import { testShop } from '../support/shop';

const DPI = 100;
let shop: Workshop;
beforeAll(async () => {
  shop = await testShop();
});

async function both(design: Design) {
  const palette = await prepare(shop, design);
  const plates = pagePlates(shop.builder.build(design, design.pages[0]), palette, DPI);
  const ours = new Map(plates.channels.map((ink, i) => [ink, { ...plates.region, data: plates.data[i].map((v) => 255 - v) }]));
  const pdf = await writePdf(design, design.pages, shop.builder, palette, shop.env, { marks: true }, QUIET);
  return { ours, pdf };
}

// Oracle: Ghostscript tiffsep, the rule as tests/support/agree.ts states it; meshes within 3/255 (the plan's tolerance).
describe('gradients on our plates and on those of our PDF', () => {
  test.each(GRADIENT_KINDS.map((k) => [k]))('%s', async (kind) => {
    const { ours, pdf } = await both(gradientPage(kind));
    const mesh = kind === 'box' || kind === 'pools' || kind === 'along' || kind === 'across';
    expect(faults(ours, separate(pdf, DPI)[0], `gradients: ${kind}`, mesh ? 3 : 2)).toEqual([]);
  });
});
