import Ajv2020 from 'ajv/dist/2020.js';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { zipSync, strToU8 } from 'fflate';
import { packDesign, refusalText, unpackDesign } from '@/core/file/archive';
import { assetName } from '@/core/file/assets';
import { designJsonSchema } from '@/core/model/jsonSchema';
import type { Design } from '@/core/model/schema';
import { serializeDesign } from '@/core/model/serialize';
import { demoDesigns } from '@/demo/demos';
import { sampleDesign } from '../support/sample';

const designs: [string, () => Design][] = [
  ['the demo poster', () => demoDesigns()[0].design],
  ['the sample page', sampleDesign],
];

describe.each(designs)('%s as a file', (_, design) => {
  test('comes back the same, from the same bytes', () => {
    const d = design();
    const bytes = packDesign(d, null);
    const opened = unpackDesign(bytes);
    expect(opened.ok && serializeDesign(opened.design)).toBe(serializeDesign(d));
    expect(Buffer.from(packDesign(d, null)).equals(Buffer.from(bytes))).toBe(true);
  });
  test('unzip lists it', () => {
    const dir = mkdtempSync(path.join(tmpdir(), 'holvet-zip-'));
    try {
      writeFileSync(path.join(dir, 'a.holvet'), packDesign(design(), Uint8Array.of(1, 2, 3)));
      const list = execFileSync('unzip', ['-Z1', path.join(dir, 'a.holvet')], { encoding: 'utf8' });
      expect(list.trim().split('\n').sort()).toEqual(['design.json', 'thumbnail.png']);
      execFileSync('unzip', ['-tq', path.join(dir, 'a.holvet')]);
    } finally {
      rmSync(dir, { recursive: true, force: true });
    }
  });
  test('the JSON Schema that we publish accepts it (ajv)', () => {
    const validate = new Ajv2020({ strict: false, validateFormats: false }).compile(designJsonSchema());
    expect(validate(JSON.parse(serializeDesign(design())))).toBe(true);
    expect(validate({ ...design(), pages: [] })).toBe(false);
    expect(validate({ ...design(), surprise: 1 })).toBe(false);
  });
  test('the published schema is the model’s own (else: npm run format-schema), and takes every design of the demo', () => {
    const published = JSON.parse(readFileSync('docs/format.schema.json', 'utf8')) as object;
    expect(published).toEqual(JSON.parse(JSON.stringify(designJsonSchema())));
    const validate = new Ajv2020({ strict: false, validateFormats: false }).compile(published);
    for (const { file, design: d } of demoDesigns())
      expect([file, validate(JSON.parse(serializeDesign(d))), validate.errors ?? []]).toEqual([file, true, []]);
  });
});

describe('what is refused, and in which words', () => {
  const words = (bytes: Uint8Array) => {
    const r = unpackDesign(bytes);
    return r.ok ? 'opened' : refusalText(r, 'poster.holvet');
  };
  const zip = (json: unknown) =>
    zipSync({ 'design.json': strToU8(typeof json === 'string' ? json : JSON.stringify(json)) });
  const good = packDesign(sampleDesign(), null);
  test.each<[string, Uint8Array, string | RegExp]>([
    ['nothing', new Uint8Array(), 'poster.holvet is not a Holvet design.'],
    ['a picture', Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0, 0), 'poster.holvet is not a Holvet design.'],
    ['another zip', zipSync({ mimetype: strToU8('x') }), 'poster.holvet is not a Holvet design.'],
    [
      'a file without its end',
      good.slice(0, good.length - 40),
      'poster.holvet is cut off: its end is missing. Ask for it again or use an earlier copy.',
    ],
    [
      'a file cut in the middle',
      good.slice(0, good.length >> 1),
      'poster.holvet is cut off: its end is missing. Ask for it again or use an earlier copy.',
    ],
    [
      'a newer version',
      zip({ ...sampleDesign(), format: 'holvet/7' }),
      'poster.holvet was made by a newer version (7). Update Holvet to open it.',
    ],
    ['another format', zip({ format: 'other/1' }), 'poster.holvet is not a Holvet design.'],
    ['no JSON', zip('{"format":'), 'poster.holvet is damaged at design.json: it is not JSON.'],
    [
      'a number out of range',
      zip({ ...sampleDesign(), setup: { ...sampleDesign().setup, width: 1e12 } }),
      /damaged at setup\.width/,
    ],
    [
      'a missing object',
      zip({ ...sampleDesign(), pages: [{ id: 'p', name: '', children: ['gone'] }] }),
      /damaged at pages\.p: the object gone is missing/,
    ],
  ])('%s', (_, bytes, expected) => {
    if (typeof expected === 'string') expect(words(bytes)).toBe(expected);
    else expect(words(bytes)).toMatch(expected);
  });
  test('too large is said with both numbers', () =>
    expect(refusalText({ code: 'tooLarge', bytes: 2147483648, limit: 1073741824 })).toBe(
      'This file is too large (2048 MB; the most is 1024 MB).',
    ));
  test('groups in a ring, a node in two places, a broken path, inks of one name', () => {
    const d = sampleDesign();
    const [a] = Object.keys(d.nodes);
    const bad = (change: Partial<Record<keyof Design, unknown>>) => words(zip({ ...d, ...change }));
    expect(
      bad({
        nodes: {
          ...d.nodes,
          [a]: {
            id: a,
            name: '',
            kind: 'group',
            transform: [1, 0, 0, 1, 0, 0],
            hidden: false,
            locked: false,
            children: [a],
          },
        },
      }),
    ).toMatch(/damaged/);
    expect(bad({ pages: [{ ...d.pages[0], children: [...d.pages[0].children, d.pages[0].children[0]] }] })).toMatch(
      /lies in two places/,
    );
    expect(bad({ inks: [...d.inks, { ...d.inks[0], id: 'other' }] })).toMatch(/two inks are called ember 66-43/);
  });
});

describe('files that belong to a design', () => {
  test('travel inside, under the name of their content, and only those', async () => {
    const bytes = Uint8Array.from({ length: 500 }, (_, i) => i % 251);
    const name = await assetName(bytes, 'icc');
    const packed = packDesign(
      { ...sampleDesign(), profile: { file: name, name: 'Own', totalInkLimit: 2.6 } },
      null,
      new Map([[name, bytes]]),
    );
    const opened = unpackDesign(packed);
    if (!opened.ok) throw new Error(opened.code);
    expect(opened.design.profile).toEqual({ file: name, name: 'Own', totalInkLimit: 2.6 });
    expect([...opened.assets]).toEqual([[name, bytes]]);
    const smuggled = zipSync({
      'design.json': strToU8(serializeDesign(sampleDesign())),
      'assets/../../evil.sh': strToU8('x'),
      'assets/readme.txt': strToU8('x'),
    });
    const other = unpackDesign(smuggled);
    expect(other.ok && other.assets.size).toBe(0);
  });
});

test('a design from before groups, stand-ins and own papers opens as it was', () => {
  // As the first version wrote it: inks of four fields, swatches without groups, a profile of two.
  const old = JSON.parse(serializeDesign(sampleDesign())) as Record<string, unknown>;
  const inks = old.inks as Record<string, unknown>[];
  expect(Object.keys(inks[0]).sort()).toEqual(['alternate', 'id', 'lab', 'name']);
  const opened = unpackDesign(zipSync({ 'design.json': strToU8(JSON.stringify(old)) }));
  expect(opened.ok && opened.design.inks[0].asStandIn).toBeFalsy();
});
