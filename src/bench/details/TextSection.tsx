'use client';
import { useState } from 'react';
import { isText } from '@/core/derive/layout';
import type { DesignDraft } from '@/core/edit/history';
import { paragraphAt, runAt, setLineLook, setParagraphLook, setRunLook, type RunLook } from '@/core/edit/text';
import type { Design, Paragraph } from '@/core/model/schema';
import { nodesOf } from '@/core/model/tree';
import { FACES, faceName } from '@/core/text/faces';
import { ListChoice, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { freeSelection } from '../session/commandDef';
import { useBench, usePlacedDesign, useSession } from '../session/context';

const KINDS = [...new Set(FACES.map((f) => f.kind))];
const KIND_WORDS: Record<(typeof KINDS)[number], string> = {
  sans: 'Sans',
  condensed: 'Condensed',
  serif: 'Serif',
  slab: 'Slab',
  display: 'Display',
  script: 'Script',
  blackletter: 'Blackletter',
  mono: 'Typewriter',
};

/** Face, size, alignment, leading and tracking of the chosen texts, or of the letters chosen in the one being written. */
export function TextSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const editing = useBench((s) => s.editing);
  const [reach, setReach] = useState<'line' | 'all'>('line');
  const texts = nodesOf(design, selection).filter((n) => isText(n));
  if (!texts.length) return null;
  const node = texts[0];
  if (!isText(node)) return null;
  const story = design.stories[node.story];
  const inText = editing?.node === node.id ? editing : null;
  const letters = inText !== null && inText.anchor !== inText.focus;
  // With a caret alone, everything here reaches the line it stands in; or all lines, by choice.
  const line = inText !== null && !letters && reach === 'line';
  const run = inText ? runAt(story, Math.max(inText.anchor, inText.focus)) : story.paragraphs[0].runs[0];
  const paragraph = inText
    ? story.paragraphs[paragraphAt(story, Math.max(inText.anchor, inText.focus)).index]
    : story.paragraphs[0];
  const allRuns = texts.flatMap((n) => (isText(n) ? design.stories[n.story].paragraphs.flatMap((p) => p.runs) : []));
  const same = <K extends keyof RunLook>(key: K): boolean =>
    letters || line || new Set(allRuns.map((r) => JSON.stringify(r[key]))).size === 1;

  const eachStory =
    (change: (s: Design['stories'][string], from: number, to: number, whole: boolean) => Design['stories'][string]) =>
    (d: DesignDraft) => {
      for (const id of freeSelection(session)) {
        const n = session.design.nodes[id];
        if (!n || !isText(n)) continue;
        const [from, to] =
          inText && n.id === node.id
            ? [Math.min(inText.anchor, inText.focus), Math.max(inText.anchor, inText.focus)]
            : [0, 0];
        d.stories[n.story] = change(
          session.state.design.stories[n.story],
          from,
          to,
          !letters && !line,
        ) as DesignDraft['stories'][string];
      }
    };
  const looked = (change: RunLook) =>
    eachStory((s, from, to) =>
      line ? setLineLook(s, to, change) : letters ? setRunLook(s, from, to, change) : setRunLook(s, 0, 0, change),
    );
  const look = (label: string, change: RunLook) => session.commit(label, looked(change));
  const preview = (change: RunLook | null) => session.preview(change && looked(change));
  const para = (label: string, change: Partial<Omit<Paragraph, 'runs'>>) =>
    session.commit(
      label,
      eachStory((s, from, to, whole) => setParagraphLook(s, from, to, change, whole)),
    );

  return (
    <Section
      title={letters ? 'Text, chosen letters' : line && story.paragraphs.length > 1 ? 'Text, this line' : 'Text'}
      name="Text"
    >
      <div className="grid gap-2">
        {inText && !letters && story.paragraphs.length > 1 && (
          <WordChoice
            label="What this reaches"
            value={reach}
            options={[
              { value: 'line', label: 'This line' },
              { value: 'all', label: 'All of it' },
            ]}
            onChange={setReach}
          />
        )}
        <ListChoice
          hideLabel
          label="Face"
          value={same('face') ? run.face : null}
          groups={[
            ...(FACES.some((f) => f.id === run.face)
              ? []
              : [{ name: 'Missing', options: [{ value: run.face, label: `${faceName(run.face)} (missing)` }] }]),
            ...KINDS.map((kind) => ({
              name: KIND_WORDS[kind],
              options: FACES.filter((f) => f.kind === kind).map((f) => ({ value: f.id, label: faceName(f.id) })),
            })),
          ]}
          onChange={(face) => {
            void session.loadFaces([face]);
            look('Face', { face });
          }}
        />
        <div className="grid grid-cols-2 gap-2">
          <NumberField
            label="Size"
            unit="pt"
            value={same('size') ? run.size : null}
            min={0.5}
            max={10_000}
            onPreview={(v) => preview(v === null ? null : { size: v })}
            onCommit={(size) => look('Letter size', { size })}
          />
          <NumberField
            label="Leading"
            suffix="×"
            value={paragraph.leading}
            min={0.1}
            max={10}
            step={0.05}
            onCommit={(leading) => para('Leading', { leading })}
          />
          <NumberField
            label="Tracking"
            value={same('tracking') ? run.tracking : null}
            min={-500}
            max={5000}
            step={5}
            decimals={0}
            onPreview={(v) => preview(v === null ? null : { tracking: v })}
            onCommit={(tracking) => look('Tracking', { tracking })}
          />
          {node.kind === 'displayText' && texts.length === 1 ? (
            <NumberField
              label="Stretch"
              suffix="%"
              value={node.stretch * 100}
              min={1}
              max={1000}
              decimals={1}
              onCommit={(v) =>
                session.commit('Stretch', (d) => {
                  const n = d.nodes[node.id];
                  if (n.kind === 'displayText') n.stretch = v / 100;
                })
              }
            />
          ) : node.kind === 'textFrame' && texts.length === 1 ? (
            <NumberField
              label="Inset"
              unit={design.setup.unit}
              value={node.inset}
              min={0}
              max={Math.min(node.width, node.height) / 2.2}
              onCommit={(v) =>
                session.commit('Inset', (d) => {
                  const n = d.nodes[node.id];
                  if (n.kind === 'textFrame') n.inset = v;
                })
              }
            />
          ) : null}
        </div>
        <WordChoice
          label="Alignment"
          value={paragraph.align}
          options={[
            { value: 'left', label: 'Left' },
            { value: 'middle', label: 'Middle' },
            { value: 'right', label: 'Right' },
            ...(node.kind === 'textFrame' ? [{ value: 'full' as const, label: 'Full' }] : []),
          ]}
          onChange={(align) => para('Alignment', { align })}
        />
      </div>
    </Section>
  );
}
