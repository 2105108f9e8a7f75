import { strFromU8, unzipSync } from 'fflate';
import type { Depth } from '../src/core/model/schema';
import { BenchPage, expect, test, WHOLE } from './support';

const shot = (own: BenchPage, name: string) =>
  process.env.HOLVET_SHOTS ? own.page.screenshot({ path: `/tmp/try/${name}.png` }) : Promise.resolve();

interface File {
  nodes: Record<string, { name: string; kind: string; depth?: Depth; width?: number; children?: string[] }>;
}
async function saved(bench: BenchPage): Promise<File> {
  const file = await bench.handOver('Design');
  return JSON.parse(strFromU8(unzipSync(file.bytes)['design.json'])) as File;
}
const depthIn = (file: File): Depth | undefined => Object.values(file.nodes).find((n) => n.depth)?.depth;

test(
  'a flame traced with the pen over its reference and pushed back: ring dragged, shaded, edged, to a point, kept, made shapes',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Flame');
    await own.shape('Drop', 44, 40, 104, 130);
    await page.keyboard.press('Control+k');
    await expect(page.getByRole('dialog')).toBeVisible();
    await page.keyboard.type('Trace it');
    await page.keyboard.press('Enter');
    await expect(own.message()).toContainText('dimmed and locked');
    // Five nodes of the flame, the last on the first: drawn over the reference, which is not met.
    await page.getByRole('button', { name: 'Pen', exact: true }).click();
    for (const [x, y] of [
      [74, 41],
      [101, 92],
      [74, 129],
      [47, 92],
      [74, 41],
    ])
      await own.click(x, y);
    await page.getByRole('button', { name: 'Select', exact: true }).click();
    await own.top.focus();
    await page.keyboard.press('Control+a');
    const section = await own.unfold('Depth');
    await section.getByRole('checkbox', { name: 'Pushed back' }).check();
    await expect(own.field('Which way it is pushed')).toHaveValue('45°');
    // The ring, from where it stands to the right of the middle.
    const first = depthIn(await saved(own))!;
    const far = (first.length / 72) * 25.4 * Math.SQRT1_2;
    await own.drag(await own.at(74 + far, 85 + far), await own.at(104, 85), { keys: ['Shift'] });
    const dragged = depthIn(await saved(own))!;
    expect(Math.abs(dragged.angle)).toBeLessThan(0.01);
    expect((dragged.length / 72) * 25.4).toBeCloseTo(30, 0);
    await section.getByRole('combobox', { name: 'Sides' }).selectOption({ label: 'Black' });
    await own.field('Shading').fill('90');
    await page.keyboard.press('Enter');
    await section.getByRole('checkbox', { name: 'A line round every side' }).check();
    await shot(own, 'depth-way');
    await section.getByRole('radio', { name: 'To a point' }).click();
    await own.field('How deep, of the way to the point').fill('60');
    await page.keyboard.press('Enter');
    await own.drag(await own.at(74, 105), await own.at(120, 190));
    const vanish = depthIn(await saved(own))!.vanish!;
    expect((vanish.x / 72) * 25.4).toBeCloseTo(120, 0);
    expect(vanish.share).toBe(0.6);
    await shot(own, 'depth-point');
    await own.saved();
    await page.reload();
    await own.ready();
    await own.top.focus();
    await page.keyboard.press('Control+a');
    const again = await own.unfold('Depth');
    await expect(again.getByRole('radio', { name: 'To a point' })).toBeChecked();
    await again.getByRole('button', { name: 'Depth to shapes' }).click();
    await expect(own.message()).toContainText('Made the sides of 1 object shapes');
    expect(depthIn(await saved(own))).toBeUndefined();
    await page.getByRole('button', { name: /^Undo/ }).click();
    expect(depthIn(await saved(own))).toBeDefined();
  },
);

test('words with a long shadow that fades, and flat again', WHOLE, async ({ page }) => {
  const own = await BenchPage.make(page, 'A5', 'Long shadow');
  await own.write(30, 80, 'WALK');
  await page.keyboard.press('Escape');
  await own.top.focus();
  await page.keyboard.press('Control+a');
  const section = await own.unfold('Depth');
  await section.getByRole('checkbox', { name: 'Pushed back' }).check();
  await section.getByRole('radio', { name: 'Long shadow' }).click();
  await own.field('How deep').fill('40');
  await page.keyboard.press('Enter');
  await expect(section.getByRole('checkbox', { name: 'Fades out' })).toBeChecked();
  await shot(own, 'long-shadow');
  expect(depthIn(await saved(own))).toMatchObject({ kind: 'shadow', fades: true });
  await section.getByRole('checkbox', { name: 'Pushed back' }).uncheck();
  expect(depthIn(await saved(own))).toBeUndefined();
});

test(
  'five buttons that drifted: found by Checks, made equal in one press; measures copied to another shape',
  WHOLE,
  async ({ page }) => {
    const own = await BenchPage.make(page, 'A5', 'Buttons');
    const widths = [20, 20.6, 20, 19.5, 20];
    for (const [i, w] of widths.entries()) await own.shape('Star', 10 + 26 * i, 40, 10 + 26 * i + w, 60);
    const checks = page.getByRole('button', { name: /^Checks/ });
    await expect(checks).toContainText('2');
    await checks.click();
    const slip = page.getByRole('dialog', { name: 'Checks' });
    await expect(slip).toContainText('wider than 4 others like it');
    await slip.getByRole('button', { name: 'Make the set equal' }).first().click();
    await page.keyboard.press('Escape');
    await expect(checks).toContainText('nothing found');
    const sizes = Object.values((await saved(own)).nodes).map((n) => Math.round(((n.width ?? 0) / 72) * 254) / 10);
    expect(new Set(sizes).size).toBe(1);
    // One star gets another measure; its measures go to the others by copy and give.
    await own.click(20, 50);
    const shape = await own.unfold('Shape');
    await own.field('Points').fill('8');
    await page.keyboard.press('Enter');
    await shape.getByRole('button', { name: 'Copy measures' }).click();
    await own.click(46, 50);
    await shape.getByRole('button', { name: 'Give measures' }).click();
    await expect(own.message()).toContainText('Gave 1 shape the copied measures');
    await expect(own.field('Points')).toHaveValue('8');
    await shape.getByRole('button', { name: 'As it came' }).click();
    await expect(own.field('Points')).toHaveValue('5');
  },
);
