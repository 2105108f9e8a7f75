import { apply, scaling } from '@/core/geometry/matrix';
import { transformPath } from '@/core/geometry/path';
import { pathContains } from '@/core/geometry/contains';
import { regionsIn } from '@/core/derive/regions';
import { readPathData } from '@/core/input/svg/pathData';
import { colourPaint, newDesign, outlineOf, setupOf, type Making } from '@/core/model/defaults';
import type { Colour, Design, NodeOf } from '@/core/model/schema';
import type { FontBook } from '@/core/text/fonts';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat } from './builder';

/** The drawing is 330 by 200 of its own units; one is half a millimetre. */
const UNIT = mm(0.5);
const SIZE = [330, 200] as const;
/** As heavy as a broad pen. */
const PEN = 1.7;

/** The lines, by name; as one would draw them: what lies behind ends at what lies before it. */
const LINES: readonly (readonly [name: string, path: string])[] = [
  ['Edge', 'M0 0H330V200H0Z'],
  ['Moon', 'M185 34A15 15 0 1 1 155 34A15 15 0 1 1 185 34Z'],
  ['Halo', 'M195 34A25 25 0 1 1 145 34A25 25 0 1 1 195 34Z'],
  ['Near cloud', 'M10 34C2 34 2 24 12 24C14 14 28 14 32 20C40 14 50 20 48 28C56 28 56 34 50 34Z'],
  ['Far cloud', 'M248 40C238 40 238 29 249 29C251 18 268 16 274 24C282 17 296 21 296 30C308 28 312 40 302 40Z'],
  ['Hill', 'M156 104C172 90 190 102 204 118'],
  ['Shore', 'M0 106C8 101 14 101 20 104'],
  ['Islet', 'M274 118C280 112 286 111 294.5526 111M305.4474 111C314 111 322 113 330 114'],
  ['Sea', 'M0 118H20M156 118H222.768M267.35 118H330'],
  // The houses on the quay.
  ['Gabled house', 'M20 140V78L42 48L64 78V140M20 78H64'],
  ['Round window', 'M46.5 66A4.5 4.5 0 1 1 37.5 66A4.5 4.5 0 1 1 46.5 66Z'],
  ['Windows', 'M26 90H36V104H26ZM48 90H58V104H48ZM31 90V104M53 90V104'],
  ['Door', 'M36 140V120C36 112 48 112 48 120V140'],
  ['Tall house', 'M64 78V56H112V140M58 56L70 34H106L118 56Z'],
  ['Chimney', 'M92 34V24H100V34'],
  ['Tall windows', 'M70 64H80V78H70ZM84 64H94V78H84ZM98 64H108V78H98ZM70 90H80V104H70ZM98 90H108V104H98Z'],
  ['Tall door', 'M80 140V112H96V140M80 118H96'],
  ['Boat house', 'M112 88L134 64L156 88V140M112 88H156'],
  ['Boat house gate', 'M120 140V114C120 98 148 98 148 114V140M134 140V102'],
  ['Lamp on the gable', 'M131 75H137V82H131Z'],
  // The quay, of two rows of stones.
  ['Quay', 'M0 140H196V166.623M0 153H196'],
  ['Stones', 'M26 140V153M82 140V153M137 140V153M55 153V166M110 153V166M165 153V166'],
  // The lighthouse.
  ['Lighthouse', 'M294 118L297 78H303L306 118Z'],
  ['Bands', 'M294.75 108H305.25M295.5 98H304.5M296.25 88H303.75'],
  ['Gallery', 'M294 78V74H306V78Z'],
  ['Lantern room', 'M296.5 74V66H303.5V74M294.5 66L300 58L305.5 66Z'],
  // The water and the boat on it.
  [
    'Waves',
    'M0 166C18 160 36 172 55 166C73 160 91 172 110 166C128 160 146 172 165 166C183 160 201 172 220 166C238 160 256 172 275 166C293 160 311 172 330 166',
  ],
  [
    'Near waves',
    'M0 184C22 177 44 191 66 184C88 177 110 191 132 184C154 177 176 191 198 184C220 177 242 191 264 184C286 177 308 191 330 184',
  ],
  ['Rail', 'M199 141H292V148H199Z'],
  ['Hull', 'M201 148C205 158 210 164 220 166M290 148C288 158 284 163 275 166'],
  ['Mast', 'M242.5 72H245.5V141H242.5Z'],
  ['Foresail', 'M242.5 84L210 138H242.5'],
  ['Mainsail', 'M245.5 80L280 138H245.5M251.448 90H245.5M262.155 108H245.5M272.862 126H245.5'],
  ['Pennant', 'M245.5 72L266 75.5L245.5 79'],
  ['Rope', 'M112 45C156 72 204 86 242.5 76'],
  [
    'Lanterns',
    [
      [152.3, 65.5],
      [168.5, 71.3],
      [192.6, 77.2],
      [215.9, 79.2],
    ]
      .map(([x, y]) => `M${x} ${y}V${y + 2}M${x + 4} ${y + 7}A4 5 0 1 1 ${x - 4} ${y + 7}A4 5 0 1 1 ${x + 4} ${y + 7}Z`)
      .join(''),
  ],
];

