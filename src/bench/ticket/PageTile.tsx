'use client';
import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { MouseEvent } from 'react';
import type { Page } from '@/core/model/schema';
import { setupOn } from '@/core/model/setupOn';
import { spreadOf } from '@/core/model/tree';
import { count } from '../session/commandDef';
import { useSession } from '../session/context';
import { PageThumb } from './PageThumb';

/** The longer side of a page's picture, CSS pixels. */
const SIDE = 84;

/** Room beside it, so that spreads stand together: a lone page on the right leaves the left free. */
const PLACES = { left: '', right: 'mr-3', 'lone right': 'mr-3' } as const;

interface TileProps {
  readonly page: Page;
  readonly number: number;
  /** What is said of it as its number. */
  readonly label: string;
  readonly current: boolean;
  readonly picked: boolean;
  /** It stands on the master that is open. */
  readonly follows: boolean;
  /** Where it lies on its spread; null where pages stand alone. */
  readonly side: 'left' | 'right' | 'lone right' | null;
  readonly onPress: (e: MouseEvent) => void;
}

/** A page by its picture. */
export function PageTile({ page, number, label, current, picked, follows, side, onPress }: TileProps) {
  const session = useSession();
  const { width, height } = setupOn(session.design, page);
  const beside = spreadOf(session.design, page)?.other;
  const drag = useDraggable({ id: page.id });
  const drop = useDroppable({ id: page.id });
  // Those that face each other in one scale.
  const k = SIDE / Math.max(width, height, beside ? setupOn(session.design, beside).width : 0);
  const shown = drag.transform
    ? { transform: `translate(${drag.transform.x}px, ${drag.transform.y}px)`, zIndex: 1 }
    : {};
  return (
    <div
      ref={(el) => {
        drag.setNodeRef(el);
        drop.setNodeRef(el);
      }}
      style={shown}
      className={`relative ${side ? PLACES[side] : 'mr-2'} ${drop.isOver && !drag.isDragging ? 'outline-2 outline-accent' : ''}`}
    >
      <button
        type="button"
        aria-current={current ? 'page' : undefined}
        aria-pressed={picked}
        aria-label={`${page.name || `Page ${number}`}, ${count(page.children.length, 'object')}${page.master ? `, on ${masterName(session.design.masters, page.master)}` : ''}${follows ? ', stands on the open master' : ''}`}
        className={`grid cursor-pointer justify-items-center gap-1 rounded-sm border-2 bg-transparent py-1 ${side === 'left' ? 'pr-0 pl-1' : side ? 'pr-1 pl-0' : 'px-1'} ${picked ? 'border-accent' : 'border-transparent hover:border-line'}`}
        onClick={onPress}
        {...drag.listeners}
      >
        <span
          className={`grid items-center ${side === 'left' ? 'justify-end' : side ? 'justify-start' : 'justify-center'}`}
          style={{ width: side ? width * k : SIDE, height: height * k }}
        >
          <span className={follows ? 'outline-2 outline-offset-1 outline-accent outline-dashed' : ''}>
            <PageThumb page={page} width={width * k} height={height * k} />
          </span>
        </span>
        <span className={`max-w-[84px] truncate text-[12px] ${current ? 'font-semibold' : ''}`}>
          {page.name ? `${label} · ${page.name}` : label}
        </span>
      </button>
    </div>
  );
}

const masterName = (masters: readonly Page[] | undefined, id: string): string =>
  masters?.find((m) => m.id === id)?.name || 'a master';
