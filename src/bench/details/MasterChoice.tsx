'use client';
import { setMaster } from '@/core/edit/masters';
import type { Page } from '@/core/model/schema';
import { Button } from '@/ui/Button';
import { ListChoice } from '@/ui/Choice';
import { runCommand } from '../commands/commands';
import { usePlacedDesign, useSession } from '../session/context';
import { sheetName } from '../session/naming';

const NONE = '';

/** The master that a page stands on, the way to it, and to a new one. */
export function MasterChoice({ page }: { page: Page }) {
  const session = useSession();
  const design = usePlacedDesign();
  const { masters = [] } = design;
  return (
    <div className="grid gap-2">
      {masters.length > 0 && (
        <ListChoice
          label="Master"
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
      <div className="flex flex-wrap gap-2">
        {page.master !== undefined && <Button onClick={() => session.goToPage(page.master!)}>Edit the master</Button>}
        <Button
          title="What lies on this page becomes a master’s: other pages can stand on it too"
          onClick={() => runCommand(session, 'master.fromPage')}
        >
          Make a master of it
        </Button>
      </div>
    </div>
  );
}
