import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { Button } from '@/ui/Button';
import { Check, ListChoice, WordChoice } from '@/ui/Choice';
import { Notice } from '@/ui/Notice';
import { Section } from '@/ui/Section';
import { Slip } from '@/ui/Slip';

afterEach(cleanup);

test('a row of words: one is chosen, each is named, none when mixed', () => {
  const picked: string[] = [];
  const options = [
    { value: 'left', label: 'Left' },
    { value: 'right', label: 'Right' },
  ] as const;
  const { rerender } = render(
    <WordChoice label="Alignment" value="left" options={options} onChange={(v) => picked.push(v)} />,
  );
  expect(screen.getByRole('radiogroup', { name: 'Alignment' })).toBeTruthy();
  expect(screen.getByRole('radio', { name: 'Left' }).getAttribute('aria-checked')).toBe('true');
  fireEvent.click(screen.getByRole('radio', { name: 'Right' }));
  expect(picked).toEqual(['right']);
  rerender(<WordChoice label="Alignment" value={null} options={options} onChange={() => {}} />);
  for (const r of screen.getAllByRole('radio')) expect(r.getAttribute('aria-checked')).toBe('false');
});

test('a list in groups; mixed shows so and can be left', () => {
  const picked: string[] = [];
  render(
    <ListChoice
      label="Face"
      value={null}
      groups={[
        { name: 'Serif', options: [{ value: 'a', label: 'One' }] },
        { name: '', options: [{ value: 'b', label: 'Two' }] },
      ]}
      onChange={(v) => picked.push(v)}
    />,
  );
  const list = screen.getByLabelText<HTMLSelectElement>('Face');
  expect(list.selectedOptions[0].textContent).toBe('mixed');
  expect(screen.getByRole('group', { name: 'Serif' })).toBeTruthy();
  fireEvent.change(list, { target: { value: 'b' } });
  expect(picked).toEqual(['b']);
});

test('a switch says what it does', () => {
  const seen: boolean[] = [];
  render(
    <Check label="Overprint" hint="Prints over what lies below." checked={false} onChange={(on) => seen.push(on)} />,
  );
  const box = screen.getByLabelText('Overprint');
  expect(document.getElementById(box.getAttribute('aria-describedby')!)!.textContent).toBe(
    'Prints over what lies below.',
  );
  fireEvent.click(box);
  expect(seen).toEqual([true]);
});

test('a slip hangs from its button, has a name, and keeps its keys from the bench', () => {
  const outside: string[] = [];
  const listen = (e: KeyboardEvent) => outside.push(e.key);
  window.addEventListener('keydown', listen);
  render(
    <Slip title="Pages" trigger={<Button>Open</Button>}>
      <input aria-label="In it" />
    </Slip>,
  );
  expect(screen.queryByRole('dialog')).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Open' }));
  expect(screen.getByRole('dialog', { name: 'Pages' })).toBeTruthy();
  fireEvent.keyDown(screen.getByLabelText('In it'), { key: 'x' });
  expect(outside).toEqual([]);
  window.removeEventListener('keydown', listen);
});

test('a notice says one thing and what to do next; a section has a heading', () => {
  render(
    <>
      <Notice
        title="Nothing here"
        text="The address may be mistyped."
        action={{ label: 'Go to the shelf', href: '/' }}
      />
      <Section title="Position">x</Section>
    </>,
  );
  expect(screen.getByRole('heading', { name: 'Nothing here' })).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Go to the shelf' }).getAttribute('href')).toBe('/');
  expect(screen.getByRole('heading', { name: 'Position' })).toBeTruthy();
});
