'use client';
import { setGround } from '@/core/edit/masters';
import type { Paint, Pattern } from '@/core/model/schema';
import { Button } from '@/ui/Button';
import { ListChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { useBench, useSession } from '../session/context';
import { PATTERN_BEADS } from '../session/ground';
import { paintName } from '../session/naming';
import { openColourHere } from '../tray/ColourHere';

const WORDS: Readonly<Record<Pattern['kind'], string>> = {
  dots: 'dots',
  stripes: 'stripes',
  checks: 'checks',
  waves: 'waves',
  confetti: 'confetti',
  grid: 'grid',
};
const NONE = '';

/** The pattern over a ground: its kind, how large, how dense, how turned, and in which colours. */
export function PatternFields({ sheet, paint, pattern }: { sheet: string; paint: Paint; pattern: Pattern }) {
  const session = useSession();
  const stop = useBench((s) => s.stop);
  const aim = useBench((s) => s.aim);
  const { unit } = session.design.setup;
  const change = (next: Partial<Pattern>) => (d: Parameters<typeof setGround>[0]) =>
    setGround(d, sheet, paint, { ...pattern, ...next });
  const field = (label: string, key: (v: number) => Partial<Pattern>) => ({
    onPreview: (v: number | null) => session.preview(v === null ? null : change(key(v))),
    onCommit: (v: number) => session.commit(label, change(key(v))),
  });
  return (
    <>
      <ListChoice
        label="Pattern"
        value={pattern.kind}
        groups={[
          {
            name: '',
            options: [
              { value: NONE, label: 'none' },
              ...(Object.keys(WORDS) as Pattern['kind'][]).map((kind) => ({ value: kind, label: WORDS[kind] })),
            ],
          },
        ]}
        onChange={(kind) =>
          session.commit('Pattern', (d) =>
            kind === NONE ? setGround(d, sheet, paint, null) : change({ kind: kind as Pattern['kind'] })(d),
          )
        }
      />
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label="Step"
          name="Step of the pattern"
          unit={unit}
          min={2}
          max={4000}
          value={pattern.size}
          {...field('Step of the pattern', (size) => ({ size }))}
        />
        <NumberField
          label="Covers"
          name="How much the pattern covers"
          suffix="%"
          min={2}
          max={90}
          decimals={0}
          value={pattern.cover * 100}
          {...field('How much the pattern covers', (v) => ({ cover: v / 100 }))}
        />
        <NumberField
          label="Turn"
          name="Turn of the pattern"
          suffix="°"
          min={-360}
          max={360}
          decimals={0}
          value={pattern.angle}
          {...field('Turn the pattern', (angle) => ({ angle }))}
        />
        {pattern.kind === 'confetti' && (
          <Button
            onClick={() =>
              session.commit('Throw the confetti again', change({ seed: ((pattern.seed ?? 0) + 1) % 10_000 }))
            }
          >
            Throw again
          </Button>
        )}
      </div>
      <div role="group" aria-label="Colours of the pattern" className="flex gap-1.5">
        {pattern.paints.map((p, i) => {
          const here = aim === 'ground' && stop === PATTERN_BEADS + i;
          return (
            <button
              key={i}
              type="button"
              aria-pressed={here}
              aria-label={`Colour ${i + 1} of the pattern: ${paintName(session.design, p)}`}
              title={paintName(session.design, p)}
              className={`size-7 cursor-pointer rounded-sm border p-0 ${here ? 'border-2 border-accent' : 'border-edge'}`}
              style={{ background: session.palette.css(p.colour) }}
              onClick={(e) => {
                session.aimAt('ground', PATTERN_BEADS + i);
                openColourHere(session, e);
              }}
            />
          );
        })}
      </div>
    </>
  );
}
