import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import type { Setup } from '@/core/model/schema';
import { FORMATS } from '@/core/units/formats';
import { fromPoints, mm } from '@/core/units/length';
import { PageSetup, setupForFormat } from '@/ui/PageSetup';

afterEach(cleanup);
let now: Setup;

function Sheet({ start }: { start: Setup }) {
  const [setup, setSetup] = useState(start);
  now = setup;
  return <PageSetup setup={setup} onChange={setSetup} />;
}
const open = (name: string) =>
  render(
    <Sheet
      start={setupForFormat(
        FORMATS.find((f) => f.name === name)!,
        false,
      )}
    />,
  );
const type = (label: string, text: string) => {
  const field = screen.getByLabelText(label);
  fireEvent.change(field, { target: { value: text } });
  fireEvent.keyDown(field, { key: 'Enter' });
};
const size = () => [Math.round(fromPoints(now.width, 'mm')), Math.round(fromPoints(now.height, 'mm'))];

test('a format by name, turned, and a typed size of one’s own', () => {
  open('A4');
  fireEvent.change(screen.getByLabelText('Format'), { target: { value: 'A3' } });
  expect(size()).toEqual([297, 420]);
  fireEvent.click(screen.getByRole('radio', { name: 'Landscape' }));
  expect(size()).toEqual([420, 297]);
  expect(screen.getByLabelText<HTMLSelectElement>('Format').value).toBe('A3');
  type('Width', '0.5 in * 20');
  expect(size()).toEqual([254, 297]);
  expect(screen.getByLabelText<HTMLSelectElement>('Format').value).toBe('own');
});

test('a round label stays round; a screen format is made of light and has no bleed', () => {
  open('A4');
  fireEvent.change(screen.getByLabelText('Format'), { target: { value: 'Round label 50' } });
  expect([size(), now.round]).toEqual([[50, 50], true]);
  type('Width', '60');
  expect(size()).toEqual([60, 60]);
  fireEvent.change(screen.getByLabelText('Format'), { target: { value: 'Screen square' } });
  expect([now.medium, now.bleed, now.unit, Math.round(fromPoints(now.width, 'px'))]).toEqual(['screen', 0, 'px', 1080]);
  fireEvent.click(screen.getByRole('radio', { name: 'Print' }));
  expect([now.medium, now.bleed]).toEqual(['print', mm(3)]);
});

test('margins, columns and gutter; columns that do not fit are said', () => {
  open('A5');
  type('Margin left', '15');
  type('Columns', '3');
  type('Gutter', '4mm');
  expect([now.margins.left, now.columns]).toEqual([mm(15), { count: 3, gutter: mm(4) }]);
  type('Columns', '40');
  expect(screen.getByRole('alert').textContent).toMatch(/columns do not fit/);
});

test('absurd sizes are kept in reach', () => {
  open('A4');
  type('Width', '999999999');
  expect(fromPoints(now.width, 'mm')).toBeLessThanOrEqual(5000.001);
  type('Width', '-5');
  expect(now.width).toBeGreaterThanOrEqual(1);
});
