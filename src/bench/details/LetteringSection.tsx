'use client';
import { LANGUAGES } from '@/core/model/textSchema';
import { switchable } from '@/core/text/features';
import { Check, ListChoice, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { useSession } from '../session/context';
import { useTextTarget } from './textTarget';

const LANGUAGE_WORDS: Record<(typeof LANGUAGES)[number], string> = {
  en: 'English',
  de: 'German',
  fi: 'Finnish',
  fr: 'French',
  es: 'Spanish',
};

/** What is set of letters more rarely: case, height, lines, ligatures, the face's own features. */
export function LetteringSection() {
  const session = useSession();
  const target = useTextTarget();
  if (!target) return null;
  const { run, same, look, preview, letters } = target;
  const face = session.engines.fonts.get(run.face);
  return (
    <Section title={letters ? 'Lettering, letters chosen' : 'Lettering'} name="Lettering" rare>
      <div className="grid gap-2">
        <WordChoice
          tight
          label="Case"
          value={same('case') ? run.case : null}
          options={[
            { value: 'typed', label: 'As typed' },
            { value: 'capitals', label: 'Capitals' },
            { value: 'smallCapitals', label: 'Small capitals' },
          ]}
          onChange={(v) => look('Case', { case: v })}
        />
        <WordChoice
          tight
          label="Height of letters"
          value={same('position') ? run.position : null}
          options={[
            { value: 'normal', label: 'On the line' },
            { value: 'super', label: 'Raised' },
            { value: 'sub', label: 'Lowered' },
          ]}
          onChange={(position) => look('Height of letters', { position })}
        />
        <div className="grid grid-cols-2 gap-2">
          <NumberField
            label="Shift"
            name="Baseline shift"
            unit="pt"
            value={same('baselineShift') ? run.baselineShift : null}
            min={-10_000}
            max={10_000}
            onPreview={(v) => preview(v === null ? null : { baselineShift: v })}
            onCommit={(baselineShift) => look('Baseline shift', { baselineShift })}
          />
          <ListChoice
            hideLabel
            label="Language"
            value={same('language') ? run.language : null}
            groups={[{ name: '', options: LANGUAGES.map((l) => ({ value: l, label: LANGUAGE_WORDS[l] })) }]}
            onChange={(language) => look('Language', { language })}
          />
        </div>
        <div className="grid grid-cols-2 gap-x-2 gap-y-1">
          <Check
            label="Underlined"
            checked={run.underline}
            onChange={(underline) => look('Underline', { underline })}
          />
          <Check
            label="Struck through"
            checked={run.strike}
            onChange={(strike) => look('Strike through', { strike })}
          />
          <Check label="Kerning" checked={run.kerning} onChange={(kerning) => look('Kerning', { kerning })} />
          <Check label="Ligatures" checked={run.ligatures} onChange={(ligatures) => look('Ligatures', { ligatures })} />
          {face &&
            switchable(face.features).map(({ tag, name }) => (
              <Check
                key={tag}
                label={name}
                checked={(run.features[tag] ?? 0) > 0}
                onChange={(on) => {
                  const { [tag]: _, ...rest } = run.features;
                  look(name, { features: on ? { ...rest, [tag]: 1 } : rest });
                }}
              />
            ))}
        </div>
      </div>
    </Section>
  );
}
