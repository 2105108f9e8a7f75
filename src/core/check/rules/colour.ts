import { PROCESS } from '../../colour/palette';
import { deltaE00 } from '../../colour/compare';
import { coloursOf, eachPaintIn, eachPaintOf, visitPaints } from '../../model/paints';
import { withDescendants } from '../../model/tree';
import { usedChannels } from '../../scene/used';
import { formatNumber } from '../../units/length';
import { letterSize } from '../../scene/overprints';
import { seenOn, isMixedBlack } from '../seen';
import type { Design, Ink } from '../../model/schema';
import type { Found, Rule, Subject } from '../types';

/** From so much of each of the four on it is called a black of four inks. */
const HEAVY = 0.6;

export const mixedBlackRule: Rule<'black.mixed'> = {
  code: 'black.mixed',
  severity: 'look',
  *find({ scene, palette, limits }): Iterable<Found<'black.mixed'>> {
    if (palette.screen) return;
    const found = new Map<string, number>();
    for (const { leaf, mix } of seenOn(scene, palette)) {
      if (!mix || found.has(leaf.node) || !mix.slice(0, 4).every((v) => v >= HEAVY)) continue;
      // Of small letters their own rule speaks.
      const size = letterSize(leaf);
      if (size !== null && size < limits.richText && isMixedBlack(mix)) continue;
      found.set(
        leaf.node,
        mix.reduce((n, v) => n + v, 0),
      );
    }
    for (const [node, total] of found) yield { node, facts: { total } };
  },
  say: ({ total }, name) => ({
    message: `${name} is black made of four inks (${Math.round(total * 100)} %).`,
    why: 'It dries slowly, and its edges show colour where plates stray. Black ink alone, or with 40 % cyan below it on large areas, is as dark.',
  }),
};

export const rgbRule: Rule<'colour.rgb'> = {
  code: 'colour.rgb',
  severity: 'look',
  *find({ design, page, palette }): Iterable<Found<'colour.rgb'>> {
    if (palette.screen) return;
    const rgb = new Map(
      design.swatches.flatMap((s) => (s.kind === 'colour' && 'rgb' in s.colour ? [[s.id, s.name] as const] : [])),
    );
    const told = new Set<string>();
    for (const node of page.children.flatMap((c) => withDescendants(design, c))) {
      const n = design.nodes[node];
      let [loose, swatch]: [boolean, string | null] = [false, null];
      const meet: Parameters<typeof eachPaintOf>[1] = (p) => {
        for (const c of coloursOf(p)) {
          if ('rgb' in c) loose = true;
          else if ('swatch' in c && rgb.has(c.swatch) && !told.has(c.swatch)) swatch = c.swatch;
        }
      };
      eachPaintOf(n, meet);
      if ('story' in n) eachPaintIn(design.stories[n.story], meet);
      if (swatch !== null) {
        told.add(swatch);
        yield { node, facts: { swatch, name: rgb.get(swatch)! } };
      }
      if (loose) yield { node, facts: { swatch: null, name: '' } };
    }
  },
  say: ({ swatch, name: colour }, name) => ({
    message: swatch ? `${colour}, which ${name} has, is a colour of light.` : `${name} has a colour of light.`,
    why: 'It is turned into inks when the file is made, and some such colours print duller than they shine. Give it a recipe of inks now, and see how it prints.',
  }),
};

/** The channels that any page inks. */
function usedInJob({ design, palette, scene, page }: Subject, sceneOf: (i: number) => Subject['scene']): Set<number> {
  const used = new Set<number>();
  design.pages.forEach((p, i) => {
    for (const c of usedChannels(p === page ? scene : sceneOf(i), palette)) used.add(c);
  });
  return used;
}

