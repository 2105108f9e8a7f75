import { readSvg, type SvgRead } from '@/core/input/svg/read';
import { readPathData } from '@/core/input/svg/pathData';
import { Styles } from '@/core/input/svg/style';
import { readColour, readLength, readTransform } from '@/core/input/svg/values';
import { readViewBox, viewMatrix } from '@/core/input/svg/view';
import { parseXml, SvgProblem, svgText } from '@/core/input/svg/xml';
import { verticesOf } from '@/core/input/svg/markers';
import { dashPath } from '@/core/geometry/dash';
import { pathLength } from '@/core/geometry/measure';
import { rect } from '@/core/geometry/rect';
import type { DesignNode, NodeOf } from '@/core/model/schema';
import { encode } from 'fast-png';
import { gzipSync } from 'fflate';
import type { Engines } from '@/core/engines';
import fc from '../support/seeded';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const bytes = (text: string) => new TextEncoder().encode(text);
const svg = (inner: string, head = '') =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 100 100" width="100" height="100" ${head}>${inner}</svg>`;
const read = (inner: string, head = ''): Promise<SvgRead> =>
  readSvg(bytes(svg(inner, head)), 'boats', { ...engines.env, fonts: engines.fonts });
const all = (r: SvgRead): DesignNode[] => Object.values(r.clip.nodes);
const one = async <K extends DesignNode['kind']>(inner: string, kind: K): Promise<NodeOf<K>> => {
  const found = all(await read(inner)).filter((n): n is NodeOf<K> => n.kind === kind);
  expect(found).toHaveLength(1);
  return found[0];
};
const hex = (p: unknown) => ((p as { colour: { rgb: number[] } }).colour.rgb ?? []).map((v) => Math.round(v * 255));

describe('path data (SVG 1.1, 8.3)', () => {
  test.each([
    ['M10 20L30 40', [0, 10, 20, 1, 30, 40]],
    ['m10,20 5-5 5,5z', [0, 10, 20, 1, 15, 15, 1, 20, 20, 3]],
    ['M0 0H10V5h-4v.5', [0, 0, 0, 1, 10, 0, 1, 10, 5, 1, 6, 5, 1, 6, 5.5]],
    ['M1.5.5.5-1e1', [0, 1.5, 0.5, 1, 0.5, -10]],
    ['M0 0C1 1 2 1 3 0S5-1 6 0', [0, 0, 0, 2, 1, 1, 2, 1, 3, 0, 2, 4, -1, 5, -1, 6, 0]],
    ['M0 0z l5 5', [0, 0, 0, 3, 0, 0, 0, 1, 5, 5]],
  ] as const)('%s', (d, path) => expect(readPathData(d)).toEqual({ path, whole: true }));

  test('quadratic curves as cubics, shorthands mirrored', () => {
    const { path } = readPathData('M0 0Q3 3 6 0T12 0');
    expect(path.map((v) => Math.round(v * 1e9) / 1e9)).toEqual([0, 0, 0, 2, 2, 2, 4, 2, 6, 0, 2, 8, -2, 10, -2, 12, 0]);
  });

  test('an arc of a quarter circle lies on the circle', () => {
    const { path } = readPathData('M10 0A10 10 0 0 1 0 10');
    expect(pathLength(path)).toBeCloseTo((Math.PI / 2) * 10, 3);
    expect(path.slice(-2).map((v) => Math.round(v * 1e9))).toEqual([0, 10e9]);
  });

  test('flags of an arc may stand together', () =>
    expect(readPathData('M0 0a5 5 0 1110 0').path.slice(-2)).toEqual([10, 0]));

  test.each([
    ['M0 0L10 10L20', 6],
    ['M0 0L10 10 X', 6],
    ['L10 10', 0],
    ['M0 0 10', 3],
    ['M0 0A1 1 0 2 0 5 5', 3],
    ['M0 0L5 5,L6 6', 6],
  ])('drawn up to the mistake: %s', (d, length) => {
    const r = readPathData(d);
    expect([r.whole, r.path.length]).toEqual([false, length]);
  });
});

