'use client';
import { memo, useEffect, useState } from 'react';
import type { ExchangeSwatch } from '@/core/colour/exchange';
import type { Palette } from '@/core/colour/palette';
import { hexOf, type Triple } from '@/core/colour/spaces';
import { PURPOSES, type Purpose } from '@/core/colour/lift';
import { addExchanged, fromExchange, toExchange } from '@/core/edit/exchange';
import { withDescendants } from '@/core/model/tree';
import type { Design, OwnColour } from '@/core/model/schema';
import { colourName } from '../session/naming';
import type { LiftedColour } from '@/core/render/lifted';
import { Button } from '@/ui/Button';
import { WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { applyColour } from '../tools/colouring';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { keepLibrary, removeLibrary } from '../session/libraries';
import { TraySlip } from './TraySlip';

/** A few colours taken out of the page or of what is chosen; and the palette that were kept. */
export const LiftSlip = memo(function LiftSlip() {
  return (
    <TraySlip word="Lift a palette" title="Lifted palette" width={460}>
      <Lift />
      <Kept />
    </TraySlip>
  );
});

type From = 'page' | 'chosen';
/** The tray's name for it, where it has one. */
function nameOf(d: Design, c: OwnColour): string {
  const content = JSON.stringify(c);
  return d.swatches.find((s) => s.kind === 'colour' && JSON.stringify(s.colour) === content)?.name ?? colourName(d, c);
}

function Lift() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const page = useBench((s) => s.page);
  const selection = useBench((s) => s.selection);
  const [purpose, setPurpose] = useState<Purpose>('asSeen');
  const [number, setNumber] = useState(5);
  const [wanted, setWanted] = useState<From>('page');
  const [name, setName] = useState('');
  const [result, setResult] = useState<{ key: unknown; colours: readonly LiftedColour[] } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const from: From = selection.length ? wanted : 'page';

  useEffect(() => {
    let alive = true;
    const nodes =
      from === 'chosen' ? selection.flatMap((id) => (design.nodes[id] ? withDescendants(design, id) : [])) : null;
    // While sliders move nothing is lifted: it follows when they rest.
    const wait = setTimeout(() => {
      session.press.lift(page, nodes, { count: number, purpose }).then(
        (colours) => alive && setResult({ key: design, colours }),
        (e: unknown) => alive && setProblem(e instanceof Error ? e.message : String(e)),
      );
    }, 60);
    return () => {
      alive = false;
      clearTimeout(wait);
    };
  }, [session, design, page, selection, from, number, purpose]);

  const palette = session.palettes.get(design);
  // What was lifted from an earlier state may name inks that are gone.
  const colours = result?.key === design ? result.colours : null;
  const row = PURPOSES.find((p) => p.id === purpose)!;
  const title = name.trim() || `${row.name}, ${session.page.name || design.name}`;
  const asSwatches = (): ExchangeSwatch[] =>
    (colours ?? []).map((c) => ({ name: nameOf(design, c.colour), colour: toExchange(design, c.colour) }));
  return (
    <div className="grid gap-3">
      <div className="grid grid-cols-[1fr_110px] gap-2">
        {selection.length ? (
          <WordChoice
            label="Lift from"
            value={from}
            options={[
              { value: 'page', label: 'The whole page' },
              { value: 'chosen', label: `What is chosen (${selection.length})` },
            ]}
            onChange={setWanted}
          />
        ) : (
          <p className="m-0 self-center text-faint">From the whole page. Choose objects to lift from them.</p>
        )}
        <NumberField
          label="Colours"
          min={3}
          max={8}
          decimals={0}
          value={number}
          onCommit={(v) => setNumber(Math.round(v))}
        />
      </div>
      <div>
        <div className="mb-1 text-faint">Chosen for</div>
        <div role="radiogroup" aria-label="Chosen for" className="flex flex-wrap gap-1">
          {PURPOSES.map((p) => (
            <button
              key={p.id}
              type="button"
              role="radio"
              aria-checked={purpose === p.id}
              onClick={() => setPurpose(p.id)}
              className={`h-7 rounded-sm border px-2 ${purpose === p.id ? 'border-accent bg-accent font-semibold text-on-accent' : 'border-edge bg-field hover:bg-raised'}`}
            >
              {p.name}
            </button>
          ))}
        </div>
        <p className="mt-1 mb-0 text-[12px] text-faint">{row.says[0].toUpperCase() + row.says.slice(1)}.</p>
      </div>
      {problem ? (
        <p role="alert" className="m-0 text-stop">
          {problem}
        </p>
      ) : colours === null ? (
        <p role="status" className="m-0 text-faint">
          Lifting …
        </p>
      ) : colours.length === 0 ? (
        <p className="m-0 text-faint">There is no colour to lift here yet.</p>
      ) : (
        <>
          <Strip
            colours={colours.map((c) => ({
              colour: c.colour,
              css: palette.css(c.colour),
              name: nameOf(design, c.colour),
              note: `${Math.max(1, Math.round(c.share * 100))} %`,
            }))}
          />
          <div className="flex gap-2">
            <input
              aria-label="Name of the palette"
              placeholder={title}
              className="h-7 min-w-0 flex-1 rounded-sm border border-edge bg-field px-2"
              value={name}
              maxLength={80}
              onChange={(e) => setName(e.target.value)}
            />
            <Button
              onClick={() => {
                session.commit(
                  'Add a lifted palette',
                  (d) => void addExchanged(d, asSwatches(), [], session.newId, title.slice(0, 80)),
                );
                session.say(`Added ${count(colours.length, 'colour')} as the group “${title}”.`);
              }}
            >
              Add as a group
            </Button>
            <Button
              onClick={() =>
                void keepLibrary(session, 'palette', title, asSwatches()).then((kept) => {
                  if (kept) session.say(`“${kept.name}” is kept for every design.`);
                })
              }
            >
              Keep for every design
            </Button>
          </div>
        </>
      )}
    </div>
  );
}