export const manySpotsRule: Rule<'spot.many'> = {
  code: 'spot.many',
  severity: 'look',
  whole: true,
  *find(s): Iterable<Found<'spot.many'>> {
    if (s.palette.screen) return;
    const spots = [...usedInJob(s, s.sceneOf)].filter((c) => c >= PROCESS.length && !isTool(s, c)).length;
    const most = s.limits.spots;
    if (spots > most) yield { node: null, facts: { spots, most, limits: s.limits.name } };
  },
  say: ({ spots, most, limits }) => ({
    message: `The design needs ${spots} spot ${spots === 1 ? 'ink' : 'inks'}; “${limits}” allows ${most || 'none'}.`,
    why: 'Each spot ink is a plate and a washed press of its own. Print some from their stand-ins (Inks), or choose other limits.',
  }),
};

/** The ink of a cutter's line or of another tool is on no press. */
const isTool = ({ palette }: Subject, channel: number): boolean =>
  palette.inks[channel - PROCESS.length]?.overprints === true;

export const manyInksRule: Rule<'ink.many'> = {
  code: 'ink.many',
  severity: 'look',
  whole: true,
  *find(s): Iterable<Found<'ink.many'>> {
    if (s.palette.screen) return;
    const inks = [...usedInJob(s, s.sceneOf)].filter((c) => !isTool(s, c)).length;
    const most = s.limits.inks;
    if (inks > most) yield { node: null, facts: { inks, most, limits: s.limits.name } };
  },
  say: ({ inks, most, limits }) => ({
    message: `The design uses ${inks} inks; “${limits}” allows ${most}.`,
    why: 'A mark has to work where few inks are at hand, and each ink is paid for. Do with fewer, or choose other limits.',
  }),
};

/** Inks that any paint or swatch refers to. */
function inksReferred(design: Design): Set<string> {
  const used = new Set<string>();
  const swatches = new Map(design.swatches.map((s) => [s.id, s]));
  const note = (c: ReturnType<typeof coloursOf>[number]) => {
    if ('ink' in c) used.add(c.ink);
    if (!('swatch' in c)) return;
    const s = swatches.get(c.swatch);
    if (s?.kind === 'colour' && 'ink' in s.colour) used.add(s.colour.ink);
  };
  visitPaints(design, (p) => {
    if (p.kind === 'gradient' && 'swatch' in p.ramp) {
      const ramp = swatches.get(p.ramp.swatch);
      if (ramp?.kind === 'ramp') for (const stop of ramp.stops) note(stop.colour);
    }
    coloursOf(p).forEach(note);
  });
  return used;
}

export const unusedSpotRule: Rule<'spot.unused'> = {
  code: 'spot.unused',
  severity: 'look',
  whole: true,
  *find({ design, palette }): Iterable<Found<'spot.unused'>> {
    if (palette.screen) return;
    const used = inksReferred(design);
    for (const ink of design.inks) if (!used.has(ink.id)) yield { node: null, facts: { ink: ink.id, name: ink.name } };
  },
  say: ({ name }) => ({
    message: `Nothing is printed in ${name}.`,
    why: 'A printer who finds the ink in the job may ask, or mix it. Take it out of the design.',
  }),
};

/** Solids nearer than this (ΔE00) are one ink to any eye. */
const SAME_INK = 2;

export const twinSpotRule: Rule<'spot.twice'> = {
  code: 'spot.twice',
  severity: 'look',
  whole: true,
  *find({ design, palette }): Iterable<Found<'spot.twice'>> {
    if (palette.screen) return;
    const plain = (ink: Ink) => ink.name.toLowerCase().replace(/[\s_-]+/g, '');
    for (const [i, ink] of design.inks.entries())
      for (const other of design.inks.slice(0, i)) {
        const distance = deltaE00(ink.lab, other.lab);
        // Inks of tools are told apart by name alone.
        const alike = distance < SAME_INK && !ink.overprints && !other.overprints;
        if (alike || plain(ink) === plain(other)) {
          yield { node: null, facts: { ink: ink.id, name: ink.name, other: other.id, as: other.name, distance } };
          break;
        }
      }
  },
  say: ({ name, as, distance }) => ({
    message:
      name === as
        ? `Two spot inks are called ${name}.`
        : `${name} and ${as} are nearly one ink (ΔE00 ${formatNumber(distance, 1)}).`,
    why: 'Each gets a plate, though they are meant as one. Make them one.',
  }),
};
