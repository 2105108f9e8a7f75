import { copyNodes, parseClip, pasteClip } from '@/core/edit/clip';
import { tryOut, type DesignDraft } from '@/core/edit/history';
import {
  addLook,
  changeLook,
  clearOwn,
  followLettersLook,
  followParagraphLook,
  lookFrom,
  removeLook,
  saysOwn,
} from '@/core/edit/looks';
import { setPaint } from '@/core/edit/paint';
import { colourPaint, newDesign, runOf, setupOf } from '@/core/model/defaults';
import { salvageDesign } from '@/core/model/salvage';
import type { Design, Page, Run, Story, TextLook } from '@/core/model/schema';
import { baseOf, chainOf, DEFAULT_LETTERS, setStory } from '@/core/model/textLooks';
import { allFaults, verifyChange, verifyDesign } from '@/core/model/verify';
import { DesignBuilder } from '@/demo/builder';
import { making } from '../support/sample';

const RED = colourPaint({ cmyk: [0, 1, 1, 0] });
const LOOKS: TextLook[] = [
  {
    id: 'body',
    name: 'Body',
    kind: 'paragraph',
    paragraph: { align: 'full', leading: 1.4 },
    letters: { size: 10, face: 'bitter-500' },
  },
  { id: 'lead', name: 'Lead', kind: 'paragraph', basedOn: 'body', paragraph: { spaceAfter: 6 }, letters: { size: 14 } },
  { id: 'name', name: 'Name', kind: 'letters', letters: { fill: RED, case: 'smallCapitals' } },
];

function design(story: Partial<Story> = {}, textLooks: readonly TextLook[] = LOOKS): Design {
  const b = new DesignBuilder(newDesign('Looks', setupOf(200, 200), making), making);
  const id = b.textFrame('Words', { x: 10, y: 10, w: 150, h: 100 }, [
    { look: 'lead', runs: [{ text: 'Written by ' }, { text: 'Tylo', look: 'name' }, { text: ', long', tracking: 40 }] },
  ]);
  b.place(0, [id]);
  const d = { ...b.done(), textLooks };
  const key = Object.keys(d.stories)[0];
  return { ...d, stories: { [key]: { ...d.stories[key], ...story } } };
}
const storyOf = (d: Design) => Object.values(d.stories)[0];

test('what is said: default, base, look, paragraph, letters’ look, run — the later leads', () => {
  const d = design();
  const [p] = setStory(d, storyOf(d)).paragraphs;
  expect([p.align, p.leading, p.spaceAfter, p.spaceBefore]).toEqual(['full', 1.4, 6, 0]);
  expect(p.runs.map((r) => [r.face, r.size, r.case, r.tracking])).toEqual([
    ['bitter-500', 14, 'typed', 0],
    ['bitter-500', 14, 'smallCapitals', 0],
    ['bitter-500', 14, 'typed', 40],
  ]);
  expect(p.runs[1].fill).toEqual(RED);
  expect(baseOf(LOOKS, undefined).letters).toEqual(DEFAULT_LETTERS);
});

test('a changed look is followed by all that do not say otherwise; the same looks answer the same object', () => {
  const d = design();
  const first = setStory(d, storyOf(d));
  expect(setStory(d, storyOf(d))).toBe(first);
  const next = {
    ...d,
    textLooks: LOOKS.map((l) =>
      l.id === 'body' ? { ...l, letters: { ...l.letters, face: 'cinzel-600', size: 9 } } : l,
    ),
  };
  expect(setStory(next, storyOf(next)).paragraphs[0].runs.map((r) => [r.face, r.size, r.tracking])).toEqual([
    ['cinzel-600', 14, 0],
    ['cinzel-600', 14, 0],
    ['cinzel-600', 14, 40],
  ]);
  // What follows no look is the same paragraph, whatever looks there are.
  const plain: Story = { id: 's', paragraphs: [{ runs: [runOf('x', 12)] }] };
  expect(setStory({ textLooks: LOOKS }, plain).paragraphs[0]).toBe(
    setStory({}, { ...plain, paragraphs: [...plain.paragraphs] }).paragraphs[0],
  );
});

