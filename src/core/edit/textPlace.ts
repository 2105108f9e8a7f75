import type { Design, Run, Story } from '../model/schema';
import { setStory, type SetRun } from '../model/textLooks';
import { plain } from './history';

/** Offsets count UTF-16 units of the story's plain text, where paragraphs are joined by one line feed. */

interface At {
  readonly paragraph: number;
  readonly offset: number;
}

/** The paragraph that an offset lies in, and how far in it. */
export function locate(story: Story, offset: number): At {
  let rest = offset;
  for (const [i, p] of story.paragraphs.entries()) {
    const length = p.runs.reduce((n, r) => n + r.text.length, 0);
    if (rest <= length) return { paragraph: i, offset: rest };
    rest -= length + 1;
  }
  const last = story.paragraphs.length - 1;
  return { paragraph: last, offset: story.paragraphs[last].runs.reduce((n, r) => n + r.text.length, 0) };
}

/** The looks of a design or a draft of it. */
export const looksOf = (d: Pick<Design, 'textLooks'>): Pick<Design, 'textLooks'> => ({ textLooks: plain(d.textLooks) });

/** The run whose look typing at an offset takes. */
export function runAt(story: Story, offset: number): Run {
  const at = runPlace(story, offset);
  return story.paragraphs[at.paragraph].runs[at.run];
}

/** All that is set of the letters that typing at an offset takes after. */
export function lettersAt(d: Pick<Design, 'textLooks'>, story: Story, offset: number): SetRun {
  const at = runPlace(story, offset);
  return setStory(d, story).paragraphs[at.paragraph].runs[at.run];
}

function runPlace(story: Story, offset: number): { readonly paragraph: number; readonly run: number } {
  const { paragraph, offset: within } = locate(story, offset);
  let at = 0;
  const { runs } = story.paragraphs[paragraph];
  for (const [run, r] of runs.entries()) {
    if (within <= at + r.text.length && (within > at || at === 0)) return { paragraph, run };
    at += r.text.length;
  }
  return { paragraph, run: runs.length - 1 };
}
