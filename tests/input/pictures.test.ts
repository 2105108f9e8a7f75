import { createCanvas } from '@napi-rs/canvas';
import { encode } from 'fast-png';
import { GifWriter } from 'omggif';
import { readFileSync } from 'node:fs';
import { jpegFacts } from '@/core/input/picture/jpeg';
import { isAvif, pictureFormat, readPicture } from '@/core/input/picture/read';
import { PictureProblem } from '@/core/input/picture/types';
import { turned } from '@/core/input/picture/turn';
import type { Pixels } from '@/core/pictures/source';
import { nodeEnv } from '@/env/node';
import { drawnBy, withoutProfile } from '../support/pictures';
import fc from '../support/seeded';
import { publicFolder } from '../support/engines';

const env = nodeEnv(publicFolder);
const read = (bytes: Uint8Array) => readPicture(bytes, env);
const at = (p: Pixels, x: number, y: number) => [
  ...p.data.subarray(
    (y * p.width + x) * (p.data.length / p.width / p.height),
    (y * p.width + x + 1) * (p.data.length / p.width / p.height),
  ),
];
const refusal = (bytes: Uint8Array) =>
  read(bytes).then(
    () => 'opened',
    (e: unknown) => (e instanceof PictureProblem ? e.message : `threw ${String(e)}`),
  );

