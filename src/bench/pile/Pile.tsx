'use client';
import { sheetName } from '../session/naming';
import {
  DndContext,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ChevronDown, ChevronRight, Eye, EyeOff, Layers, Lock, LockOpen, Plus, Search } from 'lucide-react';
import { useEffect, useEffectEvent, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { isText } from '@/core/derive/layout';
import { reparentNode, setNodeFlags } from '@/core/edit/pile';
import type { Design, DesignNode, Page } from '@/core/model/schema';
import type { Finding } from '@/core/check/types';
import { isMaster, ancestry, isHolder, parentOf, pageById } from '@/core/model/tree';
import { runCommand } from '../commands/commands';
import { comesLater } from '../session/comesLater';
import { useBench, useSession } from '../session/context';
import { keepUnfolded } from '../session/settings';
import { beginEditing } from '../tools/editing';
import { choose } from '../tools/pick';
import { KIND, nameOf } from '../session/nameOf';
import { PileThumb } from './PileThumb';

const FromMasters = comesLater(() => import('./FromMasters').then((m) => m.FromMasters));

const ROW = 28;

interface Row {
  readonly id: string;
  readonly depth: number;
}

/** What lies on this page, front to back. */
export function Pile() {
  const session = useSession();
  // What is kept, not what a gesture shows: rows and names do not change while something moves.
  const design = useBench((s) => s.design);
  const pageId = useBench((s) => s.page);
  const selection = useBench((s) => s.selection);
  const opened = useBench((s) => s.unfolded);
  const setOpened = (next: ReadonlySet<string> | ((old: ReadonlySet<string>) => ReadonlySet<string>)) =>
    keepUnfolded(session, typeof next === 'function' ? next(session.state.unfolded) : next);
  const [query, setQuery] = useState('');
  const [renaming, setRenaming] = useState<string | null>(null);
  const scroll = useRef<HTMLDivElement>(null);
  const page = pageById(design, pageId) ?? design.pages[0];
  const rows = useMemo(() => rowsOf(design, page, opened, query), [design, page, opened, query]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));

  // A selection made on the sheet comes into view here, its groups opened.
  const first = selection[0];
  const [shownFor, setShownFor] = useState<string | undefined>(undefined);
  if (first !== shownFor) {
    setShownFor(first);
    const above = first && design.nodes[first] ? ancestry(design, page, first).slice(0, -1) : [];
    if (above.some((id) => !opened.has(id))) queueMicrotask(() => setOpened(new Set([...opened, ...above])));
  }
  const bringIntoView = useEffectEvent((id: string | undefined) => {
    const i = rows.findIndex((r) => r.id === id);
    if (i < 0) return;
    // To scroll, the whole screen is laid out at once: not for a row that is in view.
    const { start, end } = virtual.measurementsCache[i] ?? { start: 0, end: Infinity };
    const top = virtual.scrollOffset ?? 0;
    if (start < top || end > top + (virtual.scrollRect?.height ?? 0)) virtual.scrollToIndex(i, { align: 'auto' });
  });
  useEffect(() => bringIntoView(first), [first]);

  const onDragEnd = ({ active, over, delta }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const id = String(active.id);
    const target = String(over.id);
    if (ancestry(design, page, target).includes(id)) return;
    const parent = parentOf(design, page, target);
    const list = parent ? (design.nodes[parent] as Extract<DesignNode, { kind: 'group' }>).children : page.children;
    const at = list.indexOf(target);
    // Rows run front to back, lists back to front: dropped from above, it goes behind the target.
    session.commit('Change the order', (d) => reparentNode(d, page, id, parent, delta.y > 0 ? at : at + 1));
    choose(session, [id]);
  };

  const onKeyDown = (e: KeyboardEvent<HTMLDivElement>) => {
    const i = rows.findIndex((r) => r.id === first);
    const go = (to: number) => {
      const row = rows[Math.min(rows.length - 1, Math.max(0, to))];
      if (!row) return;
      e.preventDefault();
      choose(session, e.shiftKey ? [...new Set([...selection, row.id])] : [row.id]);
    };
    if (e.altKey || e.ctrlKey || e.metaKey) return;
    if (e.key === 'ArrowDown') go(i + 1);
    else if (e.key === 'ArrowUp') go(i < 0 ? 0 : i - 1);
    else if (e.key === 'Home') go(0);
    else if (e.key === 'End') go(rows.length - 1);
    else if (e.key === 'F2' && first) {
      e.preventDefault();
      setRenaming(first);
    } else if (first && (e.key === 'ArrowLeft' || e.key === 'ArrowRight')) {
      e.preventDefault();
      const isGroup = design.nodes[first] !== undefined && isHolder(design.nodes[first]);
      const parent = parentOf(design, page, first);
      if (e.key === 'ArrowRight') {
        if (isGroup) open(first, true);
      } else if (isGroup && opened.has(first)) open(first, false);
      else if (parent) choose(session, [parent]);
    }
  };
  const open = (id: string, on: boolean) => {
    // A group that closes round the selection takes its place.
    if (!on && first && first !== id && ancestry(design, page, first).includes(id)) choose(session, [id]);
    setOpened((o) => {
      const next = new Set(o);
      if (on) next.add(id);
      else next.delete(id);
      return next;
    });
  };

  const called = sheetName(design, page);
  return (
    <section aria-label="Pile" className="flex min-h-0 flex-col border-r border-line bg-panel">
      <div className="flex h-9 items-center gap-2 border-b border-line px-2">
        <h2 className="m-0 shrink-0 text-[13px] font-semibold">{called}</h2>
        <div className="flex min-w-0 flex-1 items-center gap-1 rounded-sm border border-transparent px-1 focus-within:border-edge">
          <Search size={13} aria-hidden className="shrink-0 text-faint" />
          <input
            aria-label="Search the pile"
            placeholder="Search"
            className="h-6 w-full min-w-0 bg-transparent outline-none"
            value={query}
            onChange={(e) => setQuery(e.target.value)}
            onKeyDown={(e) => e.stopPropagation()}
          />
        </div>
        <button
          type="button"
          aria-label="Add a layer"
          title="Add a layer"
          className="flex shrink-0 items-center rounded-sm border-0 bg-transparent p-1 hover:bg-line"
          onClick={() => runCommand(session, 'layer.add')}
        >
          <Layers size={14} aria-hidden />
          <Plus size={10} aria-hidden />
        </button>
      </div>
      {rows.length === 0 ? (
        <p className="m-0 flex-1 p-3 text-faint">
          {query ? 'Nothing here has that name.' : 'Nothing lies on this page yet.'}
        </p>
      ) : (
        <DndContext id="pile" sensors={sensors} onDragEnd={onDragEnd}>
          <div
            ref={scroll}
            role="listbox"
            aria-label={`Objects on ${isMaster(design, page.id) ? 'master' : 'page'} ${page.name || design.pages.indexOf(page) + 1}, front to back`}
            aria-multiselectable
            aria-activedescendant={first && rows.some((r) => r.id === first) ? `pile-${first}` : undefined}
            tabIndex={0}
            data-keys="arrows"
            className="min-h-0 flex-1 overflow-auto outline-offset-[-2px]"
            onKeyDown={onKeyDown}
          >
            <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
              {virtual.getVirtualItems().map((v) => {
                const row = rows[v.index];
                return (
                  <PileRow
                    key={row.id}
                    row={row}
                    top={v.start}
                    node={design.nodes[row.id]}
                    name={nameOf(design, design.nodes[row.id])}
                    chosen={selection.includes(row.id)}
                    folded={!query && !opened.has(row.id)}
                    renaming={renaming === row.id}
                    rangeTo={(id) => {
                      const [a, b] = [
                        rows.findIndex((r) => r.id === selection[selection.length - 1]),
                        rows.findIndex((r) => r.id === id),
                      ];
                      return a < 0
                        ? [...selection, id]
                        : [
                            ...new Set([
                              ...selection,
                              ...rows.slice(Math.min(a, b), Math.max(a, b) + 1).map((r) => r.id),
                            ]),
                          ];
                    }}
                    onFold={() => open(row.id, !opened.has(row.id))}
                    onRename={(on) => {
                      setRenaming(on ? row.id : null);
                      if (!on) scroll.current?.focus({ preventScroll: true });
                    }}
                  />
                );
              })}
            </div>
          </div>
        </DndContext>
      )}
      <FromMasters design={design} page={page} />
    </section>
  );
}

