'use client';
import { canBeDeep, depthOf, newDepth, setDepth } from '@/core/edit/depth';
import { firstGradient } from '@/core/edit/gradient';
import { localBox } from '@/core/derive/box';
import type { Depth, Paint } from '@/core/model/schema';
import { nodesOf } from '@/core/model/tree';
import { mm } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { Check, ListChoice, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { runCommand } from '../commands/commands';
import { smallerSide } from '../commands/shadows';
import { freeSelection } from '../session/commandDef';
import { useBench, usePlacedDesign, useSession } from '../session/context';

const FAR = mm(2000);

/** What is pushed back: how far and which way, what its sides look like, as a solid or a long shadow. */
export function DepthSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const ids = freeSelection(session).filter((id) => design.nodes[id] && canBeDeep(design.nodes[id]));
  const nodes = nodesOf(design, ids);
  if (!nodes.length || ids.length !== selection.length) return null;
  const depths = nodes.map(depthOf);
  const on = depths.every((x) => x !== undefined);
  const depth = on ? depths[0]! : null;
  const { unit } = design.setup;
  const put = (change: Partial<Depth>) => (d: Parameters<typeof setDepth>[0]) => setDepth(d, ids, change);
  const commit = (label: string, change: Partial<Depth>) => session.commit(label, put(change));
  const field = (change: (v: number) => Partial<Depth>, label: string) => ({
    onPreview: (v: number | null) => session.preview(v === null ? null : put(change(v)), ids),
    onCommit: (v: number) => void commit(label, change(v)),
  });
  const turn = (give: boolean) =>
    session.commit(give ? 'Give depth' : 'Make flat', (d) =>
      setDepth(d, ids, give ? {} : null, (id) => newDepth(design, smallerSide(session, id))),
    );
  return (
    <Section title="Depth" rare>
      <div className="grid gap-2" role="group" aria-label="Depth">
        <Check label="Pushed back" checked={on} onChange={turn} />
        {depth && (
          <>
            <WordChoice
              label="What the depth is"
              value={depth.kind}
              options={[
                { value: 'solid', label: 'Solid' },
                { value: 'shadow', label: 'Long shadow' },
              ]}
              onChange={(kind) => commit('Kind of depth', { kind, fades: kind === 'shadow' ? true : undefined })}
            />
            <WordChoice
              label="Where it is pushed"
              value={depth.vanish ? 'point' : 'way'}
              options={[
                { value: 'way', label: 'One way' },
                { value: 'point', label: 'To a point' },
              ]}
              onChange={(v) => {
                const { width, height } = session.setup;
                commit('Where it is pushed', {
                  vanish: v === 'point' ? { x: width / 2, y: height / 2, share: 0.4 } : undefined,
                });
              }}
            />
            <div className="grid grid-cols-2 gap-2">
              {depth.vanish ? (
                <>
                  {(['x', 'y'] as const).map((axis) => (
                    <NumberField
                      key={axis}
                      label={axis.toUpperCase()}
                      name={`Vanishing point ${axis.toUpperCase()}`}
                      unit={unit}
                      min={-FAR}
                      max={FAR}
                      value={depth.vanish![axis]}
                      {...field((v) => ({ vanish: { ...depth.vanish!, [axis]: v } }), 'Vanishing point')}
                    />
                  ))}
                  <NumberField
                    label="Deep"
                    name="How deep, of the way to the point"
                    suffix="%"
                    min={1}
                    max={100}
                    decimals={0}
                    value={depth.vanish.share * 100}
                    {...field((v) => ({ vanish: { ...depth.vanish!, share: v / 100 } }), 'How deep')}
                  />
                </>
              ) : (
                <>
                  <NumberField
                    label="Deep"
                    name="How deep"
                    unit={unit}
                    min={0}
                    max={FAR}
                    value={depth.length}
                    {...field((length) => ({ length }), 'How deep')}
                  />
                  <NumberField
                    label="Angle"
                    name="Which way it is pushed"
                    suffix="°"
                    min={-360}
                    max={360}
                    decimals={1}
                    value={depth.angle}
                    {...field((angle) => ({ angle }), 'Which way it is pushed')}
                  />
                </>
              )}
              {depth.kind === 'solid' && depth.side.kind === 'colour' && (
                <>
                  <NumberField
                    label="Shading"
                    suffix="%"
                    min={0}
                    max={100}
                    decimals={0}
                    value={depth.shade * 100}
                    {...field((v) => ({ shade: v / 100 }), 'Shading of the sides')}
                  />
                  <NumberField
                    label="Light"
                    name="Where light comes from"
                    suffix="°"
                    min={-360}
                    max={360}
                    decimals={0}
                    value={depth.light}
                    {...field((light) => ({ light }), 'Where light comes from')}
                  />
                </>
              )}
            </div>
            <SwatchList
              label="Sides"
              paint={depth.side}
              ramps={depth.kind === 'solid'}
              onChange={(colour, ramp) => {
                const box = localBox(design, nodes[0], session.engines.fonts);
                const side: Paint = ramp
                  ? ({ ...firstGradient('linear', box, [], false), ramp: { swatch: ramp } } as Paint)
                  : { kind: 'colour', colour: { swatch: colour, tint: 1 }, overprint: false };
                commit('Colour of the sides', { side });
              }}
            />
            {depth.kind === 'shadow' ? (
              <Check
                label="Fades out"
                checked={depth.fades === true}
                onChange={(fades) => commit('Shadow that fades', { fades: fades || undefined })}
              />
            ) : (
              <Check
                label="A line round every side"
                checked={depth.edge !== undefined}
                onChange={(edge) =>
                  commit('Line round the sides', {
                    edge: edge
                      ? {
                          paint: { kind: 'colour', colour: ink(design.setup.medium === 'screen'), overprint: false },
                          width: mm(0.25),
                        }
                      : undefined,
                  })
                }
              />
            )}
            {depth.edge && depth.kind === 'solid' && (
              <div className="grid grid-cols-2 gap-2">
                <NumberField
                  label="Weight"
                  name="Weight of the line round the sides"
                  unit={unit === 'px' ? 'px' : 'mm'}
                  min={0}
                  max={mm(50)}
                  step={0.1}
                  decimals={3}
                  value={depth.edge.width}
                  {...field((width) => ({ edge: { ...depth.edge!, width } }), 'Weight of the line')}
                />
                <SwatchList
                  label="Line"
                  paint={depth.edge.paint}
                  ramps={false}
                  onChange={(colour) =>
                    commit('Colour of the line', {
                      edge: {
                        ...depth.edge!,
                        paint: { kind: 'colour', colour: { swatch: colour, tint: 1 }, overprint: false },
                      },
                    })
                  }
                />
              </div>
            )}
            <Button onClick={() => runCommand(session, 'depth.toShapes')}>Depth to shapes</Button>
          </>
        )}
      </div>
    </Section>
  );
}

