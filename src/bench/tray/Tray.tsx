'use client';
import { useState } from 'react';
import { Plus } from 'lucide-react';
import { SMALL_PALETTES } from '@/core/colour/smallPalettes';
import { aimedNodes } from '@/core/edit/aims';
import { setColour } from '@/core/edit/paint';
import { addSwatch, swatchGroups } from '@/core/edit/swatches';
import { readRecipes } from '@/core/edit/recipeLine';
import { useBench, useSession } from '../session/context';
import { AIM_WORDS } from '../session/naming';
import { chosenLetters, count, freeSelection } from '../session/commandDef';
import { calmDesign } from '../session/state';
import { AimTile } from './AimTile';
import { openColourHere } from './ColourHere';
import { SpotLibrary } from './SpotLibrary';
import { ColoursSlip } from './ColoursSlip';
import { LiftSlip } from './LiftSlip';
import { Recent } from './Recent';
import { SwatchCard, cardLook } from './SwatchCard';
import { TidySlip } from './TidySlip';
import { TrayGroup } from './TrayGroup';

/** Which colours do I have? Aim, cards, recipe line, libraries. Low windows keep it at 56 px until it is used. */
export function Tray() {
  const session = useSession();
  const swatches = useBench((s) => calmDesign(s).swatches);
  // Cards show inks and paper too.
  useBench((s) => calmDesign(s).inks);
  useBench((s) => calmDesign(s).profile);
  const groups = swatchGroups(swatches);
  const labelled = groups.some((g) => g.name !== null);
  return (
    <section
      aria-label="Ink tray"
      className="group/tray relative h-[112px] border-t border-line bg-panel [@media(max-height:719px)]:h-14"
    >
      <div className="absolute inset-x-0 bottom-0 flex h-[112px] gap-3 border-line bg-panel px-3 py-2 [@media(max-height:719px)]:h-14 [@media(max-height:719px)]:overflow-hidden [@media(max-height:719px)]:py-1 [@media(max-height:719px)]:group-focus-within/tray:h-[112px] [@media(max-height:719px)]:group-focus-within/tray:border-t [@media(max-height:719px)]:group-hover/tray:h-[112px] [@media(max-height:719px)]:group-hover/tray:border-t z-10">
        <AimTile />
        <div
          role="group"
          aria-label="Swatches"
          data-region="tray"
          tabIndex={-1}
          className="flex min-w-0 flex-1 gap-1.5 overflow-x-auto overflow-y-hidden p-0.5"
        >
          <button
            type="button"
            data-opens="New colour"
            onClick={(e) => openColourHere(session, e, true)}
            className="flex h-full w-[64px] shrink-0 cursor-pointer flex-col items-center justify-center gap-1 rounded-sm border border-dashed border-edge bg-transparent p-0 text-[12px] leading-4 hover:border-accent"
          >
            <Plus size={18} aria-hidden />
            New colour
          </button>
          {groups.map((g) => (
            <TrayGroup key={g.name ?? ''} name={g.name} labelled={labelled}>
              {g.swatches.map((s) => (
                <SwatchCard key={s.id} swatch={s} {...cardLook(session, calmDesign(session.state), s)} />
              ))}
            </TrayGroup>
          ))}
          {swatches.length <= 2 && <Palettes />}
        </div>
        <Recent />
        <div className="flex w-[216px] shrink-0 flex-col gap-1">
          <RecipeLine />
          <div className="grid grid-cols-2 gap-x-2 gap-y-0.5 text-[12px] leading-[18px]">
            <SpotLibrary />
            <LiftSlip />
            <ColoursSlip />
            <TidySlip />
          </div>
        </div>
      </div>
    </section>
  );
}