// Outside: files by Ghostscript's encoders, by the canvas, and by libraries' own writers.
describe('pictures of every kind come out as they were written', () => {
  const data = Uint8Array.from({ length: 5 * 3 * 4 }, (_, i) => (i * 37) % 256);
  test.each([1, 2, 4, 8, 16] as const)('grey PNG of %d bits', async (depth) => {
    const max = 2 ** depth - 1;
    const samples =
      depth === 16
        ? Uint16Array.from({ length: 15 }, (_, i) => i * 4369)
        : Uint8Array.from({ length: 15 }, (_, i) => i % (max + 1));
    // Under eight bits a row's samples are packed.
    const packed =
      depth >= 8
        ? samples
        : Uint8Array.from({ length: 3 * Math.ceil((5 * depth) / 8) }, (_, i) => {
            const [row, byte] = [Math.floor(i / Math.ceil((5 * depth) / 8)), i % Math.ceil((5 * depth) / 8)];
            let v = 0;
            for (let k = 0; k < 8 / depth; k++)
              v =
                (v << depth) |
                (samples[row * 5 + byte * (8 / depth) + k] && byte * (8 / depth) + k < 5
                  ? samples[row * 5 + byte * (8 / depth) + k]
                  : 0);
            return v;
          });
    const p = await read(encode({ width: 5, height: 3, data: packed, channels: 1, depth }));
    expect(p).toMatchObject({ width: 5, height: 3, space: 'gray', alpha: null });
    expect([...p.data]).toEqual([...samples].map((v) => Math.floor((v * 255) / max + 0.5)));
  });

  test('PNG with alpha, eight and sixteen bits', async () => {
    const p = await read(encode({ width: 5, height: 3, data, channels: 4, depth: 8 }));
    expect(at(p, 2, 1)).toEqual([...data.slice(28, 31)]);
    expect(p.alpha![7]).toBe(data[31]);
    const deep = await read(
      encode({ width: 5, height: 3, data: Uint16Array.from(data, (v) => v * 257), channels: 4, depth: 16 }),
    );
    expect([...deep.data]).toEqual([...p.data]);
    const greyAlpha = await read(encode({ width: 5, height: 3, data: data.slice(0, 30), channels: 2, depth: 8 }));
    expect(greyAlpha.space).toBe('gray');
    expect(greyAlpha.alpha![3]).toBe(data[7]);
  });

  test('WebP as the canvas writes it, with alpha', async () => {
    const canvas = createCanvas(40, 20);
    const ctx = canvas.getContext('2d');
    ctx.fillStyle = '#c83214';
    ctx.fillRect(0, 0, 20, 20);
    const p = await read(new Uint8Array(canvas.toBuffer('image/webp', 100)));
    expect(p).toMatchObject({ width: 40, height: 20, space: 'rgb' });
    expect(at(p, 8, 10).every((v, i) => Math.abs(v - [200, 50, 20][i]) < 12)).toBe(true);
    expect([p.alpha![10 * 40 + 8], p.alpha![10 * 40 + 32]]).toEqual([255, 0]);
  });

  test('GIF: the first of its pictures, clear where it says so', async () => {
    const bytes = new Uint8Array(4000);
    const gif = new GifWriter(bytes as unknown as Buffer, 4, 2, {
      palette: [0xff0000, 0x00ff00, 0x0000ff, 0x000000],
      loop: 0,
    });
    gif.addFrame(0, 0, 4, 2, [0, 1, 2, 3, 3, 2, 1, 0], { transparent: 3 });
    gif.addFrame(0, 0, 4, 2, [1, 1, 1, 1, 1, 1, 1, 1], {});
    const p = await read(bytes.slice(0, gif.end()));
    expect([at(p, 0, 0), at(p, 1, 0), at(p, 2, 0)]).toEqual([
      [255, 0, 0],
      [0, 255, 0],
      [0, 0, 255],
    ]);
    expect([...p.alpha!]).toEqual([255, 255, 255, 0, 0, 255, 255, 255]);
  });

  test.each([
    ['jpeggray', 'rgb', 'gray', []],
    ['jpeg', 'rgb', 'rgb', []],
    ['jpegcmyk', 'cmyk', 'cmyk', []],
    ['tiffgray', 'rgb', 'gray', []],
    ['tiff24nc', 'rgb', 'rgb', []],
    ['tiff24nc', 'rgb', 'rgb', ['-sCompression=pack']],
    ['tiff32nc', 'cmyk', 'cmyk', ['-sCompression=lzw']],
    ['tiff48nc', 'rgb', 'rgb', []],
  ] as const)('%s of %s', async (device, space, expected, options) => {
    const p = await read(drawnBy(device, { space, options }));
    expect(p).toMatchObject({ width: 120, height: 80, space: expected });
    // The disc of the scene, in its middle (page y runs up).
    const disc =
      expected === 'cmyk'
        ? [0, 204, 102, 0]
        : expected === 'rgb'
          ? [230, 77, 102]
          : [0.3 * 230 + 0.59 * 77 + 0.11 * 102];
    expect(at(p, 40, 40).every((v, i) => Math.abs(v - disc[i]) <= (expected === 'gray' ? 16 : 4))).toBe(true);
  });

  test('a profile inside is found, whole or in parts', async () => {
    const bytes = drawnBy('jpegcmyk', { space: 'cmyk' });
    expect((await read(bytes)).icc!.length).toBeGreaterThan(100_000); // three APP2 segments
    expect((await read(withoutProfile(bytes))).icc).toBeNull();
  });

  test('Exif turns a JPEG, and its resolution counts', async () => {
    const jpeg = drawnBy('jpeg');
    for (const [orientation, w, corner] of [
      [1, 120, [0, 0]],
      [3, 120, [119, 79]],
      [6, 80, [79, 0]],
      [8, 80, [0, 119]],
    ] as const) {
      const p = await read(withExif(jpeg, orientation));
      expect(p.width).toBe(w);
      expect(p.ppi).toBe(240);
      // What was at the top left is where the turn takes it.
      const plain = await read(jpeg);
      expect(at(p, corner[0], corner[1])).toEqual(at(plain, 0, 0));
    }
    expect(jpegFacts(withExif(jpeg, 6))!.orientation).toBe(6);
  });

  test('eight orientations undo each other in pairs', () => {
    const p: Pixels = {
      width: 3,
      height: 2,
      space: 'gray',
      data: Uint8Array.from([1, 2, 3, 4, 5, 6]),
      alpha: null,
      icc: null,
      ppi: null,
    };
    for (const [there, back] of [
      [1, 1],
      [2, 2],
      [3, 3],
      [4, 4],
      [5, 5],
      [6, 8],
      [7, 7],
      [8, 6],
    ])
      expect([...turned(turned(p, there), back).data]).toEqual([1, 2, 3, 4, 5, 6]);
    expect([...turned(p, 6).data]).toEqual([4, 1, 5, 2, 6, 3]);
  });
});

/** The JPEG with an Exif block that says how it is turned, at 240 dots an inch. */
function withExif(jpeg: Uint8Array, orientation: number): Uint8Array {
  const tiff = Buffer.alloc(8 + 2 + 3 * 12 + 4 + 8);
  tiff.write('II*\0', 0, 'latin1');
  tiff.writeUInt32LE(8, 4);
  tiff.writeUInt16LE(3, 8);
  const entry = (i: number, tag: number, type: number, value: number) => {
    tiff.writeUInt16LE(tag, 10 + 12 * i);
    tiff.writeUInt16LE(type, 12 + 12 * i);
    tiff.writeUInt32LE(1, 14 + 12 * i);
    tiff.writeUInt32LE(value, 18 + 12 * i);
  };
  entry(0, 274, 3, orientation);
  entry(1, 282, 5, 50);
  entry(2, 296, 3, 2);
  tiff.writeUInt32LE(240, 50);
  tiff.writeUInt32LE(1, 54);
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), tiff]);
  return Uint8Array.from(
    Buffer.concat([
      jpeg.subarray(0, 2),
      Buffer.from([0xff, 0xe1, (body.length + 2) >> 8, (body.length + 2) & 255]),
      body,
      jpeg.subarray(2),
    ]),
  );
}

