import { encode } from 'fast-png';
import type { Palette } from '../colour/palette';
import { hexOf } from '../colour/spaces';
import { multiply, type Matrix } from '../geometry/matrix';
import { draw, type PathData } from '../geometry/path';
import { grow } from '../geometry/rect';
import { strokeOutline } from '../geometry/stroke';
import type { GradientPaint } from '../model/schema';
import { paintBitmap, type Bitmap } from '../render/bitmap';
import { rampSteps } from '../render/quick';
import type { Item, Scene } from '../scene/scene';

export interface SvgResult {
  readonly svg: string;
  /** What the file only comes near, in words for the person. */
  readonly approximations: readonly string[];
}

/** Pixels of the pictures that stand for gradients SVG cannot say: about 150 dpi on a square of 85 mm. */
const PICTURE_PIXELS = 250_000;

const n = (x: number, digits = 3): string => {
  if (!Number.isFinite(x)) throw new Error(`not a number for an SVG: ${x}`);
  return String(Number(x.toFixed(digits)));
};
const escape = (s: string) => s.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);
const matrixText = (m: Matrix) => `matrix(${m.map((v) => n(v, 6)).join(' ')})`;

function pathText(path: PathData): string {
  let d = '';
  draw(path, {
    moveTo: (x, y) => void (d += `M${n(x)} ${n(y)}`),
    lineTo: (x, y) => void (d += `L${n(x)} ${n(y)}`),
    curveTo: (a, b, c, e, x, y) => void (d += `C${n(a)} ${n(b)} ${n(c)} ${n(e)} ${n(x)} ${n(y)}`),
    close: () => void (d += 'Z'),
  });
  return d;
}

/** A page cut at the trim as SVG 1.1 in sRGB. Letters are outlines with their text as a label; overprint becomes `multiply`. */
export function writeSvg(scene: Scene, palette: Palette, title: string): SvgResult {
  const approximations = new Set<string>();
  const defs: string[] = [];
  const body: string[] = [];
  const gradientIds = new Map<string, string>();

  const paintText = ({ paint, matrix }: Item): string => {
    if (paint.kind === 'colour') return palette.css(paint.colour);
    const text = gradientText(paint as GradientPaint, matrix, palette);
    if ((paint as GradientPaint).grain) approximations.add('Grain is left out: it is for plates.');
    let id = gradientIds.get(text);
    if (!id) {
      id = `g${gradientIds.size + 1}`;
      gradientIds.set(text, id);
      defs.push(text.replace('ID', id));
    }
    if (!palette.ramp((paint as GradientPaint).ramp).solid) approximations.add('What shows through a gradient is mixed as screen colour, not as ink.');
    if (!palette.screen) approximations.add('Gradients are mixed in ink and written as steps of screen colour.');
    return `url(#${id})`;
  };

  let clips = 0;
  for (const item of scene.items) {
    const stroke = item.type === 'fill' ? null : item.stroke;
    const picture = item.paint.kind === 'pools' || (item.paint.kind === 'gradient' && (item.paint.gradient === 'box' || (stroke && item.paint.line)));
    const attributes: string[] = [];
    let element = 'path';
    if (picture) {
      const box = grow(item.bounds, 0.5);
      const id = `cut${++clips}`;
      const solid = stroke ? strokeOutline(item.path, stroke, 0.02) : item.path;
      defs.push(`<clipPath id="${id}"><path d="${pathText(solid)}"${item.type === 'fill' && item.rule === 'evenOdd' ? ' clip-rule="evenodd"' : ''}/></clipPath>`);
      element = 'image';
      attributes.push(`x="${n(box.x0)}" y="${n(box.y0)}" width="${n(box.x1 - box.x0)}" height="${n(box.y1 - box.y0)}" preserveAspectRatio="none" clip-path="url(#${id})" xlink:href="${dataUri(paintBitmap(item, palette, box, PICTURE_PIXELS))}"`);
      approximations.add('Pools, box gradients and gradients that follow a line are pictures cut out by their shape: SVG has no such gradients.');
    } else attributes.push(`d="${pathText(item.path)}"`);
    const paint = picture ? '' : paintText(item);
    if (picture) {
      // Its colours are in the picture.
    } else if (stroke) attributes.push(`fill="none" stroke="${paint}" stroke-width="${n(stroke.width)}" stroke-linecap="${stroke.cap}" stroke-linejoin="${stroke.join}" stroke-miterlimit="${n(stroke.miterLimit)}"`);
    else attributes.push(`fill="${paint}"`);
    if (!picture && item.type === 'fill' && item.rule === 'evenOdd') attributes.push('fill-rule="evenodd"');
    if (item.paint.overprint && !palette.screen && !(item.paint.kind === 'colour' && palette.hides(palette.mix(item.paint.colour)))) {
      attributes.push('style="mix-blend-mode:multiply"');
      approximations.add('Overprinting inks are written as the blend mode multiply.');
    }
    if (item.type === 'glyphs') {
      attributes.push(`role="img" aria-label="${escape(item.text)}"`);
      approximations.add('Letters are outlines; their text is kept as a label.');
    }
    body.push(`<${element} ${attributes.join(' ')}/>`);
  }

  const [w, h] = [n(scene.width), n(scene.height)];
  const paper = hexOf(palette.screen ? [1, 1, 1] : palette.lookOfMix(palette.channels.map(() => 0)));
  const clip = scene.round
    ? `<clipPath id="trim"><ellipse cx="${n(scene.width / 2)}" cy="${n(scene.height / 2)}" rx="${n(scene.width / 2)}" ry="${n(scene.height / 2)}"/></clipPath>`
    : `<clipPath id="trim"><rect width="${w}" height="${h}"/></clipPath>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg"${clips ? ' xmlns:xlink="http://www.w3.org/1999/xlink"' : ''} width="${w}pt" height="${h}pt" viewBox="0 0 ${w} ${h}">
<title>${escape(title)}</title>
<defs>${clip}${defs.join('')}</defs>
<g clip-path="url(#trim)" style="isolation:isolate"><rect width="${w}" height="${h}" fill="${paper}"/>
${body.join('\n')}
</g>
</svg>
`;
  return { svg, approximations: [...approximations] };
}

function gradientText(paint: GradientPaint, matrix: Matrix, palette: Palette): string {
  const stops = rampSteps(palette.rampOf(paint), palette)
    .map((s) => `<stop offset="${n(s.offset, 5)}" stop-color="${s.hex}"${s.opacity < 1 ? ` stop-opacity="${n(s.opacity, 4)}"` : ''}/>`)
    .join('');
  const transform = `gradientUnits="userSpaceOnUse" gradientTransform="${matrixText(multiply(matrix, paint.geometry))}"`;
  const focus = paint.focus ? ` fx="${n(paint.focus[0], 5)}" fy="${n(paint.focus[1], 5)}"` : '';
  return paint.gradient === 'radial'
    ? `<radialGradient id="ID" cx="0" cy="0" r="1"${focus} ${transform}>${stops}</radialGradient>`
    : `<linearGradient id="ID" x1="0" y1="0" x2="1" y2="0" ${transform}>${stops}</linearGradient>`;
}

/** A picture inside the file, for paints that SVG 1.1 has no words for. */
function dataUri({ width, height, data }: Bitmap): string {
  const png = encode({ width, height, data, channels: 4, depth: 8 });
  let text = '';
  for (let i = 0; i < png.length; i += 0x8000) text += String.fromCharCode(...png.subarray(i, i + 0x8000));
  return `data:image/png;base64,${btoa(text)}`;
}
