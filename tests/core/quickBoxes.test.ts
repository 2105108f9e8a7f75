import { createCanvas, Path2D as TestPath2D } from '@napi-rs/canvas';
import { prepare } from '@/core/engines';
import { QuickPainter } from '@/core/render/quick';
import type { Canvas2D } from '@/core/render/quickTools';
import { crowd } from '../../scripts/bench/crowd';
import { testEngines } from '../support/engines';

const newPath = () => new TestPath2D() as unknown as Path2D;

test('parts of a list that is met again are found by where they lie: the same pixels as by a new painter', async () => {
  const engines = await testEngines();
  const { builder } = engines;
  const design = crowd(400);
  const palette = await prepare(engines, design);
  const scene = builder.build(design, design.pages[0]);
  const again = new QuickPainter({ newPath });
  const view = { scale: 0.4, x: 0, y: 0 };
  for (const [x0, y0, x1, y1] of [
    [0, 0, 900, 1300],
    [100, 200, 260, 300],
    [400, 0, 420, 1200],
    [-50, 600, 500, 610],
  ]) {
    const drawn = [again, new QuickPainter({ newPath })].map((painter) => {
      const canvas = createCanvas(340, 480);
      const ctx = canvas.getContext('2d');
      painter.paint(ctx as unknown as Canvas2D, scene.root.content, palette, view, { x0, y0, x1, y1 });
      return Buffer.from(ctx.getImageData(0, 0, 340, 480).data);
    });
    expect(drawn[0].equals(drawn[1])).toBe(true);
    expect(drawn[0].some((v) => v > 0)).toBe(true);
  }
});
