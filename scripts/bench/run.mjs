// npm run bench: ratios against a reference measured in the same run. Prints a table and writes docs/bench.md.
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const root = path.resolve(import.meta.dirname, '../..');
process.chdir(root);
const PORT = 3188;
/** Moves of a slider that are averaged. */
const MOVES = 60;
const rows = [];
const sorted = (l) => [...l].sort((a, b) => a - b);
const median = (l) => sorted(l)[l.length >> 1];
const p95 = (l) => sorted(l)[Math.min(l.length - 1, Math.floor(l.length * 0.95))];
const ms = (v) => `${v.toFixed(v < 10 ? 2 : 0)} ms`;
const add = (what, ours, reference, aim, note = '') =>
  rows.push({ what, ours, reference, ratio: ours / reference, aim, note });

/** `npm run bench -- crowd gestures` measures those parts alone, and writes no table. */
const PARTS = ['node', 'redraw', 'tone', 'crowd', 'slider', 'bead', 'nodes', 'gestures'];
const asked = process.argv.slice(2);
const wrong = asked.filter((p) => !PARTS.includes(p));
if (wrong.length) {
  console.error(`${wrong.join(', ')}: no part of the bench. Its parts: ${PARTS.join(', ')}.`);
  process.exit(2);
}
const wanted = (part) => !asked.length || asked.includes(part);

if (wanted('node')) {
  console.log('Node …');
  rows.push(
    ...JSON.parse(
      execFileSync('node', ['scripts/run-ts.mjs', 'scripts/bench/node.ts'], { encoding: 'utf8', maxBuffer: 1 << 26 })
        .trim()
        .split('\n')
        .pop(),
    ),
  );
}

