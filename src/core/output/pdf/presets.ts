import '../../zodSetup';
import * as z from 'zod/mini';
import { ALL_MARKS, NO_MARKS, pdfOptionsSchema } from './options';

/** Options under a name; `said`: whom it is for. */
export const pdfPresetSchema = z.readonly(
  z.strictObject({
    name: z.string().check(z.minLength(1), z.maxLength(80)),
    said: z.optional(z.string().check(z.maxLength(200))),
    options: pdfOptionsSchema,
  }),
);
export type PdfPreset = z.infer<typeof pdfPresetSchema>;

/** What a PDF is made for, mostly. */
export const PDF_PRESETS: readonly PdfPreset[] = [
  {
    name: 'Print shop',
    said: 'PDF/X-4 with real plates, bleed, marks and fonts.',
    options: { marks: ALL_MARKS, standard: 'x4' },
  },
  {
    name: 'Office',
    said: 'For desks and printers there: cut to size, spot inks as their stand-ins, read aloud in order.',
    options: {
      marks: NO_MARKS,
      standard: 'plain',
      bleed: false,
      keepRgb: true,
      spots: 'standIns',
      ppi: 300,
      tagged: true,
    },
  },
  {
    name: 'Web',
    said: 'Small, for screens: cut to size, pictures at 150 ppi, read aloud in order.',
    options: {
      marks: NO_MARKS,
      standard: 'plain',
      bleed: false,
      keepRgb: true,
      spots: 'standIns',
      ppi: 150,
      tagged: true,
    },
  },
];
