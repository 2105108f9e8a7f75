import { faultText } from '../model/faultText';
import { salvageDesign } from '../model/salvage';
import { verifyDesign } from '../model/verify';
import { designOfClip, type Clip } from './clip';

/**
 * A clip as far as a design may hold it: what may not be is left out, and said in sentences. Null where nothing is
 * left.
 */
export function soundClip(clip: Clip): { readonly clip: Clip; readonly leftOut: readonly string[] } | null {
  const design = designOfClip(clip);
  if (verifyDesign(design).ok) return { clip, leftOut: [] };
  const salvaged = salvageDesign(
    design,
    designOfClip({
      ...clip,
      roots: [],
      nodes: {},
      stories: {},
      swatches: [],
      inks: [],
      pictures: [],
      textLooks: [],
      faces: [],
    }),
  );
  const roots = salvaged?.design.pages[0].children;
  if (!salvaged || !roots?.length) return null;
  const { nodes, stories, swatches, inks, pictures, textLooks, faces } = salvaged.design;
  return {
    clip: {
      format: clip.format,
      roots,
      nodes,
      stories,
      swatches,
      inks,
      ...(pictures && { pictures }),
      ...(textLooks && { textLooks }),
      ...(faces && { faces }),
    },
    leftOut: salvaged.leftOut.map((f) => faultText(f, clip)),
  };
}
