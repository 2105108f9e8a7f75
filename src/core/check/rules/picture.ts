import { effectivePpi } from '../../edit/picture';
import { walk, type Visit } from '../../scene/walk';
import { formatNumber } from '../../units/length';
import type { Found, Rule, Subject } from '../types';

/** Pixels an inch at which print looks right, begins to look soft, and falls short (common practice). */
const FINE = 300;
const SOFT = 225;
const COARSE = 150;

/** Each object's coarsest picture; on a screen pixels are what they are. */
function* coarsest({ scene, palette }: Subject): Iterable<{ node: string; ppi: number }> {
  if (palette.screen) return;
  const least = new Map<string, number>();
  walk(scene.root, ({ node, paint, matrix }) => {
    if (paint.kind === 'picture')
      least.set(
        node,
        Math.min(least.get(node) ?? Infinity, effectivePpi(palette.picture(paint.picture), paint, matrix)),
      );
  });
  for (const [node, ppi] of least) yield { node, ppi };
}

const why = `Pictures for print want ${FINE} pixels an inch; from about ${SOFT} down edges look soft, under ${COARSE} single pixels show. Make the picture smaller, or replace it by one with more pixels.`;
const message = ({ ppi }: { readonly ppi: number }, name: string) =>
  `The picture of ${name} has ${formatNumber(ppi, 0)} pixels an inch at this size.`;

export const softPictureRule: Rule<'picture.soft'> = {
  code: 'picture.soft',
  severity: 'look',
  *find(s): Iterable<Found<'picture.soft'>> {
    for (const { node, ppi } of coarsest(s))
      if (ppi < SOFT - 0.5 && ppi >= COARSE - 0.5) yield { node, facts: { ppi } };
  },
  say: (f, name) => ({ message: message(f, name), why }),
};

export const coarsePictureRule: Rule<'picture.coarse'> = {
  code: 'picture.coarse',
  severity: 'stop',
  *find(s): Iterable<Found<'picture.coarse'>> {
    for (const { node, ppi } of coarsest(s)) if (ppi < COARSE - 0.5) yield { node, facts: { ppi } };
  },
  say: (f, name) => ({ message: message(f, name), why }),
};

export const missingPictureRule: Rule<'picture.missing'> = {
  code: 'picture.missing',
  severity: 'stop',
  *find({ scene, palette }): Iterable<Found<'picture.missing'>> {
    const missing = new Map<string, string>();
    const look: Visit = ({ node, paint }) => {
      if (paint.kind === 'picture' && !missing.has(node) && !palette.pictureSource(paint.picture))
        missing.set(node, palette.picture(paint.picture).name);
    };
    walk(scene.root, look, { masks: true });
    for (const [node, picture] of missing) yield { node, facts: { picture } };
  },
  say: ({ picture }, name) => ({
    message: `The picture ${picture} of ${name} is not here.`,
    why: 'Nothing is printed in its place. Choose the object and press “Relink” beside its picture to say where the file is, or replace it.',
  }),
};
