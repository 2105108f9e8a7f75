import { tinted } from '@/core/colour/tints';
import { hexOf } from '@/core/colour/spaces';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { record, type DesignDraft } from '@/core/edit/history';
import { overprintAfter, setColour } from '@/core/edit/paint';
import * as S from '@/core/edit/swatches';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Colour, Design, Swatch } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { pagePlates } from '@/core/output/png';
import { prepare, type Engines } from '@/core/engines';
import { DesignBuilder, flat, tint } from '@/demo/builder';
import { demoDesigns } from '@/demo/demos';
import { cmyk, linear, making } from '../support/sample';
import { random } from '../support/random';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

/** Two of a colour, a tint of one, a ramp through both, a spot, one that nothing uses. */
function shopWindow() {
  const b = new DesignBuilder(newDesign('Swatches', setupOf(120, 80), making), making);
  const dusk = b.recipe('Dusk', 100, 72, 8, 20);
  const again = b.recipe('Dusk again', 100, 72, 8, 20);
  const tide = b.recipe('Tide', 82, 46, 22, 6);
  const ember = b.spot(SPOT_LIBRARY[0]);
  b.recipe('Unused', 0, 0, 0, 30);
  const night = b.ramp('Night', [
    { offset: 0, colour: again },
    { offset: 1, colour: tint(tide, 0.5) },
  ]);
  const boxes = [
    flat(dusk),
    flat(tint(again, 0.4)),
    flat(tide),
    flat(ember),
    linear(
      [
        { offset: 0, colour: again },
        { offset: 1, colour: ember },
      ],
      [20, 0, 0, 20, 0, 0],
    ),
  ].map((fill, i) => b.shape(`Box ${i}`, 'rectangle', { x: 2 + i * 22, y: 10, w: 20, h: 20 }, { fill }));
  b.place(0, [
    ...boxes,
    b.shape(
      'Ramp',
      'rectangle',
      { x: 2, y: 40, w: 100, h: 20 },
      {
        fill: {
          kind: 'gradient',
          gradient: 'linear',
          ramp: { swatch: night },
          geometry: [100, 0, 0, 100, 0, 0],
          overprint: false,
        },
      },
    ),
  ]);
  return b.done();
}
const change = (d: Design, recipe: (d: DesignDraft) => void): Design => {
  const made = record(d, 'x', recipe);
  if (!made) return d;
  const sound = verifyDesign(made.design);
  if (!sound.ok) throw new Error(`${sound.where}: ${sound.what}`);
  return made.design;
};
const named = (d: Design, name: string): Swatch => d.swatches.find((s) => s.name === name)!;
const names = (d: Design) => d.swatches.map((s) => s.name);
async function plates(d: Design) {
  return pagePlates(engines.builder.build(d, d.pages[0]), await prepare(engines, d), 72);
}

describe('users', () => {
  test('are counted through fills, tints, ramps and gradients of an object', () => {
    const d = shopWindow();
    const users = S.usersOfSwatches(d);
    expect(['Dusk', 'Dusk again', 'Tide', 'Night', 'Unused'].map((n) => users.get(named(d, n).id) ?? 0)).toEqual([
      1, 3, 2, 1, 0,
    ]);
  });

  test('all follow when one swatch takes the place of another; the first is gone', async () => {
    const d = shopWindow();
    const [again, tide] = [named(d, 'Dusk again').id, named(d, 'Tide').id];
    const next = change(d, (x) => void S.replaceSwatch(x, again, tide));
    expect(names(next)).not.toContain('Dusk again');
    expect(S.swatchUsers(next, tide)).toBe(5);
    const palette = await prepare(engines, next);
    const box = Object.values(next.nodes).find((n) => n.name === 'Box 1')!;
    // A tint stays a tint, of the new one.
    expect('fills' in box && box.fills[0].kind === 'colour' && palette.mix(box.fills[0].colour)[0]).toBeCloseTo(
      0.82 * 0.4,
      9,
    );
  });

  test('a colour cannot take the place of a ramp, nor a swatch its own', () => {
    const d = shopWindow();
    let answers: boolean[] = [];
    const next = change(d, (x) => {
      answers = [
        S.replaceSwatch(x, named(d, 'Night').id, named(d, 'Tide').id),
        S.replaceSwatch(x, named(d, 'Tide').id, named(d, 'Tide').id),
        S.replaceSwatch(x, 'none', named(d, 'Tide').id),
      ];
    });
    expect(answers).toEqual([false, false, false]);
    expect(next).toBe(d);
  });
});