describe('values', () => {
  const m = { width: 200, height: 100, fontSize: 20 };
  test.each([
    ['10', 'x', 10],
    ['1in', 'x', 96],
    ['72pt', 'y', 96],
    ['25.4mm', 'x', 96],
    ['50%', 'x', 100],
    ['50%', 'y', 50],
    ['2em', 'x', 40],
    ['1ex', 'x', 10],
    ['6pc', 'x', 96],
  ] as const)('%s along %s', (t, along, v) => expect(readLength(t, m, along)).toBeCloseTo(v, 9));
  test.each(['', 'ten', '1 2', 'NaN', '5foo'])('no length: “%s”', (t) => expect(readLength(t, m, 'x')).toBeNull());
  test('transforms in a row act from the last to the first', () =>
    expect(readTransform('translate(10,5) scale(2) rotate(90)')!.map((v) => Math.round(v * 1e9) / 1e9)).toEqual([
      0, 2, -2, 0, 10, 5,
    ]));
  test.each(['rotate(', 'scale(1,2,3)', 'turn(5)', 'matrix(1 2 3)'])('no transform: %s', (t) =>
    expect(readTransform(t)).toBeNull(),
  );
  test.each([
    ['#f00', [1, 0, 0], 1],
    ['#00ff0080', [0, 1, 0], 128 / 255],
    ['rgb(100%, 0%, 50%)', [1, 0, 0.5], 1],
    ['rgba(255,0,0,.25)', [1, 0, 0], 0.25],
    ['hsl(120, 100%, 50%)', [0, 1, 0], 1],
    ['tomato', [1, 99 / 255, 71 / 255], 1],
  ] as const)('%s', (t, rgb, alpha) => {
    const c = readColour(t)!;
    expect((c.colour as unknown as { rgb: number[] }).rgb.every((v, i) => Math.abs(v - rgb[i]) < 1e-6)).toBe(true);
    expect(c.alpha).toBeCloseTo(alpha, 6);
  });
  test('device colours are inks', () =>
    expect(readColour('#cd853f device-cmyk(0.1, 0.5, 0.8, 0)')!.colour).toEqual({ cmyk: [0.1, 0.5, 0.8, 0] }));
  test.each(['constructor', '#12', 'rgb(1)', 'burgundy'])('no colour: %s', (t) => expect(readColour(t)).toBeNull());
  test('a view box in its port: in proportion, to a side, cut, stretched', () => {
    const box = readViewBox('0 0 10 20')!;
    expect(viewMatrix(box, rect(0, 0, 100, 100), undefined).matrix).toEqual([5, 0, 0, 5, 25, 0]);
    expect(viewMatrix(box, rect(0, 0, 100, 100), 'xMaxYMid').matrix).toEqual([5, 0, 0, 5, 50, 0]);
    expect(viewMatrix(box, rect(0, 0, 100, 100), 'xMinYMin slice')).toEqual({
      matrix: [10, 0, 0, 10, 0, 0],
      slice: true,
    });
    expect(viewMatrix(box, rect(0, 0, 100, 100), 'none').matrix).toEqual([10, 0, 0, 5, 0, 0]);
    expect(readViewBox('0 0 -1 5')).toBeNull();
  });
});

