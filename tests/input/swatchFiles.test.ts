import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { defineConfig, parse } from '@terrazzo/parser';
import fc from 'fast-check';
import type { ExchangeColour, SwatchesRead } from '@/core/colour/exchange';
import { labFromSpectrum } from '@/core/colour/spectrum';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { record } from '@/core/edit/history';
import { addExchanged, exchangeOf } from '@/core/edit/exchange';
import { readSwatchFile } from '@/core/input/swatches/read';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design, Ink, Swatch } from '@/core/model/schema';
import { writeSwatchFile, type SwatchFormat } from '@/core/output/swatches/write';
import { prepare, type Engines } from '@/core/engines';
import { measured } from '../support/measured';
import { making } from '../support/sample';
import { publicFolder, testEngines } from '../support/engines';

let engines: Engines;
const dir = mkdtempSync(path.join(os.tmpdir(), 'holvet-swatches-'));
beforeAll(async () => {
  engines = await testEngines();
});

const bytes = (text: string) => new TextEncoder().encode(text);
const text = (b: Uint8Array) => new TextDecoder().decode(b);
function good(r: SwatchesRead) {
  if (!r.ok) throw new Error(`line ${r.line}: ${r.message}`);
  return r;
}

const EMBER: Ink = { ...SPOT_LIBRARY[0], id: 'ember' };
const base = (swatches: readonly Swatch[], inks: readonly Ink[] = [EMBER]): Design => ({
  ...newDesign('Walk colours', setupOf(100, 100), making),
  inks,
  swatches,
});
const WALK = base([
  { id: 'a', name: 'Quay Night', kind: 'colour', colour: { cmyk: [1, 0.86, 0.38, 0.44] }, group: 'Night' },
  { id: 'b', name: 'Ember 66-43', kind: 'colour', colour: { ink: 'ember', tint: 1 } },
  { id: 'c', name: 'Ember, half', kind: 'colour', colour: { ink: 'ember', tint: 0.5 } },
  { id: 'd', name: 'Web “blue”', kind: 'colour', colour: { rgb: [0.2, 0.4, 0.8] } },
  { id: 'e', name: 'Measured', kind: 'colour', colour: { lab: [52.5, -12.25, 33] } },
  { id: 'f', name: 'Grey', kind: 'colour', colour: { gray: 0.25 } },
  {
    id: 'g',
    name: 'Dusk',
    kind: 'ramp',
    mixing: 'oklab',
    stops: [
      { offset: 0, colour: { swatch: 'a', tint: 1 }, opacity: 0.4, midpoint: 0.3 },
      { offset: 0.7, colour: { ink: 'ember', tint: 1 } },
    ],
  },
]);

async function written(d: Design, format: SwatchFormat): Promise<Uint8Array> {
  return writeSwatchFile(d, await prepare(engines, d), format).bytes;
}
/** The colours of a design as files carry them: names, groups, numbers, no ids. */
async function content(d: Design) {
  return exchangeOf(d, await prepare(engines, d)).swatches.map(({ name, group, colour }) => ({
    name,
    ...(group && { group }),
    colour,
  }));
}
const FORMATS = ['cgats', 'cxf', 'tokens'] as const;

