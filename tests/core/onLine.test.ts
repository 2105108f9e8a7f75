import { putOnCircle, putOnOutline, setAlong, setBend, straighten } from '@/core/edit/display';
import { tryOut } from '@/core/edit/history';
import { scaleNodes, scalingAbout } from '@/core/edit/place';
import { localBox } from '@/core/derive/box';
import { lettersPath } from '@/core/derive/area';
import { layoutMatrix, layoutOf } from '@/core/derive/layout';
import { wrongShare } from '@/core/geometry/boolean/scanline';
import { apply } from '@/core/geometry/matrix';
import { COORDS, cubicAt, pathBounds, type PathData } from '@/core/geometry/path';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import type { Along, Bend, Design, NodeOf } from '@/core/model/schema';
import { BENDS } from '@/core/model/textSchema';
import { verifyDesign } from '@/core/model/verify';
import { hitAll } from '@/core/scene/hit';
import { bendWarp } from '@/core/text/bends';
import { caretEnds, chosenAreas, offsetAt, stopAt } from '@/core/text/caret';
import { DesignBuilder } from '@/demo/builder';
import { prepare, type Engines } from '@/core/engines';
import { making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
  await prepare(engines, words('x').design);
});

function words(text: string, size = 24, align: 'left' | 'middle' | 'right' | 'full' = 'left', face = 'archivo-600') {
  const b = new DesignBuilder(newDesign('Words', setupOf(400, 400), making), making);
  const id = b.displayText('Words', 100, 100, [
    { align, leading: 1.2, runs: [{ ...runOf(text, size, undefined, face), tracking: 30 }] },
  ]);
  const round = b.shape('Round', 'ellipse', { x: 40, y: 60, w: 200, h: 140 }, {});
  const square = b.shape('Square', 'rectangle', { x: 40, y: 60, w: 200, h: 140 }, {});
  b.place(0, [id, round, square]);
  return { design: b.done(), id, round, square };
}
const textOf = (d: Design, id: string) => d.nodes[id] as NodeOf<'displayText'>;
const with_ = (text: string, along: Along, align?: 'left' | 'middle' | 'right' | 'full') => {
  const { design, id } = words(text, 24, align);
  const d = tryOut(design, (x) => void ((x.nodes[id] as { along?: Along }).along = along));
  return { d, id, layout: layoutOf(d, textOf(d, id), engines.fonts) };
};

// Closed form: on a circle, an angle is an arc over the radius.
test.each([
  [120, 0, false],
  [55, 8, false],
  [90, -6, true],
])('letters on a circle of %d pt, %d off it: their angles sum to the arc', (radius, distance, reversed) => {
  const text = 'Lantern Walk quays';
  const plain = words(text);
  const straight = layoutOf(plain.design, textOf(plain.design, plain.id), engines.fonts);
  const { layout } = with_(text, { line: { radius }, at: 0, distance, ...(reversed && { reversed }) });
  const flat = straight.lines[0].runs[0].glyphs;
  const bent = layout.lines[0].runs[0].glyphs;
  const r = radius + (reversed ? -distance : distance);
  const middles = bent.map((g, i) => {
    const half = (flat[i].advance - 0.03 * 24) / 2;
    const [a, b] = g.turn!;
    return { x: g.x + a * half, y: g.y + b * half, turn: Math.atan2(b, a) };
  });
  for (const m of middles) expect(Math.hypot(m.x, m.y)).toBeCloseTo(r, 9);
  let sum = 0;
  for (let i = 1; i < middles.length; i++) {
    const step = Math.atan2(
      Math.sin(middles[i].turn - middles[i - 1].turn),
      Math.cos(middles[i].turn - middles[i - 1].turn),
    );
    const arc = flat[i].x - flat[i - 1].x + (flat[i].advance - flat[i - 1].advance) / 2;
    expect(Math.abs(step) * r).toBeCloseTo(arc, 6);
    sum += Math.abs(step);
  }
  const last = flat.length - 1;
  const way = flat[last].x + (flat[last].advance - 0.72) / 2 - (flat[0].x + (flat[0].advance - 0.72) / 2);
  expect(Math.abs(sum * r - way)).toBeLessThan(1e-6);
});

