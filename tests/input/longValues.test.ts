import { readPathData } from '@/core/input/svg/pathData';
import { parseXml, type Element } from '@/core/input/svg/xml';

// Long plain values are laid aside before the parser walks through a file. A file that has the mark itself is read
// without that: both must come to the same.

const LONG = 'M1 2C3,4 5,6 7,8'.repeat(20);
const FILES: readonly (readonly [string, string])[] = [
  ['path data', `<svg xmlns="http://www.w3.org/2000/svg"><path id="a" d="${LONG}"/><path d='${LONG}'/></svg>`],
  ['two on one element', `<svg><path d="${LONG}" style="${'fill:red;'.repeat(20)}" class="x"/></svg>`],
  [
    'an attribute that ends in an equals sign',
    `<svg><a title="x="  ${' '.repeat(200)} href="#${'b'.repeat(90)}"/></svg>`,
  ],
  [
    'a value with what needs reading',
    `<svg><a d="${'x'.repeat(70)}&amp;${'y'.repeat(70)}" e="${'z'.repeat(70)}&#65;"/></svg>`,
  ],
  ['values of several lines', `<svg>\n<path d="${LONG}\n${LONG}\t${LONG}"/>\n<path d="${LONG}"/></svg>`],
  ['words that look like an attribute', `<svg><text>say d="${LONG}" to ="${LONG}"</text></svg>`],
  ['a sheet in CDATA', `<svg><style><![CDATA[.a::before{content="${'w'.repeat(80)}"}]]></style></svg>`],
  [
    'comments and instructions',
    `<?xml version="1.0" encoding="utf-8"?><!-- d="${LONG}" --><svg><?do it="${LONG}"?><g/></svg>`,
  ],
  [
    'entities',
    `<!DOCTYPE svg [<!ENTITY long "${LONG}"><!ENTITY part '<path d="${LONG}"/>'><!ENTITY words 'a="${LONG}"'>]><svg><path d="&long;"/>&part;<text>&words;</text></svg>`,
  ],
  ['other alphabets', `<svg><text x="${'1 '.repeat(60)}">Ä ø 漢</text><a b="${'ä'.repeat(90)}"/></svg>`],
  ['a namespace by a long name', `<svg xmlns:q="${'urn:long:'.repeat(12)}"><path q:d="${LONG}" d="${LONG}"/></svg>`],
  ['an error after three lines', `<svg>\n<path d="${LONG}"/>\n<path d="${LONG}"></svg>`],
  ['a value that is not closed', `<svg><path d="${LONG}`],
  ['an address of bytes', `<svg><image href="data:image/png;base64,${'iVBORw0KGgo'.repeat(30)}=="/></svg>`],
];

const plain = (e: Element | null): unknown =>
  e && {
    name: e.name,
    space: e.space,
    attributes: [...e.attributes],
    foreign: e.foreign,
    children: e.children.map((c) => (typeof c === 'string' ? c : plain(c))),
  };

test.each(FILES)('a long value is read as it stands: %s', (_, text) => {
  const aside = parseXml(text);
  const walked = parseXml(
    text.includes('<!DOCTYPE') ? text.replace('<svg>', '<!--\uE0F5--><svg>') : `${text}<!--\uE0F5-->`,
  );
  expect(plain(aside.root)).toEqual(plain(walked.root));
  // Of what is not closed the places differ, for there is more of the one than of the other.
  if (!text.endsWith('C3,4 5,6 7,8')) expect(aside.problem).toBe(walked.problem);
});

test.each(['&#xE0F5;0&#xE0F5;', '&#57589;0&#57589;', '&#x00e0f5;7&#xE0F5;', '&m;0&m;'])(
  'a mark that a file names by its number brings nothing back: %s',
  (mark) => {
    const { root } = parseXml(
      `<!DOCTYPE svg [<!ENTITY m "&#xE0F5;">]><svg><path d="${LONG}"/><text>${mark.repeat(3)}</text></svg>`,
    );
    expect(root!.elements[0].attributes.get('d')).toBe(LONG);
    expect(JSON.stringify(root!.elements[1].children)).not.toMatch(/C3,4|undefined/);
  },
);

test('what is laid aside counts towards what entities may come to', () => {
  const entity = `<!DOCTYPE svg [<!ENTITY a 'x="${'m'.repeat(100_000)}"'>]>`;
  expect(() => parseXml(`${entity}<svg>${'<text>&a;</text>'.repeat(60)}</svg>`)).toThrow('million characters');
});

test('path data is read up to a sign that no path has; in words that look like path data no such sign passes', () => {
  const { root } = parseXml(`<svg><path d="${LONG}\u0001${LONG}"/><text>say d="${LONG}\u0001\uFFFE"</text></svg>`);
  const [path, words] = root!.elements;
  const read = readPathData(path.attributes.get('d')!);
  expect(read.whole).toBe(false);
  expect(read.path).toEqual(readPathData(LONG).path);
  expect(words.children.join('')).toBe(`say d="${LONG}\uFFFD\uFFFD"`);
  // What is no path's is refused as ever.
  expect(parseXml(`<svg><path style="${LONG}\u0001"/></svg>`).problem).toMatch(/^line 1/);
});
