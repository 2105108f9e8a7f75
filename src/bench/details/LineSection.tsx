'use client';
import { useState } from 'react';
import { lengthOf } from '@/core/edit/fit';
import { putOnCircle, setAlong, setBend, straighten } from '@/core/edit/display';
import type { DesignDraft } from '@/core/edit/history';
import type { Along, Bend, BendKind, NodeOf } from '@/core/model/schema';
import { BENDS } from '@/core/model/textSchema';
import { firstLetters } from '@/core/model/textLooks';
import { nodesOf, pageMatrix } from '@/core/model/tree';
import { Button } from '@/ui/Button';
import { Check, ListChoice, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { COMMAND_TABLE, runCommand } from '../commands/commands';
import { makeAsHigh, makeAsLong } from '../commands/wordActions';
import { freeSelection } from '../session/commandDef';
import { useBench, usePlacedDesign, useSession } from '../session/context';

const BEND_WORDS: Record<BendKind, string> = {
  arch: 'Arch',
  dip: 'Dip',
  wave: 'Wave',
  climb: 'Climb',
  barrel: 'Barrel',
  waist: 'Waist',
  fan: 'Fan',
};

/** How display text runs: straight, on a circle or an outline, bent. */
export function LineSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const texts = nodesOf(design, selection).filter((n) => n.kind === 'displayText');
  const node = texts[0];
  // Words and an outline for them.
  if (node && COMMAND_TABLE['text.onOutline'].applies!(session))
    return (
      <Section title="Line">
        <div className="grid gap-2">
          <Button onClick={() => runCommand(session, 'text.onOutline')}>Put words on the outline</Button>
          <Button onClick={() => runCommand(session, 'text.matchObject')}>Make words as long as the other</Button>
        </div>
      </Section>
    );
  if (!node || texts.length !== selection.length) return null;
  const { along, bend } = node;
  const ids = () => freeSelection(session);
  const commit = (label: string, recipe: (d: DesignDraft) => void) => void session.commit(label, recipe);
  const put = (label: string, change: Partial<Along>) => commit(label, (d) => setAlong(d, ids(), change));
  const bent = (label: string, change: Partial<Bend>) => commit(label, (d) => setBend(d, ids(), change));
  const run = (v: 'straight' | 'circle' | 'bent') => {
    if (v === 'straight') commit('Straighten', (d) => straighten(d, ids(), session.engines.fonts));
    else if (v === 'circle')
      commit('Put on a circle', (d) => {
        straighten(d, ids(), session.engines.fonts);
        for (const id of ids()) putOnCircle(d, id, session.engines.fonts);
      });
    else bent('Bend', {});
  };
  return (
    <Section title="Line" rare>
      <div className="grid gap-2">
        <WordChoice
          label="How the words run"
          value={along ? ('radius' in along.line ? 'circle' : null) : bend ? 'bent' : 'straight'}
          options={[
            { value: 'straight', label: 'Straight' },
            { value: 'circle', label: 'On a circle' },
            { value: 'bent', label: 'Bent' },
          ]}
          onChange={run}
        />
        {along && <AlongFields along={along} put={put} unit={design.setup.unit} />}
        {bend && (
          <>
            <ListChoice
              label="Bend"
              value={bend.kind}
              groups={[{ name: '', options: BENDS.map((k) => ({ value: k, label: BEND_WORDS[k] })) }]}
              onChange={(kind) => bent('Bend', { kind })}
            />
            {(
              [
                ['Strength', 'strength'],
                ['Tilt across', 'tiltX'],
                ['Tilt up', 'tiltY'],
              ] as const
            ).map(([label, key]) => (
              <NumberField
                key={key}
                label={label}
                name={`Bend: ${label.toLowerCase()}`}
                suffix="%"
                value={(bend[key] ?? 0) * 100}
                min={-100}
                max={100}
                decimals={0}
                onPreview={(v) => session.preview(v === null ? null : (d) => setBend(d, ids(), { [key]: v / 100 }))}
                onCommit={(v) => bent(label, { [key]: v / 100 })}
              />
            ))}
          </>
        )}
        <LengthFields ids={texts.map((t) => t.id)} node={node} />
      </div>
    </Section>
  );
}

