'use client';
import { memo, useMemo } from 'react';
import { FEW_COLOURS, coloursUsed, type UsedColour } from '@/core/scene/coloursUsed';
import { withDescendants } from '@/core/model/tree';
import { Button } from '@/ui/Button';
import { applyColour } from '../tools/colouring';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { colourName } from '../session/naming';
import { TraySlip } from './TraySlip';

/** Which colours the page, or what is chosen, really shows; each can be applied, or its objects chosen. */
export const ColoursSlip = memo(function ColoursSlip() {
  const session = useSession();
  const design = useBench((s) => s.design);
  useBench((s) => s.page);
  useBench((s) => s.fontsEpoch);
  const scene = session.restingScene(design);
  // The palette of what is kept: a preview must not recount.
  const palette = session.palettes.get(design);
  const all = useMemo(() => coloursUsed(scene, palette), [scene, palette]);
  return (
    <TraySlip opens="Colours in use" word={`${count(all.length, 'colour')} in use`} title="Colours in use" width={340}>
      <Used all={all} />
    </TraySlip>
  );
});

/** The list, made when the slip opens. */
function Used({ all }: { all: readonly UsedColour[] }) {
  const session = useSession();
  const design = useBench((s) => s.design);
  const selection = useBench((s) => s.selection);
  const palette = session.palettes.get(design);
  const shown = selection.length
    ? coloursUsed(
        session.restingScene(design),
        palette,
        new Set(selection.flatMap((id) => (design.nodes[id] ? withDescendants(design, id) : []))),
      )
    : all;
  return (
    <>
      <p className="mt-0 mb-2">
        {selection.length ? 'What is chosen' : 'This page'} uses {count(shown.length, 'colour')}.
      </p>
      {shown.length > FEW_COLOURS && (
        <p className="mt-0 mb-2 text-[12px] text-faint">
          A mark keeps to about three colours, so that it can be printed anywhere. If this is one, it has gone past
          that.
        </p>
      )}
      <ul className="m-0 max-h-72 list-none overflow-auto p-0">
        {shown.map((u, i) => {
          const name = colourName(design, u.colour);
          const own = !('swatch' in u.colour);
          return (
            <li key={i} className="flex items-center gap-2 border-b border-line py-1 last:border-b-0">
              <button
                type="button"
                aria-label={`Apply ${name}`}
                title="Apply to the aim"
                className="size-6 shrink-0 rounded-sm border border-edge p-0"
                style={{ background: palette.css(u.colour) }}
                onClick={() => applyColour(session, u.colour, name)}
              />
              <span className="min-w-0 flex-1 truncate">
                {name}
                {own && !('ink' in u.colour) && <span className="text-faint"> · not in the tray</span>}
              </span>
              <Button
                kind="quiet"
                aria-label={`Choose the ${count(u.nodes.length, 'object')} with ${name}`}
                onClick={() => {
                  session.leave();
                  session.select(
                    u.nodes.filter((n) => design.nodes[n]),
                    { stop: null },
                  );
                }}
              >
                {count(u.nodes.length, 'object')}
              </Button>
            </li>
          );
        })}
      </ul>
      {shown.length === 0 && <p className="m-0 text-faint">No colour is used yet.</p>}
    </>
  );
}
