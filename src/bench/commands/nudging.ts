// Moving what is chosen by the arrow keys: objects, nodes, a picture in its frame.
import { translation } from '@/core/geometry/matrix';
import { mm } from '@/core/units/length';
import { free, freeSelection, type CommandDef } from '../session/commandDef';
import { panPicture } from '../tools/crop';
import { nudgeNodes, onNodes } from './nodes';

const nudge = (label: string, key: string, dx: number, dy: number): CommandDef => ({
  label,
  keywords: ['move', 'arrow'],
  keys: [key],
  applies: free,
  run: (s) => {
    if (s.state.crop) {
      panPicture(s, dx, dy);
      return;
    }
    if (onNodes(s)) {
      nudgeNodes(s, label, dx, dy);
      return;
    }
    const ids = freeSelection(s);
    if (s.commitMoved(label, ids, translation(dx, dy)))
      s.noteAgain({ kind: 'keep', map: translation(dx, dy), copy: false });
  },
});

export const NUDGE_COMMANDS = {
  'nudge.left': nudge('Nudge left', 'ArrowLeft', -mm(1), 0),
  'nudge.right': nudge('Nudge right', 'ArrowRight', mm(1), 0),
  'nudge.up': nudge('Nudge up', 'ArrowUp', 0, -mm(1)),
  'nudge.down': nudge('Nudge down', 'ArrowDown', 0, mm(1)),
  'nudge.leftFar': nudge('Nudge left by 10 mm', 'Shift+ArrowLeft', -mm(10), 0),
  'nudge.rightFar': nudge('Nudge right by 10 mm', 'Shift+ArrowRight', mm(10), 0),
  'nudge.upFar': nudge('Nudge up by 10 mm', 'Shift+ArrowUp', 0, -mm(10)),
  'nudge.downFar': nudge('Nudge down by 10 mm', 'Shift+ArrowDown', 0, mm(10)),
  'nudge.leftFine': nudge('Nudge left by 0.1 mm', 'Alt+ArrowLeft', -mm(0.1), 0),
  'nudge.rightFine': nudge('Nudge right by 0.1 mm', 'Alt+ArrowRight', mm(0.1), 0),
  'nudge.upFine': nudge('Nudge up by 0.1 mm', 'Alt+ArrowUp', 0, -mm(0.1)),
  'nudge.downFine': nudge('Nudge down by 0.1 mm', 'Alt+ArrowDown', 0, mm(0.1)),
} as const satisfies Record<string, CommandDef>;
