import type { ReadyKit } from './kit';
import { countDial, family } from './types';

const CALL = ['Lantern workshop', 'guild@marrowick.example'];

/** A line to cut along: dashes that are areas, so that they scale. */
function cutLine(k: ReadyKit, x: number, y: number, length: number, upright = false): string {
  const dash = k.u * 1.4;
  const n = Math.max(2, Math.round(length / (2 * dash)));
  // It begins and ends with a dash.
  const step = length / (n + 0.5);
  const thick = k.u * 0.18;
  const one = upright
    ? k.shape('Dash', 'rectangle', { x: x - thick / 2, y, w: thick, h: step / 2 }, { fill: k.colours.dark })
    : k.shape('Dash', 'rectangle', { x, y: y - thick / 2, w: step / 2, h: thick }, { fill: k.colours.dark });
  return k.row('Cut line', n + 1, upright ? { x: 0, y: step } : { x: step, y: 0 }, [one]);
}
const small = (k: ReadyKit, size = k.u * 2.2) => ({ size, colour: k.colours.dark });

export const TEAR_OFFS = family('Tear-offs', [
  [
    'tear-strips',
    'Tear-off strips',
    ['phone numbers', 'notice', 'contact strips', 'flyer'],
    (k, v) => {
      const n = Math.round(v.count);
      const h = Math.min(k.page.y1 * 0.22, k.u * 34);
      const top = k.page.y1 - h;
      const w = k.page.x1 / n;
      const size = Math.min(w * 0.26, h * 0.066);
      const at = { x: w / 2, y: top + h / 2 };
      const words = k.turned(
        'Strip',
        [k.text('Words', at.x, at.y - size * 0.3, CALL, { ...small(k, size), align: 'middle', leading: 1.35 })],
        -90,
        at,
      );
      return [
        cutLine(k, -k.bleed, top, k.page.x1 + 2 * k.bleed),
        k.row('Strips', n, { x: w, y: 0 }, [words]),
        k.row('Cuts', Math.max(1, n - 1), { x: w, y: 0 }, [cutLine(k, w, top, h + k.bleed, true)]),
      ];
    },
    [countDial('Strips', 9, 2, 24)],
  ],
  [
    'tear-coupon',
    'Coupon',
    ['voucher', 'cut out', 'discount', 'gift'],
    (k) => {
      const [w, h] = [k.wide * 0.8, Math.min(k.wide * 0.34, k.high * 0.3)];
      const [x, y] = [k.middle.x - w / 2, k.middle.y - h / 2];
      return [
        cutLine(k, x, y, w),
        cutLine(k, x, y + h, w),
        cutLine(k, x, y, h, true),
        cutLine(k, x + w, y, h, true),
        k.text('What', k.middle.x, k.middle.y - h * 0.02, 'One bowl of stew', {
          as: 'title',
          size: h * 0.22,
          colour: k.colours.accent,
          align: 'middle',
        }),
        k.text('Where', k.middle.x, k.middle.y + h * 0.24, 'at the long table, for whoever brings this', {
          ...small(k, h * 0.1),
          align: 'middle',
        }),
      ];
    },
  ],
  [
    'tear-ticket',
    'Ticket with a stub',
    ['admission', 'entry', 'raffle', 'number'],
    (k) => {
      const [w, h] = [k.wide * 0.86, k.wide * 0.34];
      const [x, y] = [k.middle.x - w / 2, k.middle.y - h / 2];
      const stub = w * 0.74;
      return [
        k.shape('Ticket', 'ticket', { x, y, w, h }, { fill: k.colours.accent }),
        cutLine(k, x + stub, y + h * 0.06, h * 0.88, true),
        k.text('What', x + w * 0.1, y + h * 0.48, 'Lantern supper', {
          as: 'title',
          size: h * 0.24,
          colour: k.colours.light,
        }),
        k.text('When', x + w * 0.1, y + h * 0.72, 'from eight, in the Net Loft', {
          size: h * 0.11,
          colour: k.colours.light,
        }),
        k.text('Number', x + w * 0.85, y + h * 0.57, 'No. 001', {
          as: 'title',
          size: h * 0.14,
          colour: k.colours.light,
          align: 'middle',
        }),
      ];
    },
  ],
  [
    'tear-reply',
    'Reply slip',
    ['form', 'sign up', 'return', 'lines to fill in'],
    (k) => {
      const top = k.box.y1 - k.high * 0.26;
      const step = (k.box.y1 - top) / 4;
      const rows = ['Name', 'How many of us', 'We bring'];
      return [
        cutLine(k, -k.bleed, top, k.page.x1 + 2 * k.bleed),
        ...rows.flatMap((word, i) => {
          const y = top + step * (i + 1);
          return [
            k.text('Question', k.box.x0, y, word, small(k, k.u * 2.6)),
            k.rule('Line', k.box.x0 + k.wide * 0.3, y + k.u * 0.6, k.wide * 0.7, k.u * 0.15, k.colours.dark),
          ];
        }),
      ];
    },
  ],
  [
    'tear-line',
    'Cut line',
    ['scissors', 'cut here', 'dashed', 'perforation'],
    (k) => [
      cutLine(k, -k.bleed, k.middle.y, k.page.x1 + 2 * k.bleed),
      k.text('Cut here', k.box.x0, k.middle.y - k.u * 1.2, 'cut here', { size: k.u * 2, colour: k.colours.middle }),
    ],
  ],
]);

