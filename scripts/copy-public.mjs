// Copies the faces and the colour engine that the browser loads by address into public/. Run before `next build`.
import { copyFileSync, existsSync, mkdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';

const root = path.resolve(import.meta.dirname, '..');
const table = readFileSync(path.join(root, 'src/core/text/faces.ts'), 'utf8');
const WEIGHTS = { 300: 'Light', 400: 'Regular', 500: 'Medium', 600: 'SemiBold', 700: 'Bold', 800: 'ExtraBold' };
const families = [...table.matchAll(/^  family\('([^']+)', '[^']+', '[^']+', '([^']+)', '([^']+)', '([^']+)'\),$/gm)];
const listed = table.match(/^  family\(/gm)?.length ?? 0;
if (families.length < 12 || families.length !== listed)
  throw new Error(`of ${listed} families in faces.ts ${families.length} could be read`);
/** By the id of a face, its file in its package: 400Regular_Italic/Inter_400Regular_Italic.ttf. */
const rows = families.flatMap(([, id, folder, file, styles]) =>
  styles.split(' ').map((style) => {
    const weight = Number.parseInt(style, 10);
    const name = `${weight}${WEIGHTS[weight]}${style.endsWith('i') ? '_Italic' : ''}`;
    return [`${id}-${style}`, `${folder}/${name}/${file}_${name}.ttf`];
  }),
);

const copy = (from, to) => {
  const source = path.join(root, 'node_modules', from);
  const target = path.join(root, 'public', to);
  mkdirSync(path.dirname(target), { recursive: true });
  if (!existsSync(target) || statSync(target).size !== statSync(source).size) copyFileSync(source, target);
};
for (const [id, source] of rows) copy(`@expo-google-fonts/${source}`, `fonts/${id}.ttf`);
copy('lcms-wasm/dist/lcms.js', 'wasm/lcms.js');
copy('lcms-wasm/dist/lcms.wasm', 'wasm/lcms.wasm');
copy('harfbuzzjs/dist/harfbuzz-subset.wasm', 'wasm/harfbuzz-subset.wasm');
copy('pathkit-wasm/bin/pathkit.wasm', 'wasm/pathkit.wasm');
copy('@jsquash/jpeg/codec/dec/mozjpeg_dec.wasm', 'wasm/mozjpeg_dec.wasm');
copy('brotli-dec-wasm/pkg/brotli_dec_wasm_bg.wasm', 'wasm/brotli_dec_wasm_bg.wasm');
copy('@jsquash/webp/codec/dec/webp_dec.wasm', 'wasm/webp_dec.wasm');
