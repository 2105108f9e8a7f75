import { isOwnAsset, damagedAssets, type Assets } from '@/core/file/assets';
import { packDesign } from '@/core/file/archive';
import type { Design } from '@/core/model/schema';
import { faceName } from '@/core/text/faces';
import { designStore } from './open';

/** Names of the files of its own that a design refers to. */
const assetsOf = (design: Design): string[] =>
  [
    ...new Set([
      design.profile.file,
      ...(design.pictures ?? []).map((p) => p.file),
      // What its maker does not allow to be put into files stays in this browser.
      ...(design.faces ?? []).flatMap((f) => (f.embedding === 'outlines' ? [] : [f.file])),
    ]),
  ].filter(isOwnAsset);

function nameOfAsset(design: Design, name: string): string {
  const face = design.faces?.find((f) => f.file === name);
  if (face) return faceName(design, face.id);
  return design.pictures?.find((p) => p.file === name)?.name ?? design.profile.name ?? name;
}

/** A `.holvet` file with all that belongs to the design, and the names of what this browser has not. */
export async function packWhole(
  design: Design,
  thumbnail: Uint8Array | null,
): Promise<{ readonly bytes: Uint8Array; readonly lacking: readonly string[] }> {
  const assets = new Map<string, Uint8Array>();
  const lacking: string[] = [];
  for (const name of assetsOf(design)) {
    const bytes = await designStore()
      .asset(name)
      .catch(() => null);
    if (bytes) assets.set(name, bytes);
    else lacking.push(nameOfAsset(design, name));
  }
  return { bytes: packDesign(design, thumbnail, assets), lacking };
}

/** Keeps the files that came with a design; answers a sentence if one of them is damaged. */
export async function keepAssets(assets: Assets, file: string): Promise<string | null> {
  const damaged = await damagedAssets(assets);
  if (damaged.length) return `${file} is damaged: what is inside under assets/${damaged[0]} is not what its name says.`;
  for (const [name, bytes] of assets) await designStore().addAsset(name, bytes);
  return null;
}
