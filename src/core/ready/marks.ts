import { CLOSE, LINE, MOVE } from '../geometry/path';
import type { ReadyKit } from './kit';
import { countDial, family } from './types';

/** A mark of about a third of the page, in its middle. */
const radius = (k: ReadyKit): number => Math.min(k.wide, k.high) * 0.19;
const disc = (k: ReadyKit, name: string, r: number, fill: ReadyKit['colours']['dark']) =>
  k.shape(name, 'ellipse', { x: k.middle.x - r, y: k.middle.y - r, w: 2 * r, h: 2 * r }, { fill });
const square = (k: ReadyKit, r: number) => ({ x: k.middle.x - r, y: k.middle.y - r, w: 2 * r, h: 2 * r });
const inMiddle = (k: ReadyKit, words: readonly string[], size: number, colour = k.colours.light) =>
  k.text('Words', k.middle.x, k.middle.y + size * 0.36 - (words.length - 1) * size * 0.55, words, {
    as: 'title',
    size,
    colour,
    align: 'middle',
    leading: 1.1,
  });
/** Words on a circle about the middle, above or below, both upright. */
const onCircle = (k: ReadyKit, words: string, r: number, below = false) =>
  k.text(
    below ? 'Words below' : 'Words above',
    k.middle.x,
    k.middle.y,
    words,
    { size: r * 0.2, colour: k.colours.light, align: 'middle', tracking: 90, capitals: true },
    { line: { radius: r }, at: below ? 0.5 : 0, ...(below && { reversed: true }), touches: 'middle' },
  );

export const SEALS = family('Seals', [
  [
    'seal-scalloped',
    'Scalloped seal',
    ['badge', 'medal', 'award', 'quality'],
    (k, v) => {
      const r = radius(k);
      return [
        k.shape('Scallops', 'seal', square(k, r), { fill: k.colours.accent, knobs: { scallops: v.count } }),
        disc(k, 'Ring', r * 0.78, k.colours.light),
        disc(k, 'Middle', r * 0.74, k.colours.accent),
        inMiddle(k, ['Made', 'by hand'], r * 0.34),
      ];
    },
    [countDial('Scallops', 24, 6, 80)],
  ],
  [
    'seal-sharp',
    'Sharp seal',
    ['badge', 'burst', 'offer', 'starburst'],
    (k, v) => {
      const r = radius(k);
      return [
        k.shape('Points', 'star', square(k, r), { fill: k.colours.accent, knobs: { points: v.count, depth: 0.16 } }),
        inMiddle(k, ['New'], r * 0.56),
      ];
    },
    [countDial('Points', 20, 6, 80)],
  ],
  [
    'seal-words',
    'Ring of words',
    ['badge', 'stamp', 'round', 'circle'],
    (k) => {
      const r = radius(k);
      return [
        disc(k, 'Ground', r, k.colours.dark),
        disc(k, 'Ring', r * 0.66, k.colours.light),
        disc(k, 'Middle', r * 0.62, k.colours.accent),
        onCircle(k, 'Marrowick Lantern Guild', r * 0.83),
        onCircle(k, 'since the first lamp', r * 0.83, true),
        inMiddle(k, ['1'], r * 0.7),
      ];
    },
  ],
  [
    'seal-rosette',
    'Rosette',
    ['badge', 'award', 'prize', 'winner', 'ribbon'],
    (k) => {
      const r = radius(k) * 0.82;
      const tail = (name: string, turn: number) =>
        k.turned(
          name,
          [
            k.shape(
              'Tail',
              'pennant',
              { x: k.middle.x, y: k.middle.y - r * 0.3, w: r * 1.75, h: r * 0.6 },
              { fill: k.colours.dark },
            ),
          ],
          turn,
          k.middle,
        );
      return [
        tail('Left tail', 112),
        tail('Right tail', 68),
        k.shape('Rosette', 'seal', square(k, r), { fill: k.colours.accent, knobs: { scallops: 20 } }),
        disc(k, 'Middle', r * 0.7, k.colours.light),
        inMiddle(k, ['1st'], r * 0.52, k.colours.dark),
      ];
    },
  ],
  [
    'seal-sun',
    'Sun',
    ['badge', 'rays', 'sunburst'],
    (k, v) => {
      const r = radius(k);
      return [
        k.shape('Rays', 'sun', square(k, r), { fill: k.colours.accent, knobs: { rays: v.count } }),
        inMiddle(k, ['Open'], r * 0.26, k.colours.dark),
      ];
    },
    [countDial('Rays', 16, 4, 60)],
  ],
  [
    'seal-rings',
    'Double ring',
    ['badge', 'stamp', 'outline', 'monogram'],
    (k) => {
      const r = radius(k);
      return [
        k.shape('Outer ring', 'ellipse', square(k, r), { line: k.colours.dark, width: r * 0.06 }),
        k.shape('Inner ring', 'ellipse', square(k, r * 0.88), { line: k.colours.dark, width: r * 0.02 }),
        inMiddle(k, ['ML'], r * 0.8, k.colours.dark),
      ];
    },
  ],
  [
    'seal-shield',
    'Shield',
    ['badge', 'arms', 'crest'],
    (k) => {
      const r = radius(k);
      return [
        k.shape(
          'Shield',
          'shield',
          { ...square(k, r), x: k.middle.x - r * 0.85, w: r * 1.7 },
          { fill: k.colours.dark },
        ),
        k.shape(
          'Star',
          'star',
          { x: k.middle.x - r * 0.35, y: k.middle.y - r * 0.55, w: r * 0.7, h: r * 0.7 },
          { fill: k.colours.accent },
        ),
      ];
    },
  ],
]);

