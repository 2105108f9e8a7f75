import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { CurveEditor } from '@/bench/pictures/CurveEditor';

afterEach(cleanup);
beforeAll(() => {
  // jsdom catches no pointers.
  Object.assign(SVGElement.prototype, { setPointerCapture() {} });
});

type Points = readonly (readonly [number, number])[];
let said: { points: Points; done: boolean }[] = [];
function Field({ start }: { start?: Points }) {
  const [points, setPoints] = useState(start);
  return (
    <CurveEditor
      label="Curve of ink 1"
      points={points}
      onChange={(p, done) => {
        said.push({ points: p, done });
        if (done) setPoints(p);
      }}
    />
  );
}
const open = (start?: Points) => {
  said = [];
  render(<Field {...(start && { start })} />);
};
const beads = () => screen.getAllByRole('slider');
/** A place in the field by darkness and ink: it is 216 × 84 with 8 round about. */
const at = (dark: number, ink: number) => ({
  clientX: 8 + dark * 200,
  clientY: 8 + (1 - ink) * 68,
  pointerId: 1,
  button: 0,
});
const field = () => screen.getByRole('group', { name: 'Curve of ink 1' });
/** jsdom's pointer events have no places of their own: mouse events by the pointer's names do. */
const pointer = (type: string, place: ReturnType<typeof at>) =>
  fireEvent(field(), Object.assign(new MouseEvent(type, { bubbles: true, ...place }), { pointerId: 1 }));

test('with no curve of its own it is straight, and says what a bead means', () => {
  open();
  expect(beads()).toHaveLength(2);
  expect(beads()[1].getAttribute('aria-valuetext')).toBe('100 % ink where the picture is 100 % dark');
});

test('keys move a bead, further with Shift; ends keep their place across, and nothing leaves the field', () => {
  open([
    [0, 0],
    [0.5, 0.5],
    [1, 1],
  ]);
  fireEvent.keyDown(beads()[1], { key: 'ArrowDown', shiftKey: true });
  expect(said.at(-1)).toEqual({
    points: [
      [0, 0],
      [0.5, 0.4],
      [1, 1],
    ],
    done: true,
  });
  fireEvent.keyDown(beads()[1], { key: 'ArrowRight' });
  expect(said.at(-1)!.points[1]).toEqual([0.52, 0.4]);
  fireEvent.keyDown(beads()[2], { key: 'ArrowUp' });
  fireEvent.keyDown(beads()[2], { key: 'ArrowLeft' });
  expect(said.at(-1)!.points[2]).toEqual([1, 1]);
});

test('beads do not pass each other', () => {
  open([
    [0, 0],
    [0.5, 0.5],
    [0.6, 0.7],
    [1, 1],
  ]);
  for (let i = 0; i < 12; i++) fireEvent.keyDown(beads()[1], { key: 'ArrowRight' });
  expect(said.at(-1)!.points[1][0]).toBeCloseTo(0.59);
});

test('a click makes a bead where it falls, and a drag takes it on; both are one change when let go', () => {
  open();
  pointer('pointerdown', at(0.4, 0.2));
  pointer('pointermove', at(0.45, 0.3));
  expect(said.map((s) => s.done)).toEqual([false]);
  pointer('pointerup', at(0.45, 0.3));
  expect(said.at(-1)).toEqual({
    points: [
      [0, 0],
      [0.45, 0.3],
      [1, 1],
    ],
    done: true,
  });
  expect(beads()).toHaveLength(3);
});

test('pulled out of the field or by Delete a bead is gone; the ends stay', () => {
  open([
    [0, 0],
    [0.3, 0.6],
    [0.7, 0.8],
    [1, 1],
  ]);
  pointer('pointerdown', at(0.3, 0.6));
  pointer('pointermove', at(0.3, -0.9));
  pointer('pointerup', at(0.3, -0.9));
  expect(said.at(-1)!.points).toEqual([
    [0, 0],
    [0.7, 0.8],
    [1, 1],
  ]);
  fireEvent.keyDown(beads()[1], { key: 'Delete' });
  expect(said.at(-1)!.points).toEqual([
    [0, 0],
    [1, 1],
  ]);
  const before = said.length;
  fireEvent.keyDown(beads()[0], { key: 'Delete' });
  fireEvent.keyDown(beads()[1], { key: 'Backspace' });
  expect([said.length, beads().length]).toEqual([before, 2]);
});

test('a drag that is broken off leaves the curve as it was', () => {
  open([
    [0, 0],
    [0.5, 0.5],
    [1, 1],
  ]);
  pointer('pointerdown', at(0.5, 0.5));
  pointer('pointermove', at(0.5, 0.9));
  pointer('pointercancel', at(0.5, 0.9));
  expect(said.at(-1)).toEqual({
    points: [
      [0, 0],
      [0.5, 0.5],
      [1, 1],
    ],
    done: false,
  });
  expect(beads()[1].getAttribute('aria-valuenow')).toBe('50');
});

test('there are never more than twelve beads', () => {
  open(Array.from({ length: 12 }, (_, i) => [i / 11, i / 11] as const));
  pointer('pointerdown', at(0.5, 0.9));
  pointer('pointerup', at(0.5, 0.9));
  expect([said.length, beads().length]).toEqual([0, 12]);
});
