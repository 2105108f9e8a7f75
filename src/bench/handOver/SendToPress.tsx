'use client';
import { useRef, useState } from 'react';
import { PRESSES, PRESS_KINDS, type PressKind } from '@/press/answer';
import { Button } from '@/ui/Button';
import { ListChoice } from '@/ui/Choice';
import type { MadePdf } from '../commands/handingOver';
import { useSession } from '../session/context';
import { sendToPress } from './pressCall';

/** The file that was made goes to a press, which answers as a print shop would. */
export function SendToPress({ pdf, onAnswered }: { pdf: MadePdf; onAnswered: () => void }) {
  const session = useSession();
  const [kind, setKind] = useState<PressKind>('coated');
  const [doing, setDoing] = useState<{ done: number; total: number; word: string } | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const stop = useRef<AbortController | null>(null);
  const send = async () => {
    setSaid(null);
    const of = session.state.design;
    stop.current = new AbortController();
    setDoing({ done: 0, total: 1, word: 'Sending' });
    try {
      const sent = await sendToPress(
        pdf.bytes,
        kind,
        (done, total, word) => setDoing({ done, total, word }),
        stop.current.signal,
      );
      if (sent.ok) {
        session.set({ pressAnswer: { answer: sent.answer, of }, pressRemark: null });
        onAnswered();
      } else setSaid(sent.message);
    } catch {
      setSaid('Stopped. The press keeps nothing of the file.');
    } finally {
      setDoing(null);
    }
  };
  return (
    <div className="grid gap-2 border-t border-line pt-3">
      <ListChoice
        label="Try it on a press"
        value={kind}
        groups={[{ name: '', options: PRESS_KINDS.map((k) => ({ value: k, label: PRESSES[k].name })) }]}
        onChange={setKind}
      />
      <p className="m-0 text-[12px] text-faint">
        {PRESSES[kind].said} A simulated one: it reads the file, keeps nothing, and answers.
      </p>
      {doing ? (
        <div role="status" className="grid gap-2">
          <progress className="w-full accent-(--accent)" max={doing.total} value={doing.done} aria-label={doing.word} />
          <div className="flex items-center justify-between">
            <span>{doing.word} …</span>
            <Button onClick={() => stop.current?.abort()}>Stop</Button>
          </div>
        </div>
      ) : (
        <Button onClick={() => void send()}>Send to the press</Button>
      )}
      {said && (
        <p role="alert" className="m-0 text-stop">
          {said}
        </p>
      )}
    </div>
  );
}
