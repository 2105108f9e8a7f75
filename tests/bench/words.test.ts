import { putOnCircle, setBend } from '@/core/edit/display';
import { tryOut } from '@/core/edit/history';
import { addLook } from '@/core/edit/looks';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import type { Design, NodeOf } from '@/core/model/schema';
import { runCommand } from '@/bench/commands/commands';
import { comboOf } from '@/bench/commands/keys';
import { addFurtherOutline, canAddOutline } from '@/bench/commands/outlines';
import { lettersInPlace } from '@/bench/canvas/lettersInPlace';
import { selectTool } from '@/bench/tools/select';
import { beginEditing } from '@/bench/tools/editing';
import { placedGrips, selectionFrame, type PlacedGrip } from '@/bench/view/frame';
import { toPage } from '@/bench/view/camera';
import { DesignBuilder } from '@/demo/builder';
import { openBench, type TestBench } from '../support/bench';
import { making } from '../support/sample';

function page(): { design: Design; id: string; frame: string } {
  const b = new DesignBuilder(newDesign('Words', setupOf(400, 400), making), making);
  const id = b.displayText('Words', 100, 100, [{ align: 'middle', runs: [runOf('Lantern Walk', 30)] }]);
  const frame = b.textFrame('Frame', { x: 40, y: 250, w: 300, h: 100 }, [
    { runs: [runOf('Boats along the quay, stalls along the harbour wall.', 14)] },
    { runs: [runOf('Soup', 14)] },
  ]);
  b.place(0, [id, frame]);
  return { design: b.done(), id, frame };
}
const textOf = (t: TestBench, id: string) => t.session.design.nodes[id] as NodeOf<'displayText'>;
const grip = (t: TestBench, of: string): PlacedGrip =>
  placedGrips(t.session, selectionFrame(t.session)!).find((g) => g.grip.kind === 'words' && g.grip.of === of)!;
/** Drags a dot of the words by so much of the page, points. */
function dragDot(t: TestBench, of: string, dx: number, dy: number): void {
  const { x, y } = toPage(t.session.state.camera, grip(t, of).at);
  t.drag(selectTool, [x, y], [x + dx, y + dy]);
}

test('words on a circle are dragged along it by their dot, and across to its other side', async () => {
  const { design, id } = page();
  const t = await openBench(design);
  const round = tryOut(design, (d) => putOnCircle(d, id, t.engines.fonts));
  t.session.commit('Circle', (d) => void (d.nodes[id] = round.nodes[id] as (typeof d.nodes)[string]));
  t.session.select([id]);
  const { line } = textOf(t, id).along!;
  const radius = 'radius' in line ? line.radius : 0;
  // A quarter further round.
  dragDot(t, 'along', radius, radius);
  expect(textOf(t, id).along!.at).toBeCloseTo(0.25, 2);
  expect(textOf(t, id).along!.reversed).toBeUndefined();
  dragDot(t, 'along', -radius * 0.5, 0);
  expect(textOf(t, id).along!.reversed).toBe(true);
  t.session.undo();
  expect(textOf(t, id).along!.reversed).toBeUndefined();
});

test('bent words: strength and both tilts by their dots; a tilt near none is none', async () => {
  const { design, id } = page();
  const t = await openBench(design);
  t.session.commit('Bend', (d) => setBend(d, [id], { strength: 0.2 }));
  t.session.select([id]);
  const bend = () => textOf(t, id).bend!;
  dragDot(t, 'strength', 0, -9);
  expect(bend().strength).toBeGreaterThan(0.35);
  dragDot(t, 'tiltX', 30, 0);
  const across = bend().tiltX!;
  expect(across).toBeGreaterThan(0.2);
  // The dot goes with it, and back to the middle.
  dragDot(t, 'tiltX', -29, 0);
  expect(bend().tiltX).toBe(0);
  dragDot(t, 'tiltY', 0, 10);
  expect(bend().tiltY).toBeLessThan(-0.2);
  t.session.undo();
  expect(bend().tiltY ?? 0).toBe(0);
});

