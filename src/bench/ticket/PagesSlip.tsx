'use client';
import { DndContext, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { useState, type MouseEvent } from 'react';
import { pageLabels } from '@/core/derive/pageLabels';
import { copyPages, pastePages, readPages, type CopiedPages } from '@/core/edit/copyPages';
import { setMaster } from '@/core/edit/masters';
import { deletePages, duplicatePage, movePages } from '@/core/edit/pages';
import type { Design, Page } from '@/core/model/schema';
import { followersOf, isMaster, pageById, spreadOf } from '@/core/model/tree';
import { Button } from '@/ui/Button';
import { ListChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { runCommand } from '../commands/commands';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { sheetName } from '../session/naming';
import { MastersList } from './MastersList';
import { PageTile } from './PageTile';

const NONE = '';
const KEY = 'holvet-pages';

/** Keeps copied pages for all designs of this browser; answers whether there is room. */
function keepPages(pages: CopiedPages): boolean {
  try {
    localStorage.setItem(KEY, JSON.stringify(pages));
    return true;
  } catch {
    return false;
  }
}
function keptPages(): CopiedPages | null {
  try {
    return readPages(localStorage.getItem(KEY) ?? '');
  } catch {
    // Storage that may not be asked is empty.
    return null;
  }
}

/**
 * All pages by their pictures: gone to by a press, several chosen with Ctrl or Shift, dragged to another place; and the
 * masters.
 */
export function PagesSlip() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const current = useBench((s) => s.page);
  const { pages } = design;
  const [copied, setCopied] = useState(() => keptPages() !== null);
  const [picked, setPicked] = useState<readonly string[]>([]);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const there = picked.filter((id) => pages.some((p) => p.id === id));
  const chosen = there.length ? there : pages.some((p) => p.id === current) ? [current] : [];

  const press = (page: Page, e: MouseEvent) => {
    if (e.ctrlKey || e.metaKey) {
      setPicked(chosen.includes(page.id) ? chosen.filter((id) => id !== page.id) : [...chosen, page.id]);
      return;
    }
    if (e.shiftKey && chosen.length) {
      const [a, b] = [pages.findIndex((p) => p.id === chosen[chosen.length - 1]), pages.indexOf(page)];
      setPicked(pages.slice(Math.min(a, b), Math.max(a, b) + 1).map((p) => p.id));
      return;
    }
    setPicked([]);
    session.goToPage(page.id);
  };
  const onDragEnd = ({ active, over, delta }: DragEndEvent) => {
    if (!over || over.id === active.id) return;
    const id = String(active.id);
    if (isMaster(design, id)) {
      const onto = String(over.id);
      const sheets = chosen.includes(onto) ? chosen : [onto];
      session.commit('Choose a master', (d) => setMaster(d, sheets, id));
      session.say(`${sheetName(design, pageById(design, id)!)} lies below ${count(sheets.length, 'page')} now.`);
      return;
    }
    const moving = chosen.includes(id) ? chosen : [id];
    const from = pages.findIndex((p) => p.id === id);
    const at = pages.findIndex((p) => p.id === over.id);
    // Dropped from before, it goes behind the other; from behind, before it.
    const to = at > from || (at === from && delta.x > 0) ? at + 1 : at;
    session.commit(moving.length > 1 ? 'Move pages' : 'Move page', (d) => movePages(d, moving, to));
  };
  const step = (by: -1 | 1) => {
    const places = chosen.map((id) => pages.findIndex((p) => p.id === id));
    const to = by < 0 ? Math.min(...places) - 1 : Math.max(...places) + 2;
    session.commit(chosen.length > 1 ? 'Move pages' : 'Move page', (d) => movePages(d, chosen, to));
  };
  const labels = pageLabels(design);
  // What faces each other stays together.
  const spreads = pages.flatMap((p) => {
    const spread = spreadOf(design, p);
    if (!spread?.other) return [[p]];
    return spread.side === 'left' ? [[p, spread.other]] : [];
  });
  const following = new Set(isMaster(design, current) ? followersOf(design, current).map((p) => p.id) : []);
  const masters = new Set(pages.filter((p) => chosen.includes(p.id)).map((p) => p.master ?? NONE));
  return (
    <DndContext id="pages" sensors={sensors} onDragEnd={onDragEnd}>
      <div className="grid gap-3">
        <ol
          aria-label="Pages"
          className="m-0 flex max-h-[min(46vh,420px)] list-none flex-wrap gap-y-2 overflow-auto p-0.5"
        >
          {spreads.map((spread) => (
            <li key={spread[0].id} className="flex">
              {spread.map((p) => (
                <PageTile
                  key={p.id}
                  page={p}
                  number={pages.indexOf(p) + 1}
                  label={labels[pages.indexOf(p)]}
                  current={p.id === current}
                  picked={chosen.includes(p.id)}
                  follows={following.has(p.id)}
                  side={sideOf(design, p)}
                  onPress={(e) => press(p, e)}
                />
              ))}
            </li>
          ))}
        </ol>
        <div className="flex flex-wrap items-center gap-2">
          <Button onClick={() => runCommand(session, 'page.add')}>Add</Button>
          <Button
            disabled={!chosen.length}
            onClick={() => {
              let last = '';
              session.commit(`Duplicate ${count(chosen.length, 'page')}`, (d) => {
                for (const id of chosen) last = duplicatePage(d, id, session.newId);
              });
              setPicked([]);
              if (last) session.goToPage(last);
            }}
          >
            Duplicate
          </Button>
          <Button
            disabled={!chosen.length || chosen.length === pages.length}
            onClick={() => {
              let next = '';
              session.commit(`Delete ${count(chosen.length, 'page')}`, (d) => {
                next = deletePages(d, chosen);
              });
              setPicked([]);
              if (next && !session.design.pages.some((p) => p.id === current)) session.goToPage(next);
              session.say(`Deleted ${count(chosen.length, 'page')}. Undo brings them back.`);
            }}
          >
            Delete
          </Button>
          <Button disabled={!chosen.length || chosen.includes(pages[0].id)} onClick={() => step(-1)}>
            Earlier
          </Button>
          <Button disabled={!chosen.length || chosen.includes(pages[pages.length - 1].id)} onClick={() => step(1)}>
            Later
          </Button>
          <Button
            disabled={!chosen.length}
            title="To paste them into this design or another one"
            onClick={() => {
              if (keepPages(copyPages(design, chosen)))
                session.say(`Copied ${count(chosen.length, 'page')}. Paste them here, or into another design.`);
              else session.say('The pages are too much to be copied at once. Copy fewer.', 'warn');
              setCopied(true);
            }}
          >
            Copy
          </Button>
          {copied && (
            <Button
              onClick={() => {
                const read = keptPages();
                if (!read) return session.say('There are no copied pages any more. Copy some first.', 'warn');
                let made: readonly string[] = [];
                const done = session.commit(`Paste ${count(read.pages.length, 'page')}`, (d) => {
                  made = pastePages(d, current, read, session.newId);
                });
                if (!done) return;
                session.goToPage(made[0]);
                session.say(
                  `Pasted ${count(made.length, 'page')}, as they looked: what their masters had is their own here.`,
                );
              }}
            >
              Paste
            </Button>
          )}
          {pages.length > 6 && (
            <NumberField
              label="Go to"
              name="Go to page"
              value={pages.findIndex((p) => p.id === current) + 1 || null}
              min={1}
              max={pages.length}
              decimals={0}
              onCommit={(v) => session.goToPage(pages[Math.round(v) - 1].id)}
            />
          )}
        </div>
        {design.masters && chosen.length > 0 && (
          <ListChoice
            label={chosen.length > 1 ? `Master of ${chosen.length} pages` : 'Master'}
            value={masters.size === 1 ? [...masters][0] : null}
            groups={[
              {
                name: '',
                options: [
                  { value: NONE, label: 'none' },
                  ...design.masters.map((m) => ({ value: m.id, label: sheetName(design, m) })),
                ],
              },
            ]}
            onChange={(id) => session.commit('Choose a master', (d) => setMaster(d, chosen, id || null))}
          />
        )}
        <MastersList />
      </div>
    </DndContext>
  );
}

/** Where a page lies on its spread: the first of all may lie on the right alone. */
function sideOf(design: Design, page: Page) {
  const spread = spreadOf(design, page);
  if (!spread) return null;
  return spread.side === 'right' && !spread.other ? 'lone right' : spread.side;
}
