'use client';
import { useEffect, useRef, useState } from 'react';
import { holds } from '@/core/geometry/rect';
import { afterPaint } from '../session/afterPaint';
import { comesLater } from '../session/comesLater';
import { useBench, useSession } from '../session/context';
import { Follows } from '../session/Follows';
import { hasObjects } from '../session/hasObjects';
import { shownDesign, type BenchState } from '../session/state';
import { endEditing } from '../tools/editing';
import { penScript, toolById } from '../tools/tools';
import { hitAll } from '@/core/scene/hit';
import { NEAR_PX, far, type Gesture, type PointerAt, type ToolContext } from '../tools/tool';
import { gestureLater } from '../tools/toolLater';
import { guides } from '../tools/select';
import { pick } from '../tools/pick';
import { openPileHere } from '../tools/pileHere';
import { ArtPainter, facingArt } from './artPainter';
import { toPage, zoomAt } from '../view/camera';
import { noExtras } from '../view/extras';
import { sameText, shownIn } from '../view/caret';
import { PressCount } from './pressCount';
import { drawOverlay, toolOverlays } from './overlay';
import { BENCH_TOP } from '../session/focus';
import { fitPage } from '../view/inSight';
import { RULER, drawRuler } from './rulers';

const crop = afterPaint(() => import('../tools/crop'));
const writing = afterPaint(() => import('../tools/text'));
const pictures = afterPaint(() => import('../commands/pictures'));
const PressBar = comesLater(() => import('./PressBar').then((m) => m.PressBar));
const VisionFilters = comesLater(() => import('./VisionFilters').then((m) => m.VisionFilters));
const Loupe = comesLater(() => import('./Loupe').then((m) => m.Loupe));
const GrowBar = comesLater(() => import('./GrowBar').then((m) => m.GrowBar));
const Crumbs = comesLater(() => import('./Crumbs').then((m) => m.Crumbs));
const PointerMenu = comesLater(() => import('./PointerMenu').then((m) => m.PointerMenu));
const TextInput = comesLater(() => import('./TextInput').then((m) => m.TextInput));
const PileHere = comesLater(() => import('./PileHere').then((m) => m.PileHere));
const StopSlip = comesLater(() => import('./StopSlip').then((m) => m.StopSlip));

/** A press held still this long lists what lies under it. */
const HOLD_MS = 500;

