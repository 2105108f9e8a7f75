'use client';
import { changeSetup, setFacing } from '@/core/edit/pages';
import { Button } from '@/ui/Button';
import { ListChoice } from '@/ui/Choice';
import { PageSetup } from '@/ui/PageSetup';
import { runCommand } from '../commands/commands';
import { fitPage } from '../view/inSight';
import { useBench, useSession } from '../session/context';

type Facing = 'alone' | 'left' | 'right';

export function FormatSlip() {
  const session = useSession();
  const setup = useBench((s) => s.design.setup);
  return (
    <div className="grid gap-3">
      <PageSetup
        setup={setup}
        onChange={(next) => {
          const resized = next.width !== setup.width || next.height !== setup.height || next.bleed !== setup.bleed;
          session.commit('Change the format', (d) => changeSetup(d, next));
          if (next.medium === 'screen' && session.state.view === 'plates')
            session.set({ view: 'work', shownInks: null });
          if (resized) fitPage(session);
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
