'use client';
import { wordsOf } from '@/core/derive/fields';
import { setVersion } from '@/core/edit/fields';
import type { Field } from '@/core/model/schema';
import { ListChoice, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { usePlacedDesign, useSession } from '../session/context';
import { backToLetters } from '../session/focus';
import { FIELD_WORDS, insertField } from '../commands/fields';
import { AxisFields } from './AxisFields';
import { FaceChooser } from './FaceChooser';
import { useReach, useTextTarget } from './textTarget';

const FIELDS = Object.keys(FIELD_WORDS) as Field[];

/**
 * Face, size, alignment, leading and tracking of the chosen texts, or of the letters chosen in the one being written.
 */
export function TextSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const [reach, setReach] = useReach();
  const target = useTextTarget(reach);
  if (!target) return null;
  const { node, texts, story, run, paragraph, letters, line, inText, same, look, preview, para } = target;

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
        <FaceChooser
          value={same('face') ? run.face : null}
          sample={wordsOf(design, node).replace(/\s+/g, ' ').trim().slice(0, 40) || 'Lantern Walk'}
          onPreview={(face) => {
            if (face === null) preview(null);
            else void session.loadFaces([face]).then(() => preview({ face }));
          }}
          onChoose={(face) => {
            void session.loadFaces([face]);
            look('Face', { face });
          }}
        />
        <AxisFields target={target} />
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
          {typeof paragraph.leading === 'number' ? (
            <NumberField
              label="Leading"
              suffix="×"
              value={paragraph.leading}
              min={0.1}
              max={10}
              step={0.05}
              onCommit={(leading) => para('Leading', { leading })}
            />
          ) : (
            <NumberField
              label="Leading"
              unit="pt"
              value={paragraph.leading.points}
              min={0.1}
              max={10_000}
              onCommit={(points) => para('Leading', { leading: { points } })}
            />
          )}
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
              value={typeof node.inset === 'number' ? node.inset : null}
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
        {inText && (
          <ListChoice
            label="Put in"
            value=""
            groups={[
              {
                name: '',
                options: [
                  { value: '', label: 'page number, date …' },
                  ...FIELDS.map((value) => ({ value, label: FIELD_WORDS[value].label })),
                ],
              },
            ]}
            onChange={(field) => {
              if (field) insertField(session, field);
              backToLetters();
            }}
          />
        )}
        {story.paragraphs.some((p) => p.runs.some((r) => r.field === 'version')) && (
          <label className="flex items-center gap-1.5">
            <span className="shrink-0 text-faint">Version</span>
            <input
              key={design.version}
              className="h-7 w-full rounded-sm border border-edge bg-field px-2"
              placeholder="2nd proof"
              defaultValue={design.version ?? ''}
              maxLength={80}
              onKeyDown={(e) => {
                if (e.key === 'Enter') e.currentTarget.blur();
              }}
              onBlur={(e) => {
                const version = e.currentTarget.value.trim();
                if (version !== (design.version ?? '')) session.commit('Version', (d) => setVersion(d, version));
              }}
            />
          </label>
        )}
      </div>
    </Section>
  );
}
