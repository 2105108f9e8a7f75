import { record, redoEntry, undoEntry, type HistoryEntry } from '@/core/edit/history';
import { addLook, changeLook, followLettersLook, followParagraphLook, lookFrom } from '@/core/edit/looks';
import { replaceText, setParagraphLook, setRunLook, storyPart } from '@/core/edit/text';
import { putParagraphs } from '@/core/edit/writing';
import { replaceFace } from '@/core/edit/faces';
import { layoutOf } from '@/core/derive/layout';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import type { Design, NodeOf, Story } from '@/core/model/schema';
import { serializeDesign } from '@/core/model/serialize';
import { verifyDesign } from '@/core/model/verify';
import { plainText } from '@/core/text/layout';
import { DesignBuilder } from '@/demo/builder';
import type { Engines } from '@/core/engines';
import { FULL, measured } from '../support/measured';
import fc from '../support/seeded';
import { making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
  await engines.fonts.load(['bitter-500', 'frank-ruhl-500', 'noto-arabic-500']);
  await engines.fonts.loadDirections();
});

/** What people type: words, breaks, marks on letters, signs of several code points, words from right to left. */
const PIECES = [
  'a',
  'Quay ',
  '\n',
  'é',
  'e\u0301',
  '👩‍🚀',
  '🇫🇮',
  'fi',
  ' ',
  'שלום ',
  'ع',
  '\t',
  '\u00ad',
  'long-winded words ',
  '1',
];

function page(): { design: Design; frame: string } {
  const b = new DesignBuilder(newDesign('Stories', setupOf(400, 400), making), making);
  const frame = b.textFrame('Frame', { x: 20, y: 20, w: 220, h: 300 }, [
    { runs: [runOf('Lanterns walk the quays at dusk.', 12, undefined, 'archivo-400')] },
    { runs: [runOf('Bring your own light 👩‍🚀 e\u0301', 12, undefined, 'archivo-400')] },
  ]);
  b.place(0, [frame]);
  return { design: b.done(), frame };
}
const storyOf = (d: Design, frame: string): Story => d.stories[(d.nodes[frame] as NodeOf<'textFrame'>).story];

const step = fc.record({
  kind: fc.constantFrom('type', 'erase', 'letters', 'paragraph', 'move', 'look', 'follow', 'relook', 'face'),
  from: fc.nat(),
  to: fc.nat(),
  pick: fc.nat(),
  words: fc.array(fc.constantFrom(...PIECES), { maxLength: 6 }),
});
interface Step {
  readonly kind: string;
  readonly from: number;
  readonly to: number;
  readonly pick: number;
  readonly words: readonly string[];
}

/** One change of a story, at places where a caret can stand. */
function change(d: Design, frame: string, s: Step, n: number): HistoryEntry | null {
  const story = storyOf(d, frame);
  const stops = stopsOf(plainText(story));
  const [a, b] = [stops[s.from % stops.length], stops[s.to % stops.length]].sort((x, y) => x - y);
  const put = (make: (now: Story) => Story) =>
    record(d, 'Change', (x) => void (x.stories[story.id] = make(story) as (typeof x.stories)[string]));
  const looks = d.textLooks ?? [];
  const made = (() => {
    switch (s.kind) {
      case 'type':
        return put((x) => replaceText(x, a, b, s.words.join('')));
      case 'erase':
        return put((x) => replaceText(x, a, b, ''));
      case 'letters':
        return put((x) =>
          setRunLook(
            x,
            a,
            b,
            [{ size: 8 + (s.pick % 20) }, { tracking: s.pick % 50 }, { underline: true }][s.pick % 3],
          ),
        );
      case 'paragraph':
        return put((x) =>
          setParagraphLook(x, a, b, [{ align: 'full' as const }, { spaceAfter: s.pick % 9 }][s.pick % 2], false),
        );
      case 'move':
        return put((x) =>
          putParagraphs(x, stops[s.pick % stops.length], stops[s.pick % stops.length], storyPart(x, a, b).paragraphs),
        );
      case 'look':
        return record(d, 'Look', (x) =>
          addLook(
            x,
            lookFrom(d, story, b, { kind: s.pick % 2 ? 'letters' : 'paragraph', name: `Look ${n}`, id: `look${n}` }),
          ),
        );
      case 'follow': {
        const look = looks[s.pick % Math.max(1, looks.length)];
        if (!look) return null;
        return put((x) =>
          look.kind === 'letters' ? followLettersLook(x, a, b, look.id) : followParagraphLook(x, a, b, look.id),
        );
      }
      case 'relook': {
        const look = looks[s.pick % Math.max(1, looks.length)];
        return look
          ? record(d, 'Relook', (x) =>
              changeLook(x, look.id, (l) => ({ ...l, letters: { ...l.letters, size: 9 + (s.pick % 9) } })),
            )
          : null;
      }
      default:
        return record(d, 'Face', (x) => replaceFace(x, 'archivo-400', 'bitter-500'));
    }
  })();
  return made?.entry ?? null;
}
/** Where letters as people count them begin (UAX 29, by the platform’s own segmenter). */
const stopsOf = (text: string): number[] => [
  ...[...new Intl.Segmenter('en', { granularity: 'grapheme' }).segment(text)].map((g) => g.index),
  text.length,
];

