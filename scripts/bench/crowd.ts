import type { Design, Paint } from '../../src/core/model/schema';
import { newDesign, setupOf, colourPaint } from '../../src/core/model/defaults';
import { mm } from '../../src/core/units/length';

/** A seeded page of many small shapes of ~40 px (or `side` millimetres), spread evenly over an A3 sheet. */
export function crowd(count: number, side = 22): Design {
  let seed = 20261121;
  const next = () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296;
  let n = 0;
  const make = { newId: () => `c${(n++).toString(36)}`, now: () => '2026-11-02T18:00:00.000Z' };
  const base = newDesign(`Crowd of ${count}`, setupOf(mm(297), mm(420)), make);
  const kinds = ['rectangle', 'ellipse', 'polygon', 'star', 'heart', 'arrow', 'chevron', 'ring'];
  const nodes: Record<string, Design['nodes'][string]> = {};
  const children: string[] = [];
  for (let i = 0; i < count; i++) {
    const id = make.newId();
    nodes[id] = {
      id,
      name: '',
      kind: 'shape',
      shape: kinds[i % kinds.length],
      transform: [1, 0, 0, 1, next() * mm(270), next() * mm(390)],
      hidden: false,
      locked: false,
      width: mm(side),
      height: mm(side),
      knobs: {},
      fills: [colourPaint({ cmyk: [next(), next(), next(), 0] })],
      outlines: [],
    };
    children.push(id);
  }
  return { ...base, nodes, pages: [{ ...base.pages[0], children }] };
}

/** A design with two squares of 60 mm on top, one plain and one with a gradient from its left edge to its right. */
export function withBeads(d: Design): Design {
  const side = mm(60);
  const square = (id: string, name: string, x: number, fill: Paint): Design['nodes'][string] => ({
    id,
    name,
    kind: 'shape',
    shape: 'rectangle',
    transform: [1, 0, 0, 1, mm(x), mm(180)],
    hidden: false,
    locked: false,
    width: side,
    height: side,
    knobs: {},
    fills: [fill],
    outlines: [],
  });
  const stops = [0, 0.5, 1].map((offset) => ({ offset, colour: { cmyk: [1 - offset, offset, 0.2, 0] as const } }));
  const nodes = {
    ...d.nodes,
    plain: square('plain', 'Plain', 60, colourPaint({ cmyk: [0.5, 0.5, 0.2, 0] })),
    ramp: square('ramp', 'Ramp', 180, {
      kind: 'gradient',
      gradient: 'linear',
      ramp: { stops },
      geometry: [side, 0, 0, side, 0, side / 2],
      overprint: false,
    }),
  };
  return { ...d, nodes, pages: [{ ...d.pages[0], children: [...d.pages[0].children, 'plain', 'ramp'] }] };
}

/** Two wavy paths of one extent, of 20 and of 2,000 pieces. */
export function withPaths(d: Design): Design {
  const wavy = (id: string, name: string, pieces: number, y: number): Design['nodes'][string] => {
    const [w, h] = [mm(160), mm(30)];
    const path: number[] = [0, 0, 0];
    for (let i = 0; i < pieces; i++) {
      const [a, b] = [(w * i) / pieces, (w * (i + 1)) / pieces];
      const up = (x: number) => h * Math.sin((x / w) * 20);
      path.push(
        2,
        a + (b - a) / 3,
        up(a + (b - a) / 3),
        b - (b - a) / 3,
        up(b - (b - a) / 3),
        b,
        i === pieces - 1 ? 0 : up(b),
      );
    }
    return {
      id,
      name,
      kind: 'path',
      transform: [1, 0, 0, 1, mm(60), mm(y)],
      hidden: false,
      locked: false,
      path,
      fillRule: 'nonZero',
      fills: [],
      outlines: [{ paint: colourPaint({ gray: 0 }), width: 2, cap: 'round', join: 'round', miterLimit: 10 }],
    };
  };
  const nodes = { ...d.nodes, short: wavy('short', 'Short path', 20, 120), long: wavy('long', 'Long path', 2000, 250) };
  return { ...d, nodes, pages: [{ ...d.pages[0], children: [...d.pages[0].children, 'short', 'long'] }] };
}
