import { translation } from '@/core/geometry/matrix';
import { boxIn } from '@/core/derive/box';
import { copyNodes, parseClip, pasteClip } from '@/core/edit/clip';
import { clipOf } from '../support/clips';
import {
  geometryFrom,
  gradientAngle,
  insertStop,
  moveStop,
  removeStop,
  reverseStops,
  withAngle,
} from '@/core/edit/gradient';
import { record, redoEntry, tryOut, tryOutOn, undoEntry, type HistoryEntry, type Recipe } from '@/core/edit/history';
import { paintAt } from '@/core/edit/aims';
import { setColour, setPaint } from '@/core/edit/paint';
import { addSwatch, recolourSwatch, removeSwatch, swatchUsers } from '@/core/edit/swatches';
import { moveNodes, scaleNodes, scalingAbout, turnNodes } from '@/core/edit/place';
import { groupNodes, orderNodes, ungroupNodes } from '@/core/edit/pile';
import { readRecipes } from '@/core/edit/recipeLine';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design, GradientPaint } from '@/core/model/schema';
import { serializeDesign } from '@/core/model/serialize';
import { verifyDesign } from '@/core/model/verify';
import { SceneBuilder } from '@/core/scene/build';
import { hitAll, nearEdge, nodesIn } from '@/core/scene/hit';
import { prepare, type Engines } from '@/core/engines';
import { demoDesigns } from '@/demo/demos';
import { FULL, measured } from '../support/measured';
import { ALL, PLAIN, recipeOf, stepsOf } from '../support/commands';
import { cmyk, making, sampleDesign } from '../support/sample';
import { testEngines } from '../support/engines';
import fc from '../support/seeded';
import { movedBy } from '@/core/scene/walk';
import { FontBook } from '@/core/text/fonts';
import { leavesOf, toldOf } from '../support/scenes';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
  await prepare(engines, sampleDesign());
  await prepare(engines, demoDesigns()[0].design);
});

