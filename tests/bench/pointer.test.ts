import { dropTarget, startCardDrag } from '@/bench/tray/cardDrag';
import { aimsOf } from '@/bench/tray/AimTile';
import { finderKey, keyHandler } from '@/bench/commands/keys';
import { clipboardHandlers } from '@/bench/commands/clipboard';
import { toScreen } from '@/bench/view/camera';
import { drawRuler } from '@/bench/canvas/rulers';
import { demoDesigns } from '@/demo/demos';
import type { Paint } from '@/core/model/schema';
import { openBench, type TestBench } from '../support/bench';
import { cmyk } from '../support/sample';

/** A small window: listeners by type, and an element that stands where the bench top is. */
const listeners = new Map<string, Set<(e: unknown) => void>>();
const top = { getBoundingClientRect: () => ({ left: 100, top: 50, right: 900, bottom: 650 }), focus: () => {} };
class TestElement {
  className = '';
  style: Record<string, string> = {};
  textContent = '';
  children: TestElement[] = [];
  get lastElementChild() {
    return this.children[this.children.length - 1];
  }
  append(...c: TestElement[]) {
    this.children.push(...c);
  }
  remove() {
    labels.delete(this);
  }
  constructor(
    readonly tagName = 'DIV',
    private readonly matches: string[] = [],
  ) {}
  closest(selector: string): TestElement | null {
    return selector.split(',').some((s) => this.matches.includes(s.trim())) ? this : null;
  }
}
const labels = new Set<TestElement>();
Object.assign(globalThis, {
  HTMLElement: TestElement,
  window: {
    addEventListener: (type: string, f: (e: unknown) => void) =>
      void (listeners.get(type) ?? listeners.set(type, new Set()).get(type)!).add(f),
    removeEventListener: (type: string, f: (e: unknown) => void) => void listeners.get(type)?.delete(f),
  },
});
const fire = (type: string, e: object) => [...(listeners.get(type) ?? [])].forEach((f) => f(e));

/** The card under the pointer in the tray, if any. */
let under: { closest: () => { dataset: { swatch: string } } } | null = null;
let b: TestBench;
beforeEach(async () => {
  b = await openBench(demoDesigns()[0].design);
  Object.assign(globalThis, {
    document: {
      getElementById: (id: string) => (id === 'bench-top' ? top : null),
      elementFromPoint: () => under,
      createElement: () => new TestElement(),
      body: { append: (x: TestElement) => labels.add(x) },
    },
  });
});
afterEach(async () => {
  await b.session.settled();
  b.session.dispose();
  listeners.clear();
  labels.clear();
  under = null;
});
const id = (name: string) => Object.values(b.session.design.nodes).find((n) => n.name === name)!.id;
const middleOf = (name: string) => {
  const r = b.session.boxOf([id(name)]);
  return { x: (r.x0 + r.x1) / 2, y: (r.y0 + r.y1) / 2, right: r.x1, left: r.x0 };
};
/** A page point as the mouse would report it. */
const client = (x: number, y: number) => {
  const p = toScreen(b.session.state.camera, { x, y });
  return { clientX: p.x + 100, clientY: p.y + 50 };
};

