import { apply, invert, multiply, scaling, translation, type Matrix } from '../../geometry/matrix';
import { pathBounds, type PathData } from '../../geometry/path';
import { corners, contains, fromPoints, rect, type Rect } from '../../geometry/rect';
import { MOST_COPIES, type NodeOf } from '../../model/schema';
import type { Draws, Making, Place } from './context';
import { hrefOf } from './gradients';
import { localId, readLength, readTransform } from './values';
import { readViewBox, viewMatrix } from './view';
import { type Element } from './xml';

const chainOf = (making: Making, e: Element): Element[] => {
  const chain: Element[] = [];
  for (
    let at: Element | undefined = e;
    at?.name === 'pattern' && !chain.includes(at) && chain.length < 50;
    at = making.byId.get(localId(hrefOf(at)) ?? '')
  )
    chain.push(at);
  return chain;
};

/** Is there anything to lay? A pattern without content or without a size is none: what stands in for it is used. */
export function isPattern(making: Making, e: Element, place: Place): boolean {
  const chain = chainOf(making, e);
  const positive = (a: string, along: 'x' | 'y') =>
    (readLength(
      chain.find((c) => c.attributes.has(a))?.attributes.get(a) ?? '0',
      { ...place.measures, width: 1, height: 1 },
      along,
    ) ?? 0) > 0;
  return chain.some((c) => c.elements.length > 0) && positive('width', 'x') && positive('height', 'y');
}

/**
 * An area filled with a pattern (SVG 1.1, 13.3): its tile as a step and repeat, cut by the area. `box` is that of the
 * element, which the pattern may be measured by; `area` what is filled.
 */
export function patternFill(
  drawer: Draws,
  e: Element,
  area: PathData,
  rule: 'nonZero' | 'evenOdd',
  box: Rect,
  place: Place,
  name: string,
): string[] {
  const { making } = drawer;
  const chain = chainOf(making, e);
  const attribute = (a: string) => chain.find((c) => c.attributes.has(a))?.attributes.get(a);
  const source = chain.find((c) => c.elements.length);
  if (!source || place.depth > 60) return [];
  const onBox = attribute('patternUnits') !== 'userSpaceOnUse';
  if (onBox && (!(box.x1 > box.x0) || !(box.y1 > box.y0))) return [];
  const m = onBox ? { ...place.measures, width: 1, height: 1 } : place.measures;
  const at = (a: string, along: 'x' | 'y') => readLength(attribute(a) ?? '0', m, along) ?? 0;
  const [bw, bh] = [box.x1 - box.x0, box.y1 - box.y0];
  const tile = onBox
    ? rect(box.x0 + at('x', 'x') * bw, box.y0 + at('y', 'y') * bh, at('width', 'x') * bw, at('height', 'y') * bh)
    : rect(at('x', 'x'), at('y', 'y'), at('width', 'x'), at('height', 'y'));
  const [w, h] = [tile.x1 - tile.x0, tile.y1 - tile.y0];
  const transform = readTransform(attribute('patternTransform'));
  const back = transform && invert(transform);
  if (!(w > 0) || !(h > 0) || !transform || !back) return [];
  // Which tiles the area needs, seen in the pattern's own space.
  const reached = pathBounds(area);
  const seen = fromPoints(corners(reached).map((p) => apply(back, p)));
  const [i0, j0] = [Math.floor((seen.x0 - tile.x0) / w), Math.floor((seen.y0 - tile.y0) / h)];
  let [columns, rows] = [
    Math.max(1, Math.ceil((seen.x1 - tile.x0) / w) - i0),
    Math.max(1, Math.ceil((seen.y1 - tile.y0) / h) - j0),
  ];
  if (!Number.isFinite(columns * rows)) return [];
  const most = Math.floor(MOST_COPIES / (place.copies ?? 1));
  if (columns * rows > most) {
    making.note(`A pattern of more than ${MOST_COPIES} tiles is kept in part.`);
    columns = Math.min(columns, most);
    rows = Math.max(1, Math.min(rows, Math.floor(most / columns)));
  }
  const view = readViewBox(attribute('viewBox'));
  const contentOnBox = attribute('patternContentUnits') === 'objectBoundingBox';
  // The content's space begins where the tile does.
  const content: Matrix = view
    ? viewMatrix(view, tile, attribute('preserveAspectRatio')).matrix
    : multiply(translation(tile.x0, tile.y0), contentOnBox ? scaling(bw, bh) : scaling(1, 1));
  const style = making.styles.inPlace(source);
  const children = making.asCopy(() =>
    drawer.children(source, {
      style,
      measures: {
        ...place.measures,
        ...(view && { width: view.width, height: view.height }),
        ...(contentOnBox && !view && { width: 1, height: 1 }),
      },
      ctm: multiply(place.ctm, multiply(transform, content)),
      depth: place.depth + 10,
      copies: (place.copies ?? 1) * columns * rows,
    }),
  );
  if (!children.length) return [];
  const one = making.group('Tile', content, children);
  const hangs = style.overflow !== 'visible' && !contains(tile, making.boxOf([one]));
  const shown = hangs ? making.group('Tile', [1, 0, 0, 1, 0, 0], [one, drawer.making.cutBox(tile)]) : one;
  const all = making.add<NodeOf<'repeat'>>({
    name: 'Tiles',
    kind: 'repeat',
    transform: multiply(transform, translation(i0 * w, j0 * h)),
    children: [shown],
    arrangement: {
      kind: 'grid',
      columns,
      rows,
      across: { x: w, y: 0 },
      down: { x: 0, y: h },
      about: { x: tile.x0, y: tile.y0 },
    },
  });
  const cut = drawer.pathNode('Cut', area, rule, [], []);
  making.change(cut, { maskMode: 'outline' });
  return [making.group(`${name}, pattern`, [1, 0, 0, 1, 0, 0], [all, cut])];
}
