import { comparePlates, type Grey } from './agree';
import { measured } from './measured';

/** The rule of “plates agree”, ink by ink; answers what breaks it. */
export function faults(
  ours: Map<string, Grey>,
  theirs: Map<string, Grey>,
  page?: string,
  tolerance?: number,
): string[] {
  const found: string[] = [];
  const inked = [...ours].filter(([, p]) => p.data.some((v) => v < 250)).map(([ink]) => ink);
  for (const ink of inked) {
    const other = theirs.get(ink);
    if (!other) {
      found.push(`${ink}: no such plate in the PDF`);
      continue;
    }
    const a = comparePlates(ours.get(ink)!, other, tolerance);
    if (page)
      measured(
        `plates agree: ${page}, ${ink}`,
        `${(a.share * 100).toFixed(3)} % of ${a.inked} inked pixels, ink ${(a.inkA / a.inkB).toFixed(4)}`,
        '≥ 99.5 %, ink within 2 %',
        'Ghostscript tiffsep, 100 dpi',
      );
    if (a.share < 0.995) found.push(`${ink}: ${(a.share * 100).toFixed(2)} % agree`);
    if (a.worstBlock) found.push(`${ink}: a block disagrees at ${a.worstBlock.x}, ${a.worstBlock.y}`);
    if (Math.abs(a.inkA - a.inkB) > 0.02 * Math.max(a.inkA, a.inkB))
      found.push(`${ink}: ${a.inkA} and ${a.inkB} of ink`);
  }
  for (const [ink, p] of theirs)
    if (!inked.includes(ink) && p.data.some((v) => v < 240)) found.push(`${ink}: only in the PDF`);
  return found;
}
