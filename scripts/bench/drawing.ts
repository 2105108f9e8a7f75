import { areaOf } from '../../src/core/derive/area';
import { combineNodes } from '../../src/core/edit/combine';
import { tryOut, tryOutOn } from '../../src/core/edit/history';
import { moveNodes } from '../../src/core/edit/place';
import { combineAll } from '../../src/core/geometry/boolean/combine';
import { FastEngine } from '../../src/core/geometry/boolean/pathkit';
import type { Region } from '../../src/core/geometry/boolean/region';
import { transformPath } from '../../src/core/geometry/path';
import { segmentCount } from '../../src/core/geometry/segments';
import { colourPaint, newDesign, setupOf } from '../../src/core/model/defaults';
import type { Design } from '../../src/core/model/schema';
import { hitsAt } from '../../src/core/scene/hit';
import type { Engines } from '../../src/core/engines';
import { mm } from '../../src/core/units/length';
import { crowd } from './crowd';
import { inTurns, measured, type Measured } from './measure';

/** One look for the front object at a place, among 10,000 and among 100 that cover as much of the sheet. */
export async function hitBench(engines: Engines): Promise<Measured> {
  const looks = (count: number) => {
    const design = crowd(count, 22 / Math.sqrt(count / 100));
    const scene = engines.builder.build(design, design.pages[0]);
    const places = Array.from({ length: 2000 }, (_, i) => ({
      x: mm(10 + ((i * 97) % 270)),
      y: mm(10 + ((i * 61) % 390)),
    }));
    return () => {
      for (const p of places) hitsAt(scene, p, 2).next();
    };
  };
  const [ours, reference] = await inTurns(25, 3, looks(10_000), looks(100));
  // In µs a place.
  return measured(ours, reference, 1000 / 2000);
}

/** Twenty gears united, one of them dragged: what a move costs, and the engine alone on what rests and what moves. */
export async function combineBench(
  engines: Engines,
): Promise<{ readonly measured: Measured; readonly segments: number }> {
  let n = 0;
  const make = { newId: () => `g${n++}`, now: () => '2026-11-02T18:00:00.000Z' };
  const base = newDesign('Gears', setupOf(mm(297), mm(210)), make);
  const nodes: Record<string, Design['nodes'][string]> = {};
  const children = Array.from({ length: 20 }, (_, i) => {
    const id = make.newId();
    nodes[id] = {
      id,
      name: '',
      kind: 'shape',
      shape: 'gear',
      transform: [1, 0, 0, 1, mm(10 + (i % 5) * 42), mm(10 + Math.floor(i / 5) * 42)],
      hidden: false,
      locked: false,
      width: mm(46),
      height: mm(46),
      knobs: {},
      fills: [colourPaint({ gray: 0.2 })],
      outlines: [],
    };
    return id;
  });
  const loose: Design = { ...base, nodes, pages: [{ ...base.pages[0], children }] };
  const design = tryOut(loose, (d) => {
    combineNodes(d, loose.pages[0], children, 'union', false, make.newId, engines.fonts);
  });
  const page = design.pages[0];
  const scene = engines.builder.build(design, page);
  const only = [children[7]];
  const placed = (child: string): Region => ({
    path: transformPath(areaOf(design, child, engines.fonts).region.path, design.nodes[child].transform),
    rule: 'nonZero',
  });
  const rest = combineAll(children.filter((c) => c !== only[0]).map(placed), 'union').region;
  const kit = await (
    await import('pathkit-wasm')
  ).default({ wasmBinary: await engines.env.asset('wasm/pathkit.wasm') });
  const engine = new FastEngine(kit);
  const [ours, reference]: [number[], number[]] = [[], []];
  for (let i = 0; i < 80; i++) {
    const [dx, dy] = [1 + (i % 17), (i % 7) - 3];
    let t = performance.now();
    const shown = tryOutOn(design, only, (d) => moveNodes(d, page, only, dx, dy));
    engines.builder.patch(scene, shown, page, only);
    ours.push(performance.now() - t);
    const moving: Region = { path: transformPath(placed(only[0]).path, [1, 0, 0, 1, dx, dy]), rule: 'nonZero' };
    t = performance.now();
    engine.combine(rest, moving, 'union');
    reference.push(performance.now() - t);
  }
  return { measured: measured(ours.slice(10), reference.slice(10)), segments: segmentCount(rest.path) };
}
