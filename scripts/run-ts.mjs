// Bundles one TypeScript script with the project's path alias and runs it: node scripts/run-ts.mjs FILE [args]
import { build } from 'esbuild';
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';

const root = path.resolve(import.meta.dirname, '..');
const [file, ...rest] = process.argv.slice(2);
const out = path.join(root, 'dist', 'scripts', `${path.basename(file, '.ts')}.mjs`);
mkdirSync(path.dirname(out), { recursive: true });
await build({
  entryPoints: [file],
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  outfile: out,
  logLevel: 'warning',
});
process.argv = [process.argv[0], out, ...rest];
await import(pathToFileURL(out).href);