describe('tidying never changes a plate', () => {
  test('duplicates become one, with the name of the first', async () => {
    const d = shopWindow();
    let gone = 0;
    const next = change(d, (x) => void (gone = S.mergeDuplicates(x)));
    expect(gone).toBe(1);
    expect(names(next)).not.toContain('Dusk again');
    expect((await plates(next)).data).toEqual((await plates(d)).data);
  });

  test('what nothing uses goes, inks left over too', async () => {
    const d = change(shopWindow(), (x) => void S.addSpot(x, SPOT_LIBRARY[4], making.newId));
    expect(d.inks).toHaveLength(2);
    let gone = 0;
    const next = change(d, (x) => void (gone = S.removeUnused(x)));
    expect(gone).toBe(4); // Unused, the second spot, Bare stock, Black
    expect(next.inks.map((i) => i.name)).toEqual(['Ember 66-43']);
    const [a, b] = [await plates(next), await plates(d)];
    expect(a.data).toEqual(b.data.slice(0, a.data.length));
  });

  test('any order of merging, removing and sorting leaves the poster’s plates as they are', async () => {
    const poster = demoDesigns()[0].design;
    const palette = await prepare(engines, poster);
    const next = random(9);
    const small = async (d: Design) =>
      pagePlates(engines.builder.build(d, d.pages[0]), await prepare(engines, d), 12).data;
    const before = await small(poster);
    for (let round = 0; round < (process.env.HOLVET_FULL ? 6 : 1); round++) {
      let d = poster;
      for (let k = 0; k < 4; k++) {
        const r = next();
        d = change(d, (x) => {
          if (r < 0.3) S.mergeDuplicates(x);
          else if (r < 0.5) S.removeUnused(x);
          else if (r < 0.7) S.sortSwatches(x, (s) => s.name);
          else if (r < 0.85)
            S.sortSwatches(x, (s) => (s.kind === 'colour' ? palette.totalInk({ swatch: s.id, tint: 1 }) : 0));
          else S.removeSwatch(x, d.swatches[Math.floor(next() * d.swatches.length)].id);
        });
      }
      expect(await small(d)).toEqual(before);
    }
  });
});

describe('order and groups', () => {
  test('sorting is stable, numbers in names count as numbers, ramps come last', () => {
    const d = change(shopWindow(), (x) => {
      for (const n of ['Tone 10', 'Tone 9'])
        S.addSwatch(x, { id: making.newId(), name: n, kind: 'colour', colour: { gray: 0.5 } });
      S.sortSwatches(x, (s) => s.name);
    });
    expect(names(d)).toEqual([
      'Bare stock',
      'Black',
      'Dusk',
      'Dusk again',
      'Ember 66-43',
      'Tide',
      'Tone 9',
      'Tone 10',
      'Unused',
      'Night',
    ]);
  });

  test('groups show in the order they first appear, the ungrouped first; renaming and dissolving', () => {
    let d = shopWindow();
    d = change(d, (x) => {
      S.groupSwatches(x, [named(d, 'Tide').id, named(d, 'Dusk').id], 'Water');
      S.groupSwatches(x, [named(d, 'Night').id], 'Sky');
    });
    const shown = (x: Design) =>
      S.swatchGroups(x.swatches).map((g) => `${g.name}: ${g.swatches.map((s) => s.name).join(', ')}`);
    expect(shown(d)).toEqual([
      'null: Bare stock, Black, Dusk again, Ember 66-43, Unused',
      'Water: Dusk, Tide',
      'Sky: Night',
    ]);
    d = change(d, (x) => S.renameGroup(x, 'Water', 'Quay'));
    d = change(d, (x) => S.groupSwatches(x, [named(d, 'Night').id], null));
    expect(shown(d).slice(1)).toEqual(['Quay: Dusk, Tide']);
  });

  test('one step along the tray, into a group and out of it again', () => {
    let d = shopWindow();
    d = change(d, (x) => S.groupSwatches(x, [named(d, 'Tide').id, named(d, 'Ember 66-43').id], 'Quay'));
    const order = () =>
      S.swatchGroups(d.swatches)
        .flatMap((g) => g.swatches.map((s) => s.name))
        .join(' ');
    const start = order();
    d = change(d, (x) => S.stepSwatch(x, named(d, 'Black').id, 1));
    expect(order().startsWith('Bare stock Dusk Black')).toBe(true);
    d = change(d, (x) => S.stepSwatch(x, named(d, 'Black').id, -1));
    expect(order()).toBe(start);
    d = change(d, (x) => S.stepSwatch(x, named(d, 'Night').id, 1));
    expect(named(d, 'Night').group).toBe('Quay');
    d = change(d, (x) => S.moveSwatch(x, named(d, 'Night').id, named(d, 'Black').id));
    expect(named(d, 'Night').group).toBeUndefined();
    expect(change(d, (x) => S.stepSwatch(x, named(d, 'Bare stock').id, -1))).toBe(d);
  });
});

