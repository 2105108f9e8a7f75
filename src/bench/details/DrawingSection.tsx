'use client';
import { WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { useBench, useSession } from '../session/context';
import { finishPen } from '../tools/pen';

/** How the pen and the hand draw, while one of them is out. */
export function DrawingSection() {
  const session = useSession();
  const tool = useBench((s) => s.tool);
  const penMode = useBench((s) => s.penMode);
  const freehand = useBench((s) => s.freehand);
  if (tool === 'pen')
    return (
      <Section title="Pen">
        <WordChoice
          label="How the pen draws"
          tight
          value={penMode}
          options={[
            { value: 'handles', label: 'Lines and curves' },
            { value: 'through', label: 'Through points' },
            { value: 'polygon', label: 'Polygon' },
          ]}
          onChange={(mode) => {
            finishPen(session);
            session.set({ penMode: mode });
          }}
        />
      </Section>
    );
  if (tool !== 'freehand') return null;
  const set = (change: Partial<typeof freehand>) => session.set({ freehand: { ...freehand, ...change } });
  return (
    <Section title="Freehand">
      <div className="grid gap-2">
        <WordChoice
          label="What the hand does"
          value={freehand.mode}
          options={[
            { value: 'draw', label: 'Draw' },
            { value: 'smooth', label: 'Smooth' },
          ]}
          onChange={(mode) => set({ mode })}
        />
        {freehand.mode === 'draw' ? (
          <NumberField
            label="Within"
            name="Keeps within"
            suffix="px"
            min={0.2}
            max={40}
            step={0.5}
            decimals={1}
            value={freehand.tolerance}
            onPreview={() => {}}
            onCommit={(tolerance) => set({ tolerance })}
          />
        ) : (
          <NumberField
            label="Brush"
            name="Radius of the brush"
            suffix="px"
            min={4}
            max={300}
            step={5}
            decimals={0}
            value={freehand.radius}
            onPreview={() => {}}
            onCommit={(radius) => set({ radius })}
          />
        )}
      </div>
    </Section>
  );
}