/** The visible rows, front first; a search lists every match flat. */
function rowsOf(design: Design, page: Page, opened: ReadonlySet<string>, query: string): Row[] {
  const out: Row[] = [];
  const wanted = query.trim().toLowerCase();
  const visit = (ids: readonly string[], depth: number) => {
    for (let i = ids.length - 1; i >= 0; i--) {
      const node = design.nodes[ids[i]];
      if (!wanted) out.push({ id: node.id, depth });
      else if (nameOf(design, node).toLowerCase().includes(wanted)) out.push({ id: node.id, depth: 0 });
      if (isHolder(node) && (wanted || opened.has(node.id))) visit(node.children, depth + 1);
    }
  };
  visit(page.children, 0);
  return out;
}

/** What Checks say of an object: their numbers, and their sentences. */
interface Told {
  readonly numbers: string;
  readonly text: string;
  readonly stop: boolean;
  readonly overset: boolean;
  readonly count: number;
}
const toldOf = new WeakMap<readonly Finding[], ReadonlyMap<string, Told>>();
/** By object; sorted out once for all rows. */
function told(findings: readonly Finding[], node: string): Told | null {
  let known = toldOf.get(findings);
  if (!known) {
    const map = new Map<string, Told>();
    findings.forEach((f, i) => {
      if (f.node === null) return;
      const was = map.get(f.node);
      map.set(f.node, {
        numbers: was ? `${was.numbers}, ${i + 1}` : String(i + 1),
        text: was ? `${was.text} ${f.message}` : f.message,
        stop: was?.stop === true || f.severity === 'stop',
        overset: was?.overset === true || f.code === 'text.overset',
        count: (was?.count ?? 0) + 1,
      });
    });
    toldOf.set(findings, (known = map));
  }
  return known.get(node) ?? null;
}

