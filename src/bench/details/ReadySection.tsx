'use client';
import { boxIn } from '@/core/derive/box';
import { tryOut } from '@/core/edit/history';
import { scaleNodes, scalingAbout } from '@/core/edit/place';
import { isEmpty } from '@/core/geometry/rect';
import { nodesOf, parentMatrix } from '@/core/model/tree';
import { readyById } from '@/core/ready/catalogue';
import { remakeReady, valuesFor } from '@/core/ready/put';
import { ListChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { freeSelection } from '../session/commandDef';
import { useBench, usePlacedDesign, useSession } from '../session/context';

/** What of a ready-made can be set: its group is drawn anew with it, as large as it is. */
export function ReadySection() {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const [node] = nodesOf(design, selection);
  const ready = selection.length === 1 && node?.kind === 'group' && node.ready ? readyById(node.ready.id) : undefined;
  if (!ready?.dials.length || node.kind !== 'group') return null;
  const values = valuesFor(ready, node.ready!.values);
  const set = (label: string, id: string, value: number) => {
    if (!freeSelection(session).length) return;
    const { state, page, engines } = session;
    const making = { newId: session.newId, lab: session.palette.labOf.bind(session.palette) };
    const remake = (d: Parameters<typeof remakeReady>[0]) =>
      remakeReady(d, state.design, node.id, { ...values, [id]: value }, making);
    const measured = (d: typeof state.design) => boxIn(d, node.id, parentMatrix(d, page, node.id), engines.fonts);
    const was = measured(state.design);
    session.commit(label, (d) => {
      remake(d);
      // Drawn anew it is as large as at first: what it was scaled by since is done to it again.
      const now = measured(tryOut(state.design, remake));
      if (isEmpty(was) || isEmpty(now)) return;
      const k = (was.x1 - was.x0) / (now.x1 - now.x0);
      if (Math.abs(k - 1) > 0.02) scaleNodes(d, page, [node.id], scalingAbout(k, k, { x: now.x0, y: now.y0 }));
    });
  };
  return (
    <Section title="Ready-made">
      <p className="m-0 mb-2 text-[12px] text-faint">{ready.name}: set anew, it is drawn anew.</p>
      <div className="grid grid-cols-2 gap-2">
        {ready.dials.map((dial) =>
          dial.choices ? (
            <div key={dial.id} className="col-span-2">
              <ListChoice
                label={dial.label}
                value={String(values[dial.id])}
                groups={[{ name: '', options: dial.choices.map((label, i) => ({ value: String(i), label })) }]}
                onChange={(v) => set(dial.label, dial.id, Number(v))}
              />
            </div>
          ) : (
            <NumberField
              key={dial.id}
              label={dial.label}
              value={values[dial.id]}
              min={dial.min}
              max={dial.max}
              decimals={0}
              onCommit={(v) => set(dial.label, dial.id, Math.round(v))}
            />
          ),
        )}
      </div>
    </Section>
  );
}
