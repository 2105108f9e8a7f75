'use client';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { newDesign } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { FORMATS } from '@/core/units/formats';
import { browserEnv } from '@/env/browser';
import { Button } from '@/ui/Button';
import { PageSetup, setupForFormat } from '@/ui/PageSetup';

/** The sheet for a new design: one form, no steps. */
export function NewDesign({ onMake }: { onMake: (design: Design) => Promise<void> }) {
  const [name, setName] = useState('');
  const [setup, setSetup] = useState(() =>
    setupForFormat(
      FORMATS.find((f) => f.name === 'A4')!,
      false,
    ),
  );
  const [busy, setBusy] = useState(false);
  const ratio = setup.width / setup.height;
  const [w, h] = ratio > 1 ? [150, 150 / ratio] : [150 * ratio, 150];
  const k = w / setup.width;
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <Button kind="primary">New design</Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          style={{ boxShadow: 'var(--shadow)' }}
          className="fixed top-1/2 left-1/2 z-50 max-h-[94dvh] w-[640px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-sm border border-line bg-panel p-5"
        >
          <Dialog.Title className="m-0 mb-1 text-[17px] font-semibold">New design</Dialog.Title>
          <Dialog.Description className="m-0 mb-4 text-faint">
            Choose a format by name or type a size. All of it can be changed later.
          </Dialog.Description>
          <form
            className="grid grid-cols-[1fr_190px] gap-5"
            onSubmit={(e) => {
              e.preventDefault();
              setBusy(true);
              void onMake(newDesign(name.trim() || 'Untitled design', setup, browserEnv)).finally(() => setBusy(false));
            }}
          >
            <div className="grid content-start gap-3">
              <div className="flex items-center gap-1.5">
                <label htmlFor="new-name" className="text-faint">
                  Name
                </label>
                <input
                  id="new-name"
                  className="h-7 w-full rounded-sm border border-edge bg-field px-2"
                  value={name}
                  maxLength={200}
                  placeholder="Untitled design"
                  onChange={(e) => setName(e.target.value)}
                />
              </div>
              <PageSetup setup={setup} onChange={setSetup} />
            </div>
            <div className="flex flex-col">
              <div aria-hidden className="grid h-[190px] place-items-center rounded-sm bg-bench">
                <svg width={w + 20} height={h + 20} viewBox={`-10 -10 ${w + 20} ${h + 20}`}>
                  <Sheet w={w} h={h} round={setup.round} bleed={setup.bleed * k} />
                  <rect
                    x={setup.margins.left * k}
                    y={setup.margins.top * k}
                    width={Math.max(0, w - (setup.margins.left + setup.margins.right) * k)}
                    height={Math.max(0, h - (setup.margins.top + setup.margins.bottom) * k)}
                    fill="none"
                    stroke="#8a8a8a"
                    strokeDasharray="2 2"
                  />
                </svg>
              </div>
              <div className="mt-auto flex justify-end gap-2 pt-4">
                <Dialog.Close asChild>
                  <Button>Cancel</Button>
                </Dialog.Close>
                <Button kind="primary" type="submit" disabled={busy}>
                  Make it
                </Button>
              </div>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Sheet({ w, h, round, bleed }: { w: number; h: number; round: boolean; bleed: number }) {
  const b = Math.min(8, Math.max(bleed, bleed > 0 ? 2 : 0));
  return round ? (
    <>
      {b > 0 && <ellipse cx={w / 2} cy={h / 2} rx={w / 2 + b} ry={h / 2 + b} fill="none" stroke="#5c5c5c" />}
      <ellipse cx={w / 2} cy={h / 2} rx={w / 2} ry={h / 2} fill="#fff" stroke="#1a1a1a" />
    </>
  ) : (
    <>
      {b > 0 && <rect x={-b} y={-b} width={w + 2 * b} height={h + 2 * b} fill="none" stroke="#5c5c5c" />}
      <rect width={w} height={h} fill="#fff" stroke="#1a1a1a" />
    </>
  );
}
