import type * as z from 'zod/mini';

type Check = (value: unknown) => boolean;
/** The parts of a schema's definition that are read here (zod/v4/core keeps them under these names). */
interface Definition {
  readonly type: string;
  readonly checks?: readonly { readonly _zod: { readonly def: CheckDefinition } }[];
  readonly format?: string;
  readonly innerType?: z.ZodMiniType;
  readonly element?: z.ZodMiniType;
  readonly items?: readonly z.ZodMiniType[];
  readonly rest?: unknown;
  readonly shape?: Readonly<Record<string, z.ZodMiniType>>;
  readonly catchall?: z.ZodMiniType;
  readonly options?: readonly z.ZodMiniType[];
  readonly discriminator?: string;
  readonly keyType?: z.ZodMiniType;
  readonly valueType?: z.ZodMiniType;
  readonly values?: readonly unknown[];
  readonly entries?: Readonly<Record<string, unknown>>;
}
interface CheckDefinition {
  readonly check: string;
  readonly value?: number;
  readonly inclusive?: boolean;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly format?: string;
  readonly pattern?: RegExp;
  readonly fn?: (v: unknown) => boolean;
}
const definition = (s: z.ZodMiniType): Definition => s._zod.def as unknown as Definition;

const OWN = new WeakMap<z.ZodMiniType, Check>();
/**
 * Says how a schema that is more than its definition tells is asked quickly. `sound` must be true of nothing that the
 * schema refuses.
 */
export function askedQuickly<T extends z.ZodMiniType>(schema: T, sound: Check): T {
  OWN.set(schema, sound);
  return schema;
}

const made = new WeakMap<z.ZodMiniType, Check>();

/** Which asking it is: what was found sound in one says nothing in the next, for it may have been changed. */
let asking = 0;
/** A schema asked about a whole value. What lies in it many times over, by identity, is looked at once in a row. */
export function wholeCheck(schema: z.ZodMiniType): Check {
  const check = quickCheck(schema);
  return (value) => {
    asking++;
    return check(value);
  };
}
function onceInARow(check: Check): Check {
  let sound: unknown = null;
  let when = -1;
  return (v) => {
    if (v === sound && when === asking) return true;
    if (!check(v)) return false;
    sound = v;
    when = asking;
    return true;
  };
}

/**
 * A schema as a plain yes or no, many times faster than asking it: the security policy allows it no code of its own
 * making, and what it is mostly asked about is sound. Yes is as good as the schema's own; after no, the schema says
 * what is wrong. Only for schemas that change nothing on the way; and a part of a value: a whole one is asked by
 * `wholeCheck`.
 */
export function quickCheck(schema: z.ZodMiniType): Check {
  let check = OWN.get(schema) ?? made.get(schema);
  if (!check) {
    const base = checkOf(definition(schema));
    const more = (definition(schema).checks ?? []).map((c) => furtherCheck(c._zod.def));
    check =
      base && more.every((m) => m !== null) ? allOf(base, more as Check[]) : (value) => schema.safeParse(value).success;
    made.set(schema, check);
  }
  return check;
}

function allOf(base: Check, more: readonly Check[]): Check {
  if (!more.length) return base;
  if (more.length === 1) return (v) => base(v) && more[0](v);
  if (more.length === 2) return (v) => base(v) && more[0](v) && more[1](v);
  return (v) => base(v) && more.every((m) => m(v));
}

