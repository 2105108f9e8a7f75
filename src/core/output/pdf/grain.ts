import type { PDFRef } from '@cantoo/pdf-lib';
import { GRAIN_CELL, GRAIN_SIZE, grainTile } from '../../render/grain';
import { ContentStream } from './content';
import { name, type PdfFile } from './file';

/** The grain's tile as a tiling pattern in page points: white where it is set, one bit a square. */
export async function grainPattern(file: PdfFile): Promise<PDFRef> {
  const tile = grainTile();
  const bits = new Uint8Array(tile.length / 8);
  tile.forEach((v, i) => (bits[i >> 3] |= v << (7 - (i & 7))));
  const image = await file.stream(
    {
      Type: name('XObject'),
      Subtype: name('Image'),
      Width: GRAIN_SIZE,
      Height: GRAIN_SIZE,
      ColorSpace: name('DeviceGray'),
      BitsPerComponent: 1,
    },
    bits,
  );
  const side = GRAIN_SIZE * GRAIN_CELL;
  // An image's rows run down from the top of its unit square; page points run down too.
  const out = new ContentStream().nums([side, 0, 0, -side, 0, side], 'cm', 6).op('/Im Do');
  return file.stream(
    {
      Type: name('Pattern'),
      PatternType: 1,
      PaintType: 1,
      TilingType: 1,
      BBox: [0, 0, side, side],
      XStep: side,
      YStep: side,
      Matrix: [1, 0, 0, 1, 0, 0],
      Resources: { XObject: { Im: image } },
    },
    out.done(),
  );
}
