'use client';
import { Popover } from 'radix-ui';
import { setStopOpacity } from '@/core/edit/gradient';
import { stopsOf } from '@/core/edit/paint';
import { changePool } from '@/core/edit/pools';
import { swatchUsers } from '@/core/edit/swatches';
import type { Colour, OwnColour } from '@/core/model/schema';
import { Button } from '@/ui/Button';
import { NumberField } from '@/ui/NumberField';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { colourName } from '../session/naming';
import { calmDesign } from '../session/state';
import { withBeadColour } from '../tools/beadColour';
import { aimedGradient, aimedPools, withStops } from '../tools/gradientTarget';
import { withPools } from '../tools/pools';
import { ColourFields, ColourNumbers } from '../tray/recipe/ColourFields';
import { SpotFields } from '../tray/RecipeSlip';

/** The recipe of the chosen stop or pool, beside its bead on the object. */
export function StopSlip() {
  const session = useSession();
  const at = useBench((s) => s.stopSlip);
  const close = () => session.set({ stopSlip: null });
  return (
    <Popover.Root open={at !== null} onOpenChange={(open) => !open && close()}>
      <Popover.Anchor asChild>
        <span
          aria-hidden
          className="pointer-events-none absolute size-px"
          style={{ left: at?.x ?? 0, top: at?.y ?? 0 }}
        />
      </Popover.Anchor>
      <Popover.Portal>
        <Popover.Content
          side="right"
          sideOffset={18}
          collisionPadding={8}
          aria-label="Recipe of the stop"
          style={{ boxShadow: 'var(--shadow)' }}
          className="z-40 max-h-[calc(100dvh-80px)] w-[420px] overflow-auto rounded-sm border border-line bg-panel p-4 outline-none"
          onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
        >
          <Stop />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

interface Bead {
  readonly what: 'Stop' | 'Pool';
  readonly of: number;
  readonly colour: Colour;
  readonly opacity: number;
}

function Stop() {
  const session = useSession();
  const design = useBench(calmDesign);
  const index = useBench((s) => s.stop);
  if (index === null) return null;
  const target = aimedGradient(session);
  const pools = aimedPools(session);
  const stops = target ? stopsOf(design, target.paint) : [];
  const pool = pools?.paint.pools[index];
  const bead: Bead | null = stops[index]
    ? { what: 'Stop', of: stops.length, colour: stops[index].colour, opacity: stops[index].opacity ?? 1 }
    : pool
      ? { what: 'Pool', of: pools.paint.pools.length, colour: pool.colour, opacity: pool.opacity ?? 1 }
      : null;
  if (!bead) return null;
  const { colour } = bead;
  const recipe = (next: Colour) => withBeadColour(session, index, next)!.recipe;
  const opacity = (v: number) =>
    target
      ? withStops(session, target, setStopOpacity(stops, index, v / 100))
      : withPools(pools!, (p) => changePool(p, index, { opacity: v / 100 }));
  const swatch = 'swatch' in colour ? design.swatches.find((s) => s.id === colour.swatch) : undefined;
  const own = 'swatch' in colour || 'ink' in colour ? null : colour;
  return (
    <div className="grid gap-3">
      <h2 className="m-0 text-[15px] font-semibold">
        {bead.what} {index + 1} of {bead.of}: {colourName(design, colour)}
      </h2>
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label="Opacity"
          name={`Opacity of the ${bead.what.toLowerCase()} here`}
          suffix="%"
          min={0}
          max={100}
          decimals={0}
          value={bead.opacity * 100}
          onPreview={(v) => session.preview(v === null ? null : opacity(v))}
          onCommit={(v) => session.commit(`Opacity of a ${bead.what.toLowerCase()}`, opacity(v))}
        />
        {own === null && (
          <NumberField
            label="Tint"
            name="Tint here"
            suffix="%"
            min={0}
            max={100}
            decimals={0}
            value={('tint' in colour ? colour.tint : 1) * 100}
            onPreview={(v) => session.preview(v === null ? null : recipe({ ...colour, tint: v / 100 } as Colour))}
            onCommit={(v) => session.commit('Tint of a stop', recipe({ ...colour, tint: v / 100 } as Colour))}
          />
        )}
      </div>
      {own && (
        <ColourNumbers
          key={index}
          colour={own}
          onChange={(next: OwnColour, part) =>
            session.commit(`Recolour a ${bead.what.toLowerCase()}`, recipe(next), { merge: `bead ${index} ${part}` })
          }
          onPreview={(next) => session.preview(next && recipe(next))}
        />
      )}
      {swatch?.kind === 'colour' && (
        <div className="grid gap-2 border-t border-line pt-3">
          <div className="flex items-center gap-2">
            <p className="m-0 min-w-0 flex-1 text-faint">
              The swatch {swatch.name}: a change reaches {count(swatchUsers(design, swatch.id), 'place')}.
            </p>
            {!('ink' in swatch.colour) && (
              <Button onClick={() => session.commit('A colour of its own', recipe(swatch.colour))}>Only here</Button>
            )}
          </div>
          {'ink' in swatch.colour ? <SpotFields swatch={swatch} /> : <ColourFields swatch={swatch} />}
        </div>
      )}
    </div>
  );
}
