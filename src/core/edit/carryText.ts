import type { OwnFace } from '../model/faceSchema';
import { visitPaints, coloursOf } from '../model/paints';
import type { Design, Paragraph, Story, TextLook } from '../model/schema';
import { storySchema } from '../model/textSchema';
import { chainOf } from '../model/textLooks';
import type { DesignDraft } from './history';

/** What texts take along to another place or design: the looks they follow, the frames they run through. */

/** The looks that stories follow, with those they are based on. */
export function looksUsed(d: Pick<Design, 'textLooks'>, stories: Readonly<Record<string, Story>>): readonly TextLook[] {
  const used = new Set<TextLook>();
  for (const { paragraphs } of Object.values(stories))
    for (const p of paragraphs)
      for (const id of [p.look, ...p.runs.map((r) => r.look)])
        for (const look of chainOf(d.textLooks, id)) used.add(look);
  return (d.textLooks ?? []).filter((l) => used.has(l));
}

/** Faces of the design's own that stories and looks ask for. */
export function facesUsed(
  d: Pick<Design, 'faces'>,
  stories: Readonly<Record<string, Story>>,
  looks: readonly TextLook[],
): readonly OwnFace[] {
  if (!d.faces?.length) return [];
  const used = new Set<string | undefined>(looks.map((l) => l.letters?.face));
  for (const { paragraphs } of Object.values(stories))
    for (const p of paragraphs) for (const r of p.runs) used.add(r.face);
  return d.faces.filter((f) => used.has(f.id));
}

/** A face of its own joins a design that has it not yet: its id says which file it is. */
export function adoptFace(d: DesignDraft, face: OwnFace): void {
  if (!d.faces?.some((f) => f.id === face.id))
    (d.faces ??= []).push(structuredClone(face) as NonNullable<DesignDraft['faces']>[number]);
}

/** A story through other frames; `frame` answers null for one that it does not run through any more. */
export function withFrames(story: Story, frame: (id: string) => string | null): Story {
  if (!story.frames) return story;
  const { frames: _, ...rest } = story;
  const frames = story.frames.flatMap((id) => frame(id) ?? []);
  return frames.length > 1 ? { ...rest, frames } : rest;
}

/** A story that follows other looks, by id. */
export function withLooks(story: Story, looks: ReadonlyMap<string, string>): Story {
  if (!looks.size) return story;
  const mapped = <T extends { readonly look?: string }>(x: T): T =>
    x.look === undefined ? x : { ...x, look: looks.get(x.look) ?? x.look };
  return { ...story, paragraphs: story.paragraphs.map((p) => ({ ...mapped(p), runs: p.runs.map(mapped) })) };
}

/**
 * Each look by the design's own of that name and kind, which then leads; or it joins them. Answers the design's ids.
 */
export function adoptLooks(d: DesignDraft, looks: readonly TextLook[], newId: () => string): Map<string, string> {
  const ids = new Map<string, string>();
  const adopt = (look: TextLook): string => {
    const known = ids.get(look.id);
    if (known) return known;
    const same = d.textLooks?.find((l) => l.kind === look.kind && l.name === look.name);
    const id = same?.id ?? newId();
    ids.set(look.id, id);
    if (!same) {
      const base = looks.find((l) => l.id === look.basedOn);
      const { basedOn: _, ...rest } = look;
      const basedOn = base && adopt(base);
      (d.textLooks ??= []).push({ ...rest, id, ...(basedOn && { basedOn }) } as NonNullable<
        DesignDraft['textLooks']
      >[number]);
    }
    return id;
  };
  looks.forEach(adopt);
  return ids;
}

/** What words from one text are on their way to another; the browser keeps it beside the plain ones. */
export const WORDS_TYPE = 'application/x-holvet-words+json';

/** What is longer comes as plain words. */
const MOST_TEXT = 10_000_000;

/** Paragraphs as text for the clipboard. */
export const packWords = (d: Design, paragraphs: readonly Paragraph[]): string =>
  JSON.stringify({ design: d.id, paragraphs });

/**
 * Paragraphs from the clipboard as this design can take them: looks, swatches and inks that it has not are left out, so
 * that the words then look as what is round them. Null for what is none.
 */
export function unpackWords(d: Design, text: string): readonly Paragraph[] | null {
  if (text.length > MOST_TEXT) return null;
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return null;
  }
  const parsed = storySchema.safeParse({
    id: 'words',
    paragraphs: typeof value === 'object' && value !== null && 'paragraphs' in value ? value.paragraphs : null,
  });
  if (!parsed.success) return null;
  const looks = new Set(d.textLooks?.map((l) => l.id));
  const known = new Set([...d.swatches, ...d.inks, ...(d.pictures ?? [])].map((x) => x.id));
  const lost = (story: Pick<Story, 'paragraphs'>): boolean => {
    let found = false;
    visitPaints({ nodes: {}, stories: { words: { id: 'words', ...story } } }, (p) => {
      const named = [
        ...coloursOf(p).flatMap((c) => ('swatch' in c ? [c.swatch] : 'ink' in c ? [c.ink] : [])),
        ...(p.kind === 'gradient' && 'swatch' in p.ramp ? [p.ramp.swatch] : []),
        ...(p.kind === 'picture' ? [p.picture] : []),
      ];
      if (named.some((id) => !known.has(id))) found = true;
    });
    return found;
  };
  return parsed.data.paragraphs.map((p): Paragraph => {
    const { look, ...rest } = p;
    return {
      ...rest,
      ...(look !== undefined && looks.has(look) && { look }),
      runs: p.runs.map((r) => {
        const { look: own, ...run } = r;
        const kept = { ...run, ...(own !== undefined && looks.has(own) && { look: own }) };
        if (!lost({ paragraphs: [{ runs: [kept] }] })) return kept;
        const { fill: _, outline: __, ...bare } = kept;
        return bare;
      }),
    };
  });
}
