import { readFileSync } from 'node:fs';
import { unzipSync, zipSync } from 'fflate';
import { checkDesign } from '@/core/check/check';
import { packDesign, refusalText, unpackDesign } from '@/core/file/archive';
import type { Assets } from '@/core/file/assets';
import { openAsDesign } from '@/core/input/asDesign';
import { readSwatchFile } from '@/core/input/swatches/read';
import { serializeDesign } from '@/core/model/serialize';
import type { Design } from '@/core/model/schema';
import { pagePlates } from '@/core/output/png';
import { writeSwatchFile } from '@/core/output/swatches/write';
import { prepare, type Engines } from '@/core/engines';
import { demoDesigns } from '@/demo/demos';
import { FULL, measured } from '../support/measured';
import { drawnBy, shopWith } from '../support/pictures';
import { placesOf } from '../support/places';
import { random } from '../support/random';
import { sampleDesign } from '../support/sample';

// Files as they come from failing disks, cut-off downloads and ill will: each is opened, or refused with a sentence;
// never a throw, never a hang; and whatever opens can be checked, drawn, saved and opened again as it was.

/**
 * A file that is not done after this much work (not time: others may be at work beside) hangs, as far as a person can
 * tell.
 */
const HANG_MS = 10_000;
const text = new TextEncoder();
const files = new Map<string, Uint8Array>();
let engines: Engines;
beforeAll(async () => {
  engines = await shopWith(files);
});

type Next = () => number;
const below = (next: Next, n: number) => Math.floor(next() * n);
const pick = <T>(next: Next, list: readonly T[]): T => list[below(next, list.length)];

/** Bytes turned, cut off, doubled, or blanked; the front, where headers lie, more often than the rest. */
function bytesBroken(given: Uint8Array, next: Next): Uint8Array {
  const at = () => below(next, next() < 0.5 ? Math.min(given.length, 200) : given.length);
  const out = given.slice();
  switch (below(next, 5)) {
    case 0:
      return given.slice(0, at());
    case 1: {
      const from = at();
      return new Uint8Array([...given.subarray(0, from), ...given.subarray(from, from + 40), ...given.subarray(from)]);
    }
    case 2: {
      const from = at();
      out.fill(pick(next, [0, 255]), from, from + 1 + below(next, 16));
      return out;
    }
    default:
      for (let i = 0, n = 1 + below(next, 8); i < n; i++) out[at()] = below(next, 256);
  }
  return out;
}

const ODD = [
  null,
  -1,
  0,
  1e308,
  -1e99,
  1e-300,
  '',
  'constructor',
  '__proto__',
  [],
  {},
  true,
  '../../x',
  '\u0000',
  'x'.repeat(5000),
];
/** Places of a JSON value put out of order. */
function jsonBroken(given: string, next: Next): string {
  const value = JSON.parse(given) as unknown;
  const places = placesOf(value);
  const numbers = places.filter(([holder, key]) => typeof holder[key] === 'number');
  for (let i = 0, n = 1 + below(next, 3); i < n; i++) {
    // Half are wild, half might be true: a number that is another, a place for another of its like.
    const wild = next() < 0.5;
    const [holder, key] = pick(next, wild ? places : numbers);
    const kind = below(next, 4);
    if (!wild)
      holder[key] =
        kind < 3
          ? (holder[key] as number) * pick(next, [-1, 0, 0.37, 1e3, 1e7, 1e-9])
          : (pick(next, numbers)[0][pick(next, numbers)[1]] ?? 1);
    else if (kind === 0) delete holder[key];
    else if (kind === 2) {
      const [other, k] = pick(next, places);
      holder[key] = structuredClone(other[k]);
    } else holder[key] = pick(next, ODD);
  }
  return JSON.stringify(value);
}