test('looks in a ring, of another kind, or gone, are refused; what can be is salvaged', () => {
  expect(verifyDesign(design())).toMatchObject({ ok: true });
  const ring = LOOKS.map((l) => (l.id === 'body' ? { ...l, basedOn: 'lead' } : l));
  const cases: [Design, string][] = [
    [design({}, ring), 'based on itself'],
    [design({}, [...LOOKS, LOOKS[0]]), 'used twice'],
    [design({}, LOOKS.slice(1)), 'body is missing'],
    [design({}, LOOKS.map((l) => (l.id === 'lead' ? { ...l, basedOn: 'name' } : l)) as TextLook[]), 'another kind'],
    [design({ paragraphs: [{ look: 'name', runs: [{ text: 'x' }] }] }), 'name is missing'],
    [design({ frames: ['a', 'b'] }), 'no frame of it'],
    [
      design({}, [{ ...LOOKS[0], letters: { fill: colourPaint({ swatch: 'gone', tint: 1 }) } }, ...LOOKS.slice(1)]),
      'gone is missing',
    ],
  ];
  for (const [d, what] of cases) {
    expect(
      allFaults(d)
        .map((f) => f.what)
        .join('; '),
    ).toContain(what);
    expect(verifyChange(design(), { ...d, stories: { ...d.stories } })?.what).toContain(what);
    const mended = salvageDesign(d, design());
    expect(mended && verifyDesign(mended.design).ok).toBe(true);
  }
  // Even unread they end somewhere.
  expect(chainOf(ring, 'lead').map((l) => l.id)).toEqual(['body', 'lead']);
});

test('a clip takes its looks along; pasted where looks of those names are, it follows theirs', () => {
  const d = design();
  const clip = copyNodes(d, d.pages[0], d.pages[0].children)!;
  expect(clip.textLooks?.map((l) => l.id)).toEqual(['body', 'lead', 'name']);
  expect(parseClip(JSON.stringify(clip))).toEqual({ ok: true, clip });
  const bare = newDesign('Other', setupOf(100, 100), making);
  let n = 0;
  const into = (target: Design) =>
    tryOut(target, (x) => void pasteClip(x, target.pages[0].id, clip, () => `p${n++}`, [1, 0, 0, 1, 0, 0]));
  const fresh = into(bare);
  expect(verifyDesign(fresh).ok).toBe(true);
  expect(fresh.textLooks?.map((l) => l.name)).toEqual(['Body', 'Lead', 'Name']);
  expect(setStory(fresh, storyOf(fresh)).paragraphs[0].runs[1].case).toBe('smallCapitals');
  const own: TextLook = { id: 'own', name: 'Lead', kind: 'paragraph', paragraph: {}, letters: { size: 30 } };
  const joined = into({ ...bare, textLooks: [own] });
  expect(verifyDesign(joined).ok).toBe(true);
  expect(joined.textLooks?.map((l) => l.name)).toEqual(['Lead', 'Body', 'Name']);
  expect(setStory(joined, storyOf(joined)).paragraphs[0].runs[0].size).toBe(30);
});

test('a colour given to words that follow a look is the words’ own; the look keeps its', () => {
  const d = design();
  const id = d.pages[0].children[0];
  const blue = colourPaint({ cmyk: [1, 0.5, 0, 0] });
  const next = tryOut(d, (x) => setPaint(x, [id], 'letters', () => blue, { node: id, from: 11, to: 15 }));
  expect(storyOf(next).paragraphs[0].runs[1]).toEqual({ text: 'Tylo', look: 'name', fill: blue });
  expect(next.textLooks).toEqual(d.textLooks);
  const page = d.pages[0] as Page;
  expect(page.children).toEqual([id]);
});

