'use client';
import { giveBack, takeOver } from '@/core/edit/masters';
import type { Design, Page } from '@/core/model/schema';
import { mastersOf } from '@/core/model/tree';
import { Button } from '@/ui/Button';
import { useSession } from '../session/context';
import { nameOf } from '../session/nameOf';
import { sheetName } from '../session/naming';

/**
 * What lies on a page because its masters have it, below all that is the page's own: each taken over or given back by a
 * press.
 */
export function FromMasters({ design, page }: { design: Design; page: Page }) {
  const session = useSession();
  const masters = mastersOf(design, page).filter((m) => m.children.length > 0);
  if (!masters.length) return null;
  const taken = page.takenOver ?? {};
  const take = (id: string, name: string) => {
    let copy = '';
    session.commit(`Take over ${name}`, (d) => void (copy = takeOver(d, page.id, id, session.newId)));
    if (!copy) return;
    session.select([copy]);
    session.say(`${name} is this page’s own now; other pages keep the master’s.`);
  };
  return (
    <div className="max-h-[40%] shrink-0 overflow-auto border-t border-line" role="group" aria-label="From masters">
      {masters.toReversed().map((m) => (
        <section key={m.id} aria-label={`From ${sheetName(design, m)}`}>
          <h3 className="m-0 flex items-center justify-between gap-2 bg-bench px-2 py-1 text-[12px] font-normal">
            <span className="truncate">From {sheetName(design, m)}</span>
            <button
              type="button"
              className="cursor-pointer border-0 bg-transparent p-0 text-[12px] key-line"
              onClick={() => session.goToPage(m.id)}
            >
              Edit it
            </button>
          </h3>
          <ul className="m-0 list-none p-0">
            {m.children.toReversed().map((id) => {
              const name = nameOf(design, design.nodes[id]);
              const own = Object.hasOwn(taken, id);
              return (
                <li
                  key={id}
                  className="group relative flex h-8 items-center gap-2 border-b border-line px-2"
                  onPointerEnter={() => session.set({ pointedAt: id })}
                  onPointerLeave={() => session.set({ pointedAt: null })}
                >
                  <span title={name} className={`min-w-0 flex-1 truncate ${own ? 'text-faint line-through' : ''}`}>
                    {name}
                  </span>
                  {own ? (
                    <Button
                      kind="quiet"
                      aria-label={`Give ${name} back`}
                      title="The page’s own goes; the master’s is shown again"
                      onClick={() => session.commit(`Give ${name} back`, (d) => giveBack(d, page.id, id))}
                    >
                      Give back
                    </Button>
                  ) : (
                    <Button
                      kind="quiet"
                      className="absolute right-2 bg-panel not-focus-visible:opacity-0 group-hover:opacity-100"
                      aria-label={`Take ${name} over here`}
                      title="Makes it this page’s own; other pages keep the master’s"
                      onClick={() => take(id, name)}
                    >
                      Take over here
                    </Button>
                  )}
                </li>
              );
            })}
          </ul>
        </section>
      ))}
    </div>
  );
}
