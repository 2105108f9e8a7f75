import { runOf } from '@/core/model/defaults';
import type { Paragraph, Run, Story } from '@/core/model/schema';
import { setStory } from '@/core/model/textLooks';
import { FontBook } from '@/core/text/fonts';
import { numeral } from '@/core/text/marks';
import { layoutFrames, layoutStory, type FrameMeasure, type Measure } from '@/core/text/layout';
import { testEngines } from '../support/engines';
import fc from '../support/seeded';

let fonts: FontBook;
beforeAll(async () => {
  fonts = (await testEngines()).fonts;
  await fonts.load(['archivo-400', 'eb-garamond-400', 'frank-ruhl-500', 'noto-arabic-500']);
  await fonts.loadDirections();
});

const story = (paragraphs: readonly (Partial<Paragraph> & { text: string; run?: Partial<Run> })[]): Story => ({
  id: 's',
  paragraphs: paragraphs.map(({ text, run, ...p }) => ({
    runs: [{ ...runOf(text, 10, undefined, 'archivo-400'), ...run }],
    ...p,
  })),
});
const lay = (s: Story, m: Measure) => layoutStory(setStory({}, s), fonts, m);
const WORDS =
  'Home-made paper lanterns walk the quays of Marrowick each November, past boats and stalls and the old weigh house.';
const text = (s: Story) => s.paragraphs.map((p) => p.runs.map((r) => r.text).join('')).join('\n');

describe('paragraphs', () => {
  test('leading in points; space before and after, none at the head', () => {
    const l = lay(
      story(
        [
          { text: 'one', spaceBefore: 50, leading: { points: 13 } },
          { text: 'two', leading: { points: 13 }, spaceBefore: 4 },
          { text: 'three', leading: { points: 13 } },
        ].map((p, i) => ({ ...p, ...(i === 1 && { spaceAfter: 3 }) })),
      ),
      { width: 200, height: 200 },
    );
    const at = l.lines.map((x) => x.baseline);
    expect(at[1] - at[0]).toBeCloseTo(17, 9);
    expect(at[2] - at[1]).toBeCloseTo(16, 9);
    expect(l.lines[0].top).toBeCloseTo(0, 9);
  });
  test('indents: left, right, first line in or hanging out', () => {
    const l = lay(story([{ text: WORDS, indentLeft: 20, indentRight: 30, indentFirst: -12 }]), {
      width: 200,
      height: null,
    });
    expect(l.lines.length).toBeGreaterThan(3);
    expect(l.lines.map((x) => x.x0)).toEqual([8, ...Array<number>(l.lines.length - 1).fill(20)]);
    for (const x of l.lines) expect(x.x1).toBeLessThanOrEqual(170 + 1e-6);
  });
  test('a frame places its lines: top, middle, foot, spread', () => {
    const s = setStory({}, story([{ text: 'one' }, { text: 'two' }, { text: 'three' }]));
    const frame = (placing: FrameMeasure['placing']): FrameMeasure => ({
      placing,
      columns: [{ x: 0, y: 0, width: 100, height: 90 }],
    });
    const at = (placing: FrameMeasure['placing']) => layoutFrames(s, fonts, [frame(placing)])[0];
    expect(at('top').top).toBeCloseTo(0, 9);
    expect(at('foot').bottom).toBeCloseTo(90, 9);
    expect(at('middle').top).toBeCloseTo(90 - at('middle').bottom, 9);
    const spread = at('spread').lines.map((l) => l.baseline);
    expect([at('spread').top, at('spread').bottom]).toEqual([expect.closeTo(0, 9), expect.closeTo(90, 9)]);
    expect(spread[1] - spread[0]).toBeCloseTo(spread[2] - spread[1], 9);
  });
});

