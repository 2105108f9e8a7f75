'use client';
import { fitSheets } from '@/core/edit/refit';
import type { Design, Setup } from '@/core/model/schema';
import { sheetsOf } from '@/core/model/tree';
import { changeSetup, setFacing } from '@/core/edit/pages';
import { Button } from '@/ui/Button';
import { ListChoice } from '@/ui/Choice';
import { PageSetup } from '@/ui/PageSetup';
import { runCommand } from '../commands/commands';
import { fitPage } from '../view/inSight';
import { useBench, useSession } from '../session/context';
import type { Session } from '../session/session';

type Facing = 'alone' | 'left' | 'right';

/** After a change of the format: what lies on the sheets can be fitted to it, in one step. */
function offerFit(s: Session, was: Design, to: Setup): void {
  if (!sheetsOf(was).some((p) => p.children.length)) return;
  s.say('The sheet has another size now; what lies on it stayed as it was.', 'plain', {
    label: 'Fit it too',
    run: () => {
      // What was done meanwhile would be lost.
      if (s.state.design.nodes !== was.nodes)
        return s.say('Something was changed since: undo it, or fit it by hand.', 'warn');
      s.commit('Fit to the format', (d) => fitSheets(d, was, to, s.engines.fonts));
      s.say(
        'Fitted: edges at the edges, the middle in the middle, words as large as the sheet. Checks say what to look at.',
      );
    },
  });
}

export function FormatSlip() {
  const session = useSession();
  const setup = useBench((s) => s.design.setup);
  return (
    <div className="grid gap-3">
      <PageSetup
        setup={setup}
        onChange={(next) => {
          const was = session.state.design;
          const resized = next.width !== setup.width || next.height !== setup.height || next.bleed !== setup.bleed;
          session.commit('Change the format', (d) => changeSetup(d, next));
          if (next.medium === 'screen' && session.state.view === 'plates')
            session.set({ view: 'work', shownInks: null });
          if (resized) fitPage(session);
          if (next.width !== setup.width || next.height !== setup.height) offerFit(session, was, next);
        }}
      />
      <ListChoice<Facing>
        label="Pages"
        value={setup.facing ?? 'alone'}
        groups={[
          {
            name: '',
            options: [
              { value: 'alone', label: 'each by itself' },
              { value: 'right', label: 'facing, the first on the right' },
              { value: 'left', label: 'facing, the first on the left' },
            ],
          },
        ]}
        onChange={(next) => {
          session.commit('Facing pages', (d) => setFacing(d, next === 'alone' ? null : next));
          fitPage(session);
          session.say(
            next === 'alone'
              ? 'Each page stands by itself.'
              : 'Pages face each other: what reaches over the fold shows and prints on both.',
          );
        }}
      />
      <Button
        title="The same page as card, sticker, poster …: each a design of its own"
        onClick={() => runCommand(session, 'page.refit')}
      >
        This page in other formats
      </Button>
      <Button
        title="Others are begun with it: New design offers it, and asks for what may change"
        onClick={() => runCommand(session, 'design.starter')}
      >
        Keep as a starter
      </Button>
    </div>
  );
}
