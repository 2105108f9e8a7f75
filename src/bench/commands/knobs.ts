import { dialOf, setKnobs } from '@/core/edit/window';
import { shapeById } from '@/core/shapes/catalogue';
import { count, freeSelection, type CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';

/** The dialled shapes among what is chosen. */
const dials = (s: Session) =>
  freeSelection(s).flatMap((id) => {
    const dial = dialOf(s.design.nodes[id]);
    return dial ? [{ id, dial }] : [];
  });

/** Those of them that the copied measures fit: shapes of the same kind. */
const takers = (s: Session) => dials(s).filter(({ dial }) => dial.shape === s.state.copiedKnobs?.shape);

function copyKnobs(s: Session): void {
  const [first] = dials(s);
  if (!first) return;
  const { shape, knobs } = first.dial;
  s.set({ copiedKnobs: { shape, knobs: { ...knobs } } });
  s.say('Copied its measures. Choose others of its kind and give them these.');
}

function giveKnobs(s: Session): void {
  const { copiedKnobs } = s.state;
  const to = takers(s);
  if (!copiedKnobs || !to.length) return;
  const done = s.commit('Give measures', (d) => {
    for (const { id } of to) for (const [key, v] of Object.entries(copiedKnobs.knobs)) setKnobs(d.nodes[id], [key], v);
  });
  s.say(done ? `Gave ${count(to.length, 'shape')} the copied measures.` : 'They have these measures already.');
}

function resetKnobs(s: Session): void {
  const all = dials(s);
  const done = s.commit('Measures as they came', (d) => {
    for (const { id, dial } of all)
      for (const p of shapeById(dial.shape)?.params ?? []) setKnobs(d.nodes[id], [p.id], p.initial);
  });
  s.say(done ? `${count(all.length, 'shape')} as it came.` : 'They are as they came already.');
}

export const KNOB_COMMANDS = {
  'knobs.copy': {
    label: 'Copy measures',
    keywords: ['knobs', 'dials', 'shape', 'parameters'],
    keys: [],
    applies: (s) => dials(s).length > 0,
    run: copyKnobs,
    harmless: true,
  },
  'knobs.give': {
    label: 'Give measures',
    keywords: ['knobs', 'paste', 'dials', 'shape', 'parameters'],
    keys: [],
    applies: (s) => takers(s).length > 0,
    run: giveKnobs,
  },
  'knobs.reset': {
    label: 'As it came',
    keywords: ['knobs', 'reset', 'default', 'shape', 'parameters'],
    keys: [],
    applies: (s) => dials(s).length > 0,
    run: resetKnobs,
  },
} as const satisfies Record<string, CommandDef>;