/** Swatches by per cent of cyan, magenta, yellow and black, and a place in each area that has them. */
const AREAS: readonly (readonly [swatch: string, cmyk: readonly [number, number, number, number], at: string])[] = [
  ['Dusk', [6, 38, 36, 0], '230,20'],
  ['Afterglow', [2, 24, 36, 0], '170,14 200,100'],
  ['Moonlight', [2, 6, 26, 0], '170,34'],
  ['Cloud', [2, 20, 24, 0], '30,28 275,34'],
  ['Heath', [48, 46, 32, 12], '170,110 10,111 288,115 318,116'],
  ['Far water', [56, 24, 28, 4], '200,125 310,128 10,130'],
  ['Harbour water', [74, 42, 34, 18], '100,175'],
  ['Deep water', [88, 62, 38, 32], '100,196'],
  ['Ember wall', [6, 58, 70, 4], '24,125'],
  ['Ember gable', [12, 66, 76, 12], '42,58'],
  ['Plaster', [4, 8, 22, 0], '75,84'],
  ['Brick', [22, 76, 74, 16], '88,46 96,30 230,155'],
  ['Moss', [48, 28, 56, 12], '134,94'],
  ['Slate', [52, 40, 34, 26], '124,84'],
  [
    'Lamplight',
    [0, 28, 84, 0],
    '42,66 28,97 33,97 51,97 55,97 75,71 89,71 103,71 103,97 134,79 300,70 152.3,73 192.6,84',
  ],
  ['Ember', [0, 64, 88, 0], '168.5,78 215.9,86 258,75.5 300,63'],
  ['Night', [90, 76, 44, 46], '75,97 42,130 88,130 300,76'],
  ['Shutter', [78, 50, 46, 30], '127,125 141,125 88,115'],
  ['Pale stone', [18, 18, 24, 6], '10,147 110,147 80,159 180,159'],
  ['Dark stone', [30, 28, 34, 14], '50,147 170,147 20,159 140,159'],
  ['Oak', [26, 50, 70, 16], '220,144.5 244,120'],
  ['Sailcloth', [2, 8, 20, 0], '235,125 247.5,87 255,120'],
  ['Sail in shade', [8, 20, 34, 2], '250,100 258,133'],
  ['Signal red', [10, 84, 78, 4], '300,113 300,93'],
  ['Whitewash', [2, 4, 10, 0], '300,103 300,83'],
];

/** *Harbour in lines*: a drawing of lines whose areas are coloured, on a page of its own size. */
export function harbourInLines(make: Making, fonts: FontBook): Design {
  const base = newDesign('Harbour in lines', setupOf(SIZE[0] * UNIT, SIZE[1] * UNIT), make);
  const b = new DesignBuilder({ ...base, swatches: [] }, make);
  b.swatchGroup('Harbour in lines');
  const ink = b.recipe('Drawing ink', 100, 86, 38, 44);
  const big = scaling(UNIT, UNIT);
  const outline = { ...outlineOf(flat(ink), PEN * UNIT), cap: 'round', join: 'round' } as const;
  const lines = LINES.map(([name, path]) =>
    b.path(name, [...transformPath(readPathData(path).path, big)], { outline }),
  );
  const id = b.group('Harbour in lines', lines);
  const drawn = b.done();
  const group = { ...drawn.nodes[id], regions: { areas: [] } } as NodeOf<'group'>;
  const { faces } = regionsIn(drawn, group, fonts);
  const areas = AREAS.flatMap(([name, [c, m, y, k], places]) => {
    const colour: Colour = b.recipe(name, c, m, y, k);
    return places.split(' ').map((place) => {
      const [x, y] = place.split(',').map(Number);
      const at = apply(big, { x, y });
      const face = faces.find((f) => pathContains(f.polygon, 'evenOdd', at));
      if (!face) throw new Error(`Nothing encloses ${place}.`);
      return { paint: colourPaint(colour), path: face.path };
    });
  });
  b.nodes[id] = { ...group, regions: { areas } };
  b.place(0, [id]);
  return b.done();
}