describe('looks made, given, changed, taken away', () => {
  const own = (text: string, more: Partial<Run> = {}): Run => ({
    ...runOf(text, 12, undefined, 'bitter-500'),
    ...more,
  });
  const bare = (): Design => {
    const b = new DesignBuilder(newDesign('Looks', setupOf(200, 200), making), making);
    const words = b.textFrame('Words', { x: 10, y: 10, w: 150, h: 100 }, [
      { align: 'full', leading: 1.5, runs: [own('Plain and '), own('red', { fill: RED }), own(' again')] },
      { align: 'left', leading: 1.2, runs: [own('Second', { size: 9 })] },
    ]);
    b.place(0, [words]);
    return b.done();
  };
  const letters = (d: Design) =>
    setStory(d, storyOf(d)).paragraphs.map((p) =>
      p.runs.map((r) => [r.text, r.size, r.face, r.fill.kind === 'colour' && r.fill === RED]),
    );
  const given = (d: Design, look: TextLook, from: number, to: number) =>
    tryOut(d, (x) => {
      addLook(x, look);
      const s = storyOf(d);
      x.stories[s.id] = (look.kind === 'letters' ? followLettersLook : followParagraphLook)(
        s,
        from,
        to,
        look.id,
      ) as DesignDraft['stories'][string];
    });

  test('made of words it says how they are; given, the words look the same and say only what is theirs', () => {
    const d = bare();
    const look = lookFrom(d, storyOf(d), 0, { kind: 'paragraph', name: 'Body', id: 'b' });
    expect(look).toMatchObject({ paragraph: { align: 'full', leading: 1.5 }, letters: { face: 'bitter-500' } });
    const next = given(d, look, 0, 3);
    expect(verifyDesign(next).ok).toBe(true);
    expect(letters(next)).toEqual(letters(d));
    expect(storyOf(next).paragraphs[0]).toEqual({
      look: 'b',
      runs: [
        { text: 'Plain and ', fill: expect.anything() },
        { text: 'red', fill: RED },
        { text: ' again', fill: expect.anything() },
      ],
    });
    expect(saysOwn(storyOf(next).paragraphs[0])).toBe(true);
  });
  test('changed, all follow but for what they say; cleared, they follow in all', () => {
    const d = bare();
    const look = lookFrom(d, storyOf(d), 0, { kind: 'paragraph', name: 'Body', id: 'b' });
    const next = tryOut(given(d, look, 0, 99), (x) =>
      changeLook(x, 'b', (l) => ({ ...l, letters: { ...l.letters, size: 20 } })),
    );
    expect(
      letters(next)
        .flat()
        .map((r) => r[1]),
    ).toEqual([20, 20, 20, 20]);
    const s = storyOf(next);
    const cleared = { ...next, stories: { [s.id]: clearOwn(s, 0, 99) } };
    expect(setStory(cleared, storyOf(cleared)).paragraphs[0].runs[1].fill).toEqual(
      look.letters.fill ?? DEFAULT_LETTERS.fill,
    );
    expect(saysOwn(storyOf(cleared).paragraphs[0])).toBe(false);
  });
  test('taken away, all that followed looks as before, also what was based on it', () => {
    const d = bare();
    const body = lookFrom(d, storyOf(d), 0, { kind: 'paragraph', name: 'Body', id: 'b' });
    const based: TextLook = {
      id: 'c',
      name: 'Lead',
      kind: 'paragraph',
      basedOn: 'b',
      paragraph: {},
      letters: { size: 18 },
    };
    const name: TextLook = { id: 'n', name: 'Name', kind: 'letters', letters: { case: 'capitals' } };
    let next = given(d, body, 0, 3);
    next = given(next, based, 24, 26);
    next = given(next, name, 10, 13);
    const before = setStory(next, storyOf(next));
    for (const id of ['b', 'n', 'c']) {
      const after = tryOut(next, (x) => removeLook(x, id));
      expect(verifyDesign(after).ok).toBe(true);
      expect(after.textLooks?.some((l) => l.id === id)).toBe(false);
      expect(setStory(after, storyOf(after))).toEqual(before);
    }
    const none = ['b', 'n', 'c'].reduce((x, id) => tryOut(x, (y) => removeLook(y, id)), next);
    expect(none.textLooks).toBeUndefined();
    expect(setStory(none, storyOf(none))).toEqual(before);
  });
});
