'use client';
import { firstLetters } from '@/core/model/textLooks';
import { localBox } from '@/core/derive/box';
import { isText } from '@/core/derive/layout';
import { firstGradient, stopsFrom } from '@/core/edit/gradient';
import {
  aimedNodes,
  aimedPaints,
  isLineAim,
  lineAt,
  type Aim,
  type ChosenLetters,
  type LineAim,
} from '@/core/edit/aims';
import { setOverprint, setPaint, stopsOf } from '@/core/edit/paint';
import { lettersAt } from '@/core/edit/textPlace';
import { firstPools, stopsOfPools } from '@/core/edit/pools';
import { addSwatch } from '@/core/edit/swatches';
import { isSweep, sweepBecomes } from '@/core/edit/sweep';
import { BLACK, colourPaint } from '@/core/model/defaults';
import type { Outline, Paint } from '@/core/model/schema';
import { Button } from '@/ui/Button';
import { Check, WordChoice } from '@/ui/Choice';
import { Section } from '@/ui/Section';
import { AIM_WORDS } from '../session/naming';
import { chosenLetters, freeSelection } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { colourName, paintName } from '../session/naming';
import { calmDesign } from '../session/state';
import { aimedAt, type GradientTarget, type PoolsTarget } from '../tools/gradientTarget';
import { drawingPaint } from '../tools/shape';
import { openColourHere } from '../tray/ColourHere';
import { GradientFields } from './GradientFields';
import { OutlineFields } from './OutlineFields';
import { PictureFields } from '../pictures/PictureFields';
import { PoolsFields } from './PoolsFields';
import { SeveralFields } from './SeveralFields';

type Kind = 'none' | 'colour' | 'linear' | 'radial' | 'box' | 'pools' | 'picture';
const KINDS = [
  { value: 'none', label: 'None' },
  { value: 'colour', label: 'Flat' },
  { value: 'linear', label: 'Linear' },
  { value: 'radial', label: 'Radial' },
  { value: 'box', label: 'Box' },
  { value: 'pools', label: 'Pools' },
  { value: 'picture', label: 'Picture' },
] as const;
const kindOf = (p: Paint | undefined): Kind =>
  !p || p.kind === 'none' ? 'none' : p.kind === 'gradient' ? p.gradient : p.kind;

