import { runsIn } from '../../model/textLooks';
import { withDescendants } from '../../model/tree';
import { faceName } from '../../text/faces';
import type { Found, Rule } from '../types';

export const missingFaceRule: Rule<'text.missingFace'> = {
  code: 'text.missingFace',
  severity: 'stop',
  *find({ design, page, scene }): Iterable<Found<'text.missingFace'>> {
    const missing = new Set(scene.root.findings.missingFaces);
    if (!missing.size) return;
    // Words that only cut or are combined are no leaves of the scene: the pile is asked.
    for (const node of page.children.flatMap((c) => withDescendants(design, c))) {
      const n = design.nodes[node];
      if (!('story' in n) || n.hidden) continue;
      const faces = new Set(runsIn(design, design.stories[n.story]).map((r) => r.face));
      for (const face of faces) if (missing.has(face)) yield { node, facts: { face: faceName(design, face) } };
    }
  },
  say: ({ face }, name) => ({
    message: `${name} asks for the face ${face}, which is not here; another stands in.`,
    why: 'The letters will look and break differently. Add its font file (drop it on the page), or choose another face for these words.',
  }),
};

/** Faces that may not be put into files. */
export const keptFaceRule: Rule<'text.keptFace'> = {
  code: 'text.keptFace',
  severity: 'look',
  *find({ design, page }): Iterable<Found<'text.keptFace'>> {
    const kept = new Set((design.faces ?? []).flatMap((f) => (f.embedding === 'outlines' ? [f.id] : [])));
    if (!kept.size) return;
    for (const node of page.children.flatMap((c) => withDescendants(design, c))) {
      const n = design.nodes[node];
      if (!('story' in n) || n.hidden) continue;
      const faces = new Set(runsIn(design, design.stories[n.story]).map((r) => r.face));
      for (const face of faces) if (kept.has(face)) yield { node, facts: { face: faceName(design, face) } };
    }
  },
  say: ({ face }, name) => ({
    message: `${name} is set in ${face}, which its maker does not allow to be put into files.`,
    why: 'It prints all the same: its letters go out as outlines. Who opens the design elsewhere needs the face, and a printer cannot correct the words. Choose another face if that matters.',
  }),
};

export const oversetRule: Rule<'text.overset'> = {
  code: 'text.overset',
  severity: 'stop',
  *find({ scene }): Iterable<Found<'text.overset'>> {
    for (const { node, characters } of scene.root.findings.overset) yield { node, facts: { characters } };
  },
  say: ({ characters }, name) => ({
    message: `${name} has ${characters} ${characters === 1 ? 'character' : 'characters'} that do not fit its frame.`,
    why: 'What does not fit is kept but not printed. Make the frame taller or the text smaller.',
  }),
};
