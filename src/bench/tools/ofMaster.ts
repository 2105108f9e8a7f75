import { takeOver } from '@/core/edit/masters';
import { mastersOf } from '@/core/model/tree';
import { hitAll } from '@/core/scene/hit';
import { nameOf } from '../session/nameOf';
import { sheetName } from '../session/naming';
import type { Session } from '../session/session';
import { NEAR_PX, type PointerAt } from './tool';

/**
 * The object of a master that lies under a place of the page: of the nearest master, the topmost, as a whole; null for
 * none.
 */
function underOf(s: Session, at: PointerAt): { readonly id: string; readonly master: string } | null {
  const { design, page, engines } = s;
  for (const master of mastersOf(design, page).toReversed()) {
    const scene = engines.builder.build(design, master);
    for (const { node } of hitAll(scene, at.page, NEAR_PX / s.state.camera.scale)) {
      // What it holds belongs to it: it is taken over whole.
      const id = master.children.find((c) => c === node || holds(s, c, node));
      if (id && !Object.hasOwn(page.takenOver ?? {}, id)) return { id, master: master.id };
    }
  }
  return null;
}

function holds(s: Session, holder: string, id: string): boolean {
  const node = s.design.nodes[holder];
  return 'children' in node && node.children.some((c) => c === id || holds(s, c, id));
}

/** A press on what comes of a master marks it and says so, with what can be done about it. */
export function sayWhoseItIs(s: Session, at: PointerAt): void {
  const found = underOf(s, at);
  if (!found) {
    if (s.state.pointedAt) s.set({ pointedAt: null });
    return;
  }
  const { design, page } = s;
  const master = design.masters!.find((m) => m.id === found.master)!;
  const name = nameOf(design, design.nodes[found.id]);
  s.set({ pointedAt: found.id });
  s.say(`${name} is of the master ${sheetName(design, master)}.`, 'plain', [
    {
      label: 'Take over here',
      run: () => {
        let copy = '';
        s.set({ pointedAt: null });
        s.commit(`Take over ${name}`, (d) => void (copy = takeOver(d, page.id, found.id, s.newId)));
        if (copy) s.select([copy]);
      },
    },
    {
      label: 'Edit the master',
      run: () => {
        s.set({ pointedAt: null });
        s.goToPage(master.id);
      },
    },
  ]);
}