test('words begin, are centred or end at their place; from both sides they reach from one place to another', () => {
  const top = (align: 'left' | 'middle' | 'right') => with_('Lantern', { line: { radius: 80 }, at: 0 }, align).layout;
  const middle = (l: ReturnType<typeof top>) => (l.x0 + l.x1) / 2;
  expect(top('left').x0).toBeGreaterThan(-8);
  expect(Math.abs(middle(top('middle')))).toBeLessThan(1);
  expect(top('right').x1).toBeLessThan(8);
  // Half round, from the left side over the top to the right.
  const full = with_('Lantern', { line: { radius: 80 }, at: -0.25, to: 0.25 }, 'full').layout;
  const [first, last] = [full.lines[0].carets[0].turn!, full.lines[0].carets[6].turn!];
  expect([first.x, first.y]).toEqual([expect.closeTo(-80, 3), expect.closeTo(0, 3)]);
  expect(last.x).toBeGreaterThan(70);
});

test('words above and below on one circle, both upright, in one ring', () => {
  const above = with_('Above', { line: { radius: 80 }, at: 0 }, 'middle').layout;
  const below = with_('Below', { line: { radius: 80 }, at: 0.5, reversed: true, touches: 'heads' }, 'middle').layout;
  for (const l of [above, below]) for (const g of l.lines[0].runs[0].glyphs) expect(g.turn![0]).toBeGreaterThan(0.8);
  expect(above.lines[0].runs[0].glyphs[0].x).toBeLessThan(0);
  expect(below.lines[0].runs[0].glyphs[0].x).toBeLessThan(0);
  const feet = below.lines[0].runs[0].glyphs.map((g) => Math.hypot(g.x, g.y));
  // Their heads on the circle, their feet outside.
  for (const r of feet) expect(r).toBeGreaterThan(80);
});

test('upright letters do not turn; what runs over the end of an open line is counted and not shown', () => {
  const up = with_('Lantern', { line: { radius: 80 }, at: 0.1, upright: true }).layout;
  for (const g of up.lines[0].runs[0].glyphs) expect(g.turn).toEqual([1, 0, -0, 1]);
  const short = with_('Lantern', { line: { path: [0, 0, 0, 1, 50, 0] }, at: 0 }).layout;
  const shown = short.lines[0].runs[0].glyphs.map((g) => g.text).join('');
  expect('Lantern'.startsWith(shown)).toBe(true);
  expect(short.overset).toBe('Lantern'.length - shown.length);
  expect(short.overset).toBeGreaterThan(0);
});

test('beside a curve spacing is measured where the letters stand', () => {
  // A circle of eight cubics as a path against the circle itself.
  const { design, id, round } = words('Lantern Walk', 14, 'middle');
  const circle = tryOut(design, (d) => void Object.assign(d.nodes[round], { width: 160, height: 160 }));
  const on = tryOut(circle, (d) => putOnOutline(d, d.pages[0] as Design['pages'][number], id, round));
  const off = tryOut(on, (d) => setAlong(d, [id], { distance: 10 }));
  const layout = layoutOf(off, textOf(off, id), engines.fonts);
  const turns = layout.lines[0].runs[0].glyphs.map((g) => Math.atan2(g.turn![1], g.turn![0]));
  const r = 90;
  const width = layout.lines[0].width;
  // From the first letter's middle to the last's.
  const flat = words('Lantern Walk', 14);
  const glyphs = layoutOf(flat.design, textOf(flat.design, flat.id), engines.fonts).lines[0].runs[0].glyphs;
  const [a, z] = [glyphs[0], glyphs[glyphs.length - 1]];
  const arc = z.x + (z.advance - 0.42) / 2 - a.x - (a.advance - 0.42) / 2;
  // Four cubics are a circle to a thousandth of their bend.
  expect(Math.abs((turns[turns.length - 1] - turns[0]) * r - arc)).toBeLessThan(0.003 * arc);
  expect(width).toBeGreaterThan(arc);
});

