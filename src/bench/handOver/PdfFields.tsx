'use client';
import { useState } from 'react';
import { visitPaints } from '@/core/model/paints';
import type { Design } from '@/core/model/schema';
import { ALL_MARKS, marksOf, type PdfMarks, type PdfOptions } from '@/core/output/pdf/options';
import { PDF_PRESETS } from '@/core/output/pdf/presets';
import { Button } from '@/ui/Button';
import { Check, ListChoice, WordChoice } from '@/ui/Choice';
import { useBench, useSession } from '../session/context';
import { keepPreset } from '../session/settings';

const MARKS: readonly { readonly key: keyof PdfMarks; readonly label: string; readonly hint: string }[] = [
  { key: 'crop', label: 'Cut marks', hint: 'Where it is cut, outside the bleed' },
  { key: 'registration', label: 'Targets', hint: 'Plates are laid on each other by them' },
  { key: 'bar', label: 'Colour bar', hint: 'Patches of each ink at the head' },
  { key: 'words', label: 'Words', hint: 'Name, page, state and day below the sheet' },
];
const PIXELS: readonly { readonly value: string; readonly label: string }[] = [
  { value: '', label: 'As they are' },
  { value: '300', label: '300 ppi' },
  { value: '150', label: '150 ppi' },
];

/** Whom a PDF is for, and, folded away, all that can be said of how it is made. */
export function PdfFields({
  preset,
  options,
  onPreset,
  onOptions,
}: {
  preset: string;
  options: PdfOptions;
  onPreset: (name: string) => void;
  onOptions: (options: PdfOptions) => void;
}) {
  const own = useBench((s) => s.pdfPresets);
  const presets = [...PDF_PRESETS, ...own];
  const now = presets.find((p) => p.name === preset) ?? PDF_PRESETS[0];
  const changed = JSON.stringify(now.options) !== JSON.stringify(options);
  return (
    <div className="grid gap-2">
      <ListChoice
        label="Made for"
        value={preset}
        groups={[
          { name: '', options: PDF_PRESETS.map((p) => ({ value: p.name, label: p.name })) },
          ...(own.length ? [{ name: 'Your own', options: own.map((p) => ({ value: p.name, label: p.name })) }] : []),
        ]}
        onChange={onPreset}
      />
      {now.said && !changed && <p className="m-0 text-faint">{now.said}</p>}
      <details>
        <summary className="cursor-pointer text-[13px] font-semibold text-faint hover:text-text">
          How it is made{changed ? ' (changed)' : ''}
        </summary>
        <Options options={options} onOptions={onOptions} preset={preset} />
      </details>
    </div>
  );
}

