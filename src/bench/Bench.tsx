'use client';
import { useCallback, useEffect, useState } from 'react';
import { Button } from '@/ui/Button';
import { BenchTop } from './canvas/BenchTop';
import { Rack } from './rack/Rack';
import { useBench, useSession } from './session/context';
import { Follows } from './session/Follows';
import { comesLater } from './session/comesLater';
import { fetchLater } from './session/afterPaint';
import { useKeys } from './useKeys';
import { StatusStrip } from './StatusStrip';

// The bench top and the rack come first: one can draw while the rest is on its way.
const Ticket = comesLater(
  () => import('./ticket/Ticket').then((m) => m.Ticket),
  () => <header aria-busy className="border-b border-line bg-panel" />,
);
const Pile = comesLater(
  () => import('./pile/Pile').then((m) => m.Pile),
  () => <section aria-busy className="border-r border-line bg-panel" />,
);
const Details = comesLater(
  () => import('./details/Details').then((m) => m.Details),
  () => <section aria-busy className="border-l border-line bg-panel" />,
);
const Tray = comesLater(
  () => import('./tray/Tray').then((m) => m.Tray),
  () => <section aria-busy className="h-[112px] border-t border-line bg-panel [@media(max-height:719px)]:h-14" />,
);
const PressAnswerPanel = comesLater(() => import('./handOver/PressAnswer').then((m) => m.PressAnswerPanel));
const Finder = comesLater(() => import('./Finder').then((m) => m.Finder));
const KeysSheet = comesLater(() => import('./KeysSheet').then((m) => m.KeysSheet));
const ColourHere = comesLater(() => import('./tray/ColourHere').then((m) => m.ColourHere));
const FindWords = comesLater(() => import('./details/FindWords').then((m) => m.FindWords));
const Refit = comesLater(() => import('./ticket/Refit').then((m) => m.Refit));
const MeasureScreen = comesLater(() => import('./MeasureScreen').then((m) => m.MeasureScreen));
const SignaturePad = comesLater(() => import('./SignaturePad').then((m) => m.SignaturePad));
const Walk = comesLater(() => import('./Walk').then((m) => m.Walk));
const KeepStarter = comesLater(() => import('./ticket/KeepStarter').then((m) => m.KeepStarter));
const ImportReport = comesLater(() => import('./pictures/ImportReport').then((m) => m.ImportReport));

/** Five fixed places round the bench top; each answers one question. */
export function Bench({ onTakeOver }: { onTakeOver: () => void }) {
  const session = useSession();
  const [finder, setFinder] = useState(false);
  const [keys, setKeys] = useState(false);
  const readOnly = useBench((s) => s.readOnly);
  const signing = useBench((s) => s.signing);
  const answered = useBench((s) => s.pressAnswer !== null);
  const name = useBench((s) => s.design.name);

  useEffect(() => {
    void fetchLater();
  }, []);

  useEffect(() => {
    document.title = `${name} · Holvet`;
  }, [name]);

  // The shelf sends newcomers here with a word in the address; it goes, so that a reload is no second walk.
  useEffect(() => {
    if (!new URLSearchParams(location.search).has('walk')) return;
    history.replaceState(null, '', location.pathname);
    session.set({ walk: 0 });
  }, [session]);

  const find = useCallback(() => setFinder(true), []);
  const showKeys = useCallback(() => setKeys(true), []);
  useKeys({ find, keys: showKeys });

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
      <Follows>
        <Ticket onFind={find} />
      </Follows>
      <main className="relative grid min-h-0 grid-cols-[64px_200px_minmax(0,1fr)_272px]">
        <Rack />
        <Follows>
          <Pile />
        </Follows>
        <BenchTop />
        <Follows>
          <Details />
        </Follows>
        {answered && <PressAnswerPanel />}
      </main>
      <Follows>
        <Tray />
      </Follows>
      {/* “Saved” is never said a moment longer than it is true. */}
      <StatusStrip onKeys={showKeys} />
      <Finder open={finder} onOpenChange={setFinder} />
      <ColourHere />
      <ImportReport />
      <FindWords />
      <Refit />
      <KeepStarter />
      <Walk />
      {signing && <SignaturePad />}
      <MeasureScreen />
      <KeysSheet open={keys} onOpenChange={setKeys} />
    </div>
  );
}
