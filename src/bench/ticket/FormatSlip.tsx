'use client';
import { changeSetup } from '@/core/edit/pages';
import { PageSetup } from '@/ui/PageSetup';
import { fitPage } from '../view/inSight';
import { useBench, useSession } from '../session/context';

export function FormatSlip() {
  const session = useSession();
  const setup = useBench((s) => s.design.setup);
  return (
    <PageSetup
      setup={setup}
      onChange={(next) => {
        const resized = next.width !== setup.width || next.height !== setup.height || next.bleed !== setup.bleed;
        session.commit('Change the format', (d) => changeSetup(d, next));
        if (next.medium === 'screen' && session.state.view === 'plates') session.set({ view: 'work', shownInks: null });
        if (resized) fitPage(session);
      }}
    />
  );
}