describe('names and kinds', () => {
  test.each<[string, Colour & { swatch?: never }, Colour & { swatch?: never }, string]>([
    ['C100 M72 Y8 K20', { cmyk: [1, 0.72, 0.08, 0.2] }, { cmyk: [1, 0.7, 0, 0] }, 'C100 M70'],
    ['#0b3a5e', { rgb: [11 / 255, 58 / 255, 94 / 255] }, { cmyk: [0, 0, 0, 0.5] }, 'K50'],
    ['Lab 62 4 18', { lab: [62, 4, 18] }, { lab: [60, 4, 18] }, 'Lab 60 4 18'],
    ['Quay', { cmyk: [1, 0, 0, 0] }, { rgb: [1, 0, 0] }, 'Quay'],
  ])('a name made of numbers follows them: “%s”', (name, from, to, then) => {
    const d = change(shopWindow(), (x) => S.addSwatch(x, { id: 'x', name, kind: 'colour', colour: from as never }));
    expect(change(d, (x) => S.recolourSwatch(x, 'x', to as never)).swatches.find((s) => s.id === 'x')!.name).toBe(then);
  });

  test('a process colour becomes an ink with its recipe as stand-in, and comes back the same', async () => {
    const d = shopWindow();
    const tide = named(d, 'Tide').id;
    const palette = await prepare(engines, d);
    const spot = change(d, (x) =>
      S.makeSpot(
        x,
        tide,
        { lab: palette.wantedLab({ cmyk: [0.82, 0.46, 0.22, 0.06] }), alternate: [0.82, 0.46, 0.22, 0.06] },
        making.newId,
      ),
    );
    expect(spot.inks.map((i) => i.name)).toEqual(['Ember 66-43', 'Tide']);
    const [a, b] = [await plates(spot), await plates(d)];
    expect(a.channels).toContain('Tide');
    expect(a.data[0]).not.toEqual(b.data[0]);
    const back = change(spot, (x) => S.makeProcess(x, tide));
    expect(back.inks).toEqual(d.inks);
    expect((await plates(back)).data).toEqual(b.data);
  });

  test('a tin and its ink share a name; another ink’s name is left to it', () => {
    const d = change(shopWindow(), (x) => void S.addSpot(x, SPOT_LIBRARY[1], making.newId));
    const renamed = change(d, (x) => S.renameSwatch(x, named(d, 'Ember 66-43').id, 'Glow'));
    expect(renamed.inks.map((i) => i.name)).toEqual(['Glow', 'Kelp 38-167']);
    const clash = change(d, (x) => S.renameSwatch(x, named(d, 'Ember 66-43').id, 'kelp 38-167'));
    expect(clash.inks.map((i) => i.name)).toEqual(['Ember 66-43', 'Kelp 38-167']);
  });

  test('tints grow lighter, shades darker', async () => {
    const palette = await prepare(engines, shopWindow());
    const light = (c: Colour) => palette.labOf(c)[0];
    for (const c of [
      { cmyk: [0.8, 0.4, 0.2, 0.1] as const },
      { rgb: [0.2, 0.4, 0.7] as const },
      { lab: [50, 20, -30] as const },
      { gray: 0.5 },
    ]) {
      expect(light(tinted(c, 0.5))).toBeGreaterThan(light(c));
      expect(light(S.shaded(c, 0.4)!)).toBeLessThan(light(c));
    }
    expect(S.shaded({ ink: 'any', tint: 1 }, 0.2)).toBeNull();
  });
});