/** Six small sets to begin with, offered while the tray holds nothing but what every design has. */
function Palettes() {
  const session = useSession();
  return (
    <div role="group" aria-label="Small palettes to begin with" className="flex gap-1.5 border-l border-line pl-2">
      {SMALL_PALETTES.map((p) => (
        <button
          key={p.name}
          type="button"
          title={`Put ${p.colours.map((c) => c.name).join(', ')} into the tray`}
          className="flex h-full w-[86px] shrink-0 cursor-pointer flex-col overflow-hidden rounded-sm border border-edge bg-field p-0 text-left hover:border-accent"
          onClick={() => {
            session.commit(`Add the palette ${p.name}`, (d) => {
              for (const c of p.colours)
                addSwatch(d, {
                  id: session.newId(),
                  name: c.name,
                  kind: 'colour',
                  colour: { cmyk: c.cmyk },
                  group: p.name,
                });
            });
            session.say(
              `${p.name}: ${count(p.colours.length, 'colour')} are in the tray. Choose an object and click one.`,
            );
          }}
        >
          <span title={p.name} className="truncate px-1.5 pt-0.5 text-[12px] leading-4">
            {p.name}
          </span>
          <span aria-hidden className="flex min-h-0 w-full flex-1 px-1 pb-1">
            {p.colours.map((c) => (
              <span key={c.name} className="flex-1" style={{ background: session.palette.css({ cmyk: c.cmyk }) }} />
            ))}
          </span>
        </button>
      ))}
    </div>
  );
}

/** Type a name and its ink percentages, Enter, the next; or paste a whole list. */
function RecipeLine() {
  const session = useSession();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);

  const take = (source: string): boolean => {
    const read = readRecipes(source, session.design);
    const good = read.flatMap((r) => (r.ok ? [r.recipe] : []));
    const bad = read.find((r) => !r.ok);
    const { aim } = session.state;
    const ids = freeSelection(session);
    const reached = aimedNodes(session.design, ids, aim);
    const letters = chosenLetters(session);
    let last = '';
    if (good.length) {
      session.commit(
        good.length === 1 ? `Add ${good[0].name}` : `Add ${count(good.length, 'swatch', 'swatches')}`,
        (d) => {
          for (const r of good) {
            last = session.newId();
            addSwatch(d, { id: last, name: r.name, kind: 'colour', colour: r.colour });
          }
          // What is made goes to what is chosen; of a list, nothing does.
          if (good.length === 1 && reached.length) setColour(d, ids, aim, { swatch: last, tint: 1 }, letters);
        },
      );
      session.say(
        good.length === 1 && reached.length
          ? `Added ${good[0].name}: ${AIM_WORDS[aim].toLowerCase()} of ${count(reached.length, 'object')}.`
          : `Added ${good.map((r) => r.name).join(', ')}.`,
      );
    }
    setProblem(bad && !bad.ok ? (read.length > 1 ? `Line ${bad.line}: ${bad.message}` : bad.message) : null);
    return !bad && good.length > 0;
  };

  return (
    <div className="relative">
      <label htmlFor="recipe-line" className="mb-0.5 block text-[12px] leading-4 text-faint">
        Recipe line
      </label>
      <input
        id="recipe-line"
        className={`h-8 w-full rounded-sm border bg-field px-2 ${problem ? 'border-stop' : 'border-edge'}`}
        placeholder="pink, #0b3a5e, 100 72 8 20 ↵"
        title="A colour by name (pink, dark green), a screen colour (#0b3a5e), or a name and inks: Dusk 100 72 8 20"
        autoComplete="off"
        value={text}
        aria-invalid={problem !== null}
        aria-describedby={problem ? 'recipe-problem' : undefined}
        onChange={(e) => {
          setText(e.target.value);
          setProblem(null);
        }}
        onPaste={(e) => {
          const pasted = e.clipboardData.getData('text');
          if (!pasted.trim().includes('\n')) return;
          e.preventDefault();
          take(pasted);
        }}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Enter' && text.trim()) {
            if (take(text)) setText('');
          } else if (e.key === 'Escape') {
            setText('');
            setProblem(null);
          }
        }}
      />
      {problem && (
        <p
          id="recipe-problem"
          role="alert"
          className="absolute right-0 bottom-full m-0 mb-1 w-[300px] rounded-sm border border-stop bg-panel p-2 text-[12px] text-stop"
        >
          {problem}
        </p>
      )}
    </div>
  );
}