describe('a card over the sheet', () => {
  test('inside is the fill, the edge is the outline, words are letters; locked things and the bench top take nothing', () => {
    const moon = middleOf('Moon');
    const at = (x: number, y: number) => {
      const c = client(x, y);
      return dropTarget(b.session, c.clientX, c.clientY);
    };
    expect(at(moon.x, moon.y)).toEqual({ node: id('Moon'), aim: 'fill' });
    expect(at(moon.right + 3, moon.y)).toEqual({ node: id('Moon'), aim: 'outline' });
    const words = middleOf('Headline');
    expect(at(words.x, words.y)).toEqual({ node: id('Headline'), aim: 'letters' });
    expect(at(100, 100)).toBeNull(); // the sky is locked
    expect(dropTarget(b.session, 20, 20)).toBeNull(); // the tray
  });

  const red = (old: Paint): Paint => ({
    kind: 'colour',
    colour: cmyk(0, 100, 100, 0),
    overprint: old.kind !== 'none' && old.overprint,
  });
  const begin = () =>
    startCardDrag(
      b.session,
      { clientX: 300, clientY: 700, pointerId: 1 },
      { id: 'wick', name: 'Wick', kind: 'colour' },
      '#fa0',
      red,
    );
  const said = () => [...labels][0]?.lastElementChild?.textContent;

  test('along the tray it takes the place before the card it is let go on, and joins its group', () => {
    const names = () => b.session.design.swatches.map((s) => s.name);
    const wick = b.session.design.swatches.find((s) => s.name === 'Wick')!;
    const target = b.session.design.swatches.find((s) => s.name === 'Quay Night')!;
    startCardDrag(b.session, { clientX: 300, clientY: 700, pointerId: 1 }, wick, '#fa0', red);
    under = { closest: () => ({ dataset: { swatch: target.id } }) };
    fire('pointermove', { clientX: 20, clientY: 20 });
    expect(said()).toBe('Wick before Quay Night');
    fire('pointerup', { clientX: 20, clientY: 20 });
    expect(names().slice(0, 3)).toEqual(['Bare stock', 'Wick', 'Quay Night']);
    b.session.undo();
    expect(names()[1]).toBe('Quay Night');
  });

  test('it is shown while it hangs there, said at the pointer, and done when let go', () => {
    begin();
    fire('pointermove', { clientX: 302, clientY: 700 });
    expect(labels.size).toBe(0); // not a drag yet
    const moon = middleOf('Moon');
    fire('pointermove', client(moon.x, moon.y));
    expect(said()).toBe('Wick on the fill');
    expect(b.session.state.preview).not.toBeNull();
    fire('pointermove', { clientX: 10, clientY: 10 });
    expect(said()).toBe('Wick');
    expect(b.session.state.preview).toBeNull();
    fire('pointermove', client(moon.x, moon.y));
    fire('pointerup', {});
    expect(labels.size).toBe(0);
    expect(b.session.state.entries.map((e) => e.label)).toEqual(['Fill: Wick']);
    expect(b.session.state.selection).toEqual([id('Moon')]);
  });
  test('Escape and a cancelled pointer drop it without a trace', () => {
    for (const end of [
      () => fire('keydown', { key: 'Escape', stopPropagation: () => {} }),
      () => fire('pointercancel', {}),
    ]) {
      begin();
      const moon = middleOf('Moon');
      fire('pointermove', client(moon.x, moon.y));
      end();
      expect([b.session.state.preview, b.session.state.entries.length, labels.size]).toEqual([null, 0, 0]);
      fire('pointerup', {});
      expect(b.session.state.entries).toHaveLength(0);
    }
  });
  test('a press that does not move stays a click', () => {
    begin();
    fire('pointerup', {});
    expect(b.session.state.entries).toHaveLength(0);
  });
});

test('the aims of what is chosen: a shape, a text, a frame, a group of both, nothing', () => {
  const aims = (...names: string[]) => {
    b.session.select(names.map(id));
    return aimsOf(b.session);
  };
  expect(aims('Moon')).toEqual(['fill', 'outline']);
  expect(aims('Headline')).toEqual(['letters', 'letterOutline']);
  expect(aims('Date line')).toEqual(['letters', 'letterOutline', 'frame', 'frameOutline']);
  expect(aims('Lanterns', 'Headline')).toEqual(['fill', 'outline', 'letters', 'letterOutline']);
  expect(aims()).toEqual(['fill', 'outline', 'ground']);
});

