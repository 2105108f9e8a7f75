import { isText } from '@/core/derive/layout';
import type { DesignDraft } from '@/core/edit/history';
import { followLettersLook, followParagraphLook } from '@/core/edit/looks';
import type { Story, TextLook } from '@/core/model/schema';
import { nodesOf } from '@/core/model/tree';
import { plainText } from '@/core/text/layout';
import { freeSelection, type CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';

/** Does something with the story of each chosen text: in the stretch that is written in, else in all of it. */
export const eachStory =
  (s: Session, change: (story: Story, from: number, to: number) => Story) =>
  (d: DesignDraft): void => {
    const e = s.state.editing;
    for (const node of nodesOf(s.design, freeSelection(s))) {
      if (!isText(node)) continue;
      const story = s.state.design.stories[node.story];
      const [from, to] =
        e?.node === node.id ? [Math.min(e.anchor, e.focus), Math.max(e.anchor, e.focus)] : [0, plainText(story).length];
      d.stories[node.story] = change(story, from, to) as DesignDraft['stories'][string];
    }
  };

/** Lets the chosen words follow a look of a kind; null: none. */
export const following = (s: Session, kind: TextLook['kind'], look: string | null) =>
  eachStory(s, (story, from, to) =>
    kind === 'letters' ? followLettersLook(story, from, to, look) : followParagraphLook(story, from, to, look),
  );

/** As many looks as have keys. */
export const LOOK_KEYS = 9;
const textsChosen = (s: Session): boolean => nodesOf(s.design, freeSelection(s)).some(isText);

/** The keys that give the looks of a design, in the order of its list. */
export const lookKey = (n: number): string => `Mod+Alt+${n + 1}`;
export type LookCommandId = `look.${1 | 2 | 3 | 4 | 5 | 6 | 7 | 8 | 9}`;

export const LOOK_COMMANDS = Object.fromEntries(
  Array.from({ length: LOOK_KEYS }, (_, n) => [
    `look.${n + 1}`,
    {
      label: `Give text look ${n + 1}`,
      keywords: ['style', 'paragraph style', 'character style', 'heading', 'format'],
      keys: [lookKey(n)],
      applies: (s) => s.design.textLooks?.[n] !== undefined && textsChosen(s),
      run: (s) => {
        const look = s.design.textLooks![n];
        s.commit(`Look ${look.name}`, following(s, look.kind, look.id));
        s.say(`Look: ${look.name}.`);
      },
    } satisfies CommandDef,
  ]),
) as unknown as Readonly<Record<LookCommandId, CommandDef>>;
