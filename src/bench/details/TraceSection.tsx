'use client';
import { useEffect } from 'react';
import { setWhole } from '@/core/edit/whole';
import { pageById, nodesOf } from '@/core/model/tree';
import { Button } from '@/ui/Button';
import { ListChoice, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Section } from '@/ui/Section';
import { runCommand } from '../commands/commands';
import { compare, orderReferences, putAway, references, stopComparing, traceOther } from '../commands/trace';
import { useBench, useSession } from '../session/context';

const isTyping = (e: KeyboardEvent): boolean =>
  e.target instanceof HTMLElement && e.target.closest('input, textarea, select, [contenteditable=true]') !== null;

/** While the full stop is held, the reference alone is seen. */
function useHeldKey(on: boolean): void {
  const session = useSession();
  useEffect(() => {
    if (!on) return;
    const ending = new AbortController();
    const { signal } = ending;
    window.addEventListener(
      'keydown',
      (e) => {
        if (e.key !== '.' || e.repeat || e.ctrlKey || e.metaKey || e.altKey || isTyping(e) || session.state.editing)
          return;
        stopComparing(session);
        session.set({ compare: 'over' });
      },
      { signal },
    );
    const end = () => session.state.compare === 'over' && !session.state.blinks && session.set({ compare: 'off' });
    window.addEventListener('keyup', (e) => void (e.key === '.' && end()), { signal });
    window.addEventListener('blur', end, { signal });
    return () => ending.abort();
  }, [session, on]);
}

/**
 * With something chosen: make it what is traced. With nothing chosen: how the reference lies, how dim it is, and how it
 * is compared.
 */
export function TraceSection() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const page = useBench((s) => s.page);
  const selection = useBench((s) => s.selection);
  const shown = useBench((s) => s.compare);
  const blinks = useBench((s) => s.blinks);
  const sheet = pageById(design, page);
  const layers = sheet ? references(session) : [];
  useHeldKey(layers.length > 0);
  const nodes = nodesOf(design, selection);
  const comparing = layers.length > 0 && (
    <div className="flex flex-wrap gap-1.5">
      <Button aria-pressed={shown === 'beside'} onClick={() => compare(session, 'beside')}>
        {shown === 'beside' ? 'Not beside' : 'Beside'}
      </Button>
      <Button aria-pressed={blinks} onClick={() => compare(session, 'blink')}>
        {blinks ? 'Stop blinking' : 'Blink'}
      </Button>
    </div>
  );
  if (nodes.length) {
    const pictures = nodes.some((n) => 'fills' in n && n.fills.some((f) => f.kind === 'picture'));
    const on = shown !== 'off' || blinks;
    if (!pictures && !on) return null;
    return (
      <Section title={on ? 'Reference' : 'Trace'} rare={!on}>
        <div className="grid gap-2">
          {pictures && <Button onClick={() => runCommand(session, 'trace.begin')}>Trace it</Button>}
          {on && comparing}
        </div>
      </Section>
    );
  }
  const others = design.pages.filter((p) => p.id !== page && p.children.length > 0);
  if (!layers.length && !others.length) return null;
  const first = sheet?.children[0] === layers[0]?.id;
  const hidden = layers.every((l) => l.hidden);
  const ids = layers.map((l) => l.id);
  return (
    <Section title={layers.length ? 'Reference' : 'Trace a page'} rare={!layers.length}>
      <div className="grid gap-2">
        {layers.length > 0 && (
          <>
            <WordChoice
              label="Where the reference lies"
              value={first ? 'under' : 'over'}
              options={[
                { value: 'under', label: 'Under' },
                { value: 'over', label: 'Over' },
              ]}
              onChange={(where) => orderReferences(session, where)}
            />
            <NumberField
              label="Strength"
              name="Strength of the reference"
              suffix="%"
              min={5}
              max={100}
              decimals={0}
              value={(layers[0].opacity ?? 1) * 100}
              onPreview={(v) => session.preview(v === null ? null : (d) => setWhole(d, ids, { opacity: v / 100 }))}
              onCommit={(v) =>
                session.commit('Strength of the reference', (d) => setWhole(d, ids, { opacity: v / 100 }))
              }
            />
            {comparing}
            <Button onClick={() => putAway(session, !hidden)}>{hidden ? 'Take it out' : 'Put it away'}</Button>
            <p className="m-0 text-[12px] text-faint">Hold the full stop key to see it alone. It never prints.</p>
          </>
        )}
        {others.length > 0 && (
          <ListChoice
            label="Trace a page"
            value=""
            groups={[
              {
                name: '',
                options: [
                  { value: '', label: 'choose …' },
                  ...others.map((p) => ({ value: p.id, label: p.name || `Page ${design.pages.indexOf(p) + 1}` })),
                ],
              },
            ]}
            onChange={(id) => {
              const other = others.find((p) => p.id === id);
              if (other) traceOther(session, other);
            }}
          />
        )}
      </div>
    </Section>
  );
}
