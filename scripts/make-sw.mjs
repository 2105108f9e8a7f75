// After `next build`, before `next start` (which reads the list of public files once): writes public/sw.js.
import { createHash } from 'node:crypto';
import { readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const root = path.resolve(import.meta.dirname, '..');
const dist = process.env.DIST_DIR ?? '.next';
const filesIn = (folder, address) =>
  readdirSync(path.join(root, folder), { recursive: true })
    .map(String)
    .filter((f) => statSync(path.join(root, folder, f)).isFile() && !f.endsWith('.map'))
    .map((f) => ({
      file: path.join(root, folder, f),
      url: address + f.split(path.sep).map(encodeURIComponent).join('/'),
    }))
    .sort((a, b) => (a.url < b.url ? -1 : 1));
const first = [
  ...filesIn(`${dist}/static`, '/_next/static/'),
  ...['wasm', 'icc', 'thumbnails', 'icons'].flatMap((f) => filesIn(`public/${f}`, `/${f}/`)),
];
const rest = ['fonts', 'pictures'].flatMap((f) => filesIn(`public/${f}`, `/${f}/`));
const hash = createHash('sha256').update(readFileSync(path.join(root, dist, 'BUILD_ID')));
for (const { file, url } of [...first, ...rest]) hash.update(url).update(readFileSync(file));
const list = (files) => JSON.stringify(files.map((f) => f.url));
writeFileSync(
  path.join(root, 'public/sw.js'),
  readFileSync(path.join(root, 'scripts/sw.template.js'), 'utf8')
    .replace('__VERSION__', `holvet-${hash.digest('hex').slice(0, 12)}`)
    .replace('__FIRST__', list(first))
    .replace('__REST__', list(rest)),
);
