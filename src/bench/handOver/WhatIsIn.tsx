'use client';
import { useEffect, useState } from 'react';
import type { PdfFacts } from '@/core/input/pdf/facts';
import type { PdfContents } from '@/core/output/pdf/contents';
import type { PdfOptions } from '@/core/output/pdf/options';
import { formatNumber, fromPoints, type Unit } from '@/core/units/length';
import { hexOf } from '@/core/colour/spaces';
import type { PdfRequest } from '@/workers/pressApi';
import { useBench, useSession } from '../session/context';

const size = (w: number, h: number, unit: Unit) =>
  `${formatNumber(fromPoints(w, unit), 1)} × ${formatNumber(fromPoints(h, unit), 1)} ${unit}`;
const many = (n: number, word: string) => `${n} ${word}${n === 1 ? '' : 's'}`;

/** Rows of a word and what it is. */
function Facts({ label, rows }: { label: string; rows: readonly (readonly [string, React.ReactNode])[] }) {
  return (
    <dl
      aria-label={label}
      className="m-0 grid grid-cols-[72px_1fr] gap-x-2 gap-y-0.5 rounded-sm bg-field px-2.5 py-2 text-[12px]"
    >
      {rows.map(([word, value]) => (
        <div key={word} className="contents">
          <dt className="text-faint">{word}</dt>
          <dd className="m-0 min-w-0">{value}</dd>
        </div>
      ))}
    </dl>
  );
}

/** Plates by name, each with its colour. */
function Plates({ names }: { names: readonly string[] }) {
  const { palette } = useSession();
  if (!names.length) return <>none</>;
  return (
    <span className="flex flex-wrap gap-x-2.5 gap-y-0.5">
      {names.map((name) => {
        const at = palette.channels.indexOf(name);
        return (
          <span key={name} className="flex items-center gap-1">
            <span
              aria-hidden
              className="size-3 rounded-sm border border-edge"
              style={
                at >= 0
                  ? { background: hexOf(palette.lookOfMix(palette.channels.map((_, i) => (i === at ? 1 : 0)))) }
                  : {}
              }
            />
            {name}
          </span>
        );
      })}
    </span>
  );
}

/** What will be in the file, counted before it is made. */
export function WhatWillBeIn({ pages, options }: { pages: readonly number[]; options: PdfOptions }) {
  const session = useSession();
  const design = useBench((s) => s.design);
  const unit = design.setup.unit === 'px' ? 'mm' : design.setup.unit;
  const [seen, setSeen] = useState<PdfContents | null>(null);
  // The lists are new at every turn; what they say is not.
  const asked = JSON.stringify({ kind: 'pdf', pages, options } satisfies PdfRequest);
  useEffect(() => {
    let gone = false;
    void session.press.contents(JSON.parse(asked) as PdfRequest).then(
      (c) => gone || setSeen(c),
      () => gone || setSeen(null),
    );
    return () => void (gone = true);
  }, [session, design, asked]);
  if (!seen) return <p className="m-0 text-[12px] text-faint">Counting what will be in it …</p>;
  return (
    <Facts
      label="What will be in it"
      rows={[
        [
          'Pages',
          `${many(seen.sheets, options.spreads ? 'sheet' : 'page')}, ${seen.sizes.map(([w, h]) => size(w, h, unit)).join(' and ')}`,
        ],
        ['Bleed', seen.bleed ? `${formatNumber(fromPoints(seen.bleed, unit), 1)} ${unit}` : 'none'],
        ['Plates', <Plates key="plates" names={seen.plates} />],
        ['Faces', seen.faces.length ? seen.faces.join(', ') : 'none'],
        ...(seen.pictures ? ([['Pictures', `${seen.pictures}, at least ${Math.round(seen.ppi!)} ppi`]] as const) : []),
      ]}
    />
  );
}

/** What is in the file that was made, as our own reader finds it. */
export function WhatIsIn({ facts }: { facts: PdfFacts }) {
  const design = useBench((s) => s.design);
  const unit = design.setup.unit === 'px' ? 'mm' : design.setup.unit;
  const [first] = facts.pages;
  const cut = first.trim ?? first.media!;
  const inks = [...new Set(facts.pages.flatMap((p) => p.inks))];
  const pictures = facts.pages.flatMap((p) => p.pictures);
  const bleed = first.bleed && first.trim ? first.trim.x0 - first.bleed.x0 : 0;
  const open = facts.fonts.filter((f) => !f.embedded).map((f) => f.name);
  return (
    <Facts
      label="What is in it"
      rows={[
        [
          'Read back',
          `${facts.standard ?? `PDF ${facts.version}`}, ${formatNumber(facts.bytes / 1024 / (facts.bytes > 2 ** 20 ? 1024 : 1), 1)} ${facts.bytes > 2 ** 20 ? 'MB' : 'kB'}`,
        ],
        ['Pages', `${many(facts.pages.length, 'page')}, ${size(cut.x1 - cut.x0, cut.y1 - cut.y0, unit)}`],
        ['Bleed', bleed > 0.01 ? `${formatNumber(fromPoints(bleed, unit), 1)} ${unit}` : 'none'],
        ['Plates', <Plates key="plates" names={inks} />],
        [
          'Faces',
          facts.fonts.length
            ? `${facts.fonts.map((f) => f.name).join(', ')}${open.length ? ` (not in the file: ${open.join(', ')})` : ', all in the file'}`
            : 'none',
        ],
        ...(pictures.length
          ? ([
              ['Pictures', `${pictures.length}, at least ${Math.round(Math.min(...pictures.map((p) => p.ppi)))} ppi`],
            ] as const)
          : []),
      ]}
    />
  );
}