const ink = (screen: boolean) => (screen ? { rgb: [0, 0, 0] as const } : { cmyk: [0, 0, 0, 1] as const });

/** The swatches of the design, and what is shown where the paint is none of them. */
function SwatchList({
  label,
  paint,
  ramps,
  onChange,
}: {
  label: string;
  paint: Paint;
  ramps: boolean;
  onChange: (colour: string, ramp: string | null) => void;
}) {
  const swatches = useBench((s) => s.design.swatches);
  const of =
    paint.kind === 'colour' && 'swatch' in paint.colour
      ? paint.colour.swatch
      : paint.kind === 'gradient' && 'swatch' in paint.ramp
        ? paint.ramp.swatch
        : 'other';
  const shown = swatches.filter((s) => s.kind === 'colour' || ramps);
  return (
    <ListChoice
      label={label}
      value={shown.some((s) => s.id === of) ? of : 'other'}
      groups={[
        {
          name: '',
          options: [
            ...(shown.some((s) => s.id === of) ? [] : [{ value: 'other', label: 'a colour of its own' }]),
            ...shown.map((s) => ({ value: s.id, label: s.name })),
          ],
        },
      ]}
      onChange={(id) => {
        if (id === 'other') return;
        onChange(id, swatches.find((s) => s.id === id)?.kind === 'ramp' ? id : null);
      }}
    />
  );
}
