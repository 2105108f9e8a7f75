'use client';
import { type Recipe } from '@/core/edit/history';
import { aimsAtGround, shownGround, withGroundColour } from '../session/ground';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { aimedNodes, paintAt } from '@/core/edit/aims';
import { setColour } from '@/core/edit/paint';
import { addSwatch, swatchUsers } from '@/core/edit/swatches';
import type { Colour, OwnColour } from '@/core/model/schema';
import { Button } from '@/ui/Button';
import { applyColour } from '../tools/colouring';
import { AIM_WORDS } from '../session/naming';
import { chosenLetters, count, freeSelection } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { backToBench } from '../session/focus';
import { colourName } from '../session/naming';
import type { Session } from '../session/session';
import { calmDesign } from '../session/state';
import { ColourNumbers } from './recipe/ColourFields';

/** Opens the colour of what is aimed at (or a new one) beside what was pressed. */
export function openColourHere(s: Session, at: { readonly currentTarget: Element }, fresh = false): void {
  const r = at.currentTarget.getBoundingClientRect();
  s.set({ colourHere: { x: r.left + r.width / 2, y: r.top < innerHeight / 2 ? r.bottom : r.top, fresh } });
}

/** A colour by eye, right where it was asked for: wheel, sliders and numbers; what is chosen follows at once. */
export function ColourHere() {
  const session = useSession();
  const here = useBench((s) => s.colourHere);
  return (
    <Popover.Root open={here !== null} onOpenChange={(open) => !open && session.set({ colourHere: null })}>
      <Popover.Anchor asChild>
        <span
          aria-hidden
          className="pointer-events-none fixed size-px"
          style={{ left: here?.x ?? 0, top: here?.y ?? 0 }}
        />
      </Popover.Anchor>
      <Popover.Portal>
        <Popover.Content
          side="top"
          collisionPadding={8}
          sideOffset={8}
          aria-label="Colour by eye"
          style={{ boxShadow: 'var(--shadow)' }}
          className="z-40 max-h-[calc(100dvh-80px)] w-[420px] overflow-auto rounded-sm border border-line bg-panel p-4 outline-none"
          onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
          onCloseAutoFocus={backToBench}
        >
          {here && <Inside key={`${here.x} ${here.y}`} fresh={here.fresh} />}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Where a new colour begins: a warm one in the middle of the wheel, so that each way leads somewhere else. */
const BEGIN: OwnColour = { cmyk: [0, 0.5, 0.7, 0] };

function Inside({ fresh }: { fresh: boolean }) {
  const session = useSession();
  const design = useBench(calmDesign);
  const aim = useBench((s) => s.aim);
  const ids = freeSelection(session);
  const reached = aimedNodes(design, ids, aim);
  const letters = chosenLetters(session);
  const ground = aimsAtGround(session);
  const paint = ground ? shownGround(session) : reached.length ? paintAt(design, reached[0], aim, letters) : undefined;
  const reaches = ground || reached.length > 0;
  const withColour = (next: Colour): Recipe =>
    ground ? withGroundColour(session, next) : (d) => setColour(d, ids, aim, next, letters);
  const given: Colour | null = paint?.kind === 'colour' ? paint.colour : null;
  const swatch = given && 'swatch' in given ? design.swatches.find((s) => s.id === given.swatch) : undefined;
  const own = given ? session.palettes.get(design).own(given).colour : null;
  const start: OwnColour = session.palette.screen ? { rgb: [0.95, 0.5, 0.25] } : BEGIN;
  const [made, setMade] = useState<OwnColour>(fresh || !own || 'ink' in own ? start : own);
  // What is chosen and was not asked anew shows its own colour, whoever changes it.
  const shown = !fresh && own && !('ink' in own) ? own : made;
  const word = AIM_WORDS[aim];

  const give = (next: OwnColour, part: string) => {
    setMade(next);
    if (reaches)
      session.commit(`${word}: a colour by eye`, withColour(next), {
        merge: `eye ${part} ${aim} ${ids.join()}`,
      });
  };
  const keep = () => {
    const id = session.newId();
    const name = colourName(design, shown);
    session.commit(`Add ${name}`, (d) => {
      addSwatch(d, { id, name, kind: 'colour', colour: shown });
      if (reaches) withColour({ swatch: id, tint: 1 })(d);
    });
    session.set({ colourHere: null });
    session.say(
      ground
        ? `${name} is in the tray, and the ground of the page.`
        : reached.length
          ? `${name} is in the tray, and ${word.toLowerCase()} of ${count(reached.length, 'object')}.`
          : `${name} is in the tray. Choose an object and click the card to use it.`,
    );
  };
  return (
    <div className="grid gap-3">
      <h2 className="m-0 text-[15px] font-semibold">
        {ground
          ? 'The ground'
          : reached.length
            ? `${word} of ${count(reached.length, 'object')}${letters && aim.startsWith('letter') ? ', chosen letters' : ''}`
            : 'A new colour'}
      </h2>
      <ColourNumbers
        colour={shown}
        onChange={give}
        onPreview={(next) => (reaches ? session.preview(next && withColour(next)) : next && setMade(next))}
      />
      {swatch && !fresh && (
        <p className="m-0 text-[12px] text-faint">
          It has the swatch {swatch.name} now. A change here makes a colour of its own; the pencil on the card changes
          all {count(swatchUsers(design, swatch.id), 'place')}.
        </p>
      )}
      <div className="flex items-center gap-2">
        <Button kind="primary" onClick={keep}>
          Put it into the tray
        </Button>
        {design.swatches.length > 0 && (
          <span className="flex min-w-0 flex-1 flex-wrap gap-1" role="group" aria-label="Swatches of the tray">
            {design.swatches
              .flatMap((s) =>
                s.kind === 'colour' ? (
                  <button
                    key={s.id}
                    type="button"
                    aria-label={`Use ${s.name}`}
                    title={s.name}
                    className="size-5 rounded-sm border border-edge p-0"
                    style={{ background: session.palette.css({ swatch: s.id, tint: 1 }) }}
                    onClick={() => applyColour(session, { swatch: s.id, tint: 1 }, s.name)}
                  />
                ) : (
                  []
                ),
              )
              .slice(0, 12)}
          </span>
        )}
      </div>
    </div>
  );
}