describe('random commands', () => {
  test('undo all gives the same bytes, redo all gives the last ones, and every state is a whole design', () => {
    fc.assert(
      fc.property(stepsOf(PLAIN), (list) => {
        const start = sampleDesign();
        let design = start;
        const entries: HistoryEntry[] = [];
        for (const step of list) {
          const result = record(design, 'step', recipeOf(step, design, engines));
          if (!result) continue;
          design = result.design;
          entries.push(result.entry);
          const v = verifyDesign(design);
          if (!v.ok) throw new Error(`${v.where}: ${v.what}`);
        }
        const end = serializeDesign(design);
        let back = design;
        for (const e of [...entries].reverse()) back = undoEntry(back, e);
        if (serializeDesign(back) !== serializeDesign(start)) throw new Error('undo all gives other bytes');
        for (const e of entries) back = redoEntry(back, e);
        if (serializeDesign(back) !== end) throw new Error('redo all gives other bytes');
      }),
      { numRuns: FULL ? 200 : 30, seed: 20261121 },
    );
  });

  test('with lines, edges, regions, depth and references among them: the same, and the remembered scene is a fresh one', () => {
    let commands = 0;
    fc.assert(
      fc.property(stepsOf(ALL), (list) => {
        const start = sampleDesign();
        let design = start;
        const kept = new SceneBuilder(engines.fonts);
        const entries: HistoryEntry[] = [];
        // Twice as many of the new kinds as of the others.
        for (const [kind, ...rest] of list.slice(0, 16)) {
          const result = record(
            design,
            'step',
            recipeOf([kind % 3 ? PLAIN + (kind % (ALL - PLAIN)) : kind % PLAIN, ...rest], design, engines),
          );
          if (!result) continue;
          commands++;
          design = result.design;
          entries.push(result.entry);
          const v = verifyDesign(design);
          if (!v.ok) throw new Error(`${v.where}: ${v.what}`);
          for (const page of design.pages)
            expect(toldOf(kept.build(design, page))).toEqual(
              toldOf(new SceneBuilder(engines.fonts).build(design, page)),
            );
        }
        const end = serializeDesign(design);
        let back = design;
        for (const e of [...entries].reverse()) back = undoEntry(back, e);
        expect(serializeDesign(back)).toBe(serializeDesign(start));
        for (const e of entries) back = redoEntry(back, e);
        expect(serializeDesign(back)).toBe(end);
      }),
      { numRuns: FULL ? 120 : 10, seed: 20261130 },
    );
    measured(
      'random commands of lines, edges, regions and depth among others: undone, redone, scene as built afresh',
      String(commands),
      '≥ 500 in full',
      'a builder that remembers nothing; the bytes of the file',
    );
    if (FULL) expect(commands).toBeGreaterThanOrEqual(500);
  });

  test('the remembered scene equals one built afresh, its groups, masks, effects and findings too', () => {
    let commands = 0;
    fc.assert(
      fc.property(stepsOf(PLAIN), (list) => {
        let design = sampleDesign();
        const kept = new SceneBuilder(engines.fonts);
        for (const step of list.slice(0, 14)) {
          commands++;
          design = record(design, 'step', recipeOf(step, design, engines))?.design ?? design;
          for (const page of design.pages) {
            const fresh = new SceneBuilder(engines.fonts).build(design, page);
            const mine = kept.build(design, page);
            expect(toldOf(mine)).toEqual(toldOf(fresh));
          }
        }
      }),
      { numRuns: FULL ? 180 : 12, seed: 7 },
    );
    measured(
      'random commands after which the remembered scene equals a fresh one, findings included',
      String(commands),
      '≥ 1,000 in full',
      'a builder that remembers nothing',
    );
    if (FULL) expect(commands).toBeGreaterThanOrEqual(1000);
  });

  test('one design gives the very same scene again, until a face of its words arrives', async () => {
    const design = sampleDesign();
    const page = design.pages[0];
    const fonts = new FontBook(engines.env);
    const kept = new SceneBuilder(fonts);
    const first = kept.build(design, page);
    expect(kept.build(design, page)).toBe(first);
    const missing = [...first.root.findings.missingFaces];
    expect(missing.length).toBeGreaterThan(0);
    await fonts.load(missing);
    const then = kept.build(design, page);
    expect([...then.root.findings.missingFaces]).toEqual([]);
    expect(toldOf(then)).toEqual(toldOf(engines.builder.build(design, page)));
    expect(kept.build(design, page)).toBe(then);
  });

  test('showing a move on some nodes only gives the same scene as making it', () => {
    const design = sampleDesign();
    const page = design.pages[0];
    const base = engines.builder.build(design, page);
    const all = Object.values(design.nodes).filter((n) => n.kind !== 'group' && !('story' in n));
    for (const node of all) {
      for (const recipe of [
        (d: Parameters<Recipe>[0]) => moveNodes(d, page, [node.id], 7, -3),
        (d: Parameters<Recipe>[0]) => turnNodes(d, page, [node.id], 20, { x: 50, y: 50 }),
        (d: Parameters<Recipe>[0]) => scaleNodes(d, page, [node.id], scalingAbout(1.5, 0.7, { x: 10, y: 10 })),
      ]) {
        const shown = tryOutOn(design, [node.id], recipe);
        const made = tryOut(design, recipe);
        const patched = engines.builder.patch(base, shown, page, [node.id])!;
        const whole = new SceneBuilder(engines.fonts).build(made, page);
        const plain = (x: typeof whole) =>
          JSON.stringify(leavesOf(x).map((i) => [i.node, i.placed.path, i.inkBounds, i.paint, i.matrix]));
        if (plain(patched) !== plain(whole)) throw new Error(`${node.name} differs`);
      }
      expect(leavesOf(engines.builder.build(design, page))).toEqual(leavesOf(base));
    }
  });

  test('an edit makes only its own items anew', () => {
    const design = demoDesigns()[0].design;
    const before = engines.builder.build(design, design.pages[0]);
    const moon = Object.values(design.nodes).find((n) => n.name === 'Moon')!;
    const next = tryOut(design, (d) => moveNodes(d, design.pages[0], [moon.id], 5, 5));
    const after = engines.builder.build(next, next.pages[0]);
    expect(
      leavesOf(after)
        .filter((item, i) => item !== leavesOf(before)[i])
        .map((i) => i.node),
    ).toEqual([moon.id]);
  });
});

