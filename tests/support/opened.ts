import { runCommand, type CommandId } from '@/bench/commands/commands';
import { choose } from '@/bench/tools/pick';
import type { Design, DesignNode } from '@/core/model/schema';
import type { Rect } from '@/core/geometry/rect';
import type { DesignBuilder } from '@/demo/builder';
import { openBench, type TestBench } from './bench';
import { idOf, sheet } from './drawing';

/** The bench of the test that runs, and short words for what tests of drawing do on it. Each test opens its own. */
export let b: TestBench;
export const open = async (draw: (d: DesignBuilder) => string[]): Promise<void> => {
  b = await openBench(sheet(draw));
};
afterEach(async () => {
  await b.session.settled();
  b.session.dispose();
});

export const design = (): Design => b.session.design;
export const id = (name: string): string => idOf(design(), name);
export const take = (...names: string[]): void => choose(b.session, names.map(id));
export const run = (c: CommandId): void => void runCommand(b.session, c);
export const said = (): string => b.session.state.message?.text ?? '';
export const boxOf = (name: string): Rect => b.session.boxOf([id(name)]);
export const only = (): DesignNode => design().nodes[b.session.state.selection[0]];
