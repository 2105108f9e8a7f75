'use client';
import { ArrowLeftRight, Link2Off, Plus, StretchHorizontal } from 'lucide-react';
import { bandingOf } from '@/core/check/banding';
import type { RampSource } from '@/core/colour/ramp';
import { localBox } from '@/core/derive/box';
import { isText } from '@/core/derive/layout';
import {
  geometryBetween,
  geometryFrom,
  geometryOnPage,
  gradientAngle,
  gradientLine,
  reverseStops,
  spreadEvenly,
  withAngle,
} from '@/core/edit/gradient';
import { multiply } from '@/core/geometry/matrix';
import type { Recipe } from '@/core/edit/history';
import { isLineAim, type Aim } from '@/core/edit/aims';
import { rampOf, setPaint } from '@/core/edit/paint';
import { addSwatch } from '@/core/edit/swatches';
import type { GradientPaint, Stop } from '@/core/model/schema';
import { formatLength, formatNumber } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { Check, ListChoice, WordChoice } from '@/ui/Choice';
import { shapeById } from '@/core/shapes/catalogue';
import { NumberField } from '@/ui/NumberField';
import { useBench, useSession } from '../session/context';
import { withGeometry, withRamp, withStops, type GradientTarget } from '../tools/gradientTarget';
import { CleanMiddle } from '../ramps/CleanMiddle';
import { RampEditor } from '../ramps/RampEditor';

const LINES = [
  { value: 'shape', label: 'over the whole shape' },
  { value: 'along', label: 'following the line' },
  { value: 'across', label: 'edge to edge of the line' },
] as const;
type Lies = (typeof LINES)[number]['value'];

