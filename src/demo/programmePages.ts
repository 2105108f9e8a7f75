import { outlineOf } from '@/core/model/defaults';
import type { Colour, Paragraph } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { flat, tint, type DesignBuilder } from './builder';
import { drawn } from './drawn';
import { linear } from './gradients';
import { guildLantern } from './lantern';
import { A5, BLEED, SIDE, type Kit } from './programmeKit';

/** What the walk passes, in order: the stops of the route and of the evening. `x`, `y` on the spread, mm. */
const STOPS = [
  {
    name: 'Net Loft',
    time: '17.30',
    x: 30,
    y: 150,
    says: 'Lanterns are lit from one flame and handed down the stair.',
  },
  { name: 'Rope Quay', time: '17.50', x: 64, y: 122, says: 'The drums begin. Keep to the wall: the planks are wet.' },
  {
    name: 'Smokehouse',
    time: '18.15',
    x: 106,
    y: 140,
    says: 'Warm cider and seed bread for every hand that carries a light.',
  },
  {
    name: 'Ferry Steps',
    time: '18.40',
    x: 186,
    y: 112,
    says: 'All lanterns are lowered to the water, and nobody speaks.',
  },
  {
    name: 'Fish Market',
    time: '19.05',
    x: 232,
    y: 134,
    says: 'The brass band plays under the roof, out of the wind.',
  },
  { name: 'Harbour Light', time: '19.30', x: 268, y: 82, says: 'The great lantern is raised. Put yours beside it.' },
] as const;

/** The pages of the programme, each spread by itself. */
export function programmePages(b: DesignBuilder, kit: Kit): void {
  cover(b, kit);
  welcome(b, kit);
  route(b, kit);
  evening(b, kit);
  making(b, kit);
  supper(b, kit);
  back(b, kit);
}

const middle = (face: string, size: number, colour: Colour, text: string): Paragraph => ({
  align: 'middle',
  leading: 1.45,
  runs: [{ text, face, size, fill: flat(colour) }],
});

function cover(b: DesignBuilder, { colours, ramps, glow, hung }: Kit): void {
  const { paperGlow } = colours;
  const lit = linear({ swatch: ramps.flame }, [0, -mm(26)], [0, mm(24)]);
  const big = (text: string): Paragraph => ({
    align: 'middle',
    leading: 0.94,
    runs: [{ text, face: 'bitter-700', size: 74, tracking: -14, fill: lit }],
  });
  b.place(
    0,
    [
      glow(A5.w * 0.5, mm(78), mm(73), 0.6),
      hung(A5.w * 0.19, mm(18), mm(26), tint(paperGlow, 0.75)),
      hung(A5.w * 0.82, mm(30), mm(22), tint(paperGlow, 0.75)),
      hung(A5.w * 0.5, mm(40), mm(66), paperGlow),
      b.displayText('Headline', A5.w / 2, mm(141), [big('Lantern'), big('Walk')]),
      b.displayText('Day', A5.w / 2, mm(183), [
        middle('archivo-600', 14, paperGlow, 'Saturday 21 November'),
        middle('archivo-400', 11.5, paperGlow, 'Marrowick quays, from dusk · Programme'),
      ]),
    ],
    'Cover',
  );
}

/** The harbour's water lies over both pages: it is the left one's, and runs over the fold. */
function welcome(b: DesignBuilder, { colours, looks, line, words }: Kit): void {
  const photo = b.picture({
    name: 'Harbour water',
    file: 'harbour-water.jpg',
    width: 4000,
    height: 1400,
    space: 'rgb',
  });
  const wide = 2 * A5.w + 2 * BLEED;
  const high = (wide * 1400) / 4000;
  const said = (name: string, x: number, text: string) =>
    b.displayText(name, x, mm(92), [
      { runs: [{ text, face: 'bitter-700', size: 42, tracking: -12, fill: flat(colours.paperGlow) }] },
    ]);
  b.place(1, [
    b.shape(
      'Harbour water',
      'rectangle',
      { x: -BLEED, y: -BLEED, w: wide, h: high },
      { fill: { kind: 'picture', picture: photo, overprint: false, geometry: [wide, 0, 0, high, 0, 0] } },
    ),
    said('Welcome', SIDE - mm(1), 'Bring a light,'),
    words('Lead', { y: mm(116), h: mm(40) }, [
      line(
        looks.lead,
        'Each November Marrowick walks its quays with lanterns of paper and willow. There is no first and no last in the line: whoever carries a light is in it.',
      ),
    ]),
    words('Words', { y: mm(160), h: mm(28) }, [
      line(
        looks.body,
        'The Guild has made lanterns in the Net Loft since the harbour had one lamp. This year four hundred were made at long tables, by people aged four to ninety-one.',
      ),
    ]),
  ]);
  const good = [
    'The walk is two kilometres long and takes two hours, with five stops.',
    'All of it can be done on wheels; the Ferry Steps have a ramp on their north side.',
    'Lanterns are lit by small lamps, never by open flame.',
    'In rain we walk. In a gale the light is raised at the Net Loft instead.',
  ];
  b.place(2, [
    said('Welcome, on', SIDE, 'walk with us.'),
    words('Good to know', { y: mm(116), h: mm(72) }, [
      line(looks.label, 'Good to know'),
      ...good.map((text) =>
        line(looks.body, text, {
          spaceBefore: mm(2.2),
          indentLeft: mm(4.5),
          list: { kind: 'bullets', mark: '•' },
        }),
      ),
    ]),
  ]);
}

