// Pages: added, doubled, taken away, turned to.
import { addPage, deletePage, duplicatePage } from '@/core/edit/pages';
import { isMaster } from '@/core/model/tree';
import type { CommandDef } from '../session/commandDef';
import { stepPage } from './looking';

export const PAGE_COMMANDS = {
  'page.add': {
    label: 'Add a page',
    keywords: ['new page', 'sheet', 'back side', 'reverse side', 'second page'],
    keys: ['Mod+Enter'],
    run: (s) => {
      let id = '';
      s.commit('Add a page', (d) => {
        id = addPage(d, s.page.id, s.newId);
      });
      if (id) s.goToPage(id);
    },
  },
  'page.duplicate': {
    label: 'Duplicate this page',
    keywords: ['copy page'],
    keys: [],
    applies: (s) => !isMaster(s.design, s.page.id),
    run: (s) => {
      let id = '';
      s.commit('Duplicate page', (d) => {
        id = duplicatePage(d, s.page.id, s.newId);
      });
      if (id) s.goToPage(id);
    },
  },
  'page.delete': {
    label: 'Delete this page',
    keywords: ['remove page'],
    keys: [],
    applies: (s) => s.design.pages.length > 1 && !isMaster(s.design, s.page.id),
    run: (s) => {
      let next = '';
      s.commit('Delete page', (d) => {
        next = deletePage(d, s.page.id);
      });
      if (next) s.goToPage(next);
    },
  },
  'page.next': {
    label: 'Next page',
    keywords: ['go to'],
    keys: ['PageDown'],
    harmless: true,
    run: (s) => stepPage(s, 1),
  },
  'page.previous': {
    label: 'Page before',
    keywords: ['go to', 'previous'],
    keys: ['PageUp'],
    harmless: true,
    run: (s) => stepPage(s, -1),
  },
} as const satisfies Record<string, CommandDef>;
