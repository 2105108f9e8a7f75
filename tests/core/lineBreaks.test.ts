import { breaksOf, loadLineBreaks } from '@/core/text/lineBreaks';

beforeAll(loadLineBreaks);

// UAX 14 (Unicode line breaking), rule by rule, in the notation of its LineBreakTest file: ÷ a line may be broken, × it
// may not. The cases are written from the standard; its published file is not carried by any package here.
test.each<[string, string]>([
  ['LB4 a line ends where it is told', 'a\u2028÷b'],
  ['LB5 carriage return and line feed are one end', 'a\r\n÷b'],
  ['LB5 either alone is one', 'a\r÷b\n÷c'],
  ['LB6, LB7 never before an end or a space', 'a ÷b'],
  ['LB8 after a space of no width', 'a\u200b÷b'],
  ['LB9 a mark stays with its letter', 'e\u0301 ÷e\u0301'],
  ['LB11 a word joiner holds', 'a\u2060b'],
  ['LB12 a space that does not break', 'a\u00a0b'],
  ['LB12a nor before it', 'a\u202fb'],
  ['LB13 marks that close or end stay behind', 'Quay! ÷(boats) ÷and/÷or]'],
  ['LB14 nothing is broken behind what opens', '(( a'],
  ['LB16 a closing and what may not begin a line', 'a)\u30fb÷b'],
  ['LB18 after spaces', 'one  ÷two'],
  ['LB19 quotes hold on both sides', 'say ÷"a" ÷now'],
  ['LB21 hyphens stay behind', 'home-÷made'],
  ['LB21 a dash before a word', 'a–÷b'],
  ['LB21a Hebrew with a hyphen', 'אב-גד'],
  ['LB22 dots that lead stay', 'wait…'],
  ['LB23 letters and figures', 'A4 ÷4A'],
  ['LB24 money before letters', '$US'],
  ['LB25 a number is whole', '(12.50) ÷€12,50 ÷-3.5% ÷1/2'],
  ['LB26, LB27 a syllable of Hangul parts', '\u1100\u1161\u11a8÷\u1100'],
  ['LB28 letters of a word', 'Marrowick'],
  ['LB29 a stop before letters', 'e.g. ÷this'],
  ['LB30 letters and brackets', 'a(b)c'],
  ['LB30a flags go in pairs', '🇫🇮÷🇫🇮'],
  ['LB30b a person and the colour of its skin', '👋🏽'],
  ['LB31 between ideographs', '日÷本÷語'],
  ['LB31 an ideograph and its stop', '日。÷本'],
])('%s', (_, marked) => {
  const parts = marked.split('÷');
  const text = parts.join('');
  let at = 0;
  const told = parts.map((p) => (at += p.length));
  expect(breaksOf(text).map((b) => text.slice(0, b))).toEqual(told.map((b) => text.slice(0, b)));
});
