'use client';
import type { Growing } from '@/core/edit/place';
import { isPlaced } from '@/core/model/paints';
import type { Design } from '@/core/model/schema';
import { withDescendants } from '@/core/model/tree';
import { shapeById } from '@/core/shapes/catalogue';
import { useBench, useSession } from '../session/context';
import { setGrowing } from '../session/settings';

const PARTS: readonly { readonly key: keyof Growing; readonly label: string; readonly says: string }[] = [
  { key: 'lines', label: 'Outlines', says: 'weights of outlines and their dashes' },
  { key: 'corners', label: 'Corners', says: 'radii of corners' },
  { key: 'paints', label: 'Gradients, patterns', says: 'gradients, pictures and patterns' },
  { key: 'effects', label: 'Shadow, depth', says: 'shadows and depths' },
];

/**
 * While something is chosen to be sized: what grows with it, and what keeps its measure. Only what it has is asked
 * about.
 */
export function GrowBar() {
  const session = useSession();
  const growing = useBench((s) => s.growing);
  const tool = useBench((s) => s.tool);
  const view = useBench((s) => s.view);
  const selection = useBench((s) => s.selection);
  const design = useBench((s) => s.design);
  if (tool !== 'select' || view !== 'work' || !selection.length) return null;
  const has = partsOf(design, selection);
  const shown = PARTS.filter((p) => has[p.key]);
  if (!shown.length) return null;
  return (
    <div
      role="group"
      aria-label="Grows when sized"
      className="absolute bottom-1 left-1 z-10 flex items-center gap-1.5 rounded-sm border border-line bg-panel px-2 py-1 text-[12px]"
    >
      <span className="text-faint">Sized with it:</span>
      {shown.map(({ key, label, says }) => (
        <button
          key={key}
          type="button"
          aria-pressed={growing[key]}
          title={`When an object is sized, ${says} ${growing[key] ? 'grow with it. Click to keep them as they are.' : 'stay as they are. Click to let them grow.'}`}
          className="cursor-pointer rounded-sm border border-edge bg-field px-1.5 aria-pressed:border-accent aria-pressed:font-semibold"
          onClick={() => setGrowing(session, { [key]: !growing[key] })}
        >
          {label}
        </button>
      ))}
    </div>
  );
}

/** So many objects of a large selection are looked at. */
const LOOKED_AT = 200;

function partsOf(design: Design, ids: readonly string[]): Growing {
  const found = { lines: false, corners: false, paints: false, effects: false };
  const all = ids.slice(0, LOOKED_AT).flatMap((id) => (design.nodes[id] ? withDescendants(design, id) : []));
  for (const id of all.slice(0, LOOKED_AT)) {
    const node = design.nodes[id];
    found.effects ||= (node.effects?.length ?? 0) > 0 || ('depth' in node && node.depth !== undefined);
    if ('corners' in node && node.corners) found.corners = true;
    if (
      node.kind === 'shape' &&
      shapeById(node.shape)?.params.some((p) => p.letter === 'r' && (node.knobs[p.id] ?? 0) > 0)
    )
      found.corners = true;
    if ('fills' in node) {
      found.lines ||= node.outlines.some((o) => o.paint.kind !== 'none');
      found.paints ||= [...node.fills, ...node.outlines.map((o) => o.paint)].some(isPlaced);
    }
  }
  return found;
}