describe('columns and frames', () => {
  const column = (width: number, height: number, x = 0) => ({ x, y: 0, width, height });
  const two = (h: number): FrameMeasure[] => [
    { placing: 'top', columns: [column(90, h), column(90, h, 100)] },
    { placing: 'top', columns: [column(140, 60)] },
  ];
  test('a story runs through columns and frames, each filled before the next; nothing is lost or told twice', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 90 }),
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 3 }),
        (h, n, keepLines) => {
          const s = story(Array.from({ length: n }, () => ({ text: WORDS, keepLines })));
          const frames = layoutFrames(setStory({}, s), fonts, two(h));
          const lines = frames.flatMap((f) => f.lines);
          const whole = text(s);
          const told = lines.map((l) => whole.slice(l.start, l.end)).join('');
          expect(
            told.length + frames[1].overset + whole.slice(0, whole.length - frames[1].overset).split('\n').length - 1,
          ).toBe(whole.length);
          expect(whole.replaceAll('\n', '').startsWith(told)).toBe(true);
          for (const l of frames[0].lines) expect(l.bottom).toBeLessThanOrEqual(h + 12);
          // Those before the last are full: what follows would not have had room.
          if (frames[1].lines.length) expect(frames[0].overset).toBe(0);
        },
      ),
      { numRuns: 60 },
    );
  });
  test('what lies in a frame depends on those before it alone', () => {
    const s = setStory({}, story([{ text: WORDS }, { text: WORDS }]));
    const [a] = layoutFrames(s, fonts, two(40));
    const [b] = layoutFrames(s, fonts, [two(40)[0], { placing: 'top', columns: [column(60, 300)] }]);
    expect(b.lines.map((l) => [l.start, l.end, l.x, l.baseline])).toEqual(
      a.lines.map((l) => [l.start, l.end, l.x, l.baseline]),
    );
  });
  test('no line stands alone at the foot of a column or at the head of the next', () => {
    for (let h = 24; h < 120; h += 3) {
      const s = story([{ text: WORDS }, { text: WORDS, keepLines: 2 }]);
      const second = text(s).indexOf('\n') + 1;
      const columns = [column(90, h), column(90, 400, 100)];
      const perColumn = columns.map((_, i) =>
        layoutFrames(setStory({}, s), fonts, [{ placing: 'top', columns }])[0].lines.filter(
          (l) => l.start >= second && l.x >= 100 === (i === 1),
        ),
      );
      const [foot, head] = perColumn.map((l) => l.length);
      if (head > 0) expect(foot).not.toBe(1);
      if (foot > 0) expect(head).not.toBe(1);
    }
  });
  test('the same stretch of the same paragraph is the same line: only what changed is set anew', () => {
    const s = story([{ text: WORDS }, { text: WORDS }]);
    const measure = { width: 120, height: null };
    const first = lay(s, measure);
    const changed: Story = {
      ...s,
      paragraphs: [
        { ...s.paragraphs[0], runs: [{ ...s.paragraphs[0].runs[0], text: `So ${WORDS}` }] },
        s.paragraphs[1],
      ],
    };
    const again = lay(changed, measure);
    const of = (l: typeof first, from: number) => l.lines.filter((x) => x.start >= from).map((x) => x.local);
    const [a, b] = [of(first, WORDS.length + 1), of(again, WORDS.length + 4)];
    expect(a.length).toBeGreaterThan(3);
    expect(b).toEqual(a);
    b.forEach((line, i) => expect(line).toBe(a[i]));
  });
});

describe('letters', () => {
  const one = (run: Partial<Run>, t = 'Straße up') =>
    lay(story([{ text: t, run }]), { width: null, height: null }).lines[0];
  test('capitals: one letter may become two, and the caret knows only what was typed', () => {
    const l = one({ case: 'capitals' });
    expect(l.carets.map((c) => c.offset)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9]);
    const typed = l.runs
      .flatMap((r) => r.glyphs)
      .map((g) => g.text)
      .join('');
    expect(typed).toBe('Straße up');
    expect(l.runs.flatMap((r) => r.glyphs)).toHaveLength(10);
  });
  test('small capitals are the face’s own where it has them, else made of smaller capitals', () => {
    const [real, made] = ['eb-garamond-400', 'archivo-400'].map((face) => one({ case: 'smallCapitals', face }, 'Aa'));
    expect(real.runs.map((r) => r.size)).toEqual([10]);
    expect(made.runs.map((r) => r.size)).toEqual([10, expect.closeTo(7.8, 9)]);
    const [A, a] = made.runs.map((r) => r.glyphs[0].gid);
    expect(a).toBe(A);
  });
  test('raised and lowered letters are smaller and stand where the face says', () => {
    const up = one({ position: 'super' }, 'x').runs[0];
    const down = one({ position: 'sub' }, 'x').runs[0];
    expect(up.size).toBeLessThan(8);
    expect(up.glyphs[0].y).toBeLessThan(-2);
    expect(down.glyphs[0].y).toBeGreaterThan(0.5);
    expect(one({ baselineShift: 3 }, 'x').runs[0].glyphs[0].y).toBe(-3);
  });
  test('kerning and ligatures can be switched off', () => {
    const width = (run: Partial<Run>) => one({ face: 'eb-garamond-400', ...run }, 'AVATAR office').width;
    expect(width({ kerning: false })).toBeGreaterThan(width({}) + 1);
    const glyphs = (run: Partial<Run>) => one({ face: 'eb-garamond-400', ...run }, 'office').runs[0].glyphs.length;
    expect([glyphs({}), glyphs({ ligatures: false })]).toEqual([4, 6]);
  });
});

