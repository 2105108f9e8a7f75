import { appendFileSync, mkdirSync } from 'node:fs';
import path from 'node:path';

const root = path.resolve(import.meta.dirname, '../..');

/** True under `bin/test --full`: the heavy sets run whole. */
export const FULL = process.env.HOLVET_FULL === '1';

/** A heavy test beside lighter ones of the same kind: under `bin/test --full` alone. */
export const fullTest = FULL ? test : test.skip;

/** Notes a figure for docs/measured.md, which `bin/test --full` writes. */
export function measured(what: string, value: string, bar: string, source: string): void {
  if (!FULL) return;
  mkdirSync(path.join(root, 'tmp'), { recursive: true });
  appendFileSync(path.join(root, 'tmp/measured.ndjson'), `${JSON.stringify({ what, value, bar, source })}\n`);
}
