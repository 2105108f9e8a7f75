'use client';
import { useState } from 'react';
import { cleanest, middles, type Middle } from '@/core/colour/clean';
import type { Palette } from '@/core/colour/palette';
import { MIXINGS } from '@/core/colour/mixing';
import type { RampSource } from '@/core/colour/ramp';
import { firmnessOf, hasMiddle, withFirmness } from '@/core/edit/gradient';
import type { Mixing } from '@/core/model/schema';
import { formatNumber } from '@/core/units/length';
import { PlainSlider } from '@/ui/PlainSlider';
import { useBench, useSession } from '../session/context';
import { plainMixing } from '../tools/gradientTarget';
import { rampCss } from './rampLook';

interface Props {
  readonly ramp: RampSource;
  readonly onChange: (ramp: RampSource, label: string) => void;
  readonly onPreview: (ramp: RampSource | null) => void;
}

/** The middle between colours: how firm its edge is, and where it is mixed, every way shown beside the others. */
export function CleanMiddle({ ramp, onChange, onPreview }: Props) {
  const session = useSession();
  const { palette } = session;
  const { stops } = ramp;
  // The ways of mixing are worked out for a ramp that rests: they are dear, and nobody compares them in mid-drag.
  const moving = useBench((s) => s.preview !== null);
  const [rest, setRest] = useState(stops);
  if (!moving && rest !== stops) setRest(stops);
  const list = middlesOf(rest, palette);
  const best = cleanest(list).mixing;
  // A hard edge mixes nothing, so no way of mixing is better than another.
  const mixes = stops.some((_, i) => i + 1 < stops.length && hasMiddle(stops, i));
  const plain = plainMixing(palette);
  const now = ramp.mixing ?? plain;
  const firm = (v: number): RampSource => ({
    stops: withFirmness(stops, v / 100),
    ...(ramp.mixing && { mixing: ramp.mixing }),
  });
  return (
    <div className="grid gap-2" role="group" aria-label="Clean middle">
      <PlainSlider
        label="Firmness of the middle"
        ends={['Soft', 'Firm']}
        min={0}
        max={100}
        step={1}
        value={Math.round(firmnessOf(stops) * 100)}
        says={(v) => (v === 0 ? 'soft all the way' : v === 100 ? 'a hard edge' : `${v} % firm`)}
        onPreview={(v) => onPreview(v === null ? null : firm(v))}
        onCommit={(v) => onChange(firm(v), 'Firmness of the middle')}
      />
      {list.length > 1 ? (
        <div role="radiogroup" aria-label="Mixed in" className="grid gap-1">
          {list.map((m) => (
            <button
              key={m.mixing}
              type="button"
              role="radio"
              aria-checked={now === m.mixing}
              title={`${MIXINGS[m.mixing].word}: ${MIXINGS[m.mixing].says}${mixes && noteOf(m, best) ? ` (${noteOf(m, best)})` : ''}`}
              onClick={() =>
                onChange({ stops, ...(m.mixing !== plain && { mixing: m.mixing }) }, `Mix in ${MIXINGS[m.mixing].word}`)
              }
              className={`grid grid-cols-[54px_1fr_74px] items-center gap-1.5 rounded-sm border p-1 text-left ${now === m.mixing ? 'border-accent font-semibold outline-1 outline-accent' : 'border-line bg-field hover:border-edge'}`}
            >
              <span>{MIXINGS[m.mixing].word}</span>
              <span
                aria-hidden
                className="h-4 rounded-[2px]"
                style={{ background: rampCss(palette, { stops: rest, mixing: m.mixing }) }}
              />
              <span className={`truncate text-[11px] font-normal ${m.beyond > BEYOND ? 'text-warn' : 'text-faint'}`}>
                {mixes ? noteOf(m, best) : ''}
              </span>
            </button>
          ))}
        </div>
      ) : (
        <p className="m-0 text-[12px] text-faint">Spot inks can only be mixed as ink.</p>
      )}
    </div>
  );
}

const known = new WeakMap<Palette, WeakMap<RampSource['stops'], readonly Middle[]>>();
/** Worked out once: who chooses one thing and another comes back to the same ramps. */
function middlesOf(stops: RampSource['stops'], palette: Palette): readonly Middle[] {
  let of = known.get(palette);
  if (!of) known.set(palette, (of = new WeakMap()));
  let list = of.get(stops);
  if (!list) of.set(stops, (list = middles(stops, palette)));
  return list;
}

const BEYOND = 3;
const DULL = 12;

function noteOf(m: Middle, best: Mixing): string {
  if (m.mixing === best) return 'cleanest';
  if (m.beyond > BEYOND) return `off by ${formatNumber(m.beyond, 0)} ΔE`;
  if (m.dull > DULL) return 'muddy';
  if (m.mixing === 'oklch' && m.turn > 100) return 'new colours';
  return 'clean';
}
