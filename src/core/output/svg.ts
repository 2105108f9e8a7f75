import { mixAt, type Palette } from '../colour/palette';
import { hexOf } from '../colour/spaces';
import { multiply, type Matrix } from '../geometry/matrix';
import { draw, type PathData } from '../geometry/path';
import type { GradientPaint } from '../model/schema';
import type { Item, Scene } from '../scene/scene';

export interface SvgResult {
  readonly svg: string;
  /** What the file only comes near, in words for the person. */
  readonly approximations: readonly string[];
}

/** Points between a gradient's stops at which the look is taken, so that ink mixing is followed closely. */
const STEPS_PER_SPAN = 16;

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

  const paintText = (item: Item): string => {
    if (item.paint.kind === 'colour') return palette.css(item.paint.colour);
    const text = gradientText(item.paint, item.matrix, palette);
    let id = gradientIds.get(text);
    if (!id) {
      id = `g${gradientIds.size + 1}`;
      gradientIds.set(text, id);
      defs.push(text.replace('ID', id));
    }
    if (!palette.screen) approximations.add('Gradients are mixed in ink and written as steps of screen colour.');
    return `url(#${id})`;
  };

  for (const item of scene.items) {
    const paint = paintText(item);
    const stroke = item.type === 'fill' ? null : item.stroke;
    const attributes = [`d="${pathText(item.path)}"`];
    if (stroke) attributes.push(`fill="none" stroke="${paint}" stroke-width="${n(stroke.width)}" stroke-linecap="${stroke.cap}" stroke-linejoin="${stroke.join}" stroke-miterlimit="${n(stroke.miterLimit)}"`);
    else attributes.push(`fill="${paint}"`);
    if (item.type === 'fill' && item.rule === 'evenOdd') attributes.push('fill-rule="evenodd"');
    if (item.paint.overprint && !palette.screen && !(item.paint.kind === 'colour' && palette.hides(palette.mix(item.paint.colour)))) {
      attributes.push('style="mix-blend-mode:multiply"');
      approximations.add('Overprinting inks are written as the blend mode multiply.');
    }
    if (item.type === 'glyphs') {
      attributes.push(`role="img" aria-label="${escape(item.text)}"`);
      approximations.add('Letters are outlines; their text is kept as a label.');
    }
    body.push(`<path ${attributes.join(' ')}/>`);
  }

  const [w, h] = [n(scene.width), n(scene.height)];
  const paper = hexOf(palette.screen ? [1, 1, 1] : palette.lookOfMix(palette.channels.map(() => 0)));
  const clip = scene.round
    ? `<clipPath id="trim"><ellipse cx="${n(scene.width / 2)}" cy="${n(scene.height / 2)}" rx="${n(scene.width / 2)}" ry="${n(scene.height / 2)}"/></clipPath>`
    : `<clipPath id="trim"><rect width="${w}" height="${h}"/></clipPath>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${w}pt" height="${h}pt" viewBox="0 0 ${w} ${h}">
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
  const ramp = palette.ramp(paint.ramp);
  const stops: string[] = [];
  const put = (offset: number, mix: readonly number[]) => stops.push(`<stop offset="${n(offset, 5)}" stop-color="${hexOf(palette.lookOfMix(mix))}"/>`);
  put(ramp.stops[0].offset, ramp.stops[0].mix);
  ramp.stops.slice(1).forEach((b, i) => {
    const a = ramp.stops[i];
    const steps = palette.screen || b.offset === a.offset ? 1 : STEPS_PER_SPAN;
    for (let k = 1; k < steps; k++) {
      const t = a.offset + ((b.offset - a.offset) * k) / steps;
      put(t, mixAt(ramp, t));
    }
    put(b.offset, b.mix);
  });
  const transform = `gradientUnits="userSpaceOnUse" gradientTransform="${matrixText(multiply(matrix, paint.geometry))}"`;
  return paint.gradient === 'radial'
    ? `<radialGradient id="ID" cx="0" cy="0" r="1" ${transform}>${stops.join('')}</radialGradient>`
    : `<linearGradient id="ID" x1="0" y1="0" x2="1" y2="0" ${transform}>${stops.join('')}</linearGradient>`;
}
