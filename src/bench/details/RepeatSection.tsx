'use client';
import { arrangedAs, evenStep, setArrangement, tooManyCopies, type ArrangementKind } from '@/core/edit/repeat';
import { localBox } from '@/core/derive/box';
import { copiesIn } from '@/core/model/copies';
import { MOST_COPIES, type Arrangement, type NodeOf } from '@/core/model/schema';
import { transformRect, unionAll } from '@/core/geometry/rect';
import { Button } from '@/ui/Button';
import { Check, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { plainSelection } from '../tools/plain';
import { repeatSelection } from '../commands/copying';
import { freeSelection } from '../session/commandDef';
import { useBench, usePlacedDesign, useSession } from '../session/context';
import { enterHolder } from '../tools/select';

const KINDS: readonly { readonly value: ArrangementKind; readonly label: string }[] = [
  { value: 'row', label: 'Row' },
  { value: 'grid', label: 'Grid' },
  { value: 'ring', label: 'Ring' },
];

/** Copies that follow the thing they are of: how many, how far, how turned. */
export function RepeatSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const ids = freeSelection(session);
  const node = selection.length === 1 ? design.nodes[selection[0]] : undefined;
  if (node?.kind === 'repeat') return <Arranged node={node} locked={!ids.length} />;
  if (!ids.length) return null;
  return (
    <Section title="Step and repeat">
      <div className="flex gap-1.5">
        {KINDS.map((k) => (
          <Button key={k.value} className="flex-1" onClick={() => repeatSelection(session, k.value)}>
            {k.label}
          </Button>
        ))}
      </div>
    </Section>
  );
}

function Arranged({ node, locked }: { node: NodeOf<'repeat'>; locked: boolean }) {
  const session = useSession();
  const design = usePlacedDesign();
  const { unit } = design.setup;
  const a = node.arrangement;
  const { page } = session;
  const allowed = (next: Arrangement) => !tooManyCopies(design, page, node.children, copiesIn(next));
  const show = (next: Arrangement | null) =>
    session.preview(
      next && copiesIn(next) <= MOST_COPIES && allowed(next) ? (d) => setArrangement(d, node.id, next) : null,
    );
  const put = (next: Arrangement, label = 'Step and repeat') => {
    if (copiesIn(next) > MOST_COPIES || !allowed(next))
      session.say(
        `That would be more than ${MOST_COPIES.toLocaleString('en')} copies in all. Choose a lower count.`,
        'warn',
      );
    else session.commit(label, (d) => setArrangement(d, node.id, next));
  };
  const number = (
    label: string,
    value: number,
    make: (v: number) => Arrangement,
    more: {
      unit?: typeof unit;
      suffix?: string;
      min?: number;
      max?: number;
      decimals?: number;
      step?: number;
      name?: string;
    } = {},
  ) => (
    <NumberField
      label={label}
      value={value}
      disabled={locked}
      {...more}
      onPreview={(v) => show(v === null ? null : make(v))}
      onCommit={(v) => put(make(v))}
    />
  );
  const whole = (v: number) => Math.max(1, Math.round(v));
  const counted = { min: 1, max: MOST_COPIES, decimals: 0 };
  return (
    <Section title="Step and repeat">
      <div className="grid gap-2">
        <WordChoice
          label="Laid out as"
          value={a.kind}
          options={KINDS}
          disabled={locked}
          onChange={(kind) =>
            put(
              arrangedAs(
                a,
                kind,
                unionAll(
                  node.children.map((id) =>
                    transformRect(
                      design.nodes[id].transform,
                      localBox(design, design.nodes[id], session.engines.fonts),
                    ),
                  ),
                ),
              ),
            )
          }
        />
        <div className="grid grid-cols-2 gap-2">
          {a.kind === 'row' && (
            <>
              {number('Count', a.count, (v) => ({ ...a, count: whole(v) }), counted)}
              <span />
              {number('Right', a.step.x, (x) => ({ ...a, step: { ...a.step, x } }), {
                unit,
                name: 'Step to the right',
              })}
              {number('Down', a.step.y, (y) => ({ ...a, step: { ...a.step, y } }), { unit, name: 'Step down' })}
            </>
          )}
          {a.kind === 'grid' && (
            <>
              {number('Columns', a.columns, (v) => ({ ...a, columns: whole(v) }), counted)}
              {number('Rows', a.rows, (v) => ({ ...a, rows: whole(v) }), counted)}
              {number('Right', a.across.x, (x) => ({ ...a, across: { ...a.across, x } }), {
                unit,
                name: 'Step to the right',
              })}
              {number('Down', a.down.y, (y) => ({ ...a, down: { ...a.down, y } }), { unit, name: 'Step down' })}
              {number('Shift', a.down.x, (x) => ({ ...a, down: { ...a.down, x } }), {
                unit,
                name: 'Shift of every row',
              })}
            </>
          )}
          {a.kind === 'ring' && (
            <>
              {number(
                'Count',
                a.count,
                (v) => ({
                  ...a,
                  count: whole(v),
                  ...(Math.abs(a.step * a.count - 360) < 1e-6 && { step: evenStep(whole(v)) }),
                }),
                counted,
              )}
              {number('Step', a.step, (step) => ({ ...a, step }), { suffix: '°', decimals: 3 })}
              {number('Middle X', a.centre.x, (x) => ({ ...a, centre: { ...a.centre, x } }), {
                unit,
                name: 'Middle of the ring, X',
              })}
              {number('Y', a.centre.y, (y) => ({ ...a, centre: { ...a.centre, y } }), {
                unit,
                name: 'Middle of the ring, Y',
              })}
            </>
          )}
          {number('Turn', a.turn ?? 0, (turn) => ({ ...a, turn }), {
            suffix: '°',
            decimals: 2,
            name: 'Turn of every copy',
          })}
          {number('Size', (a.scale ?? 1) * 100, (v) => ({ ...a, scale: Math.min(10, Math.max(0.1, v / 100)) }), {
            suffix: '%',
            decimals: 2,
            min: 10,
            max: 1000,
            name: 'Size of every next copy',
          })}
        </div>
        {a.kind === 'ring' && (
          <div className="flex items-center justify-between gap-2">
            <Check
              label="Copies stay upright"
              checked={a.upright === true}
              disabled={locked}
              onChange={(upright) => put({ ...a, upright })}
            />
            <Button
              disabled={locked || Math.abs(a.step * a.count - 360) < 1e-6}
              onClick={() => put({ ...a, step: evenStep(a.count) }, 'Spread round the circle')}
            >
              All round
            </Button>
          </div>
        )}
        <div className="flex flex-wrap gap-1.5">
          <Button onClick={() => enterHolder(session, node.id, null)}>Work inside</Button>
          <Button onClick={() => plainSelection(session)} disabled={locked}>
            Make plain
          </Button>
        </div>
      </div>
    </Section>
  );
}
