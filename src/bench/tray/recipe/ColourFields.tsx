'use client';
import { useState } from 'react';
import { hsbToRgb, rgbToHsb } from '@/core/colour/models';
import { hexOf, parseHex } from '@/core/colour/spaces';
import { recolourSwatch } from '@/core/edit/swatches';
import type { OwnColour, Swatch } from '@/core/model/schema';
import { formatNumber } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { WordChoice } from '@/ui/Choice';
import { ColourSlider } from '@/ui/ColourSlider';
import { useSession } from '../../session/context';
import { forMedium, keptIn, MODELS, trackOf, type ModelId } from './channels';
import { Wheel } from './Wheel';

/**
 * A process swatch's numbers. Steps of one channel that follow each other at once are one step; those of another begin
 * a new one.
 */
export function ColourFields({ swatch }: { swatch: Extract<Swatch, { kind: 'colour' }> }) {
  const session = useSession();
  const { id } = swatch;
  return (
    <ColourNumbers
      colour={swatch.colour}
      onChange={(next, part) =>
        session.commit('Change swatch', (d) => recolourSwatch(d, id, next), { merge: `recipe ${id} ${part}` })
      }
      onPreview={(next) => session.preview(next && ((d) => recolourSwatch(d, id, next)))}
    />
  );
}

/** A colour's numbers in any model. A change is kept in the model it is made in. */
export function ColourNumbers({
  colour,
  onChange,
  onPreview,
}: {
  colour: OwnColour;
  onChange: (next: OwnColour, part: string) => void;
  onPreview: (next: OwnColour | null) => void;
}) {
  const session = useSession();
  const { palette } = session;
  const [model, setModel] = useState<ModelId>(palette.screen && !('cmyk' in colour) ? 'hsb' : keptIn(colour));
  // Greys have no hue and black no saturation: the last ones are held, so that a slider can come back.
  const [held, setHeld] = useState<readonly [number, number]>([0, 0]);

  const change = (next: OwnColour, part: string) => onChange(forMedium(next, palette), part);
  const show = (next: OwnColour | null) => onPreview(next && forMedium(next, palette));
  const values = MODELS[model].read(colour, palette);
  if (model === 'hsb') {
    if (values[1] < 0.05) values[0] = held[0];
    if (values[2] < 0.05) values[1] = held[1];
  }
  const hsb = rgbToHsb('rgb' in colour ? colour.rgb : palette.lookOfMix(palette.mix(colour)));
  const shownHsb: [number, number, number] = [hsb[1] < 0.0005 ? held[0] : hsb[0], hsb[1], hsb[2]];
  const put = (i: number, v: number): OwnColour => {
    const next = values.map((old, j) => (j === i ? v : old));
    if (model === 'hsb') setHeld([next[0], next[1]]);
    return MODELS[model].make(next);
  };
  /** The wheel turns the colour; a recipe stays a recipe. */
  const turned = (to: [number, number, number]): OwnColour => {
    setHeld([to[0], to[1] * 100]);
    const rgb = hsbToRgb(to);
    return 'cmyk' in colour && !palette.screen ? { cmyk: palette.recipeOf({ rgb }) } : { rgb };
  };
  const ids = (Object.keys(MODELS) as ModelId[]).filter((id) => !palette.screen || id !== 'cmyk' || 'cmyk' in colour);
  return (
    <>
      <WordChoice
        label="Colour model"
        value={model}
        options={ids.map((id) => ({ value: id, label: MODELS[id].word }))}
        onChange={setModel}
      />
      <div className="flex gap-3">
        <Wheel hsb={shownHsb} onPreview={(v) => show(v && turned(v))} onCommit={(v) => change(turned(v), 'wheel')} />
        <div className="grid min-w-0 flex-1 content-start gap-1.5">
          {MODELS[model].channels.map((c, i) => (
            <ColourSlider
              key={`${model}${c.name}`}
              {...c}
              value={values[i]}
              track={trackOf(model, values, i, palette)}
              onPreview={(v) => show(v === null ? null : put(i, v))}
              onCommit={(v) => change(put(i, v), c.name)}
            />
          ))}
          {(model === 'rgb' || model === 'hsb') && (
            <HexField
              hex={hexOf('rgb' in colour ? colour.rgb : palette.lookOfMix(palette.mix(colour)))}
              onCommit={(rgb) => change({ rgb }, 'hex')}
            />
          )}
        </div>
      </div>
      <Reach colour={colour} onUse={(cmyk) => change({ cmyk }, 'printable')} />
    </>
  );
}

/** What a screen or Lab colour becomes in print. */
function Reach({
  colour,
  onUse,
}: {
  colour: OwnColour;
  onUse: (cmyk: readonly [number, number, number, number]) => void;
}) {
  const session = useSession();
  const { palette } = session;
  if (palette.screen)
    return <p className="m-0 text-[12px] text-faint">A screen design is made of light: this colour stays RGB.</p>;
  const reach = palette.reach(colour);
  if (reach === null)
    return (
      <p className="m-0 text-[12px] text-faint">
        {'gray' in colour ? 'Kept as grey: black ink alone.' : 'Kept as a recipe: these numbers go to the plates.'}
      </p>
    );
  const kept = 'rgb' in colour ? 'screen colour' : 'Lab colour';
  const recipe = palette.recipeOf('rgb' in colour ? colour : { lab: palette.wantedLab(colour) });
  const numbers = recipe.map((v) => formatNumber(v * 100, 0)).join(' ');
  const { beyond } = reach;
  return (
    <div
      className="flex items-center gap-2 rounded-sm border border-line p-2 text-[12px]"
      role="group"
      aria-label="How it prints"
    >
      <span aria-hidden className="flex h-9 w-[60px] shrink-0 overflow-hidden rounded-sm border border-edge">
        <span
          className="flex-1"
          style={{ background: 'rgb' in colour ? hexOf(colour.rgb) : `lab(${palette.wantedLab(colour).join(' ')})` }}
        />
        <span className="flex-1" style={{ background: palette.css(colour) }} />
      </span>
      <span className={`min-w-0 flex-1 ${beyond ? 'text-warn' : ''}`}>
        {beyond
          ? `This ${kept} prints duller: left as meant, right as it comes out.`
          : `This ${kept} prints as it looks.`}{' '}
        <span
          title={`How far apart the two are: ΔE00 ${formatNumber(reach.prints, 1)} (under about 2 they can hardly be told apart)`}
          className="key-line"
        >
          ΔE00 {formatNumber(reach.prints, 1)}
        </span>
        . As ink: {numbers}.
      </span>
      <Button onClick={() => onUse(recipe)}>Use the printable one</Button>
    </div>
  );
}

function HexField({ hex, onCommit }: { hex: string; onCommit: (rgb: [number, number, number]) => void }) {
  const [problem, setProblem] = useState(false);
  return (
    <label className="flex items-center gap-1.5">
      <span className="text-faint">Hex</span>
      <input
        key={hex}
        aria-label="Hex"
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