const PRICE = '6.50';
export const PRICE_TAGS = family('Price tags', [
  [
    'tag-round',
    'Round price',
    ['offer', 'sale', 'cost', 'circle'],
    (k) => {
      const r = radius(k);
      return [
        disc(k, 'Ground', r, k.colours.accent),
        k.text('Only', k.middle.x, k.middle.y - r * 0.34, 'only', {
          size: r * 0.26,
          colour: k.colours.light,
          align: 'middle',
        }),
        inMiddle(k, [PRICE], r * 0.66),
      ];
    },
  ],
  [
    'tag-hung',
    'Hung tag',
    ['label', 'sale', 'string', 'hole'],
    (k) => {
      const [w, h] = [radius(k) * 2.2, radius(k) * 1.15];
      const [x, y] = [k.middle.x - w / 2, k.middle.y - h / 2];
      return [
        k.shape('Tag', 'tag', { x, y, w, h }, { fill: k.colours.accent }),
        k.text('Price', k.middle.x + w * 0.08, k.middle.y + h * 0.19, PRICE, {
          as: 'title',
          size: h * 0.52,
          colour: k.colours.light,
          align: 'middle',
        }),
      ];
    },
  ],
  [
    'tag-burst',
    'Burst',
    ['offer', 'sale', 'flash', 'explosion'],
    (k) => {
      const r = radius(k);
      return [
        k.shape('Burst', 'star', square(k, r), { fill: k.colours.accent, knobs: { points: 14, depth: 0.22 } }),
        inMiddle(k, [PRICE], r * 0.5),
      ];
    },
  ],
  [
    'tag-strip',
    'Price strip',
    ['banner', 'label', 'bar'],
    (k) => {
      const [w, h] = [radius(k) * 3, radius(k) * 0.8];
      const [x, y] = [k.middle.x - w / 2, k.middle.y - h / 2];
      const at = k.middle.y + h * 0.17;
      return [
        k.shape('Strip', 'rectangle', { x, y, w, h }, { fill: k.colours.dark }),
        k.shape('End', 'rectangle', { x: x + w * 0.58, y, w: w * 0.42, h }, { fill: k.colours.accent }),
        k.text('What', x + h * 0.3, at, 'Fish stew', { size: h * 0.4, colour: k.colours.light }),
        k.text('Price', x + w * 0.79, at, PRICE, {
          as: 'title',
          size: h * 0.5,
          colour: k.colours.light,
          align: 'middle',
        }),
      ];
    },
  ],
  [
    'tag-before',
    'Was and now',
    ['sale', 'discount', 'reduced', 'crossed out'],
    (k) => {
      const r = radius(k);
      const { x, y } = k.middle;
      return [
        k.text('Was', x, y - r * 0.25, '9.00', { size: r * 0.36, colour: k.colours.middle, align: 'middle' }),
        k.rule('Struck', x - r * 0.45, y - r * 0.37, r * 0.9, r * 0.04, k.colours.accent),
        k.text('Now', x, y + r * 0.5, PRICE, { as: 'title', size: r * 0.8, colour: k.colours.accent, align: 'middle' }),
      ];
    },
  ],
  [
    'tag-corner',
    'Corner flash',
    ['sale', 'offer', 'sash', 'new'],
    (k) => {
      const s = k.u * 34;
      const { x1 } = k.page;
      const b = k.bleed;
      return [
        k.path('Flash', [MOVE, x1 - s, -b, LINE, x1 + b, -b, LINE, x1 + b, s, CLOSE], { fill: k.colours.accent }),
        k.turned(
          'Words',
          [
            k.text('Offer', x1 - s * 0.33, s * 0.33, 'New', {
              as: 'title',
              size: s * 0.2,
              colour: k.colours.light,
              align: 'middle',
            }),
          ],
          45,
          { x: x1 - s * 0.33, y: s * 0.33 },
        ),
      ];
    },
  ],
]);
