import { focusField } from '../details/focusField';
import { goToSection } from '../details/SectionIndex';
import { COMMAND_IDS, COMMAND_TABLE } from '../commands/commands';
import { keyText } from '../commands/keys';
import type { Session } from '../session/session';
import type { Findable } from './rank';

/** One thing that can be found and gone to. */
export interface FinderRow extends Findable {
  readonly id: string;
  /** What kind of thing it is, in a word beside it. */
  readonly kind: 'command' | 'field' | 'part' | 'place' | 'file' | 'not here';
  readonly keys?: string;
  readonly applies?: (s: Session) => boolean;
  readonly run: (s: Session) => void;
}

/** Presses what opens a slip, by the name that it is read by. */
function press(selector: string): void {
  document.querySelector<HTMLElement>(selector)?.click();
}
const opens = (label: string) => () => press(`[data-opens="${label}"]`);

const field = (title: string, name: string, keywords: readonly string[]): FinderRow => ({
  id: `field.${name}`,
  kind: 'field',
  title,
  keywords,
  run: (s) => {
    if (!focusField(name)) s.say(`${title} is in Details once something that has it is chosen.`);
  },
});
const part = (title: string, keywords: readonly string[], section = title): FinderRow => ({
  id: `part.${title}`,
  kind: 'part',
  title,
  keywords,
  run: (s) => {
    if (!goToSection(section)) s.say(`${title} is in Details once something that has it is chosen.`);
  },
});
const place = (title: string, keywords: readonly string[], run: (s: Session) => void): FinderRow => ({
  id: `place.${title}`,
  kind: 'place',
  title,
  keywords,
  run,
});
const file = (
  title: string,
  keywords: readonly string[],
  ask: NonNullable<Session['state']['handOver']>,
): FinderRow => ({ id: `file.${title}`, kind: 'file', title, keywords, run: (s) => s.set({ handOver: ask }) });
const notHere = (title: string, keywords: readonly string[], says: string): FinderRow => ({
  id: `none.${title}`,
  kind: 'not here',
  title,
  keywords,
  run: (s) => s.say(says),
});

