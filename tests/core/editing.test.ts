import { beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { alignNodes, distributeNodes } from '@/core/edit/align';
import { copyNodes, pasteClip } from '@/core/edit/clip';
import { combineNodes, setCombination } from '@/core/edit/combine';
import { joinPaths, splitPath } from '@/core/edit/compound';
import { setCorners } from '@/core/edit/corners';
import { addGuides, removeGuides } from '@/core/edit/guides';
import { record, redoEntry, undoEntry, type DesignDraft, type HistoryEntry } from '@/core/edit/history';
import {
  addBetween,
  breakAt,
  removeNodes,
  reverseContours,
  setKind,
  shiftNodes,
  writeContours,
} from '@/core/edit/nodes';
import { contoursOf } from '@/core/derive/contours';
import { setColour } from '@/core/edit/paint';
import { moveNodes, scaleNodes, scalingAbout, turnNodes } from '@/core/edit/place';
import { deleteNodes } from '@/core/edit/remove';
import { groupNodes, orderNodes, setNodeFlags, ungroupNodes } from '@/core/edit/pile';
import { makePlain } from '@/core/edit/plain';
import { firstArrangement, repeatNodes, setArrangement, tooManyCopies } from '@/core/edit/repeat';
import { simplified } from '@/core/edit/smoothing';
import { asWindow, canHoldText, emptyStory } from '@/core/edit/window';
import { translation } from '@/core/geometry/matrix';
import { colourPaint, runOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { serializeDesign } from '@/core/model/serialize';
import { verifyDesign } from '@/core/model/verify';
import { SceneBuilder } from '@/core/scene/build';
import { SHAPES } from '@/core/shapes/catalogue';
import { prepare, type Engines } from '@/core/engines';
import { box, disc, INK, OTHER, sheet } from '../support/drawing';
import { FULL, measured } from '../support/measured';
import { testEngines } from '../support/engines';
import { leavesOf } from '../support/scenes';

let engines: Engines;
let start: Design;
beforeAll(async () => {
  engines = await testEngines();
  start = sheet((b) => [
    box(b, 'Box', 20, 20, 80, 60),
    disc(b, 'Disc', 90, 60, 40, OTHER),
    b.path('Wave', [0, 0, 200, 2, 60, 120, 90, 280, 150, 200, 1, 200, 220], {}),
    b.path('Leaf', [0, 200, 100, 2, 220, 60, 280, 60, 300, 100, 2, 280, 140, 220, 140, 200, 100, 3], {
      fill: colourPaint(INK),
    }),
    ...SHAPES.slice(0, 40)
      .filter((_, i) => i % 8 === 3)
      .map((s, i) => b.shape(s.name, s.id, { x: 30 * i, y: 220, w: 40, h: 40 }, { fill: colourPaint(OTHER) })),
    b.displayText('Word', 150, 60, [{ align: 'left', leading: 1, runs: [runOf('Quay', 30)] }]),
  ]);
  await prepare(engines, start);
});

interface Step {
  readonly what: number;
  readonly a: number;
  readonly b: number;
  readonly x: number;
  readonly y: number;
}
let n = 0;
const newId = () => `e${(n++).toString(36)}`;

/** One random command of the bench's kind, on random objects; some do nothing where they do not fit. */
function run(d: DesignDraft, now: Design, s: Step): void {
  const page = now.pages[0];
  const all = Object.keys(now.nodes).sort();
  if (!all.length) return;
  const top = page.children;
  const pick = (k: number) => all[k % all.length];
  const tops = top.length ? [...new Set([top[s.a % top.length], top[s.b % top.length]])] : [];
  const one = pick(s.a);
  const path = all.filter((id) => now.nodes[id].kind === 'path')[0];
  const contours = path ? contoursOf(now.nodes[path] as Parameters<typeof contoursOf>[0]) : [];
  const some = new Set([s.a % 4, s.b % 5]);
  const { fonts } = engines;
  const commands: (() => unknown)[] = [
    () => moveNodes(d, page, tops, s.x, s.y),
    () => turnNodes(d, page, tops, s.x, { x: s.y, y: s.x }),
    () => scaleNodes(d, page, tops, scalingAbout(1 + Math.abs(s.x) / 200, 1 + Math.abs(s.y) / 200, { x: 0, y: 0 })),
    () =>
      combineNodes(
        d,
        page,
        tops,
        (['union', 'subtract', 'intersect', 'exclude', 'divide'] as const)[s.a % 5],
        s.b % 2 === 0,
        newId,
        fonts,
      ),
    () => setCombination(d, one, { op: 'union', reversed: s.b % 2 === 0 }),
    () =>
      !tooManyCopies(now, page, tops, 8) &&
      repeatNodes(d, page, tops, (['row', 'grid', 'ring'] as const)[s.a % 3], null, newId, fonts),
    () => setArrangement(d, one, firstArrangement('row', { x0: 0, y0: 0, x1: 20, y1: 20 }, null)),
    () => makePlain(d, page, [one], newId, fonts),
    () => groupNodes(d, page, tops, newId),
    () => ungroupNodes(d, page, [one]),
    () => orderNodes(d, page, tops, (['front', 'forward', 'backward', 'back'] as const)[s.b % 4]),
    () =>
      setCorners(d, [one], s.b % 2 ? 'all' : s.a % 4, {
        radius: Math.abs(s.x) / 10,
        kind: (['round', 'cut', 'scoop'] as const)[s.b % 3],
      }),
    () => setColour(d, [one], s.b % 2 ? 'fill' : 'outline', { gray: (s.a % 10) / 10 }),
    () => setNodeFlags(d, [one], { name: `Name ${s.a}` }),
    () => alignNodes(d, page, tops, (['left', 'middle', 'foot'] as const)[s.a % 3], 'selection', null, fonts),
    () => distributeNodes(d, page, top.slice(0, 4), s.a % 2 ? 'x' : 'y', 'gap', 'page', null, fonts),
    () => addGuides(d, page.id, [{ axis: s.a % 2 ? 'x' : 'y', at: s.x }]),
    () => removeGuides(d, page.id, (_, i) => i === s.a % 3),
    () => path && writeContours(d, page, path, shiftNodes(contours, some, s.x / 10, s.y / 10)),
    () =>
      path &&
      writeContours(d, page, path, setKind(contours, some, (['corner', 'smooth', 'symmetric'] as const)[s.b % 3])),
    () => path && writeContours(d, page, path, addBetween(contours, some).contours),
    () => path && writeContours(d, page, path, removeNodes(contours, new Set([s.a % 4]))),
    () => path && writeContours(d, page, path, breakAt(contours, some)),
    () => path && writeContours(d, page, path, reverseContours(contours, some)),
    () => path && writeContours(d, page, path, simplified(contours, Math.abs(s.x) / 50 + 0.1)),
    () => joinPaths(d, page, all.filter((id) => now.nodes[id].kind === 'path' && top.includes(id)).slice(0, 2)),
    () => splitPath(d, page, one, newId),
    () => {
      const node = now.nodes[one];
      if (!canHoldText(node)) return;
      const story = newId();
      d.stories[story] = emptyStory(story, runOf('Quay', 9)) as DesignDraft['stories'][string];
      d.nodes[one] = asWindow(node, story, 2) as DesignDraft['nodes'][string];
    },
    () => {
      const clip = copyNodes(now, page, tops);
      if (clip && all.length < 60) pasteClip(d, page.id, clip, newId, translation(s.x, s.y));
    },
    () => all.length > 6 && deleteNodes(d, page, [one]),
  ];
  commands[s.what % commands.length]();
}

const step = fc.record({
  what: fc.nat(999),
  a: fc.nat(99),
  b: fc.nat(99),
  x: fc.integer({ min: -90, max: 90 }),
  y: fc.integer({ min: -90, max: 90 }),
});
const SEQUENCES = FULL ? 200 : 25;

test('random sessions of thirty commands: always a whole design; all undone and all done again, the same bytes', () => {
  let commands = 0;
  fc.assert(
    fc.property(fc.array(step, { minLength: 30, maxLength: 30 }), (steps) => {
      const entries: HistoryEntry[] = [];
      let now = start;
      for (const s of steps) {
        const before = now;
        const made = record(before, 'Step', (d) => run(d, before, s));
        if (!made) continue;
        entries.push(made.entry);
        now = made.design;
        commands++;
      }
      const end = serializeDesign(now);
      expect(verifyDesign(JSON.parse(end))).toMatchObject({ ok: true });
      // What was remembered on the way is what a fresh look makes.
      const page = now.pages[0];
      const known = leavesOf(engines.builder.build(now, page)).map((i) => [i.node, i.inkBounds]);
      expect(
        leavesOf(new SceneBuilder(engines.fonts).build(JSON.parse(end) as Design, page)).map((i) => [
          i.node,
          i.inkBounds,
        ]),
      ).toEqual(known);
      let back = now;
      for (const e of [...entries].reverse()) back = undoEntry(back, e);
      expect(serializeDesign(back)).toBe(serializeDesign(start));
      for (const e of entries) back = redoEntry(back, e);
      expect(serializeDesign(back)).toBe(end);
    }),
    { numRuns: SEQUENCES, seed: 5 },
  );
  measured(
    'random editing sessions',
    `${SEQUENCES} × 30 commands (${commands} changed something): undone and done again, the same bytes`,
    'the same bytes',
    'fast-check',
  );
}, 300_000);
