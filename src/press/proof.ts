import { createCanvas, DOMMatrix, ImageData, Path2D, type Canvas } from '@napi-rs/canvas';

/** Proofs are so many pixels on their longer side, and no more pages than that get one. */
const LONGEST = 900;
export const MOST_PROOFS = 12;

interface Drawn {
  canvas: Canvas | null;
  context: ReturnType<Canvas['getContext']> | null;
}
/** Canvases of the one package that pages are drawn by: the parser would bring another of its own. */
class CanvasFactory {
  create(width: number, height: number): Drawn {
    const canvas = createCanvas(Math.max(1, width), Math.max(1, height));
    return { canvas, context: canvas.getContext('2d') };
  }
  reset({ canvas }: Drawn, width: number, height: number): void {
    canvas!.width = Math.max(1, width);
    canvas!.height = Math.max(1, height);
  }
  destroy(drawn: Drawn): void {
    drawn.canvas = drawn.context = null;
  }
}

/** The pages of a PDF as pdf.js draws them, cut at the trim: PNGs, one after the other. */
export async function* proofsOf(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  Object.assign(globalThis, { DOMMatrix, ImageData, Path2D });
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const task = getDocument({
    data: bytes.slice(),
    CanvasFactory,
    isEvalSupported: false,
    // Of larger pictures the proof shows nothing.
    maxImageSize: 100_000_000,
    enableXfa: false,
    disableFontFace: true,
    useSystemFonts: false,
    stopAtErrors: false,
    verbosity: 0,
  });
  const doc = await task.promise;
  try {
    for (let n = 1; n <= Math.min(doc.numPages, MOST_PROOFS); n++) {
      const page = await doc.getPage(n);
      const [x0, y0, x1, y1] = page.view;
      const scale = Math.min(4, LONGEST / Math.max(1, x1 - x0, y1 - y0));
      const viewport = page.getViewport({ scale });
      const canvas = createCanvas(Math.max(1, Math.ceil(viewport.width)), Math.max(1, Math.ceil(viewport.height)));
      await page.render({
        canvas: canvas as unknown as HTMLCanvasElement,
        canvasContext: canvas.getContext('2d') as unknown as CanvasRenderingContext2D,
        viewport,
      }).promise;
      yield canvas.toBuffer('image/png');
      page.cleanup();
    }
  } finally {
    await task.destroy();
  }
}
