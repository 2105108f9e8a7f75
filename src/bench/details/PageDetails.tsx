'use client';
import { pageLabels } from '@/core/derive/pageLabels';
import { addPage } from '@/core/edit/pages';
import type { Design } from '@/core/model/schema';
import { followersOf, isMaster, pageById } from '@/core/model/tree';
import { formatLength } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { Section } from '@/ui/Section';
import { count } from '../session/commandDef';
import { useBench, usePlacedDesign, useSession } from '../session/context';
import { sheetName } from '../session/naming';
import { MasterChoice } from './MasterChoice';
import { NumberingFields } from './NumberingFields';

/** The page, or the master, where nothing on it is chosen. */
export function PageDetails() {
  const session = useSession();
  const design = usePlacedDesign();
  const pageId = useBench((s) => s.page);
  const page = pageById(design, pageId) ?? design.pages[0];
  const { setup } = session;
  const master = isMaster(design, page.id);
  const called = sheetName(design, page);
  return (
    <>
      <p className="m-0 border-b border-line p-3 text-[14px] leading-6">
        {master
          ? `Master ${called}, on ${followersText(design, page.id)}`
          : `Page ${design.pages.indexOf(page) + 1} of ${design.pages.length}`}
        , {formatLength(setup.width, setup.unit, 1)} × {formatLength(setup.height, setup.unit, 1)}
        {setup.bleed > 0 ? `, ${formatLength(setup.bleed, setup.unit, 1)} bleed` : ''}.{' '}
        {count(page.children.length, 'object')} on it. Choose one to see what it is.
      </p>
      <Section title={master ? 'Master' : 'Page'}>
        <div className="grid gap-2">
          <label className="flex items-center gap-1.5">
            <span className="text-faint">Name</span>
            <input
              key={pageId}
              className="h-7 w-full rounded-sm border border-edge bg-field px-2"
              placeholder={called}
              defaultValue={page.name}
              maxLength={200}
              onKeyDown={(e) => {
                if (e.key === 'Enter') e.currentTarget.blur();
              }}
              onBlur={(e) => {
                const name = e.currentTarget.value.trim() || (master ? page.name : '');
                session.commit(master ? 'Name the master' : 'Name the page', (d) => {
                  const p = pageById(d, pageId);
                  if (p && p.name !== name) p.name = name;
                });
              }}
            />
          </label>
          <MasterChoice page={page} />
          {!master && design.pages.length > 1 && <NumberingFields page={page} />}
          <Button
            onClick={() => {
              let id = '';
              session.commit('Add a page', (d) => {
                id = addPage(d, pageId, session.newId);
              });
              if (id) session.goToPage(id);
            }}
          >
            {master ? `Add a page of ${called}` : 'Add a page'}
          </Button>
        </div>
      </Section>
    </>
  );
}

/** So many pages are named; more are counted. */
const NAMED = 8;
/** How many pages stand on a master, and which. */
function followersText(design: Design, master: string): string {
  const labels = pageLabels(design);
  const pages = followersOf(design, master).map((p) => labels[design.pages.indexOf(p)]);
  const named = pages.slice(0, NAMED).join(', ') + (pages.length > NAMED ? ' …' : '');
  return `${count(pages.length, 'page')}${pages.length ? ` (${named})` : ''}`;
}