interface RowProps {
  readonly row: Row;
  readonly top: number;
  readonly node: DesignNode;
  readonly name: string;
  readonly chosen: boolean;
  readonly folded: boolean;
  readonly renaming: boolean;
  /** All from the last chosen row to this one. */
  readonly rangeTo: (id: string) => string[];
  readonly onFold: () => void;
  readonly onRename: (on: boolean) => void;
}

function PileRow({ row, top, node, name, chosen, folded, renaming, rangeTo, onFold, onRename }: RowProps) {
  const session = useSession();
  const drag = useDraggable({ id: node.id });
  const drop = useDroppable({ id: node.id });
  const selection = useBench((s) => s.selection);
  const said = useBench((s) => told(s.findings, node.id));
  return (
    <div
      ref={(el) => {
        drag.setNodeRef(el);
        drop.setNodeRef(el);
      }}
      id={`pile-${node.id}`}
      role="option"
      aria-selected={chosen}
      aria-label={`${name}, ${node.kind === 'group' && node.layer ? 'layer' : KIND[node.kind].toLowerCase()}${node.hidden ? ', hidden' : ''}${node.locked ? ', locked' : ''}${node.kind === 'group' && node.proof ? ', for proof only' : ''}${said?.overset ? ', words do not fit' : said ? `, ${said.count} to look at` : ''}`}
      {...drag.listeners}
      onClick={(e) => {
        const above = ancestry(session.design, session.page, node.id).slice(0, -1);
        // What a combination hides is worked on from inside it.
        const inside = above.findLast((id) => session.design.nodes[id].kind === 'combination');
        const inEntered = session.state.entered;
        if (inside) session.enter(above[above.length - 1]);
        else if (inEntered && !above.includes(inEntered)) session.leave();
        if (e.shiftKey && selection.length) choose(session, rangeTo(node.id));
        else
          choose(
            session,
            e.ctrlKey || e.metaKey
              ? chosen
                ? selection.filter((x) => x !== node.id)
                : [...selection, node.id]
              : [node.id],
          );
      }}
      onDoubleClick={() => {
        if (isText(node)) beginEditing(session, node.id, null);
        else onRename(true);
      }}
      style={{ position: 'absolute', top, left: 0, right: 0, height: ROW, paddingLeft: 6 + row.depth * 12 }}
      className={`group flex items-center gap-1.5 border-b border-l-3 border-b-line pr-1 select-none ${chosen ? 'border-l-accent bg-field' : 'border-l-transparent'} ${drop.isOver && !drag.isDragging ? 'outline-2 outline-accent' : ''} ${node.hidden ? 'opacity-50' : ''}`}
    >
      {isHolder(node) ? (
        <span
          aria-hidden
          className="-mr-1 cursor-pointer"
          onPointerDown={(e) => e.stopPropagation()}
          onClick={(e) => {
            e.stopPropagation();
            onFold();
          }}
        >
          {folded ? <ChevronRight size={13} /> : <ChevronDown size={13} />}
        </span>
      ) : null}
      {node.kind === 'group' && node.layer ? (
        <Layers size={16} aria-hidden className="shrink-0 text-faint" />
      ) : (
        <PileThumb id={node.id} />
      )}
      {renaming ? (
        <RenameField
          name={node.name}
          onDone={(next) => {
            onRename(false);
            if (next !== null && next !== node.name)
              session.commit('Rename', (d) => setNodeFlags(d, [node.id], { name: next }));
          }}
        />
      ) : (
        <span
          title={name}
          className={`min-w-0 flex-1 truncate ${node.kind === 'group' && node.layer ? 'font-semibold' : ''}`}
        >
          {name}
        </span>
      )}
      {node.kind === 'group' && node.proof && (
        <span className="shrink-0 text-[11px] text-warn" title="For proof only: shown here, never printed">
          proof
        </span>
      )}
      {said && (
        <span
          title={said.text}
          className={`max-w-[42px] shrink-0 truncate rounded-full px-1.5 text-[11px] leading-[16px] font-semibold text-white ${said.stop ? 'bg-[#b3261e]' : 'bg-[#8a5a00]'}`}
        >
          {said.numbers}
        </span>
      )}
      <RowSwitch
        on={node.locked}
        label={node.locked ? `Unlock ${name}` : `Lock ${name}`}
        onClick={() =>
          session.commit(node.locked ? 'Unlock' : 'Lock', (d) => setNodeFlags(d, [node.id], { locked: !node.locked }))
        }
      >
        {node.locked ? <Lock size={13} aria-hidden /> : <LockOpen size={13} aria-hidden />}
      </RowSwitch>
      <RowSwitch
        on={node.hidden}
        label={node.hidden ? `Show ${name}` : `Hide ${name}`}
        onClick={() =>
          session.commit(node.hidden ? 'Show' : 'Hide', (d) => setNodeFlags(d, [node.id], { hidden: !node.hidden }))
        }
      >
        {node.hidden ? <EyeOff size={13} aria-hidden /> : <Eye size={13} aria-hidden />}
      </RowSwitch>
    </div>
  );
}

