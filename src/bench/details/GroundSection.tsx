'use client';
import { useState } from 'react';
import { firstGradient, gradientAngle, stopsFrom, withAngle } from '@/core/edit/gradient';
import { setGround } from '@/core/edit/masters';
import { rampOf, stopsOf } from '@/core/edit/paint';
import { firstPools, stopsOfPools } from '@/core/edit/pools';
import { BLACK, colourPaint } from '@/core/model/defaults';
import type { GradientPaint, Paint, Stop } from '@/core/model/schema';
import { groundOf, isMaster, mastersOf } from '@/core/model/tree';
import { ListChoice, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Button } from '@/ui/Button';
import { Section } from '@/ui/Section';
import { Slip } from '@/ui/Slip';
import { RampEditor } from '../ramps/RampEditor';
import { useBench, usePlacedDesign, useSession } from '../session/context';
import { comesLater } from '../session/comesLater';
import { groundSheet, shownGround } from '../session/ground';
import { paintName } from '../session/naming';
import { GroundSet } from './GroundSet';
import { PatternFields } from './PatternFields';
import { openColourHere } from '../tray/ColourHere';

const GroundPicture = comesLater(() => import('./GroundPicture').then((m) => m.GroundPicture));

type Kind = 'follow' | 'none' | 'colour' | 'linear' | 'radial' | 'pools' | 'picture';
/** The space of a ground: the page with its bleed as a unit square. */
const UNIT = { x0: 0, y0: 0, x1: 1, y1: 1 };

/**
 * The ground of the page: what lies below everything, always to the bleed; of this page alone, or of a master that is
 * named.
 */
