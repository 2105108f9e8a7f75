import { referencesOn } from '@/core/edit/trace';
import type { Design, Page } from '@/core/model/schema';
import { bleedRect, type Scene } from '@/core/scene/scene';
import { painterOf } from '../session/painter';
import type { Session } from '../session/session';

/** Pixels of the longer side of what is kept of the references. */
const LARGEST = 1800;
const drawn = new WeakMap<
  Scene,
  { readonly palette: object; readonly epoch: number; readonly canvas: HTMLCanvasElement }
>();
const undimmed = new WeakMap<object, { readonly page: Page; readonly design: Design; readonly sheet: Page }>();

/** The references of the page at their full strength, on bare paper: over all of the sheet, or over its right half. */
export function drawReference(ctx: CanvasRenderingContext2D, canvas: HTMLCanvasElement, s: Session): void {
  const scene = sceneOfReferences(s);
  if (!scene) return;
  const epoch = s.state.picturesEpoch + s.state.fontsEpoch;
  const sheet = bleedRect(s.setup);
  const [w, h] = [sheet.x1 - sheet.x0, sheet.y1 - sheet.y0];
  let known = drawn.get(scene);
  if (known?.palette !== s.palette || known.epoch !== epoch) {
    const made = document.createElement('canvas');
    const scale = LARGEST / Math.max(w, h);
    [made.width, made.height] = [Math.ceil(w * scale), Math.ceil(h * scale)];
    const paint = made.getContext('2d')!;
    paint.fillStyle = '#fff';
    paint.fillRect(0, 0, made.width, made.height);
    painterOf(s).paint(
      paint,
      scene.root.content,
      s.palette,
      { scale, x: -sheet.x0 * scale, y: -sheet.y0 * scale },
      sheet,
    );
    drawn.set(scene, (known = { palette: s.palette, epoch, canvas: made }));
  }
  const { camera: c, compare } = s.state;
  ctx.save();
  if (compare === 'beside') {
    // The same place of the page on both sides of the middle: the right half shows what the left half would.
    const half = canvas.clientWidth / 2;
    ctx.beginPath();
    ctx.rect(half, 0, half, canvas.clientHeight);
    ctx.clip();
    ctx.fillStyle = getComputedStyle(canvas).getPropertyValue('--bench-top') || '#c4c4c4';
    ctx.fillRect(half, 0, half, canvas.clientHeight);
    ctx.translate(half, 0);
  }
  ctx.drawImage(known.canvas, sheet.x0 * c.scale + c.x, sheet.y0 * c.scale + c.y, w * c.scale, h * c.scale);
  ctx.restore();
}

function sceneOfReferences(s: Session): Scene | null {
  const { design, page } = s;
  const layers = referencesOn(design, page);
  if (!layers.length) return null;
  const [key] = layers;
  let known = undimmed.get(key);
  if (known?.page !== page) {
    const nodes = { ...design.nodes };
    for (const layer of layers) {
      const { opacity: _, proof: __, ...rest } = layer;
      nodes[layer.id] = { ...rest, hidden: false };
    }
    known = {
      page,
      design: { ...design, nodes },
      sheet: { ...page, children: layers.map((l) => l.id), ground: undefined, pattern: undefined, master: undefined },
    };
    undimmed.set(key, known);
  }
  return s.engines.builder.build(known.design, known.sheet);
}
