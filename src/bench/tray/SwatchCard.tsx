'use client';
import { setGround } from '@/core/edit/masters';
import { aimsAtGround, groundSheet } from '../session/ground';
import { Pencil, TriangleAlert } from 'lucide-react';
import { memo, useState } from 'react';
import { firstGradient } from '@/core/edit/gradient';
import { localBox } from '@/core/derive/box';
import { aimedNodes } from '@/core/edit/aims';
import { overprintAfter, setPaint } from '@/core/edit/paint';
import { stepSwatch } from '@/core/edit/swatches';
import type { Palette } from '@/core/colour/palette';
import type { Design, Paint, Swatch } from '@/core/model/schema';
import { applyColour } from '../tools/colouring';
import { AIM_WORDS } from '../session/naming';
import { chosenLetters, count, freeSelection } from '../session/commandDef';
import { useSession } from '../session/context';
import { rampCss } from '../ramps/rampLook';
import { startCardDrag } from './cardDrag';
import { RecipeSlip } from './RecipeSlip';

const BARS = ['#009ee0', '#d5007f', '#e6cf00', '#1a1a1a'] as const;

/** The paint a card gives, keeping what the object's own geometry and overprint say. */
function paintOf(session: ReturnType<typeof useSession>, swatch: Swatch): (old: Paint, node: string) => Paint {
  return (old, node) => {
    const overprint = old.kind !== 'none' && old.overprint;
    if (swatch.kind === 'colour') {
      const colour = { swatch: swatch.id, tint: 1 };
      return { kind: 'colour', colour, overprint: overprintAfter(session.design, old, colour) };
    }
    if (old.kind === 'gradient') return { ...old, ramp: { swatch: swatch.id } };
    const box = localBox(session.design, session.design.nodes[node], session.engines.fonts);
    return { ...firstGradient('linear', box, [], overprint), ramp: { swatch: swatch.id } };
  };
}

interface Look {
  readonly css: string;
  /** Process inks 0…1, joined: a string, so that an unchanged card is not drawn again. */
  readonly inks: string | null;
  /** ΔE00 between what is meant and what prints, where it is too far. */
  readonly off: number | null;
  readonly standIn: boolean;
}

/** What a card shows, worked out beside it: only cards whose look changed are drawn again. */
export function cardLook(session: ReturnType<typeof useSession>, design: Design, swatch: Swatch): Look {
  const mixed =
    swatch.kind === 'ramp' ? swatch.stops.flatMap((x) => ('swatch' in x.colour ? [x.colour.swatch] : [])) : [];
  const on = [
    design.inks,
    design.profile,
    design.setup.medium,
    ...(mixed.length ? design.swatches.filter((s) => mixed.includes(s.id)) : []),
  ];
  const known = looks.get(swatch);
  if (known && known.on.length === on.length && known.on.every((x, i) => x === on[i])) return known.look;
  const look = workOut(session.palettes.get(design), design, swatch);
  looks.set(swatch, { on, look });
  return look;
}

/**
 * Looks by swatch, with what they depend on: while a slider moves only the cards that follow it are worked out anew.
 */
const looks = new WeakMap<Swatch, { readonly on: readonly unknown[]; readonly look: Look }>();

function workOut(palette: Palette, design: Design, swatch: Swatch): Look {
  if (swatch.kind === 'ramp') return { css: rampCss(palette, swatch), inks: null, off: null, standIn: false };
  const ref = { swatch: swatch.id, tint: 1 };
  const inkId = 'ink' in swatch.colour ? swatch.colour.ink : null;
  const reach = palette.screen ? null : palette.reach(swatch.colour);
  return {
    css: palette.css(ref),
    inks: palette.screen
      ? null
      : palette
          .mix(ref)
          .slice(0, 4)
          .map((v) => v.toFixed(3))
          .join(),
    off: reach?.beyond ? Math.round(reach.prints * 10) / 10 : null,
    standIn: inkId !== null && design.inks.some((i) => i.id === inkId && i.asStandIn),
  };
}

