import { isText } from '@/core/derive/layout';
import { numberPages, putField, putFieldAtFoot } from '@/core/edit/fields';
import type { DesignDraft } from '@/core/edit/history';
import type { Field } from '@/core/model/schema';
import { followersOf, groundOf, isMaster, nodesOf, pageById } from '@/core/model/tree';
import { count, freeSelection, type CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';
import { textPaint } from '../tools/editing';
import { eachStory } from './looks';
import { freshName } from './masters';
import { sheetName } from '../session/naming';

/** What can be put into words so that each page says its own, by what people call it. */
export const FIELD_WORDS: Readonly<Record<Field, { readonly label: string; readonly keywords: readonly string[] }>> = {
  page: { label: 'Page number', keywords: ['folio', 'current page', 'numbering'] },
  pages: { label: 'Number of pages', keywords: ['page count', 'of how many', 'total pages'] },
  section: { label: 'Section', keywords: ['chapter', 'part', 'running head'] },
  design: { label: 'Name of the design', keywords: ['title', 'document name'] },
  date: { label: 'Date of the last change', keywords: ['today', 'day', 'modified'] },
  file: { label: 'Name of the file', keywords: ['file name', 'path'] },
  version: { label: 'Version', keywords: ['proof', 'draft', 'revision', 'state'] },
};

const inkOn = (s: Session, sheet: string) =>
  textPaint(s, groundOf(s.design, pageById(s.design, sheet) ?? s.page)?.paint);

/** Puts a field where the caret stands, behind the words of chosen texts, or by itself at the foot of the page. */
export function insertField(s: Session, field: Field): void {
  const label = `Put in ${FIELD_WORDS[field].label.toLowerCase()}`;
  const { editing } = s.state;
  const texts = nodesOf(s.design, freeSelection(s)).filter(isText);
  if (!texts.length) {
    let id = '';
    s.commit(label, (d) => {
      id = putFieldAtFoot(d, s.page.id, field, { newId: s.newId, paint: inkOn(s, s.page.id) });
    });
    if (id) s.select([id]);
    return;
  }
  const put = eachStory(s, (story, from, to) => putField(story, editing ? from : to, to, field));
  const at = editing ? Math.min(editing.anchor, editing.focus) + 1 : 0;
  if (s.commit(label, put) && editing) s.set({ editing: { ...editing, anchor: at, focus: at } });
}

/** Numbers this page and all that share its master. */
function numberAll(s: Session): void {
  const own = isMaster(s.design, s.page.id);
  const how = { newId: s.newId, paint: inkOn(s, s.page.id) };
  let master = s.page.id;
  const put = (d: DesignDraft) => {
    if (own) putFieldAtFoot(d, s.page.id, 'page', how);
    else master = numberPages(d, s.page, freshName(s), how);
  };
  if (!s.commit('Number the pages', put)) return;
  const pages = count(followersOf(s.design, master).length, 'page');
  const name = sheetName(s.design, pageById(s.design, master)!);
  s.say(`A page number lies on the master ${name} now, at the foot of ${pages}.`);
}

const row = (field: Field): CommandDef => ({
  label: `Put in: ${FIELD_WORDS[field].label.toLowerCase()}`,
  keywords: ['field', 'insert', 'placeholder', ...FIELD_WORDS[field].keywords],
  keys: [],
  run: (s) => insertField(s, field),
});

export const FIELD_COMMANDS = {
  'field.page': row('page'),
  'field.pages': row('pages'),
  'field.section': row('section'),
  'field.design': row('design'),
  'field.date': row('date'),
  'field.file': row('file'),
  'field.version': row('version'),
  'pages.number': {
    label: 'Number the pages',
    keywords: ['page numbers', 'folio', 'footer', 'numbering', 'on every page'],
    keys: [],
    run: numberAll,
  },
} as const satisfies Record<string, CommandDef>;