describe('inks', () => {
  const ink = (d: Design) => d.inks[0];
  test('printed as its stand-in an ink has no plate: its recipe is on the others', async () => {
    const d = change(shopWindow(), (x) => S.setInk(x, x.inks[0].id, { asStandIn: true }));
    const palette = await prepare(engines, d);
    expect(palette.channels).toEqual(['Cyan', 'Magenta', 'Yellow', 'Black']);
    expect(palette.mix({ ink: ink(d).id, tint: 0.5 })).toEqual([0, 0.34, 0.44, 0]);
    expect(palette.processOf({ ink: ink(d).id, tint: 1 })).toEqual([0, 0.68, 0.88, 0]);
    const off = change(d, (x) => S.setInk(x, x.inks[0].id, { asStandIn: false }));
    expect(off.inks[0]).toEqual(shopWindowInk());
  });
  const shopWindowInk = () => ({ ...SPOT_LIBRARY[0], id: expect.any(String) });

  test('another stand-in, another order', async () => {
    let d = change(shopWindow(), (x) => void S.addSpot(x, SPOT_LIBRARY[1], making.newId));
    d = change(d, (x) => S.moveInk(x, x.inks[1].id, -1));
    expect((await prepare(engines, d)).channels.slice(4)).toEqual(['Kelp 38-167', 'Ember 66-43']);
    expect(change(d, (x) => S.moveInk(x, x.inks[0].id, -1))).toBe(d);
    d = change(d, (x) => S.setStandIn(x, x.inks[0].id, [1, 0, 1, 0]));
    expect(d.inks[0].alternate).toEqual([1, 0, 1, 0]);
  });

  test('what is given an ink that overprints by default overprints; a switch it brought goes with it, the person’s stays', () => {
    const d = change(shopWindow(), (x) => S.setInk(x, x.inks[0].id, { overprints: true }));
    const ember: Colour = { swatch: named(d, 'Ember 66-43').id, tint: 1 };
    const tide: Colour = { swatch: named(d, 'Tide').id, tint: 1 };
    const box = Object.values(d.nodes).find((n) => n.name === 'Box 0')!.id;
    const over = (x: Design) => {
      const n = x.nodes[box];
      return 'fills' in n && n.fills[0].kind === 'colour' && n.fills[0].overprint;
    };
    const given = change(d, (x) => setColour(x, [box], 'fill', ember));
    expect(over(given)).toBe(true);
    expect(over(change(given, (x) => setColour(x, [box], 'fill', tide)))).toBe(false);
    expect(overprintAfter(d, { kind: 'colour', colour: tide, overprint: true }, cmyk(0, 0, 0, 100))).toBe(true);
    expect(overprintAfter(d, { kind: 'none' }, tide)).toBe(false);
  });

  test('an opaque ink hides what lies below it, and on bare paper looks like any other', async () => {
    const d = shopWindow();
    const clear = await prepare(engines, d);
    const opaque = await prepare(
      engines,
      change(d, (x) => S.setInk(x, x.inks[0].id, { opaque: true })),
    );
    const alone = [0, 0, 0, 0, 1];
    const over = [1, 0.72, 0.08, 0.2, 1];
    expect(hexOf(opaque.lookOfMix(alone))).toBe(hexOf(clear.lookOfMix(alone)));
    expect(hexOf(opaque.lookOfMix(over))).toBe(hexOf(opaque.lookOfMix(alone)));
    expect(clear.labOfMix(over)[0]).toBeLessThan(clear.labOfMix(alone)[0]);
    // Half of it lies between what is below and the ink, for the swatch and for the plates alike.
    const half = [1, 0.72, 0.08, 0.2, 0.5];
    const [lo, mid, hi] = [[1, 0.72, 0.08, 0.2, 0], half, over].map((m) => opaque.labOfMix(m)[0]);
    expect(mid).toBeGreaterThan(lo);
    expect(mid).toBeLessThan(hi);
    const out = new Uint8ClampedArray(4);
    opaque.press.composite(
      half.map((v) => Uint8Array.of(Math.round(v * 255))),
      opaque.spotInks,
      1,
      out,
    );
    opaque
      .lookOfMix(half.map((v) => Math.round(v * 255) / 255))
      .forEach((v, j) => expect(Math.abs(v * 255 - out[j])).toBeLessThan(1.01));
  });

  test('an opaque white is white over everything', async () => {
    const b = new DesignBuilder(newDesign('White', setupOf(50, 50), making), making);
    b.spot({ name: 'White', lab: [100, 0, 0], alternate: [0, 0, 0, 0], opaque: true });
    const palette = await prepare(engines, b.done());
    expect(hexOf(palette.lookOfMix([1, 1, 0, 1, 1]))).toBe(hexOf(palette.lookOfMix([0, 0, 0, 0, 0])));
    expect(palette.labOfMix([1, 1, 0, 1, 0.5])[0]).toBeGreaterThan(palette.labOfMix([1, 1, 0, 1, 0])[0] + 10);
  });
});
