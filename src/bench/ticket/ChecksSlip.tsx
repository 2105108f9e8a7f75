'use client';
import { useState } from 'react';
import { subjectOf } from '@/core/check/check';
import { mendFinding, mendLabel, type Mending } from '@/core/check/mends';
import type { Finding } from '@/core/check/types';
import { setWaiver } from '@/core/edit/checks';
import { Button } from '@/ui/Button';
import { COMMAND_TABLE, runCommand, type CommandId } from '../commands/commands';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import type { Session } from '../session/session';
import { choose } from '../tools/pick';
import { bringIntoSight } from '../view/inSight';
import { placeOf } from '../canvas/pins';
import { LimitsFields } from './LimitsFields';

/** What was found, kind by kind: where, why it matters, and what puts it right, one by one or all alike. */
export function ChecksSlip() {
  const session = useSession();
  const findings = useBench((s) => s.findings);
  const waived = useBench((s) => s.waived);
  const notChecked = useBench((s) => s.notChecked);
  const [again, setAgain] = useState(false);
  if (notChecked)
    return (
      <div className="grid gap-2">
        <p className="m-0 font-semibold text-warn">The last look for faults failed: {notChecked}</p>
        <p className="m-0">So it is not known whether the design is in order.</p>
        <Button onClick={() => session.checkAgain()}>Look again</Button>
      </div>
    );
  const kinds = [...Map.groupBy(findings, (f) => f.code).values()];
  const numberOf = new Map(findings.map((f, i) => [f, i + 1]));
  return (
    <div className="grid gap-3">
      {notChecked === '' ? (
        <p className="m-0">Looking …</p>
      ) : (
        !findings.length && <p className="m-0">Nothing found: what is asked of the job is met everywhere.</p>
      )}
      {kinds.map((alike) => (
        <Kind key={alike[0].code} alike={alike} numberOf={numberOf} />
      ))}
      {waived.length > 0 && (
        <div className="grid gap-1.5">
          <button
            type="button"
            aria-expanded={again}
            className="w-fit cursor-pointer border-0 bg-transparent p-0 font-semibold text-faint hover:text-text"
            onClick={() => setAgain(!again)}
          >
            {count(waived.length, 'finding')} meant to be so
          </button>
          {again &&
            waived.map((f, i) => (
              <div key={`${f.code} ${f.node} ${i}`} className="border-b border-line pb-2 last:border-b-0">
                <p className="m-0">{f.message}</p>
                <p className="mt-0.5 mb-1 text-faint">“{f.waived}”</p>
                <div className="flex gap-2">
                  <Button onClick={() => goTo(session, f)}>Show it</Button>
                  <Button onClick={() => waive(session, f, null)}>Check it again</Button>
                </div>
              </div>
            ))}
        </div>
      )}
      <LimitsFields />
    </div>
  );
}

/** So many of a kind are shown at first. */
const FEW = 3;

/** Findings of one rule: what is said of all of them is said once. */
function Kind({ alike, numberOf }: { alike: readonly Finding[]; numberOf: ReadonlyMap<Finding, number> }) {
  const session = useSession();
  const readOnly = useBench((s) => s.readOnly);
  const [whole, setWhole] = useState(false);
  const [{ code, severity, why }] = alike;
  const commands = MENDS[code] ?? [];
  const labels = alike.map((f) => (readOnly || commands.length ? null : mendLabel(f, mendingOf(session, f))));
  const mendable = alike.filter((_, i) => labels[i] !== null);
  const shown = whole ? alike : alike.slice(0, FEW);
  return (
    <section aria-label={alike[0].message} className="border-b border-line pb-3 last:border-b-0">
      <ol className="m-0 grid list-none gap-2 p-0">
        {shown.map((f, i) => (
          <li key={`${f.node} ${i}`}>
            <p className={`m-0 mb-1 font-semibold ${severity === 'stop' ? 'text-stop' : 'text-warn'}`}>
              {numberOf.get(f)}. {f.message}
            </p>
            {i === 0 && <p className="mt-0 mb-1.5">{why}</p>}
            <Actions f={f} label={labels[i]} commands={readOnly ? [] : commands} />
          </li>
        ))}
      </ol>
      {(alike.length > FEW || mendable.length > 1) && (
        <div className="mt-2 flex flex-wrap gap-2">
          {alike.length > FEW && (
            <Button onClick={() => setWhole(!whole)}>
              {whole ? 'Show fewer' : `Show ${alike.length - FEW} more of these`}
            </Button>
          )}
          {mendable.length > 1 && (
            <Button onClick={() => mend(session, mendable)}>
              {labels.find((l) => l !== null)}: all {mendable.length}
            </Button>
          )}
        </div>
      )}
    </section>
  );
}