describe('keys of the bench', () => {
  const opened: string[] = [];
  const press = (key: string, more: Partial<KeyboardEvent> & { on?: string[] } = {}) => {
    let prevented = false;
    const code = /^[a-z]$/i.test(key) ? `Key${key.toUpperCase()}` : key;
    const event = {
      key,
      code,
      ctrlKey: false,
      metaKey: false,
      shiftKey: false,
      altKey: false,
      defaultPrevented: false,
      target: new TestElement('DIV', more.on ?? []),
      preventDefault: () => (prevented = true),
      stopPropagation: () => {},
      ...more,
    } as unknown as KeyboardEvent;
    finderKey(() => opened.push('find'))(event);
    keyHandler(b.session, { keys: () => opened.push('keys') })(event);
    return prevented;
  };
  test('tools by their letter, views by number, the finder, the list of keys', () => {
    for (const [key, tool] of [
      ['h', 'shape'],
      ['t', 'text'],
      ['g', 'gradient'],
      ['d', 'hand'],
      ['s', 'select'],
    ] as const) {
      press(key);
      expect(b.session.state.tool).toBe(tool);
    }
    press('k', { ctrlKey: true });
    press('?');
    expect(opened).toEqual(['find', 'keys']);
  });
  test('a field keeps its keys, and a list its arrows', () => {
    b.session.select([id('Moon')]);
    expect(press('Delete', { on: ['input'] })).toBe(false);
    expect(press('ArrowLeft', { on: ['[role=option]', '[data-keys=arrows]'] })).toBe(false);
    expect(b.session.state.entries).toHaveLength(0);
    expect(press('ArrowLeft')).toBe(true);
    expect(b.session.state.entries).toHaveLength(1);
  });
  test('Esc goes out step by step: stop, group, selection, tool', () => {
    b.session.enter(id('Lantern, middle'), [id('Ember over paper')]);
    b.session.set({ stop: 1, tool: 'gradient' });
    press('Escape');
    expect(b.session.state.stop).toBeNull();
    press('Escape');
    expect([b.session.state.entered, b.session.state.selection]).toEqual([id('Lanterns'), [id('Lantern, middle')]]);
    press('Escape');
    expect([b.session.state.entered, b.session.state.selection]).toEqual([null, [id('Lanterns')]]);
    press('Escape');
    expect(b.session.state.selection).toEqual([]);
    press('Escape');
    expect(b.session.state.tool).toBe('select');
  });
  test('Enter writes in a chosen text, and puts a shape or words in the middle of the page', () => {
    b.session.select([id('Headline')]);
    press('Enter');
    expect(b.session.state.editing).toMatchObject({ node: id('Headline'), anchor: 0, focus: 12 });
    b.session.set({ editing: null, tool: 'shape', shape: 'heart' });
    press('Enter');
    const r = b.session.boxOf(b.session.state.selection);
    const { width, height } = b.session.design.setup;
    expect([(r.x0 + r.x1) / 2, (r.y0 + r.y1) / 2]).toEqual([
      expect.closeTo(width / 2, 6),
      expect.closeTo(height / 2, 6),
    ]);
    b.session.select([], { tool: 'text' });
    press('Enter');
    expect(b.session.state.editing).not.toBeNull();
  });
});

describe('the clipboard', () => {
  const event = (data = new Map<string, string>(), target = new TestElement()) => ({
    target,
    clipboardData: {
      getData: (t: string) => data.get(t) ?? '',
      setData: (t: string, v: string) => void data.set(t, v),
    },
    preventDefault: () => {},
    data,
  });
  test('copy, cut and paste go through the system; fields are left alone', () => {
    const clip = clipboardHandlers(b.session);
    b.session.select([id('Moon')]);
    const e = event();
    clip.cut(e as unknown as ClipboardEvent);
    expect([...e.data.keys()]).toEqual(['application/x-holvet-clip+json']);
    expect(Object.values(b.session.design.nodes).some((n) => n.name === 'Moon')).toBe(false);
    clip.paste(event(e.data) as unknown as ClipboardEvent);
    expect(Object.values(b.session.design.nodes).filter((n) => n.name === 'Moon')).toHaveLength(1);
    const steps = b.session.state.cursor;
    clip.paste(event(e.data, new TestElement('INPUT', ['input'])) as unknown as ClipboardEvent);
    clip.paste(
      event(
        new Map([['application/x-holvet-clip+json', '{"format":"holvet-clip/3","roots":["x"]}']]),
      ) as unknown as ClipboardEvent,
    );
    expect(b.session.state.cursor).toBe(steps);
    expect(b.session.state.message?.text).toMatch(/^What was copied cannot be pasted: it is damaged at nodes/);
  });
});

test('rulers: round measures, labels never nearer than 44 px, at every zoom and in every unit', () => {
  Object.assign(globalThis, { getComputedStyle: () => ({ getPropertyValue: () => '#888' }) });
  for (const unit of ['mm', 'cm', 'in', 'pt', 'px'] as const)
    for (const scale of [0.05, 0.24, 1, 3.7, 40, 300]) {
      const at: { text: string; x: number }[] = [];
      const ctx = new Proxy(
        { fillText: (text: string, x: number) => at.push({ text, x }) } as Record<string, unknown>,
        { get: (o, k: string) => o[k] ?? (() => {}), set: () => true },
      );
      drawRuler(
        {
          getContext: () => ctx,
          width: 800,
          height: 20,
          clientWidth: 800,
          clientHeight: 20,
        } as unknown as HTMLCanvasElement,
        { scale, x: 130, y: 0 },
        unit,
        false,
        40,
      );
      for (let i = 1; i < at.length; i++) expect(at[i].x - at[i - 1].x).toBeGreaterThanOrEqual(43);
      const values = at.map((l) => Number(l.text));
      expect(values.every(Number.isFinite)).toBe(true);
      if (values.length > 2) expect(values[2] - values[1]).toBeCloseTo(values[1] - values[0], 2);
    }
});
