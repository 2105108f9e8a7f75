'use client';
import {
  DndContext,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { useState, type MouseEvent } from 'react';
import { pageLabels } from '@/core/derive/pageLabels';
import { setMaster } from '@/core/edit/masters';
import { followersOf } from '@/core/model/tree';
import { deletePages, duplicatePage, movePages } from '@/core/edit/pages';
import type { Page } from '@/core/model/schema';
import { Button } from '@/ui/Button';
import { ListChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { COMMAND_TABLE, runCommand } from '../commands/commands';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { sheetName } from '../session/naming';
import { PageThumb } from './PageThumb';

/** The longer side of a page's picture, CSS pixels. */
const SIDE = 84;
const NONE = '';

/** All pages by their pictures: gone to by a press, several chosen with Ctrl or Shift, dragged to another place; and the masters. */
export function PagesSlip() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const current = useBench((s) => s.page);
  const { pages } = design;
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
  const masters = new Set(pages.filter((p) => chosen.includes(p.id)).map((p) => p.master ?? NONE));
  return (
    <div className="grid gap-3">
      <DndContext id="pages" sensors={sensors} onDragEnd={onDragEnd}>
        <ol
          aria-label="Pages"
          className="m-0 flex max-h-[min(46vh,420px)] list-none flex-wrap gap-2 overflow-auto p-0.5"
        >
          {pages.map((p, i) => (
            <PageTile
              key={p.id}
              page={p}
              number={i + 1}
              label={labels[i]}
              current={p.id === current}
              picked={chosen.includes(p.id)}
              onPress={(e) => press(p, e)}
            />
          ))}
        </ol>
      </DndContext>
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
      <Masters />
    </div>
  );
}

interface TileProps {
  readonly page: Page;
  readonly number: number;
  /** What is said of it as its number. */
  readonly label: string;
  readonly current: boolean;
  readonly picked: boolean;
  readonly onPress: (e: MouseEvent) => void;
}

function PageTile({ page, number, label, current, picked, onPress }: TileProps) {
  const session = useSession();
  const { width, height } = session.design.setup;
  const drag = useDraggable({ id: page.id });
  const drop = useDroppable({ id: page.id });
  const k = SIDE / Math.max(width, height);
  const shown = drag.transform
    ? { transform: `translate(${drag.transform.x}px, ${drag.transform.y}px)`, zIndex: 1 }
    : {};
  return (
    <li
      ref={(el) => {
        drag.setNodeRef(el);
        drop.setNodeRef(el);
      }}
      style={shown}
      className={`relative ${drop.isOver && !drag.isDragging ? 'outline-2 outline-accent' : ''}`}
    >
      <button
        type="button"
        aria-current={current ? 'page' : undefined}
        aria-pressed={picked}
        aria-label={`${page.name || `Page ${number}`}, ${count(page.children.length, 'object')}${page.master ? `, on ${masterName(session.design.masters, page.master)}` : ''}`}
        className={`grid cursor-pointer justify-items-center gap-1 rounded-sm border-2 bg-transparent p-1 ${picked ? 'border-accent' : 'border-transparent hover:border-line'}`}
        onClick={onPress}
        {...drag.listeners}
      >
        <span className="grid place-items-center" style={{ width: SIDE, height: SIDE }}>
          <PageThumb page={page} width={width * k} height={height * k} />
        </span>
        <span className={`max-w-[84px] truncate text-[12px] ${current ? 'font-semibold' : ''}`}>
          {page.name ? `${label} · ${page.name}` : label}
        </span>
      </button>
    </li>
  );
}

const masterName = (masters: readonly Page[] | undefined, id: string): string =>
  masters?.find((m) => m.id === id)?.name || 'a master';

/** The masters, each a press away, and how many pages stand on it. */
function Masters() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const current = useBench((s) => s.page);
  const { masters } = design;
  return (
    <div className="grid gap-1">
      <h3 className="m-0 text-[12px] font-normal text-faint">Masters: what they have lies on all their pages</h3>
      {masters && (
        <ul className="m-0 max-h-40 list-none overflow-auto p-0">
          {masters.map((m) => (
            <li
              key={m.id}
              className={`border-b border-l-3 border-b-line ${m.id === current ? 'border-l-accent bg-field' : 'border-l-transparent'}`}
            >
              <button
                type="button"
                aria-current={m.id === current ? 'page' : undefined}
                className="w-full truncate border-0 bg-transparent px-2 py-1.5 text-left hover:bg-line"
                onClick={() => session.goToPage(m.id)}
              >
                {sheetName(design, m)}{' '}
                <span className="text-faint">· on {count(followersOf(design, m.id).length, 'page')}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className="flex gap-2">
        <Button
          disabled={!COMMAND_TABLE['master.fromPage'].applies!(session)}
          onClick={() => runCommand(session, 'master.fromPage')}
        >
          Of this page
        </Button>
        <Button onClick={() => runCommand(session, 'master.add')}>Add an empty one</Button>
      </div>
    </div>
  );
}
