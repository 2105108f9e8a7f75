// Copies the faces and the colour engine that the browser loads by address into public/. Run before `next build`.
import { copyFileSync, existsSync, mkdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';

const root = path.resolve(import.meta.dirname, '..');
const table = readFileSync(path.join(root, 'src/core/text/faces.ts'), 'utf8');
const rows = [...table.matchAll(/\bface\(\s*'([^']+)',[^)]*'([^']+\.ttf)',?\s*\)/g)];
const listed = table.match(/\bface\(\s*'/g)?.length ?? 0;
if (rows.length < 12 || rows.length !== listed)
  throw new Error(`of ${listed} faces in faces.ts ${rows.length} could be read`);

const copy = (from, to) => {
  const source = path.join(root, 'node_modules', from);
  const target = path.join(root, 'public', to);
  mkdirSync(path.dirname(target), { recursive: true });
  if (!existsSync(target) || statSync(target).size !== statSync(source).size) copyFileSync(source, target);
};
for (const [, id, source] of rows) copy(`@expo-google-fonts/${source}`, `fonts/${id}.ttf`);
copy('lcms-wasm/dist/lcms.js', 'wasm/lcms.js');
copy('lcms-wasm/dist/lcms.wasm', 'wasm/lcms.wasm');
copy('harfbuzzjs/dist/harfbuzz-subset.wasm', 'wasm/harfbuzz-subset.wasm');
copy('pathkit-wasm/bin/pathkit.wasm', 'wasm/pathkit.wasm');
copy('@jsquash/jpeg/codec/dec/mozjpeg_dec.wasm', 'wasm/mozjpeg_dec.wasm');
copy('@jsquash/webp/codec/dec/webp_dec.wasm', 'wasm/webp_dec.wasm');