describe('what cannot be placed says why', () => {
  const png = encode({ width: 4, height: 4, data: new Uint8Array(48), channels: 3, depth: 8 });
  const sized = (w: number, h: number) => {
    const b = png.slice();
    new DataView(b.buffer).setUint32(16, w);
    new DataView(b.buffer).setUint32(20, h);
    return b;
  };
  test.each([
    ['a text', Buffer.from('no picture at all, only words about one'), /no picture of a kind that is read/],
    ['nothing', new Uint8Array(0), /no picture of a kind/],
    ['half a PNG', png.slice(0, 40), /damaged/],
    [
      'a billion pixels a side',
      sized(1_000_000_000, 1_000_000_000),
      /1000000000 × 1000000000 pixels; 120 million are the most/,
    ],
    ['no pixels', sized(0, 4), /its size cannot be read/],
    ['a JPEG of no frame', Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, 0, 4, 0, 0, 0xff, 0xd9, 0, 0]), /damaged/],
    ['a WebP of nothing', Buffer.from('RIFF\x10\0\0\0WEBPVP8 \0\0\0\0', 'latin1'), /damaged/],
    ['a TIFF of nothing', Uint8Array.from([0x49, 0x49, 42, 0, 8, 0, 0, 0, 0, 0, 0, 0, 0, 0]), /damaged/],
  ])('%s', async (_, bytes, why) => expect(await refusal(Uint8Array.from(bytes))).toMatch(why));

  test('AVIF is known by its first bytes, for the browser to open', () => {
    expect(isAvif(Buffer.from('\0\0\0\x1cftypavif\0\0\0\0', 'latin1'))).toBe(true);
    expect(isAvif(png)).toBe(false);
    expect(pictureFormat(readFileSync('public/pictures/harbour-dusk.jpg'))!.name).toBe('JPEG');
  });
});

// Mutated files: flipped bits, cut ends, numbers at their extremes. 2,000 a reader in the full run.
describe('damaged files end in a picture or a sentence', () => {
  const canvas = createCanvas(24, 16);
  canvas.getContext('2d').fillRect(2, 2, 12, 9);
  const gif = new Uint8Array(2000);
  const writer = new GifWriter(gif as unknown as Buffer, 8, 8, { palette: [0, 0xffffff] });
  writer.addFrame(
    0,
    0,
    8,
    8,
    Array.from({ length: 64 }, (_, i) => i % 2),
    {},
  );
  const samples: [string, () => Uint8Array][] = [
    [
      'PNG',
      () =>
        encode({
          width: 24,
          height: 16,
          data: Uint8Array.from({ length: 24 * 16 * 4 }, (_, i) => i),
          channels: 4,
          depth: 8,
        }),
    ],
    ['JPEG', () => withExif(withoutProfile(drawnBy('jpeg')), 6)],
    ['CMYK JPEG', () => withoutProfile(drawnBy('jpegcmyk', { space: 'cmyk' }))],
    ['WebP', () => new Uint8Array(canvas.toBuffer('image/webp', 60))],
    ['GIF', () => gif.slice(0, writer.end())],
    ['TIFF', () => drawnBy('tiff32nc', { space: 'cmyk', options: ['-sCompression=lzw'] })],
  ];
  const runs = process.env.HOLVET_FULL ? 2000 : 40;
  test.each(samples)(
    '%s',
    async (_, make) => {
      const whole = make();
      const slow: string[] = [];
      await fc.assert(
        fc.asyncProperty(
          fc.array(
            fc.tuple(fc.nat({ max: Math.min(whole.length, 4000) - 1 }), fc.constantFrom(0, 1, 0x7f, 0x80, 0xff, 0x55)),
            { minLength: 1, maxLength: 6 },
          ),
          fc.option(fc.nat({ max: whole.length - 1 }), { freq: 3 }),
          async (flips, cut) => {
            const bytes = whole.slice();
            for (const [i, v] of flips) bytes[i] = v;
            const start = performance.now();
            expect(await refusal(cut === null ? bytes : bytes.slice(0, cut))).not.toMatch(/^threw/);
            if (performance.now() - start > 5000) slow.push(JSON.stringify([flips, cut]));
          },
        ),
        { numRuns: runs },
      );
      expect(slow).toEqual([]);
    },
    600_000,
  );
});