const NUMBERS = ['0', '-1', '1e308', '-1e-300', 'NaN', '999999999', '1e9%', '', '50%', '0.0001'];
const PIECES = [
  '<g>',
  '</g>',
  '<use href="#a"/>',
  '<g id="a"><use href="#a"/></g>',
  '<tspan dx="1 2 3">x</tspan>',
  '<style>*{fill:url(#a)}</style>',
  '<clipPath id="a"><path d="M0 0h9v9z" clip-path="url(#a)"/></clipPath>',
  '<!--',
  ']]>',
  '&#x0;',
  '&lt',
  '<mask id="a" mask="url(#a)"/>',
  '<pattern id="a" width="1e-9" height="1e-9" patternUnits="userSpaceOnUse"><rect width="1" height="1"/></pattern>',
  '<rect width="100" height="100" fill="url(#a)" stroke="url(#a)" stroke-dasharray="1e-9"/>',
  '<text rotate="1 2 3">W<tspan y="1e9">x</tspan></text>',
  '<svg viewBox="0 0 0 0">',
  '<image href="data:image/png;base64,iVBORw0KGgo="/>',
];
/** A drawing with numbers, tags and words put out of order. */
function svgBroken(given: string, next: Next): Uint8Array {
  let s = given;
  for (let i = 0, n = 1 + below(next, 4); i < n; i++) {
    const kind = below(next, 6);
    const spots = [...s.matchAll(kind < 2 ? /-?\d+(\.\d+)?/g : kind === 2 ? /<[^>]*>/g : /[\s>]/g)];
    if (!spots.length) continue;
    const spot = pick(next, spots);
    const with_ =
      kind < 2
        ? pick(next, NUMBERS)
        : kind === 2
          ? pick(next, ['', spot[0] + spot[0]])
          : kind === 3
            ? spot[0]
            : spot[0] + pick(next, PIECES);
    s = s.slice(0, spot.index) + with_ + s.slice(spot.index + spot[0].length);
  }
  const out = text.encode(s);
  return next() < 0.2 ? bytesBroken(out, next) : out;
}

/** What an opened design must bear. */
async function used(design: Design, assets: Assets): Promise<void> {
  files.clear();
  for (const [file, content] of assets) files.set(file, content);
  const palette = await prepare(engines, design);
  checkDesign(design, engines.builder, palette);
  const scene = engines.builder.build(design, design.pages[0]);
  pagePlates(scene, palette, (72 * 90) / Math.max(design.setup.width, design.setup.height));
  const saved = unpackDesign(packDesign(design, null, assets));
  if (!saved.ok) throw new Error(`what opened cannot be opened again: ${saved.code}`);
  expect(serializeDesign(saved.design)).toBe(serializeDesign(design));
}

/** A drawing or picture opened and used; why not, where it was refused. */
async function asDesign(bytes: Uint8Array, name: string): Promise<string | null> {
  const read = await openAsDesign(bytes, name, { ...engines.env, fonts: engines.fonts });
  if (!read.ok) return read.why;
  await used(read.design, read.assets);
  return null;
}