describe.each(FORMATS)('%s', (format) => {
  test('what is written is read again, names, groups and numbers', async () => {
    const read = good(readSwatchFile(await written(WALK, format)));
    expect(read.swatches.map(({ name, group, colour }) => ({ name, ...(group && { group }), colour }))).toEqual(
      await content(WALK),
    );
    expect(read.ramps).toHaveLength(format === 'tokens' ? 1 : 0);
    if (format === 'tokens')
      expect(read.ramps[0]).toMatchObject({
        mixing: 'oklab',
        stops: [{ offset: 0, opacity: 0.4, midpoint: 0.3 }, { offset: 0.7 }],
      });
  });

  test('1,000 random swatches come back exactly, and become the same swatches of another design', async () => {
    const unit = fc.integer({ min: 0, max: 10_000 }).map((v) => v / 10_000);
    const level = fc.integer({ min: 0, max: 255 }).map((v) => v / 255);
    const cmyk = fc.tuple(unit, unit, unit, unit);
    const lab = fc
      .tuple(
        fc.integer({ min: 0, max: 10_000 }),
        fc.integer({ min: -12_800, max: 12_800 }),
        fc.integer({ min: -12_800, max: 12_800 }),
      )
      .map(([l, a, b]) => [l / 100, a / 100, b / 100] as const);
    const colour = fc.oneof(
      fc.record({ cmyk }),
      fc.record({ rgb: fc.tuple(level, level, level) }),
      fc.record({ lab }),
      fc.record({ gray: level }),
      fc.record({ ink: fc.constant('ember'), tint: unit }),
    );
    // Any words without control characters; runs of blanks are one blank in a file of words.
    const name = fc
      .string({ unit: 'grapheme', minLength: 1, maxLength: 40 })
      .map((s) => s.replace(/[\p{Cc}\s]+/gu, ' ').trim() || 'x')
      .map((s) => s.normalize('NFC'));
    const swatches = fc.sample(fc.record({ name, colour, group: fc.option(name, { nil: undefined }) }), {
      numRuns: 1000,
      seed: 7,
    });
    const d = base(
      swatches.map((s, i): Swatch => ({
        id: `s${i}`,
        name: s.name,
        kind: 'colour',
        colour: s.colour,
        ...(s.group && { group: s.group }),
      })),
    );
    const read = good(readSwatchFile(await written(d, format)));
    const back = read.swatches.map(({ name: n, group, colour: c }) => ({
      name: n,
      ...(group && { group }),
      colour: c,
    }));
    // Tokens nest by group; the others keep the tray's order.
    const order = (list: readonly object[]) => (format === 'tokens' ? list.map((x) => JSON.stringify(x)).sort() : list);
    expect(order(back)).toEqual(order(await content(d)));
    const into = record(
      base([], []),
      'Read',
      (draft) => void addExchanged(draft, read.swatches, read.ramps, making.newId),
    )!.design;
    expect(into.inks.map(({ name: n, lab: l, alternate }) => ({ n, l, alternate }))).toEqual([
      { n: EMBER.name, l: EMBER.lab, alternate: EMBER.alternate },
    ]);
    expect(into.swatches.length).toBeGreaterThan(900);
  });

  test('numbers with all their digits come back within one part in 10¹⁵', async () => {
    const rows = fc.sample(
      fc.tuple(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
      ),
      { numRuns: 200, seed: 3 },
    );
    const d = base(
      rows.map(([r, g, b], i) => ({ id: `s${i}`, name: `s${i}`, kind: 'colour', colour: { rgb: [r, g, b] } })),
    );
    good(readSwatchFile(await written(d, format))).swatches.forEach((s, i) => {
      if (!('rgb' in s.colour)) throw new Error('not RGB');
      s.colour.rgb.forEach((v, j) => expect(Math.abs(v - rows[i][j])).toBeLessThanOrEqual(1e-15));
    });
  });

  test('a file cut off anywhere is refused with a line, or read as far as it is whole', async () => {
    const whole = await written(WALK, format);
    for (let end = 60; end < whole.length - 20; end += 97) {
      const read = readSwatchFile(whole.slice(0, end));
      if (!read.ok)
        expect(read.line === null || (read.line >= 1 && read.line <= text(whole).split('\n').length)).toBe(true);
      else throw new Error(`${end} bytes of ${whole.length} were taken for a whole file`);
    }
  });
});

const transicc = (args: string[], input: Uint8Array): string => {
  const file = path.join(dir, 'in.it8');
  const out = path.join(dir, 'out.it8');
  writeFileSync(file, input);
  execFileSync('transicc', [...args, file, out], { stdio: 'pipe' });
  return readFileSync(out, 'utf8');
};

