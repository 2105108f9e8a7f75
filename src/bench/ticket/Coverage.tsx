'use client';
import { useEffect, useMemo, useState } from 'react';
import { Bar, BarChart, Cell, LabelList, XAxis, YAxis } from 'recharts';
import { hexOf } from '@/core/colour/spaces';
import { SOLID_GRAMS } from '@/core/render/pageInk';
import { formatNumber } from '@/core/units/length';
import { WordChoice } from '@/ui/Choice';
import { useBench, useSession } from '../session/context';

/** Points of a square metre. */
const SQUARE_METRE = (1000 * 72) / 25.4;
const SHEETS = 1000;
const per = (share: number): string => `${formatNumber(share * 100, share < 0.0995 ? 1 : 0)} %`;

/** How much of the page, or of all pages, each ink covers, and about what it weighs. */
export function Coverage() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const page = useBench((s) => s.page);
  const [of, setOf] = useState<'page' | 'design'>('page');
  const [known, setKnown] = useState<{ readonly shares: readonly number[]; readonly done: number } | null>(null);
  const [failed, setFailed] = useState(false);
  const pages = useMemo(() => (of === 'page' ? [page] : design.pages.map((p) => p.id)), [of, page, design.pages]);
  useEffect(() => {
    let alive = true;
    void (async () => {
      const sums: number[] = [];
      for (const [i, id] of pages.entries()) {
        const shares = await session.press.coverage(id).catch(() => null);
        if (!alive) return;
        setFailed(!shares);
        if (!shares) return;
        shares.forEach((v, c) => (sums[c] = (sums[c] ?? 0) + v));
        setKnown({ shares: sums.map((v) => v / (i + 1)), done: i + 1 });
      }
    })();
    return () => {
      alive = false;
    };
    // Anew for each state of the design: its plates are others then.
  }, [session, design, pages]);
  const palette = session.palettes.get(design);
  const { width, height } = session.setup;
  const area = (width * height) / SQUARE_METRE ** 2;
  const rows = (known?.shares ?? [])
    .map((share, i) => ({
      ink: palette.channels[i],
      share,
      look: hexOf(palette.lookOfMix(palette.channels.map((_, j) => (i === j ? 1 : 0)))),
      grams: share * SOLID_GRAMS,
    }))
    .filter((r) => r.share > 0.0005);
  const total = rows.reduce((n, r) => n + r.grams, 0);
  return (
    <section aria-label="How much ink" className="grid gap-2">
      <div className="flex items-center justify-between gap-2">
        <h3 className="m-0 font-semibold text-faint">How much ink</h3>
        {design.pages.length > 1 && (
          <div className="w-[170px]">
            <WordChoice
              label="How much ink of"
              value={of}
              options={[
                { value: 'page', label: 'This page' },
                { value: 'design', label: 'All pages' },
              ]}
              onChange={setOf}
            />
          </div>
        )}
      </div>
      {failed ? (
        <p className="m-0 text-warn">It could not be measured just now. Close this and open it again.</p>
      ) : !known ? (
        <p className="m-0 text-faint">Measuring …</p>
      ) : !rows.length ? (
        <p className="m-0">No ink lies here.</p>
      ) : (
        <>
          <BarChart
            layout="vertical"
            width={320}
            height={rows.length * 26 + 8}
            data={rows}
            margin={{ top: 2, right: 44, bottom: 2, left: 0 }}
            accessibilityLayer={false}
            aria-hidden
          >
            <XAxis type="number" domain={[0, 1]} hide />
            <YAxis
              type="category"
              dataKey="ink"
              width={108}
              tickLine={false}
              axisLine={false}
              tick={{ fill: 'var(--text)', fontSize: 12 }}
            />
            <Bar dataKey="share" isAnimationActive={false} barSize={14} background={{ fill: 'var(--line)' }}>
              {rows.map((r) => (
                <Cell key={r.ink} fill={r.look} stroke="var(--edge)" />
              ))}
              <LabelList
                dataKey="share"
                position="right"
                formatter={(v: unknown) => per(Number(v))}
                fill="var(--text)"
                fontSize={12}
              />
            </Bar>
          </BarChart>
          <ul className="sr-only">
            {rows.map((r) => (
              <li key={r.ink}>
                {r.ink} covers {per(r.share)}
              </li>
            ))}
          </ul>
          <p className="m-0 text-[12px] text-faint">
            About {formatNumber(total, 2)} g of ink a square metre,{' '}
            {formatNumber(total * area * SHEETS * (of === 'design' ? design.pages.length : 1), 0)} g for{' '}
            {SHEETS.toLocaleString('en')} {of === 'design' && design.pages.length > 1 ? 'copies' : 'sheets'}: a solid of{' '}
            {SOLID_GRAMS} g/m², as is common in offset.
            {known.done < pages.length && ` ${known.done} of ${pages.length} pages so far.`}
          </p>
        </>
      )}
    </section>
  );
}
