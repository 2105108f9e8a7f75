import type { Design } from '@/core/model/schema';
import { QUIET } from '@/core/output/job';
import type { PdfOptions } from '@/core/output/pdf/options';
import { writePdf } from '@/core/output/pdf/write';
import { pagePlates } from '@/core/output/png';
import { prepare, type Engines } from '@/core/engines';
import type { Grey } from './agree';

/** Our plates of one page by ink, counted as Ghostscript counts: 255 is bare. */
export async function platesOf(engines: Engines, design: Design, dpi: number, page = 0): Promise<Map<string, Grey>> {
  // First, as it loads the design's faces.
  const palette = await prepare(engines, design);
  const plates = pagePlates(engines.builder.build(design, design.pages[page]), palette, dpi);
  return new Map(
    plates.channels.map((ink, i) => [ink, { ...plates.region, data: plates.data[i].map((v) => 255 - v) }]),
  );
}

/** A whole design as print PDF. */
export async function pdfOf(engines: Engines, design: Design, options: Partial<PdfOptions> = {}): Promise<Uint8Array> {
  return writePdf(
    design,
    design.pages,
    engines.builder,
    await prepare(engines, design),
    engines.env,
    { marks: false, ...options },
    QUIET,
  );
}
