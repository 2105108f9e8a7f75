'use client';
import { CircleCheck, CircleX, Info, X } from 'lucide-react';
import { PRESSES, type Remark } from '@/press/answer';
import { formatNumber, fromPoints } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { bringIntoSight } from '../view/inSight';
import { useBench, useSession } from '../session/context';

/** What the press says of the file, beside the page: taken or not, why, and what it found in it. */
export function PressAnswerPanel() {
  const session = useSession();
  const { answer, of } = useBench((s) => s.pressAnswer)!;
  const changed = useBench((s) => s.design !== of);
  const at = useBench((s) => s.pressRemark);
  const { unit: own } = session.setup;
  const unit = own === 'px' ? 'mm' : own;
  const length = (v: number) => formatNumber(fromPoints(v, unit), 1);
  const show = (r: Remark, i: number) => {
    session.set({ pressRemark: i });
    const page = session.design.pages[(r.page ?? 1) - 1];
    if (!page) return;
    if (page.id !== session.state.page) session.goToPage(page.id);
    if (r.box) bringIntoSight(session, { x: (r.box.x0 + r.box.x1) / 2, y: (r.box.y0 + r.box.y1) / 2 });
  };
  const refused = answer.remarks.filter((r) => r.refuses).length;
  return (
    <section
      aria-label="The press’s answer"
      className="absolute inset-y-0 right-0 z-20 flex w-[272px] flex-col border-l border-line bg-panel"
      style={{ boxShadow: 'var(--shadow)' }}
    >
      <header className="flex items-start gap-2 border-b border-line p-3">
        {answer.taken ? (
          <CircleCheck size={20} aria-hidden className="mt-0.5 shrink-0" />
        ) : (
          <CircleX size={20} aria-hidden className="mt-0.5 shrink-0 text-stop" />
        )}
        <div className="min-w-0 flex-1">
          <h2 className="m-0 text-[15px] font-semibold">
            {answer.taken
              ? 'The press takes it'
              : `The press refuses it: ${refused} ${refused === 1 ? 'reason' : 'reasons'}`}
          </h2>
          <p className="m-0 text-faint">{PRESSES[answer.kind].name}, simulated</p>
          {changed && (
            <p className="m-0 text-warn">The design has changed since: make the file and send it once more.</p>
          )}
        </div>
        <button
          type="button"
          aria-label="Close the press’s answer"
          className="grid size-7 place-items-center rounded-sm border-0 bg-transparent hover:bg-line"
          onClick={() => session.set({ pressAnswer: null, pressRemark: null })}
        >
          <X size={16} aria-hidden />
        </button>
      </header>
      <div className="grid min-h-0 flex-1 content-start gap-3 overflow-auto p-3">
        {answer.remarks.length > 0 && (
          <ol aria-label="What the press says" className="m-0 grid list-none gap-1 p-0">
            {answer.remarks.map((r, i) => (
              <li
                key={i}
                className={`flex gap-2 rounded-sm border-l-3 bg-field p-2 ${r.refuses ? 'border-l-stop' : 'border-l-line'} ${at === i ? 'outline-2 outline-accent' : ''}`}
              >
                {r.refuses ? (
                  <CircleX size={15} aria-label="Refused" className="mt-0.5 shrink-0 text-stop" />
                ) : (
                  <Info size={15} aria-label="To be known" className="mt-0.5 shrink-0 text-faint" />
                )}
                <div className="min-w-0 flex-1">
                  <p className="m-0">{r.message}</p>
                  {r.page && (
                    <Button kind="quiet" className="-ml-2" onClick={() => show(r, i)}>
                      Show it
                    </Button>
                  )}
                </div>
              </li>
            ))}
          </ol>
        )}
        <dl aria-label="What it read" className="m-0 grid grid-cols-[72px_1fr] gap-x-2 gap-y-0.5 text-[12px]">
          {(
            [
              ['Kind', answer.standard ?? `PDF ${answer.version}`],
              ['Made for', answer.intent ?? 'no paper in particular'],
              ['Plates', answer.inks.join(', ') || 'none'],
              ['Faces', answer.fonts.map((f) => `${f.name}${f.embedded ? '' : ' (missing)'}`).join(', ') || 'none'],
            ] as const
          ).map(([word, value]) => (
            <div key={word} className="contents">
              <dt className="text-faint">{word}</dt>
              <dd className="m-0 min-w-0 break-words">{value}</dd>
            </div>
          ))}
        </dl>
        {answer.pages.map((p, i) => (
          <figure key={i} className="m-0 grid gap-1">
            {p.proof && (
              <img
                alt={`Proof of page ${i + 1}`}
                className="w-full border border-line bg-white"
                src={`data:image/png;base64,${p.proof}`}
              />
            )}
            <figcaption className="text-[12px] text-faint">
              Page {i + 1}: {length(p.width)} × {length(p.height)} {unit}, {length(p.bleed)} {unit} bleed,{' '}
              {p.inks.length} {p.inks.length === 1 ? 'plate' : 'plates'}
              {p.pictures > 0 && `, pictures from ${Math.round(p.ppi!)} ppi`}
            </figcaption>
          </figure>
        ))}
      </div>
    </section>
  );
}
