import { setPaint } from '@/core/edit/paint';
import { moveNodes, scaleNodes } from '@/core/edit/place';
import { serializeDesign } from '@/core/model/serialize';
import { applyColour } from '@/bench/tools/colouring';
import { COMMAND_IDS, COMMAND_TABLE, runCommand } from '@/bench/commands/commands';
import { copySelection, pasteFrom, readClip } from '@/bench/commands/copyPaste';
import { comboOf } from '@/bench/commands/keys';
import { colourName, paintName } from '@/bench/session/naming';
import { onPress, pressOrder } from '@/bench/session/state';
import { demoDesigns } from '@/demo/demos';
import { openBench, type TestBench } from '../support/bench';
import { cmyk, sampleDesign } from '../support/sample';
import { leavesOf } from '../support/scenes';

let b: TestBench;
beforeEach(async () => {
  b = await openBench(demoDesigns()[0].design);
});
afterEach(async () => {
  await b.session.settled();
  b.session.dispose();
});
const id = (name: string) => Object.values(b.session.design.nodes).find((n) => n.name === name)!.id;
const select = (...names: string[]) => b.session.select(names.map(id));
const nudge = (dx: number, label = 'Move') =>
  b.session.commit(label, (d) => moveNodes(d, b.session.page, [id('Moon')], dx, 0));

