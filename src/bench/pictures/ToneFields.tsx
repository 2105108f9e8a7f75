'use client';
import { useState } from 'react';
import { BLACK } from '@/core/model/defaults';
import { withTone } from '@/core/edit/picture';
import { setWhole } from '@/core/edit/whole';
import type { Recipe } from '@/core/edit/history';
import type { Colour, Paint, PicturePaint, Tone, ToneInk } from '@/core/model/schema';
import { formatNumber } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { Check, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { PlainSlider } from '@/ui/PlainSlider';
import { freeSelection } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { colourName } from '../session/naming';
import { CurveEditor } from './CurveEditor';

type Change = (f: (p: PicturePaint) => Paint) => Recipe;
type Slide = 'brightness' | 'contrast' | 'saturation' | 'fade';
const SLIDES: readonly { readonly key: Slide; readonly label: string; readonly from: number }[] = [
  { key: 'brightness', label: 'Brightness', from: -1 },
  { key: 'contrast', label: 'Contrast', from: -1 },
  { key: 'saturation', label: 'Saturation', from: -1 },
  { key: 'fade', label: 'Fade', from: 0 },
];
const COLOURS = [
  { value: 'all', label: 'As it is' },
  { value: 'grey', label: 'Grey' },
  { value: 'one', label: 'One ink' },
  { value: 'two', label: 'Two inks' },
] as const;
type ColourWord = (typeof COLOURS)[number]['value'];

const AT_REST = { black: 0, white: 1, middle: 1 };
/** Differences up to this count as the surround when it is first taken out (ΔE00). */
const FIRST_TOLERANCE = 12;
const FIRST_SOFT = 8;

/** The tone of a picture: nothing of it touches the file. */
export function ToneFields({ paint, change }: { paint: PicturePaint; change: Change }) {
  const session = useSession();
  const [open, setOpen] = useState(paint.tone !== undefined);
  const { tone } = paint;
  const black: Colour = session.palette.screen ? { rgb: [0, 0, 0] } : BLACK;
  const apply = (label: string, next: { readonly [K in keyof Tone]?: Tone[K] | undefined }) =>
    session.commit(
      label,
      change((p) => withTone(p, next)),
    );
  const show = (next: { readonly [K in keyof Tone]?: Tone[K] | undefined } | null) =>
    session.preview(next && change((p) => withTone(p, next)));
  const greyInk = (inks: readonly ToneInk[]) =>
    inks.length === 1 && !inks[0].curve && JSON.stringify(inks[0].colour) === JSON.stringify(black);
  const word: ColourWord = !tone?.inks ? 'all' : greyInk(tone.inks) ? 'grey' : tone.inks.length === 1 ? 'one' : 'two';
  /** The colour that a new tone begins with: a spot ink where the design has one. */
  const firstInk = (): Colour => {
    const { design } = session;
    const swatch =
      design.swatches.find((s) => s.kind === 'colour' && 'ink' in s.colour) ??
      design.swatches.find(
        (s) =>
          s.kind === 'colour' &&
          !('cmyk' in s.colour && (s.colour.cmyk.every((v) => v === 0) || s.colour.cmyk[3] === 1)),
      );
    return swatch ? { swatch: swatch.id, tint: 1 } : black;
  };
  const toInks = (to: ColourWord) => {
    const old = tone?.inks;
    const inks: readonly ToneInk[] | undefined =
      to === 'all'
        ? undefined
        : to === 'grey'
          ? [{ colour: black }]
          : to === 'one'
            ? [word === 'two' && old ? old[0] : { colour: firstInk() }]
            : [
                word === 'one' && old ? old[0] : { colour: firstInk() },
                {
                  colour: black,
                  curve: [
                    [0, 0],
                    [0.5, 0.15],
                    [1, 0.9],
                  ],
                },
              ];
    apply(`Colours: ${COLOURS.find((c) => c.value === to)!.label.toLowerCase()}`, { inks });
  };
  const withInk = (i: number, next: Partial<ToneInk>): Tone['inks'] =>
    tone!.inks!.map((ink, k) => (k === i ? { ...ink, ...next } : ink));
  if (!open)
    return (
      <Button aria-expanded={false} onClick={() => setOpen(true)}>
        Tone, inks, surround
      </Button>
    );
  const levels = tone?.levels ?? AT_REST;
  const level = (key: keyof typeof AT_REST, next: number) => {
    const made = { ...levels, [key]: next };
    return made.black === 0 && made.white === 1 && made.middle === 1 ? undefined : made;
  };
  return (
    <div className="grid gap-2 border-t border-line pt-2" role="group" aria-label="Tone">
      <WordChoice label="Printed in" value={word} options={COLOURS} onChange={toInks} tight />
      {word !== 'all' &&
        word !== 'grey' &&
        tone?.inks?.map((ink, i) => (
          <InkRow
            key={i}
            n={i}
            ink={ink}
            onColour={(colour) => apply('Ink of a tone', { inks: withInk(i, { colour }) })}
            onCurve={(curve, done) =>
              done ? apply('Curve of an ink', { inks: withInk(i, { curve }) }) : show({ inks: withInk(i, { curve }) })
            }
          />
        ))}
      {SLIDES.map(({ key, label, from }) => (
        <div key={key} className="grid grid-cols-[124px_minmax(0,1fr)] items-center gap-1">
          <NumberField
            label={label}
            name={`${label} in percent`}
            suffix="%"
            min={from * 100}
            max={100}
            decimals={0}
            value={(tone?.[key] ?? 0) * 100}
            onPreview={(v) => show(v === null ? null : { [key]: v / 100 })}
            onCommit={(v) => apply(label, { [key]: v / 100 })}
          />
          <PlainSlider
            label={label}
            ends={['', '']}
            min={from}
            max={1}
            step={0.01}
            value={tone?.[key] ?? 0}
            says={(v) => `${formatNumber(v * 100, 0)} %`}
            onPreview={(v) => show(v === null ? null : { [key]: v })}
            onCommit={(v) => apply(label, { [key]: v })}
          />
        </div>
      ))}
      <div className="grid grid-cols-3 gap-2">
        <NumberField
          tight
          label="Black"
          name="Level that becomes black, in percent"
          min={0}
          max={95}
          decimals={0}
          value={levels.black * 100}
          onPreview={(v) => show(v === null ? null : { levels: level('black', v / 100) })}
          onCommit={(v) => apply('Levels', { levels: level('black', v / 100) })}
        />
        <NumberField
          tight
          label="Mid"
          name="Middle level"
          min={0.1}
          max={10}
          step={0.05}
          decimals={2}
          value={levels.middle}
          onPreview={(v) => show(v === null ? null : { levels: level('middle', v) })}
          onCommit={(v) => apply('Levels', { levels: level('middle', v) })}
        />
        <NumberField
          tight
          label="White"
          name="Level that becomes white, in percent"
          min={5}
          max={100}
          decimals={0}
          value={levels.white * 100}
          onPreview={(v) => show(v === null ? null : { levels: level('white', v / 100) })}
          onCommit={(v) => apply('Levels', { levels: level('white', v / 100) })}
        />
      </div>
      <Check
        label="Turn light and dark round"
        checked={tone?.invert ?? false}
        onChange={(on) => apply('Turn light and dark round', { invert: on || undefined })}
      />
      <Surround tone={tone} apply={apply} show={show} />
      {tone && (
        <Button
          onClick={() =>
            session.commit(
              'Take the tone off',
              change((p) => withTone(p, Object.fromEntries(Object.keys(tone).map((k) => [k, undefined])))),
            )
          }
        >
          Take it all off
        </Button>
      )}
    </div>
  );
}

/** A flat ground that a picture brings along: cut away, or let the ink below show through it. */
function Surround({
  tone,
  apply,
  show,
}: {
  tone: Tone | undefined;
  apply: (label: string, next: Pick<Tone, 'surround'> | { surround: undefined }) => void;
  show: (next: Pick<Tone, 'surround'> | null) => void;
}) {
  const session = useSession();
  const design = useBench((s) => s.design);
  const ids = freeSelection(session);
  const multiplied = ids.length > 0 && ids.every((id) => design.nodes[id]?.blend === 'multiply');
  const { surround } = tone ?? {};
  return (
    <div className="grid gap-1.5">
      <Check
        label="Take out the surround"
        hint="What looks like the picture’s edge and touches it."
        checked={surround !== undefined}
        onChange={(on) =>
          apply('Take out the surround', {
            surround: on ? { tolerance: FIRST_TOLERANCE, soft: FIRST_SOFT } : undefined,
          })
        }
      />
      {surround && (
        <div className="grid grid-cols-2 gap-2">
          <NumberField
            label="ΔE"
            name="Surround up to ΔE"
            min={0}
            max={100}
            step={1}
            decimals={0}
            value={surround.tolerance}
            onPreview={(v) => show(v === null ? null : { surround: { ...surround, tolerance: v } })}
            onCommit={(v) => apply('Tolerance of the surround', { surround: { ...surround, tolerance: v } })}
          />
          <NumberField
            label="Soft"
            name="Soft edge in ΔE"
            min={0}
            max={100}
            step={1}
            decimals={0}
            value={surround.soft}
            onPreview={(v) => show(v === null ? null : { surround: { ...surround, soft: v } })}
            onCommit={(v) => apply('Soft edge', { surround: { ...surround, soft: v } })}
          />
        </div>
      )}
      <Check
        label="Multiply instead"
        hint="White lets through what lies below."
        checked={multiplied}
        onChange={(on) =>
          session.commit(on ? 'Multiply' : 'Blend plainly', (d) => setWhole(d, ids, { blend: on ? 'multiply' : null }))
        }
      />
    </div>
  );
}

function InkRow({
  n,
  ink,
  onColour,
  onCurve,
}: {
  n: number;
  ink: ToneInk;
  onColour: (c: Colour) => void;
  onCurve: (curve: NonNullable<ToneInk['curve']>, done: boolean) => void;
}) {
  const session = useSession();
  const { design } = session;
  const options = design.swatches.flatMap((s) => (s.kind === 'colour' ? [{ value: s.id, label: s.name }] : []));
  const value = 'swatch' in ink.colour ? ink.colour.swatch : '';
  return (
    <div className="grid gap-1.5 rounded-sm border border-line p-1.5">
      <div className="flex items-center gap-2">
        <span
          aria-hidden
          className="size-6 shrink-0 rounded-sm border border-edge"
          style={{ background: session.palette.css(ink.colour) }}
        />
        <select
          aria-label={`Ink ${n + 1}`}
          className="h-7 w-full min-w-0 rounded-sm border border-edge bg-field px-1.5"
          value={value}
          onChange={(e) => onColour({ swatch: e.target.value, tint: 1 })}
        >
          {!value && <option value="">{colourName(design, ink.colour)}</option>}
          {options.map((o) => (
            <option key={o.value} value={o.value}>
              {o.label}
            </option>
          ))}
        </select>
      </div>
      <CurveEditor label={`Curve of ink ${n + 1}`} points={ink.curve} onChange={onCurve} />
    </div>
  );
}
