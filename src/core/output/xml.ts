/** Text as XML may hold it, in attributes too: what breaks lines there is kept as a number (XML 1.0, 3.3.3). */
export const escapeXml = (s: string): string =>
  s.replace(/[&<>"\t\n\r]/g, (c) => NAMED.get(c) ?? `&#${c.charCodeAt(0)};`);
const NAMED = new Map([
  ['&', '&amp;'],
  ['<', '&lt;'],
  ['>', '&gt;'],
  ['"', '&quot;'],
]);
