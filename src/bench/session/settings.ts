import * as z from 'zod/mini';
import { colourSchema, type Colour } from '@/core/model/schema';
import type { Session } from './session';
import type { Snapping } from './state';

/** What the browser keeps at hand beside the design: colours given last, shapes drawn last, what things snap to. */

/** So many are kept of each. */
const RECENT = 10;
const snappingSchema = z.object({
  nodes: z.boolean(),
  edges: z.boolean(),
  spacing: z.boolean(),
  guides: z.boolean(),
  grid: z.boolean(),
  step: z.number().check(z.gte(0.1), z.lte(10_000)),
});

function keep(s: Session, key: string, value: unknown): void {
  void s.designs.setSetting(key, value).catch(() => {
    // Storage that fails is said where designs are saved.
  });
}
const coloursKey = (s: Session) => `recent:${s.state.design.id}`;

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

/** How large a point is on this screen, CSS pixels, as it was measured. */
export function keepRealSize(s: Session, realSize: number): void {
  s.set({ realSize });
  keep(s, 'screen:real', realSize);
}

/** Brings back what was kept; what cannot be read is as if it had not been. */
export async function loadSettings(s: Session): Promise<void> {
  const kept = async <T>(key: string, schema: z.ZodMiniType<T>): Promise<T | null> => {
    const read = schema.safeParse(await s.designs.setting(key).catch(() => undefined));
    return read.success ? read.data : null;
  };
  const recent = await kept(coloursKey(s), z.array(colourSchema).check(z.maxLength(RECENT)));
  if (recent && !s.state.recent.length) s.set({ recent });
  const realSize = await kept('screen:real', z.number().check(z.gte(0.3), z.lte(5)));
  if (realSize) s.set({ realSize });
  const snapping = await kept('snapping', snappingSchema);
  if (snapping) s.set({ snapping });
  const unfolded = await kept(
    `unfolded:${s.state.design.id}`,
    z.array(z.string().check(z.maxLength(64))).check(z.maxLength(2000)),
  );
  if (unfolded && !s.state.unfolded.size)
    s.set({ unfolded: new Set(unfolded.filter((id) => s.state.design.nodes[id])) });
  const names = z.array(z.string().check(z.maxLength(80))).check(z.maxLength(200));
  const [recentFaces, likedFaces] = [await kept('faces:recent', names), await kept('faces:liked', names)];
  if (recentFaces && !s.state.recentFaces.length) s.set({ recentFaces });
  if (likedFaces && !s.state.likedFaces.length) s.set({ likedFaces });
  const ownFaces = await s.designs.faces().catch(() => []);
  if (ownFaces.length && !s.state.ownFaces.length) s.set({ ownFaces });
  const folded = await kept('details:folded', z.array(z.string().check(z.maxLength(80))).check(z.maxLength(200)));
  if (folded && !s.state.folded.length) s.set({ folded });
  const recentShapes = await kept('shapes:recent', z.array(z.string()).check(z.maxLength(RECENT)));
  if (recentShapes && !s.state.recentShapes.length) s.set({ recentShapes });
}