/** Fill, outline, letters or frame of the selection: what it is painted with, and how it prints. */
export function PaintSection({ aim }: { aim: Aim }) {
  const session = useSession();
  const design = useBench(calmDesign);
  const selection = useBench((s) => s.selection);
  const aimed = useBench((s) => s.aim);
  useBench((s) => s.editing);
  const nodes = aimedNodes(design, selection, aim);
  if (!nodes.length) return null;
  const letters = chosenLetters(session);
  const paints = aimedPaints(design, selection, aim, letters);
  const paint = paints[0];
  const kind = paints.every((p) => kindOf(p) === kindOf(paint)) ? kindOf(paint) : null;
  const ids = freeSelection(session);
  const word = AIM_WORDS[aim];
  const line = isLineAim(aim) ? aim : null;
  const reaches = letters && aim.startsWith('letter') ? ', chosen letters' : '';
  const toAim = () => session.set({ aim });

  const become = (next: Kind) => {
    toAim();
    if (next === 'picture') {
      if (kind !== 'picture') session.set({ pictureChooser: true });
      return;
    }
    const fallback = session.palette.screen ? ({ rgb: [0, 0, 0] } as const) : BLACK;
    const label = `${word}: ${KINDS.find((k) => k.value === next)!.label.toLowerCase()}`;
    if ((next === 'linear' || next === 'radial' || next === 'box') && isSweep(design, session.page, nodes, aim)) {
      session.commit(label, (d) => sweepBecomes(d, session.page, ids, aim, next, session.engines.fonts));
      session.set({ stop: null });
      return;
    }
    session.commit(label, (d) =>
      setPaint(
        d,
        ids,
        aim,
        (old, id) => {
          const overprint = old.kind !== 'none' && old.overprint;
          if (next === 'none') return { kind: 'none' };
          const node = design.nodes[id];
          const had = old.kind === 'gradient' ? stopsOf(design, old) : stopsOfPools(old);
          if (next === 'colour')
            return old.kind === 'colour'
              ? old
              : had
                ? colourPaint(had[0].colour, overprint)
                : old.kind === 'pools'
                  ? colourPaint(old.pools[0].colour, overprint)
                  : line || isText(node)
                    ? colourPaint(fallback)
                    : drawingPaint(session);
          const box = localBox(design, node, session.engines.fonts);
          const stops = had ?? stopsFrom(old, fallback);
          if (next === 'pools') return old.kind === 'pools' ? old : firstPools(box, stops, overprint);
          if (old.kind !== 'gradient') return firstGradient(next, box, stops, overprint);
          return {
            ...firstGradient(next, box, [], overprint),
            ramp: old.ramp,
            ...(old.strokeMapping && { strokeMapping: old.strokeMapping }),
            ...(old.thereAndBack && { thereAndBack: true }),
          };
        },
        letters,
      ),
    );
    session.set({ stop: null });
  };

  const target = aimedAt(session, aim, nodes);
  const outline = line && outlineAt(design, nodes[0], line, letters);

  return (
    <Section
      title={`${word}${reaches}`}
      name={word}
      action={
        aimed === aim ? (
          <span className="text-[12px] text-accent">aimed at</span>
        ) : (
          <button
            type="button"
            className="cursor-pointer border-0 bg-transparent p-0 text-[12px] key-line"
            onClick={toAim}
          >
            Aim here
          </button>
        )
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-2">
        <WordChoice label={`${word} kind`} value={kind} options={KINDS} onChange={become} tight />
        {kind === 'colour' && (
          <div className="flex items-center gap-2">
            <button
              type="button"
              aria-label={`Change the colour of ${word.toLowerCase()}`}
              title="Change it by eye"
              className="size-6 shrink-0 cursor-pointer rounded-sm border border-edge p-0 hover:border-accent"
              style={{ background: paint?.kind === 'colour' ? session.palette.css(paint.colour) : undefined }}
              onClick={(e) => {
                toAim();
                openColourHere(session, e);
              }}
            />
            <span className="truncate">
              {paints.every((p) => p === paint || paintName(design, p) === paintName(design, paint))
                ? paintName(design, paint)
                : 'mixed'}
            </span>
            {paint?.kind === 'colour' && !('swatch' in paint.colour) && paints.length === 1 && (
              <Button
                className="ml-auto"
                onClick={() => {
                  const { colour } = paint;
                  if ('swatch' in colour) return;
                  const id = session.newId();
                  session.commit('Put the colour into the tray', (d) => {
                    addSwatch(d, { id, name: colourName(design, colour), kind: 'colour', colour });
                    setPaint(
                      d,
                      nodes,
                      aim,
                      (old) => (old.kind === 'colour' ? { ...old, colour: { swatch: id, tint: 1 } } : old),
                      letters,
                    );
                  });
                }}
              >
                Into the tray
              </Button>
            )}
          </div>
        )}
        {kind === 'picture' && paint?.kind === 'picture' && (
          <PictureFields aim={aim} ids={ids} node={nodes[0]} paint={paint} />
        )}
        {target?.paint.kind === 'gradient' && (
          <GradientFields aim={aim} target={target as GradientTarget} here={aimed === aim} />
        )}
        {target?.paint.kind === 'pools' && (
          <PoolsFields aim={aim} target={target as PoolsTarget} here={aimed === aim} />
        )}
        {nodes.length > 1 && paints.some((p) => p?.kind === 'gradient' || p?.kind === 'pools') && (
          <SeveralFields aim={aim} ids={ids} swept={target !== null} />
        )}
        {line && <OutlineFields aim={line} outline={outline} ids={ids} letters={letters} />}
        {!session.palette.screen && kind !== 'none' && (
          <Check
            label="Overprint"
            hint={overprintHint(session, paint)}
            checked={paints.every((p) => p && p.kind !== 'none' && p.overprint)}
            onChange={(on) =>
              session.commit(on ? 'Overprint' : 'Knock out', (d) => setOverprint(d, ids, aim, on, letters))
            }
          />
        )}
      </div>
    </Section>
  );
}

function outlineAt(
  design: ReturnType<typeof calmDesign>,
  id: string,
  aim: LineAim,
  letters: ChosenLetters | null,
): Outline | null {
  const n = design.nodes[id];
  if (isText(n) && aim === 'letterOutline')
    return letters?.node === id
      ? lettersAt(design, design.stories[n.story], letters.to).outline
      : firstLetters(design, design.stories[n.story]).outline;
  return lineAt(n, aim) ?? null;
}

/** White that overprints is nothing at all: said before it is printed. */
function overprintHint(session: ReturnType<typeof useSession>, paint: Paint | undefined): string {
  if (paint?.kind === 'colour' && paint.overprint && session.palette.mix(paint.colour).every((v) => v === 0))
    return 'Bare stock that overprints leaves no trace: it vanishes in print.';
  return paint && paint.kind !== 'none' && paint.overprint
    ? 'Prints over what lies below.'
    : 'Off: cuts out what lies below.';
}