describe('changing and keeping', () => {
  test('a change is one step: shown, kept and told to the press before it is said to be saved', async () => {
    expect(nudge(5)).toBe(true);
    expect(b.session.state.save.kind).toBe('saving');
    await b.session.settled();
    expect(b.session.state.save.kind).toBe('saved');
    const kept = await b.store.load(b.session.design.id);
    if (!kept.ok) throw new Error(kept.reason);
    expect(serializeDesign(kept.value.design)).toBe(serializeDesign(b.session.design));
    expect(serializeDesign(b.press.copy!)).toBe(serializeDesign(b.session.design));
  });

  test('what changes nothing is no step', () => {
    expect(nudge(0)).toBe(false);
    expect(b.session.state.entries).toHaveLength(0);
    expect(b.session.state.save.kind).toBe('saved');
  });

  test('what would lose an object far from its page, or blow it up, is refused and said', () => {
    const before = serializeDesign(b.session.design);
    expect(nudge(1e30)).toBe(false);
    expect(b.session.state.message?.text).toMatch(/“Moon” would lie or reach further than 20 m from its page/);
    const tall = b.session.commit('Resize', (d) => scaleNodes(d, b.session.page, [id('Moon')], [1e9, 0, 0, 1e9, 0, 0]));
    expect([tall, nudge(NaN)]).toEqual([false, false]);
    expect(serializeDesign(b.session.design)).toBe(before);
  });

  test('undo and redo go back and on, in the store and at the press too', async () => {
    const start = serializeDesign(b.session.design);
    nudge(5, 'One');
    nudge(6, 'Two');
    const end = serializeDesign(b.session.design);
    b.session.undo();
    b.session.undo();
    b.session.undo();
    expect(serializeDesign(b.session.design)).toBe(start);
    expect(serializeDesign(b.press.copy!)).toBe(start);
    b.session.redo();
    b.session.redo();
    expect(serializeDesign(b.session.design)).toBe(end);
    b.session.undo();
    await b.session.settled();
    const kept = await b.store.load(b.session.design.id);
    expect(kept.ok && kept.value.cursor).toBe(1);
    nudge(9, 'Three');
    expect(b.session.state.entries.map((e) => e.label)).toEqual(['One', 'Three']);
  });

  test('steps with one key that follow at once become one; its undo goes back to before the first', async () => {
    const before = serializeDesign(b.session.design);
    for (const x of [10, 20, 30])
      b.session.commit('Slide', (d) => void (d.nodes[id('Moon')].transform = [1, 0, 0, 1, x, 0]), { merge: 'slide' });
    expect(b.session.state.entries.map((e) => e.label)).toEqual(['Slide']);
    await b.session.settled();
    const kept = await b.store.load(b.session.design.id);
    expect(kept.ok && kept.value.entries.length).toBe(1);
    expect(kept.ok && serializeDesign(kept.value.design)).toBe(serializeDesign(b.session.design));
    expect(serializeDesign(b.press.copy!)).toBe(serializeDesign(b.session.design));
    b.session.undo();
    expect(serializeDesign(b.session.design)).toBe(before);
  });

  test('a preview is shown, not kept; dropping it leaves no trace', async () => {
    const before = b.session.state.design;
    b.session.preview((d) => moveNodes(d, b.session.page, [id('Moon')], 50, 0), [id('Moon')]);
    expect(b.session.design).not.toBe(before);
    expect(leavesOf(b.session.scene()).length).toBe(leavesOf(b.session.restingScene(before)).length);
    b.session.preview(null);
    expect(b.session.design).toBe(before);
    expect(b.session.state.entries).toHaveLength(0);
  });

  test('looking only: nothing can be changed, and it is said', () => {
    b.session.set({ readOnly: true });
    expect(nudge(5)).toBe(false);
    expect(b.session.state.message?.text).toContain('here it can only be looked at');
    b.session.undo();
    expect(b.session.state.cursor).toBe(0);
  });

  test('storage that fails is said with its reason; work goes on, in order, until all of it is kept', async () => {
    const { append, moveCursor } = b.store;
    const full = async () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
    b.store.append = full;
    b.store.moveCursor = full;
    nudge(5, 'One');
    nudge(6, 'Two');
    b.session.undo();
    await b.session.settled();
    expect(b.session.state.save).toEqual({
      kind: 'waiting',
      why: 'the browser’s storage is full',
      steps: 3,
      since: expect.any(Number),
    });
    expect(b.session.state.entries).toHaveLength(2);
    // Storage is there again: the next step does not say saved before those ahead of it are kept too.
    Object.assign(b.store, { append, moveCursor });
    nudge(7, 'Three');
    await b.session.settled();
    expect(b.session.state.save).toEqual({ kind: 'saved' });
    const kept = await b.store.load(b.session.design.id);
    expect(kept.ok && kept.value.entries.map((e) => e.label)).toEqual(['One', 'Three']);
    expect(kept.ok && serializeDesign(kept.value.design)).toBe(serializeDesign(b.session.design));
  });

  test('a design taken off the shelf and put back has what was done between', async () => {
    nudge(5, 'One');
    await b.session.settled();
    const removed = await b.store.remove(b.session.design.id);
    nudge(6, 'Two');
    await b.session.settled();
    expect(b.session.state.save).toMatchObject({ kind: 'waiting', why: expect.stringMatching(/taken off the shelf/) });
    await b.store.putBack(removed!);
    b.session.journal.retry();
    await b.session.settled();
    expect(b.session.state.save.kind).toBe('saved');
    const kept = await b.store.load(b.session.design.id);
    expect(kept.ok && serializeDesign(kept.value.design)).toBe(serializeDesign(b.session.design));
  });

  test('what no design may hold is never let in, and the sentence says which thing and why', () => {
    const moon = id('Moon');
    const before = b.session.state.design;
    const tries: [string, RegExp, (d: Parameters<Parameters<typeof b.session.commit>[1]>[0]) => void][] = [
      [
        'a line of 1e11',
        /The outline of “Moon” would be wider than 20 m/,
        (d) =>
          void Object.assign(d.nodes[moon], {
            outlines: [{ paint: { kind: 'none' }, width: 1e11, cap: 'butt', join: 'miter', miterLimit: 4 }],
          }),
      ],
      [
        'a gradient far away',
        /A gradient or picture of “Moon” would lie/,
        (d) =>
          void Object.assign(d.nodes[moon], {
            fills: [
              {
                kind: 'gradient',
                gradient: 'linear',
                ramp: {
                  stops: [
                    { offset: 0, colour: { gray: 0 } },
                    { offset: 1, colour: { gray: 1 } },
                  ],
                },
                geometry: [100000, 0, 0, 1, 0, 0],
                overprint: false,
              },
            ],
          }),
      ],
      [
        'a swatch that is not there',
        /“Moon”.*swatch nowhere is missing/,
        (d) =>
          void Object.assign(d.nodes[moon], {
            fills: [{ kind: 'colour', colour: { swatch: 'nowhere', tint: 1 }, overprint: false }],
          }),
      ],
      [
        'a transform of 1e308',
        /“Moon” would lie or reach further than 20 m/,
        (d) => void Object.assign(d.nodes[moon], { transform: [1e308, 0, 0, 1, 0, 0] }),
      ],
      [
        'a stray',
        /it lies on no page/,
        (d) => void (d.pages[0].children = d.pages[0].children.filter((c) => c !== moon)),
      ],
      ['a swatch taken from under its users', /swatch .* is missing/, (d) => void (d.swatches = [])],
      ['a profile by its way', /profile/, (d) => void (d.profile.file = '../../secret')],
    ];
    for (const [what, says, recipe] of tries) {
      expect([what, b.session.commit(what, recipe)]).toEqual([what, false]);
      expect(b.session.state.message?.text).toMatch(says);
      expect(b.session.state.design).toBe(before);
    }
    expect(b.session.state.entries).toHaveLength(0);
  });

  test('a deleted object leaves the selection; a deleted page is left', () => {
    select('Moon');
    runCommand(b.session, 'object.delete');
    expect(b.session.state.selection).toEqual([]);
    b.session.undo();
    runCommand(b.session, 'page.add');
    expect(b.session.design.pages.findIndex((p) => p.id === b.session.page.id)).toBe(1);
    b.session.undo();
    expect(b.session.page.id).toBe(b.session.design.pages[0].id);
  });
});

