'use client';
import type { AlikeBy } from '@/core/edit/alike';
import { Button } from '@/ui/Button';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { useBench, useSession } from '../session/context';
import { selectAlike } from '../commands/selecting';

const WAYS: readonly { by: readonly AlikeBy[]; label: string }[] = [
  { by: ['fill'], label: 'Fill' },
  { by: ['outline'], label: 'Outline' },
  { by: ['fill', 'outline'], label: 'Both' },
  { by: ['weight'], label: 'Weight' },
  { by: ['kind'], label: 'Kind' },
  { by: ['opacity'], label: 'Opacity' },
  { by: ['name'], label: 'Name' },
];

/** Everything on the page that is like what is chosen. */
export function AlikeSection() {
  const session = useSession();
  const tolerance = useBench((s) => s.alikeTolerance);
  const selection = useBench((s) => s.selection);
  if (!selection.length) return null;
  return (
    <Section title="Select alike">
      <div className="grid grid-cols-4 gap-1.5">
        {WAYS.map((w) => (
          <Button
            key={w.label}
            className="px-1"
            title={`Select everything with the same ${w.by.join(' and ')}`}
            onClick={() => selectAlike(session, w.by)}
          >
            {w.label}
          </Button>
        ))}
        <NumberField
          label="ΔE"
          name="Colours alike within ΔE"
          min={0}
          max={50}
          step={0.5}
          decimals={1}
          value={tolerance}
          onPreview={() => {}}
          onCommit={(v) => session.set({ alikeTolerance: v })}
        />
      </div>
    </Section>
  );
}
