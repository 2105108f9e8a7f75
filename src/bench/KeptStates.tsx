'use client';
import { useCallback, useEffect, useState } from 'react';
import { returnTo } from '@/core/edit/returnTo';
import { storageProblem } from '@/store/open';
import type { KeptState } from '@/store/designs';
import { Button } from '@/ui/Button';
import { useBench, useSession } from './session/context';

/** States of the design that were kept under a name: made, gone back to, held against the present, thrown away. */
export function KeptStates({ onDone }: { onDone: () => void }) {
  const session = useSession();
  const readOnly = useBench((s) => s.readOnly);
  const { id } = useBench((s) => s.design);
  const [states, setStates] = useState<readonly KeptState[]>([]);
  const [name, setName] = useState('');
  const refresh = useCallback(() => session.designs.states(id).then(setStates, () => setStates([])), [session, id]);
  useEffect(() => void refresh(), [refresh]);
  const keep = async () => {
    const word = name.trim();
    const { design, engines } = { design: session.state.design, engines: session.engines };
    try {
      await session.designs.keepState(engines.env.newId(), word, engines.env.now(), design);
      setName('');
      session.say(`This state is kept as “${word}”.`);
    } catch (e) {
      session.say(storageProblem(e), 'stop');
    }
    await refresh();
  };
  const back = (s: KeptState) => {
    const { design } = s;
    if (!design) return;
    if (session.commit(`Back to “${s.name}”`, (d) => returnTo(d, design)))
      session.say(`The design is as it was in “${s.name}”. Undo brings the other back.`);
    else session.say(`Nothing has changed since “${s.name}”.`);
    onDone();
  };
  const compare = async (s: KeptState) => {
    try {
      await session.press.against(s.design);
      session.set({ view: 'plates', plateLook: 'changed', against: s.name });
      onDone();
    } catch {
      session.say('The press does not answer: nothing is held against it. Try once more.', 'warn');
    }
  };
  const remove = async (s: KeptState) => {
    const row = await session.designs.removeState(s.id).catch((e: unknown) => {
      session.say(storageProblem(e), 'stop');
      return null;
    });
    await refresh();
    if (!row) return;
    session.say(`“${s.name}” is thrown away.`, 'plain', [
      { label: 'Put it back', run: () => void session.designs.putStateBack(row).then(refresh) },
    ]);
  };
  return (
    <div className="border-b border-line p-3">
      <form
        className="flex gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (name.trim()) void keep();
        }}
      >
        <input
          aria-label="Keep this state as"
          className="h-7 min-w-0 flex-1 rounded-sm border border-edge bg-field px-2"
          placeholder="Keep this state as …"
          maxLength={80}
          value={name}
          disabled={readOnly}
          onChange={(e) => setName(e.target.value)}
        />
        <Button disabled={!name.trim() || readOnly} onClick={() => void keep()}>
          Keep
        </Button>
      </form>
      {states.length > 0 && (
        <ul aria-label="Kept states" className="m-0 mt-2 max-h-40 list-none overflow-auto p-0">
          {states.map((s) => (
            <li key={s.id} className="border-b border-line py-1 last:border-b-0">
              <div className="flex items-baseline gap-2">
                <span className="min-w-0 flex-1 truncate font-semibold" title={s.name}>
                  {s.name}
                </span>
                <span className="text-[12px] text-faint">
                  {new Date(s.when).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
                </span>
              </div>
              <div className="flex gap-1">
                {s.design ? (
                  <>
                    <Button kind="quiet" disabled={readOnly} onClick={() => back(s)}>
                      Go back to it
                    </Button>
                    {session.design.setup.medium === 'print' && (
                      <Button kind="quiet" onClick={() => void compare(s)}>
                        Compare
                      </Button>
                    )}
                  </>
                ) : (
                  <span className="text-[12px] text-stop">It cannot be read.</span>
                )}
                <Button kind="quiet" disabled={readOnly} onClick={() => void remove(s)}>
                  Throw away
                </Button>
              </div>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
