'use client';
import { Popover } from 'radix-ui';
import { memo, useId, useState, type ReactNode } from 'react';
import {
  groupSwatches,
  makeProcess,
  makeSpot,
  recolourSwatch,
  removeSwatch,
  renameSwatch,
  replaceSwatch,
  setRamp,
  setStandIn,
  shaded,
  swatchUsers,
} from '@/core/edit/swatches';
import { tinted } from '@/core/colour/tints';
import { lettersOn } from '@/core/colour/models';
import { hexOf } from '@/core/colour/spaces';
import type { RampSource } from '@/core/colour/ramp';
import type { Cmyk, OwnColour, Swatch } from '@/core/model/schema';
import { formatNumber } from '@/core/units/length';
import { mapTuple } from '@/core/units/tuple';
import { Button } from '@/ui/Button';
import { ListChoice, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { CleanMiddle } from '../ramps/CleanMiddle';
import { RampEditor } from '../ramps/RampEditor';
import { applyColour } from '../tools/colouring';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { calmDesign } from '../session/state';
import { mixingFor } from '../tools/gradientTarget';
import { ColourFields } from './recipe/ColourFields';

/**
 * A swatch opened: its name and kind, its numbers in any model, its tints and shades, who uses it. A change reaches all
 * users.
 */
export function RecipeSlip({
  swatch,
  open,
  onOpenChange,
  children,
}: {
  swatch: Swatch;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  children: ReactNode;
}) {
  return (
    <Popover.Root open={open} onOpenChange={onOpenChange}>
      <Popover.Trigger asChild>{children}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="start"
          sideOffset={6}
          collisionPadding={8}
          aria-label={`Recipe of ${swatch.name}`}
          style={{ boxShadow: 'var(--shadow)' }}
          className="z-40 max-h-[calc(100dvh-80px)] w-[420px] overflow-auto rounded-sm border border-line bg-panel p-4 outline-none"
          onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
        >
          <Recipe id={swatch.id} onDone={() => onOpenChange(false)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Recipe({ id, onDone }: { id: string; onDone: () => void }) {
  const session = useSession();
  // Users, inks and paper are of the whole design; while something is tried out, of what is shown.
  const swatch = useBench(calmDesign).swatches.find((s) => s.id === id);
  if (!swatch) return null;
  const spot = swatch.kind === 'colour' && 'ink' in swatch.colour;
  const toKind = (kind: 'process' | 'spot') => {
    if (swatch.kind !== 'colour') return;
    const { colour } = swatch;
    if (kind === 'process') {
      session.commit('Make it process', (d) => makeProcess(d, swatch.id));
      session.say(`${swatch.name} prints from cyan, magenta, yellow and black now.`);
    } else if (!('ink' in colour)) {
      const { palette } = session;
      const ink = { lab: palette.wantedLab(colour), alternate: palette.processOf(colour) };
      session.commit('Make it a spot ink', (d) =>
        makeSpot(
          d,
          swatch.id,
          {
            lab: mapTuple(ink.lab, (v) => Math.min(100, v)),
            alternate: mapTuple(ink.alternate, (v) => Math.round(v * 100) / 100),
          },
          session.newId,
        ),
      );
      session.say(`${swatch.name} is an ink of its own now, with a plate of its own.`);
    }
  };
  return (
    <div className="grid gap-3">
      <div className="flex gap-2">
        <NameField id={swatch.id} name={swatch.name} />
        {swatch.kind === 'colour' && !session.palette.screen && (
          <div className="w-[150px] shrink-0">
            <WordChoice
              label="Kind of ink"
              value={spot ? 'spot' : 'process'}
              options={[
                { value: 'process', label: 'Process' },
                { value: 'spot', label: 'Spot' },
              ]}
              onChange={toKind}
            />
          </div>
        )}
      </div>
      {swatch.kind === 'ramp' ? (
        <RampFields swatch={swatch} />
      ) : spot ? (
        <SpotFields swatch={swatch} />
      ) : (
        <ColourFields swatch={swatch} />
      )}
      {swatch.kind === 'colour' && <PartStrengths swatch={swatch} colour={swatch.colour} />}
      <Users id={swatch.id} onDone={onDone} />
    </div>
  );
}

const NameField = memo(function NameField({ id, name: was }: { id: string; name: string }) {
  const session = useSession();
  return (
    <label className="flex min-w-0 flex-1 items-center gap-1.5">
      <span className="text-faint">Name</span>
      <input
        className="h-7 w-full min-w-0 rounded-sm border border-edge bg-field px-2"
        defaultValue={was}
        key={was}
        maxLength={200}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        onBlur={(e) => {
          const name = e.currentTarget.value.trim();
          if (name && name !== was) session.commit('Rename swatch', (d) => renameSwatch(d, id, name));
        }}
      />
    </label>
  );
});

/** A tin: how strong, and what stands in for it. */
export function SpotFields({ swatch }: { swatch: Extract<Swatch, { kind: 'colour' }> }) {
  const session = useSession();
  const { colour } = swatch;
  if (!('ink' in colour)) return null;
  const ink = session.design.inks.find((i) => i.id === colour.ink);
  if (!ink) return null;
  const off = session.palette.standInDistance(ink);
  const setTint = (v: number) => (d: Parameters<typeof recolourSwatch>[0]) =>
    recolourSwatch(d, swatch.id, { ink: ink.id, tint: v / 100 });
  const alternate = (i: number, v: number): Cmyk => mapTuple(ink.alternate, (old, j) => (j === i ? v / 100 : old));
  return (
    <>
      <div className="flex items-center gap-3">
        <span aria-hidden className="flex h-12 w-24 shrink-0 overflow-hidden rounded-sm border border-edge">
          <span className="flex-1" style={{ background: hexOf(session.palette.lookOfInk(ink)) }} />
          <span className="flex-1" style={{ background: session.palette.css({ cmyk: ink.alternate }) }} />
        </span>
        <p className="m-0 text-faint">
          {ink.name}, Lab {ink.lab.map((v) => formatNumber(v, 0)).join(' ')}.{' '}
          {ink.asStandIn ? 'It prints from its stand-in.' : 'It prints from its own tin, on its own plate.'} Stand-in
          and ink are ΔE00 {formatNumber(off, 1)} apart on this paper.
        </p>
      </div>
      <div className="grid grid-cols-[1.2fr_1fr_1fr_1fr_1fr] gap-1.5">
        <NumberField
          label="Tint"
          suffix="%"
          min={0}
          max={100}
          decimals={0}
          value={colour.tint * 100}
          onPreview={(v) => session.preview(v === null ? null : setTint(v))}
          onCommit={(v) => session.commit('Tint of the swatch', setTint(v))}
        />
        {(['C', 'M', 'Y', 'K'] as const).map((letter, i) => (
          <NumberField
            key={letter}
            label={letter}
            name={`Stand-in ${['cyan', 'magenta', 'yellow', 'black'][i]}`}
            min={0}
            max={100}
            decimals={0}
            value={ink.alternate[i] * 100}
            onPreview={(v) => session.preview(v === null ? null : (d) => setStandIn(d, ink.id, alternate(i, v)))}
            onCommit={(v) => session.commit('Stand-in recipe', (d) => setStandIn(d, ink.id, alternate(i, v)))}
          />
        ))}
      </div>
    </>
  );
}

const TINTS = [1, 0.75, 0.5, 0.25, 0.1];
const SHADES = [0.2, 0.4, 0.6];

/** Tints and shades in a row: a click sends one where the aim points. */
function PartStrengths({ swatch, colour }: { swatch: Swatch; colour: OwnColour }) {
  const session = useSession();
  const { palette } = session;
  const row = [
    ...SHADES.map((s) => ({
      key: `shade ${s}`,
      label: `+${s * 100}`,
      says: `${s * 100} % darker`,
      colour: shaded(colour, s),
    })).reverse(),
    ...TINTS.map((t) => ({
      key: `tint ${t}`,
      label: String(t * 100),
      says: `at ${t * 100} %`,
      colour: { swatch: swatch.id, tint: t },
    })),
  ];
  return (
    <div>
      <div className="mb-1 flex text-[12px] text-faint">
        <span>Shades and tints: click to apply</span>
      </div>
      <div className="flex gap-1">
        {row.map(
          (p) =>
            p.colour && (
              <button
                key={p.key}
                type="button"
                className="h-8 flex-1 rounded-sm border border-edge px-0 text-[11px]"
                style={{
                  background: palette.css(p.colour),
                  color: lettersOn(palette.lookOfMix(palette.mix(p.colour))),
                }}
                onClick={() =>
                  applyColour(session, p.colour!, p.says === 'at 100 %' ? swatch.name : `${swatch.name} ${p.says}`)
                }
                onContextMenu={(e) => e.preventDefault()}
                aria-label={`Apply ${swatch.name} ${p.says}`}
                title={`${swatch.name} ${p.says}`}
              >
                {p.label}
              </button>
            ),
        )}
        <Button
          title="Put tints 75, 50 and 25 % into the tray"
          onClick={() => {
            session.commit(`Tints of ${swatch.name}`, (d) => {
              for (const t of [0.75, 0.5, 0.25])
                d.swatches.push({
                  id: session.newId(),
                  name: `${swatch.name} ${t * 100} %`,
                  kind: 'colour',
                  colour: structuredClone(tinted(colour, t)) as never,
                  ...(swatch.group && { group: swatch.group }),
                });
            });
            session.say(`Added three tints of ${swatch.name}.`);
          }}
        >
          Keep
        </Button>
      </div>
    </div>
  );
}

/** Who uses it, and where it lies: of what is kept, so that it is left alone while a slider moves. */
const Users = memo(function Users({ id, onDone }: { id: string; onDone: () => void }) {
  const session = useSession();
  const list = useId();
  const design = useBench((s) => s.design);
  const swatch = design.swatches.find((s) => s.id === id);
  if (!swatch) return null;
  const users = swatchUsers(design, id);
  const groups = [...new Set(design.swatches.flatMap((s) => (s.group ? [s.group] : [])))];
  const others = design.swatches.filter((s) => s.kind === swatch.kind && s.id !== swatch.id);
  return (
    <div className="grid gap-2 border-t border-line pt-3">
      <div className="flex gap-2">
        <label className="flex min-w-0 flex-1 items-center gap-1.5">
          <span className="text-faint">Group</span>
          <input
            className="h-7 w-full min-w-0 rounded-sm border border-edge bg-field px-2"
            key={swatch.group ?? ''}
            defaultValue={swatch.group ?? ''}
            placeholder="none"
            maxLength={80}
            list={list}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
            onBlur={(e) => {
              const name = e.currentTarget.value.trim();
              if (name !== (swatch.group ?? ''))
                session.commit('Group of the swatch', (d) => groupSwatches(d, [swatch.id], name || null));
            }}
          />
          <datalist id={list}>
            {groups.map((g) => (
              <option key={g} value={g} />
            ))}
          </datalist>
        </label>
        {others.length > 0 && (
          <div className="min-w-0 flex-1">
            <ListChoice
              label="Replace by"
              value=""
              groups={[
                {
                  name: '',
                  options: [{ value: '', label: 'choose …' }, ...others.map((s) => ({ value: s.id, label: s.name }))],
                },
              ]}
              onChange={(to) => {
                const by = others.find((s) => s.id === to);
                if (!by) return;
                onDone();
                session.commit(`Replace ${swatch.name} by ${by.name}`, (d) => void replaceSwatch(d, swatch.id, by.id));
                session.say(`${by.name} took the place of ${swatch.name} in ${count(users, 'place')}.`);
              }}
            />
          </div>
        )}
      </div>
      <div className="flex items-center justify-between">
        <span className="text-faint">Used in {count(users, 'place')}</span>
        <Button
          onClick={() => {
            onDone();
            session.commit('Remove swatch', (d) => removeSwatch(d, swatch.id));
            session.say(`Removed ${swatch.name}; what used it keeps its colour.`);
          }}
        >
          Remove
        </Button>
      </div>
    </div>
  );
});

function RampFields({ swatch }: { swatch: Extract<Swatch, { kind: 'ramp' }> }) {
  const session = useSession();
  const [chosen, setChosen] = useState<number | null>(swatch.stops.length - 1);
  const stop = chosen === null ? undefined : swatch.stops[chosen];
  const colours = session.design.swatches.filter((s) => s.kind === 'colour');
  const change = (ramp: RampSource, label: string) => session.commit(label, (d) => setRamp(d, swatch.id, ramp));
  return (
    <>
      <RampEditor
        ramp={swatch}
        chosen={chosen}
        onChoose={setChosen}
        onChange={(stops, label) => change({ stops, mixing: mixingFor(session.palette, swatch, stops) }, label)}
        onPreview={(stops) =>
          session.preview(stops && ((d) => setRamp(d, swatch.id, { stops, mixing: swatch.mixing })))
        }
      />
      <CleanMiddle
        ramp={swatch}
        onChange={change}
        onPreview={(ramp) => session.preview(ramp && ((d) => setRamp(d, swatch.id, ramp)))}
      />
      {stop && chosen !== null && (
        <div role="group" aria-label={`Colour of stop ${chosen + 1}`} className="flex flex-wrap gap-1">
          {colours.map((c) => (
            <button
              key={c.id}
              type="button"
              aria-label={`Stop ${chosen + 1}: ${c.name}`}
              aria-pressed={'swatch' in stop.colour && stop.colour.swatch === c.id}
              title={c.name}
              className="size-7 cursor-pointer rounded-sm border border-edge p-0 hover:border-accent aria-pressed:outline-2 aria-pressed:outline-accent"
              style={{ background: session.palette.css({ swatch: c.id, tint: 1 }) }}
              onClick={() => {
                const stops = swatch.stops.map((x, i) =>
                  i === chosen ? { ...x, colour: { swatch: c.id, tint: 1 } } : x,
                );
                change({ stops, mixing: mixingFor(session.palette, swatch, stops) }, 'Recolour a stop');
              }}
            />
          ))}
        </div>
      )}
    </>
  );
}
