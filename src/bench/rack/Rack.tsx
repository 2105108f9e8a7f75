'use client';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { pathBounds, draw } from '@/core/geometry/path';
import { SHAPES, shapePath } from '@/core/shapes/catalogue';
import { useBench, useSession } from '../session/context';
import { backToBench } from '../session/focus';
import { RACK, type RackRow } from '../tools/tools';

/** The tools, icon and word, in the order of the work. */
export function Rack() {
  const session = useSession();
  const tool = useBench((s) => s.tool);
  const view = useBench((s) => s.view);
  return (
    <nav aria-label="Tools" className="flex flex-col border-r border-line bg-panel py-1">
      {RACK.map((row) =>
        row.id === 'shape' ? (
          <ShapeTool key={row.id} row={row} />
        ) : (
          <RackButton key={row.id} row={row} active={tool === row.id && view === 'work'} onClick={() => session.set({ tool: row.id, view: 'work', editing: null })} />
        ),
      )}
    </nav>
  );
}

function Word({ row }: { row: RackRow }) {
  const i = row.word.indexOf(row.letter);
  return (
    <span className="text-[12px] leading-none">
      {row.word.slice(0, i)}
      <span className="key-line">{row.word[i]}</span>
      {row.word.slice(i + 1)}
    </span>
  );
}

function RackButton({ row, active, ...rest }: { row: RackRow; active: boolean } & React.ButtonHTMLAttributes<HTMLButtonElement>) {
  const Icon = row.icon;
  return (
    <button
      type="button"
      aria-pressed={active}
      aria-label={row.word}
      title={`${row.word} (${row.letter.toUpperCase()})`}
      className={`flex h-11 w-full flex-col items-center justify-center gap-1 border-0 border-l-3 ${active ? 'border-accent bg-field text-accent' : 'border-transparent bg-transparent hover:bg-line'}`}
      {...rest}
    >
      <Icon size={17} aria-hidden strokeWidth={1.6} />
      <Word row={row} />
    </button>
  );
}

/** The shape tool opens its catalogue: choose one, then drag it onto the sheet. */
function ShapeTool({ row }: { row: RackRow }) {
  const session = useSession();
  const tool = useBench((s) => s.tool);
  const shape = useBench((s) => s.shape);
  const view = useBench((s) => s.view);
  const [open, setOpen] = useState(false);
  const pick = (id: string) => {
    session.set({ tool: 'shape', shape: id, view: 'work', editing: null });
    setOpen(false);
    session.say('Drag on the sheet to draw. Shift keeps proportion, Alt draws from the centre, Enter puts it in the middle.');
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <RackButton row={row} active={tool === 'shape' && view === 'work'} />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content side="right" align="start" aria-label="Shapes" style={{ boxShadow: 'var(--shadow)' }} className="z-40 w-[292px] rounded-sm border border-line bg-panel p-3 outline-none" onKeyDown={(e) => e.stopPropagation()} onCloseAutoFocus={backToBench}>
          <h2 className="m-0 mb-2 text-[15px] font-semibold">Shapes</h2>
          <div className="grid grid-cols-4 gap-1">
            {SHAPES.map((s) => (
              <button key={s.id} type="button" aria-pressed={shape === s.id} onClick={() => pick(s.id)} className={`grid justify-items-center gap-1 rounded-sm border p-1.5 text-[12px] ${shape === s.id ? 'border-accent bg-field' : 'border-transparent hover:bg-line'}`}>
                <ShapePicture id={s.id} size={34} />
                {s.name}
              </button>
            ))}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

export function ShapePicture({ id, size }: { id: string; size: number }) {
  const path = shapePath(id, {}, size, size * (id === 'rectangle' || id === 'arrow' || id === 'chevron' ? 0.72 : 1));
  const box = pathBounds(path);
  let d = '';
  draw(path, {
    moveTo: (x, y) => void (d += `M${x} ${y}`),
    lineTo: (x, y) => void (d += `L${x} ${y}`),
    curveTo: (a, b, c, e, x, y) => void (d += `C${a} ${b} ${c} ${e} ${x} ${y}`),
    close: () => void (d += 'Z'),
  });
  return (
    <svg width={size} height={size} viewBox={`${box.x0 - 1} ${box.y0 - 1} ${box.x1 - box.x0 + 2} ${box.y1 - box.y0 + 2}`} aria-hidden>
      <path d={d} fill="currentColor" fillRule="nonzero" opacity="0.75" />
    </svg>
  );
}
