import { runCommand } from '@/bench/commands/commands';
import { copySelection, pasteFrom, readClip } from '@/bench/commands/copyPaste';
import { moveNodes } from '@/core/edit/place';
import { replaceText } from '@/core/edit/text';
import type { DesignDraft } from '@/core/edit/history';
import { serializeDesign } from '@/core/model/serialize';
import { Journal, type Keeping } from '@/store/journal';
import { HolvetDatabase } from '@/store/database';
import { DesignStore } from '@/store/designs';
import { openBench, type TestBench } from '../support/bench';
import { random } from '../support/random';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { DesignBuilder, flat } from '@/demo/builder';
import { cmyk, making } from '../support/sample';

const RUNS = process.env.HOLVET_FULL ? 1000 : 10;
/** Small, since it is opened thousands of times: three shapes in two groups, and a text. */
function small(): Design {
  const b = new DesignBuilder(newDesign('Kept', setupOf(300, 200), making), making);
  const shape = (name: string, x: number) =>
    b.shape(name, 'ellipse', { x, y: 20, w: 40, h: 40 }, { fill: flat(cmyk(0, 60, 90, 0)) });
  b.place(0, [
    shape('One', 10),
    b.group('Pair', [shape('Two', 60), shape('Three', 120)]),
    b.displayText('Words', 20, 150, [{ align: 'left', leading: 1.2, runs: [runOf('Quay', 20)] }]),
  ]);
  return b.done();
}
const DESIGN = small();
const TEXT = Object.values(DESIGN.nodes).find((n) => n.kind === 'displayText')!;
const story = 'story' in TEXT ? TEXT.story : '';

type Weather = 'fine' | 'failing' | 'slow' | 'answer lost' | 'half';

/** A store whose writes go wrong in the ways that browsers' storage does; the kept rows are real. */
function storms(b: TestBench, next: () => number): { set(w: Weather): void } {
  let weather: Weather = 'fine';
  for (const name of ['append', 'moveCursor', 'keepWhole', 'keepAside'] as const) {
    const real = b.store[name].bind(b.store) as (...args: unknown[]) => Promise<void>;
    (b.store as unknown as Record<string, unknown>)[name] = async (...args: unknown[]) => {
      if (weather === 'failing' || (weather === 'half' && next() < 0.5))
        throw new DOMException('full', 'QuotaExceededError');
      if (weather === 'slow') await new Promise((r) => setTimeout(r, 1 + next() * 4));
      await real(...args);
      // It was kept, but the page never heard of it.
      if (weather === 'answer lost' && next() < 0.5) throw new Error('the connection to the storage was lost');
    };
  }
  return { set: (w) => void (weather = w) };
}

test(`what said saved is there after a reload, byte for byte, and every design opens: ${RUNS} sessions`, async () => {
  for (let seed = 1; seed <= RUNS; seed++) {
    const next = random(seed);
    const b = await openBench(DESIGN);
    const { session: s } = b;
    const weather = storms(b, next);
    const kinds: Weather[] = ['fine', 'failing', 'slow', 'answer lost', 'half'];
    const reload = async (what: string) => {
      const said = s.state.save.kind === 'saved' ? serializeDesign(s.state.design) : null;
      const steps = s.state.cursor;
      const kept = await b.store.load(DESIGN.id);
      if (!kept.ok) throw new Error(`seed ${seed}, ${what}: the design does not open`);
      if (kept.value.warning) throw new Error(`seed ${seed}, ${what}: ${kept.value.warning}`);
      if (said === null) return;
      if (serializeDesign(kept.value.design) !== said)
        throw new Error(`seed ${seed}, ${what}: said saved, and another design comes back`);
      if (kept.value.cursor < Math.min(steps, 200))
        throw new Error(`seed ${seed}, ${what}: ${kept.value.cursor} steps can be undone, there were ${steps}`);
    };
    let typed = 0;
    for (let i = 0; i < 30; i++) {
      const id = DESIGN.pages[0].children[Math.floor(next() * DESIGN.pages[0].children.length)];
      switch (Math.floor(next() * 9)) {
        case 0:
        case 1:
          s.commit('Move', (d) =>
            moveNodes(
              d,
              s.page,
              [id].filter((x) => d.nodes[x]),
              1 + i,
              0,
            ),
          );
          break;
        // A word typed: its letters come one after the other, each step taking the place of the last.
        case 2:
          for (let k = 0; k < 4; k++)
            s.commit(
              'Type',
              (d) =>
                void (d.stories[story] &&= replaceText(
                  s.design.stories[story],
                  0,
                  0,
                  String(typed++ % 10),
                ) as DesignDraft['stories'][string]),
              { merge: 'type' },
            );
          break;
        case 3:
          for (let k = 0; k < 3; k++)
            s.commit('Slide', (d) => void (d.nodes[id] && (d.nodes[id].opacity = 0.2 + k / 10)), {
              merge: `slide ${id}`,
            });
          break;
        case 4:
          s.undo();
          break;
        case 5:
          s.redo();
          break;
        case 6: {
          s.select([id].filter((x) => s.design.nodes[x]));
          if (copySelection(s)) pasteFrom(s, readClip());
          break;
        }
        case 7:
          runCommand(s, 'object.delete');
          break;
        default:
          weather.set(kinds[Math.floor(next() * kinds.length)]);
      }
      if (next() < 0.3) await s.settled();
      if (next() < 0.15) await reload(`step ${i}`);
    }
    weather.set('fine');
    for (let tries = 0; s.state.save.kind !== 'saved' && tries < 50; tries++) {
      s.journal.retry();
      await s.settled();
    }
    expect([seed, s.state.save.kind]).toEqual([seed, 'saved']);
    await reload('at the end');
    s.dispose();
  }
}, 600_000);

