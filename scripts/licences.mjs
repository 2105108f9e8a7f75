// Writes docs/licences.md: every package that ships, from its own package.json, with the hand-written part for data.
import { readFileSync, writeFileSync } from 'node:fs';

const root = JSON.parse(readFileSync('package.json', 'utf8'));
const lock = JSON.parse(readFileSync('package-lock.json', 'utf8')).packages;
const seen = new Map();
const visit = (name, from) => {
  // Node's own look-up: the nearest node_modules above.
  let at = from;
  for (;;) {
    const key = `${at ? `${at}/` : ''}node_modules/${name}`;
    if (lock[key]) {
      if (seen.has(key)) return;
      const p = JSON.parse(readFileSync(`${key}/package.json`, 'utf8'));
      seen.set(key, {
        name,
        version: p.version,
        licence:
          typeof p.license === 'string' ? p.license : (p.license?.type ?? p.licenses?.[0]?.type ?? 'see package'),
      });
      for (const d of Object.keys({ ...p.dependencies })) visit(d, key);
      return;
    }
    if (!at) return; // optional, not installed here
    at = at.includes('/node_modules/') ? at.slice(0, at.lastIndexOf('/node_modules/')) : '';
  }
};
for (const d of Object.keys(root.dependencies)) visit(d, '');
const rows = [...new Map([...seen.values()].map((r) => [`${r.name}@${r.version}`, r])).values()].sort((a, b) =>
  a.name.localeCompare(b.name),
);
const head = `# Licences and sources of what ships

Holvet itself is under the MIT licence (see LICENSE). It ships with:

## Fonts

All under the SIL Open Font License 1.1, taken whole from the \`@expo-google-fonts\` packages listed below and copied to
\`public/fonts\` by \`scripts/copy-public.mjs\`: Archivo, Inter, Montserrat, Fira Sans, Comfortaa, Comic Neue,
Noto Sans Arabic, Oswald, Anton, Bebas Neue, EB Garamond, Cormorant Garamond, Playfair Display, Source Serif 4,
Alegreya, Frank Ruhl Libre, Bitter, Alfa Slab One, Cinzel, Abril Fatface, Unbounded, Russo One, Caveat, Great Vibes,
Lobster, Grenze Gotisch, JetBrains Mono, Courier Prime. Each package holds its own LICENSE_FONT with the copyright
line.

## Colour profiles (\`public/icc\`)

| file | made from | licence |
|---|---|---|
| coated-tr006.icc | characterization data of CGATS TR 006, with argyll's colprof | profiles made from the data may be distributed if the Technical Report is named as the source: it is, here and in the interface |
| newsprint-tr002.icc | characterization data of CGATS TR 002, likewise | the same |
| uncoated-f29.icc | characterization data FOGRA29L, likewise | zlib, by the copyright file of Debian's icc-profiles-free |
| srgb.icc | icc-profiles-free | zlib |

## Data

- The spot library “Marrowick Tins” and all demo designs are invented and made by scripts of this project.
- \`tests/data/ciede2000-pairs.json\`: the 34 pairs of Sharma, Wu and Dalal, “The CIEDE2000 Color-Difference Formula” (2005).

## Packages that ship

Written by \`node scripts/licences.mjs\` from each package's own description.

| package | version | licence |
|---|---|---|
`;
writeFileSync(
  'docs/licences.md',
  `${head}${rows.map((r) => `| ${r.name} | ${r.version} | ${r.licence} |`).join('\n')}\n`,
);
console.log(`${rows.length} packages`);
