// Writes docs/measured.md from the figures that the tests noted under `bin/test --full`.
import { readFileSync, writeFileSync } from 'node:fs';

const rows = readFileSync('tmp/measured.ndjson', 'utf8')
  .trim()
  .split('\n')
  .map((l) => JSON.parse(l));
const seen = new Map(rows.map((r) => [r.what, r]));
const table = [...seen.values()]
  .sort((a, b) => a.what.localeCompare(b.what))
  .map((r) => `| ${r.what} | ${r.value} | ${r.bar} | ${r.source} |`);
writeFileSync(
  'docs/measured.md',
  `# Measured\n\nWritten by \`bin/test --full\`. Speed is in docs/bench.md.\n\n| what | measured | bar | against |\n|---|---|---|---|\n${table.join('\n')}\n`,
);