describe('dashes', () => {
  test('lengths in turn, from an offset on', () => {
    expect(dashPath([0, 0, 0, 1, 10, 0], { lengths: [3, 2], offset: 0 })).toEqual([0, 0, 0, 1, 3, 0, 0, 5, 0, 1, 8, 0]);
    expect(dashPath([0, 0, 0, 1, 10, 0], { lengths: [3, 2], offset: 4 }).map((v) => Math.round(v * 1e9) / 1e9)).toEqual(
      [0, 1, 0, 1, 4, 0, 0, 6, 0, 1, 9, 0],
    );
  });
  // Common practice: 12-12-0-12 with round caps makes a pill and a dot.
  test('a dash of nothing is a point', () =>
    expect(
      dashPath([0, 0, 0, 1, 36, 0], { lengths: [12, 12, 0, 12], offset: 0 }).map((v) => Math.round(v * 1e5) / 1e5),
    ).toEqual([0, 0, 0, 1, 12, 0, 0, 24, 0, 1, 24, 0]));
  test('what is drawn adds up', () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 5 }),
        fc.integer({ min: 0, max: 100 }),
        (dashes, offset) => {
          const line = [0, 0, 0, 1, 500, 0, 2, 520, 40, 560, 40, 600, 0];
          const on = dashes.length % 2 ? [...dashes, ...dashes] : dashes;
          const share = on.filter((_, i) => i % 2 === 0).reduce((a, b) => a + b, 0) / on.reduce((a, b) => a + b, 0);
          expect(
            Math.abs(pathLength(dashPath(line, { lengths: dashes, offset })) / pathLength(line) - share),
          ).toBeLessThan(0.35);
        },
      ),
    ));
  test('a pattern that is none is a whole line', () =>
    expect([[], [0, 0], [-1, 2]].map((d) => dashPath([0, 0, 0, 1, 5, 0], { lengths: d, offset: 0 }).length)).toEqual([
      6, 6, 6,
    ]));
});

describe('style sheets', () => {
  const styleOf = (sheet: string, inner: string, id: string) => {
    const { root } = parseXml(svg(`<style>${sheet}</style>${inner}`));
    const styles = new Styles(root!);
    const find = (e: NonNullable<typeof root>): typeof root =>
      e.attributes.get('id') === id ? e : (e.elements.map(find).find(Boolean) ?? null);
    return styles.inPlace(find(root!)!);
  };
  test.each([
    ['the id wins over class and type', '#a{fill:red}.b{fill:blue}rect{fill:lime}', '<rect id="a" class="b"/>', 'red'],
    ['later wins among equals', '.b{fill:blue}.c{fill:lime}', '<rect id="a" class="c b"/>', 'lime'],
    ['rules win over attributes', 'rect{fill:lime}', '<rect id="a" fill="red"/>', 'lime'],
    ['the style attribute wins over rules', '#a{fill:red}', '<rect id="a" style="fill:teal"/>', 'teal'],
    ['important wins over that', 'rect{fill:lime!important}', '<rect id="a" style="fill:teal"/>', 'lime'],
    ['inherited from a group', 'g{fill:navy}', '<g><rect id="a"/></g>', 'navy'],
    ['a child of', 'g>rect{fill:navy}', '<g><rect id="a"/></g>', 'navy'],
    ['not a grandchild', 'g>rect{fill:navy}', '<g><a><rect id="a"/></a></g>', 'black'],
    ['somewhere in', 'g rect{fill:navy}', '<g><a><rect id="a"/></a></g>', 'navy'],
    ['next to', 'circle+rect{fill:navy}', '<circle/><rect id="a"/>', 'navy'],
    ['after', 'circle~rect{fill:navy}', '<circle/><path/><rect id="a"/>', 'navy'],
    ['by an attribute', '[data-k|=sea]{fill:navy}', '<rect id="a" data-k="sea-2"/>', 'navy'],
    ['the first child', 'rect:first-child{fill:navy}', '<g><rect id="a"/><rect/></g>', 'navy'],
    ['every other one', 'rect:nth-child(2n){fill:navy}', '<g><rect/><rect id="a"/></g>', 'navy'],
    ['one that is asked for again', 'g{fill:navy}rect{fill:inherit}', '<g><rect id="a" fill="red"/></g>', 'navy'],
    ['for print alone: not here', '@media print{rect{fill:red}}', '<rect id="a"/>', 'black'],
    ['a sheet with a mistake goes on after it', 'rect{fill:;;} #a{fill:navy}', '<rect id="a"/>', 'navy'],
  ])('%s', (_, sheet, inner, fill) => expect(styleOf(sheet, inner, 'a').fill).toBe(fill));
  test('font sizes and weights by the parent’s', () =>
    expect(
      styleOf('g{font:bold 20px Archivo}text{font-size:150%;font-weight:lighter}', '<g><text id="a"/></g>', 'a'),
    ).toMatchObject({ 'font-size': '30', 'font-weight': '400', 'font-family': 'Archivo' }));
});

