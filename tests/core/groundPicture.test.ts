import { groundPicture, groundTile, groundTiles, withGroundTile } from '@/core/edit/groundPicture';
import { tryOut } from '@/core/edit/history';
import { setGround } from '@/core/edit/masters';
import { newDesign, setupOf } from '@/core/model/defaults';
import { verifyDesign } from '@/core/model/verify';
import { making } from '../support/sample';

const setup = setupOf(300, 200, { bleed: 10 });
const picture = {
  id: 'p',
  name: 'Harbour',
  file: 'harbour-dusk.jpg',
  width: 1800,
  height: 1200,
  space: 'rgb',
} as const;

test('a picture on the ground covers the page with its bleed, or lies inside it, in its own proportions', () => {
  // The sheet with its bleed is 320 × 220; the picture is 3 : 2, so it is 330 × 220 to cover it.
  const fill = groundPicture(picture, setup).geometry;
  expect(fill[0]).toBeCloseTo(330 / 320, 9);
  expect(fill[3]).toBeCloseTo(1, 9);
  expect(fill[4]).toBeCloseTo(-5 / 320, 9);
  const fit = groundPicture(picture, setup, 'fit').geometry;
  expect(fit[0]).toBeCloseTo(1, 9);
  expect(fit[3]).toBeCloseTo(320 / 1.5 / 220, 9);
});

test('tiles begin at the corner of the bleed and take any width, the picture’s proportions kept', () => {
  const tiles = groundTiles(picture, setup, 'repeat');
  expect(groundTile(tiles, setup)).toMatchObject({ x: -10, y: -10, turn: 0 });
  const small = withGroundTile(picture, tiles, setup, { width: 60, turn: 30 });
  const tile = groundTile(small, setup);
  expect(tile.width).toBeCloseTo(60, 9);
  expect(tile.turn).toBeCloseTo(30, 9);
  const d = tryOut(newDesign('Ground', setup, making), (x) => {
    x.pictures = [picture];
    setGround(x, x.pages[0].id, small);
  });
  expect(verifyDesign(d)).toMatchObject({ ok: true });
});
