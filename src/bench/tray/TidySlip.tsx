'use client';
import { memo, useRef, useState } from 'react';
import { refusalOf } from '@/core/colour/exchange';
import { labToLch } from '@/core/colour/models';
import type { Palette } from '@/core/colour/palette';
import { addExchanged } from '@/core/edit/exchange';
import { mergeDuplicates, removeUnused, sortSwatches } from '@/core/edit/swatches';
import { readSwatchFile } from '@/core/input/swatches/read';
import type { Swatch } from '@/core/model/schema';
import { SWATCH_FORMATS, writeSwatchFile, type SwatchFormat } from '@/core/output/swatches/write';
import { Button } from '@/ui/Button';
import { download, fileName } from '@/ui/download';
import { Slip } from '@/ui/Slip';
import { count } from '../session/commands';
import { useSession } from '../session/context';

const look = (s: Swatch, palette: Palette) => labToLch(palette.labOf(s.kind === 'colour' ? { swatch: s.id, tint: 1 } : s.stops[0].colour));
/** Greys have no hue: they come first, by lightness. */
const byHue = (s: Swatch, palette: Palette): number => {
  const [l, c, h] = look(s, palette);
  return c < 5 ? l - 1000 : h;
};
const SORTS: readonly { word: string; key: (s: Swatch, palette: Palette) => number | string }[] = [
  { word: 'Name', key: (s) => s.name },
  { word: 'Hue', key: byHue },
  { word: 'Lightness', key: (s, palette) => look(s, palette)[0] },
  { word: 'Total ink', key: (s, palette) => palette.totalInk(s.kind === 'colour' ? { swatch: s.id, tint: 1 } : s.stops[0].colour) },
];

/** Order in the tray, and swatches in and out as files. */
export const TidySlip = memo(function TidySlip() {
  const session = useSession();
  const file = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const save = (format: (typeof SWATCH_FORMATS)[number]) => {
    const { bytes, notes } = writeSwatchFile(session.design, session.palette, format.id satisfies SwatchFormat);
    download(bytes, fileName(`${session.design.name} colours`, format.ending), format.type);
    session.say(`Saved ${count(session.design.swatches.length, 'swatch', 'swatches')} as ${format.name}.${notes.length ? ` ${notes[0]}` : ''}`);
  };
  const take = async (f: File) => {
    const read = readSwatchFile(new Uint8Array(await f.arrayBuffer()));
    if (!read.ok) {
      setProblem(refusalOf(read, f.name));
      return;
    }
    setProblem(null);
    let added = 0;
    session.commit(`Colours from ${f.name}`, (d) => {
      added = addExchanged(d, read.swatches, read.ramps, session.newId);
    });
    session.say(`${count(added, 'swatch', 'swatches')} from ${f.name} ${added === 1 ? 'is' : 'are'} in the tray.${read.notes.length ? ` ${read.notes[0]}` : ''}`);
  };
  return (
    <Slip
      title="Tidy, open and save swatches"
      side="top"
      width={330}
      trigger={
        <button type="button" className="cursor-pointer border-0 bg-transparent p-0 text-left key-line hover:text-accent">
          Tidy, files
        </button>
      }
    >
      <div className="grid gap-3">
        <div>
          <h3 className="m-0 mb-1 font-semibold text-faint">Sort by</h3>
          <div className="grid grid-cols-4 gap-1">
            {SORTS.map((s) => (
              <Button key={s.word} className="px-1" onClick={() => session.commit(`Sort by ${s.word.toLowerCase()}`, (d) => sortSwatches(d, (x) => s.key(x, session.palette)))}>
                {s.word}
              </Button>
            ))}
          </div>
        </div>
        <div className="grid grid-cols-2 gap-1">
          <Button
            onClick={() => {
              let n = 0;
              session.commit('Merge equal swatches', (d) => {
                n = mergeDuplicates(d);
              });
              session.say(n ? `Merged: ${count(n, 'swatch', 'swatches')} went, their users follow the ones that stay.` : 'No two swatches are equal.');
            }}
          >
            Merge duplicates
          </Button>
          <Button
            onClick={() => {
              let n = 0;
              session.commit('Remove unused swatches', (d) => {
                n = removeUnused(d);
              });
              session.say(n ? `Removed ${count(n, 'swatch', 'swatches')} that nothing uses.` : 'Every swatch is in use.');
            }}
          >
            Remove unused
          </Button>
        </div>
        <div>
          <h3 className="m-0 mb-1 font-semibold text-faint">Save as a file</h3>
          <div className="grid gap-1">
            {SWATCH_FORMATS.map((f) => (
              <Button key={f.id} className="justify-start" onClick={() => save(f)}>
                <span className="font-semibold">{f.name}</span> <span className="truncate text-[12px] text-faint">{f.says}</span>
              </Button>
            ))}
          </div>
        </div>
        <div>
          <Button className="w-full" onClick={() => file.current?.click()}>
            Open a swatch file
          </Button>
          <input
            ref={file}
            type="file"
            tabIndex={-1}
            aria-label="Open a swatch file"
            className="sr-only"
            accept=".txt,.cxf,.xml,.json,.icc,.icm,.it8,.ti3,.cgats"
            onChange={(e) => {
              const f = e.target.files?.[0];
              if (f) void take(f);
              e.target.value = '';
            }}
          />
          {problem && (
            <p role="alert" className="mt-2 mb-0 rounded-sm border border-stop p-2 text-[12px] text-stop">
              {problem}
            </p>
          )}
          <p className="mt-1 mb-0 text-[12px] text-faint">CGATS, CxF3, design tokens and ICC named colours can be opened; CSS colours can be pasted into the recipe line.</p>
        </div>
      </div>
    </Slip>
  );
});