function Options({
  options,
  onOptions,
  preset,
}: {
  options: PdfOptions;
  onOptions: (options: PdfOptions) => void;
  preset: string;
}) {
  const session = useSession();
  const design = useBench((s) => s.design);
  const own = useBench((s) => s.pdfPresets);
  const [name, setName] = useState('');
  const marks = marksOf(options);
  const put = (change: Partial<PdfOptions>) => {
    const next = { ...options, ...change };
    // What is as usual is not said.
    for (const key of Object.keys(next) as (keyof PdfOptions)[])
      if (next[key] === undefined || next[key] === false)
        if (key !== 'marks' && key !== 'bleed') delete (next as Record<string, unknown>)[key];
    onOptions(next);
  };
  const keepable = name.trim() && !PDF_PRESETS.some((p) => p.name === name.trim());
  return (
    <div className="mt-2 grid gap-3 border-l-2 border-line pl-3">
      <div className="grid gap-1">
        <span className="text-faint">Kind of PDF</span>
        <WordChoice
          label="Kind of PDF"
          value={options.standard ?? 'x4'}
          options={[
            { value: 'x4', label: 'PDF/X-4' },
            { value: 'plain', label: 'PDF 1.7' },
          ]}
          onChange={(standard) => put({ standard })}
        />
      </div>
      <div role="group" aria-label="Marks" className="grid grid-cols-2 gap-x-3 gap-y-1">
        {MARKS.map(({ key, label, hint }) => (
          <label key={key} title={hint} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="size-4 accent-(--accent)"
              checked={marks[key]}
              onChange={(e) => put({ marks: { ...(marks ?? ALL_MARKS), [key]: e.target.checked } })}
            />
            {label}
          </label>
        ))}
      </div>
      <Check
        label="Bleed"
        checked={options.bleed !== false}
        onChange={(on) => put({ bleed: on ? undefined : false })}
        hint="Off: cut to size."
      />
      {design.setup.facing && (
        <Check
          label="Facing pages as one sheet"
          checked={options.spreads === true}
          onChange={(spreads) => put({ spreads })}
        />
      )}
      <div className="grid gap-1">
        <span className="text-faint">Inks</span>
        <WordChoice
          label="Spot inks"
          tight
          value={options.spots ?? 'keep'}
          options={[
            { value: 'keep', label: 'As they are' },
            { value: 'standIns', label: 'No spots' },
            { value: 'one', label: 'One ink' },
          ]}
          onChange={(spots) => put({ spots: spots === 'keep' ? undefined : spots, ink: undefined })}
        />
        {options.spots === 'one' && (
          <ListChoice
            label="All in"
            value={options.ink ?? 'black'}
            groups={[
              {
                name: '',
                options: [
                  { value: 'black', label: 'Black' },
                  ...design.inks.filter((i) => !i.asStandIn).map((i) => ({ value: i.id, label: i.name })),
                ],
              },
            ]}
            onChange={(ink) => put({ ink: ink === 'black' ? undefined : ink })}
          />
        )}
      </div>
      {usesRgb(design) && (
        <Check
          label="Keep screen colours RGB"
          hint="Flat screen colours stay as they are, tagged sRGB, for the printer to separate. Otherwise they become ink here."
          checked={options.keepRgb === true}
          onChange={(keepRgb) => put({ keepRgb })}
        />
      )}
      {(design.pictures ?? []).length > 0 && (
        <div className="grid gap-1">
          <span className="text-faint">Pictures, at most</span>
          <WordChoice
            label="Pixels of pictures"
            tight
            value={String(options.ppi ?? '')}
            options={PIXELS}
            onChange={(v) => put({ ppi: v ? Number(v) : undefined })}
          />
        </div>
      )}
      <Check
        label="Letters as outlines"
        hint="No face goes along; words cannot be found or copied."
        checked={options.outlines === true}
        onChange={(outlines) => put({ outlines })}
      />
      {Object.values(design.nodes).some((n) => n.kind === 'group' && n.layer) && (
        <Check
          label="Layers to show and hide"
          checked={options.layers === true}
          onChange={(layers) => put({ layers })}
        />
      )}
      <Check
        label="Read aloud in order"
        hint="Tagged: words as paragraphs, pictures with what is said of them in Details."
        checked={options.tagged === true}
        onChange={(tagged) => put({ tagged })}
      />
      <About />
      <div className="grid gap-1">
        <label className="flex items-center gap-2">
          <span className="text-faint">Keep as</span>
          <input
            className="h-7 min-w-0 flex-1 rounded-sm border border-edge bg-field px-2"
            placeholder="Our printer"
            maxLength={80}
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          <Button disabled={!keepable} onClick={() => keepPreset(session, name.trim(), options)}>
            Keep
          </Button>
        </label>
        {own.some((p) => p.name === preset) && (
          <Button kind="quiet" onClick={() => keepPreset(session, preset, null)}>
            Forget “{preset}”
          </Button>
        )}
      </div>
    </div>
  );
}

const TOLD = [
  { key: 'author', label: 'Author' },
  { key: 'subject', label: 'About' },
  { key: 'keywords', label: 'Keywords' },
] as const;

/** What the file says of itself; kept with the design. */
function About() {
  const session = useSession();
  const about = useBench((s) => s.design.about);
  const put = (key: (typeof TOLD)[number]['key'], value: string) => {
    if ((about?.[key] ?? '') === value) return;
    session.commit('What files say of themselves', (d) => {
      const next = { ...d.about, [key]: value };
      if (!value) delete next[key];
      if (Object.keys(next).length) d.about = next;
      else delete d.about;
    });
  };
  return (
    <div role="group" aria-label="What the file says of itself" className="grid gap-1">
      {TOLD.map(({ key, label }) => (
        <label key={key} className="grid grid-cols-[72px_1fr] items-center gap-2">
          <span className="text-faint">{label}</span>
          <input
            key={about?.[key] ?? ''}
            className="h-7 min-w-0 rounded-sm border border-edge bg-field px-2"
            defaultValue={about?.[key] ?? ''}
            maxLength={400}
            onBlur={(e) => put(key, e.target.value.trim())}
            onKeyDown={(e) => e.key === 'Enter' && put(key, e.currentTarget.value.trim())}
          />
        </label>
      ))}
    </div>
  );
}

/** Are there colours that could stay RGB? */
function usesRgb(design: Design): boolean {
  let found = design.swatches.some((s) => s.kind === 'colour' && 'rgb' in s.colour);
  visitPaints(design, (p) => {
    if (p.kind === 'colour' && 'rgb' in p.colour) found = true;
  });
  return found;
}