/** The bench top: the sheet, what lies on it, and the pointer at work. Pointer-rate values never go through render. */
export function BenchTop() {
  const session = useSession();
  const host = useRef<HTMLDivElement>(null);
  const art = useRef<HTMLCanvasElement>(null);
  const over = useRef<HTMLCanvasElement>(null);
  const across = useRef<HTMLCanvasElement>(null);
  const down = useRef<HTMLCanvasElement>(null);
  const readout = useRef<HTMLDivElement>(null);
  const [extras] = useState(noExtras);
  const view = useBench((s) => s.view);
  const loupe = useBench((s) => s.loupe !== null);
  const design = useBench((s) => s.design);
  const page = useBench((s) => s.page);
  const vision = useBench((s) => s.vision);
  const pageNumber = design.pages.findIndex((p) => p.id === page) + 1;

  useEffect(() => {
    const el = host.current!;
    const painter = new ArtPainter(art.current!, session);
    let frame = 0;
    let pointer: { x: number; y: number } | null = null;
    let gesture: Gesture | null = null;
    let last: PointerAt | null = null;
    let spaceHeld = false;
    let fitted = false;
    let holding: ReturnType<typeof setTimeout> | null = null;
    const presses = new PressCount();

    const refresh = () => {
      frame ||= requestAnimationFrame(() => {
        frame = 0;
        drawOverlay(over.current!, session, extras);
        const { camera } = session.state;
        const { unit } = session.design.setup;
        drawRuler(across.current!, camera, unit, false, pointer?.x ?? null);
        drawRuler(down.current!, camera, unit, true, pointer?.y ?? null);
      });
    };
    const say = (text: string | null, colour?: string) => {
      const r = readout.current!;
      r.hidden = text === null;
      if (text !== null) {
        r.textContent = text;
        r.style.borderLeft = colour ? `18px solid ${colour}` : '';
        const x = Math.min((pointer?.x ?? 0) + 18, el.clientWidth - r.offsetWidth - 4);
        const y = Math.min((pointer?.y ?? 0) + 20, el.clientHeight - r.offsetHeight - 4);
        r.style.transform = `translate(${x}px, ${Math.max(2, y)}px)`;
      }
    };
    const context: ToolContext = { session, extras, refresh, readout: say };

    const resize = () => {
      const ratio = window.devicePixelRatio || 1;
      for (const c of [art.current!, over.current!, across.current!, down.current!]) {
        c.width = Math.max(1, Math.round(c.clientWidth * ratio));
        c.height = Math.max(1, Math.round(c.clientHeight * ratio));
      }
      if (!fitted && el.clientWidth > 0) {
        fitted = true;
        fitPage(session);
      }
      painter.resized();
      refresh();
    };
    const observer = new ResizeObserver(resize);
    observer.observe(el);

    const at = (e: PointerEvent | WheelEvent | MouseEvent): PointerAt => {
      const r = el.getBoundingClientRect();
      const screen = { x: e.clientX - r.left, y: e.clientY - r.top };
      return {
        screen,
        page: toPage(session.state.camera, screen),
        shift: e.shiftKey,
        alt: e.altKey,
        mod: e.ctrlKey || e.metaKey,
        ...('pointerType' in e && e.pointerType === 'pen' && e.pressure > 0 && { pressure: e.pressure }),
      };
    };
    const activeTool = () =>
      (session.state.crop && !spaceHeld && crop.now?.cropTool) || toolById(spaceHeld ? 'hand' : session.state.tool);

    const onDown = (e: PointerEvent) => {
      if (e.button === 1) e.preventDefault();
      if (gesture || (e.button !== 0 && e.button !== 1)) return;
      let p = at(e);
      last = p;
      pointer = p.screen;
      if (!(e.target instanceof HTMLCanvasElement)) return;
      const count = presses.count(p.screen);
      el.focus({ preventScroll: true });
      el.setPointerCapture(e.pointerId);
      if (e.button === 1 || session.state.view !== 'work') {
        gesture = toolById('hand').press(p, context);
        return;
      }
      const { editing } = session.state;
      if (editing && !spaceHeld) {
        const found = pick(session, p);
        const over = (id: string) => holds(session.boxOf([id]), p.page);
        if (
          (found && sameText(session, found.hit.node, editing.node)) ||
          shownIn(session, editing.node).some((t) => over(t.id))
        ) {
          gesture = writing.now?.choosing(session, editing.node, p, count) ?? null;
          // The hidden field keeps the keys.
          queueMicrotask(() => el.querySelector('textarea')?.focus({ preventScroll: true }));
          refresh();
          return;
        }
        endEditing(session);
      }
      p = facingArt.now?.acrossTheFold(session, p, () => at(e)) ?? p;
      last = p;
      gesture = activeTool().press(p, context);
      if (holding) clearTimeout(holding);
      const pressed = p;
      // Held still on a heap of things, the button lists them.
      if (
        session.state.tool === 'select' &&
        !session.state.crop &&
        !spaceHeld &&
        hitAll(session.scene(), p.page, NEAR_PX / session.state.camera.scale).length > 1
      )
        holding = setTimeout(() => {
          if (!gesture || !last || far(last, pressed)) return;
          drop();
          openPileHere(session);
        }, HOLD_MS);
      refresh();
    };
    const onMove = (e: PointerEvent) => {
      const p = at(e);
      last = p;
      pointer = p.screen;
      session.pointer = p;
      if (gesture) gesture.move(p);
      else if (session.state.view === 'work') {
        if (!session.state.editing) activeTool().hover?.(p, context);
        el.style.cursor = session.state.editing ? 'text' : activeTool().cursor(p, context);
      } else el.style.cursor = 'grab';
      if (session.state.view === 'plates' && !gesture) inksUnder(p);
      refresh();
    };
    const onUp = (e: PointerEvent) => {
      if (holding) clearTimeout(holding);
      if (!gesture) return;
      const g = gesture;
      gesture = null;
      g.release(at(e));
      refresh();
    };
    const drop = () => {
      const g = gesture;
      gesture = null;
      g?.cancel();
      say(null);
      refresh();
    };
    const onLeave = () => {
      pointer = null;
      session.pointer = null;
      extras.rubber = null;
      extras.brush = null;
      if (!gesture) say(null);
      refresh();
    };
    const onDouble = (e: MouseEvent) => {
      if (session.state.view === 'work' && !session.state.editing) activeTool().double?.(at(e), context);
      refresh();
    };
    // Files let go over the sheet: what would take them is outlined.
    const dragged = (e: DragEvent) => [...(e.dataTransfer?.types ?? [])].includes('Files');
    const onDrag = (e: DragEvent) => {
      if (!dragged(e)) return;
      e.preventDefault();
      const p = at(e);
      pointer = p.screen;
      const onto = session.state.view === 'work' ? (pictures.now?.frameUnder(session, p.page) ?? null) : null;
      if (session.state.pointedAt !== onto) session.set({ pointedAt: onto });
      e.dataTransfer!.dropEffect = session.state.readOnly ? 'none' : 'copy';
      say(onto ? `into ${session.design.nodes[onto].name || 'the object'}` : 'place here');
    };
    const onDrop = (e: DragEvent) => {
      if (!dragged(e)) return;
      e.preventDefault();
      say(null);
      const p = at(e);
      // The list of what is dropped lives no longer than the event.
      const files = [...e.dataTransfer!.files];
      session.set({ pointedAt: null });
      pictures.get().then(
        ({ frameUnder, receiveFiles }) => {
          const onto = session.state.view === 'work' ? frameUnder(session, p.page) : null;
          void receiveFiles(session, files, p.page, onto ? { id: onto, aim: 'fill' } : null);
        },
        () => session.say('The file was not placed: the program does not answer. Drop it once more.', 'stop'),
      );
    };
    const onDragOut = () => {
      say(null);
      session.set({ pointedAt: null });
    };
    const onWheel = (e: WheelEvent) => {
      e.preventDefault();
      const { camera } = session.state;
      if (session.state.crop && !e.ctrlKey && !e.metaKey && !gesture)
        crop.now?.zoomPicture(session, Math.exp(-e.deltaY * (e.deltaMode ? 0.03 : 0.0012)), at(e).page);
      else if (e.ctrlKey || e.metaKey)
        session.set({ camera: zoomAt(camera, at(e).screen, Math.exp(-e.deltaY * (e.deltaMode ? 0.05 : 0.0022))) });
      else {
        const step = e.deltaMode ? 24 : 1;
        const [dx, dy] = e.shiftKey && !e.deltaX ? [e.deltaY, 0] : [e.deltaX, e.deltaY];
        session.set({ camera: { ...camera, x: camera.x - dx * step, y: camera.y - dy * step } });
      }
    };
    const onKey = (e: KeyboardEvent) => {
      const typing = e.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(e.target.tagName);
      if (e.key === ' ' && !typing && !(e.target instanceof HTMLButtonElement)) {
        spaceHeld = e.type === 'keydown';
        el.style.cursor = spaceHeld ? 'grab' : '';
        e.preventDefault();
      }
      if (e.type === 'keydown' && e.key === 'Escape' && gesture) {
        e.stopImmediatePropagation();
        drop();
      } else if (gesture && last && ['Shift', 'Alt', 'Control', 'Meta'].includes(e.key)) {
        if (e.key === 'Alt') e.preventDefault();
        last = { ...last, shift: e.shiftKey, alt: e.altKey, mod: e.ctrlKey || e.metaKey };
        gesture.move(last);
        refresh();
      }
    };

    let asking = false;
    const inksUnder = (p: PointerAt) => {
      if (asking) return;
      asking = true;
      void session.press.inksAt(session.page.id, p.page.x, p.page.y, session.state.inkSquare).then(
        (inks) => {
          asking = false;
          if (!pointer) return;
          const { channels } = session.palette;
          say(
            inks && !session.palette.screen
              ? [
                  ...inks.flatMap((v, i) => (v > 0 ? [`${channels[i]} ${Math.round(v * 100)} %`] : [])),
                  `${Math.round(inks.reduce((a, b) => a + b, 0) * 100)} % in all`,
                ].join('\n')
              : null,
          );
        },
        () => (asking = false),
      );
    };

    const rulerGuide = (axis: 'x' | 'y') => (e: PointerEvent) => {
      if (e.button !== 0 || gesture || session.state.view !== 'work' || session.state.readOnly) return;
      e.preventDefault();
      el.focus({ preventScroll: true });
      el.setPointerCapture(e.pointerId);
      pointer = at(e).screen;
      gesture = gestureLater(guides, (m) => m.dragGuide(context, axis, null), context);
      refresh();
    };

    // The focus is ours to give: a press must not take it from the hidden text field.
    const keepFocus = (e: MouseEvent) => {
      if (e.target instanceof HTMLCanvasElement) e.preventDefault();
    };
    const ending = new AbortController();
    const { signal } = ending;
    across.current!.addEventListener('pointerdown', rulerGuide('y'), { signal });
    down.current!.addEventListener('pointerdown', rulerGuide('x'), { signal });
    el.addEventListener('mousedown', keepFocus, { signal });
    el.addEventListener('pointerdown', onDown, { signal });
    el.addEventListener('pointermove', onMove, { signal });
    el.addEventListener('pointerup', onUp, { signal });
    el.addEventListener('pointercancel', drop, { signal });
    el.addEventListener('pointerleave', onLeave, { signal });
    el.addEventListener('dblclick', onDouble, { signal });
    el.addEventListener('dragover', onDrag, { signal });
    el.addEventListener('drop', onDrop, { signal });
    el.addEventListener('dragleave', onDragOut, { signal });
    el.addEventListener('wheel', onWheel, { signal, passive: false });
    window.addEventListener('keydown', onKey, { signal, capture: true });
    window.addEventListener('keyup', onKey, { signal, capture: true });
    const stop = session.store.subscribe((s, before) => {
      if (s.crop && (s.tool !== 'select' || s.view !== 'work' || !s.selection.includes(s.crop.node)))
        session.set({ crop: null });
      if (s.tool !== before.tool || s.pen !== before.pen) {
        extras.rubber = null;
        extras.brush = null;
        if (before.tool === 'pen' && s.tool !== 'pen' && s.pen) penScript.now?.finishPen(session);
      }
      if (s.page !== before.page) facingArt.now?.keepSpread(session, before);
      if (!onlyLooks(s, before)) refresh();
    });
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    const blink = setInterval(() => {
      if (!session.state.editing || still) return;
      extras.caretOn = !extras.caretOn;
      refresh();
    }, 530);
    const dark = window.matchMedia('(prefers-color-scheme: dark)');
    dark.addEventListener('change', resize, { signal });
    void document.fonts.ready.then(refresh);
    void toolOverlays.get().then(refresh, () => {});
    return () => {
      painter.dispose();
      observer.disconnect();
      stop();
      clearInterval(blink);
      cancelAnimationFrame(frame);
      ending.abort();
    };
  }, [session, extras]);

  return (
    <div className="relative min-h-0 min-w-0 overflow-hidden bg-bench">
      <canvas
        ref={across}
        aria-hidden
        title="Drag a guide out of the ruler"
        className="cursor-row-resize absolute top-0 right-0 block"
        style={{ left: RULER, width: `calc(100% - ${RULER}px)`, height: RULER }}
      />
      <canvas
        ref={down}
        aria-hidden
        title="Drag a guide out of the ruler"
        className="cursor-col-resize absolute bottom-0 left-0 block"
        style={{ top: RULER, width: RULER, height: `calc(100% - ${RULER}px)` }}
      />
      <div aria-hidden className="absolute top-0 left-0 bg-panel" style={{ width: RULER, height: RULER }} />
      <div
        ref={host}
        id={BENCH_TOP}
        tabIndex={0}
        role="application"
        aria-label={`Page ${pageNumber} of ${design.pages.length}, ${view} view. Objects are listed in the pile.`}
        className="absolute right-0 bottom-0 touch-none overflow-hidden outline-offset-[-2px] select-none"
        style={{ top: RULER, left: RULER }}
      >
        <VisionFilters />
        <canvas
          ref={art}
          aria-hidden
          data-testid="art"
          className="absolute inset-0 block size-full"
          style={{ filter: vision === 'all' ? undefined : `url(#vision-${vision})` }}
        />
        <canvas ref={over} aria-hidden className="absolute inset-0 block size-full" />
        <Follows>
          <PressBar />
        </Follows>
        {view === 'plates' && loupe && !session.palette.screen && <Loupe />}
        {view === 'work' && !hasObjects(design, page) && <FirstThings />}
        <div
          ref={readout}
          hidden
          role="status"
          className="pointer-events-none absolute top-0 left-0 rounded-sm bg-[#1a1a1a] px-2 py-0.5 whitespace-pre text-white"
        />
        <TextInput />
        <StopSlip />
        <Crumbs />
        <GrowBar />
        <PileHere />
      </div>
      <PointerMenu over={host} />
    </div>
  );
}

/** Did nothing change but how swatches look in something tried out? What lies over the sheet then stays as it is. */
function onlyLooks(s: BenchState, before: BenchState): boolean {
  if (s.tool === 'gradient') return false;
  const [a, b] = [shownDesign(s), shownDesign(before)];
  if (
    a.nodes !== b.nodes ||
    a.stories !== b.stories ||
    a.pages !== b.pages ||
    a.masters !== b.masters ||
    a.setup !== b.setup
  )
    return false;
  // What is calm is what the panels show.
  return (Object.keys(s) as (keyof BenchState)[]).every(
    (key) => key === 'preview' || key === 'calm' || s[key] === before[key],
  );
}

/** What an empty page says: the first three things to do. */
function FirstThings() {
  return (
    <div className="pointer-events-none absolute inset-x-0 bottom-4 grid justify-items-center">
      <ol className="m-0 list-decimal rounded-sm border border-line bg-panel py-3 pr-5 pl-8">
        <li>Type your colours into the recipe line below, or find a spot ink.</li>
        <li>Press Shape in the rack and drag on the sheet.</li>
        <li>Press Text, click on the sheet and write.</li>
      </ol>
    </div>
  );
}
