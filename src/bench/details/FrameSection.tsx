'use client';
import { insetsOf } from '@/core/derive/frame';
import type { DesignDraft } from '@/core/edit/history';
import type { NodeOf } from '@/core/model/schema';
import { nodesOf } from '@/core/model/tree';
import { Button } from '@/ui/Button';
import { Check, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { COMMAND_TABLE, runCommand } from '../commands/commands';
import { freeSelection } from '../session/commandDef';
import { useBench, usePlacedDesign, useSession } from '../session/context';

type Frame = NodeOf<'textFrame'>;
type FrameDraft = Extract<DesignDraft['nodes'][string], { kind: 'textFrame' }>;
const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const SIDE_WORDS = { top: 'Top', right: 'Right', bottom: 'Foot', left: 'Left' } as const;

/**
 * How words lie in their frame: where in its height, in how many columns, how far off each edge; and where they run on.
 */
export function FrameSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const frames = nodesOf(design, selection).filter((n): n is Frame => n.kind === 'textFrame');
  const node = frames[0];
  if (!node || frames.length !== selection.length) return null;
  const { unit } = design.setup;
  const insets = insetsOf(node);
  const boxes = frames.every((f) => !f.window);
  const change = (label: string, to: (n: FrameDraft) => unknown) =>
    void session.commit(label, (d) => {
      for (const id of freeSelection(session)) {
        const n = d.nodes[id];
        if (n.kind === 'textFrame') to(n);
      }
    });
  const applies = (id: 'text.runOn' | 'text.cutThread') => COMMAND_TABLE[id].applies!(session);
  // Two frames are mostly chosen for that.
  if (applies('text.runOn'))
    return (
      <Section title="Frame of words">
        <Button onClick={() => runCommand(session, 'text.runOn')}>Run words on into the next frame</Button>
      </Section>
    );
  return (
    <Section title="Frame of words" name="Frame of words" rare>
      <div className="grid gap-2">
        {boxes && (
          <>
            <WordChoice
              tight
              label="Where words stand in the height"
              value={node.placing ?? 'top'}
              options={[
                { value: 'top', label: 'Top' },
                { value: 'middle', label: 'Middle' },
                { value: 'foot', label: 'Foot' },
                { value: 'spread', label: 'Spread' },
              ]}
              onChange={(v) =>
                change('Place in the height', (n) => {
                  if (v === 'top') delete n.placing;
                  else n.placing = v as 'middle' | 'foot' | 'spread';
                })
              }
            />
            <div className="grid grid-cols-2 gap-2">
              <NumberField
                label="Columns"
                value={node.columns?.count ?? 1}
                min={1}
                max={20}
                decimals={0}
                onCommit={(v) =>
                  change('Columns', (n) => {
                    const count = Math.round(v);
                    if (count < 2) delete n.columns;
                    else n.columns = { count, gutter: n.columns?.gutter ?? 12 };
                  })
                }
              />
              <NumberField
                label="Gutter"
                unit={unit}
                value={node.columns?.gutter ?? 0}
                min={0}
                max={5000}
                disabled={!node.columns}
                onCommit={(gutter) =>
                  change('Gutter', (n) => {
                    if (n.columns) n.columns.gutter = gutter;
                  })
                }
              />
              {SIDES.map((side) => (
                <NumberField
                  key={side}
                  label={SIDE_WORDS[side]}
                  name={`Inset: ${SIDE_WORDS[side].toLowerCase()}`}
                  unit={unit}
                  value={insets[side]}
                  min={0}
                  max={5000}
                  onCommit={(v) =>
                    change('Inset', (n) => {
                      const next = { ...insetsOf(n as Frame), [side]: v };
                      const same = SIDES.every((x) => next[x] === next.top);
                      n.inset = same ? next.top : next;
                    })
                  }
                />
              ))}
            </div>
          </>
        )}
        <div className="grid grid-cols-2 items-center gap-2">
          <Check
            label="Shrink to fit"
            checked={node.fit !== undefined}
            onChange={(on) => change('Shrink words to fit', (n) => (on ? (n.fit = { least: 6 }) : delete n.fit))}
          />
          {node.fit && (
            <NumberField
              label="Not below"
              name="Smallest size"
              unit="pt"
              value={node.fit.least}
              min={0.1}
              max={10_000}
              onCommit={(least) => change('Smallest size', (n) => (n.fit = { least }))}
            />
          )}
        </div>
        {boxes && <Button onClick={() => runCommand(session, 'text.fitFrame')}>Fit the frame to its words</Button>}
        {applies('text.cutThread') && (
          <Button onClick={() => runCommand(session, 'text.cutThread')}>Take out of the thread</Button>
        )}
      </div>
    </Section>
  );
}
