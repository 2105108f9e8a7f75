'use client';
import { useEffect, useState } from 'react';
import { Button } from '@/ui/Button';
import { BenchTop } from './canvas/BenchTop';
import { Details } from './details/Details';
import { Finder } from './Finder';
import { KeysSheet } from './KeysSheet';
import { Pile } from './pile/Pile';
import { ImportReport } from './pictures/ImportReport';
import { Rack } from './rack/Rack';
import { useBench, useSession } from './session/context';
import { finderKey, keyHandler } from './commands/keys';
import { clipboardHandlers } from './commands/clipboard';
import { StatusStrip } from './StatusStrip';
import { Ticket } from './ticket/Ticket';
import { ColourHere } from './tray/ColourHere';
import { Tray } from './tray/Tray';

/** Five fixed places round the bench top; each answers one question. */
export function Bench({ onTakeOver }: { onTakeOver: () => void }) {
  const session = useSession();
  const [finder, setFinder] = useState(false);
  const [keys, setKeys] = useState(false);
  const readOnly = useBench((s) => s.readOnly);
  const name = useBench((s) => s.design.name);

  useEffect(() => {
    document.title = `${name} · Holvet`;
  }, [name]);

  useEffect(() => {
    const onKey = keyHandler(session, { keys: () => setKeys(true) });
    const onFind = finderKey(() => setFinder(true));
    const clip = clipboardHandlers(session);
    window.addEventListener('keydown', onFind, { capture: true });
    window.addEventListener('keydown', onKey);
    document.addEventListener('copy', clip.copy);
    document.addEventListener('cut', clip.cut);
    document.addEventListener('paste', clip.paste);
    return () => {
      window.removeEventListener('keydown', onFind, { capture: true });
      window.removeEventListener('keydown', onKey);
      document.removeEventListener('copy', clip.copy);
      document.removeEventListener('cut', clip.cut);
      document.removeEventListener('paste', clip.paste);
    };
  }, [session]);

  return (
    <div className="grid h-dvh min-h-[480px] grid-rows-[auto_48px_minmax(0,1fr)_auto_24px] overflow-hidden">
      {readOnly ? (
        <div role="status" className="flex items-center gap-3 border-b border-line bg-raised px-3 py-1.5">
          <span>This design is open in another tab. Here you can look, but not change it.</span>
          <Button onClick={onTakeOver}>Work here instead</Button>
        </div>
      ) : (
        <div />
      )}
      <Ticket onFind={() => setFinder(true)} />
      <main className="grid min-h-0 grid-cols-[64px_200px_minmax(0,1fr)_272px]">
        <Rack />
        <Pile />
        <BenchTop />
        <Details />
      </main>
      <Tray />
      <StatusStrip onKeys={() => setKeys(true)} />
      <Finder open={finder} onOpenChange={setFinder} />
      <ColourHere />
      <ImportReport />
      <KeysSheet open={keys} onOpenChange={setKeys} />
    </div>
  );
}
