import type { Design } from '../model/schema';
import type { DesignDraft } from './history';

/** How many texts and looks ask for a face. */
export function usersOf(d: Pick<Design, 'stories' | 'textLooks'>, face: string): number {
  const texts = Object.values(d.stories).filter((s) => s.paragraphs.some((p) => p.runs.some((r) => r.face === face)));
  return texts.length + (d.textLooks ?? []).filter((l) => l.letters?.face === face).length;
}

/** Another face for all letters and looks of a design that ask for one. */
export function replaceFace(d: DesignDraft, from: string, to: string): void {
  for (const { paragraphs } of Object.values(d.stories))
    for (const p of paragraphs) for (const r of p.runs) if (r.face === from) r.face = to;
  for (const { letters } of d.textLooks ?? []) if (letters?.face === from) letters.face = to;
}
