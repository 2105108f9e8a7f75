import { areaOf as regionOf } from '@/core/derive/area';
import { inkedArea } from '@/core/derive/inked';
import { record, undoEntry } from '@/core/edit/history';
import { addAllRound, EDGE_INKS, offsetNodes, type EdgeUse } from '@/core/edit/offsetShape';
import { outlinesToShapes } from '@/core/edit/outlineShape';
import { prepare, type Engines } from '@/core/engines';
import { simplified } from '@/core/geometry/boolean/combine';
import { scannable, spansAt, wrongShare } from '@/core/geometry/boolean/scanline';
import { boundsOf, NOTHING, type Region } from '@/core/geometry/boolean/region';
import { distanceToPath, pathContains } from '@/core/geometry/contains';
import { offsetCurves } from '@/core/geometry/offsetCurves';
import { flatten, pathBounds, rectPath, type PathData } from '@/core/geometry/path';
import { rect } from '@/core/geometry/rect';
import { segmentCount } from '@/core/geometry/segments';
import { strokeOutline, type StrokeStyle } from '@/core/geometry/stroke';
import { strokeCurves } from '@/core/geometry/strokeCurves';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import type { Design, NodeOf, Outline } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { DesignBuilder, flat } from '@/demo/builder';
import { areaOf } from '../support/area';
import { FULL } from '../support/measured';
import { random } from '../support/random';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const ids = () => {
  let n = 0;
  return () => `made-${++n}`;
};
const style = (more: Partial<StrokeStyle>): StrokeStyle => ({
  width: 8,
  cap: 'butt',
  join: 'miter',
  miterLimit: 4,
  ...more,
});

describe('the outline of a line, in curves', () => {
  const area = (path: PathData, s: StrokeStyle) =>
    areaOf(simplified({ path: strokeCurves(path, s, 1e-4), rule: 'nonZero' }).region, 20_000);
  const corner = [0, 0, 0, 1, 60, 0, 1, 60, 60];
  // Closed forms of plane geometry; caps and joins as ISO 32000-1 8.4.3 defines them.
  test.each([
    ['butt', [0, 0, 0, 1, 60, 0], style({}), 480],
    ['round caps', [0, 0, 0, 1, 60, 0], style({ cap: 'round' }), 480 + 16 * Math.PI],
    ['long caps', [0, 0, 0, 1, 60, 0], style({ cap: 'square' }), 480 + 64],
    ['a mitred corner', corner, style({}), 960],
    ['a cut corner', corner, style({ join: 'bevel' }), 960 - 8],
    ['a round corner', corner, style({ join: 'round' }), 960 - 16 + 4 * Math.PI],
    ['a mitre past its limit', corner, style({ miterLimit: 1.2 }), 960 - 8],
    ['a frame', rectPath(rect(0, 0, 60, 60)), style({}), 68 ** 2 - 52 ** 2],
    ['dashes', [0, 0, 0, 1, 60, 0], style({ dash: { lengths: [10, 10], offset: 0 } }), 240],
    ['dots', [0, 0, 0, 1, 60, 0], style({ cap: 'round', dash: { lengths: [0, 20], offset: 0 } }), 3 * 16 * Math.PI],
  ] as const)('%s: the area is that of its closed form', (_, path, s, expected) => {
    expect(Math.abs(area([...path], s) / expected - 1)).toBeLessThan(1e-4);
  });

  test('of random lines it covers what the fine straight pieces cover, with few nodes', () => {
    const r = random(11);
    for (let i = 0; i < (FULL ? 200 : 25); i++) {
      const p = () => r() * 100;
      const path: number[] = [0, p(), p()];
      for (let k = 2 + Math.floor(r() * 5); k > 0; k--)
        if (r() < 0.3) path.push(1, p(), p());
        else path.push(2, p(), p(), p(), p(), p(), p());
      if (r() < 0.5) path.push(3);
      const cap = (['butt', 'round', 'square'] as const)[i % 3];
      const s = style({ width: 2 + r() * 14, cap, join: 'round' });
      const made = simplified({ path: strokeCurves(path, s, 0.005), rule: 'nonZero' });
      expect(made.ok).toBe(true);
      const truth: Region = { path: strokeOutline(path, s, 5e-4), rule: 'nonZero' };
      // What strays by the tolerance all along both sides, twice over.
      const box = pathBounds(path);
      const slack = (8 * 0.005) / s.width + 1e-4;
      const grown = { path: made.region.path, rule: made.region.rule };
      expect(symmetric(truth, grown, box.y0 - s.width, box.y1 + s.width)).toBeLessThan(slack);
      expect(segmentCount(made.region.path)).toBeLessThan(Math.max(16, segmentCount(truth.path) / 8));
    }
  });
});

