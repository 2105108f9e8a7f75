import type { Design } from '../model/schema';
import { numeral } from '../text/marks';

const known = new WeakMap<Design['pages'], readonly string[]>();

/**
 * What is said of each page as its number: counted from 1, or from where a page says that numbers begin anew, in its
 * style.
 */
export function pageLabels({ pages }: Pick<Design, 'pages'>): readonly string[] {
  let labels = known.get(pages);
  if (!labels) {
    let at = 0;
    let now: NonNullable<Design['pages'][number]['numbering']> = { start: 1, style: 'decimal' };
    labels = pages.map(({ numbering }) => {
      if (numbering) [now, at] = [numbering, 0];
      return `${now.before ?? ''}${numeral(now.start + at++, now.style)}`;
    });
    known.set(pages, labels);
  }
  return labels;
}

const sections = new WeakMap<Design['pages'], readonly string[]>();

/** The section that each page lies in: the name that numbers last began anew with; empty before the first. */
export function sectionsOf({ pages }: Pick<Design, 'pages'>): readonly string[] {
  let names = sections.get(pages);
  if (!names) {
    let now = '';
    names = pages.map(({ numbering }) => (now = numbering ? (numbering.section ?? '') : now));
    sections.set(pages, names);
  }
  return names;
}
