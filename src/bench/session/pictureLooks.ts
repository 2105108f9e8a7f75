import type { Palette } from '@/core/colour/palette';
import type { Design, PicturePaint } from '@/core/model/schema';
import type { Bitmap } from '@/core/render/bitmap';
import type { QuickPicture } from '@/core/render/quick';
import type { LookRequest } from '@/workers/pictureApi';

/** Pixels that a picture is shown with while something moves; the plates show all it has. */
const SHOWN_PIXELS = 700_000;
/** Looks that are kept, over all pictures. */
const MOST_KEPT = 24;

interface Known {
  readonly file: string;
  readonly picture: QuickPicture | null;
}

/**
 * How pictures look, for drawing that cannot wait: what is known is given at once, what is not is asked of the worker, the
 * newest wish of each picture only. Until it comes, the picture's last look stands in for it.
 */
export class PictureLooks {
  private readonly known = new Map<string, Known>();
  private readonly wanted = new Map<string, { key: string; request: LookRequest }>();
  private readonly busy = new Set<string>();

  constructor(
    private readonly ask: (request: LookRequest) => Promise<Bitmap | null>,
    private readonly design: () => Design,
    private readonly come: () => void,
    private readonly newImage: (b: Bitmap) => unknown = canvasOf,
  ) {}

  get(paint: PicturePaint, palette: Palette): QuickPicture | null {
    const { file } = palette.picture(paint.picture);
    const inks = paint.tone?.inks?.map((i) => palette.mix(i.colour).join(' ')) ?? [];
    const key = JSON.stringify([file, paint.tone ?? null, palette.id, inks]);
    const found = this.known.get(key);
    if (found) {
      // Used last, thrown away last.
      this.known.delete(key);
      this.known.set(key, found);
      return found.picture;
    }
    const { swatches, inks: own, profile, setup } = this.design();
    this.wanted.set(file, { key, request: { file, tone: paint.tone, pixels: SHOWN_PIXELS, colours: { swatches, inks: own, profile, setup } } });
    void this.fetch(file);
    return [...this.known.values()].findLast((k) => k.file === file)?.picture ?? null;
  }

  private async fetch(file: string): Promise<void> {
    if (this.busy.has(file)) return;
    this.busy.add(file);
    for (let next = this.wanted.get(file); next; next = this.wanted.get(file)) {
      this.wanted.delete(file);
      const look = await this.ask(next.request);
      this.known.set(next.key, { file, picture: look && { image: this.newImage(look), width: look.width, height: look.height } });
      for (const oldest of this.known.keys()) {
        if (this.known.size <= MOST_KEPT) break;
        this.known.delete(oldest);
      }
      this.come();
    }
    this.busy.delete(file);
  }

  /** A file has come that was not there: what is known of it is not true any more. */
  forget(file: string): void {
    for (const [key, k] of this.known) if (k.file === file) this.known.delete(key);
  }
}

function canvasOf({ width, height, data }: Bitmap): unknown {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.putImageData(new ImageData(data, width, height), 0, 0);
  return canvas;
}
