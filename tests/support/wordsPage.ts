import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { putOnCircle, putOnOutline, setAlong, setBend } from '@/core/edit/display';
import { tryOut } from '@/core/edit/history';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import type { Design, Page, Paint, Picture, Run } from '@/core/model/schema';
import { BENDS } from '@/core/model/textSchema';
import type { Engines } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { cmyk, making } from './sample';

/** What the words of the page are set in, by name. */
const SET: readonly (readonly [string, Partial<Run>])[] = [
  ['raised', { position: 'super' }],
  ['lowered', { position: 'sub' }],
  ['shifted', { baselineShift: 4 }],
  ['capitals', { case: 'capitals' }],
  ['small', { case: 'smallCapitals' }],
  ['under', { underline: true }],
  ['struck', { strike: true }],
  ['tracked', { tracking: 120 }],
  ['unkerned', { kerning: false, ligatures: false }],
  ['figures 123', { features: { onum: 1 } }],
];

/**
 * A page on which every way to set letters meets every paint, in a frame, on a circle, on an outline and bent; in the
 * design's unit square of `engines`' faces, which must be loaded.
 */
export function wordsPage(
  engines: Engines,
  picture?: Omit<Picture, 'id'>,
): { readonly design: Design; readonly words: readonly string[] } {
  const b = new DesignBuilder(newDesign('Words', setupOf(620, 860, { bleed: 9 }), making), making);
  const photo = picture && b.picture(picture);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const ramp = (matrix: readonly number[], more = {}): Paint => ({
    kind: 'gradient',
    gradient: 'linear',
    ramp: {
      stops: [
        { offset: 0, colour: cmyk(90, 10, 0, 0) },
        { offset: 1, colour: cmyk(0, 80, 60, 0) },
      ],
    },
    geometry: matrix as never,
    overprint: false,
    ...more,
  });
  const paints: readonly (readonly [string, Paint])[] = [
    ['black', flat(cmyk(0, 0, 0, 100))],
    ['over', flat(cmyk(0, 90, 40, 0), true)],
    ['ember', flat(ember)],
    ['ramp', ramp([230, 0, 0, 1, 0, 0])],
    ['each', ramp([1, 0, 0, 1, 0, 0], { eachLetter: true })],
    ...(photo
      ? ([['boats', { kind: 'picture', picture: photo, geometry: [190, 0, 0, 150, 0, 0], overprint: false }]] as const)
      : []),
  ];
  const framed = paints.filter(([name]) => name !== 'each');
  const ground = b.shape('Ground', 'rectangle', { x: 0, y: 0, w: 620, h: 330 }, { fill: flat(cmyk(25, 0, 0, 0)) });
  // A gradient to each of such small letters has no two pixels alike.
  const frames = framed.map(([name, fill], i) =>
    b.textFrame(name, { x: 16 + (i % 3) * 200, y: 14 + Math.floor(i / 3) * 160, w: 188, h: 150 }, [
      {
        align: 'full',
        leading: { points: 17 },
        spaceAfter: 3,
        indentFirst: 10,
        runs: SET.map(([word, set], k) => ({
          ...runOf(`${name}${word} `, 12, fill, k % 2 ? 'eb-garamond-600' : 'archivo-800'),
          ...set,
        })),
      },
    ]),
  );
  const display = (
    name: string,
    x: number,
    y: number,
    size: number,
    face: string,
    fill: Paint,
    more: Partial<Run> = {},
  ) =>
    b.displayText(name, x, y, [{ align: 'left', leading: 1.1, runs: [{ ...runOf(name, size, fill, face), ...more }] }]);
  const circles = paints.map(([name, fill], i) =>
    display(`Round${name}`, 20 + (i % 3) * 200, 370 + Math.floor(i / 3) * 90, 26, 'alfa-slab-400', fill, {
      underline: i === 1,
      ...(i === 2 && { outline: outlineOf(flat(cmyk(100, 0, 0, 0)), 2.5) }),
    }),
  );
  const oval = b.shape(
    'Oval',
    'ellipse',
    { x: 440, y: 430, w: 150, h: 80 },
    { outline: outlineOf(flat(cmyk(0, 0, 0, 60)), 3) },
  );
  const on = display('Along the oval', 440, 400, 15, 'bitter-500', flat(ember, true));
  const bent = BENDS.map((kind, i) =>
    display(
      `Bent${kind}`,
      24 + (i % 3) * 200,
      600 + Math.floor(i / 3) * 90,
      40,
      i % 2 ? 'anton-400' : 'cinzel-600',
      paints[i % paints.length][1],
      {
        ...(i === 3 && { outline: outlineOf(flat(ember), 2.5) }),
        ...(i === 4 && { underline: true }),
      },
    ),
  );
  b.place(0, [ground, ...frames, ...circles, oval, on, ...bent]);
  const { fonts } = engines;
  let d = b.done();
  const page = d.pages[0] as Page;
  d = tryOut(d, (x) => circles.forEach((id) => putOnCircle(x, id, fonts)));
  d = tryOut(d, (x) => {
    setAlong(x, [circles[3]], { reversed: true, at: 0.5, touches: 'heads' });
    setAlong(x, [circles[4]], { upright: true, distance: 4 });
    putOnOutline(x, page, on, oval);
    BENDS.forEach((kind, i) => setBend(x, [bent[i]], { kind, strength: i % 2 ? -0.3 : 0.35, tiltX: i % 3 ? 0 : 0.3 }));
  });
  return {
    design: d,
    words: [
      ...framed.flatMap(([name]) => SET.map(([word]) => `${name}${word.split(' ')[0]}`)),
      ...paints.map(([name]) => `Round${name}`),
      'Along the oval',
      ...BENDS.map((k) => `Bent${k}`),
    ],
  };
}