/** The area on which two regions differ, as a share of the first, on even lines. */
function symmetric(a: Region, b: Region, y0: number, y1: number): number {
  const [sa, sb] = [scannable(a), scannable(b)];
  let [differs, whole] = [0, 0];
  const lines = 300;
  const covered = (spans: readonly number[]) => spans.reduce((n, x, i) => n + (i % 2 ? x : -x), 0);
  for (let k = 0; k < lines; k++) {
    const y = y0 + ((k + 0.5) * (y1 - y0)) / lines;
    const [p, q] = [spansAt(sa, y), spansAt(sb, y)];
    const all = [...p.map((x) => ({ x, of: 0 })), ...q.map((x) => ({ x, of: 1 }))].sort((m, n) => m.x - n.x);
    const inside = [false, false];
    for (let i = 0; i < all.length; i++) {
      inside[all[i].of] = !inside[all[i].of];
      if (inside[0] !== inside[1] && i + 1 < all.length) differs += all[i + 1].x - all[i].x;
    }
    whole += covered(p);
  }
  return whole ? differs / whole : 0;
}

describe('edges moved', () => {
  const off = (r: Region, by: number, join: 'miter' | 'round' | 'bevel' = 'miter') => {
    const made = offsetCurves(r, by, { join, miterLimit: 4 }, 1e-3);
    expect(made.ok).toBe(true);
    return made.region;
  };
  const square: Region = { path: rectPath(rect(10, 20, 80, 80)), rule: 'nonZero' };

  // Closed forms of plane geometry; of a circle, of what the four curves of ours enclose (Steiner’s formula).
  test('a square, outwards and inwards, pointed, round and cut; a star', () => {
    expect(areaOf(off(square, 6)) / 92 ** 2).toBeCloseTo(1, 5);
    expect(areaOf(off(square, 6, 'round')) / (6400 + 4 * 80 * 6 + 36 * Math.PI)).toBeCloseTo(1, 5);
    expect(areaOf(off(square, 6, 'bevel')) / (6400 + 4 * 80 * 6 + 72)).toBeCloseTo(1, 5);
    expect(areaOf(off(square, -6)) / 68 ** 2).toBeCloseTo(1, 5);
    expect(off(square, -41).path).toEqual([]);
    // A four-pointed star: its edge length and the turns at its points and notches.
    const star: Region = {
      path: [0, 0, -60, 1, 20, -20, 1, 60, 0, 1, 20, 20, 1, 0, 60, 1, -20, 20, 1, -60, 0, 1, -20, -20, 3],
      rule: 'nonZero',
    };
    const edge = 8 * Math.hypot(20, 40);
    const point = Math.PI - 2 * Math.atan2(20, 40);
    const notch = 2 * Math.atan2(20, 40) - Math.PI / 2;
    const d = 3;
    // Round points add a sector each; each notch has its two bands overlap on a kite.
    const expected = areaOf(star) + edge * d + 4 * (point / 2) * d * d - 4 * Math.tan(-notch / 2) * d * d;
    const turn = Math.PI / 2 - 2 * Math.atan2(20, 40);
    expect(notch).toBeCloseTo(-turn, 9);
    expect(areaOf(off(star, d, 'round')) / expected).toBeCloseTo(1, 4);
  });

  test('few nodes: a grown square has four, a grown circle not many more than the circle', () => {
    expect(segmentCount(off(square, 6).path)).toBe(4);
    const b = new DesignBuilder(newDesign('One', setupOf(200, 200), making), making);
    const id = b.shape('Disc', 'ellipse', { x: 0, y: 0, w: 80, h: 80 }, {});
    b.place(0, [id]);
    const disc = regionOf(b.done(), id, engines.fonts).region;
    const grown = off(disc, 10, 'round');
    expect(segmentCount(grown.path)).toBeLessThanOrEqual(16);
    for (const { points } of flatten(grown.path, 0.01))
      for (let i = 0; i < points.length; i += 2)
        expect(Math.abs(Math.hypot(points[i] - 40, points[i + 1] - 40) - 50)).toBeLessThan(0.03);
  });

  // Oracle: the distance of places to the edge itself; and one scan line after the other: no contour crosses itself.
  test('of random blobs every place of the new edge is as far from the old one', () => {
    const r = random(7);
    let worst = 0;
    for (let i = 0; i < (FULL ? 200 : 20); i++) {
      const n = 4 + Math.floor(r() * 6);
      const path: number[] = [];
      const at = (k: number, more = 1) => {
        const a = (2 * Math.PI * k) / n;
        return [100 * more * Math.cos(a), 100 * more * Math.sin(a)];
      };
      const size = Array.from({ length: n }, () => 0.5 + r() * 0.7);
      path.push(0, ...at(0, size[0]));
      for (let k = 1; k <= n; k++) {
        const [p, q] = [
          at(k - 1 + 0.35, size[k - 1] * (0.8 + r() * 0.5)),
          at(k - 0.35, size[k % n] * (0.8 + r() * 0.5)),
        ];
        path.push(2, ...p, ...q, ...at(k, size[k % n]));
      }
      path.push(3);
      const blob = simplified({ path, rule: 'nonZero' }).region;
      const by = (i % 2 ? -1 : 1) * (3 + r() * 15);
      const made = off(blob, by, 'round');
      for (const { points } of flatten(made.path, 0.01))
        for (let k = 0; k < points.length; k += 14) {
          const p = { x: points[k], y: points[k + 1] };
          worst = Math.max(worst, Math.abs(distanceToPath(blob.path, p, 0.005) - Math.abs(by)));
          expect(pathContains(blob.path, blob.rule, p, 0.005)).toBe(by < 0);
        }
      expect(
        wrongShare({ ...made, rule: 'nonZero' }, NOTHING, 'union', { ...made, rule: 'evenOdd' }, 200),
      ).toBeLessThan(1e-5);
    }
    expect(worst).toBeLessThan(200 * 1e-3);
  });

  // Oracle: the distance of places to the edge itself. Serifs and counters are far tighter than what the letters are
  // moved by.
  test('letters, moved by more than their stems: inside is what is near enough, or deep enough', async () => {
    const b = new DesignBuilder(newDesign('Words', setupOf(400, 300), making), making);
    const id = b.displayText('Word', 20, 60, [
      { align: 'left', leading: 1, runs: [runOf('Quay & fog', 30, flat(cmyk(0, 0, 0, 1)), 'eb-garamond-700')] },
    ]);
    b.place(0, [id]);
    const design = b.done();
    await prepare(engines, design);
    const word = regionOf(design, id, engines.fonts).region;
    const box = boundsOf(word);
    const r = random(31);
    for (const by of [-2.4, -0.7, 0.6, 5, 14]) {
      const region = off(word, by, 'round');
      let asked = 0;
      while (asked < (FULL ? 600 : 120)) {
        const p = {
          x: box.x0 - 16 + r() * (box.x1 - box.x0 + 32),
          y: box.y0 - 16 + r() * (box.y1 - box.y0 + 32),
        };
        const far = distanceToPath(word.path, p, 0.002) * (pathContains(word.path, word.rule, p, 0.002) ? -1 : 1);
        // On the very edge both answers are right.
        if (Math.abs(far - by) < 0.02) continue;
        asked++;
        expect([by, p, pathContains(region.path, region.rule, p, 0.002)]).toEqual([by, p, far < by]);
      }
    }
  });
});