describe('the table of commands', () => {
  test('every key is taken once, every row has words to be found by', () => {
    const keys = COMMAND_IDS.flatMap((c) => COMMAND_TABLE[c].keys);
    expect(new Set(keys).size).toBe(keys.length);
    for (const c of COMMAND_IDS) {
      expect(COMMAND_TABLE[c].label.length).toBeGreaterThan(2);
      expect(COMMAND_TABLE[c].keywords.length).toBeGreaterThan(0);
    }
  });
  test('with nothing chosen only what needs no choice applies, and nothing throws', () => {
    for (const c of COMMAND_IDS) runCommand(b.session, c);
    expect(Object.keys(b.session.design.nodes).length).toBeGreaterThan(0);
  });
  test('everything that applies to a chosen object runs and can be taken back to the same bytes', () => {
    const start = serializeDesign(b.session.design);
    for (const c of COMMAND_IDS) {
      if (c === 'edit.undo' || c === 'edit.redo') continue;
      b.session.select([id('Moon'), id('Lanterns')], { aim: 'fill', page: b.session.design.pages[0].id });
      const steps = b.session.state.cursor;
      runCommand(b.session, c);
      while (b.session.state.cursor > steps) b.session.undo();
      expect([c, serializeDesign(b.session.design) === start]).toEqual([c, true]);
    }
  });
  test('locked things stay: no command moves, deletes or paints them', () => {
    select('Night sky');
    const start = serializeDesign(b.session.design);
    for (const c of [
      'object.delete',
      'nudge.left',
      'object.front',
      'object.turnRight',
      'paint.none',
      'object.group',
    ] as const)
      expect(runCommand(b.session, c)).toBe(false);
    applyColour(b.session, cmyk(1, 1, 1, 1), 'white');
    expect(serializeDesign(b.session.design)).toBe(start);
    runCommand(b.session, 'object.lock');
    expect(runCommand(b.session, 'nudge.left')).toBe(true);
  });
  test('keys as they are pressed, with Shift and other layouts', () => {
    const key = (k: Partial<KeyboardEvent>) =>
      comboOf({
        key: '',
        code: '',
        ctrlKey: false,
        metaKey: false,
        shiftKey: false,
        altKey: false,
        ...k,
      } as KeyboardEvent);
    expect(key({ key: 'Z', code: 'KeyZ', ctrlKey: true, shiftKey: true })).toBe('Mod+Shift+Z');
    expect(key({ key: 'g', code: 'KeyG' })).toBe('G');
    expect(key({ key: 'ArrowUp', code: 'ArrowUp', altKey: true })).toBe('Alt+ArrowUp');
    expect(key({ key: '!', code: 'Digit1', shiftKey: true })).toBe('Shift+1');
  });
});

