import { adoptFace } from '@/core/edit/carryText';
import { replaceFace } from '@/core/edit/faces';
import type { DesignDraft } from '@/core/edit/history';
import { setRunLook } from '@/core/edit/text';
import { isText } from '@/core/derive/layout';
import type { OwnFace } from '@/core/model/faceSchema';
import { faceName } from '@/core/text/faces';
import { storageProblem } from '@/store/open';
import { count, freeSelection } from '../session/commandDef';
import { opening } from '../session/opening';
import type { Session } from '../session/session';
import { noteFace } from '../session/settings';

/** A face that a person brought joins the design with the first letters that ask for it. */
function bringFace(s: Session, d: DesignDraft, id: string): void {
  const own = s.state.ownFaces.find((f) => f.id === id);
  if (own) adoptFace(d, own);
}

/**
 * Opens a font file, tries its faces out and keeps them in this browser; says why where that does not work. Words that
 * missed one of them have it at once.
 */
export async function addFaces(s: Session, name: string, bytes: Uint8Array): Promise<readonly OwnFace[]> {
  const read = await opening(s, name, s.pictureWorker.faces(bytes));
  if (!read.ok) {
    s.say(`${name} cannot be used: ${read.message}.`, 'warn');
    return [];
  }
  const faces = read.faces.map((f) => f.facts);
  try {
    for (const f of read.faces) await s.designs.addFace(f.facts, f.bytes);
  } catch (e) {
    s.say(`${name} could not be kept: ${storageProblem(e)}`, 'stop');
    return [];
  }
  const ids = new Set(faces.map((f) => f.id));
  s.set({ ownFaces: [...faces, ...s.state.ownFaces.filter((f) => !ids.has(f.id))] });
  const missed = faces.filter((f) => s.engines.fonts.failures.has(f.id));
  if (missed.length) {
    s.engines.fonts.retry(ids);
    await s.loadFaces([...ids]);
    await s.press.open(s.state.design);
  }
  tell(s, faces, missed.length > 0);
  return faces;
}

function tell(s: Session, faces: readonly OwnFace[], missed: boolean): void {
  const [first] = faces;
  const name = faces.length === 1 ? faceName({ faces }, first.id) : `${count(faces.length, 'face')} of ${first.family}`;
  const kept = faces.some((f) => f.embedding === 'outlines')
    ? ' Its maker does not let it be put into files: in a PDF its letters become outlines, and a saved file goes without it.'
    : '';
  const texts = s.state.readOnly ? [] : freeSelection(s).filter((id) => isText(s.design.nodes[id]));
  if (missed) s.say(`${name} is here now: the words that missed it have it again.${kept}`);
  else if (texts.length)
    s.say(`Added ${name}.${kept}`, 'plain', { label: 'Use it for the chosen text', run: () => setFace(s, first.id) });
  else s.say(`Added ${name}. You find it in the list of faces.${kept}`);
}

/** A face for all letters of the chosen texts. */
function setFace(s: Session, face: string): void {
  void s.loadFaces([face]);
  const done = s.commit('Face', (d) => {
    bringFace(s, d, face);
    for (const id of freeSelection(s)) {
      const n = s.design.nodes[id];
      if (isText(n))
        d.stories[n.story] = setRunLook(s.design.stories[n.story], 0, 0, { face }) as DesignDraft['stories'][string];
    }
  });
  if (done) noteFace(s, face);
}

/** Another face wherever the design asks for one. */
export function replaceFaceEverywhere(s: Session, from: string, to: string): void {
  void s.loadFaces([to]);
  const old = faceName(s.design, from);
  const done = s.commit(`Replace ${old}`, (d) => {
    bringFace(s, d, to);
    replaceFace(d, from, to);
  });
  if (!done) return;
  noteFace(s, to);
  s.say(`${faceName(s.design, to)} stands everywhere in the place of ${old}.`);
}

/** Takes faces out of the list; designs that have them keep them. */
export async function forgetFaces(s: Session, ids: readonly string[]): Promise<void> {
  const gone = s.state.ownFaces.filter((f) => ids.includes(f.id));
  if (!gone.length) return;
  const name = gone.length === 1 ? faceName({ faces: gone }, gone[0].id) : gone[0].family;
  try {
    for (const f of gone) await s.designs.removeFace(f.id);
  } catch (e) {
    s.say(`${name} is still in the list: ${storageProblem(e)}`, 'stop');
    return;
  }
  s.set({ ownFaces: s.state.ownFaces.filter((f) => !ids.includes(f.id)) });
  s.say(`${name} is out of the list. Designs that use it keep it.`);
}
