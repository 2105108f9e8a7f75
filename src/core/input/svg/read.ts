import { CLIP_FORMAT, type Clip } from '../../edit/clip';
import { soundClip } from '../../edit/soundClip';
import type { Env } from '../../env';
import { IDENTITY, multiply, scaling, translation } from '../../geometry/matrix';
import { rect } from '../../geometry/rect';
import type { FontBook } from '../../text/fonts';
import { Making, nameOf } from './context';
import { Drawer } from './draw';
import { facesIn } from './text';
import { damagedAssets, isOwnAsset } from '../../file/assets';
import { readPicture } from '../picture/read';
import { dataBytes, holdPictures } from './images';
import { readFiles, readInks } from './ours';
import { Styles } from './style';
import { readLength } from './values';
import { readViewBox, viewMatrix } from './view';
import { parseXml, SvgProblem, svgText, type Element } from './xml';

export interface SvgRead {
  /** One group, its top left at 0, 0; in points. */
  readonly clip: Clip;
  readonly width: number;
  readonly height: number;
  /** What could not be kept, in sentences; each once, with how often where that is more than once. */
  readonly notes: readonly string[];
  /** Pictures that were inside, by the names that the clip knows them by. */
  readonly files: ReadonlyMap<string, Uint8Array>;
}

export interface SvgEnv extends Pick<Env, 'asset'> {
  readonly fonts: FontBook;
  newId(): string;
}

/** Points a pixel of CSS. */
const POINTS = 72 / 96;
const MAX_SIDE = 1_000_000;

/**
 * A drawing as editable objects (SVG 1.1 as far as paths, shapes, paints, words, pictures, cuts and groups go). Nothing
 * in it runs and nothing is fetched. Throws an SvgProblem whose text follows the file's name.
 */
export async function readSvg(bytes: Uint8Array, name: string, env: SvgEnv): Promise<SvgRead> {
  const { root, problem } = parseXml(svgText(bytes));
  if (!root || root.name !== 'svg')
    throw new SvgProblem(problem ? `it is damaged (${problem})` : 'it is no SVG drawing');
  const byId = new Map<string, Element>();
  const index = (e: Element): void => {
    const id = e.attributes.get('id');
    if (id !== undefined && !byId.has(id)) byId.set(id, e);
    e.elements.forEach(index);
  };
  index(root);
  const styles = new Styles(root);
  const making = new Making(env.fonts, env.newId, styles, byId);
  if (problem) making.note(`The file is damaged at ${problem}; what comes before is drawn.`);
  const held = await holdPictures(root, making, env);
  await env.fonts.load(facesIn(root, styles));
  const inks = readInks(root, env.newId);

  const view = readViewBox(root.attributes.get('viewBox'));
  const outer = { width: view?.width ?? 300, height: view?.height ?? 150, fontSize: 16 };
  // Percentages of a page that is not there count of the view box itself.
  const side = (attribute: 'width' | 'height', along: 'x' | 'y') => {
    const v = readLength(root.attributes.get(attribute), outer, along);
    return v !== null && v > 0 && v < MAX_SIDE ? v : null;
  };
  const [w, h] = [side('width', 'x'), side('height', 'y')];
  const ratio = outer.width / outer.height;
  const width = w ?? (h !== null && view ? h * ratio : outer.width);
  const height = h ?? (w !== null && view ? w / ratio : outer.height);
  const fit = view
    ? viewMatrix(view, rect(0, 0, width, height), root.attributes.get('preserveAspectRatio')).matrix
    : IDENTITY;
  const toPoints = multiply(scaling(POINTS, POINTS), fit);
  const drawer = new Drawer(
    making,
    held,
    inks,
    await wholeFiles(
      readFiles(root, byId, (a) => dataBytes(a)?.bytes ?? null),
      env,
    ),
  );
  const style = styles.inPlace(root);
  const children =
    style.display === 'none'
      ? []
      : drawer.children(root, {
          style,
          measures: {
            width: view?.width ?? width,
            height: view?.height ?? height,
            fontSize: Number(style['font-size']),
          },
          ctm: fit,
          depth: 0,
        });
  if (root.names.some((k) => /^on[a-z]+$/.test(k))) making.note('Event handlers are left out.');
  const together =
    style.opacity !== '1' ||
    style['clip-path'] !== 'none' ||
    style.mask !== 'none' ||
    style.filter !== 'none' ||
    style['mix-blend-mode'] !== 'normal';
  const rooted = together
    ? drawer.whole(
        root,
        style,
        children,
        translation(0, 0),
        nameOf(root, name),
        { style, measures: outer, ctm: fit, depth: 0 },
        true,
      )
    : children;
  const top = making.group(nameOf(root, name), toPoints, rooted);
  const notes = [...making.notes, ...[...styles.sheets.notes].map((n) => [n, 1] as const)].map(([text, n]) =>
    n > 1 ? `${text} (${n} times)` : text,
  );
  const sound = soundClip({
    format: CLIP_FORMAT,
    roots: [top],
    nodes: making.nodes,
    stories: making.stories,
    swatches: [],
    inks: inks.used(),
    ...(making.pictures.length && { pictures: making.pictures }),
  });
  if (!sound) throw new SvgProblem('nothing in it is of a size that a page can hold');
  for (const text of new Set(sound.leftOut)) notes.push(`${text} It is left out.`);
  return {
    clip: sound.clip,
    width: width * POINTS,
    height: height * POINTS,
    notes,
    files: making.files,
  };
}

/** Of the files that came along, those that are pictures and are what their names say. */
async function wholeFiles(
  files: ReadonlyMap<string, Uint8Array>,
  env: Pick<Env, 'asset'>,
): Promise<ReadonlyMap<string, Uint8Array>> {
  const out = new Map<string, Uint8Array>();
  const bad = new Set(await damagedAssets(new Map([...files].filter(([name]) => isOwnAsset(name)))));
  for (const [name, bytes] of files) {
    if (bad.has(name)) continue;
    const pixels = await readPicture(bytes, env).catch(() => null);
    if (pixels) out.set(name, bytes);
  }
  return out;
}