function page(): { b: DesignBuilder; design: () => Design } {
  const b = new DesignBuilder(newDesign('Edges', setupOf(400, 300, { bleed: 9 }), making), making);
  return { b, design: () => b.done() };
}
const line = (more: Partial<Outline> = {}, width = 4): Outline => ({
  ...outlineOf(flat(cmyk(90, 20, 0, 0)), width),
  ...more,
});

test('steps of an offset lie as rings behind one another, or in front, or one instead; undo brings all back', () => {
  const { b, design } = page();
  const id = b.shape('Box', 'rectangle', { x: 100, y: 100, w: 60, h: 40 }, { fill: flat(cmyk(0, 80, 90, 0)) });
  b.place(0, [id]);
  const before = design();
  const run = (place: 'behind' | 'inFront' | 'instead') => {
    let made: ReturnType<typeof offsetNodes> | null = null;
    const { design: after, entry } = record(before, 'Offset', (d) => {
      made = offsetNodes(d, before.pages[0], [id], { by: 5, join: 'miter', steps: 3, place }, ids(), engines.fonts);
    })!;
    expect(verifyDesign(after)).toMatchObject({ ok: true });
    expect(undoEntry(after, entry)).toEqual(before);
    return { after, made: made! as ReturnType<typeof offsetNodes> };
  };
  const rings = run('behind');
  expect(rings.after.pages[0].children).toEqual([...[...rings.made.ids].reverse(), id]);
  const widths = rings.made.ids.map((x) => {
    const box = boundsOf(regionOf(rings.after, x, engines.fonts).region);
    return Math.round((box.x1 - box.x0) * 1e3) / 1e3;
  });
  expect(widths).toEqual([70, 80, 90]);
  expect(run('inFront').after.pages[0].children[0]).toBe(id);
  const instead = run('instead').after;
  expect(instead.pages[0].children).toHaveLength(1);
  expect(instead.nodes[id]).toBeUndefined();
});

