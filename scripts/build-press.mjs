// Bundles the reader of the simulated press for a worker thread of the server: dist/press/worker.mjs
import { build } from 'esbuild';
import path from 'node:path';

const root = path.resolve(import.meta.dirname, '..');
await build({
  entryPoints: [path.join(root, 'src/press/worker.ts')],
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  outfile: path.join(root, 'dist/press/worker.mjs'),
  logLevel: 'warning',
});
