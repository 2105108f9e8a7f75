'use client';
import { useEffect, useState } from 'react';
import type { Design } from '@/core/model/schema';
import { formatLength } from '@/core/units/length';
import { browserEnv } from '@/env/browser';
import { designStore } from '@/store/open';

/** What a new design can be begun with: its picture, and how it is made. */
export interface Choice {
  readonly id: string;
  readonly name: string;
  /** What it is for: “Poster”; of one’s own, that it is. */
  readonly purpose: string;
  readonly picture: string | null;
  readonly size: string;
  readonly round: boolean;
  /** Kept by the person: it can be changed and removed. */
  readonly own: boolean;
  readonly design: () => Promise<Design | null>;
}

const USED = 'new-used';
/** So many are remembered as used last. */
const MOST_USED = 20;

/** Notes that a starter was used: it stands first the next time. */
export async function noteUsed(id: string): Promise<void> {
  const used = (await designStore().setting<string[]>(USED)) ?? [];
  await designStore().setSetting(USED, [id, ...used.filter((u) => u !== id)].slice(0, MOST_USED));
}

/**
 * All starters, one’s own before those that ship, what was used last before all. Null until they are there; asked for
 * anew each `round`.
 */
export function useStarters(round: number): readonly Choice[] | null {
  const [list, setList] = useState<readonly Choice[] | null>(null);
  useEffect(() => {
    let alive = true;
    const urls: string[] = [];
    void (async () => {
      const { STARTERS, starterDesign } = await import('@/demo/starters');
      const shipped = STARTERS.map((s): Choice => {
        const design = starterDesign(s, browserEnv);
        return {
          id: s.file,
          name: design.name,
          purpose: s.purpose,
          picture: `/thumbnails/${s.file}.png`,
          size: sizeOf(design.setup),
          round: design.setup.round,
          own: false,
          design: () => Promise.resolve(design),
        };
      });
      // Where nothing can be kept there are none of one's own.
      const rows = await designStore()
        .list()
        .catch(() => []);
      const own = rows
        .filter((r) => r.starter)
        .map((r): Choice => {
          const url = r.thumbnail && URL.createObjectURL(new Blob([r.thumbnail as BlobPart], { type: 'image/png' }));
          if (url) urls.push(url);
          return {
            id: r.id,
            name: r.name,
            purpose: 'Your starter',
            picture: url,
            size: sizeOf({ width: r.width, height: r.height, unit: r.unit ?? 'mm' }),
            round: r.round ?? false,
            own: true,
            design: async () => {
              const loaded = await designStore().load(r.id);
              return loaded.ok ? loaded.value.design : null;
            },
          };
        });
      const used =
        (await designStore()
          .setting<string[]>(USED)
          .catch(() => undefined)) ?? [];
      const rank = (c: Choice) => (used.includes(c.id) ? used.indexOf(c.id) : MOST_USED);
      if (alive) setList([...own, ...shipped].toSorted((a, b) => rank(a) - rank(b)));
    })();
    return () => {
      alive = false;
      for (const url of urls) URL.revokeObjectURL(url);
    };
  }, [round]);
  return list;
}

const sizeOf = ({ width, height, unit }: Pick<Design['setup'], 'width' | 'height' | 'unit'>): string =>
  `${formatLength(width, unit, 1)} × ${formatLength(height, unit, 1)}`;

/** A plain page, and all starters by their pictures. */
export function StarterGallery({
  list,
  chosen,
  onChoose,
}: {
  list: readonly Choice[] | null;
  chosen: string | null;
  onChoose: (c: Choice | null) => void;
}) {
  return (
    <div role="radiogroup" aria-label="Begin with" className="grid grid-cols-3 content-start gap-2 overflow-auto pr-1">
      <Tile label="any size" under="Plain page" chosen={chosen === null} onChoose={() => onChoose(null)}>
        <span className="h-[84px] w-[60px] border border-edge bg-white" />
      </Tile>
      {list?.map((c) => (
        <Tile key={c.id} label={c.name} under={c.purpose} chosen={chosen === c.id} onChoose={() => onChoose(c)}>
          {c.picture ? (
            <img
              src={c.picture}
              alt=""
              loading="lazy"
              className={`max-h-[92px] max-w-[116px] border border-edge ${c.round ? 'rounded-full' : ''}`}
            />
          ) : (
            <span className="h-[84px] w-[60px] border border-edge bg-white" />
          )}
        </Tile>
      ))}
      {list === null && <p className="col-span-2 m-0 self-center text-faint">Fetching the starters …</p>}
    </div>
  );
}

function Tile({
  label,
  under,
  chosen,
  onChoose,
  children,
}: {
  label: string;
  under: string;
  chosen: boolean;
  onChoose: () => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      role="radio"
      aria-checked={chosen}
      aria-label={`${under}, ${label}`}
      onClick={onChoose}
      className={`grid cursor-pointer justify-items-center gap-1 rounded-sm border-2 bg-transparent p-1 ${chosen ? 'border-accent' : 'border-transparent hover:border-line'}`}
    >
      <span className="grid h-[104px] w-full place-items-center rounded-sm bg-bench">{children}</span>
      <span className="w-full truncate text-[13px] leading-4">{under}</span>
      <span className="w-full truncate text-[12px] leading-4 text-faint" title={label}>
        {label}
      </span>
    </button>
  );
}
