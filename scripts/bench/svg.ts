// Runs in Node, in a process of its own as a drawing is read in a worker of its own: a drawing of 8 MB to objects
// against saxes merely walking through it. Prints one JSON line.
import path from 'node:path';
import { SaxesParser } from 'saxes';
import { readSvg } from '../../src/core/input/svg/read';
import { openEngines } from '../../src/core/engines';
import { nodeEnv } from '../../src/env/node';
import { inTurns, measured } from './measure';

/**
 * Groups of paths, boxes and circles with styles, gradients and transforms, as drawing programs write them: about 5 MB.
 */
function largeDrawing(): string {
  const parts = [
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 2000 2000"><style>.a{fill:#246;stroke:#fff;stroke-width:.5}.b{fill:url(#g)}</style><defs><linearGradient id="g"><stop offset="0" stop-color="#e84"/><stop offset="1" stop-color="#248"/></linearGradient></defs>',
  ];
  let seed = 5;
  const next = () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296;
  const n = () => (next() * 2000).toFixed(3);
  for (let g = 0; g < 1200; g++) {
    parts.push(`<g id="g${g}" transform="translate(${n()} ${n()}) scale(.${1 + (g % 8)})">`);
    for (let i = 0; i < 8; i++)
      parts.push(
        `<path class="${i % 2 ? 'a' : 'b'}" d="M${n()} ${n()}${Array.from({ length: 16 }, () => `C${n()},${n()} ${n()},${n()} ${n()},${n()}`).join('')}Z"/>`,
      );
    parts.push(
      `<rect x="${n()}" y="${n()}" width="${n()}" height="${n()}" style="fill:#${(g * 37).toString(16).padStart(6, '0')};opacity:.5"/><circle cx="${n()}" cy="${n()}" r="40"/></g>`,
    );
  }
  return `${parts.join('')}</svg>`;
}

const engines = await openEngines(nodeEnv(path.join(process.cwd(), 'public')));
const text = largeDrawing();
const bytes = new TextEncoder().encode(text);
let seen = 0;
const parse = () => {
  const parser = new SaxesParser({ xmlns: true });
  parser.on('opentag', (tag) => void (seen += Object.keys(tag.attributes).length));
  parser.write(text).close();
};
const [reference, ours] = await inTurns(15, 3, parse, () =>
  readSvg(bytes, 'bench', { ...engines.env, fonts: engines.fonts }),
);
if (!seen) throw new Error('nothing was parsed');

console.log(
  JSON.stringify([
    {
      what: 'SVG drawing to objects / saxes merely parsing it',
      ...measured(ours, reference),
      aim: 4,
      note: `${(bytes.length / 1e6).toFixed(1)} MB`,
    },
  ]),
);
