import type { PdfOptions } from '@/core/output/pdf/options';
import { PDF_PRESETS } from '@/core/output/pdf/presets';
import { useBench } from '../session/context';

/** The options of the preset of that name, own ones included; the first where there is none. */
export function usePreset(name: string): PdfOptions {
  const own = useBench((s) => s.pdfPresets);
  return ([...PDF_PRESETS, ...own].find((p) => p.name === name) ?? PDF_PRESETS[0]).options;
}
