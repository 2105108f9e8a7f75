import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { RampEditor } from '@/bench/ramps/RampEditor';
import { SessionProvider } from '@/bench/session/context';
import type { Session } from '@/bench/session/session';
import type { Stop } from '@/core/model/schema';

afterEach(cleanup);

// Only what the editor asks a session for: names and looks of colours.
const session = {
  design: { swatches: [], inks: [] },
  palette: {
    ramp: ({ stops }: { stops: Stop[] }) => ({
      stops: stops.map((s) => ({ offset: s.offset, mix: [s.offset], opacity: s.opacity ?? 1 })),
      used: [true],
      solid: true,
    }),
    lookOfMix: (m: number[]) => [m[0], 0, 0],
    css: () => '#123456',
  },
} as unknown as Session;

const grey = (offset: number): Stop => ({ offset, colour: { gray: offset } });

function setup(start: Stop[]) {
  const log: { label: string; offsets: number[] }[] = [];
  const shown: (number[] | null)[] = [];
  function Editor() {
    const [stops, setStops] = useState<readonly Stop[]>(start);
    const [chosen, setChosen] = useState<number | null>(null);
    return (
      <SessionProvider session={session}>
        <RampEditor
          ramp={{ stops }}
          chosen={chosen}
          onChoose={setChosen}
          onChange={(next, label) => {
            log.push({ label, offsets: next.map((s) => Math.round(s.offset * 100)) });
            setStops(next);
          }}
          onPreview={(next) => shown.push(next && next.map((s) => Math.round(s.offset * 100)))}
        />
      </SessionProvider>
    );
  }
  render(<Editor />);
  const bar = screen.getByTitle('Click to add a stop');
  bar.getBoundingClientRect = () => ({
    left: 100,
    right: 300,
    top: 0,
    bottom: 24,
    width: 200,
    height: 24,
    x: 100,
    y: 0,
    toJSON: () => ({}),
  });
  const beads = () => screen.getAllByRole('slider', { name: /^Stop/ });
  const pointer = (el: Element, type: string, clientX: number, clientY = 30) => {
    Object.assign(el, { setPointerCapture: () => {} });
    fireEvent(el, Object.assign(new MouseEvent(type, { bubbles: true, clientX, clientY }), { pointerId: 1 }));
  };
  return { log, shown, bar, beads, pointer };
}

test('each bead is a slider with its place and its colour in words', () => {
  const { beads } = setup([grey(0), grey(0.4), grey(1)]);
  expect(beads().map((b) => [b.getAttribute('aria-label'), b.getAttribute('aria-valuetext')])).toEqual([
    ['Stop 1 of 3, grey 100 %', '0 %'],
    ['Stop 2 of 3, grey 60 %', '40 %'],
    ['Stop 3 of 3, grey 0 %', '100 %'],
  ]);
});

test('a click on the ramp adds a stop there and chooses it', () => {
  const { log, bar, beads } = setup([grey(0), grey(1)]);
  fireEvent.click(bar, { clientX: 150 });
  expect(log).toEqual([{ label: 'Add a stop', offsets: [0, 25, 100] }]);
  expect(beads()).toHaveLength(3);
  expect(screen.getByLabelText<HTMLInputElement>('Position of the stop').value).toBe('25%');
});

test('dragged, a bead shows as it goes and is one step in the end; it does not pass its neighbours', () => {
  const { log, shown, beads, pointer } = setup([grey(0), grey(0.5), grey(1)]);
  const bead = beads()[1];
  pointer(bead, 'pointerdown', 200);
  pointer(bead, 'pointermove', 250);
  pointer(bead, 'pointermove', 900);
  pointer(bead, 'pointerup', 900);
  expect(shown).toEqual([
    [0, 75, 100],
    [0, 100, 100],
  ]);
  expect(log).toEqual([{ label: 'Move a stop', offsets: [0, 100, 100] }]);
});

test('pulled away it is taken out; of two neither can be', () => {
  const three = setup([grey(0), grey(0.5), grey(1)]);
  three.pointer(three.beads()[1], 'pointerdown', 200);
  three.pointer(three.beads()[1], 'pointermove', 205, 120);
  three.pointer(three.beads()[1], 'pointerup', 205, 120);
  expect(three.log).toEqual([{ label: 'Take out a stop', offsets: [0, 100] }]);
  three.pointer(three.beads()[1], 'pointerdown', 300);
  three.pointer(three.beads()[1], 'pointermove', 260, 200);
  three.pointer(three.beads()[1], 'pointerup', 260, 200);
  expect(three.log[1]).toEqual({ label: 'Move a stop', offsets: [0, 80] });
});

test('by keys: arrows move, with Shift further, Delete takes out; a typed place', () => {
  const { log, beads } = setup([grey(0), grey(0.5), grey(1)]);
  fireEvent.focus(beads()[1]);
  fireEvent.keyDown(beads()[1], { key: 'ArrowRight' });
  fireEvent.keyDown(beads()[1], { key: 'ArrowLeft', shiftKey: true });
  const field = screen.getByLabelText('Position of the stop');
  fireEvent.change(field, { target: { value: '200/3' } });
  fireEvent.keyDown(field, { key: 'Enter' });
  fireEvent.keyDown(beads()[1], { key: 'Delete' });
  fireEvent.keyDown(beads()[1], { key: 'Delete' });
  expect(log.map((l) => l.offsets)).toEqual([
    [0, 51, 100],
    [0, 41, 100],
    [0, 67, 100],
    [0, 100],
  ]);
});
