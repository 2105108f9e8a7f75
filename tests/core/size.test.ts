import { beforeAll, describe, expect, test } from '@jest/globals';
import { localBox } from '@/core/derive/box';
import { combineNodes } from '@/core/edit/combine';
import { tryOut } from '@/core/edit/history';
import { scaleNodes } from '@/core/edit/place';
import { sizeExactly, sizingMap } from '@/core/edit/size';
import { apply } from '@/core/geometry/matrix';
import { height, width } from '@/core/geometry/rect';
import { colourPaint } from '@/core/model/defaults';
import { pageMatrix } from '@/core/model/tree';
import type { Engines } from '@/core/engines';
import { INK, OTHER, box, idOf, sheet } from '../support/drawing';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

describe('a typed measure is exact', () => {
  // A diamond whose round corners keep their radius: its box does not grow by the plain factor.
  const made = (turn: number) => {
    const start = sheet((b) => [
      b.shape(
        'Diamond',
        'polygon',
        { x: 20, y: 20, w: 80, h: 60, turn },
        { fill: colourPaint(INK), knobs: { sides: 4 } },
      ),
      box(b, 'Bar', 40, 40, 30, 20, OTHER),
    ]);
    let id = '';
    const design = tryOut(start, (d) => {
      (d.nodes[idOf(start, 'Diamond')] as { corners?: unknown }).corners = { all: { radius: 6, kind: 'round' } };
      id = combineNodes(
        d,
        start.pages[0],
        [idOf(start, 'Diamond'), idOf(start, 'Bar')],
        'union',
        false,
        () => 'both',
        engines.fonts,
      )!;
    });
    return { design, id };
  };
  test.each([
    [0, 2.5, 1],
    [0, 0.6, 1.7],
    [20, 1.3, 1.3],
  ])('turned by %s°, %s × %s', (turn, x, y) => {
    const { design, id } = made(turn);
    const page = design.pages[0];
    const frame = {
      box: localBox(design, design.nodes[id], engines.fonts),
      matrix: pageMatrix(design, page, id),
      single: id,
    };
    const after = tryOut(design, sizeExactly(design, page, [id], frame, { x, y }, engines.fonts));
    const now = localBox(after, after.nodes[id], engines.fonts);
    expect(width(now)).toBeCloseTo(width(frame.box) * x, 5);
    expect(height(now)).toBeCloseTo(height(frame.box) * y, 5);
    // Its top left stays where it was.
    const corner = apply(frame.matrix, { x: frame.box.x0, y: frame.box.y0 });
    const moved = apply(pageMatrix(after, page, id), { x: now.x0, y: now.y0 });
    expect([moved.x, moved.y]).toEqual([expect.closeTo(corner.x, 5), expect.closeTo(corner.y, 5)]);
    // The plain factor alone would miss it by more than a hair.
    const plain = tryOut(design, (d) => scaleNodes(d, page, [id], sizingMap(frame, x, y)));
    expect(Math.abs(width(localBox(plain, plain.nodes[id], engines.fonts)) - width(now))).toBeGreaterThan(0.05);
  });
});
