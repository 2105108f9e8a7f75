import type { Design, Story } from '../model/schema';
import { firstLetters } from '../model/textLooks';
import type { NodeId } from '../model/tree';
import { plainText } from '../text/layout';
import { before, plain, type DesignDraft } from './history';

/** Stories that run through several frames. */

type FrameDraft = Extract<DesignDraft['nodes'][string], { kind: 'textFrame' }>;
const put = (d: DesignDraft, story: Story): void =>
  void (d.stories[story.id] = story as DesignDraft['stories'][string]);

/** A story through these frames; through one alone it needs not say so. */
function through(story: Story, frames: readonly NodeId[]): Story {
  const { frames: _, ...rest } = story;
  return frames.length > 1 ? { ...rest, frames } : rest;
}

/** Takes a node out of the story that it shows; a story that nobody shows goes. */
export function leaveStory(d: DesignDraft, story: string, id: NodeId): void {
  const now = d.stories[story] && (plain(d.stories[story]) as Story);
  if (!now?.frames) delete d.stories[story];
  else
    put(
      d,
      through(
        now,
        now.frames.filter((f) => f !== id),
      ),
    );
}

/** May words run on from one node into the other? Both are frames, and of two stories. */
function canRunOn(d: Design, from: NodeId, into: NodeId): boolean {
  const [a, b] = [d.nodes[from], d.nodes[into]];
  return a?.kind === 'textFrame' && b?.kind === 'textFrame' && a.story !== b.story;
}

/**
 * Lets the words of a frame run on into another, behind those that they run through by now; words that stood there
 * follow them.
 */
export function runOn(d: DesignDraft, from: NodeId, into: NodeId): void {
  const was = before(d);
  if (!canRunOn(was, from, into)) return;
  const [a, b] = [was.nodes[from], was.nodes[into]] as [FrameDraft, FrameDraft];
  const [first, second] = [was.stories[a.story], was.stories[b.story]];
  const own = first.frames ?? [from];
  const at = own.indexOf(from) + 1;
  const theirs = second.frames ?? [into];
  const paragraphs = plainText(second) === '' ? first.paragraphs : [...first.paragraphs, ...second.paragraphs];
  put(d, through({ ...first, paragraphs }, [...own.slice(0, at), ...theirs, ...own.slice(at)]));
  for (const id of theirs) (d.nodes[id] as FrameDraft).story = first.id;
  delete d.stories[second.id];
}

/** Takes a frame out of the thread that it is in: its words run through the others, and it stands empty. */
export function cutThread(d: DesignDraft, id: NodeId, newId: () => string): void {
  const was = before(d);
  const node = was.nodes[id];
  if (node?.kind !== 'textFrame') return;
  const story = was.stories[node.story];
  if (!story.frames) return;
  leaveStory(d, story.id, id);
  const { text: _, ...letters } = firstLetters(was, story);
  const own = newId();
  const [p] = story.paragraphs;
  put(d, { id: own, paragraphs: [{ ...p, runs: [{ ...p.runs[0], ...(p.runs[0].look ? {} : letters), text: '' }] }] });
  (d.nodes[id] as FrameDraft).story = own;
}
