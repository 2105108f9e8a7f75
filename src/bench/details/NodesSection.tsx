'use client';
import { useEffect, useEffectEvent, useState } from 'react';
import type { NodeAlign, NodeSpread } from '@/core/edit/nodes';
import { nodeCount } from '@/core/edit/smoothing';
import type { NodeForm } from '@/core/geometry/nodes';
import { Button } from '@/ui/Button';
import { WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { mm, formatLength } from '@/core/units/length';
import {
  addNodes,
  alignNodes,
  breakNodes,
  chosenEnds,
  deleteChosenNodes,
  joinNodes,
  kindOfNodes,
  piecesOfNodes,
  reverseNodes,
  simplifyPaths,
} from '../commands/nodes';
import { count } from '../session/commandDef';
import { useBench, usePlacedDesign, useSession } from '../session/context';
import { later } from '../session/later';
import { openPaths, spotsOf } from '../tools/nodeSpots';

const KINDS: readonly { value: NodeForm; label: string }[] = [
  { value: 'corner', label: 'Corner' },
  { value: 'smooth', label: 'Smooth' },
  { value: 'symmetric', label: 'Symmetric' },
];
const ALIGN: readonly { value: NodeAlign; label: string }[] = [
  { value: 'left', label: 'Left' },
  { value: 'middle', label: 'Middle' },
  { value: 'right', label: 'Right' },
  { value: 'top', label: 'Top' },
  { value: 'centre', label: 'Centre' },
  { value: 'foot', label: 'Foot' },
];
const SPREAD: readonly { value: NodeSpread; label: string }[] = [
  { value: 'across', label: 'Spread across' },
  { value: 'down', label: 'Spread down' },
];

/** What can be done to the nodes that are chosen, and to the lines they lie on. */
export function NodesSection() {
  const session = useSession();
  const design = usePlacedDesign();
  useBench((s) => s.nodes);
  const tool = useBench((s) => s.tool);
  const selection = useBench((s) => s.selection);
  const paths = openPaths(session);
  if (!paths.length || tool !== 'nodes') return null;
  const all = paths.reduce((n, p) => n + nodeCount(p.contours), 0);
  const chosen = spotsOf(session).nodes.filter((n) => n.chosen);
  const kinds = new Set(chosen.map((n) => n.kind));
  const none = chosen.length === 0;
  const ends = chosenEnds(session).length;
  const rules = new Set(
    paths.map((p) => (design.nodes[p.id].kind === 'path' ? (design.nodes[p.id] as { fillRule: string }).fillRule : '')),
  );
  return (
    <Section title="Nodes">
      <div className="grid gap-2">
        <p className="m-0 text-faint">
          {none
            ? `${count(all, 'node')}. Click one, or drag a box round several.`
            : `${chosen.length} of ${count(all, 'node')} chosen.`}
        </p>
        <WordChoice
          label="Kind of node"
          value={kinds.size === 1 ? [...kinds][0] : null}
          options={KINDS}
          disabled={none}
          onChange={(k) => kindOfNodes(session, k)}
        />
        <div className="grid grid-cols-3 gap-1.5">
          <Button disabled={none} onClick={() => piecesOfNodes(session, 'line')}>
            To line
          </Button>
          <Button disabled={none} onClick={() => piecesOfNodes(session, 'curve')}>
            To curve
          </Button>
          <Button disabled={none} onClick={() => addNodes(session)}>
            Add
          </Button>
          <Button disabled={none} onClick={() => deleteChosenNodes(session)}>
            Delete
          </Button>
          <Button disabled={none} onClick={() => breakNodes(session)}>
            Break
          </Button>
          <Button onClick={() => reverseNodes(session)}>Reverse</Button>
        </div>
        {ends === 2 && (
          <div className="grid grid-cols-2 gap-1.5">
            <Button onClick={() => joinNodes(session, 'meet')}>Join in the middle</Button>
            <Button onClick={() => joinNodes(session, 'line')}>Join by a line</Button>
          </div>
        )}
        {chosen.length > 1 && (
          <div className="grid grid-cols-3 gap-1.5" role="group" aria-label="Align nodes">
            {ALIGN.map((a) => (
              <Button key={a.value} onClick={() => alignNodes(session, a.value)}>
                {a.label}
              </Button>
            ))}
          </div>
        )}
        {chosen.length > 2 && (
          <div className="grid grid-cols-2 gap-1.5">
            {SPREAD.map((a) => (
              <Button key={a.value} onClick={() => alignNodes(session, a.value)}>
                {a.label}
              </Button>
            ))}
          </div>
        )}
        <Simplify key={selection.join()} />
        <WordChoice
          label="What counts as inside"
          value={rules.size === 1 ? ([...rules][0] as 'nonZero' | 'evenOdd') : null}
          options={[
            { value: 'nonZero', label: 'All filled' },
            { value: 'evenOdd', label: 'Overlaps open' },
          ]}
          onChange={(fillRule) =>
            session.commit('Fill rule', (d) => {
              for (const p of paths) {
                const n = d.nodes[p.id];
                if (n.kind === 'path') n.fillRule = fillRule;
              }
            })
          }
        />
      </div>
    </Section>
  );
}

/** Fewer nodes within a tolerance; how many there were and would be is shown before it is done. */
function Simplify() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const selection = useBench((s) => s.selection);
  const [tolerance, setTolerance] = useState(mm(0.2));
  const [found, setFound] = useState<{ readonly before: number; readonly after: number } | null>(null);
  const find = useEffectEvent(() => {
    const { before, after } = simplifyPaths(session, tolerance / mm(1));
    setFound({ before, after });
  });
  // A long path takes a while: it is asked when it rests, never while it is drawn.
  useEffect(() => later(find), [design, selection, tolerance]);
  return (
    <div className="flex items-center gap-1.5">
      <div className="w-[120px] shrink-0">
        <NumberField
          label="Within"
          name="Simplify within"
          unit="mm"
          min={mm(0.001)}
          max={mm(50)}
          step={0.05}
          decimals={3}
          value={tolerance}
          onPreview={() => {}}
          onCommit={setTolerance}
        />
      </div>
      <Button
        className="flex-1"
        disabled={!found || found.after >= found.before}
        onClick={() => {
          const made = simplifyPaths(session, tolerance / mm(1));
          if (session.commit('Simplify', made.recipe)) {
            session.set({ nodes: [] });
            session.say(
              `Simplified: ${made.before} nodes before, ${made.after} now, within ${formatLength(tolerance, 'mm', 3)}.`,
            );
          }
        }}
      >
        {found ? `Simplify ${found.before} → ${found.after}` : 'Simplify'}
      </Button>
    </div>
  );
}
