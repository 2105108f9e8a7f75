import { drawPins, gathered } from '@/bench/canvas/pins';
import { toPage } from '@/bench/view/camera';
import type { Finding } from '@/core/check/types';
import { moveNodes } from '@/core/edit/place';
import { mm } from '@/core/units/length';
import { openBench, type TestBench } from '../support/bench';
import { sampleDesign } from '../support/sample';

const soft = (node: string): Finding =>
  ({ code: 'picture.soft', severity: 'look', page: 1, node, facts: { ppi: 100 } }) as unknown as Finding;

/** Where pins are drawn, on the page in points. */
function pinsOf({ session: s }: TestBench): { x: number; y: number }[] {
  const places: { x: number; y: number }[] = [];
  const ctx = {
    beginPath() {},
    fill() {},
    stroke() {},
    fillText() {},
    measureText: () => ({ width: 4 }),
    roundRect: (x: number, y: number, width: number) =>
      void places.push(toPage(s.state.camera, { x: x + width / 2, y: y + 9 })),
  };
  drawPins(ctx as unknown as CanvasRenderingContext2D, s);
  return places;
}

test('pins stand at the objects they are about, while these and others are dragged, and when they were', async () => {
  const b = await openBench(sampleDesign());
  const { session: s } = b;
  const [one, other] = s.page.children;
  s.set({ findings: [soft(one)] });
  const [at] = pinsOf(b);
  const shift = (id: string) => (d: Parameters<typeof moveNodes>[0]) => moveNodes(d, s.page, [id], mm(12), mm(5));
  s.preview(shift(other), [other]);
  expect(pinsOf(b)).toEqual([at]);
  s.preview(shift(one), [one]);
  const [moved] = pinsOf(b);
  expect(moved.x - at.x).toBeCloseTo(mm(12), 6);
  expect(moved.y - at.y).toBeCloseTo(mm(5), 6);
  s.preview(null);
  expect(pinsOf(b)).toEqual([at]);
  s.commit('Move', shift(one));
  expect(pinsOf(b)[0].x).toBeCloseTo(moved.x, 6);
});

test('many in one place are one, and the gravest counts', () => {
  const place = (number: number, x: number, stop = false) => ({ number, stop, at: { x, y: 0 } });
  expect(gathered([place(1, 0), place(2, 5, true), place(3, 400)], (p) => p)).toEqual([
    { number: 1, more: 1, stop: true, at: { x: 0, y: 0 } },
    { number: 3, more: 0, stop: false, at: { x: 400, y: 0 } },
  ]);
});
