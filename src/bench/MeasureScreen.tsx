'use client';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { Button } from '@/ui/Button';
import { PlainSlider } from '@/ui/PlainSlider';
import { useBench, useSession } from './session/context';
import { backToBench } from './session/focus';
import { keepRealSize } from './session/settings';
import { REAL_SIZE } from './view/camera';

/** ISO/IEC 7810 ID-1: the size of bank cards, in points. */
const CARD = { w: (85.6 * 72) / 25.4, h: (53.98 * 72) / 25.4 };

/** The screen is measured once, against a card of a size that everybody has at hand: then “Real size” is true. */
export function MeasureScreen() {
  const session = useSession();
  const open = useBench((s) => s.measuring);
  const shut = () => session.set({ measuring: false });
  return (
    <Dialog.Root open={open} onOpenChange={(on) => !on && shut()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content
          onCloseAutoFocus={backToBench}
          onKeyDown={(e) => e.stopPropagation()}
          style={{ boxShadow: 'var(--shadow)' }}
          className="fixed top-16 left-1/2 z-50 grid w-[700px] max-w-[94vw] -translate-x-1/2 gap-3 rounded-sm border border-line bg-panel p-4 outline-none"
        >
          <Dialog.Title className="m-0 text-[15px] font-semibold">Measure this screen</Dialog.Title>
          <Dialog.Description className="m-0 text-faint">
            Hold a bank card against the screen and move the slider until the outline is as large. “Real size” is true
            from then on.
          </Dialog.Description>
          <Measuring shut={shut} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Measuring({ shut }: { shut: () => void }) {
  const session = useSession();
  const [scale, setScale] = useState(session.state.realSize);
  const percent = (v: number) => (v / REAL_SIZE) * 100;
  return (
    <>
      <div className="grid h-[330px] place-items-center rounded-sm bg-bench">
        <div
          data-testid="card"
          className="rounded-[12px] border-2 border-accent bg-panel"
          style={{ width: CARD.w * scale, height: CARD.h * scale }}
        />
      </div>
      <PlainSlider
        label="Size of the outline"
        ends={['smaller', 'larger']}
        value={percent(scale)}
        min={50}
        max={180}
        step={0.5}
        says={(v) => `${v} %`}
        onPreview={(v) => v !== null && setScale((v / 100) * REAL_SIZE)}
        onCommit={(v) => setScale((v / 100) * REAL_SIZE)}
      />
      <div className="flex justify-end gap-2">
        <Button onClick={shut}>Cancel</Button>
        <Button
          kind="primary"
          onClick={() => {
            keepRealSize(session, scale);
            session.say('Measured: “Real size” shows a millimetre as a millimetre on this screen.');
            shut();
          }}
        >
          It is as large
        </Button>
      </div>
    </>
  );
}
