import { pathContains } from './contains';
import { pathBounds, type PathData } from './path';
import { contourArea, contoursOf, pathOfContours, type Contour, type Segment } from './segments';

/** A piece run the other way. */
export const reversedSegment = (s: Segment): Segment => ({
  x0: s.x3,
  y0: s.y3,
  x1: s.x2,
  y1: s.y2,
  x2: s.x1,
  y2: s.y1,
  x3: s.x0,
  y3: s.y0,
  straight: s.straight,
});

/** A contour run the other way. */
export const reversedContour = (c: Contour): Contour => ({ ...c, segments: c.segments.map(reversedSegment).reverse() });

/**
 * The contours of an area that do not cross each other, closed, so that its inside lies to the right of the way they
 * run: outer ones clockwise as seen, holes the other way.
 */
export function orientedContours(path: PathData): Contour[] {
  const contours = contoursOf(path).map((c) => ({ ...c, closed: true }));
  const known = contours.map((c) => {
    const own = pathOfContours([c]);
    return { own, box: pathBounds(own) };
  });
  return contours.map((c, i) => {
    const { x0: x, y0: y } = c.segments[0];
    const depth = known.filter(
      ({ own, box }, j) =>
        j !== i && x >= box.x0 && x <= box.x1 && y >= box.y0 && y <= box.y1 && pathContains(own, 'nonZero', { x, y }),
    ).length;
    const turned = contourArea(c.segments) > 0 !== (depth % 2 === 0);
    return turned ? reversedContour(c) : c;
  });
}
