import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { PlainSlider } from '@/ui/PlainSlider';

afterEach(cleanup);
beforeAll(() => {
  // jsdom catches no pointers and lays nothing out: the track is 200 px long.
  Object.assign(HTMLElement.prototype, {
    setPointerCapture() {},
    releasePointerCapture() {},
    hasPointerCapture: () => true,
  });
  HTMLElement.prototype.getBoundingClientRect = () => ({
    left: 0,
    right: 200,
    width: 200,
    top: 0,
    bottom: 24,
    height: 24,
    x: 0,
    y: 0,
    toJSON: () => ({}),
  });
});

function setup() {
  const shown: (number | null)[] = [];
  const kept: number[] = [];
  function Field() {
    const [v, setV] = useState(0);
    return (
      <PlainSlider
        label="Brightness"
        ends={['dark', 'light']}
        value={v}
        min={-100}
        max={100}
        step={1}
        says={(x) => `${x} %`}
        onPreview={(x) => shown.push(x)}
        onCommit={(x) => {
          kept.push(x);
          setV(x);
        }}
      />
    );
  }
  render(<Field />);
  const thumb = screen.getByRole('slider', { name: 'Brightness' });
  const root = thumb.parentElement!.parentElement!;
  const pointer = (type: string, x: number) =>
    fireEvent(root, Object.assign(new MouseEvent(type, { bubbles: true, clientX: x, button: 0 }), { pointerId: 1 }));
  return { shown, kept, thumb, pointer };
}

test('a drag shows what it comes to and is one step when let go', () => {
  const { shown, kept, thumb, pointer } = setup();
  pointer('pointerdown', 120);
  pointer('pointermove', 150);
  pointer('pointermove', 160);
  expect([shown, kept]).toEqual([[20, 50, 60], []]);
  expect(thumb.getAttribute('aria-valuetext')).toBe('60 %');
  pointer('pointerup', 160);
  expect(kept).toEqual([60]);
});

test('Escape takes a drag back, however the hand goes on till it lets go; the next drag counts again', () => {
  const { shown, kept, thumb, pointer } = setup();
  pointer('pointerdown', 120);
  pointer('pointermove', 150);
  fireEvent.keyDown(thumb, { key: 'Escape' });
  expect(shown.at(-1)).toBeNull();
  pointer('pointermove', 170);
  pointer('pointerup', 170);
  expect([shown.at(-1), kept, thumb.getAttribute('aria-valuenow')]).toEqual([null, [], '0']);
  fireEvent.keyDown(thumb, { key: 'ArrowLeft' });
  expect(kept).toEqual([-1]);
  pointer('pointerdown', 130);
  pointer('pointerup', 130);
  expect(kept).toEqual([-1, 30]);
});

test('keys are steps of their own, and Escape with nothing moving is nothing', () => {
  const { shown, kept, thumb } = setup();
  thumb.focus();
  fireEvent.keyDown(thumb, { key: 'ArrowRight' });
  expect(kept).toEqual([1]);
  const before = shown.length;
  fireEvent.keyDown(thumb, { key: 'Escape' });
  expect([shown.length, kept]).toEqual([before, [1]]);
});

test('its keys do not reach the bench, but undo does', () => {
  const { thumb } = setup();
  const heard: string[] = [];
  const listen = (e: KeyboardEvent) => heard.push(e.key);
  document.addEventListener('keydown', listen);
  for (const init of [
    { key: 'ArrowRight' },
    { key: 'Home' },
    { key: 'z', ctrlKey: true },
    { key: 'z', metaKey: true, shiftKey: true },
  ])
    fireEvent.keyDown(thumb, init);
  document.removeEventListener('keydown', listen);
  expect(heard).toEqual(['z', 'z']);
});