/** Fields, parts of Details, slips, what is handed over, and honest answers for what is not here: a row each. */
const PLACES: readonly FinderRow[] = [
  field('Width', 'Width', [
    'size',
    'wider',
    'bigger',
    'smaller',
    'larger',
    'scale',
    'resize',
    'enlarge',
    'shrink',
    'dimensions',
    'measure',
    'grow',
  ]),
  field('Height', 'Height', ['size', 'taller', 'bigger', 'smaller', 'scale', 'resize']),
  field('Turn to an angle', 'Turn', ['rotate', 'rotation', 'angle', 'degrees', 'tilt', 'slant', 'spin', 'straighten']),
  field('Place across (X)', 'X', ['position', 'x', 'left', 'move exactly', 'coordinates']),
  field('Place down (Y)', 'Y', ['position', 'y', 'top', 'move exactly', 'coordinates']),
  field('Keep proportions', 'Keep proportions', [
    'aspect ratio',
    'link',
    'constrain',
    'squash',
    'distort',
    'proportional',
  ]),
  field('Outline weight', 'Weight', [
    'outline thickness',
    'line thickness',
    'stroke width',
    'thick',
    'thin',
    'border width',
    'line width',
    'thicker',
    'thinner',
    'border',
    'stroke',
  ]),
  field('Letter size', 'Size', ['font size', 'text size', 'bigger text', 'points', 'pt']),
  field('Face', 'Face', ['font', 'typeface', 'lettering', 'bold', 'font family']),
  field('Line spacing', 'Leading', ['leading', 'line height', 'space between lines']),
  field('Letter spacing', 'Tracking', ['tracking', 'kerning', 'space between letters', 'spread letters']),
  field('Text alignment', 'Alignment', [
    'centre text',
    'center text',
    'left',
    'right',
    'justify',
    'align text',
    'middle text',
  ]),
  field('Opacity', 'Opacity of the whole', [
    'transparent',
    'transparency',
    'see through',
    'translucent',
    'fade',
    'alpha',
    'faint',
  ]),
  field('Blend', 'Blend', ['multiply', 'screen', 'overlay', 'mode', 'blending', 'mix with below']),
  field('Corner radius', 'Radius of all corners', [
    'round corners',
    'rounded',
    'radius',
    'soft corners',
    'round edges',
  ]),
  field('Recipe line', 'Recipe line', ['type a colour', 'cmyk', 'hex', 'new colour', 'rgb', 'colour code', 'color']),
  part('Fill', ['colour inside', 'paint', 'colour', 'color', 'background colour', 'fill colour']),
  part('Outline', ['border', 'stroke', 'edge', 'line', 'frame line']),
  part('Letters', ['text colour', 'font colour', 'letter colour']),
  part('Text', ['font', 'type', 'words', 'write']),
  part('Place', ['position', 'where', 'coordinates', 'exact place', 'size and place']),
  part('Finish', ['opacity', 'blend', 'cuts its group']),
  part('Line up', [
    'align',
    'alignment',
    'centre',
    'center',
    'distribute',
    'space evenly',
    'middle of page',
    'even gaps',
  ]),
  part('Step and repeat', ['pattern', 'copies', 'array', 'grid of copies', 'ring of copies', 'duplicate many']),
  part('Corners', ['round corners', 'cut corners', 'scooped']),
  part('Shape', ['sides', 'points', 'rays', 'knobs', 'number of sides']),
  part(
    'Words on a line, or bent',
    [
      'curved text',
      'text on circle',
      'words on a path',
      'text along a line',
      'arch',
      'bend text',
      'bent words',
      'warp',
      'round text',
    ],
    'Line',
  ),
  part('Ground', ['background', 'page colour', 'paper colour', 'backdrop', 'behind everything', 'pattern of the page']),
  part('Guides', ['guide lines', 'help lines', 'ruler lines']),
  part('Snap to', ['snapping', 'magnet', 'stick', 'grid']),
  place(
    'Format',
    [
      'page size',
      'paper size',
      'a4',
      'a3',
      'letter',
      'landscape',
      'portrait',
      'orientation',
      'margins',
      'columns',
      'bleed',
      'document setup',
      'sheet size',
    ],
    opens('Format'),
  ),
  place('Pages', ['add page', 'page list', 'reorder pages', 'sheets'], opens('Pages')),
  place(
    'Inks',
    ['profile', 'paper', 'total ink', 'spot colours', 'separations', 'print shop', 'colour profile', 'icc'],
    opens('Inks'),
  ),
  place(
    'Checks',
    ['problems', 'errors', 'preflight', 'warnings', 'mistakes', 'is it ready to print', 'ready'],
    opens('Checks'),
  ),
  place('Spot library', ['spot ink', 'special colour', 'tin', 'named ink', 'colour book'], opens('Spot library')),
  place(
    'Lift a palette',
    ['colours from a picture', 'palette', 'colour scheme', 'extract colours', 'matching colours'],
    opens('Lift a palette'),
  ),
  place('Colours in use', ['count colours', 'which colours', 'how many colours'], opens('Colours in use')),
  place(
    'Swatches: sort, save, open',
    ['import swatches', 'export swatches', 'colour file', 'tidy'],
    opens('Tidy, files'),
  ),
  place(
    'Earlier states',
    ['history', 'versions', 'go back', 'undo list', 'restore', 'former', 'recover', 'revert', 'backup'],
    opens('Earlier'),
  ),
  place('Keys', ['shortcuts', 'keyboard', 'hotkeys', 'help'], opens('Keys')),
  place('Whole page', ['fit', 'zoom out', 'see all', 'fit to window', 'zoom'], opens('Whole page')),
  place('Real size', ['100 %', 'actual size', 'zoom 100', 'true size'], opens('Real size')),
  place(
    'The shelf',
    ['open', 'new design', 'all designs', 'home', 'close', 'file list', 'new document', 'start over'],
    () => location.assign('/'),
  ),
  file('PDF', ['pdf', 'print', 'export', 'printer', 'press', 'for print', 'save as pdf', 'crop marks'], {
    kind: 'pdf',
  }),
  file('Picture (PNG)', ['png', 'image', 'export', 'jpeg', 'jpg', 'save as picture', 'web', 'screenshot'], {
    kind: 'png',
    transparent: false,
  }),
  file(
    'Picture with a transparent ground',
    ['transparent', 'transparent background', 'no background', 'png', 'cut out', 'without white', 'logo file'],
    { kind: 'png', transparent: true },
  ),
  file('SVG drawing', ['svg', 'vector', 'export', 'cutting plotter', 'web'], { kind: 'svg' }),
  file('The design as a file', ['save', 'save as', 'save a copy', 'download', 'backup', 'holvet file', 'send'], {
    kind: 'holvet',
  }),
  notHere(
    'Fill in names',
    ['merge', 'mail merge', 'csv', 'name list', 'certificates', 'data'],
    'Filling in a list of names is not here yet. Duplicate the page for each name until then.',
  ),
  notHere(
    'Versions side by side',
    ['versions', 'alternatives', 'variants', 'compare'],
    'Versions side by side are not here yet. Duplicate the page for each version; earlier states are under Earlier in the strip.',
  ),
  notHere(
    'Many on a sheet',
    ['imposition', 'press sheet', 'n up', 'labels on a sheet', 'ten up'],
    'Many on a sheet is not here yet. Step and repeat in a grid on a larger page comes near.',
  ),
];

/** Everything that can be found, commands first. */
export function finderRows(): readonly FinderRow[] {
  const commands = COMMAND_IDS.map((id): FinderRow => {
    const c = COMMAND_TABLE[id];
    return {
      id,
      kind: 'command',
      title: c.label,
      keywords: c.keywords,
      ...(c.keys[0] && { keys: keyText(c.keys[0]) }),
      ...(c.applies && { applies: c.applies }),
      run: c.run,
    };
  });
  return [...commands, ...PLACES];
}
