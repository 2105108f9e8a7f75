import { adoptPicture, copyNodes, pasteClip, type Clip } from '@/core/edit/clip';
import { groundPicture, groundTiles } from '@/core/edit/groundPicture';
import { setGround } from '@/core/edit/masters';
import { addNode } from '@/core/edit/pile';
import { aimedNodes, paintAt, type Aim } from '@/core/edit/aims';
import { setPaint } from '@/core/edit/paint';
import { pictureIn, placedSize, relinkPicture, replaced, setPicture } from '@/core/edit/picture';
import { localBox } from '@/core/derive/box';
import { isText } from '@/core/derive/layout';
import { assetName, isOwnAsset } from '@/core/file/assets';
import type { Matrix, Point } from '@/core/geometry/matrix';
import { width as widthOf, height as heightOf } from '@/core/geometry/rect';
import type { Design, DesignNode, NodeOf, Picture } from '@/core/model/schema';
import { fontFormat } from '@/core/input/font/format';
import { isDrawing } from '@/core/input/isDrawing';
import { storageProblem } from '@/store/open';
import { count, freeSelection } from '../session/commandDef';
import { groundSheet, shownGround } from '../session/ground';
import { sheetName } from '../session/naming';
import { opening } from '../session/opening';
import type { Session } from '../session/session';
import { addFaces } from './faces';
import { pick } from '../tools/pick';

/** A picture on its way into the design, its file already kept. */
export type NewPicture = Omit<Picture, 'id'>;

/** Files that can be placed as pictures. */
export const PICTURE_FILES = '.png,.jpg,.jpeg,.jfif,.webp,.gif,.tif,.tiff,.avif,.svg,image/*';

const stem = (name: string) => name.replace(/\.[^.]+$/, '').slice(0, 120) || 'Picture';

/** Opens a picture file and keeps it in this browser; says why where that does not work. */
export async function openPicture(s: Session, name: string, given: Uint8Array): Promise<NewPicture | null> {
  const read = await opening(s, name, s.pictureWorker.read(given));
  if (!read.ok) {
    s.say(`${name} cannot be placed: ${read.message}.`, 'warn');
    return null;
  }
  const file = await assetName(read.bytes, read.ending);
  try {
    await s.designs.addAsset(file, read.bytes);
  } catch (e) {
    s.say(`${name} could not be kept: ${storageProblem(e)}`, 'stop');
    return null;
  }
  s.pictures.forget(file);
  return { name: name.slice(0, 200), file, ...read.facts };
}

/** Can a picture lie in it? Anything with an area to paint. */
const canFrame = (node: DesignNode | undefined): node is NodeOf<'shape' | 'path' | 'textFrame' | 'combination'> =>
  node !== undefined && 'fills' in node && !(node.kind === 'combination' && node.op === 'divide');

/** What a drop at a place would fill: an object that lies there and is no ground for all the others. */
export function frameUnder(s: Session, at: Point): string | null {
  if (s.state.readOnly) return null;
  const found = pick(s, { page: at, screen: at, shift: false, alt: false, mod: false });
  const id = found?.hit.node;
  if (!id || !canFrame(s.design.nodes[id]) || isText(s.design.nodes[id])) return null;
  const box = s.boxOf([id]);
  const { width, height } = s.setup;
  return widthOf(box) * heightOf(box) > (width * height) / 2 && !s.state.selection.includes(id) ? null : id;
}

/** The one chosen object that a picture can be put into, and the aim by which. */
export function chosenFrame(s: Session): { readonly id: string; readonly aim: Aim } | null {
  const ids = freeSelection(s);
  const node = ids.length === 1 ? s.design.nodes[ids[0]] : undefined;
  if (!node) return null;
  if (isText(node))
    return { id: node.id, aim: s.state.aim === 'frame' && node.kind === 'textFrame' ? 'frame' : 'letters' };
  return canFrame(node) ? { id: node.id, aim: 'fill' } : null;
}

/** Puts a picture into an object: laid in to fill it, or in the place of the picture that is there. */
export function framePicture(s: Session, next: NewPicture, id: string, aim: Aim): void {
  const node = s.design.nodes[id];
  const box = localBox(s.design, node, s.engines.fonts);
  const had = paintAt(s.design, id, aim);
  const old = had?.kind === 'picture' ? s.design.pictures?.find((p) => p.id === had.picture) : undefined;
  s.commit(
    old ? 'Replace a picture' : 'Put a picture into an object',
    (d) => {
      const picture = { ...next, id: adoptPicture(d, { ...next, id: '' }, s.newId) };
      setPaint(d, [id], aim, (paint) =>
        paint.kind === 'picture' && old ? replaced(paint, old, picture) : pictureIn(picture, box, 'fill', paint),
      );
    },
    { select: [id] },
  );
  s.set({ aim });
  s.say(
    old
      ? `${next.name} lies where the old picture lay.`
      : `${node.name || 'The object'} is the frame of ${next.name}. Double-click it to move the picture inside.`,
  );
}

