import { own, table } from './own';
import type { Design } from './schema';
import type { Fault } from './verify';

/** What of a node holds its place and measures. */
const PLACE = new Set(['transform', 'width', 'height', 'path', 'arrangement', 'inset', 'window']);

/** A fault as a sentence a person understands: which thing, and what is wrong with it. */
export function faultText(fault: Fault, d: Pick<Design, 'nodes' | 'stories' | 'swatches'>): string {
  const [kind, key, part] = fault.path;
  const about = aboutOf(d, kind, key);
  if (!about) return `${fault.where}: ${fault.what}.`;
  if (kind !== 'nodes' || typeof part !== 'string') return `${about}: ${fault.what}.`;
  const numeric = typeof fault.path.at(-1) === 'number' || PLACE.has(String(fault.path.at(-1)));
  if (PLACE.has(part) && numeric && /^it is (more|less|not a number|larger)/.test(fault.what))
    return `${about} would lie or reach further than 20 m from its page.`;
  if (fault.path.includes('geometry'))
    return `A gradient or picture of ${about} would lie or reach further than 20 m from its page.`;
  if (part === 'outlines' && fault.path.at(-1) === 'width') return `The outline of ${about} would be wider than 20 m.`;
  if (PLACE.has(part) && part !== 'path')
    return `${about}: where it lies or how large it is cannot be read (${fault.what}).`;
  return `${about}: ${WORDS[part] ?? part}: ${fault.what}.`;
}

/** Many faults in short: the first two in full, and how many more. */
export function leftOutText(faults: readonly Fault[], d: Pick<Design, 'nodes' | 'stories' | 'swatches'>): string {
  const shown = [...new Set(faults.map((f) => faultText(f, d)))];
  const more = shown.length - 2;
  return `${shown.slice(0, 2).join(' ')}${more > 0 ? ` And ${more} more.` : ''}`;
}

const WORDS = table<string>({
  outlines: 'outline',
  letterOutlines: 'outline',
  fills: 'fill',
  knobs: 'knobs',
  children: 'what it holds',
  path: 'its line',
  opacity: 'opacity',
  corners: 'corners',
});

function aboutOf(
  d: Pick<Design, 'nodes' | 'stories' | 'swatches'>,
  kind: string | number | undefined,
  key: string | number | undefined,
): string | null {
  if (kind === 'nodes') return named(own(d.nodes, String(key))?.name, 'An object');
  if (kind === 'stories')
    return named(Object.values(d.nodes).find((n) => 'story' in n && n.story === key)?.name, 'A text');
  if (kind === 'swatches' && typeof key === 'number') return named(d.swatches[key]?.name, 'A swatch');
  return null;
}

const named = (name: string | undefined, otherwise: string): string => (name ? `“${name}”` : otherwise);