describe('put on a line', () => {
  test('on a circle: centred at its top where the words were, and straight again', () => {
    const { design, id } = words('Lantern Walk');
    const before = localBox(design, design.nodes[id], engines.fonts);
    const d = tryOut(design, (x) => putOnCircle(x, id, engines.fonts));
    expect(verifyDesign(d).ok).toBe(true);
    const node = textOf(d, id);
    const stop = apply(node.transform, { x: 0, y: -(node.along!.line as { radius: number }).radius });
    expect(stop.x).toBeCloseTo(100 + (before.x0 + before.x1) / 2, 6);
    expect(stop.y).toBeCloseTo(100, 6);
    const back = tryOut(d, (x) => straighten(x, [id], engines.fonts));
    expect(textOf(back, id).along).toBeUndefined();
    const box = localBox(back, back.nodes[id], engines.fonts);
    expect(box.x1 - box.x0).toBeCloseTo(before.x1 - before.x0, 9);
  });
  test('on an outline: at its top, from left to right, outside; the shape stays', () => {
    const { design, id, round, square } = words('Lantern', 18, 'middle');
    for (const outline of [round, square]) {
      const d = tryOut(design, (x) => putOnOutline(x, x.pages[0] as Design['pages'][number], id, outline));
      expect(verifyDesign(d).ok).toBe(true);
      expect(d.nodes[outline]).toEqual(design.nodes[outline]);
      const node = textOf(d, id);
      const { lines, x0, x1, bottom } = layoutOf(d, node, engines.fonts);
      const middle = apply(node.transform, { x: (x0 + x1) / 2, y: bottom });
      expect(middle.x).toBeCloseTo(140, 0);
      for (const g of lines[0].runs[0].glyphs) {
        expect(g.turn![0]).toBeGreaterThan(0.5);
        expect(apply(node.transform, g).y).toBeLessThan(130);
      }
    }
  });
  test('scaled as an object, words and line grow together', () => {
    const { design, id } = words('Lantern');
    const d = tryOut(design, (x) => putOnCircle(x, id, engines.fonts));
    const box = localBox(d, d.nodes[id], engines.fonts);
    const big = tryOut(d, (x) =>
      scaleNodes(x, x.pages[0] as Design['pages'][number], [id], scalingAbout(2, 2, { x: 0, y: 0 })),
    );
    const after = localBox(big, big.nodes[id], engines.fonts);
    expect(after.x1 - after.x0).toBeCloseTo(2 * (box.x1 - box.x0), 4);
    expect(after.y1 - after.y0).toBeCloseTo(2 * (box.y1 - box.y0), 4);
  });
});

/** A path as polygons of so many sides a piece, each point taken through a map. */
function dense(path: PathData, map: (p: { x: number; y: number }) => { x: number; y: number }, sides = 64): PathData {
  const out: number[] = [];
  let [px, py, sx, sy] = [0, 0, 0, 0];
  const line = (x: number, y: number, at: (t: number) => { x: number; y: number }) => {
    for (let i = 1; i <= sides; i++) {
      const q = map(at(i / sides));
      out.push(1, q.x, q.y);
    }
    [px, py] = [x, y];
  };
  for (let i = 0; i < path.length; i += 1 + COORDS[path[i]]) {
    const v = path;
    if (v[i] === 0) {
      [px, py, sx, sy] = [v[i + 1], v[i + 2], v[i + 1], v[i + 2]];
      const q = map({ x: px, y: py });
      out.push(0, q.x, q.y);
    } else if (v[i] === 1 || v[i] === 3) {
      const [x0, y0] = [px, py];
      const [x, y] = v[i] === 1 ? [v[i + 1], v[i + 2]] : [sx, sy];
      line(x, y, (t) => ({ x: x0 + (x - x0) * t, y: y0 + (y - y0) * t }));
      if (v[i] === 3) out.push(3);
    } else {
      const [x0, y0] = [px, py];
      line(v[i + 5], v[i + 6], (t) => ({
        x: cubicAt(x0, v[i + 1], v[i + 3], v[i + 5], t),
        y: cubicAt(y0, v[i + 2], v[i + 4], v[i + 6], t),
      }));
    }
  }
  return out;
}

