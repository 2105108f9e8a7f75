import type { Env } from '../env';
import { ExactEngine } from './boolean/exact';
import { FastEngine } from './boolean/pathkit';
import type { Fetched } from './fetched';

interface Loaded extends Omit<Fetched, 'paper'> {
  readonly fast: FastEngine;
  readonly exact: ExactEngine;
}
let engines: Loaded | null = null;
let loading: Promise<void> | null = null;

/** Loads the engines; once a page, worker or process. Everything that uses them is then plain and synchronous. */
export function loadBooleans(env: Env): Promise<void> {
  return (loading ??= (async () => {
    const { paper, ...rest } = await fetchRest();
    const [kit, wasm] = await Promise.all([import('pathkit-wasm'), env.asset('wasm/pathkit.wasm')]);
    // In Node the engine's glue adds listeners that would end the process at any rejected promise.
    const node = (globalThis as { process?: NodeJS.EventEmitter }).process;
    const events = ['uncaughtException', 'unhandledRejection'] as const;
    const before = node?.listeners ? events.map((e) => new Set(node.listeners(e))) : [];
    const loaded = await kit.default({ wasmBinary: wasm });
    before.forEach((known, i) => {
      for (const l of node!.listeners(events[i])) if (!known.has(l)) node!.removeListener(events[i], l as () => void);
    });
    engines = {
      fast: new FastEngine(loaded),
      exact: new ExactEngine(paper as unknown as ConstructorParameters<typeof ExactEngine>[0]),
      ...rest,
    };
  })());
}

/**
 * Where it finds no browser the exact engine loads a whole one written for Node, which takes longer than all else: it
 * is told of one.
 */
async function fetchRest(): Promise<Fetched> {
  const place = globalThis as { self?: unknown };
  if (place.self !== undefined) return import('./fetched');
  place.self = { navigator: { userAgent: '' } };
  try {
    return await import('./fetched');
  } finally {
    delete place.self;
  }
}

/** The engines, which must have been loaded. */
export function loaded(): Loaded {
  if (!engines) throw new Error('loadBooleans has not been awaited');
  return engines;
}
