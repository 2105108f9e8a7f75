'use client';
import { Check, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { usePlacedDesign } from '../session/context';
import { useTextTarget } from './textTarget';

/** What is set of paragraphs more rarely: how leading is measured, the space round them, indents, what stays together. */
export function ParagraphSection() {
  const design = usePlacedDesign();
  const target = useTextTarget();
  if (!target) return null;
  const { paragraph: p, run, para, line, story, node } = target;
  const { unit } = design.setup;
  const length = (label: string, key: 'spaceBefore' | 'spaceAfter' | 'indentLeft' | 'indentRight' | 'indentFirst') => (
    <NumberField
      label={label}
      unit={unit}
      value={p[key]}
      min={key === 'indentFirst' ? -5000 : 0}
      max={5000}
      onCommit={(v) => para(label, { [key]: v })}
    />
  );
  const relative = typeof p.leading === 'number';
  return (
    <Section title={line && story.paragraphs.length > 1 ? 'Paragraph, this one' : 'Paragraph'} name="Paragraph" rare>
      <div className="grid gap-2">
        <WordChoice
          tight
          label="Leading is"
          value={relative ? 'times' : 'points'}
          options={[
            { value: 'times', label: 'Times the size' },
            { value: 'points', label: 'In points' },
          ]}
          onChange={(v) => {
            if ((v === 'times') === relative) return;
            para('Leading', {
              leading:
                typeof p.leading === 'number'
                  ? { points: Math.round(p.leading * run.size * 10) / 10 }
                  : Math.min(10, Math.max(0.1, Math.round((p.leading.points / run.size) * 100) / 100)),
            });
          }}
        />
        <div className="grid grid-cols-2 gap-2">
          {length('Before', 'spaceBefore')}
          {length('After', 'spaceAfter')}
          {node.kind === 'textFrame' && (
            <>
              {length('Left in', 'indentLeft')}
              {length('Right in', 'indentRight')}
              {length('First line', 'indentFirst')}
              <NumberField
                label="Together"
                name="Lines kept together at the head and foot of a column"
                value={p.keepLines}
                min={1}
                max={10}
                decimals={0}
                onCommit={(keepLines) => para('Lines kept together', { keepLines: Math.round(keepLines) })}
              />
            </>
          )}
        </div>
        {node.kind === 'textFrame' && (
          <Check
            label="Reads from right to left"
            checked={p.direction === 'rtl'}
            onChange={(on) => para('Direction', { direction: on ? 'rtl' : 'auto' })}
          />
        )}
      </div>
    </Section>
  );
}