describe('bends', () => {
  const KINDS = BENDS.flatMap((kind): [string, Bend][] => [
    [`${kind}`, { kind, strength: 0.4 }],
    [`${kind}, the other way, tilted`, { kind, strength: -0.5, tiltX: 0.4, tiltY: -0.3 }],
  ]);
  // Oracle: the scanline measure of tests against polygons of 64 sides a piece, each point bent by itself.
  test.each(KINDS)('%s: outlines lie where their points are bent to', (_, bend) => {
    const { design, id } = words('Quays 8', 60, 'left', 'eb-garamond-600');
    const straight = layoutOf(design, textOf(design, id), engines.fonts);
    const d = tryOut(design, (x) => setBend(x, [id], bend));
    const warp = bendWarp(bend, { x0: straight.x0, y0: straight.top, x1: straight.x1, y1: straight.bottom });
    const truth = {
      path: dense(lettersPath(design, textOf(design, id), engines.fonts), warp),
      rule: 'nonZero' as const,
    };
    const made = { path: lettersPath(d, textOf(d, id), engines.fonts), rule: 'nonZero' as const };
    expect(wrongShare(truth, truth, 'union', made, 1500)).toBeLessThanOrEqual(1e-4);
    const box = localBox(d, d.nodes[id], engines.fonts);
    expect(box).toEqual(pathBounds(made.path));
  });
  test('of no strength a bend changes nothing; text stays text', () => {
    const { design, id } = words('Lantern', 40);
    const d = tryOut(design, (x) => setBend(x, [id], { kind: 'arch', strength: 0 }));
    const [a, b] = [design, d].map((x) => localBox(x, x.nodes[id], engines.fonts));
    const bare = pathBounds(lettersPath(design, textOf(design, id), engines.fonts));
    expect(b.x0).toBeCloseTo(bare.x0, 3);
    expect(b.y1).toBeCloseTo(bare.y1, 3);
    expect(a).toBeDefined();
    const again = tryOut(d, (x) => {
      const story = textOf(d, id).story;
      (x.stories[story].paragraphs[0].runs[0] as { text: string }).text = 'Lanterns';
    });
    expect(localBox(again, again.nodes[id], engines.fonts).x1).toBeGreaterThan(b.x1);
  });
});

describe('caret and pointer on words that do not stand straight', () => {
  const cases: [string, (d: Design, id: string) => Design][] = [
    ['straight', (d) => d],
    ['on a circle', (d, id) => tryOut(d, (x) => putOnCircle(x, id, engines.fonts))],
    ['arched', (d, id) => tryOut(d, (x) => setBend(x, [id], { kind: 'arch', strength: 0.5 }))],
  ];
  test.each(cases)('%s: a click on a caret finds it again, and what is chosen is covered', (_, make) => {
    const { design, id } = words('Lantern', 40);
    const d = make(design, id);
    const layout = layoutOf(d, textOf(d, id), engines.fonts);
    const line = layout.lines[0];
    for (let i = 0; i <= 7; i++) {
      const [a, b] = caretEnds(layout, line, stopAt(line, i));
      expect(offsetAt(layout, { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 })).toBe(i);
    }
    const areas = chosenAreas(layout, line, 2, 5);
    expect(areas.length).toBe(layout.warp || line.carets[0].turn ? 3 : 1);
  });
  test('a click hits the letters, not the empty middle of their circle', () => {
    const { design, id } = words('Lantern Walk Marrowick', 24, 'middle');
    const d = tryOut(design, (x) => putOnCircle(x, id, engines.fonts));
    const scene = engines.builder.build(d, d.pages[0]);
    const node = textOf(d, id);
    const letter = layoutOf(d, node, engines.fonts).lines[0].runs[0].glyphs[8];
    const m = (p: { x: number; y: number }) => apply(node.transform, apply(layoutMatrix(node), p));
    const up = {
      x: letter.x + letter.turn![0] * 3 - letter.turn![1] * -5,
      y: letter.y + letter.turn![1] * 3 - 5 * letter.turn![0],
    };
    const on = (p: { x: number; y: number }) => hitAll(scene, m(p), 1).filter((h) => h.node === id);
    expect(on(up)).toHaveLength(1);
    expect(on({ x: 0, y: -20 })).toEqual([]);
  });
});

test('very many letters on a circle, and a line of very many pieces, are laid out', () => {
  const many = with_('Quay '.repeat(30_000), { line: { radius: 90 }, at: 0, to: 1 }, 'full');
  expect(many.layout.lines[0].runs[0].glyphs).toHaveLength(150_000);
  expect(offsetAt(many.layout, { x: 0, y: -90 })).toBeGreaterThanOrEqual(0);
  const path: number[] = [0, 0, 0];
  for (let i = 1; i < 60_000; i++) path.push(1, i / 100, (i % 2) / 100);
  const long = with_('Lantern Walk', { line: { path }, at: 0.5, distance: 3 }, 'middle');
  expect(long.layout.overset).toBe(0);
  expect(long.layout.lines[0].runs[0].glyphs).toHaveLength(12);
});
