'use client';
import { useState } from 'react';
import type { Outline } from '@/core/model/schema';
import { MOST_DASHES } from '@/core/model/paintSchema';
import { formatNumber, fromPoints, toPoints, type Unit } from '@/core/units/length';
import { Check, ListChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { useBench } from '../session/context';
import { DashStrip } from './DashStrip';

type Style = Partial<Omit<Outline, 'paint'>>;
type Kind = 'whole' | 'dashes' | 'dots' | 'pills' | 'own';

/** Lengths in weights of the line, and the caps that make them what they are called. */
const KINDS: Readonly<Record<Exclude<Kind, 'whole' | 'own'>, { lengths: readonly number[]; cap: Outline['cap'] }>> = {
  dashes: { lengths: [3, 2], cap: 'butt' },
  dots: { lengths: [0, 2], cap: 'round' },
  pills: { lengths: [3, 3, 0, 3], cap: 'round' },
};
const NOTHING = '';

const kindOf = ({ dashes, width, cap }: Outline): Kind => {
  if (!dashes) return 'whole';
  const found = Object.entries(KINDS).find(
    ([, k]) =>
      k.cap === cap &&
      k.lengths.length === dashes.length &&
      k.lengths.every((v, i) => Math.abs(v * width - dashes[i]) < 1e-6),
  );
  return (found?.[0] as Kind | undefined) ?? 'own';
};

/** Whole or in dashes; how long they and their gaps are, and what is seen between them. */
export function DashFields({
  outline,
  unit,
  put,
  show,
}: {
  outline: Outline;
  unit: Unit;
  put: (label: string, style: Style) => void;
  show: (style: Style | null) => void;
}) {
  const swatches = useBench((s) => s.design.swatches);
  const kind = kindOf(outline);
  const { between } = outline;
  const of = between && 'swatch' in between.colour ? between.colour.swatch : null;
  return (
    <>
      <div className="col-span-2">
        <ListChoice<Kind>
          label="Line"
          value={kind}
          groups={[
            {
              name: '',
              options: [
                { value: 'whole', label: 'whole' },
                { value: 'dashes', label: 'dashes' },
                { value: 'dots', label: 'dots' },
                { value: 'pills', label: 'pills and dots' },
                ...(kind === 'own' ? [{ value: 'own' as const, label: 'lengths of its own' }] : []),
              ],
            },
          ]}
          onChange={(next) => {
            if (next === 'whole')
              return put('Whole line', {
                dashes: undefined,
                dashOffset: undefined,
                dashFit: undefined,
                between: undefined,
              } as Style);
            if (next === 'own') return;
            const { lengths, cap } = KINDS[next];
            put('Dashes', { dashes: lengths.map((v) => v * outline.width), cap });
          }}
        />
      </div>
      {outline.dashes && (
        <>
          <DashStrip
            dashes={outline.dashes}
            unit={unit}
            round={outline.cap === 'round'}
            onShow={(dashes) => show(dashes && { dashes: [...dashes] })}
            onPut={(dashes) => put('Dashes', { dashes: [...dashes] })}
          />
          <Lengths key={outline.dashes.join(' ')} dashes={outline.dashes} unit={unit} put={put} />
          <div className="col-span-2">
            <Check
              label="Fit to corners and ends"
              checked={outline.dashFit === true}
              onChange={(on) => put('Fit dashes to corners', { dashFit: on || undefined } as Style)}
            />
          </div>
          <NumberField
            label="Begins"
            name="How far into the dashes the line begins"
            unit={unit}
            value={outline.dashOffset ?? 0}
            min={-1000}
            max={1000}
            disabled={outline.dashFit === true}
            onCommit={(v) => put('Beginning of the dashes', { dashOffset: v || undefined } as Style)}
          />
          <div className="col-span-2">
            <ListChoice
              label="Between"
              value={between ? (of ?? 'other') : NOTHING}
              groups={[
                {
                  name: '',
                  options: [
                    { value: NOTHING, label: 'nothing' },
                    ...(between && !of ? [{ value: 'other', label: 'a colour' }] : []),
                    ...swatches.filter((s) => s.kind === 'colour').map((s) => ({ value: s.id, label: s.name })),
                  ],
                },
              ]}
              onChange={(id) => {
                if (id === 'other') return;
                put('Second colour of the line', {
                  between: id ? { kind: 'colour', colour: { swatch: id, tint: 1 }, overprint: false } : undefined,
                } as Style);
              }}
            />
          </div>
        </>
      )}
    </>
  );
}

/** Dash, gap, dash, gap …, typed in a row. */
function Lengths({
  dashes,
  unit,
  put,
}: {
  dashes: readonly number[];
  unit: Unit;
  put: (label: string, style: Style) => void;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const said = dashes.map((v) => formatNumber(fromPoints(v, unit), 3)).join(' ');
  const take = (text: string) => {
    // What was not touched keeps its exact lengths.
    if (text === said) return setProblem(null);
    const typed = text
      .trim()
      .split(/[\s;]+/)
      .map((t) => Number(t.replace(',', '.')));
    const all = typed.length % 2 ? [...typed, ...typed] : typed;
    if (!text.trim() || all.some((v) => !(v >= 0)))
      return setProblem('Type lengths with a blank between: dash, gap, dash, gap.');
    if (all.length > MOST_DASHES) return setProblem(`No more than ${MOST_DASHES} lengths.`);
    if (!all.some((v) => v > 0)) return setProblem('One of the lengths must be more than 0.');
    setProblem(null);
    put('Dashes', { dashes: all.map((v) => toPoints(v, unit)) });
  };
  return (
    <label className="col-span-2 grid gap-1">
      <span className="flex items-center gap-1.5">
        <span className="shrink-0 text-faint">Dash and gap</span>
        <input
          className={`h-7 w-full min-w-0 rounded-sm border bg-field px-2 ${problem ? 'border-stop' : 'border-edge'}`}
          aria-label={`Dash and gap, in turn, ${unit}`}
          aria-invalid={problem !== null}
          defaultValue={said}
          onKeyDown={(e) => {
            e.stopPropagation();
            if (e.key === 'Enter') take(e.currentTarget.value);
          }}
          onBlur={(e) => take(e.currentTarget.value)}
        />
        <span className="text-faint">{unit}</span>
      </span>
      {problem && (
        <span role="alert" className="text-[12px] text-stop">
          {problem}
        </span>
      )}
    </label>
  );
}