function Actions({ f, label, commands }: { f: Finding; label: string | null; commands: readonly CommandId[] }) {
  const session = useSession();
  const readOnly = useBench((s) => s.readOnly);
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState('');
  return (
    <>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => goTo(session, f)}>Show it</Button>
        {label && <Button onClick={() => mend(session, [f])}>{label}</Button>}
        {commands.map((command) => (
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
        {!readOnly && (
          <Button kind="quiet" aria-expanded={asking} onClick={() => setAsking(!asking)}>
            It is meant so
          </Button>
        )}
      </div>
      {asking && (
        <form
          className="mt-1.5 flex gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            waive(session, f, reason.trim() || 'Meant so');
          }}
        >
          <input
            autoFocus
            aria-label="Why it is meant so"
            placeholder="Why? It stands in the report."
            maxLength={100}
            className="h-7 min-w-0 flex-1 rounded-sm border border-edge bg-field px-2"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
          <Button type="submit">Leave it so</Button>
        </form>
      )}
    </>
  );
}

/** Commands that mend a finding once its object is chosen. */
const MENDS: Partial<Record<Finding['code'], readonly CommandId[]>> = {
  'text.overset': ['text.fitFrame', 'text.fitWords'],
  'size.drift': ['size.sameSet'],
};

const mendingOf = (s: Session, f: Finding): Mending => ({
  design: s.design,
  page: s.design.pages[f.page - 1] ?? s.page,
  palette: s.palette,
  fonts: s.engines.fonts,
  newId: s.newId,
});

/** Puts findings right, in one step that can be taken back. */
function mend(s: Session, findings: readonly Finding[]): void {
  // Pressed twice, or after something else was done: what was found may be right by now.
  if (s.state.checked !== s.state.design) {
    s.say('The design has changed since it was checked. It is being looked at again; press once more then.', 'warn');
    return;
  }
  const [first] = findings;
  const word = mendLabel(first, mendingOf(s, first));
  if (!word) return;
  const done = s.commit(word, (d) => {
    for (const f of findings) mendFinding(d, f, mendingOf(s, f));
  });
  s.say(
    done
      ? `${word}: done${findings.length > 1 ? ` for ${findings.length}` : ''}. Undo takes it back.`
      : 'That changed nothing here.',
    done ? 'plain' : 'warn',
  );
}

function waive(s: Session, f: Finding, reason: string | null): void {
  s.commit(reason === null ? 'Check it again' : 'Leave it so', (d) =>
    setWaiver(d, f.code, subjectOf(s.design, f), reason),
  );
}

function goTo(s: Session, f: Finding): void {
  const page = s.design.pages[f.page - 1];
  if (page && page.id !== s.state.page) s.goToPage(page.id);
  showFinding(s, f);
}

/** Goes to where it is: its object, or the very place that it names. */
function showFinding(s: Session, f: Finding): void {
  if (f.node && s.design.nodes[f.node]) choose(s, [f.node]);
  else if (f.code.startsWith('ink.')) s.set({ view: 'plates', shownInks: null });
  const at = placeOf(s, f);
  if (at) bringIntoSight(s, at, !f.node);
}
