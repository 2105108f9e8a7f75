import { generate, parse, walk, type CssNode, type Selector } from 'css-tree';
import { SvgProblem, type Element } from './xml';

export interface Declaration {
  readonly property: string;
  readonly value: string;
  readonly important: boolean;
}
interface Rule {
  /** The parts of its selector. */
  readonly parts: readonly CssNode[];
  readonly specificity: number;
  /** Which rule of the file it is. */
  order: number;
  readonly declarations: readonly Declaration[];
}

/** More rules style no drawing; and so many looks at parts of selectors are more than any needs. */
const MOST_RULES = 20_000;
const MOST_LOOKS = 5_000_000;

/** Style sheets of a file, ready to be asked which of their rules meet an element. */
export class Sheets {
  private count = 0;
  /** Rules by what their last compound asks for first: an element looks only at those that may be about it. */
  private readonly byId = new Map<string, Rule[]>();
  private readonly byClass = new Map<string, Rule[]>();
  private readonly byType = new Map<string, Rule[]>();
  private readonly others: Rule[] = [];
  private readonly budget = { looks: 0 };
  /** Does no rule ask for more than an element's name and classes? */
  plain = true;
  /** What the sheets ask for that is not followed. */
  readonly notes = new Set<string>();

  add(text: string): void {
    let sheet: CssNode;
    try {
      sheet = parse(text, { parseValue: false, onParseError: () => {} });
    } catch {
      this.notes.add('A style sheet could not be read.');
      return;
    }
    const notes = this.notes;
    const put = (rule: Rule) => this.put(rule);
    walk(sheet, {
      enter(node: CssNode) {
        if (node.type === 'Atrule') {
          if (node.name === 'import') notes.add('A style sheet outside the file is not fetched.');
          else if (node.name === 'font-face') notes.add('Fonts that a style sheet names are not fetched.');
          else if (node.name === 'media' && !/^\s*(all|screen)\s*$/.test(node.prelude ? generate(node.prelude) : ''))
            return walk.skip;
        }
        if (node.type !== 'Rule') return undefined;
        if (node.prelude.type === 'SelectorList') {
          const declarations = declarationsOf(node.block);
          for (const selector of node.prelude.children)
            if (selector.type === 'Selector')
              put({ parts: selector.children.toArray(), specificity: specificityOf(selector), declarations, order: 0 });
        }
        return walk.skip;
      },
    });
  }

  private put(rule: Rule): void {
    if (this.count >= MOST_RULES) {
      this.notes.add(`Style rules beyond the first ${MOST_RULES} are left out.`);
      return;
    }
    rule.order = this.count++;
    if (rule.parts.some((p) => p.type !== 'ClassSelector' && p.type !== 'TypeSelector')) this.plain = false;
    let [id, cls, type]: (string | null)[] = [null, null, null];
    for (let i = rule.parts.length - 1; i >= 0 && rule.parts[i].type !== 'Combinator'; i--) {
      const part = rule.parts[i];
      if (part.type === 'IdSelector') id = part.name;
      else if (part.type === 'ClassSelector') cls = part.name;
      else if (part.type === 'TypeSelector' && part.name !== '*') type = part.name;
    }
    const [map, key] = id !== null ? [this.byId, id] : cls !== null ? [this.byClass, cls] : [this.byType, type];
    if (key === null) this.others.push(rule);
    else map.set(key, [...(map.get(key) ?? []), rule]);
  }

  /**
   * Declarations that meet an element, the weakest first; later ones win among equals. Throws where that is too much
   * work.
   */
  matching(e: Element): readonly Declaration[] {
    if (!this.count) return [];
    const id = e.attributes.get('id');
    const candidates = [
      ...(this.byType.get(e.name) ?? []),
      ...new Set((e.attributes.get('class') ?? '').split(/\s+/).flatMap((c) => this.byClass.get(c) ?? [])),
      ...((id !== undefined && this.byId.get(id)) || []),
      ...this.others,
    ];
    const met = candidates.filter((r) => from(e, r.parts, r.parts.length, this.budget));
    return met.sort((a, b) => a.specificity - b.specificity || a.order - b.order).flatMap((r) => r.declarations);
  }
}

