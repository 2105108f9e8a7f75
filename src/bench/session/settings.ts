import type { Limits } from '@/core/model/checksSchema';
import type { Colour } from '@/core/model/schema';
import type { Signature } from '@/core/edit/signature';
import type { PdfOptions } from '@/core/output/pdf/options';
import type { Growing } from '@/core/edit/place';
import type { Session } from './session';
import type { Snapping } from './state';

/** What the browser keeps at hand beside the design: colours given last, shapes drawn last, what things snap to. */

/** So many are kept of each. */
export const RECENT = 10;

function keep(s: Session, key: string, value: unknown): void {
  void s.designs.setSetting(key, value).catch(() => {
    // Storage that fails is said where designs are saved.
  });
}
export const coloursKey = (s: Session) => `recent:${s.state.design.id}`;

/** Notes a colour as given last, in this design. */
export function noteColour(s: Session, colour: Colour): void {
  const key = JSON.stringify(colour);
  const recent = [colour, ...s.state.recent.filter((c) => JSON.stringify(c) !== key)].slice(0, RECENT);
  s.set({ recent });
  keep(s, coloursKey(s), recent);
}

/** Notes a dialled shape as drawn last, in any design. */
export function noteShape(s: Session, id: string): void {
  const recentShapes = [id, ...s.state.recentShapes.filter((x) => x !== id)].slice(0, RECENT);
  s.set({ recentShapes });
  keep(s, 'shapes:recent', recentShapes);
}

/** Notes a face as given last, in any design. */
export function noteFace(s: Session, id: string): void {
  const recentFaces = [id, ...s.state.recentFaces.filter((x) => x !== id)].slice(0, RECENT);
  s.set({ recentFaces });
  keep(s, 'faces:recent', recentFaces);
}

/** Keeps a family first in the list of faces, or no longer. */
export function favourFace(s: Session, family: string): void {
  const { likedFaces: old } = s.state;
  const likedFaces = old.includes(family) ? old.filter((x) => x !== family) : [...old, family].slice(-100);
  s.set({ likedFaces });
  keep(s, 'faces:liked', likedFaces);
}

/** What things snap to, in any design. */
export function setSnapping(s: Session, change: Partial<Snapping>): void {
  const snapping = { ...s.state.snapping, ...change };
  s.set({ snapping });
  keep(s, 'snapping', snapping);
}

/** What grows with an object that is sized, in any design. */
export function setGrowing(s: Session, change: Partial<Growing>): void {
  const growing = { ...s.state.growing, ...change };
  s.set({ growing });
  keep(s, 'growing', growing);
}

/** Folds a section of Details, or opens it again, in any design. */
export function foldSection(s: Session, key: string, on: boolean): void {
  const folded = [...s.state.folded.filter((k) => k !== key), ...(on ? [key] : [])].slice(-200);
  s.set({ folded });
  keep(s, 'details:folded', folded);
}

/** Groups that are open in the pile of this design. */
export function keepUnfolded(s: Session, unfolded: ReadonlySet<string>): void {
  const there = new Set([...unfolded].filter((id) => s.state.design.nodes[id]));
  s.set({ unfolded: there });
  keep(s, `unfolded:${s.state.design.id}`, [...there].slice(-2000));
}

/** Keeps a set of limits under its name, in any design. */
export function keepLimitSet(s: Session, limits: Limits): void {
  const limitSets = [...s.state.limitSets.filter((l) => l.name !== limits.name), limits].slice(-30);
  s.set({ limitSets });
  keep(s, 'limits', limitSets);
  s.say(`Kept “${limits.name}”: other designs can be held against it too.`);
}

/** Keeps options of PDFs under a name, in any design; without options: no longer. */
export function keepPreset(s: Session, name: string, options: PdfOptions | null): void {
  const others = s.state.pdfPresets.filter((p) => p.name !== name);
  const pdfPresets = (options ? [...others, { name, options }] : others).slice(-30);
  s.set({ pdfPresets });
  keep(s, 'pdf:presets', pdfPresets);
}

/** Keeps a signature, or lets go of it: the latest first, for every design. */
export function keepSignatures(s: Session, signatures: readonly Signature[]): void {
  const kept = signatures.slice(0, RECENT);
  s.set({ signatures: kept });
  keep(s, 'signatures', kept);
}

/** How large a point is on this screen, CSS pixels, as it was measured. */
export function keepRealSize(s: Session, realSize: number): void {
  s.set({ realSize });
  keep(s, 'screen:real', realSize);
}
