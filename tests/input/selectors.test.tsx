import { Sheets } from '@/core/input/svg/css';
import { parseXml, type Element as Ours } from '@/core/input/svg/xml';
import fc from '../support/seeded';

const NAMES = ['g', 'path', 'rect', 'text'];
const CLASSES = ['sail', 'hull', 'mast'];

/** A tree of a few elements with ids, classes and a label or two. */
const tree = fc.letrec<{ node: string }>((tie) => ({
  node: fc
    .record({
      name: fc.constantFrom(...NAMES),
      classes: fc.subarray(CLASSES),
      id: fc.option(fc.constantFrom('a', 'b', 'c'), { freq: 3 }),
      label: fc.option(fc.constantFrom('far-out', 'far', 'quay boat', 'boat'), { freq: 2 }),
      children: fc.oneof({ maxDepth: 3 }, fc.constant<string[]>([]), fc.array(tie('node'), { maxLength: 3 })),
    })
    .map(
      ({ name, classes, id, label, children }) =>
        `<${name}${classes.length ? ` class="${classes.join(' ')}"` : ''}${id ? ` id="${id}"` : ''}${label ? ` label="${label}"` : ''}>${children.join('')}</${name}>`,
    ),
})).node;

const simple = fc.oneof(
  fc.constantFrom(...NAMES, '*'),
  fc.constantFrom(...CLASSES).map((c) => `.${c}`),
  fc.constantFrom(
    '#a',
    '#b',
    '[label]',
    '[label=far]',
    '[label|=far]',
    '[label~=boat]',
    '[label^=far]',
    '[label$=boat]',
    '[label*="y b"]',
    '[id="c"]',
  ),
  fc.constantFrom(
    ':first-child',
    ':last-child',
    ':nth-child(2)',
    ':nth-child(odd)',
    ':nth-child(2n)',
    ':nth-child(-n+2)',
    ':nth-child(3n+1)',
  ),
);
const compound = fc
  .tuple(
    fc.constantFrom('', ...NAMES),
    fc.array(
      simple.filter((s) => /^[.#[:]/.test(s)),
      { maxLength: 2 },
    ),
  )
  .map(([name, more]) => `${name}${more.join('')}` || '*');
const selector = fc
  .tuple(compound, fc.array(fc.tuple(fc.constantFrom(' ', ' > ', ' + ', ' ~ '), compound), { maxLength: 2 }))
  .map(([first, rest]) => first + rest.map(([c, s]) => c + s).join(''));

const flat = (e: Ours): Ours[] => [e, ...e.elements.flatMap(flat)];

// Oracle: the selectors of a browser’s document, by another maker (CSS 2.1 chapter 5, Selectors Level 3).
test('a rule meets the elements that a browser’s selectors find', () =>
  fc.assert(
    fc.property(fc.array(tree, { minLength: 1, maxLength: 4 }), selector, (children, rule) => {
      const text = `<svg xmlns="http://www.w3.org/2000/svg">${children.join('')}</svg>`;
      const sheets = new Sheets();
      sheets.add(`${rule}{fill:red}`);
      const ours = flat(parseXml(text).root!).map((e) => sheets.matching(e).length > 0);
      const page = new DOMParser().parseFromString(text, 'image/svg+xml');
      const theirs = [page.documentElement, ...page.documentElement.querySelectorAll('*')].map((e) => e.matches(rule));
      expect([rule, ours]).toEqual([rule, theirs]);
    }),
    { numRuns: process.env.HOLVET_FULL ? 3000 : 200 },
  ));

// CSS 2.1, 6.4.3: an id outweighs any number of classes, a class any number of names; what comes later wins among
// equals.
test.each([
  ['rect{fill:a} .sail{fill:b}', 'b'],
  ['.sail{fill:a} rect{fill:b}', 'a'],
  ['#one{fill:a} .sail.mast.hull{fill:b}', 'a'],
  ['rect{fill:a} rect{fill:b}', 'b'],
  ['svg g rect{fill:a} .sail{fill:b}', 'b'],
  ['[label]{fill:a} rect{fill:b}', 'a'],
  ['rect:first-child{fill:a} .sail{fill:b}', 'a'],
  ['*{fill:a} rect{fill:b}', 'b'],
])('%s: %s wins', (sheet, wins) => {
  const root = parseXml(
    '<svg xmlns="http://www.w3.org/2000/svg"><g><rect id="one" class="sail mast hull" label="x"/></g></svg>',
  ).root!;
  const sheets = new Sheets();
  sheets.add(sheet);
  expect(sheets.matching(flat(root)[2]).at(-1)!.value).toBe(wins);
});
