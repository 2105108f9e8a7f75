'use client';
import { setMaster, setOnLeft, wouldRing } from '@/core/edit/masters';
import type { Page } from '@/core/model/schema';
import { isMaster } from '@/core/model/tree';
import { Button } from '@/ui/Button';
import { ListChoice } from '@/ui/Choice';
import { runCommand } from '../commands/commands';
import { usePlacedDesign, useSession } from '../session/context';
import { sheetName } from '../session/naming';

const NONE = '';

/** The master that a page, or another master, stands on; of a page also the way to it, and to a new one. */
export function MasterChoice({ page }: { page: Page }) {
  const session = useSession();
  const design = usePlacedDesign();
  const own = isMaster(design, page.id);
  // One that would stand on itself is not offered.
  const masters = (design.masters ?? []).filter((m) => !wouldRing(design, page.id, m.id));
  return (
    <div className="grid gap-2">
      {masters.length > 0 && (
        <ListChoice
          label={own ? 'Stands on' : 'Master'}
          value={page.master ?? NONE}
          groups={[
            {
              name: '',
              options: [
                { value: NONE, label: 'none' },
                ...masters.map((m) => ({ value: m.id, label: sheetName(design, m) })),
              ],
            },
          ]}
          onChange={(id) => session.commit('Choose a master', (d) => setMaster(d, [page.id], id || null))}
        />
      )}
      {own && design.setup.facing && masters.length > 0 && (
        <ListChoice
          label="Left pages have"
          value={page.onLeft ?? NONE}
          groups={[
            {
              name: '',
              options: [
                { value: NONE, label: 'the same' },
                ...masters.map((m) => ({ value: m.id, label: sheetName(design, m) })),
              ],
            },
          ]}
          onChange={(id) => session.commit('Choose a master for left pages', (d) => setOnLeft(d, page.id, id || null))}
        />
      )}
      <div className="flex flex-wrap gap-2">
        {page.master !== undefined && <Button onClick={() => session.goToPage(page.master!)}>Edit the master</Button>}
        {own ? (
          <Button onClick={() => runCommand(session, 'master.remove')}>Remove this master</Button>
        ) : (
          <Button
            title="What lies on this page becomes a master’s: other pages can stand on it too"
            onClick={() => runCommand(session, 'master.fromPage')}
          >
            Make a master of it
          </Button>
        )}
      </div>
    </div>
  );
}