test('a plate looked at alone is alone in the view of plates only: work and the clean view show every ink', async () => {
  const { session } = await openBench(demoDesigns()[0].design);
  const inWork = onPress(session.state);
  expect(pressOrder(session.state).shown).toBeNull();
  runCommand(session, 'view.plates');
  const [plate] = session.state.shownInks!;
  expect(pressOrder(session.state).shown).toEqual([plate]);
  expect(onPress(session.state)).not.toBe(inWork);
  for (const id of ['view.work', 'view.clean'] as const) {
    runCommand(session, id);
    expect(pressOrder(session.state).shown).toBeNull();
    expect(onPress(session.state)).toBe(inWork);
  }
});

describe('copying', () => {
  test('duplicate steps aside and is chosen; the copy is its own', () => {
    select('Moon');
    runCommand(b.session, 'edit.duplicate');
    const [copy] = b.session.state.selection;
    expect(copy).not.toBe(id('Moon'));
    const [a, c] = [b.session.boxOf([id('Moon')]), b.session.boxOf([copy])];
    expect(c.x0 - a.x0).toBeCloseTo((5 * 72) / 25.4, 6);
    runCommand(b.session, 'object.delete');
    expect(b.session.design.nodes[id('Moon')]).toBeDefined();
  });
  test('cut and paste, and into another design', async () => {
    select('Lanterns');
    const text = copySelection(b.session)!;
    runCommand(b.session, 'edit.cut');
    expect(Object.values(b.session.design.nodes).some((n) => n.name === 'Lanterns')).toBe(false);
    pasteFrom(b.session, readClip());
    expect(Object.values(b.session.design.nodes).filter((n) => n.name === 'Lanterns')).toHaveLength(1);
    const other = await openBench(sampleDesign());
    pasteFrom(other.session, readClip());
    expect(other.session.design.nodes[other.session.state.selection[0]].name).toBe('Lanterns');
    expect(other.session.design.swatches.map((s) => s.name)).toContain('Kelp glow');
    expect(text).toContain('holvet-clip/3');
    other.session.dispose();
  });
  test('nothing to paste is said', () => {
    pasteFrom(b.session, null);
    expect(b.session.state.message?.text).toBe('There is nothing to paste yet. Copy some objects first.');
  });
});

