import { checkDesign } from '@/core/check/check';
import { packDesign, unpackDesign } from '@/core/file/archive';
import { salvageDesign } from '@/core/model/salvage';
import { serializeDesign } from '@/core/model/serialize';
import { verifyChange, verifyDesign } from '@/core/model/verify';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { ancestry, pageOf, parentOf, topmost } from '@/core/model/tree';
import { tryOut } from '@/core/edit/history';
import { moveNodes } from '@/core/edit/place';
import { deleteNodes } from '@/core/edit/remove';
import { groupNodes, orderNodes, reparentNode } from '@/core/edit/pile';
import { prepare } from '@/core/engines';
import fc from '../support/seeded';
import { placesOf } from '../support/places';
import { random } from '../support/random';
import { making, sampleDesign } from '../support/sample';
import { testEngines } from '../support/engines';
import { leavesOf } from '../support/scenes';

const json = (d: Design) =>
  JSON.parse(serializeDesign(d)) as Record<string, never> & {
    nodes: Record<string, Record<string, unknown>>;
    pages: { children: string[] }[];
    stories: Record<string, unknown>;
  };
const SAMPLE = sampleDesign();
const fallback = () => newDesign('Fallback', setupOf(300, 300), making);

describe('what a later version made', () => {
  test('an object of a kind not known passes through: kept, said, not drawn, and in the file as it came', async () => {
    const value = json(SAMPLE);
    const lantern = {
      id: 'later',
      kind: 'glowworm',
      name: 'Glow',
      transform: [1, 0, 0, 1, 5, 5],
      brightness: { deep: [1, 2] },
      children: [],
    };
    value.nodes.later = lantern;
    value.pages[0].children.push('later');
    const engines = await testEngines();
    const read = verifyDesign(value);
    if (!read.ok) throw new Error(read.what);
    const palette = await prepare(engines, read.design);
    const plain = leavesOf(engines.builder.build(SAMPLE, SAMPLE.pages[0])).length;
    expect(leavesOf(engines.builder.build(read.design, read.design.pages[0]))).toHaveLength(plain);
    expect(
      checkDesign(read.design, engines.builder, palette)
        .filter((f) => f.code === 'object.unknown')
        .map((f) => f.message),
    ).toEqual(['Glow is of a kind that this version does not know (“glowworm”); it is not drawn.']);
    const again = unpackDesign(
      packDesign(
        tryOut(read.design, (d) => void (d.nodes.later.name = 'Glow, moved')),
        null,
      ),
    );
    if (!again.ok) throw new Error(again.code);
    expect(json(again.design).nodes.later).toEqual({ ...lantern, name: 'Glow, moved' });
  });

  test('a dialled shape not known is never drawn as another', async () => {
    const design = tryOut(sampleDesign(), (d) => {
      const node = Object.values(d.nodes).find((n) => n.kind === 'shape')!;
      Object.assign(node, { shape: 'starfish', name: 'Starfish' });
    });
    const engines = await testEngines();
    const palette = await prepare(engines, design);
    const id = Object.values(design.nodes).find((n) => n.name === 'Starfish')!.id;
    expect(leavesOf(engines.builder.build(design, design.pages[0])).some((i) => i.node === id)).toBe(false);
    expect(
      checkDesign(design, engines.builder, palette).some(
        (f) => f.code === 'object.unknown' && f.node === id && /“starfish”/.test(f.message),
      ),
    ).toBe(true);
    expect(verifyDesign(json(design)).ok).toBe(true);
  });
});