// Oracle: transicc (Little CMS), which reads and writes CGATS tables.
test('transicc reads our table: the same Lab, and the look it gives our recipes is ours', async () => {
  const table = await written(WALK, 'cgats');
  const out = good(readSwatchFile(bytes(transicc(['-i', '*Lab', '-o', '*Lab', '-t1'], table))));
  const ours = exchangeOf(WALK, await prepare(engines, WALK)).swatches;
  expect(out.swatches).toHaveLength(ours.length);
  let worst = 0;
  out.swatches.forEach((s, i) => s.lab!.forEach((v, j) => (worst = Math.max(worst, Math.abs(v - ours[i].lab[j])))));
  const looks = good(
    readSwatchFile(
      bytes(transicc(['-i', path.join(publicFolder, 'icc/coated-tr006.icc'), '-o', '*Lab', '-t1'], table)),
    ),
  );
  const palette = await prepare(engines, WALK);
  let off = 0;
  looks.swatches.forEach((s, i) =>
    s.lab!.forEach((v, j) => (off = Math.max(off, Math.abs(v - palette.press.lab(ours[i].cmyk, [])[j])))),
  );
  measured(
    'CGATS read by transicc',
    `Lab ${worst.toFixed(4)}, look of recipes ${off.toFixed(2)}`,
    'equal to its print (0.01); table 4 Lab',
    'transicc',
  );
  expect(worst).toBeLessThanOrEqual(0.01);
  expect(off).toBeLessThan(4);
});

// Oracle: cxf2ti3 of Debian's argyll.
test('cxf2ti3 reads our CxF: the same names and Lab', async () => {
  const file = path.join(dir, 'ours.cxf');
  writeFileSync(file, await written(WALK, 'cxf'));
  execFileSync('cxf2ti3', [file, path.join(dir, 'ours')], { stdio: 'pipe' });
  const back = good(readSwatchFile(readFileSync(path.join(dir, 'ours.cie'))));
  const ours = exchangeOf(WALK, await prepare(engines, WALK)).swatches;
  expect(back.swatches).toHaveLength(ours.length);
  back.swatches.forEach((s, i) => s.lab!.forEach((v, j) => expect(Math.abs(v - ours[i].lab[j])).toBeLessThan(1e-3)));
});

// Oracle: the same program's own sums, from the spectrum to Lab (D50, 1931 2°).
test('the Lab of a spectrum is that of an independent program', () => {
  const spectra = [0, 1, 2].map((k) =>
    Array.from({ length: 36 }, (_, i) => 0.5 + 0.4 * Math.sin((i * (k + 1)) / 6 + k)),
  );
  const header = [
    'CTI3',
    '',
    'DESCRIPTOR "three"',
    'ORIGINATOR "test"',
    'DEVICE_CLASS "OUTPUT"',
    'COLOR_REP "CMYK_XYZ"',
    'SPECTRAL_BANDS "36"',
    'SPECTRAL_START_NM "380.0"',
    'SPECTRAL_END_NM "730.0"',
    '',
  ];
  const fields = [
    'SAMPLE_ID',
    'CMYK_C',
    'CMYK_M',
    'CMYK_Y',
    'CMYK_K',
    'XYZ_X',
    'XYZ_Y',
    'XYZ_Z',
    ...spectra[0].map((_, i) => `SPEC_${380 + 10 * i}`),
  ];
  const rows = spectra.map((s, i) => [i + 1, 0, 0, 0, 0, 50, 50, 50, ...s.map((v) => (v * 100).toFixed(6))].join(' '));
  writeFileSync(
    path.join(dir, 'spectra.ti3'),
    [
      ...header,
      `NUMBER_OF_FIELDS ${fields.length}`,
      'BEGIN_DATA_FORMAT',
      fields.join(' '),
      'END_DATA_FORMAT',
      `NUMBER_OF_SETS ${rows.length}`,
      'BEGIN_DATA',
      ...rows,
      'END_DATA',
      '',
    ].join('\n'),
  );
  execFileSync('spec2cie', ['-i', 'D50', '-o', '1931_2', path.join(dir, 'spectra.ti3'), path.join(dir, 'cie.ti3')], {
    stdio: 'pipe',
  });
  const theirs = good(readSwatchFile(readFileSync(path.join(dir, 'cie.ti3'))));
  let worst = 0;
  theirs.swatches.forEach((s, i) =>
    labFromSpectrum({ start: 380, step: 10, values: spectra[i] })!.forEach(
      (v, j) => (worst = Math.max(worst, Math.abs(v - s.lab![j]))),
    ),
  );
  measured('Lab of three spectra', `worst ${worst.toFixed(3)}`, '≤ 0.3', 'argyll spec2cie, D50, 1931 2°');
  expect(worst).toBeLessThan(0.3);
});

