'use client';
import { ChevronDown, ChevronRight, Plus, Trash2 } from 'lucide-react';
import { useContext, type ReactNode } from 'react';
import { isFurtherAim, type ChosenLetters, type FurtherAim, type LineAim } from '@/core/edit/aims';
import { removeOutline, setOutlineStyle } from '@/core/edit/paint';
import type { Recipe } from '@/core/edit/history';
import type { Outline } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { FoldingContext } from '@/ui/Section';
import { DashFields } from './DashFields';
import { LineMore } from './LineMore';
import { addFurtherOutline, canAddOutline, haveInside } from '../commands/outlines';
import { useSession } from '../session/context';

interface Props {
  readonly aim: LineAim;
  /** The line that is shown; null where there is none yet. */
  readonly outline: Outline | null;
  readonly ids: readonly string[];
  readonly letters: ChosenLetters | null;
}

/** What an outline is beside its paint, and the way to one more. */
export function OutlineFields({ aim, outline, ids, letters }: Props) {
  const session = useSession();
  const { unit } = session.design.setup;
  const lineUnit = unit === 'px' ? 'px' : unit === 'in' || unit === 'pt' ? 'pt' : 'mm';
  const put =
    (style: Partial<Omit<Outline, 'paint'>>): Recipe =>
    (d) =>
      setOutlineStyle(d, ids, aim, style, outline!.paint, letters);
  const show = (style: (v: number) => Partial<Outline>) => (v: number | null) =>
    session.preview(v === null ? null : put(style(v)));
  const further = isFurtherAim(aim) ? aim : null;
  return (
    <>
      {outline && (
        <div className="grid grid-cols-2 gap-2">
          <NumberField
            label="Weight"
            unit={lineUnit}
            value={outline.width}
            min={0}
            max={mm(200)}
            step={0.1}
            decimals={3}
            onPreview={show((width) => ({ width }))}
            onCommit={(width) => session.commit('Outline weight', put({ width }))}
          />
          <WordChoice
            label="Line caps"
            tight
            value={outline.cap}
            options={[
              { value: 'butt', label: 'Blunt' },
              { value: 'round', label: 'Round' },
              { value: 'square', label: 'Long' },
            ]}
            onChange={(cap) => session.commit('Line caps', put({ cap }))}
          />
          <div className="col-span-2">
            <WordChoice
              label="Line corners"
              value={outline.join}
              options={[
                { value: 'miter', label: 'Pointed' },
                { value: 'round', label: 'Round' },
                { value: 'bevel', label: 'Cut' },
              ]}
              onChange={(join) => session.commit('Line corners', put({ join }))}
            />
          </div>
          {aim !== 'letterOutline' && haveInside(session, ids) && (
            <div className="col-span-2">
              <WordChoice
                label="Side of the edge"
                value={outline.side ?? 'centre'}
                options={[
                  { value: 'inside', label: 'Inside' },
                  { value: 'centre', label: 'Centre' },
                  { value: 'outside', label: 'Outside' },
                ]}
                onChange={(v) =>
                  session.commit('Side of the line', put({ side: v === 'centre' ? undefined : v } as Partial<Outline>))
                }
              />
            </div>
          )}
          <DashFields
            outline={outline}
            unit={lineUnit}
            put={(label, style) => session.commit(label, put(style))}
            show={(style) => session.preview(style && put(style))}
          />
          {further && (
            <>
              <WordChoice
                label="Where the line lies"
                tight
                value={outline.behind ? 'behind' : 'over'}
                options={[
                  { value: 'behind', label: 'Behind' },
                  { value: 'over', label: 'Over' },
                ]}
                onChange={(v) =>
                  session.commit(v === 'behind' ? 'Line behind' : 'Line over', put({ behind: v === 'behind' }))
                }
              />
              <NumberField
                label="Away"
                name="Away from the edge"
                unit={lineUnit}
                value={outline.away ?? 0}
                min={mm(-200)}
                max={mm(200)}
                step={0.1}
                decimals={3}
                onPreview={show((away) => ({ away }))}
                onCommit={(away) => session.commit('Line away from the edge', put({ away }))}
              />
            </>
          )}
          <Folded>
            <LineMore
              aim={aim}
              outline={outline}
              ids={ids}
              unit={lineUnit}
              put={(label, style) => session.commit(label, put(style))}
              show={(style) => session.preview(style && put(style))}
            />
          </Folded>
        </div>
      )}
      <div className="flex flex-wrap gap-2">
        {canAddOutline(session) && (
          <Button onClick={() => addFurtherOutline(session)} title="One more line, below the others">
            <Plus size={13} aria-hidden />{' '}
            {outline && outline.paint.kind !== 'none' ? 'One more outline' : 'An outline behind'}
          </Button>
        )}
        {further && <RemoveButton aim={further} ids={ids} />}
      </div>
    </>
  );
}

/** What is rarer is folded until it is asked for; it stays as it was left while the bench is open. */
function Folded({ children }: { children: ReactNode }) {
  const folding = useContext(FoldingContext);
  const open = folding?.folded(MORE) ?? false;
  return (
    <>
      <button
        type="button"
        aria-expanded={open}
        className="col-span-2 flex cursor-pointer items-center gap-1 border-0 bg-transparent p-0 text-left text-faint hover:text-text"
        onClick={() => folding?.fold(MORE, !open)}
      >
        {open ? <ChevronDown size={13} aria-hidden /> : <ChevronRight size={13} aria-hidden />}
        {MORE}
      </button>
      {open && children}
    </>
  );
}
const MORE = 'Ends, width, by hand';

function RemoveButton({ aim, ids }: { aim: FurtherAim; ids: readonly string[] }) {
  const session = useSession();
  return (
    <Button
      onClick={() => {
        session.commit('Remove an outline', (d) => removeOutline(d, ids, aim));
        session.aimAt('fill');
      }}
    >
      <Trash2 size={13} aria-hidden /> Remove
    </Button>
  );
}
