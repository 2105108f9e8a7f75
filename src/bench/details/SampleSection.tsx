'use client';
import { WordChoice } from '@/ui/Choice';
import { Section } from '@/ui/Section';
import { AIM_WORDS } from '../session/naming';
import { useBench, useSession } from '../session/context';

/** What the Sample tool takes and where it goes, while it is in hand. */
export function SampleSection() {
  const session = useSession();
  const tool = useBench((s) => s.tool);
  const sample = useBench((s) => s.sample);
  const aim = useBench((s) => s.aim);
  const stop = useBench((s) => s.stop);
  if (tool !== 'sample') return null;
  const goal = stop === null ? `the ${AIM_WORDS[aim].toLowerCase()}` : `stop ${stop + 1}`;
  return (
    <Section title="Sample">
      <div className="grid gap-2">
        <WordChoice
          label="Take the colour"
          value={sample.take}
          options={[
            { value: 'look', label: 'As it looks' },
            { value: 'exact', label: 'Exact paint' },
          ]}
          onChange={(take) => session.set({ sample: { ...sample, take } })}
        />
        <WordChoice
          label="Give it to"
          value={sample.give}
          options={[
            { value: 'aim', label: 'The aim' },
            { value: 'swatch', label: 'A new swatch' },
          ]}
          onChange={(give) => session.set({ sample: { ...sample, give } })}
        />
        <p className="m-0 text-[12px] text-faint">
          {sample.take === 'look'
            ? 'Takes what the paper shows at the point, overprint and all.'
            : 'Takes the paint of the object under the point: its fill, its outline near the edge, the nearest stop of a gradient.'}{' '}
          {sample.give === 'aim' ? `It goes to ${goal} of what is chosen.` : 'It goes into the tray.'}
        </p>
      </div>
    </Section>
  );
}