/** Nothing that a parser is needed for: no quotes, brackets, escapes, comments or important ones. */
const SIMPLE = /^\s*(?:[a-z-]+\s*:[\w\s#.,%+-]+(?:;\s*|$))*$/;

/** The declarations of a style attribute. */
export function inlineStyle(text: string): readonly Declaration[] {
  if (SIMPLE.test(text))
    return text.split(';').flatMap((part) => {
      const at = part.indexOf(':');
      const value = part.slice(at + 1).trim();
      return value ? [{ property: part.slice(0, at).trim(), value, important: false }] : [];
    });
  try {
    return declarationsOf(parse(text, { context: 'declarationList', parseValue: false, onParseError: () => {} }));
  } catch {
    return [];
  }
}

function declarationsOf(node: CssNode): Declaration[] {
  const out: Declaration[] = [];
  walk(node, (n) => {
    if (n.type !== 'Declaration') return;
    const value = generate(n.value).trim();
    if (value) out.push({ property: n.property.toLowerCase(), value, important: n.important === true });
  });
  return out;
}

function specificityOf(s: Selector): number {
  let n = 0;
  for (const part of s.children) {
    if (part.type === 'IdSelector') n += 10_000;
    else if (part.type === 'ClassSelector' || part.type === 'AttributeSelector' || part.type === 'PseudoClassSelector')
      n += 100;
    else if (part.type === 'TypeSelector' && part.name !== '*') n += 1;
  }
  return n;
}

/** Does an element meet a selector (CSS 2.1, chapter 5)? Read from its end: the last compound is the element itself. */
function from(e: Element, parts: readonly CssNode[], end: number, budget: { looks: number }): boolean {
  let i = end;
  while (i > 0 && parts[i - 1].type !== 'Combinator') {
    if (++budget.looks > MOST_LOOKS)
      throw new SvgProblem('its style rules and parts come to too many pairs to be looked through');
    if (!simple(e, parts[i - 1])) return false;
    i--;
  }
  if (i === 0) return true;
  const combinator = parts[i - 1];
  const rest = i - 1;
  switch (combinator.type === 'Combinator' ? combinator.name : '') {
    case ' ':
      for (let p = e.parent; p; p = p.parent) if (from(p, parts, rest, budget)) return true;
      return false;
    case '>':
      return e.parent !== null && from(e.parent, parts, rest, budget);
    case '+': {
      const before = e.parent && e.parent.elements[e.index - 1];
      return before ? from(before, parts, rest, budget) : false;
    }
    case '~': {
      const siblings = e.parent ? e.parent.elements : [];
      for (let i = 0; i < e.index; i++) if (from(siblings[i], parts, rest, budget)) return true;
      return false;
    }
    default:
      return false;
  }
}

function simple(e: Element, part: CssNode): boolean {
  switch (part.type) {
    case 'TypeSelector':
      return part.name === '*' || part.name === e.name;
    case 'IdSelector':
      return e.attributes.get('id') === part.name;
    case 'ClassSelector':
      return (e.attributes.get('class') ?? '').split(/\s+/).includes(part.name);
    case 'AttributeSelector': {
      const value = e.attributes.get(part.name.name);
      if (value === undefined) return false;
      if (!part.matcher || !part.value) return true;
      const want = part.value.type === 'String' ? part.value.value : part.value.name;
      switch (part.matcher) {
        case '=':
          return value === want;
        case '~=':
          return value.split(/\s+/).includes(want);
        case '|=':
          return value === want || value.startsWith(`${want}-`);
        case '^=':
          return want !== '' && value.startsWith(want);
        case '$=':
          return want !== '' && value.endsWith(want);
        case '*=':
          return want !== '' && value.includes(want);
        default:
          return false;
      }
    }
    case 'PseudoClassSelector':
      // The root is a first and last child too (Selectors Level 4).
      if (part.name === 'first-child') return e.index === 0;
      if (part.name === 'last-child') return e.parent === null || e.parent.elements.length === e.index + 1;
      if (part.name === 'root') return e.parent === null;
      if (part.name === 'nth-child') {
        const text = part.children ? [...part.children].map((c) => generate(c)).join('') : '';
        return nth(text.trim(), e.index + 1);
      }
      return false;
    default:
      return false;
  }
}

function nth(text: string, at: number): boolean {
  if (text === 'odd') return at % 2 === 1;
  if (text === 'even') return at % 2 === 0;
  const m = /^([+-]?\d*)n\s*(?:([+-])\s*(\d+))?$|^([+-]?\d+)$/.exec(text);
  if (!m) return false;
  if (m[4]) return at === Number(m[4]);
  const a = m[1] === '' || m[1] === '+' ? 1 : m[1] === '-' ? -1 : Number(m[1]);
  const b = m[3] ? Number(`${m[2]}${m[3]}`) : 0;
  return a === 0 ? at === b : (at - b) / a >= 0 && Number.isInteger((at - b) / a);
}
