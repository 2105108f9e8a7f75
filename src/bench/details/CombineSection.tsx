'use client';
import { useMemo } from 'react';
import { openGaps, type CombineOp } from '@/core/edit/combine';
import { present, topmost, pageById } from '@/core/model/tree';
import { Button } from '@/ui/Button';
import { Check, WordChoice } from '@/ui/Choice';
import { Section } from '@/ui/Section';
import { combineSelection, changeCombination, gapRepairs, gapWords } from '../commands/combining';
import { plainSelection } from '../tools/plain';
import { runCommand } from '../commands/commands';
import { freeSelection } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { enterHolder } from '../tools/select';

const OPS: readonly { readonly value: CombineOp; readonly label: string; readonly title: string }[] = [
  { value: 'union', label: 'Union', title: 'All of them as one' },
  { value: 'subtract', label: 'Subtract', title: 'The front ones cut out of the back one' },
  { value: 'intersect', label: 'Intersect', title: 'Only what all share' },
  { value: 'exclude', label: 'Exclude', title: 'What they share cut out' },
  { value: 'divide', label: 'Divide', title: 'Cut along each other, every piece kept' },
];

/** Several objects: the ways to combine them. A combination: how it is made, and what can be done with it. */
export function CombineSection() {
  const session = useSession();
  // What is kept, not what a gesture shows: a gap is looked for once things rest.
  const design = useBench((s) => s.design);
  const selection = useBench((s) => s.selection);
  const page = useBench((s) => s.page);
  const free = present(design, freeSelection(session));
  const sheet = pageById(design, page);
  const one = selection.length === 1 ? design.nodes[selection[0]] : undefined;
  const union = one?.kind === 'combination' ? one.id : null;
  const gaps = useMemo(() => (union ? openGaps(design, union, session.engines.fonts) : []), [session, design, union]);
  if (one?.kind === 'combination') {
    return (
      <Section title="Combination">
        <div className="grid gap-2">
          <WordChoice
            label="How they are combined"
            tight
            value={one.op}
            options={OPS}
            onChange={(op) => changeCombination(session, [one.id], { op })}
            disabled={!free.length}
          />
          {one.op === 'subtract' && (
            <Check
              label="Take the back from the front"
              checked={one.reversed === true}
              onChange={(reversed) => changeCombination(session, [one.id], { reversed })}
              disabled={!free.length}
            />
          )}
          {gaps.length > 0 && (
            <div role="note" className="rounded-sm border border-warn p-2">
              <p className="m-0 mb-1.5">
                <b>Not one piece:</b> {gapWords(session, gaps)}.
              </p>
              <div className="flex gap-1.5">
                {gapRepairs(session, one.id, gaps).map((r) => (
                  <Button key={r.label} onClick={r.run}>
                    {r.label}
                  </Button>
                ))}
              </div>
            </div>
          )}
          <div className="flex flex-wrap gap-1.5">
            <Button onClick={() => enterHolder(session, one.id, null)}>Work inside</Button>
            <Button onClick={() => runCommand(session, 'object.ungroup')} disabled={!free.length}>
              Take apart
            </Button>
            <Button onClick={() => plainSelection(session)} disabled={!free.length}>
              Make plain
            </Button>
          </div>
        </div>
      </Section>
    );
  }
  if (!sheet || topmost(design, sheet, free).length < 2) return null;
  return (
    <Section title="Combine">
      <div className="grid grid-cols-3 gap-1.5">
        {OPS.map((o) => (
          <Button key={o.value} title={o.title} className="px-1" onClick={() => combineSelection(session, o.value)}>
            {o.label}
          </Button>
        ))}
      </div>
    </Section>
  );
}