test('one more outline is seen at once, takes the next colour, and there are no more than can be aimed at', async () => {
  const { design, id } = page();
  const t = await openBench(design);
  t.session.select([id]);
  expect(canAddOutline(t.session)).toBe(true);
  const widths: number[] = [];
  for (let i = 0; i < 4; i++) {
    expect(runCommand(t.session, 'outline.add')).toBe(true);
    expect(t.session.state.aim).toBe(`outline${i + 2}`);
    const lines = textOf(t, id).letterOutlines!;
    expect(lines).toHaveLength(i + 1);
    expect(lines[0].behind).toBe(true);
    widths.unshift(lines[0].width);
  }
  // The lowest is the widest.
  expect([...widths].sort((a, b) => b - a)).toEqual(widths);
  expect(canAddOutline(t.session)).toBe(false);
  addFurtherOutline(t.session);
  expect(textOf(t, id).letterOutlines).toHaveLength(4);
  // An aim that the next thing has not falls back to one that it has.
  t.click(selectTool, 60, 262);
  expect(t.session.state.aim).toBe('letters');
});

test('the looks of a design have keys, for what is chosen and for the paragraph that is written in', async () => {
  const { design, id, frame } = page();
  const t = await openBench(
    tryOut(design, (d) => {
      addLook(d, { id: 'big', name: 'Big', kind: 'paragraph', paragraph: {}, letters: { size: 44 } });
      addLook(d, { id: 'wide', name: 'Wide', kind: 'letters', letters: { tracking: 90 } });
    }),
  );
  expect(runCommand(t.session, 'look.1')).toBe(false);
  t.session.select([id]);
  expect(runCommand(t.session, 'look.1')).toBe(true);
  const story = (of: string) => t.session.design.stories[textOf(t, of).story];
  expect(story(id).paragraphs[0].look).toBe('big');
  beginEditing(t.session, frame, null);
  t.session.set({ editing: { node: frame, anchor: 0, focus: 5 } });
  expect(runCommand(t.session, 'look.2')).toBe(true);
  expect(story(frame).paragraphs[0].runs.map((r) => [r.text.slice(0, 5), r.look])).toEqual([
    ['Boats', 'wide'],
    [' alon', undefined],
  ]);
  t.session.set({ editing: { node: frame, anchor: 60, focus: 60 } });
  expect(runCommand(t.session, 'look.1')).toBe(true);
  expect(story(frame).paragraphs.map((p) => p.look)).toEqual([undefined, 'big']);
  expect(runCommand(t.session, 'look.3')).toBe(false);
  // The key for third characters is no Ctrl with Alt.
  const key = { key: '²', code: 'Digit2', ctrlKey: true, metaKey: false, shiftKey: false, altKey: true };
  expect(comboOf(key)).toBe('Mod+Alt+2');
  expect(comboOf({ ...key, getModifierState: (k) => k === 'AltGraph' })).toBe('2');
});

test('the field is laid over words that the browser can set alike, and over no others', async () => {
  const { design, id, frame } = page();
  const t = await openBench(design);
  Object.assign(document, { createElement: () => ({ getContext: () => null }) });
  const place = () => lettersInPlace(t.session);
  expect(place()).toBeNull();
  beginEditing(t.session, frame, null);
  const lines = 3;
  const k = t.session.state.camera.scale;
  expect(place()!.style.width).toBeCloseTo(300 * k, 3);
  expect(place()!.height).toBeCloseTo(lines * 14 * 1.2 * k, 3);
  t.session.commit('Size', (d) => {
    const s = d.stories[textOf(t, frame).story];
    s.paragraphs[0].runs.push({ ...s.paragraphs[0].runs[0], text: ' More', size: 20 });
  });
  expect(place()).toBeNull();
  t.session.undo();
  expect(place()).not.toBeNull();
  beginEditing(t.session, id, null);
  expect(place()!.style.whiteSpace).toBe('pre');
  t.session.commit('Bend', (d) => setBend(d, [id], { strength: 0.2 }));
  expect(place()).toBeNull();
});
