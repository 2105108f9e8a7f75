'use client';
import { Popover } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { recolourSwatch, removeSwatch, renameSwatch, setRampStops, swatchUsers } from '@/core/edit/swatches';
import { hexOf, parseHex } from '@/core/colour/spaces';
import { mapTuple } from '@/core/units/tuple';
import type { OwnColour, Stop, Swatch } from '@/core/model/schema';
import { Button } from '@/ui/Button';
import { NumberField } from '@/ui/NumberField';
import { applyColour, count } from '../session/commands';
import { useSession } from '../session/context';
import { RampEditor } from '../details/RampEditor';
import { ListChoice } from '@/ui/Choice';
import { colourName } from '../session/naming';

/** A swatch opened: its name, its numbers, its part strengths. A change reaches all that use it. */
export function RecipeSlip({ swatch, open, onOpenChange, children }: { swatch: Swatch; open: boolean; onOpenChange: (open: boolean) => void; children: ReactNode }) {
  const session = useSession();
  return (
    <Popover.Root open={open} onOpenChange={onOpenChange}>
      <Popover.Trigger asChild>{children}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content side="top" align="start" sideOffset={6} collisionPadding={8} aria-label={`Recipe of ${swatch.name}`} style={{ boxShadow: 'var(--shadow)' }} className="z-40 w-[300px] rounded-sm border border-line bg-panel p-4 outline-none" onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}>
          <div className="grid gap-3">
            <label className="flex items-center gap-1.5">
              <span className="text-faint">Name</span>
              <input
                className="h-7 w-full rounded-sm border border-edge bg-field px-2"
                defaultValue={swatch.name}
                key={swatch.name}
                maxLength={200}
                onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
                onBlur={(e) => {
                  const name = e.currentTarget.value.trim();
                  if (name && name !== swatch.name) session.commit('Rename swatch', (d) => renameSwatch(d, swatch.id, name));
                }}
              />
            </label>
            {swatch.kind === 'colour' ? <ColourFields swatch={swatch} /> : <RampFields swatch={swatch} />}
            <div className="flex items-center justify-between">
              <span className="text-faint">Used in {count(swatchUsers(session.design, swatch.id), 'place')}</span>
              <Button
                onClick={() => {
                  onOpenChange(false);
                  session.commit('Remove swatch', (d) => removeSwatch(d, swatch.id));
                  session.say(`Removed ${swatch.name}; what used it keeps its colour.`);
                }}
              >
                Remove
              </Button>
            </div>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const TINTS = [1, 0.75, 0.5, 0.25, 0.1];

function ColourFields({ swatch }: { swatch: Extract<Swatch, { kind: 'colour' }> }) {
  const session = useSession();
  const { colour } = swatch;
  const change = (next: OwnColour) => session.commit('Change swatch', (d) => recolourSwatch(d, swatch.id, next));
  const show = (next: OwnColour | null) => session.preview(next && ((d) => recolourSwatch(d, swatch.id, next)));
  return (
    <>
      {'cmyk' in colour && (
        <div className="grid grid-cols-2 gap-2">
          {(['Cyan', 'Magenta', 'Yellow', 'Black'] as const).map((ink, i) => {
            const put = (v: number): OwnColour => ({ cmyk: mapTuple(colour.cmyk, (old, j) => (j === i ? v / 100 : old)) });
            return <NumberField key={ink} label={ink} suffix="%" min={0} max={100} decimals={1} value={colour.cmyk[i] * 100} onPreview={(v) => show(v === null ? null : put(v))} onCommit={(v) => change(put(v))} />;
          })}
        </div>
      )}
      {'rgb' in colour && <HexField rgb={colour.rgb} onCommit={(rgb) => change({ rgb })} />}
      {'ink' in colour && (
        <p className="m-0 text-faint">
          Spot ink {session.design.inks.find((i) => i.id === colour.ink)?.name}
          {colour.tint < 1 ? ` at ${Math.round(colour.tint * 100)} %` : ''}. It prints from its own tin, on its own plate.
        </p>
      )}
      <div>
        <div className="mb-1 text-faint">Tints</div>
        <div className="flex gap-1">
          {TINTS.map((t) => (
            <button
              key={t}
              type="button"
              className="h-8 flex-1 rounded-sm border border-edge text-[11px]"
              style={{ background: session.palette.css({ swatch: swatch.id, tint: t }), color: session.palette.labOf({ swatch: swatch.id, tint: t })[0] > 55 ? '#000' : '#fff' }}
              onClick={() => applyColour(session, { swatch: swatch.id, tint: t }, t === 1 ? swatch.name : `${swatch.name} ${t * 100} %`)}
              aria-label={`Apply ${swatch.name} at ${t * 100} %`}
            >
              {t * 100}
            </button>
          ))}
        </div>
      </div>
    </>
  );
}

function HexField({ rgb, onCommit }: { rgb: readonly [number, number, number]; onCommit: (rgb: [number, number, number]) => void }) {
  const [problem, setProblem] = useState(false);
  const hex = hexOf(rgb);
  return (
    <label className="flex items-center gap-1.5">
      <span className="text-faint">Screen colour</span>
      <input
        key={hex}
        className={`h-7 w-full rounded-sm border bg-field px-2 ${problem ? 'border-stop' : 'border-edge'}`}
        defaultValue={hex}
        aria-invalid={problem}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        onBlur={(e) => {
          const parsed = parseHex(e.currentTarget.value);
          setProblem(!parsed);
          if (parsed && hexOf(parsed) !== hex) onCommit([parsed[0], parsed[1], parsed[2]]);
        }}
      />
    </label>
  );
}

function RampFields({ swatch }: { swatch: Extract<Swatch, { kind: 'ramp' }> }) {
  const session = useSession();
  const [chosen, setChosen] = useState<number | null>(null);
  const stop = chosen === null ? undefined : swatch.stops[chosen];
  const colours = session.design.swatches.filter((s) => s.kind === 'colour');
  const change = (stops: readonly Stop[], label: string) => session.commit(label, (d) => setRampStops(d, swatch.id, stops));
  return (
    <>
      <RampEditor stops={swatch.stops} chosen={chosen} onChoose={setChosen} onChange={change} onPreview={(stops) => session.preview(stops && ((d) => setRampStops(d, swatch.id, stops)))} />
      {stop && chosen !== null && (
        <ListChoice
          label="Colour"
          value={'swatch' in stop.colour ? stop.colour.swatch : 'own'}
          groups={[{ name: '', options: [...('swatch' in stop.colour ? [] : [{ value: 'own', label: colourName(session.design, stop.colour) }]), ...colours.map((s) => ({ value: s.id, label: s.name }))] }]}
          onChange={(id) => id !== 'own' && change(swatch.stops.map((s, i) => (i === chosen ? { ...s, colour: { swatch: id, tint: 1 } } : s)), 'Recolour a stop')}
        />
      )}
    </>
  );
}
