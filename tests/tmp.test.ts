import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { Resvg } from '@resvg/resvg-js';
import { decode } from 'fast-png';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { newDesign, setupOf } from '@/core/model/defaults';
import { pasteClip } from '@/core/edit/clip';
import { record } from '@/core/edit/history';
import { readSvg } from '@/core/input/svg/read';
import { compositePlates } from '@/core/render/composite';
import { rasterPlates } from '@/core/render/plates';
import { paletteOf, equip } from '@/core/workshop';
import { shopWith } from './support/pictures';
import { making } from './support/sample';
const dir = '/tmp/dec/rs/usr/libexec/installed-tests/RSVG/fixtures/reftests/svg1.1';
const GROUPS = /^(paths|shapes|struct|coords|pservers|painting|masking|styling|text|render|types|color)-/;
test('w3c', async () => {
  const files = new Map<string, Uint8Array>();
  const shop = await shopWith(files);
  const rows: string[] = [];
  let ours2 = 0, theirs2 = 0, n = 0;
  for (const f of readdirSync(dir).filter((x) => x.endsWith('.svg') && GROUPS.test(x)).sort()) {
    const bytes = new Uint8Array(readFileSync(path.join(dir, f)));
    const refImage = await loadImage(readFileSync(path.join(dir, f.replace('.svg', '-ref.png'))));
    const rc = createCanvas(refImage.width, refImage.height); const rctx = rc.getContext('2d'); rctx.fillStyle = '#fff'; rctx.fillRect(0,0,rc.width,rc.height); rctx.drawImage(refImage, 0, 0);
    const ref = rctx.getImageData(0, 0, rc.width, rc.height).data;
    const mean = (px: ArrayLike<number>) => { let s = 0; const h = Math.floor(rc.height * 0.8); for (let i = 0; i < rc.width * h; i++) for (let c = 0; c < 3; c++) s += Math.abs(px[4*i+c] - ref[4*i+c]); return s / (rc.width * h * 3); };
    let ours = NaN, note = '';
    try {
      const read = await readSvg(bytes, f, { ...shop.env, fonts: shop.fonts });
      for (const [k, v] of read.files) files.set(k, v);
      note = read.notes.join(' | ');
      const base = { ...newDesign(f, setupOf(360, 270, { medium: 'screen', bleed: 0 }), making) };
      const d = record(base, 'x', (draft) => void pasteClip(draft, base.pages[0].id, read.clip, making.newId, [1, 0, 0, 1, 0, 0]))?.design ?? base;
      await equip(shop, d);
      const palette = paletteOf(d, shop);
      const scene = shop.builder.build(d, d.pages[0]);
      const px = compositePlates(rasterPlates(scene, palette, { x: 0, y: 0, scale: 96/72, width: rc.width, height: rc.height })!, palette);
      ours = mean(px);
      if (process.env.OUT) { const oc = createCanvas(rc.width*2, rc.height); const octx = oc.getContext('2d'); const id = octx.createImageData(rc.width, rc.height); id.data.set(px); octx.putImageData(id, 0, 0); octx.putImageData(rctx.getImageData(0,0,rc.width,rc.height), rc.width, 0); writeFileSync(`/tmp/w3c/${f}.png`, oc.toBuffer('image/png')); }
    } catch (e) { note = `THROW ${(e as Error).message} ${(e as Error).stack?.split('\n')[1]}`; }
    let theirs = NaN;
    try { const r = new Resvg(Buffer.from(bytes), { fitTo: { mode: 'original' }, background: '#fff' }).render(); if (r.width === rc.width) theirs = mean(r.pixels); } catch {}
    n++; if (ours <= 2) ours2++; if (theirs <= 2) theirs2++;
    rows.push(`${ours.toFixed(2).padStart(7)} ${theirs.toFixed(2).padStart(7)} ${ours > 2 && !(theirs > 2) ? '!!' : '  '} ${f}  ${note.slice(0, 150)}`);
  }
  writeFileSync('/tmp/w3c.txt', rows.join('\n') + `\n${n} files; ours ≤2: ${ours2}; resvg ≤2: ${theirs2}\n`);
}, 600000);