/** An upright card: name on top, colour field, four little bars up its edge; a spot ink is a tin; a ramp is wide. */
export const SwatchCard = memo(function SwatchCard({ swatch, css, inks, off, standIn }: { swatch: Swatch } & Look) {
  const session = useSession();
  const [open, setOpen] = useState(false);
  const spot = swatch.kind === 'colour' && 'ink' in swatch.colour;
  const mix = inks?.split(',').map(Number) ?? null;
  const numbers =
    (mix
      ? spot
        ? standIn
          ? 'spot ink, printed from its stand-in'
          : 'spot ink'
        : `C${Math.round(mix[0] * 100)} M${Math.round(mix[1] * 100)} Y${Math.round(mix[2] * 100)} K${Math.round(mix[3] * 100)}`
      : swatch.kind === 'ramp'
        ? count(swatch.stops.length, 'stop')
        : css) + (off === null ? '' : `, prints duller (ΔE00 ${off})`);

  const use = () => {
    if (swatch.kind === 'colour') {
      applyColour(session, { swatch: swatch.id, tint: 1 }, swatch.name);
      return;
    }
    const { aim } = session.state;
    const ids = freeSelection(session);
    if (aimsAtGround(session)) {
      const sheet = groundSheet(session).id;
      const paint: Paint = {
        kind: 'gradient',
        gradient: 'linear',
        ramp: { swatch: swatch.id },
        geometry: [0, 1, -1, 0, 0.5, 0],
        overprint: false,
      };
      session.commit(`Ground: ${swatch.name}`, (d) => setGround(d, sheet, paint));
      session.say(`Ground: ${swatch.name}. Its direction is in Details.`);
      return;
    }
    if (aim === 'shadow') {
      session.say('A shadow is of one colour: click a card that has one.');
      return;
    }
    if (!aimedNodes(session.design, ids, aim).length) {
      session.say('Choose an object first, then click a gradient for it.');
      return;
    }
    session.commit(`${AIM_WORDS[aim]}: ${swatch.name}`, (d) =>
      setPaint(d, ids, aim, paintOf(session, swatch), chosenLetters(session)),
    );
    session.say(`${AIM_WORDS[aim]}: ${swatch.name}. The Gradient tool moves it on the object.`);
  };

  return (
    <div
      data-swatch={swatch.id}
      className={`group relative h-full shrink-0 ${swatch.kind === 'ramp' ? 'w-[112px]' : 'w-[76px]'}`}
    >
      <button
        type="button"
        onClick={use}
        onPointerDown={(e) => e.button === 0 && startCardDrag(session, e, swatch, css, paintOf(session, swatch))}
        onKeyDown={(e) => {
          if (!e.altKey || (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight')) return;
          e.preventDefault();
          e.stopPropagation();
          session.commit('Move swatch', (d) => stepSwatch(d, swatch.id, e.key === 'ArrowLeft' ? -1 : 1));
        }}
        title={`${swatch.name} · ${numbers} · drag onto the sheet, or along the tray`}
        aria-label={`${swatch.name}, ${numbers}. Apply to the aim.`}
        className="flex h-full w-full touch-none flex-col overflow-hidden rounded-sm border border-edge bg-field p-0 text-left hover:border-accent"
      >
        <span className="flex w-full items-center gap-1 px-1.5 pt-0.5 text-[12px] leading-4">
          <span className="min-w-0 flex-1 truncate">{swatch.name}</span>
          {off !== null && <TriangleAlert size={11} aria-hidden className="shrink-0 text-warn" />}
        </span>
        <span className="flex min-h-0 w-full flex-1 gap-0.5 px-1 pb-1">
          {spot ? (
            <Tin colour={css} word={standIn ? 'as mix' : 'spot'} />
          ) : (
            <>
              {mix && (
                <span aria-hidden className="flex w-[18px] items-end gap-px bg-[#e6e6e6]">
                  {BARS.map((bar, i) => (
                    <span key={bar} style={{ height: `${mix[i] * 100}%`, background: bar }} className="w-1" />
                  ))}
                </span>
              )}
              <span className="flex-1 rounded-[2px] border border-black/10" style={{ background: css }} />
            </>
          )}
        </span>
        <span
          aria-hidden
          className="absolute inset-x-0 bottom-0 hidden truncate bg-[#1a1a1a] px-1 text-[11px] leading-4 text-white group-focus-within:block group-hover:block"
        >
          {mix && !spot
            ? mix
                .slice(0, 4)
                .map((v) => Math.round(v * 100))
                .join(' ')
            : numbers}
        </span>
      </button>
      <RecipeSlip swatch={swatch} open={open} onOpenChange={setOpen}>
        <button
          type="button"
          aria-label={`Edit ${swatch.name}`}
          title="Edit"
          className="absolute top-0.5 right-0.5 grid size-5 place-items-center rounded-sm border border-edge bg-panel opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 focus-visible:opacity-100"
        >
          <Pencil size={11} aria-hidden />
        </button>
      </RecipeSlip>
    </div>
  );
});

/** A spot ink's tin with its lid; the word says it too. */
export function Tin({ colour, word }: { colour: string; word: string }) {
  return (
    <svg viewBox="0 0 60 54" className="h-full w-full" aria-hidden>
      <path d="M10 12v30c0 4 9 7 20 7s20-3 20-7V12z" fill={colour} stroke="#8a8a8a" />
      <ellipse cx="30" cy="12" rx="20" ry="7" fill="#d2d2d2" stroke="#8a8a8a" />
      <ellipse cx="30" cy="12" rx="14" ry="4.4" fill={colour} stroke="#8a8a8a" strokeWidth="0.7" />
      <rect x="17" y="30" width="26" height="12" rx="2" fill="#ffffff" opacity="0.9" />
      <text x="30" y="39.5" fontSize={word.length > 4 ? 7 : 9.5} textAnchor="middle" fill="#1a1a1a">
        {word}
      </text>
    </svg>
  );
}
