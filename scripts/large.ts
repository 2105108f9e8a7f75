// Writes the largest jobs there are piece by piece to a file, and says what they took (MB, seconds): node
// scripts/run-ts.mjs scripts/large.ts pages|pictures [COUNT]
import encodeJpeg, { init } from '@jsquash/jpeg/encode.js';
import { spawnSync } from 'node:child_process';
import { closeSync, mkdtempSync, openSync, readFileSync, rmSync, writeFileSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createRequire } from 'node:module';
import { nodeEnv } from '@/env/node';
import { openEngines, prepare } from '@/core/engines';
import { assetName } from '@/core/file/assets';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import { sendPdf } from '@/core/output/pdf/write';
import { DesignBuilder, flat } from '@/demo/builder';

const [what, count] = [process.argv[2], Number(process.argv[3] ?? 500)];
let peak = 0;
const look = () => (peak = Math.max(peak, process.memoryUsage().rss));
const timer = setInterval(look, 100);
const env = nodeEnv('public');
let n = 0;
const making = { newId: () => `n${(n++).toString(36)}`, now: () => '2026-11-21T18:00:00.000Z' };
const dir = mkdtempSync(path.join(tmpdir(), 'holvet-large-'));
const own = new Set<string>();
const read = (file: string) => new Uint8Array(readFileSync(path.join(dir, path.basename(file))));
const asset = async (file: string) => (own.has(path.basename(file)) ? read(file) : env.asset(file));
const engines = await openEngines({
  ...env,
  asset,
  // Pictures lie on the disk, as they do in a browser.
  assetAgain: async (file) => ({
    bytes: await asset(file),
    again: own.has(path.basename(file)) ? () => read(file) : undefined,
  }),
});
const b = new DesignBuilder(newDesign('Large', setupOf(595, 842, { bleed: 9 }), making), making);
let bytesIn = 0;
if (what === 'pages')
  for (let i = 0; i < count; i++)
    b.place(i, [
      b.shape('Ground', 'rectangle', { x: -9, y: -9, w: 613, h: 860 }, { fill: flat({ cmyk: [0.02, 0.08, 0.34, 0] }) }),
      ...Array.from({ length: 20 }, (_, k) =>
        b.shape(
          'Star',
          'star',
          { x: 40 + (k % 5) * 100, y: 60 + Math.floor(k / 5) * 90, w: 80, h: 80 },
          { fill: flat({ cmyk: [k / 20, 0.6, i / count, 0] }) },
        ),
      ),
      b.textFrame('Words', { x: 60, y: 500, w: 470, h: 300 }, [
        { align: 'left', leading: 1.3, runs: [runOf(`Page ${i + 1} of the walk. `.repeat(40), 12)] },
      ]),
    ]);
else {
  await init(
    new WebAssembly.Module(
      readFileSync(createRequire(import.meta.url).resolve('@jsquash/jpeg/codec/enc/mozjpeg_enc.wasm')),
    ),
  );
  const [w, h] = [4000, 3000];
  const data = new Uint8ClampedArray(w * h * 4).fill(255);
  // Numbers by chance, from a seed: nothing can be packed away.
  let seed = 7;
  for (let k = 0; k < data.length; k++)
    if (k % 4 !== 3) data[k] = (seed = (seed * 1103515245 + 12345) & 0x7fffffff) >>> 16;
  const noise = new Uint8Array(
    await encodeJpeg({ data, width: w, height: h } as ImageData, {
      quality: 92,
      trellis_multipass: false,
      progressive: false,
    }),
  );
  for (let i = 0; i < count; i++) {
    // A remark (COM, ITU T.81 B.2.4.5) makes each a file of its own.
    const head = Uint8Array.from([...noise.subarray(0, 2), 0xff, 0xfe, 0, 4, i >> 8, i & 255]);
    const whole = new Uint8Array(head.length + noise.length - 2);
    whole.set(head);
    whole.set(noise.subarray(2), head.length);
    const file = await assetName(whole, 'jpg');
    own.add(file);
    writeFileSync(path.join(dir, file), whole);
    bytesIn += whole.length;
    const picture = b.picture({ name: `Noise ${i}`, file, width: w, height: h, space: 'rgb' });
    b.place(i, [
      b.shape(
        'Picture',
        'rectangle',
        { x: 40, y: 40, w: 500, h: 375 },
        { fill: { kind: 'picture', picture, geometry: [500, 0, 0, 375, 0, 0], overprint: false } },
      ),
    ]);
  }
}
const design = b.done();
const before = process.memoryUsage().rss;
peak = before;
const [target, first] = [path.join(dir, 'large.pdf'), Date.now()];
const to = openSync(target, 'w');
let [out, largest] = [0, 0];
const palette = await prepare(engines, design);
const opened = Date.now();
await sendPdf(
  (piece) => {
    out += writeSync(to, piece);
    largest = Math.max(largest, piece.length);
    look();
  },
  design,
  design.pages,
  engines.builder,
  palette,
  engines.env,
  { marks: true, keepRgb: what === 'pictures' },
  { step: look },
);
closeSync(to);
look();
clearInterval(timer);
const mb = (v: number) => Math.round(v / 2 ** 20);
console.log(
  JSON.stringify({
    pages: design.pages.length,
    in: mb(bytesIn),
    out: mb(out),
    largestPiece: mb(largest),
    before: mb(before),
    peak: mb(peak),
    opening: Math.round((opened - first) / 1000),
    seconds: Math.round((Date.now() - opened) / 1000),
    // What another reader says of it, where there is one.
    check: spawnSync('qpdf', ['--check', target], { encoding: 'utf8' }).stdout?.trim().split('\n').at(-1),
  }),
);
rmSync(dir, { recursive: true });
