// npm run bench: ratios against a reference measured in the same run, in turns. Prints a table; docs/bench.md is of the
// last five whole runs.
import { build } from 'esbuild';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { beads, drawerPage, gestures, nodeDrags, sliders } from './gestures';
import { measured, type Row } from './measure';
import { launch, serve } from './places';
import { HEAD, keepRuns, keptRuns, RUNS, steadinessOf, tableOf } from './table';
import { answers, everything, memory, opening } from './whole';

/** `npm run bench -- crowd gestures` measures those parts alone, and writes no table. */
const PARTS = [
  'node',
  'redraw',
  'tone',
  'crowd',
  'slider',
  'bead',
  'nodes',
  'gestures',
  'opening',
  'memory',
  'answers',
] as const;
const asked = process.argv.slice(2);
const wrong = asked.filter((p) => !(PARTS as readonly string[]).includes(p));
if (wrong.length) {
  console.error(`${wrong.join(', ')}: no part of the bench. Its parts: ${PARTS.join(', ')}.`);
  process.exit(2);
}
/** Whether a part is asked for; says then that it begins, and when. */
function wanted(part: (typeof PARTS)[number]): boolean {
  const yes = !asked.length || asked.includes(part);
  if (yes) console.log(`${part} … after ${Math.round(performance.now() / 1000)} s`);
  return yes;
}
const rows: Row[] = [];

if (wanted('node')) {
  // Plates and a drawing by themselves, as in their workers: what the others leave in memory would be measured too.
  for (const file of ['plates', 'svg', 'node']) {
    const said = execFileSync('node', ['scripts/run-ts.mjs', `scripts/bench/${file}.ts`], {
      encoding: 'utf8',
      maxBuffer: 1 << 26,
    });
    rows.push(...(JSON.parse(said.trim().split('\n').pop()!) as Row[]));
  }
}

if (PARTS.some((p) => p !== 'node' && (!asked.length || asked.includes(p)))) {
  const folder = mkdtempSync(path.join(tmpdir(), 'holvet-bench-'));
  await build({
    entryPoints: ['scripts/bench/redraw.ts'],
    bundle: true,
    platform: 'browser',
    format: 'iife',
    target: 'es2022',
    outfile: path.join(folder, 'redraw.js'),
    external: ['harfbuzzjs'],
    alias: { fs: './src/stubs/empty.ts', path: './src/stubs/empty.ts' },
    tsconfig: 'tsconfig.json',
    logLevel: 'error',
  });
  execFileSync('node', ['scripts/run-ts.mjs', 'scripts/bench/files.ts', folder]);
  const stop = await serve();
  const browser = await launch();
  try {
    const drawer = await drawerPage(browser, readFileSync(path.join(folder, 'redraw.js'), 'utf8'));
    for (const n of wanted('redraw') ? [1000, 10_000] : []) {
      type Sample = { readonly script: number[]; readonly frame: number[] };
      const r = (await drawer.page.evaluate(`window.redrawBench(${n})`)) as { bare: Sample; quick: Sample };
      for (const [key, what] of [
        ['script', 'script'],
        ['frame', 'frame gap'],
      ] as const)
        rows.push({
          what: `full redraw of ${n.toLocaleString('en')} shapes / bare Canvas2D, ${what}`,
          aim: 1.3,
          note: '',
          ...measured(r.quick[key], r.bare[key]),
        });
    }
    if (wanted('tone')) {
      const tone = (await drawer.page.evaluate('window.toneBench()')) as { preview: number[]; draw: number[] };
      rows.push({
        what: 'tone preview of a 12 Mpx picture at screen size / one drawImage of it',
        aim: 3,
        note: '',
        ...measured(tone.preview, tone.draw),
      });
    }
    if (wanted('crowd')) rows.push(...(await everything(browser, folder, drawer)));
    if (wanted('slider')) rows.push(...(await sliders(browser, folder, drawer)));
    await drawer.page.close();
    if (wanted('bead')) rows.push(...(await beads(browser, folder)));
    if (wanted('nodes')) rows.push(...(await nodeDrags(browser, folder)));
    if (wanted('gestures')) rows.push(...(await gestures(browser, folder)));
    if (wanted('opening')) rows.push(...(await opening(browser, folder)));
    if (wanted('answers')) rows.push(...(await answers(browser, folder)));
    if (wanted('memory')) rows.push(...(await memory(folder)));
  } finally {
    await browser.close();
    stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

console.log(tableOf([rows]));
if (!asked.length) {
  const runs = [...keptRuns(), rows].slice(-RUNS);
  keepRuns(runs);
  writeFileSync('docs/bench.md', `${HEAD}\n\n${tableOf(runs)}\n\n${steadinessOf(runs)}\n`);
}
process.exit(0);