const WHO = 'Marrowick Lantern Guild';
const WHERE = ['The Net Loft, Rope Quay', 'Marrowick'];
const HOW = ['guild@marrowick.example', 'open Thursdays from dusk'];

export const ADDRESSES = family('Address blocks', [
  [
    'address-left',
    'Address, left',
    ['contact', 'sender', 'name and address'],
    (k) => {
      const [x, y, s] = [k.box.x0, k.box.y1 - k.u * 18, k.u * 3.2];
      return [
        k.text('Name', x, y, WHO, { as: 'title', size: s * 1.35, colour: k.colours.dark }),
        k.text('Address', x, y + s * 1.7, [...WHERE, ...HOW], { ...small(k, s * 0.85), leading: 1.4 }),
      ];
    },
  ],
  [
    'address-right',
    'Address beside a rule',
    ['contact', 'sender', 'name and address'],
    (k) => {
      const [x, y, s] = [k.box.x1 - k.wide * 0.56, k.box.y1 - k.u * 18, k.u * 3.2];
      return [
        k.shape(
          'Rule',
          'rectangle',
          { x: x - s * 0.8, y: y - s * 1.1, w: s * 0.12, h: s * 6.6 },
          { fill: k.colours.accent },
        ),
        k.text('Name', x, y, WHO, { as: 'title', size: s * 1.2, colour: k.colours.dark }),
        k.text('Address', x, y + s * 1.6, [...WHERE, ...HOW], { ...small(k, s * 0.85), leading: 1.4 }),
      ];
    },
  ],
  [
    'address-line',
    'Sender in one line',
    ['contact', 'letter', 'window envelope', 'return address'],
    (k) => [
      k.text('Sender', k.box.x0, k.box.y0 + k.u * 4, [`${WHO} · ${WHERE.join(' · ')}`], small(k, k.u * 1.9)),
      k.rule('Rule', k.box.x0, k.box.y0 + k.u * 5, k.wide * 0.6, k.u * 0.15, k.colours.accent),
    ],
  ],
  [
    'address-foot',
    'Address over the foot',
    ['contact', 'footer', 'three columns', 'letterhead'],
    (k) => {
      const y = k.box.y1 - k.u * 5;
      const cells: readonly (readonly [string, readonly string[]])[] = [
        ['left', [WHO, 'Makers of paper lanterns']],
        ['middle', WHERE],
        ['right', HOW],
      ];
      const at = [k.box.x0, k.middle.x, k.box.x1];
      return [
        k.rule('Rule', k.box.x0, y - k.u * 4, k.wide, k.u * 0.2, k.colours.accent),
        ...cells.map(([align, words], i) =>
          k.text('Address', at[i], y, words, { ...small(k, k.u * 2), align: align as 'left', leading: 1.4 }),
        ),
      ];
    },
  ],
  [
    'address-middle',
    'Address in the middle',
    ['contact', 'centred', 'back cover', 'card'],
    (k) => {
      const [x, y, s] = [k.middle.x, k.middle.y, k.u * 4];
      return [
        k.text('Name', x, y, WHO, { as: 'title', size: s * 1.3, colour: k.colours.dark, align: 'middle' }),
        k.rule('Rule', x - s * 1.6, y + s * 0.8, s * 3.2, s * 0.07, k.colours.accent),
        k.text('Address', x, y + s * 2, [...WHERE, ...HOW], { ...small(k, s * 0.8), align: 'middle', leading: 1.45 }),
      ];
    },
  ],
]);
