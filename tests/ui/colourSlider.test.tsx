import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { Wheel } from '@/bench/tray/recipe/Wheel';
import { ColourSlider } from '@/ui/ColourSlider';

afterEach(cleanup);
const frame = () => act(async () => void (await new Promise((done) => requestAnimationFrame(done))));

function setup() {
  const shown: (number | null)[] = [];
  const kept: number[] = [];
  function Field() {
    const [v, setV] = useState(36);
    return (
      <ColourSlider
        label="M"
        name="Magenta"
        value={v}
        min={0}
        max={100}
        suffix="%"
        track={['#fff', '#f0f']}
        onPreview={(x) => {
          // As the slip does: what is shown has the tried number, and null brings back what is kept.
          shown.push(x);
          setV(x ?? kept.at(-1) ?? 36);
        }}
        onCommit={(x) => {
          kept.push(x);
          setV(x);
        }}
      />
    );
  }
  render(<Field />);
  return {
    shown,
    kept,
    slider: screen.getByRole<HTMLInputElement>('slider', { name: 'Magenta, slider' }),
    field: screen.getByRole<HTMLInputElement>('textbox', { name: 'Magenta' }),
  };
}

test('a drag shows at most one state a frame, and is kept once when let go', async () => {
  const { shown, kept, slider, field } = setup();
  for (const v of ['40', '50', '60']) fireEvent.change(slider, { target: { value: v } });
  await frame();
  expect(shown).toEqual([60]);
  expect(field.value).toBe('60%');
  expect(slider.value).toBe('60');
  fireEvent.pointerUp(slider);
  expect(kept).toEqual([60]);
  fireEvent.blur(slider);
  expect(kept).toEqual([60]);
});

test('Escape in mid-drag brings back what was', async () => {
  const { shown, kept, slider } = setup();
  fireEvent.change(slider, { target: { value: '80' } });
  await frame();
  fireEvent.keyDown(slider, { key: 'Escape' });
  expect(shown.at(-1)).toBeNull();
  expect(kept).toEqual([]);
  expect(slider.value).toBe('36');
});

test('Tab goes from number to number: the slider is not a stop on the way', () => {
  const { slider, field, kept } = setup();
  expect(slider.tabIndex).toBe(-1);
  fireEvent.change(field, { target: { value: '12.5' } });
  fireEvent.blur(field);
  expect(kept).toEqual([12.5]);
});

describe('the wheel', () => {
  const wheel = () => {
    const shown: ([number, number, number] | null)[] = [];
    const kept: [number, number, number][] = [];
    render(<Wheel hsb={[120, 0.5, 0.8]} onPreview={(v) => shown.push(v)} onCommit={(v) => kept.push(v)} />);
    const el = screen.getByRole('slider', { name: 'Colour wheel' });
    Object.assign(el, {
      setPointerCapture: () => {},
      getBoundingClientRect: () => ({ left: 0, top: 0, width: 100, height: 100 }),
    });
    const pointer = (type: string, clientX: number, clientY: number) =>
      fireEvent(el, Object.assign(new MouseEvent(type, { bubbles: true, clientX, clientY }), { pointerId: 1 }));
    return { shown, kept, el, pointer };
  };
  test('hue round the rim from the top, saturation from the middle, brightness left alone', () => {
    const { kept, pointer } = wheel();
    pointer('pointerdown', 100, 50);
    pointer('pointermove', 50, 25);
    pointer('pointerup', 50, 25);
    expect(kept).toEqual([[0, 0.5, 0.8]]);
    pointer('pointerdown', 100, 50);
    pointer('pointerup', 100, 50);
    expect(kept[1][0]).toBeCloseTo(90, 6);
    expect(kept[1][1]).toBeCloseTo(1, 6);
  });
  test('arrow keys turn and pull it, and it says where it stands', () => {
    const { kept, el } = wheel();
    expect(el.getAttribute('aria-valuetext')).toMatch(/^Hue 120°, saturation 50 %/);
    fireEvent.keyDown(el, { key: 'ArrowRight' });
    fireEvent.keyDown(el, { key: 'ArrowDown', shiftKey: true });
    expect(kept[0]).toEqual([121, 0.5, 0.8]);
    expect(kept[1][1]).toBeCloseTo(0.4, 9);
  });
});
