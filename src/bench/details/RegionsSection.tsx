'use client';
import { regionsIn } from '@/core/derive/regions';
import { hasRegions, setGap } from '@/core/edit/regions';
import { nodesOf } from '@/core/model/tree';
import { mm } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { runCommand } from '../commands/commands';
import { count } from '../session/commandDef';
import { useBench, usePlacedDesign, useSession } from '../session/context';

/** A group whose areas are coloured: which gaps count as closed, and the areas as shapes. */
export function RegionsSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const tool = useBench((s) => s.tool);
  const [node] = nodesOf(design, selection);
  if (selection.length !== 1 || !hasRegions(node)) return null;
  const { faces, bridges } = regionsIn(design, node, session.engines.fonts);
  const put = (gap: number) => (d: Parameters<typeof setGap>[0]) => setGap(d, node.id, gap);
  return (
    <Section title="Regions">
      <div className="grid gap-2">
        <p className="m-0">
          {count(faces.length, 'area')}, {node.regions!.areas.length} coloured
          {bridges.length ? `; ${count(bridges.length, 'gap')} closed` : ''}.
        </p>
        <NumberField
          label="Gaps up to"
          name="Gaps that count as closed"
          unit={design.setup.unit}
          min={0}
          max={mm(100)}
          step={0.5}
          value={node.regions!.gap ?? 0}
          onPreview={(v) => session.preview(v === null ? null : put(v))}
          onCommit={(v) => session.commit('Gaps that count as closed', put(v))}
        />
        <div className="flex flex-wrap gap-1.5">
          {tool !== 'regions' && <Button onClick={() => runCommand(session, 'tool.regions')}>Colour areas</Button>}
          <Button onClick={() => runCommand(session, 'regions.toShapes')}>Areas to shapes</Button>
        </div>
      </div>
    </Section>
  );
}
