// What a person types into a field of numbers.
import { UNITS, type Unit } from './length';

export type Parsed = { readonly ok: true; readonly value: number } | { readonly ok: false; readonly message: string };

/** A value and whether it carries a length; a plain number takes the field's unit in the end. */
interface Quantity {
  readonly n: number;
  readonly length: boolean;
}

/**
 * Reads what a person types into a length field: `12mm`, `0.5in`, `3pt+1mm`, `210/3`, `(20+5)*2`. Plain numbers are in
 * `unit`. The answer is in points, or a sentence that says what is wrong.
 */
export function parseLength(text: string, unit: Unit): Parsed {
  return parse(text, (q) => (q.length ? q.n : q.n * UNITS[unit]), unit);
}

/**
 * The same arithmetic for numbers without a unit (degrees, counts, percent); `suffix` such as `°` or `%` may follow.
 */
export function parseNumber(text: string, suffix = ''): Parsed {
  const bare = suffix ? text.split(suffix.trim()).join('') : text;
  return parse(bare, (q) => (q.length ? NaN : q.n), null);
}

class Problem extends Error {}

function parse(text: string, finish: (q: Quantity) => number, unit: Unit | null): Parsed {
  const source = text
    .trim()
    .toLowerCase()
    .replace(/,(?=\d)/g, '.')
    .replace(/×/g, '*')
    .replace(/÷/g, '/')
    .replace(/−/g, '-');
  if (source === '') return { ok: false, message: 'Type a number.' };
  if (source.length > 200) return { ok: false, message: 'That is too long for a number.' };
  const tokens = source.match(/\d+\.?\d*(?:e[+-]?\d+)?|\.\d+|[a-z"″°%]+|[-+*/()]|\S/g) ?? [];
  let at = 0;
  const peek = () => tokens[at];
  const asLength = (q: Quantity): Quantity => (q.length ? q : { n: q.n * UNITS[unit ?? 'pt'], length: true });

  function sum(): Quantity {
    let left = product();
    while (peek() === '+' || peek() === '-') {
      const sign = tokens[at++] === '+' ? 1 : -1;
      const right = product();
      if (left.length || right.length) left = { n: asLength(left).n + sign * asLength(right).n, length: true };
      else left = { n: left.n + sign * right.n, length: false };
    }
    return left;
  }
  function product(): Quantity {
    let left = factor();
    while (peek() === '*' || peek() === '/') {
      const times = tokens[at++] === '*';
      const right = factor();
      if (times) {
        if (left.length && right.length) throw new Problem('Two lengths cannot be multiplied.');
        left = { n: left.n * right.n, length: left.length || right.length };
      } else {
        if (right.n === 0) throw new Problem('Nothing can be divided by 0.');
        if (right.length && !left.length) throw new Problem('A number cannot be divided by a length.');
        left = { n: left.n / right.n, length: left.length && !right.length };
      }
    }
    return left;
  }
  function factor(): Quantity {
    const token = tokens[at++];
    if (token === undefined) throw new Problem('Something is missing at the end.');
    if (token === '-') {
      const q = factor();
      return { n: -q.n, length: q.length };
    }
    if (token === '+') return factor();
    if (token === '(') {
      const q = sum();
      if (tokens[at++] !== ')') throw new Problem('A bracket is not closed.');
      return q;
    }
    const n = Number(token);
    if (!Number.isFinite(n)) throw new Problem(`“${token}” is not a number.`);
    const next = peek();
    if (next !== undefined && /^[a-z"″]+$/.test(next)) {
      const name = next === '"' || next === '″' ? 'in' : next;
      if (!(name in UNITS) || unit === null)
        throw new Problem(
          unit === null ? 'This field takes no unit.' : `“${next}” is not a unit. Use mm, cm, in, pt or px.`,
        );
      at++;
      return { n: n * UNITS[name as Unit], length: true };
    }
    return { n, length: false };
  }

  try {
    const value = finish(sum());
    if (at < tokens.length) return { ok: false, message: `“${tokens.slice(at).join(' ')}” does not belong there.` };
    if (!Number.isFinite(value)) return { ok: false, message: 'That is not a number.' };
    return { ok: true, value };
  } catch (e) {
    if (e instanceof Problem) return { ok: false, message: e.message };
    throw e;
  }
}
