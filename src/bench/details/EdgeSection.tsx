'use client';
import { useEffect, useState } from 'react';
import type { Recipe } from '@/core/edit/history';
import { addAllRound, hasEdge, offsetNodes, type EdgeUse } from '@/core/edit/offsetShape';
import type { LineJoin } from '@/core/geometry/stroke';
import type { Colour } from '@/core/model/schema';
import { nodesOf } from '@/core/model/tree';
import { mm } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { Check, ListChoice, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { count, freeSelection } from '../session/commandDef';
import { useBench, useSession } from '../session/context';

type Place = 'behind' | 'inFront' | 'instead';
interface Asked {
  readonly of: 'each' | 'all';
  readonly by: number;
  readonly steps: number;
  readonly join: LineJoin;
  readonly place: Place;
  readonly use: EdgeUse;
  readonly fillHoles: boolean;
}
const FIRST: Asked = {
  of: 'each',
  by: mm(3),
  steps: 1,
  join: 'round',
  place: 'behind',
  use: 'backing',
  fillHoles: true,
};

/**
 * Edges moved outwards or inwards as new shapes; or one edge all round everything chosen, as a backing, a cut line, a
 * white. Shown before it is made.
 */
export function EdgeSection() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const selection = useBench((s) => s.selection);
  const [asked, setAsked] = useState(FIRST);
  const [shownFor, setShownFor] = useState<readonly string[] | null>(null);
  const ids = freeSelection(session).filter((id) => design.nodes[id] && hasEdge(design.nodes[id]));
  // What was only shown goes with the selection it was for.
  useEffect(() => {
    if (shownFor && shownFor !== selection) {
      session.preview(null);
      setShownFor(null);
    }
  }, [session, selection, shownFor]);
  useEffect(() => () => session.preview(null), [session]);
  if (!ids.length || !nodesOf(design, ids).length) return null;

  const recipeFor =
    (a: Asked, made: (ids: readonly string[], failed: number) => void = () => {}): Recipe =>
    (d) => {
      const { fonts } = session.engines;
      if (a.of === 'each') {
        const done = offsetNodes(d, session.page, ids, a, session.newId, fonts);
        made(done.ids, done.failed);
      } else {
        const colour: Colour = design.setup.medium === 'screen' ? { rgb: [1, 1, 1] } : { cmyk: [0, 0, 0, 0] };
        const id = addAllRound(d, session.page, ids, { ...a, colour }, session.newId, fonts);
        made(id ? [id] : [], id ? 0 : 1);
      }
    };
  const show = (change: Partial<Asked>) => {
    const next = { ...asked, ...change };
    setAsked(next);
    session.preview(recipeFor(next));
    setShownFor(selection);
  };
  const drop = () => {
    session.preview(null);
    setShownFor(null);
  };
  const make = () => {
    let [got, failed]: [readonly string[], number] = [[], 0];
    session.preview(null);
    const all = asked.of === 'all';
    const label = all
      ? { backing: 'Backing', cutLine: 'Cut line', underlay: 'White underlay' }[asked.use]
      : 'Move the edge';
    const done = session.commit(
      label,
      recipeFor(asked, (x, n) => ([got, failed] = [x, n])),
    );
    setShownFor(null);
    if (!done || !got.length) {
      session.say('Nothing would be left at that distance, so nothing was made. Try a smaller one.', 'warn');
      return;
    }
    session.select([...got]);
    session.say(
      all
        ? {
            backing: 'Laid a backing behind them, in the colour of the paper.',
            cutLine: 'Drew a cut line all round, in a spot ink of that name that overprints.',
            underlay: 'Laid a white underlay, in a spot ink of that name that overprints.',
          }[asked.use]
        : failed
          ? `Made ${count(got.length, 'shape')}; of ${failed} nothing was left.`
          : `Made ${count(got.length, 'shape')}.`,
      failed ? 'warn' : 'plain',
    );
  };
  const { unit } = design.setup;
  return (
    <Section title="Edge" rare>
      <div className="grid grid-cols-2 gap-2">
        <div className="col-span-2">
          <WordChoice
            label="What gets an edge"
            value={asked.of}
            options={[
              { value: 'each', label: 'Each by itself' },
              { value: 'all', label: 'All round them' },
            ]}
            onChange={(of) => show({ of, ...(of === 'all' && asked.by <= 0 && { by: mm(3) }) })}
          />
        </div>
        <NumberField
          label="Away"
          name="How far the edge moves"
          unit={unit}
          value={asked.by}
          min={mm(-500)}
          max={mm(500)}
          step={0.5}
          onPreview={(by) => by !== null && session.preview(recipeFor({ ...asked, by }))}
          onCommit={(by) => show({ by })}
        />
        {asked.of === 'each' ? (
          <NumberField
            label="Steps"
            value={asked.steps}
            min={1}
            max={50}
            decimals={0}
            disabled={asked.place === 'instead'}
            onCommit={(v) => show({ steps: Math.round(v) })}
          />
        ) : (
          <Check label="Fill holes" checked={asked.fillHoles} onChange={(fillHoles) => show({ fillHoles })} />
        )}
        <div className="col-span-2">
          <WordChoice
            label="Corners of the edge"
            value={asked.join}
            options={[
              { value: 'miter', label: 'Pointed' },
              { value: 'round', label: 'Round' },
              { value: 'bevel', label: 'Cut' },
            ]}
            onChange={(join) => show({ join })}
          />
        </div>
        <div className="col-span-2">
          {asked.of === 'each' ? (
            <WordChoice
              label="Where the new shape lies"
              value={asked.place}
              options={[
                { value: 'behind', label: 'Behind' },
                { value: 'inFront', label: 'In front' },
                { value: 'instead', label: 'Instead' },
              ]}
              onChange={(place) => show({ place })}
            />
          ) : (
            <ListChoice
              label="As"
              value={asked.use}
              groups={[
                {
                  name: '',
                  options: [
                    { value: 'backing', label: 'a backing behind them' },
                    { value: 'cutLine', label: 'a line to cut along' },
                    { value: 'underlay', label: 'white under the inks' },
                  ],
                },
              ]}
              onChange={(use) => show({ use })}
            />
          )}
        </div>
        <Button kind={shownFor ? 'primary' : 'plain'} onClick={make}>
          Make it
        </Button>
        {shownFor && <Button onClick={drop}>Drop it</Button>}
      </div>
    </Section>
  );
}
