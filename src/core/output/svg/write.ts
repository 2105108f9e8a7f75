import type { Palette } from '../../colour/palette';
import { hexOf } from '../../colour/spaces';
import { multiply, type Matrix } from '../../geometry/matrix';
import { grow, intersect, isEmpty, type Rect } from '../../geometry/rect';
import { dashPath } from '../../geometry/dash';
import { strokeOutline, type StrokeStyle } from '../../geometry/stroke';
import { OURS } from '../../input/svg/ours';
import type { GradientPaint, PicturePaint } from '../../model/schema';
import { paintBitmap } from '../../render/bitmap';
import { compositePlates } from '../../render/composite';
import { rasterPlates } from '../../render/plates';
import { regionWith } from '../../render/region';
import { pictureBitmap } from '../../render/pictureBitmap';
import { rampSteps } from '../../render/rampSteps';
import { effectRow } from '../../scene/effects/table';
import { overprints } from '../../scene/overprints';
import { isOwn, isPlain, trimRect, type Group, type Leaf, type Part, type Scene } from '../../scene/scene';
import { meetGroups, withContent } from '../../scene/walk';
import { annotate, freed, inksText } from './ours';
import { escapeXml } from '../xml';
import { base64, bitmapUri, matrixText, num as n, pathText } from './text';

export interface SvgResult {
  readonly svg: string;
  /** What the file only comes near, in words for the person. */
  readonly approximations: readonly string[];
}

/** What of a page is written, at first the page as it is cut; `bare`: without the paper. */
interface SvgParts {
  readonly box?: Rect;
  readonly bare?: boolean;
}

/** Pixels of the pictures that stand for gradients SVG cannot say: about 150 dpi on a square of 85 mm. */
const PICTURE_PIXELS = 250_000;
/** Pixels of a picture with a tone; one without goes in as it is. */
const TONED_PIXELS = 4_000_000;

/**
 * A page cut at the trim as SVG 1.1 in sRGB. Letters are outlines with their text as a label; overprint becomes
 * `multiply`. Beside what every program sees stands, in a namespace of ours, what is printed: our reader takes that
 * where the drawing has not been changed since. With a palette of inks pictures and blended groups are shown as they
 * print, so that the drawing looks as our PNG of the page does; with a palette of light, as they came. `asset` gives
 * the files of pictures.
 */
