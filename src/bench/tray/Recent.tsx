'use client';
import { memo } from 'react';
import { applyColour } from '../tools/colouring';
import { useBench, useSession } from '../session/context';
import { colourName } from '../session/naming';
import type { Colour, Design } from '@/core/model/schema';

/** Is what a colour refers to still in the design? */
const alive = (d: Design, c: Colour): boolean =>
  'swatch' in c
    ? d.swatches.some((s) => s.id === c.swatch && s.kind === 'colour')
    : !('ink' in c) || d.inks.some((i) => i.id === c.ink);

/** The colours given last, newest first. */
export const Recent = memo(function Recent() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const recent = useBench((s) => s.recent).filter((c) => alive(design, c));
  if (!recent.length) return null;
  const palette = session.palettes.get(design);
  return (
    <div role="group" aria-label="Recent colours" className="w-[98px] shrink-0">
      <div className="mb-0.5 text-[12px] leading-4 text-faint">Recent</div>
      <div className="grid grid-cols-4 gap-1">
        {recent.slice(0, 8).map((c, i) => {
          const name = colourName(design, c);
          return (
            <button
              key={i}
              type="button"
              title={name}
              aria-label={`Apply ${name} again`}
              className="h-[22px] rounded-sm border border-edge p-0"
              style={{ background: palette.css(c) }}
              onClick={() => applyColour(session, c, name)}
            />
          );
        })}
      </div>
    </div>
  );
});
