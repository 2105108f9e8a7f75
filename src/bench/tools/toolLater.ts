import { afterPaint } from '../session/afterPaint';
import type { Gesture, Tool } from './tool';

/** A tool whose script comes after the first paint. A press before that waits with all that follows it: nothing of it is lost. */
export function toolLater(load: () => Promise<Tool>): Tool {
  const later = afterPaint(load);
  return {
    press(at, c) {
      if (later.now) return later.now.press(at, c);
      let gesture: Gesture | null = null;
      let waiting: ((g: Gesture) => void)[] | null = [];
      const pass = (act: (g: Gesture) => void) => {
        if (waiting) waiting.push(act);
        else if (gesture) act(gesture);
      };
      later.get().then(
        (tool) => {
          gesture = tool.press(at, c);
          for (const act of waiting ?? []) if (gesture) act(gesture);
          waiting = null;
          c.refresh();
        },
        () => c.session.say('This tool could not be fetched: the program does not answer. Try once more.', 'stop'),
      );
      return {
        move: (p) => pass((g) => g.move(p)),
        release: (p) => pass((g) => g.release(p)),
        cancel: () => pass((g) => g.cancel()),
      };
    },
    double(at, c) {
      if (later.now) later.now.double?.(at, c);
      else
        later.get().then(
          (tool) => tool.double?.(at, c),
          () => {},
        );
    },
    hover: (at, c) => later.now?.hover?.(at, c),
    cursor: (at, c) => later.now?.cursor(at, c) ?? '',
  };
}
