'use client';
import { matchEnds, eachByItself, sweepOver } from '@/core/edit/sweep';
import { aimedNodes, paintAt, type Aim } from '@/core/edit/aims';
import { Button } from '@/ui/Button';
import { count } from '../session/commandDef';
import { useSession } from '../session/context';

/** What can be done with the gradients of several objects: run one through all, give each its own, make ends meet. */
export function SeveralFields({ aim, ids, swept }: { aim: Aim; ids: readonly string[]; swept: boolean }) {
  const session = useSession();
  const { design, page } = session;
  const { fonts } = session.engines;
  const nodes = aimedNodes(design, ids, aim);
  const ramps = nodes.filter((id) => paintAt(design, id, aim)?.kind === 'gradient').length;
  return (
    <div className="grid gap-1.5" role="group" aria-label="Gradients of several objects">
      <p className="m-0 text-[12px] text-faint">
        {swept
          ? `One gradient runs through ${count(nodes.length, 'object')}.`
          : `${count(nodes.length, 'object')}, each with a paint of its own. The Gradient tool draws one over all.`}
      </p>
      <div className="flex gap-1.5">
        <Button
          className="flex-auto px-1! text-[12px] whitespace-nowrap"
          onClick={() => {
            session.commit('One sweep over all', (d) => void sweepOver(d, page, ids, aim, fonts));
            session.say(`One gradient runs through ${count(nodes.length, 'object')}.`);
          }}
        >
          One sweep
        </Button>
        <Button
          className="flex-auto px-1! text-[12px] whitespace-nowrap"
          onClick={() => {
            session.commit('Each by itself', (d) => void eachByItself(d, page, ids, aim, fonts));
            session.say(`${count(nodes.length, 'object')}: each has the gradient to itself.`);
          }}
        >
          Each by itself
        </Button>
        <Button
          className="flex-auto px-1! text-[12px] whitespace-nowrap"
          disabled={ramps < 2}
          title="The end of one gradient becomes the start of the next"
          onClick={() => {
            let matched = 0;
            session.commit('Match ends', (d) => {
              matched = matchEnds(d, page, ids, aim, fonts);
            });
            session.say(
              matched
                ? `${count(matched, 'gradient')} now ${matched === 1 ? 'begins' : 'begin'} where the one before ends.`
                : 'The ends meet already.',
            );
          }}
        >
          Match ends
        </Button>
      </div>
    </div>
  );
}
