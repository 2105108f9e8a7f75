'use client';
import type { ReactNode } from 'react';
import { exchangeOf } from '@/core/edit/exchange';
import { groupSwatches, renameGroup } from '@/core/edit/swatches';
import { Button } from '@/ui/Button';
import { Slip } from '@/ui/Slip';
import { useSession } from '../session/context';
import { keepLibrary } from '../session/libraries';

/** Cards that belong together, under their name. */
export function TrayGroup({
  name,
  labelled,
  children,
}: {
  name: string | null;
  labelled: boolean;
  children: ReactNode;
}) {
  if (!labelled) return <div className="flex h-full shrink-0 gap-1.5">{children}</div>;
  return (
    <div
      role="group"
      aria-label={name === null ? 'Swatches without a group' : `Group ${name}`}
      className="flex h-full shrink-0 flex-col not-first:border-l not-first:border-line not-first:pl-1.5"
    >
      <div className="h-[15px] text-[11px] leading-[14px]">{name !== null && <GroupSlip name={name} />}</div>
      <div className="flex min-h-0 flex-1 gap-1.5">{children}</div>
    </div>
  );
}

function GroupSlip({ name }: { name: string }) {
  const session = useSession();
  const ids = () => session.design.swatches.filter((s) => s.group === name).map((s) => s.id);
  return (
    <Slip
      title={`Group ${name}`}
      side="top"
      width={300}
      trigger={
        <button
          type="button"
          className="max-w-[180px] cursor-pointer truncate border-0 bg-transparent p-0 text-faint hover:text-accent"
          aria-label={`Change the group ${name}`}
          title={name}
        >
          {name}
        </button>
      }
    >
      <div className="grid gap-2">
        <label className="flex items-center gap-1.5">
          <span className="text-faint">Name</span>
          <input
            className="h-7 w-full rounded-sm border border-edge bg-field px-2"
            defaultValue={name}
            maxLength={80}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
            onBlur={(e) => {
              const next = e.currentTarget.value.trim();
              if (next && next !== name) session.commit('Rename group', (d) => renameGroup(d, name, next));
            }}
          />
        </label>
        <Button
          onClick={() => {
            const group = { ...session.design, swatches: session.design.swatches.filter((s) => s.group === name) };
            void keepLibrary(
              session,
              'palette',
              name,
              exchangeOf(group, session.palette).swatches.map(({ group: _, ...s }) => s),
            ).then((kept) => {
              if (kept) session.say(`“${name}” is kept for every design: find it under Lift a palette.`);
            });
          }}
        >
          Keep for every design
        </Button>
        <Button onClick={() => session.commit(`Dissolve ${name}`, (d) => groupSwatches(d, ids(), null))}>
          Dissolve the group
        </Button>
      </div>
    </Slip>
  );
}
