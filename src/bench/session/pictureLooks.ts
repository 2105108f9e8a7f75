import type { Palette } from '@/core/colour/palette';
import type { Design, PicturePaint } from '@/core/model/schema';
import type { Bitmap } from '@/core/render/bitmap';
import type { QuickPicture } from '@/core/render/quickTools';
import type { LookRequest } from '@/workers/pictureApi';

/** Pixels that a picture is shown with while something moves; the plates show all it has. */
const SHOWN_PIXELS = 700_000;
/**
 * The pictures of a design are shown with so many together, a few screens full: where there are many, each with fewer.
 */
const KEPT_PIXELS = 6 * SHOWN_PIXELS;
/** However many there are. */
const LEAST_PIXELS = 10_000;
/** So many are made at a time, by the worker and by the browser itself: each is opened whole for it. */
const AT_A_TIME = 2;

/** A slider that rests so long has arrived: what it shows is worked out in full. */
const REST_MS = 200;

/** A picture that could not be had is asked for again after so long, each time later. */
const AGAIN_MS = [1000, 2000, 5000, 15_000, 30_000];

interface Wish {
  readonly key: string;
  readonly request: Omit<LookRequest, 'coarse'>;
}

interface Known {
  readonly file: string;
  readonly picture: QuickPicture;
  readonly coarse: boolean;
}

/**
 * How pictures look, for drawing that cannot wait: what is known is given at once, what is not is asked of the worker,
 * the newest wish of each picture only. Until it comes, the picture's last look stands in for it. A picture that is
 * seen already gets its new look coarse and at once; in full when no newer wish follows. One that was never seen stands
 * there as the browser opens it, until its true look comes: what was placed is seen, however busy the workers are.
 */
export class PictureLooks {
  private readonly known = new Map<string, Known>();
  private readonly wanted = new Map<string, Wish>();
  /** By file: the look that is being made. */
  private readonly making = new Map<string, string>();
  private readonly waking = new Map<string, () => void>();
  /** By file, as the browser opens it; null while it does, or where it cannot. */
  private readonly rough = new Map<string, QuickPicture | null>();
  /** By file: those that could not be had, how often by now, and what waits to ask again. */
  private readonly lacking = new Map<string, { tries: number; timer: ReturnType<typeof setTimeout> | null }>();

