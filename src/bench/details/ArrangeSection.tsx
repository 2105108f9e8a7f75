'use client';
import { Fragment, useState } from 'react';
import type { AlignEdge, AlignTo, Axis } from '@/core/edit/align';
import { present, topmost } from '@/core/model/tree';
import { Button } from '@/ui/Button';
import { ListChoice, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { mm } from '@/core/units/length';
import { nameOf } from '../session/nameOf';
import { alignSelection, alignsTo, distributeSelection, keyObject } from '../commands/arranging';
import { runCommand } from '../commands/commands';
import { freeSelection } from '../session/commandDef';
import { useBench, useSession } from '../session/context';

/**
 * Across in the first row, down in the second; the middle of each says which it is to those who do not see the rows.
 */
const EDGES: readonly { value: AlignEdge; label: string; name: string }[] = [
  { value: 'left', label: 'Left', name: 'Left' },
  { value: 'middle', label: 'Middle', name: 'Middle, across' },
  { value: 'right', label: 'Right', name: 'Right' },
  { value: 'top', label: 'Top', name: 'Top' },
  { value: 'centre', label: 'Middle', name: 'Middle, down' },
  { value: 'foot', label: 'Foot', name: 'Foot' },
];
type By = 'start' | 'middle' | 'end' | 'gap';
const BY: readonly { value: By; label: string }[] = [
  { value: 'gap', label: 'Gaps' },
  { value: 'start', label: 'First edges' },
  { value: 'middle', label: 'Middles' },
  { value: 'end', label: 'Last edges' },
];

/** Lining up and spacing: with each other, with one that stays, with the page or its margins. */
export function ArrangeSection() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const selection = useBench((s) => s.selection);
  const alignTo = useBench((s) => s.alignTo);
  useBench((s) => s.keyObject);
  const [by, setBy] = useState<By>('gap');
  const [spacing, setSpacing] = useState(mm(5));
  const ids = present(design, freeSelection(session));
  if (!ids.length) return null;
  const several = topmost(design, session.page, ids).length > 1;
  const to: readonly { value: AlignTo; label: string }[] = several
    ? [
        { value: 'selection', label: 'Each other' },
        { value: 'key', label: 'One' },
        { value: 'page', label: 'Page' },
        { value: 'margins', label: 'Margins' },
      ]
    : [
        { value: 'page', label: 'Page' },
        { value: 'margins', label: 'Margins' },
      ];
  const even = (axis: Axis, label: string) => (
    <Button onClick={() => distributeSelection(session, axis, by)} className="px-1">
      {label}
    </Button>
  );
  const apart = (axis: Axis, label: string) => (
    <Button onClick={() => distributeSelection(session, axis, by, spacing)} className="px-1">
      {label}
    </Button>
  );
  return (
    <Section title="Line up">
      <div className="grid gap-2">
        <WordChoice
          label="Line up with"
          tight
          value={several ? alignTo : alignsTo(session)}
          options={to}
          onChange={(v) => session.set({ alignTo: v })}
        />
        {several && alignTo === 'key' && (
          <ListChoice
            label="Stays"
            value={keyObject(session)}
            groups={[
              {
                name: '',
                options: selection
                  .filter((id) => design.nodes[id])
                  .map((id) => ({ value: id, label: nameOf(design, design.nodes[id]) })),
              },
            ]}
            onChange={(id) => session.set({ keyObject: id })}
          />
        )}
        <div className="grid grid-cols-[auto_1fr_1fr_1fr] items-center gap-1.5" role="group" aria-label="Line up by">
          {EDGES.map((e, i) => (
            <Fragment key={e.value}>
              {i % 3 === 0 && <span className="text-[12px] text-faint">{i ? 'Down' : 'Across'}</span>}
              <Button className="px-1" aria-label={e.name} onClick={() => alignSelection(session, e.value)}>
                {e.label}
              </Button>
            </Fragment>
          ))}
        </div>
        {several && (
          <>
            <ListChoice label="Space" value={by} groups={[{ name: '', options: BY }]} onChange={setBy} />
            <div className="grid grid-cols-2 gap-1.5">
              {even('x', 'Evenly across')}
              {even('y', 'Evenly down')}
            </div>
            <div className="grid grid-cols-[1fr_auto_auto] gap-1.5">
              <NumberField
                label="Apart"
                name="Spacing"
                unit={design.setup.unit}
                value={spacing}
                onPreview={() => {}}
                onCommit={setSpacing}
              />
              {apart('x', 'Across')}
              {apart('y', 'Down')}
            </div>
          </>
        )}
        {several && (
          <Button title="As large as the first that was chosen" onClick={() => runCommand(session, 'size.same')}>
            Same size
          </Button>
        )}
        <Button onClick={() => runCommand(session, 'guides.round')}>Guides round it</Button>
      </div>
    </Section>
  );
}
