'use client';
import { ContextMenu } from 'radix-ui';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { isText } from '@/core/derive/layout';
import { canHoldText } from '@/core/edit/window';
import { isHolder } from '@/core/model/tree';
import { nameOf } from '../session/nameOf';
import { COMMAND_TABLE, runCommand, type CommandId } from '../commands/commands';
import { freeSelection } from '../session/commandDef';
import { useSession } from '../session/context';
import { backToBench } from '../session/focus';
import { keyText } from '../commands/keys';
import type { Session } from '../session/session';
import { beginEditing, writeInShape } from '../tools/editing';
import { choose, pick } from '../tools/pick';
import { toPage } from '../view/camera';

interface MenuRow {
  readonly label: string;
  readonly keys?: string;
  readonly run: () => void;
}

const row = (s: Session, id: CommandId, label = COMMAND_TABLE[id].label): MenuRow[] => {
  const c = COMMAND_TABLE[id];
  if (c.applies && !c.applies(s)) return [];
  return [{ label, ...(c.keys[0] && { keys: keyText(c.keys[0]) }), run: () => void runCommand(s, id) }];
};

/** What is most needed on what is chosen, in groups; a dozen rows at most. */
function rowsFor(s: Session): MenuRow[][] {
  const ids = freeSelection(s);
  const node = ids.length === 1 ? s.design.nodes[ids[0]] : undefined;
  if (!s.state.selection.length)
    return [
      [...row(s, 'edit.paste'), ...row(s, 'edit.pasteInPlace'), ...row(s, 'edit.selectAll')],
      [...row(s, 'page.add'), ...row(s, 'select.pileHere')],
    ];
  const own: MenuRow[] =
    node && isText(node)
      ? [{ label: 'Write in it', keys: 'Enter', run: () => beginEditing(s, node.id, null) }]
      : node && canHoldText(node)
        ? [{ label: 'Write in this shape', keys: 'Enter', run: () => writeInShape(s, node.id) }]
        : [];
  const grouped =
    node && isHolder(node)
      ? [...row(s, 'object.ungroup'), ...(node.kind === 'group' ? row(s, 'ready.keep') : [])]
      : ids.length > 1
        ? [
            ...row(s, 'object.group'),
            ...row(s, 'object.cutByFront'),
            ...row(s, 'text.onOutline'),
            ...row(s, 'text.runOn'),
          ]
        : [];
  const locked = s.state.selection.every((id) => s.design.nodes[id]?.locked);
  return [
    own,
    [...row(s, 'edit.copy'), ...row(s, 'edit.paste'), ...row(s, 'edit.duplicate')],
    [...row(s, 'object.front'), ...row(s, 'object.back')],
    [
      ...grouped,
      ...row(s, 'select.isolate'),
      ...row(s, 'object.lock', locked ? 'Unlock' : 'Lock'),
      ...row(s, 'select.pileHere'),
    ],
    row(s, 'object.delete'),
  ].filter((g) => g.length);
}

function chooseUnder(s: Session, el: HTMLElement, e: MouseEvent): void {
  const r = el.getBoundingClientRect();
  const screen = { x: e.clientX - r.left, y: e.clientY - r.top };
  const page = toPage(s.state.camera, screen);
  const found = pick(s, { page, screen, shift: false, alt: false, mod: false });
  if (!found) s.select([]);
  else if (!s.state.selection.includes(found.id)) choose(s, [found.id]);
}

/** A menu at the pointer: right button, or the menu key, pressed over the given element. */
export function PointerMenu({ over }: { over: RefObject<HTMLElement | null> }) {
  const session = useSession();
  const trigger = useRef<HTMLSpanElement>(null);
  const [rows, setRows] = useState<MenuRow[][]>([]);
  const [title, setTitle] = useState('');
  useEffect(() => {
    const el = over.current!;
    const ask = (e: MouseEvent) => {
      e.preventDefault();
      const { view, editing, tool } = session.state;
      if (view !== 'work' || tool === 'pen') return;
      // What lies under the pointer is meant, unless it is chosen already; by key, what is chosen.
      if (e.button === 2 && !editing) chooseUnder(session, el, e);
      const { clientX, clientY, button } = e;
      trigger.current?.dispatchEvent(
        new MouseEvent('contextmenu', { bubbles: true, cancelable: true, clientX, clientY, button }),
      );
    };
    el.addEventListener('contextmenu', ask);
    return () => el.removeEventListener('contextmenu', ask);
  }, [session, over]);
  return (
    <ContextMenu.Root
      onOpenChange={(open) => {
        if (!open) return;
        const { selection } = session.state;
        const first = session.design.nodes[selection[0]];
        setTitle(
          selection.length > 1 ? `${selection.length} objects` : first ? nameOf(session.design, first) : 'The page',
        );
        setRows(rowsFor(session));
      }}
    >
      <ContextMenu.Trigger asChild>
        <span ref={trigger} hidden />
      </ContextMenu.Trigger>
      <ContextMenu.Portal>
        <ContextMenu.Content
          collisionPadding={8}
          aria-label={title}
          style={{ boxShadow: 'var(--shadow)' }}
          className="z-40 min-w-[210px] rounded-sm border border-line bg-panel py-1 outline-none"
          onCloseAutoFocus={backToBench}
          onKeyDown={(e) => e.stopPropagation()}
        >
          <ContextMenu.Label title={title} className="max-w-[260px] truncate px-3 py-1 text-[12px] text-faint">
            {title}
          </ContextMenu.Label>
          {rows.map((group, i) => (
            <ContextMenu.Group key={i} className="border-t border-line py-1">
              {group.map((r) => (
                <ContextMenu.Item
                  key={r.label}
                  onSelect={() => setTimeout(r.run, 0)}
                  className="flex h-7 cursor-pointer items-center justify-between gap-6 px-3 outline-none data-[highlighted]:bg-accent data-[highlighted]:text-on-accent"
                >
                  <span>{r.label}</span>
                  <span className="text-[12px] opacity-80">{r.keys ?? ''}</span>
                </ContextMenu.Item>
              ))}
            </ContextMenu.Group>
          ))}
        </ContextMenu.Content>
      </ContextMenu.Portal>
    </ContextMenu.Root>
  );
}
