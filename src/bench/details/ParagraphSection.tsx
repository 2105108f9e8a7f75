'use client';
import type { ParagraphSet, TabStop } from '@/core/model/schema';
import type { Unit } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { Check, ListChoice, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { COMMAND_TABLE, runCommand } from '../commands/commands';
import { usePlacedDesign, useSession } from '../session/context';
import { useTextTarget } from './textTarget';

/**
 * What is set of paragraphs more rarely: how leading is measured, the space round them, indents, what stays together.
 */
export function ParagraphSection() {
  const session = useSession();
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
  const onGrid = COMMAND_TABLE['text.ontoGrid'].applies!(session);
  const offGrid = COMMAND_TABLE['text.offGrid'].applies!(session);
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
        {onGrid && <Button onClick={() => runCommand(session, 'text.ontoGrid')}>Set words on the baseline grid</Button>}
        {offGrid && (
          <Button onClick={() => runCommand(session, 'text.offGrid')}>Take words off the baseline grid</Button>
        )}
        {node.kind === 'textFrame' && <FrameParagraph p={p} size={run.size} para={para} unit={unit} />}
      </div>
    </Section>
  );
}

type Para = (label: string, change: Partial<ParagraphSet>) => void;
type List = 'none' | 'bullets' | 'numbers';
type NumberStyle = Extract<ParagraphSet['list'], { kind: 'numbers' }>['style'];

const STYLE_WORDS: Record<NumberStyle, string> = {
  decimal: '1 2 3',
  lowerLetters: 'a b c',
  capitals: 'A B C',
  lowerRoman: 'i ii iii',
  capitalRoman: 'I II III',
};
const BULLETS = ['•', '–', '▪', '◦', '✓'];

/** What only paragraphs that are broken into lines have: lists, hyphens, a drop capital, stops. */
function FrameParagraph({ p, size, para, unit }: { p: ParagraphSet; size: number; para: Para; unit: Unit }) {
  const { list } = p;
  const make = (kind: List): Partial<ParagraphSet> => {
    if (kind === 'none') return { list: null, indentLeft: 0, indentFirst: 0 };
    // The words of a list hang beside its marks.
    const hang = { indentLeft: Math.max(p.indentLeft, size * 1.5), indentFirst: -size * 1.5 };
    return kind === 'bullets'
      ? { list: { kind, mark: '•' }, ...hang }
      : { list: { kind, style: 'decimal', after: '.' }, ...hang };
  };
  return (
    <>
      <WordChoice
        tight
        label="List"
        value={list?.kind ?? 'none'}
        options={[
          { value: 'none', label: 'No list' },
          { value: 'bullets', label: 'Bullets' },
          { value: 'numbers', label: 'Numbers' },
        ]}
        onChange={(kind) => para('List', make(kind))}
      />
      {list?.kind === 'bullets' && (
        <WordChoice
          label="Bullet"
          value={list.mark}
          options={BULLETS.map((b) => ({ value: b, label: b }))}
          onChange={(mark) => para('Bullet', { list: { kind: 'bullets', mark } })}
        />
      )}
      {list?.kind === 'numbers' && (
        <div className="grid grid-cols-2 gap-2">
          <ListChoice
            hideLabel
            label="Style of numbers"
            value={list.style}
            groups={[
              {
                name: '',
                options: (Object.keys(STYLE_WORDS) as NumberStyle[]).map((v) => ({ value: v, label: STYLE_WORDS[v] })),
              },
            ]}
            onChange={(style) => para('Style of numbers', { list: { ...list, style } })}
          />
          <NumberField
            label="From"
            name="Begin numbers with"
            value={list.start ?? null}
            min={0}
            max={100_000}
            decimals={0}
            onCommit={(v) => para('Begin numbers', { list: { ...list, start: Math.round(v) } })}
          />
        </div>
      )}
      <div className="grid grid-cols-2 gap-x-2 gap-y-1">
        <Check label="Hyphens" checked={p.hyphenate} onChange={(hyphenate) => para('Hyphens', { hyphenate })} />
        <Check
          label="Even edges"
          checked={p.opticalMargin}
          onChange={(opticalMargin) => para('Even edges', { opticalMargin })}
        />
        <Check
          label="Drop capital"
          checked={p.dropCapital !== null}
          onChange={(on) => para('Drop capital', { dropCapital: on ? { lines: 3, letters: 1 } : null })}
        />
        <Check
          label="Right to left"
          checked={p.direction === 'rtl'}
          onChange={(on) => para('Direction', { direction: on ? 'rtl' : 'auto' })}
        />
      </div>
      {p.dropCapital && (
        <div className="grid grid-cols-2 gap-2">
          <NumberField
            label="Lines"
            name="Lines beside the drop capital"
            value={p.dropCapital.lines}
            min={2}
            max={20}
            decimals={0}
            onCommit={(v) => para('Drop capital', { dropCapital: { ...p.dropCapital!, lines: Math.round(v) } })}
          />
          <NumberField
            label="Letters"
            name="Letters of the drop capital"
            value={p.dropCapital.letters}
            min={1}
            max={100}
            decimals={0}
            onCommit={(v) => para('Drop capital', { dropCapital: { ...p.dropCapital!, letters: Math.round(v) } })}
          />
        </div>
      )}
      <Stops tabs={p.tabs} para={para} unit={unit} />
    </>
  );
}

const LEADERS = [
  { value: '', label: 'nothing' },
  { value: '.', label: 'dots' },
  { value: '_', label: 'a line' },
  { value: '-', label: 'dashes' },
] as const;

/** Tab stops, one a row. */
function Stops({ tabs, para, unit }: { tabs: readonly TabStop[]; para: Para; unit: Unit }) {
  const put = (next: readonly TabStop[]) => para('Tab stops', { tabs: next.toSorted((a, b) => a.at - b.at) });
  const change = (i: number, to: Partial<TabStop>) => put(tabs.map((t, k) => (k === i ? { ...t, ...to } : t)));
  return (
    <div className="grid gap-1">
      {tabs.map((t, i) => (
        <div key={i} className="grid grid-cols-[1fr_auto_auto_auto] gap-1">
          <NumberField
            label="Tab"
            name={`Tab stop ${i + 1}`}
            unit={unit}
            value={t.at}
            min={0}
            max={20_000}
            onCommit={(at) => change(i, { at })}
          />
          <ListChoice
            hideLabel
            label={`Tab stop ${i + 1} sets words`}
            value={t.align}
            groups={[
              {
                name: '',
                options: [
                  { value: 'left', label: 'left' },
                  { value: 'middle', label: 'middle' },
                  { value: 'right', label: 'right' },
                  { value: 'decimal', label: 'decimal' },
                ],
              },
            ]}
            onChange={(align) => change(i, { align })}
          />
          <ListChoice
            hideLabel
            label={`Before tab stop ${i + 1} stands`}
            value={t.leader ?? ''}
            groups={[{ name: '', options: LEADERS }]}
            onChange={(leader) => {
              const { leader: _, ...rest } = t;
              put(tabs.map((x, k) => (k === i ? { ...rest, ...(leader && { leader }) } : x)));
            }}
          />
          <Button aria-label={`Remove tab stop ${i + 1}`} onClick={() => put(tabs.filter((_, k) => k !== i))}>
            ×
          </Button>
        </div>
      ))}
      <Button onClick={() => put([...tabs, { at: (tabs[tabs.length - 1]?.at ?? 0) + 72, align: 'left' }])}>
        Add a tab stop
      </Button>
    </div>
  );
}
