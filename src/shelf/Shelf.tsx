'use client';
import { FolderOpen } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { record } from '@/core/edit/history';
import { refusalText, unpackDesign } from '@/core/file/archive';
import type { Assets } from '@/core/file/assets';
import type { Design } from '@/core/model/schema';
import { formatOf } from '@/core/units/formats';
import { formatLength } from '@/core/units/length';
import { browserEnv } from '@/env/browser';
import type { AsideRow, DesignRow } from '@/store/database';
import { saveKept } from '@/saving/saveCopy';
import type { ShelfDesign } from '@/saving/wholeShelf';
import { keepAssets } from '@/store/pack';
import { readState } from '@/store/designs';
import { designStore, seedDemo, storageProblem } from '@/store/open';
import { Button } from '@/ui/Button';
import { Mark } from '@/ui/Mark';
import { NewDesign } from './NewDesign';
import { DesignCard } from './DesignCard';
import { LeftOut } from './LeftOut';
import { drawMissing } from './missingThumbnails';
import { ChosenBar, ShelfBar } from './ShelfBar';
import { ShelfFoot } from './ShelfFoot';
import { useOpenDesigns } from './openElsewhere';
import { whyRefused } from './whyRefused';
import { folderNames, keepSort, moveTo, readFolders, readSort, shownRows, type Folders, type Sort } from './shelfOrder';

interface Said {
  readonly text: string;
  readonly tone: 'plain' | 'stop';
  readonly putBack?: () => void;
  /** Opens what is left of a damaged file. */
  readonly openRest?: () => void;
}

/** The design that newcomers are shown round on. */
const POSTER = 'lantern-walk-poster';
const WELCOMED = 'welcomed';

