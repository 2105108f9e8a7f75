// Runs in the browser: a full redraw by the quick painter against bare Canvas2D of the same paths.
import { Palette } from '../../src/core/colour/palette';
import type { Design } from '../../src/core/model/schema';
import { demoDesigns } from '../../src/demo/demos';
import { PictureSource } from '../../src/core/pictures/source';
import { pictureLook } from '../../src/core/render/pictureLook';
import { BITMAPS } from '../../src/core/render/bitmaps';
import { QuickPainter } from '../../src/core/render/quick';
import { draw } from '../../src/core/geometry/path';
import { bleedRect } from '../../src/core/scene/scene';
import { walk } from '../../src/core/scene/walk';
import { openEngines, prepare } from '../../src/core/engines';
import { browserEnv } from '../../src/env/browser';
import { crowd } from './crowd';

interface Sample {
  script: number[];
  frame: number[];
}

const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[list.length >> 1];
/** Gaps between frames are whole frames of the screen: their middle would jump from one to the next. */
const mean = (list: readonly number[]) => list.reduce((sum, v) => sum + v, 0) / list.length;

async function frames(rounds: number, paint: () => void): Promise<Sample> {
  const out: Sample = { script: [], frame: [] };
  for (let i = 0; i < rounds + 2; i++) {
    const start = await new Promise<number>((r) => requestAnimationFrame(r));
    const t = performance.now();
    paint();
    const script = performance.now() - t;
    const end = await new Promise<number>((r) => requestAnimationFrame(r));
    if (i >= 2) {
      out.script.push(script);
      out.frame.push(end - start);
    }
  }
  return out;
}

/** What is made once of a name and kept: setting it up takes longer than many a reading. */
function kept<K, T>(make: (of: K) => Promise<T>): (of: K) => Promise<T> {
  const known = new Map<K, Promise<T>>();
  return (of) => {
    const made = known.get(of) ?? make(of);
    known.set(of, made);
    return made;
  };
}

/** A design's first page drawn at a small size, its looks worked out anew each time, as after another recipe. */
async function recoloured(design: Design): Promise<{ canvas: HTMLCanvasElement; paint: () => void }> {
  const engines = await openEngines(browserEnv);
  await prepare(engines, design);
  const scene = engines.builder.build(design, design.pages[0]);
  const canvas = document.createElement('canvas');
  canvas.width = 724;
  canvas.height = 596;
  const ctx = canvas.getContext('2d', { alpha: false })!;
  const scale = 540 / scene.height;
  const painter = new QuickPainter({ bitmaps: () => BITMAPS });
  return {
    canvas,
    paint: () => {
      ctx.setTransform(1, 0, 0, 1, 0, 0);
      ctx.fillStyle = '#fff';
      ctx.fillRect(0, 0, canvas.width, canvas.height);
      painter.paint(
        ctx,
        scene.root.content,
        new Palette({ ...design, swatches: [...design.swatches] }, engines.room),
        { scale, x: 20, y: 20 },
        bleedRect(scene),
      );
    },
  };
}

const recolouredOf = kept((what: 'poster' | number) =>
  recoloured(what === 'poster' ? demoDesigns()[0].design : crowd(what)),
);

/** One full quick redraw of the poster, or of so many shapes. */
async function recolourBench(what: 'poster' | number): Promise<Sample> {
  const { canvas, paint } = await recolouredOf(what);
  document.body.append(canvas);
  const result = await frames(20, paint);
  canvas.remove();
  return result;
}

/** A crowd set up to be drawn. */
interface Stage {
  /** To be shown while it is drawn on. */
  readonly canvas: HTMLCanvasElement;
  readonly drawBare: () => void;
  readonly drawQuick: () => void;
}