describe('names that every object answers to', () => {
  test.each(['constructor', 'toString', '__proto__', 'hasOwnProperty', 'valueOf'])(
    '%s is no name of a child, a node, a story, a swatch or a face',
    (word) => {
      const child = json(SAMPLE);
      child.pages[0].children.push(word);
      expect(verifyDesign(child).ok).toBe(false);
      const node = JSON.parse(serializeDesign(SAMPLE).replace(/"story":"[^"]+"/, `"story":"${word}"`)) as unknown;
      expect(verifyDesign(node).ok).toBe(false);
      const face = JSON.parse(serializeDesign(SAMPLE).replace(/"face":"[^"]+"/, `"face":"${word}"`)) as unknown;
      expect(verifyDesign(face).ok).toBe(false);
    },
  );
});

describe('of a damaged design what can be read is kept', () => {
  const names = (d: Design) =>
    Object.values(d.nodes)
      .map((n) => n.name)
      .sort();
  test('an object at fault goes, or only its paint; all others stay where they were', () => {
    const value = json(SAMPLE);
    const [first, second, third] = Object.keys(value.nodes).filter(
      (id) => 'fills' in value.nodes[id] && value.nodes[id].kind === 'shape',
    );
    const holder = Object.values(value.nodes).find((n) => (n.children as string[] | undefined)?.includes(first));
    const siblings = (holder?.children ?? value.pages[0].children) as string[];
    (value.nodes[first] as { transform: number[] }).transform[0] = 1e308;
    Object.assign(value.nodes[second], {
      outlines: [{ paint: { kind: 'none' }, width: 1e11, cap: 'butt', join: 'miter', miterLimit: 4 }],
    });
    Object.assign(value.nodes[third], {
      fills: [{ kind: 'colour', colour: { swatch: 'gone', tint: 1 }, overprint: false }],
    });
    const made = salvageDesign(value, fallback());
    expect(made!.design.nodes[first]).toBeUndefined();
    expect(made!.design.nodes[second]).toMatchObject({ outlines: [] });
    expect(made!.design.nodes[third]).toBeDefined();
    const now = holder ? made!.design.nodes[holder.id as string] : made!.design.pages[0];
    expect('children' in now && now.children).toEqual(siblings.filter((c) => c !== first));
    expect(made!.leftOut.length).toBeGreaterThanOrEqual(2);
  });
  test('groups in a ring, a missing page, doubled ids, words for numbers: something sound every time', () => {
    const ring = json(SAMPLE);
    ring.nodes.a = { ...ring.nodes[ring.pages[0].children[0]], id: 'a', kind: 'group', children: ['b'] };
    ring.nodes.b = { ...ring.nodes.a, id: 'b', children: ['a'] };
    const noPages = { ...json(SAMPLE), pages: 7 };
    const doubled = json(SAMPLE) as unknown as { inks: object[] };
    doubled.inks.push(doubled.inks[0]);
    for (const value of [ring, noPages, doubled, {}, { nodes: [] }, { pages: [null], nodes: { x: 3 } }]) {
      const made = salvageDesign(value, fallback());
      expect(made && verifyDesign(made.design).ok).toBe(true);
    }
    expect(names(salvageDesign(noPages, fallback())!.design)).toEqual(names(SAMPLE));
    for (const value of [null, 3, 'x', [1]]) expect(salvageDesign(value, fallback())).toBeNull();
  });
  test('whatever is broken in it, it ends in something sound or in nothing', () => {
    const text = serializeDesign(SAMPLE);
    fc.assert(
      fc.property(fc.integer(), (seed) => {
        const next = random(seed);
        const value = JSON.parse(text) as unknown;
        const places = placesOf(value);
        for (let i = 0; i < 3; i++) {
          const [holder, key] = places[Math.floor(next() * places.length)];
          const kind = Math.floor(next() * 5);
          if (kind === 0) delete holder[key];
          else holder[key] = [null, -1e99, 'constructor', {}][kind - 1];
        }
        const made = salvageDesign(value, fallback());
        return made !== null && verifyDesign(made.design).ok;
      }),
      { numRuns: process.env.HOLVET_FULL ? 2000 : 120 },
    );
  });
});

describe('a change is held against the same rules as a whole design', () => {
  test('whatever is done or broken: what verifyChange says of the step, verifyDesign says of the result', () => {
    fc.assert(
      fc.property(fc.integer(), (seed) => {
        const next = random(seed);
        const before = SAMPLE;
        const page = before.pages[0];
        const ids = page.children.filter(() => next() < 0.4);
        let n = 0;
        const newId = () => `n${n++}`;
        const after = tryOut(before, (d) => {
          const pick = () => d.nodes[Object.keys(before.nodes)[Math.floor(next() * Object.keys(before.nodes).length)]];
          switch (Math.floor(next() * 11)) {
            case 0:
              moveNodes(d, page, ids, next() < 0.5 ? 5 : 1e9, 0);
              break;
            case 1:
              groupNodes(d, page, ids, newId);
              break;
            case 2:
              deleteNodes(d, page, ids);
              break;
            case 3:
              orderNodes(d, page, ids, 'front');
              break;
            case 4:
              d.swatches = d.swatches.slice(1);
              break;
            case 5:
              Object.assign(pick() ?? {}, { opacity: next() * 2 });
              break;
            case 6:
              delete d.nodes[page.children[0]];
              break;
            case 7:
              d.pages[0].children = [...page.children, page.children[0]];
              break;
            case 8:
              d.stories = {};
              break;
            case 9:
              d.inks = [];
              break;
            default:
              if (ids.length) reparentNode(d, page, ids[0], null, 0);
          }
        });
        const change = verifyChange(before, after);
        const whole = verifyDesign(json(after));
        if ((change === null) !== whole.ok)
          throw new Error(`${JSON.stringify(change)} against ${JSON.stringify(whole.ok || whole)}`);
        return true;
      }),
      { numRuns: process.env.HOLVET_FULL ? 1000 : 150 },
    );
  });
});

test('the parent index answers as a walk from the page down does', () => {
  const design = SAMPLE;
  const page = design.pages[0];
  const walk = (ids: readonly string[], id: string): string[] => {
    for (const x of ids) {
      if (x === id) return [x];
      const node = design.nodes[x];
      const below = 'children' in node ? walk(node.children, id) : [];
      if (below.length) return [x, ...below];
    }
    return [];
  };
  for (const id of Object.keys(design.nodes)) {
    const line = walk(page.children, id);
    expect(ancestry(design, page, id)).toEqual(line);
    expect(parentOf(design, page, id)).toBe(line.length > 1 ? line[line.length - 2] : null);
    expect(pageOf(design, id)?.id).toBe(page.id);
  }
  expect(ancestry(design, page, 'nowhere')).toEqual([]);
  expect(topmost(design, page, Object.keys(design.nodes))).toEqual(page.children);
});
