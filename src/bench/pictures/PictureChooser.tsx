'use client';
import { Search } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useRef, useState, type ReactNode } from 'react';
import { findDrawer, type DrawerPicture } from '@/demo/drawer';
import { Button } from '@/ui/Button';
import { Check } from '@/ui/Choice';
import { useBench, useSession } from '../session/context';
import { backToBench } from '../session/focus';
import { aimsAtGround } from '../session/ground';
import {
  chosenFrame,
  framePicture,
  pictureOnGround,
  PICTURE_FILES,
  placeDrawing,
  placeDrawn,
  placePicture,
  receiveFiles,
} from '../commands/pictures';

/** What can be placed: files of one's own, and the picture drawer. */
export function PictureChooser({ children }: { children: ReactNode }) {
  const session = useSession();
  const open = useBench((s) => s.pictureChooser);
  useBench((s) => s.selection);
  useBench((s) => s.aim);
  const [query, setQuery] = useState('');
  const [into, setInto] = useState(true);
  const input = useRef<HTMLInputElement>(null);
  const frame = chosenFrame(session);
  // With the ground aimed at and nothing chosen, a picture is meant for it.
  const ground = aimsAtGround(session);
  const onto = !into ? null : ground ? 'ground' : frame;
  const found = findDrawer(query);
  const shut = () => session.set({ pictureChooser: false });

  const take = async (row: DrawerPicture) => {
    shut();
    if (row.drawn) {
      const draw = await row.drawn();
      placeDrawn(session, draw(session.engines.env, session.engines.fonts));
      return;
    }
    if (!row.picture) {
      await placeDrawing(
        session,
        row.title,
        new Uint8Array(await session.engines.env.asset(`pictures/${row.file}`)),
        null,
      );
      return;
    }
    const picture = { name: row.title, file: row.file, ...row.picture };
    if (onto === 'ground') pictureOnGround(session, picture, row.tile === true);
    else if (onto) framePicture(session, picture, onto.id, onto.aim);
    else {
      placePicture(session, picture, null);
      session.say(`Placed ${row.title}. Double-click it to crop.`);
    }
  };
  return (
    <Popover.Root
      open={open}
      onOpenChange={(on) => {
        session.set({ pictureChooser: on });
        setQuery('');
        setInto(true);
      }}
    >
      <Popover.Trigger asChild>{children}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="right"
          align="start"
          collisionPadding={8}
          aria-label="Pictures"
          style={{ boxShadow: 'var(--shadow)' }}
          className="z-40 flex max-h-[min(620px,calc(100dvh-64px))] w-[340px] flex-col rounded-sm border border-line bg-panel outline-none"
          onKeyDown={(e) => e.stopPropagation()}
          onCloseAutoFocus={backToBench}
        >
          <div className="grid gap-2 border-b border-line p-3">
            <div className="flex items-center gap-2">
              <Button kind="primary" onClick={() => input.current?.click()}>
                Choose files
              </Button>
              <span className="text-[12px] text-faint">or drop them on the sheet, or paste</span>
              <input
                ref={input}
                type="file"
                multiple
                tabIndex={-1}
                aria-label="Picture files"
                className="sr-only"
                accept={PICTURE_FILES}
                onChange={(e) => {
                  const files = [...(e.target.files ?? [])];
                  e.target.value = '';
                  shut();
                  void receiveFiles(session, files, null, onto);
                }}
              />
            </div>
            {(ground || frame) && (
              <Check
                label={
                  ground
                    ? 'On the ground of the page'
                    : `Into ${session.design.nodes[frame!.id]?.name || 'what is chosen'}`
                }
                checked={into}
                onChange={setInto}
              />
            )}
          </div>
          <div className="flex items-center gap-2 border-b border-line px-3 py-2">
            <Search size={14} aria-hidden className="shrink-0 text-faint" />
            <input
              autoFocus
              aria-label="Search the picture drawer"
              placeholder="Search the drawer: sea, paper, night …"
              className="h-7 w-full min-w-0 bg-transparent outline-none"
              value={query}
              onChange={(e) => setQuery(e.target.value)}
              onKeyDown={(e) => e.key === 'Enter' && found.length > 0 && void take(found[0])}
            />
          </div>
          <ul
            aria-label="Picture drawer"
            className="m-0 grid min-h-0 flex-1 list-none grid-cols-3 gap-2 overflow-auto p-3"
          >
            {found.map((row) => (
              <li key={row.file}>
                <button
                  type="button"
                  className="grid w-full gap-1 rounded-sm border border-line bg-field p-1 text-left hover:border-accent"
                  onClick={() => void take(row)}
                >
                  <span aria-hidden className="checker block h-[64px] w-full overflow-hidden rounded-sm">
                    <span
                      className="block size-full bg-center"
                      style={{
                        backgroundImage: `url(/pictures/${row.file})`,
                        backgroundSize: row.tile ? '48px' : row.picture?.alpha || !row.picture ? 'contain' : 'cover',
                        backgroundRepeat: row.tile ? 'repeat' : 'no-repeat',
                      }}
                    />
                  </span>
                  <span title={row.title} className="truncate text-[12px]">
                    {row.title}
                  </span>
                  <span className="truncate text-[11px] text-faint">
                    {row.picture ? `${row.picture.width} × ${row.picture.height}${row.tile ? ', tile' : ''}` : 'shapes'}
                  </span>
                </button>
              </li>
            ))}
            {!found.length && (
              <li className="col-span-3 text-faint">
                Nothing in the drawer is called that. Try a plainer word, or choose a file.
              </li>
            )}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
