'use client';
import { setWhole } from '@/core/edit/whole';
import { BLENDS, type Blend, type DesignNode } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { nodesOf, parentOf } from '@/core/model/tree';
import { Button } from '@/ui/Button';
import { Check, ListChoice, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { freeSelection } from '../session/commandDef';
import { runCommand } from '../commands/commands';
import { useBench, usePlacedDesign, useSession } from '../session/context';
import { BLEND_WORDS } from '../session/naming';
import { ShadowFields } from './ShadowFields';

const BLEND_OPTIONS = [
  {
    name: '',
    options: [{ value: 'normal', label: 'Plain' }, ...BLENDS.map((b) => ({ value: b, label: BLEND_WORDS[b] }))],
  },
] as const;
const CUTS = [
  { value: 'none', label: 'Seen' },
  { value: 'outline', label: 'Outline' },
  { value: 'opacity', label: 'Cover' },
  { value: 'light', label: 'Light' },
] as const;

/** Pictures and groups are described; words say what they say. */
const isSeen = (n: DesignNode): boolean =>
  n.kind === 'group' || ('fills' in n && n.fills.some((f) => f.kind === 'picture'));

/** Objects as a whole: how much shows through them, how they meet what lies below, and whether they cut their group. */
export function WholeSection() {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const ids = freeSelection(session);
  const nodes = nodesOf(design, ids);
  if (!nodes.length || !selection.length) return null;
  const same = <T,>(of: (n: (typeof nodes)[number]) => T): T | null =>
    nodes.every((n) => of(n) === of(nodes[0])) ? of(nodes[0]) : null;
  const inGroup = nodes.every((n) => {
    const parent = parentOf(design, session.page, n.id);
    return parent !== null && design.nodes[parent]?.kind === 'group';
  });
  const maskMode = same((n) => n.maskMode ?? 'none');
  const opacity = same((n) => n.opacity ?? 1);
  const pushes = same((n) => n.pushesWords);
  const tell = (alt: string) => {
    if ((nodes[0].alt ?? '') !== alt) session.commit('Said of it', (d) => setWhole(d, ids, { alt }));
  };
  return (
    <Section title="Finish">
      <div className="grid gap-2">
        <div className="grid grid-cols-2 gap-2">
          <NumberField
            label="Opacity"
            name="Opacity of the whole"
            suffix="%"
            min={0}
            max={100}
            decimals={0}
            value={opacity === null ? null : opacity * 100}
            onPreview={(v) => session.preview(v === null ? null : (d) => setWhole(d, ids, { opacity: v / 100 }))}
            onCommit={(v) => session.commit('Opacity', (d) => setWhole(d, ids, { opacity: v / 100 }))}
          />
          <ListChoice
            label="Blend"
            value={same<Blend | 'normal'>((n) => n.blend ?? 'normal')}
            groups={BLEND_OPTIONS}
            onChange={(v) =>
              session.commit('Blend', (d) => setWhole(d, ids, { blend: v === 'normal' ? null : (v as Blend) }))
            }
          />
        </div>
        <ShadowFields />
        <div className="grid grid-cols-[1fr_92px] items-center gap-2">
          <Check
            label="Pushes words away"
            checked={pushes !== null && pushes !== undefined}
            onChange={(on) =>
              session.commit(on ? 'Push words away' : 'Let words run over it', (d) =>
                setWhole(d, ids, { pushesWords: on ? mm(2) : null }),
              )
            }
          />
          {pushes !== null && pushes !== undefined && (
            <NumberField
              label="By"
              name="How far words stay off"
              unit={design.setup.unit}
              min={0}
              max={5000}
              value={pushes}
              onPreview={(v) => session.preview(v === null ? null : (d) => setWhole(d, ids, { pushesWords: v }))}
              onCommit={(v) => session.commit('Push words away', (d) => setWhole(d, ids, { pushesWords: v }))}
            />
          )}
        </div>
        {nodes.length === 1 && isSeen(nodes[0]) && (
          <label className="grid gap-1">
            <span className="text-faint" title="Read aloud in its place, in PDFs that are made so">
              Said to those who cannot see it
            </span>
            <input
              key={`${nodes[0].id} ${nodes[0].alt ?? ''}`}
              className="h-7 w-full rounded-sm border border-edge bg-field px-2"
              defaultValue={nodes[0].alt ?? ''}
              maxLength={1000}
              onBlur={(e) => tell(e.target.value.trim())}
              onKeyDown={(e) => {
                e.stopPropagation();
                if (e.key === 'Enter') tell(e.currentTarget.value.trim());
              }}
            />
          </label>
        )}
        {inGroup ? (
          <div className="grid gap-1">
            <WordChoice
              label="Cuts its group"
              value={maskMode}
              options={CUTS}
              onChange={(v) =>
                session.commit(v === 'none' ? 'Stop cutting' : 'Cut the group', (d) =>
                  setWhole(d, ids, { maskMode: v === 'none' ? null : v }),
                )
              }
            />
            <p className="m-0 text-[12px] text-faint">
              {maskMode === 'outline'
                ? 'Not seen itself: its group ends at its outline.'
                : maskMode === 'opacity'
                  ? 'Not seen itself: its group shows as far as it would cover.'
                  : maskMode === 'light'
                    ? 'Not seen itself: its group shows as far as it would be light.'
                    : 'Outline, Cover and Light make it cut the rest of its group.'}
            </p>
          </div>
        ) : (
          nodes.length > 1 && (
            <Button
              title="Groups them; the frontmost one then cuts the others"
              onClick={() => runCommand(session, 'object.cutByFront')}
            >
              Cut by the front one
            </Button>
          )
        )}
      </div>
    </Section>
  );
}
