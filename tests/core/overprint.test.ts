import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { deltaE00 } from '@/core/colour/compare';
import { D50, cieF, type Triple } from '@/core/colour/spaces';
import type { Press } from '@/core/colour/press';
import { newDesign, setupOf } from '@/core/model/defaults';
import { prepare } from '@/core/engines';
import { measured } from '../support/measured';
import { making } from '../support/sample';
import { testEngines } from '../support/engines';

interface Patch {
  readonly inks: readonly [number, number, number, number];
  /** D50, relative to the paper. */
  readonly lab: Triple;
}

/** The measured patches of CGATS TR 006 (Debian icc-profiles-free, zlib), made relative to their paper. */
function readPatches(): Patch[] {
  const file = execFileSync('dpkg', ['-L', 'icc-profiles-free'], { encoding: 'utf8' })
    .split('\n')
    .find((f) => f.endsWith('/TR006.ti3'))!;
  const text = readFileSync(file, 'latin1');
  const fields = text.split('BEGIN_DATA_FORMAT')[1].split('END_DATA_FORMAT')[0].trim().split(/\s+/);
  const rows = text
    .split(/BEGIN_DATA\r?\n/)[1]
    .split(/END_DATA\r?\n/)[0]
    .trim()
    .split('\n')
    .map((l) => l.trim().split(/\s+/).map(Number))
    .filter((r) => r.length === fields.length && r.every(Number.isFinite));
  const column = (name: string) => fields.indexOf(name);
  const xyz = ['XYZ_X', 'XYZ_Y', 'XYZ_Z'].map(column);
  const inks = ['CMYK_C', 'CMYK_M', 'CMYK_Y', 'CMYK_K'].map(column);
  const paper = rows.find((r) => inks.every((i) => r[i] === 0))!;
  return rows.map((r) => {
    const f = xyz.map((i, j) => cieF(((r[i] / paper[i]) * D50[j]) / D50[j]));
    return {
      inks: inks.map((i) => r[i] / 100) as unknown as Patch['inks'],
      lab: [116 * f[1] - 16, 500 * (f[0] - f[1]), 200 * (f[1] - f[2])],
    };
  });
}

let press: Press;
let patches: Patch[];
beforeAll(async () => {
  const engines = await testEngines();
  press = (await prepare(engines, newDesign('Overprint', setupOf(10, 10), making))).press;
  patches = readPatches();
});

test('there are the 1,617 patches of the report, on the paper that the profile was made from', () => {
  expect(patches).toHaveLength(1617);
  const mean = patches.reduce((sum, p) => sum + deltaE00(press.lab(p.inks, []), p.lab), 0) / patches.length;
  // The profile's own fit to the data is 0.15; the table of 17⁴ nodes adds a little.
  measured('process inks against the patches of TR 006', `mean ΔE00 ${mean.toFixed(2)}`, '< 1', 'CGATS TR 006');
  expect(mean).toBeLessThan(1);
});

// Outside check: cyan, magenta and yellow in turn are taken for spot inks, known only by their solid; every overprint
// of them that was measured is predicted. Mean ΔE00 ≤ 2.5.
test.each([
  ['cyan', 0],
  ['magenta', 1],
  ['yellow', 2],
] as const)('%s taken for a spot ink: its overprints look as they were measured', (name, index) => {
  const solid = patches.find((p) => p.inks.every((v, i) => v === (i === index ? 1 : 0)))!;
  const table = press.spotTable(solid.lab);
  const others = patches.filter((p) => p.inks[index] > 0 && p.inks.some((v, i) => i !== index && v > 0));
  // SCTV is near linear for usual dot gain: a spot tint is the percentage that the file asks for.
  const differences = others.map((p) =>
    deltaE00(
      press.lab(
        p.inks.map((v, i) => (i === index ? 0 : v)),
        [{ table, tint: p.inks[index] }],
      ),
      p.lab,
    ),
  );
  expect(differences.length).toBeGreaterThan(500);
  const mean = differences.reduce((a, b) => a + b, 0) / differences.length;
  measured(
    `overprints with ${name} as a spot ink`,
    `mean ΔE00 ${mean.toFixed(2)}, worst ${Math.max(...differences).toFixed(1)}, ${differences.length} patches`,
    'mean ≤ 2.5',
    'CGATS TR 006',
  );
  expect(mean).toBeLessThanOrEqual(2.5);
});