describe('colour goes where the aim points', () => {
  const wick = () => ({ swatch: b.session.design.swatches.find((s) => s.name === 'Wick')!.id, tint: 1 });
  test('fill of several, and says of how many', () => {
    select('Moon', 'Lantern, left');
    applyColour(b.session, wick(), 'Wick');
    expect(b.session.state.message?.text).toBe('Fill of 7 objects: Wick.');
    expect(b.session.design.nodes[id('Moon')]).toMatchObject({
      fills: [{ kind: 'colour', colour: wick(), overprint: false }],
    });
  });
  test('an aim the chosen thing does not have is said', () => {
    select('Headline');
    b.session.set({ aim: 'fill' });
    applyColour(b.session, wick(), 'Wick');
    expect(b.session.state.message?.text).toBe('What is chosen has no fill. Click another word under the aim tile.');
    b.session.select([]);
    applyColour(b.session, wick(), 'Wick');
    expect(b.session.state.message?.text).toBe(
      'Choose an object first, then click a colour. This one waits under Recent.',
    );
  });
  test('with a stop chosen, to the stop: in its swatch, so that all users follow', () => {
    select('Moon');
    b.session.set({ stop: 1 });
    applyColour(b.session, wick(), 'Wick');
    const ramp = b.session.design.swatches.find((s) => s.name === 'Moon')!;
    expect(ramp.kind === 'ramp' && ramp.stops[1].colour).toEqual(wick());
    expect(b.session.state.message?.text).toBe('Stop 2 of 2: Wick.');
  });
  test('overprint stays as it was when the colour changes', () => {
    select('Ember over paper');
    // On its gradient a colour goes to a bead; made flat, to all of it.
    applyColour(b.session, wick(), 'Wick');
    expect(b.session.design.nodes[id('Ember over paper')]).toMatchObject({
      fills: [{ kind: 'gradient', overprint: true }],
    });
    b.session.commit('Flat', (d) =>
      setPaint(d, [id('Ember over paper')], 'fill', (old) => ({
        kind: 'colour',
        colour: cmyk(0, 50, 60, 0),
        overprint: 'overprint' in old && old.overprint,
      })),
    );
    applyColour(b.session, wick(), 'Wick');
    expect(b.session.design.nodes[id('Ember over paper')]).toMatchObject({
      fills: [{ kind: 'colour', colour: wick(), overprint: true }],
    });
    runCommand(b.session, 'object.overprint');
    expect(b.session.state.message?.text).toBe('It cuts out what lies below.');
  });
  test('colours and paints by name', () => {
    const d = b.session.design;
    expect(colourName(d, { ...wick(), tint: 0.5 })).toBe('Wick 50 %');
    expect(colourName(d, cmyk(10, 0, 20, 0))).toBe('C10 Y20');
    expect(colourName(d, { rgb: [1, 0.8, 0] })).toBe('#ffcc00');
    expect(colourName(d, { gray: 0.25 })).toBe('grey 75 %');
    expect(colourName(d, { ink: d.inks[0].id, tint: 0.3 })).toBe('Ember 66-43 30 %');
    expect(colourName(d, { lab: [50, 10, -10] })).toBe('Lab 50 10 -10');
    const moon = d.nodes[id('Moon')];
    expect(paintName(d, moon.kind === 'shape' ? moon.fills[0] : undefined)).toBe('Moon, from the middle');
    expect(paintName(d, undefined)).toBe('none');
  });
});

test('the tray is tidied by commands that anyone finds, and each says what it did', async () => {
  const b2 = await openBench(demoDesigns()[0].design);
  const { session } = b2;
  const names = () => session.design.swatches.map((s) => s.name);
  runCommand(session, 'swatches.sortLight');
  expect(names()[0]).toBe('Quay Night');
  runCommand(session, 'swatches.sortLight');
  expect(session.state.message?.text).toBe('The tray is sorted by lightness already.');
  runCommand(session, 'swatches.sortHue');
  // Greys first, then round the circle; gradients last.
  expect(names()[0]).toBe('Slate Wet');
  expect(names().slice(-5)).toEqual(expect.arrayContaining(['Night', 'Moon']));
  runCommand(session, 'swatches.merge');
  expect(session.state.message?.text).toBe('No two swatches are equal.');
  runCommand(session, 'swatches.sweep');
  expect(session.state.message?.text).toMatch(/^Removed \d swatch|Every swatch is in use/);
  runCommand(session, 'view.seenBy');
  expect(session.state.vision).toBe('protan');
  expect(session.state.message?.text).toMatch(/^Seen by without red/);
  await session.settled();
  session.dispose();
});