  constructor(
    private readonly ask: (request: LookRequest) => Promise<Bitmap | null>,
    private readonly design: () => Design,
    private readonly come: () => void,
    /** The picture as the browser opens it by itself, with so many pixels; null where it cannot. */
    private readonly roughly: (
      file: string,
      size: { readonly width: number; readonly height: number },
      pixels: number,
    ) => Promise<QuickPicture | null> = async () => null,
    private readonly newImage: (b: Bitmap) => CanvasImageSource = canvasOf,
    private readonly restMs = REST_MS,
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
    }
    const standIn = () =>
      found?.picture ?? this.last(file) ?? (paint.tone ? null : this.firstSight(file, palette.picture(paint.picture)));
    if (found?.coarse === false || this.making.get(file) === key) return standIn();
    const { swatches, inks: own, profile, setup } = this.design();
    this.wanted.set(file, {
      key,
      request: { file, tone: paint.tone, pixels: this.pixels(), colours: { swatches, inks: own, profile, setup } },
    });
    this.waking.get(file)?.();
    // A file that was not to be had is not asked for at every frame.
    if (!this.lacking.get(file)?.timer) void this.fetch(file);
    return standIn();
  }

  /** How large a look is asked for. */
  private pixels(): number {
    const many = this.design().pictures?.length ?? 1;
    return Math.max(LEAST_PIXELS, Math.min(SHOWN_PIXELS, Math.floor(KEPT_PIXELS / Math.max(1, many))));
  }

  private roughMaking = 0;
  private roughWaiting = false;
  private firstSight(file: string, size: { readonly width: number; readonly height: number }): QuickPicture | null {
    const known = this.rough.get(file);
    if (known !== undefined) return known;
    // When one of them has come, what is still not seen asks again.
    if (this.roughMaking >= AT_A_TIME) {
      this.roughWaiting = true;
      return null;
    }
    this.rough.set(file, null);
    this.roughMaking++;
    void this.roughly(file, size, this.pixels())
      .then((picture) => {
        if (!picture) return;
        if (this.last(file)) return letGo(picture);
        this.rough.set(file, picture);
      })
      .catch(() => {}) // the true look says what is wrong
      .finally(() => {
        this.roughMaking--;
        if (!this.roughWaiting && !this.rough.get(file)) return;
        this.roughWaiting = false;
        this.come();
      });
    return null;
  }

  private forgetRough(file: string): void {
    const rough = this.rough.get(file);
    if (rough) letGo(rough);
    this.rough.delete(file);
  }

  private last(file: string): QuickPicture | null {
    return [...this.known.values()].findLast((k) => k.file === file)?.picture ?? null;
  }

  private async fetch(file: string): Promise<void> {
    if (this.making.has(file)) return;
    let now: Wish | undefined;
    try {
      for (let next = this.wanted.get(file); next; next = this.wanted.get(file)) {
        now = next;
        const { key, request } = next;
        this.wanted.delete(file);
        this.making.set(file, key);
        if (this.last(file)) {
          if (!this.known.has(key)) this.keep(file, key, true, await this.inTurn({ ...request, coarse: true }));
          await this.rest(file);
          if (this.wanted.has(file)) continue;
        }
        const look = await this.inTurn({ ...request, coarse: false });
        if (look) {
          this.lacking.delete(file);
          this.keep(file, key, false, look);
        } else this.askLater(file, next);
      }
    } catch {
      // The worker was ended or took too long: what was wished for is still wished for.
      if (now) this.askLater(file, now);
    } finally {
      this.making.delete(file);
    }
  }

  private asked = 0;
  private readonly queue: (() => void)[] = [];
  /** Asks the worker when it is not busy with others. */
  private async inTurn(request: LookRequest): Promise<Bitmap | null> {
    // Whoever is done hands its place on.
    if (this.asked >= AT_A_TIME) await new Promise<void>((go) => this.queue.push(go));
    else this.asked++;
    try {
      return await this.ask(request);
    } finally {
      const next = this.queue.shift();
      if (next) next();
      else this.asked--;
    }
  }

  private askLater(file: string, wish: Wish): void {
    const tries = this.lacking.get(file)?.tries ?? 0;
    this.wanted.set(file, this.wanted.get(file) ?? wish);
    const timer = setTimeout(
      () => {
        const entry = this.lacking.get(file);
        if (entry) entry.timer = null;
        void this.fetch(file);
      },
      AGAIN_MS[Math.min(tries, AGAIN_MS.length - 1)],
    );
    this.lacking.set(file, { tries: tries + 1, timer });
  }

  /** Waits for a newer wish, but not for long. */
  private async rest(file: string): Promise<void> {
    if (this.wanted.has(file)) return;
    await new Promise<void>((resolve) => {
      const timer = setTimeout(resolve, this.restMs);
      this.waking.set(file, () => {
        clearTimeout(timer);
        resolve();
      });
    });
    this.waking.delete(file);
  }

  private keep(file: string, key: string, coarse: boolean, look: Bitmap | null): void {
    if (!look) return;
    this.forgetRough(file);
    this.known.delete(key);
    this.known.set(key, {
      file,
      coarse,
      picture: { image: this.newImage(look), width: look.width, height: look.height },
    });
    // A level of a picture has up to four times the pixels that were asked for.
    const most = Math.max(4 * KEPT_PIXELS, 4 * this.pixels() * (this.design().pictures?.length ?? 0));
    let pixels = 0;
    for (const { picture } of this.known.values()) pixels += picture.width * picture.height;
    for (const [oldest, { picture }] of this.known) {
      if (pixels <= most || this.known.size === 1) break;
      pixels -= picture.width * picture.height;
      this.known.delete(oldest);
    }
    this.come();
  }

  dispose(): void {
    for (const { timer } of this.lacking.values()) if (timer) clearTimeout(timer);
  }

  /** A file has come that was not there: what is known of it is not true any more. */
  forget(file: string): void {
    const waiting = this.lacking.get(file)?.timer;
    if (waiting) clearTimeout(waiting);
    this.lacking.delete(file);
    this.forgetRough(file);
    for (const [key, k] of this.known) if (k.file === file) this.known.delete(key);
  }
}

/** A bitmap of the browser's is let go of at once, not when it is next tidied up. */
function letGo({ image }: QuickPicture): void {
  if (typeof ImageBitmap !== 'undefined' && image instanceof ImageBitmap) image.close();
}

function canvasOf({ width, height, data }: Bitmap): CanvasImageSource {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.putImageData(new ImageData(data, width, height), 0, 0);
  return canvas;
}