export async function writeSvg(
  scene: Scene,
  palette: Palette,
  title: string,
  asset: (file: string) => Promise<Uint8Array>,
  { box = trimRect(scene), bare = false }: SvgParts = {},
): Promise<SvgResult> {
  const writer = new Writer(palette, asset, scene, box);
  const body = await writer.page(unwrapped(scene.root.content));
  const [x, y, w, h] = [n(box.x0), n(box.y0), n(box.x1 - box.x0), n(box.y1 - box.y0)];
  const from = `${box.x0 ? ` x="${x}"` : ''}${box.y0 ? ` y="${y}"` : ''}`;
  const paper = hexOf(palette.screen ? [1, 1, 1] : palette.lookOfMix(palette.channels.map(() => 0)));
  const clip = scene.round
    ? `<clipPath id="trim"><ellipse cx="${n(scene.width / 2)}" cy="${n(scene.height / 2)}" rx="${n(scene.width / 2)}" ry="${n(scene.height / 2)}"/></clipPath>`
    : `<clipPath id="trim"><rect${from} width="${w}" height="${h}"/></clipPath>`;
  const inks = inksText(scene, palette);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" xmlns:ink="${OURS}" width="${w}pt" height="${h}pt" viewBox="${x} ${y} ${w} ${h}">
<title>${escapeXml(title)}</title>
<metadata><ink:inks>${escapeXml(inks)}</ink:inks>${writer.held.join('')}</metadata>
<defs>${clip}${writer.defs.join('')}</defs>
<g clip-path="url(#trim)" style="isolation:isolate" ink:page="true">${bare ? '' : `<rect${from} width="${w}" height="${h}" fill="${paper}" ink:paper="true"/>`}
${body.join('\n')}
</g>
</svg>
`;
  return { svg, approximations: [...writer.approximations] };
}

class Writer {
  readonly approximations = new Set<string>();
  readonly defs: string[] = [];
  /** Files of pictures that are shown with a tone: what is shown is another picture. */
  readonly held: string[] = [];
  private readonly gradients = new Map<string, string>();
  private readonly images = new Map<string, string>();
  private readonly files = new Set<string>();
  private ids = 0;

  constructor(
    private readonly palette: Palette,
    private readonly asset: (file: string) => Promise<Uint8Array>,
    private readonly scene: Scene,
    private readonly box: Rect,
  ) {
    this.shared = meetGroups(scene.root);
  }

  private readonly shared: ReadonlyMap<Group, number>;

  /**
   * All of the page. Ink that blends with ink has no words in SVG: such a part is shown as a picture of it and what
   * lies below.
   */
  async page(content: readonly Part[]): Promise<string[]> {
    if (this.palette.screen) return this.all(content);
    const out: string[] = [];
    for (const [i, part] of content.entries()) {
      if (part.type !== 'group' || !blends(part)) out.push(...(await this.all([part])));
      else
        out.push(
          this.asPrinted(part, content.slice(0, i + 1)),
          `<g display="none" ink:stands="true">${await this.group(part)}</g>`,
        );
    }
    return out;
  }

  private asPrinted(group: Group, content: readonly Part[]): string {
    const box = intersect(grow(group.paintBounds, 0.5), this.box);
    if (isEmpty(box)) return '';
    this.approximations.add('Blended parts are pictures of them as they print: SVG blends light, not ink.');
    const region = regionWith(box, TONED_PIXELS);
    const data = compositePlates(rasterPlates(withContent(this.scene, content), this.palette, region)!, this.palette);
    const [w, h] = [region.width / region.scale, region.height / region.scale];
    return `<image x="${n(region.x)}" y="${n(region.y)}" width="${n(w)}" height="${n(h)}" preserveAspectRatio="none" ink:paper="true" xlink:href="${bitmapUri({ width: region.width, height: region.height, data })}"/>`;
  }

  private id(prefix: string): string {
    return `${prefix}${++this.ids}`;
  }

  async all(content: readonly Part[]): Promise<string[]> {
    const out: string[] = [];
    for (const part of unwrapped(content))
      out.push(part.type === 'group' ? await this.group(part) : await this.leaf(part));
    return out.filter(Boolean);
  }

  private readonly drawn = new Map<Group, string>();
  /** A group; one that is met again is used where it stands. */
  private async group(group: Group): Promise<string> {
    if ((this.shared.get(group) ?? 0) < 2) return this.ownGroup(group);
    const known = this.drawn.get(group);
    if (known) return `<use xlink:href="#${known}"/>`;
    const id = this.id('shared');
    this.drawn.set(group, id);
    return `<g id="${id}">${await this.ownGroup(group)}</g>`;
  }

  /** A group as nested ones: one a clip and a mask, and the innermost with opacity and blend. */
  private async ownGroup(group: Group): Promise<string> {
    const { content, opacity, blend, clips, masks } = group;
    const style = blend
      ? ` style="mix-blend-mode:${blend}${isOwn(group) ? ';isolation:isolate' : ''}"`
      : isOwn(group)
        ? ' style="isolation:isolate"'
        : '';
    const cut = clips.length > 0 || masks.length > 0;
    const inside = (await this.all(content)).join('');
    let text =
      !cut && !isOwn(group)
        ? inside
        : `<g${opacity < 1 ? ` opacity="${n(opacity, 4)}"` : ''}${cut ? '' : style}>${inside}</g>`;
    if (opacity < 1 && !this.palette.screen)
      this.approximations.add('What shows through is mixed as screen colour, not as ink.');
    for (const mask of masks) {
      const id = this.id('mask');
      const { x0, y0, x1, y1 } = grow(group.paintBounds, 1);
      this.defs.push(
        `<mask id="${id}" maskUnits="userSpaceOnUse" x="${n(x0)}" y="${n(y0)}" width="${n(x1 - x0)}" height="${n(y1 - y0)}"${mask.light ? '' : ' mask-type="alpha" style="mask-type:alpha"'}>${(await this.all(mask.root.content)).join('')}</mask>`,
      );
      text = `<g mask="url(#${id})">${text}</g>`;
    }
    for (const clip of clips) {
      const id = this.id('cut');
      this.defs.push(
        `<clipPath id="${id}"><path d="${pathText(clip.path)}"${clip.rule === 'evenOdd' ? ' clip-rule="evenodd"' : ''}/></clipPath>`,
      );
      text = `<g clip-path="url(#${id})">${text}</g>`;
    }
    if (style && cut) text = `<g${style}>${text}</g>`;
    return group.effects.length ? this.withEffects(group, text) : text;
  }

  /** Effects as filters of what they are made from, drawn once more below it; what they are stands beside them. */
  private withEffects(group: Group, text: string): string {
    const { palette } = this;
    const id = this.id('art');
    const { x0, y0, x1, y1 } = grow(group.paintBounds, 1);
    const below = group.effects.map((e) => {
      const filter = this.id('effect');
      const primitives = effectRow(e).svg(e, palette.css(e.paint.colour));
      this.defs.push(
        `<filter id="${filter}" filterUnits="userSpaceOnUse" x="${n(x0)}" y="${n(y0)}" width="${n(x1 - x0)}" height="${n(y1 - y0)}" color-interpolation-filters="sRGB">${primitives}</filter>`,
      );
      const over = e.paint.overprint && !palette.screen;
      if (over) this.approximations.add('Overprinting inks are written as the blend mode multiply.');
      return `<g ink:made="effect" filter="url(#${filter})"${over ? ' style="mix-blend-mode:multiply"' : ''}><use xlink:href="#${id}"/></g>`;
    });
    if (!palette.screen) this.approximations.add('Shadows are mixed as screen colour, not as ink.');
    const own = group.effects.map((e) => ({ ...e, paint: freed(e.paint, palette) }));
    return `<g ink:effects="${escapeXml(JSON.stringify(own))}">${below.join('')}<g id="${id}" ink:art="true">${text}</g></g>`;
  }

  private async leaf(item: Leaf): Promise<string> {
    const { palette } = this;
    const stroke = item.type === 'fill' ? null : item.stroke;
    const rule = item.type === 'fill' && item.rule === 'evenOdd';
    const blend =
      overprints(item, palette) && !(item.paint.kind === 'colour' && palette.hides(palette.mix(item.paint.colour)));
    const common: string[] = [];
    if (blend) {
      common.push('style="mix-blend-mode:multiply"');
      this.approximations.add('Overprinting inks are written as the blend mode multiply.');
    }
    const words = item.type === 'glyphs' ? item : item.words;
    if (words?.text) {
      common.push(`role="img" aria-label="${escapeXml(words.text)}"`);
      this.approximations.add('Letters are outlines; their text is kept as a label.');
    }
    const picture = item.paint.kind === 'picture' ? await this.picture(item, item.paint) : this.asPicture(item);
    if (picture !== null) {
      if (!picture) return '';
      // Cut out by the form; the form and its line stand beside it for our own reader.
      const id = this.id('cut');
      const solid = stroke ? strokeOutline(item.placed.path, stroke, 0.02) : item.placed.path;
      this.defs.push(
        `<clipPath id="${id}"><path d="${pathText(solid)}"${rule ? ' clip-rule="evenodd"' : ''}/></clipPath>`,
      );
      return `<g clip-path="url(#${id})" ${annotate(item, palette, 'whole', '')} ink:d="${pathText(item.placed.path)}"${rule ? ' ink:rule="evenOdd"' : ''}${stroke ? ` ink:line="${escapeXml(JSON.stringify(stroke))}"` : ''} ${common.join(' ')}>${picture}</g>`;
    }
    const paint = this.paintText(item);
    const which = stroke ? 'stroke' : 'fill';
    const line = stroke
      ? `fill="none" stroke="${paint}" stroke-width="${n(stroke.width)}" stroke-linecap="${stroke.cap}" stroke-linejoin="${stroke.join}" stroke-miterlimit="${n(stroke.miterLimit)}"${dashText(stroke)}`
      : `fill="${paint}"${rule ? ' fill-rule="evenodd"' : ''}`;
    // Dashes that are fitted to corners are pieces: SVG has no words for them.
    const d = stroke?.dash?.fit ? dashPath(item.placed.path, stroke.dash) : item.placed.path;
    return `<path d="${pathText(d)}" ${line} ${annotate(item, palette, which, paint)} ${common.join(' ')}/>`;
  }

  private paintText({ paint, matrix }: Leaf): string {
    const { palette, approximations } = this;
    if (paint.kind === 'colour') return palette.css(paint.colour);
    if (paint.kind !== 'gradient') throw new Error(`not a paint that SVG has words for: ${paint.kind}`);
    const text = gradientText(paint, matrix, palette);
    if (paint.grain) approximations.add('Grain is left out: it is for plates.');
    let id = this.gradients.get(text);
    if (!id) {
      id = this.id('g');
      this.gradients.set(text, id);
      this.defs.push(text.replace('ID', id));
    }
    if (!palette.ramp(paint.ramp).solid)
      approximations.add('What shows through a gradient is mixed as screen colour, not as ink.');
    if (!palette.screen) approximations.add('Gradients are mixed in ink and written as steps of screen colour.');
    return `url(#${id})`;
  }

  /** Kinds of gradients that SVG does not have, as a picture of them; null for all others. */
  private asPicture(item: Leaf): string | null {
    const { paint } = item;
    const line = item.type !== 'fill' && item.stroke !== null;
    if (!(
      paint.kind === 'pools' ||
      (paint.kind === 'gradient' && (paint.gradient === 'box' || (line && paint.strokeMapping)))
    ))
      return null;
    this.approximations.add(
      'Pools, box gradients and gradients that follow a line are pictures cut out by their shape: SVG has no such gradients.',
    );
    const box = grow(item.inkBounds, 0.5);
    return `<image x="${n(box.x0)}" y="${n(box.y0)}" width="${n(box.x1 - box.x0)}" height="${n(box.y1 - box.y0)}" preserveAspectRatio="none" xlink:href="${bitmapUri(paintBitmap(item, this.palette, box, PICTURE_PIXELS))}"/>`;
  }

  /** A picture (or a pattern of it) in its unit square; empty where its file is not at hand. */
  private async picture(item: Leaf, paint: PicturePaint): Promise<string> {
    const { palette } = this;
    const source = palette.pictureSource(paint.picture);
    if (!source) return '';
    const { file } = palette.picture(paint.picture);
    const key = JSON.stringify([file, paint.tone ?? null]);
    let id = this.images.get(key);
    if (!id) {
      id = this.id('picture');
      this.images.set(key, id);
      const bytes = await this.asset(`pictures/${file}`).catch(() => null);
      const plain = palette.screen && !paint.tone && bytes && source.space !== 'cmyk' && /\.(png|jpe?g)$/.test(file);
      const href = plain
        ? `data:image/${file.endsWith('.png') ? 'png' : 'jpeg'};base64,${base64(bytes)}`
        : bitmapUri(pictureBitmap(source, paint.tone, palette, TONED_PIXELS));
      this.defs.push(`<image id="${id}" width="1" height="1" preserveAspectRatio="none" xlink:href="${href}"/>`);
      if (bytes && !this.files.has(file)) {
        this.files.add(file);
        this.held.push(
          plain
            ? `<ink:file name="${escapeXml(file)}" of="${id}"/>`
            : `<ink:file name="${escapeXml(file)}">${base64(bytes)}</ink:file>`,
        );
      }
      if (!palette.screen)
        this.approximations.add('Pictures are shown as they print; their own files stand beside them.');
    }
    const toPage = multiply(item.matrix, paint.geometry);
    if (!paint.tile) return `<use xlink:href="#${id}" transform="${matrixText(toPage)}"/>`;
    const pattern = this.id('tiles');
    const cell =
      paint.tile === 'mirror'
        ? [
            [1, 1],
            [-1, 1],
            [1, -1],
            [-1, -1],
          ]
            .map(
              ([sx, sy]) =>
                `<use xlink:href="#${id}" transform="matrix(${sx} 0 0 ${sy} ${sx < 0 ? 2 : 0} ${sy < 0 ? 2 : 0})"/>`,
            )
            .join('')
        : `<use xlink:href="#${id}"/>`;
    const size = paint.tile === 'mirror' ? 2 : 1;
    this.defs.push(
      `<pattern id="${pattern}" patternUnits="userSpaceOnUse" width="${size}" height="${size}" patternTransform="${matrixText(toPage)}">${cell}</pattern>`,
    );
    const { x0, y0, x1, y1 } = grow(item.inkBounds, 0.5);
    return `<rect x="${n(x0)}" y="${n(y0)}" width="${n(x1 - x0)}" height="${n(y1 - y0)}" fill="url(#${pattern})"/>`;
  }
}

