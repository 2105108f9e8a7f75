import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { decode } from 'tiff';
import type { Grey } from './agree';

/** Plates of a PDF by Ghostscript's tiffsep, in the bleed box, by ink name; page numbers from 1. 255 = no ink. */
export function separate(pdf: Uint8Array, dpi: number, extra: readonly string[] = []): Map<string, Grey>[] {
  const dir = mkdtempSync(path.join(tmpdir(), 'holvet-gs-'));
  try {
    writeFileSync(path.join(dir, 'in.pdf'), pdf);
    execFileSync('gs', [
      '-q',
      '-dNOPAUSE',
      '-dBATCH',
      '-dSAFER',
      '-sDEVICE=tiffsep',
      // Packed, it would take longer to read than to make.
      '-sCompression=none',
      `-r${dpi}`,
      '-dUseBleedBox',
      '-dGraphicsAlphaBits=4',
      '-dTextAlphaBits=4',
      '-dUsePDFX3Profile',
      ...extra,
      `-sOutputFile=${path.join(dir, 'p%03d.tif')}`,
      path.join(dir, 'in.pdf'),
    ]);
    const pages: Map<string, Grey>[] = [];
    for (const file of readdirSync(dir).sort()) {
      const m = /^p(\d+)\((.+)\)\.tif$/.exec(file);
      if (!m) continue;
      const image = decode(readFileSync(path.join(dir, file)))[0];
      const page = Number(m[1]) - 1;
      pages[page] ??= new Map();
      pages[page].set(m[2], {
        width: image.width,
        height: image.height,
        data: new Uint8Array(image.data as Uint8Array),
      });
    }
    return pages;
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}
