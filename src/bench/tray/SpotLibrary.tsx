'use client';
import { memo, useState } from 'react';
import type { Palette } from '@/core/colour/palette';
import { findInks, SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { hexOf } from '@/core/colour/spaces';
import { asInk } from '@/core/edit/exchange';
import { addSpot } from '@/core/edit/swatches';
import type { Ink } from '@/core/model/schema';
import { formatNumber } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { ListChoice } from '@/ui/Choice';
import { FileButton, FileProblem, SWATCH_FILES } from '@/ui/FileButton';
import { FindField } from '@/ui/FindField';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { keepLibrary, removeLibrary } from '../session/libraries';
import { readSwatches } from './readSwatches';
import { TraySlip } from './TraySlip';

type LibraryInk = Omit<Ink, 'id'>;
const SHIPPED = 'shipped';

/**
 * Spot inks, found by the start of a word or a number; each with its stand-in and how far apart they are on this paper.
 */
export const SpotLibrary = memo(function SpotLibrary() {
  return (
    <TraySlip word="Spot library" title="Spot library" width={440}>
      <Library />
    </TraySlip>
  );
});

function Library() {
  const session = useSession();
  const libraries = useBench((s) => s.libraries);
  useBench((s) => s.design.inks);
  const [query, setQuery] = useState('');
  const [at, setAt] = useState(0);
  const [which, setWhich] = useState(SHIPPED);
  const [problem, setProblem] = useState<string | null>(null);
  const { palette } = session;
  const opened = libraries.filter((l) => l.kind === 'inks');
  const row = opened.find((l) => l.id === which);
  const inks: readonly LibraryInk[] = row ? row.swatches.map((s) => asInk(s, palette)) : SPOT_LIBRARY;
  const found = findInks(inks, query);

  const add = (ink: LibraryInk) => {
    session.commit(`Add ${ink.name}`, (d) => void addSpot(d, ink, session.newId));
    session.say(`${ink.name} is in the tray. It gets a plate of its own.`);
  };
  const take = async (f: File) => {
    const read = await readSwatches(session, f, setProblem);
    if (!read) return;
    const kept = await keepLibrary(session, 'inks', f.name.replace(/\.[^.]+$/, ''), read.swatches);
    if (!kept) return;
    setWhich(kept.id);
    setQuery('');
    session.say(
      `Opened “${kept.name}”: ${count(read.swatches.length, 'ink')}, kept for every design.${read.notes.length ? ` ${read.notes[0]}` : ''}`,
    );
  };
  return (
    <>
      <div className="mb-2 flex gap-2">
        <div className="min-w-0 flex-1">
          <ListChoice
            label="Library"
            value={row ? row.id : SHIPPED}
            groups={[
              {
                name: '',
                options: [
                  { value: SHIPPED, label: 'Marrowick Tins' },
                  ...opened.map((l) => ({ value: l.id, label: l.name })),
                ],
              },
            ]}
            onChange={setWhich}
          />
        </div>
        {row && <Button onClick={() => void removeLibrary(session, row)}>Throw away</Button>}
        <FileButton
          word="Open a library"
          label="Open an ink library"
          accept={SWATCH_FILES}
          onFile={(f) => void take(f)}
        />
      </div>
      <FileProblem text={problem} />
      <div className="mb-2">
        <FindField
          label="Find a spot ink"
          list="spot"
          placeholder="Start of a name or number: emb, 66 …"
          value={query}
          at={at}
          count={found.length}
          onChange={(text) => {
            setQuery(text);
            setAt(0);
          }}
          onMove={setAt}
          onTake={(i) => add(found[i])}
        />
      </div>
      {found.length === 0 ? (
        <p className="m-0 text-faint">No ink begins with that. Names are words, numbers are lightness and hue.</p>
      ) : (
        <ul id="spot-list" role="listbox" aria-label="Spot inks" className="m-0 max-h-72 list-none overflow-auto p-0">
          {found.slice(0, 400).map((ink, i) => (
            <InkRow
              key={`${ink.name}${i}`}
              ink={ink}
              id={`spot-${i}`}
              palette={palette}
              active={i === at}
              held={session.design.inks.some((x) => x.name.toLowerCase() === ink.name.toLowerCase())}
              onAdd={() => add(ink)}
            />
          ))}
        </ul>
      )}
      <p className="mt-2 mb-0 text-[12px] text-faint">
        Two fields: the ink, and its stand-in recipe on this paper. ΔE00 says how far apart they look; from about 2 a
        trained eye sees it.
      </p>
    </>
  );
}

function InkRow({
  ink,
  id,
  palette,
  active,
  held,
  onAdd,
}: {
  ink: LibraryInk;
  id: string;
  palette: Palette;
  active: boolean;
  held: boolean;
  onAdd: () => void;
}) {
  const off = palette.standInDistance(ink);
  return (
    <li
      id={id}
      role="option"
      aria-selected={active}
      onClick={onAdd}
      className={`flex cursor-pointer items-center gap-2 rounded-sm px-2 py-1 hover:bg-raised ${active ? 'bg-field outline outline-accent -outline-offset-1' : ''}`}
    >
      <span aria-hidden className="flex h-6 w-14 shrink-0 overflow-hidden rounded-sm border border-edge">
        <span className="flex-[1.4]" style={{ background: hexOf(palette.lookOfInk(ink)) }} />
        <span className="flex-1" style={{ background: palette.css({ cmyk: ink.alternate }) }} />
      </span>
      <span title={ink.name} className="min-w-0 flex-1 truncate">
        {ink.name}
      </span>
      {held && <span className="text-[12px] text-faint">in the tray</span>}
      <span className="w-[84px] text-right text-[12px] text-faint">
        {ink.alternate.map((v) => formatNumber(v * 100, 0)).join(' ')}
      </span>
      <span className={`w-[62px] text-right text-[12px] ${off > 5 ? 'text-warn' : 'text-faint'}`}>
        ΔE00 {formatNumber(off, 1)}
      </span>
    </li>
  );
}
