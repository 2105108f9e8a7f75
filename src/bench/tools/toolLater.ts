import { afterPaint, type Later } from '../session/afterPaint';
import type { Gesture, Tool, ToolContext } from './tool';

/** A gesture whose script comes after the first paint. What is done before that waits: nothing of it is lost. */
export function gestureLater<T>(later: Later<T>, make: (script: T) => Gesture | null, c: ToolContext): Gesture | null {
  if (later.now) return make(later.now);
  let gesture: Gesture | null = null;
  let waiting: ((g: Gesture) => void)[] | null = [];
  const pass = (act: (g: Gesture) => void) => {
    if (waiting) waiting.push(act);
    else if (gesture) act(gesture);
  };
  later.get().then(
    (script) => {
      gesture = make(script);
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
}

/** A tool whose script comes after the first paint. A press before that waits with all that follows it. */
export function toolLater(load: () => Promise<Tool>): Tool {
  const later = afterPaint(load);
  return {
    press: (at, c) => gestureLater(later, (tool) => tool.press(at, c), c),
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