describe('where things are', () => {
  const find = (d: Design, name: string) => Object.values(d.nodes).find((n) => n.name === name)!;
  const boxes = (d: Design) => leavesOf(engines.builder.build(d, d.pages[0])).map((i) => i.inkBounds);

  test('grouping and ungrouping move nothing', () => {
    const design = demoDesigns()[0].design;
    const page = design.pages[0];
    const ids = [find(design, 'Moon').id, find(design, 'Rope').id, find(design, 'Headline').id];
    let group = '';
    const grouped = tryOut(design, (d) => {
      group = groupNodes(d, page, ids, engines.env.newId)!;
    });
    const sorted = (d: Design) =>
      boxes(d)
        .map((b) => [b.x0, b.y0, b.x1, b.y1].map((v) => v.toFixed(6)).join())
        .sort();
    expect(sorted(grouped)).toEqual(sorted(design));
    expect(grouped.pages[0].children[grouped.pages[0].children.length - 2]).toBe(group);
    const turned = tryOut(grouped, (d) => turnNodes(d, grouped.pages[0], [group], 33, { x: 100, y: 100 }));
    const freed = tryOut(turned, (d) => void ungroupNodes(d, turned.pages[0], [group]));
    expect(sorted(freed)).toEqual(sorted(turned));
  });

  test('a resized group takes its children along, turned ones too, and outlines keep their weight', () => {
    const design = sampleDesign();
    const page = design.pages[0];
    const group = find(design, 'All');
    const before = boxIn(design, group.id, [1, 0, 0, 1, 0, 0], engines.fonts);
    const next = tryOut(design, (d) =>
      scaleNodes(d, page, [group.id], scalingAbout(0.5, 0.5, { x: before.x0, y: before.y0 })),
    );
    const after = boxIn(next, group.id, [1, 0, 0, 1, 0, 0], engines.fonts);
    expect(after.x1 - after.x0).toBeCloseTo((before.x1 - before.x0) / 2, 4);
    expect(after.y1 - after.y0).toBeCloseTo((before.y1 - before.y0) / 2, 1);
    const star = find(next, 'Outline pointed');
    expect(star.kind === 'shape' && star.outlines[0].width).toBe(3);
    expect(star.kind === 'shape' && star.width).toBeCloseTo(18, 6);
  });

  test('resizing takes the gradient along and leaves the corners their radius', () => {
    const design = tryOut(sampleDesign(), (d) => {
      const n = Object.values(d.nodes).find((x) => x.name === 'Linear process')!;
      if (n.kind === 'shape') n.knobs = { topLeft: 4 };
    });
    const node = find(design, 'Linear process');
    const next = tryOut(design, (d) => scaleNodes(d, design.pages[0], [node.id], scalingAbout(2, 3, { x: 0, y: 0 })));
    const scaled = find(next, 'Linear process');
    if (scaled.kind !== 'shape' || scaled.fills[0].kind !== 'gradient') throw new Error('not a gradient');
    expect([scaled.width, scaled.height]).toEqual([expect.closeTo(72, 6), expect.closeTo(96, 6)]);
    expect(scaled.fills[0].geometry.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([72, 0, 0, 96, 0, 0]);
    expect(scaled.knobs).toEqual({ topLeft: 4 });
  });

  test('order: to the front, one step, and a group of chosen ones keeps its own order', () => {
    const design = demoDesigns()[0].design;
    const page = design.pages[0];
    const [sky, moon, water] = page.children;
    const front = tryOut(design, (d) => orderNodes(d, page, [sky, moon], 'front'));
    expect(front.pages[0].children.slice(-2)).toEqual([sky, moon]);
    const step = tryOut(design, (d) => orderNodes(d, page, [sky, moon], 'forward'));
    expect(step.pages[0].children.slice(0, 3)).toEqual([water, sky, moon]);
    expect(tryOut(design, (d) => orderNodes(d, page, [sky], 'back'))).toBe(design);
  });

  test('what lies under a point: front first, edge told from inside', () => {
    const design = demoDesigns()[0].design;
    const scene = engines.builder.build(design, design.pages[0]);
    const moon = find(design, 'Moon');
    const box = boxIn(design, moon.id, [1, 0, 0, 1, 0, 0], engines.fonts);
    const mid = { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
    expect(hitAll(scene, mid, 2).map((h) => design.nodes[h.node].name)).toEqual([
      'Moon',
      'Light of the moon',
      'Night sky',
    ]);
    expect(nearEdge(scene, moon.id, mid, 3)).toBe(false);
    expect(nearEdge(scene, moon.id, { x: box.x1, y: mid.y }, 3)).toBe(true);
    expect(nodesIn(scene, { x0: box.x0 - 1, y0: box.y0 - 1, x1: box.x1 + 1, y1: box.y1 + 1 }, true)).toEqual([moon.id]);
  });
});

describe('colour', () => {
  test('a changed swatch changes all its users; a removed one leaves its colour behind', async () => {
    const design = demoDesigns()[0].design;
    const glow = design.swatches.find((s) => s.name === 'Paper Glow')!;
    expect(swatchUsers(design, glow.id)).toBeGreaterThan(5);
    const red = tryOut(design, (d) => recolourSwatch(d, glow.id, { cmyk: [0, 1, 1, 0] }));
    const palette = await prepare(engines, red);
    const headline = Object.values(red.nodes).find((n) => n.name === 'Headline')!;
    const paint = paintAt(red, headline.id, 'letters');
    expect(paint?.kind === 'colour' && palette.mix(paint.colour).slice(0, 4)).toEqual([0, 1, 1, 0]);
    const without = tryOut(design, (d) => removeSwatch(d, glow.id));
    expect(verifyDesign(without).ok).toBe(true);
    const kept = paintAt(without, headline.id, 'letters');
    expect(kept?.kind === 'colour' && kept.colour).toEqual({ cmyk: [0.02, 0.08, 0.34, 0] });
  });

  test('the aim: the fill, the outline, the letters or the frame, and nothing else', () => {
    const design = sampleDesign();
    const body = Object.values(design.nodes).find((n) => n.name === 'Body')!;
    const star = Object.values(design.nodes).find((n) => n.name === 'Outline pointed')!;
    const next = tryOut(design, (d) => {
      setColour(d, [body.id], 'frame', cmyk(0, 0, 50, 0));
      setColour(d, [star.id], 'outline', cmyk(0, 50, 0, 0));
    });
    expect(paintAt(next, body.id, 'frame')).toMatchObject({ kind: 'colour' });
    expect(paintAt(next, body.id, 'letters')).toEqual(paintAt(design, body.id, 'letters'));
    expect(paintAt(next, star.id, 'fill')).toEqual({ kind: 'none' });
    expect(tryOut(design, (d) => setColour(d, [body.id], 'fill', cmyk(1, 1, 1, 1)))).toBe(design);
    expect(
      tryOut(design, (d) => setPaint(d, [star.id], 'outline', () => ({ kind: 'none' }))).nodes[star.id],
    ).toMatchObject({ outlines: [{ paint: { kind: 'none' } }] });
  });

  test('objects go to another design with their swatches and inks, and not twice', () => {
    const from = demoDesigns()[0].design;
    const lantern = Object.values(from.nodes).find((n) => n.name === 'Lantern, middle')!;
    const clip = clipOf(copyNodes(from, from.pages[0], [lantern.id]));
    let to = newDesign('Other', setupOf(300, 300), making);
    for (let i = 0; i < 2; i++)
      to = tryOut(to, (d) => void pasteClip(d, d.pages[0].id, clip, engines.env.newId, translation(0, 0)));
    expect(verifyDesign(to)).toMatchObject({ ok: true });
    expect(to.inks.map((i) => i.name)).toEqual(['Ember 66-43']);
    expect(to.swatches.filter((s) => s.name === 'Ember glow')).toHaveLength(1);
    expect(to.pages[0].children).toHaveLength(2);
    const boxOf = (d: Design, id: string) => boxIn(d, id, [1, 0, 0, 1, 0, 0], engines.fonts);
    expect(boxOf(to, to.pages[0].children[0])).toEqual(boxOf(from, lantern.id));
    for (const bad of ['', '{}', 'null', '{"format":"holvet-clip/3"}', JSON.stringify({ ...clip, roots: ['nowhere'] })])
      expect(parseClip(bad).ok).toBe(false);
    // What it names and does not bring is said.
    const without = (change: object) => parseClip(JSON.stringify({ ...clip, ...change }));
    expect(without({ swatches: [] })).toMatchObject({
      ok: false,
      why: expect.stringMatching(/^“.+”: the (gradient )?swatch .+ is missing\.$/),
    });
    expect(without({ inks: [] })).toMatchObject({ ok: false, why: expect.stringMatching(/the ink .+ is missing/) });
    expect(
      without({
        nodes: Object.fromEntries(
          Object.entries(clip.nodes).map(([k, n]) => [k, { ...n, transform: [1e308, 0, 0, 1, 0, 0] }]),
        ),
      }),
    ).toMatchObject({ ok: false, why: expect.stringMatching(/further than 20 m/) });
  });

  test('the recipe line: a recipe, a list, a screen colour, a part, and what is wrong with the rest', () => {
    const design = demoDesigns()[0].design;
    const names = (text: string) =>
      readRecipes(text, design).map((r) => (r.ok ? [r.recipe.name, r.recipe.colour] : [r.line, r.message]));
    expect(names('Dusk 100 72 8 20')).toEqual([['Dusk', { cmyk: [1, 0.72, 0.08, 0.2] }]]);
    expect(names('100 72 8 20')).toEqual([['C100 M72 Y8 K20', { cmyk: [1, 0.72, 0.08, 0.2] }]]);
    expect(names('Harbour wall C28 M34 Y52 K10')).toEqual([['Harbour wall', { cmyk: [0.28, 0.34, 0.52, 0.1] }]]);
    expect(names('Dawn: 12%, 34%, 0%, 5.5%')).toEqual([['Dawn', { cmyk: [0.12, 0.34, 0, 0.055] }]]);
    expect(names('#0b3a5e\nTide #fc0')).toEqual([
      ['#0b3a5e', { rgb: [11 / 255, 58 / 255, 94 / 255] }],
      ['Tide', { rgb: [1, 0.8, 0] }],
    ]);
    const ember = design.inks[0].id;
    expect(names('Ember 50%')).toEqual([['Ember 66-43 50 %', { ink: ember, tint: 0.5 }]]);
    expect(names('a 1 2 3 4\n\nb 1 2 3 400')).toEqual([
      ['a', { cmyk: [0.01, 0.02, 0.03, 0.04] }],
      [3, '400 is more than 100 %.'],
    ]);
    expect(names('Nowhere 50%')).toEqual([[1, 'There is no swatch called “Nowhere” to take a part of.']]);
    expect(names('what is this')[0][1]).toMatch(/four ink percentages/);
    const added = tryOut(design, (d) =>
      addSwatch(d, { id: 'new1', name: 'Dusk', kind: 'colour', colour: { cmyk: [1, 0.72, 0.08, 0.2] } }),
    );
    expect(verifyDesign(added).ok).toBe(true);
  });
});

describe('gradients', () => {
  const paint: GradientPaint = {
    kind: 'gradient',
    gradient: 'linear',
    ramp: {
      stops: [
        { offset: 0, colour: cmyk(0, 0, 0, 0) },
        { offset: 1, colour: cmyk(100, 0, 0, 0) },
      ],
    },
    geometry: geometryFrom('linear', { x: 10, y: 20 }, { x: 50, y: 20 }),
    overprint: false,
  };
  test('a typed angle turns it about its middle', () => {
    for (const angle of [0, 30, 90, 135, 270]) {
      const turned = withAngle(paint, angle);
      expect(gradientAngle(turned)).toBeCloseTo(angle, 9);
      const [a, b, , , e, f] = turned.geometry;
      expect([e + a / 2, f + b / 2]).toEqual([expect.closeTo(30, 9), expect.closeTo(20, 9)]);
      expect(Math.hypot(a, b)).toBeCloseTo(40, 9);
    }
  });
  test('stops: added, moved between neighbours, reversed, taken out down to two', () => {
    const stops = 'stops' in paint.ramp ? paint.ramp.stops : [];
    const { stops: three, index } = insertStop(stops, 0.3);
    expect([three.map((s) => s.offset), index]).toEqual([[0, 0.3, 1], 1]);
    expect(moveStop(three, 1, 1.7).map((s) => s.offset)).toEqual([0, 1, 1]);
    expect(reverseStops(three).map((s) => s.offset)).toEqual([0, 0.7, 1]);
    expect(removeStop(three, 1)).toEqual(stops);
    expect(removeStop(stops, 0)).toEqual(stops);
  });
});

describe('what moved together', () => {
  const design = () => demoDesigns().find((d) => d.design.pages[0].children.length > 3)!.design;
  test('is told from any other change, and by how much', () => {
    const d = newDesign('Moved', setupOf(100, 100), making);
    const page = d.pages[0];
    const rectangle = (id: string, x: number) => ({
      ...(Object.values(sampleDesign().nodes).find((n) => n.kind === 'shape') as Extract<
        Design['nodes'][string],
        { kind: 'shape' }
      >),
      id,
      transform: [1, 0, 0, 1, x, 5] as const,
    });
    const nodes = { a: rectangle('a', 10), b: rectangle('b', 40) };
    const start: Design = { ...d, nodes, pages: [{ ...page, children: ['a', 'b'] }] };
    const content = (x: Design) => engines.builder.build(x, x.pages[0]).root.content;
    const all = tryOut(start, (draft) => moveNodes(draft, start.pages[0], ['a', 'b'], 7, -3));
    expect(movedBy(content(start), content(all))).toEqual({ x: 7, y: -3 });
    const one = tryOut(start, (draft) => moveNodes(draft, start.pages[0], ['a'], 7, -3));
    expect(movedBy(content(start), content(one))).toBeNull();
    const turned = tryOut(start, (draft) => turnNodes(draft, start.pages[0], ['a', 'b'], 7, { x: 0, y: 0 }));
    expect(movedBy(content(start), content(turned))).toBeNull();
    const coloured = tryOut(all, (draft) => setColour(draft, ['a', 'b'], 'fill', cmyk(1, 2, 3, 4)));
    expect(movedBy(content(start), content(coloured))).toBeNull();
    expect(movedBy(content(design()), content(design()).slice(1))).toBeNull();
  });
});