/** One line over both pages, with its stops. */
function route(b: DesignBuilder, { colours, looks, line, words, headline }: Kit): void {
  const { quayNight, lowTide, paperGlow, wick, ember } = colours;
  const R = 4.8;
  const marker = ({ x, y }: { x: number; y: number }, i: number) =>
    b.group(`Stop ${i + 1}`, [
      b.shape(
        'Round',
        'ellipse',
        { x: mm(x - R), y: mm(y - R), w: mm(2 * R), h: mm(2 * R) },
        { fill: flat(i === 5 ? ember : quayNight), outline: outlineOf(flat(paperGlow), 1.8) },
      ),
      b.displayText('Number', mm(x), mm(y + 1.6), [
        { align: 'middle', runs: [{ text: `${i + 1}`, face: 'archivo-800', size: 12.5, fill: flat(paperGlow) }] },
      ]),
    ]);
  const named = (i: number, dx: number, dy: number, align: 'left' | 'right' | 'middle') =>
    b.displayText(`Name of stop ${i + 1}`, mm(STOPS[i].x + dx), mm(STOPS[i].y + dy), [
      { look: looks.label, align, runs: [{ text: STOPS[i].name, size: 11.5, fill: flat(quayNight) }] },
      { look: looks.small, align, runs: [{ text: STOPS[i].time, size: 9.5 }] },
    ]);
  b.place(3, [
    headline('Along the quays'),
    words('Lead', { y: mm(46), h: mm(40), w: mm(104) }, [
      line(looks.lead, 'From the Net Loft to the Harbour Light, past everything that smells of tar, smoke and bread.'),
    ]),
    b.path(
      'Water',
      drawn('M-3 184C40 162 70 146 112 162C150 176 170 136 206 144C240 152 256 140 299 122L299 199.4L-3 199.4Z'),
      { fill: flat(tint(lowTide, 0.3)) },
    ),
    b.path(
      'Route',
      drawn(
        'M30 150C36 136 50 124 64 122C82 119 90 140 106 140C136 140 156 112 186 112C206 112 214 136 232 134C252 131 262 106 268 82',
      ),
      { outline: { ...outlineOf(flat(wick), mm(1.8)), cap: 'round', join: 'round' } },
    ),
    ...STOPS.map(marker),
    named(0, 7, 5, 'left'),
    named(1, 0, -12, 'middle'),
    named(2, 0, -12, 'middle'),
    named(3, 0, -12, 'middle'),
    named(4, 8, 4, 'left'),
    named(5, -8, -3, 'right'),
  ]);
  b.place(4, [
    words('Where to join', { y: mm(30), h: mm(48), w: mm(84) }, [
      line(looks.label, 'Where to join'),
      line(
        looks.body,
        'You may join at any stop. Stand on the land side, let the drums pass, and step in behind them. Stewards carry a green lantern and know the next bench, the next tap and the way home.',
        { spaceBefore: mm(1.6) },
      ),
    ]),
  ]);
}

/** A string of lanterns down each page, an hour beside each. */
function evening(b: DesignBuilder, { colours, looks, line, words, headline }: Kit): void {
  const { quayNight, lowTide, ember, wick } = colours;
  for (const half of [0, 1]) {
    const x = SIDE + mm(10);
    const string = b.shape(
      'Cord',
      'rectangle',
      { x: x - mm(0.25), y: mm(48), w: mm(0.5), h: mm(142) },
      { fill: flat(tint(lowTide, 0.6)) },
    );
    const hours = STOPS.slice(half * 3, half * 3 + 3).flatMap((s, i) => [
      guildLantern(b, x, mm(50 + i * 46), mm(30), half && i === 2 ? quayNight : lowTide, i % 2 ? wick : ember),
      words(s.name, { x: SIDE + mm(28), y: mm(50 + i * 46), w: mm(90), h: mm(36) }, [
        { look: looks.title, leading: 1, runs: [{ text: s.time, size: 26, fill: flat(ember) }] },
        { look: looks.label, spaceBefore: mm(1.6), runs: [{ text: s.name, size: 12.5, fill: flat(quayNight) }] },
        line(looks.body, s.says, { spaceBefore: mm(1) }),
      ]),
    ]);
    b.place(5 + half, [...(half ? [] : [headline('Hour by hour')]), string, ...hours]);
  }
}

