import type { PDFRef } from '@cantoo/pdf-lib';
import { pageLabels } from '../../derive/pageLabels';
import { PROFILES } from '../../model/defaults';
import type { Design } from '../../model/schema';
import { runsIn } from '../../model/textLooks';
import { name, type PdfFile } from './file';
import { hash128, keywordsOf, pdfDate, uuidOf, xmpPacket } from './metadata';
import type { Marking } from './marking';
import type { Sheet } from './sheets';

interface Ending {
  readonly outputProfile: PDFRef;
  readonly x4: boolean;
  readonly trapped: boolean;
  readonly tree: PDFRef;
  readonly sheets: readonly Sheet[];
  readonly marking: Marking | null;
}

/** The end of a file: what it says of itself, how it is to be printed, and where its pages are. */
export async function finish(
  file: PdfFile,
  design: Design,
  { outputProfile, x4, trapped, tree, sheets, marking }: Ending,
): Promise<void> {
  const id = hash128(`${design.id} ${design.modified} ${design.name}`);
  const { about } = design;
  const metadata = await file.stream(
    { Type: name('Metadata'), Subtype: name('XML') },
    xmpPacket({ title: design.name, modified: design.modified, id: uuidOf(id), trapped, x4, about }),
    false,
  );
  const info = file.add({
    Title: design.name,
    ...(about?.author && { Author: about.author }),
    ...(about?.subject && { Subject: about.subject }),
    ...(keywordsOf(about?.keywords).length && { Keywords: about!.keywords }),
    Creator: 'Holvet',
    Producer: 'Holvet',
    CreationDate: pdfDate(design.modified),
    ModDate: pdfDate(design.modified),
    Trapped: name(trapped ? 'True' : 'False'),
    ...(x4 && { GTS_PDFXVersion: 'PDF/X-4' }),
  });
  const all = pageLabels(design);
  const labels = sheets.map((s) => s.map((p) => all[design.pages.indexOf(p)] ?? '').join('–'));
  const root = file.add({
    Type: name('Catalog'),
    Pages: tree,
    Metadata: metadata,
    ...(x4 && { OutputIntents: [intentOf(file, design, outputProfile)] }),
    // Said page by page (12.4.2), where it is not what every reader counts anyway.
    ...(labels.some((l, i) => l !== String(i + 1)) && {
      PageLabels: { Nums: labels.flatMap((l, i) => [i, { P: l }]) },
    }),
    ViewerPreferences: { DisplayDocTitle: true },
    ...marking?.catalog(languageOf(design)),
  });
  file.finish(root, info, id);
}

function intentOf(file: PdfFile, design: Design, outputProfile: PDFRef): PDFRef {
  const shipped = PROFILES.find((p) => p.file === design.profile.file);
  const own = design.profile.name ?? design.profile.file;
  const source = shipped?.source.replace('characterization data of ', '').replace('characterization data ', '') ?? own;
  return file.add({
    Type: name('OutputIntent'),
    S: name('GTS_PDFX'),
    OutputConditionIdentifier: source,
    OutputCondition: shipped ? `${shipped.name} paper` : own,
    Info: shipped ? `${shipped.name} paper, made from the ${shipped.source}` : own,
    DestOutputProfile: outputProfile,
  });
}

/** The language that most letters of a design are in (RFC 3066). */
function languageOf(design: Design): string {
  const letters = new Map<string, number>();
  for (const story of Object.values(design.stories))
    for (const { language, text } of runsIn(design, story))
      letters.set(language, (letters.get(language) ?? 0) + text.length);
  return [...letters].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 'en';
}
