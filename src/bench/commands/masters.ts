import { addMaster, masterFromPage, removeMaster } from '@/core/edit/masters';
import { isMaster } from '@/core/model/tree';
import type { CommandDef } from '../session/commandDef';
import { sheetName } from '../session/naming';
import type { Session } from '../session/session';

const onMaster = (s: Session): boolean => isMaster(s.design, s.page.id);

/** A name that no master has yet. */
export function freshName(s: Session): string {
  const names = new Set((s.design.masters ?? []).map((m) => m.name));
  for (const name of ['Ordinary', 'Cover', 'Opening', 'Back']) if (!names.has(name)) return name;
  for (let n = 5; ; n++) if (!names.has(`Master ${n}`)) return `Master ${n}`;
}

export const MASTER_COMMANDS = {
  'master.fromPage': {
    label: 'Make a master of this page',
    keywords: [
      'template page',
      'repeat on pages',
      'background',
      'parent page',
      'running head',
      'header',
      'footer',
      'every page',
    ],
    keys: [],
    applies: (s) => !onMaster(s),
    run: (s) => {
      const master = { id: s.newId(), name: freshName(s) };
      s.commit('Make a master', (d) => masterFromPage(d, s.page.id, master));
      s.select([]);
      s.say(`What lay on this page is on the master ${master.name} now. New pages behind this one stand on it too.`);
    },
  },
  'master.add': {
    label: 'Add an empty master',
    keywords: ['template page', 'background', 'parent page'],
    keys: [],
    run: (s) => {
      const master = { id: s.newId(), name: freshName(s) };
      if (s.commit('Add a master', (d) => addMaster(d, master))) s.goToPage(master.id);
    },
  },
  'master.edit': {
    label: 'Edit the master of this page',
    keywords: ['template page', 'background', 'go to master'],
    keys: [],
    harmless: true,
    applies: (s) => s.page.master !== undefined,
    run: (s) => s.goToPage(s.page.master!),
  },
  'design.starter': {
    label: 'Keep as a starter',
    keywords: ['template', 'save as template', 'own template', 'form', 'fill in', 'reuse'],
    keys: [],
    harmless: true,
    run: (s) => s.set({ keepingStarter: true }),
  },
  'page.refit': {
    label: 'Fit this page to other formats',
    keywords: ['resize design', 'other size', 'adapt', 'card', 'sticker', 'poster', 'reuse artwork', 'variants'],
    keys: [],
    harmless: true,
    applies: (s) => !onMaster(s),
    run: (s) => s.set({ refitting: true }),
  },
  'master.remove': {
    label: 'Remove this master',
    keywords: ['delete master'],
    keys: [],
    applies: onMaster,
    run: (s) => {
      const { page } = s;
      s.commit('Remove a master', (d) => removeMaster(d, page.id));
      s.say(`${sheetName(s.design, page)} is gone, and what lay on it. Undo brings it back.`);
    },
  },
} satisfies Readonly<Record<string, CommandDef>>;
