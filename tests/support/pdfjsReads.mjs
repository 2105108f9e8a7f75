// Reads a PDF with pdf.js, every operator of every page, and prints what it has to say of it: node pdfjsReads.mjs FILE
import { readFileSync } from 'node:fs';
import { getDocument, VerbosityLevel } from 'pdfjs-dist/legacy/build/pdf.mjs';

const say = (...what) => process.stdout.write(`${what.join(' ')}\n`);
console.warn = console.log = say;
const task = getDocument({
  data: new Uint8Array(readFileSync(process.argv[2])),
  disableFontFace: true,
  useSystemFonts: false,
  verbosity: VerbosityLevel.WARNINGS,
  stopAtErrors: true,
});
try {
  const file = await task.promise;
  for (let i = 1; i <= file.numPages; i++) {
    const page = await file.getPage(i);
    await page.getOperatorList();
    await page.getTextContent();
    page.cleanup();
  }
} catch (e) {
  say('error:', e instanceof Error ? e.message : String(e));
}
await task.destroy();