function Strip({ colours }: { colours: readonly { colour: OwnColour; css: string; name: string; note?: string }[] }) {
  const session = useSession();
  return (
    <div
      className="flex overflow-hidden rounded-sm border border-edge"
      role="group"
      aria-label="Colours: press one to apply it"
    >
      {colours.map((c, i) => (
        <button
          key={i}
          type="button"
          title={`${c.name}: click to apply`}
          aria-label={`Apply ${c.name}`}
          onClick={() => applyColour(session, c.colour, c.name)}
          className="grid h-14 min-w-0 flex-1 content-end border-0 p-0 outline-offset-[-3px]"
          style={{ background: c.css }}
        >
          <span title={c.note ?? c.name} className="truncate bg-panel px-1 text-[11px] leading-4">
            {c.note ?? c.name}
          </span>
        </button>
      ))}
    </div>
  );
}

/** A spot ink that need not be in the design, at a strength. */
const lookOfTint = (palette: Palette, lab: Triple, tint: number): string =>
  hexOf(palette.press.look([0, 0, 0, 0], [{ table: palette.press.spotTable(lab), tint }]));

/** Palettes kept for every design. */
function Kept() {
  const session = useSession();
  const libraries = useBench((s) => s.libraries);
  const kept = libraries.filter((l) => l.kind === 'palette');
  if (!kept.length) return null;
  const { palette } = session;
  return (
    <div className="mt-4 border-t border-line pt-3">
      <h3 className="m-0 mb-2 font-semibold text-faint">Kept for every design</h3>
      <ul className="m-0 grid list-none gap-3 p-0">
        {kept.map((row) => (
          <li key={row.id}>
            <div className="mb-1 flex items-center gap-2">
              <span title={row.name} className="min-w-0 flex-1 truncate">
                {row.name}
              </span>
              <Button
                onClick={() => {
                  session.commit(
                    `Add ${row.name}`,
                    (d) => void addExchanged(d, row.swatches, [], session.newId, row.name.slice(0, 80)),
                  );
                  session.say(`Added ${count(row.swatches.length, 'colour')} as the group “${row.name}”.`);
                }}
                aria-label={`Add ${row.name} as a group`}
              >
                Add as a group
              </Button>
              <Button
                kind="quiet"
                onClick={() => void removeLibrary(session, row)}
                aria-label={`Throw ${row.name} away`}
              >
                Throw away
              </Button>
            </div>
            <div className="flex overflow-hidden rounded-sm border border-edge">
              {row.swatches.map((s, i) => {
                const own = 'spot' in s.colour ? null : s.colour;
                const css =
                  'spot' in s.colour ? lookOfTint(palette, s.colour.spot.lab, s.colour.tint) : palette.css(s.colour);
                return (
                  <button
                    key={i}
                    type="button"
                    aria-label={`Apply ${s.name} of ${row.name}`}
                    title={`${s.name}: click to apply`}
                    className="h-7 min-w-0 flex-1 border-0 p-0 outline-offset-[-3px]"
                    style={{ background: css }}
                    onClick={() => {
                      if (own) applyColour(session, own, s.name);
                      else {
                        // A spot ink has to be in the design before anything can be given it.
                        let colour: OwnColour | null = null;
                        session.commit(`Add ${s.name}`, (d) => {
                          colour = fromExchange(d, s.colour, session.newId);
                        });
                        if (colour) applyColour(session, colour, s.name);
                      }
                    }}
                  />
                );
              })}
            </div>
          </li>
        ))}
      </ul>
    </div>
  );
}
