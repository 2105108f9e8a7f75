import type { ReadyKit } from './kit';
import { family } from './types';

const HEADLINE = 'Lantern Walk';
const LABEL = 'Marrowick quays, from dusk';

/** Where the foot of a headline stands: in the upper third. */
const foot = (k: ReadyKit): number => k.box.y0 + k.high * 0.28;
/** So large that the headline takes about three quarters of the page between its margins. */
const large = (k: ReadyKit): number => k.wide * 0.125;
const title = (
  k: ReadyKit,
  x: number,
  y: number,
  size = large(k),
  align: 'left' | 'middle' = 'middle',
  light = false,
) =>
  k.text('Headline', x, y, HEADLINE, {
    as: 'title',
    size,
    colour: light ? k.colours.light : k.colours.dark,
    align,
    leading: 1,
  });
const label = (k: ReadyKit, x: number, y: number, size = large(k) * 0.3, align: 'left' | 'middle' = 'middle') =>
  k.text('Line', x, y, LABEL, { size, colour: k.colours.accent, align });

export const TITLES = family('Titles', [
  [
    'title-rule',
    'Headline over a rule',
    ['heading', 'underline'],
    (k) => {
      const [x, y, s] = [k.middle.x, foot(k), large(k)];
      return [title(k, x, y), k.rule('Rule', x - s, y + s * 0.5, 2 * s, s * 0.07, k.colours.accent)];
    },
  ],
  [
    'title-rules',
    'Headline between rules',
    ['heading', 'lines'],
    (k) => {
      const [x, y, s] = [k.middle.x, foot(k), large(k)];
      const line = (name: string, at: number) => k.rule(name, k.box.x0, at, k.wide, s * 0.035, k.colours.dark);
      return [line('Upper rule', y - s * 1.15), title(k, x, y), line('Lower rule', y + s * 0.5)];
    },
  ],
  [
    'title-band',
    'Headline in a band',
    ['heading', 'strip', 'bar', 'full width'],
    (k) => {
      const [y, s] = [foot(k), large(k)];
      const band = { x: -k.bleed, y: y - s * 1.25, w: k.page.x1 + 2 * k.bleed, h: s * 1.9 };
      return [k.shape('Band', 'rectangle', band, { fill: k.colours.dark }), title(k, k.middle.x, y, s, 'middle', true)];
    },
  ],
  [
    'title-over',
    'A small line over a large one',
    ['kicker', 'overline', 'heading'],
    (k) => [label(k, k.middle.x, foot(k) - large(k) * 1.15), title(k, k.middle.x, foot(k))],
  ],
  [
    'title-under',
    'A large line over a small one',
    ['subtitle', 'heading', 'tagline'],
    (k) => [title(k, k.middle.x, foot(k)), label(k, k.middle.x, foot(k) + large(k) * 0.62)],
  ],
  [
    'title-bar',
    'Headline beside a bar',
    ['heading', 'left', 'side'],
    (k) => {
      const [x, y, s] = [k.box.x0, foot(k), large(k)];
      return [
        k.shape('Bar', 'rectangle', { x, y: y - s * 0.95, w: s * 0.16, h: s * 1.75 }, { fill: k.colours.accent }),
        title(k, x + s * 0.45, y, s, 'left'),
        label(k, x + s * 0.47, y + s * 0.6, s * 0.3, 'left'),
      ];
    },
  ],
  [
    'title-ribbon',
    'Headline on a ribbon',
    ['banner', 'heading', 'flag'],
    (k) => {
      const [x, y, s] = [k.middle.x, foot(k), large(k) * 0.72];
      const w = k.wide * 0.92;
      return [
        k.shape('Ribbon', 'ribbon', { x: x - w / 2, y: y - s * 1.2, w, h: s * 1.9 }, { fill: k.colours.accent }),
        title(k, x, y, s, 'middle', true),
      ];
    },
  ],
  [
    'title-arch',
    'Headline on an arch',
    ['curve', 'round', 'heading', 'bow'],
    (k) => {
      const radius = k.wide * 1.1;
      return [
        k.text(
          'Headline',
          k.middle.x,
          foot(k) + radius,
          HEADLINE,
          { as: 'title', size: large(k), colour: k.colours.dark, align: 'middle' },
          { line: { radius }, at: 0 },
        ),
      ];
    },
  ],
]);
