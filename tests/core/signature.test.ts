import { placeIn, putSignature, signatureFrom, signatureSchema } from '@/core/edit/signature';
import { record } from '@/core/edit/history';
import { contoursOf } from '@/core/geometry/segments';
import { pathBounds } from '@/core/geometry/path';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { NodeOf } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { making } from '../support/sample';
import { random } from '../support/random';

/** A hand that writes waves and shakes. */
function hand(shake: number, pressure: boolean, seed = 7) {
  const chance = random(seed);
  return Array.from({ length: 300 }, (_, i) => ({
    x: 50 + i + (chance() - 0.5) * shake,
    y: 100 + 40 * Math.sin(i / 25) + (chance() - 0.5) * shake,
    ...(pressure && { pressure: 0.3 + 0.6 * Math.abs(Math.sin(i / 40)) }),
  }));
}
const far = (x: number) => 100 + 40 * Math.sin((x - 50) / 25);

test('shakes are smoothed out: nearer to what was meant than the hand was, with few nodes', () => {
  const signature = signatureFrom([hand(3, true)], 'a')!;
  const [stroke] = signature.strokes;
  expect(stroke.widths.length).toBeLessThan(40);
  const off = (y: number, x: number) => Math.abs(y - far(x));
  const shaken = hand(3, true).map((p) => off(p.y, p.x));
  const width = 300;
  const x0 = Math.min(...hand(3, true).map((p) => p.x));
  const y0 = Math.min(...hand(3, true).map((p) => p.y));
  const drawn = contoursOf(stroke.path)[0].segments.map((s) => off(s.y3 * width + y0, s.x3 * width + x0));
  const mean = (l: number[]) => l.reduce((a, b) => a + b, 0) / l.length;
  expect(mean(drawn)).toBeLessThan(mean(shaken));
  expect(() => signatureSchema.parse(JSON.parse(JSON.stringify(signature)))).not.toThrow();
});

test('widths follow the pressure; without any, the speed: fast is thin', () => {
  const { widths } = signatureFrom([hand(0, true)], 'a')!.strokes[0];
  expect(Math.min(...widths)).toBeLessThan(0.5);
  expect(Math.max(...widths)).toBeGreaterThan(0.8);
  // Slow, then ten times as fast.
  const slow = Array.from({ length: 100 }, (_, i) => ({ x: i, y: 20 * Math.sin(i / 9) }));
  const fast = Array.from({ length: 30 }, (_, i) => ({ x: 100 + 10 * i, y: 20 * Math.sin((100 + 10 * i) / 40) }));
  const made = signatureFrom([[...slow, ...fast]], 'b')!.strokes[0].widths;
  expect(made[made.length - 1]).toBeLessThan(made[0] - 0.3);
});

test('nothing written is no signature; a dot is one', () => {
  expect(signatureFrom([], 'a')).toBeNull();
  expect(signatureFrom([[]], 'a')).toBeNull();
  expect(signatureFrom([[{ x: 5, y: 5 }]], 'a')!.strokes).toHaveLength(1);
});

test('it comes into its frame as large as it can be, one group in one step, and the design stays sound', () => {
  const signature = signatureFrom(
    [
      hand(2, true),
      [
        { x: 200, y: 40 },
        { x: 240, y: 30 },
        { x: 260, y: 34 },
      ],
    ],
    'a',
  )!;
  const box = { x0: 100, y0: 200, x1: 300, y1: 240 };
  const at = placeIn(signature, box);
  const design = newDesign('Certificate', setupOf(400, 300), making);
  const step = record(design, 'Signature', (d) => {
    putSignature(d, design.pages[0], signature, at, { cmyk: [0, 0, 0, 1] }, making.newId);
  })!;
  expect(verifyDesign(step.design).ok).toBe(true);
  const [top] = step.design.pages[0].children;
  const group = step.design.nodes[top] as NodeOf<'group'>;
  expect([group.kind, group.name, group.alt, group.children.length]).toEqual(['group', 'Signature', 'Signature', 2]);
  const all = group.children.map((id) => step.design.nodes[id] as NodeOf<'path'>);
  const bounds = pathBounds(all.flatMap((n) => [...n.path]));
  // Both edges of the narrower way are met, and nothing leaves the box.
  expect(bounds.y1 - bounds.y0).toBeGreaterThan(35);
  for (const n of all) {
    expect(n.widths).toBeDefined();
    expect(n.outlines[0].width).toBeCloseTo(0.012 * at.width, 6);
  }
  expect(bounds.x0).toBeGreaterThan(box.x0 - 1);
  expect(bounds.x1).toBeLessThan(box.x1 + 1);
  expect(bounds.y0).toBeGreaterThan(box.y0 - 1);
  expect(bounds.y1).toBeLessThan(box.y1 + 1);
});