/** Does anything in it blend with what lies below? */
const blends = (part: Part): boolean => part.type === 'group' && (part.blend !== null || part.content.some(blends));
/** Parts without the groups that are no more than what they hold. */
const unwrapped = (content: readonly Part[]): readonly Part[] =>
  content.some(isWrapper) ? content.flatMap((p) => (isWrapper(p) ? unwrapped(p.content) : [p])) : content;
const isWrapper = (part: Part): part is Group => part.type === 'group' && isPlain(part);

function gradientText(paint: GradientPaint, matrix: Matrix, palette: Palette): string {
  const stops = rampSteps(palette.rampOf(paint), palette)
    .map(
      (s) =>
        `<stop offset="${n(s.offset, 5)}" stop-color="${s.hex}"${s.opacity < 1 ? ` stop-opacity="${n(s.opacity, 4)}"` : ''}/>`,
    )
    .join('');
  const transform = `gradientUnits="userSpaceOnUse" gradientTransform="${matrixText(multiply(matrix, paint.geometry))}"`;
  const focus = paint.focus ? ` fx="${n(paint.focus[0], 5)}" fy="${n(paint.focus[1], 5)}"` : '';
  return paint.gradient === 'radial'
    ? `<radialGradient id="ID" cx="0" cy="0" r="1"${focus} ${transform}>${stops}</radialGradient>`
    : `<linearGradient id="ID" x1="0" y1="0" x2="1" y2="0" ${transform}>${stops}</linearGradient>`;
}

/** The dashes of a line, in the words of SVG. */
function dashText({ dash }: StrokeStyle): string {
  if (!dash || dash.fit) return '';
  const offset = dash.offset ? ` stroke-dashoffset="${n(dash.offset)}"` : '';
  return ` stroke-dasharray="${dash.lengths.map((v) => n(v)).join(' ')}"${offset}`;
}