/** A gradient's ramp, how clean its middle is, and where it lies. */
export function GradientFields({ aim, target, here }: { aim: Aim; target: GradientTarget; here: boolean }) {
  const session = useSession();
  const stop = useBench((s) => s.stop);
  const { paint, nodes } = target;
  const { design } = session;
  const ramp = rampOf(design, paint);
  const name =
    'swatch' in paint.ramp
      ? (design.swatches.find((s) => 'swatch' in paint.ramp && s.id === paint.ramp.swatch)?.name ?? null)
      : null;
  const outline = isLineAim(aim) && aim !== 'frameOutline';
  /** Changes the gradients themselves, not their ramp. */
  const change =
    (map: (p: GradientPaint, id: string) => GradientPaint): Recipe =>
    (d) =>
      setPaint(d, nodes, aim, (old, id) => (old.kind === 'gradient' ? map(old, id) : old));
  const stops = (next: readonly Stop[], label: string) => session.commit(label, withStops(session, target, next));
  const mix = (next: RampSource, label: string) => session.commit(label, withRamp(session, target, next));

  const lie = (to: Lies) =>
    session.commit(`Gradient ${LINES.find((l) => l.value === to)!.label}`, (d) =>
      change((p, id) => {
        const { strokeMapping: _line, thereAndBack: _back, ...rest } = p;
        const node = design.nodes[id];
        // On a closed line it goes there and back at first: then it has no seam.
        const closed =
          aim === 'letterOutline' ||
          isText(node) ||
          node.kind === 'combination' ||
          (node.kind === 'shape' && !shapeById(node.shape)?.open) ||
          (node.kind === 'path' && node.path[node.path.length - 1] === 3);
        return to === 'shape'
          ? rest
          : { ...rest, strokeMapping: to, ...(to === 'along' && closed && { thereAndBack: true }) };
      })(d),
    );
  const letters = (each: boolean) =>
    session.commit(each ? 'Gradient letter by letter' : 'Gradient over the text as one', (d) =>
      change((p, id) => {
        const box = localBox(design, design.nodes[id], session.engines.fonts);
        const unit = { x0: 0, y0: 0, x1: 1, y1: 1 };
        const { eachLetter: _each, ...rest } = p;
        return each
          ? { ...rest, eachLetter: true, geometry: geometryBetween(p.geometry, box, unit) }
          : { ...rest, geometry: geometryBetween(p.geometry, unit, box) };
      })(d),
    );
  const toTray = () => {
    const id = session.newId();
    session.commit('Put the gradient into the tray', (d) => {
      addSwatch(d, {
        id,
        name: `Gradient ${design.swatches.filter((s) => s.kind === 'ramp').length + 1}`,
        kind: 'ramp',
        stops: [...ramp.stops],
        ...(ramp.mixing && { mixing: ramp.mixing }),
      });
      change((p) => ({ ...p, ramp: { swatch: id } }))(d);
    });
    session.say(
      'The gradient’s colours are in the tray now; where it lies stays with the object. Edit the card to name it.',
    );
  };
  const free = () => {
    session.commit(
      'Give the object its own stops',
      change((p) => ({ ...p, ramp: { stops: ramp.stops, ...(ramp.mixing && { mixing: ramp.mixing }) } })),
    );
    session.say('These stops are the object’s own now; the card in the tray stays as it is.');
  };

  const { from, to } = gradientLine(paint);
  const half = Math.hypot(to.x - from.x, to.y - from.y);
  const squash = half ? Math.hypot(paint.geometry[2], paint.geometry[3]) / half : 1;
  // The angle is the one that is seen: on the page, also where the object is turned or flipped.
  const onPage: GradientPaint = { ...paint, geometry: multiply(target.matrix, paint.geometry) };
  const turned = (degrees: number): Recipe => {
    const geometry = geometryOnPage(withAngle(onPage, degrees).geometry, target.matrix);
    return geometry ? withGeometry(session, target, geometry) : () => {};
  };
  const { solid } = session.palette.ramp(paint.ramp);
  const banding = bandingOf(session.scene(), target.node, session.palette);
  return (
    <>
      {name !== null && (
        <div className="flex items-center gap-2">
          <p className="m-0 min-w-0 flex-1 text-faint">Ramp “{name}”: a change reaches all that use it.</p>
          <Button onClick={free} title="Give this object stops of its own">
            <Link2Off size={14} aria-hidden /> Only here
          </Button>
        </div>
      )}
      <RampEditor
        ramp={ramp}
        chosen={here ? stop : null}
        onChoose={(i) => session.aimAt(aim, i)}
        onChange={stops}
        onPreview={(next) => session.preview(next && withRamp(session, target, { stops: next, mixing: ramp.mixing }))}
      />
      <div className="flex gap-1.5">
        <Button
          className="min-w-0 flex-1 px-1 text-[12px]"
          onClick={() => stops(reverseStops(ramp.stops), 'Reverse the gradient')}
        >
          <ArrowLeftRight size={14} aria-hidden className="shrink-0" /> Reverse
        </Button>
        <Button
          className="min-w-0 flex-1 px-1 text-[12px]"
          disabled={ramp.stops.length < 3}
          onClick={() => stops(spreadEvenly(ramp.stops), 'Spread the stops evenly')}
        >
          <StretchHorizontal size={14} aria-hidden className="shrink-0" /> Evenly
        </Button>
        {name === null && (
          <Button
            className="min-w-0 flex-1 px-1 text-[12px]"
            title="Put these colours into the tray as a gradient swatch"
            onClick={toTray}
          >
            <Plus size={14} aria-hidden className="shrink-0" /> Keep
          </Button>
        )}
      </div>
      <CleanMiddle
        ramp={ramp}
        onChange={mix}
        onPreview={(next) => session.preview(next && withRamp(session, target, next))}
      />
      {outline && (
        <ListChoice
          label="Lies"
          value={paint.strokeMapping ?? 'shape'}
          groups={[{ name: '', options: LINES }]}
          onChange={lie}
        />
      )}
      {paint.strokeMapping === 'along' && (
        <Check
          label="There and back"
          hint="A closed line then has no seam."
          checked={paint.thereAndBack === true}
          onChange={(on) =>
            session.commit(
              on ? 'Gradient there and back' : 'Gradient once along',
              change(({ thereAndBack: _old, ...p }) => (on ? { ...p, thereAndBack: true } : p)),
            )
          }
        />
      )}
      {isText(design.nodes[target.node]) && (aim === 'letters' || aim === 'letterOutline') && !paint.strokeMapping && (
        <WordChoice
          label="Letters"
          value={paint.eachLetter ? 'each' : 'one'}
          options={[
            { value: 'one', label: 'Text as one' },
            { value: 'each', label: 'Letter by letter' },
          ]}
          onChange={(v) => letters(v === 'each')}
        />
      )}
      {!paint.strokeMapping && (
        <div className="grid grid-cols-2 gap-2">
          <NumberField
            label="Angle"
            suffix="°"
            value={gradientAngle(onPage)}
            decimals={1}
            onPreview={(v) => session.preview(v === null ? null : turned(v))}
            onCommit={(v) => session.commit('Gradient angle', turned(v))}
          />
          {paint.gradient !== 'linear' && (
            <NumberField
              label="Squash"
              suffix="%"
              value={squash * 100}
              min={1}
              max={1000}
              decimals={0}
              onCommit={(v) =>
                session.commit(
                  'Squash the gradient',
                  withGeometry(session, target, geometryFrom(paint.gradient, from, to, v / 100)),
                )
              }
            />
          )}
        </div>
      )}
      {paint.focus && (
        <Button
          onClick={() =>
            session.commit(
              'Focus to the middle',
              change(({ focus: _focus, ...p }) => p),
            )
          }
        >
          Focus to the middle
        </Button>
      )}
      {banding && (
        <div
          className="grid gap-1.5 rounded-sm border border-line p-2 text-[12px]"
          role="group"
          aria-label="Steps that show"
        >
          <p className="m-0 text-warn">
            Steps may show: {formatNumber(banding.steps, 0)} tones over{' '}
            {formatLength(banding.length, design.setup.unit, 0)}, each {formatLength(banding.step, 'mm', 1)} wide.
          </p>
          {solid && (
            <Button
              onClick={() =>
                session.commit(
                  'Break steps up with grain',
                  change((p) => ({ ...p, grain: banding.grain })),
                )
              }
            >
              Break them up with grain
            </Button>
          )}
        </div>
      )}
      {paint.grain !== undefined && !solid && (
        <p className="m-0 text-[12px] text-faint">Grain rests while the ramp lets something through.</p>
      )}
      {paint.grain !== undefined && (
        <NumberField
          label="Grain"
          disabled={!solid}
          suffix="%"
          value={paint.grain * 100}
          min={0}
          max={20}
          decimals={1}
          onCommit={(v) =>
            session.commit(
              'Grain',
              change(({ grain: _grain, ...p }) => (v > 0 ? { ...p, grain: v / 100 } : p)),
            )
          }
        />
      )}
    </>
  );
}