console.log('Chromium …');
const out = mkdtempSync(path.join(tmpdir(), 'holvet-bench-'));
await build({
  entryPoints: ['scripts/bench/redraw.ts'],
  bundle: true,
  platform: 'browser',
  format: 'iife',
  target: 'es2022',
  outfile: path.join(out, 'redraw.js'),
  external: ['harfbuzzjs'],
  alias: { fs: './src/stubs/empty.ts', path: './src/stubs/empty.ts' },
  tsconfig: 'tsconfig.json',
  logLevel: 'error',
});
await build({
  entryPoints: ['scripts/bench/files.ts'],
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  outfile: 'dist/scripts/bench-files.mjs',
  logLevel: 'error',
});
execFileSync('node', ['dist/scripts/bench-files.mjs', out]);
const server = spawn(
  process.execPath,
  ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(PORT)],
  { stdio: 'ignore' },
);
const base = `http://127.0.0.1:${PORT}`;
for (let i = 0; i < 80; i++) {
  if (
    await fetch(base).then(
      () => true,
      () => false,
    )
  )
    break;
  await new Promise((r) => setTimeout(r, 250));
}
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
  headless: true,
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${base}/nowhere`);
  await page.evaluate(readFileSync(path.join(out, 'redraw.js'), 'utf8'));
  for (const n of wanted('redraw') ? [1000, 10000] : []) {
    const r = await page.evaluate((count) => window.redrawBench(count), n);
    add(
      `full redraw of ${n.toLocaleString('en')} shapes / bare Canvas2D, script`,
      median(r.quick.script),
      median(r.bare.script),
      1.3,
      `p95 ${ms(p95(r.quick.script))} / ${ms(p95(r.bare.script))}`,
    );
    add(
      `full redraw of ${n.toLocaleString('en')} shapes / bare Canvas2D, frame gap`,
      median(r.quick.frame),
      median(r.bare.frame),
      1.3,
      `p95 ${ms(p95(r.quick.frame))} / ${ms(p95(r.bare.frame))}`,
    );
  }
  if (wanted('tone')) {
    const tone = await page.evaluate(() => window.toneBench());
    add(
      'tone preview of a 12 Mpx picture at screen size / one drawImage of it',
      median(tone.preview),
      median(tone.draw),
      3,
      'median of 9',
    );
  }
  const recolour = wanted('slider') && {
    poster: await page.evaluate(() => window.recolourPoster()),
    10000: await page.evaluate(() => window.recolourCrowd(10000)),
  };
  const redraw = async () => {
    await page.bringToFront();
    return page.evaluate(async () => (await window.redrawBench(20000)).quick.frame);
  };
  const many = wanted('crowd') && (await everything(path.join(out, 'crowd-20000.holvet'), redraw));
  await page.close();
  const both = [
    ['all', 'choosing all of 20,000 shapes'],
    ['nudge', 'nudging 20,000 chosen shapes'],
  ];
  for (const [key, what] of many ? both : [])
    add(
      `${what}, until the bench is calm / one full redraw, frame gap`,
      median(many[key]),
      median(many.redraw),
      2,
      `in turns; slowest ${ms(Math.max(...many[key]))} / ${ms(Math.max(...many.redraw))}`,
    );
  const sliders = [
    ['the poster', 'poster', path.join(out, 'poster.holvet')],
    ['10,000 shapes', '10000', path.join(out, 'crowd-10000.holvet')],
  ];
  for (const [name, key, file] of recolour ? sliders : []) {
    const moves = await slider(file);
    const redraw = median(recolour[key].script);
    add(
      `move of a colour slider on ${name}, all but the redraw / one quick redraw, script a move at pointer rate`,
      Math.max(0.01, median(moves) - redraw),
      redraw,
      1,
      `whole move ${ms(median(moves))}, worst second ${ms(p95(moves))}`,
    );
  }

  if (wanted('bead')) {
    const bead = await beads(path.join(out, 'beads.holvet'));
    add(
      'drag of a gradient’s bead / drag of a plain shape of its size, script a move at pointer rate',
      median(bead.bead),
      median(bead.plain),
      2,
      `worst second ${ms(p95(bead.bead))} / ${ms(p95(bead.plain))}`,
    );
  }
  if (wanted('nodes')) {
    const node2 = await nodeDrag(path.join(out, 'paths.holvet'));
    add(
      'drag of a node of a path of 2,000 pieces / of 20, script a move at pointer rate',
      median(node2.long),
      median(node2.short),
      3,
      `worst second ${ms(p95(node2.long))} / ${ms(p95(node2.short))}`,
    );
  }
  if (wanted('gestures')) {
    const small = await gestures(path.join(out, 'crowd-100.holvet'));
    const large = await gestures(path.join(out, 'crowd-10000.holvet'));
    for (const [key, what, aim] of [
      ['drag', 'drag frame of one object', 1.5],
      ['press', 'press to first moved frame', 2],
      ['pan', 'pan frame', 1.5],
      ['zoom', 'zoom frame', 1.5],
    ]) {
      add(
        `${what} among 10,000 / among 100, script`,
        median(large[key].script),
        median(small[key].script),
        aim,
        `p95 ${ms(p95(large[key].script))} / ${ms(p95(small[key].script))}`,
      );
      if (large[key].frame.length)
        add(
          `${what} among 10,000 / among 100, frame gap`,
          median(large[key].frame),
          median(small[key].frame),
          aim,
          `p95 ${ms(p95(large[key].frame))} / ${ms(p95(small[key].frame))}`,
        );
    }
  }
} finally {
  await browser.close();
  server.kill();
}

/** A page with a design open and at rest, and the script it has run so far in ms: the browser's own count. */
async function opened(file) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Performance.enable');
  const script = async () =>
    (await cdp.send('Performance.getMetrics')).metrics.find((m) => m.name === 'ScriptDuration').value * 1000;
  await page.goto(base);
  await page.getByLabel('Open a design file').setInputFiles(file);
  await page.getByTestId('save-state').waitFor({ timeout: 60_000 });
  await page.waitForTimeout(6000); // the press, checks and thumbnail are done
  return { page, script };
}

/** Chooses all and nudges it, by keys: ms until three frames have come at their own pace. In turns with full redraws, in ms. */
async function everything(file, redraw) {
  const { page } = await opened(file);
  await page.waitForTimeout(6000);
  const press = (init) =>
    page.evaluate(
      (init) =>
        new Promise((done) => {
          const top = document.querySelector('#bench-top');
          top.focus();
          const start = performance.now();
          top.dispatchEvent(new KeyboardEvent('keydown', { ...init, bubbles: true, cancelable: true }));
          let [last, end, calm] = [performance.now(), performance.now(), 0];
          const frame = () => {
            const now = performance.now();
            if (now - last > 40) [end, calm] = [now, 0];
            last = now;
            if (++calm > 3) done(end - start);
            else requestAnimationFrame(frame);
          };
          requestAnimationFrame(frame);
        }),
      init,
    );
  const times = { all: [], nudge: [], redraw: [] };
  for (let i = 0; i < 5; i++) {
    // A page behind another has less of the machine.
    await page.bringToFront();
    await page.keyboard.press('Escape');
    await page.waitForTimeout(1500);
    times.all.push(await press({ key: 'a', code: 'KeyA', ctrlKey: true }));
    await page.waitForTimeout(2500);
    for (let j = 0; j < 3; j++) {
      times.nudge.push(await press({ key: 'ArrowRight', code: 'ArrowRight' }));
      await page.waitForTimeout(4000);
    }
    times.redraw.push(...(await redraw()));
  }
  await page.close();
  return times;
}

/** Moves a slider of the recipe slip with a real pointer; the script of each move, redraw and all. */
async function slider(file) {
  const { page, script } = await opened(file);
  await page
    .getByRole('button', { name: /^Edit (Wick|Black)$/ })
    .first()
    .click({ force: true });
  const track = await page.getByRole('slider', { name: 'Magenta, slider' }).boundingBox();
  const y = track.y + track.height / 2;
  const run = async () => {
    const list = [];
    for (let round = 0; round < 6; round++) {
      // A second at a pointer's own rate: panels follow at theirs, and their share is counted in.
      const before = await script();
      for (let i = 0; i < MOVES; i++) {
        await page.mouse.move(track.x + 12 + ((i * 7) % 150), y);
        await page.waitForTimeout(14);
      }
      list.push(((await script()) - before) / MOVES);
    }
    return list.slice(1);
  };
  await page.mouse.move(track.x + 10, y);
  // The same moves with nothing held: what moving and measuring cost by themselves.
  const idle = median(await run());
  await page.mouse.down();
  const moves = (await run()).map((v) => v - idle);
  await page.mouse.up();
  await page.close();
  return moves;
}

/** Drags a plain square, and then the middle bead of a gradient on a square as large. */
async function beads(file) {
  const { page, script } = await opened(file);
  const box = await page.locator('#bench-top').boundingBox();
  // The page is fitted whole: A3 with 3 mm of bleed.
  const scale = Math.min((box.width - 56) / (297 + 6), (box.height - 56) / (420 + 6));
  const at = (x, y) => ({
    x: box.x + box.width / 2 + (x - 297 / 2) * scale,
    y: box.y + box.height / 2 + (y - 210) * scale,
  });
  const run = async (from, by) => {
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + 5, from.y);
    const list = [];
    for (let round = 0; round < 5; round++) {
      const before = await script();
      for (let i = 0; i < MOVES; i++) {
        await page.mouse.move(from.x + 6 + ((i * 7) % by), from.y);
        await page.waitForTimeout(14);
      }
      list.push(((await script()) - before) / MOVES);
    }
    const said = await page.locator('#bench-top > [role=status]').textContent();
    await page.keyboard.press('Escape');
    await page.mouse.up();
    return { list: list.slice(1), said };
  };
  await page.getByRole('option', { name: /^Plain/ }).click();
  const plain = await run(at(90, 210), 40);
  await page.getByRole('option', { name: /^Ramp/ }).click();
  await page.getByRole('button', { name: 'Gradient', exact: true }).click();
  await page.waitForTimeout(1500);
  const bead = await run(at(210, 210), 40);
  if (!/mm/.test(plain.said ?? '') || !/%$/.test(bead.said ?? ''))
    throw new Error(`nothing was dragged: “${plain.said}”, “${bead.said}”`);
  await page.close();
  return { plain: plain.list, bead: bead.list };
}

/** Drags the last node of a path of 20 pieces, and of one of 2,000. */
async function nodeDrag(file) {
  const { page, script } = await opened(file);
  const box = await page.locator('#bench-top').boundingBox();
  const scale = Math.min((box.width - 56) / (297 + 6), (box.height - 56) / (420 + 6));
  const at = (x, y) => ({
    x: box.x + box.width / 2 + (x - 297 / 2) * scale,
    y: box.y + box.height / 2 + (y - 210) * scale,
  });
  const run = async (name, y) => {
    await page.getByRole('option', { name }).click();
    await page.getByRole('button', { name: 'Nodes', exact: true }).click();
    await page.waitForTimeout(1500);
    const from = at(220, y);
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + 5, from.y);
    const list = [];
    for (let round = 0; round < 5; round++) {
      const before = await script();
      for (let i = 0; i < MOVES; i++) {
        await page.mouse.move(from.x + 6 + ((i * 7) % 60), from.y + (i % 11));
        await page.waitForTimeout(14);
      }
      list.push(((await script()) - before) / MOVES);
    }
    const said = await page.locator('#bench-top > [role=status]').textContent();
    await page.keyboard.press('Escape');
    await page.mouse.up();
    if (!/mm/.test(said ?? '')) throw new Error(`no node was dragged: “${said}”`);
    return list.slice(1);
  };
  const short = await run(/^Short path/, 120);
  const long = await run(/^Long path/, 250);
  await page.close();
  return { short, long };
}

/** Opens a design of many shapes and works on it with a real pointer. Script time is the browser's own count. */
async function gestures(file) {
  const { page, script } = await opened(file);
  await page.evaluate(() => {
    window.gaps = [];
    let last = 0;
    const tick = (t) => {
      if (last) window.gaps.push(t - last);
      last = t;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  const box = await page.locator('#bench-top').boundingBox();
  const mid = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const result = {};
  const measure = async (key, count, step) => {
    const s = [];
    await page.evaluate(() => (window.gaps.length = 0));
    for (let i = 0; i < count; i++) {
      const before = await script();
      await step(i);
      await page.evaluate(() => new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r))));
      s.push(Math.max(0.01, (await script()) - before));
    }
    const gaps = await page.evaluate(() => window.gaps.slice());
    result[key] = { script: s.slice(1), frame: gaps.slice(1) };
  };
  // Finds a shape under the middle, wherever it is.
  let at = mid;
  for (const [dx, dy] of [
    [0, 0],
    [30, 0],
    [0, 40],
    [-40, 20],
    [50, 60],
    [-60, -50],
    [80, -70],
    [10, 110],
    [-90, 80],
  ]) {
    await page.mouse.move(mid.x + dx, mid.y + dy);
    if ((await page.locator('#bench-top').evaluate((el) => el.style.cursor)) === 'move') {
      at = { x: mid.x + dx, y: mid.y + dy };
      break;
    }
  }
  const press = [];
  for (let i = 0; i < 7; i++) {
    await page.mouse.move(at.x, at.y);
    await page.evaluate(() => {
      window.first = new Promise((resolve) => {
        window.addEventListener(
          'pointerdown',
          (e) => {
            const start = e.timeStamp;
            let moves = 0;
            const onMove = () => {
              // The second move is past the distance that tells a drag from a click.
              if (++moves < 2) return;
              window.removeEventListener('pointermove', onMove);
              requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - start), 0));
            };
            window.addEventListener('pointermove', onMove);
          },
          { once: true, capture: true },
        );
      });
    });
    await page.mouse.down();
    await page.mouse.move(at.x + 2, at.y);
    await page.mouse.move(at.x + 12, at.y + 6);
    press.push(await page.evaluate(() => window.first));
    await page.keyboard.press('Escape');
    await page.mouse.up();
    await page.waitForTimeout(400);
  }
  result.press = { script: press.slice(1), frame: [] };
  await page.mouse.move(at.x, at.y);
  await page.mouse.down();
  await page.mouse.move(at.x + 6, at.y);
  await measure('drag', 30, (i) => page.mouse.move(at.x + 10 + i * 3, at.y + Math.sin(i) * 20));
  const said = await page.locator('#bench-top > [role=status]').textContent();
  if (!/^-?[\d.]+ mm, -?[\d.]+ mm/.test(said ?? '')) throw new Error(`nothing was dragged: the readout says “${said}”`);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await page.waitForTimeout(1500);
  await measure('pan', 20, () => page.mouse.wheel(6, 8));
  await page.waitForTimeout(1500);
  await page.keyboard.down('Control');
  await measure('zoom', 16, (i) => page.mouse.wheel(0, i % 2 ? 60 : -70));
  await page.keyboard.up('Control');
  await page.close();
  return result;
}

const table = [
  '| what | ours | reference | ratio | aim | |',
  '|---|---|---|---|---|---|',
  ...rows.map(
    (r) =>
      `| ${r.what} | ${ms(r.ours)} | ${ms(r.reference)} | ${r.ratio.toFixed(2)} | ≤ ${r.aim} ${r.ratio <= r.aim ? 'met' : '**missed**'} | ${r.note} |`,
  ),
].join('\n');
console.log(table);
if (!asked.length)
  writeFileSync(
    'docs/bench.md',
    `# Speed\n\nRatios against a reference measured in the same run by \`npm run bench\`: headless Chromium without a GPU, two cores.\nScript time is the browser's own count of script; frame gaps are between animation frames (60 Hz).\n\n${table}\n`,
  );
