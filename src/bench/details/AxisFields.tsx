'use client';
import { NumberField } from '@/ui/NumberField';
import { PlainSlider } from '@/ui/PlainSlider';
import { useBench, useSession } from '../session/context';
import type { TextTarget } from './textTarget';

/** Where a variable face stands on its axes: each by a slider and by its number. Nothing for another face. */
export function AxisFields({ target: { run, look, preview } }: { target: TextTarget }) {
  const session = useSession();
  // Its axes are known once it has come.
  useBench((s) => s.fontsEpoch);
  const axes = session.engines.fonts.get(run.face)?.axes ?? [];
  return axes.map(({ tag, name, min, max, default: usual }) => {
    const value = Math.min(max, Math.max(min, run.axes[tag] ?? usual));
    const at = (v: number) => ({ axes: { ...run.axes, [tag]: v } });
    const fine = max - min <= 10;
    return (
      <div key={tag} className="grid grid-cols-[minmax(0,112px)_1fr] items-center gap-2">
        <NumberField
          label={name}
          value={value}
          min={min}
          max={max}
          decimals={fine ? 2 : 0}
          onPreview={(v) => preview(v === null ? null : at(v))}
          onCommit={(v) => look(name, at(v))}
        />
        <PlainSlider
          label={name}
          ends={['', '']}
          min={min}
          max={max}
          step={fine ? (max - min) / 100 : 1}
          value={value}
          says={(v) => String(Math.round(v * 100) / 100)}
          onPreview={(v) => preview(v === null ? null : at(v))}
          onCommit={(v) => look(name, at(v))}
        />
      </div>
    );
  });
}
