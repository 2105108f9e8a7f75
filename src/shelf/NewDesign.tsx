'use client';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { asksOf, begun } from '@/core/edit/asks';
import { newDesign } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { FORMATS } from '@/core/units/formats';
import { browserEnv } from '@/env/browser';
import type { RemovedDesign } from '@/store/designs';
import { designStore, storageProblem } from '@/store/open';
import { Button } from '@/ui/Button';
import { PageSetup, setupForFormat } from '@/ui/PageSetup';
import { noteUsed, StarterGallery, useStarters, type Choice } from './StarterGallery';

/** The sheet for a new design: a plain page in any format, or a starter by its picture. One form, no steps. */
export function NewDesign({ onMake }: { onMake: (design: Design) => Promise<void> }) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button kind="primary">New design</Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          style={{ boxShadow: 'var(--shadow)' }}
          className="fixed top-1/2 left-1/2 z-50 flex max-h-[94dvh] w-[880px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 flex-col rounded-sm border border-line bg-panel p-5"
        >
          <Dialog.Title className="m-0 mb-1 text-[17px] font-semibold">New design</Dialog.Title>
          <Dialog.Description className="m-0 mb-4 text-faint">
            Begin with a plain page, or with something finished that asks for your words. All of it can be changed
            later.
          </Dialog.Description>
          <Form onMake={onMake} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Form({ onMake }: { onMake: (design: Design) => Promise<void> }) {
  const [name, setName] = useState('');
  const [setup, setSetup] = useState(() =>
    setupForFormat(
      FORMATS.find((f) => f.name === 'A4')!,
      false,
    ),
  );
  const [round, setRound] = useState(0);
  const list = useStarters(round);
  const [chosen, setChosen] = useState<Choice | null>(null);
  const [gone, setGone] = useState<RemovedDesign | null>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const make = async () => {
    if (!chosen) return onMake(newDesign(name.trim() || 'Untitled design', setup, browserEnv));
    const design = await chosen.design();
    if (!design) return setProblem(`“${chosen.name}” cannot be read. Choose another one.`);
    await noteUsed(chosen.id).catch(() => {});
    await onMake(begun(design, name.trim() || chosen.name, browserEnv));
  };
  return (
    <form
      className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_340px] gap-5"
      onSubmit={(e) => {
        e.preventDefault();
        setBusy(true);
        void make().finally(() => setBusy(false));
      }}
    >
      <StarterGallery list={list} chosen={chosen?.id ?? null} onChoose={setChosen} />
      <div className="flex min-h-[430px] flex-col gap-3 overflow-auto">
        <div className="flex items-center gap-1.5">
          <label htmlFor="new-name" className="text-faint">
            Name
          </label>
          <input
            id="new-name"
            className="h-7 w-full rounded-sm border border-edge bg-field px-2"
            value={name}
            maxLength={200}
            placeholder={chosen?.name ?? 'Untitled design'}
            onChange={(e) => setName(e.target.value)}
          />
        </div>
        {chosen ? (
          <StarterFacts
            key={chosen.id}
            chosen={chosen}
            onRemoved={(removed) => {
              setChosen(null);
              setGone(removed);
              setRound(round + 1);
            }}
          />
        ) : (
          <PageSetup setup={setup} onChange={setSetup} />
        )}
        {gone && (
          <p role="status" className="m-0 flex items-center gap-2">
            Removed “{gone.row.name}”.
            <Button
              onClick={() =>
                void designStore()
                  .putBack(gone)
                  .then(
                    () => {
                      setGone(null);
                      setRound(round + 1);
                    },
                    (e: unknown) => setProblem(storageProblem(e)),
                  )
              }
            >
              Put it back
            </Button>
          </p>
        )}
        {problem && (
          <p role="alert" className="m-0 text-stop">
            {problem}
          </p>
        )}
        <div className="mt-auto flex justify-end gap-2 pt-2">
          <Dialog.Close asChild>
            <Button>Cancel</Button>
          </Dialog.Close>
          <Button kind="primary" type="submit" disabled={busy}>
            Make it
          </Button>
        </div>
      </div>
    </form>
  );
}

/** A starter large, and what it asks for. */
function StarterFacts({ chosen, onRemoved }: { chosen: Choice; onRemoved: (gone: RemovedDesign | null) => void }) {
  const [asked, setAsked] = useState<readonly string[]>([]);
  useEffect(() => {
    let alive = true;
    void chosen.design().then((d) => {
      if (alive && d) setAsked(asksOf(d).map((a) => a.label));
    });
    return () => {
      alive = false;
    };
  }, [chosen]);
  return (
    <>
      <div className="grid h-[240px] place-items-center rounded-sm bg-bench">
        {chosen.picture && (
          <img
            src={chosen.picture}
            alt={chosen.name}
            className={`max-h-[216px] max-w-[310px] border border-edge ${chosen.round ? 'rounded-full' : ''}`}
          />
        )}
      </div>
      <p className="m-0">
        <span className="font-semibold">{chosen.purpose}</span>, {chosen.size}.
        {asked.length ? ` It asks for: ${asked.join(', ')}.` : ''}
      </p>
      {chosen.own && (
        <div className="flex gap-2">
          <a
            className="inline-flex h-7 items-center rounded-sm border border-edge bg-raised px-2.5 text-text no-underline"
            href={`/bench/${chosen.id}`}
          >
            Change it
          </a>
          <Button onClick={() => void designStore().remove(chosen.id).then(onRemoved)}>Remove it</Button>
        </div>
      )}
    </>
  );
}
