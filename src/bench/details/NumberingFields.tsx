'use client';
import { pageLabels } from '@/core/derive/pageLabels';
import { setNumbering } from '@/core/edit/pages';
import type { Numbering, Page } from '@/core/model/schema';
import { Check, ListChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { usePlacedDesign, useSession } from '../session/context';

const STYLES: Readonly<Record<Numbering['style'], string>> = {
  decimal: '1 2 3',
  lowerRoman: 'i ii iii',
  capitalRoman: 'I II III',
  lowerLetters: 'a b c',
  capitals: 'A B C',
};

/** Whether numbers begin anew on this page, with which one, in which style. */
export function NumberingFields({ page }: { page: Page }) {
  const session = useSession();
  const design = usePlacedDesign();
  const { numbering } = page;
  const put = (label: string, next: Numbering | null) => session.commit(label, (d) => setNumbering(d, page.id, next));
  const number = pageLabels(design)[design.pages.indexOf(page)];
  return (
    <>
      <Check
        label="Numbers begin anew here"
        hint={`This page is ${number}.`}
        checked={numbering !== undefined}
        onChange={(on) =>
          put(on ? 'Begin numbers anew' : 'Let numbers go on', on ? { start: 1, style: 'decimal' } : null)
        }
      />
      {numbering && (
        <div className="grid grid-cols-2 gap-2">
          <NumberField
            label="With"
            name="Number of this page"
            value={numbering.start}
            min={0}
            max={99_999}
            decimals={0}
            onCommit={(start) => put('Number of the page', { ...numbering, start: Math.round(start) })}
          />
          <ListChoice
            label="Style of page numbers"
            hideLabel
            value={numbering.style}
            groups={[
              {
                name: '',
                options: (Object.keys(STYLES) as Numbering['style'][]).map((value) => ({
                  value,
                  label: STYLES[value],
                })),
              },
            ]}
            onChange={(style) => put('Style of page numbers', { ...numbering, style })}
          />
          <label className="col-span-2 flex items-center gap-1.5">
            <span className="shrink-0 text-faint">Section</span>
            <input
              key={page.id + (numbering.section ?? '')}
              className="h-7 w-full rounded-sm border border-edge bg-field px-2"
              placeholder="what begins here"
              defaultValue={numbering.section ?? ''}
              maxLength={80}
              onKeyDown={(e) => {
                if (e.key === 'Enter') e.currentTarget.blur();
              }}
              onBlur={(e) => {
                const { section = '', ...rest } = numbering;
                const name = e.currentTarget.value.trim();
                if (name !== section) put('Name the section', name ? { ...rest, section: name } : rest);
              }}
            />
          </label>
        </div>
      )}
    </>
  );
}
