import { multiply, invert, type Matrix } from '../geometry/matrix';
import { rectMatrix } from '../geometry/rect';
import type { Picture, PicturePaint, Setup } from '../model/schema';
import { fitted, naturalSize, tileGeometry, tileOf, type Fit, type Tile } from './picture';

/** Pictures on the ground of a page: a ground is painted in the unit square over the page with its bleed. */

const sheet = ({ width, height, bleed }: Setup) => ({ x0: -bleed, y0: -bleed, x1: width + bleed, y1: height + bleed });
/** From points of the page to the unit square of its ground, and back. */
const toGround = (s: Setup): Matrix => invert(rectMatrix(sheet(s)))!;
const onPage = (s: Setup, geometry: Matrix): Matrix => multiply(rectMatrix(sheet(s)), geometry);

/** A picture laid on the ground once, in its own proportions; `old` gives tone and overprint. */
export function groundPicture(p: Picture, setup: Setup, fit: Fit = 'fill', old?: PicturePaint): PicturePaint {
  return {
    kind: 'picture',
    picture: p.id,
    geometry: multiply(toGround(setup), fitted(p, sheet(setup), fit)),
    overprint: old?.overprint ?? false,
    ...(old?.tone && { tone: old.tone }),
  };
}

/** A picture side by side over all of the ground, from its corner, so large as it comes. */
export function groundTiles(p: Picture, setup: Setup, tile: 'repeat' | 'mirror', old?: PicturePaint): PicturePaint {
  const { width } = naturalSize(p);
  const { x0, y0 } = sheet(setup);
  const geometry = tileGeometry(p, { width, x: x0, y: y0, turn: 0 }, [1, 0, 0, 1, 0, 0]);
  return { ...groundPicture(p, setup, 'fill', old), tile, geometry: multiply(toGround(setup), geometry) };
}

/** A tile of the ground as it lies on the page. */
export const groundTile = (paint: PicturePaint, setup: Setup): Tile => tileOf(onPage(setup, paint.geometry));

/** The same with other measures. */
export function withGroundTile(p: Picture, paint: PicturePaint, setup: Setup, tile: Partial<Tile>): PicturePaint {
  const now = onPage(setup, paint.geometry);
  const next = tileGeometry(p, { ...tileOf(now), ...tile }, now);
  return { ...paint, geometry: multiply(toGround(setup), next) };
}