/** A small switch in a row for the pointer; by keyboard the commands Hide and Lock do the same. */
function RowSwitch({
  on,
  label,
  onClick,
  children,
}: {
  on: boolean;
  label: string;
  onClick: () => void;
  children: React.ReactNode;
}) {
  return (
    <span
      aria-hidden
      title={label}
      onPointerDown={(e) => e.stopPropagation()}
      onClick={(e) => {
        e.stopPropagation();
        onClick();
      }}
      className={`size-[22px] shrink-0 cursor-pointer place-items-center rounded-sm hover:bg-line ${on ? 'grid' : 'hidden text-faint group-hover:grid'}`}
    >
      {children}
    </span>
  );
}

function RenameField({ name, onDone }: { name: string; onDone: (next: string | null) => void }) {
  const [text, setText] = useState(name);
  return (
    <input
      autoFocus
      aria-label="New name"
      maxLength={200}
      className="h-6 w-full min-w-0 flex-1 rounded-sm border border-accent bg-field px-1 outline-none"
      value={text}
      onFocus={(e) => e.currentTarget.select()}
      onChange={(e) => setText(e.target.value)}
      onPointerDown={(e) => e.stopPropagation()}
      onBlur={() => onDone(text)}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Enter') onDone(text);
        if (e.key === 'Escape') onDone(null);
      }}
    />
  );
}