/** What a value of a kind must be, its further checks left aside; null for what is not known here. */
function checkOf(d: Definition): Check | null {
  switch (d.type) {
    case 'string':
      // One that has a format by itself is asked the long way.
      return d.format === undefined ? (v) => typeof v === 'string' : null;
    case 'number':
      return d.format === undefined ? (v) => typeof v === 'number' && Number.isFinite(v) : null;
    case 'boolean':
      return (v) => typeof v === 'boolean';
    case 'unknown':
      return () => true;
    case 'literal':
      return among(d.values!);
    case 'enum':
      return among(Object.values(d.entries!));
    case 'optional':
      return orElse(undefined, quickCheck(d.innerType!));
    case 'nullable':
      return orElse(null, quickCheck(d.innerType!));
    case 'readonly':
      return quickCheck(d.innerType!);
    case 'array':
      return onceInARow(list(quickCheck(d.element!)));
    case 'tuple':
      return d.rest ? null : tuple(d.items!.map(quickCheck));
    case 'object':
      return d.catchall && definition(d.catchall).type === 'never' ? record(d.shape!) : null;
    case 'record':
      return anyKeys(quickCheck(d.keyType!), quickCheck(d.valueType!));
    case 'union':
      return d.discriminator === undefined ? anyOf(d.options!.map(quickCheck)) : byKey(d);
    default:
      return null;
  }
}

function furtherCheck(d: CheckDefinition): Check | null {
  const { value, inclusive, minimum, maximum, pattern, fn } = d;
  switch (d.check) {
    case 'greater_than':
      return inclusive ? (v) => (v as number) >= value! : (v) => (v as number) > value!;
    case 'less_than':
      return inclusive ? (v) => (v as number) <= value! : (v) => (v as number) < value!;
    case 'number_format':
      return d.format === 'safeint' ? Number.isSafeInteger : null;
    case 'min_length':
      return (v) => (v as string).length >= minimum!;
    case 'max_length':
      return (v) => (v as string).length <= maximum!;
    case 'string_format':
      return d.format === 'regex' && pattern && !pattern.global && !pattern.sticky
        ? (v) => pattern.test(v as string)
        : null;
    case 'custom':
      return fn ? (v) => fn(v) === true : null;
    default:
      return null;
  }
}

function among(values: readonly unknown[]): Check {
  const known = new Set(values);
  return (v) => known.has(v);
}
const orElse =
  (other: undefined | null, check: Check): Check =>
  (v) =>
    v === other || check(v);
function list(check: Check): Check {
  return (v) => {
    if (!Array.isArray(v)) return false;
    for (let i = 0; i < v.length; i++) if (!check(v[i])) return false;
    return true;
  };
}
function tuple(checks: readonly Check[]): Check {
  return (v) => {
    if (!Array.isArray(v) || v.length !== checks.length) return false;
    for (let i = 0; i < checks.length; i++) if (!checks[i](v[i])) return false;
    return true;
  };
}
const anyOf =
  (checks: readonly Check[]): Check =>
  (v) => {
    for (const check of checks) if (check(v)) return true;
    return false;
  };

const isMap = (v: unknown): v is Record<string, unknown> => {
  if (typeof v !== 'object' || v === null) return false;
  const above: unknown = Object.getPrototypeOf(v);
  return above === Object.prototype || above === null;
};

/** An object of just these keys. */
function record(shape: Readonly<Record<string, z.ZodMiniType>>): Check {
  const checks = new Map(
    Object.entries(shape).map(([key, s]) => {
      const check = quickCheck(s);
      return [key, { check, needed: check(undefined) ? 0 : 1 }];
    }),
  );
  let all = 0;
  for (const { needed } of checks.values()) all += needed;
  return (v) => {
    if (!isMap(v)) return false;
    let missing = all;
    for (const key in v) {
      const known = checks.get(key);
      if (known === undefined || !known.check(v[key])) return false;
      missing -= known.needed;
    }
    return missing === 0;
  };
}

function anyKeys(key: Check, value: Check): Check {
  return (v) => {
    if (!isMap(v)) return false;
    for (const k in v) if (k === '__proto__' || !key(k) || !value(v[k])) return false;
    return true;
  };
}

/** One of several objects, told apart by the value of one key. */
function byKey(d: Definition): Check | null {
  const checks = new Map<unknown, Check>();
  for (const option of d.options!) {
    const values = option._zod.propValues?.[d.discriminator!];
    if (!values) return null;
    for (const value of values) checks.set(value, quickCheck(option));
  }
  const { discriminator } = d;
  return onceInARow((v) => isMap(v) && (checks.get(v[discriminator!])?.(v) ?? false));
}
