'use client';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { PlateLook } from '@/core/render/plateLooks';
import { usedChannels } from '@/core/scene/used';
import { mm } from '@/core/units/length';
import { Check, ListChoice, WordChoice } from '@/ui/Choice';
import { useBench, useSession } from '../session/context';

const LOOKS: readonly { readonly value: PlateLook; readonly label: string; readonly hint: string }[] = [
  {
    value: 'paper',
    label: 'On the paper’s own white',
    hint: 'No paper is as white as a screen: this is how all of it looks together',
  },
  {
    value: 'reach',
    label: 'Out of reach',
    hint: 'Red is where ink and paper cannot come near the colour that was meant',
  },
  {
    value: 'traps',
    label: 'Overlaps',
    hint: 'Red is where inks that abut are laid over each other (traps); they are set in the Inks slip',
  },
  { value: 'apart', label: 'Two plates', hint: 'What only the first has is blue, only the second orange, both grey' },
  { value: 'changed', label: 'What has changed', hint: 'Red is where the plates are others than in an earlier state' },
];
const SQUARES: readonly { readonly value: string; readonly label: string }[] = [
  { value: '0', label: 'Point' },
  { value: '1', label: '1 mm' },
  { value: '3', label: '3 mm' },
  { value: '10', label: '10 mm' },
];
/** So many earlier steps can be held against the present. */
const STEPS = 40;
/** What the loupe shows when it is taken out: 4 mm. */
const LOUPE_SIDE = mm(4);

/** The rarer ways to look at plates, in one place. */
export function PlateTools() {
  const session = useSession();
  const look = useBench((s) => s.plateLook);
  const pair = useBench((s) => s.pair);
  const against = useBench((s) => s.against);
  const square = useBench((s) => s.inkSquare);
  const loupe = useBench((s) => s.loupe);
  const entries = useBench((s) => s.entries);
  const cursor = useBench((s) => s.cursor);
  const [open, setOpen] = useState(false);
  const { palette, design } = session;
  const inks = palette.channels.map((value) => ({ value, label: value }));
  const used = usedChannels(session.restingScene(design), palette);
  const since = (at: number) =>
    at === 0 ? 'Before the first step' : `${at}. ${entries[at - 1]?.label ?? ''}`.slice(0, 60);
  const hold = async (at: number) => {
    try {
      await session.press.against(session.designAt(at));
      session.set({ plateLook: 'changed', against: since(at) });
    } catch {
      session.say('The press does not answer: nothing is held against it. Try once more.', 'warn');
    }
  };
  const show = (value: PlateLook) => {
    if (value === 'apart' && !pair) {
      const [a, b] = used.length > 1 ? used : [0, 3];
      session.set({ pair: [palette.channels[a], palette.channels[b]] });
    }
    if (value === 'changed' && !against) void hold(Math.max(0, cursor - 1));
    else session.set({ plateLook: value, shownInks: null });
  };
  const rare = LOOKS.some((l) => l.value === look);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <button
          type="button"
          className={`h-5 rounded-sm px-1.5 text-left text-[12px] text-text ${rare || loupe ? 'bg-panel font-semibold outline-2 outline-accent' : 'bg-panel/85 hover:bg-panel'}`}
        >
          Look closer
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="left"
          align="start"
          sideOffset={6}
          collisionPadding={8}
          aria-label="Look closer at the plates"
          style={{ boxShadow: 'var(--shadow)' }}
          className="z-40 grid w-[272px] gap-3 rounded-sm border border-line bg-panel p-3 outline-none"
          onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
        >
          <div role="radiogroup" aria-label="Shown" className="grid gap-0.5">
            {LOOKS.map(({ value, label, hint }) => (
              <button
                key={value}
                type="button"
                role="radio"
                aria-checked={look === value}
                title={hint}
                onClick={() => show(look === value ? 'ink' : value)}
                className={`h-7 rounded-sm border-0 px-2 text-left ${look === value ? 'bg-field font-semibold outline-2 outline-accent' : 'bg-transparent hover:bg-line'}`}
              >
                {label}
              </button>
            ))}
          </div>
          {rare && <p className="m-0 text-faint">{LOOKS.find((l) => l.value === look)!.hint}.</p>}
          {look === 'apart' && pair && (
            <div className="grid grid-cols-2 gap-2">
              {([0, 1] as const).map((i) => (
                <ListChoice
                  key={i}
                  label={i ? 'and' : 'Hold'}
                  value={pair[i]}
                  groups={[{ name: '', options: inks }]}
                  onChange={(v) => session.set({ pair: i ? [pair[0], v] : [v, pair[1]] })}
                />
              ))}
            </div>
          )}
          {look === 'changed' && (
            <ListChoice
              label="Since"
              value={against}
              groups={[
                {
                  name: '',
                  options: Array.from({ length: Math.min(STEPS, cursor) + 1 }, (_, i) => {
                    const label = since(cursor - i);
                    return { value: label, label: i ? label : `${label} (now)` };
                  }),
                },
              ]}
              onChange={(v) => {
                for (let at = 0; at <= cursor; at++) if (since(at) === v) return void hold(at);
              }}
            />
          )}
          <div className="grid gap-1 border-t border-line pt-2">
            <span className="text-faint">Ink under the pointer, mean of</span>
            <WordChoice
              label="Ink is read over"
              value={SQUARES.find((q) => mm(Number(q.value)) === square)?.value ?? '0'}
              options={SQUARES}
              onChange={(v) => session.set({ inkSquare: mm(Number(v)) })}
            />
          </div>
          <Check
            label="Loupe"
            hint="A few millimetres as the press lays them: dots of each ink, and plates that lie aside."
            checked={loupe !== null}
            onChange={(on) => session.set({ loupe: on ? { side: LOUPE_SIDE, aside: {} } : null })}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