function making(b: DesignBuilder, { colours, looks, line, words, headline }: Kit): void {
  const steps = [
    'Soak four willow rods overnight, and bend each to a ring as wide as two hands.',
    'Bind the rings one above the other with thread, a hand apart.',
    'Cut paper to go once round and a thumb more. Oil it, and let it dry on the line.',
    'Paste the paper over the rings from the foot up. Leave the head open.',
    'Hang the lamp from the top ring, and the lantern from a rod as long as your arm.',
  ];
  b.place(7, [
    headline('Make your own'),
    words('Lead', { y: mm(46), h: mm(18) }, [line(looks.lead, 'An evening’s work for two, a week’s for one.')]),
    ...steps.flatMap((text, i) => {
      const y = mm(68 + i * 24.5);
      return [
        b.displayText(`Number ${i + 1}`, SIDE + mm(5), y + mm(9.4), [
          { align: 'middle', runs: [{ text: `${i + 1}`, face: 'bitter-700', size: 36, fill: flat(colours.ember) }] },
        ]),
        words(`Step ${i + 1}`, { x: SIDE + mm(17), y, w: mm(96), h: mm(18) }, [line(looks.body, text)]),
      ];
    }),
  ]);
  const photo = b.picture({ name: 'Lantern glow', file: 'lantern-glow.jpg', width: 1400, height: 1400, space: 'rgb' });
  const side = A5.w + BLEED;
  b.place(8, [
    b.shape(
      'Lantern glow',
      'rectangle',
      { x: 0, y: -BLEED, w: side, h: side },
      { fill: { kind: 'picture', picture: photo, overprint: false, geometry: [side, 0, 0, side, 0, 0] } },
    ),
    words('You need', { y: mm(158), h: mm(34) }, [
      line(looks.label, 'You need'),
      line(
        looks.body,
        'four willow rods · strong thread · one sheet of kite paper · linseed oil · flour paste · a small lamp',
        { spaceBefore: mm(1.2) },
      ),
    ]),
  ]);
}

/** The supper has a ground of its own, warm over both pages. */
function supper(b: DesignBuilder, { colours, looks, line, words }: Kit): void {
  const { quayNight, paperGlow, wick, ember } = colours;
  const warm = { ground: flat(wick) };
  b.pageFacts(9, warm);
  b.pageFacts(10, warm);
  const dish = (what: string, price: string): Paragraph => ({
    look: looks.body,
    spaceBefore: mm(3.4),
    tabs: [{ at: A5.w - 2 * SIDE, align: 'right', leader: ' .' }],
    runs: [{ text: `${what}\t${price}`, size: 13.5 }],
  });
  b.place(9, [
    b.displayText('Headline', SIDE - mm(0.5), mm(38), [
      { look: looks.title, runs: [{ text: 'Lantern supper', fill: flat(quayNight) }] },
    ]),
    words('Lead', { y: mm(46), h: mm(28) }, [
      line(looks.lead, 'After the walk, in the Net Loft, at one long table. Bring your own spoon.'),
    ]),
    words('Dishes', { y: mm(84), h: mm(66) }, [
      { look: looks.label, runs: [{ text: 'From eight', fill: flat(quayNight) }] },
      dish('Fish stew with saffron', '6'),
      dish('Stew of beans and smoke', '5'),
      dish('Seed bread, warm', '1'),
      dish('Plum tart', '3'),
      dish('Cider, hot or cold', '2'),
    ]),
    words('Seats', { y: mm(158), h: mm(32) }, [
      line(
        looks.body,
        'Seats are few: tickets at the Net Loft, Thursdays from dusk, or from any steward on the night.',
      ),
    ]),
  ]);
  const c = { x: A5.w / 2, y: mm(82) };
  const disc = (name: string, r: number, fill: Colour) =>
    b.shape(name, 'ellipse', { x: c.x - r, y: c.y - r, w: 2 * r, h: 2 * r }, { fill: flat(fill) });
  b.place(10, [
    b.shape(
      'Seal',
      'seal',
      { x: c.x - mm(48), y: c.y - mm(48), w: mm(96), h: mm(96) },
      { fill: flat(quayNight), knobs: { scallops: 36, swell: 0.5 } },
    ),
    disc('Seal, middle', mm(36), paperGlow),
    guildLantern(b, c.x, c.y - mm(28), mm(56), quayNight, ember),
    words('Thanks', { x: SIDE + mm(7), y: mm(146), w: mm(104), h: mm(46) }, [
      { look: looks.label, align: 'middle', runs: [{ text: 'With thanks', fill: flat(quayNight) }] },
      line(
        looks.body,
        'to the harbour office for the dark hour, the bakers for the bread, the brass band for its breath, and to everyone who sat at the long tables.',
        { align: 'middle', spaceBefore: mm(1.6), hyphenate: false },
      ),
    ]),
  ]);
}

function back(b: DesignBuilder, { colours, glow }: Kit): void {
  const { paperGlow, ember } = colours;
  b.place(
    11,
    [
      glow(A5.w / 2, mm(92), mm(60), 0.35),
      guildLantern(b, A5.w / 2, mm(70), mm(44), paperGlow, ember),
      b.displayText('Guild', A5.w / 2, mm(132), [
        middle('bitter-700', 17, paperGlow, 'Marrowick Lantern Guild'),
        middle('archivo-400', 10.5, paperGlow, 'The Net Loft, Rope Quay, Marrowick'),
        middle('archivo-400', 10.5, paperGlow, 'guild@marrowick.example'),
      ]),
    ],
    'Back',
  );
}
