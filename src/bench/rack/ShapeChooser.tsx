'use client';
import { Search } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { FAMILIES, findShapes, SHAPES, shapeById, type AnyShape } from '@/core/shapes/catalogue';
import { useBench, useSession } from '../session/context';
import { WordChoice } from '@/ui/Choice';
import { comesLater } from '../session/comesLater';
import { backToBench } from '../session/focus';
import { ShapePicture } from './ShapePicture';

const COLUMNS = 7;
const ReadyMades = comesLater(() => import('./ReadyMades').then((m) => m.ReadyMades));

/** The catalogue of dialled shapes: last used first, then by family; a search finds them by everyday words. */
export function ShapeChooser({ children }: { children: ReactNode }) {
  const session = useSession();
  const shape = useBench((s) => s.shape);
  const recent = useBench((s) => s.recentShapes);
  const open = useBench((s) => s.shapeChooser);
  const part = useBench((s) => s.chooserPart);
  const [query, setQuery] = useState('');
  const [looked, setLooked] = useState<string | null>(null);
  const grid = useRef<HTMLDivElement>(null);
  const found = findShapes(query);
  const shown = shapeById(looked ?? '') ?? (query ? found[0] : undefined) ?? shapeById(shape) ?? SHAPES[0];

  const pick = (id: string) => {
    session.set({ tool: 'shape', shape: id, view: 'work', editing: null, shapeChooser: false });
    session.say(
      'Drag on the sheet to draw. Shift keeps proportion, Alt draws from the centre, Enter puts it in the middle.',
    );
  };
  /** Arrow keys go from picture to picture, up and down by where they lie. */
  const onArrow = (e: KeyboardEvent<HTMLDivElement>) => {
    if (!e.key.startsWith('Arrow') || !(e.target instanceof HTMLElement)) return;
    const all = [...(grid.current?.querySelectorAll<HTMLButtonElement>('button') ?? [])];
    const i = all.indexOf(e.target as HTMLButtonElement);
    if (i < 0) return;
    e.preventDefault();
    if (e.key === 'ArrowLeft' || e.key === 'ArrowRight') {
      all[i + (e.key === 'ArrowRight' ? 1 : -1)]?.focus();
      return;
    }
    const at = all[i].getBoundingClientRect();
    const down = e.key === 'ArrowDown';
    const rows = all.filter((b) =>
      down ? b.getBoundingClientRect().top > at.top + 4 : b.getBoundingClientRect().top < at.top - 4,
    );
    const near = (b: HTMLElement) =>
      Math.abs(b.getBoundingClientRect().top - at.top) * 10 + Math.abs(b.getBoundingClientRect().left - at.left);
    rows.sort((a, b) => near(a) - near(b))[0]?.focus();
  };
  const cell = (s: AnyShape) => (
    <button
      key={s.id}
      type="button"
      aria-pressed={shape === s.id}
      aria-label={s.name}
      title={s.name}
      onClick={() => pick(s.id)}
      onPointerEnter={() => setLooked(s.id)}
      onFocus={() => setLooked(s.id)}
      className={`grid size-[39px] place-items-center rounded-sm border ${shape === s.id ? 'border-accent bg-field' : 'border-transparent hover:bg-line'}`}
    >
      <ShapePicture id={s.id} size={28} />
    </button>
  );
  const family = (title: string, list: readonly AnyShape[]) =>
    list.length > 0 && (
      <section key={title} aria-label={title}>
        <h3 className="m-0 mt-2 mb-1 text-[12px] font-semibold text-faint">{title}</h3>
        <div className="grid" style={{ gridTemplateColumns: `repeat(${COLUMNS}, 39px)` }}>
          {list.map(cell)}
        </div>
      </section>
    );
  return (
    <Popover.Root
      open={open}
      onOpenChange={(on) => {
        session.set({ shapeChooser: on });
        setQuery('');
        setLooked(null);
      }}
    >
      <Popover.Trigger asChild>{children}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="right"
          align="start"
          collisionPadding={8}
          aria-label="Shapes"
          style={{ boxShadow: 'var(--shadow)' }}
          className={`z-40 flex max-h-[min(620px,calc(100dvh-64px))] ${part === 'ready' ? 'w-[392px]' : 'w-[300px]'} flex-col rounded-sm border border-line bg-panel outline-none`}
          onKeyDown={(e) => e.stopPropagation()}
          onCloseAutoFocus={backToBench}
        >
          <div className="border-b border-line p-2">
            <WordChoice
              label="What to put on the page"
              value={part}
              options={[
                { value: 'shapes', label: 'Shapes' },
                { value: 'ready', label: 'Ready-mades' },
              ]}
              onChange={(chooserPart) => session.set({ chooserPart })}
            />
          </div>
          {part === 'ready' ? (
            <ReadyMades onDone={() => session.set({ shapeChooser: false })} />
          ) : (
            <>
              <div className="flex items-center gap-2 border-b border-line px-3 py-2">
                <Search size={14} aria-hidden className="shrink-0 text-faint" />
                <input
                  autoFocus
                  aria-label="Search shapes"
                  placeholder="Search shapes: moon, flag, cog …"
                  className="h-7 w-full min-w-0 bg-transparent outline-none"
                  value={query}
                  onChange={(e) => {
                    setQuery(e.target.value);
                    setLooked(null);
                  }}
                  onKeyDown={(e) => {
                    if (e.key === 'Enter' && found.length) pick(found[0].id);
                    if (e.key === 'ArrowDown') {
                      e.preventDefault();
                      grid.current?.querySelector<HTMLButtonElement>('button')?.focus();
                    }
                  }}
                />
              </div>
              <div
                ref={grid}
                className="min-h-0 flex-1 overflow-auto px-3 pb-2"
                onKeyDown={onArrow}
                onPointerLeave={() => setLooked(null)}
              >
                {query ? (
                  found.length ? (
                    family(`${found.length} found`, found)
                  ) : (
                    <p className="my-3 text-faint">
                      No shape is called that. Try a plainer word, or draw it with the Pen.
                    </p>
                  )
                ) : (
                  <>
                    {family(
                      'Last used',
                      recent.flatMap((id) => shapeById(id) ?? []),
                    )}
                    {FAMILIES.map((f) =>
                      family(
                        f,
                        SHAPES.filter((s) => s.family === f),
                      ),
                    )}
                  </>
                )}
              </div>
              <div className="flex items-center gap-3 border-t border-line px-3 py-2">
                <ShapePicture id={shown.id} size={72} knobs />
                <div className="min-w-0">
                  <p className="m-0 font-semibold">{shown.name}</p>
                  <p className="m-0 text-[12px] text-faint">
                    {shown.params.length
                      ? `Knobs: ${shown.params.map((p) => p.label.toLowerCase()).join(', ')}`
                      : 'No knobs: its size is all there is to it'}
                  </p>
                </div>
              </div>
            </>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
