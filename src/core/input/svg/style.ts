import { table } from '../../model/own';
import { inlineStyle, Sheets, type Declaration } from './css';
import { textOf, type Element } from './xml';

/** Properties that go down to children, with what they are at the root (SVG 1.1, appendix N). */
const INHERITED = table<string>({
  fill: 'black',
  'fill-opacity': '1',
  'fill-rule': 'nonzero',
  'clip-rule': 'nonzero',
  stroke: 'none',
  'stroke-opacity': '1',
  'stroke-width': '1',
  'stroke-linecap': 'butt',
  'stroke-linejoin': 'miter',
  'stroke-miterlimit': '4',
  'stroke-dasharray': 'none',
  'stroke-dashoffset': '0',
  color: 'black',
  visibility: 'visible',
  'marker-start': 'none',
  'marker-mid': 'none',
  'marker-end': 'none',
  'paint-order': 'normal',
  'font-family': '',
  'font-size': '16',
  'font-weight': '400',
  'font-style': 'normal',
  'text-anchor': 'start',
  'letter-spacing': '0',
  'word-spacing': '0',
  'xml:space': 'default',
  direction: 'ltr',
  'writing-mode': 'lr-tb',
});
/** Those that are an element's own. */
const OWN = table<string>({
  opacity: '1',
  display: 'inline',
  'clip-path': 'none',
  mask: 'none',
  filter: 'none',
  'mix-blend-mode': 'normal',
  isolation: 'auto',
  overflow: '',
  'stop-color': 'black',
  'stop-opacity': '1',
  'vector-effect': 'none',
  'text-decoration': 'none',
  'baseline-shift': 'baseline',
  'mask-type': 'luminance',
  transform: '',
  clip: 'auto',
  'dominant-baseline': 'auto',
  'alignment-baseline': 'auto',
});

/**
 * Properties by name; what is not an object's own comes from its prototype, so it is changed by `withStyle`, never
 * spread.
 */
export type Style = Readonly<Record<string, string>>;

/** A style with some properties changed. */
export const withStyle = (style: Style, changes: Style): Style =>
  Object.assign(Object.create(style) as Record<string, string>, changes);

/** Works out the style of elements from attributes, sheets and style attributes, each once. */
export class Styles {
  readonly sheets = new Sheets();
  private readonly known = new Map<Element, Style>();

  constructor(root: Element) {
    const look = (e: Element): void => {
      if (e.space === '' && e.name === 'style' && /^(text\/css)?$/.test(e.attributes.get('type') ?? ''))
        this.sheets.add(textOf(e));
      else e.elements.forEach(look);
    };
    look(root);
  }

  /** An element's style; where it is used elsewhere, what is inherited comes from `parent`. */
  of(e: Element, parent: Style | null): Style {
    const own = this.declared(e);
    const base = this.baseOf(parent);
    if (!own.size) return base;
    // Many elements say the same in the same place: they share what comes of it.
    const alike = this.alike.get(base) ?? new Map<ReadonlyMap<string, string>, Style>();
    if (!alike.size) this.alike.set(base, alike);
    const same = alike.get(own);
    if (same) return same;
    const out = Object.create(base) as Record<string, string>;
    // What says nothing that goes down leaves its children with what it had itself.
    let passes = true;
    let shared = true;
    for (const [property, value] of own) {
      if (property in INHERITED) passes = false;
      if (value === 'inherit') {
        // Of the parent itself, which others may not have.
        shared = false;
        if (parent?.[property] !== undefined) out[property] = parent[property];
      } else if (value === 'initial') out[property] = INHERITED[property] ?? OWN[property] ?? '';
      else out[property] = value;
    }
    if (passes) this.bases.set(out, base);
    if (own.has('font-size'))
      out['font-size'] = String(fontSize(out['font-size'], Number(parent?.['font-size'] ?? 16)));
    if (own.has('font-weight'))
      out['font-weight'] = String(fontWeight(out['font-weight'], Number(parent?.['font-weight'] ?? 400)));
    if (shared) alike.set(own, out);
    return out;
  }
  private readonly alike = new WeakMap<Style, Map<ReadonlyMap<string, string>, Style>>();

  private readonly bases = new WeakMap<Style, Style>();
  private rootBase: Style | null = null;
  /** What an element has that says nothing itself: shared by all children of a parent. */
  private baseOf(parent: Style | null): Style {
    const known = parent ? this.bases.get(parent) : this.rootBase;
    if (known) return known;
    const base: Record<string, string> = Object.assign(Object.create(null), OWN);
    for (const property in INHERITED) base[property] = parent?.[property] ?? INHERITED[property];
    if (parent) this.bases.set(parent, base);
    else this.rootBase = base;
    return base;
  }