describe('drawings become objects that can be changed', () => {
  test('a box is a dialled rectangle, a circle an ellipse, with their measures', async () => {
    expect(await one('<rect x="10" y="20" width="30" height="40" rx="5" fill="#ff8000"/>', 'shape')).toMatchObject({
      shape: 'rectangle',
      width: 30,
      height: 40,
      transform: [1, 0, 0, 1, 10, 20],
      knobs: { topLeft: 5 },
    });
    expect(await one('<circle cx="50" cy="40" r="10"/>', 'shape')).toMatchObject({
      shape: 'ellipse',
      width: 20,
      height: 20,
      transform: [1, 0, 0, 1, 40, 30],
    });
  });
  test('its size on the page is what the drawing says', async () => {
    const r = await readSvg(
      bytes(
        '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="40mm" viewBox="0 0 160 80"><rect width="160" height="80"/></svg>',
      ),
      'x',
      { ...engines.env, fonts: engines.fonts },
    );
    expect([r.width, r.height].map((v) => Math.round((v * 25.4) / 72))).toEqual([80, 40]);
    expect(r.clip.nodes[r.clip.roots[0]].transform[0]).toBeCloseTo((80 * 72) / 25.4 / 160, 6);
  });
  test('names come from titles and ids', async () =>
    expect((await one('<rect id="x7" width="5" height="5"><title>Near sail</title></rect>', 'shape')).name).toBe(
      'Near sail',
    ));
  test('fill and line in one object; apart where their opacities differ', async () => {
    const both = await one(
      '<path d="M0 0H9V9Z" fill="red" stroke="blue" stroke-width="2" stroke-linecap="round" stroke-linejoin="bevel"/>',
      'path',
    );
    expect([
      hex(both.fills[0]),
      hex(both.outlines[0].paint),
      both.outlines[0].width,
      both.outlines[0].cap,
      both.outlines[0].join,
    ]).toEqual([[255, 0, 0], [0, 0, 255], 2, 'round', 'bevel']);
    const apart = all(await read('<path d="M0 0H9V9Z" fill="red" fill-opacity=".5" stroke="blue"/>')).filter(
      (n) => n.kind === 'path',
    );
    expect(apart.map((n) => n.opacity)).toEqual([0.5, undefined]);
  });
  test('groups keep opacity and blend', async () =>
    expect(
      all(
        await read(
          '<g opacity=".4" style="mix-blend-mode:multiply"><rect width="5" height="5"/><rect width="9" height="2"/></g>',
        ),
      ).find((n) => n.kind === 'group' && n.opacity !== undefined),
    ).toMatchObject({ opacity: 0.4, blend: 'multiply' }));
  test('a gradient on the box, over again and there and back', async () => {
    const g = (more: string) =>
      `<linearGradient id="g" ${more}><stop offset="0" stop-color="red"/><stop offset="1" stop-color="blue" stop-opacity=".5"/></linearGradient><rect x="10" y="10" width="40" height="20" fill="url(#g)"/>`;
    const plain = (await one(g(''), 'shape')).fills[0];
    expect(plain).toMatchObject({
      kind: 'gradient',
      gradient: 'linear',
      geometry: [40, 0, 0, 20, 0, 0],
      ramp: { stops: [{ offset: 0 }, { offset: 1, opacity: 0.5 }] },
    });
    const again = (await one(g('x2=".25" spreadMethod="repeat"'), 'shape')).fills[0] as Extract<
      typeof plain,
      { kind: 'gradient' }
    >;
    expect('stops' in again.ramp && again.ramp.stops.map((s) => s.offset)).toEqual([
      0, 0.25, 0.25, 0.5, 0.5, 0.75, 0.75, 1,
    ]);
    const back = (await one(g('x2=".5" spreadMethod="reflect"'), 'shape')).fills[0] as typeof again;
    expect('stops' in back.ramp && back.ramp.stops.map((s) => hex(s)[0])).toEqual([255, 0, 0, 255]);
  });
  test('gradients take after others, and a focus is kept', async () => {
    const node = await one(
      '<radialGradient id="a"><stop offset=".2" stop-color="red"/><stop offset="1" stop-color="blue"/></radialGradient><radialGradient id="b" href="#a" gradientUnits="userSpaceOnUse" cx="50" cy="50" r="40" fx="60" fy="50"/><rect width="100" height="100" fill="url(#b)"/>',
      'shape',
    );
    expect(node.fills[0]).toMatchObject({ gradient: 'radial', geometry: [40, 0, 0, 40, 50, 50], focus: [0.25, 0] });
  });
  test('what is used elsewhere is there as often, with the style it is used in', async () => {
    const paths = all(
      await read(
        '<defs><path id="p" d="M0 0H9V9Z"/></defs><use href="#p" fill="red"/><use xlink:href="#p" x="20" fill="blue"/>',
      ),
    ).filter((n): n is NodeOf<'path'> => n.kind === 'path');
    expect(paths.map((p) => hex(p.fills[0]))).toEqual([
      [255, 0, 0],
      [0, 0, 255],
    ]);
  });
  test('what uses itself ends', async () =>
    expect(
      all(
        await read('<g id="a"><rect width="5" height="5"/><use href="#a"/></g><use href="#b"/><use id="b" href="#b"/>'),
      ).filter((n) => n.kind === 'shape'),
    ).toHaveLength(1));
  test('a clip cuts by its outline, a mask by its light', async () => {
    const r = await read(
      '<clipPath id="c"><circle cx="5" cy="5" r="5"/></clipPath><mask id="m"><rect width="9" height="9" fill="white"/></mask><rect width="10" height="10" clip-path="url(#c)"/><rect width="9" height="9" mask="url(#m)"/>',
    );
    expect(
      all(r)
        .flatMap((n) => (n.maskMode ? [n.maskMode] : []))
        .sort(),
    ).toEqual(['light', 'outline', 'outline']);
  });
  test('a pattern is its tile, repeated and cut', async () => {
    const r = await read(
      '<pattern id="p" width="10" height="10" patternUnits="userSpaceOnUse"><circle cx="5" cy="5" r="3"/></pattern><rect x="5" y="5" width="35" height="15" fill="url(#p)"/>',
    );
    expect(all(r).find((n) => n.kind === 'repeat')).toMatchObject({
      arrangement: { kind: 'grid', columns: 4, rows: 2, across: { x: 10, y: 0 } },
    });
  });
  test('words in a face that is here stay words; others become shapes and are told', async () => {
    const here = await read(
      '<text x="50" y="60" font-family="Bitter" font-size="12" text-anchor="middle" fill="navy">Lantern <tspan fill="red">Walk</tspan></text>',
    );
    const text = all(here).find((n): n is NodeOf<'displayText'> => n.kind === 'displayText')!;
    const { paragraphs } = here.clip.stories[text.story];
    expect([paragraphs[0].align, paragraphs[0].runs.map((r) => [r.text, r.face, r.size])]).toEqual([
      'middle',
      [
        ['Lantern ', 'bitter-400', 12],
        ['Walk', 'bitter-400', 12],
      ],
    ]);
    expect(here.notes).toEqual([]);
    const away = await read('<text y="20" font-family="Lanterna">Walk</text>');
    expect(all(away).map((n) => n.kind)).toEqual(['path', 'group']);
    expect(away.notes).toEqual(['Words in “Lanterna”, which is not here, became shapes of another face.']);
  });
  test('markers stand at the ends, turned with the line', async () => {
    expect(verticesOf([0, 0, 0, 1, 10, 0, 1, 10, 10]).map((v) => Math.round(v.angle))).toEqual([0, 45, 90]);
    const r = await read(
      '<marker id="m" orient="auto" markerWidth="4" markerHeight="4"><path d="M0 0H4V4Z"/></marker><path d="M10 10H50V50" fill="none" stroke="red" marker-start="url(#m)" marker-end="url(#m)"/>',
    );
    expect(all(r).filter((n) => n.name === 'Marker')).toHaveLength(2);
  });
  test('pictures inside are kept once, however often they are shown', async () => {
    const png = `data:image/png;base64,${Buffer.from(encode({ width: 2, height: 1, data: Uint8Array.from([255, 0, 0, 0, 0, 255]), channels: 3, depth: 8 })).toString('base64')}`;
    const r = await read(
      `<image href="${png}" width="20" height="20"/><image x="30" xlink:href="${png}" width="20" height="20" preserveAspectRatio="xMidYMid slice"/>`,
    );
    expect(r.clip.pictures).toHaveLength(1);
    expect(r.files.size).toBe(1);
    expect(
      all(r)
        .filter((n): n is NodeOf<'shape'> => n.kind === 'shape')
        .map((n) => [n.width, n.height]),
    ).toEqual([
      [20, 10],
      [20, 20],
    ]);
  });
});

