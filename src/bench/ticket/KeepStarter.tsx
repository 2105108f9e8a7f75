'use client';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { askable, asksOf, starterOf } from '@/core/edit/asks';
import type { Ask } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { designStore, storageProblem } from '@/store/open';
import { Button } from '@/ui/Button';
import { useBench, useSession } from '../session/context';
import { backToBench } from '../session/focus';

const HEADS: Readonly<Record<Ask['kind'], string>> = { words: 'Words', picture: 'Pictures', colour: 'Colours' };
const keyOf = (a: Ask): string => `${a.kind} ${a.of}`;

/** The design as a starter: what of it will be asked for when another is begun with it. */
export function KeepStarter() {
  const session = useSession();
  const open = useBench((s) => s.keepingStarter);
  const shut = () => session.set({ keepingStarter: false });
  return (
    <Dialog.Root open={open} onOpenChange={(on) => !on && shut()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content
          onCloseAutoFocus={backToBench}
          onKeyDown={(e) => e.stopPropagation()}
          style={{ boxShadow: 'var(--shadow)' }}
          className="fixed top-16 left-1/2 z-50 flex max-h-[84dvh] w-[520px] max-w-[94vw] -translate-x-1/2 flex-col gap-3 rounded-sm border border-line bg-panel p-4 outline-none"
        >
          <Dialog.Title className="m-0 text-[15px] font-semibold">Keep as a starter</Dialog.Title>
          <Dialog.Description className="m-0 text-faint">
            New design offers it from then on. What is ticked is asked for in a short form; all else stays as it is.
          </Dialog.Description>
          <Choosing shut={shut} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Choosing({ shut }: { shut: () => void }) {
  const session = useSession();
  const design = useBench((s) => s.design);
  const [name, setName] = useState(design.name);
  const [asks, setAsks] = useState<readonly (Ask & { readonly on: boolean })[]>(() => {
    // What it asks for already comes first, in its order. Else words and pictures are: colours are what a design is
    // known by.
    const before = asksOf(design);
    const asked = new Set(before.map(keyOf));
    const others = askable(design).filter((a) => !asked.has(keyOf(a)));
    return [
      ...before.map((a) => ({ ...a, on: true })),
      ...others.map((a) => ({ ...a, on: !before.length && a.kind !== 'colour' })),
    ];
  });
  const [busy, setBusy] = useState(false);
  const change = (key: string, part: Partial<Ask & { on: boolean }>) =>
    setAsks(asks.map((a) => (keyOf(a) === key ? { ...a, ...part } : a)));
  const chosen = asks
    .filter((a) => a.on)
    .map(({ kind, of, label }): Ask => ({ kind, of, label: label.trim() || kind }));
  const keep = async () => {
    setBusy(true);
    try {
      const starter = starterOf(design, name.trim() || design.name, chosen, session.engines.env);
      // The same door as for what comes out of a file.
      if (!verifyDesign(starter).ok) {
        session.say('The starter was not kept: it would ask for too much. Tick no more than a hundred.', 'warn');
        return;
      }
      const picture = await session.press.thumbnail(320, design.pages[0].id).catch(() => null);
      await designStore().add(starter, picture);
      session.say(`“${starter.name}” is a starter now: New design on the shelf offers it.`);
      shut();
    } catch (e) {
      session.say(`The starter was not kept. ${storageProblem(e)}`, 'warn');
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <label className="flex items-center gap-2">
        <span className="text-faint">Name</span>
        <input
          className="h-7 w-full rounded-sm border border-edge bg-field px-2"
          value={name}
          maxLength={200}
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <div className="min-h-0 flex-1 overflow-auto">
        {(Object.keys(HEADS) as Ask['kind'][]).map((kind) => {
          const rows = asks.filter((a) => a.kind === kind);
          return (
            rows.length > 0 && (
              <fieldset key={kind} className="m-0 mb-2 border-0 p-0">
                <legend className="p-0 text-[12px] text-faint">{HEADS[kind]}</legend>
                {rows.map((a) => (
                  <div key={keyOf(a)} className="flex items-center gap-2 py-0.5">
                    <input
                      type="checkbox"
                      className="size-4 accent-accent"
                      aria-label={`Ask for ${a.label}`}
                      checked={a.on}
                      onChange={(e) => change(keyOf(a), { on: e.target.checked })}
                    />
                    <input
                      className="h-7 w-full rounded-sm border border-edge bg-field px-2 disabled:opacity-50"
                      aria-label={`What ${a.label} is called in the form`}
                      value={a.label}
                      maxLength={80}
                      disabled={!a.on}
                      onChange={(e) => change(keyOf(a), { label: e.target.value })}
                    />
                  </div>
                ))}
              </fieldset>
            )
          );
        })}
        {asks.length === 0 && <p className="m-0">There are no words, pictures or colours in it yet.</p>}
      </div>
      <div className="flex justify-end gap-2">
        <Button onClick={shut}>Cancel</Button>
        <Button kind="primary" disabled={busy} onClick={() => void keep()}>
          Keep it
        </Button>
      </div>
    </>
  );
}
