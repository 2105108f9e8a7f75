import { effectivePpi } from '../../edit/picture';
import { multiply } from '../../geometry/matrix';
import { walk, type Visit } from '../../scene/walk';
import { formatNumber } from '../../units/length';
import { SAMPLES, type Pixels, type PictureSource } from '../../pictures/source';
import type { Found, Rule, Subject } from '../types';

/** Pixels an inch at which print looks right (common practice); where it begins to look soft is a limit of the job. */
const FINE = 300;

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

const why = `Pictures for print want about ${FINE} pixels an inch; with fewer edges look soft, and with far fewer single pixels show. Make the picture smaller, or replace it by one with more pixels.`;
const message = ({ ppi }: { readonly ppi: number }, name: string) =>
  `The picture of ${name} has ${formatNumber(ppi, 0)} pixels an inch at this size.`;

export const softPictureRule: Rule<'picture.soft'> = {
  code: 'picture.soft',
  severity: 'look',
  *find(s): Iterable<Found<'picture.soft'>> {
    for (const { node, ppi } of coarsest(s))
      if (ppi < s.limits.softPpi - 0.5 && ppi >= s.limits.coarsePpi - 0.5) yield { node, facts: { ppi } };
  },
  say: (f, name) => ({ message: message(f, name), why }),
};

export const coarsePictureRule: Rule<'picture.coarse'> = {
  code: 'picture.coarse',
  severity: 'stop',
  *find(s): Iterable<Found<'picture.coarse'>> {
    for (const { node, ppi } of coarsest(s)) if (ppi < s.limits.coarsePpi - 0.5) yield { node, facts: { ppi } };
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

export const finePictureRule: Rule<'picture.fine'> = {
  code: 'picture.fine',
  severity: 'look',
  *find(s): Iterable<Found<'picture.fine'>> {
    const most = s.limits.mostPpi;
    for (const { node, ppi } of coarsest(s)) if (ppi > most + 0.5) yield { node, facts: { ppi, most } };
  },
  say: ({ ppi, most }, name) => ({
    message: `The picture of ${name} has ${formatNumber(ppi, 0)} pixels an inch at this size.`,
    why: `Print shows no more than about ${most}; the rest only makes the file heavy. Replace it by a smaller one.`,
  }),
};

/** What halving loses of a blown-up picture is less than this share of what halving it again loses; of others more. */
const LITTLE = 0.4;
/** A picture that loses less than this (of 255) at its second halving is soft by nature: nothing can be told. */
const SOFT = 1.5;
const blown = new WeakMap<PictureSource, boolean>();

/** Did a program add pixels to a picture? Its finest detail is far weaker then than that which is twice as wide. */
function isBlownUp(source: PictureSource): boolean {
  let answer = blown.get(source);
  if (answer === undefined) {
    const [first, second] = [lost(source.full, source.level(1)), lost(source.level(1), source.level(2))];
    blown.set(source, (answer = second > SOFT && first < LITTLE * second));
  }
  return answer;
}

/** So many pixels tell as much as all. */
const LOOKED_AT = 150_000;

/** What is lost when a picture is halved and enlarged again: the root of the mean square, of its first samples. */
function lost(full: Pixels, half: Pixels): number {
  const n = SAMPLES[full.space];
  let [sum, count] = [0, 0];
  // Rows far enough from each other; an odd number, so that both of two rows that became one are met.
  const apart = Math.max(3, Math.ceil((full.width * full.height) / LOOKED_AT) | 1);
  for (let y = 1; y < 2 * half.height - 1; y += apart)
    for (let x = 1; x < 2 * half.width - 1; x++) {
      const [u, v] = [(x - 0.5) / 2, (y - 0.5) / 2];
      const [x0, y0] = [Math.min(half.width - 2, Math.floor(u)), Math.min(half.height - 2, Math.floor(v))];
      const [fx, fy] = [u - x0, v - y0];
      const at = (i: number, j: number) => half.data[((y0 + j) * half.width + x0 + i) * n];
      const soft = (at(0, 0) * (1 - fx) + at(1, 0) * fx) * (1 - fy) + (at(0, 1) * (1 - fx) + at(1, 1) * fx) * fy;
      sum += (full.data[(y * full.width + x) * n] - soft) ** 2;
      count++;
    }
  return count ? Math.sqrt(sum / count) : 0;
}

export const blownUpPictureRule: Rule<'picture.blownUp'> = {
  code: 'picture.blownUp',
  severity: 'look',
  *find(s): Iterable<Found<'picture.blownUp'>> {
    const sources = new Map<string, string>();
    walk(s.scene.root, ({ node, paint }) => void (paint.kind === 'picture' && sources.set(node, paint.picture)));
    for (const { node, ppi } of coarsest(s)) {
      // Where half of its pixels would do, nothing is lost.
      if (ppi / 2 >= s.limits.softPpi - 0.5 || ppi < s.limits.softPpi - 0.5) continue;
      const source = s.palette.pictureSource(sources.get(node)!);
      if (source && source.width > 64 && source.height > 64 && isBlownUp(source)) yield { node, facts: { ppi } };
    }
  },
  say: ({ ppi }, name) => ({
    message: `The picture of ${name} looks enlarged: of its ${formatNumber(ppi, 0)} pixels an inch half would show as much.`,
    why: 'Pixels that a program added bring no detail. If there is a sharper original, take that; a soft one may be meant so.',
  }),
};

/** A picture stretched by less looks as it came. */
const STRETCHED = 0.02;

export const stretchedPictureRule: Rule<'picture.stretched'> = {
  code: 'picture.stretched',
  severity: 'look',
  *find({ scene, palette }): Iterable<Found<'picture.stretched'>> {
    const found = new Map<string, number>();
    walk(scene.root, ({ node, paint, matrix }) => {
      if (paint.kind !== 'picture') return;
      const { width, height } = palette.picture(paint.picture);
      const m = multiply(matrix, paint.geometry);
      const by = width / Math.hypot(m[0], m[1]) / (height / Math.hypot(m[2], m[3]));
      if (Math.abs(Math.log(by)) > STRETCHED) found.set(node, by);
    });
    for (const [node, by] of found) yield { node, facts: { by } };
  },
  say: ({ by }, name) => ({
    message: `The picture of ${name} is stretched: ${Math.round((Math.max(by, 1 / by) - 1) * 100)} % ${by > 1 ? 'too high' : 'too wide'}.`,
    why: 'Faces and circles show it at once. Give it its own proportions again, or waive this where it is meant.',
  }),
};
