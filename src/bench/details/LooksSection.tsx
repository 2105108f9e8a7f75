'use client';
import { useState } from 'react';
import type { DesignDraft } from '@/core/edit/history';
import {
  addLook,
  changeLook,
  clearOwn,
  followLettersLook,
  followParagraphLook,
  lookFrom,
  removeLook,
  saysOwn,
} from '@/core/edit/looks';
import type { TextLook } from '@/core/model/schema';
import { Button } from '@/ui/Button';
import { Section } from '@/ui/Section';
import { keyText } from '../commands/keys';
import { eachStory, following, LOOK_KEYS, lookKey } from '../commands/looks';
import { usePlacedDesign, useSession } from '../session/context';
import { useTextTarget, type TextTarget } from './textTarget';

/** Looks of texts: what is chosen follows one by a press; changed once, all that follow it change. */
export function LooksSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const looks = design.textLooks;
  const target = useTextTarget();
  const [naming, setNaming] = useState<string | null>(null);
  if (!target) return null;
  const { story, letters, at } = target;
  const kind: TextLook['kind'] = letters ? 'letters' : 'paragraph';
  const shown = (looks ?? []).filter((l) => l.kind === kind);
  const now = kind === 'letters' ? target.lettersLook : target.paragraphLook;
  const p = story.paragraphs[target.index];
  const own = saysOwn(p);

  const follow = (look: string | null) => following(session, kind, look);
  const make = (name: string) => {
    // Made of words that follow a look, it stands on that look.
    const id = session.newId();
    const look = lookFrom(session.design, story, at.to, { kind, name, id, ...(now !== undefined && { basedOn: now }) });
    session.commit('Make a text look', (d) => {
      addLook(d, look);
      follow(look.id)(d);
    });
    setNaming(null);
    session.say(`“${name}” is a look now: give it to other texts by a press, change it once for all of them.`);
  };
  const keyOf = (look: TextLook): string | null => {
    const n = looks!.indexOf(look);
    return n < LOOK_KEYS ? keyText(lookKey(n)) : null;
  };
  return (
    <Section title={letters ? 'Looks of letters' : 'Text looks'} name="Text looks" rare>
      <div className="grid gap-2">
        <div role="listbox" aria-label={letters ? 'Looks of letters' : 'Looks of paragraphs'} className="grid gap-1">
          {shown.map((look) => (
            <button
              key={look.id}
              type="button"
              role="option"
              aria-selected={now === look.id}
              className={`flex items-center justify-between rounded-sm border border-edge px-2 py-1 text-left ${now === look.id ? 'bg-accent font-semibold text-on-accent' : 'bg-field hover:bg-raised'}`}
              onPointerEnter={() => session.preview(follow(look.id))}
              onPointerLeave={() => session.preview(null)}
              onClick={() => {
                session.preview(null);
                session.commit(`Look ${look.name}`, follow(look.id));
              }}
            >
              <span className="truncate">{look.name}</span>
              {keyOf(look) && <kbd className="ml-auto pl-2 font-[inherit] text-[12px] opacity-80">{keyOf(look)}</kbd>}
              {now === look.id && own && <span title="Says something of its own besides">•</span>}
            </button>
          ))}
        </div>
        {now !== undefined && own && (
          <div className="grid grid-cols-2 gap-2">
            <Button
              onClick={() =>
                session.commit(
                  'Back to the look',
                  eachStory(session, (s, a, b) => clearOwn(s, a, b)),
                )
              }
            >
              Back to the look
            </Button>
            <Button onClick={() => takeOver(session, target, now)}>Change the look</Button>
          </div>
        )}
        {naming === null ? (
          <div className="grid grid-cols-2 gap-2">
            <Button onClick={() => setNaming('')}>Make a look of this</Button>
            <Button
              disabled={now === undefined}
              onClick={() => session.commit('Remove a text look', (d) => removeLook(d, now!))}
            >
              Remove the look
            </Button>
          </div>
        ) : (
          <form
            className="grid grid-cols-[1fr_auto] gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              if (naming.trim()) make(naming.trim());
            }}
          >
            <input
              aria-label="Name of the look"
              autoFocus
              className="h-7 rounded-sm border border-edge bg-field px-2"
              value={naming}
              maxLength={200}
              onChange={(e) => setNaming(e.target.value)}
              onKeyDown={(e) => {
                e.stopPropagation();
                if (e.key === 'Escape') setNaming(null);
              }}
            />
            <Button type="submit" kind="primary" disabled={!naming.trim()}>
              Make it
            </Button>
          </form>
        )}
      </div>
    </Section>
  );
}

/** The look takes over what the words at hand say; they follow it then in all. */
function takeOver(session: ReturnType<typeof useSession>, target: TextTarget, id: string): void {
  const { story, at } = target;
  const old = session.design.textLooks?.find((l) => l.id === id);
  if (!old) return;
  const made = lookFrom(session.design, story, at.to, old);
  session.commit('Change a text look', (d) => {
    changeLook(d, id, () => made);
    d.stories[story.id] = (
      old.kind === 'letters'
        ? followLettersLook(session.design.stories[story.id], at.from, at.to, id)
        : followParagraphLook(session.design.stories[story.id], at.from, at.to, id)
    ) as DesignDraft['stories'][string];
  });
  session.say(`“${old.name}” is changed, and all that follow it.`);
}
