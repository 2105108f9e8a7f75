'use client';
import { type LineAim } from '@/core/edit/aims';
import { moveOutline } from '@/core/edit/paint';
import { nodesOf } from '@/core/model/tree';
import type { LineMark, Outline } from '@/core/model/schema';
import { MOST_KNOTS } from '@/core/model/paintSchema';
import { mm, type Unit } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { Check, ListChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { runCommand } from '../commands/commands';
import { canBeShape, canMoveOutline, haveEnds, ownEndFor, putOwnEnd } from '../commands/outlines';
import { useBench, usePlacedDesign, useSession } from '../session/context';

type Style = Partial<Omit<Outline, 'paint'>>;
interface Props {
  readonly aim: LineAim;
  readonly outline: Outline;
  readonly ids: readonly string[];
  readonly unit: Unit;
  readonly put: (label: string, style: Style) => void;
  readonly show: (style: Style | null) => void;
}

const END_WORDS: readonly { readonly value: LineMark['kind']; readonly label: string }[] = [
  { value: 'arrow', label: 'arrow' },
  { value: 'slim', label: 'slim arrow' },
  { value: 'open', label: 'open arrow' },
  { value: 'bar', label: 'bar' },
  { value: 'dot', label: 'dot' },
  { value: 'ring', label: 'ring' },
  { value: 'box', label: 'square' },
  { value: 'diamond', label: 'diamond' },
];

/** Shares of the weight along the way, by how a person would call it. */
const PROFILES = {
  'thin at its end': [
    [0, 1],
    [1, 0],
  ],
  'thin at its start': [
    [0, 0],
    [1, 1],
  ],
  'thin at both ends': [
    [0, 0],
    [0.5, 1],
    [1, 0],
  ],
  'thin in the middle': [
    [0, 1],
    [0.5, 0.25],
    [1, 1],
  ],
} as const;
type ProfileName = keyof typeof PROFILES;
const knots = (name: ProfileName) => PROFILES[name].map(([at, share]) => ({ at, share }));
const nameOfProfile = (p: Outline['profile']): ProfileName | 'even' | 'own' => {
  if (!p) return 'even';
  const known = (Object.keys(PROFILES) as ProfileName[]).find((n) => JSON.stringify(knots(n)) === JSON.stringify(p));
  return known ?? 'own';
};

/**
 * What is rarer of a line: its ends, its width along the way, a hand's wobble, its place among others, itself as a
 * shape.
 */
export function LineMore({ aim, outline, ids, unit, put, show }: Props) {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const letters = aim === 'letterOutline';
  const { wobble, profile } = outline;
  const ofShapes = nodesOf(design, ids).every(
    (n) => n.kind === 'shape' || n.kind === 'path' || n.kind === 'combination',
  );
  const own = selection.length === 2 ? ownEndFor(session) : null;
  const putWobble = (change: Partial<NonNullable<Outline['wobble']>>): Style =>
    wobble ? { wobble: { ...wobble, ...change } } : {};
  const order = (by: 1 | -1) => {
    let to: LineAim | null = null;
    session.commit(by > 0 ? 'Line further up' : 'Line further down', (d) => (to = moveOutline(d, ids, aim, by)));
    if (to) session.aimAt(to);
  };
  return (
    <>
      {outline.join === 'miter' && (
        <div className="col-span-2">
          <NumberField
            label="Points up to"
            name="Longest point, times the weight"
            suffix="×"
            value={outline.miterLimit}
            min={1}
            max={1000}
            decimals={1}
            onPreview={(v) => show(v === null ? null : { miterLimit: v })}
            onCommit={(miterLimit) => put('Longest point of a corner', { miterLimit })}
          />
        </div>
      )}
      {!letters && haveEnds(session, ids) && (
        <>
          <EndFields which="start" label="Start" outline={outline} put={put} show={show} />
          <EndFields which="end" label="End" outline={outline} put={put} show={show} />
        </>
      )}
      {own && (
        <div className="col-span-2">
          <Button onClick={() => putOwnEnd(session)}>Put the shape at the line’s end</Button>
        </div>
      )}
      {!letters && ofShapes && (
        <div className="col-span-2 grid gap-2">
          <ListChoice
            label="Width along it"
            value={nameOfProfile(profile)}
            groups={[
              {
                name: '',
                options: [
                  { value: 'even', label: 'even' },
                  ...(Object.keys(PROFILES) as ProfileName[]).map((n) => ({ value: n, label: n })),
                  ...(nameOfProfile(profile) === 'own' ? [{ value: 'own' as const, label: 'by its knobs' }] : []),
                ],
              },
            ]}
            onChange={(name) => {
              if (name === 'own') return;
              put('Width along the line', { profile: name === 'even' ? undefined : knots(name) } as Style);
            }}
          />
          {profile && profile.length < MOST_KNOTS && (
            <Button
              title="Its knobs stand on the line: drag one across to change the width, along to move it"
              onClick={() => put('One more knob', { profile: withKnob(profile) })}
            >
              One more knob
            </Button>
          )}
        </div>
      )}
      <div className="col-span-2">
        <Check
          label="Drawn by hand"
          checked={wobble !== undefined}
          onChange={(on) =>
            put('Wobble of the line', {
              wobble: on ? { strength: mm(0.5), wave: mm(8), passes: 1, seed: 1 } : undefined,
            } as Style)
          }
        />
      </div>
      {wobble && (
        <>
          <NumberField
            label="Strays"
            name="How far the line strays"
            unit={unit}
            value={wobble.strength}
            min={0.01}
            max={1000}
            step={0.1}
            decimals={3}
            onPreview={(v) => show(v === null ? null : putWobble({ strength: v }))}
            onCommit={(strength) => put('How far the line strays', putWobble({ strength }))}
          />
          <NumberField
            label="Every"
            name="From one bulge to the next"
            unit={unit}
            value={wobble.wave}
            min={0.5}
            max={10_000}
            step={1}
            decimals={2}
            onPreview={(v) => show(v === null ? null : putWobble({ wave: v }))}
            onCommit={(wave) => put('Length of the bulges', putWobble({ wave }))}
          />
          <NumberField
            label="Times over"
            name="Drawn so many times over"
            value={wobble.passes}
            min={1}
            max={5}
            decimals={0}
            onCommit={(passes) => put('Times drawn over', putWobble({ passes: Math.round(passes) }))}
          />
          <Button onClick={() => put('Draw it otherwise', putWobble({ seed: (wobble.seed + 1) % 10_000 }))}>
            Otherwise
          </Button>
        </>
      )}
      <div className="col-span-2 flex flex-wrap gap-2">
        {canMoveOutline(session, ids, aim, 1) && <Button onClick={() => order(1)}>Further up</Button>}
        {canMoveOutline(session, ids, aim, -1) && <Button onClick={() => order(-1)}>Further down</Button>}
        {canBeShape(session) && <Button onClick={() => runCommand(session, 'outline.toShape')}>Line to shape</Button>}
      </div>
    </>
  );
}

/** A knot in the middle of the longest stretch without one. */
function withKnob(profile: NonNullable<Outline['profile']>): NonNullable<Outline['profile']> {
  const all = [...profile];
  let at = 0;
  for (let i = 1; i + 1 < all.length; i++) if (all[i + 1].at - all[i].at > all[at + 1].at - all[at].at) at = i;
  const [a, b] = [all[at], all[at + 1]];
  all.splice(at + 1, 0, { at: (a.at + b.at) / 2, share: (a.share + b.share) / 2 });
  return all;
}

function EndFields({
  which,
  label,
  outline,
  put,
  show,
}: {
  which: 'start' | 'end';
  label: string;
  outline: Outline;
  put: Props['put'];
  show: Props['show'];
}) {
  const mark = outline[which];
  return (
    <>
      <ListChoice
        label={label}
        value={mark?.kind ?? 'none'}
        groups={[
          {
            name: '',
            options: [
              { value: 'none', label: 'plain' },
              ...END_WORDS,
              ...(mark?.kind === 'own' ? [{ value: 'own' as const, label: 'own shape' }] : []),
            ],
          },
        ]}
        onChange={(kind) => {
          if (kind === 'own') return;
          put(`${label} of the line`, {
            [which]: kind === 'none' ? undefined : { kind, size: mark?.size ?? 1 },
          } as Style);
        }}
      />
      {mark ? (
        <NumberField
          label="Size"
          name={`Size of its ${which}`}
          suffix="×"
          value={mark.size}
          min={0.2}
          max={50}
          decimals={2}
          onPreview={(size) => show(size === null ? null : ({ [which]: { ...mark, size } } as Style))}
          onCommit={(size) => put(`Size of the line’s ${which}`, { [which]: { ...mark, size } } as Style)}
        />
      ) : (
        <span />
      )}
    </>
  );
}
