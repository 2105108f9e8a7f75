'use client';
import { Button } from '@/ui/Button';
import { COMMAND_TABLE, runCommand, type CommandId } from '../commands/commands';
import { useBench, useSession } from '../session/context';
import { bringIntoSight } from '../view/inSight';
import { placeOf } from '../canvas/pins';
import { choose } from '../tools/pick';
import type { Finding } from '@/core/check/types';
import type { Session } from '../session/session';

/** Each finding says what, where and why it matters, and goes there. */
export function ChecksSlip() {
  const session = useSession();
  const findings = useBench((s) => s.findings);
  const notChecked = useBench((s) => s.notChecked);
  const readOnly = useBench((s) => s.readOnly);
  if (notChecked)
    return (
      <div className="grid gap-2">
        <p className="m-0 font-semibold text-warn">The last look for faults failed: {notChecked}</p>
        <p className="m-0">So it is not known whether the design is in order.</p>
        <Button onClick={() => session.checkAgain()}>Look again</Button>
      </div>
    );
  if (notChecked === '') return <p className="m-0">Looking …</p>;
  if (!findings.length)
    return <p className="m-0">Nothing found: bleed, total ink, faces and text frames are in order.</p>;
  return (
    <ol className="m-0 grid list-none gap-3 p-0">
      {findings.map((f, i) => (
        <li key={`${f.code} ${f.node} ${i}`} className="border-b border-line pb-3 last:border-b-0 last:pb-0">
          <p className={`m-0 font-semibold ${f.severity === 'stop' ? 'text-stop' : 'text-warn'}`}>
            {i + 1}. {f.message}
          </p>
          <p className="mt-0.5 mb-1.5">{f.why}</p>
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => goTo(session, f)}>Show it</Button>
            {!readOnly &&
              (MENDS[f.code] ?? []).map((command) => (
                <Button
                  key={command}
                  onClick={() => {
                    goTo(session, f);
                    runCommand(session, command);
                  }}
                >
                  {COMMAND_TABLE[command].label}
                </Button>
              ))}
          </div>
        </li>
      ))}
    </ol>
  );
}

/** What mends a finding once its object is chosen. */
const MENDS: Partial<Record<Finding['code'], readonly CommandId[]>> = {
  'text.overset': ['text.fitFrame', 'text.fitWords'],
};

function goTo(s: Session, f: Finding): void {
  const page = s.design.pages[f.page - 1];
  if (page && page.id !== s.state.page) s.goToPage(page.id);
  showFinding(s, f);
}

/** Goes to where it is: its object, or the very place that it names. */
function showFinding(s: Session, f: Finding): void {
  if (f.node && s.design.nodes[f.node]) choose(s, [f.node]);
  else s.set({ view: 'plates', shownInks: null });
  const at = placeOf(s, f);
  if (at) bringIntoSight(s, at, !f.node);
}
