'use client';
import { newShadow, setShadow, shadowOf } from '@/core/edit/effects';
import { setOverprint } from '@/core/edit/paint';
import { nodesOf } from '@/core/model/tree';
import type { Shadow } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { Check } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { freeSelection } from '../session/commandDef';
import { useBench, usePlacedDesign, useSession } from '../session/context';
import { colourName } from '../session/naming';
import { smallerSide } from '../commands/shadows';
import { openColourHere } from '../tray/ColourHere';

const FAR = mm(500);

/** The shadow of what is chosen: whether there is one, where it falls, how soft and strong, in which ink. */
export function ShadowFields() {
  const session = useSession();
  const design = usePlacedDesign();
  const aim = useBench((s) => s.aim);
  const ids = freeSelection(session);
  const shadows = nodesOf(design, ids).map(shadowOf);
  const on = shadows.length > 0 && shadows.every((s) => s !== undefined);
  const [first] = shadows;
  const { unit } = design.setup;
  const same = (of: (s: Shadow) => number): number | null =>
    on && shadows.every((s) => of(s!) === of(first!)) ? of(first!) : null;
  const put = (change: Partial<Shadow>) => (d: Parameters<typeof setShadow>[0]) => setShadow(d, ids, change);
  const field = (key: 'dx' | 'dy' | 'blur' | 'opacity', change: (v: number) => Partial<Shadow>, label: string) => ({
    onPreview: (v: number | null) => session.preview(v === null ? null : put(change(v))),
    onCommit: (v: number) => session.commit(label, put(change(v))),
    value: same((s) => s[key]),
  });
  const turn = (give: boolean) => {
    session.commit(give ? 'Give a shadow' : 'Take the shadow away', (d) =>
      setShadow(d, ids, give ? {} : null, (id) => newShadow(design, smallerSide(session, id))),
    );
    session.aimAt(give ? 'shadow' : 'fill');
  };
  const overprint = on && first!.paint.overprint;
  return (
    <div className="grid gap-2" role="group" aria-label="Shadow">
      <Check label="Shadow" checked={on} onChange={turn} />
      {on && (
        <>
          <div className="grid grid-cols-2 gap-2">
            <NumberField
              label="Right"
              name="Shadow to the right"
              unit={unit}
              min={-FAR}
              max={FAR}
              {...field('dx', (dx) => ({ dx }), 'Move the shadow')}
            />
            <NumberField
              label="Down"
              name="Shadow down"
              unit={unit}
              min={-FAR}
              max={FAR}
              {...field('dy', (dy) => ({ dy }), 'Move the shadow')}
            />
            <NumberField
              label="Blur"
              name="Blur of the shadow"
              unit={unit}
              min={0}
              max={FAR}
              {...field('blur', (blur) => ({ blur }), 'Blur of the shadow')}
            />
            <NumberField
              label="Strength"
              name="Strength of the shadow"
              suffix="%"
              min={0}
              max={100}
              decimals={0}
              {...field('opacity', (v) => ({ opacity: v / 100 }), 'Strength of the shadow')}
              value={percent(same((s) => s.opacity))}
            />
          </div>
          <Button
            aria-pressed={aim === 'shadow'}
            title="Colours then go to the shadow: click a card of the tray"
            onClick={(e) => {
              session.aimAt('shadow');
              openColourHere(session, e);
            }}
          >
            <span
              aria-hidden
              className="size-4 rounded-full border border-edge"
              style={{ background: session.palette.css(first!.paint.colour) }}
            />
            <span className="truncate">{colourName(design, first!.paint.colour)}</span>
          </Button>
          {!session.palette.screen && (
            <Check
              label="Prints over what lies below"
              hint={overprint ? 'Darkens it, as shadows do.' : 'Cuts a hole into it.'}
              checked={overprint}
              onChange={(v) => session.commit('How the shadow prints', (d) => setOverprint(d, ids, 'shadow', v))}
            />
          )}
        </>
      )}
    </div>
  );
}

const percent = (v: number | null): number | null => (v === null ? null : v * 100);