export function Shelf() {
  const router = useRouter();
  const [rows, setRows] = useState<readonly DesignRow[] | null>(null);
  const [asides, setAsides] = useState<readonly AsideRow[]>([]);
  const [refused, setRefused] = useState<string | null>(null);
  const [said, setSaid] = useState<Said | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const [looking, setLooking] = useState<{ query: string; sort: Sort; folder: string | null }>({
    query: '',
    sort: 'changed',
    folder: null,
  });
  const [welcome, setWelcome] = useState(false);
  const endWelcome = async () => {
    setWelcome(false);
    await designStore()
      .setSetting(WELCOMED, true)
      .catch(() => {});
  };
  const [folders, setFolders] = useState<Folders>({});
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const opened = useOpenDesigns();
  const all = rows ?? [];
  const names = folderNames(folders, all);
  const shown = shownRows(all, { ...looking, folders }, sizeOf);
  const picked = all.filter((r) => chosen.includes(r.id));

  const refresh = useCallback(async () => {
    const list = await designStore().list();
    setRows(list.filter((r) => !r.starter));
    setAsides(await designStore().asides());
    return list;
  }, []);

  useEffect(() => {
    let alive = true;
    void (async () => {
      try {
        await seedDemo(designStore());
        const list = await refresh();
        setFolders(await readFolders());
        setWelcome((await designStore().setting<boolean>(WELCOMED)) !== true);
        const sort = await readSort();
        setLooking((now) => ({ ...now, sort }));
        if (alive) await drawMissing(list, () => alive, refresh);
      } catch (e) {
        if (alive) setRefused(storageProblem(e));
      }
    })();
    return () => {
      alive = false;
    };
  }, [refresh]);

  const keep = async (design: Design, thumbnail: Uint8Array | null = null): Promise<boolean> => {
    try {
      await designStore().add(design, thumbnail);
      return true;
    } catch (e) {
      setSaid({ text: storageProblem(e), tone: 'stop' });
      return false;
    }
  };
  const make = async (design: Design) => {
    if (await keep(design)) router.push(`/bench/${design.id}`);
  };
  const open = async (f: File) => {
    const bytes = new Uint8Array(await f.arrayBuffer());
    const opened = unpackDesign(bytes);
    if (opened.ok) return openRead(f, opened);
    const whole = (await import('@/saving/wholeShelf')).unpackShelf(bytes);
    if (whole) return takeIn(whole);
    const mended = opened.code === 'broken' ? (await import('@/core/file/mend')).mendFile(bytes, browserEnv) : null;
    setSaid(
      mended
        ? {
            text: `${f.name} is damaged. What is sound in it can still be opened, and the file stays as it is. To be left out: ${mended.leftOut}`,
            tone: 'stop',
            openRest: () => void openRead(f, { ...mended, thumbnail: null }),
          }
        : { text: await whyRefused(opened, f.name, bytes), tone: 'stop' },
    );
  };
  /** All designs of a file of a whole shelf; what is here already comes in beside it. */
  const takeIn = async (whole: readonly ShelfDesign[]) => {
    const trouble: string[] = [];
    let came = 0;
    for (const { name, bytes, folder, states } of whole) {
      const opened = unpackDesign(bytes);
      const why = opened.ok ? await keepAssets(opened.assets, name).catch(storageProblem) : refusalText(opened, name);
      if (why || !opened.ok) {
        trouble.push(why!);
        continue;
      }
      const design = (await designStore().has(opened.design.id))
        ? { ...opened.design, id: browserEnv.newId() }
        : opened.design;
      // What came before it stays; why it ends here has been said.
      if (!(await keep(design, opened.thumbnail))) return void (await refresh());
      if (folder) setFolders(await moveTo([design.id], folder));
      for (const s of states) {
        const then = readState(s.design, s.version);
        if (then) await designStore().keepState(browserEnv.newId(), s.name, s.when, { ...then, id: design.id });
        else trouble.push(`The state “${s.name}” of ${design.name} cannot be read.`);
      }
      came++;
    }
    await refresh();
    setSaid({
      text: `${came} designs came onto the shelf.${trouble.length ? ` ${trouble.join(' ')}` : ''}`,
      tone: trouble.length ? 'stop' : 'plain',
    });
  };
  const openRead = async (
    f: File,
    opened: { readonly design: Design; readonly thumbnail: Uint8Array | null; readonly assets: Assets },
  ) => {
    const damaged = await keepAssets(opened.assets, f.name).catch(storageProblem);
    if (damaged) {
      setSaid({ text: damaged, tone: 'stop' });
      return;
    }
    // A file opened beside the design it was saved from is a design of its own.
    const design = (await designStore().has(opened.design.id))
      ? { ...opened.design, id: browserEnv.newId() }
      : opened.design;
    if (await keep(design, opened.thumbnail)) router.push(`/bench/${design.id}`);
  };
  const latest = async (row: DesignRow): Promise<Design | null> => {
    const loaded = await designStore().load(row.id);
    return loaded.ok ? loaded.value.design : null;
  };
  const remove = async (gone: readonly DesignRow[]) => {
    const removed = (await Promise.all(gone.map((row) => designStore().remove(row.id)))).filter((r) => r !== null);
    setChosen([]);
    await refresh();
    setSaid({
      text:
        gone.length === 1
          ? `Removed “${gone[0].name}” from the shelf.`
          : `Removed ${gone.length} designs from the shelf.`,
      tone: 'plain',
      ...(removed.length && {
        putBack: () => {
          void (async () => {
            try {
              for (const r of removed) await designStore().putBack(r);
              setSaid(null);
            } catch (e) {
              setSaid({ text: storageProblem(e), tone: 'stop' });
            }
            await refresh();
          })();
        },
      }),
    });
  };
  /** A name is a part of the design: renaming is a step that can be taken back there. */
  const rename = async (row: DesignRow, name: string) => {
    try {
      const loaded = await designStore().load(row.id);
      if (!loaded.ok || loaded.value.aside) throw new Error('unread');
      const { design, base, cursor } = loaded.value;
      const step = record(design, 'Rename', (d) => {
        d.name = name;
        d.modified = browserEnv.now();
      });
      if (step) await designStore().append(step.design, step.entry, base + cursor);
    } catch {
      setSaid({ text: `“${row.name}” could not be renamed. Open it, and change its name there.`, tone: 'stop' });
    }
    await refresh();
  };
  const move = async (which: readonly DesignRow[], to: string) => {
    try {
      setFolders(
        await moveTo(
          which.map((r) => r.id),
          to,
        ),
      );
      setChosen([]);
      setSaid({
        text: `${which.length === 1 ? `“${which[0].name}” is` : `${which.length} designs are`} in ${to ? `“${to}”` : 'no folder'} now.`,
        tone: 'plain',
      });
    } catch (e) {
      setSaid({ text: storageProblem(e), tone: 'stop' });
    }
  };
  const duplicate = async (row: DesignRow) => {
    const design = await latest(row);
    if (!design) {
      setSaid({
        text: `“${row.name}” cannot be read, so it cannot be duplicated. Save a copy hands out what is there.`,
        tone: 'stop',
      });
      return;
    }
    await keep(
      { ...design, id: browserEnv.newId(), name: `${design.name}, copy`, modified: browserEnv.now() },
      row.thumbnail,
    );
    await refresh();
  };
  const saveCopy = async (row: DesignRow) => {
    try {
      const note = await saveKept(row.id, row.thumbnail);
      if (note) setSaid({ text: `${row.name}: ${note}`, tone: 'stop' });
    } catch (e) {
      setSaid({ text: storageProblem(e), tone: 'stop' });
    }
  };
  const throwAway = async (row: AsideRow) => {
    await designStore().removeAside(row.id);
    await refresh();
    setSaid({
      text: 'Threw away what had been left out.',
      tone: 'plain',
      putBack: () =>
        void designStore()
          .keepAside(row)
          .then(refresh)
          .then(() => setSaid(null)),
    });
  };
  const bringDemo = async () => {
    await designStore().setSetting('demo-seeded', false);
    await seedDemo(designStore());
    await drawMissing(await refresh(), () => true, refresh);
  };

  return (
    <div
      className="min-h-dvh bg-bench"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        const f = e.dataTransfer.files[0];
        if (f) void open(f);
      }}
    >
      <header className="flex h-12 items-center gap-3 border-b border-line bg-panel px-4">
        <Mark />
        <span className="text-[15px] font-semibold">Holvet</span>
        <span className="text-faint">Shelf</span>
        <div className="ml-auto flex gap-2">
          <Button onClick={() => file.current?.click()}>
            <FolderOpen size={15} aria-hidden /> Open a file
          </Button>
          <NewDesign onMake={make} />
        </div>
        <input
          ref={file}
          type="file"
          accept=".holvet,.zip"
          aria-label="Open a design file"
          className="sr-only"
          tabIndex={-1}
          onChange={(e) => {
            const f = e.target.files?.[0];
            if (f) void open(f);
            e.target.value = '';
          }}
        />
      </header>
      <main className="mx-auto max-w-[1120px] p-6">
        <ShelfBar
          looking={looking}
          folders={names}
          onLook={(next) => {
            setLooking({ ...looking, ...next });
            if (next.sort) void keepSort(next.sort).catch(() => {});
          }}
        />
        {welcome && !refused && all.some((r) => r.id === POSTER) && (
          <div className="mb-4 flex items-center gap-3 rounded-sm border border-line bg-panel px-4 py-3">
            <p className="m-0 mr-auto">
              <span className="font-semibold">New here?</span> A walk of six steps over the demo poster shows what is
              where.
            </p>
            <Button
              kind="primary"
              onClick={() => {
                void endWelcome().finally(() => router.push(`/bench/${POSTER}?walk`));
              }}
            >
              Take the walk
            </Button>
            <Button onClick={() => void endWelcome()}>Not now</Button>
          </div>
        )}
        {said && (
          <p
            role="status"
            className={`mt-0 mb-4 flex items-center gap-3 rounded-sm border border-line bg-panel px-3 py-2 ${said.tone === 'stop' ? 'text-stop' : ''}`}
          >
            {said.text}
            {said.putBack && <Button onClick={said.putBack}>Put it back</Button>}
            {said.openRest && (
              <Button onClick={said.openRest} className="shrink-0">
                Open the rest
              </Button>
            )}
          </p>
        )}
        {refused ? (
          <p role="alert" className="rounded-sm border border-line bg-panel p-4 text-stop">
            {refused}
          </p>
        ) : rows === null ? (
          <p role="status">Looking at your shelf …</p>
        ) : rows.length === 0 ? (
          <div className="rounded-sm border border-line bg-panel p-8 text-center">
            <p className="mt-0 mb-1 text-[15px] font-semibold">The shelf is empty.</p>
            <p className="mt-0 mb-4 text-faint">
              Make a new design, drop a .holvet file here, or start from the demo poster.
            </p>
            <Button onClick={() => void bringDemo()}>Bring the demo back</Button>
          </div>
        ) : (
          <>
            {picked.length > 0 && (
              <ChosenBar
                many={picked.length}
                folders={names}
                onMove={(to) => void move(picked, to)}
                onDuplicate={() => void Promise.all(picked.map(duplicate)).then(() => setChosen([]))}
                onRemove={() => void remove(picked)}
                onNone={() => setChosen([])}
              />
            )}
            {shown.length === 0 ? (
              <p className="rounded-sm border border-line bg-panel p-6 text-center text-faint">
                No design is called that. Search for a shorter word, or look in all folders.
              </p>
            ) : (
              <ul className="m-0 grid list-none grid-cols-[repeat(auto-fill,minmax(200px,1fr))] gap-4 p-0">
                {shown.map((row) => (
                  <DesignCard
                    key={row.id}
                    row={row}
                    size={sizeOf(row)}
                    folder={folders[row.id]}
                    chosen={chosen.includes(row.id)}
                    open={opened.has(row.id)}
                    onChoose={(on) => setChosen(on ? [...chosen, row.id] : chosen.filter((id) => id !== row.id))}
                    onRename={(name) => void rename(row, name)}
                    onSave={() => void saveCopy(row)}
                    onDuplicate={() => void duplicate(row)}
                    onRemove={() => void remove([row])}
                  />
                ))}
              </ul>
            )}
          </>
        )}
        {rows && !refused && (
          <ShelfFoot rows={all} folders={folders} onSaid={(text, tone) => setSaid({ text, tone })} />
        )}
        {asides.length > 0 && (
          <LeftOut
            rows={asides}
            nameOf={(id) => rows?.find((r) => r.id === id)?.name ?? 'A design that is no longer here'}
            onThrow={throwAway}
          />
        )}
      </main>
    </div>
  );
}

function sizeOf(row: DesignRow): string {
  const { unit = 'mm', round = false } = row;
  const size = `${formatLength(row.width, unit, 1)} × ${formatLength(row.height, unit, 1)}`;
  const name = formatOf(row.width, row.height, round)?.name;
  return name ? `${name} · ${size}` : size;
}
