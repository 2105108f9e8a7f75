import { signatureSchema } from '@/core/edit/signature';
import { pdfPresetSchema } from '@/core/output/pdf/presets';
import * as z from 'zod/mini';
import { limitsSchema } from '@/core/model/checksSchema';
import { colourSchema } from '@/core/model/schema';
import type { Session } from './session';
import { coloursKey, RECENT } from './settings';

const snappingSchema = z.object({
  nodes: z.boolean(),
  edges: z.boolean(),
  spacing: z.boolean(),
  guides: z.boolean(),
  grid: z.boolean(),
  step: z.number().check(z.gte(0.1), z.lte(10_000)),
});

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
  const growing = await kept(
    'growing',
    z.object({ lines: z.boolean(), corners: z.boolean(), paints: z.boolean(), effects: z.boolean() }),
  );
  if (growing) s.set({ growing });
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
  const limitSets = await kept('limits', z.array(limitsSchema).check(z.maxLength(30)));
  if (limitSets && !s.state.limitSets.length) s.set({ limitSets });
  const presets = await kept('pdf:presets', z.array(pdfPresetSchema).check(z.maxLength(30)));
  if (presets && !s.state.pdfPresets.length) s.set({ pdfPresets: presets });
  const signatures = await kept('signatures', z.array(signatureSchema).check(z.maxLength(RECENT)));
  if (signatures && !s.state.signatures.length) s.set({ signatures });
  const recentShapes = await kept('shapes:recent', z.array(z.string()).check(z.maxLength(RECENT)));
  if (recentShapes && !s.state.recentShapes.length) s.set({ recentShapes });
}