describe('lists, tabs, hyphens, capitals that reach down', () => {
  test('lists: marks hang before their words, numbers go on until something plain comes between', () => {
    const list = { kind: 'numbers', style: 'lowerRoman', after: '.' } as const;
    const hang = { indentLeft: 18, indentFirst: -18 };
    const l = lay(
      story([
        { text: 'one', list, ...hang },
        { text: 'two', list, ...hang },
        { text: 'plain' },
        { text: 'again', list, ...hang },
        { text: 'from nine', list: { ...list, start: 9 }, ...hang },
        { text: 'dot', list: { kind: 'bullets', mark: '•' }, ...hang },
      ]),
      { width: 200, height: null },
    );
    const marks = l.lines.map((x) => x.mark.map((r) => r.text).join(''));
    expect(marks).toEqual(['i.', 'ii.', '', 'i.', 'ix.', '•']);
    expect(l.lines.map((x) => x.x)).toEqual([18, 18, 0, 18, 18, 18]);
    for (const x of l.lines.filter((y) => y.mark.length)) expect(x.mark[0].x0).toBeCloseTo(-18, 9);
    // The marks are not of the words: the caret knows nothing of them.
    expect(l.lines[0].carets.map((c) => c.offset)).toEqual([0, 1, 2, 3]);
  });
  test.each([
    [4, 'decimal', '4'],
    [27, 'lowerLetters', 'aa'],
    [52, 'capitals', 'AZ'],
    [1994, 'capitalRoman', 'MCMXCIV'],
    [3888, 'lowerRoman', 'mmmdccclxxxviii'],
  ] as const)('%d as %s is %s', (n, style, said) => expect(numeral(n, style)).toBe(said));

  const tabbed = (align: 'left' | 'middle' | 'right' | 'decimal', t = 'Rope\t12.50', leader?: string) =>
    lay(story([{ text: t, tabs: [{ at: 120, align, ...(leader && { leader }) }] }]), { width: 300, height: null })
      .lines[0];
  test('tabs: words begin, stand in the middle, end or have their sign at the stop; without one every half inch', () => {
    const x = (l: ReturnType<typeof tabbed>, offset: number) => l.carets.find((c) => c.offset === offset)!.x;
    expect(x(tabbed('left'), 5)).toBeCloseTo(120, 9);
    expect(x(tabbed('right'), 10)).toBeCloseTo(120, 6);
    expect((x(tabbed('middle'), 5) + x(tabbed('middle'), 10)) / 2).toBeCloseTo(120, 6);
    expect(x(tabbed('decimal'), 7)).toBeCloseTo(120, 6);
    const plain = lay(story([{ text: 'a\tb' }]), { width: 300, height: null }).lines[0];
    expect(x(plain, 2)).toBeCloseTo(36, 9);
    expect(tabbed('left').width).toBeGreaterThan(120);
  });
  test('leaders fill the way, those of all lines below each other; words are found without them', () => {
    const two = lay(
      story([
        { text: 'Rope\t1', tabs: [{ at: 150, align: 'right', leader: '.' }] },
        { text: 'Lanterns\t22', tabs: [{ at: 150, align: 'right', leader: '.' }] },
      ]),
      { width: 200, height: null },
    );
    const dots = two.lines.map((l) => l.runs.flatMap((r) => r.glyphs.filter((g) => g.text === '.').map((g) => g.x)));
    expect(dots[0].length).toBeGreaterThan(dots[1].length);
    expect(dots[1].length).toBeGreaterThan(5);
    for (const x of dots[1]) expect(dots[0].some((y) => Math.abs(x - y) < 1e-9)).toBe(true);
  });

  test('hyphens: words are divided where their language divides them, the hyphen is not typed', async () => {
    await fonts.loadHyphens(['en', 'de', 'fi', 'fr', 'es']);
    const cases = [
      ['en', 'typesetting lanterns'],
      ['de', 'Laternenumzug Laternenumzug'],
      ['fi', 'lyhtykulkue lyhtykulkue'],
      ['fr', 'promenade lumineuse'],
      ['es', 'iluminaciones portuarias'],
    ] as const;
    for (const [language, words] of cases) {
      const s = story([{ text: words, hyphenate: true, run: { language } }]);
      const l = lay(s, { width: 46, height: null });
      const broken = l.lines.filter((x) => x.runs.some((r) => r.text.endsWith('\u00ad')));
      expect([language, broken.length > 0]).toEqual([language, true]);
      for (const x of l.lines) expect(x.x1).toBeLessThanOrEqual(46 + 1e-6);
      const told = l.lines.map((x) => words.slice(x.start, x.end)).join('');
      expect(told).toBe(words);
    }
    // A soft hyphen that was typed shows where the line ends there, and nowhere else.
    const soft = lay(story([{ text: 'Marro\u00adwick quays' }]), { width: 40, height: null });
    expect(soft.lines[0].runs.map((r) => r.text).join('')).toBe('Marro\u00ad\u00ad');
    const wide = lay(story([{ text: 'Marro\u00adwick quays' }]), { width: 400, height: null });
    expect(wide.lines[0].width).toBeCloseTo(
      lay(story([{ text: 'Marrowick quays' }]), { width: 400, height: null }).lines[0].width,
      6,
    );
  });
  // The exceptions that the patterns' own authors list (hyph-en-us, \hyphenation): from memory, as the package carries
  // patterns alone.
  test('the patterns divide as their authors say', async () => {
    await fonts.loadHyphens(['en', 'de']);
    const divided = (word: string, language: 'en' | 'de') => {
      const at = [0, ...fonts.hyphens.places(word, language), word.length];
      return at
        .slice(1)
        .map((to, i) => word.slice(at[i], to))
        .join('-');
    };
    expect(divided('hyphenation', 'en')).toBe('hy-phen-ation');
    expect(divided('supercalifragilisticexpialidocious', 'en')).toBe('su-per-cal-ifrag-ilis-tic-ex-pi-ali-do-cious');
    expect(divided('Silbentrennung', 'de')).toBe('Sil-ben-tren-nung');
    expect(fonts.hyphens.places('quay', 'en')).toEqual([]);
  });

  test('a capital that reaches down stands beside its lines, its feet on the last of them', () => {
    const l = lay(story([{ text: WORDS, dropCapital: { lines: 3, letters: 1 }, leading: { points: 12 } }]), {
      width: 160,
      height: null,
    });
    const [drop, ...rest] = l.lines;
    expect([drop.start, drop.end, rest[0].start]).toEqual([0, 1, 1]);
    expect(drop.baseline).toBeCloseTo(rest[2].baseline, 6);
    const indent = rest[0].x0;
    expect(indent).toBeGreaterThan(drop.width);
    expect(rest.slice(0, 4).map((x) => x.x0)).toEqual([indent, indent, indent, 0]);
    // As high as from the head of the first line's capitals to its own feet.
    const face = fonts.get('archivo-400')!;
    expect(drop.runs[0].size * face.capHeight).toBeCloseTo(24 + 10 * face.capHeight, 6);
  });
  test('even edges: marks hang out, and lines reach as far as they did', () => {
    const s = (opticalMargin: boolean) =>
      story([{ text: '“Quays, quays, and more of these, - and boats.”', align: 'full', opticalMargin }]);
    const [plain, even] = [false, true].map((o) => lay(s(o), { width: 90, height: null }));
    expect(plain.lines[0].x0).toBe(0);
    expect(even.lines[0].x0).toBeLessThan(-1);
    expect(even.lines.length).toBe(plain.lines.length);
  });
});