export function GroundSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const aim = useBench((s) => s.aim);
  const stop = useBench((s) => s.stop);
  useBench((s) => s.page);
  useBench((s) => s.groundOn);
  const { page } = session;
  const sheet = groundSheet(session);
  const paint = shownGround(session);
  const masters = mastersOf(design, page);
  const from = groundOf(design, sheet)?.of;
  const follows = sheet.ground === undefined;
  const kind: Kind =
    follows && masters.length && sheet === page
      ? 'follow'
      : paint.kind === 'gradient'
        ? paint.gradient === 'radial'
          ? 'radial'
          : 'linear'
        : paint.kind === 'pools' || paint.kind === 'none' || paint.kind === 'picture'
          ? paint.kind
          : 'colour';
  const pattern = groundOf(design, sheet)?.pattern ?? null;
  const [choosing, setChoosing] = useState(false);
  const put = (label: string, ground: Paint | null) => session.commit(label, (d) => setGround(d, sheet.id, ground));
  const preview = (ground: Paint | null) => session.preview(ground && ((d) => setGround(d, sheet.id, ground)));

  const become = (next: Kind) => {
    session.aimAt('ground');
    if (next === 'follow') return put('Ground as on the master', null);
    if (next === 'none') return put('No ground', { kind: 'none' });
    // A picture is chosen first.
    if (next === 'picture') return session.set({ pictureChooser: true });
    const fallback = session.palette.screen ? ({ rgb: [0, 0, 0] } as const) : BLACK;
    const first = design.swatches.find(
      (w) => w.kind === 'colour' && session.palette.mix({ swatch: w.id, tint: 1 }).some((v) => v > 0),
    );
    const had = paint.kind === 'gradient' ? stopsOf(design, paint) : stopsOfPools(paint);
    const start: Paint = paint.kind === 'none' && first ? colourPaint({ swatch: first.id, tint: 1 }) : paint;
    if (next === 'colour')
      return put(
        'Flat ground',
        had ? colourPaint(had[0].colour) : start.kind === 'colour' ? start : colourPaint(fallback),
      );
    const stops = had ?? stopsFrom(start, fallback);
    if (next === 'pools')
      return put('Ground of pools', paint.kind === 'pools' ? paint : firstPools(UNIT, stops, false));
    const made = firstGradient(next, UNIT, stops, false);
    // From head to foot: as a sky is.
    put(`${next === 'linear' ? 'Linear' : 'Radial'} ground`, next === 'linear' ? withAngle(made, 90) : made);
  };
  const gradient = paint.kind === 'gradient' ? paint : null;
  return (
    <Section
      title="Ground"
      action={
        aim === 'ground' ? (
          <span className="text-[12px] text-accent">aimed at</span>
        ) : (
          <button
            type="button"
            className="cursor-pointer border-0 bg-transparent p-0 text-[12px] key-line"
            onClick={() => session.aimAt('ground')}
          >
            Aim here
          </button>
        )
      }
    >
      <div className="grid gap-2">
        {masters.length > 0 && (
          <ListChoice
            label="Of"
            value={sheet.id}
            groups={[
              {
                name: '',
                options: [
                  { value: page.id, label: isMaster(design, page.id) ? 'this master' : 'this page only' },
                  ...masters.map((m) => ({ value: m.id, label: `every page of ${m.name || 'its master'}` })),
                ],
              },
            ]}
            onChange={(groundOn) => session.set({ groundOn })}
          />
        )}
        <WordChoice
          label="Ground kind"
          tight
          value={kind}
          options={[
            ...(masters.length && sheet === page ? [{ value: 'follow' as const, label: 'Master’s' }] : []),
            { value: 'none', label: 'None' },
            { value: 'colour', label: 'Flat' },
            { value: 'picture', label: 'Picture' },
          ]}
          onChange={become}
        />
        <WordChoice<Kind>
          label="Ground kind, several colours"
          tight
          value={kind}
          options={[
            { value: 'linear', label: 'Linear' },
            { value: 'radial', label: 'Radial' },
            { value: 'pools', label: 'Pools' },
          ]}
          onChange={become}
        />
        {kind === 'follow' && (
          <p className="m-0 text-faint">
            {from ? `${paintName(design, paint)}, as on ${from.name || 'the master'}.` : 'The master has none.'}
          </p>
        )}
        {paint.kind === 'picture' && kind !== 'follow' && <GroundPicture sheet={sheet.id} paint={paint} />}
        {kind === 'colour' && paint.kind === 'colour' && (
          <div className="flex items-center gap-2">
            <button
              type="button"
              aria-label="Change the colour of the ground"
              title="Change it by eye"
              className="size-6 shrink-0 cursor-pointer rounded-sm border border-edge p-0 hover:border-accent"
              style={{ background: session.palette.css(paint.colour) }}
              onClick={(e) => {
                session.aimAt('ground');
                openColourHere(session, e);
              }}
            />
            <span className="truncate">{paintName(design, paint)}</span>
          </div>
        )}
        <Slip
          title="Grounds"
          width={448}
          side="top"
          open={choosing}
          onOpenChange={(on) => {
            setChoosing(on);
            if (!on) session.preview(null);
          }}
          trigger={<Button>Choose a ground</Button>}
        >
          <GroundSet sheet={sheet.id} onDone={() => setChoosing(false)} />
        </Slip>
        {pattern && kind !== 'follow' && <PatternFields sheet={sheet.id} paint={paint} pattern={pattern} />}
        {gradient && kind !== 'follow' && (
          <GroundRamp
            paint={gradient}
            chosen={aim === 'ground' ? stop : null}
            put={put}
            preview={preview}
            onChoose={(i) => session.aimAt('ground', i)}
          />
        )}
      </div>
    </Section>
  );
}

/** The stops of a ground, and for a linear one its direction. */
function GroundRamp({
  paint,
  chosen,
  put,
  preview,
  onChoose,
}: {
  paint: GradientPaint;
  chosen: number | null;
  put: (label: string, p: Paint) => void;
  preview: (p: Paint | null) => void;
  onChoose: (i: number | null) => void;
}) {
  const session = useSession();
  const ramp = rampOf(session.design, paint);
  const withStops = (stops: readonly Stop[]): Paint => ({
    ...paint,
    ramp: { stops, ...(ramp.mixing && { mixing: ramp.mixing }) },
  });
  return (
    <>
      <RampEditor
        ramp={ramp}
        chosen={chosen}
        onChoose={onChoose}
        onChange={(stops, label) => put(label, withStops(stops))}
        onPreview={(stops) => preview(stops && withStops(stops))}
      />
      {paint.gradient === 'linear' && (
        <NumberField
          label="Direction"
          name="Direction of the ground"
          suffix="°"
          decimals={0}
          value={gradientAngle(paint)}
          onPreview={(v) => preview(v === null ? null : withAngle(paint, v))}
          onCommit={(v) => put('Direction of the ground', withAngle(paint, v))}
        />
      )}
    </>
  );
}
