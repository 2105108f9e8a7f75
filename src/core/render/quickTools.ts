// What the quick painter makes its parts with: paths, canvases, pictures.
import type { Palette } from '../colour/palette';
import type { PicturePaint } from '../model/schema';
import type { Bitmap } from './bitmap';
import type { Bitmaps } from './bitmaps';

/** What a 2D canvas must be able to do; the page, its workers and the test canvas all can. */
export type Canvas2D = Pick<
  CanvasRenderingContext2D,
  | keyof CanvasDrawPath
  | keyof CanvasPath
  | keyof CanvasImageData
  | keyof CanvasPathDrawingStyles
  | keyof CanvasCompositing
  | keyof CanvasShadowStyles
  | keyof CanvasFillStrokeStyles
  | 'save'
  | 'restore'
  | 'setTransform'
  | 'transform'
  | 'fillRect'
  | 'clearRect'
  | 'drawImage'
  | 'imageSmoothingEnabled'
>;

/** What a painter makes its parts with; a page, a worker and a test have each their own. */
export interface QuickTools {
  newPath(): Path2D;
  newImage(b: Bitmap): CanvasImageSource;
  newCanvas(width: number, height: number): { readonly ctx: Canvas2D; readonly image: CanvasImageSource };
  /** A picture with its tone as it looks; null while it is not at hand. */
  picture(paint: PicturePaint, palette: Palette): QuickPicture | null;
  /** What makes pictures of paints that a canvas does not know; null while it is not at hand: then they are flat. */
  bitmaps(): Bitmaps | null;
}
export interface QuickPicture {
  readonly image: CanvasImageSource;
  readonly width: number;
  readonly height: number;
}

const canvasOf = ({ width, height, data }: Bitmap): CanvasImageSource => {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.putImageData(new ImageData(data, width, height), 0, 0);
  return canvas;
};

/** As a page and its workers make them. */
export const IN_BROWSER: QuickTools = {
  newPath: () => new Path2D(),
  newImage: canvasOf,
  newCanvas(width, height) {
    const image = new OffscreenCanvas(width, height);
    return { ctx: image.getContext('2d')!, image };
  },
  picture: () => null,
  bitmaps: () => null,
};
