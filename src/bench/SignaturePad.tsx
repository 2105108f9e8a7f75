'use client';
import { Dialog } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { placeIn, putSignature, signatureFrom, type Signature } from '@/core/edit/signature';
import type { HandPlace } from '@/core/edit/handLine';
import { rolesOf } from '@/core/edit/roles';
import { grow, type Rect } from '@/core/geometry/rect';
import { pathText } from '@/core/output/svg/text';
import { mm } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { freeSelection } from './session/commandDef';
import { useBench, useSession } from './session/context';
import { backToBench } from './session/focus';
import { keepSignatures } from './session/settings';

const [WIDTH, HEIGHT] = [640, 220];
/** How wide a signature is where nothing says how wide. */
const USUAL = mm(60);
/** How far it stays off the edges of what it is put into. */
const INSET = 0.06;

/** A sheet to sign on, by pen, finger or mouse; what was signed is kept for every design. */
export function SignaturePad() {
  const session = useSession();
  const kept = useBench((s) => s.signatures);
  const [strokes, setStrokes] = useState<readonly (readonly HandPlace[])[]>([]);
  const canvas = useRef<HTMLCanvasElement>(null);
  const shut = () => session.set({ signing: false });

  useEffect(() => draw(canvas.current, strokes), [strokes]);

  const place = (signature: Signature) => {
    const { page } = session;
    const at = placeIn(signature, boxFor());
    const { dark } = rolesOf(session.design, (c) => session.palette.labOf(c));
    let id = '';
    const done = session.commit('Signature', (d) => {
      id = putSignature(d, page, signature, at, dark, () => session.newId());
    });
    if (done) {
      session.select([id]);
      session.say('The signature is on the page, one group. It is kept: Draw a signature offers it again.');
    }
    shut();
  };
  /** The frame that is chosen, with room at its edges; else the middle of the page. */
  const boxFor = (): Rect => {
    const chosen = freeSelection(session);
    const box = chosen.length ? session.boxOf(chosen) : null;
    if (box && box.x1 > box.x0 && box.y1 > box.y0) {
      const by = INSET * Math.min(box.x1 - box.x0, box.y1 - box.y0);
      return grow(box, -by);
    }
    const { width, height } = session.setup;
    const w = Math.min(USUAL, width * 0.8);
    return { x0: (width - w) / 2, x1: (width + w) / 2, y0: height / 2 - w / 3, y1: height / 2 + w / 3 };
  };
  const done = () => {
    const signature = signatureFrom(strokes, session.newId());
    if (!signature) return;
    keepSignatures(session, [signature, ...kept]);
    place(signature);
  };
  const start = (e: React.PointerEvent<HTMLCanvasElement>) => {
    if (e.button !== 0) return;
    e.preventDefault();
    const el = e.currentTarget;
    el.setPointerCapture(e.pointerId);
    const box = el.getBoundingClientRect();
    const at = (p: PointerEvent): HandPlace => ({
      x: ((p.clientX - box.left) / box.width) * WIDTH,
      y: ((p.clientY - box.top) / box.height) * HEIGHT,
      ...(p.pointerType === 'pen' && { pressure: p.pressure }),
    });
    const line: HandPlace[] = [at(e.nativeEvent)];
    setStrokes([...strokes, [...line]]);
    const move = (p: PointerEvent) => {
      for (const q of p.getCoalescedEvents?.() ?? [p]) line.push(at(q));
      if (!p.getCoalescedEvents?.().length) line.push(at(p));
      setStrokes([...strokes, [...line]]);
    };
    const end = () => {
      el.removeEventListener('pointermove', move);
      el.removeEventListener('pointerup', end);
      el.removeEventListener('pointercancel', end);
    };
    el.addEventListener('pointermove', move);
    el.addEventListener('pointerup', end);
    el.addEventListener('pointercancel', end);
  };

  return (
    <Dialog.Root open onOpenChange={(on) => !on && shut()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content
          onCloseAutoFocus={backToBench}
          onKeyDown={(e) => e.stopPropagation()}
          style={{ boxShadow: 'var(--shadow)' }}
          className="fixed top-16 left-1/2 z-50 flex w-[680px] max-w-[96vw] -translate-x-1/2 flex-col gap-3 rounded-sm border border-line bg-panel p-4 outline-none"
        >
          <Dialog.Title className="m-0 text-[15px] font-semibold">Draw a signature</Dialog.Title>
          <Dialog.Description className="m-0 text-faint">
            Sign with a pen, a finger or the mouse. It is smoothed, and comes into the frame that is chosen, or onto the
            middle of the page.
          </Dialog.Description>
          <canvas
            ref={canvas}
            width={WIDTH * 2}
            height={HEIGHT * 2}
            role="img"
            aria-label={`Sheet to sign on, ${strokes.length} strokes so far`}
            className="w-full cursor-crosshair touch-none rounded-sm border border-edge bg-white"
            style={{ aspectRatio: `${WIDTH} / ${HEIGHT}` }}
            onPointerDown={start}
          />
          <div className="flex gap-2">
            <Button disabled={!strokes.length} onClick={() => setStrokes(strokes.slice(0, -1))}>
              Take back the last stroke
            </Button>
            <Button disabled={!strokes.length} onClick={() => setStrokes([])}>
              Begin anew
            </Button>
            <span className="flex-1" />
            <Button onClick={shut}>Close</Button>
            <Button kind="primary" disabled={!strokes.length} onClick={done}>
              Put it on the page
            </Button>
          </div>
          {kept.length > 0 && (
            <ul
              aria-label="Kept signatures"
              className="m-0 flex list-none flex-wrap gap-2 border-t border-line p-0 pt-3"
            >
              {kept.map((s, i) => (
                <li key={s.id} className="grid gap-1">
                  <button
                    type="button"
                    aria-label={`Put signature ${i + 1} on the page`}
                    className="grid h-16 w-36 place-items-center rounded-sm border border-line bg-white p-1 hover:border-edge"
                    onClick={() => place(s)}
                  >
                    <svg viewBox={`-0.02 -0.02 1.04 ${s.height + 0.04}`} className="max-h-14 w-32" aria-hidden>
                      {s.strokes.map((stroke, k) => (
                        <path
                          key={k}
                          d={pathText(stroke.path)}
                          fill="none"
                          stroke="#1a1a1a"
                          strokeWidth={s.line}
                          strokeLinecap="round"
                          strokeLinejoin="round"
                        />
                      ))}
                    </svg>
                  </button>
                  <Button
                    kind="quiet"
                    onClick={() =>
                      keepSignatures(
                        session,
                        kept.filter((x) => x.id !== s.id),
                      )
                    }
                  >
                    Forget it
                  </Button>
                </li>
              ))}
            </ul>
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** What was written so far, on a line to write on. */
function draw(canvas: HTMLCanvasElement | null, strokes: readonly (readonly HandPlace[])[]): void {
  const ctx = canvas?.getContext('2d');
  if (!canvas || !ctx) return;
  ctx.setTransform(canvas.width / WIDTH, 0, 0, canvas.height / HEIGHT, 0, 0);
  ctx.clearRect(0, 0, WIDTH, HEIGHT);
  ctx.strokeStyle = '#c4c4c4';
  ctx.lineWidth = 1;
  ctx.beginPath();
  ctx.moveTo(40, HEIGHT * 0.72);
  ctx.lineTo(WIDTH - 40, HEIGHT * 0.72);
  ctx.stroke();
  ctx.strokeStyle = '#1a1a1a';
  ctx.lineCap = ctx.lineJoin = 'round';
  for (const stroke of strokes)
    stroke.forEach((p, i) => {
      const from = stroke[i - 1] ?? p;
      ctx.lineWidth = 1 + 4.5 * (p.pressure ?? 0.6);
      ctx.beginPath();
      ctx.moveTo(from.x, from.y);
      ctx.lineTo(p.x, p.y);
      ctx.stroke();
    });
}