/** How long the words are, and what they may be made as long as. */
function LengthFields({ node, ids }: { node: NodeOf<'displayText'>; ids: readonly string[] }) {
  const session = useSession();
  const design = usePlacedDesign();
  const [by, setBy] = useState<'size' | 'tracking'>('size');
  const [of, setOf] = useState<'capitals' | 'small'>('capitals');
  const page = session.page;
  const m = pageMatrix(design, page, node.id);
  const length = lengthOf(design, node, session.engines.fonts) * Math.hypot(m[0], m[1]);
  const letters = firstLetters(design, design.stories[node.story]);
  const face = session.engines.fonts.instance(letters.face, letters.axes);
  const share = face ? (of === 'capitals' ? face.capHeight : face.xHeight) : 0;
  const high = letters.size * share * Math.hypot(m[2], m[3]);
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label="Length"
          unit={design.setup.unit}
          value={ids.length === 1 ? length : null}
          min={0.5}
          max={50_000}
          onCommit={(v) => makeAsLong(session, v, by, null)}
        />
        <WordChoice
          tight
          label="Length is made by"
          value={by}
          options={[
            { value: 'size', label: 'Size' },
            { value: 'tracking', label: 'Tracking' },
          ]}
          onChange={setBy}
        />
      </div>
      <Button
        onClick={() => {
          const { width, margins } = session.setup;
          makeAsLong(session, width - margins.left - margins.right, by, margins.left);
        }}
      >
        As long as between the margins
      </Button>
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label="Height"
          name={of === 'capitals' ? 'Height of the capitals' : 'Height of the x'}
          unit={design.setup.unit}
          value={ids.length === 1 ? high : null}
          min={0.1}
          max={10_000}
          onCommit={(v) => makeAsHigh(session, v, of)}
        />
        <WordChoice
          tight
          label="Height is measured of"
          value={of}
          options={[
            { value: 'capitals', label: 'Capitals' },
            { value: 'small', label: 'The x' },
          ]}
          onChange={setOf}
        />
      </div>
    </>
  );
}

function AlongFields({
  along,
  put,
  unit,
}: {
  along: Along;
  put: (label: string, change: Partial<Along>) => void;
  unit: 'mm' | 'cm' | 'in' | 'pt' | 'px';
}) {
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        {'radius' in along.line && (
          <NumberField
            label="Radius"
            unit={unit}
            value={along.line.radius}
            min={0.1}
            max={50_000}
            onCommit={(radius) => put('Radius', { line: { radius } })}
          />
        )}
        <NumberField
          label="Place"
          name="Where on the line the words stand"
          suffix="%"
          value={along.at * 100}
          min={-1000}
          max={1000}
          decimals={1}
          onCommit={(v) => put('Place on the line', { at: v / 100 })}
        />
        <NumberField
          label="Off it"
          name="Distance from the line"
          unit={unit}
          value={along.distance ?? 0}
          min={-5000}
          max={5000}
          onCommit={(distance) => put('Distance from the line', { distance })}
        />
      </div>
      <WordChoice
        tight
        label="What touches the line"
        value={along.touches ?? 'feet'}
        options={[
          { value: 'feet', label: 'Feet on it' },
          { value: 'middle', label: 'Middle on it' },
          { value: 'heads', label: 'Heads on it' },
        ]}
        onChange={(v) => put('What touches the line', { touches: v === 'feet' ? undefined : v })}
      />
      <div className="grid grid-cols-2 gap-x-2">
        <Check
          label="On the other side"
          checked={along.reversed ?? false}
          onChange={(on) =>
            put('Side of the line', {
              reversed: on || undefined,
              at: 'radius' in along.line ? 0.5 - along.at : 1 - along.at,
            })
          }
        />
        <Check
          label="Letters upright"
          checked={along.upright ?? false}
          onChange={(on) => put('Letters upright', { upright: on || undefined })}
        />
      </div>
    </>
  );
}
