'use client';
import { Fragment, type ReactElement, type ReactNode } from 'react';
import { comesLater } from '../session/comesLater';
import { useBench, useSession } from '../session/context';
import { PICTURE_ROW, RACK, type RackRow } from '../tools/tools';

// Till a chooser is there its button stands alone; pressed, it opens when the chooser comes.
const PictureChooser = comesLater<{ children: ReactElement }>(
  () => import('../pictures/PictureChooser').then((m) => m.PictureChooser),
  ({ children }) => <Early opens="pictureChooser">{children}</Early>,
);
const ShapeChooser = comesLater<{ children: ReactElement }>(
  () => import('./ShapeChooser').then((m) => m.ShapeChooser),
  ({ children }) => <Early opens="shapeChooser">{children}</Early>,
);

function Early({ opens, children }: { opens: 'pictureChooser' | 'shapeChooser'; children: ReactNode }) {
  const session = useSession();
  return (
    <div className="contents" onClick={() => session.set({ [opens]: true })}>
      {children}
    </div>
  );
}

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
          <Fragment key={row.id}>
            <RackButton
              row={row}
              active={tool === row.id && view === 'work'}
              onClick={() => session.set({ tool: row.id, view: 'work', editing: null })}
            />
            {row.id === 'text' && <PictureButton />}
          </Fragment>
        ),
      )}
    </nav>
  );
}

type RackWord = Pick<RackRow, 'word' | 'letter' | 'icon'>;

function Word({ row }: { row: RackWord }) {
  const i = row.word.indexOf(row.letter);
  return (
    <span className="text-[12px] leading-none">
      {row.word.slice(0, i)}
      <span className="key-line">{row.word[i]}</span>
      {row.word.slice(i + 1)}
    </span>
  );
}

function RackButton({
  row,
  active,
  ...rest
}: { row: RackWord; active: boolean } & React.ButtonHTMLAttributes<HTMLButtonElement>) {
  const Icon = row.icon;
  return (
    <button
      type="button"
      aria-pressed={active}
      aria-label={row.word}
      title={`${row.word} (${row.letter.toUpperCase()})`}
      className={`flex h-10 w-full flex-col items-center justify-center gap-0.5 border-0 border-l-3 ${active ? 'border-accent bg-field text-accent' : 'border-transparent bg-transparent hover:bg-line'}`}
      {...rest}
    >
      <Icon size={17} aria-hidden strokeWidth={1.6} />
      <Word row={row} />
    </button>
  );
}

/** Pictures are no tool: the button opens what can be placed. */
function PictureButton() {
  const open = useBench((s) => s.pictureChooser);
  return (
    <PictureChooser>
      <RackButton row={PICTURE_ROW} active={open} />
    </PictureChooser>
  );
}

/** The shape tool opens its catalogue: choose one, then drag it onto the sheet. */
function ShapeTool({ row }: { row: RackRow }) {
  const tool = useBench((s) => s.tool);
  const view = useBench((s) => s.view);
  return (
    <ShapeChooser>
      <RackButton row={row} active={tool === 'shape' && view === 'work'} />
    </ShapeChooser>
  );
}
