import { multiply, translation, type Matrix } from '../../geometry/matrix';
import { isEmpty, rect, rectMatrix, type Rect } from '../../geometry/rect';
import type { NodeOf } from '../../model/schema';
import { nameOf, type Draws, type Place } from './context';
import { hrefOf } from './gradients';
import { shapeNodes } from './shapeParts';
import { SHAPES } from './shapes';
import { withStyle, type Style } from './style';
import { drawText } from './text';
import { localId, readLength, readTransform, type Measures } from './values';
import { type Element } from './xml';

/** What cuts objects: the clip and the mask of their element, as objects of the group they are put into. */
export const cutsOf = (drawer: Draws, style: Style, ids: readonly string[], place: Place): readonly string[] =>
  style['clip-path'] === 'none' && style.mask === 'none'
    ? []
    : [...clips(drawer, style, ids, place), ...masks(drawer, style, ids, place)];

function clips(drawer: Draws, style: Style, ids: readonly string[], place: Place): string[] {
  const { making } = drawer;
  const id = localId(style['clip-path'] === 'none' ? undefined : style['clip-path']);
  if (!id) {
    if (style['clip-path'] !== 'none')
      making.note('A clip that is no part of the file, or not of SVG 1.1, is left out.');
    return [];
  }
  const clip = making.byId.get(id);
  if (clip?.name !== 'clipPath' || drawer.using.includes(id)) return [];
  const made = clipNode(drawer, clip, id, ids, place);
  return made ? [made] : [];
}

/** A clip path as an object that cuts by its outline; one that is empty leaves nothing. */
function clipNode(drawer: Draws, clip: Element, id: string, ids: readonly string[], place: Place): string | null {
  const { making } = drawer;
  const base = making.styles.inPlace(clip);
  const onBox = clip.attributes.get('clipPathUnits') === 'objectBoundingBox';
  const box = onBox ? making.boxOf(ids) : null;
  if (box && (isEmpty(box) || box.x1 <= box.x0 || box.y1 <= box.y0)) return null;
  const transform = multiply(
    readTransform(clip.attributes.get('transform')) ?? [1, 0, 0, 1, 0, 0],
    box ? rectMatrix(box) : [1, 0, 0, 1, 0, 0],
  );
  const inner: Place = {
    style: base,
    measures: onBox ? { ...place.measures, width: 1, height: 1 } : place.measures,
    ctm: multiply(place.ctm, transform),
    depth: place.depth + 1,
  };
  drawer.using.push(id);
  const children: string[] = [];
  for (const e of clip.elements) {
    if (!SHAPES.has(e.name) && e.name !== 'text' && e.name !== 'use') continue;
    for (const child of making.asCopy(() => clipElement(drawer, e, inner))) children.push(child);
  }
  // A clip may itself be cut.
  const further = clips(drawer, base, children, inner);
  drawer.using.pop();
  const group = making.group(
    'Cut',
    transform,
    children.length
      ? [...children, ...further]
      : [
          making.add<NodeOf<'path'>>({
            name: 'Nothing',
            kind: 'path',
            transform: [1, 0, 0, 1, 0, 0],
            path: [],
            fillRule: 'nonZero',
            fills: [],
            outlines: [],
          }),
        ],
  );
  making.change(group, { maskMode: 'outline' });
  return group;
}

/** An element of a clip: its area alone counts, by the clip's own rule. */
function clipElement(drawer: Draws, e: Element, place: Place): string[] {
  const style = drawer.making.styles.of(e, place.style);
  if (style.visibility !== 'visible' || style.display === 'none') return [];
  const asArea = withStyle(style, {
    fill: 'black',
    'fill-opacity': '1',
    stroke: 'none',
    'fill-rule': style['clip-rule'],
    opacity: '1',
    'marker-start': 'none',
    'marker-mid': 'none',
    'marker-end': 'none',
  });
  const own = readTransform(style.transform || e.attributes.get('transform')) ?? ([1, 0, 0, 1, 0, 0] as Matrix);
  const inner: Place = { ...place, style: asArea, ctm: multiply(place.ctm, own), depth: place.depth + 1 };
  const name = nameOf(e, 'Cut');
  if (e.name === 'use') {
    const target = drawer.making.byId.get(localId(hrefOf(e)) ?? '');
    if (!target || (!SHAPES.has(target.name) && target.name !== 'text')) return [];
    const moved = multiply(
      own,
      translation(
        readLength(e.attributes.get('x'), place.measures, 'x') ?? 0,
        readLength(e.attributes.get('y'), place.measures, 'y') ?? 0,
      ),
    );
    const ids = clipElement(drawer, target, { ...place, style });
    return ids.length
      ? drawer.whole(
          e,
          withStyle(asArea, { 'clip-path': style['clip-path'], mask: 'none', filter: 'none' }),
          ids,
          moved,
          name,
          inner,
          true,
        )
      : [];
  }
  const ids = e.name === 'text' ? drawText(drawer, e, inner, name) : shapeNodes(drawer, e, inner, name);
  return drawer.whole(
    e,
    withStyle(asArea, { 'clip-path': style['clip-path'], mask: 'none', filter: 'none' }),
    ids,
    own,
    name,
    inner,
  );
}

function masks(drawer: Draws, style: Style, ids: readonly string[], place: Place): string[] {
  const { making } = drawer;
  const id = localId(style.mask === 'none' ? undefined : style.mask);
  const mask = id ? making.byId.get(id) : undefined;
  if (!id || mask?.name !== 'mask' || drawer.using.includes(id)) return [];
  const box = making.boxOf(ids);
  const onBox = mask.attributes.get('maskUnits') !== 'userSpaceOnUse';
  if (onBox && (isEmpty(box) || box.x1 <= box.x0 || box.y1 <= box.y0)) return [];
  const measures: Measures = onBox ? { ...place.measures, width: 1, height: 1 } : place.measures;
  const at = (name: string, along: 'x' | 'y', otherwise: string) =>
    readLength(mask.attributes.get(name) ?? otherwise, measures, along) ?? 0;
  const [x, y, w, h] = [
    at('x', 'x', '-10%'),
    at('y', 'y', '-10%'),
    at('width', 'x', '120%'),
    at('height', 'y', '120%'),
  ];
  const region: Rect = onBox
    ? rect(box.x0 + x * (box.x1 - box.x0), box.y0 + y * (box.y1 - box.y0), w * (box.x1 - box.x0), h * (box.y1 - box.y0))
    : rect(x, y, w, h);
  const contentOnBox = mask.attributes.get('maskContentUnits') === 'objectBoundingBox';
  const transform: Matrix = contentOnBox ? rectMatrix(box) : [1, 0, 0, 1, 0, 0];
  const base = making.styles.inPlace(mask);
  drawer.using.push(id);
  const content = making.asCopy(() =>
    drawer.children(mask, {
      style: base,
      measures: contentOnBox ? { ...place.measures, width: 1, height: 1 } : place.measures,
      ctm: multiply(place.ctm, transform),
      depth: place.depth + 1,
      ...(place.copies && { copies: place.copies }),
    }),
  );
  drawer.using.pop();
  const inner = making.group('Mask', transform, content);
  const group = making.group('Mask', [1, 0, 0, 1, 0, 0], [...(content.length ? [inner] : []), making.cutBox(region)]);
  making.change(group, { maskMode: base['mask-type'] === 'alpha' ? 'opacity' : 'light' });
  return [group];
}