async function stage(count: number): Promise<Stage> {
  const engines = await openEngines(browserEnv);
  const design = crowd(count);
  const palette = await prepare(engines, design);
  const scene = engines.builder.build(design, design.pages[0]);
  const canvas = document.createElement('canvas');
  canvas.width = 1280;
  canvas.height = 800;
  const ctx = canvas.getContext('2d', { alpha: false })!;
  const scale = 800 / scene.height;
  const bare: { path: Path2D; css: string }[] = [];
  walk(scene.root, (item) => {
    const path = new Path2D();
    draw(item.placed.path, {
      moveTo: (x, y) => path.moveTo(x, y),
      lineTo: (x, y) => path.lineTo(x, y),
      curveTo: (a, b, c, d, x, y) => path.bezierCurveTo(a, b, c, d, x, y),
      close: () => path.closePath(),
    });
    bare.push({ path, css: item.paint.kind === 'colour' ? palette.css(item.paint.colour) : '#000' });
  });
  const clear = () => {
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.fillStyle = '#fff';
    ctx.fillRect(0, 0, 1280, 800);
  };
  const painter = new QuickPainter({ bitmaps: () => BITMAPS });
  const drawBare = () => {
    clear();
    ctx.setTransform(scale, 0, 0, scale, 0, 0);
    for (const { path, css } of bare) {
      ctx.fillStyle = css;
      ctx.fill(path);
    }
  };
  const drawQuick = () => {
    clear();
    painter.paint(ctx, scene.root.content, palette, { scale, x: 0, y: 0 }, bleedRect(scene));
  };
  drawQuick();
  return { canvas, drawBare, drawQuick };
}

const stageOf = kept(stage);

/** Ours against bare Canvas2D, in so many turns. */
async function redrawBench(count: number, turns = 11): Promise<{ bare: Sample; quick: Sample }> {
  const { canvas, drawBare, drawQuick } = await stageOf(count);
  document.body.append(canvas);
  const rounds = count > 5000 ? 3 : 9;
  // In turns, there and back again: a machine that is now fast and now slow is so for both.
  const result = { bare: { script: [], frame: [] } as Sample, quick: { script: [], frame: [] } as Sample };
  for (let turn = 0; turn < turns; turn++) {
    const bare = await frames(rounds, drawBare);
    const quick = [await frames(rounds, drawQuick), await frames(rounds, drawQuick)];
    const again = await frames(rounds, drawBare);
    for (const [key, middle] of [
      ['script', median],
      ['frame', mean],
    ] as const) {
      result.bare[key].push((middle(bare[key]) + middle(again[key])) / 2);
      result.quick[key].push((middle(quick[0][key]) + middle(quick[1][key])) / 2);
    }
  }
  canvas.remove();
  return result;
}

/** The frame gap of one full redraw of a crowd, in ms. */
async function redrawFrame(count: number): Promise<number> {
  const { canvas, drawQuick } = await stageOf(count);
  document.body.append(canvas);
  const { frame } = await frames(5, drawQuick);
  canvas.remove();
  return mean(frame);
}

/** A tone tried on a picture of 12 Mpx, seen at 800 × 600, against drawing that picture once at the same size. */
async function toneBench(): Promise<{ preview: number[]; draw: number[] }> {
  const engines = await openEngines(browserEnv);
  const palette = await prepare(engines, demoDesigns()[0].design);
  const [width, height] = [4000, 3000];
  const canvas = new OffscreenCanvas(width, height);
  const ctx = canvas.getContext('2d')!;
  const image = ctx.createImageData(width, height);
  const data = new Uint8Array(width * height * 3);
  for (let i = 0; i < width * height; i++) {
    const [x, y] = [i % width, Math.floor(i / width)];
    data.set([(x * 255) / width + ((x * 7) & 15), (y * 255) / height, 128 + 80 * Math.sin(x / 90 + y / 70)], 3 * i);
    image.data.set([data[3 * i], data[3 * i + 1], data[3 * i + 2], 255], 4 * i);
  }
  ctx.putImageData(image, 0, 0);
  const source = new PictureSource({ width, height, space: 'rgb', data, alpha: null, icc: null, ppi: null });
  const seen = new OffscreenCanvas(800, 600);
  const screen = seen.getContext('2d')!;
  screen.imageSmoothingQuality = 'high';
  const out = { preview: [] as number[], draw: [] as number[] };
  for (let i = 0; i < 10; i++) {
    let t = performance.now();
    pictureLook(source, { brightness: i / 40, contrast: 0.1, saturation: -0.2 }, palette, 800 * 600);
    if (i) out.preview.push(performance.now() - t);
    t = performance.now();
    screen.drawImage(canvas, 0, 0, 800, 600);
    screen.getImageData(i, i, 1, 1); // drawn by now
    if (i) out.draw.push(performance.now() - t);
  }
  return out;
}

Object.assign(window, {
  toneBench,
  redrawBench,
  redrawFrame,
  recolourBench,
});
