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

/** What a program of the poppler tools says of a file. */
export function tool(name: string, pdf: Uint8Array, ...args: string[]): string {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'holvet-pdf-')), 'a.pdf');
  writeFileSync(file, pdf);
  const whole = args.length ? args.map((a) => (a === 'FILE' ? file : a)) : [file];
  return execFileSync(name, whole, { encoding: 'utf8', stdio: 'pipe' });
}
