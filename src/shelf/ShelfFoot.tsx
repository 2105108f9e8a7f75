'use client';
import { useEffect, useRef, useState } from 'react';
import type { DesignRow } from '@/store/database';
import { Button } from '@/ui/Button';
import { downloadBlob } from '@/ui/download';

const MB = 1024 * 1024;
const size = (bytes: number): string =>
  bytes >= 1024 * MB ? `${(bytes / 1024 / MB).toFixed(1)} GB` : `${Math.max(1, Math.round(bytes / MB))} MB`;
/** From this share on storage is nearly full. */
const NEARLY = 0.8;

/** What the shelf takes of the browser's room, whether the browser promised to keep it, and all of it as one file. */
export function ShelfFoot({
  rows,
  folders,
  onSaid,
}: {
  rows: readonly DesignRow[];
  folders: Readonly<Record<string, string>>;
  onSaid: (text: string, tone: 'plain' | 'stop') => void;
}) {
  const [room, setRoom] = useState<{ usage: number; quota: number } | null>(null);
  const [safe, setSafe] = useState<boolean | null>(null);
  const [doing, setDoing] = useState<{ done: number; total: number; word: string } | null>(null);
  const stop = useRef<AbortController | null>(null);
  useEffect(() => {
    let alive = true;
    void (async () => {
      const [estimate, persisted] = [await navigator.storage?.estimate?.(), await navigator.storage?.persisted?.()];
      if (!alive) return;
      if (estimate?.quota) setRoom({ usage: estimate.usage ?? 0, quota: estimate.quota });
      setSafe(persisted ?? null);
    })().catch(() => {});
    return () => void (alive = false);
  }, [rows]);
  const ask = async () => {
    const kept = await navigator.storage.persist().catch(() => false);
    setSafe(kept);
    onSaid(
      kept
        ? 'The browser keeps your designs for good now: it does not clear them to make room.'
        : 'The browser made no promise. Use Holvet more often or install it, then ask again; and save the shelf as a file now and then.',
      'plain',
    );
  };
  const save = async () => {
    stop.current = new AbortController();
    setDoing({ done: 0, total: rows.length, word: '' });
    try {
      const { packShelf } = await import('@/saving/wholeShelf');
      const made = await packShelf(
        rows,
        folders,
        (done, total, word) => setDoing({ done, total, word }),
        stop.current.signal,
      );
      downloadBlob(made.file, `Holvet shelf ${new Date().toISOString().slice(0, 10)}.zip`);
      onSaid(
        `${made.designs} designs are in the file.${made.lacking.length ? ` ${made.lacking.join('; ')}.` : ''}`,
        made.lacking.length ? 'stop' : 'plain',
      );
    } catch (e) {
      onSaid(
        stop.current.signal.aborted
          ? 'Stopped. No file was made.'
          : `The shelf could not be saved: ${e instanceof Error ? e.message : String(e)}`,
        stop.current.signal.aborted ? 'plain' : 'stop',
      );
    } finally {
      setDoing(null);
    }
  };
  const share = room ? room.usage / room.quota : 0;
  return (
    <footer className="mt-6 flex flex-wrap items-center gap-x-4 gap-y-2 rounded-sm border border-line bg-panel px-4 py-2 text-[12px] text-faint">
      {room && (
        <span className={`flex items-center gap-2 ${share > NEARLY ? 'font-semibold text-stop' : ''}`}>
          <meter
            aria-label="Room taken in this browser"
            className="h-2 w-24"
            min={0}
            max={1}
            high={NEARLY}
            value={share}
          />
          {size(room.usage)} of {size(room.quota)} in this browser
          {share > NEARLY && ': nearly full. Remove what you no longer need, or save the shelf and free some space.'}
        </span>
      )}
      {safe === false && (
        <Button kind="quiet" title="So that it never clears them to make room" onClick={() => void ask()}>
          Ask the browser to keep them for good
        </Button>
      )}
      {safe && <span>Kept for good by the browser</span>}
      <span className="ml-auto flex items-center gap-2">
        {doing ? (
          <span role="status" className="flex items-center gap-2">
            <progress
              className="w-28 accent-(--accent)"
              max={doing.total}
              value={doing.done}
              aria-label="Saving the shelf"
            />
            {doing.word} …<Button onClick={() => stop.current?.abort()}>Stop</Button>
          </span>
        ) : (
          <Button disabled={!rows.length} onClick={() => void save()}>
            Save the whole shelf
          </Button>
        )}
      </span>
    </footer>
  );
}