/** Lays a picture on the ground of the page, or of the master that is meant: over all of it, to the bleed. */
export function pictureOnGround(s: Session, next: NewPicture, tile = false): void {
  const sheet = groundSheet(s);
  const old = shownGround(s);
  s.commit('Picture on the ground', (d) => {
    const picture = { ...next, id: adoptPicture(d, { ...next, id: '' }, s.newId) };
    const had = old.kind === 'picture' ? old : undefined;
    const { setup } = s;
    const paint = tile ? groundTiles(picture, setup, 'repeat', had) : groundPicture(picture, setup, 'fill', had);
    setGround(d, sheet.id, paint);
  });
  s.say(
    `${next.name} lies on the ground of ${sheet.id === s.page.id ? 'this page' : `every page of ${sheetName(s.design, sheet)}`}, to the bleed.`,
  );
}

/** Puts a picture on the page in a frame of its own, its middle at a place. */
export function placePicture(s: Session, next: NewPicture, at: Point | null): string {
  const { setup } = s;
  const { width, height } = placedSize({ ...next, id: '' }, { width: setup.width, height: setup.height });
  const middle = at ?? { x: setup.width / 2, y: setup.height / 2 };
  const id = s.newId();
  s.commit(
    'Place a picture',
    (d) => {
      const picture = { ...next, id: adoptPicture(d, { ...next, id: '' }, s.newId) };
      addNode(d, s.page.id, {
        id,
        name: stem(next.name),
        kind: 'shape',
        shape: 'rectangle',
        knobs: {},
        transform: [1, 0, 0, 1, middle.x - width / 2, middle.y - height / 2],
        hidden: false,
        locked: false,
        width,
        height,
        fills: [pictureIn(picture, { x0: 0, y0: 0, x1: width, y1: height }, 'stretch')],
        outlines: [],
      });
    },
    { select: [id] },
  );
  s.set({ tool: 'select', view: 'work', aim: 'fill' });
  return id;
}

/** Files dropped, pasted or chosen: each is placed; the first goes into what it was dropped on. */
export async function receiveFiles(
  s: Session,
  files: readonly File[],
  at: Point | null,
  onto: { readonly id: string; readonly aim: Aim } | 'ground' | null,
): Promise<void> {
  if (s.state.readOnly) {
    s.say('This design is open in another tab; here it can only be looked at.', 'warn');
    return;
  }
  const placed: string[] = [];
  const { width, height } = s.setup;
  const first = at ?? { x: width / 2, y: height / 2 };
  const next = (): Point => ({ x: first.x + placed.length * STEP, y: first.y + placed.length * STEP });
  for (const [i, f] of files.entries()) {
    s.say(files.length > 1 ? `Opening ${f.name} (${i + 1} of ${files.length}) …` : `Opening ${f.name} …`);
    const bytes = new Uint8Array(await f.arrayBuffer());
    if (fontFormat(bytes)) {
      await addFaces(s, f.name || 'Pasted font', bytes);
      continue;
    }
    if (isDrawing(f.name, bytes)) {
      const id = await placeDrawing(s, f.name || 'Pasted drawing', bytes, next());
      if (files.length === 1) return;
      if (id) placed.push(id);
      continue;
    }
    const picture = await openPicture(s, f.name || 'Pasted picture.png', bytes);
    if (!picture) continue;
    if (i === 0 && onto === 'ground') {
      pictureOnGround(s, picture);
      return;
    }
    if (i === 0 && onto && onto !== 'ground' && s.design.nodes[onto.id]) {
      framePicture(s, picture, onto.id, onto.aim);
      if (files.length === 1) return;
      continue;
    }
    placed.push(placePicture(s, picture, next()));
  }
  if (!placed.length) return;
  s.select(placed.filter((id) => s.design.nodes[id]));
  s.say(
    placed.length === 1
      ? `Placed ${s.design.nodes[placed[0]].name}. Double-click it to crop.`
      : `Placed ${count(placed.length, 'picture')}.`,
  );
}
/** Several pictures placed at once lie a little aside of each other, in points. */
const STEP = 14;

