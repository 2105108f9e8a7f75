'use client';
import { mastersOf, pageById } from '@/core/model/tree';
import { Trash2 } from 'lucide-react';
import { addGuides, changeGuide, guidesToMaster, removeGuides } from '@/core/edit/guides';
import { Button } from '@/ui/Button';
import { Check } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { runCommand } from '../commands/commands';
import { count } from '../session/commandDef';
import { useBench, usePlacedDesign, useSession } from '../session/context';
import { sheetName } from '../session/naming';
import { setSnapping } from '../session/settings';

/** The guides of the page, and what things snap to. */
export function GuidesSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const pageId = useBench((s) => s.page);
  const snapping = useBench((s) => s.snapping);
  const page = pageById(design, pageId);
  const guides = page?.guides ?? [];
  const masters = page ? mastersOf(design, page).toReversed() : [];
  const fixed = masters.reduce((sum, m) => sum + (m.guides?.length ?? 0), 0);
  const { unit, width, height } = session.setup;
  const add = (axis: 'x' | 'y') =>
    session.commit('Add a guide', (d) => addGuides(d, pageId, [{ axis, at: (axis === 'x' ? width : height) / 2 }]));
  return (
    <>
      <Section title="Guides">
        <div className="grid gap-1.5">
          {guides.length === 0 && (
            <p className="m-0 text-faint">Drag one out of a ruler, or add one and type its place.</p>
          )}
          {guides.map((g, i) => (
            <div key={i} className="flex items-center gap-1.5">
              <NumberField
                label={g.axis === 'x' ? 'X' : 'Y'}
                name={`Guide ${i + 1}, ${g.axis === 'x' ? 'upright' : 'level'}`}
                unit={unit}
                value={g.at}
                disabled={g.locked ?? false}
                onPreview={(v) => session.preview(v === null ? null : (d) => changeGuide(d, pageId, i, { at: v }))}
                onCommit={(v) => session.commit('Move a guide', (d) => changeGuide(d, pageId, i, { at: v }))}
              />
              <Check
                label="Lock"
                checked={g.locked ?? false}
                onChange={(locked) =>
                  session.commit(locked ? 'Lock a guide' : 'Free a guide', (d) => changeGuide(d, pageId, i, { locked }))
                }
              />
              <Button
                kind="quiet"
                aria-label={`Remove guide ${i + 1}`}
                title="Remove"
                disabled={g.locked ?? false}
                onClick={() => session.commit('Remove a guide', (d) => removeGuides(d, pageId, (_, k) => k === i))}
              >
                <Trash2 size={13} aria-hidden />
              </Button>
            </div>
          ))}
          {fixed > 0 && (
            <p className="m-0 text-[12px] text-faint">
              {count(fixed, 'guide')} of {masters.map((m) => sheetName(design, m)).join(' and ')}{' '}
              {fixed === 1 ? 'lies' : 'lie'} here too.
            </p>
          )}
          {guides.length > 0 &&
            masters.slice(0, 1).map((m) => (
              <Button
                key={m.id}
                onClick={() => session.commit('Guides to the master', (d) => guidesToMaster(d, pageId, m.id))}
              >
                Give them to every page of {sheetName(design, m)}
              </Button>
            ))}
          <div className="grid grid-cols-2 gap-1.5">
            <Button onClick={() => add('x')}>Add upright</Button>
            <Button onClick={() => add('y')}>Add level</Button>
            {guides.length > 0 && (
              <Button onClick={() => runCommand(session, 'guides.lock')}>
                {guides.every((g) => g.locked) ? 'Free all' : 'Lock all'}
              </Button>
            )}
            {guides.length > 0 && <Button onClick={() => runCommand(session, 'guides.clear')}>Remove all</Button>}
          </div>
        </div>
      </Section>
      <Section title="Snap to">
        <div className="grid gap-1.5">
          <Check
            label="Edges and middles"
            checked={snapping.edges}
            onChange={(edges) => setSnapping(session, { edges })}
          />
          <Check
            label="Nodes, outlines and crossings"
            checked={snapping.nodes}
            onChange={(nodes) => setSnapping(session, { nodes })}
          />
          <Check
            label="Equal gaps and sizes"
            checked={snapping.spacing}
            onChange={(spacing) => setSnapping(session, { spacing })}
          />
          <Check label="Guides" checked={snapping.guides} onChange={(on) => setSnapping(session, { guides: on })} />
          <div className="flex items-center gap-2">
            <Check label="Grid of" checked={snapping.grid} onChange={(grid) => setSnapping(session, { grid })} />
            <div className="w-28">
              <NumberField
                label=""
                name="Step of the grid"
                unit={unit}
                min={0.1}
                value={snapping.step}
                onPreview={() => {}}
                onCommit={(step) => setSnapping(session, { step })}
              />
            </div>
          </div>
          <p className="m-0 text-[12px] text-faint">Ctrl or Cmd held while dragging suspends all of it.</p>
        </div>
      </Section>
    </>
  );
}