// Oracle: @terrazzo/parser with its rule that colours are valid.
test('the token parser accepts our tokens, and its values are ours', async () => {
  const src = text(await written(WALK, 'tokens'));
  const config = defineConfig({ lint: { rules: { 'core/valid-color': 'error' } } }, { cwd: new URL(`file://${dir}/`) });
  const { tokens } = await parse([{ filename: new URL(`file://${dir}/tokens.json`), src }], { config });
  const ours = exchangeOf(WALK, await prepare(engines, WALK)).swatches;
  for (const s of ours) {
    const id = `${s.group ? `${s.group}.` : ''}${s.name}`;
    const token = tokens[id] as {
      $value: { colorSpace: string; components: number[] };
      $extensions: Record<string, { colour: ExchangeColour }>;
    };
    const expected = 'rgb' in s.colour ? s.colour.rgb : s.lab;
    expect(token.$value.colorSpace).toBe('rgb' in s.colour ? 'srgb' : 'lab');
    token.$value.components.forEach((v, j) => expect(v).toBeCloseTo(expected[j], 9));
    expect(token.$extensions['org.holvet'].colour).toEqual(s.colour);
  }
});

describe('files from elsewhere', () => {
  test('a table of measured patches, a file with commas, one with only hex', () => {
    const patches = good(readSwatchFile(readFileSync('/usr/share/color/icc/TR006.ti3')));
    expect(patches.swatches.length).toBe(1617);
    expect('cmyk' in patches.swatches[0].colour).toBe(true);
    const rgb = good(
      readSwatchFile(
        bytes(
          'CGATS.17\r\n# from a meter\r\nBEGIN_DATA_FORMAT\r\nSAMPLE_ID RGB_R RGB_G RGB_B\r\nEND_DATA_FORMAT\r\nBEGIN_DATA\r\nA1 255 127,5 0\r\nEND_DATA\r\n',
        ),
      ),
    );
    expect(rgb.swatches).toEqual([{ name: 'A1', colour: { rgb: [1, 0.5, 0] } }]);
    const tokens = good(
      readSwatchFile(
        bytes(
          '{"quay": {"$type": "color", "night": {"$value": "#0b3a5e"}, "same": {"$value": "{quay.night}"}, "vivid": {"$value": {"colorSpace": "display-p3", "components": [1, 0.2, 0]}}}, "gap": {"$type": "dimension", "$value": "4px"}}',
        ),
      ),
    );
    expect(tokens.swatches.map((s) => [s.name, s.group])).toEqual([
      ['night', 'quay'],
      ['same', 'quay'],
      ['vivid', 'quay'],
    ]);
    expect(tokens.swatches[0].colour).toEqual(tokens.swatches[1].colour);
    expect('lab' in tokens.swatches[2].colour).toBe(true);
    expect(tokens.notes).toEqual(['gap is a dimension, not a colour.']);
  });

  test('CxF that holds only a spectrum becomes its Lab; what has no colour is said', () => {
    const spectrum = Array.from({ length: 36 }, () => '0.5').join(' ');
    const file = `<CxF xmlns="http://colorexchangeformat.com/CxF3-core"><Resources><ObjectCollection><Object Name="Half" ObjectType="Target"><ColorValues><ReflectanceSpectrum StartWL="380">${spectrum}</ReflectanceSpectrum></ColorValues></Object><Object Name="Nothing" ObjectType="Target"/></ObjectCollection></Resources></CxF>`;
    const read = good(readSwatchFile(bytes(file)));
    expect(read.swatches).toHaveLength(1);
    expect(read.swatches[0].lab![0]).toBeCloseTo(76.07, 1); // L* of 50 % reflectance
    expect(read.notes).toEqual(['“Nothing” has no colour that can be read.']);
  });

  test('named colours of an ICC profile (ICC.1:2022 10.17), and what is wrong with a short one', () => {
    const names = ['Harbour', 'Kelp'];
    const profile = new Uint8Array(132 + 12 + 84 + names.length * 38);
    const view = new DataView(profile.buffer);
    const put = (at: number, word: string) => [...word].forEach((c, i) => (profile[at + i] = c.charCodeAt(0)));
    put(12, 'nmcl');
    put(16, 'CMYK');
    put(20, 'Lab ');
    put(36, 'acsp');
    view.setUint32(128, 1);
    put(132, 'ncl2');
    view.setUint32(136, 144);
    put(144, 'ncl2');
    view.setUint32(144 + 12, names.length);
    put(144 + 20, 'Old ');
    names.forEach((name, i) => {
      const at = 144 + 84 + i * 38;
      put(at, name);
      view.setUint16(at + 32, 50 * 652.8);
      view.setUint16(at + 34, (10 + 128) * 256);
      view.setUint16(at + 36, (-20 + 128) * 256);
    });
    const read = good(readSwatchFile(profile));
    expect(read.swatches.map((s) => s.name)).toEqual(['Old Harbour', 'Old Kelp']);
    read.swatches[1].lab!.forEach((v, j) => expect(v).toBeCloseTo([50, 10, -20][j], 2));
    expect(readSwatchFile(profile.slice(0, profile.length - 10))).toMatchObject({
      ok: false,
      message: expect.stringMatching(/ends before/),
    });
    expect(readSwatchFile(new Uint8Array(readFileSync(path.join(publicFolder, 'icc/srgb.icc'))))).toMatchObject({
      ok: false,
      message: expect.stringMatching(/no named colours/),
    });
  });

  const table = (rows: string) =>
    `CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_NAME CMYK_C CMYK_M CMYK_Y CMYK_K\nEND_DATA_FORMAT\nBEGIN_DATA\n${rows}\nEND_DATA\n`;
  test.each<[string, string, number | null, RegExp]>([
    ['a word for a number', table('Dusk 100 72 8 20\nTide 82 x 22 6'), 7, /“x” under CMYK_M is not a number/],
    ['too much ink', table('Dusk 100 72 8 120'), 6, /120 under CMYK_K is not between 0 and 100/],
    ['a value missing', table('Dusk 100 72 8 20\nTide 82 46 22'), 7, /4 of 5 values/],
    ['no end', table('Dusk 100 72 8 20').replace('END_DATA\n', ''), 6, /END_DATA is missing/],
    ['no columns we know', table('Dusk 1 2 3 4').replace(/CMYK/g, 'HUE'), 2, /neither CMYK, Lab nor RGB/],
    ['XML cut off', '<CxF>\n<Resources>\n', 3, /unclosed tag/i],
    ['XML of another kind', '<svg></svg>', 1, /not CxF/],
    [
      'a number in CxF that is none',
      '<CxF><Resources><ObjectCollection>\n<Object Name="Dusk"><ColorValues><ColorCIELab>\n<L>fifty</L><A>0</A><B>0</B></ColorCIELab></ColorValues></Object></ObjectCollection></Resources></CxF>',
      3,
      /“fifty” in L is not a number/,
    ],
    ['JSON with a slip', '{\n"a": {"$type": "color",\n"$value": #123}\n}', 3, /not JSON/],
    [
      'a token out of range',
      '{\n"a": {"$type": "color", "$value": "#fff"},\n"b": {"$type": "color", "$value": {"colorSpace": "srgb", "components": [2, 0, 0]}}\n}',
      3,
      /b: an sRGB component/,
    ],
    ['a token in ring', '{\n"a": {"$type": "color", "$value": "{a}"}\n}', 2, /a: “\{a\}” is not a colour/],
    ['words', 'Dear Guild,\nthe colours are nice.', 1, /not a swatch file/],
    ['nothing', '', null, /empty/],
  ])('a broken file says where: %s', (_, file, line, message) => {
    const read = readSwatchFile(bytes(file));
    expect(read).toMatchObject({ ok: false, line });
    if (!read.ok) expect(read.message).toMatch(message);
  });

  test('an entity bomb and an outside entity stay unread', () => {
    const bomb =
      '<!DOCTYPE CxF [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;"><!ENTITY x SYSTEM "file:///etc/passwd">]><CxF><Resources><ObjectCollection><Object Name="&b;&x;"/></ObjectCollection></Resources></CxF>';
    expect(readSwatchFile(bytes(bomb)).ok).toBe(false);
  });
});
