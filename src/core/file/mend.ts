import { newDesign, setupOf } from '../model/defaults';
import { leftOutText } from '../model/faultText';
import { salvageDesign } from '../model/salvage';
import type { Design } from '../model/schema';
import type { Env } from '../env';
import { inOurVersion, openArchive } from './archive';
import type { Assets } from './assets';

/** What is left of a damaged file. */
export interface Mended {
  readonly design: Design;
  readonly assets: Assets;
  /** What of it cannot be read, in sentences. */
  readonly leftOut: string;
}

/**
 * The most of a damaged `.holvet` file that is a sound design; null where nothing of it is one. For a file that
 * `unpackDesign` refuses as broken. Never throws. Its small picture shows what may be gone, so it is left aside.
 */
export function mendFile(bytes: Uint8Array, env: Pick<Env, 'newId' | 'now'>): Mended | null {
  const archive = openArchive(bytes);
  const read = archive.ok ? inOurVersion(archive.value) : null;
  if (!archive.ok || !read?.ok) return null;
  try {
    const found = asFound(read.value);
    if (Object.keys(found.nodes).length > MOST_MENDED) return null;
    const salvaged = salvageDesign(read.value, newDesign('Design', setupOf(595, 842), env));
    return (
      salvaged && {
        design: salvaged.design,
        assets: archive.assets,
        leftOut: leftOutText(salvaged.leftOut, found),
      }
    );
  } catch {
    // Nested too deep to be walked through, or worse: then it is refused as it is.
    return null;
  }
}

/** Mending looks through everything several times while a person waits: of more objects than this it is not tried. */
const MOST_MENDED = 30_000;

/** What faults are named after: the objects as they stand in the file, those that are none left aside. */
function asFound(value: unknown): Pick<Design, 'nodes' | 'stories' | 'swatches'> {
  const { nodes, stories, swatches } = value as Record<string, unknown>;
  const objects = (v: unknown) =>
    Object.fromEntries(Object.entries(v ?? {}).filter(([, x]) => typeof x === 'object' && x !== null));
  return {
    nodes: objects(nodes) as Design['nodes'],
    stories: objects(stories) as Design['stories'],
    swatches: Array.isArray(swatches) ? (swatches as Design['swatches']) : [],
  };
}
