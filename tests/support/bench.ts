import { packed, unpacked, type Packed } from '@/core/edit/packed';
import type { Patches } from 'mutative';
import { apply } from 'mutative';
import type { Design } from '@/core/model/schema';
import { prepare, type Engines } from '@/core/engines';
import { HolvetDatabase } from '@/store/database';
import { DesignStore } from '@/store/designs';
import type { PictureClient } from '@/workers/pictureClient';
import type { PressClient } from '@/workers/pressClient';
import { readSvg } from '@/core/input/svg/read';
import { pictureFacts, pictureFormat, readPicture } from '@/core/input/picture/read';
import { fetchLater } from '@/bench/session/afterPaint';
import { noExtras } from '@/bench/view/extras';
import { Session } from '@/bench/session/session';
import { loadSettings } from '@/bench/session/loadSettings';
import { fitRect, toScreen } from '@/bench/view/camera';
import { bleedRect } from '@/core/scene/scene';
import type { Gesture, PointerAt, Tool, ToolContext } from '@/bench/tools/tool';
import { testEngines } from './engines';

// The bench gives the focus about; without a page there is nobody to give it to.
Object.assign(globalThis, { document: { getElementById: () => null } });

/** Stands in for the press worker: it keeps its own copy by patches, as the real one does. */
export class ListeningPress {
  copy: Design | null = null;
  async open(d: Design): Promise<void> {
    this.copy = d;
  }
  patch(p: Patches | Packed): void {
    if (this.copy) this.copy = apply(this.copy, unpacked<Patches>(Array.isArray(p) ? packed(p) : p)) as Design;
  }
  totalInk = async () => null;
  check = async () => [];
  thumbnail = async () => new Uint8Array([1]);
  dispose(): void {}
}

export interface TestBench {
  readonly session: Session;
  readonly press: ListeningPress;
  readonly store: DesignStore;
  readonly engines: Engines;
  readonly context: ToolContext;
  /** What the readout at the pointer says now, and all it said. */
  readonly said: string[];
  at(x: number, y: number, keys?: Partial<Pick<PointerAt, 'shift' | 'alt' | 'mod'>>): PointerAt;
  drag(
    tool: Tool,
    from: readonly [number, number],
    to: readonly [number, number],
    keys?: Partial<Pick<PointerAt, 'shift' | 'alt' | 'mod'>>,
  ): void;
  click(tool: Tool, x: number, y: number, keys?: Partial<Pick<PointerAt, 'shift' | 'alt' | 'mod'>>): void;
}

/** Opens pictures on the spot, and shows none. */
const pictureWorker = {
  async read(bytes: Uint8Array) {
    try {
      return {
        ok: true,
        facts: pictureFacts(await readPicture(bytes, (await shared!).env)),
        ending: pictureFormat(bytes)!.ending,
        bytes,
      };
    } catch (e) {
      return { ok: false, message: (e as Error).message };
    }
  },
  async drawing(bytes: Uint8Array, name: string) {
    const engines = await shared!;
    try {
      const { clip, width, height, notes, files } = await readSvg(bytes, name, {
        ...engines.env,
        fonts: engines.fonts,
      });
      return { ok: true, clip, width, height, notes, files };
    } catch (e) {
      return { ok: false, message: (e as Error).message };
    }
  },
  look: async () => null,
  dispose: () => {},
};

let n = 0;
let shared: Promise<Engines> | null = null;

/** An open design with everything real but the worker: store, history, tools. Places are page points. */
export async function openBench(design: Design): Promise<TestBench> {
  const engines = await (shared ??= testEngines());
  // As on a bench that has been painted: what comes later is there.
  await fetchLater();
  await prepare(engines, design);
  const store = new DesignStore(new HolvetDatabase(`bench-${n++}`));
  await store.add(design);
  const press = new ListeningPress();
  const session = new Session(
    { design, base: 0, entries: [], cursor: 0, warning: null, aside: null },
    engines,
    store,
    press as unknown as PressClient,
    pictureWorker as unknown as PictureClient,
    false,
  );
  await loadSettings(session);
  session.set({ camera: fitRect(bleedRect(design.setup), 800, 600) });
  const said: string[] = [];
  const context: ToolContext = {
    session,
    extras: noExtras(),
    refresh: () => {},
    readout: (t) => void (t !== null && said.push(t)),
  };
  const at: TestBench['at'] = (x, y, keys = {}) => ({
    page: { x, y },
    screen: toScreen(session.state.camera, { x, y }),
    shift: false,
    alt: false,
    mod: false,
    ...keys,
  });
  const run = (g: Gesture | null, moves: PointerAt[]) => {
    if (!g) return;
    for (const m of moves) g.move(m);
    g.release(moves[moves.length - 1]);
  };
  return {
    session,
    press,
    store,
    engines,
    context,
    said,
    at,
    drag(tool, from, to, keys = {}) {
      const steps = [0.3, 0.7, 1].map((t) =>
        at(from[0] + (to[0] - from[0]) * t, from[1] + (to[1] - from[1]) * t, keys),
      );
      run(tool.press(at(from[0], from[1], keys), context), steps);
    },
    click: (tool, x, y, keys = {}) => run(tool.press(at(x, y, keys), context), [at(x, y, keys)]),
  };
}
