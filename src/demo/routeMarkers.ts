import { newDesign, outlineOf, runOf, setupOf, type Making } from '@/core/model/defaults';
import type { Colour, Design } from '@/core/model/schema';
import { DesignBuilder, flat } from './builder';
import { guildLantern } from './lantern';

/** Pixels of a sign's side; a pixel is three quarters of a point. */
const SIDE = 320;
const px = (v: number) => v * 0.75;

/** Six matching round signs for the walk's web page, a page each, to be handed over one by one as pictures. */
export function routeMarkers(make: Making): Design {
  const s = px(SIDE);
  const base = newDesign('Route markers', setupOf(s, s, { medium: 'screen', unit: 'px', round: true, bleed: 0 }), make);
  const b = new DesignBuilder({ ...base, id: 'route-markers', swatches: [base.swatches[0]] }, make);
  b.swatchGroup('Signs');
  const night = b.light('Night', '#18284f');
  const glow = b.light('Glow', '#ffe6a8');
  const ember = b.light('Ember', '#f0703a');
  const tide = b.light('Tide', '#2f7390');
  const slate = b.light('Slate', '#6a7480');
  const kelp = b.light('Kelp', '#1e6b50');
  const cloth = b.picture({ name: 'Sailcloth', file: 'sailcloth.png', width: 256, height: 256, space: 'gray' });

  /** Where the pictures stand: the horizon of every sign. */
  const floor = 222;
  /** What stands there reaches a little below, so that no seam shows. */
  const sunk = floor + 3;
  const at = (x: number, y: number, w: number, h: number, turn = 0) => ({
    x: px(x),
    y: px(y),
    w: px(w),
    h: px(h),
    turn,
  });
  const lit = { fill: flat(glow) };
  const box = (name: string, x: number, y: number, w: number, h: number, paint = lit) =>
    b.shape(name, 'rectangle', at(x, y, w, h), paint);
  const bar = (name: string, x: number, y: number, w: number, h: number, paint = lit) =>
    b.shape(name, 'capsule', at(x, y, w, h), { ...paint, knobs: { ends: 0.5 } });
  const lantern = (x: number, top: number, size: number, flame: Colour) =>
    guildLantern(b, px(x), px(top), px(size), glow, flame);

  const stop = (page: number, name: string, ground: Colour, picture: string[]) => {
    const disc = (label: string, inset: number, paint: Parameters<DesignBuilder['shape']>[3]) =>
      b.shape(label, 'ellipse', at(inset, inset, SIDE - 2 * inset, SIDE - 2 * inset), paint);
    b.place(
      page,
      [
        b.lock(disc('Ground', 0, { fill: flat(ground) })),
        // The cloth of a sail, faintly, over every sign.
        b.lock(
          b.together(
            disc('Cloth', 0, {
              fill: {
                kind: 'picture',
                picture: cloth,
                tile: 'repeat',
                overprint: false,
                geometry: [px(64), 0, 0, px(64), 0, 0],
              },
            }),
            { blend: 'multiply', opacity: 0.35 },
          ),
        ),
        disc('Edge', 11, { outline: outlineOf(flat(glow), px(6)) }),
        b.combination('Foot', 'intersect', [disc('Round', 11, lit), box('Below', 0, floor, SIDE, SIDE - floor)], lit),
        b.group('Picture', picture),
        b.displayText('Name', s / 2, px(264), [
          {
            align: 'middle',
            leading: 1,
            runs: [
              { ...runOf(name.slice(2), px(name.length > 12 ? 26 : 30), flat(ground), 'archivo-800'), tracking: 10 },
            ],
          },
        ]),
        b.displayText('Number', s / 2, px(82), [
          { align: 'middle', leading: 1, runs: [runOf(name[0], px(62), flat(glow), 'alfa-slab-400')] },
        ]),
      ],
      name,
    );
  };
  stop(0, '1 Quay', night, [
    ...[70, 150, 230].map((x) => box('Pile', x, 184, 20, sunk - 184)),
    box('Quay', 48, 172, 224, 16),
    ...[86, 220].flatMap((x) => [box('Bollard', x + 3, 152, 10, 22), bar('Head', x - 1, 148, 18, 9)]),
    lantern(160, 98, 76, ember),
  ]);
  const dark = { fill: flat(tide) };
  const warm = { fill: flat(ember) };
  stop(1, '2 Net loft', tide, [
    b.shape('Roof', 'triangle', at(84, 98, 152, 58), lit),
    box('House', 98, 154, 124, sunk - 154),
    b.shape('Window', 'ellipse', at(149, 122, 22, 22), dark),
    b.corners(box('Door', 143, 178, 34, floor - 178, dark), { radius: 0, kind: 'round' }),
    box('Beam', 222, 156, 34, 7),
    box('Rope', 247, 163, 3, 16),
    b.shape('Crate', 'rectangle', at(236, 178, 25, 22), warm),
  ]);
  stop(2, '3 Bell steps', slate, [
    ...[0, 1, 2, 3].map((i) =>
      box(`Step ${i + 1}`, 74 + i * 34, floor - 16 * (i + 1), i === 3 ? 72 : 34.5, 16 * (i + 1) + 3),
    ),
    ...[182, 232].map((x) => box('Post', x, 108, 8, 52)),
    bar('Beam', 174, 102, 74, 9),
    b.shape('Bell', 'trapezium', at(197, 114, 28, 26), { fill: flat(glow), knobs: { inset: 0.22 } }),
    bar('Lip', 192, 137, 38, 7),
    b.shape('Clapper', 'ellipse', at(206, 144, 10, 10), warm),
  ]);
  const arch = (x: number) => b.shape('Arch', 'ellipse', at(x, 168, 56, 108), lit);
  stop(3, '4 Long bridge', kelp, [
    b.combination('Bridge', 'subtract', [box('Stone', 40, 148, 240, sunk - 148), ...[58, 132, 206].map(arch)], lit),
    ...[88, 160, 232].flatMap((x) => [
      box('Post', x - 2.5, 122, 5, 27),
      b.shape('Lamp', 'ellipse', at(x - 8, 108, 16, 16), warm),
    ]),
  ]);
  stop(4, '5 Lamp yard', ember, [
    box('Pole', 155, 104, 10, sunk - 104),
    bar('Arm', 96, 104, 128, 9),
    bar('Step', 128, 212, 64, 10),
    lantern(112, 113, 72, night),
    lantern(208, 113, 72, night),
  ]);
  stop(5, '6 Harbour light', night, [
    ...[-1, 1].map((side) =>
      b.shape('Beam', 'triangle', at(side < 0 ? 84 : 208, 88, 28, 68, side < 0 ? 90 : -90), {
        fill: flat(ember),
      }),
    ),
    b.combination(
      'Tower',
      'subtract',
      [
        b.shape('Walls', 'trapezium', at(124, 140, 72, sunk - 140), { ...lit, knobs: { inset: 0.16 } }),
        box('Stripe', 120, 172, 80, 15),
      ],
      lit,
    ),
    bar('Gallery', 120, 134, 80, 10),
    box('Lamp room', 144, 108, 32, 28, { fill: flat(ember) }),
    b.shape('Roof', 'trapezium', at(138, 96, 44, 13), { fill: flat(glow), knobs: { inset: 0.3 } }),
  ]);
  return b.done();
}
