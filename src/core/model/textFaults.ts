import { own } from './own';
import type { Design, Story, TextLook } from './schema';

interface TextFault {
  readonly path: readonly (string | number)[];
  readonly what: string;
}

/**
 * What is wrong with looks of texts and with what stories say of looks and frames; of `known`, sound, only what is the
 * same is not asked.
 */
export function* textFaults(d: Design, known: Design | null): Iterable<TextFault> {
  if (d.faces !== known?.faces)
    for (const [i, f] of (d.faces ?? []).entries())
      if (d.faces!.findIndex((x) => x.id === f.id) < i)
        yield { path: ['faces', i], what: `the face ${f.id} is there twice` };
  const looks = new Map((d.textLooks ?? []).map((l) => [l.id, l]));
  const sameLooks = known !== null && d.textLooks === known.textLooks;
  const ids = new Set<string>();
  if (!sameLooks)
    for (const [i, look] of (d.textLooks ?? []).entries()) {
      const what = ids.has(look.id) ? `the id ${look.id} is used twice` : lookFault(look, looks);
      ids.add(look.id);
      if (what) yield { path: ['textLooks', i], what };
    }
  for (const [key, story] of Object.entries(d.stories)) {
    if (!(sameLooks && own(known.stories, key) === story)) {
      const what = storyFault(story, looks);
      if (what) yield { path: ['stories', key], what };
    }
    if (story.frames) {
      const what = framesFault(d, story, story.frames);
      if (what) yield { path: ['stories', key, 'frames'], what };
    }
  }
}

function lookFault(look: TextLook, looks: ReadonlyMap<string, TextLook>): string | null {
  const seen = new Set([look.id]);
  for (let at = look.basedOn; at !== undefined; at = looks.get(at)!.basedOn) {
    if (seen.has(at)) return 'it is based on itself';
    seen.add(at);
    const base = looks.get(at);
    if (!base) return `the look ${at} is missing`;
    if (base.kind !== look.kind) return `it is based on ${base.name}, which is of another kind`;
  }
  return null;
}

function storyFault(story: Story, looks: ReadonlyMap<string, TextLook>): string | null {
  const wrong = (id: string | undefined, kind: TextLook['kind']): boolean =>
    id !== undefined && looks.get(id)?.kind !== kind;
  for (const p of story.paragraphs) {
    if (wrong(p.look, 'paragraph')) return `the look ${p.look} is missing`;
    for (const r of p.runs) if (wrong(r.look, 'letters')) return `the look ${r.look} is missing`;
  }
  return null;
}

function framesFault(d: Design, story: Story, frames: readonly string[]): string | null {
  if (new Set(frames).size !== frames.length) return 'it runs through a frame twice';
  const astray = frames.find((id) => {
    const node = own(d.nodes, id);
    return node?.kind !== 'textFrame' || node.story !== story.id;
  });
  return astray === undefined ? null : `it runs through ${astray}, which is no frame of it`;
}
