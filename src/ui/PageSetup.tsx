'use client';
import { resized, setupOf } from '@/core/model/defaults';
import { MAX_PAGE, type Setup } from '@/core/model/schema';
import { FORMATS, formatOf, type Format } from '@/core/units/formats';
import { UNIT_NAMES, fromPoints, mm, toPoints, type Unit } from '@/core/units/length';
import { Check, ListChoice, WordChoice } from './Choice';
import { NumberField } from './NumberField';

const FAMILIES = [...new Set(FORMATS.map((f) => f.family))];
const OWN = 'own';
/** Line to line of a new baseline grid, points: that of text of 10 (common practice). */
const FIRST_STEP = 12;

const sizeText = (f: Format) => `${f.name} · ${f.width} × ${f.height} ${f.unit}`;

/** A setup in this format, as a fresh design would have it. */
export function setupForFormat(f: Format, landscape: boolean): Setup {
  const [w, h] = [toPoints(f.width, f.unit), toPoints(f.height, f.unit)];
  const screen = f.unit === 'px';
  return setupOf(landscape ? h : w, landscape ? w : h, {
    unit: f.unit === 'in' ? 'in' : screen ? 'px' : 'mm',
    round: f.shape === 'round',
    medium: screen ? 'screen' : 'print',
    ...(screen ? { bleed: 0, margins: { top: 0, right: 0, bottom: 0, left: 0 } } : {}),
  });
}

/**
 * Format, size, turn, bleed, margins, columns and baseline grid; the same in the new-design sheet and in the Format
 * slip. `of`: what of it can be set: a page has no unit, medium and bleed of its own, a master no format either.
 */
export function PageSetup({
  setup,
  of = 'design',
  onChange,
}: {
  setup: Setup;
  of?: 'design' | 'master' | 'page';
  onChange: (next: Setup) => void;
}) {
  const format = formatOf(setup.width, setup.height, setup.round);
  const landscape = setup.width > setup.height;
  const { unit, margins, columns } = setup;
  const change = (part: Partial<Setup>) => onChange({ ...setup, ...part });
  const page = { min: 1, max: MAX_PAGE, unit };
  const small = { min: 0, max: Math.min(setup.width, setup.height) / 2, unit };
  const pick = (name: string) => {
    const f = FORMATS.find((x) => x.name === name);
    if (!f) return;
    const fresh = setupForFormat(f, landscape && f.width !== f.height);
    onChange(
      setup.medium === fresh.medium
        ? { ...resized(setup, fresh.width, fresh.height), round: fresh.round, unit: fresh.unit }
        : fresh,
    );
  };
  return (
    <div className="grid gap-3">
      {of !== 'master' && (
        <>
          <ListChoice
            label="Format"
            value={format?.name ?? OWN}
            groups={[
              { name: '', options: [{ value: OWN, label: 'Own size' }] },
              ...FAMILIES.map((name) => ({
                name,
                options: FORMATS.filter((f) => f.family === name).map((f) => ({ value: f.name, label: sizeText(f) })),
              })),
            ]}
            onChange={pick}
          />
          <div className="grid grid-cols-[1fr_1fr_84px] gap-2">
            <NumberField
              label="W"
              name="Width"
              {...page}
              value={setup.width}
              onCommit={(width) => onChange(resized(setup, width, setup.round ? width : setup.height))}
            />
            <NumberField
              label="H"
              name="Height"
              {...page}
              value={setup.height}
              onCommit={(height) => onChange(resized(setup, setup.round ? height : setup.width, height))}
            />
            <ListChoice
              hideLabel
              disabled={of !== 'design'}
              label="Unit"
              value={unit}
              groups={[{ name: '', options: UNIT_NAMES.map((u) => ({ value: u, label: u })) }]}
              onChange={(u: Unit) => change({ unit: u })}
            />
          </div>
          <WordChoice
            label="Turn"
            value={setup.width === setup.height ? null : landscape ? 'landscape' : 'portrait'}
            disabled={setup.width === setup.height}
            options={[
              { value: 'portrait', label: 'Portrait' },
              { value: 'landscape', label: 'Landscape' },
            ]}
            onChange={(turn) => {
              if ((turn === 'landscape') !== landscape) change({ width: setup.height, height: setup.width });
            }}
          />
        </>
      )}
      {of === 'design' && (
        <div className="grid grid-cols-2 gap-2">
          <WordChoice
            label="Made for"
            value={setup.medium}
            options={[
              { value: 'print', label: 'Print' },
              { value: 'screen', label: 'Screen' },
            ]}
            onChange={(medium) => change({ medium, bleed: medium === 'screen' ? 0 : setup.bleed || mm(3) })}
          />
          <NumberField label="Bleed" {...small} value={setup.bleed} onCommit={(bleed) => change({ bleed })} />
        </div>
      )}
      <fieldset className="m-0 grid grid-cols-2 gap-2 border-0 p-0">
        <legend className="mb-1 p-0 text-faint">Margins</legend>
        {(['top', 'right', 'bottom', 'left'] as const).map((side) => (
          <NumberField
            key={side}
            label={side[0].toUpperCase() + side.slice(1)}
            name={`Margin ${side}`}
            {...small}
            value={margins[side]}
            onCommit={(v) => change({ margins: { ...margins, [side]: v } })}
          />
        ))}
      </fieldset>
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label="Columns"
          value={columns.count}
          min={1}
          max={40}
          decimals={0}
          onCommit={(v) => change({ columns: { ...columns, count: Math.round(v) } })}
        />
        <NumberField
          label="Gutter"
          {...small}
          value={columns.gutter}
          onCommit={(gutter) => change({ columns: { ...columns, gutter } })}
        />
      </div>
      <div className="grid grid-cols-[1fr_1fr_1fr] items-end gap-2">
        <Check
          label="Baseline grid"
          checked={setup.baseline !== undefined}
          onChange={(on) => {
            const { baseline: _, ...rest } = setup;
            onChange(on ? { ...rest, baseline: { start: margins.top, step: FIRST_STEP } } : rest);
          }}
        />
        {setup.baseline && (
          <>
            <NumberField
              label="From"
              name="Baseline grid from the head"
              {...small}
              value={setup.baseline.start}
              onCommit={(start) => change({ baseline: { ...setup.baseline!, start } })}
            />
            <NumberField
              label="Every"
              name="Line to line of the baseline grid"
              min={2}
              max={MAX_PAGE}
              unit="pt"
              value={setup.baseline.step}
              onCommit={(step) => change({ baseline: { ...setup.baseline!, step } })}
            />
          </>
        )}
      </div>
      {columns.count > 1 &&
        fromPoints(setup.width - margins.left - margins.right - columns.gutter * (columns.count - 1), unit) <= 0 && (
          <p role="alert" className="m-0 text-warn">
            The columns do not fit between the margins. Use fewer columns or a smaller gutter.
          </p>
        )}
    </div>
  );
}
