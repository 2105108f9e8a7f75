import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** A PDF's objects as text. */
export function unpacked(pdf: Uint8Array): string {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'holvet-pdf-')), 'in.pdf');
  writeFileSync(file, pdf);
  return execFileSync('qpdf', ['--qdf', '--object-streams=disable', file, '-'], { maxBuffer: 1e9 }).toString('latin1');
}

/** The words that pdftotext finds in a PDF. */
export function words(pdf: Uint8Array): string {
  return execFileSync('pdftotext', ['-', '-'], { input: pdf, encoding: 'utf8' });
}