test('a step that nothing is left of is counted, and others are made', () => {
  const { b, design } = page();
  const id = b.shape('Box', 'rectangle', { x: 100, y: 100, w: 60, h: 40 }, { fill: flat(cmyk(0, 80, 90, 0)) });
  b.place(0, [id]);
  const d = design();
  let made: ReturnType<typeof offsetNodes> | null = null;
  record(d, 'Offset', (x) => {
    made = offsetNodes(
      x,
      d.pages[0],
      [id],
      { by: -9, join: 'miter', steps: 4, place: 'inFront' },
      ids(),
      engines.fonts,
    );
  });
  expect(made).toMatchObject({ failed: 2, ids: { length: 2 } });
});

test('all that is seen of an object: fills, lines on either side, letters with their lines, groups', async () => {
  const { b, design } = page();
  const box = b.shape(
    'Box',
    'rectangle',
    { x: 0, y: 0, w: 60, h: 40 },
    { fill: flat(cmyk(0, 80, 90, 0)), outline: line() },
  );
  const empty = b.shape('Frame', 'rectangle', { x: 0, y: 0, w: 60, h: 40 }, { outline: line() });
  const outside = b.shape(
    'Outside',
    'rectangle',
    { x: 0, y: 0, w: 60, h: 40 },
    { fill: flat(cmyk(0, 80, 90, 0)), outline: line({ side: 'outside' }) },
  );
  const words = b.displayText('Words', 20, 200, [{ runs: [runOf('LO', 80, flat(cmyk(0, 0, 0, 100)), 'archivo-800')] }]);
  const group = b.group('Both', [box, words]);
  b.place(0, [group, empty, outside]);
  const d = design();
  await prepare(engines, d);
  const seen = (id: string) => {
    const { region, unsure } = inkedArea(d, id, engines.fonts);
    expect(unsure).toBe(false);
    return areaOf(region);
  };
  expect(seen(box)).toBeCloseTo(64 * 44, 1);
  expect(seen(empty)).toBeCloseTo(64 * 44 - 56 * 36, 1);
  expect(seen(outside)).toBeCloseTo(68 * 48, 1);
  expect(seen(words) / areaOf(regionOf(d, words, engines.fonts).region)).toBeCloseTo(1, 4);
  expect(seen(group)).toBeCloseTo(seen(box) + seen(words), 0);
});

test.each(['backing', 'cutLine', 'underlay'] as const)(
  'an edge all round as %s: where it lies, in which ink, with its holes',
  (use: EdgeUse) => {
    const { b, design } = page();
    const ring = b.shape('Ring', 'ellipse', { x: 60, y: 60, w: 100, h: 100 }, { outline: line({}, 10) });
    const dot = b.shape('Dot', 'ellipse', { x: 200, y: 90, w: 30, h: 30 }, { fill: flat(cmyk(0, 80, 90, 0)) });
    b.place(0, [ring, dot]);
    const before = design();
    const make = (fillHoles: boolean) => {
      let id: string | null = null;
      const { design: after, entry } = record(before, 'Edge', (d) => {
        id = addAllRound(
          d,
          before.pages[0],
          [ring, dot],
          { by: 6, join: 'round', fillHoles, use, colour: cmyk(0, 0, 0, 0) },
          ids(),
          engines.fonts,
        );
      })!;
      expect(verifyDesign(after)).toMatchObject({ ok: true });
      expect(undoEntry(after, entry)).toEqual(before);
      return { after, node: after.nodes[id!] as NodeOf<'path'> };
    };
    const { after, node } = make(false);
    expect(after.pages[0].children.indexOf(node.id)).toBe(use === 'backing' ? 0 : 2);
    // The ring of 50 ± 5 grown by 6, its hole left, and the dot.
    const [outer, hole, small] = [61, 39, 21].map((r) => Math.PI * r * r);
    expect(areaOf({ path: node.path, rule: node.fillRule }) / (outer - hole + small)).toBeCloseTo(1, 2);
    const filled = make(true).node;
    expect(areaOf({ path: filled.path, rule: filled.fillRule }) / (outer + small)).toBeCloseTo(1, 2);
    if (use === 'backing') {
      expect(after.inks).toEqual(before.inks);
      return;
    }
    expect(after.inks[after.inks.length - 1]).toMatchObject({ name: EDGE_INKS[use].name, overprints: true });
    const paint = use === 'cutLine' ? node.outlines[0].paint : node.fills[0];
    expect(paint).toMatchObject({ kind: 'colour', overprint: true });
  },
);

