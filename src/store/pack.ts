import { isOwnAsset, damagedAssets, type Assets } from '@/core/file/assets';
import { packDesign } from '@/core/file/archive';
import type { Design } from '@/core/model/schema';
import { designStore } from './open';

/** Names of the files of its own that a design refers to. */
export const assetsOf = (design: Design): string[] => [...new Set([design.profile.file, ...(design.pictures ?? []).map((p) => p.file)])].filter(isOwnAsset);

/** A `.holvet` file with all that belongs to the design. What this browser has not is left out. */
export async function packWhole(design: Design, thumbnail: Uint8Array | null): Promise<Uint8Array> {
  const assets = new Map<string, Uint8Array>();
  for (const name of assetsOf(design)) {
    const bytes = await designStore().asset(name).catch(() => null);
    if (bytes) assets.set(name, bytes);
  }
  return packDesign(design, thumbnail, assets);
}

/** Keeps the files that came with a design; answers a sentence if one of them is damaged. */
export async function keepAssets(assets: Assets, file: string): Promise<string | null> {
  const damaged = await damagedAssets(assets);
  if (damaged.length) return `${file} is damaged: what is inside under assets/${damaged[0]} is not what its name says.`;
  for (const [name, bytes] of assets) await designStore().addAsset(name, bytes);
  return null;
}