/** Runs `n` broken files through; each failure is told with its seed. */
async function run(what: string, seed: number, n: number, one: (next: Next) => Promise<string | null>): Promise<void> {
  const faults: string[] = [];
  let opened = 0;
  let slowest = 0;
  for (let i = 0; i < n; i++) {
    const start = process.cpuUsage();
    try {
      const refused = await one(random(seed + i));
      if (refused === null) opened++;
      // A refusal is a sentence for a person, not a program's.
      else if (!/[a-z]{2,} [a-z]/.test(refused) || /undefined|\[object|NaN|is not a function|Cannot read/.test(refused))
        faults.push(`${seed + i}: said “${refused}”`);
    } catch (e) {
      faults.push(`${seed + i}: ${(e as Error).stack!.split('\n').slice(0, 3).join(' ')}`);
    }
    const { user, system } = process.cpuUsage(start);
    const took = Math.round((user + system) / 1000);
    slowest = Math.max(slowest, took);
    if (took > HANG_MS) faults.push(`${seed + i}: took ${took} ms`);
  }
  measured(
    `mutated ${what}`,
    `${n} files, ${opened} opened, ${faults.length} faults, slowest ${slowest} ms`,
    '0 throws, 0 hangs of 10 s',
    'seeded mutations',
  );
  expect(faults).toEqual([]);
  // Neither all nothing nor all well: the mutations reach what they are for.
  expect(opened).toBeGreaterThan(0);
  expect(opened).toBeLessThan(n);
}

const MINUTES = 60_000 * (FULL ? 60 : 4);

test(
  'designs',
  async () => {
    const designs = [
      sampleDesign(),
      ...demoDesigns()
        .slice(1, 4)
        .map((d) => d.design),
    ];
    const packed = designs.map((d) => packDesign(d, null));
    await run('designs', 1_000, FULL ? 4_000 : 15, async (next) => {
      const bytes = pick(next, packed);
      let broken: Uint8Array;
      if (next() < 0.25) broken = bytesBroken(bytes, next);
      else {
        const parts = unzipSync(bytes);
        const json = new TextDecoder().decode(parts['design.json']);
        parts['design.json'] =
          next() < 0.85
            ? new Uint8Array(text.encode(jsonBroken(json, next)))
            : new Uint8Array(bytesBroken(parts['design.json'], next));
        broken = zipSync(parts, { level: 1 });
      }
      const read = unpackDesign(broken);
      if (!read.ok) return refusalText(read, 'Broken.holvet');
      await used(read.design, read.assets);
      return null;
    });
  },
  MINUTES,
);

test(
  'drawings',
  async () => {
    const bases = [
      ...['tt1', 'tt5'].map((name) => readFileSync(`tests/data/hostile/${name}.svg`, 'utf8').slice(0, 6_000)),
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 80"><defs><linearGradient id="a"><stop offset="0" stop-color="#123"/><stop offset="1" stop-color="gold" stop-opacity=".5"/></linearGradient><clipPath id="c"><circle cx="30" cy="30" r="20"/></clipPath><marker id="m" markerWidth="4" markerHeight="4"><path d="M0 0 4 2 0 4z"/></marker></defs><rect x="5" y="5" width="40" height="30" rx="4" fill="url(#a)" stroke="red" stroke-width="2" stroke-dasharray="3 1"/><g transform="rotate(20 30 30)" clip-path="url(#c)" opacity=".6"><path d="M10 10C20 0 40 0 50 10A20 10 0 1 1 10 40Q5 20 10 10z" fill-rule="evenodd" marker-mid="url(#m)"/></g><text x="10 20" y="60" font-size="12">Pier <tspan dy="2" font-weight="bold">nine</tspan></text><use href="#m" x="3"/></svg>',
      '<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="40mm"><style>.k{fill:#09c} g>rect:first-child{stroke:#000}</style><mask id="q"><rect width="50" height="50" fill="white"/></mask><pattern id="p" width="8" height="8" patternUnits="userSpaceOnUse"><circle r="3" cx="4" cy="4"/></pattern><g mask="url(#q)"><rect class="k" width="60" height="60"/><polygon points="1,2 40,4 9,50" fill="url(#p)"/></g><symbol id="s" viewBox="0 0 10 10"><ellipse cx="5" cy="5" rx="5" ry="2"/></symbol><use href="#s" width="30" height="20"/></svg>',
    ];
    await run('drawings', 10_000, FULL ? 3_000 : 30, (next) =>
      asDesign(svgBroken(pick(next, bases), next), 'Broken.svg'),
    );
  },
  MINUTES,
);

test(
  'pictures',
  async () => {
    const bases = [
      drawnBy('png16m'),
      drawnBy('pnggray'),
      drawnBy('jpeg'),
      drawnBy('jpegcmyk', { space: 'cmyk' }),
      drawnBy('tiff24nc'),
      drawnBy('tiff32nc', { space: 'cmyk' }),
      drawnBy('tifflzw'),
      drawnBy('tiffg4'),
    ];
    await run('pictures', 20_000, FULL ? 1_500 : 12, (next) =>
      asDesign(bytesBroken(pick(next, bases), next), 'Broken.png'),
    );
  },
  MINUTES,
);

test(
  'swatch files',
  async () => {
    const design = sampleDesign();
    const palette = await prepare(engines, design);
    const bases = (['cgats', 'cxf', 'tokens'] as const).map((format) => writeSwatchFile(design, palette, format).bytes);
    await run('swatch files', 30_000, FULL ? 500 : 60, async (next) => {
      const base = pick(next, bases);
      const read = readSwatchFile(
        next() < 0.5 && base === bases[2]
          ? text.encode(jsonBroken(new TextDecoder().decode(base), next))
          : bytesBroken(base, next),
      );
      return read.ok ? null : read.message;
    });
  },
  MINUTES,
);