/** Another file in the place of the chosen objects' pictures: frame, crop and tone stay. */
export async function replacePicture(s: Session, ids: readonly string[], aim: Aim, f: File): Promise<void> {
  const next = await openPicture(s, f.name, new Uint8Array(await f.arrayBuffer()));
  if (!next) return;
  const { design } = s;
  const done = s.commit('Replace a picture', (d) => {
    const picture = { ...next, id: adoptPicture(d, { ...next, id: '' }, s.newId) };
    setPicture(d, aimedNodes(design, ids, aim), aim, (paint) =>
      replaced(
        paint,
        design.pictures!.find((p) => p.id === paint.picture)!,
        picture,
      ),
    );
  });
  if (done) s.say(`${next.name} lies where the old picture lay.`);
}

/** Says which file a picture of the design is: all that show it follow. */
export async function relink(s: Session, id: string, f: File): Promise<void> {
  const next = await openPicture(s, f.name, new Uint8Array(await f.arrayBuffer()));
  const old = s.design.pictures?.find((p) => p.id === id);
  if (!next || !old) return;
  s.commit(`Relink ${old.name}`, (d) => relinkPicture(d, id, next));
  // The bytes may be the very ones that were missing: then nothing in the design changed, but the press can see them
  // now.
  await s.press.open(s.state.design);
  s.set({ picturesEpoch: s.state.picturesEpoch + 1 });
  s.say(
    `${old.name} is now ${next.name}${next.width / next.height === old.width / old.height ? '' : '; its proportions differ, so look at the crop'}.`,
  );
}

/** A drawing's objects on the page, as large as the drawing says or as fits; what could not be kept is told. */
export async function placeDrawing(
  s: Session,
  name: string,
  bytes: Uint8Array,
  at: Point | null,
): Promise<string | null> {
  const read = await opening(s, name, s.pictureWorker.drawing(bytes, stem(name)));
  if (!read.ok) {
    s.say(`${name} cannot be placed: ${read.message}.`, 'warn');
    return null;
  }
  const top = read.clip.nodes[read.clip.roots[0]];
  if (top.kind !== 'group' || !top.children.length) {
    s.say(
      `There is nothing to see in ${name}.`,
      'warn',
      read.notes.length
        ? { label: 'What was left out', run: () => s.set({ report: { title: name, notes: read.notes } }) }
        : undefined,
    );
    return null;
  }
  try {
    for (const [file, content] of read.files) if (isOwnAsset(file)) await s.designs.addAsset(file, content);
  } catch (e) {
    s.say(`The pictures inside ${name} could not be kept: ${storageProblem(e)}`, 'stop');
    return null;
  }
  const id = placeClip(s, read.clip, read, at);
  if (!id) return null;
  s.say(
    `${placedText(name, read.clip)}${read.notes.length ? ` ${count(read.notes.length, 'thing')} could not be kept as ${read.notes.length === 1 ? 'it was' : 'they were'}.` : ''}`,
    'plain',
    read.notes.length
      ? { label: 'See which', run: () => s.set({ report: { title: name, notes: read.notes } }) }
      : undefined,
  );
  if (read.notes.length) s.set({ report: { title: name, notes: read.notes } });
  return id;
}

/** The objects of a clip on the page, as large as they are or as fits, and chosen. Answers the id of the first. */
function placeClip(
  s: Session,
  clip: Clip,
  { width, height }: { readonly width: number; readonly height: number },
  at: Point | null,
): string | null {
  const { setup } = s;
  const k = Math.min(1, setup.width / width, setup.height / height);
  const middle = at ?? { x: setup.width / 2, y: setup.height / 2 };
  const place: Matrix = [k, 0, 0, k, middle.x - (width * k) / 2, middle.y - (height * k) / 2];
  let made: string[] = [];
  s.commit('Place a drawing', (d) => {
    made = pasteClip(d, s.page.id, clip, s.newId, place);
  });
  const id = made[0];
  if (!id || !s.design.nodes[id]) return null;
  s.select([id], { tool: 'select', view: 'work' });
  return id;
}

const placedText = (name: string, clip: Clip): string =>
  `Placed ${name}: ${count(Object.values(clip.nodes).filter((n) => n.kind !== 'group').length, 'object')} that can be changed.`;

/** What lies on the first page of a design, placed as a drawing. */
export function placeDrawn(s: Session, drawn: Design): void {
  const [page] = drawn.pages;
  const clip = copyNodes(drawn, page, page.children);
  if (clip && placeClip(s, clip, drawn.setup, null)) s.say(placedText(drawn.name, clip));
}