describe('nothing runs, nothing is fetched, nothing is lost', () => {
  test('what is left out is told', async () => {
    const r = await read(
      '<script>alert(1)</script><foreignObject><p>hi</p></foreignObject><image href="http://marrowick.invalid/x.png" width="9" height="9"/><use href="other.svg#a"/><rect width="5" height="5" onclick="x()" filter="url(#f)"/><animate/><style>@import "x.css"; @font-face{font-family:x;src:url(y)}</style>',
      'onload="x()"',
    );
    for (const word of [
      /Scripts/,
      /foreignObject/,
      /not fetched: http:\/\/marrowick.invalid/,
      /outside the file is not fetched: other.svg/,
      /Event handlers are left out\. \(2 times\)/,
      /Filters/,
      /Animations/,
      /style sheet outside/,
      /Fonts that a style sheet names/,
    ])
      expect(r.notes.some((n) => word.test(n))).toBe(true);
    expect(JSON.stringify(r.clip)).not.toMatch(/alert|onclick|http/);
  });
  test('up to an error the drawing is kept', async () => {
    const r = await readSvg(
      bytes(
        '<svg xmlns="http://www.w3.org/2000/svg"><rect width="5" height="5"/><rect width="6" height="6"/><g></svg>',
      ),
      'x',
      { ...engines.env, fonts: engines.fonts },
    );
    expect(all(r).filter((n) => n.kind === 'shape')).toHaveLength(2);
    expect(r.notes[0]).toMatch(/damaged at line 1/);
  });
  test('entities, with elements in them too; those that grow without end do not', async () => {
    const doc = (subset: string, inner: string) =>
      readSvg(bytes(`<!DOCTYPE svg [${subset}]><svg xmlns="http://www.w3.org/2000/svg">${inner}</svg>`), 'x', {
        ...engines.env,
        fonts: engines.fonts,
      });
    expect(
      all(
        await doc(
          '<!ENTITY c "#ff0000"><!ENTITY r "<rect width=\'5\' height=\'5\'/>">',
          '&r;<rect width="9" height="9" fill="&c;"/>',
        ),
      ).filter((n) => n.kind === 'shape'),
    ).toHaveLength(2);
    const laughs = Array.from({ length: 30 }, (_, i) => `<!ENTITY a${i + 1} "${`&a${i};`.repeat(10)}">`).join('');
    await expect(doc(`<!ENTITY a0 "<rect/>">${laughs}`, '&a30;')).rejects.toThrow(
      'its entities come to more than 4 million characters',
    );
  });
  test('packed, in another encoding, or no drawing at all', async () => {
    const whole = svg('<rect id="Ö" width="5" height="5"/>');
    expect(svgText(gzipSync(bytes(whole)))).toBe(whole);
    expect(
      svgText(Uint8Array.from(Buffer.from(`<?xml version="1.0" encoding="iso-8859-1"?>${whole}`, 'latin1'))),
    ).toContain('Ö');
    expect(svgText(Uint8Array.from([0xff, 0xfe, ...Buffer.from(whole, 'utf16le')]))).toContain('Ö');
    for (const text of ['', 'plain words', '<html/>', '<svg'])
      await expect(readSvg(bytes(text), 'x', { ...engines.env, fonts: engines.fonts })).rejects.toBeInstanceOf(
        SvgProblem,
      );
  });
  test('copies of copies are bounded', async () => {
    const levels = Array.from(
      { length: 12 },
      (_, i) => `<g id="u${i + 1}">${`<use href="#u${i}"/>`.repeat(10)}</g>`,
    ).join('');
    await expect(read(`<defs><rect id="u0" width="1" height="1"/>${levels}</defs><use href="#u12"/>`)).rejects.toThrow(
      /copies and patterns come to more than/,
    );
  });

  // Mutated drawings: characters changed, ends cut, depth and numbers at their extremes. 2,000 in the full run.
  test('damaged drawings end in objects or a sentence', async () => {
    const whole = svg(
      '<defs><linearGradient id="g"><stop offset="0" stop-color="red"/><stop offset="1"/></linearGradient><clipPath id="c"><rect width="50" height="50"/></clipPath><pattern id="p" width="9" height="9" patternUnits="userSpaceOnUse"><path d="M0 0h5v5z"/></pattern><mask id="m"><rect width="9" height="9" fill="#fff"/></mask></defs><g clip-path="url(#c)" transform="rotate(5) scale(2 3)"><path d="M1 1C2 2 3 3 4 4A5 6 7 0 1 8 9Z" fill="url(#g)" stroke="#123" stroke-dasharray="3 2"/><rect width="30" height="20" fill="url(#p)" mask="url(#m)"/><text x="5 9" y="9" font-family="Bitter">Quay</text><use href="#g"/></g>',
    );
    const slow: string[] = [];
    await fc.assert(
      fc.asyncProperty(
        fc.array(
          fc.tuple(
            fc.nat({ max: whole.length - 1 }),
            fc.constantFrom('<', '>', '"', '&', '9', '-', 'e', '#', ' ', '\u0000', '99999999999', '<g>'.repeat(500)),
          ),
          { minLength: 1, maxLength: 5 },
        ),
        fc.option(fc.nat({ max: whole.length }), { freq: 4 }),
        async (changes, cut) => {
          let text = whole;
          for (const [at, c] of changes) text = text.slice(0, at) + c + text.slice(at + 1);
          const start = performance.now();
          await readSvg(bytes(cut === null ? text : text.slice(0, cut)), 'x', {
            ...engines.env,
            fonts: engines.fonts,
          }).catch((e: unknown) => {
            if (!(e instanceof SvgProblem)) throw e;
          });
          if (performance.now() - start > 5000) slow.push(text);
        },
      ),
      { numRuns: process.env.HOLVET_FULL ? 2000 : 60 },
    );
    expect(slow).toEqual([]);
  }, 600_000);
});
