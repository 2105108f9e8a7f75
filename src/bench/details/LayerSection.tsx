'use client';
import { useState } from 'react';
import { layersNamed, setLayers } from '@/core/edit/layers';
import { nodesOf } from '@/core/model/tree';
import { Check } from '@/ui/Choice';
import { Section } from '@/ui/Section';
import { useBench, usePlacedDesign, useSession } from '../session/context';

/** A layer: hidden, locked, for proof only; here, or on all pages that have one of its name. */
export function LayerSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const [everywhere, setEverywhere] = useState(true);
  const [node] = nodesOf(design, selection);
  if (selection.length !== 1 || node?.kind !== 'group' || !node.layer) return null;
  const alike = layersNamed(design, node.name);
  const ids = everywhere && alike.length > 1 ? alike : [node.id];
  const set = (label: string, change: Parameters<typeof setLayers>[2]) =>
    session.commit(label, (d) => setLayers(d, ids, change));
  return (
    <Section title="Layer">
      <div className="grid gap-2">
        {alike.length > 1 && (
          <Check
            label={`On all ${alike.length} pages that have “${node.name}”`}
            checked={everywhere}
            onChange={setEverywhere}
          />
        )}
        <Check
          label="Hidden"
          checked={node.hidden}
          onChange={(hidden) => set(hidden ? 'Hide the layer' : 'Show the layer', { hidden })}
        />
        <Check
          label="Locked"
          checked={node.locked}
          onChange={(locked) => set(locked ? 'Lock the layer' : 'Unlock the layer', { locked })}
        />
        <Check
          label="For proof only"
          hint="Shown while you work, and never printed: not on plates, not in PDF, SVG or PNG."
          checked={node.proof === true}
          onChange={(proof) => set(proof ? 'Layer for proof only' : 'Print the layer', { proof })}
        />
      </div>
    </Section>
  );
}