describe('the journal', () => {
  const entry = {
    label: 'x',
    patches: [{ op: 'replace' as const, path: ['name'], value: 'y' }],
    inverse: [{ op: 'replace' as const, path: ['name'], value: 'z' }],
  };
  test('waits, says why and since when, and tries again by itself until all is kept, in order', async () => {
    const written: number[] = [];
    const told: Keeping[] = [];
    let broken = true;
    const store = {
      append: async (_: unknown, __: unknown, seq: number) => {
        if (broken) throw new Error('gone');
        written.push(seq);
      },
      moveCursor: async () => {},
      keepWhole: async () => {},
      keepAside: async () => {},
    };
    const journal = new Journal(
      store,
      () => {
        throw new Error('not asked');
      },
      (k) => void told.push(k),
      () => 42,
    );
    journal.step(DESIGN, entry, 0);
    journal.step(DESIGN, entry, 1);
    await journal.settled();
    expect(told.at(-1)).toEqual({ kind: 'waiting', why: 'gone', since: 42, steps: 2 });
    broken = false;
    await new Promise((r) => setTimeout(r, 700));
    expect(written).toEqual([0, 1]);
    expect(told.at(-1)).toEqual({ kind: 'saved' });
    expect(told.findIndex((t) => t.kind === 'saved')).toBe(told.length - 1);
    journal.dispose();
  });
  test('a merged step replaces its forerunner in one write, whenever the browser dies', async () => {
    const db = new HolvetDatabase('one-write');
    const store = new DesignStore(db);
    await store.add(DESIGN);
    const b = await openBench(DESIGN);
    const type = (text: string) =>
      b.session.commit(
        'Type',
        (d) =>
          void (d.stories[story] = replaceText(DESIGN.stories[story], 0, 0, text) as DesignDraft['stories'][string]),
        { merge: 'type' },
      );
    type('L');
    await b.session.settled();
    // Between any two writes of the next letters the store holds either the old word or the new one.
    const seen: string[] = [];
    const append = b.store.append.bind(b.store);
    b.store.append = async (...args) => {
      const look = async () => {
        const kept = await b.store.load(DESIGN.id);
        if (!kept.ok) throw new Error(kept.reason);
        const p = kept.value.design.stories[story].paragraphs[0].runs[0].text;
        seen.push(p.slice(0, 4));
      };
      await look();
      await append(...args);
      await look();
    };
    for (const word of ['La', 'Lan', 'Lant']) {
      type(word);
      await b.session.settled();
    }
    expect(seen.every((w) => w.startsWith('L'))).toBe(true);
    b.session.dispose();
  });
  test('another tab takes over: what waits stays said, and nothing more is written', async () => {
    const b = await openBench(DESIGN);
    b.store.append = async () => {
      throw new Error('blocked');
    };
    b.session.commit('Move', (d) => moveNodes(d, b.session.page, [DESIGN.pages[0].children[0]], 3, 0));
    await b.session.settled();
    b.session.becomeReadOnly();
    expect(b.session.state.save).toMatchObject({
      kind: 'waiting',
      steps: 1,
      why: 'another tab works on this design now',
    });
    b.session.dispose();
  });
});