describe('right to left', () => {
  const glyphsOf = (t: string, p: Partial<Paragraph> = {}) => {
    const l = lay(story([{ text: t, ...p }]), { width: 300, height: null }).lines[0];
    return {
      line: l,
      seen: l.runs
        .flatMap((r) => r.glyphs)
        .map((g) => g.text)
        .join(''),
    };
  };
  // UAX 9, rules L1 and L2, worked by hand on cases like those of its section on reordering.
  test('words of both ways in one line stand as the standard says', () => {
    expect(glyphsOf('car שלום now').seen).toBe('car םולש now');
    expect(glyphsOf('שלום car').seen).toBe('car םולש');
    expect(glyphsOf('שלום 123 car').seen).toBe('car 123 םולש');
    expect(glyphsOf('a (שלום) b').seen).toBe('a (םולש) b');
    expect(glyphsOf('car', { direction: 'rtl' }).line.x0).toBe(0);
    expect(glyphsOf('car', { direction: 'rtl', align: 'right' }).line.x1).toBeCloseTo(300, 6);
  });
  test('the caret stands at the side from which a letter is read', () => {
    const { line } = glyphsOf('שלום');
    const xs = line.carets.map((c) => c.x);
    expect(line.carets.map((c) => c.offset)).toEqual([0, 1, 2, 3, 4]);
    for (let i = 1; i < xs.length; i++) expect(xs[i]).toBeLessThan(xs[i - 1]);
    expect(xs[4]).toBeCloseTo(line.x0, 6);
  });
  test('a face that has not the letters lets another stand in; Arabic letters join', () => {
    expect(glyphsOf('שלום').line.runs[0].face.id).toBe('frank-ruhl-500');
    const joined = glyphsOf('سلام').line.runs[0];
    expect(joined.face.id).toBe('noto-arabic-500');
    const alone = [...'سلام'].map(
      (c) => joined.face.shape(c, { rightToLeft: true, script: 'Arab', language: 'ar', features: {} })[0].gid,
    );
    expect(joined.glyphs.map((g) => g.gid)).not.toEqual(alone.reverse());
  });
});
