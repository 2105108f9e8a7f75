'use client';
import { useState } from 'react';
import { findSpots } from '@/core/colour/spotLibrary';
import { hexOf, labToSrgb } from '@/core/colour/spaces';
import { addSpot } from '@/core/edit/swatches';
import type { Ink } from '@/core/model/schema';
import { Slip } from '@/ui/Slip';
import { useSession } from '../session/context';

/** The shipped spot inks, found by the start of a word or a number. */
export function SpotLibrary() {
  const session = useSession();
  const [open, setOpen] = useState(false);
  const [query, setQuery] = useState('');
  const [at, setAt] = useState(0);
  const found = findSpots(query);
  const add = (ink: Omit<Ink, 'id'>) => {
    session.commit(`Add ${ink.name}`, (d) => void addSpot(d, ink, session.newId));
    session.say(`${ink.name} is in the tray. It gets a plate of its own.`);
  };
  return (
    <Slip
      title="Spot library: Marrowick Tins"
      side="top"
      width={320}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className="cursor-pointer border-0 bg-transparent p-0 text-left key-line hover:text-accent">
          Spot library
        </button>
      }
    >
      <input
        autoFocus
        aria-label="Find a spot ink"
        role="combobox"
        aria-expanded
        aria-controls="spot-list"
        aria-activedescendant={found[at] ? `spot-${at}` : undefined}
        placeholder="Start of a name or number: emb, 66 …"
        className="mb-2 h-8 w-full rounded-sm border border-edge bg-field px-2"
        value={query}
        onChange={(e) => {
          setQuery(e.target.value);
          setAt(0);
        }}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
            e.preventDefault();
            const next = Math.min(found.length - 1, Math.max(0, at + (e.key === 'ArrowDown' ? 1 : -1)));
            setAt(next);
            document.getElementById(`spot-${next}`)?.scrollIntoView({ block: 'nearest' });
          } else if (e.key === 'Enter' && found[at]) {
            e.preventDefault();
            add(found[at]);
          }
        }}
      />
      {found.length === 0 ? (
        <p className="m-0 text-faint">No ink begins with that. Names are words, numbers are lightness and hue.</p>
      ) : (
        <ul id="spot-list" role="listbox" aria-label="Spot inks" className="m-0 max-h-64 list-none overflow-auto p-0">
          {found.map((ink, i) => {
            const held = session.design.inks.some((x) => x.name === ink.name);
            return (
              <li key={ink.name} id={`spot-${i}`} role="option" aria-selected={i === at} onClick={() => add(ink)} className={`flex cursor-pointer items-center gap-2 rounded-sm px-1.5 py-1 ${i === at ? 'bg-line' : 'hover:bg-line'}`}>
                <span aria-hidden className="size-5 rounded-full border border-edge" style={{ background: hexOf(labToSrgb(ink.lab)) }} />
                <span className="flex-1">{ink.name}</span>
                <span className="text-[12px]">{held ? 'in the tray' : ink.alternate.map((v) => Math.round(v * 100)).join(' ')}</span>
              </li>
            );
          })}
        </ul>
      )}
    </Slip>
  );
}
