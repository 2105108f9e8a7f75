'use client';
import { memo, useState } from 'react';
import { addExchanged } from '@/core/edit/exchange';
import { SWATCH_FORMATS, writeSwatchFile, type SwatchFormat } from '@/core/output/swatches/write';
import { Button } from '@/ui/Button';
import { FileButton, FileProblem, SWATCH_FILES } from '@/ui/FileButton';
import { download } from '@/ui/download';
import { fileName } from '@/core/output/fileName';
import { count } from '../session/commandDef';
import { useSession } from '../session/context';
import { readSwatches } from './readSwatches';
import { TraySlip } from './TraySlip';
import { SORTS, mergeTray, sortTray, sweepTray } from '../commands/tidy';

/** Order in the tray, and swatches in and out as files. */
export const TidySlip = memo(function TidySlip() {
  const session = useSession();
  const [problem, setProblem] = useState<string | null>(null);
  const save = (format: (typeof SWATCH_FORMATS)[number]) => {
    const { bytes, notes } = writeSwatchFile(session.design, session.palette, format.id satisfies SwatchFormat);
    download(bytes, fileName(`${session.design.name} colours`, format.ending), format.type);
    session.say(
      `Saved ${count(session.design.swatches.length, 'swatch', 'swatches')} as ${format.name}.${notes.length ? ` ${notes[0]}` : ''}`,
    );
  };
  const take = async (f: File) => {
    const read = await readSwatches(session, f, setProblem);
    if (!read) return;
    let added = 0;
    session.commit(`Colours from ${f.name}`, (d) => {
      added = addExchanged(d, read.swatches, read.ramps, session.newId);
    });
    session.say(
      `${count(added, 'swatch', 'swatches')} from ${f.name} ${added === 1 ? 'is' : 'are'} in the tray.${read.notes.length ? ` ${read.notes[0]}` : ''}`,
    );
  };
  return (
    <TraySlip word="Tidy, files" title="Tidy, open and save swatches" width={330}>
      <div className="grid gap-3">
        <div>
          <h3 className="m-0 mb-1 font-semibold text-faint">Sort by</h3>
          <div className="grid grid-cols-4 gap-1">
            {Object.values(SORTS).map((row) => (
              <Button key={row.word} className="px-1" onClick={() => sortTray(session, row)}>
                {row.word}
              </Button>
            ))}
          </div>
        </div>
        <div className="grid grid-cols-2 gap-1">
          <Button onClick={() => mergeTray(session)}>Merge duplicates</Button>
          <Button onClick={() => sweepTray(session)}>Remove unused</Button>
        </div>
        <div>
          <h3 className="m-0 mb-1 font-semibold text-faint">Save as a file</h3>
          <div className="grid gap-1">
            {SWATCH_FORMATS.map((f) => (
              <Button
                key={f.id}
                className="h-auto min-h-[26px] justify-start py-1 text-left whitespace-normal"
                onClick={() => save(f)}
              >
                <span className="shrink-0 font-semibold">{f.name}</span>{' '}
                <span className="text-[12px] text-faint">{f.says}</span>
              </Button>
            ))}
          </div>
        </div>
        <div>
          <FileButton
            className="w-full"
            word="Open a swatch file"
            label="Open a swatch file"
            accept={SWATCH_FILES}
            onFile={(f) => void take(f)}
          />
          <FileProblem text={problem} />
          <p className="mt-1 mb-0 text-[12px] text-faint">
            CGATS, CxF3, design tokens and ICC named colours can be opened; CSS colours can be pasted into the recipe
            line.
          </p>
        </div>
      </div>
    </TraySlip>
  );
});
