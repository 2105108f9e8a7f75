import { HolvetDatabase } from './database';
import { DesignStore } from './designs';

let store: DesignStore | null = null;

/** The one store of this page. Opening is lazy: a browser that refuses storage refuses at the first use. */
export function designStore(): DesignStore {
  store ??= new DesignStore(new HolvetDatabase());
  return store;
}

const SEEDED = 'demo-seeded';

/** Puts the demo designs on a new shelf, once: what a person throws away stays away. */
export async function seedDemo(designs: DesignStore): Promise<void> {
  const seeded = await designs.setting<boolean | string[]>(SEEDED);
  // The first version had one demo design and kept only that it was there.
  const before = new Set(seeded === true ? ['lantern-walk-poster'] : Array.isArray(seeded) ? seeded : []);
  const { demoDesigns } = await import('@/demo/demos');
  const demos = demoDesigns();
  if (demos.every(({ design }) => before.has(design.id))) return;
  for (const { design, file } of demos)
    if (!before.has(design.id) && !(await designs.has(design.id))) await designs.add(design, await shipped(file));
  await designs.setSetting(
    SEEDED,
    demos.map(({ design }) => design.id),
  );
}

/** The picture of a demo design that comes with the application; null where it does not come: it is drawn then. */
async function shipped(file: string): Promise<Uint8Array | null> {
  const answer = await fetch(`/thumbnails/${file}.png`).catch(() => null);
  return answer?.ok ? new Uint8Array(await answer.arrayBuffer()) : null;
}

/** Why storage does not work, in words. */
export function storageProblem(e: unknown): string {
  const name = e instanceof Error ? e.name : '';
  if (name === 'QuotaExceededError')
    return 'The browser’s storage is full. Remove designs you no longer need, or free space on this device.';
  return 'This browser does not let Holvet keep files here (private window, or storage switched off). Allow storage for this site, then reload.';
}
