import { PDFDocument } from '@cantoo/pdf-lib';
import type { Finding } from '../../check/types';
import type { Palette } from '../../colour/palette';
import { effectivePpi } from '../../edit/picture';
import type { Engines } from '../../engines';
import { equip, paletteOf } from '../../engines';
import type { Colour, Design } from '../../model/schema';
import { pageCoverage } from '../../render/pageInk';
import { walk } from '../../scene/walk';
import type { Job } from '../job';
import { writePdf } from '../pdf/write';
import { ticketOf, type TicketFacts } from './ticket';

/**
 * The job ticket of a print design as a PDF of one page, with its first page in small, in its own inks. What the checks
 * found comes from outside; so does why they could not be made.
 */
export async function writeReport(
  design: Design,
  engines: Engines,
  palette: Palette,
  checked: { readonly findings: readonly Finding[]; readonly notChecked: string | null },
  job: Job,
): Promise<Uint8Array> {
  const { env, builder } = engines;
  const sums = palette.channels.map(() => 0);
  const faces = new Set<string>();
  const pictures = new Map<string, { name: string; ppi: number }>();
  design.pages.forEach((page, i) => {
    job.step(i, design.pages.length + 1, `Measuring page ${i + 1}`);
    const scene = builder.build(design, page);
    pageCoverage(scene, palette)?.forEach((v, c) => (sums[c] += v / design.pages.length));
    walk(scene.root, (leaf) => {
      const words = leaf.type === 'glyphs' ? leaf : leaf.words;
      if (words) faces.add(words.face.names.family || words.face.psName);
      if (leaf.paint.kind !== 'picture') return;
      const picture = palette.picture(leaf.paint.picture);
      const ppi = effectivePpi(picture, leaf.paint, leaf.matrix);
      const known = pictures.get(picture.id);
      pictures.set(picture.id, { name: picture.name, ppi: Math.min(known?.ppi ?? Infinity, ppi) });
    });
  });
  const facts: TicketFacts = {
    ...checked,
    inks: palette.channels.flatMap((name, i) =>
      sums[i] > 0.00005 ? [{ name, colour: solidOf(palette, i), coverage: sums[i] }] : [],
    ),
    faces: [...faces].sort(),
    pictures: [...pictures.values()].sort((a, b) => a.ppi - b.ppi),
  };
  const made = ticketOf(design, facts, env);
  await equip(engines, made.design);
  const inks = paletteOf(made.design, engines);
  job.step(design.pages.length, design.pages.length + 1, 'Writing');
  const quiet: Job = { step: () => {} };
  const options = { marks: false, standard: 'plain', bleed: false } as const;
  const sheet = await writePdf(made.design, made.design.pages, builder, inks, env, options, quiet);
  const first = await writePdf(
    design,
    design.pages.slice(0, 1),
    builder,
    palette,
    env,
    { ...options, ppi: 150 },
    quiet,
  );
  const doc = await PDFDocument.load(sheet, { updateMetadata: false });
  const [small] = await doc.embedPdf(first, [0]);
  const page = doc.getPage(0);
  const { x, y, w, h } = made.window;
  page.drawPage(small, { x, y: page.getHeight() - y - h, width: w, height: h });
  return doc.save({ useObjectStreams: false, addDefaultPage: false });
}

/** A plate's ink at full. */
function solidOf(palette: Palette, channel: number): Colour {
  if (channel >= 4) return { ink: palette.inks[channel - 4].id, tint: 1 };
  const [c, m, y, k] = [0, 1, 2, 3].map((i) => (i === channel ? 1 : 0));
  return { cmyk: [c, m, y, k] };
}