describe('outlines as shapes', () => {
  test('a line alone becomes an area under its own name; a filled object a group with its lines over and below it', () => {
    const { b, design } = page();
    const only = b.shape('Ring', 'ellipse', { x: 20, y: 20, w: 60, h: 60 }, { outline: line({ dashes: [8, 8] }) });
    const both = b.shape(
      'Box',
      'rectangle',
      { x: 120, y: 20, w: 60, h: 40 },
      { fill: flat(cmyk(0, 80, 90, 0)), outline: line() },
    );
    b.place(0, [only, both]);
    const first = design();
    const before: Design = {
      ...first,
      nodes: {
        ...first.nodes,
        [both]: {
          ...(first.nodes[both] as NodeOf<'shape'>),
          opacity: 0.5,
          outlines: [line({ behind: true }, 12), line()],
        },
      },
    };
    let made: ReturnType<typeof outlinesToShapes> | null = null;
    const { design: after, entry } = record(before, 'Outlines to shapes', (d) => {
      made = outlinesToShapes(d, before.pages[0], [only, both], ids(), engines.fonts);
    })!;
    expect(made).toMatchObject({ made: 3, kept: 0 });
    expect(verifyDesign(after)).toMatchObject({ ok: true });
    expect(undoEntry(after, entry)).toEqual(before);
    expect(after.nodes[only]).toMatchObject({ kind: 'path', name: 'Ring', outlines: [] });
    const group = after.nodes[after.pages[0].children[1]] as NodeOf<'group'>;
    expect(group).toMatchObject({ kind: 'group', name: 'Box', opacity: 0.5 });
    expect(group.children.map((c) => after.nodes[c].kind)).toEqual(['path', 'shape', 'path']);
    expect(after.nodes[group.children[1]].opacity).toBeUndefined();
  });

  test('what is seen stays the same; a gradient that follows its line stays a line', () => {
    const { b, design } = page();
    const star = b.shape(
      'Star',
      'star',
      { x: 20, y: 20, w: 120, h: 120 },
      { outline: line({ join: 'round', end: { kind: 'arrow', size: 1 } }) },
    );
    const along = b.shape(
      'Along',
      'ellipse',
      { x: 180, y: 20, w: 90, h: 90 },
      {
        outline: line({
          paint: {
            kind: 'gradient',
            gradient: 'linear',
            ramp: {
              stops: [
                { offset: 0, colour: cmyk(100, 0, 0, 0) },
                { offset: 1, colour: cmyk(0, 100, 0, 0) },
              ],
            },
            geometry: [90, 0, 0, 90, 0, 0],
            overprint: false,
            strokeMapping: 'along',
          },
        }),
      },
    );
    b.place(0, [star, along]);
    const before = design();
    let made: ReturnType<typeof outlinesToShapes> | null = null;
    const { design: after } = record(before, 'Outlines to shapes', (d) => {
      made = outlinesToShapes(d, before.pages[0], [star, along], ids(), engines.fonts);
    })!;
    expect(made).toMatchObject({ made: 1, kept: 1 });
    const [a, z] = [inkedArea(before, star, engines.fonts).region, inkedArea(after, star, engines.fonts).region];
    expect(wrongShare(a, NOTHING, 'union', z, 300)).toBeLessThan(1e-4);
    expect(after.nodes[along]).toEqual(before.nodes[along]);
  });
});

test('an edge all round goes round the sides of what is pushed back', () => {
  const { b, design } = page();
  const id = b.shape('Deep', 'rectangle', { x: 0, y: 0, w: 60, h: 40 }, { fill: flat(cmyk(0, 80, 90, 0)) });
  b.place(0, [id]);
  const plain = design();
  const side = flat(cmyk(0, 0, 0, 80));
  const depth = { kind: 'solid', angle: 90, length: 20, side, shade: 0, light: 0 } as const;
  const d: Design = { ...plain, nodes: { ...plain.nodes, [id]: { ...plain.nodes[id], depth } as NodeOf<'shape'> } };
  // Closed form: the face, and the side below it.
  expect(areaOf(inkedArea(d, id, engines.fonts).region)).toBeCloseTo(60 * 60, 1);
  // Turned on the page it is pushed the page's way still: along its own longer side.
  expect(areaOf(inkedArea(d, id, engines.fonts, [0, 1, -1, 0, 0, 0]).region)).toBeCloseTo(80 * 40, 1);
});
