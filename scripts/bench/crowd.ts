import type { Design } from '../../src/core/model/schema';
import { newDesign, setupOf, colourPaint } from '../../src/core/model/defaults';
import { mm } from '../../src/core/units/length';

/** A seeded page of many small shapes of ~40 px, spread evenly over an A3 sheet. */
export function crowd(count: number): Design {
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
      id, name: '', kind: 'shape', shape: kinds[i % kinds.length], transform: [1, 0, 0, 1, next() * mm(270), next() * mm(390)], hidden: false, locked: false,
      width: mm(22), height: mm(22), knobs: {}, fills: [colourPaint({ cmyk: [next(), next(), next(), 0] })], outlines: [],
    };
    children.push(id);
  }
  return { ...base, nodes, pages: [{ ...base.pages[0], children }] };
}
