import { afterPaint, fetchLater, firstPaint } from '@/bench/session/afterPaint';
import type { Gesture, PointerAt, Tool, ToolContext } from '@/bench/tools/tool';
import { toolLater } from '@/bench/tools/toolLater';

const at = (x: number): PointerAt => ({
  page: { x, y: 0 },
  screen: { x, y: 0 },
  shift: false,
  alt: false,
  mod: false,
});
/** A tool that notes what it is told, and how it comes. */
function noting() {
  const told: string[] = [];
  let come = (_tool: Tool) => {};
  const script = new Promise<Tool>((resolve) => (come = resolve));
  const gesture: Gesture = {
    move: (p) => told.push(`move ${p.page.x}`),
    release: (p) => told.push(`release ${p.page.x}`),
    cancel: () => told.push('cancel'),
  };
  const tool: Tool = {
    press: (p) => {
      told.push(`press ${p.page.x}`);
      return p.page.x < 100 ? gesture : null;
    },
    double: () => told.push('double'),
    cursor: () => 'crosshair',
  };
  const drawn = { times: 0 };
  const context = { refresh: () => drawn.times++ } as unknown as ToolContext;
  return { told, later: toolLater(() => script), come: () => come(tool), context, drawn };
}
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

describe('a tool whose script is still on its way', () => {
  test('a whole drag waits for it, in order, and is then as drawn', async () => {
    const { told, later, come, context, drawn } = noting();
    const drag = later.press(at(1), context)!;
    drag.move(at(2));
    expect([told, later.cursor(at(1), context)]).toEqual([[], '']);
    come();
    await settled();
    expect([told, drawn.times]).toEqual([['press 1', 'move 2'], 1]);
    drag.move(at(3));
    drag.release(at(4));
    expect(told).toEqual(['press 1', 'move 2', 'move 3', 'release 4']);
    expect(later.cursor(at(1), context)).toBe('crosshair');
  });

  test('what was let go or dropped before it came is let go or dropped; a press that is none stays none', async () => {
    const { told, later, come, context } = noting();
    later.press(at(1), context)!.release(at(2));
    later.press(at(3), context)!.cancel();
    later.press(at(500), context)!.move(at(501));
    later.double!(at(1), context);
    come();
    await settled();
    expect(told).toEqual(['press 1', 'release 2', 'press 3', 'cancel', 'press 500', 'double']);
    expect(later.press(at(600), context)).toBeNull();
  });
});

test('what waits for the first paint is fetched with it; what could not be had is asked for again', async () => {
  let tries = 0;
  const part = afterPaint(async () => {
    if (++tries === 1) throw new Error('no server');
    return 'here';
  });
  let painted = false;
  void firstPaint.then(() => (painted = true));
  await settled();
  expect([tries, painted, part.now]).toEqual([0, false, null]);
  await fetchLater();
  expect([tries, painted, part.now]).toEqual([1, true, null]);
  expect([await part.get(), part.now, await part.get(), tries]).toEqual(['here', 'here', 'here', 2]);
});
