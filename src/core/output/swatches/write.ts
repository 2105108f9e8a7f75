import type { Palette } from '../../colour/palette';
import { exchangeOf } from '../../edit/exchange';
import type { Design } from '../../model/schema';
import { writeCgats } from './cgats';
import { writeCxf } from './cxf';
import { writeTokens } from './tokens';

/** The open formats that swatches are handed over in. */
export const SWATCH_FORMATS = [
  {
    id: 'cgats',
    name: 'CGATS text',
    ending: 'txt',
    type: 'text/plain',
    says: 'a table for colour programs (ISO 28178)',
  },
  {
    id: 'cxf',
    name: 'CxF3',
    ending: 'cxf',
    type: 'application/xml',
    says: 'inks and colours for the trade (ISO 17972)',
  },
  {
    id: 'tokens',
    name: 'Design tokens',
    ending: 'json',
    type: 'application/json',
    says: 'colours and gradients for web and apps (JSON)',
  },
] as const;
export type SwatchFormat = (typeof SWATCH_FORMATS)[number]['id'];

/** All swatches of a design as one file; `notes` say what the format cannot hold. */
export function writeSwatchFile(
  design: Design,
  palette: Palette,
  format: SwatchFormat,
): { readonly bytes: Uint8Array; readonly notes: readonly string[] } {
  const { swatches, ramps } = exchangeOf(design, palette);
  const left =
    ramps.length && format !== 'tokens'
      ? [
          `${ramps.length === 1 ? 'One gradient is' : `${ramps.length} gradients are`} left out: this format holds only colours.`,
        ]
      : [];
  const text =
    format === 'cgats'
      ? writeCgats(swatches, design.name, design.modified)
      : format === 'cxf'
        ? writeCxf(swatches, design.name, design.modified)
        : writeTokens(swatches, ramps);
  return { bytes: new TextEncoder().encode(text), notes: left };
}