const RUNS = FULL ? 400 : 40;
test(`${RUNS} random rounds of editing: sound all along, carets between whole letters, undone and redone to the same bytes`, () => {
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 25 }), (steps) => {
      const { design, frame } = page();
      let d = design;
      const entries: HistoryEntry[] = [];
      const bytes = [serializeDesign(d)];
      for (const [n, s] of steps.entries()) {
        const entry = change(d, frame, s, n);
        if (!entry) continue;
        d = redoEntry(d, entry);
        entries.push(entry);
        bytes.push(serializeDesign(d));
        expect(verifyDesign(d)).toMatchObject({ ok: true });
      }
      const layout = layoutOf(d, d.nodes[frame] as NodeOf<'textFrame'>, engines.fonts);
      const stops = new Set(stopsOf(plainText(storyOf(d, frame))));
      for (const line of layout.lines) for (const { offset } of line.carets) expect(stops).toContain(offset);
      const last = serializeDesign(d);
      for (let i = entries.length - 1; i >= 0; i--) {
        d = undoEntry(d, entries[i]);
        expect(serializeDesign(d)).toBe(bytes[i]);
      }
      for (const e of entries) d = redoEntry(d, e);
      expect(serializeDesign(d)).toBe(last);
    }),
    { numRuns: RUNS },
  );
  measured(
    'Random editing of stories',
    `${RUNS} rounds`,
    'undone and redone to the same bytes, no caret inside a letter',
    'own model, fast-check',
  );
});

test('a letter typed lays out its paragraph alone: the others’ lines are the same ones', () => {
  const b = new DesignBuilder(newDesign('Long', setupOf(400, 4000), making), making);
  const words =
    'Home-made paper lanterns walk the quays of Marrowick each November, past boats and stalls and the weigh house.';
  const frame = b.textFrame(
    'Frame',
    { x: 20, y: 20, w: 220, h: 3900 },
    Array.from({ length: 20 }, (_, i) => ({ runs: [runOf(`${i} ${words}`, 12, undefined, 'archivo-400')] })),
  );
  b.place(0, [frame]);
  const d = b.done();
  const node = d.nodes[frame] as NodeOf<'textFrame'>;
  const before = layoutOf(d, node, engines.fonts).lines;
  const story = storyOf(d, frame);
  const at = story.paragraphs[0].runs[0].text.length + 1 + 5;
  const after = layoutOf({ ...d, stories: { [story.id]: replaceText(story, at, at, 'x') } }, node, engines.fonts).lines;
  const runs = new Set(before.map((l) => l.runs));
  const anew = after.filter((l) => !runs.has(l.runs));
  expect(after.length).toBeGreaterThan(60);
  expect(anew.length).toBeGreaterThan(0);
  expect(anew.length).toBeLessThanOrEqual(5);
});
