'use client';
import { Pencil } from 'lucide-react';
import { useState } from 'react';
import { firstGradient } from '@/core/edit/gradient';
import { localBox } from '@/core/edit/box';
import { aimedNodes, setPaint } from '@/core/edit/paint';
import type { Paint, Swatch } from '@/core/model/schema';
import { AIM_WORDS, applyColour, count, freeSelection } from '../session/commands';
import { useSession } from '../session/context';
import { rampCss } from '../details/RampEditor';
import { startCardDrag } from './cardDrag';
import { RecipeSlip } from './RecipeSlip';

const BARS = ['#009ee0', '#d5007f', '#e6cf00', '#1a1a1a'] as const;

/** The paint a card gives, keeping what the object's own geometry and overprint say. */
function paintOf(session: ReturnType<typeof useSession>, swatch: Swatch): (old: Paint, node: string) => Paint {
  return (old, node) => {
    const overprint = old.kind !== 'none' && old.overprint;
    if (swatch.kind === 'colour') return { kind: 'colour', colour: { swatch: swatch.id, tint: 1 }, overprint };
    if (old.kind === 'gradient') return { ...old, ramp: { swatch: swatch.id } };
    const box = localBox(session.design, session.design.nodes[node], session.shop.fonts);
    return { ...firstGradient('linear', box, [], overprint), ramp: { swatch: swatch.id } };
  };
}

/** An upright card: name on top, colour field, four little bars up its edge; a spot ink is a tin; a ramp is wide. */
export function SwatchCard({ swatch }: { swatch: Swatch }) {
  const session = useSession();
  const [open, setOpen] = useState(false);
  const { design, palette } = session;
  const spot = swatch.kind === 'colour' && 'ink' in swatch.colour;
  const css = swatch.kind === 'colour' ? palette.css({ swatch: swatch.id, tint: 1 }) : rampCss(session, swatch.stops);
  const mix = swatch.kind === 'colour' && !palette.screen ? palette.mix({ swatch: swatch.id, tint: 1 }) : null;
  const numbers = mix ? (spot ? 'spot ink' : `C${Math.round(mix[0] * 100)} M${Math.round(mix[1] * 100)} Y${Math.round(mix[2] * 100)} K${Math.round(mix[3] * 100)}`) : swatch.kind === 'ramp' ? count(swatch.stops.length, 'stop') : css;

  const use = () => {
    if (swatch.kind === 'colour') {
      applyColour(session, { swatch: swatch.id, tint: 1 }, swatch.name);
      return;
    }
    const { aim } = session.state;
    const ids = freeSelection(session);
    if (aim === 'outline' || aim === 'letterOutline' || !aimedNodes(design, ids, aim).length) {
      session.say('A gradient goes on the fill of an object. Choose one and aim at its fill.');
      return;
    }
    session.commit(`${AIM_WORDS[aim]}: ${swatch.name}`, (d) => setPaint(d, ids, aim, paintOf(session, swatch)));
    session.say(`${AIM_WORDS[aim]}: ${swatch.name}. The Gradient tool moves it on the object.`);
  };

  return (
    <div className={`group relative h-full shrink-0 ${swatch.kind === 'ramp' ? 'w-[112px]' : 'w-[76px]'}`}>
      <button
        type="button"
        onClick={use}
        onPointerDown={(e) => e.button === 0 && startCardDrag(session, e, swatch.name, css, paintOf(session, swatch))}
        title={`${swatch.name} · ${numbers}`}
        aria-label={`${swatch.name}, ${numbers}. Apply to the aim.`}
        className="flex h-full w-full touch-none flex-col overflow-hidden rounded-sm border border-edge bg-field p-0 text-left hover:border-accent"
      >
        <span className="block w-full truncate px-1.5 pt-1 pb-0.5 text-[12px] leading-4">{swatch.name}</span>
        <span className="flex min-h-0 w-full flex-1 gap-0.5 px-1 pb-1">
          {spot ? (
            <Tin colour={css} />
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
        <span aria-hidden className="absolute inset-x-0 bottom-0 hidden truncate bg-[#1a1a1a] px-1 text-[11px] leading-4 text-white group-focus-within:block group-hover:block">
          {mix && !spot ? mix.slice(0, 4).map((v) => Math.round(v * 100)).join(' ') : numbers}
        </span>
      </button>
      <RecipeSlip swatch={swatch} open={open} onOpenChange={setOpen}>
        <button type="button" aria-label={`Edit ${swatch.name}`} title="Edit" className="absolute top-0.5 right-0.5 grid size-5 place-items-center rounded-sm border border-edge bg-panel opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 focus-visible:opacity-100">
          <Pencil size={11} aria-hidden />
        </button>
      </RecipeSlip>
    </div>
  );
}

/** A spot ink's tin with its lid; the word says it too. */
export function Tin({ colour }: { colour: string }) {
  return (
    <svg viewBox="0 0 60 54" className="h-full w-full" aria-hidden>
      <path d="M10 12v30c0 4 9 7 20 7s20-3 20-7V12z" fill={colour} stroke="#8a8a8a" />
      <ellipse cx="30" cy="12" rx="20" ry="7" fill="#d2d2d2" stroke="#8a8a8a" />
      <ellipse cx="30" cy="12" rx="14" ry="4.4" fill={colour} stroke="#8a8a8a" strokeWidth="0.7" />
      <rect x="17" y="30" width="26" height="12" rx="2" fill="#ffffff" opacity="0.9" />
      <text x="30" y="39.5" fontSize="9.5" textAnchor="middle" fill="#1a1a1a">
        spot
      </text>
    </svg>
  );
}
