import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { NumberField, type NumberFieldProps } from '@/ui/NumberField';
import { mm } from '@/core/units/length';

afterEach(cleanup);

/** A field that keeps what is committed, as the bench does; `log` sees every commit and preview. */
function Field({
  start,
  log,
  ...rest
}: Partial<NumberFieldProps> & { start: number | null; log: (string | number | null)[][] }) {
  const [value, setValue] = useState(start);
  return (
    <NumberField
      label="W"
      name="Width"
      unit="mm"
      {...rest}
      value={value}
      onPreview={(v) => log.push(['preview', v])}
      onCommit={(v) => {
        log.push(['commit', v]);
        setValue(v);
      }}
    />
  );
}
const setup = (start: number | null, props: Partial<NumberFieldProps> = {}) => {
  const log: (string | number | null)[][] = [];
  render(<Field start={start} log={log} {...props} />);
  const input = screen.getByLabelText<HTMLInputElement>('Width');
  const type = (text: string) => fireEvent.change(input, { target: { value: text } });
  return { log, input, type, key: (key: string, more = {}) => fireEvent.keyDown(input, { key, ...more }) };
};

test('shows the length in its unit, to two places', () => {
  expect(setup(mm(82.1049)).input.value).toBe('82.1 mm');
});

test.each([
  ['12', mm(12)],
  ['0.5in', 36],
  ['3pt+1mm', 3 + mm(1)],
  ['210/3', mm(70)],
  ['1 cm', mm(10)],
])('“%s” and Enter', (text, points) => {
  const { log, type, key } = setup(mm(50));
  type(text);
  key('Enter');
  expect(log).toEqual([['commit', expect.closeTo(points, 9)]]);
});

test('leaving the field keeps what was typed; what is unchanged is no step', () => {
  const { log, input, type } = setup(mm(50));
  fireEvent.focus(input);
  fireEvent.blur(input);
  expect(log).toEqual([]);
  type('60');
  fireEvent.blur(input);
  expect(log).toEqual([['commit', expect.closeTo(mm(60), 9)]]);
  expect(input.value).toBe('60 mm');
});

test('arrow keys step, with Shift tenfold, with Alt a tenth, within the limits', () => {
  const { log, key, input } = setup(mm(50), { max: mm(56) });
  key('ArrowUp');
  key('ArrowUp', { altKey: true });
  key('ArrowDown');
  expect(input.value).toBe('50.1 mm');
  key('ArrowUp', { shiftKey: true });
  expect(input.value).toBe('56 mm');
  expect(log.filter(([k]) => k === 'commit')).toHaveLength(4);
});

test('nonsense is said in words and nothing changes; Esc brings back what was', () => {
  const { log, type, key, input } = setup(mm(50));
  type('5 furlong');
  key('Enter');
  expect(screen.getByRole('alert').textContent).toBe('“furlong” is not a unit. Use mm, cm, in, pt or px.');
  expect(input.getAttribute('aria-invalid')).toBe('true');
  key('Escape');
  expect(input.value).toBe('50 mm');
  expect(screen.queryByRole('alert')).toBeNull();
  expect(log).toEqual([]);
});

test('mixed values show “mixed” and take one for all', () => {
  const { log, input, type, key } = setup(null);
  expect([input.value, input.placeholder]).toEqual(['', 'mixed']);
  key('ArrowUp');
  expect(log).toEqual([]);
  type('20');
  key('Enter');
  expect(log).toEqual([['commit', expect.closeTo(mm(20), 9)]]);
});

test('plain numbers: a suffix, whole counts, limits', () => {
  const { log, input, type, key } = setup(6, {
    unit: undefined,
    suffix: '°',
    min: 3,
    max: 100,
  } as Partial<NumberFieldProps>);
  expect(input.value).toBe('6°');
  type('400');
  key('Enter');
  expect(log).toEqual([['commit', 100]]);
  type('4mm');
  key('Enter');
  expect(screen.getByRole('alert').textContent).toBe('This field takes no unit.');
});

test('dragging the label shows, letting go commits once; cancelled it shows what was', () => {
  const { log } = setup(mm(50));
  const label = screen.getByText('W');
  label.setPointerCapture = () => {};
  const drag = (type: string, clientX: number) =>
    fireEvent(label, Object.assign(new MouseEvent(type, { bubbles: true, clientX }), { pointerId: 1 }));
  drag('pointerdown', 100);
  drag('pointermove', 101);
  drag('pointermove', 120);
  drag('pointerup', 120);
  expect(log).toEqual([
    ['preview', expect.closeTo(mm(60), 9)],
    ['commit', expect.closeTo(mm(60), 9)],
  ]);
  drag('pointerdown', 100);
  drag('pointermove', 140);
  drag('pointercancel', 140);
  expect(log.slice(2)).toEqual([
    ['preview', expect.closeTo(mm(80), 9)],
    ['preview', null],
  ]);
});
