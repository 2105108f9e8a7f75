import { otherPaper } from '../limits';
import { PROFILES } from '../../model/defaults';
import { walk } from '../../scene/walk';
import type { Found, Rule } from '../types';

export const hiddenLayerRule: Rule<'layer.hidden'> = {
  code: 'layer.hidden',
  severity: 'look',
  *find({ design, page }): Iterable<Found<'layer.hidden'>> {
    for (const id of page.children) {
      const n = design.nodes[id];
      // What is shown and never printed is called so itself.
      if (n?.kind === 'group' && n.layer && n.hidden && !n.proof && n.children.length) yield { node: id, facts: {} };
    }
  },
  say: (_, name) => ({
    message: `The layer ${name} is hidden and will not be printed.`,
    why: 'Show it if it belongs to the job; waive this if it does not.',
  }),
};

export const emptyPageRule: Rule<'page.empty'> = {
  code: 'page.empty',
  severity: 'look',
  *find({ design, scene }): Iterable<Found<'page.empty'>> {
    if (design.pages.length < 2) return;
    let any = false;
    walk(scene.root, () => {
      any = true;
      return false;
    });
    if (!any) yield { node: null, facts: {} };
  },
  say: (_, name) => ({
    message: `${name} is empty.`,
    why: 'It will be printed as a blank page. Delete it, or waive this where it is meant.',
  }),
};

export const pageCountRule: Rule<'page.count'> = {
  code: 'page.count',
  severity: 'look',
  whole: true,
  *find({ design, palette }): Iterable<Found<'page.count'>> {
    const pages = design.pages.length;
    if (!palette.screen && design.setup.facing && pages > 4 && pages % 4) yield { node: null, facts: { pages } };
  },
  say: ({ pages }) => ({
    message: `A stapled booklet has pages in fours; this has ${pages}.`,
    why: `${4 - (pages % 4)} blank ${4 - (pages % 4) === 1 ? 'page' : 'pages'} would be added at its end. Add or take away pages.`,
  }),
};

export const otherPaperRule: Rule<'paper.other'> = {
  code: 'paper.other',
  severity: 'look',
  whole: true,
  *find({ design, limits, palette }): Iterable<Found<'paper.other'>> {
    if (palette.screen || !otherPaper(design)) return;
    const paper = PROFILES.find((p) => p.file === design.profile.file)!.name.toLowerCase();
    yield { node: null, facts: { limits: limits.name, paper } };
  },
  say: ({ limits, paper }) => ({
    message: `The limits are those of “${limits}”, but colours are made for ${paper} paper.`,
    why: 'Colours come out darker or paler than shown on another paper. Choose the paper that the job is printed on in Inks.',
  }),
};
