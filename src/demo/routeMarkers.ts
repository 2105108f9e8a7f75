import { newDesign, outlineOf, runOf, setupOf, type Making } from '@/core/model/defaults';
import type { Colour, Design } from '@/core/model/schema';
import { DesignBuilder, flat } from './builder';

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

  const stop = (page: number, name: string, ground: Colour, picture: string[]) => {
    const disc = (label: string, inset: number, paint: Parameters<DesignBuilder['shape']>[3]) =>
      b.shape(label, 'ellipse', { x: px(inset), y: px(inset), w: s - 2 * px(inset), h: s - 2 * px(inset) }, paint);
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
        disc('Edge', 10, { outline: outlineOf(flat(glow), px(6)) }),
        b.group('Picture', picture),
        b.displayText('Name', s / 2, px(262), [
          {
            align: 'middle',
            leading: 1,
            runs: [{ ...runOf(name.slice(2), px(28), flat(glow), 'archivo-800'), tracking: 20 }],
          },
        ]),
        b.displayText('Number', s / 2, px(64), [
          { align: 'middle', leading: 1, runs: [runOf(name[0], px(34), flat(glow), 'alfa-slab-400')] },
        ]),
      ],
      name,
    );
  };
  const at = (x: number, y: number, w: number, h: number, turn = 0) => ({
    x: px(x),
    y: px(y),
    w: px(w),
    h: px(h),
    turn,
  });
  const lit = flat(glow);
  stop(0, '1 Quay', night, [
    b.shape('Quay', 'rectangle', at(70, 190, 180, 22), { fill: lit }),
    ...[84, 150, 216].map((x) => b.shape('Post', 'rectangle', at(x, 150, 20, 80), { fill: lit })),
    b.shape('Lantern', 'barrel', at(138, 92, 44, 54), { fill: flat(ember) }),
  ]);
  stop(1, '2 Net loft', tide, [
    b.shape('Roof', 'triangle', at(88, 90, 144, 62), { fill: lit }),
    b.shape('House', 'rectangle', at(104, 152, 112, 66), { fill: lit }),
    b.shape('Door', 'rectangle', at(144, 174, 32, 44), { fill: flat(tide) }),
  ]);
  stop(
    2,
    '3 Bell steps',
    slate,
    [0, 1, 2, 3].map((i) =>
      b.shape(`Step ${i + 1}`, 'rectangle', at(84 + i * 20, 206 - i * 30, 152 - i * 40, 24), { fill: lit }),
    ),
  );
  stop(3, '4 Long bridge', kelp, [
    b.shape('Deck', 'rectangle', at(64, 132, 192, 18), { fill: lit }),
    ...[0, 1, 2].map((i) =>
      b.combination(
        `Arch ${i + 1}`,
        'subtract',
        [
          b.shape('Pier', 'rectangle', at(64 + i * 64, 150, 64, 62), { fill: lit }),
          b.shape('Opening', 'ellipse', at(72 + i * 64, 168, 48, 100), { fill: lit }),
        ],
        { fill: lit },
      ),
    ),
  ]);
  stop(4, '5 Lamp yard', ember, [
    b.shape('Pole', 'rectangle', at(152, 120, 16, 104), { fill: lit }),
    b.shape('Lamp', 'keyhole', at(126, 84, 68, 64), { fill: lit }),
    b.shape('Foot', 'capsule', at(116, 212, 88, 16), { fill: lit }),
  ]);
  stop(5, '6 Harbour light', night, [
    b.shape('Tower', 'trapezium', at(124, 130, 72, 92), { fill: lit }),
    b.shape('Light', 'sun', at(112, 76, 96, 60), { fill: flat(ember) }),
    b.shape('Gallery', 'capsule', at(112, 122, 96, 14), { fill: lit }),
  ]);
  return b.done();
}
