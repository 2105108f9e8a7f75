import { FULL } from '../support/measured';
import { halve, PictureSource, PixelRoom, type Pixels } from '@/core/pictures/source';

/** A picture of noise, grey, so large that its first two levels are held in the room. */
function noise(seed: number, width = 1300, height = 1001): Pixels {
  const data = new Uint8Array(width * height);
  for (let i = 0, v = seed; i < data.length; i++) data[i] = (v = (Math.imul(v, 1664525) + 1013904223) >>> 0) >>> 24;
  return { width, height, space: 'gray', data, alpha: null, icc: null, ppi: null };
}
const MB = 1024 * 1024;

/** So many pictures in one room, and how often each was opened again. */
function pictures(count: number, room: PixelRoom) {
  const opened = Array<number>(count).fill(0);
  const sources = opened.map(
    (_, i) =>
      new PictureSource(
        noise(i + 1),
        () => {
          opened[i]++;
          return noise(i + 1);
        },
        room,
      ),
  );
  return { opened, sources };
}

const levels = (first: Pixels, n: number): Pixels => (n ? levels(halve(first), n - 1) : first);

test('whatever is let go of, every level is what it was, to the byte', () => {
  const { sources } = pictures(6, new PixelRoom(2 * MB));
  let seed = 3;
  const next = (n: number) => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) % n;
  for (let round = 0; round < (FULL ? 60 : 24); round++) {
    const [i, n] = [next(6), next(5)];
    const got = sources[i].level(n);
    const right = levels(noise(i + 1), n);
    expect([got.width, got.height]).toEqual([right.width, right.height]);
    expect(Buffer.from(got.data).equals(Buffer.from(right.data))).toBe(true);
  }
});

test('pictures that are seen from afar are opened once, however many they are', () => {
  const { sources, opened } = pictures(12, new PixelRoom(2 * MB));
  for (let round = 0; round < 3; round++) for (const s of sources) expect(s.level(3).width).toBe(162);
  expect(opened.reduce((a, b) => a + b)).toBeLessThanOrEqual(12);
  const before = opened.slice();
  for (const s of sources) s.level(3);
  expect(opened).toEqual(before);
  // Seen whole, one that was let go of is opened again.
  void sources[0].full;
  expect(opened[0]).toBe(before[0] + 1);
});

test('what alone is more than there is room for is kept while it is used', () => {
  const { sources, opened } = pictures(2, new PixelRoom(1000));
  for (let i = 0; i < 5; i++) expect(sources[0].full.width).toBe(1300);
  const after = opened[0];
  for (let i = 0; i < 5; i++) void sources[0].full;
  expect(opened[0]).toBe(after);
});

test('a picture that is gone leaves its room to others', () => {
  const { sources, opened } = pictures(3, new PixelRoom(2.6 * MB));
  for (const s of sources) void s.full;
  void sources[2].full;
  sources[1].close();
  void sources[0].full;
  const before = opened[2];
  void sources[2].full;
  expect(opened[2]).toBe(before);
});

test('what cannot be opened again is kept, room or no room', () => {
  const room = new PixelRoom(1000);
  const kept = new PictureSource(noise(9), null, room);
  const { sources } = pictures(2, room);
  for (const s of sources) void s.full;
  expect(kept.full.data.length).toBe(1300 * 1001);
});
