import { setLayers } from '@/core/edit/layers';
import { orderNodes } from '@/core/edit/pile';
import { referencesOn, traceNodes, tracePage } from '@/core/edit/trace';
import type { Page } from '@/core/model/schema';
import { bleedRect } from '@/core/scene/scene';
import { freeSelection, type CommandDef } from '../session/commandDef';
import { BENCH_TOP } from '../session/focus';
import { fitRect } from '../view/camera';
import { fitPage } from '../view/inSight';
import type { Session } from '../session/session';

export const references = (s: Session) => referencesOn(s.design, s.page);

/** How long each is seen, ms. */
const BLINK = 700;
const blinking = new WeakMap<Session, ReturnType<typeof setInterval>>();

/** Stops comparing: only the work is seen, with what is dimmed in it. */
export function stopComparing(s: Session): void {
  const timer = blinking.get(s);
  if (s.state.compare === 'beside') fitPage(s);
  if (timer) clearInterval(timer);
  blinking.delete(s);
  if (s.state.compare !== 'off' || s.state.blinks) s.set({ compare: 'off', blinks: false });
}

/** Shows the sheet whole in the left half of the bench top. */
function fitHalf(s: Session): void {
  const el = document.getElementById(BENCH_TOP);
  if (el) s.set({ camera: fitRect(bleedRect(s.setup), el.clientWidth / 2, el.clientHeight) });
}

/** Shows the references over the work, beside it, or in turn with it. */
export function compare(s: Session, how: 'over' | 'beside' | 'blink'): void {
  const same = how === 'blink' ? s.state.blinks : s.state.compare === how && !s.state.blinks;
  stopComparing(s);
  if (same || !references(s).length) return;
  if (how !== 'blink') {
    s.set({ compare: how });
    if (how === 'beside') fitHalf(s);
    return;
  }
  s.set({ compare: 'over', blinks: true });
  const timer = setInterval(() => {
    // The bench it was begun on is left.
    if (!document.getElementById(BENCH_TOP)) clearInterval(timer);
    else s.set({ compare: s.state.compare === 'over' ? 'off' : 'over' });
  }, BLINK);
  blinking.set(s, timer);
}

function traceSelection(s: Session): void {
  const ids = freeSelection(s);
  if (!s.commit('Trace it', (d) => void traceNodes(d, s.page, ids, s.newId))) return;
  s.select([]);
  s.say('It is dimmed and locked now, and never prints. Draw over it; hold the full stop key to see it alone.');
}

/** Lays a dimmed copy of another page below this one. */
export function traceOther(s: Session, other: Page): void {
  if (!s.commit('Trace a page', (d) => void tracePage(d, s.page, other, s.newId))) {
    s.say('Nothing lies on that page.', 'warn');
    return;
  }
  s.say(`${other.name || 'That page'} lies below, dimmed and locked; it never prints from here.`);
}

/** Puts references below all else or over it. */
export function orderReferences(s: Session, where: 'under' | 'over'): void {
  const ids = references(s).map((l) => l.id);
  s.commit(where === 'over' ? 'Reference over the work' : 'Reference under the work', (d) =>
    orderNodes(d, s.page, ids, where === 'over' ? 'front' : 'back'),
  );
}

/** Puts references away, or takes them out again. */
export function putAway(s: Session, hidden: boolean): void {
  const ids = references(s).map((l) => l.id);
  stopComparing(s);
  s.commit(hidden ? 'Put the reference away' : 'Show the reference', (d) => setLayers(d, ids, { hidden }));
}

export const TRACE_COMMANDS = {
  'trace.begin': {
    label: 'Trace it',
    keywords: ['reference', 'dim', 'lock', 'draw over', 'copy by hand'],
    keys: [],
    applies: (s) => freeSelection(s).length > 0,
    run: traceSelection,
  },
  'trace.blink': {
    label: 'Blink with the reference',
    keywords: ['compare', 'trace', 'before and after'],
    keys: [],
    applies: (s) => references(s).length > 0,
    run: (s) => compare(s, 'blink'),
    harmless: true,
  },
  'trace.beside': {
    label: 'Reference beside the work',
    keywords: ['compare', 'trace', 'side by side'],
    keys: [],
    applies: (s) => references(s).length > 0,
    run: (s) => compare(s, 'beside'),
    harmless: true,
  },
} as const satisfies Record<string, CommandDef>;
