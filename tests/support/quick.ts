import { ImageData, Path2D as TestPath2D, createCanvas } from '@napi-rs/canvas';
import type { Palette } from '@/core/colour/palette';
import type { Bitmap } from '@/core/render/bitmap';
import { BITMAPS } from '@/core/render/bitmaps';
import { pictureBitmap } from '@/core/render/pictureBitmap';
import { QuickPainter } from '@/core/render/quick';
import type { Canvas2D } from '@/core/render/quickTools';
import { trimRect, type Scene } from '@/core/scene/scene';

const newImage = ({ width, height, data }: Bitmap) => {
  const image = createCanvas(width, height);
  image.getContext('2d').putImageData(new ImageData(data, width, height), 0, 0);
  return image as unknown as CanvasImageSource;
};

/** A scene as the quick painter draws it: RGBA on bare stock, `scale` pixels a point. */
export function quick(scene: Scene, palette: Palette, scale: number): Uint8ClampedArray {
  const canvas = createCanvas(Math.round(scene.width * scale), Math.round(scene.height * scale));
  const ctx = canvas.getContext('2d');
  ctx.fillStyle = palette.screen
    ? '#fff'
    : `rgb(${palette
        .lookOfMix(palette.channels.map(() => 0))
        .map((v) => Math.round(v * 255))
        .join()})`;
  ctx.fillRect(0, 0, canvas.width, canvas.height);
  const painter = new QuickPainter({
    bitmaps: () => BITMAPS,
    newPath: () => new TestPath2D() as unknown as Path2D,
    newImage,
    newCanvas(width, height) {
      const image = createCanvas(width, height);
      return { ctx: image.getContext('2d') as unknown as Canvas2D, image: image as unknown as CanvasImageSource };
    },
    picture(paint, p) {
      const look = pictureBitmap(p.pictureSource(paint.picture)!, paint.tone, p, 1e6);
      return { image: newImage(look), width: look.width, height: look.height };
    },
  });
  painter.paint(ctx as unknown as Canvas2D, scene.root.content, palette, { scale, x: 0, y: 0 }, trimRect(scene));
  return ctx.getImageData(0, 0, canvas.width, canvas.height).data;
}

/** Mean difference of colour channels, 0…255. */
export function meanDifference(a: ArrayLike<number>, b: ArrayLike<number>, stepA = 4, stepB = 4): number {
  let sum = 0;
  const pixels = a.length / stepA;
  for (let i = 0; i < pixels; i++) for (let c = 0; c < 3; c++) sum += Math.abs(a[i * stepA + c] - b[i * stepB + c]);
  return sum / pixels / 3;
}
