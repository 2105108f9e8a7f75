'use client';
import { Button } from '@/ui/Button';
import { useBench, useSession } from '../session/context';
import { choose } from '../tools/pick';

/** Each finding says what, where and why it matters, and goes there. */
export function ChecksSlip() {
  const session = useSession();
  const findings = useBench((s) => s.findings);
  if (!findings.length) return <p className="m-0">Nothing found: bleed, total ink, faces and text frames are in order.</p>;
  return (
    <ol className="m-0 grid list-none gap-3 p-0">
      {findings.map((f, i) => (
        <li key={`${f.code} ${f.node} ${i}`} className="border-b border-line pb-3 last:border-b-0 last:pb-0">
          <p className={`m-0 font-semibold ${f.severity === 'stop' ? 'text-stop' : 'text-warn'}`}>
            {i + 1}. {f.message}
          </p>
          <p className="mt-0.5 mb-1.5">{f.why}</p>
          <Button
            onClick={() => {
              const page = session.design.pages[f.page - 1];
              if (page && page.id !== session.state.page) session.goToPage(page.id);
              if (f.node && session.design.nodes[f.node]) choose(session, [f.node]);
              else session.set({ view: 'plates', shownInks: null });
            }}
          >
            Show it
          </Button>
        </li>
      ))}
    </ol>
  );
}
