import { spreadOf } from '@/core/model/tree';
import { BENCH_TOP } from '../session/focus';
import { fitPage } from '../view/inSight';
import type { CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';

/**
 * Looking at the work as it will be: turned spread by spread, on the whole screen, in its true size, held against the
 * light.
 */

/** The page that many pages on. */
export function stepPage(s: Session, by: number): void {
  const { pages } = s.design;
  const next = pages[pages.findIndex((p) => p.id === s.page.id) + by];
  if (next) s.goToPage(next.id);
}

/** Turns over: to the next page, or where pages face each other to the next two. */
export function turnOver(s: Session, by: -1 | 1): void {
  const { pages } = s.design;
  const spread = spreadOf(s.design, s.page);
  const inWay = spread?.other && by > 0 === (spread.side === 'left');
  const at = pages.findIndex((p) => p.id === s.page.id) + (inWay ? 2 * by : by);
  const next = pages[at];
  if (next) s.goToPage(next.id);
}

/** Fills the screen with the bench top, cut at the trim; Escape, the browser's own key, comes back. */
async function fullScreen(s: Session): Promise<void> {
  const top = document.getElementById(BENCH_TOP);
  if (!top) return;
  if (document.fullscreenElement) return document.exitFullscreen();
  const before = s.state.view;
  try {
    await top.requestFullscreen();
  } catch {
    s.say('This browser does not let the sheet fill the screen.', 'warn');
    return;
  }
  s.set({ view: 'clean', editing: null });
  // The sheet is fitted when the bench top has its new measure.
  requestAnimationFrame(() => fitPage(s));
  document.addEventListener(
    'fullscreenchange',
    () => {
      s.set({ view: before });
      requestAnimationFrame(() => fitPage(s));
    },
    { once: true },
  );
}

/** The other side of a card: pages are front and back by twos. */
export function otherSide(s: Session): Session['page'] | null {
  const i = s.design.pages.findIndex((p) => p.id === s.page.id);
  return i < 0 ? null : (s.design.pages[i ^ 1] ?? null);
}

export const LOOKING_COMMANDS = {
  'view.fullScreen': {
    label: 'Full screen',
    keywords: ['present', 'presentation', 'slide show', 'whole screen', 'show to a client'],
    keys: ['Shift+F'],
    harmless: true,
    run: (s) => void fullScreen(s),
  },
  'view.measure': {
    label: 'Measure this screen',
    keywords: ['real size', 'true size', 'calibrate', 'life size', 'actual size', 'ruler', 'bank card'],
    keys: [],
    harmless: true,
    run: (s) => s.set({ measuring: true }),
  },
  'view.otherSide': {
    label: 'Show the other side through',
    keywords: ['back of the card', 'ghost', 'show through', 'front and back', 'transparent page', 'register'],
    keys: [],
    harmless: true,
    applies: (s) => otherSide(s) !== null && s.design.setup.facing === undefined,
    run: (s) => {
      s.set({ throughPage: !s.state.throughPage });
      s.say(
        s.state.throughPage
          ? 'The other side shines through, mirrored, as when the card is held against the light. It is not printed here.'
          : 'The other side shines through no more.',
      );
    },
  },
} as const satisfies Record<string, CommandDef>;