  /** The style of an element where it stands. */
  inPlace(e: Element): Style {
    let style = this.known.get(e);
    if (!style) {
      style = this.of(e, e.parent && this.inPlace(e.parent));
      this.known.set(e, style);
    }
    return style;
  }

  /** By name and class. */
  private readonly byWord = new Map<string, Map<string, ReadonlyMap<string, string>>>();
  /** Does an element's style follow from no more than what it is called? */
  private isCalled(e: Element): boolean {
    if (!this.sheets.plain) return false;
    for (const name of e.names)
      if (name === 'style' || name === 'space' || name in INHERITED || name in OWN) return false;
    return true;
  }

  private readonly declarations = new Map<Element, ReadonlyMap<string, string>>();
  private declared(e: Element): ReadonlyMap<string, string> {
    const known = this.declarations.get(e);
    if (known) return known;
    const called = this.isCalled(e);
    const word = e.attributes.get('class') ?? '';
    const alike = called && this.byWord.get(e.name)?.get(word);
    if (alike) {
      this.declarations.set(e, alike);
      return alike;
    }
    const out = new Map<string, string>();
    for (const name of e.names) if (name in INHERITED || name in OWN) out.set(name, e.attributes.get(name)!.trim());
    if (e.attributes.get('space') === 'preserve') out.set('xml:space', 'preserve');
    const late: Declaration[] = [];
    const put = (d: Declaration) => {
      if (d.important) late.push(d);
      else out.set(d.property, d.value);
    };
    for (const d of this.sheets.matching(e)) expand(d).forEach(put);
    const inline = e.attributes.get('style');
    if (inline) for (const d of inlineStyle(inline)) expand(d).forEach(put);
    for (const d of late) out.set(d.property, d.value);
    this.declarations.set(e, out);
    if (called) {
      const words = this.byWord.get(e.name) ?? new Map<string, ReadonlyMap<string, string>>();
      this.byWord.set(e.name, words.set(word, out));
    }
    return out;
  }
}

/** Shorthands in their parts. */
function expand(d: Declaration): readonly Declaration[] {
  if (d.property === 'marker')
    return ['marker-start', 'marker-mid', 'marker-end'].map((property) => ({ ...d, property }));
  if (d.property !== 'font') return [d];
  const m = /^(.*?)\s*([\d.]+(?:px|pt|em|mm|cm|in|%)?)(?:\s*\/\s*\S+)?\s+(.+)$/.exec(d.value);
  if (!m) return [];
  const before = m[1].split(/\s+/);
  const weight = before.find((w) => /^(bold|bolder|lighter|[1-9]00)$/.test(w)) ?? '400';
  const style = before.find((w) => /^(italic|oblique)$/.test(w)) ?? 'normal';
  return [
    { ...d, property: 'font-size', value: m[2] },
    { ...d, property: 'font-family', value: m[3] },
    { ...d, property: 'font-weight', value: weight },
    { ...d, property: 'font-style', value: style },
  ];
}

const SIZES = table<number>({
  'xx-small': 9,
  'x-small': 10,
  small: 13,
  medium: 16,
  large: 18,
  'x-large': 24,
  'xx-large': 32,
});
const UNIT = table<number>({ '': 1, px: 1, pt: 96 / 72, pc: 16, mm: 96 / 25.4, cm: 96 / 2.54, in: 96 });

/** A font size in user units. */
function fontSize(text: string, parent: number): number {
  const t = text.trim().toLowerCase();
  if (SIZES[t] !== undefined) return SIZES[t];
  if (t === 'larger') return parent * 1.2;
  if (t === 'smaller') return parent / 1.2;
  const m = /^([+-]?[\d.]+(?:e[+-]?\d+)?)(px|pt|pc|mm|cm|in|em|ex|rem|%)?$/.exec(t);
  if (!m) return parent;
  const v = Number(m[1]);
  const unit = m[2] ?? '';
  const size =
    unit === '%'
      ? (parent * v) / 100
      : unit === 'em' || unit === 'rem'
        ? parent * v
        : unit === 'ex'
          ? (parent * v) / 2
          : v * UNIT[unit];
  return Number.isFinite(size) && size >= 0 ? size : parent;
}

function fontWeight(text: string, parent: number): number {
  if (text === 'bold') return 700;
  if (text === 'normal') return 400;
  if (text === 'bolder') return parent < 400 ? 400 : parent < 600 ? 700 : 900;
  if (text === 'lighter') return parent < 600 ? 100 : parent < 800 ? 400 : 700;
  const v = Number(text);
  return v >= 1 && v <= 1000 ? v : 400;
}
