import { nameOf } from '../session/nameOf';
import { afterPaint } from '../session/afterPaint';
import { freeSelection, type CommandDef } from '../session/commandDef';

const keeping = afterPaint(() => import('../session/ownReadies'));

export const READY_COMMANDS = {
  'help.walk': {
    label: 'Take the walk',
    keywords: ['tour', 'introduction', 'first steps', 'tutorial', 'what is where', 'start'],
    keys: [],
    harmless: true,
    run: (s) => s.set({ walk: 0 }),
  },
  'sign.open': {
    label: 'Draw a signature',
    keywords: ['sign', 'signature', 'autograph', 'pen', 'handwriting', 'hand', 'certificate'],
    keys: [],
    run: (s) => s.set({ signing: true }),
  },
  'ready.open': {
    label: 'Put a ready-made on the page',
    keywords: [
      'ready-mades',
      'calendar',
      'border',
      'frame',
      'divider',
      'price tag',
      'coupon',
      'badge',
      'month',
      'clip art',
      'title',
      'address',
      'tear-off',
    ],
    keys: [],
    run: (s) => s.set({ chooserPart: 'ready', shapeChooser: true }),
  },
  'ready.keep': {
    label: 'Keep as a ready-made',
    keywords: ['save group', 'own library', 'reuse', 'symbol', 'component'],
    keys: [],
    harmless: true,
    applies: (s) => freeSelection(s).length > 0,
    run: (s) => {
      const ids = freeSelection(s);
      const node = s.design.nodes[ids[0]];
      if (!node) return;
      const name = ids.length > 1 ? `${nameOf(s.design, node)} and more` : nameOf(s.design, node);
      void keeping
        .get()
        .then((m) => m.keepReady(s, name, ids))
        .then((kept) => {
          if (kept) s.say(`“${name}” is among your ready-mades now: Shape in the rack, then Ready-mades.`);
        });
    },
  },
} as const satisfies Record<string, CommandDef>;
