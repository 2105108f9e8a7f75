'use client';
import { hasCorners, roundsItself, setCorners, treatedCorners, type CornerNode } from '@/core/edit/corners';
import type { DesignDraft } from '@/core/edit/history';
import { canHoldText, dialOf, setKnobs } from '@/core/edit/window';
import type { Corner } from '@/core/model/schema';
import { nodesOf } from '@/core/model/tree';
import { shapeById, valuesOf } from '@/core/shapes/catalogue';
import type { ShapeParam } from '@/core/shapes/types';
import { WordChoice } from '@/ui/Choice';
import { Button } from '@/ui/Button';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { runCommand } from '../commands/commands';
import { freeSelection } from '../session/commandDef';
import { writeInShape } from '../tools/editing';
import { useBench, usePlacedDesign, useSession } from '../session/context';

/** The inner measures of dialled shapes of one kind. */
export function ShapeSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const copied = useBench((s) => s.copiedKnobs);
  const { unit } = design.setup;
  const first = selection.length ? dialOf(design.nodes[selection[0]]) : null;
  if (!first || !nodesOf(design, selection).every((n) => dialOf(n)?.shape === first.shape)) return null;
  const shapes = nodesOf(design, selection).map((n) => dialOf(n)!);
  const def = shapeById(shapes[0].shape);
  if (!def?.params.length) return null;
  const values = shapes.map((n) => valuesOf(def, n.knobs));
  const ids = freeSelection(session);
  const set = (keys: readonly string[], v: number) => (d: DesignDraft) => {
    for (const id of ids) setKnobs(d.nodes[id], keys, v);
  };
  const shared = (key: string): number | null =>
    values.every((v) => v[key] === values[0][key]) ? values[0][key] : null;
  const corners = def.params.filter((p) => p.letter === 'r').map((p) => p.id);
  const allCorners =
    corners.length && corners.every((c) => shared(c) !== null && shared(c) === shared(corners[0]))
      ? shared(corners[0])
      : null;
  return (
    <Section title="Shape">
      <div className="grid grid-cols-2 gap-2">
        {corners.length > 0 && (
          <div className="col-span-2">
            <NumberField
              label="Corners"
              name="All corners"
              unit={unit}
              min={0}
              value={allCorners}
              onPreview={(v) => session.preview(v === null ? null : set(corners, v))}
              onCommit={(v) => session.commit('Corners', set(corners, v))}
            />
          </div>
        )}
        {def.params.map((p) => (
          <NumberField
            key={p.id}
            label={
              p.letter === 'r'
                ? p.label.replace(/(\w)\w* (\w)\w*/, (_, a: string, b: string) => a + b.toUpperCase())
                : p.label
            }
            name={p.label}
            {...(p.unit === 'length'
              ? { unit }
              : p.unit === 'angle'
                ? { suffix: '°' }
                : p.unit === 'ratio'
                  ? { suffix: '%' }
                  : {})}
            value={times(shared(p.id), whole(p))}
            min={p.min * whole(p)}
            max={p.max * whole(p)}
            decimals={p.unit === 'count' ? 0 : p.unit === 'length' ? 2 : 1}
            onPreview={(v) => session.preview(v === null ? null : set([p.id], v / whole(p)))}
            onCommit={(v) => session.commit(p.label, set([p.id], p.unit === 'count' ? Math.round(v) : v / whole(p)))}
          />
        ))}
      </div>
      <div className="mt-2 flex flex-wrap gap-1.5">
        <Button onClick={() => runCommand(session, 'knobs.reset')}>As it came</Button>
        <Button onClick={() => runCommand(session, 'knobs.copy')}>Copy measures</Button>
        {copied?.shape === first.shape && (
          <Button onClick={() => runCommand(session, 'knobs.give')}>Give measures</Button>
        )}
      </div>
    </Section>
  );
}

/** Shares are shown and typed in percent, as everywhere. */
const whole = (p: ShapeParam): number => (p.unit === 'ratio' ? 100 : 1);
const times = (v: number | null, by: number): number | null => (v === null ? null : v * by);

/** More corners than this are set together only. */
const EACH = 8;
/** The corners of more objects than this are not looked through each time one of them moves. */
const MOST = 500;

/** What is made of the corners of polygons, stars and paths; of a shape that rounds its own, what is made of them. */
export function CornersSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const { unit } = design.setup;
  if (selection.length > MOST) return null;
  const nodes = nodesOf(design, selection).filter((n): n is CornerNode => hasCorners(n));
  if (!nodes.length || nodes.length !== selection.length) return null;
  const ids = freeSelection(session);
  const own = nodes.every(roundsItself);
  const corners = nodes.map(treatedCorners);
  const kinds = new Set(corners.flat().map((c) => c.style.kind));
  const radii = new Set(corners.flat().map((c) => c.style.radius));
  const single = nodes.length === 1 && corners[0].length <= EACH && !own ? corners[0] : null;
  const set = (which: number | 'all', change: Partial<Corner>) => (d: DesignDraft) => setCorners(d, ids, which, change);
  const field = (label: string, name: string, which: number | 'all', value: number | null) => (
    <NumberField
      key={name}
      label={label}
      name={name}
      unit={unit}
      min={0}
      value={value}
      onPreview={(v) => session.preview(v === null ? null : set(which, { radius: v }), ids)}
      onCommit={(v) => session.commit('Corners', set(which, { radius: v }))}
    />
  );
  return (
    <Section title="Corners">
      <div className="grid gap-2">
        <WordChoice
          label="What is made of corners"
          value={kinds.size === 1 ? [...kinds][0] : null}
          options={[
            { value: 'round', label: 'Round' },
            { value: 'cut', label: 'Cut' },
            { value: 'scoop', label: 'Scooped' },
          ]}
          onChange={(kind) => session.commit('Corners', set('all', { kind }))}
        />
        {!own && field('All', 'Radius of all corners', 'all', radii.size === 1 ? [...radii][0] : null)}
        {single && (
          <div className="grid grid-cols-2 gap-2">
            {single.map((c, i) => field(`${i + 1}`, `Radius of corner ${i + 1}`, c.node, c.style.radius))}
          </div>
        )}
      </div>
    </Section>
  );
}

/** Words in a closed shape. */
export function WriteSection() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const selection = useBench((s) => s.selection);
  const node = selection.length === 1 ? design.nodes[selection[0]] : undefined;
  if (!node || !canHoldText(node)) return null;
  return (
    <Section title="Text">
      <Button
        className="w-full"
        disabled={!freeSelection(session).length}
        onClick={() => writeInShape(session, node.id)}
      >
        Write in this shape
      </Button>
    </Section>
  );
}
